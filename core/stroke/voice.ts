import type { Limb } from './limb';

/** What is struck and how. Families give the colour, heads the sign at a stem's end. */
export type Family = 'skin' | 'metal' | 'wood' | 'foot';
export type Head = 'disc' | 'diamond' | 'bar' | 'ring';

interface VoiceFacts {
  readonly name: string;
  /** Two letters beside the head where there is room. */
  readonly short: string;
  readonly family: Family;
  readonly head: Head;
}

const facts = {
  snare: { name: 'snare', short: 'SN', family: 'skin', head: 'disc' },
  rimshot: { name: 'snare rimshot', short: 'RS', family: 'wood', head: 'bar' },
  'cross-stick': { name: 'cross-stick', short: 'XS', family: 'wood', head: 'bar' },
  'high-tom': { name: 'high tom', short: 'HT', family: 'skin', head: 'disc' },
  'mid-tom': { name: 'mid tom', short: 'MT', family: 'skin', head: 'disc' },
  'floor-tom': { name: 'floor tom', short: 'FT', family: 'skin', head: 'disc' },
  'hat-closed': { name: 'closed hi-hat', short: 'HH', family: 'metal', head: 'diamond' },
  'hat-half': { name: 'half-open hi-hat', short: 'HO', family: 'metal', head: 'ring' },
  'hat-open': { name: 'open hi-hat', short: 'OH', family: 'metal', head: 'ring' },
  ride: { name: 'ride', short: 'RD', family: 'metal', head: 'diamond' },
  'ride-bell': { name: 'ride bell', short: 'RB', family: 'metal', head: 'diamond' },
  'crash-left': { name: 'left crash', short: 'CL', family: 'metal', head: 'diamond' },
  'crash-right': { name: 'right crash', short: 'CR', family: 'metal', head: 'diamond' },
  kick: { name: 'kick', short: 'KD', family: 'foot', head: 'disc' },
  'hat-foot': { name: 'hi-hat foot', short: 'HF', family: 'foot', head: 'diamond' },
} as const satisfies Record<string, VoiceFacts>;

export type Voice = keyof typeof facts;

export const VOICE: Readonly<Record<Voice, VoiceFacts>> = Object.freeze(facts);
export const VOICES = Object.freeze(Object.keys(facts) as Voice[]);

/** Voices a hand can strike, in the order a menu shows them. */
export const HAND_VOICES: readonly Voice[] = Object.freeze(VOICES.filter((v) => VOICE[v].family !== 'foot'));

/**
 * What a limb strikes when nothing else is said.
 * @example
 * usualVoice('K') // => "kick"
 * usualVoice('L') // => "snare"
 */
export function usualVoice(limb: Limb): Voice {
  switch (limb) {
    case 'R':
    case 'L':
      return 'snare';
    case 'K':
    case 'J':
      return 'kick';
    case 'H':
      return 'hat-foot';
  }
}

/** Whether a limb can strike a voice: hands reach all but the pedals, each foot its own pedal. */
export function canStrike(limb: Limb, voice: Voice): boolean {
  return limb === 'R' || limb === 'L' ? VOICE[voice].family !== 'foot' : voice === usualVoice(limb);
}
