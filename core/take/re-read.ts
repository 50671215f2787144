import { lengthsAt, expectedIn, type Rendition } from '../rendition';
import { align } from './align';
import type { KeptTake } from './kept';
import { readTake, type TakeReading } from './reading';

/**
 * A kept take read again against what was meant: as many turns as its last hit reaches. Null where nothing was struck.
 */
export function readAgain(take: Pick<KeptTake, 'hits' | 'bpm'>, meant: Rendition): TakeReading | null {
  const last = Math.max(...take.hits.map((h) => h.seconds));
  if (!Number.isFinite(last)) return null;
  const { turn: loop, beat } = lengthsAt(meant, take.bpm);
  if (loop <= 0) return null;
  // What comes late in a turn does not begin another.
  const turns = Math.max(1, Math.ceil((last - beat / 2) / loop));
  const expected = expectedIn(meant, take.bpm, 0, Math.min(MOST_TURNS, turns));
  if (expected.length === 0) return null;
  return readTake(expected, take.hits, align(expected, take.hits, { beat }));
}

/** A take is read no further than so many turns. */
const MOST_TURNS = 64;
