import { barsSpan, difference, shapeWords, type Pattern } from '@core/pattern';
import { build, type Recipe } from '@core/recipe';
import { rendition } from '@core/rendition';
import type { SharedPhrase } from '@core/formats/shared';

/** What a page shows of one phrase. */
export interface PhrasePage {
  readonly name: string;
  readonly facts: string;
  readonly note: string;
  readonly pattern: Pattern;
  /** From so many bars on the staff alone goes on paper. */
  readonly isLong: boolean;
  /** How large the staff is engraved. */
  readonly scale: number;
}

/** One step of how a phrase is made: what was done, what the sum is, where the phrase is another now. */
export interface StepRow {
  readonly title: string;
  readonly sums: readonly string[];
  readonly changed: string;
  /** Ticks at which it differs from the step before. */
  readonly at: readonly number[];
  readonly pattern: Pattern;
}

/** From so many bars on the ribbon is left to the screen, and the staff alone goes on paper, smaller by and by. */
const MOST_RIBBON_BARS = 4;

/** A phrase as a page. */
export function pageOf({ name, note, recipe, tempo, goal }: SharedPhrase): PhrasePage {
  const { pattern } = rendition({ phrase: build(recipe).pattern });
  const { bars } = barsSpan(pattern);
  return {
    name: name.slice(0, 200),
    note: note.slice(0, 2000),
    facts: `${shapeWords(pattern)} · ${tempo} bpm, goal ${goal}`,
    pattern,
    isLong: bars > MOST_RIBBON_BARS,
    // A long phrase is engraved smaller, so that it stays on its page for as long as it can be read.
    scale: Math.max(0.5, Math.min(0.9, 0.9 * Math.sqrt(14 / Math.max(14, bars)))),
  };
}

/** The recipe of a phrase step by step: the source, then each move that does something, a step further each. */
export function stepsOf(recipe: Recipe): readonly StepRow[] {
  const built = build(recipe);
  const row = (
    title: string,
    findings: (typeof built.source)['findings'],
    before: Pattern | null,
    pattern: Pattern,
  ) => {
    const changes = before ? difference(before, pattern) : [];
    const at = [...new Set(changes.map((d): number => d.at))];
    const longer = before && before.length !== pattern.length ? ' Its length differs.' : '';
    return {
      title,
      sums: findings.filter((f) => f.weight !== 'check').map((f) => f.words),
      changed: before
        ? at.length === 0
          ? `Nothing sounds different yet.${longer}`
          : `Different on ${at.length} of ${new Set(pattern.strokes.map((s): number => s.at)).size} places.${longer}`
        : '',
      at: before ? at : [],
      pattern,
    };
  };
  const rows: StepRow[] = [row('Start with this', built.source.findings, null, built.source.pattern)];
  let before = built.source.pattern;
  for (const step of built.trail) {
    if (!step.entry.on) continue;
    rows.push(row(step.sentence, step.findings, before, step.pattern));
    before = step.pattern;
  }
  return rows;
}
