import { fraction, sentence } from '../../base';
import { gridName, slotsWords, ticks, wholeTicks } from '../../time';
import type { Stroke } from '../../stroke';
import { MOST_STROKES, tidy, type Pattern } from '../../pattern';
import { selectionWords, type Selection } from '../../selection';
import { choseNothing, done, finding, passes, type Outcome } from './move';
import { partWords, spansOf, type Span } from './named-slots';

/** A part on another grid, its time kept: by the order of its slots, or by where they stand. */
export interface Within {
  readonly select: Selection;
  readonly by: 'order' | 'place';
}

/** The strokes of an old slot in a new one; null where one would fall off ticks. */
function movedTo(own: readonly Stroke[], from: number, to: number, scale: number): readonly Stroke[] | null {
  const moved = own.flatMap((s) => {
    const at = wholeTicks(to + (s.at - from) * scale);
    return at === null ? [] : [{ ...s, at }];
  });
  return moved.length === own.length ? moved : null;
}

/** What is struck again right behind itself is a plain stroke: the second of a double has no accent and no flam. */
function again({ ornament: _ornament, grace: _grace, ...s }: Stroke): Stroke {
  return s.level === 'accent' ? { ...s, level: 'tap' } : s;
}

/** The strokes of a stretch on its new grid; null where they do not fit. */
function relaid(pattern: Pattern, grid: number, span: Span, by: Within['by']): readonly Stroke[] | null {
  const old = span.until - span.from;
  const from = span.from * pattern.grid;
  const many = (old * pattern.grid) / grid;
  const out: Stroke[] = [];
  let before = -1;
  for (let n = 0; n < many; n++) {
    const slot = by === 'order' ? n % old : Math.floor((n * old) / many);
    const begins = from + slot * pattern.grid;
    const own = pattern.strokes.filter((s) => s.at >= begins && s.at < begins + pattern.grid);
    const moved = movedTo(own, begins, from + n * grid, grid / pattern.grid);
    if (!moved) return null;
    out.push(...(slot === before ? moved.map(again) : moved));
    before = slot;
  }
  return out;
}

/** A part of a pattern on another grid, in the time that it has; all else stays where it is. */
export function laidWithin(pattern: Pattern, grid: number, { select, by }: Within): Outcome {
  const spans = spansOf(pattern, select);
  if (spans.length === 0) return choseNothing(pattern, selectionWords(select, pattern));
  const odd = spans.find(
    (s) => ((s.until - s.from) * pattern.grid) % grid !== 0 || s.until * pattern.grid > pattern.length,
  );
  if (odd) {
    const long = ((odd.until - odd.from) * pattern.grid) / grid;
    return passes(
      pattern,
      'not-whole',
      `${slotsWords(odd.until - odd.from, pattern.grid)} come to ${fraction(long)} on ${gridName(grid)}. Nothing changed.`,
    );
  }
  const laid = spans.map((span) => relaid(pattern, grid, span, by));
  const added = laid.flatMap((l) => l ?? []);
  if (laid.some((l) => l === null))
    return passes(pattern, 'not-whole', `Some strokes do not fit on ${gridName(grid)}. Nothing changed.`);
  if (pattern.strokes.length + added.length > MOST_STROKES)
    return passes(pattern, 'too-many', `That would be more than ${MOST_STROKES} strokes.`);
  const isIn = (at: number): boolean => spans.some((s) => at >= s.from * pattern.grid && at < s.until * pattern.grid);
  const slots = spans.reduce((n, s) => n + s.until - s.from, 0);
  const now = (slots * pattern.grid) / grid;
  const words = `${sentence(partWords(select, pattern))}: ${slotsWords(slots, pattern.grid)} are ${slotsWords(now, grid)} in the same time`;
  return done(
    tidy({
      ...pattern,
      strokes: [...pattern.strokes.filter((s) => !isIn(s.at)), ...added.map((s) => ({ ...s, at: ticks(s.at) }))],
    }),
    [finding('fit', 'sum', words)],
  );
}
