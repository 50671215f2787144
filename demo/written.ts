import { GRID, meterText } from '@core/time';
import type { Family, MoveEntry, MoveName, MoveParams, Source } from '@core/recipe';
import { rudimentById } from '@core/rudiments';
import { chooses, type Facets } from '@core/selection';

/** A move as written here: its name and parameters. Ids are given when the shelf is made. */
type Written = { readonly [N in MoveName]: readonly [N, MoveParams[N]] }[MoveName];

/** A phrase of the demo shelf before it is given ids and dates. */
export interface DemoPhrase {
  readonly name: string;
  readonly family: Family;
  readonly tempo: number;
  readonly goal: number;
  readonly note: string;
  readonly source: Source;
  readonly moves: readonly MoveEntry[];
}

type Close = MoveParams['fit']['close'];
type Station = MoveParams['route']['stations'][number]['right'];

export const typed = (
  text: string,
  meter = '4/4',
  grid: number = GRID.sixteenths,
  swing?: Source['swing'],
): Source => ({
  kind: 'typed',
  text,
  meter,
  grid,
  ...(swing ? { swing } : {}),
});
export function rudiment(id: string): Source {
  const found = rudimentById(id);
  if (!found) throw new Error(`no rudiment ${id}`);
  return { kind: 'rudiment', id, meter: meterText(found.meter), grid: found.grid };
}
export const fit = (n: number, close: Close = { kind: 'cut' }, start = '1', mirrored = false): MoveParams['fit'] => ({
  space: { bars: n },
  start,
  mirrored,
  close,
});
export const bars = (...params: Parameters<typeof fit>): Written => ['fit', fit(...params)];
export const close = (text: string): Close => ({ kind: 'strokes', text });
export const kickAtEnd: Written = ['insert', { text: 'K', where: { kind: 'end' } }];
export const accent = (of: Facets): Written => ['level', { select: chooses(of), level: 'accent' }];
export const ghost = (of: Facets): Written => ['level', { select: chooses(of), level: 'ghost' }];
export const send = (of: Facets, voices: MoveParams['voice']['voices'], under?: 'K' | 'H'): Written => [
  'voice',
  { select: chooses(of), voices, ...(under ? { under } : {}) },
];
export const grid = (g: number): Written => ['grid', { grid: g }];
export const later = (slots: number): Written => ['shift', { slots, mode: 'wrap' }];
export const lay = (limb: 'K' | 'H', on: MoveParams['layer']['on']): Written => [
  'layer',
  { limb, voice: limb === 'K' ? 'kick' : 'hat-foot', level: 'tap', on, clash: 'keep' },
];
export const landing: Written = ['land', { voice: 'crash-right', hand: 'R', kick: true }];
export const round = (stations: readonly Station[], sizes: number[]): Written => [
  'route',
  { select: chooses({ limbs: ['R', 'L'] }), stations: stations.map((v) => ({ right: v, left: v })), order: [], sizes },
];
/** Bars of another sticking behind. */
export const then = (name: string, text: string, n: number): Written => [
  'join',
  { name, other: { source: typed(text), moves: [{ id: 'm1', on: true, move: 'fit', params: fit(n) }] } },
];

export function phrase(
  family: Family,
  name: string,
  [tempo, goal]: readonly [number, number],
  note: string,
  source: Source,
  ...moves: Written[]
): DemoPhrase {
  return {
    name,
    family,
    tempo,
    goal,
    note,
    source,
    moves: moves.map(([move, params], i) => ({ id: `m${i + 1}`, on: true, move, params }) as MoveEntry),
  };
}

export const RIGHTS: Facets = { limbs: ['R'] };
export const LEFTS: Facets = { limbs: ['L'] };
export const ACCENTS: Facets = { levels: ['accent'] };
export const HAND_ACCENTS: Facets = { limbs: ['R', 'L'], levels: ['accent'] };
