import type { Demands } from '../compose';
import { parseGrid } from '../time';
import type { Trait } from '../shelf';

/** Lines of the box that may lead to a value of a trait, the plainest first. Each is held to what it makes. */
export function linesTo(trait: Trait, value: string): readonly string[] {
  switch (trait) {
    case 'grid':
      return parseGrid(value) === null ? [] : [`put it on ${value}`];
    case 'groups':
      return [
        'add a kick at the end',
        'add R at the end',
        'cut the last stroke out, the rest moves up',
        'fill 1 bar, cut the last one',
      ];
    case 'limbs':
      return LIMB_LINES[value] ?? [];
    case 'together':
      return value === 'linear'
        ? ['make it linear']
        : [
            'kick under the accents',
            'add the hi-hat foot underneath on quarters',
            'add the hi-hat foot underneath on eighths',
          ];
    case 'sticking':
      return ['give the second of each double to the other hand', 'give the second of each double to the kick foot'];
    case 'lead':
      return ['swap the hands'];
    case 'starts':
      return value === 'on 1'
        ? ['start on 1']
        : value === 'on a beat'
          ? ['start on 3', 'start on 2']
          : ['start on 2&', 'start on 1&'];
    case 'lands':
      return LANDING_LINES[value] ?? [];
    case 'length':
      return LENGTH_LINES[value] ?? [];
    case 'meter':
      return [];
    case 'accents':
      return value === 'none'
        ? ['accents as taps']
        : ['accent the first of every group', 'accent 1 and 3', 'accent the rights', 'accent every other stroke'];
    case 'ghosts':
      return value === 'none'
        ? ['ghosts as plain taps', 'no ghosts']
        : ['ghost the lefts', 'ghost the second of each double', 'ghost the taps'];
    case 'way':
      return WAY_LINES[value] ?? [];
    case 'ornaments':
      return value === 'none'
        ? ['no ornaments']
        : value === 'flams'
          ? ['flams on the accents', 'a flam on 1']
          : value === 'drags'
            ? ['drags on the accents', 'a drag on 1']
            : [];
  }
}

const LIMB_LINES: Readonly<Record<string, readonly string[]>> = {
  hands: ['leave out the kicks', 'leave out the feet'],
  'hands and kick': ['add a kick at the end', 'give the second of each double to the kick foot', 'kick on 1 and 3'],
  'hands and hat foot': ['add the hi-hat foot underneath on quarters', 'add the hi-hat foot underneath on eighths'],
  'hands and both feet': ['add the hi-hat foot underneath on quarters', 'add the hi-hat foot underneath on eighths'],
};
const LANDING_LINES: Readonly<Record<string, readonly string[]>> = {
  kick: ['land on the next 1 with the kick'],
  'cymbal with the right': ['land on the next 1 with the right crash and the kick'],
  'cymbal with the left': ['land on the left crash with the left hand'],
};
const LENGTH_LINES: Readonly<Record<string, readonly string[]>> = {
  'up to half a bar': ['only the first half'],
  'up to a bar': ['fill 1 bar, cut the last one', 'bar 1 on its own'],
  'up to two bars': ['fill 2 bars, cut the last one'],
  'up to four bars': ['fill 4 bars, cut the last one'],
};
const WAY_LINES: Readonly<Record<string, readonly string[]>> = {
  stays: ['everything to the snare', 'hands to the snare'],
  'hands apart': ['right hand to the floor tom', 'rights to the floor tom, lefts to the snare'],
  down: ['down the toms', 'down the toms in fours', 'down the toms in twos'],
  up: ['up the toms', 'up the toms in fours'],
  round: ['round the toms in ones', 'accents to the crash'],
};

const BARS: Readonly<Record<string, number>> = {
  'up to half a bar': 0.5,
  'up to a bar': 1,
  'up to two bars': 2,
  'up to four bars': 4,
};

/** What is asked of a composed phrase so that it has a value of a trait; null where that cannot be asked for. */
export function demandOf(trait: Trait, value: string): Partial<Demands> | null {
  switch (trait) {
    case 'grid': {
      const grid = parseGrid(value);
      return grid === null ? null : { grid };
    }
    case 'groups':
      return /^[3-7]$/.test(value) ? { blocks: [value as '3'] } : null;
    case 'limbs':
      return value === 'hands' ? { blocks: ['singles'] } : value === 'hands and kick' ? {} : null;
    case 'together':
      return value === 'linear' ? { linear: true } : null;
    case 'sticking':
      return value === 'singles'
        ? { hand: 1 }
        : value === 'doubles'
          ? { blocks: ['own'], own: 'R R L L' }
          : value === 'paradiddle-like'
            ? { blocks: [], rudiments: ['single paradiddle'] }
            : null;
    case 'lead':
      return value === 'right' ? { lead: 'R' } : value === 'left' ? { lead: 'L' } : null;
    case 'starts':
      return { from: value === 'on 1' ? null : value === 'on a beat' ? '3' : '2&' };
    case 'lands':
      return value === 'nowhere'
        ? { lands: 'nowhere' }
        : value === 'kick'
          ? { lands: 'kick' }
          : value === 'cymbal with the right'
            ? { lands: 'right' }
            : value === 'cymbal with the left'
              ? { lands: 'left' }
              : null;
    case 'length': {
      const bars = BARS[value];
      return bars === undefined ? null : { bars };
    }
    case 'meter':
      return { meter: value };
    case 'way':
      return value === 'down' || value === 'up'
        ? { way: value }
        : value === 'hands apart'
          ? { way: 'apart' }
          : value === 'stays'
            ? { way: 'none' }
            : null;
    case 'accents':
    case 'ghosts':
    case 'ornaments':
      return null;
  }
}
