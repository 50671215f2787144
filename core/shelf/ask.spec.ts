import fc from 'fast-check';
import { withGraces } from '../pattern';
import { anyRecipe } from '../testing/arbitraries';
import { build } from '../recipe';
import { barTicks } from '../time';
import { NO_BEST } from '../drill';
import { canonicalForm, turnBetween } from '../variants';
import { answer, factsOf, kinOf, nextName, readQuestion, type Asked, type AskContext } from '.';

const NOW = Date.UTC(2026, 10, 26);
const DAY = 864e5;

const phrase = (id: string, text: string, part: Partial<Asked> & { meter?: string; grid?: number } = {}): Asked => {
  const { meter = '4/4', grid = 1260, ...rest } = part;
  const { pattern } = build({ source: { kind: 'typed', text, meter, grid }, moves: [] });
  const name = part.name ?? id;
  return {
    id,
    name,
    family: 'fill',
    tags: [],
    goal: 100,
    text: `${name}\n${(part.tags ?? []).join(' ')}`.toLowerCase(),
    parent: null,
    facts: factsOf(pattern),
    top: { bpm: 120 },
    best: NO_BEST,
    believed: null,
    by: null,
    ...rest,
  };
};

const SHELF: readonly Asked[] = [
  phrase('rope', 'R l l R K R l l', { name: 'Cold rope', tags: ['brushes'] }),
  phrase('oar', '(R l)x7', { name: 'Broken oar', meter: '7/8', goal: 120 }),
  phrase('net', '(L R)x8', {
    name: 'Net',
    family: 'groove',
    best: { ...NO_BEST, clean: 104, attempts: 3, lastAt: NOW - 2 * DAY },
  }),
  phrase('both', '(R+L K)x8', {
    name: 'Both anchors',
    goal: 90,
    best: { ...NO_BEST, clean: 80, attempts: 9, lastAt: NOW - 20 * DAY },
  }),
  phrase('six', '(R l l)x8', { name: 'Six gulls', grid: 840, parent: { id: 'rope' } }),
  phrase('new', 'R', { name: 'Unread', facts: null, top: null }),
];
const context: AskContext = {
  now: NOW,
  today: Math.floor(NOW / DAY),
  named: (name) => SHELF.find((p) => p.name.toLowerCase() === name.toLowerCase()) ?? null,
};
const ask = (words: string): string =>
  answer(SHELF, readQuestion(words, context))
    .found.map((i) => SHELF[i]!.id)
    .join(' ');

describe('asking the shelf', () => {
  it.each([
    ['', 'rope oar net both six new'],
    ['half bar', 'rope'],
    ['half a bar of 16ths', 'rope'],
    ['1 bar', 'oar net both six'],
    ['one bar sixteenths', 'oar net both'],
    ['under 1 bar', 'rope'],
    ['7/8', 'oar'],
    ['grooves', 'net'],
    ['no grooves fills', 'rope oar both six new'],
    ['sextuplets', 'six'],
    ['linear', 'rope oar net six'],
    ['not linear', 'both'],
    ['leads left', 'net'],
    ['left lead', 'net'],
    ['starts with the right hand 1 bar', 'oar both six'],
    ['kick', 'rope both'],
    ['no kick', 'oar net six'],
    ['without bass drum', 'oar net six'],
    ['no toms', 'rope oar net both six'],
    ['lands on 3', 'rope'],
    ['clean 100', 'net'],
    ['clean under 90', 'both'],
    ['goal 120', 'oar'],
    ['between 90 and 100', 'rope net both six new'],
    ['ceiling over 110', 'rope oar net both six'],
    ['never played', 'rope oar six new'],
    ['not played for 10 days', 'rope oar both six new'],
    ['not played for two weeks kick', 'rope both'],
    ['played this week', 'net'],
    ['at its goal', 'net'],
    ['#brush', 'rope'],
    ['kick-off', ''],
    ['1½ bars', ''],
    ['a bar and a half', ''],
    ['ends on the 3', 'rope'],
    ['right hand lead', 'rope oar both six'],
    ['without the left', ''],
    ['feet', 'rope both'],
    ['goal from 90 to 100', 'rope net both six new'],
    ['clean at 80 or more', 'net both'],
    ['ride the wave', ''],
    ['grown from Cold rope, sextuplets', 'six'],
    ['like cold rope', ''],
    ['from Cold rope', 'six'],
    ['rope', 'rope'],
    ['ROPE brushes', 'rope'],
    ['zebra', ''],
    ['half bar no kick', ''],
  ])('“%s” finds %s', (words, ids) => expect(ask(words)).toBe(ids));

  it('each condition says how many it leaves, and what was typed for it', () => {
    const read = readQuestion('1 bar linear leads left zebra', context);
    expect(read.conditions.map((c) => [c.typed, c.words])).toEqual([
      ['1 bar', '1 bar'],
      ['linear', 'linear'],
      ['leads left', 'leads left'],
    ]);
    expect(read.rest).toEqual(['zebra']);
    expect(answer(SHELF, read)).toEqual({ found: [], leaves: [4, 3, 1] });
  });

  it('a word in the name comes before the same word elsewhere', () => {
    const shelf = [phrase('a', 'R', { name: 'A', text: 'a\nrope' }), phrase('b', 'R', { name: 'Rope', text: 'rope' })];
    expect(answer(shelf, readQuestion('rope', context)).found).toEqual([1, 0]);
  });

  it('whatever is typed, it answers, and takes each word once', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.oneof(
            fc.constantFrom(
              'half',
              'bar',
              'no',
              'toms',
              'lands',
              'on',
              '1',
              'between',
              '90',
              'and',
              'like',
              'goal',
              'not',
              '#',
              'played',
            ),
            fc.string(),
          ),
          { maxLength: 8 },
        ),
        (words) => {
          const text = words.join(' ');
          const read = readQuestion(text, context);
          const typed = text
            .trim()
            .split(/[\s,]+/)
            .filter(Boolean).length;
          const taken = read.conditions.reduce((n, c) => n + c.typed.split(/[\s,]+/).length, 0);
          expect(taken + read.rest.length).toBeLessThanOrEqual(typed);
          const { found, leaves } = answer(SHELF, read);
          expect(found.length).toBeLessThanOrEqual(leaves.at(-1) ?? SHELF.length);
        },
      ),
    );
  });
});

