import type { TSchema } from '@sinclair/typebox';
import type { Finding, FindingCode, Pattern, Weight } from '../../pattern';
import type { Ticks } from '../../time';

/** What a move gives back. When it cannot act it returns the pattern as it was, and says why. */
export interface Outcome {
  readonly pattern: Pattern;
  readonly findings: readonly Finding[];
}

/**
 * Another phrase's recipe as a move sees it: its parts are known to the schema of the move that holds it and to
 * `build`.
 */
export interface OtherRecipe {
  readonly source: object;
  readonly moves: readonly object[];
}

/**
 * What a move may know beside its parameters: the id under which it stands in the recipe, to sign the strokes it adds,
 * and how others are built.
 */
export interface MoveContext {
  readonly id: string;
  /** Works out the recipe of another phrase. */
  readonly build: (recipe: OtherRecipe) => Pattern;
}

/** One kind of move: a pure function of patterns with described parameters. */
export interface Move<Name extends string, Params> {
  readonly name: Name;
  /** What the menu of moves says. */
  readonly title: string;
  /** One line under the title: when a drummer would want it. */
  readonly hint: string;
  readonly schema: TSchema;
  /** It moves the whole phrase: a landing is no part of what it moves, and stays the arrival it is. */
  readonly whole?: true;
  /** Parameters that make sense for a pattern this move is added to. */
  defaults(pattern: Pattern): Params;
  /** The card's sentence; places are named by their counts in the pattern it is applied to, where that is given. */
  describe(params: Params, on?: Pattern): string;
  apply(pattern: Pattern, params: Params, context: MoveContext): Outcome;
}

/** The outcome of a move that did what it says. */
export function done(pattern: Pattern, findings: readonly Finding[] = []): Outcome {
  return { pattern, findings };
}

/** The outcome of a move that does not fit here: the pattern passes through. */
export function passes(pattern: Pattern, code: FindingCode, words: string): Outcome {
  return { pattern, findings: [{ code, weight: 'stop', words }] };
}

export function finding(code: FindingCode, weight: Weight, words: string, at?: readonly Ticks[]): Finding {
  return at ? { code, weight, words, at } : { code, weight, words };
}

/** The finding of a move whose selector chose nothing. */
export function choseNothing(pattern: Pattern, what: string): Outcome {
  return passes(pattern, 'nothing-chosen', `There are no ${what} here, so nothing changes.`);
}
