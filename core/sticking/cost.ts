import { VOICES, type Hand, type Level, type Voice } from '../stroke';
import type { Kit } from '../kit';
import { distance, riseSeconds, targetOf, travelSeconds, type Profile } from '../reach';
import type { HandEvent, HandStroke } from './rhythm';
import { preferenceCost, type StickingSchool } from './schools';

/** Everything that decides what a sticking costs, beside the rhythm. */
export interface Terms {
  readonly school: StickingSchool;
  readonly kit: Kit;
  readonly profile: Profile;
}

/** What a sticking's cost is made of. */
export interface CostParts {
  readonly time: number;
  readonly runs: number;
  readonly accents: number;
  readonly crossings: number;
  readonly school: number;
}

/**
 * Share of the time there is from which on haste costs something; below it a hand is never late, and the time before is
 * forgotten.
 */
export const EASY = 0.5;
/** How steep haste grows towards the limit, and what a stroke beyond it costs: more than any taste. */
const HASTE = 8;
const NEAR_LIMIT = 0.02;
const LATE = 1000;
/** Third stroke of one hand in a row and every one after it. */
export const THIRD = 6;
/** An accent on the rebound of a double. */
export const ACCENTED_SECOND = 3;
/** Hands that cross on the kit, and by how many cm before it counts. */
export const CROSSED = 2.5;
export const SIDE_BY_SIDE = 8;

const PLACE = Object.fromEntries(VOICES.map((v, i) => [v, i])) as Record<Voice, number>;

/** The last stroke of a hand. */
export interface Last {
  readonly seconds: number;
  readonly voice: Voice;
  readonly level: Level;
}

/**
 * What a hand needs for its next stroke, in seconds: as the ceiling has it, with the rebound of a double where the
 * stroke is the second in a row.
 */
export class Needs {
  // Indexed by voices' places in the list: looked up for every stroke of every way, so no strings are made.
  private readonly travel = new Float64Array(VOICES.length * VOICES.length).fill(NaN);
  private readonly x = new Float64Array(VOICES.length).fill(NaN);

  constructor(private readonly terms: Terms) {}

  seconds(hand: Hand, from: Last, to: HandStroke, second: boolean): number {
    return (
      Math.max(this.repeat(hand, second), this.way(hand, from.voice, to.voice)) + riseSeconds(from.level, to.level)
    );
  }

  /** Seconds between two strokes of a hand on one spot. */
  repeat(hand: Hand, second: boolean): number {
    const { singles, doubles } = this.terms.profile.rates[hand];
    return 1 / (second ? Math.max(singles, doubles) : singles);
  }

  /** The longest any stroke could need: what lies twice as far back is forgotten. */
  most(voices: readonly Voice[]): number {
    const rates = this.terms.profile.rates;
    const slow = 1 / Math.min(rates.R.singles, rates.L.singles);
    const ways = voices.flatMap((a) => voices.map((b) => this.way('R', a, b)));
    return Math.max(slow, ...ways) + riseSeconds('ghost', 'accent');
  }

  way(hand: Hand, from: Voice, to: Voice): number {
    if (from === to) return 0;
    const key = PLACE[from] * VOICES.length + PLACE[to];
    const known = this.travel[key] ?? NaN;
    if (!Number.isNaN(known)) return known;
    const [a, b] = [targetOf(this.terms.kit, hand, from), targetOf(this.terms.kit, hand, to)];
    const seconds = a && b ? travelSeconds(distance(a.point, b.point), b.width) : 0;
    this.travel[key] = seconds;
    return seconds;
  }

  /** How far to the right a voice hangs, in cm. */
  side(voice: Voice): number {
    const known = this.x[PLACE[voice]] ?? NaN;
    if (!Number.isNaN(known)) return known;
    const x = targetOf(this.terms.kit, 'R', voice)?.point.x ?? 0;
    this.x[PLACE[voice]] = x;
    return x;
  }
}

/**
 * What haste costs: nothing up to half the time there is, then steeply up to the limit, and beyond it more than
 * anything else.
 */
export function hasteCost(need: number, available: number): number {
  const used = available <= 0 ? Infinity : need / available;
  if (used <= EASY) return 0;
  if (used > 1) return LATE * Math.min(used, 100);
  return (HASTE * (used - EASY) ** 2) / Math.max(1 - used + NEAR_LIMIT, NEAR_LIMIT);
}

