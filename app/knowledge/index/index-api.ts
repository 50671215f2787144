import type { IndexEngine } from './index-engine';

/** The index as the page sees it: it answers from a worker. */
export type IndexApi = Pick<
  IndexEngine,
  | 'ask'
  | 'rows'
  | 'patternsOf'
  | 'names'
  | 'alike'
  | 'map'
  | 'show'
  | 'goalOf'
  | 'firsts'
  | 'demandsFor'
  | 'stepsTo'
  | 'nextToLearn'
  | 'next'
  | 'called'
  | 'kin'
  | 'forms'
  | 'lessons'
  | 'plan'
  | 'believed'
  | 'shareFor'
  | 'phraseLog'
  | 'lookBack'
  | 'readSitting'
  | 'justPlayed'
  | 'usage'
  | 'callables'
> & {
  about(...args: Parameters<IndexEngine['about']>): void;
  stopReading(): void;
  end(): void;
};
