import { VOICE, type Stroke, type Voice } from '@core/stroke';

/** Where each voice stands on a percussion staff and with which head, as the engraving package names them. */
export const KEY_OF: Readonly<Record<Voice, string>> = Object.freeze({
  snare: 'c/5',
  rimshot: 'c/5/s2',
  'cross-stick': 'c/5/x2',
  'high-tom': 'e/5',
  'mid-tom': 'd/5',
  'floor-tom': 'a/4',
  'hat-closed': 'g/5/x2',
  'hat-half': 'g/5/x2',
  'hat-open': 'g/5/x2',
  ride: 'f/5/x2',
  'ride-bell': 'f/5/d2',
  'crash-left': 'b/5/x2',
  'crash-right': 'a/5/x2',
  kick: 'f/4',
  'hat-foot': 'd/4/x2',
});

/** Signs over a hi-hat note: a ring for open, a plus where an open one is closed again. */
export function hatSign(voice: Voice, openBefore: boolean): string | null {
  if (voice === 'hat-open' || voice === 'hat-half') return 'ah';
  return voice === 'hat-closed' && openBefore ? 'a+' : null;
}

/** Height on the staff, in steps: the letter's place in its octave. */
export function heightOf(stroke: Stroke): number {
  const [letter = 'c', octave = '4'] = KEY_OF[stroke.voice].split('/');
  return Number(octave) * 7 + 'cdefgab'.indexOf(letter);
}

/** The heads of a chord from low to high, as the package wants them. */
export function lowToHigh(strokes: readonly Stroke[]): readonly Stroke[] {
  return [...strokes].sort((a, b) => heightOf(a) - heightOf(b));
}

/** Whether the hi-hat is open after strokes that sound together. */
export function openAfter(strokes: readonly Stroke[], before: boolean): boolean {
  return lowToHigh(strokes).reduce((open, { voice }) => {
    if (VOICE[voice].family !== 'metal' || !voice.startsWith('hat')) return open;
    return voice === 'hat-open' || voice === 'hat-half';
  }, before);
}