describe('facts', () => {
  it('are what plain loops over the pattern give', () => {
    fc.assert(
      fc.property(anyRecipe, (recipe) => {
        const { pattern } = build(recipe);
        const facts = factsOf(pattern);
        expect(facts.bars * barTicks(pattern.meter)).toBeCloseTo(pattern.length);
        const ticks: number[] = [];
        let together = false;
        const [limbs, voices] = [new Set<string>(), new Set<string>()];
        let first: string | null = null;
        for (const s of pattern.strokes) {
          if (ticks.includes(s.at)) together = true;
          ticks.push(s.at);
          limbs.add(s.limb);
          voices.add(s.voice);
        }
        const hands = pattern.strokes.filter((s) => s.limb === 'R' || s.limb === 'L');
        const begins = hands.filter((s) => s.at === hands[0]?.at);
        if (begins.length === 1) first = begins[0]!.limb;
        // Grace strokes of the other hand fall with the stroke, all but.
        const split = withGraces(pattern).strokes.some(
          (s) => ['flam', 'drag', 'ruff'].includes(s.ornament ?? '') && s.grace !== 'same-hand',
        );
        expect([facts.linear, new Set(facts.limbs), new Set(facts.voices)]).toEqual([
          !together && !split,
          limbs,
          voices,
        ]);
        if (first !== null) expect(facts.leads).toBe(first);
        expect(facts.lands === null).toBe(pattern.strokes.length === 0);
      }),
      { numRuns: 200 },
    );
  });

  it('one that is another turned is found by trying every turn', () => {
    const of = (text: string) =>
      build({ source: { kind: 'typed', text, meter: '4/4', grid: 1260 }, moves: [] }).pattern;
    const slots = fc.array(fc.constantFrom('R', 'L', 'K', '-', 'R!', 'l'), { minLength: 2, maxLength: 8 });
    fc.assert(
      fc.property(slots, fc.nat(7), fc.boolean(), (list, by, mirrored) => {
        const n = list.length;
        const swapped = list.map((s) =>
          mirrored ? s.replace(/[RL]/i, (h) => ({ R: 'L', L: 'R', r: 'l', l: 'r' })[h] ?? h) : s,
        );
        const later = list.map((_, i) => swapped[(((i - by) % n) + n) % n]!);
        const turn = turnBetween(of(list.join(' ')), of(later.join(' ')));
        expect(turn).not.toBeNull();
        expect(canonicalForm(of(list.join(' ')))).toBe(canonicalForm(of(later.join(' '))));
        // The turn that is told makes the one of the other, slot by slot.
        const base = turn!.mirrored
          ? list.map((s) => s.replace(/[RL]/i, (h) => ({ R: 'L', L: 'R', r: 'l', l: 'r' })[h] ?? h))
          : list;
        const made = base.map((_, i) => base[(((i - turn!.by / 1260) % n) + n) % n]!);
        expect(of(made.join(' ')).strokes.map((s) => `${s.at}${s.limb}${s.level}`)).toEqual(
          of(later.join(' ')).strokes.map((s) => `${s.at}${s.limb}${s.level}`),
        );
      }),
      { numRuns: 200 },
    );
  });
});

describe('kin and series', () => {
  const kin = (id: string, parent: string | null) => ({
    id,
    name: id,
    parent: parent === null ? null : { id: parent, change: `from ${parent}` },
  });
  it('stand as a tree from the eldest; a ring is cut; strangers are no kin', () => {
    const all = [
      kin('a', null),
      kin('b', 'a'),
      kin('c', 'b'),
      kin('d', 'a'),
      kin('x', null),
      kin('gone', 'nobody'),
      kin('r1', 'r2'),
      kin('r2', 'r1'),
    ];
    expect(kinOf(all, 'c')).toEqual({
      id: 'a',
      name: 'a',
      change: '',
      children: [
        { id: 'b', name: 'b', change: 'from a', children: [{ id: 'c', name: 'c', change: 'from b', children: [] }] },
        { id: 'd', name: 'd', change: 'from a', children: [] },
      ],
    });
    expect(kinOf(all, 'x')?.children).toEqual([]);
    expect(kinOf(all, 'gone')?.id).toBe('gone');
    expect(kinOf(all, 'r1')?.children.map((c) => c.id)).toHaveLength(1);
    expect(kinOf(all, 'nobody')).toBeNull();
  });
  it('the next of a series is the first number that is free', () => {
    const taken = new Set(['Rope', 'Rope 2', 'Rope 3', 'Rope 10']);
    expect([
      nextName('Rope', (n) => taken.has(n)),
      nextName('Rope 9', (n) => taken.has(n)),
      nextName('7', () => false),
    ]).toEqual(['Rope 4', 'Rope 11', '7 2']);
  });
});
