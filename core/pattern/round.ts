import { NUMBER_WORDS, count, lcm, listed } from '../base';
import { barTicks, beatTicks, slotsWords, type Schools } from '../time';
import { isHand, LIMB_WORDS, LIMBS, VOICE, VOICES, type Limb, type Voice } from '../stroke';
import { loopTicks, type Pattern } from './pattern';
import { placeWords } from './sums';

/** When a pattern that loops begins on the same place of the bar again, and what sounds there. */
export interface ComesRound {
  readonly bars: number;
  /** Limbs that strike on its first tick; empty for a rest. */
  readonly limbs: readonly Limb[];
}

/**
 * After how many bars a pattern that loops as it stands begins again where it began in the bar: lcm(loop, bar) / bar.
 */
export function comesRound(pattern: Pattern): ComesRound {
  const bar = barTicks(pattern.meter);
  return {
    bars: lcm(loopTicks(pattern), bar) / bar,
    limbs: pattern.strokes.filter((s) => s.at === 0).map((s) => s.limb),
  };
}

/** Limbs as they are named in a sentence. */
const ON: Readonly<Record<Limb, string>> = {
  R: 'the right hand',
  L: 'the left hand',
  K: 'the kick',
  J: 'the second kick',
  H: 'the hi-hat foot',
};

/** A phrase that comes round no sooner than after so many bars is never waited for. */
const MOST_ROUND = 8;

/**
 * "back on the 1 with the right hand after 5 bars": of a pattern that loops, what sounds where it begins. Where that
 * takes more than eight bars, how it fits into the bars it needs instead: "3 times in 2 bars, 2 sixteenths left over".
 */
export function roundWords(pattern: Pattern, schools: Schools): string {
  const { bars, limbs } = comesRound(pattern);
  const bar = barTicks(pattern.meter);
  if (bars > MOST_ROUND) {
    const loop = loopTicks(pattern);
    const room = Math.ceil(loop / bar) * bar;
    const [times, left] = [Math.floor(room / loop), slotsWords((room % loop) / pattern.grid, pattern.grid)];
    return `${times === 1 ? 'once' : `${times} times`} in ${count(room / bar, 'bar')}, ${left} left over`;
  }
  const on = pattern.start % bar === 0 ? 'the 1' : placeWords({ ...pattern, length: pattern.grid }, 0, schools);
  const what = limbs.length === 0 ? `, with a rest there,` : ` with ${listed(limbs.map((l) => ON[l]))}`;
  return `back on ${on}${what} after ${count(bars, 'bar')}`;
}

/** Something that comes at even steps in a loop. */
export interface EvenSteps {
  readonly what: 'accents' | 'kicks' | Voice;
  /** Ticks from one to the next, and where the first is. */
  readonly step: number;
  readonly first: number;
  readonly many: number;
  /** Ticks from the last to the end of the loop, where the steps do not go on over it; 0 where they do. */
  readonly over: number;
}

/** Fewer in a row make no rhythm of their own. */
const LEAST_STEPS = 3;

/**
 * What comes at even steps that are not the beat: accents of hands, kicks, then single voices. Either the steps go on
 * over the end of the loop for ever, or the loop cuts the last one short, and they make at least one whole cycle with
 * the beat before. Two are no rhythm, and 3 + 4 is not every 3.
 */
export function evenSteps(pattern: Pattern): readonly EvenSteps[] {
  const of = (what: EvenSteps['what'], has: (s: Pattern['strokes'][number]) => boolean): EvenSteps[] => {
    const at = [...new Set(pattern.strokes.filter(has).map((s) => s.at as number))];
    const found = stepsOf(at, loopTicks(pattern), beatTicks(pattern.meter));
    return found ? [{ what, ...found }] : [];
  };
  const named = [
    ...of('accents', (s) => s.level === 'accent' && isHand(s.limb)),
    ...of('kicks', (s) => VOICE[s.voice].piece === 'kick'),
  ];
  const voices = VOICES.filter((v) => VOICE[v].piece !== 'kick').flatMap((v) => of(v, (s) => s.voice === v));
  const alike = (a: EvenSteps, b: EvenSteps): boolean => a.step === b.step && a.first === b.first;
  return [...named, ...voices.filter((v) => !named.some((n) => alike(n, v)))];
}

function stepsOf(at: readonly number[], loop: number, beat: number): Omit<EvenSteps, 'what'> | null {
  const [first, second] = at;
  const last = at.at(-1);
  if (first === undefined || last === undefined) return null;
  const seam = loop - last + first;
  const step = second === undefined ? seam : second - first;
  if (step <= 0 || at.some((t, i) => i > 0 && t - (at[i - 1] ?? 0) !== step)) return null;
  // Against the beat neither goes into the other: else it is the beat, or a part of it.
  if (step % beat === 0 || beat % step === 0) return null;
  const cycle = lcm(step, beat);
  if (seam === step) return at.length * (lcm(loop, cycle) / loop) < LEAST_STEPS ? null : found(0);
  if (seam > step || at.length < LEAST_STEPS || last + step - first < cycle) return null;
  return found(loop - last + first);
  function found(over: number): Omit<EvenSteps, 'what'> {
    return { step, first: first ?? 0, many: at.length, over };
  }
}

