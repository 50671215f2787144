import { otherHand, isHand, parseStrokeText, slotsOf, type TypedStroke } from '../stroke';
import type { Pattern } from '../pattern';
import { RUDIMENTS } from '../rudiments';
import type { Cell, Slot } from './asked';

/** A cell of stroke text; null where it cannot be read. */
export function cellOf(name: string, text: string): Cell | null {
  const read = parseStrokeText(text);
  return read.ok ? { name, slots: slotsOf(read.value) } : null;
}

/** A cell with the hands swapped. */
export function mirroredCell({ name, slots }: Cell): Cell {
  const other = (s: TypedStroke): TypedStroke => (isHand(s.limb) ? { ...s, limb: otherHand(s.limb) } : s);
  return { name: `${name}, left first`, slots: slots.map((slot) => slot.map(other)) };
}

/** How a linear cell of some strokes is made: hands then kick, the kick inside, one kick or two. */
export const LINEAR_STYLES = ['kick-last', 'kick-inside', 'two-kicks', 'kick-first'] as const;
export type LinearStyle = (typeof LINEAR_STYLES)[number];

/** What each is called. */
export const LINEAR_WORDS: Readonly<Record<LinearStyle, string>> = Object.freeze({
  'kick-last': 'hands, then a kick',
  'kick-inside': 'a kick inside',
  'two-kicks': 'hands, then two kicks',
  'kick-first': 'a kick, then hands',
});

/**
 * Linear cells of a size: the hands in turn, led by the right, and kicks as the style says. Both leads where the hands
 * are more than one. Empty where a style needs more strokes.
 * @example
 * linearCells(3, 'kick-last').map((c) => c.name) // => ["R L K", "L R K"]
 * linearCells(5, 'two-kicks').map((c) => c.name) // => ["R L R K K", "L R L K K"]
 * linearCells(2, 'two-kicks') // => []
 */
export function linearCells(size: number, style: LinearStyle): readonly Cell[] {
  const kicks = style === 'two-kicks' ? 2 : 1;
  const hands = size - kicks;
  if (hands < 1 || (style === 'kick-inside' && hands < 2)) return [];
  return (['R', 'L'] as const).flatMap((lead) => {
    const row = Array.from({ length: hands }, (_, i) => (i % 2 === 0 ? lead : otherHand(lead)));
    const at = style === 'kick-first' ? 0 : style === 'kick-inside' ? Math.ceil(hands / 2) : hands;
    const letters = [...row.slice(0, at), ...Array.from({ length: kicks }, () => 'K'), ...row.slice(at)];
    return cellOf(letters.join(' '), letters.join(' ')) ?? [];
  });
}

/** Single slots: what is free to stand anywhere. */
export function freeCells(kick: boolean, rests: boolean): readonly Cell[] {
  return ['R', 'L', ...(kick ? ['K'] : []), ...(rests ? ['-'] : [])].flatMap((l) => cellOf(l, l) ?? []);
}

/** Standard rudiments of so many slots at most, and each with the left first where that is another. */
export function rudimentCells(longest = 12): readonly Cell[] {
  const own = RUDIMENTS.flatMap((r) => cellOf(r.name, r.text) ?? []).filter((c) => c.slots.length <= longest);
  return different([...own, ...own.map(mirroredCell)]);
}

/** The first repeat of a phrase of the shelf as a cell, its pieces aside; null where it does not lie on its grid. */
export function cellOfPattern(name: string, pattern: Pattern): Cell | null {
  const [first] = pattern.groups;
  if (!first || first.kind !== 'cell') return null;
  const slots = Array.from({ length: Math.floor(first.length / pattern.grid) }, (): TypedStroke[] => []);
  for (const { at, limb, level, ornament } of pattern.strokes) {
    if (at < first.at || at >= first.at + first.length) continue;
    const slot = slots[(at - first.at) / pattern.grid];
    if (!slot) return null;
    slot.push({ limb, level, ...(ornament ? { ornament } : {}) });
  }
  return slots.length > 0 ? { name, slots } : null;
}

/** Cells that are played alike, once. */
export function different(cells: readonly Cell[]): readonly Cell[] {
  const seen = new Set<string>();
  return cells.filter((c) => {
    const key = c.slots.map(slotKey).join(' ');
    return !seen.has(key) && seen.add(key);
  });
}

/** What is played in a slot, as a text that is the same for the same strokes. */
export function slotKey(slot: Slot): string {
  return [...slot]
    .map((s) => `${s.limb}${s.level.charAt(0)}${s.ornament ?? ''}${s.voice ?? ''}`)
    .sort()
    .join('+');
}
