import { Type, type Static } from '@sinclair/typebox';
import { PIECE_KINDS, VOICE, VOICES, type PieceKind, type Voice } from '../stroke';

/** How far, in cm, a piece may stand from the drummer in any direction, and how large it may be. */
export const KIT_LIMITS = Object.freeze({ reach: 200, height: 180, least: 10, most: 80, pieces: 24 });

/**
 * A thing that is struck. The drummer sits at the origin: x to the right, y ahead, z up, in cm; `diameter` in cm;
 * `turn` in degrees, clockwise seen from above.
 */
export const PieceSchema = Type.Object({
  id: Type.String({ minLength: 1, maxLength: 64 }),
  name: Type.String({ minLength: 1, maxLength: 80 }),
  kind: Type.Unsafe<PieceKind>({ type: 'string', enum: [...PIECE_KINDS] }),
  x: Type.Number({ minimum: -KIT_LIMITS.reach, maximum: KIT_LIMITS.reach }),
  y: Type.Number({ minimum: -KIT_LIMITS.reach, maximum: KIT_LIMITS.reach }),
  z: Type.Number({ minimum: 0, maximum: KIT_LIMITS.height }),
  diameter: Type.Number({ minimum: KIT_LIMITS.least, maximum: KIT_LIMITS.most }),
  turn: Type.Number({ minimum: -180, maximum: 180 }),
  /** The voices it can sound: its surfaces. */
  voices: Type.Array(Type.Unsafe<Voice>({ type: 'string', enum: [...VOICES] }), { minItems: 1, maxItems: 8 }),
});
export type Piece = Static<typeof PieceSchema>;

function voicesOn(kind: PieceKind): readonly Voice[] {
  return VOICES.filter((v) => VOICE[v].piece === kind);
}

/** Voices that each kind of piece can be given, the usual ones first. A pad sounds as a snare does. */
export const KIND_VOICES: Readonly<Record<PieceKind, readonly Voice[]>> = Object.freeze({
  snare: voicesOn('snare'),
  tom: voicesOn('tom'),
  'floor tom': voicesOn('floor tom'),
  kick: voicesOn('kick'),
  'hi-hat': voicesOn('hi-hat'),
  ride: voicesOn('ride'),
  crash: voicesOn('crash'),
  splash: voicesOn('splash'),
  china: voicesOn('china'),
  cowbell: voicesOn('cowbell'),
  block: voicesOn('block'),
  own: voicesOn('own'),
  pad: Object.freeze(['snare'] as const),
});

/** A point in space, in cm. */
export interface Point {
  readonly x: number;
  readonly y: number;
  readonly z: number;
}

/** How far from the middle the edge, the rim and the bell are struck, as a share of the radius. */
const EDGE = 0.85;
const BELL = 0.12;

/**
 * Where a voice is struck on a piece, in cm. The edge and rim lie towards the drummer, turned by the piece's `turn`; a
 * pedal stands on the floor before the piece.
 */
export function strikingPoint(piece: Piece, voice: Voice): Point {
  const { x, y, z, diameter } = piece;
  const spot = VOICE[voice].spot;
  if (spot === 'centre') return { x, y, z };
  if (spot === 'pedal') return { x, y: Math.max(0, y - diameter / 2), z: 0 };
  const distance = Math.hypot(x, y) || 1;
  const angle = Math.atan2(-y / distance, -x / distance) - (piece.turn * Math.PI) / 180;
  const out = (diameter / 2) * (spot === 'bell' ? BELL : EDGE);
  return { x: x + Math.cos(angle) * out, y: y + Math.sin(angle) * out, z };
}

/**
 * The width a stick can land on, in cm: the whole head, or for an edge, rim or bell the part that sounds so.
 */
export function targetWidth(piece: Piece, voice: Voice): number {
  switch (VOICE[voice].spot) {
    case 'centre':
      return piece.diameter;
    case 'edge':
      return piece.diameter * 0.5;
    case 'rim':
    case 'bell':
      return Math.max(6, piece.diameter * 0.25);
    case 'pedal':
      return 30;
  }
}
