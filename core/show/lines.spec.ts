import fc from 'fast-check';
import { barTicks, beatTicks, meterText, parseMeter, type Feel } from '../time';
import { SHOW_LIMITS, type Cue, type Spot } from '../shelf';
import {
  cueProblems,
  cueText,
  keptSpots,
  parseCues,
  parseFeel,
  feelText,
  parseSpots,
  spotText,
  type TypedSpot,
} from '.';
import { SHOW_LINES } from '../testing/show-lines';
import { newShow } from './lines';

/** Lines as people write them who were not told how: each with what has to come out, worked out by hand. */
const WRITTEN: readonly (readonly [string, Partial<Cue>, readonly (readonly [number, number, number])[]])[] = [
  [
    'Net song, 96, 4/4, 32 bars, fill 8:3, fill 16 whole',
    { tempo: 96, bars: 32 },
    [
      [8, 10_080, 10_080],
      [16, 0, 20_160],
    ],
  ],
  ['Fog Horn Waltz; 96; 6/8; 48 bars; fill 8:2', { meter: '6/8', bars: 48 }, [[8, 7560, 7560]]],
  ['Storm Glass\t104\t7/8\t24 bars\tfill 7:4-8:2', { meter: '7/8' }, [[7, 7560, 15_120]]],
  ['3. Eel Market, 126 bpm, shuffle on triplets', { grid: 1680, bars: 32 }, []],
  ['- Lamp Room, ♩ = 72, swung 16ths 58%, 12½ bars', { bars: 12.5, tempo: 72 }, []],
  [
    'March, 112, 2/4, 16 bars, fill 8, lick 15-16',
    { meter: '2/4' },
    [
      [8, 0, 10_080],
      [15, 0, 20_160],
    ],
  ],
  ['Bridge, 100, 16 bars, fill in bar 4:4&', {}, [[4, 17_640, 2520]]],
  ['Bridge, 100, 16 bars, fill 4:2 until 4', {}, [[4, 5040, 10_080]]],
  ['Bridge, 100, 16 bars, fill 4:2e-3&', {}, [[4, 6300, 8820]]],
  ['Odd, 90, 7/8 3+2+2, straight 16ths, fill 2:1-3', { meter: '7/8 3+2+2', grid: 1260 }, [[2, 0, 7560]]],
  ['Eleven, 90, 11/16, 8 bars, fill 8:9', { meter: '11/16' }, [[8, 10_080, 3780]]],
];

const spotsOf = (spots: readonly TypedSpot[]): readonly (readonly [number, number, number])[] =>
  spots.map((s) => [s.bar, s.from, s.length]);

describe('lines as people write them', () => {
  it.each(SHOW_LINES)('%s', (line, read) => {
    const [found] = parseCues(line);
    expect(found?.ok ? cueText(found.cue, found.cue.groove) : null).toBe(read);
  });
});

describe('pasted lines', () => {
  it.each(WRITTEN)('%s', (line, cue, spots) => {
    const [read] = parseCues(line);
    expect(read).toMatchObject({ ok: true, cue });
    expect(read?.ok && spotsOf(read.cue.spots)).toEqual(spots);
  });

  it.each([
    ['Net song', /no tempo/],
    ['Net song, 500', /20 to 400/],
    ['Net song, 96, 5/3', /not a meter/],
    ['Net song, 96, 0 bars', /half a bar to 400/],
    ['Net song, 96, 8 bars, fill 9', /ends after the last bar: Net song has 8 bars/],
    ['Net song, 96, 8 bars, fill 8:3-9:1', /ends after/],
    ['Net song, 96, 8 bars, fill 4:1-3, lick 4:3', /overlap/],
    ['Net song, 96, 8 bars, fill 4:9', /not a count of 4\/4/],
    ['Net song, 96, 8 bars, fill 4:3 until 2', /ends before it begins/],
    ['Net song, 96, 8 bars, fill 4:3 hits 2', /is not in/],
    ['Net song, 96, 8 bars, fill 4:3 hits', /counts missing/],
    ['Net song, 96, 8 bars, fill 4:3 lands tom', /crash or on kick/],
    ['Net song, 96, 8 bars, fill 4:3 loudly', /not a spot/],
    ['Net song, 96, 8 bars, take 2', /not a tempo/],
    [', 96', /no tempo|name missing/],
    ['Net song, 96, fill 999', /no bar 999/],
  ])('%s is refused with its reason, and the next line is read all the same', (line, words) => {
    const [first, second] = parseCues(`${line}\nLamp Room, 72`);
    expect(first?.ok).toBe(false);
    expect(!first?.ok && first?.words).toMatch(words);
    expect(second).toMatchObject({ ok: true, line: 2, cue: { name: 'Lamp Room' } });
  });

  it('passes over what is no line, and reads any number of them', () => {
    expect(parseCues('\n# The Salt Lantern\n  \n')).toEqual([]);
    const many = parseCues(Array.from({ length: 200 }, (_, i) => `Cue ${i}, ${60 + i}, fill 8:3`).join('\r\n'));
    expect(many.filter((l) => l.ok)).toHaveLength(200);
  });

  it('never throws, whatever is pasted', () => {
    fc.assert(
      fc.property(
        fc.string({ maxLength: 80 }),
        fc.constantFrom('', 'A, 96, 4/4, fill 8:', 'B, 96, 7/8, lick ', 'C, 100, '),
        (noise, front) => {
          for (const line of parseCues(front + noise)) if (!line.ok) expect(line.words).not.toBe('');
        },
      ),
      { numRuns: 500 },
    );
  });
});

