import type { Sound } from '@core/playback';

const HATS: readonly Sound[] = ['hat-closed', 'hat-half', 'hat-open', 'hat-foot'];

/** Whether a sound is of the hi-hat, which sounds once at a time. */
export function isHat(sound: Sound): boolean {
  return HATS.includes(sound);
}
