import { quarterTempo, TICKS_PER_QUARTER, type Schools } from '../time';
import { isHand, VOICE, type Hand, type Level, type Voice } from '../stroke';
import { loopTicks, placeWords, type Pattern } from '../pattern';
import { leanings, timePiece, type Leaning } from './leanings';

/** One stroke that hands share. */
export interface HandStroke {
  /** Index in the pattern's strokes. */
  readonly index: number;
  readonly voice: Voice;
  readonly level: Level;
  /** Whether it is on the piece that keeps time. */
  readonly time: boolean;
}

/** All that hands strike at one moment: one stroke for either hand, or two for both. */
export interface HandEvent {
  readonly at: number;
  /** Seconds from the beginning at the stated tempo. */
  readonly seconds: number;
  readonly strokes: readonly [HandStroke] | readonly [HandStroke, HandStroke];
  /** Seconds since the moment before, going round. */
  readonly gap: number;
  /** What schools see in it. */
  readonly leaning: Leaning;
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
  /** Seconds after which it comes round. */
  readonly loop: number;
  /** Whether something of it keeps time: a hi-hat, a ride, a crash. */
  readonly keepsTime: boolean;
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
  const moments = new Map<number, HandStroke[]>();
  const piece = timePiece(pattern.strokes.flatMap((s) => (isHand(s.limb) ? [s.voice] : [])));
  pattern.strokes.forEach((s, index) => {
    if (!isHand(s.limb)) return;
    const stroke = { index, voice: on(s.voice), level: s.level, time: VOICE[s.voice].piece === piece };
    moments.set(s.at, [...(moments.get(s.at) ?? []), stroke]);
  });
  const loop = loopTicks(pattern);
  const listed = [...moments].map(([at, strokes]) => ({ at, strokes }));
  const seen = leanings(listed, pattern.meter, pattern.start, loop);
  const unplayable: Unplayable[] = [];
  const events = listed.flatMap(({ at, strokes }, i): HandEvent[] => {
    const where = placeWords(pattern, at, schools);
    const own = strokes.map((s) => pins.get(s.index) ?? null);
    const [one, two, ...more] = strokes;
    if (!one) return [];
    if (more.length > 0) {
      unplayable.push({
        at,
        words: `${strokes.length} strokes for two hands at ${where}. Remove one, or give one to a foot.`,
      });
      return [];
    }
    if (own.length === 2 && own[0] !== null && own[0] === own[1]) {
      unplayable.push({ at, words: `One hand is pinned to two pieces at ${where}. Unpin one of the two.` });
      return [];
    }
    const before = listed[(i + listed.length - 1) % listed.length]?.at ?? at;
    const leaning = seen[i];
    return leaning === undefined
      ? []
      : [
          {
            at,
            seconds: at * secondsPerTick,
            strokes: two ? [one, two] : [one],
            gap: ((at - before + loop) % loop || loop) * secondsPerTick,
            leaning,
            pins: own,
          },
        ];
  });
  return { events, unplayable, loop: loop * secondsPerTick, keepsTime: piece !== null };
}
