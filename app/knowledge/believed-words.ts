import { count } from '@core/base';
import { earlyWords } from '@core/player';
import type { Believed } from './index/entry';

/** What a ready tempo is, and what it rests on; or what is missing before one can be told. */
export function restsOfReady({ ready, tries, days }: Pick<Believed, 'ready' | 'tries' | 'days'>): string {
  const from = `from ${count(tries, 'try', 'tries')} on ${count(days, 'day')}`;
  return ready.kind === 'early'
    ? `Too early to say what is ready: it takes ${earlyWords(ready)}. So far ${count(tries, 'try', 'tries')} on ${count(days, 'day')}`
    : `Ready: the tempo you play clean 4 times in 5 today. Range ${ready.low}–${ready.high}, ${from}`;
}

/** The tempo that is ready; null where it is too early to say. */
export const readyBpm = (believed: Pick<Believed, 'ready'> | null): number | null =>
  believed?.ready.kind === 'ready' ? believed.ready.bpm : null;
