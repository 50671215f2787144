/** One of several things to choose from: a chip of a row, an entry of a list. */
export interface Choice<T> {
  readonly value: T;
  readonly words: string;
  /** What a screen reader says where the words alone say too little. */
  readonly name?: string;
  /** Cannot be chosen now. */
  readonly off?: boolean;
}

/** Things that are called what they are. */
export function choicesOf<T extends string | number>(
  values: readonly T[],
  words: (value: T) => string = String,
): readonly Choice<T>[] {
  return values.map((value) => ({ value, words: words(value) }));
}
