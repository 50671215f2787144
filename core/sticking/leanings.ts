import { gcd } from '../base';
import { isCompound, barTicks, beatTicks, TICKS_PER_QUARTER, unitTicks, type Meter } from '../time';
import { VOICE, type Level, type Voice } from '../stroke';

/** A moment of the rhythm before it is known what schools see in it. */
export interface Moment {
  /** Ticks from the pattern's start. */
  readonly at: number;
  readonly strokes: readonly { readonly level: Level }[];
}

/** What schools see in a moment of a rhythm that goes round, whatever grid it is written on. */
export interface Leaning {
  /** Whether the lead hand takes it: a beat, or an accent. */
  readonly leads: boolean;
  /** By natural sticking the lead hand's (0) or the other one's (1), by the beat; null where it is neither. */
  readonly side: 0 | 1 | null;
  /** Whether `side` is only how it is usually done: the last of an odd number. */
  readonly loose: boolean;
  /**
   * Of a run of four strokes and more at one distance: which of a pair it would be, counted from the beat, and whether
   * the run begins or ends here. Null outside of runs.
   */
  readonly pair: { readonly second: boolean; readonly first: boolean; readonly last: boolean } | null;
  /**
   * Of an accent (without accents: of a beat): which hand it has after the one before when there is one double stroke
   * between. Null for all others.
   */
  readonly turns: 'same' | 'other' | null;
  /** Whether the next moment is one of those. */
  readonly beforeTurn: boolean;
}

/** The fewest strokes at one distance that make a run. */
const RUN = 4;
/** Divisions of a beat, or of what lies between two accents, that hands are told apart in. */
const MOST_PARTS = 12;

/**
 * What schools see in a rhythm: beats, accents, runs and groups, found from where its strokes are and not from the grid
 * they are written on. `start` is where the pattern begins in the bar and `loop` after how many ticks it comes round.
 */
export function leanings(moments: readonly Moment[], meter: Meter, start: number, loop: number): readonly Leaning[] {
  const n = moments.length;
  const accent = moments.map((m) => m.strokes.some((s) => s.level === 'accent'));
  const beat = moments.map((m) => isFeltBeat(meter, start + m.at));
  const heads = headsOf(moments, accent, beat, meter, start, loop);
  const sides = sidesOf(moments, heads, loop);
  const pairs = pairsOf(moments, beat, loop);
  const turns = turnsOf(moments, accent, beat, meter, start);
  return moments.map((_, i) => ({
    leads: heads[i] ?? false,
    side: sides[i]?.side ?? null,
    loose: sides[i]?.loose ?? false,
    pair: pairs[i] ?? null,
    turns: turns[i] ?? null,
    beforeTurn: (turns[(i + 1) % n] ?? null) !== null,
  }));
}

/** Where a beat is felt: on counted beats; where eighths are counted in twos and threes, where such a group begins. */
function isFeltBeat(meter: Meter, tick: number): boolean {
  const inBar = ((tick % barTicks(meter)) + barTicks(meter)) % barTicks(meter);
  if (meter.unit <= 4 || isCompound(meter)) return inBar % beatTicks(meter) === 0;
  let at = 0;
  return meter.groups.some((g) => {
    const begins = at;
    at += g * unitTicks(meter);
    return begins === inBar;
  });
}

/** What the lead hand takes: accents, and beats, unless an accent stands beside the beat within half a beat of it. */
function headsOf(
  moments: readonly Moment[],
  accent: readonly boolean[],
  beat: readonly boolean[],
  meter: Meter,
  start: number,
  loop: number,
): readonly boolean[] {
  // Beats alone, without anything between them: then two of them make what is felt as one.
  if (beat.every(Boolean) && !accent.some(Boolean)) return moments.map((m) => halved(meter, start + m.at));
  const near = Math.max(TICKS_PER_QUARTER, beatTicks(meter)) / 2;
  const beside = moments.flatMap((m, i) => (accent[i] && !beat[i] ? [m.at] : []));
  return moments.map((m, i) => {
    if (accent[i]) return true;
    if (!beat[i]) return false;
    return !beside.some((at) => {
      const apart = Math.abs(at - m.at);
      return Math.min(apart, loop - apart) <= near;
    });
  });
}

