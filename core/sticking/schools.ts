import { otherHand, type Hand } from '../stroke';
import type { Leaning } from './leanings';

/** Ways of finding a sticking, all offered side by side. */
export const STICKING_SCHOOLS = ['alternating', 'doubles', 'lead hand', 'paradiddle-like', 'time hand'] as const;
export type StickingSchool = (typeof STICKING_SCHOOLS)[number];

export const SCHOOL_WORDS: Readonly<Record<StickingSchool, string>> = Object.freeze({
  alternating: 'Strict singles: the hands alternate.',
  doubles: 'Doubles in runs of four and more, singles where there is time.',
  'lead hand': 'One hand plays the beats and the accents, the other fills in.',
  'paradiddle-like': 'Singles with one double between accents, as in paradiddles.',
  'time hand': 'One hand keeps time on the hi-hat or cymbal, the other plays the rest.',
});

/** What one single stroke looks like to a school. */
export interface Preference {
  readonly hand: Hand;
  readonly leads: Hand;
  /** Which hand-stroke in a row by this hand: 1 for the first after the other hand. */
  readonly run: number;
  /** How many the run before had that this stroke ended; 0 when it ended none. */
  readonly ended: number;
  /** Whether it goes on from the end of the loop into its beginning. */
  readonly seam: boolean;
  readonly accent: boolean;
  /** Whether it is on the piece that keeps time. */
  readonly time: boolean;
  /** Whether it is on metal: a crash is no stroke of the other hand's. */
  readonly metal: boolean;
  readonly leaning: Leaning;
  /** The moment before, going round. */
  readonly before: { readonly leaning: Leaning; readonly accent: boolean };
  /** The hand of the accent before; null when it was both or there was none. */
  readonly turned: Hand | null;
}

/**
 * What a school would rather not have, as a cost in the solver's units: about 1 for a matter of taste, 5 for what it
 * stands for, 20 and more for what it forbids.
 */
export function preferenceCost(school: StickingSchool, p: Preference): number {
  const cost = dislike(school, p);
  // What cannot be had everywhere is better missed where the phrase begins again.
  return p.seam ? Math.max(0, school === 'doubles' ? cost * SEAM : cost - 0.05) : cost;
}

/** What share of it counts there for pairs, which come out only where four strokes divide what goes round. */
const SEAM = 0.4;

function dislike(school: StickingSchool, p: Preference): number {
  const other = p.hand !== p.leads;
  switch (school) {
    case 'alternating':
      return p.run > 1 ? STRICT : 0;
    case 'doubles':
      return doublesCost(p);
    case 'lead hand':
      return leadCost(other, p.leaning);
    case 'paradiddle-like':
      return turnCost(p) + (p.run > 2 ? 6 : 0) + (p.run === 2 ? (p.leaning.beforeTurn ? 0.4 : 0.5) : 0);
    case 'time hand':
      if (p.time) return other ? TIME : 0;
      // It leaves its place for a stroke of the other's less gladly still where it has only just struck there.
      return other || p.metal ? 0 : p.run > 1 ? 9 : 4;
  }
}

/** Singles that do not alternate are no singles: it costs more than being late. */
const STRICT = 1e7;
/** A hand that leaves its hat or cymbal to the other one keeps no time: it costs more than being late. */
const TIME = 1e6;

/** What it costs when a stroke of the time layer is not the lead hand's, also where both hands strike. */
export function timeCost(school: StickingSchool, time: boolean, other: boolean): number {
  return school === 'time hand' && time && other ? TIME : 0;
}

/**
 * What being late weighs: pairs are laid where they belong at any tempo, and it is said how fast they hold. In other
 * schools time decides.
 */
export function timeWeight(school: StickingSchool): number {
  return school === 'doubles' ? 0.0005 : 1;
}

function doublesCost({ run, ended, leaning: { pair }, before }: Preference): number {
  let cost = 0;
  if (run === 2) cost += pair === null ? 2 : pair.second ? 0 : 0.75;
  if (run > 2) cost += 8;
  // The stroke before was a lone single: an accent may be one, and what is left over at an end of a run.
  const lone = before.leaning.pair;
  if (ended === 1 && lone !== null) {
    const leftOver = (lone.first && lone.second) || (lone.last && !lone.second);
    cost += before.accent ? 0.5 : leftOver ? 0 : 8;
  }
  return cost;
}

function leadCost(other: boolean, { leads, side, loose }: Leaning): number {
  if (leads) return other ? 5 : 0;
  if (side === null || other === (side === 1)) return 0;
  return loose ? 0.2 : 1.5;
}

function turnCost({ leaning: { turns }, turned, hand }: Preference): number {
  if (turns === null || turned === null) return 0;
  return hand === (turns === 'same' ? turned : otherHand(turned)) ? 0 : 8;
}
