import type { Attempt } from '@core/drill';
import type { Phrase, Recipe } from '@core/recipe';
import type { FreeSitting } from '@core/shelf';

/** A recipe of typed strokes without moves. */
export function typed(text: string, meter = '4/4', grid = 1260): Recipe {
  return { source: { kind: 'typed', text, meter, grid }, moves: [] };
}

/** A phrase on a test's shelf. */
export function phraseOf(id: string, part: Partial<Phrase> = {}): Phrase {
  return {
    id,
    name: `Phrase ${id}`,
    family: 'fill',
    recipe: typed('R l l R K'),
    tempo: 90,
    goal: 100,
    note: '',
    created: 1000,
    changed: 1000,
    ...part,
  };
}

export function attemptOf(id: string, phrase: string, part: Partial<Attempt> = {}): Attempt {
  return { id, phrase, at: 1000, bpm: 80, goal: 100, loops: 4, seconds: 12, verdict: 'clean', ...part };
}

/** So often something is looked at, 5 ms apart: slow is not wrong on a machine that does other things beside. */
export const LONGEST = 6000;

/** Waits until something holds, as live queries and writes settle in their own time. */
export async function until(holds: () => boolean): Promise<void> {
  for (let i = 0; i < LONGEST; i++) {
    if (holds()) return;
    await new Promise((r) => setTimeout(r, 5));
  }
  throw new Error('it never came to hold');
}

/** A sitting of free play at a kit, in which some phrases came. */
export function sittingOf(id: string, came: readonly string[], part: Partial<FreeSitting> = {}): FreeSitting {
  return {
    id,
    kind: 'free',
    at: 1000,
    seconds: 60,
    meter: '4/4',
    bpm: 96,
    found: false,
    source: 'midi',
    groove: null,
    against: 2,
    hits: [],
    heard: 0,
    came: came.map((phrase, i) => ({
      phrase,
      or: [],
      at: i * 20_160,
      from: i * 20_160,
      until: (i + 1) * 20_160,
      chance: 0.99,
      struck: 8,
      of: 8,
      swapped: null,
    })),
    figures: [],
    calls: [],
    changed: 1,
    ...part,
  };
}
