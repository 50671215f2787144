import type { Level } from './level';
import type { Stroke } from './stroke';
import { VOICE, type Voice } from './voice';

/** A user's own syllables, by "voice level": they take the place of ours. */
export type OwnSyllables = Readonly<Record<string, string>>;

const PLACE: Readonly<Record<Level, 0 | 1 | 2>> = { ghost: 0, tap: 1, accent: 2 };

/** The key under which a user's own syllable is kept. */
export function syllableKey(voice: Voice, level: Level): string {
  return `${voice} ${level}`;
}

/**
 * The syllable of a voice at a level.
 * @example
 * syllableOf('snare', 'ghost') // => "di"
 * syllableOf('kick', 'accent', { 'kick accent': 'DUM' }) // => "DUM"
 */
export function syllableOf(voice: Voice, level: Level, own: OwnSyllables = {}): string {
  return own[syllableKey(voice, level)] ?? VOICE[voice].sung[PLACE[level]];
}

/**
 * What is sung at one tick: the syllable of the loudest stroke, the hands' before the feet's where they are alike. The
 * kick is never lost: it is sung in place of what keeps time over it, and behind anything else.
 */
export function sungAt(strokes: readonly Stroke[], own: OwnSyllables = {}): string {
  return sungParts(strokes, own).join('-');
}

/** The same in syllables: a voice that says one at a moment says the first. None where nothing sounds. */
export function sungParts(strokes: readonly Stroke[], own: OwnSyllables = {}): readonly string[] {
  const loudest = strokes.reduce<Stroke | null>(
    (best, s) => (!best || PLACE[s.level] > PLACE[best.level] ? s : best),
    null,
  );
  if (!loudest) return [];
  const sung = (s: Stroke): string => syllableOf(s.voice, s.level, own);
  const kick = strokes.find((s) => VOICE[s.voice].piece === 'kick' && s.level !== 'ghost');
  if (!kick || VOICE[loudest.voice].piece === 'kick') return [sung(loudest)];
  return VOICE[loudest.voice].keepsTime ? [sung(kick)] : [sung(loudest), sung(kick)];
}

/**
 * A phrase as it is sung: a syllable a slot, `·` where nothing sounds.
 * Strokes must be in order; `length` and `slot` are in ticks.
 */
export function sungLine(strokes: readonly Stroke[], length: number, slot: number, own: OwnSyllables = {}): string {
  const slots = Array.from({ length: Math.ceil(length / slot) }, (_, i) =>
    strokes.filter((s) => s.at >= i * slot && s.at < (i + 1) * slot),
  );
  return slots.map((s) => sungAt(s, own) || '·').join(' ');
}
