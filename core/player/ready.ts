import { count } from '../base';
import { READY, readyTempo, type Belief } from './belief';

/** A try of the whole phrase by the player, on a practice day (days since 1970-01-01), in counted beats a minute. */
export interface WholeTry {
  readonly day: number;
  readonly bpm: number;
  readonly clean: boolean;
}

/** What is said of the tempo that is ready: whole beats a minute, or what is missing before anything can be said. */
export type ReadySaid =
  | { readonly kind: 'ready'; readonly bpm: number; readonly low: number; readonly high: number }
  | { readonly kind: 'early'; readonly tries: number; readonly days: number };

/** So many tries, on so many days, and no farther from the tempo than this share of it. */
const NEEDED = { tries: 6, days: 3, within: 1 / 3 };
/** What is said lies at most so far above the fastest tempo that was tried. */
const BEYOND = 1.06;
/** So many of the newest tries say what goes wrong at a tempo; as near as this they are of one tempo. */
const NEWEST = 10;
const ALIKE = 0.03;

/** The newest tries at about a tempo: how many, and how many of them were clean. */
function at(tries: readonly WholeTry[], bpm: number): { readonly many: number; readonly clean: number } {
  const own = tries.filter((t) => Math.abs(t.bpm / bpm - 1) <= ALIKE);
  return { many: own.length, clean: own.filter((t) => t.clean).length };
}

/** The lowest tempo at which the newest tries were not clean four times of five, and above which none were. */
function failsAt(wholes: readonly WholeTry[]): number {
  const newest = wholes.slice(-NEWEST);
  const holds = (bpm: number): boolean => {
    const { many, clean } = at(newest, bpm);
    return many >= 2 && clean >= READY * many;
  };
  const fails = newest.filter(({ bpm }) => {
    const { many, clean } = at(newest, bpm);
    return many >= 2 && clean < READY * many && !newest.some((o) => o.bpm > bpm * (1 + ALIKE) && holds(o.bpm));
  });
  return Math.min(Infinity, ...fails.map((t) => t.bpm));
}

/**
 * What is said of the tempo that is ready. Only with enough to rest on: six tries of the whole phrase within a third of
 * that tempo, on three days. Never above 1.06 times the fastest that was tried, nor the ceiling (`null` where nothing
 * limits it), and below a tempo at which the newest tries failed more than once in five. `wholes` are in the order they
 * were played.
 * @example
 * readySaid({ mean: Math.log(100), variance: 0.001 }, [{ day: 1, bpm: 90, clean: true }], 120) // => { kind: 'early', tries: 5, days: 2 }
 */
export function readySaid(belief: Belief, wholes: readonly WholeTry[], ceiling: number | null): ReadySaid {
  const believed = readyTempo(belief);
  const fastest = Math.max(0, ...wholes.map((t) => t.bpm));
  const most = Math.min(BEYOND * fastest, ceiling ?? Infinity, failsAt(wholes) - 1);
  const bpm = Math.floor(Math.min(believed.bpm, most) + 1e-9);
  const near = wholes.filter((t) => Math.abs(t.bpm / Math.max(1, bpm) - 1) <= NEEDED.within + 1e-9);
  const days = new Set(near.map((t) => t.day)).size;
  if (near.length < NEEDED.tries || days < NEEDED.days)
    return { kind: 'early', tries: Math.max(0, NEEDED.tries - near.length), days: Math.max(0, NEEDED.days - days) };
  const high = Math.max(bpm, Math.floor(Math.min(believed.high, most) + 1e-9));
  return { kind: 'ready', bpm, low: Math.min(bpm, Math.round(believed.low)), high };
}

/**
 * What is missing before it can be said what is ready.
 * @example
 * earlyWords({ tries: 4, days: 2 }) // => "4 more tries of the whole phrase and 2 more days"
 * earlyWords({ tries: 0, days: 1 }) // => "1 more day with tries of the whole phrase"
 */
export function earlyWords({ tries, days }: { readonly tries: number; readonly days: number }): string {
  if (tries === 0) return `${days} more ${days === 1 ? 'day' : 'days'} with tries of the whole phrase`;
  const more = `${tries} more ${tries === 1 ? 'try' : 'tries'} of the whole phrase`;
  return days === 0 ? more : `${more} and ${count(days, 'more day', 'more days')}`;
}
