import { GRID } from './grid';

/** Straight, or swung: the off-slot of each pair of eighths or 16ths comes later, at `ratio` of the pair. */
export type Feel =
  { readonly kind: 'straight' } | { readonly kind: 'swung'; readonly on: 'eighths' | '16ths'; readonly ratio: number };

export const STRAIGHT: Feel = Object.freeze({ kind: 'straight' });

/** Swing ratios that make sense: even to dotted. */
export const SWING = Object.freeze({ least: 0.5, most: 0.75 });

/**
 * A feel in words; empty for straight.
 * @example
 * feelWords({ kind: 'swung', on: 'eighths', ratio: 0.62 }) // => "eighths swung 62%"
 * feelWords(STRAIGHT) // => ""
 */
export function feelWords(feel: Feel): string {
  return feel.kind === 'straight' ? '' : `${feel.on} swung ${Math.round(feel.ratio * 100)}%`;
}

/**
 * A tick that sounded under a feel as it is written: the way back from `swung`.
 * @example
 * straightened(3024, { kind: 'swung', on: 'eighths', ratio: 0.6 }) // => 2520
 * straightened(5040, STRAIGHT) // => 5040
 */
export function straightened(tick: number, feel: Feel): number {
  if (feel.kind === 'straight') return tick;
  const { half, pair, start, inside, middle } = pairOf(tick, feel);
  return inside <= middle
    ? start + (inside / middle) * half
    : start + half + ((inside - middle) / (pair - middle)) * half;
}

/**
 * Where a tick sounds under a feel, in ticks with a fraction: used by playback and by measuring, never stored.
 * Time inside each pair of slots is bent so that its middle falls at `ratio`; what lies between moves in proportion.
 * @example
 * swung(2520, { kind: 'swung', on: 'eighths', ratio: 0.6 }) // => 3024
 * swung(5040, { kind: 'swung', on: 'eighths', ratio: 0.6 }) // => 5040
 */
export function swung(tick: number, feel: Feel): number {
  if (feel.kind === 'straight') return tick;
  const { half, pair, start, inside, middle } = pairOf(tick, feel);
  return inside <= half
    ? start + (inside / half) * middle
    : start + middle + ((inside - half) / half) * (pair - middle);
}

/** The pair of slots a tick lies in, how far inside, and where its middle sounds. */
function pairOf(tick: number, { on, ratio }: Extract<Feel, { kind: 'swung' }>) {
  const half = on === 'eighths' ? GRID.eighths : GRID.sixteenths;
  const pair = half * 2;
  const start = Math.floor(tick / pair) * pair;
  return { half, pair, start, inside: tick - start, middle: pair * ratio };
}
