import type { Lattice } from './lattice';

/** What is played in so large a share of the bars, at one place of them, is the groove; and so often at least. */
const GROOVE = 0.34;
const OFTEN = 3;

/** The same number for slots that sound alike; 0 where nothing was struck. */
export function codesOf(lattice: Lattice): Int32Array {
  const ids = new Map<string, number>([['', 0]]);
  return Int32Array.from(lattice.slots, (slot) => {
    const text = [...new Set(slot.map((h) => `${h.kind}${h.voice ?? ''}`))].sort().join('+');
    const id = ids.get(text) ?? ids.size;
    ids.set(text, id);
    return id;
  });
}

/**
 * 1 for each slot of a beat that sounds at its place of the bar as every third bar does. A groove that is played with a
 * stroke left out or put in is one still, where `near` slots of a beat may differ.
 * @param bar slots of a bar, and of a beat
 */
export function grooveSlots(codes: Int32Array, bar: number, beat: number, near = 0): Uint8Array {
  const bars = Math.max(1, Math.ceil(codes.length / bar));
  const keyAt = (from: number): string => codes.subarray(from, from + beat).join();
  const many = new Map<string, number>();
  for (let from = 0; from < codes.length; from += beat) {
    const key = `${from % bar}|${keyAt(from)}`;
    many.set(key, (many.get(key) ?? 0) + 1);
  }
  const usualAt = new Map<number, readonly (readonly string[])[]>();
  for (const [key, n] of many) {
    if (n < Math.max(OFTEN, GROOVE * bars)) continue;
    const [place = '0', text = ''] = key.split('|');
    usualAt.set(Number(place), [...(usualAt.get(Number(place)) ?? []), text.split(',')]);
  }
  const usual = new Uint8Array(codes.length);
  for (let from = 0; from < codes.length; from += beat) {
    const own = keyAt(from).split(',');
    const off = (other: readonly string[]): number => own.reduce((n, c, i) => n + (c === other[i] ? 0 : 1), 0);
    if ((usualAt.get(from % bar) ?? []).some((other) => off(other) <= near)) usual.fill(1, from, from + beat);
  }
  return usual;
}
