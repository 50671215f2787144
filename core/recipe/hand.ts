import { mod } from '../base';
import { ticks, type Ticks } from '../time';
import {
  canStrike,
  isHand,
  LEVELS,
  usualVoice,
  type Level,
  type Limb,
  type Ornament,
  type Stroke,
  type TypedStroke,
  type Voice,
} from '../stroke';
import type { Pattern } from '../pattern';
import type { Build } from './build';
import type { Edit, Matter } from './moves';
import { MOST_MOVES } from './plain';
import type { Recipe } from './recipe';
import type { MoveEntry } from './registry';

/** The most hand edits one `touch` may hold. */
const MOST_EDITS = 4096;

/** An id that no move of the list has yet: "m3" for the third. */
export function freshId(moves: readonly { readonly id: string }[]): string {
  const taken = new Set(moves.map((m) => m.id));
  let n = moves.length + 1;
  while (taken.has(`m${n}`)) n++;
  return `m${n}`;
}

/** A card of hand edits while more are put into it. */
interface Card {
  readonly id: string;
  readonly matter: Matter | 'stroke';
  readonly before: Pattern;
  readonly edits: Map<string, Edit>;
}

/**
 * A recipe with hand edits on what it builds. Each matter (strokes, levels, voices, ornaments) has a card of its own,
 * so that each can be switched off by itself: edits extend the card of their matter among the `touch` moves the recipe
 * ends with, or begin a new one. An edit that puts a stroke back as it was before the card is no edit, and a card
 * without edits goes away. Null when the recipe can hold no more.
 */
export function withEdits(built: Build, edits: readonly Edit[]): Recipe | null {
  const { recipe } = built;
  const { cards, kept } = cardsOf(built);
  for (const edit of edits)
    if (
      edit.at >= 0 &&
      edit.at < built.pattern.length &&
      !put(cards, inMatter(built.pattern, edit), built.pattern, recipe)
    )
      return null;
  const touches = cards
    .filter((c) => c.edits.size > 0)
    .map((c): MoveEntry => ({
      id: c.id,
      on: true,
      move: 'touch',
      params: { edits: [...c.edits.values()].sort((a, b) => a.at - b.at) },
    }));
  if (touches.some((t) => t.move === 'touch' && t.params.edits.length > MOST_EDITS)) return null;
  const moves = [...kept, ...touches];
  return moves.length > MOST_MOVES ? null : { ...recipe, moves };
}

/** The cards a recipe ends with, each with the pattern before it, and the moves that stand before them. */
function cardsOf({ recipe, trail, source, pattern }: Build): { cards: Card[]; kept: readonly MoveEntry[] } {
  const { moves } = recipe;
  let first = moves.length;
  if (trail.length === moves.length) while (moves[first - 1]?.move === 'touch' && moves[first - 1]?.on) first--;
  const cards = moves.slice(first).flatMap((m, i): Card[] =>
    m.move === 'touch'
      ? [
          {
            id: m.id,
            matter: matterOf(m.params.edits),
            before: first + i === 0 ? source.pattern : (trail[first + i - 1]?.pattern ?? pattern),
            edits: new Map(m.params.edits.map((e) => [keyOf(e), e])),
          },
        ]
      : [],
  );
  return { cards, kept: moves.slice(0, first) };
}

/** Puts one edit where it belongs. False when the recipe has no room for a card more. */
function put(cards: Card[], edit: Edit | null, pattern: Pattern, recipe: Recipe): boolean {
  if (!edit) return true;
  const key = keyOf(edit);
  const written = cards.findLast((c) => c.edits.has(key) && !c.edits.get(key)?.only);
  if (edit.only && written) {
    // It was written by hand: what is changed about it is how it is written.
    setOrDrop(written, wholeOf(edit, pattern));
    return true;
  }
  if (!edit.only) cards.forEach((c) => c.edits.delete(key));
  const own = written ?? cards.find((c) => c.matter === (edit.only ?? 'stroke'));
  if (own) {
    setOrDrop(own, edit);
    return true;
  }
  const last = cards.at(-1);
  if (recipe.moves.length + 1 > MOST_MOVES && last) {
    setOrDrop(last, wholeOf(edit, pattern));
    return true;
  }
  const ids = [...recipe.moves, ...cards];
  const card: Card = { id: freshId(ids), matter: edit.only ?? 'stroke', before: pattern, edits: new Map() };
  cards.push(card);
  setOrDrop(card, edit);
  return recipe.moves.length < MOST_MOVES || cards.length > 1;
}

function setOrDrop({ edits, before }: Card, edit: Edit): void {
  if (isAsBefore(edit, before)) edits.delete(keyOf(edit));
  else edits.set(keyOf(edit), edit);
}

/** What a card of hand edits is about: one matter, or strokes that are written whole. */
function matterOf(edits: readonly Edit[]): Matter | 'stroke' {
  return edits.find((e) => !e.only) ? 'stroke' : (edits[0]?.only ?? 'stroke');
}

/**
 * An edit by what it really changes of the stroke that stands there: one matter, or the whole stroke; null when it
 * changes nothing.
 */
