import { Type, type Static } from '@sinclair/typebox';
import { KitSchema, type Kit } from './kit';
import { KIT_PRESETS, USUAL_KIT } from './presets';

/** A drummer's kits, and the one that is set up now. */
export const KitsSchema = Type.Object({
  kits: Type.Array(KitSchema, { minItems: 1, maxItems: 50 }),
  current: Type.String({ minLength: 1, maxLength: 64 }),
});
export type Kits = Static<typeof KitsSchema>;

/** What a shelf has before its user makes a kit of their own: a full kit and a pad. */
export const USUAL_KITS: Kits = Object.freeze({
  kits: [USUAL_KIT, ...KIT_PRESETS.filter((k) => k.id === 'pad')],
  current: USUAL_KIT.id,
});

/** The kit that is set up now; the first when the one named is gone. */
export function currentKit(kits: Kits): Kit {
  return kits.kits.find((k) => k.id === kits.current) ?? kits.kits[0] ?? USUAL_KIT;
}
