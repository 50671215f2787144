import { asTyped, TEXT_LIMITS, printStroke, printTyped } from '../stroke';
import { gridName } from '../time';
import type { Pattern } from './pattern';
import { finestSlot } from './relations';

/**
 * A pattern as stroke text on the slot that all its strokes share, with that slot's grid in words; rests are `-`.
 * Voices are left out: see `voicedText`. Null when the line would be longer than stroke text may be.
 */
export function textOf(pattern: Pattern): { readonly text: string; readonly on: string } | null {
  return written(pattern, false);
}

/**
 * The same with the voice in brackets behind every stroke that is not on its limb's usual one. Read again it is the
 * same strokes on the same voices.
 */
export function voicedText(pattern: Pattern): { readonly text: string; readonly on: string } | null {
  return written(pattern, true);
}

function written(pattern: Pattern, voiced: boolean): { readonly text: string; readonly on: string } | null {
  const slot = finestSlot(pattern);
  const count = pattern.length / slot;
  if (count > TEXT_LIMITS.slots) return null;
  const slots: string[][] = Array.from({ length: count }, () => []);
  for (const s of pattern.strokes) slots[s.at / slot]?.push(voiced ? printTyped(asTyped(s)) : printStroke(s));
  return { text: slots.map((s) => s.join('+') || '-').join(' '), on: gridName(slot) };
}
