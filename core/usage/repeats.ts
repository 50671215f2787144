import { barTicks, beatTicks, GRID, ticks, type Meter } from '../time';
import { otherHand, type Limb, type Stroke, type Voice } from '../stroke';
import { tidy, type Pattern } from '../pattern';
import { latticeOf, type Kind, type Lattice, type SlotHit } from './lattice';
import { codesOf, grooveSlots } from './groove';
import { LEAST_STROKES } from './profile';
import type { Played } from './ground';
import type { Came } from './recognise';

/** Something that was played three times or more and is no phrase of the shelf. */
export interface Figure {
  /** As it was played most often; where no limbs were told the hands alternate. */
  readonly pattern: Pattern;
  /** Where it begins each time, in ticks from the first bar line. */
  readonly at: readonly number[];
  /** Whether all times were alike to the stroke. */
  readonly exact: boolean;
}

/** So often it is played to be told. */
const OFTEN = 3;
/** So much of a figure must be something else than the groove. */
const OWN = 0.6;
/** One slot in so many may differ between two times of a figure. */
const DIFFERS = 8;
/** Figures are told from half a bar up to so many bars, and so many of them. */
const MOST_BARS = 2;
const MOST_FIGURES = 12;

/** What was played on a grid, slot by slot, ready to be compared. */
interface Line {
  readonly grid: number;
  readonly lattice: Lattice;
  /** The same number for slots that sound alike; 0 where nothing was struck. */
  readonly codes: Int32Array;
  /** Running sums: of strokes, of what is the groove or a phrase, of hits that lie in no slot. */
  readonly strokes: Int32Array;
  readonly known: Int32Array;
  readonly beside: Int32Array;
  readonly hash: Uint32Array;
  readonly power: Uint32Array;
}

/**
 * Figures that came three times or more, exactly or nearly, and are nobody's: neither a phrase that was recognised nor
 * the groove, which is what comes at the same place of every third bar. The longest first.
 * @example
 * figuresIn({ hits: [], meter: meter(4, 4), bpm: 100 }, []) // => []
 */
export function figuresIn(played: Played, came: readonly Came[]): readonly Figure[] {
  const bar = barTicks(played.meter);
  const taken: { readonly from: number; readonly until: number }[] = [];
  const found: Figure[] = [];
  for (const grid of [GRID.sixteenths, GRID.triplets, GRID.sextuplets]) {
    if (bar % grid !== 0) continue;
    const line = lineOf(played, grid, came);
    const half = Math.max(2, Math.round(beatTicks(played.meter) / grid / 2));
    for (let long = (MOST_BARS * bar) / grid; long * grid >= bar / 2; long -= half) {
      for (const starts of clustersOf(line, Math.floor(long))) {
        const free = starts.filter(
          (s) => !taken.some((t) => s * grid < t.until && t.from < (s + Math.floor(long)) * grid),
        );
        if (free.length < OFTEN) continue;
        found.push(figureOf(line, free, Math.floor(long), played.meter));
        taken.push(...free.map((s) => ({ from: s * grid, until: (s + Math.floor(long)) * grid })));
      }
    }
  }
  return found.sort((a, b) => b.pattern.length - a.pattern.length || b.at.length - a.at.length).slice(0, MOST_FIGURES);
}

function lineOf({ hits, meter, bpm }: Played, grid: number, came: readonly Came[]): Line {
  const lattice = latticeOf(hits, meter, bpm, grid);
  const many = lattice.slots.length;
  const codes = codesOf(lattice);
  const usual = grooveSlots(codes, barTicks(meter) / grid, Math.max(1, Math.round(beatTicks(meter) / grid)));
  for (const c of came)
    for (let i = Math.max(0, Math.floor(c.from / grid)); i < c.until / grid && i < many; i++) usual[i] = 1;
  const sums = (of: (i: number) => number): Int32Array => {
    const all = new Int32Array(many + 1);
    for (let i = 0; i < many; i++) all[i + 1] = (all[i] ?? 0) + of(i);
    return all;
  };
  const strays = new Int32Array(many);
  for (const i of lattice.beside) if (i < many) strays[i] = (strays[i] ?? 0) + 1;
  // A rolling hash; what has the same is compared slot by slot before it is believed.
  const [hash, power] = [new Uint32Array(many + 1), new Uint32Array(many + 1).fill(1)];
  for (let i = 0; i < many; i++) {
    hash[i + 1] = (Math.imul(hash[i] ?? 0, 1_000_003) + (codes[i] ?? 0) + 1) >>> 0;
    power[i + 1] = Math.imul(power[i] ?? 1, 1_000_003) >>> 0;
  }
  return {
    grid,
    lattice,
    codes,
    strokes: sums((i) => ((codes[i] ?? 0) === 0 ? 0 : 1)),
    known: sums((i) => usual[i] ?? 0),
    beside: sums((i) => strays[i] ?? 0),
    hash,
    power,
  };
}

