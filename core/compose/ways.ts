import { chooses } from '../selection';
import type { MoveEntry } from '../recipe';
import { pieceFor, type Kit } from '../kit';
import type { Voice } from '../stroke';
import type { Way } from './asked';

/** What each is called. */
export const WAY_WORDS: Readonly<Record<Way, string>> = Object.freeze({
  down: 'down the toms',
  up: 'up the toms',
  apart: 'hands apart: floor tom and snare',
  floor: 'all on the floor tom',
  crashes: 'accents on the crash',
});

/** By this id the move is known until it is signed. */
const WAY = 'way';
const DOWN: readonly Voice[] = ['snare', 'high-tom', 'mid-tom', 'low-tom', 'floor-tom'];

/**
 * The moves of a way on a kit: down and up the toms once over so many strokes of the hands. Null where the kit has not
 * the pieces.
 * @example
 * wayMoves('floor', 16, USUAL_KIT)?.map((m) => m.move) // => ["voice"]
 * wayMoves('down', 16, { ...USUAL_KIT, pieces: [] }) // => null
 */
export function wayMoves(way: Way, strokes: number, kit: Kit): readonly MoveEntry[] | null {
  const has = (voice: Voice): boolean => pieceFor(kit, voice) !== null;
  const hands = chooses({ limbs: ['R', 'L'] });
  switch (way) {
    case 'down':
    case 'up': {
      const drums = (way === 'down' ? DOWN : [...DOWN].reverse()).filter(has);
      if (drums.length < 2) return null;
      const stations = drums.map((v) => ({ right: v, left: v }));
      const sizes = [Math.max(1, Math.ceil(strokes / drums.length))];
      return [{ id: WAY, on: true, move: 'route', params: { select: hands, stations, order: [], sizes } }];
    }
    case 'apart':
    case 'floor': {
      if (!has('floor-tom') || !has('snare')) return null;
      const select = way === 'floor' ? hands : chooses({ limbs: ['R'] });
      return [{ id: WAY, on: true, move: 'voice', params: { select, voices: ['floor-tom'] } }];
    }
    case 'crashes': {
      const crash = (['crash-right', 'crash-left'] as const).find(has);
      if (!crash) return null;
      const select = chooses({ limbs: ['R', 'L'], levels: ['accent'] });
      return [{ id: WAY, on: true, move: 'voice', params: { select, voices: [crash] } }];
    }
  }
}
