import { barTicks, countAt, countedBeats, type Counting } from '@core/time';
import { sungAt, type OwnSyllables, type Stroke } from '@core/stroke';
import { countingOf, strokeTypesOf, type Pattern } from '@core/pattern';
import type { RibbonOptions, RibbonRow } from './model';

export function gridLines(pattern: Pattern, from: number, until: number): { tick: number; weight: 'bar' | 'beat' }[] {
  const bar = barTicks(pattern.meter);
  const lines: { tick: number; weight: 'bar' | 'beat' }[] = [];
  for (let start = Math.floor(from / bar) * bar; start <= until; start += bar) {
    for (const beat of countedBeats(pattern.meter)) {
      const tick = start + beat.start;
      if (tick >= from && tick <= until) lines.push({ tick, weight: beat.number === 1 ? 'bar' : 'beat' });
    }
  }
  return lines;
}

export function countsOf(
  pattern: Pattern,
  { schools, pace }: RibbonOptions,
  from: number,
  until: number,
  slot: number,
  place: (t: number) => number,
): RibbonRow['counts'] {
  const counting: Counting = pace ? { ...countingOf(pattern, schools), pace } : countingOf(pattern, schools);
  const counts: RibbonRow['counts'][number][] = [];
  for (let tick = from; tick < until; tick += pattern.grid) {
    const { beat, syllable } = countAt(tick, counting);
    // In narrow rows only the beats and their halves are said.
    const strong = syllable === '';
    if (!strong && (slot < 13 || (slot < 19 && syllable !== '&'))) continue;
    counts.push({ x: place(tick) + slot / 2, text: strong ? String(beat) : syllableShown(syllable), strong });
  }
  return counts;
}

/** One syllable a tick, over its stroke. */
export function sungOf(
  strokes: readonly { readonly stroke: Stroke; readonly x: number }[],
  own: OwnSyllables | undefined,
): RibbonRow['sung'] {
  if (!own) return [];
  const places = [...new Map(strokes.map((s) => [s.stroke.at, s.x]))];
  return places.map(([at, x]) => ({
    x,
    text: sungAt(
      strokes.filter((s) => s.stroke.at === at).map((s) => s.stroke),
      own,
    ),
  }));
}

/** A syllable as it stands over its slot: in-betweens are a dot, and what is said twice in a beat is said plainly. */
function syllableShown(syllable: string): string {
  return syllable.endsWith('·') ? '·' : syllable.replace(/^[.&](?=.)/, '');
}

/** The parts of the pattern's groups that lie in a row, with the group's length in slots where it is longest. */
export function groupsIn(
  pattern: Pattern,
  from: number,
  until: number,
): { from: number; until: number; repeat: number; text: string; close: boolean; open: boolean; goesOn: boolean }[] {
  return pattern.groups.flatMap((g) => {
    const [start, end] = [pattern.start + g.at, pattern.start + g.at + g.length];
    const [a, b] = [Math.max(start, from), Math.min(end, until)];
    if (a >= b) return [];
    const slots = g.length / pattern.grid;
    const most = end - start <= 2 * (b - a);
    return [
      {
        from: a,
        until: b,
        repeat: g.repeat,
        text: !most ? '' : g.kind === 'land' ? 'landing' : String(Math.round(slots * 100) / 100),
        close: g.kind === 'close',
        open: a > start,
        goesOn: b < end,
      },
    ];
  });
}

/**
 * A letter of the stroke type over each hand stroke: F full, D down, T tap, U up; those of the right hand so much
 * higher, in px.
 */
export function typesOf(
  pattern: Pattern,
  strokes: readonly { readonly stroke: Stroke; readonly index: number; readonly x: number }[],
  y: number,
  higher: number,
): RibbonRow['types'] {
  const types = strokeTypesOf(pattern);
  return strokes.flatMap(({ stroke, index, x }) => {
    const type = types[index];
    return type && (stroke.limb === 'R' || stroke.limb === 'L')
      ? [{ x, y: stroke.limb === 'R' ? y - higher : y, text: type.charAt(0).toUpperCase(), hand: stroke.limb }]
      : [];
  });
}