const anyFeel: fc.Arbitrary<Feel> = fc.oneof(
  fc.constant({ kind: 'straight' as const }),
  fc.record({
    kind: fc.constant('swung' as const),
    on: fc.constantFrom('eighths' as const, '16ths' as const),
    ratio: fc.integer({ min: 50, max: 75 }).map((n) => n / 100),
  }),
);
const anyCue = fc
  .record({
    meter: fc.constantFrom('4/4', '3/4', '2/4', '5/4', '6/8', '12/8', '7/8', '7/8 3+2+2', '11/16', '5/8'),
    grid: fc.constantFrom(null, 1260, 1680, 2520, 840),
    feel: anyFeel,
    bars: fc.integer({ min: 8, max: 60 }).map((n) => n / 2),
    spots: fc.array(
      fc.record({
        what: fc.constantFrom('fill' as const, 'lick' as const, 'groove' as const),
        bar: fc.integer({ min: 1, max: 20 }),
        from: fc.nat(30),
        slots: fc.integer({ min: 1, max: 40 }),
        hits: fc.array(fc.nat(40), { maxLength: 3 }),
        free: fc.array(fc.nat(40), { maxLength: 2 }),
        lands: fc.constantFrom('any' as const, 'crash' as const, 'kick' as const),
      }),
      { maxLength: 4 },
    ),
  })
  .map(({ spots, meter: text, ...rest }) => {
    const m = parseMeter(text)!;
    const grid = rest.grid !== null && beatTicks(m) % rest.grid === 0 ? rest.grid : null;
    const feel =
      rest.feel.kind === 'swung' && (grid === 1680 || grid === 840) ? { kind: 'straight' as const } : rest.feel;
    const slot = grid ?? 1260;
    const cue = { name: 'Net song', tempo: 96, meter: meterText(m), feel, grid, bars: rest.bars, note: '' };
    const long = Math.floor(barTicks(m) / slot);
    const own = spots.map((s): TypedSpot => {
      const length = s.slots * slot;
      const within = (list: readonly number[]): number[] =>
        [...new Set(list.filter((t) => t < s.slots).map((t) => t * slot))].sort((a, b) => a - b);
      return {
        what: s.what,
        bar: s.bar,
        from: (s.from % long) * slot,
        length,
        hits: within(s.hits),
        free: within(s.free),
        lands: s.lands,
      };
    });
    // Only those that are in the cue and beside each other.
    const good = own.reduce<TypedSpot[]>((list, s) => {
      const next = [...list, s];
      const asCue: Cue = {
        ...cue,
        id: 'c',
        groove: null,
        spots: next.map((t, i): Spot => ({ ...t, id: String(i), phrase: null, pinned: false })),
      };
      return cueProblems(asCue).length === 0 ? next : list;
    }, []);
    return { ...cue, spots: good };
  });

describe('a cue as a line', () => {
  it('is read back as the same cue, in any meter', () => {
    fc.assert(
      fc.property(anyCue, (cue) => {
        const text = cueText(cue, null);
        const [read] = parseCues(text);
        expect([text, read]).toEqual([text, { ok: true, line: 1, cue: { ...cue, groove: null } }]);
      }),
      { numRuns: 400 },
    );
  });

  it('so are its spots alone, and its feel', () => {
    fc.assert(
      fc.property(anyCue, (cue) => {
        const text = cue.spots.map((s) => spotText(s, cue)).join(', ');
        expect(parseSpots(text, cue)).toEqual({ ok: true, value: cue.spots });
        expect(parseFeel(feelText(cue))).toEqual({ feel: cue.feel, grid: cue.grid });
      }),
      { numRuns: 200 },
    );
  });

  it('keeps a groove, a note and an odd name', () => {
    const base = { tempo: 96, meter: '4/4', feel: { kind: 'straight' } as const, grid: null, bars: 8, spots: [] };
    const text = cueText({ ...base, name: '1. Nets, and ropes', note: 'brushes, softly' }, 'Net menders');
    expect(parseCues(text)).toMatchObject([
      { ok: true, cue: { name: '1. Nets, and ropes', note: 'brushes, softly', groove: 'Net menders' } },
    ]);
  });
});

describe('spots that were typed anew', () => {
  const typed = (text: string): readonly TypedSpot[] => {
    const read = parseSpots(text, { meter: '4/4', grid: null });
    return read.ok ? read.value : [];
  };
  it('keep their phrases where they stand, also behind a new one', () => {
    let n = 0;
    const before = typed('fill 8:3, fill 16').map((s, i): Spot => ({
      ...s,
      id: `s${i}`,
      phrase: `p${i}`,
      pinned: i === 0,
    }));
    const after = keptSpots(before, typed('fill 4, fill 8:3, fill 16 hits 1'), () => `new${n++}`);
    expect(after.map((s) => [s.id, s.phrase, s.pinned])).toEqual([
      ['new0', null, false],
      ['s0', 'p0', true],
      ['s1', 'p1', false],
    ]);
    expect(after[2]?.hits).toEqual([0]);
  });

  it('a moved one keeps its phrase where only its count changed', () => {
    const before = typed('fill 8:1-2').map((s): Spot => ({ ...s, id: 'a', phrase: 'p', pinned: true }));
    expect(keptSpots(before, typed('fill 8:3'), () => 'new')[0]).toMatchObject({ id: 'a', phrase: 'p', from: 10_080 });
  });
});

describe('a new show', () => {
  it('has a name, whatever was typed', () => {
    expect(newShow('a', '  ', 5).name).toBe('Show');
    expect(newShow('a', 'x'.repeat(999), 5).name).toHaveLength(SHOW_LIMITS.letters);
  });
});
