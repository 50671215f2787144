import { MOVE_NAMES, MOVES, newMove, describeMove } from '../registry';
import type { Pattern } from '../../pattern';
import { following, leavingOut, levels, ornaments, sending, swapping } from './choosing';
import type { Offer, Reader } from './offer';
import {
  bursts,
  fills,
  grids,
  inserts,
  landings,
  layers,
  mirrors,
  pickups,
  rates,
  restarts,
  shifts,
  travels,
} from './time';

export { offerOf, type Offer } from './offer';

const READERS: readonly Reader[] = [
  inserts,
  fills,
  levels,
  swapping,
  sending,
  ornaments,
  leavingOut,
  following,
  restarts,
  shifts,
  bursts,
  grids,
  rates,
  mirrors,
  landings,
  pickups,
  layers,
  travels,
];

/** The most offers at a time. */
const MOST_OFFERS = 8;

/** Phrases that show what the box understands. */
export const OFFER_HINTS = Object.freeze([
  'kick after every 4',
  'fill 2 bars end on 3&',
  'accents every 5',
  'rights to the high tom',
  'right hand follows the kick',
  'land with the crash',
]);

/**
 * Moves that words could mean for a pattern, the likeliest first: those whose grammar reads the whole line, then moves
 * whose name or hint has every word. Nothing is applied; where words could mean two things both are offered. Empty when
 * nothing fits.
 * @example
 * offersFor('kick after every 4', patternOfText([], meter(4, 4), GRID.sixteenths)).map((o) => o.words) // => ["Add a kick after every 4 slots"]
 * offersFor('swap the hands', patternOfText([], meter(4, 4), GRID.sixteenths))[0].entry.move // => "mirror"
 */
export function offersFor(text: string, pattern: Pattern): readonly Offer[] {
  const line = text
    .toLowerCase()
    .replace(/[“”"'.!?]/g, '')
    .replace(/\s+/g, ' ')
    .trim();
  if (line === '') return [];
  const read = READERS.flatMap((reader) => reader(line, pattern));
  const said = new Set<string>();
  return [...read, ...byName(line, pattern)]
    .filter((o) => !said.has(o.words) && said.add(o.words))
    .slice(0, MOST_OFFERS);
}

/** Moves whose title or hint holds every word, with parameters that make sense here. */
function byName(line: string, pattern: Pattern): Offer[] {
  const words = line.split(' ').filter((w) => w.length > 2 || /\d/.test(w));
  if (words.length === 0) return [];
  return MOVE_NAMES.filter((name) => {
    const about = `${name} ${MOVES[name].title} ${MOVES[name].hint}`.toLowerCase();
    return words.every((w) => about.includes(w));
  }).map((name) => {
    const entry = newMove(name, 'offer', pattern);
    return { words: describeMove(entry), entry };
  });
}
