import { VOICE, type Stroke, type Voice } from '@core/stroke';

/** A ring with a stroke through it: half open, by its place in the music font (SMuFL, pictHalfOpen1). */
const HALF_OPEN = '\uE7F6';

/**
 * Signs over a hi-hat note: a ring for open, one with a stroke for half open, a plus where an open one is closed again.
 */
export function hatSign(voice: Voice, openBefore: boolean): string | null {
  if (voice === 'hat-open') return 'ah';
  if (voice === 'hat-half') return HALF_OPEN;
  return voice === 'hat-closed' && openBefore ? 'a+' : null;
}

/** Height on the staff, in steps: the letter's place in its octave. */
export function heightOf(stroke: Stroke): number {
  const [letter = 'c', octave = '4'] = VOICE[stroke.voice].staff.split('/');
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
