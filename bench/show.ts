import { meter, GRID } from '@core/time';
import { patternOfText } from '@core/pattern';
import { learnt, unknownYet } from '@core/player';
import { factsOf, type Cue, type Show, type Spot } from '@core/shelf';
import { parseStrokeText } from '@core/stroke';
import { choicesOf, filledShow, fillShow, parseCues, type FillAsked, type ShowPhrase } from '@core/show';
import { line, median } from './measure';

/** Numbers from 0 to 1 in an order of their own. */
function numbers(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 16_807) % 2_147_483_647) / 2_147_483_647;
}
const roll = numbers(42);
const kinds = Array.from({ length: 200 }, () => Math.floor(roll() * 40));
const asked: FillAsked = {
  spots: Array.from({ length: 40 }, () => ({
    options: Array.from({ length: 200 }, (_, phrase) => ({ phrase, chance: roll() })),
    pinned: null,
  })),
  phrases: 200,
  most: () => 2,
  alike: (a, b) => a === b || kinds[a] === kinds[b],
};
const small: FillAsked = {
  ...asked,
  spots: asked.spots.slice(0, 5).map((s) => ({ ...s, options: s.options.slice(0, 7) })),
};

/** The plain way: every filling is tried. */
function plain(): number {
  let best = -Infinity;
  const chosen: number[] = [];
  const go = (sum: number): void => {
    if (chosen.length === small.spots.length) best = Math.max(best, sum);
    else
      for (const { phrase, chance } of small.spots[chosen.length]?.options ?? []) {
        const last = chosen.at(-1);
        if (last !== undefined && small.alike(last, phrase)) continue;
        if (chosen.filter((c) => c === phrase).length >= 2) continue;
        chosen.push(phrase);
        go(sum + Math.log(chance));
        chosen.pop();
      }
  };
  go(0);
  return best;
}

const sticking = (n: number): string => Array.from({ length: 8 }, (_, i) => ((n >> i) & 1 ? 'R' : 'L')).join(' ');
const phrases = Array.from({ length: 1000 }, (_, i): ShowPhrase => {
  const read = parseStrokeText(sticking(i % 256));
  const known = learnt(unknownYet(160, 20_000), [{ day: 20_000, bpm: 70 + (i % 60), clean: true, weight: 1 }]);
  return {
    id: String(i),
    name: `Phrase ${i}`,
    family: 'fill',
    tags: [],
    parent: null,
    facts: factsOf(patternOfText(read.ok ? read.value : [], meter(4, 4), GRID.sixteenths)),
    known,
    days: [],
    ceiling: 160,
  };
});
const cues = parseCues(Array.from({ length: 20 }, (_, i) => `Cue ${i}, ${80 + 3 * i}, fill 8:3, fill 16:3`).join('\n'));
const show: Show = {
  id: 's',
  name: 'Show',
  place: '',
  day: 20_030,
  most: 2,
  changed: 1,
  cues: cues.flatMap((l, c): Cue[] =>
    l.ok
      ? [
          {
            ...l.cue,
            id: `c${c}`,
            groove: null,
            spots: l.cue.spots.map((s, i): Spot => ({ ...s, id: `c${c}-${i}`, phrase: null, pinned: false })),
          },
        ]
      : [],
  ),
};
const scene = { kit: null, today: 20_001, patternOf: () => null };
const choices = choicesOf(show, phrases, scene);

const ms = (run: () => unknown): string => (median(run) / 1000).toFixed(0);

console.log(
  `\nshow: 40 spots and 200 phrases filled in ${ms(() => fillShow(asked))} ms, exact: ${String(fillShow(asked).exact)}`,
);
console.log(line('show: 5 spots and 7 phrases', () => fillShow(small), 'every filling', plain));
console.log(
  `show: what fits in 40 spots of 1,000 phrases ${ms(() => choicesOf(show, phrases, scene))} ms, filled ${ms(() => filledShow(show, choices, phrases))} ms`,
);
