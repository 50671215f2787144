import { fixKindOf, isEvidence, type Attempt, type FixKind } from '../drill';
import type { NamedFix } from './block';

/** So many of the newest tries are looked at. */
const LATEST = 8;

/**
 * The fix that was named most often in the last measured tries, as it was named last. Null where none
 * was named, or where the last of the tries was clean at the tempo at which it was named.
 */
export function namedFix(tries: readonly Attempt[]): NamedFix | null {
  const latest = tries.filter((t) => t.measured !== undefined && isEvidence(t)).slice(-LATEST);
  const by = new Map<FixKind, NamedFix & { readonly bpm: number }>();
  for (const t of latest) {
    const finding = t.verdict === 'messy' ? t.measured?.finding : undefined;
    const kind = finding ? fixKindOf(finding) : null;
    if (!finding || kind === null || kind === 'silence') continue;
    by.set(kind, { finding, times: (by.get(kind)?.times ?? 0) + 1, bpm: t.bpm });
  }
  const [most] = [...by.values()].sort((a, b) => b.times - a.times);
  const last = latest.at(-1);
  if (!most || (last?.verdict === 'clean' && last.bpm >= most.bpm)) return null;
  return { finding: most.finding, times: most.times };
}
