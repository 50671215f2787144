/** A phrase that is one of several orchestrations of the same: "Rope B" is version B of "Rope". */
export interface VersionName {
  readonly of: string;
  readonly letter: string;
}

/**
 * The version a name stands for. A name without a letter is that of version A.
 * @example
 * versionName('Rope B') // => { of: 'Rope', letter: 'B' }
 * versionName('Rope') // => { of: 'Rope', letter: 'A' }
 */
export function versionName(name: string): VersionName {
  const [, of, letter] = /^(.*\S)\s+([A-Z])$/.exec(name.trim()) ?? [];
  return of !== undefined && letter !== undefined ? { of, letter } : { of: name.trim(), letter: 'A' };
}

/** Letters there are for versions, but for A, which is what the others were made of. */
const LETTERS = Array.from('BCDEFGHIJKLMNOPQRSTUVWXYZ');

/**
 * The name of the next version of a phrase: the first letter that is free. Null where all are taken.
 * @example
 * nextVersion('Rope', () => false) // => "Rope B"
 * nextVersion('Rope B', (n) => n === 'Rope B') // => "Rope C"
 */
export function nextVersion(name: string, taken: (name: string) => boolean): string | null {
  const { of } = versionName(name);
  return LETTERS.map((letter) => `${of} ${letter}`).find((n) => !taken(n)) ?? null;
}

/**
 * Those of some phrases that are versions of one, by their letters. Where two have a letter, the one that is called by
 * it stands for it.
 * @example
 * versionsOf('Rope B', [{ name: 'Rope' }, { name: 'Rope B' }, { name: 'Kelp' }]).map((v) => v.letter) // => ['A', 'B']
 */
export function versionsOf<T extends { readonly name: string }>(
  name: string,
  all: readonly T[],
): readonly { readonly letter: string; readonly phrase: T }[] {
  const { of } = versionName(name);
  const found = new Map<string, T>();
  for (const phrase of all) {
    const own = versionName(phrase.name);
    if (own.of === of && (phrase.name.trim() !== of || !found.has(own.letter))) found.set(own.letter, phrase);
  }
  return [...found].map(([letter, phrase]) => ({ letter, phrase })).sort((a, b) => (a.letter < b.letter ? -1 : 1));
}
