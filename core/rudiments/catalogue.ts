import { GRID, meter, type Grid, type Meter } from '../time';

export type RudimentFamily = 'single strokes' | 'double strokes' | 'rolls' | 'paradiddles' | 'flams' | 'drags';
export const RUDIMENT_FAMILIES: readonly RudimentFamily[] = [
  'single strokes',
  'double strokes',
  'rolls',
  'paradiddles',
  'flams',
  'drags',
];

/** A standard rudiment: its sticking as stroke text on its usual grid and meter. */
export interface Rudiment {
  readonly id: string;
  readonly name: string;
  readonly family: RudimentFamily;
  readonly text: string;
  readonly grid: Grid;
  readonly meter: Meter;
}

const FOUR = meter(4, 4);
const THREE = meter(3, 4);
const TWO = meter(2, 4);
const SIX = meter(6, 8);
const { sixteenths, triplets, sextuplets, thirtySeconds, eighths } = GRID;

type Row = readonly [id: string, name: string, text: string, grid: Grid, meter?: Meter];

function family(name: RudimentFamily, rows: readonly Row[]): Rudiment[] {
  return rows.map(([id, title, text, grid, inMeter = FOUR]) => ({
    id,
    name: title,
    family: name,
    text,
    grid,
    meter: inMeter,
  }));
}

/**
 * The forty standard rudiments. Rolls are written open, as doubles on 32nds; drags inside a phrase as the doubled other
 * hand before the stroke.
 */
