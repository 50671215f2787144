import { tickInPhrase, type Stage } from '../drill';
import type { Pattern } from '../pattern';
import type { TakeReading } from '../take';

/** How a stroke of a phrase went in some takes. */
export interface StrokeSum {
  /** How often it was expected, and left out. */
  readonly wanted: number;
  readonly missed: number;
  /** Milliseconds: above 0 is late; null where it was never struck. */
  readonly late: number | null;
}

export interface Break {
  /** Index of the stroke in the pattern. */
  readonly index: number;
  readonly now: StrokeSum;
  /** In the takes before those; null where there were none. */
  readonly before: StrokeSum | null;
}

/** What the readings of some takes of one pattern come to, stroke by stroke. */
function sums(readings: readonly Pick<TakeReading, 'byPlace' | 'strokes'>[], strokes: number): readonly StrokeSum[] {
  return Array.from({ length: strokes }, (_, index): StrokeSum => {
    let [wanted, missed, late, struck] = [0, 0, 0, 0];
    for (const { byPlace } of readings) {
      const place = byPlace.find((p) => p.index === index);
      if (!place) continue;
      wanted += place.many + place.missed;
      missed += place.missed;
      late += place.mean * place.many;
      struck += place.many;
    }
    return { wanted, missed, late: struck === 0 ? null : late / struck };
  });
}

/** Where a phrase breaks: the last takes against as many before, the oldest first. */
export function breaksOf(
  readings: readonly Pick<TakeReading, 'byPlace' | 'strokes'>[],
  strokes: number,
  newest: number,
): readonly Break[] {
  const now = sums(readings.slice(-newest), strokes);
  const older = readings.slice(Math.max(0, readings.length - 2 * newest), Math.max(0, readings.length - newest));
  const before = older.length > 0 ? sums(older, strokes) : null;
  return now.map((sum, index): Break => ({ index, now: sum, before: before?.[index] ?? null }));
}

/**
 * Breaks of a stage, numbered by the strokes of the phrase that are drilled in it: those of the time before it, of a
 * foot beneath it or of the landing behind it are left out, for they are not what breaks.
 */
export function breaksIn(
  breaks: readonly Break[],
  { stage, played }: { readonly stage: Stage | null; readonly played: Pattern },
  phrase: Pattern,
): readonly Break[] {
  const foot = (limb: string): string => (limb === 'J' ? 'K' : limb);
  return breaks.flatMap((b): Break[] => {
    const stroke = played.strokes[b.index];
    const at = stroke ? tickInPhrase(stage, phrase, stroke.at) : null;
    const index = phrase.strokes.findIndex((s) => s.at === at && foot(s.limb) === foot(stroke?.limb ?? ''));
    return index < 0 ? [] : [{ ...b, index }];
  });
}

/** The stroke that is left out most, as a share; else the one that lies farthest off. Null where nothing was played. */
export function worstBreak(breaks: readonly Break[]): { readonly at: Break; readonly by: 'missed' | 'late' } | null {
  const share = ({ now }: Break): number => (now.wanted === 0 ? 0 : now.missed / now.wanted);
  const [most] = [...breaks].sort((a, b) => share(b) - share(a) || a.index - b.index);
  if (most && share(most) >= 0.05) return { at: most, by: 'missed' };
  const off = ({ now }: Break): number => Math.abs(now.late ?? 0);
  const [far] = breaks.filter((b) => b.now.late !== null).sort((a, b) => off(b) - off(a) || a.index - b.index);
  return far ? { at: far, by: 'late' } : null;
}
