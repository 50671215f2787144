/** Where in the input a problem stands: a column of a text (from 1), a path in a file, or nowhere in particular. */
export type ProblemPlace = { readonly column: number } | { readonly path: string } | null;

/** Something wrong with an input: a code for programs, a place, and a sentence for people. */
export interface Problem<Code extends string = string> {
  readonly code: Code;
  readonly at: ProblemPlace;
  readonly message: string;
}

/** What every reader gives back: a value when there is one, and all the problems met on the way. */
export type Read<T, Code extends string = string> =
  | { readonly ok: true; readonly value: T; readonly problems: readonly Problem<Code>[] }
  | { readonly ok: false; readonly problems: readonly [Problem<Code>, ...Problem<Code>[]] };

export function readOk<T>(value: T): Read<T, never> {
  return { ok: true, value, problems: [] };
}

export function readFail<Code extends string>(code: Code, at: ProblemPlace, message: string): Read<never, Code> {
  return { ok: false, problems: [{ code, at, message }] };
}
