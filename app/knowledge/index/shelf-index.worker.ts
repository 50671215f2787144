import { expose } from 'comlink';
import type { IndexApi } from './index-api';
import { IndexEngine, type Tell } from './index-engine';

type IndexEvent = Parameters<Tell>[0];

let engine: IndexEngine | null = null;
let listener: Tell | null = null;
/** What was told before somebody listened. */
const early = new Set<IndexEvent>();

function tell(what: IndexEvent): void {
  if (listener) listener(what);
  else early.add(what);
}

const own = (): IndexEngine => {
  if (!engine) throw new Error('the index is not open');
  return engine;
};

expose({
  open: (name: string) => void (engine = new IndexEngine(name, tell)),
  listen(to: Tell) {
    listener = to;
    early.forEach(to);
    early.clear();
  },
  about: (...args: Parameters<IndexEngine['about']>) => own().about(...args),
  ask: (...args: Parameters<IndexEngine['ask']>) => own().ask(...args),
  rows: (...args: Parameters<IndexEngine['rows']>) => own().rows(...args),
  patternsOf: (...args: Parameters<IndexEngine['patternsOf']>) => own().patternsOf(...args),
  names: (...args: Parameters<IndexEngine['names']>) => own().names(...args),
  alike: (...args: Parameters<IndexEngine['alike']>) => own().alike(...args),
  map: (...args: Parameters<IndexEngine['map']>) => own().map(...args),
  show: (...args: Parameters<IndexEngine['show']>) => own().show(...args),
  goalOf: (...args: Parameters<IndexEngine['goalOf']>) => own().goalOf(...args),
  firsts: (...args: Parameters<IndexEngine['firsts']>) => own().firsts(...args),
  demandsFor: (...args: Parameters<IndexEngine['demandsFor']>) => own().demandsFor(...args),
  stepsTo: (...args: Parameters<IndexEngine['stepsTo']>) => own().stepsTo(...args),
  nextToLearn: (...args: Parameters<IndexEngine['nextToLearn']>) => own().nextToLearn(...args),
  next: (...args: Parameters<IndexEngine['next']>) => own().next(...args),
  called: (...args: Parameters<IndexEngine['called']>) => own().called(...args),
  kin: (...args: Parameters<IndexEngine['kin']>) => own().kin(...args),
  plan: (...args: Parameters<IndexEngine['plan']>) => own().plan(...args),
  believed: (...args: Parameters<IndexEngine['believed']>) => own().believed(...args),
  shareFor: (...args: Parameters<IndexEngine['shareFor']>) => own().shareFor(...args),
  phraseLog: (...args: Parameters<IndexEngine['phraseLog']>) => own().phraseLog(...args),
  lookBack: () => own().lookBack(),
  readSitting: (...args: Parameters<IndexEngine['readSitting']>) => own().readSitting(...args),
  stopReading: () => own().stopReading(),
  justPlayed: (...args: Parameters<IndexEngine['justPlayed']>) => own().justPlayed(...args),
  usage: () => own().usage(),
  callables: (...args: Parameters<IndexEngine['callables']>) => own().callables(...args),
  forms: () => own().forms(),
  lessons: () => own().lessons(),
  end: () => own().end(),
  // What the page may ask is here, all of it.
} satisfies Record<keyof IndexApi | 'open' | 'listen', unknown>);
