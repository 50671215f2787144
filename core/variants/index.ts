export { canonicalForm, exactForm, leastRotation, turnBetween, type Turn } from './canonical';
export { changesOf, combinations, VARIANT_KINDS, type VariantKind, type VariantWish } from './kinds';
export { roundWays, type RoundWay } from './round-ways';
export { allVariants, sheetWords, VARIANT_LIMITS, variantsOf, type Variant, type VariantSheet } from './variants';
