import { checkedAt } from '../base';
import { barTicks, beatTicks, ticks } from '../time';
import type { Stroke } from '../stroke';
import { partOf, rolesOf, type Pattern, type Role } from '../pattern';
import { INGREDIENTS, type Ingredient, type Stage } from './stage';

/** How a phrase grows: note by note, four notes at a time, beat by beat, or ingredient by ingredient. */
export const GROWTHS = ['note', 'four', 'beat', 'ingredient'] as const;
export type Growth = (typeof GROWTHS)[number];

/** The most stages that growth makes; beyond them it grows in larger steps. */
const MOST_GROWN = 24;

/**
 * The stages by which a phrase grows to the whole, each on whole bars. Beats are those of the bar, so that a phrase
 * that begins off the 1 grows to the next beat first.
 */
export function growthStages(phrase: Pattern, by: Growth): readonly Stage[] {
  if (by === 'ingredient') return ingredientStages(phrase);
  const ends = by === 'beat' ? beatEnds(phrase) : noteEnds(phrase, by === 'note' ? 1 : 4);
  const each = Math.ceil(ends.length / MOST_GROWN);
  const kept = ends.filter((_, i) => (i + 1) % each === 0 || i === ends.length - 1);
  return kept.map(({ until, many }, i) => ({
    id: `g${i + 1}`,
    kind: 'grow',
    part: by === 'beat' ? { of: 'beats', many } : { of: 'notes', many, each: many - (kept[i - 1]?.many ?? 0) },
    until,
    short: true,
  }));
}

interface End {
  readonly until: number;
  /** Notes or beats up to there. */
  readonly many: number;
}

function noteEnds(phrase: Pattern, each: number): readonly End[] {
  const at = [...new Set(phrase.strokes.map((s) => s.at))];
  return at.flatMap((_, i) =>
    (i + 1) % each === 0 || i === at.length - 1 ? [{ until: at[i + 1] ?? phrase.length, many: i + 1 }] : [],
  );
}

/** The beats that have something in them or before them, up to the last that is played. */
function beatEnds(phrase: Pattern): readonly End[] {
  const beat = beatTicks(phrase.meter);
  const [first, last] = [phrase.strokes[0]?.at ?? 0, phrase.strokes.at(-1)?.at ?? 0];
  const begins = Math.floor(phrase.start / beat) * beat - phrase.start;
  const all = Array.from({ length: Math.ceil((phrase.length - begins) / beat) }, (_, i) => ({
    until: Math.min(phrase.length, begins + (i + 1) * beat),
    many: i + 1,
  }));
  // What comes after the last stroke is silence: it is the whole already.
  return all.filter((e, i) => e.until > first && (all[i - 1]?.until ?? 0) <= last);
}

/** A part that is one beat goes round in that beat, and nobody waits for the rest of the bar. */
export function onItsBeat(part: Pattern): Pattern {
  const beat = beatTicks(part.meter);
  return part.start % beat === 0 && part.length === beat ? { ...part, start: ticks(0) } : part;
}

/**
 * A phrase up to a tick, on the whole bars that hold it, so that what has grown does not wait for the rest; its first
 * beat goes round in that beat.
 */
export function grownTo(phrase: Pattern, until: number): Pattern {
  const beat = beatTicks(phrase.meter);
  if (phrase.start % beat === 0 && until === beat && phrase.length > beat) return onItsBeat(partOf(phrase, 0, until));
  const bar = barTicks(phrase.meter);
  const bars = Math.ceil((phrase.start + Math.max(1, until)) / bar) * bar - phrase.start;
  const length = ticks(Math.min(phrase.length, bars));
  return {
    ...phrase,
    length,
    strokes: phrase.strokes.filter((s) => s.at < until),
    groups: phrase.groups.flatMap((g) =>
      g.at < length ? [{ ...g, length: ticks(Math.min(g.length, length - g.at)) }] : [],
    ),
  };
}

/**
 * A phrase with its ingredients up to one: the kick, the backbeat and what else carries it; then what keeps time; then
 * what fills between; then the grace strokes.
 */
export function withIngredients(phrase: Pattern, upTo: Ingredient): Pattern {
  const most = INGREDIENTS.indexOf(upTo);
  const roles = rolesOf(phrase);
  const comes: Readonly<Record<Role, number>> = { primary: 0, timekeeping: 1, texture: 2 };
  const strokes = phrase.strokes
    .filter((_, i) => comes[checkedAt(roles, i, 'role')] <= most)
    .map((s) => (most < INGREDIENTS.indexOf('graces') ? plainly(s) : s));
  return strokes.length > 0 ? { ...phrase, strokes } : phrase;
}

function plainly({ ornament: _ornament, grace: _grace, ...stroke }: Stroke): Stroke {
  return stroke;
}

/** The stages by which a phrase is put together, those left out that add nothing; none where there is only one. */
function ingredientStages(phrase: Pattern): readonly Stage[] {
  const looks = (p: Pattern): string => JSON.stringify(p.strokes.map((s) => [s.at, s.limb, s.ornament ?? '']));
  const seen = new Set<string>();
  const kept = INGREDIENTS.filter((upTo) => {
    const look = looks(withIngredients(phrase, upTo));
    return !seen.has(look) && seen.add(look);
  });
  if (kept.length < 2) return [];
  return kept.map((upTo, i) => ({ id: `i${i + 1}`, kind: 'grow', part: { of: 'ingredients', upTo }, short: true }));
}
