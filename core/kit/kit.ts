import { Type, type Static } from '@sinclair/typebox';
import { HAND_VOICES, usualVoice, VOICE, VOICES, type Limb, type Voice } from '../stroke';
import { KIT_LIMITS, PieceSchema, type Piece } from './piece';

/** Which foot of the body works a pedal. */
export const FEET = ['right foot', 'left foot'] as const;
export type Foot = (typeof FEET)[number];

/**
 * A drummer's kit: pieces, which way round it is built, and which foot works the kick (`K`), the second kick (`J`) and
 * the hi-hat (`H`).
 */
export const KitSchema = Type.Object({
  id: Type.String({ minLength: 1, maxLength: 64 }),
  name: Type.String({ minLength: 1, maxLength: 80 }),
  handed: Type.Union([Type.Literal('right'), Type.Literal('left')]),
  pieces: Type.Array(PieceSchema, { maxItems: KIT_LIMITS.pieces }),
  feet: Type.Object({
    K: Type.Unsafe<Foot>({ type: 'string', enum: [...FEET] }),
    J: Type.Union([Type.Unsafe<Foot>({ type: 'string', enum: [...FEET] }), Type.Null()]),
    H: Type.Union([Type.Unsafe<Foot>({ type: 'string', enum: [...FEET] }), Type.Null()]),
  }),
});
export type Kit = Static<typeof KitSchema>;

/** The piece that sounds a voice; null when the kit has none. The nearest to the drummer when several do. */
export function pieceFor(kit: Kit, voice: Voice): Piece | null {
  const able = kit.pieces.filter((p) => p.voices.includes(voice));
  return able.reduce<Piece | null>(
    (best, p) => (best && Math.hypot(best.x, best.y) <= Math.hypot(p.x, p.y) ? best : p),
    null,
  );
}

/** Whether hands play one surface only: everything they strike goes to the pad. */
export function isPad(kit: Kit): boolean {
  const struck = kit.pieces.filter((p) => p.kind !== 'kick');
  return struck.length > 0 && struck.every((p) => p.kind === 'pad');
}

/** The kit as it is built for the other hand: everything changes sides, feet too. Twice is the kit itself. */
export function mirroredKit(kit: Kit): Kit {
  const other = (foot: Foot): Foot => (foot === 'right foot' ? 'left foot' : 'right foot');
  return {
    ...kit,
    handed: kit.handed === 'right' ? 'left' : 'right',
    // A plain nought: minus nought would differ from it in a file.
    pieces: kit.pieces.map((p) => ({ ...p, x: p.x === 0 ? 0 : -p.x, turn: p.turn === 0 ? 0 : -p.turn })),
    feet: {
      K: other(kit.feet.K),
      J: kit.feet.J === null ? null : other(kit.feet.J),
      H: kit.feet.H === null ? null : other(kit.feet.H),
    },
  };
}

/** Whether a kit has what a limb needs to play at all. */
export function hasLimb(kit: Kit, limb: Limb): boolean {
  if (limb === 'R' || limb === 'L') return kit.pieces.some((p) => p.voices.some((v) => VOICE[v].family !== 'foot'));
  if (limb === 'J') return kit.feet.J !== null && pieceFor(kit, 'kick') !== null;
  if (limb === 'H') return kit.feet.H !== null && pieceFor(kit, 'hat-foot') !== null;
  return pieceFor(kit, usualVoice(limb)) !== null;
}

/**
 * Voices that are offered to hands on a kit: the usual ones, those out of the ordinary that the kit has, and those that
 * are chosen already. In the order of menus.
 * @example
 * handVoicesOn(KIT_PRESETS[0]).includes('cowbell') // => false
 * handVoicesOn(KIT_PRESETS[0], ['cowbell']).includes('cowbell') // => true
 */
export function handVoicesOn(kit: Kit, chosen: readonly Voice[] = []): readonly Voice[] {
  return HAND_VOICES.filter((v) => !VOICE[v].extra || chosen.includes(v) || pieceFor(kit, v) !== null);
}

/**
 * What a voice is called on a kit: a piece of one's own by the name it was given.
 * @example
 * voiceNameOn(KIT_PRESETS[3], 'ride') // => "ride"
 */
export function voiceNameOn(kit: Kit, voice: Voice): string {
  const piece = VOICE[voice].piece === 'own' ? pieceFor(kit, voice) : null;
  return piece ? piece.name : VOICE[voice].name;
}

/** A kit's own pieces by the names they were given. */
export function ownNames(kit: Kit): readonly { readonly name: string; readonly voice: Voice }[] {
  return VOICES.flatMap((voice) => {
    const name = voiceNameOn(kit, voice);
    return name === VOICE[voice].name ? [] : [{ name, voice }];
  });
}

/**
 * A sentence as it is said on a kit: pieces of one's own by their names.
 * @example
 * saidOn(KIT_PRESETS[3], 'Send rights to the own piece') // => "Send rights to the own piece"
 */
export function saidOn(kit: Kit, words: string): string {
  // The longer name first: "second own piece" holds "own piece".
  const names = [...ownNames(kit)].sort((a, b) => VOICE[b.voice].name.length - VOICE[a.voice].name.length);
  return names.reduce((said, { name, voice }) => said.replaceAll(VOICE[voice].name, name), words);
}
