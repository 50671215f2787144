/**
 * Text as it is compared: small letters, without accents.
 * @example
 * folded('Café') // => "cafe"
 */
export function folded(text: string): string {
  const small = text.toLowerCase();
  // Most names have no accents to take off.
  return /^[\u0000-\u007f]*$/.test(small) ? small : small.normalize('NFD').replace(/\p{M}/gu, '');
}
