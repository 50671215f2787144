import { LIMB_WORDS, VOICE, type Voice } from '../../stroke';
import { voicedText } from '../../pattern';
import { build } from '../../recipe';
import { gridName } from '../../time';
import { VERB_TABLE } from '../lexicon/verbs';
import { readLine } from './read';
import { GRID_TERMS, LEVEL_TERMS, LIMB_TERMS, ORNAMENT_TERMS, VOICE_TERMS } from '../lexicon/terms';

/** Lines to be said of one phrase, under a heading. */
interface Examples {
  readonly title: string;
  readonly text: string;
  readonly lines: readonly string[];
}

const EXAMPLES: readonly Examples[] = [
  {
    title: 'Which strokes',
    text: 'R! l l R L! r r L',
    lines: [
      'accent the rights',
      'right hand accents to the crash',
      'ghost everything but the accents',
      'the last two on the floor tom',
      'accent the first of each double',
      'accent the & of 1',
      'accent the first and last of each beat',
      'everything from 2 on loud',
      'all ghosts except the first to the hi-hat',
      'accent the last, ghost the rest',
    ],
  },
  {
    title: 'How loud, where, by whom',
    text: 'R l l R L r r L',
    lines: [
      'make 1 and 2 loud',
      'lefts to the high tom and the floor tom in turn',
      'accent 1, then accents to the crash with the kick underneath',
      'give the second of each double to the kick',
      'hi-hat foot on 1 and 2',
      'accent 1 and 2, then kick under every accent',
      'flam 1',
      'leave out the ghosts',
      'the right hand on the ride follows the left',
    ],
  },
  {
    title: 'How long, and when',
    text: 'R l l R K',
    lines: [
      'fill a bar, close with singles',
      'fill 3 beats, rest for whatever is left',
      'play it four times',
      'two kicks at the end',
      'a kick in front',
      'start on the & of 3',
      'end on the & of 4',
      'later by 2',
      'as triplets',
      'first two as 32nds',
      'double time',
      'swap the hands, then add a left at the end',
      'land on 1 with crash and kick',
      'pick-up R L',
    ],
  },
  {
    title: 'In any order',
    text: 'R! l l R L! r r L',
    lines: [
      'floor tom gets the last right',
      'I would like the lefts on the high tom, please',
      'put a little flam on 1',
      'the first note should be a crash with a kick',
      'shift only the accents a sixteenth later',
      'accents in a 3-3-2',
      'stick it RLL RLL RL',
      'alternate the hands, left first',
      'keep nothing but the accents',
      'slip a kick in after each double',
      'flam the note before each accent',
      'lefts: hat. rights: ride',
      'leave 1 alone and accent the rest',
      'beat 1 goes high, mid, low, low',
      'doubles in beat 1',
      'beat 2 same as beat 1',
      'take the ghosts off beat 2',
      'no dynamics',
      'swap the snare and the kick',
      'repeat it until the bar is full',
      'delete the last note',
    ],
  },
  {
    title: 'Carried on from what was said before',
    text: 'R l l R L r r L',
    lines: [
      'accent the first right, then the last left',
      'rights to the ride, the last left as well',
      'the last two to the floor tom, accented',
      'accent the lefts and flam them',
      'first two on the snare, the next two stay, rest on the floor tom',
      'rights to the ride, no, to the bell',
    ],
  },
  {
    title: 'What is asked back',
    text: 'R L R L R L R L',
    lines: [
      'accent everything between 1 and 2',
      'leave out 2',
      'kick on 1',
      'lefts to the low tom',
      'every other right to the ride',
      'K K at the end',
    ],
  },
  {
    title: 'What is refused',
    text: 'R L R L',
    lines: ['accent the purple ones', 'accent 5', 'leave out the kicks', 'accent rights with feeling'],
  },
];

