import { meter, parseMeter, ticks, type Meter } from '../time';
import { parseStrokeText, type Node } from '../stroke';
import { rudimentById } from '../rudiments';
import { MOST_BARS, MOST_STROKES, patternOfText, withoutPickup, type Finding, type Pattern } from '../pattern';
import { barTicks } from '../time';
import { passes, type Outcome } from './moves/move';
import { MOST_JOINS, MOST_MOVES } from './plain';
import type { Recipe } from './recipe';
import { applyMove, describeMove, type MoveEntry } from './registry';
import { feelOf, type Source } from './source';

/** The pattern after one move: a card of the recipe column. */
export interface Step extends Outcome {
  readonly entry: MoveEntry;
  readonly sentence: string;
}

/** A recipe worked out: the pattern at its end, and the trail that led there. */
export interface Build {
  readonly recipe: Recipe;
  readonly source: Outcome;
  readonly trail: readonly Step[];
  readonly pattern: Pattern;
}

/**
 * Works a recipe out. It never throws: a source that cannot be read gives an empty pattern and a finding, a move that
 * does not fit passes the pattern on and says why. Given the build before, only the moves from the first changed one on
 * are computed again; what stands before is the same object.
 */
export function build(recipe: Recipe, before?: Build): Build {
  const source = before && sameJson(before.recipe.source, recipe.source) ? before.source : buildSource(recipe.source);
  const trail: Step[] = [];
  let { pattern } = source;
  let same = source === before?.source;
  for (const [i, entry] of recipe.moves.slice(0, MOST_MOVES).entries()) {
    const old: Step | undefined = same ? before?.trail[i] : undefined;
    const kept = old && sameJson(old.entry, entry) ? old : undefined;
    same = kept !== undefined;
    const step = kept ?? buildStep(pattern, entry, joinsBefore(recipe, i));
    trail.push(step);
    pattern = step.pattern;
  }
  return { recipe, source, trail, pattern };
}

function joinsBefore(recipe: Recipe, index: number): number {
  return recipe.moves.slice(0, index).filter((m) => m.on && m.move === 'join').length;
}

function buildStep(pattern: Pattern, entry: MoveEntry, joins: number): Step {
  const step = (outcome: Outcome): Step => ({ entry, sentence: describeMove(entry, pattern), ...outcome });
  if (!entry.on) return step({ pattern, findings: [] });
  if (entry.move === 'join' && joins >= MOST_JOINS)
    return step(passes(pattern, 'too-many', `A recipe joins at most ${MOST_JOINS} other phrases.`));
  return step(
    within(
      pattern,
      applyMove(pattern, entry, (other) => build(other as Recipe).pattern),
    ),
  );
}

/** Keeps a result inside the sizes the application is made for. */
function within(before: Pattern, outcome: Outcome): Outcome {
  const { length, start, meter: m, strokes } = outcome.pattern;
  if (start + length > MOST_BARS * barTicks(m))
    return passes(before, 'too-long', `A phrase is at most ${MOST_BARS} bars long.`);
  if (strokes.length > MOST_STROKES)
    return passes(before, 'too-many', `A phrase holds at most ${MOST_STROKES} strokes.`);
  if (outcome.pattern.pickup && start > 0) {
    const words = 'It no longer begins on the 1, so the pick-up is gone.';
    return {
      pattern: withoutPickup(outcome.pattern),
      findings: [...outcome.findings, { code: 'pickup', weight: 'check', words }],
    };
  }
  return outcome;
}

function sameJson(a: unknown, b: unknown): boolean {
  return a === b || JSON.stringify(a) === JSON.stringify(b);
}

function buildSource(source: Source): Outcome {
  const m = parseMeter(source.meter);
  if (!m)
    return nothing(meter(4, 4), source, {
      code: 'no-source',
      weight: 'stop',
      words: `“${source.meter.slice(0, 20)}” is not a meter.`,
    });
  const nodes = readSource(source);
  if ('words' in nodes) return nothing(m, source, nodes);
  const pattern = { ...patternOfText(nodes.nodes, m, ticks(source.grid)), feel: feelOf(source) };
  return within({ ...pattern, strokes: [], groups: [], length: ticks(0) }, { pattern, findings: [] });
}

function readSource(source: Source): { readonly nodes: readonly Node[] } | Finding {
  if (source.kind === 'rudiment') {
    const rudiment = rudimentById(source.id);
    if (!rudiment)
      return {
        code: 'no-source',
        weight: 'stop',
        words: `There is no rudiment “${source.id.slice(0, 40)}” in this catalogue.`,
      };
    return readText(rudiment.text);
  }
  return readText(source.text);
}

function readText(text: string): { readonly nodes: readonly Node[] } | Finding {
  const read = parseStrokeText(text);
  return read.ok ? { nodes: read.value } : { code: 'bad-text', weight: 'stop', words: read.problems[0].message };
}

function nothing(m: Meter, source: Source, finding: Finding): Outcome {
  const zero = ticks(0);
  return {
    pattern: {
      meter: m,
      grid: ticks(source.grid),
      feel: feelOf(source),
      start: zero,
      length: zero,
      strokes: [],
      groups: [],
    },
    findings: [finding],
  };
}
