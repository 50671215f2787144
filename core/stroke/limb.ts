/** Right and left hand, kick foot, second kick foot, hi-hat foot. The order is the order of drawing and of sorting. */
export const LIMBS = ['R', 'L', 'K', 'J', 'H'] as const;
export type Limb = (typeof LIMBS)[number];
export type Hand = 'R' | 'L';

export const LIMB_WORDS: Readonly<Record<Limb, string>> = Object.freeze({
  R: 'right hand',
  L: 'left hand',
  K: 'kick foot',
  J: 'second kick foot',
  H: 'hi-hat foot',
});

export function isHand(limb: Limb): limb is Hand {
  return limb === 'R' || limb === 'L';
}

/**
 * The other hand; feet stay what they are.
 * @example
 * otherHand('R') // => "L"
 * otherHand('K') // => "K"
 */
export function otherHand(limb: Limb): Limb {
  if (limb === 'R') return 'L';
  if (limb === 'L') return 'R';
  return limb;
}