function row(text: string, line: string): string {
  const built = build({ source: { kind: 'typed', text, meter: '4/4', grid: 1260 }, moves: [] });
  const r = readLine(line, built);
  const shown = ((): string => {
    switch (r.kind) {
      case 'meant':
        return r.all
          .map(({ pattern: p }) => {
            const v = voicedText(p);
            const on = v && v.on !== gridName(built.pattern.grid) ? ` on ${v.on}` : '';
            return `\`${v?.text ?? ''}\`${on}${p.start > 0 ? ', later in the bar' : ''}${p.pickup ? ', led in' : ''}`;
          })
          .join(' or ');
      case 'not':
        return r.diagnostics.map((b) => `“${b.words}”: ${b.why}`).join(' ');
      case 'playing':
        return 'the player’s';
    }
  })();
  return `| ${line} | ${shown} |`;
}

const listOf = (words: Iterable<string>): string => [...words].join(', ');

function terms<T>(all: ReadonlyMap<string, T>, name: (value: T) => string): string {
  const groups = new Map<string, string[]>();
  for (const [word, value] of all) groups.set(name(value), [...(groups.get(name(value)) ?? []), word]);
  return [...groups].map(([of, words]) => `| ${of} | ${listOf(words)} |`).join('\n');
}

const voices = (list: readonly Voice[]): string => list.map((v) => VOICE[v].name).join(' or ');

/** docs/guide/what-you-can-say.md: the words that are known, and lines with what they make. */
export function wordsPage(): string {
  const parts = EXAMPLES.map(
    ({ title, text, lines }) =>
      `## ${title}\n\nSaid of \`${text}\` on 16ths in 4/4.\n\n| said | makes |\n|---|---|\n${lines.map((l) => row(text, l)).join('\n')}\n`,
  );
  return `# What you can say

The box under the recipe (\`/\`, from every place), the field that chooses strokes and the box of the shelf take the same words. A line may have several parts, with commas, “and” or “then” between them; it is one step of undo.
Every word counts: a line is taken as a whole or not at all. One meaning is taken by \`Enter\`; of several you choose one with the arrow keys; what is not understood is underlined, and what cannot be met here says why. \`Tab\` writes a word to its end, the arrow up brings earlier lines back, and slips of the finger are read where only one word can be meant. What a card says can be said too. The ribbon shows beforehand what a line would change.

Phrases of the shelf are named behind “then”, “join” and “of” (“…, then Cold rope”, “then bar 2 of Cold rope”), opened (“open Cold rope”) and asked for (“like Cold rope”, “find linear fills”). The player listens as well: “slower by 10”, “half speed”, “loop beat 3 and 4”, “only hands”, “drill the second half at 70”, “keep it as Rope two”.

## Try it

1. **Press \`/\`** in any place: the box on the Bench has the keyboard.
2. **Type a change**, \`accent the rights\`, and look at the ribbon: it shows what would be.
3. **Press \`Enter\`**: it is a card of the recipe.
4. **Type half a word** and press \`Tab\`: it is written to its end.
5. **Press \`Ctrl Z\`** in the empty box: the last change is undone.

## All of it

This page is written by \`npm run gen\` from the words and rules themselves; each line was worked out for it.

${parts.join('\n')}
## The words

| limbs | |
|---|---|
${terms(LIMB_TERMS, (t) => (t.open === 'left foot' ? 'left foot, whatever pedal it plays' : t.open === 'foot' ? 'the foot that plays' : t.limbs.map((l) => LIMB_WORDS[l]).join(' and ')))}

| pieces | |
|---|---|
${terms(VOICE_TERMS, (t) => voices(t.to))}

| heights and ornaments | |
|---|---|
${terms(LEVEL_TERMS, (l) => l)}
${terms(ORNAMENT_TERMS, (o) => o)}

| grids | |
|---|---|
${terms(GRID_TERMS, (g) => gridName(g))}

| what is done | verbs, in all their forms |
|---|---|
${VERB_TABLE.map(([acts, verbs]) => `| ${acts.join(', ')} | ${verbs} |`).join('\n')}

Verbs that leave open what is done, and what colours a line without changing it, can stand before and between: “I would
like”, “can you”, “let”, “make”, “put”, “please”, “really”, “a bit”, “nice and”. What is said apart from its verb and
may stand in any order: which strokes, to what piece, how high, with what ornament, by which limb, on what
subdivision, how long, how far and which way.
`;
}
