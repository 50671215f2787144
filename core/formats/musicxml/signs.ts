import { VOICE, VOICES, type Voice } from '../../stroke';

/** Heads as engravers name them, by the sign in the table of voices. */
const HEADS: Readonly<Record<string, string>> = {
  x2: 'x',
  x3: 'circle-x',
  s1: 'square',
  s2: 'square',
  d2: 'diamond',
  t2: 'triangle',
};

/** Where a voice stands on a percussion staff, and its head. */
export interface StaffPlace {
  readonly step: string;
  readonly octave: number;
  readonly head: string;
}

/**
 * Where a voice stands on a percussion staff.
 * @example
 * placeOf('hat-closed') // => { step: 'G', octave: 5, head: 'x' }
 */
export function placeOf(voice: Voice): StaffPlace {
  const [step = 'c', octave = '5', sign = ''] = VOICE[voice].staff.split('/');
  return { step: step.toUpperCase(), octave: Number(octave), head: HEADS[sign] ?? 'normal' };
}

/**
 * The voice at a place of the staff: the first of the table that stands there with that head, else with any.
 * @example
 * voiceAt({ step: 'C', octave: 5, head: 'normal' }) // => "snare"
 * voiceAt({ step: 'C', octave: 1, head: 'normal' }) // => null
 */
export function voiceAt({ step, octave, head }: StaffPlace): Voice | null {
  const here = VOICES.filter((v) => {
    const own = placeOf(v);
    return own.step === step && own.octave === octave;
  });
  return (
    here.find((v) => placeOf(v).head === head) ??
    here.find((v) => (placeOf(v).head === 'normal') === (head === 'normal')) ??
    null
  );
}

/** Note values as MusicXML names them. */
export const TYPES = {
  '1': 'whole',
  '2': 'half',
  '4': 'quarter',
  '8': 'eighth',
  '16': '16th',
  '32': '32nd',
  '64': '64th',
} as const;
