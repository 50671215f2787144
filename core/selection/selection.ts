import { Type } from '@sinclair/typebox';
import { LEVELS, LIMBS, ORNAMENTS, VOICES, type Level, type Limb, type Ornament, type Voice } from '../stroke';
import type { Role } from '../pattern';

/** What of a stroke in a group of its kind: both strokes of a double, its first, its second; one that stands alone. */
export const PARTS = ['double', 'first-of-double', 'second-of-double', 'single', 'head', 'tail'] as const;
export type Part = (typeof PARTS)[number];

/** Within what an order counts: the whole phrase, or each bar, beat, group of the meter, cell, or run of a hand. */
export const WITHINS = ['phrase', 'bar', 'beat', 'group', 'cell', 'run'] as const;
export type Within = (typeof WITHINS)[number];

/** Which of several in a row: some from the front or the end, single ones, or every so many from one on. */
export type Which =
  | { readonly first: number }
  | { readonly last: number }
  | { readonly nth: readonly number[] }
  /** `single`: strokes that are struck together are counted one by one. */
  | { readonly every: number; readonly from: number; readonly single?: true }
  | { readonly middle: true };

/** Where a stretch begins or ends, by a count: with it, or without it. */
export const EDGES = ['from', 'to', 'before', 'after'] as const;
export type Edge = (typeof EDGES)[number];

/**
 * Which strokes are meant, as an expression that is worked out anew on every pattern.
 *
 * Counts are written as everywhere ("2", "4&", "2:1" for bar 2 alone); without a bar they stand in every bar. `*` is
 * every beat: "*&" are all the &s. Beats are whole beats. Places and bars are counted from 1.
 */
export type Selection =
  | { readonly is: 'all' }
  // What it is.
  | { readonly is: 'limb'; readonly limbs: readonly Limb[] }
  | { readonly is: 'height'; readonly levels: readonly Level[] }
  | { readonly is: 'piece'; readonly voices: readonly Voice[] }
  | { readonly is: 'ornament'; readonly ornaments: readonly Ornament[] }
  | { readonly is: 'role'; readonly roles: readonly Role[] }
  | { readonly is: 'part'; readonly part: Part }
  // Where it stands.
  | { readonly is: 'count'; readonly counts: readonly string[] }
  | { readonly is: 'beat'; readonly beats: readonly (number | 'last')[] }
  | { readonly is: 'bar'; readonly bars: readonly (number | 'last')[] }
  | { readonly is: 'half'; readonly half: 1 | 2; readonly of: 'bar' | 'phrase' }
  | { readonly is: 'stretch'; readonly edge: Edge; readonly count: string }
  /** Places of the cell. */
  | { readonly is: 'place'; readonly places: readonly number[] }
  | { readonly is: 'repeat'; readonly repeats: readonly ('first' | 'last' | number)[] }
  /** Slots, struck or not: "the first of every beat", "every third slot". */
  | { readonly is: 'slots'; readonly which: Which; readonly within: Within }
  /** Places that were pressed one by one, in ticks from the pattern's start. */
  | { readonly is: 'hand'; readonly at: readonly number[] }
  // In which order.
  | { readonly is: 'order'; readonly of: Selection; readonly which: Which; readonly within: Within }
  // What stands beside it: struck together with others, as the next before or after each of them, or with none.
  | {
      readonly is: 'beside';
      readonly of: Selection;
      readonly how: 'with' | 'before' | 'after';
      readonly what: Selection;
    }
  | { readonly is: 'alone'; readonly of: Selection }
  // Put together.
  | { readonly is: 'and'; readonly all: readonly Selection[] }
  | { readonly is: 'or'; readonly any: readonly Selection[] }
  | { readonly is: 'but'; readonly of: Selection; readonly not: Selection };
export type SelectionKind = Selection['is'];
export type SelectionOf<K extends SelectionKind> = Extract<Selection, { readonly is: K }>;

const some = <T extends string>(values: readonly T[]) =>
  Type.Array(Type.Unsafe<T>({ type: 'string', enum: [...values] }), { maxItems: 64 });
