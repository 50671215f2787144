import { useWords, type PhraseUse } from '@core/usage';
import { namedBars } from './bars';
import type { ChartModel } from './model';

/** Phrases by how often they came in free play. */
export function usesChart(uses: readonly (PhraseUse & { readonly name: string })[], width: number): ChartModel {
  const rows = uses.map((u) => ({
    name: u.name,
    value: u.times,
    words: `${u.name}: ${useWords(u)}`,
    tone: u.unsure > 0.5 ? ('quiet' as const) : ('accent' as const),
  }));
  return namedBars(rows, { value: 'times it came', least: 4, width }, [
    { tone: 'accent', as: 'bar', text: 'this phrase' },
    { tone: 'quiet', as: 'bar', text: 'this one, or one that sounds alike' },
  ]);
}

/** Phrases that were clean and never came, by how fast they were clean. */
export function neverChart(
  never: readonly { readonly name: string; readonly clean: number }[],
  width: number,
): ChartModel {
  const rows = never.map(({ name, clean }) => ({
    name,
    value: clean,
    words: `${name}: clean at ${clean}, never used`,
    tone: 'mark' as const,
  }));
  return namedBars(rows, { value: 'clean at, bpm', least: 60, width }, [
    { tone: 'mark', as: 'bar', text: 'clean, never used' },
  ]);
}