function inMatter(pattern: Pattern, edit: Edit): Edit | null {
  const there = strokeAt(pattern, edit);
  const { stroke } = edit;
  if (!there || !stroke || edit.only) return edit;
  const matters: Matter[] = [
    ...(stroke.level === there.level ? [] : ['level' as const]),
    ...((stroke.voice ?? there.voice) === there.voice ? [] : ['voice' as const]),
    ...(stroke.ornament === there.ornament ? [] : ['ornament' as const]),
  ];
  const [only] = matters;
  if (!only) return (stroke.grace ?? there.grace) === there.grace ? null : edit;
  return matters.length === 1 ? { ...edit, only } : edit;
}

/** An edit of one matter as the whole stroke it leads to. */
function wholeOf(edit: Edit, pattern: Pattern): Edit {
  const there = strokeAt(pattern, edit);
  if (!edit.only || !edit.stroke || !there) return edit;
  const { level, voice, ornament, grace } = edit.stroke;
  return asEdit(
    {
      limb: edit.limb,
      level: edit.only === 'level' ? level : there.level,
      voice: edit.only === 'voice' ? (voice ?? there.voice) : there.voice,
      ...(edit.only === 'ornament'
        ? ornament
          ? { ornament }
          : {}
        : there.ornament
          ? { ornament: there.ornament }
          : {}),
      ...((grace ?? there.grace) ? { grace: grace ?? there.grace } : {}),
    },
    edit.at,
  );
}

function strokeAt(pattern: Pattern, { at, limb }: Pick<Edit, 'at' | 'limb'>): Stroke | undefined {
  return pattern.strokes.find((s) => s.at === at && s.limb === limb);
}

function keyOf(e: Pick<Edit, 'at' | 'limb'>): string {
  return `${e.at}${e.limb}`;
}

function isAsBefore(edit: Edit, before: Pattern): boolean {
  const there = strokeAt(before, edit);
  if (!edit.stroke) return there === undefined;
  const { level, voice, ornament, grace } = edit.stroke;
  return (
    there !== undefined &&
    (edit.only === undefined || edit.only === 'level' ? there.level === level : true) &&
    (edit.only === undefined || edit.only === 'voice' ? (voice ?? there.voice) === there.voice : true) &&
    (edit.only === undefined || edit.only === 'ornament' ? ornament === there.ornament : true) &&
    (grace ?? there.grace) === there.grace
  );
}

/** What a hand edit writes of a stroke. */
type Written = Pick<Stroke, 'limb' | 'voice' | 'level' | 'ornament' | 'grace'>;

/** A stroke as an edit that writes it out in full. */
export function asEdit(s: Written, at: number): Edit {
  return {
    at,
    limb: s.limb,
    stroke: {
      level: s.level,
      voice: s.voice,
      ...(s.ornament ? { ornament: s.ornament } : {}),
      ...(s.ornament && s.grace ? { grace: s.grace } : {}),
    },
  };
}

/** Writes one stroke of stroke text at a tick. It takes the place of all that is there, or joins it (`R+K`). */
export function writeEdits(pattern: Pattern, at: number, typed: TypedStroke, joins: boolean): Edit[] {
  const others = joins
    ? []
    : pattern.strokes
        .filter((s) => s.at === at && s.limb !== typed.limb)
        .map((s): Edit => ({ at, limb: s.limb, stroke: null }));
  const there = pattern.strokes.find((s) => s.at === at && s.limb === typed.limb);
  // A hand that takes over from the other keeps the voice that sounded there.
  const handed = joins ? undefined : pattern.strokes.find((s) => s.at === at && isHand(s.limb) && isHand(typed.limb));
  const voice = typed.voice ?? there?.voice ?? handed?.voice ?? usualVoice(typed.limb);
  return [...others, asEdit({ ...typed, voice }, at)];
}

/** Chosen strokes turned into rests. */
export function restEdits(pattern: Pattern, chosen: readonly number[]): Edit[] {
  return strokesAt(pattern, chosen).map((s) => ({ at: s.at, limb: s.limb, stroke: null }));
}

/** Chosen strokes at a level, or each a step higher or lower. */
export function levelEdits(pattern: Pattern, chosen: readonly number[], to: Level | 1 | -1): Edit[] {
  return strokesAt(pattern, chosen).map((s) => {
    const next = typeof to === 'number' ? (LEVELS[LEVELS.indexOf(s.level) + to] ?? s.level) : to;
    return asEdit({ ...s, level: next }, s.at);
  });
}

/** Chosen strokes on a voice; those that cannot strike it stay. */
export function voiceEdits(pattern: Pattern, chosen: readonly number[], voice: Voice): Edit[] {
  return strokesAt(pattern, chosen)
    .filter((s) => canStrike(s.limb, voice))
    .map((s) => asEdit({ ...s, voice }, s.at));
}

/** Chosen hand strokes with an ornament, or without. */
export function ornamentEdits(pattern: Pattern, chosen: readonly number[], ornament: Ornament | null): Edit[] {
  return strokesAt(pattern, chosen)
    .filter((s) => isHand(s.limb))
    .map((s) =>
      asEdit({ ...without(s), ...(ornament ? { ornament, ...(s.grace ? { grace: s.grace } : {}) } : {}) }, s.at),
    );
}