const one = <T extends string>(values: readonly T[]) => Type.Unsafe<T>({ type: 'string', enum: [...values] });
const whole = (most: number) => Type.Integer({ minimum: 1, maximum: most });
const countText = Type.String({ minLength: 1, maxLength: 16 });
const numberOr = (...words: readonly string[]) =>
  Type.Array(Type.Union([...words.map((w) => Type.Literal(w)), whole(2048)]), { maxItems: 64 });
/** The schema itself, by the name under which it is compiled. */
const inner = Type.Unsafe<Selection>({ $ref: 'Selection' });

const which = Type.Union([
  Type.Object({ first: whole(2048) }),
  Type.Object({ last: whole(2048) }),
  Type.Object({ nth: Type.Array(whole(2048), { minItems: 1, maxItems: 64 }) }),
  Type.Object({ every: whole(2048), from: whole(2049), single: Type.Optional(Type.Literal(true)) }),
  Type.Object({ middle: Type.Literal(true) }),
]);

/** The fields of every node, by its kind. */
const NODES: { readonly [K in SelectionKind]: Readonly<Record<string, object>> } = {
  all: {},
  limb: { limbs: some<Limb>(LIMBS) },
  height: { levels: some<Level>(LEVELS) },
  piece: { voices: some<Voice>(VOICES) },
  ornament: { ornaments: some<Ornament>(ORNAMENTS) },
  role: { roles: some<Role>(['primary', 'timekeeping', 'texture']) },
  part: { part: one<Part>(PARTS) },
  count: { counts: Type.Array(countText, { maxItems: 64 }) },
  beat: { beats: numberOr('last') },
  bar: { bars: numberOr('last') },
  half: { half: Type.Union([Type.Literal(1), Type.Literal(2)]), of: one(['bar', 'phrase'] as const) },
  stretch: { edge: one<Edge>(EDGES), count: countText },
  place: { places: Type.Array(whole(2048), { maxItems: 64 }) },
  repeat: { repeats: numberOr('first', 'last') },
  slots: { which, within: one<Within>(WITHINS) },
  hand: { at: Type.Array(Type.Integer({ minimum: 0, maximum: 1e9 }), { maxItems: 2048 }) },
  order: { of: inner, which, within: one<Within>(WITHINS) },
  beside: { of: inner, how: one(['with', 'before', 'after'] as const), what: inner },
  alone: { of: inner },
  and: { all: Type.Array(inner, { minItems: 1, maxItems: 16 }) },
  or: { any: Type.Array(inner, { minItems: 1, maxItems: 64 }) },
  but: { of: inner, not: inner },
};

/** What is kept of a selection. It stands in itself, by its name among the schemas that are compiled together. */
export const SelectionSchema = Type.Unsafe<Selection>({
  type: 'object',
  required: ['is'],
  discriminator: { propertyName: 'is' },
  oneOf: Object.entries(NODES).map(([is, fields]) =>
    Type.Object({ is: Type.Literal(is), ...(fields as Record<string, ReturnType<typeof whole>>) }),
  ),
});

/** All strokes: nothing is said of them. */
export const ALL: Selection = Object.freeze({ is: 'all' });

/**
 * Both, all of several: strokes that each of them chooses. What stands in an `and` already is not put in another.
 * @example
 * both({ is: 'limb', limbs: ['R'] }, { is: 'count', counts: ['2'] }) // => { is: 'and', all: [{ is: 'limb', limbs: ['R'] }, { is: 'count', counts: ['2'] }] }
 * both({ is: 'all' }, { is: 'bar', bars: [2] }) // => { is: 'bar', bars: [2] }
 */
export function both(...parts: readonly Selection[]): Selection {
  const all = parts.flatMap((p) => (p.is === 'and' ? p.all : p.is === 'all' ? [] : [p]));
  const [only, ...more] = all;
  return only === undefined ? ALL : more.length === 0 ? only : { is: 'and', all };
}

/**
 * Any of several.
 * @example
 * either({ is: 'limb', limbs: ['K'] }) // => { is: 'limb', limbs: ['K'] }
 */
export function either(...parts: readonly [Selection, ...Selection[]]): Selection {
  return parts.length === 1 ? parts[0] : { is: 'or', any: parts.flatMap((p) => (p.is === 'or' ? p.any : [p])) };
}
