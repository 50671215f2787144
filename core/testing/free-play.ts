// Somebody plays freely: a groove, and phrases of a shelf among it. None of it is the formula by which they are found.
import { barTicks, beatTicks, GRID, quarterTempo, ticks, TICKS_PER_QUARTER, type Meter } from '../time';
import { isHand, type Stroke, type Voice } from '../stroke';
import { canonicalForm } from '../variants';
import type { Pattern } from '../pattern';
import type { Hit } from '../take';
import type { UsablePhrase } from '../usage';
import { bell } from './learners';

function pick<T>(roll: () => number, all: readonly T[]): T {
  const one = all[Math.floor(roll() * all.length)];
  if (one === undefined) throw new Error('there is nothing to pick');
  return one;
}

/** A phrase by chance, of eight to sixteen slots, with accents, a kick here and there, and drums. */
export function somePhrase(roll: () => number, meter: Meter, grid: number): Pattern {
  const slots = pick(roll, grid === GRID.triplets ? [6, 9, 12] : [8, 12, 16]);
  const drums: readonly Voice[] = pick(roll, [
    ['snare'],
    ['snare', 'high-tom'],
    ['snare', 'floor-tom'],
    ['snare', 'high-tom', 'floor-tom'],
  ] as Voice[][]);
  let hand: 'R' | 'L' = pick(roll, ['R', 'L'] as const);
  const strokes: Stroke[] = [];
  for (let i = 0; i < slots; i++) {
    const what = roll();
    if (what < 0.12) continue;
    const from = { index: i, repeat: 0, move: null };
    if (what < 0.3) strokes.push({ limb: 'K', level: 'tap', voice: 'kick', at: ticks(i * grid), from });
    else {
      if (roll() < 0.7) hand = hand === 'R' ? 'L' : 'R';
      const level = roll() < 0.3 ? 'accent' : roll() < 0.5 ? 'ghost' : 'tap';
      strokes.push({
        limb: hand,
        level,
        voice: level === 'accent' ? pick(roll, drums) : 'snare',
        at: ticks(i * grid),
        from,
      });
    }
  }
  return {
    meter,
    grid: ticks(grid),
    feel: { kind: 'straight' },
    start: ticks(0),
    length: ticks(slots * grid),
    strokes,
    groups: [],
  };
}

export function someShelf(roll: () => number, many: number, meter: Meter): readonly UsablePhrase[] {
  return Array.from({ length: many }, (_, i): UsablePhrase => {
    // Triplets are not played in a bar they do not go into.
    const triplets = roll() < 0.25 && barTicks(meter) % GRID.triplets === 0;
    let pattern = somePhrase(roll, meter, triplets ? GRID.triplets : GRID.sixteenths);
    while (pattern.strokes.length < 6) pattern = somePhrase(roll, meter, pattern.grid);
    return { id: `p${i}`, pattern, form: canonicalForm(pattern) };
  });
}

/** What was played of a phrase, in ticks from the first bar line. */
export interface Truth {
  readonly id: string;
  readonly at: number;
  readonly until: number;
}

export interface FreePlay {
  readonly meter: Meter;
  readonly bpm: number;
  readonly bars: number;
  /** So often a bar has a phrase begun in it. */
  readonly often: number;
  /** Milliseconds, and shares of strokes that are missed and added; ghosts that the pad loses. */
  readonly scatter: number;
  readonly missed: number;
  readonly extra: number;
  readonly ghostsLost: number;
  /** Whether phrases are cut short now and then, and begun on any slot. */
  readonly cut: boolean;
  readonly anywhere: boolean;
  readonly groove: number;
}

/** Grooves to play over, by the bar, in sixteenths: hat, snare, kick. */
const GROOVES: readonly (readonly (readonly [slot: number, voice: Voice, loud: boolean])[])[] = [
  [0, 2, 4, 6, 8, 10, 12, 14]
    .map((s) => [s, 'hat-closed', false] as const)
    .concat([
      [4, 'snare', true],
      [12, 'snare', true],
      [0, 'kick', true],
      [10, 'kick', true],
    ] as never),
  [0, 1, 2, 3, 5, 6, 7, 8, 9, 10, 11, 13, 14, 15]
    .map((s) => [s, 'hat-closed', false] as const)
    .concat([
      [4, 'snare', true],
      [12, 'snare', true],
      [0, 'kick', true],
      [7, 'kick', true],
      [8, 'kick', true],
    ] as never),
  [0, 4, 6, 8, 12, 14]
    .map((s) => [s, 'ride', false] as const)
    .concat([
      [2, 'snare', false],
      [10, 'snare', false],
      [0, 'kick', true],
      [11, 'kick', true],
    ] as never),
];

/** A sitting: what was struck, and what was meant. */
export function playFreely(
  roll: () => number,
  shelf: readonly UsablePhrase[],
  of: FreePlay,
): { readonly hits: readonly Hit[]; readonly truth: readonly Truth[] } {
  const bar = barTicks(of.meter);
  const struck: { readonly tick: number; readonly voice: Voice; readonly force: number }[] = [];
  const truth: Truth[] = [];
  const groove = GROOVES[of.groove] ?? [];
  const busy: { readonly from: number; readonly until: number }[] = [];
  let free: number = bar;
  for (let b = 1; b < of.bars - 2; b++) {
    if (roll() > of.often || b * bar < free) continue;
    const one = pick(roll, shelf);
    const { grid, length, strokes } = one.pattern;
    const step = of.anywhere ? grid : beatTicks(of.meter);
    const at = b * bar + Math.floor((roll() * bar) / step) * step;
    const until = at + (of.cut && roll() < 0.2 ? Math.ceil((0.6 * length) / grid) * grid : length);
    for (const s of strokes)
      if (at + s.at < until && !(s.level === 'ghost' && roll() < of.ghostsLost))
        struck.push({ tick: at + s.at, voice: s.voice, force: forceOf(roll, isHand(s.limb) ? s.level : 'tap') });
    truth.push({ id: one.id, at, until });
    busy.push({ from: at, until });
    free = until + bar / 2;
  }
  for (let b = 0; b < of.bars; b++)
    for (const [slot, voice, loud] of groove) {
      const tick = b * bar + slot * GRID.sixteenths;
      if (slot * GRID.sixteenths < bar && !busy.some((p) => tick >= p.from && tick < p.until))
        struck.push({ tick, voice, force: forceOf(roll, loud ? 'accent' : 'tap') });
    }
  const seconds = (tick: number): number => (tick * 60) / (quarterTempo(of.bpm, of.meter) * TICKS_PER_QUARTER);
  const hits = struck.flatMap(({ tick, voice, force }): Hit[] => {
    if (roll() < of.missed) return [];
    const hit = (at: number): Hit => ({ seconds: at, limb: null, voice, velocity: force });
    const own = hit(seconds(tick) + (of.scatter / 1000) * bell(roll));
    return roll() < of.extra ? [own, hit(own.seconds + 0.06 + 0.2 * roll())] : [own];
  });
  return { hits: hits.sort((a, b) => a.seconds - b.seconds), truth };
}

function forceOf(roll: () => number, level: 'accent' | 'tap' | 'ghost'): number {
  const middle = level === 'accent' ? 104 : level === 'tap' ? 66 : 34;
  return Math.max(1, Math.min(127, Math.round(middle + 9 * bell(roll))));
}
