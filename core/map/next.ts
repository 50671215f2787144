import { compose, demanded, USUAL_DEMANDS, type Demands } from '../compose';
import type { Kit } from '../kit';
import { readLine } from '../language';
import type { Pattern } from '../pattern';
import { afterMinutes, chanceReady, paceOf, unknownYet, type Belief } from '../player';
import { ceilingOn, limitOf, type Able } from '../reach';
import { build, type Recipe } from '../recipe';
import { traitsOf, type Trait } from '../shelf';
import type { Schools } from '../time';
import { demandOf, linesTo } from './lines';

/** A phrase of the shelf that can be built on: its recipe, and the tempo that is ready, in counted bpm. */
export interface BuiltOn {
  readonly id: string;
  readonly name: string;
  readonly recipe: Recipe;
  readonly ready: number;
}

/** A phrase that would be the first of an empty square, and how it is made. */
export interface Step {
  readonly row: string;
  readonly column: string;
  /** Of which phrase it is a variant; null where it is composed. */
  readonly from: { readonly id: string; readonly name: string } | null;
  /** The change, or what it is built from. */
  readonly words: string;
  readonly recipe: Recipe;
  readonly pattern: Pattern;
  /** Counted bpm; null where nothing limits it. */
  readonly ceiling: number | null;
  /** The tempo it is asked at, in counted bpm; the chance that it is ready there within so many minutes of practice. */
  readonly tempo: number;
  readonly minutes: number;
  readonly chance: number;
}

/** What stands around: the kit, the player and their share of ceilings, how counts are said, the day. */
export interface Scene {
  readonly kit: Kit;
  readonly profile: Able;
  readonly share: Belief;
  readonly schools: Schools;
  readonly today: number;
}

/** A square that is looked for: two traits, and a value of each. */
export interface Wanted {
  readonly traits: readonly [Trait, Trait];
  readonly row: string;
  readonly column: string;
}

/** Minutes of practice that a step may take. */
const STEP_MINUTES = 30;
/** A composed phrase is asked for at this tempo where nothing is ready. */
const USUAL_TEMPO = 80;

/**
 * What leads to an empty square: of each phrase that can be built on the one change that does, and of none a composed
 * phrase. Each is built and held to the square's traits. The likeliest to be ready in half an hour first.
 */
export function stepsTo(wanted: Wanted, from: readonly BuiltOn[], scene: Scene): readonly Step[] {
  const steps = from.flatMap((phrase) => variantTo(wanted, phrase, scene) ?? []);
  const tempo = from[0]?.ready ?? USUAL_TEMPO;
  const all = steps.length > 0 ? steps : composedTo(wanted, tempo, scene);
  return [...all].sort((a, b) => b.chance - a.chance);
}

const is = ({ traits: [row, column], ...wanted }: Wanted, pattern: Pattern): boolean => {
  const traits = traitsOf(pattern);
  return traits[row] === wanted.row && traits[column] === wanted.column;
};

/** The one change of a phrase that leads to a square; null where none of those that are tried does. */
function variantTo(wanted: Wanted, { id, name, recipe, ready }: BuiltOn, scene: Scene): Step | null {
  const built = build(recipe);
  const own = traitsOf(built.pattern);
  const [row, column] = wanted.traits;
  const lines = [
    ...(own[row] === wanted.row ? [] : linesTo(row, wanted.row)),
    ...(own[column] === wanted.column ? [] : linesTo(column, wanted.column)),
  ];
  for (const line of lines) {
    const read = readLine(line, built, { tempo: ready });
    if (read.kind !== 'meant') continue;
    const meant = read.all.find((m) => m.moves.length === 1 && is(wanted, m.pattern));
    if (!meant) continue;
    const moves = meant.moves.map((m, i) => ({ ...m, id: `map-${recipe.moves.length + i}` }));
    return step(wanted, { id, name }, meant.words, { ...recipe, moves: [...recipe.moves, ...moves] }, ready, scene);
  }
  return null;
}

/** What is asked of a composed phrase for a square; null where one of its traits cannot be asked for. */
export function demandsOf({ traits: [row, column], ...wanted }: Wanted): Partial<Demands> | null {
  const [a, b] = [demandOf(row, wanted.row), demandOf(column, wanted.column)];
  return a && b ? { ...a, ...b } : null;
}

function composedTo(wanted: Wanted, tempo: number, scene: Scene): readonly Step[] {
  const demands = demandsOf(wanted);
  if (!demands) return [];
  const { asked, wrong } = demanded(
    { ...USUAL_DEMANDS, cut: true, ...demands },
    { phrase: null, cells: [], kit: scene.kit, schools: scene.schools },
  );
  if (wrong.length > 0) return [];
  const { answers } = compose({ ...asked, many: 4 }, { kit: scene.kit, profile: scene.profile, shelf: [] });
  const first = answers.find((a) => is(wanted, build(a.recipe).pattern));
  return first ? [step(wanted, null, first.sum, first.recipe, tempo, scene)] : [];
}

function step(
  { row, column }: Wanted,
  from: Step['from'],
  words: string,
  recipe: Recipe,
  ready: number,
  scene: Scene,
): Step {
  const { pattern } = build(recipe);
  const top = limitOf(ceilingOn(pattern, scene.kit, scene.profile).bpm);
  const ceiling = top === null ? null : Math.floor(top);
  const tempo = ceiling === null ? ready : Math.min(ready, ceiling);
  const chance = chanceIn(ceiling, tempo, scene);
  return { row, column, from, words, recipe, pattern, ceiling, tempo, minutes: STEP_MINUTES, chance };
}

/** The chance that a phrase nobody has tried is ready at a tempo within half an hour, 0–1. */
function chanceIn(ceiling: number | null, tempo: number, { share, today }: Scene): number {
  const { belief } = unknownYet(ceiling ?? 2 * tempo, today, share);
  return chanceReady(afterMinutes(belief, paceOf([], today), STEP_MINUTES), tempo);
}

/** The best steps, each to a square of its own, the likeliest to be ready first. */
export function nextToLearn(steps: readonly Step[], many = 5): readonly Step[] {
  const best = new Map<string, Step>();
  for (const s of steps) {
    const key = `${s.row}|${s.column}`;
    if ((best.get(key)?.chance ?? -1) < s.chance) best.set(key, s);
  }
  return [...best.values()].sort((a, b) => b.chance - a.chance).slice(0, many);
}
