import { beatTicks, quarterTempo, TICKS_PER_QUARTER, type Schools } from '../time';
import { isHand, type Hand, type Level, type Voice } from '../stroke';
import { placeWords, type Pattern } from '../pattern';

/** One stroke that hands share. */
export interface HandStroke {
  /** Index in the pattern's strokes. */
  readonly index: number;
  readonly voice: Voice;
  readonly level: Level;
}

/** All that hands strike at one moment: one stroke for either hand, or two for both. */
export interface HandEvent {
  readonly at: number;
  /** Seconds from the beginning at the stated tempo. */
  readonly seconds: number;
  readonly strokes: readonly [HandStroke] | readonly [HandStroke, HandStroke];
  /** Whether it falls on a counted beat, and its slot from the bar line (with a fraction off the grid). */
  readonly downbeat: boolean;
  readonly slot: number;
  /** Limb of each stroke that is pinned; null for free. */
  readonly pins: readonly (Hand | null)[];
}

/** A moment no two hands can play as it is wanted, with what could give. */
export interface Unplayable {
  readonly at: number;
  readonly words: string;
}

export interface Rhythm {
  readonly events: readonly HandEvent[];
  readonly unplayable: readonly Unplayable[];
}

/** Pins by the index of the stroke in the pattern. */
export type Pins = ReadonlyMap<number, Hand>;

/**
 * The hands' part of a pattern as moments in seconds, each voice as it is played (`on`: what a kit has instead of it).
 * Feet are left out; what two hands cannot strike is named by count.
 */
export function rhythmOf(
  pattern: Pattern,
  bpm: number,
  pins: Pins,
  schools: Schools,
  on: (voice: Voice) => Voice = (v) => v,
): Rhythm {
  const secondsPerTick = 60 / (quarterTempo(bpm, pattern.meter) * TICKS_PER_QUARTER);
  const beat = beatTicks(pattern.meter);
  const moments = new Map<number, HandStroke[]>();
  pattern.strokes.forEach((s, index) => {
    if (!isHand(s.limb)) return;
    moments.set(s.at, [...(moments.get(s.at) ?? []), { index, voice: on(s.voice), level: s.level }]);
  });
  const unplayable: Unplayable[] = [];
  const events = [...moments].flatMap(([at, strokes]): HandEvent[] => {
    const where = placeWords(pattern, at, schools);
    const own = strokes.map((s) => pins.get(s.index) ?? null);
    const [one, two, ...more] = strokes;
    if (!one) return [];
    if (more.length > 0) {
      unplayable.push({
        at,
        words: `${strokes.length} strokes for two hands on ${where}. Leave one out, or give one to a foot.`,
      });
      return [];
    }
    if (own.length === 2 && own[0] !== null && own[0] === own[1]) {
      unplayable.push({ at, words: `One hand is wanted in two places on ${where}. Let one of the two pins go.` });
      return [];
    }
    const tick = pattern.start + at;
    return [
      {
        at,
        seconds: at * secondsPerTick,
        strokes: two ? [one, two] : [one],
        downbeat: tick % beat === 0,
        slot: tick / pattern.grid,
        pins: own,
      },
    ];
  });
  return { events, unplayable };
}
