import { barTicks, ticks, type Meter } from '../../time';
import { isHand, type Voice } from '../../stroke';
import type { Pattern } from '../../pattern';
import { stickings, type StickingSchool } from '../../sticking';
import { velocityOfLevel, type GridChoice, type HeardStroke, type PieceOf } from '../../listen';
import { takeBars, type TakenBars, type TakeWish } from './take';
import type { Song, SongNote } from './song';

/** What was heard, as bars: strokes from the first bar line on. */
export interface HeardBars {
  readonly meter: Meter;
  readonly many: number;
  /** Counted beats a minute. */
  readonly bpm: number;
  readonly strokes: readonly HeardStroke[];
  readonly choice: GridChoice;
  readonly pieces: PieceOf;
}

/** One way to play what was heard. */
export interface HeardWay {
  readonly school: StickingSchool;
  readonly pattern: Pattern;
  readonly words: readonly string[];
  /** Whether nothing in it is too fast at the tempo of the record. */
  readonly fits: boolean;
}

/**
 * What was heard as a pattern: strokes on their slots, low, middle and bright as the pieces they stand for, hands that
 * the player named as they said. Null where nothing was heard.
 */
export function heardPattern(heard: HeardBars, wish: Omit<TakeWish, 'choice' | 'bpm'>): TakenBars | null {
  const { meter, many, bpm, strokes, choice, pieces } = heard;
  const bar = barTicks(meter);
  const notes = strokes.flatMap((s): SongNote[] =>
    s.kinds.map((kind) => {
      const voice: Voice = pieces[kind];
      // The hand that was named is that of the drum, where a cymbal sounds with it.
      const limb = s.hand !== null && (kind === 'drum' || !s.kinds.includes('drum')) ? { limb: s.hand } : {};
      // A cymbal that keeps time under a ghost or an accent is neither.
      const level = kind === 'cymbal' && s.kinds.length > 1 ? 'tap' : s.level;
      return {
        at: s.at,
        voice,
        sound: kind,
        velocity: velocityOfLevel(level),
        level,
        ...(kind === 'kick' ? {} : limb),
      };
    }),
  );
  const song: Song = {
    name: '',
    bpm,
    tempos: 1,
    bars: Array.from({ length: many }, (_, i) => ({ number: i + 1, at: i * bar, meter })),
    notes,
    channels: [],
    feel: choice.feel,
    written: true,
    own: null,
  };
  const taken = takeBars(song, 0, many, { ...wish, bpm, choice: null });
  if (!taken) return null;
  const onGrid = taken.pattern.strokes.every((s) => s.at % choice.grid === 0);
  return {
    ...taken,
    pattern: { ...taken.pattern, grid: onGrid ? choice.grid : taken.pattern.grid, feel: choice.feel },
    hands: taken.hands.map((w) => w.replace(/^(\d+ of \d+) hands by the file/, '$1 hands as you said')),
  };
}

/** The ways to stick what was heard, a way of each school that has one; hands that were named stay. */
export function heardWays(
  pattern: Pattern,
  strokes: readonly HeardStroke[],
  bpm: number,
  { kit, profile, schools }: Required<Omit<TakeWish, 'choice' | 'bpm'>>,
): readonly HeardWay[] {
  const named = new Map(strokes.flatMap((s) => (s.hand === null ? [] : [[s.at as number, s.hand] as const])));
  const pins = new Map(
    pattern.strokes.flatMap((s, i) => {
      const hand = named.get(s.at);
      return hand !== undefined && isHand(s.limb) && s.limb === hand ? [[i, hand] as const] : [];
    }),
  );
  const { found } = stickings(pattern, { bpm, kit, profile, pins, schools, many: 1, apart: 1 });
  return found.map(({ school, pattern: stuck, words, fits }) => ({ school, pattern: stuck, words, fits }));
}

/** The part of a pattern from its beginning on as a cell of its own. */
export function cellOf(pattern: Pattern, length: number): Pattern {
  return {
    ...pattern,
    length: ticks(length),
    strokes: pattern.strokes.filter((s) => s.at < length),
    groups: [{ at: ticks(0), length: ticks(length), repeat: 0, kind: 'cell' }],
  };
}
