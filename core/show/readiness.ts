import { count } from '../base';
import type { Cue, Show, Spot } from '../shelf';
import { nightOf } from './choose';
import { chanceOn, minutesTo, SAFE, type NightPhrase } from './night';
import { goodSpots } from './room';

/** How ready a spot is for the night. Chances 0–1; null where no phrase stands in it, or it is not on the shelf. */
export interface SpotReady {
  readonly cue: string;
  readonly spot: string;
  readonly phrase: string | null;
  /** Without any more practice, and with its share of the minutes until the night. */
  readonly chance: number | null;
  readonly after: number | null;
  /** Minutes until it is safe: 0 where it is, null where it cannot be by then. */
  readonly minutes: number | null;
}

/** How ready a show is. */
export interface ShowReady {
  readonly spots: readonly SpotReady[];
  /** Days until the night; null where the show has none. Negative when it has passed. */
  readonly left: number | null;
  /** Minutes there are until the night, and that it takes until all is safe that can be. */
  readonly have: number;
  readonly takes: number;
  readonly safe: number;
  /** Spots without a phrase, and those that cannot be safe by then. */
  readonly open: number;
  readonly never: number;
}

/** On a show without a day it is looked so many days ahead. */
const WITHOUT_DAY = 30;
/** What is practised of a phrase is shared out in such steps of minutes. */
const STEPS = [4, 8, 16, 32, 64];
/** Of what is this sure no more is needed. */
const ENOUGH = 0.95;
const LEAST = 1e-4;

interface Demanded {
  readonly phrase: NightPhrase;
  readonly tempos: number[];
  minutes: number;
}

/**
 * How ready a show is: each spot without any more practice, and with its share of the minutes until the night, which
 * go where they make the whole night likeliest. `aDay` is minutes of practice a day.
 */
export function readinessOf(
  show: Show,
  phraseOf: (id: string) => NightPhrase | null,
  { today, aDay }: { readonly today: number; readonly aDay: number },
): ShowReady {
  const when = { today, night: nightOf(show, today) };
  const left = show.day === null ? null : show.day - today;
  const have = Math.max(0, left ?? WITHOUT_DAY) * aDay;
  const all = show.cues.flatMap((cue) => goodSpots(cue).map((spot) => ({ cue, spot })));
  const by = new Map<string, Demanded>();
  for (const { cue, spot } of all) {
    const phrase = spot.phrase === null ? null : phraseOf(spot.phrase);
    if (!phrase || spot.phrase === null) continue;
    const own = by.get(spot.phrase) ?? { phrase, tempos: [], minutes: 0 };
    own.tempos.push(cue.tempo);
    by.set(spot.phrase, own);
  }
  shareOut([...by.values()], have, when);
  const spots = all.map(({ cue, spot }) => spotReady(cue, spot, by, when));
  // A phrase in two spots is practised once, for the faster of them.
  const takes = [...by.values()].reduce(
    (sum, { phrase, tempos }) => sum + (minutesTo(phrase, Math.max(...tempos), when) ?? 0),
    0,
  );
  return {
    spots,
    left,
    have,
    takes,
    safe: spots.filter((s) => (s.chance ?? 0) >= SAFE).length,
    open: spots.filter((s) => s.chance === null).length,
    never: spots.filter((s) => s.chance !== null && s.minutes === null).length,
  };
}

function spotReady(
  cue: Cue,
  spot: Spot,
  by: ReadonlyMap<string, Demanded>,
  when: { readonly today: number; readonly night: number },
): SpotReady {
  const own = spot.phrase === null ? undefined : by.get(spot.phrase);
  const base = { cue: cue.id, spot: spot.id, phrase: spot.phrase };
  if (!own) return { ...base, chance: null, after: null, minutes: null };
  return {
    ...base,
    chance: chanceOn(own.phrase, cue.tempo, when, 0),
    after: chanceOn(own.phrase, cue.tempo, when, own.minutes),
    minutes: minutesTo(own.phrase, cue.tempo, when),
  };
}

/** Shares minutes out, each step where a minute of it makes the night likeliest. */
function shareOut(
  all: readonly Demanded[],
  have: number,
  when: { readonly today: number; readonly night: number },
): void {
  const worth = ({ phrase, tempos }: Demanded, minutes: number): number =>
    tempos.reduce((sum, t) => sum + Math.log(Math.max(LEAST, Math.min(ENOUGH, chanceOn(phrase, t, when, minutes)))), 0);
  const now = new Map(all.map((d) => [d, worth(d, 0)]));
  const bestOf = (d: Demanded, left: number): { readonly gain: number; readonly step: number } =>
    STEPS.filter((s) => s <= left).reduce(
      (best, step) => {
        const gain = (worth(d, d.minutes + step) - (now.get(d) ?? 0)) / step;
        return gain > best.gain + 1e-12 ? { gain, step } : best;
      },
      { gain: 0, step: 0 },
    );
  let left = have;
  // What a step brings one phrase changes nothing of what it brings the others.
  const next = new Map(all.map((d) => [d, bestOf(d, left)]));
  for (;;) {
    let best: Demanded | null = null;
    for (const d of all) {
      if ((next.get(d)?.step ?? 0) > left) next.set(d, bestOf(d, left));
      if ((next.get(d)?.gain ?? 0) > (best ? (next.get(best)?.gain ?? 0) : 0)) best = d;
    }
    const step = best ? (next.get(best)?.step ?? 0) : 0;
    if (!best || step === 0) return;
    best.minutes += step;
    left -= step;
    now.set(best, worth(best, best.minutes));
    next.set(best, bestOf(best, left));
  }
}

/**
 * How ready a show is, in a sentence; empty where it has no spots.
 * @example
 * readyWords({ spots: [1, 2, 3], left: 5, have: 175, takes: 60, safe: 2, open: 0, never: 0 }) // => "2 of 3 spots are ready. 1 more takes about 60 minutes; you have 175 until the show."
 * readyWords({ spots: [1, 2, 3], left: 1, have: 35, takes: 60, safe: 0, open: 1, never: 1 }) // => "None of 3 spots is ready yet. 1 takes about 60 minutes; you have only 35 until the show. 1 will hardly be ready by then. 1 is open."
 * readyWords({ spots: [1], left: null, have: 900, takes: 0, safe: 1, open: 0, never: 0 }) // => "Every spot is ready."
 * readyWords({ spots: [], left: 5, have: 175, takes: 0, safe: 0, open: 0, never: 0 }) // => ""
 */
export function readyWords({
  spots,
  left,
  have,
  takes,
  safe,
  open,
  never,
}: Omit<ShowReady, 'spots'> & { readonly spots: readonly unknown[] }): string {
  const many = spots.length;
  if (many === 0) return '';
  const some = count(many, 'spot');
  const parts = [
    safe === many
      ? 'Every spot is ready.'
      : safe === 0
        ? `None of ${some} is ready yet.`
        : `${safe} of ${some} ${safe === 1 ? 'is' : 'are'} ready.`,
  ];
  const rise = many - safe - open - never;
  if (rise > 0 && takes > 0) {
    const there = left === null || left < 0 ? '' : `; you have ${takes <= have ? '' : 'only '}${have} until the show`;
    const verb = rise === 1 ? 'takes' : 'take';
    parts.push(`${rise}${safe > 0 ? ' more' : ''} ${verb} about ${count(takes, 'minute')}${there}.`);
  }
  if (never > 0) parts.push(`${never} will hardly be ready by then.`);
  if (open > 0) parts.push(`${open} ${open === 1 ? 'is' : 'are'} open.`);
  return parts.join(' ');
}
