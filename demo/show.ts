import { parseCues } from '@core/show';
import type { Phrase } from '@core/recipe';
import type { Cue, Show, Spot } from '@core/shelf';

/** The night as the drummer wrote it down, one line a cue. */
const CUES = `Fog Horn Waltz, 96, 6/8, 16ths, 48 bars, groove Fog horn, fill 16, fill 48 whole lands crash
Net Menders, 88, 4/4, 16ths, 40 bars, groove Net menders, fill 16:2&, fill 32:3
Harbour Master’s March, 112, 4/4, 16ths, 32 bars, groove Harbour master, fill 16, fill 32:3 lands crash
Eel Market, 126, 4/4, half-time on triplets, 48 bars, groove Eel market, lick 12, fill 23-24
Lamp Room, 72, 4/4, swung 16ths 56%, 24 bars, groove Lamp room, fill 8:3, fill 24 whole, "wait for the singer"
Storm Glass, 104, 7/8, 16ths, 36 bars, groove Storm glass, fill 17-18, fill 36
Net Menders again, 92, 4/4, 16ths, 16 bars, groove Net menders, fill 8:3, fill 16
Slack Water, 96, 3/4, 16ths, 24 bars, lick 15-16
Lantern Up, 116, 4/4, triplets, 16 bars, fill 15-16, "straight into the bows"`;

/** What is settled already: the cue, the spot, the phrase. */
const SETTLED: readonly (readonly [cue: number, spot: number, phrase: string])[] = [
  [1, 0, 'Cold rope'],
  [2, 0, 'Gutting knife'],
  [5, 0, 'Glass over five'],
];

/** The first night of The Salt Lantern. */
export function lanternShow(phrases: readonly Phrase[], day: number, changed: number): Show {
  const idOf = (name: string | null): string | null => phrases.find((p) => p.name === name)?.id ?? null;
  const cues = parseCues(CUES).map((line, c): Cue => {
    if (!line.ok) throw new Error(line.words);
    return {
      ...line.cue,
      id: `lantern-${c + 1}`,
      groove: idOf(line.cue.groove),
      spots: line.cue.spots.map((s, i): Spot => {
        const name = SETTLED.find(([cue, spot]) => cue === c && spot === i)?.[2] ?? null;
        return { ...s, id: `lantern-${c + 1}-${i + 1}`, phrase: idOf(name), pinned: name !== null };
      }),
    };
  });
  return { id: 'lantern', name: 'The Salt Lantern', place: 'Harbour stage, first night', day, most: 2, cues, changed };
}
