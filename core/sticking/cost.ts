import { VOICE, VOICES, type Hand, type Level, type Voice } from '../stroke';
import type { Kit } from '../kit';
import { distance, doublesOf, fittsOf, riseSeconds, targetOf, travelSeconds, type Able, type Fitts } from '../reach';
import type { HandEvent, HandStroke, Rhythm } from './rhythm';
import { preferenceCost, timeCost, timeWeight, type StickingSchool } from './schools';

/** Everything that decides what a sticking costs, beside the rhythm. */
export interface Terms {
  readonly school: StickingSchool;
  readonly kit: Kit;
  readonly profile: Able;
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
export const EASY = 0.75;
/** How steep haste grows towards the limit, and what a stroke beyond it costs: more than any taste. */
const HASTE = 8;
const NEAR_LIMIT = 0.02;
const LATE = 1000;
/** Third stroke of one hand in a row and every one after it, where there is no time to spare. */
export const THIRD = 6;
/** An accent on the rebound of a double, the same. */
export const ACCENTED_SECOND = 3;
/** The first stroke by the hand that does not lead: as good otherwise. */
export const OTHER_FIRST = 0.25;
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

  private readonly fitts: Fitts;

  constructor(private readonly terms: Terms) {
    this.fitts = fittsOf(terms.profile);
  }

  seconds(hand: Hand, from: Last, to: HandStroke, second: boolean): number {
    return Math.max(
      this.repeat(hand, second) + riseSeconds(from.level, to.level),
      this.way(hand, from.voice, to.voice),
    );
  }

  /** Seconds between two strokes of a hand on one spot. */
  repeat(hand: Hand, second: boolean): number {
    const { profile } = this.terms;
    const { singles } = profile.rates[hand];
    return 1 / (second ? Math.max(singles, doublesOf(profile, hand)) : singles);
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
    const seconds = a && b ? travelSeconds(distance(a.point, b.point), b.width, this.fitts) : 0;
    this.travel[key] = seconds;
    return seconds;
  }

