/**
 * What comes first of some things, again and again: a binary heap. `isBefore` says which of two comes first.
 * @example
 * [3, 1, 2].reduce((heap, n) => heap.push(n), new Heap((a, b) => a < b)).pop() // => 1
 */
export class Heap<T> {
  private readonly all: T[] = [];

  constructor(private readonly isBefore: (a: T, b: T) => boolean) {}

  push(one: T): this {
    const { all } = this;
    let at = all.length;
    all.push(one);
    while (at > 0) {
      const up = (at - 1) >> 1;
      const parent = all[up];
      if (parent === undefined || !this.isBefore(one, parent)) break;
      all[at] = parent;
      at = up;
    }
    all[at] = one;
    return this;
  }

  /** The first, which is taken out; null where there is none. */
  pop(): T | null {
    const { all } = this;
    const top = all[0];
    const last = all.pop();
    if (top === undefined || last === undefined) return null;
    if (all.length === 0) return top;
    let at = 0;
    for (;;) {
      let next = 2 * at + 1;
      const [a, b] = [all[next], all[next + 1]];
      if (a === undefined) break;
      if (b !== undefined && this.isBefore(b, a)) next++;
      const child = all[next];
      if (child === undefined || !this.isBefore(child, last)) break;
      all[at] = child;
      at = next;
    }
    all[at] = last;
    return top;
  }
}
