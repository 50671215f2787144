/** Keys that changed, as the database tells them: a tree of ranges, also as it comes from another tab. */
export interface KeyRanges {
  readonly d?: number;
  readonly from?: unknown;
  readonly to?: unknown;
  readonly l?: KeyRanges | null;
  readonly r?: KeyRanges | null;
}

/** The ranges of a tree, in order. A single key is a range from itself to itself. */
export function* rangesOf(
  tree: KeyRanges | null | undefined,
): Generator<{ readonly from: unknown; readonly to: unknown }> {
  if (!tree?.d) return;
  yield* rangesOf(tree.l);
  yield { from: tree.from, to: tree.to };
  yield* rangesOf(tree.r);
}
