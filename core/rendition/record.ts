import { Type, type Static } from '@sinclair/typebox';
import { KitSchema } from '../kit';
import { build, RecipeSchema } from '../recipe';
import { StageSchema } from '../drill';
import { CLICK_KINDS, DYNAMICS, type ClickKind, type Dynamic } from '../playback';
import { rendition, type Rendition } from './rendition';

const bars = Type.Integer({ minimum: 0, maximum: 64 });

/**
 * What a take keeps of what was meant: all that decides it, as it was that day. Phrases are kept as recipes, and worked
 * out again when the take is looked at.
 */
export const RenditionRecordSchema = Type.Object({
  recipe: RecipeSchema,
  stage: Type.Union([StageSchema, Type.Null()]),
  groove: Type.Union([RecipeSchema, Type.Null()]),
  kit: KitSchema,
  dynamic: Type.Unsafe<Dynamic>({ type: 'string', enum: [...DYNAMICS] }),
  click: Type.Unsafe<ClickKind>({ type: 'string', enum: [...CLICK_KINDS] }),
  gap: Type.Union([Type.Object({ sounding: bars, silent: bars }), Type.Null()]),
});
export type RenditionRecord = Static<typeof RenditionRecordSchema>;

/** What was meant in a take, drawn and heard as it was that day, whatever phrase, kit or groove is current now. */
export function renditionOf({ recipe, groove, ...rest }: RenditionRecord): Rendition {
  return rendition({
    ...rest,
    phrase: build(recipe).pattern,
    groove: groove ? build(groove).pattern : null,
  });
}
