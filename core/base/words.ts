/**
 * A number with its noun, in the plural where it belongs.
 * @example
 * count(1, 'stroke') // => "1 stroke"
 * count(3, 'bar') // => "3 bars"
 */
export function count(n: number, noun: string, plural = `${noun}s`): string {
  return `${n} ${n === 1 ? noun : plural}`;
}

/**
 * A list as people say it.
 * @example
 * listed(['1', '2', '4']) // => "1, 2 and 4"
 */
export function listed(words: readonly string[]): string {
  if (words.length < 2) return words.join('');
  return `${words.slice(0, -1).join(', ')} and ${words.at(-1) ?? ''}`;
}

/**
 * A list cut after `most` items, with how many were left out.
 * @example
 * listedUpTo(['a', 'b', 'c', 'd'], 2) // => "a, b and 2 more"
 */
export function listedUpTo(words: readonly string[], most: number): string {
  if (words.length <= most) return listed(words);
  return `${words.slice(0, most).join(', ')} and ${words.length - most} more`;
}

/**
 * A count of beats or bars with halves and quarters as people write them; other fractions keep two digits.
 * @example
 * fraction(1.5) // => "1½"
 * fraction(0.25) // => "¼"
 * fraction(3) // => "3"
 */
export function fraction(n: number): string {
  const whole = Math.floor(n);
  const sign = new Map([
    [0.25, '¼'],
    [0.5, '½'],
    [0.75, '¾'],
  ]).get(n - whole);
  if (sign) return whole === 0 ? sign : `${whole}${sign}`;
  return Number.isInteger(n) ? String(n) : n.toFixed(2);
}

/** Small numbers as they are spoken, from one to twelve. */
export const NUMBER_WORDS: readonly string[] = Object.freeze(
  'one two three four five six seven eight nine ten eleven twelve'.split(' '),
);

/** First letter large, the rest as it is. */
export function sentence(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/**
 * An ordinal in digits.
 * @example
 * nth(2) // => "2nd"
 * nth(13) // => "13th"
 */
export function nth(n: number): string {
  const [tens, ones] = [n % 100, n % 10];
  if (tens > 10 && tens < 14) return `${n}th`;
  return `${n}${ones === 1 ? 'st' : ones === 2 ? 'nd' : ones === 3 ? 'rd' : 'th'}`;
}

const ORDINALS: readonly string[] = Object.freeze(
  'first second third fourth fifth sixth seventh eighth ninth tenth eleventh twelfth'.split(' '),
);

/**
 * An ordinal in letters up to twelve, in digits beyond.
 * @example
 * ordinal(2) // => "second"
 * ordinal(21) // => "21st"
 */
export function ordinal(n: number): string {
  return ORDINALS[n - 1] ?? nth(n);
}
