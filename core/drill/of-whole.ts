import type { StageMark } from './stage';

/**
 * Whether a try was of the whole phrase alone: of a drill without stages, or of the stage that is the whole.
 * @example
 * ofWhole({}) // => true
 * ofWhole({ drilled: { id: 's1', kind: 'whole' } }) // => true
 * ofWhole({ drilled: { id: 's1', kind: 'bare' } }) // => false
 */
export function ofWhole({ drilled }: { readonly drilled?: StageMark | undefined }): boolean {
  return drilled === undefined || drilled.kind === 'whole';
}
