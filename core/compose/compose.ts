import { ticks, type Schools } from '../time';
import { isHand, printTyped, usualVoice, type Stroke } from '../stroke';
import { placeWords, tidy, type Group, type Pattern } from '../pattern';
import { build, isSame, recipeOf, type MoveEntry, type Recipe } from '../recipe';
import type { Kit } from '../kit';
import { ceilingOn, limitOf, type Able } from '../reach';
import { meterText, STRAIGHT } from '../time';
import { COMPOSE_LIMITS, type Asked, type Slot } from './asked';
import { slotKey } from './cells';
import { Fillings, type Filled } from './search';
import { wayMoves } from './ways';

/** A phrase of the shelf that answers are held against. */
export interface Known {
  readonly name: string;
  readonly pattern: Pattern;
}

/** One answer: a recipe that builds exactly these strokes. */
export interface Answer {
  readonly recipe: Recipe;
  readonly pattern: Pattern;
  /** The cells it is made of, one after the other. */
  readonly cells: readonly string[];
  /** "5 + 5 + 4 + 2", and "2 cut" where the last one is cut off. */
  readonly sum: string;
  readonly cost: number;
  /** Counted beats a minute up to which it can be played on the kit, in whole ones; null where nothing limits it. */
  readonly ceiling: number | null;
  /** What on the shelf is likest, and by how many slots it differs; null where nothing is as long. */
  readonly kin: { readonly name: string; readonly slots: number } | null;
}

/** The answers, cheapest first; `more` where it was not looked through to the end. */
export interface Composed {
  readonly answers: readonly Answer[];
  readonly more: boolean;
  /** Of those that were looked at the fastest that was too slow; null where none was. */
  readonly tooSlow: number | null;
}

/** So many fillings are looked at: what is asked for is nearly always among the first, and nobody waits for ever. */
const LOOKED_AT = 4000;

/** What stands around a search: the kit, the player, the shelf, and whether it was stopped. */
export interface Around {
  readonly kit: Kit;
  readonly profile: Able;
  readonly shelf: readonly Known[];
  readonly stopped?: () => boolean;
  /** Told of each answer as it is found. */
  readonly found?: (answer: Answer) => void;
}

/**
 * The best phrases that are as asked for, the cheapest first by `COSTS`, each at least as far from the others and from
 * the shelf as asked, and playable at the tempo asked on this kit. Exact: the fillings come in order of their cost, so
 * that none that comes later is cheaper. Empty where there is none; `more` where the search was ended before its end.
 * @example
 * compose(asking({ meter: meter(2, 4), grid: GRID.sixteenths, slots: 8, cells: [cellOf('five', 'R L R L K'), cellOf('three', 'R L K')] }), { kit: USUAL_KIT, profile: USUAL_PROFILE, shelf: [] }).answers.map((a) => a.sum) // => ["5 + 3", "3 + 5"]
 */
export function compose(asked: Asked, around: Around): Composed {
  const answers: Answer[] = [];
  const forms: (readonly string[])[] = [];
  const seen = new Set<string>();
  const likeness = around.shelf.flatMap(({ name, pattern }) => {
    const form = formOf(pattern, asked);
    return form ? [{ name, form }] : [];
  });
  let [looked, tooSlow] = [0, null as number | null];
  for (const filled of new Fillings(asked, around.stopped)) {
    if (around.stopped?.() === true || ++looked > LOOKED_AT) return { answers, more: true, tooSlow };
    const form = filled.slots.map(slotKey);
    const key = form.join(' ');
    if (seen.has(key)) continue;
    seen.add(key);
    if (forms.some((f) => differs(f, form) < asked.apart)) continue;
    const sum = sumOf(asked, filled);
    const isSum = asked.alike !== null && sum.includes('+');
    if (isSum && answers.filter((a) => a.sum === sum).length >= asked.alike) continue;
    const kin = nearest(likeness, filled.slots.map(bareKey));
    if (kin && kin.slots < asked.unlike) continue;
    const pattern = patternOf(asked, filled.slots, around.kit);
    const top = limitOf(ceilingOn(pattern, around.kit, around.profile).bpm);
    const ceiling = top === null ? null : Math.floor(top);
    if (asked.tempo !== null && ceiling !== null && ceiling < asked.tempo) {
      tooSlow = Math.max(tooSlow ?? 0, ceiling);
      continue;
    }
    const recipe = answerRecipe(asked, filled, pattern, around.kit);
    if (!recipe) continue;
    const answer = {
      recipe,
      pattern,
      cells: namesOf(asked, filled),
      sum,
      cost: filled.cost,
      ceiling,
      kin,
    };
    answers.push(answer);
    around.found?.(answer);
    forms.push(form);
    if (answers.length >= Math.min(asked.many, COMPOSE_LIMITS.many)) return { answers, more: true, tooSlow };
  }
  return { answers, more: false, tooSlow };
}

/** By how many slots two phrases of one length differ. */
export function differs(a: readonly string[], b: readonly string[]): number {
  return a.reduce((n, slot, i) => n + (slot === b[i] ? 0 : 1), 0);
}

function nearest(
  all: readonly { readonly name: string; readonly form: readonly string[] }[],
  form: readonly string[],
): Answer['kin'] {
  let best: Answer['kin'] = null;
  for (const { name, form: other } of all) {
    const slots = differs(other, form);
    if (!best || slots < best.slots) best = { name, slots };
  }
  return best;
}

