import { VOICE, type PieceKind, type Voice } from '../stroke';
import type { Kit } from './kit';
import { KIND_VOICES, type Piece } from './piece';

/** The voices a new piece of a kind has: what is out of the ordinary is chosen. */
function usualOf(kind: PieceKind): readonly Voice[] {
  const plain = KIND_VOICES[kind].filter((v) => !VOICE[v].extra);
  return plain.length > 0 ? plain : KIND_VOICES[kind];
}

/**
 * Usual places and sizes of a right-handed kit, in cm: head sizes as sold (14 inch = 36 cm), heights as most drummers
 * sit.
 */
const piece = (
  id: string,
  name: string,
  kind: PieceKind,
  [x, y, z]: readonly [number, number, number],
  diameter: number,
  voices: readonly Voice[] = KIND_VOICES[kind],
): Piece => ({ id, name, kind, x, y, z, diameter, turn: 0, voices: [...voices] });

const SNARE = piece('snare', 'Snare', 'snare', [0, 38, 62], 36, usualOf('snare'));
const KICK = piece('kick', 'Kick', 'kick', [18, 88, 28], 56);
const HAT = piece('hat', 'Hi-hat', 'hi-hat', [-42, 46, 86], 36);
const RIDE = piece('ride', 'Ride', 'ride', [66, 62, 86], 51, usualOf('ride'));
const CRASH_RIGHT = piece('crash-right', 'Right crash', 'crash', [48, 92, 108], 43, ['crash-right']);
const CRASH_LEFT = piece('crash-left', 'Left crash', 'crash', [-38, 88, 108], 41, ['crash-left']);
const HIGH_TOM = piece('high-tom', 'High tom', 'tom', [-8, 72, 78], 25, ['high-tom']);
const MID_TOM = piece('mid-tom', 'Mid tom', 'tom', [26, 72, 78], 30, ['mid-tom']);
/** What a kit may have besides. */
const EXTRAS = [
  piece('splash', 'Splash', 'splash', [8, 92, 104], 25),
  piece('china', 'China', 'china', [82, 88, 104], 46),
  piece('cowbell', 'Cowbell', 'cowbell', [8, 56, 84], 12),
  piece('block', 'Block', 'block', [36, 60, 82], 14),
  piece('own', 'My own piece', 'own', [-64, 64, 90], 24),
];
const FLOOR_TOM = piece('floor-tom', 'Floor tom', 'floor tom', [52, 34, 62], 40);
const FEET: Kit['feet'] = { K: 'right foot', J: null, H: 'left foot' };

const kit = (id: string, name: string, pieces: readonly Piece[], feet: Kit['feet'] = FEET): Kit => ({
  id,
  name,
  handed: 'right',
  pieces: pieces.map((p) => ({ ...p, voices: [...p.voices] })),
  feet,
});

/** Kits to start from. */
export const KIT_PRESETS: readonly Kit[] = Object.freeze([
  kit('pad', 'Practice pad', [piece('pad', 'Pad', 'pad', [0, 40, 64], 30)], { K: 'right foot', J: null, H: null }),
  kit('three', 'Three drums', [SNARE, KICK, HAT, RIDE, CRASH_RIGHT, FLOOR_TOM]),
  kit('four', 'Four drums, two crashes', [SNARE, KICK, HAT, RIDE, CRASH_LEFT, CRASH_RIGHT, HIGH_TOM, FLOOR_TOM]),
  kit('five', 'Five drums', [SNARE, KICK, HAT, RIDE, CRASH_LEFT, CRASH_RIGHT, HIGH_TOM, MID_TOM, FLOOR_TOM]),
  kit('double', 'Double pedal', [SNARE, KICK, HAT, RIDE, CRASH_LEFT, CRASH_RIGHT, HIGH_TOM, MID_TOM, FLOOR_TOM], {
    K: 'right foot',
    J: 'left foot',
    H: 'left foot',
  }),
]);

/** The kit a shelf has until its user makes one. */
export const USUAL_KIT: Kit = KIT_PRESETS[3] ?? kit('five', 'Five drums', [SNARE]);

/** A new piece of a kind, put where most kits have one, with an id that is free. */
export function newPiece(kind: PieceKind, taken: readonly Piece[]): Piece {
  const usual = [SNARE, KICK, HAT, RIDE, CRASH_RIGHT, HIGH_TOM, FLOOR_TOM, ...EXTRAS].find((p) => p.kind === kind) ?? {
    ...SNARE,
    kind,
    name: 'Pad',
    voices: [...KIND_VOICES[kind]],
  };
  const ids = new Set(taken.map((p) => p.id));
  let n = 1;
  let id: string = kind.replace(' ', '-');
  while (ids.has(id)) id = `${kind.replace(' ', '-')}-${++n}`;
  // A second tom or crash takes the voice the kit does not have yet.
  const free = KIND_VOICES[kind].filter((v) => !taken.some((p) => p.voices.includes(v)));
  const voices =
    kind === 'tom' || kind === 'crash' || kind === 'own'
      ? [free[0] ?? KIND_VOICES[kind][0] ?? 'high-tom']
      : [...usualOf(kind)];
  return { ...usual, id, name: n > 1 ? `${usual.name} ${n}` : usual.name, x: usual.x + (n - 1) * 12, voices };
}
