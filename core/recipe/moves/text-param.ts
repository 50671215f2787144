import { Type } from '@sinclair/typebox';
import { parseStrokeText, slotsOf, TEXT_LIMITS, type TypedStroke } from '../../stroke';

/** A stroke text as a parameter. Its letters are read when the move is applied, so that a bad one is a finding. */
export const TextSchema = Type.String({ maxLength: TEXT_LIMITS.letters });

/** The slots of a stroke-text parameter, or the sentence that says what is wrong with it. */
export function readSlots(
  text: string,
): { readonly slots: readonly (readonly TypedStroke[])[] } | { readonly wrong: string } {
  const read = parseStrokeText(text);
  return read.ok ? { slots: slotsOf(read.value) } : { wrong: read.problems[0].message };
}
