import type { StageKind } from '../drill';

/** What kind of thing was to be fixed: what the log counts. */
export const FIX_KINDS = [
  'late',
  'uneven',
  'left-out',
  'extra',
  'heights',
  'ornament',
  'swing',
  'tempo',
  'part',
  'silence',
] as const;
export type FixKind = (typeof FIX_KINDS)[number];

/** What each is called, as the answer to "why?". */
export const FIX_NAMES: Readonly<Record<FixKind, string>> = Object.freeze({
  late: 'early or late',
  uneven: 'uneven',
  'left-out': 'left out',
  extra: 'strokes too many',
  heights: 'hands and heights',
  ornament: 'without its grace',
  swing: 'swung otherwise',
  tempo: 'off the tempo',
  part: 'only a part',
  silence: 'nothing heard',
});

/**
 * How the sentences of fixes are told apart, in the order in which they are tried. A log keeps the sentence that was
 * said, so that it reads years later as it did on the day; of what kind it is follows from its words.
 */
const BY_WORDS: readonly (readonly [words: RegExp, kind: FixKind, stage: StageKind | null])[] = [
  [/^Nothing was heard/, 'silence', null],
  [/^Only (part|the (first|second) half)/, 'part', 'part'],
  [/^It stops /, 'part', 'part'],
  [/^It begins /, 'late', 'bare'],
  [/^The tempo is steady, but/, 'tempo', 'steady-foot'],
  [/^It (falls back|runs away)/, 'tempo', 'steady-foot'],
  [/^It is played as|, as in .+ swung \d/, 'swing', 'bare'],
  [/ is left out \d/, 'left-out', 'part'],
  [/ is played without its grace/, 'ornament', 'part'],
  [/ too many\.$/, 'extra', 'bare'],
  [/^Uneven:/, 'uneven', 'bare'],
  [/hand is softer|^Heights too alike/, 'heights', 'dynamics'],
  [/^All of it lies|^The strokes off the beat/, 'late', 'bare'],
  [/^The (right|left) hand.* (drags|hurries)/, 'late', 'bare'],
  [/ (drags|hurries) \d/, 'late', 'skeleton'],
];

/**
 * Of what kind a fix is, from its sentence, and the kind of stage that mends it. Null for words of no kind.
 * @example
 * fixKind('The left hand drags 18 ms.') // => { kind: 'late', stage: 'bare' }
 * fixKind('The kick on 3 is left out 2 times.') // => { kind: 'left-out', stage: 'part' }
 * fixKind('') // => null
 */
export function fixKind(words: string): { readonly kind: FixKind; readonly stage: StageKind | null } | null {
  for (const [said, kind, stage] of BY_WORDS) if (said.test(words)) return { kind, stage };
  return null;
}
