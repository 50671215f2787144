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

/** Stages in which every stroke of the phrase is played: by itself, out of time, along with its record, over a foot. */
const ALL_OF_IT: ReadonlySet<string> = new Set(['whole', 'context', 'record', 'steady-foot']);

/**
 * Whether a try was of all of the phrase, also out of time or over a steady foot: what a best tempo is of, and what is
 * ready.
 * @example
 * ofPhrase({ drilled: { id: 's1', kind: 'context' } }) // => true
 * ofPhrase({ drilled: { id: 's1', kind: 'bare' } }) // => false
 */
export function ofPhrase({ drilled }: { readonly drilled?: StageMark | undefined }): boolean {
  return drilled === undefined || ALL_OF_IT.has(drilled.kind);
}
