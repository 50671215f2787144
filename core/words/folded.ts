/**
 * Text as it is compared: small letters, without accents.
 * @example
 * folded('Café') // => "cafe"
 */
export function folded(text: string): string {
  return text.toLowerCase().normalize('NFD').replace(/\p{M}/gu, '');
}
