import { count, listedUpTo } from '../base';
import { useWords, type OwnFigure, type PhraseUse } from './answers';

const NO_SITTING = 'Nothing was played freely yet: go to Play, and let a pad or a microphone listen.';

/**
 * What do I use?
 * @example
 * whatIsUsed([], 0) // => "Nothing was played freely yet: go to Play, and let a pad or a microphone listen."
 * whatIsUsed([], 2) // => "No phrase of the shelf came in 2 sittings."
 */
export function whatIsUsed(uses: readonly (PhraseUse & { readonly name: string })[], sittings: number): string {
  const [first] = uses;
  if (sittings === 0) return NO_SITTING;
  if (!first) return `No phrase of the shelf came in ${count(sittings, 'sitting')}.`;
  const others = uses.length === 1 ? '' : ` ${count(uses.length - 1, 'other phrase')} came too.`;
  return `${first.name} came most: ${useWords(first)}.${others}`;
}

/**
 * What have I drilled and never used?
 * @example
 * whatIsNeverUsed(['Net', 'Rope'], 3) // => "Net and Rope were played clean and never came in free play."
 * whatIsNeverUsed([], 3) // => "Every phrase that you can play clean came in free play."
 */
export function whatIsNeverUsed(names: readonly string[], sittings: number): string {
  if (sittings === 0) return NO_SITTING;
  if (names.length === 0) return 'Every phrase that you can play clean came in free play.';
  const were = names.length === 1 ? 'was played clean and never came' : 'were played clean and never came';
  return `${listedUpTo(names, 3)} ${were} in free play.`;
}

/**
 * What do I play that is not on the shelf?
 * @example
 * whatIsBeside([], 3) // => "Nothing came three times that is not on the shelf."
 */
export function whatIsBeside(figures: readonly Pick<OwnFigure, 'times'>[], sittings: number): string {
  const [first] = figures;
  if (sittings === 0) return NO_SITTING;
  if (!first) return 'Nothing came three times that is not on the shelf.';
  if (figures.length === 1) return `One figure that is not on the shelf came ${first.times} times.`;
  return `${count(figures.length, 'figure')} that are not on the shelf came three times or more, the longest ${first.times} times.`;
}
