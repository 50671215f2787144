import { clamp } from '../base';

/** Beats a minute that the application plays. */
export const TEMPO = Object.freeze({ least: 20, most: 400, usual: 90 });

/** A tempo as typed, held to what can be played, with a hint when it had to be changed. */
export interface TempoReading {
  readonly bpm: number;
  readonly hint: string | null;
}

/**
 * Reads a tempo a person typed. What is no number keeps `before`.
 * @example
 * readTempo('104', 90) // => { bpm: 104, hint: null }
 * readTempo('1000', 90) // => { bpm: 400, hint: 'Tempos go from 20 to 400.' }
 * readTempo('abc', 90) // => { bpm: 90, hint: 'Type a tempo from 20 to 400.' }
 */
export function readTempo(text: string, before: number): TempoReading {
  const n = Number(text.trim().replace(',', '.'));
  if (text.trim() === '' || !Number.isFinite(n))
    return { bpm: before, hint: `Type a tempo from ${TEMPO.least} to ${TEMPO.most}.` };
  const bpm = clamp(Math.round(n * 10) / 10, TEMPO.least, TEMPO.most);
  return {
    bpm,
    hint: n === bpm || (n >= TEMPO.least && n <= TEMPO.most) ? null : `Tempos go from ${TEMPO.least} to ${TEMPO.most}.`,
  };
}

/**
 * The whole tempo nearest to what was heard or read, held to what can be kept.
 * @example
 * keptTempo(119.6) // => 120
 * keptTempo(1000) // => 400
 */
export function keptTempo(bpm: number): number {
  return clamp(Math.round(bpm), TEMPO.least, TEMPO.most);
}
