import { NUMBER_WORDS } from '../base';
import { STRAIGHT } from '../time';
import type { Program } from './program';

/** How loud a number is called. */
const CALLED = 120;

/**
 * The same program with a number that is spoken once, at a tick from the program's zero; unchanged for a number that
 * has no word.
 * @example
 * saying({ layers: [], loop: 20160, countIn: 0, origin: 0 }, 3, 20160).layers[0].events[0].sound // => "say:three"
 * saying({ layers: [], loop: 20160, countIn: 0, origin: 0 }, 13, 0).layers.length // => 0
 */
export function saying(program: Program, n: number, tick: number): Program {
  const word = NUMBER_WORDS[n - 1];
  if (word === undefined) return program;
  const own = {
    period: 1e9,
    from: tick,
    until: tick + 1,
    feel: STRAIGHT,
    events: [
      { tick: 0, offset: 0, sound: `say:${word}`, velocity: CALLED, limb: null, part: 'counts', room: 20_160 } as const,
    ],
  };
  return { ...program, layers: [...program.layers, own] };
}
