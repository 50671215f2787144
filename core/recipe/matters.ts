import type { Stroke } from '../stroke';
import type { Pattern } from '../pattern';
import type { Build } from './build';
import { asEdit, freshId, keyOf } from './hand';
import { amended, type Edit, type Matter } from './moves';
import { MOST_MOVES } from './plain';
import type { Recipe } from './recipe';
import type { MoveEntry } from './registry';

/** The most hand edits one `touch` may hold. */
const MOST_EDITS = 4096;

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
    if (edit.at >= 0 && edit.at < built.pattern.length)
      put(cards, inMatter(built.pattern, edit), built.pattern, recipe);
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

/** Puts one edit where it belongs: what was written by hand, the card of its matter, or a new one. */
function put(cards: Card[], edit: Edit | null, pattern: Pattern, recipe: Recipe): void {
  if (!edit) return;
  const key = keyOf(edit);
  const matter = edit.only ?? 'stroke';
  // What is changed about a stroke that was written by hand is how it is written.
  const written = cards.findLast((c) => c.edits.has(key) && !c.edits.get(key)?.only);
  if (!edit.only) cards.forEach((c) => c.edits.delete(key));
  const own = written ?? cards.find((c) => c.matter === matter);
  // A full recipe has no room for a card more: the last one holds it whole.
  const last = recipe.moves.length >= MOST_MOVES ? cards.at(-1) : undefined;
  if (own) return setOrDrop(own, written ? wholeOf(edit, pattern) : edit);
  if (last) return setOrDrop(last, wholeOf(edit, pattern));
  const card: Card = { id: freshId([...recipe.moves, ...cards]), matter, before: pattern, edits: new Map() };
  cards.push(card);
  setOrDrop(card, edit);
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
  return edit.only && edit.stroke && there ? asEdit(amended(there, edit.stroke, edit.only), edit.at) : edit;
}

function strokeAt(pattern: Pattern, { at, limb }: Pick<Edit, 'at' | 'limb'>): Stroke | undefined {
  return pattern.strokes.find((s) => s.at === at && s.limb === limb);
}

function isAsBefore(edit: Edit, before: Pattern): boolean {
  const there = strokeAt(before, edit);
  if (!edit.stroke) return there === undefined;
  const { level, voice, ornament, grace } = edit.stroke;
  const about = (matter: Matter): boolean => edit.only === undefined || edit.only === matter;
  return (
    there !== undefined &&
    (!about('level') || there.level === level) &&
    (!about('voice') || (voice ?? there.voice) === there.voice) &&
    (!about('ornament') || ornament === there.ornament) &&
    (grace ?? there.grace) === there.grace
  );
}
