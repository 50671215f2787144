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
import type { Edit } from './moves';
import { MOST_MOVES } from './plain';
import type { Recipe } from './recipe';
import type { MoveEntry } from './registry';

/** An id that no move of the list has yet: "m3" for the third. */
export function freshId(moves: readonly { readonly id: string }[]): string {
  const taken = new Set(moves.map((m) => m.id));
  let n = moves.length + 1;
  while (taken.has(`m${n}`)) n++;
  return `m${n}`;
}

/** What an edit is about: a limb at a tick. */
export function keyOf(e: Pick<Edit, 'at' | 'limb'>): string {
  return `${e.at}${e.limb}`;
}

/** What a hand edit writes of a stroke. */
type StrokeContent = Pick<Stroke, 'limb' | 'voice' | 'level' | 'ornament' | 'grace'>;

/** A stroke as an edit that writes it out in full. */
export function asEdit(s: StrokeContent, at: number): Edit {
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
