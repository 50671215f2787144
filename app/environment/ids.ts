/**
 * An id nobody has had before: a UUID of chance (RFC 9562, version 4). Where the page came over plain http the browser
 * has no `crypto.randomUUID`; chance it has everywhere.
 */
export function freshUuid(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  // The version, and the variant.
  bytes[6] = ((bytes[6] ?? 0) & 0x0f) | 0x40;
  bytes[8] = ((bytes[8] ?? 0) & 0x3f) | 0x80;
  const hex = [...bytes].map((b) => b.toString(16).padStart(2, '0')).join('');
  return hex.replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5');
}
