import type { Recipe } from '@core/recipe';
import { chooses } from '@core/selection';

/** A worked example that can be taken apart: five slots over two bars of four, with its accents on the kit. */
export const WORKED_EXAMPLE: Recipe = {
  source: { kind: 'typed', text: 'R l l R', meter: '4/4', grid: 1260 },
  moves: [
    { id: 'm1', on: true, move: 'insert', params: { text: 'K', where: { kind: 'end' } } },
    {
      id: 'm2',
      on: true,
      move: 'fit',
      params: { space: { bars: 2 }, start: '1', mirrored: false, close: { kind: 'strokes', text: 'R L' } },
    },
    { id: 'm3', on: true, move: 'level', params: { select: chooses({ places: [1], limbs: ['R'] }), level: 'accent' } },
    {
      id: 'm4',
      on: true,
      move: 'voice',
      params: { select: chooses({ limbs: ['R'], levels: ['accent'] }), voices: ['crash-right'], under: 'K' },
    },
    {
      id: 'm5',
      on: true,
      move: 'voice',
      params: { select: chooses({ limbs: ['R'], levels: ['tap'] }), voices: ['high-tom'] },
    },
  ],
};