const between = (sums: Int32Array, from: number, until: number): number => (sums[until] ?? 0) - (sums[from] ?? 0);

/** Sets of places at which stretches so long are alike, the larger first. */
function clustersOf(line: Line, long: number): readonly (readonly number[])[] {
  const { codes, strokes, known, beside, hash, power } = line;
  const half = Math.floor(long / 2);
  const key = (from: number, until: number): number =>
    ((hash[until] ?? 0) - Math.imul(hash[from] ?? 0, power[until - from] ?? 1)) >>> 0;
  const isOwn = (i: number): boolean => between(known, i, i + 1) === 0;
  const starts: number[] = [];
  for (let s = 0; s + long <= codes.length; s++)
    if (
      codes[s] !== 0 &&
      isOwn(s) &&
      isOwn(s + long - 1) &&
      between(strokes, s, s + long) >= LEAST_STROKES &&
      between(known, s, s + long) <= (1 - OWN) * long &&
      between(beside, s, s + long) === 0
    )
      starts.push(s);
  // Two stretches that differ in few slots are the same in one of their halves, or as good as.
  const buckets = new Map<string, number[]>();
  const bucketsOf = (s: number): readonly string[] => [`a${key(s, s + half)}`, `b${key(s + half, s + long)}`];
  for (const s of starts) for (const b of bucketsOf(s)) buckets.set(b, [...(buckets.get(b) ?? []), s]);
  const alike = (a: number, b: number): boolean => {
    let off = 0;
    for (let i = 0; i < long; i++) if (codes[a + i] !== codes[b + i] && ++off > long / DIFFERS) return false;
    return true;
  };
  const seen = new Set<string>();
  return starts
    .flatMap((s): readonly number[][] => {
      const near = [...new Set(bucketsOf(s).flatMap((b) => buckets.get(b) ?? []))]
        .filter((o) => alike(s, o))
        .sort((a, b) => a - b);
      const own: number[] = [];
      for (const o of near) if (o >= (own.at(-1) ?? -Infinity) + long) own.push(o);
      const name = own.join();
      if (own.length < OFTEN || seen.has(name)) return [];
      seen.add(name);
      return [own];
    })
    .sort((a, b) => b.length - a.length);
}

/** A figure as it was played most often, slot by slot. */
function figureOf({ grid, lattice, codes }: Line, starts: readonly number[], long: number, meter: Meter): Figure {
  const strokes: Stroke[] = [];
  let hand: Limb = 'L';
  for (let i = 0; i < long; i++) {
    const often = new Map<number, number>();
    for (const s of starts) often.set(codes[s + i] ?? 0, (often.get(codes[s + i] ?? 0) ?? 0) + 1);
    const [code] = [...often].sort((a, b) => b[1] - a[1])[0] ?? [0];
    const like = starts.filter((s) => codes[s + i] === code).map((s) => lattice.slots[s + i] ?? []);
    for (const hit of usualHits(like)) {
      hand = hit.limb ?? (hit.kind === 'hand' ? otherHand(hand) : hand);
      strokes.push({
        limb: hit.kind === 'kick' ? 'K' : hit.kind === 'hat-foot' ? 'H' : hand,
        voice: hit.voice ?? USUAL[hit.kind],
        level: hit.loud === true ? 'accent' : 'tap',
        at: ticks(i * grid),
        from: { index: i, repeat: 0, move: null },
      });
    }
  }
  const [first = 0] = starts;
  const pattern = tidy({
    meter,
    grid: ticks(grid),
    feel: { kind: 'straight' },
    start: ticks((first * grid) % barTicks(meter)),
    length: ticks(long * grid),
    strokes,
    groups: [],
  });
  const exact = starts.every((s) => codes.slice(s, s + long).every((c, i) => c === codes[first + i]));
  return { pattern, at: starts.map((s) => s * grid), exact };
}

const USUAL: Readonly<Record<Kind, Voice>> = { hand: 'snare', kick: 'kick', 'hat-foot': 'hat-foot' };

/** One hit of each piece of a slot, as loud as it is most often; two hands are not one. */
function usualHits(slots: readonly (readonly SlotHit[])[]): readonly SlotHit[] {
  const [first = []] = slots;
  const own = [...new Map(first.map((h) => [`${h.kind}${h.voice ?? ''}`, h])).values()];
  const hands = own.filter((h) => h.kind === 'hand').slice(0, 2);
  return [...own.filter((h) => h.kind !== 'hand'), ...hands].map((h) => {
    const same = slots.flatMap((s) => s.filter((o) => o.kind === h.kind && o.voice === h.voice));
    return { ...h, loud: 2 * same.filter((o) => o.loud === true).length > same.length };
  });
}
