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

const MOST_PARTS = 96;
const SIGNS: ReadonlyMap<string, string> = new Map([
  ['1/4', '¼'],
  ['1/2', '½'],
  ['3/4', '¾'],
  ['1/3', '⅓'],
  ['2/3', '⅔'],
]);

/**
 * A count of beats, bars or slots as people write it: halves, quarters and thirds by their signs, other fractions in
 * full, so that sums of them add up. What is no fraction of at most 96 parts keeps two digits.
 * @example
 * fraction(1.5) // => "1½"
 * fraction(0.25) // => "¼"
 * fraction(3) // => "3"
 * fraction(8 / 3) // => "2⅔"
 * fraction(5 + 3 / 7) // => "5 3/7"
 */
export function fraction(n: number): string {
  for (let parts = 1; parts <= MOST_PARTS; parts++) {
    const of = Math.round(n * parts);
    if (Math.abs(n * parts - of) > 1e-6 * parts) continue;
    const [whole, over] = [Math.floor(of / parts), of - Math.floor(of / parts) * parts];
    if (over === 0) return String(whole);
    const text = `${over}/${parts}`;
    const sign = SIGNS.get(text);
    if (sign) return whole === 0 ? sign : `${whole}${sign}`;
    return whole === 0 ? text : `${whole} ${text}`;
  }
  return n.toFixed(2);
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