/**
 * "accents every 5 sixteenths: 4 in 5 beats, back on the 1 after 5 bars", or where the first is not on the 1 "the same
 * again after 5 bars"; and where the loop cuts the last step short "kicks every 3 sixteenths: 4 in 3 beats, for 2 bars;
 * the last is cut to 2". Null where a step is no whole number of slots.
 */
export function stepsWords(pattern: Pattern, steps: EvenSteps): string | null {
  const { grid, meter } = pattern;
  const [bar, beat] = [barTicks(meter), beatTicks(meter)];
  if (steps.step % grid !== 0 || beat % grid !== 0) return null;
  const cross = crossRhythm(steps.step / grid, beat / grid);
  const what = steps.what === 'accents' || steps.what === 'kicks' ? steps.what : VOICE[steps.what].name;
  const every = `${what} every ${slotsWords(steps.step / grid, grid)}: ${cross.accents} in ${count(cross.beats, 'beat')}`;
  if (steps.over === 0) {
    const again = (pattern.start + steps.first) % bar === 0 ? 'back on the 1' : 'the same again';
    return `${every}, ${again} after ${count(lcm(steps.step, bar) / bar, 'bar')}`;
  }
  const loop = loopTicks(pattern);
  const long = loop % bar === 0 ? count(loop / bar, 'bar') : slotsWords(loop / grid, grid);
  return `${every}, for ${long}; the last is cut to ${steps.over / grid}`;
}

/** Something every g slots against beats of b slots, read as a ratio. */
export interface CrossRhythm {
  readonly accents: number;
  readonly beats: number;
  /** Beats after which both fall together again. */
  readonly over: number;
  readonly text: string;
}

/**
 * Accents every `group` slots against beats of `beat` slots: over lcm(group, beat) slots there are lcm / group accents
 * against lcm / beat beats.
 * @example
 * crossRhythm(5, 4).text // => "4 against 5"
 * crossRhythm(3, 4).text // => "4 against 3"
 * crossRhythm(4, 4).text // => "1 against 1"
 */
export function crossRhythm(group: number, beat: number): CrossRhythm {
  const round = lcm(group, beat);
  return {
    accents: round / group,
    beats: round / beat,
    over: round / beat,
    text: `${round / group} against ${round / beat}`,
  };
}

/** Moments of a pattern in order, each with the limbs that strike. */
export function momentsOf(pattern: Pattern): readonly { readonly at: number; readonly limbs: readonly Limb[] }[] {
  const all = new Map<number, Limb[]>();
  for (const s of pattern.strokes) all.set(s.at, [...(all.get(s.at) ?? []), s.limb]);
  return [...all].map(([at, limbs]) => ({ at, limbs }));
}

/**
 * The most strokes of a limb in a row, round the loop: a moment at which it does not strike ends the row, one at which
 * others strike with it does not. All its strokes where it strikes at every moment: then the row has no end.
 */
export function longestRun(pattern: Pattern, limb: Limb): number {
  const own = momentsOf(pattern).map((m) => m.limbs.includes(limb));
  const from = own.indexOf(false);
  if (from < 0) return own.length;
  let [most, run] = [0, 0];
  for (let i = 1; i <= own.length; i++) {
    run = own[(from + i) % own.length] ? run + 1 : 0;
    most = Math.max(most, run);
  }
  return most;
}

/** What a hand does where a loop joins its end to its beginning. */
export interface Seam {
  readonly hand: 'R' | 'L';
  readonly run: number;
}

/**
 * A hand that strikes slot after slot over the end of the loop, and how often in a row, twice at least. Null where
 * there is none, where another limb or a rest stands between, where the phrase has landed, and where it never stops.
 */
export function seamOf(pattern: Pattern): Seam | null {
  const moments = momentsOf(pattern);
  const n = moments.length;
  const [first, last] = [moments[0], moments.at(-1)];
  if (!first || !last || pattern.groups.at(-1)?.kind === 'land') return null;
  const loop = loopTicks(pattern);
  if (loop - last.at + first.at !== pattern.grid) return null;
  const gap = (i: number): number => (moments[i + 1]?.at ?? NaN) - (moments[i]?.at ?? NaN);
  for (const hand of ['R', 'L'] as const) {
    if (!first.limbs.includes(hand) || !last.limbs.includes(hand)) continue;
    if (moments.every((m) => m.limbs.includes(hand))) continue;
    let [before, after] = [1, 1];
    while (moments[n - 1 - before]?.limbs.includes(hand) && gap(n - 1 - before) === pattern.grid) before++;
    while (moments[after]?.limbs.includes(hand) && gap(after - 1) === pattern.grid) after++;
    if (before + after >= 2) return { hand, run: before + after };
  }
  return null;
}

/** "When it loops, the right hand plays three in a row." */
export function seamWords({ hand, run }: Seam): string {
  return `When it loops, the ${LIMB_WORDS[hand]} plays ${NUMBER_WORDS[run - 1] ?? String(run)} in a row.`;
}

/** The limbs that play, in the order of drawing. */
export function limbsOf(pattern: Pattern): readonly Limb[] {
  return LIMBS.filter((l) => pattern.strokes.some((s) => s.limb === l));
}
