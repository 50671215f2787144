import { fixKindOf, FIX_KINDS, isEvidence, type Attempt, type FixKind } from '../drill';

/** Why tries in a stretch of tempos were messy: how often each kind of fix was named. */
export interface Fails {
  /** Tempos from here on, up to the next, in counted beats a minute. */
  readonly from: number;
  readonly until: number;
  readonly by: Readonly<Partial<Record<FixKind, number>>>;
  /** Messy tries that nothing measured, or that had no fix. */
  readonly untold: number;
  readonly clean: number;
}

/** Tempos are taken together in stretches of so many beats a minute. */
export const TEMPO_STRETCH = 10;

/** Why rungs failed, by tempo: stretches without a try are left out. */
export function failsByTempo(tries: readonly Attempt[]): readonly Fails[] {
  const stretches = new Map<number, { by: Partial<Record<FixKind, number>>; untold: number; clean: number }>();
  for (const { bpm, verdict, measured } of tries.filter((t) => isEvidence(t))) {
    const from = Math.floor(bpm / TEMPO_STRETCH) * TEMPO_STRETCH;
    const own = stretches.get(from) ?? { by: {}, untold: 0, clean: 0 };
    stretches.set(from, own);
    if (verdict === 'clean') own.clean++;
    else {
      const kind = measured?.finding ? fixKindOf(measured.finding) : null;
      if (kind) own.by[kind] = (own.by[kind] ?? 0) + 1;
      else own.untold++;
    }
  }
  return [...stretches]
    .sort(([a], [b]) => a - b)
    .map(([from, own]): Fails => ({ from, until: from + TEMPO_STRETCH, ...own }));
}

/** Which kinds were named, the most often named first, with how often. */
export function failKinds(fails: readonly Fails[]): readonly { readonly kind: FixKind; readonly times: number }[] {
  return FIX_KINDS.map((kind) => ({ kind, times: fails.reduce((s, f) => s + (f.by[kind] ?? 0), 0) }))
    .filter((k) => k.times > 0)
    .sort((a, b) => b.times - a.times || FIX_KINDS.indexOf(a.kind) - FIX_KINDS.indexOf(b.kind));
}
