/**
 * JSON with the fields of every object in the order of their names: the same value always gives the same text.
 * @example
 * stableJson({ b: 1, a: [true] }) // => '{"a":[true],"b":1}'
 */
export function stableJson(value: unknown): string {
  return JSON.stringify(value, (_, part: unknown) =>
    typeof part === 'object' && part !== null && !Array.isArray(part)
      ? Object.fromEntries(Object.entries(part).sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0)))
      : part,
  );
}

/**
 * A running sum over text by which a changed letter is noticed: two 32-bit halves after Fowler, Noll and Vo (FNV-1a).
 */
export class Checksum {
  private a = 0x811c9dc5;
  private b = 0xcbf29ce4;

  add(text: string): this {
    let { a, b } = this;
    const { imul } = Math;
    for (let i = 0; i < text.length; i++) {
      const code = text.charCodeAt(i);
      a = imul(a ^ code, 0x01000193);
      b = imul(b ^ code, 0x01000197);
    }
    this.a = a;
    this.b = b;
    return this;
  }

  /** 16 hexadecimal digits. */
  toString(): string {
    return [this.a, this.b].map((n) => (n >>> 0).toString(16).padStart(8, '0')).join('');
  }
}

/**
 * The checksum of a text.
 * @example
 * checksumOf('') // => "811c9dc5cbf29ce4"
 * checksumOf('a') === checksumOf('b') // => false
 */
export function checksumOf(text: string): string {
  return new Checksum().add(text).toString();
}
