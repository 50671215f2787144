/**
 * So many of a number of cases are tried in this run: all of them with `SHARE=1`, else the share that properties with
 * more than a hundred cases are cut to (`tools/jest/fixed-seed.cjs`). For tests that count what they met.
 */
export const casesTried = (all: number): number =>
  Math.round(all * ((globalThis as { readonly shareOfCases?: number }).shareOfCases ?? 1));
