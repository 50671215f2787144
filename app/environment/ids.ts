/**
 * An id nobody has had before. Where the page came over plain http the browser has no `crypto.randomUUID`; chance it
 * has everywhere.
 */
export function freshUuid(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  return [...bytes].map((b) => b.toString(16).padStart(2, '0')).join('');
}