function without({ ornament: _ornament, grace: _grace, ...plain }: Stroke): Stroke {
  return plain;
}

/** Chosen strokes on another limb; what that limb played there gives way. */
export function limbEdits(pattern: Pattern, chosen: readonly number[], limb: Limb): Edit[] {
  return strokesAt(pattern, chosen).flatMap((s) => {
    if (s.limb === limb) return [];
    const voice = canStrike(limb, s.voice) ? s.voice : usualVoice(limb);
    return [{ at: s.at, limb: s.limb, stroke: null }, asEdit({ limb, voice, level: s.level }, s.at)];
  });
}

/**
 * Chosen strokes displaced by ticks. They are held inside the pattern: a drag past its end stops there. What they fall
 * on gives way. Empty when nothing can move.
 */
export function displaceEdits(pattern: Pattern, chosen: readonly number[], by: number): Edit[] {
  const moving = strokesAt(pattern, chosen);
  const [first, last] = [moving[0], moving.at(-1)];
  if (!first || !last) return [];
  const held = Math.max(0 - first.at, Math.min(pattern.length - pattern.grid - last.at, by));
  const step = Math.trunc(held / pattern.grid) * pattern.grid;
  if (step === 0) return [];
  const landed = new Set(moving.map((s) => `${s.at + step}${s.limb}`));
  const left = moving
    .filter((s) => !landed.has(`${s.at}${s.limb}`))
    .map((s): Edit => ({ at: s.at, limb: s.limb, stroke: null }));
  return [...left, ...moving.map((s) => asEdit(s, s.at + step))];
}

/** Part of a pattern that can be put down elsewhere, in this phrase or another. */
export interface Clip {
  readonly length: Ticks;
  readonly strokes: readonly Pick<Stroke, 'at' | 'limb' | 'voice' | 'level' | 'ornament' | 'grace'>[];
}

/** What lies in [from, until), measured from `from`. */
export function clipOf(pattern: Pattern, from: number, until: number): Clip {
  return {
    length: ticks(Math.max(0, until - from)),
    strokes: pattern.strokes
      .filter((s) => s.at >= from && s.at < until)
      .map(({ at, limb, voice, level, ornament, grace }) => ({
        at: ticks(at - from),
        limb,
        voice,
        level,
        ...(ornament ? { ornament } : {}),
        ...(grace ? { grace } : {}),
      })),
  };
}

/** A clip put down at a tick in place of what is there. What reaches past the end is left out. */
export function pasteEdits(pattern: Pattern, at: number, clip: Clip): Edit[] {
  const until = Math.min(pattern.length, at + clip.length);
  const landing = clip.strokes.filter((s) => at + s.at < pattern.length).map((s) => asEdit(s, at + s.at));
  const taken = new Set(landing.map(keyOf));
  const cleared = pattern.strokes
    .filter((s) => s.at >= at && s.at < until && !taken.has(`${s.at}${s.limb}`))
    .map((s): Edit => ({ at: s.at, limb: s.limb, stroke: null }));
  return [...cleared, ...landing];
}

/** Indexes of the strokes in [from, until). */
export function inRange(pattern: Pattern, from: number, until: number): number[] {
  return pattern.strokes.flatMap((s, i) => (s.at >= from && s.at < until ? [i] : []));
}

/** Where a cursor can stand: every slot of the home grid and every stroke between, ascending. */
export function cursorStops(pattern: Pattern): readonly Ticks[] {
  const slots = Array.from({ length: Math.ceil(pattern.length / pattern.grid) }, (_, i) => i * pattern.grid);
  const between = pattern.strokes.filter((s) => mod(s.at, pattern.grid) !== 0).map((s): number => s.at);
  return [...new Set([...slots, ...between])].sort((a, b) => a - b).map(ticks);
}

function strokesAt(pattern: Pattern, chosen: readonly number[]): Stroke[] {
  return chosen.flatMap((i) => {
    const s = pattern.strokes[i];
    return s ? [s] : [];
  });
}

/**
 * A phrase grown at its end by typed strokes: they become an `insert`, or extend the one the recipe ends with. Null
 * when the recipe can hold no more.
 */
export function withTyped(recipe: Recipe, text: string): Recipe | null {
  const last = recipe.moves.at(-1);
  if (last?.move === 'insert' && last.on && last.params.where.kind === 'end' && last.params.grid === undefined) {
    return {
      ...recipe,
      moves: [
        ...recipe.moves.slice(0, -1),
        { ...last, params: { ...last.params, text: `${last.params.text.trim()} ${text}` } },
      ],
    };
  }
  if (recipe.moves.length >= MOST_MOVES) return null;
  const entry: MoveEntry = {
    id: freshId(recipe.moves),
    on: true,
    move: 'insert',
    params: { text, where: { kind: 'end' } },
  };
  return { ...recipe, moves: [...recipe.moves, entry] };
}