/** Where the hands stand before a moment. */
export interface HandState {
  readonly R: Last | null;
  readonly L: Last | null;
  /** The hand of the last single stroke; null at the beginning and after a unison. */
  readonly hand: Hand | null;
  /** How many in a row it had. */
  readonly run: number;
}

export const START: HandState = Object.freeze({ R: null, L: null, hand: null, run: 0 });

/**
 * What a moment costs when its strokes are given to hands, in order of its strokes, and where the hands stand after it.
 */
export function step(
  terms: Terms,
  needs: Needs,
  before: HandState,
  event: HandEvent,
  hands: readonly Hand[],
  previous: HandEvent | null,
): { readonly parts: CostParts; readonly after: HandState; readonly used: number } {
  const parts = { time: 0, runs: 0, accents: 0, crossings: 0, school: 0 };
  let used = 0;
  const single = event.strokes.length === 1;
  const next: { R: Last | null; L: Last | null } = { R: before.R, L: before.L };
  const run = single ? (hands[0] === before.hand ? before.run + 1 : 1) : 0;
  event.strokes.forEach((stroke, i) => {
    const hand = hands[i] ?? 'R';
    const last = before[hand];
    if (last) {
      const need = needs.seconds(hand, last, stroke, single && run === 2);
      const available = event.seconds - last.seconds;
      parts.time += hasteCost(need, available);
      used = Math.max(used, available <= 0 ? Infinity : need / available);
    }
    next[hand] = { seconds: event.seconds, voice: stroke.voice, level: stroke.level };
  });
  const [first] = event.strokes;
  const [hand = 'R'] = hands;
  if (single) {
    if (run > 2) parts.runs += THIRD;
    if (run === 2 && first.level === 'accent') parts.accents += ACCENTED_SECOND;
    parts.school += preferenceCost(terms.school, {
      hand,
      leads: terms.profile.leads,
      run: Math.min(3, run),
      ended: before.hand !== null && hand !== before.hand ? Math.min(3, before.run) : 0,
      accent: first.level === 'accent',
      downbeat: event.downbeat,
      slot: event.slot,
      fast: previous !== null && event.seconds - previous.seconds < 1 / terms.profile.rates[hand].singles,
    });
  }
  if (next.R && next.L && needs.side(next.R.voice) < needs.side(next.L.voice) - SIDE_BY_SIDE)
    parts.crossings += CROSSED;
  return { parts, after: { ...next, hand: single ? hand : null, run }, used };
}

export function total(parts: CostParts): number {
  return parts.time + parts.runs + parts.accents + parts.crossings + parts.school;
}

/**
 * The ways to give a moment's strokes to hands: one or two for a single stroke, the same for a unison, fewer where pins
 * say so.
 */
export function choicesOf(event: HandEvent): readonly (readonly Hand[])[] {
  const all: readonly (readonly Hand[])[] =
    event.strokes.length === 1
      ? [['R'], ['L']]
      : [
          ['R', 'L'],
          ['L', 'R'],
        ];
  return all.filter((hands) => hands.every((h, i) => (event.pins[i] ?? null) === null || event.pins[i] === h));
}

/**
 * The cost of a whole sticking, moment by moment, and the tightest of them: the plain way, which the solver must agree
 * with.
 */
export function costOf(
  terms: Terms,
  events: readonly HandEvent[],
  hands: readonly (readonly Hand[])[],
  needs = new Needs(terms),
): { readonly cost: number; readonly parts: CostParts; readonly used: number; readonly worst: number | null } {
  let stand = START;
  let parts: CostParts = { time: 0, runs: 0, accents: 0, crossings: 0, school: 0 };
  let used = 0;
  let worst: number | null = null;
  events.forEach((event, i) => {
    const one = step(terms, needs, stand, event, hands[i] ?? [], events[i - 1] ?? null);
    parts = {
      time: parts.time + one.parts.time,
      runs: parts.runs + one.parts.runs,
      accents: parts.accents + one.parts.accents,
      crossings: parts.crossings + one.parts.crossings,
      school: parts.school + one.parts.school,
    };
    if (one.used > used) [used, worst] = [one.used, event.at];
    stand = one.after;
  });
  return { cost: total(parts), parts, used, worst };
}
