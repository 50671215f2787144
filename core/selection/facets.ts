import type { Level, Limb, Voice } from '../stroke';
import type { Role } from '../pattern';
import { both, type Selection } from './selection';

/**
 * A selection as plain restrictions, all of which hold: as recipes had it before version 4 of the shelf, and as chips
 * and fields set it. An absent field restricts nothing, an empty list lets nothing through.
 */
export interface Facets {
  readonly limbs?: readonly Limb[];
  readonly levels?: readonly Level[];
  readonly voices?: readonly Voice[];
  /** Slots of the cell, from 1. */
  readonly places?: readonly number[];
  /** Counts without a bar: in every bar. */
  readonly counts?: readonly string[];
  readonly bars?: readonly number[];
  readonly repeats?: readonly ('first' | 'last' | number)[];
  /** First or second stroke of a run of the same hand. */
  readonly inRun?: 1 | 2;
  readonly roles?: readonly Role[];
  /** Ticks from the pattern's start. */
  readonly ticks?: readonly number[];
  /** Comes last, and counts among what the others let through; `offset` from 0. */
  readonly every?: { readonly n: number; readonly offset: number; readonly of: 'slot' | 'stroke' };
}

/**
 * The selection that plain restrictions are.
 * @example
 * chooses({ limbs: ['R'], counts: ['2', '4'] }) // => { is: 'and', all: [{ is: 'limb', limbs: ['R'] }, { is: 'count', counts: ['2', '4'] }] }
 * chooses({}) // => { is: 'all' }
 */
export function chooses(facets: Facets): Selection {
  const { limbs, levels, voices, places, counts, bars, repeats, inRun, roles, ticks, every } = facets;
  const all: Selection[] = [];
  if (roles) all.push({ is: 'role', roles });
  if (limbs) all.push({ is: 'limb', limbs });
  if (levels) all.push({ is: 'height', levels });
  if (places) all.push({ is: 'place', places });
  if (inRun) all.push({ is: 'part', part: inRun === 1 ? 'first-of-double' : 'second-of-double' });
  if (voices) all.push({ is: 'piece', voices });
  // A bar before a count was never heeded.
  if (counts)
    all.push({ is: 'count', counts: counts.map((c) => c.replace(/^-?\d+:/, '')).filter((c) => /^[^*]/.test(c)) });
  if (bars) all.push({ is: 'bar', bars });
  if (repeats) all.push({ is: 'repeat', repeats });
  if (ticks) all.push({ is: 'hand', at: ticks });
  if (every?.of === 'slot')
    all.push({ is: 'slots', which: { every: every.n, from: every.offset + 1 }, within: 'phrase' });
  const chosen = both(...all);
  if (every?.of !== 'stroke') return chosen;
  const one = limbs !== undefined && limbs.length <= 1;
  const which = { every: every.n, from: (every.offset % every.n) + 1, ...(one ? {} : { single: true as const }) };
  return { is: 'order', of: chosen, which, within: 'phrase' };
}

type Draft = { -readonly [K in keyof Facets]: Facets[K] };

/**
 * A selection as plain restrictions, for chips and fields; null where it says more than they can.
 * @example
 * facetsOf({ is: 'bar', bars: [2] }) // => { bars: [2] }
 * facetsOf({ is: 'alone', of: { is: 'all' } }) // => null
 */
export function facetsOf(selection: Selection): Facets | null {
  const parts = selection.is === 'and' ? selection.all : selection.is === 'all' ? [] : [selection];
  const draft: Draft = {};
  for (const part of parts) {
    const own = facetOf(part);
    if (own === null || Object.keys(own).some((key) => key in draft)) return null;
    Object.assign(draft, own);
  }
  return draft;
}

function facetOf(s: Selection): Facets | null {
  switch (s.is) {
    case 'limb':
      return { limbs: s.limbs };
    case 'height':
      return { levels: s.levels };
    case 'piece':
      return { voices: s.voices };
    case 'role':
      return { roles: s.roles };
    case 'place':
      return { places: s.places };
    case 'count':
      return s.counts.some((c) => /[:*]/.test(c)) ? null : { counts: s.counts };
    case 'bar': {
      const bars = s.bars.filter((b) => b !== 'last');
      return bars.length === s.bars.length ? { bars } : null;
    }
    case 'repeat':
      return { repeats: s.repeats };
    case 'hand':
      return { ticks: s.at };
    case 'part':
      if (s.part === 'first-of-double') return { inRun: 1 };
      return s.part === 'second-of-double' ? { inRun: 2 } : null;
    case 'slots':
      return s.within === 'phrase' && 'every' in s.which
        ? { every: { n: s.which.every, offset: s.which.from - 1, of: 'slot' } }
        : null;
    default:
      return null;
  }
}