/** Lead hand and other hand in turn over what lies between two heads, by the parts it divides into. */
function sidesOf(
  moments: readonly Moment[],
  heads: readonly boolean[],
  loop: number,
): readonly { readonly side: 0 | 1 | null; readonly loose: boolean }[] {
  const n = moments.length;
  const found: { side: 0 | 1 | null; loose: boolean }[] = moments.map(() => ({ side: null, loose: false }));
  const places = heads.flatMap((h, i) => (h ? [i] : []));
  // Without a beat or an accent the beginning stands for one.
  if (places.length === 0) places.push(0);
  places.forEach((from, k) => {
    const to = places[k + 1] ?? (places[0] ?? 0) + n;
    const begin = moments[from]?.at ?? 0;
    const offsetOf = (i: number): number => (moments[i % n]?.at ?? 0) + (i >= n ? loop : 0) - begin;
    const length = to - from === n && n > 0 ? loop : offsetOf(to);
    const offsets = Array.from({ length: to - from }, (_, j) => offsetOf(from + j));
    const part = offsets.reduce(gcd, length);
    const parts = length / part;
    offsets.forEach((offset, j) => {
      const place = offset / part;
      if (parts > MOST_PARTS * 4) return;
      found[(from + j) % n] = { side: place % 2 === 0 ? 0 : 1, loose: false };
      // The last of an odd number would put the same hand on the next head twice in a row.
      if (parts > 1 && parts % 2 === 1 && place === parts - 1) found[(from + j) % n] = { side: 1, loose: true };
    });
  });
  return found;
}

/** Runs of four and more single strokes at one distance, going round, laid in pairs from the first beat in them. */
function pairsOf(moments: readonly Moment[], beat: readonly boolean[], loop: number): readonly Leaning['pair'][] {
  const n = moments.length;
  const found: Leaning['pair'][] = moments.map(() => null);
  if (n < RUN) return found;
  const gap = (i: number): number => {
    const [a, b] = [((i % n) + n) % n, (((i + 1) % n) + n) % n];
    return ((moments[b]?.at ?? 0) - (moments[a]?.at ?? 0) + loop) % loop || loop;
  };
  const single = (i: number): boolean => moments[((i % n) + n) % n]?.strokes.length === 1;
  const joined = (i: number): boolean => single(i) && single(i + 1);
  const lay = (from: number, many: number, round: boolean): void => {
    if (many < RUN) return;
    // An even number comes out in pairs from where it begins; an odd one has a single, before the beat.
    let base = 0;
    while (many % 2 === 1 && base < many && !beat[(from + base) % n]) base++;
    if (base === many) base = 0;
    for (let j = 0; j < many; j++)
      found[(from + j) % n] = {
        second: Math.abs(j - base) % 2 === 1,
        first: !round && j === 0,
        last: !round && j === many - 1,
      };
  };
  // A run begins where the distance changes; where it never does, the whole goes round as one.
  const begins = moments.flatMap((_, i) => (joined(i) && (!joined(i - 1) || gap(i - 1) !== gap(i)) ? [i] : []));
  if (begins.length === 0) {
    if (moments.every((_, i) => joined(i))) lay(0, n, true);
    return found;
  }
  for (const from of begins) {
    let many = 1;
    while (many < n && joined(from + many - 1) && gap(from + many - 1) === gap(from)) many++;
    // The stroke at which one run ends and a nearer one begins is the nearer one's.
    const shared = joined(from - 1) && gap(from - 1) < gap(from);
    const last = joined(from + many - 1) && gap(from + many - 1) < gap(from);
    lay(from + (shared ? 1 : 0), many - (shared ? 1 : 0) - (last ? 1 : 0), false);
  }
  return found;
}

/** Accents, or beats where there are none, and which hand has them after the one before with one double between. */
function turnsOf(
  moments: readonly Moment[],
  accent: readonly boolean[],
  beat: readonly boolean[],
  meter: Meter,
  start: number,
): readonly Leaning['turns'][] {
  const n = moments.length;
  const found: Leaning['turns'][] = moments.map(() => null);
  let heads = accent.flatMap((a, i) => (a ? [i] : []));
  if (heads.length === 0) {
    heads = beat.flatMap((b, i) => (b ? [i] : []));
    // Fewer than three strokes a beat make no such group: then two beats do.
    if (n < heads.length * 3) heads = heads.filter((i) => halved(meter, start + (moments[i]?.at ?? 0)));
  }
  heads.forEach((i, k) => {
    const before = heads[(k + heads.length - 1) % heads.length] ?? 0;
    const many = (i - before + n) % n || n;
    found[i] = many <= 2 ? (many === 1 ? 'other' : 'same') : many % 2 === 0 ? 'other' : 'same';
  });
  return found;
}

/** Whether a beat begins a pair of beats. */
function halved(meter: Meter, tick: number): boolean {
  const inBar = ((tick % barTicks(meter)) + barTicks(meter)) % barTicks(meter);
  return inBar % (2 * beatTicks(meter)) === 0;
}

/** The piece that keeps time in a rhythm: the hi-hat or ride that is struck most, else a crash; null without any. */
export function timePiece(voices: readonly Voice[]): string | null {
  const many = new Map<string, number>();
  for (const v of voices) {
    const { piece, family } = VOICE[v];
    if (family === 'metal') many.set(piece, (many.get(piece) ?? 0) + (piece === 'crash' ? 0.01 : 1));
  }
  const [most] = [...many].sort((a, b) => b[1] - a[1]);
  return most?.[0] ?? null;
}