/** What a phrase plays in each slot of the space that is asked for; null where it is of another length or grid. */
function formOf(pattern: Pattern, { slots, grid, landing }: Asked): readonly string[] | null {
  const lands = landing === null ? 0 : 1;
  const at = pattern.groups.find((g) => g.kind === 'land')?.at ?? pattern.length;
  if (pattern.grid !== grid || at < slots * grid || at >= (slots + 1) * grid + lands * pattern.length) return null;
  const own = Array.from({ length: slots }, (): Stroke[] => []);
  for (const s of pattern.strokes) {
    if (s.at >= slots * grid) continue;
    const slot = own[s.at / grid];
    if (!slot) return null;
    slot.push(s);
  }
  return own.map(bareKey);
}

/** What is played in a slot, pieces aside: the same strokes elsewhere on the kit are no other phrase. */
const bareKey = (slot: Slot): string =>
  slotKey(slot.map(({ limb, level, ornament }) => ({ limb, level, ...(ornament ? { ornament } : {}) })));

const LANDING = 'landing';

function landingMove({ landing }: Asked): MoveEntry[] {
  if (!landing) return [];
  const { hand, voice, kick } = landing;
  return [{ id: LANDING, on: true, move: 'land', params: { hand, kick, ...(voice ? { voice } : {}) } }];
}

/** The moves behind the strokes: their way round the kit, and the landing. */
function afterwards(asked: Asked, slots: readonly Slot[], kit: Kit): readonly MoveEntry[] {
  const hands = slots.filter((slot) => slot.some((s) => isHand(s.limb))).length;
  return [...(asked.way === null ? [] : (wayMoves(asked.way, hands, kit) ?? [])), ...landingMove(asked)];
}

/** The strokes of each slot as a pattern that starts where it is asked to, before it goes round the kit and lands. */
function plainOf({ meter, grid, start }: Asked, slots: readonly Slot[]): Pattern {
  const length = ticks(slots.length * grid);
  const strokes = slots.flatMap((slot, index) =>
    slot.map((s): Stroke => ({
      ...s,
      at: ticks(index * grid),
      voice: s.voice ?? usualVoice(s.limb),
      from: { index, repeat: 0, move: null },
    })),
  );
  const groups: Group[] = [{ at: ticks(0), length, repeat: 0, kind: 'cell' }];
  return tidy({ meter, grid, feel: STRAIGHT, start, length, strokes, groups });
}

/** The strokes of each slot as a pattern, with its way round the kit and its landing. */
export function patternOf(asked: Asked, slots: readonly Slot[], kit: Kit): Pattern {
  const plain = plainOf(asked, slots);
  const after = afterwards(asked, slots, kit);
  if (after.length === 0) return plain;
  const recipe = recipeOf(plain);
  return recipe ? build({ ...recipe, moves: [...recipe.moves, ...after] }).pattern : plain;
}

/**
 * The recipe of a filling: its cells as typed text, one behind the other and equal ones as a repeat, then where it
 * starts, its way round the kit and where it lands. Where cells and line run into each other every slot is typed. Null
 * where no recipe builds exactly the strokes.
 */
function answerRecipe(asked: Asked, filled: Filled, pattern: Pattern, kit: Kit): Recipe | null {
  const written = recipeOf(plainOf(asked, filled.slots));
  if (!written) return null;
  const source = {
    kind: 'typed' as const,
    text: textOf(asked, filled),
    meter: meterText(asked.meter),
    grid: asked.grid,
  };
  const after = afterwards(asked, filled.slots, kit);
  const ways = [
    { source, moves: [...written.moves, ...after] },
    { ...written, moves: [...written.moves, ...after] },
  ];
  return ways.find((r) => isSame(build(r).pattern, pattern)) ?? recipeOf(pattern);
}

const slotText = (slot: Slot): string => (slot.length === 0 ? '-' : slot.map(printTyped).join('+'));

/** The cells of a filling as text, equal ones that follow each other as a repeat. */
function textOf(asked: Asked, { cells, slots }: Filled): string {
  if (asked.line !== null) return slots.map(slotText).join(' ');
  const parts: { text: string; times: number }[] = [];
  let at = 0;
  for (const cell of cells) {
    const long = asked.cells[cell]?.slots.length ?? 0;
    const text = slots
      .slice(at, at + long)
      .map(slotText)
      .join(' ');
    at += long;
    const last = parts.at(-1);
    if (last?.text === text) last.times++;
    else parts.push({ text, times: 1 });
  }
  return parts.map((p) => (p.times > 1 ? `(${p.text})x${p.times}` : p.text)).join(' ');
}

function namesOf(asked: Asked, { cells }: Filled): readonly string[] {
  return cells.map((c) => asked.cells[c]?.name ?? '');
}

/** "5 + 5 + 4 + 2": the lengths of the cells. Single slots that stand together are one number. */
function sumOf(asked: Asked, { cells, cut, slots }: Filled): string {
  const free =
    slots.length - (asked.linear ? slots.filter((_, i) => (asked.line?.slots[i]?.length ?? 0) > 0).length : 0);
  const parts: { n: number; single: boolean }[] = [];
  let before = 0;
  for (const [i, cell] of cells.entries()) {
    const own = asked.cells[cell]?.slots.length ?? 0;
    const n = cut && i === cells.length - 1 ? free - before : own;
    before += own;
    const last = parts.at(-1);
    if (own === 1 && last?.single) last.n++;
    else parts.push({ n, single: own === 1 });
  }
  return parts.map(({ n }, i) => (cut && i === parts.length - 1 ? `${n} cut` : String(n))).join(' + ');
}

/** Where a slot of what is asked lies, in words: "the & of 3". */
export function slotWords(asked: Asked, slot: number, schools: Schools): string {
  const nothing = Array.from({ length: asked.slots }, (): Slot => []);
  return placeWords(plainOf(asked, nothing), ticks(slot * asked.grid), schools);
}