export const RUDIMENTS: readonly Rudiment[] = Object.freeze([
  ...family('single strokes', [
    ['single-stroke-roll', 'Single stroke roll', 'R L R L R L R L', sixteenths],
    ['single-stroke-four', 'Single stroke four', 'R L R L! - - L R L R! - -', sextuplets],
    ['single-stroke-seven', 'Single stroke seven', 'R L R L R L R! - - - - - L R L R L R L! - - - - -', sextuplets],
  ]),
  ...family('double strokes', [
    ['multiple-bounce-roll', 'Multiple bounce roll', 'zR zL zR zL zR zL zR zL', sixteenths],
    ['triple-stroke-roll', 'Triple stroke roll', 'R R R L L L', triplets],
    ['double-stroke-open-roll', 'Double stroke open roll', 'R R L L R R L L', thirtySeconds],
  ]),
  ...family('rolls', [
    ['five-stroke-roll', 'Five stroke roll', 'R R L L R! - - - L L R R L! - - -', thirtySeconds],
    ['six-stroke-roll', 'Six stroke roll', 'R! - L L R R L! - R! - L L R R L! -', thirtySeconds],
    ['seven-stroke-roll', 'Seven stroke roll', 'R R L L R R L! - R R L L R R L! -', thirtySeconds],
    [
      'nine-stroke-roll',
      'Nine stroke roll',
      'R R L L R R L L R! - - - - - - - L L R R L L R R L! - - - - - - -',
      thirtySeconds,
    ],
    [
      'ten-stroke-roll',
      'Ten stroke roll',
      'R R L L R R L L R! - L! - - - - - R R L L R R L L R! - L! - - - - -',
      thirtySeconds,
    ],
    [
      'eleven-stroke-roll',
      'Eleven stroke roll',
      'R R L L R R L L R R L! - - - - - R R L L R R L L R R L! - - - - -',
      thirtySeconds,
    ],
    [
      'thirteen-stroke-roll',
      'Thirteen stroke roll',
      'R R L L R R L L R R L L R! - - - L L R R L L R R L L R R L! - - -',
      thirtySeconds,
    ],
    [
      'fifteen-stroke-roll',
      'Fifteen stroke roll',
      'R R L L R R L L R R L L R R L! - R R L L R R L L R R L L R R L! -',
      thirtySeconds,
    ],
    [
      'seventeen-stroke-roll',
      'Seventeen stroke roll',
      'R R L L R R L L R R L L R R L L R! - - - - - - - - - - - - - - - L L R R L L R R L L R R L L R R L! - - - - - - - - - - - - - - -',
      thirtySeconds,
    ],
  ]),
  ...family('paradiddles', [
    ['single-paradiddle', 'Single paradiddle', 'R! L R R L! R L L', sixteenths],
    ['double-paradiddle', 'Double paradiddle', 'R! L R L R R L! R L R L L', sixteenths, THREE],
    ['triple-paradiddle', 'Triple paradiddle', 'R! L R L R L R R L! R L R L R L L', sixteenths],
    ['paradiddle-diddle', 'Single paradiddle-diddle', 'R! L R R L L', sextuplets],
  ]),
  ...family('flams', [
    ['flam', 'Flam', 'fR! fL!', eighths],
    ['flam-accent', 'Flam accent', 'fR! L R fL! R L', triplets],
    ['flam-tap', 'Flam tap', 'fR! R fL! L', sixteenths],
    ['flamacue', 'Flamacue', 'fR L! R L fR - - - fL R! L R fL - - -', sixteenths],
    ['flam-paradiddle', 'Flam paradiddle', 'fR! L R R fL! R L L', sixteenths],
    ['flammed-mill', 'Single flammed mill', 'fR! R L R fL! L R L', sixteenths],
    ['flam-paradiddle-diddle', 'Flam paradiddle-diddle', 'fR! L R R L L fL! R L L R R', sixteenths, THREE],
    ['pataflafla', 'Pataflafla', 'fR! L R fL! fR! L R fL!', sixteenths],
    ['swiss-army-triplet', 'Swiss army triplet', 'fR! R L fR! R L', triplets],
    ['inverted-flam-tap', 'Inverted flam tap', 'fR! L fL! R', sixteenths],
    ['flam-drag', 'Flam drag', 'fR! - L L R - fL! - R R L -', sextuplets],
  ]),
  ...family('drags', [
    ['drag', 'Drag', 'dR! dL!', eighths],
    ['single-drag-tap', 'Single drag tap', 'dR L! dL R!', eighths, TWO],
    ['double-drag-tap', 'Double drag tap', 'dR dR L! dL dL R!', eighths, SIX],
    ['lesson-25', 'Lesson 25', 'dR L R! - dR L R! -', sixteenths],
    ['single-dragadiddle', 'Single dragadiddle', 'R R L - R - R - L L R - L - L -', thirtySeconds],
    ['drag-paradiddle-1', 'Drag paradiddle no. 1', 'R! dR L R R - L! dL R L L -', sixteenths, SIX],
    ['drag-paradiddle-2', 'Drag paradiddle no. 2', 'R! - dR - dR L R R L! - dL - dL R L L', sixteenths],
    ['single-ratamacue', 'Single ratamacue', 'dR L R L! - - dL R L R! - -', sextuplets],
    ['double-ratamacue', 'Double ratamacue', 'dR - - dR L R L! - - dL - - dL R L R! - -', sextuplets, THREE],
    ['triple-ratamacue', 'Triple ratamacue', 'dR - - dR - - dR L R L! - - dL - - dL - - dL R L R! - -', sextuplets],
  ]),
]);

/** A rudiment by its id; null when there is none. */
export function rudimentById(id: string): Rudiment | null {
  return RUDIMENTS.find((r) => r.id === id) ?? null;
}

/**
 * Rudiments whose name or family holds every word of the search, in catalogue order; an empty search gives all.
 * @example
 * searchRudiments('flam para').map((r) => r.id) // => ["flam-paradiddle", "flam-paradiddle-diddle"]
 * searchRudiments('flam accent number one').map((r) => r.id) // => ["flam-accent"]
 * searchRudiments('').length // => 40
 */
export function searchRudiments(words: string): readonly Rudiment[] {
  // Some are numbered in one list or another: the number is no part of the name.
  const plain = words.toLowerCase().replace(/\b(?:number|no\.?) ?(?:\d+|one|two|three)\b|#\d+|\brudiments?\b/g, ' ');
  const wanted = plain.split(/\s+/).filter(Boolean);
  return RUDIMENTS.filter((r) => wanted.every((w) => `${r.name} ${r.family}`.toLowerCase().includes(w)));
}
