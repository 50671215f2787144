import type { Attempt } from '../drill';
import { fixKind } from '../take';
import type { NamedFix } from './block';

/** So many of the newest tries are looked at. */
const LATEST = 8;

/**
 * The fix that was named most often in the last measured tries, in the words in which it was said last. Null where none
 * was named, or where the last of the tries was clean at the tempo at which it was named.
 */
export function namedFix(tries: readonly Attempt[]): NamedFix | null {
  const latest = tries.filter((t) => t.measured !== undefined).slice(-LATEST);
  const by = new Map<string, { words: string; times: number; bpm: number; readonly stage: NamedFix['stage'] }>();
  for (const t of latest) {
    const words = t.measured?.fix ?? '';
    const found = t.verdict === 'messy' ? fixKind(words) : null;
    if (!found || found.kind === 'silence') continue;
    const before = by.get(found.kind);
    by.set(found.kind, { words, times: (before?.times ?? 0) + 1, bpm: t.bpm, stage: found.stage });
  }
  const [most] = [...by.values()].sort((a, b) => b.times - a.times);
  const last = latest.at(-1);
  if (!most || (last?.verdict === 'clean' && last.bpm >= most.bpm)) return null;
  return { words: most.words, stage: most.stage, times: most.times };
}