  /**
   * How far to the right a voice hangs, in cm. The hi-hat counts as where the snare is: the hand over the other one on
   * the snare is how it is played.
   */
  side(voice: Voice): number {
    if (VOICE[voice].piece === 'hi-hat') return this.side('snare');
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

/**
 * How much it weighs that a hand strikes again and again, by the time there is: a half where there is twice as much as
 * it needs, twice where there is not enough.
 */
export function pace(profile: Able, hand: Hand, gap: number): number {
  const used = 1 / profile.rates[hand].singles / gap;
  return 0.5 + 3 * (Math.max(0.5, Math.min(1, used)) - 0.5);
}

/** Where the hands stand before a moment. */
export interface HandState {
  readonly R: Last | null;
  readonly L: Last | null;
  /** The hand of the last single stroke; null at the beginning and after a unison. */
  readonly hand: Hand | null;
  /** How many in a row it had. */
  readonly run: number;
  /** The hand of the last accent that schools turn on; null when it was both or there was none. */
  readonly turned: Hand | null;
}

export const START: HandState = Object.freeze({ R: null, L: null, hand: null, run: 0, turned: null });

/**
 * What a moment costs when its strokes are given to hands, in order of its strokes, and where the hands stand after it.
 * `events[i]` is the moment; `lap` says how often the loop was played before, as times go on from turn to turn.
 */
export function step(
  terms: Terms,
  needs: Needs,
  before: HandState,
  { events, loop }: Pick<Rhythm, 'events' | 'loop'>,
  i: number,
  hands: readonly Hand[],
  lap = 0,
): { readonly parts: CostParts; readonly after: HandState; readonly used: number; readonly run: number } {
  const parts = { time: 0, runs: 0, accents: 0, crossings: 0, school: 0 };
  const event = events[i];
  if (!event) return { parts, after: before, used: 0, run: 0 };
  const seconds = event.seconds + lap * loop;
  let used = 0;
  const single = event.strokes.length === 1;
  const next: { R: Last | null; L: Last | null } = { R: before.R, L: before.L };
  const run = single ? (hands[0] === before.hand ? before.run + 1 : 1) : 0;
  event.strokes.forEach((stroke, n) => {
    const hand = hands[n] ?? 'R';
    const last = before[hand];
    if (last) {
      const need = needs.seconds(hand, last, stroke, single && run === 2);
      const available = seconds - last.seconds;
      parts.time += hasteCost(need, available) * timeWeight(terms.school);
      used = Math.max(used, available <= 0 ? Infinity : need / available);
    }
    next[hand] = { seconds, voice: stroke.voice, level: stroke.level };
  });
  const [hand = 'R'] = hands;
  const previous = events[(i + events.length - 1) % events.length] ?? event;
  if (single) {
    const own = singleCost(terms, event, previous, {
      hand,
      run: Math.min(3, run),
      ended: before.hand !== null && hand !== before.hand ? Math.min(3, before.run) : 0,
      turned: before.turned,
      index: i,
    });
    parts.runs += own.runs;
    parts.accents += own.accents;
    parts.school += own.school;
  } else
    parts.school += event.strokes.reduce(
      (sum, s, n) => sum + timeCost(terms.school, s.time, hands[n] !== terms.profile.leads),
      0,
    );
  if (i === 0 && single && hand !== terms.profile.leads) parts.school += OTHER_FIRST;
  if (next.R && next.L && needs.side(next.R.voice) < needs.side(next.L.voice) - SIDE_BY_SIDE)
    parts.crossings += CROSSED;
  const turned = event.leaning.turns === null ? before.turned : single ? hand : null;
  return { parts, after: { R: next.R, L: next.L, hand: single ? hand : null, run, turned }, used, run };
}

/** What a single stroke costs beside time and crossings: it depends on little of what was before. */
export function singleCost(
  { school, profile }: Terms,
  event: HandEvent,
  previous: HandEvent,
  at: {
    readonly hand: Hand;
    readonly run: number;
    readonly ended: number;
    readonly turned: Hand | null;
    readonly index: number;
  },
): { readonly runs: number; readonly accents: number; readonly school: number } {
  const [stroke] = event.strokes;
  const accent = stroke.level === 'accent';
  // A hand that keeps time plays on: that is what it is for.
  const keeps = school === 'time hand' && VOICE[stroke.voice].family === 'metal';
  const weight = keeps || at.run < 2 ? 0 : pace(profile, at.hand, event.gap);
  return {
    runs: at.run > 2 ? THIRD * weight : 0,
    accents: at.run === 2 && accent ? ACCENTED_SECOND * weight : 0,
    school: preferenceCost(school, {
      hand: at.hand,
      run: at.run,
      ended: at.ended,
      turned: at.turned,
      seam: at.run > at.index + 1,
      leads: profile.leads,
      accent,
      time: stroke.time,
      metal: VOICE[stroke.voice].family === 'metal',
      leaning: event.leaning,
      before: { leaning: previous.leaning, accent: previous.strokes[0].level === 'accent' },
    }),
  };
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

/** What is counted in a sticking, to be said. */
export interface StickingFacts {
  /** Strokes third in a row or more, accents on the second of a double, moments with the hands crossed. */
  readonly thirds: number;
  readonly seconds: number;
  readonly crossed: number;
  /** Moments (ticks) at which a hand strikes that struck just before. */
  readonly again: readonly number[];
}

/** Turns of the loop after which the hands stand as they will at every turn. */
const SETTLED = 3;

/**
 * The cost of a whole sticking that goes round, moment by moment, and the tightest of them: the plain way, which the
 * solver must agree with. The loop is played until the hands stand at its beginning as they do at its end.
 */
export function costOf(
  terms: Terms,
  rhythm: Pick<Rhythm, 'events' | 'loop'>,
  hands: readonly (readonly Hand[])[],
  needs = new Needs(terms),
): {
  readonly cost: number;
  readonly parts: CostParts;
  readonly used: number;
  readonly worst: number | null;
  readonly told: StickingFacts;
} {
  let stand = START;
  const parts = { time: 0, runs: 0, accents: 0, crossings: 0, school: 0 };
  let [used, worst]: [number, number | null] = [0, null];
  const told = { thirds: 0, seconds: 0, crossed: 0, again: [] as number[] };
  const settled = rhythm.events.length < SETTLED ? SETTLED : 1;
  for (let lap = 0; lap <= settled; lap++)
    rhythm.events.forEach((event, i) => {
      const one = step(terms, needs, stand, rhythm, i, hands[i] ?? [], lap);
      stand = one.after;
      if (lap < settled) return;
      parts.time += one.parts.time;
      parts.runs += one.parts.runs;
      parts.accents += one.parts.accents;
      parts.crossings += one.parts.crossings;
      parts.school += one.parts.school;
      if (one.used > used) [used, worst] = [one.used, event.at];
      if (one.run > 1) told.again.push(event.at);
      if (one.parts.runs > 0) told.thirds++;
      if (one.parts.accents > 0) told.seconds++;
      if (one.parts.crossings > 0) told.crossed++;
    });
  return { cost: total(parts), parts, used, worst, told };
}
