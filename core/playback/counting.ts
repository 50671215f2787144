import { NUMBER_WORDS } from '../base';
import { countAt, countedBeats, type Schools, USUAL_SCHOOLS, barTicks, beatTicks } from '../time';
import { countingOf, type Pattern } from '../pattern';
import { sungParts, type OwnSyllables, type Stroke } from '../stroke';
import { countEvents } from './click';
import type { Layer, LayerEvent } from './layer';
import type { Spoken } from './sound';

/** How somebody counts along: the counts are spoken, the phrase is sung, or tones count. */
export const COUNT_KINDS = ['spoken', 'sung', 'tones'] as const;
export type CountKind = (typeof COUNT_KINDS)[number];

/** Loudness of what is said: beats, what lies between, and accents of a sung line. */
const VELOCITY = { beat: 112, between: 88, accent: 120, ghost: 60 };

/**
 * The word that is spoken for a count; null where nothing is said: between the 16ths of 32nds, and off every grid.
 * @example
 * spokenCount(3, '') // => "three"
 * spokenCount(3, '&') // => "and"
 * spokenCount(3, '&let') // => "let"
 * spokenCount(3, '.5') // => "five"
 * spokenCount(3, 'e·') // => null
 */
export function spokenCount(beat: number, syllable: string): string | null {
  if (syllable === '') return NUMBER_WORDS[(beat - 1) % NUMBER_WORDS.length] ?? null;
  if (syllable === '&') return 'and';
  const number = /^\.(\d+)$/.exec(syllable);
  if (number) return NUMBER_WORDS[Number(number[1]) - 1] ?? null;
  const word = syllable.replace(/^&/, '');
  return /^[a-z]+$/.test(word) ? word : null;
}

/** Each event with the ticks until the next, so that nobody is still speaking when the next word begins. */
function withRoom(events: readonly LayerEvent[], period: number): LayerEvent[] {
  const sorted = [...events].sort((a, b) => a.tick - b.tick);
  return sorted.map((e, i) => ({
    ...e,
    room: (sorted[i + 1]?.tick ?? (sorted[0]?.tick ?? 0) + period) - e.tick,
  }));
}

const said = (tick: number, word: string, velocity: number): LayerEvent => {
  const sound: Spoken = `say:${word}`;
  return { tick, offset: 0, sound, velocity, limb: null, part: 'counts' };
};

/** The counts of one bar as words: every beat, and what lies between on the home grid. */
function spokenEvents(pattern: Pattern, schools: Schools): LayerEvent[] {
  const bar = barTicks(pattern.meter);
  // Slots that do not divide the beat have no counts of their own.
  const slots = beatTicks(pattern.meter) % pattern.grid === 0 ? bar / pattern.grid : 0;
  const words = Array.from({ length: slots }, (_, i) => i * pattern.grid);
  const counting = countingOf(pattern, schools);
  const beats = countedBeats(pattern.meter).map((b) => b.start as number);
  return [...new Set([...beats, ...words])].flatMap((tick) => {
    const { beat, syllable } = countAt(tick, counting);
    const word = spokenCount(beat, syllable);
    return word === null ? [] : [said(tick, word, syllable === '' ? VELOCITY.beat : VELOCITY.between)];
  });
}

/** The phrase as it is sung: a syllable for each moment, of the stroke that is heard first. */
function sungEvents({ strokes, start }: Pattern, own: OwnSyllables): LayerEvent[] {
  const moments = new Map<number, Stroke[]>();
  for (const s of strokes) moments.set(s.at, [...(moments.get(s.at) ?? []), s]);
  return [...moments].flatMap(([at, together]) => {
    const syllable = (sungParts(together, own)[0] ?? '').toLowerCase();
    const loud = together.some((s) => s.level === 'accent');
    const soft = together.every((s) => s.level === 'ghost');
    const velocity = loud ? VELOCITY.accent : soft ? VELOCITY.ghost : VELOCITY.between;
    return /\p{L}/u.test(syllable) ? [said(start + at, syllable, velocity)] : [];
  });
}

/**
 * Who counts along with a phrase, as a layer. Counts come round with the bar, the sung line with the phrase.
 * @param loop ticks after which the phrase begins again
 */
export function countLayer(
  pattern: Pattern,
  kind: CountKind,
  loop: number,
  schools: Schools = USUAL_SCHOOLS,
  own: OwnSyllables = {},
): Layer {
  const bar = barTicks(pattern.meter);
  const common = { from: 0, feel: pattern.feel };
  switch (kind) {
    case 'tones':
      return { ...common, period: bar, events: countEvents(pattern) };
    case 'spoken':
      return { ...common, period: bar, events: withRoom(spokenEvents(pattern, schools), bar) };
    case 'sung':
      return { ...common, period: loop, events: withRoom(sungEvents(pattern, own), loop) };
  }
}
