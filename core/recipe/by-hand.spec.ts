import fc from 'fast-check';
import { chooses } from '../selection';
import { anyRecipe } from '../testing/arbitraries';
import { barTicks, GRID } from '../time';
import { HAND_VOICES, LEVELS, ORNAMENTS, parseStrokeText, VOICE, type Stroke } from '../stroke';
import { countRef, patternOfText, plainGraces, textOf, voicedText, withGraces, type Pattern } from '../pattern';
import {
  applyMove,
  build,
  levelEdits,
  ornamentEdits,
  voiceEdits,
  withEdits,
  type Build,
  type Edit,
  type MoveName,
  type MoveParams,
  type Recipe,
} from '.';

// Moves that take the drummer at their word, each worked out a second time by plain loops over random phrases.

const show = (s: Pick<Stroke, 'at' | 'limb' | 'voice' | 'level' | 'ornament' | 'grace'>): string =>
  `${s.at} ${s.limb} ${s.voice} ${s.level} ${s.ornament ?? ''} ${s.grace ?? ''}`;
const strokes = (p: Pattern): string[] => p.strokes.map(show).sort();
const applied = <N extends MoveName>(pattern: Pattern, move: N, params: MoveParams[N]) =>
  applyMove(pattern, { id: 'x', on: true, move, params } as never, () => pattern);
const landed = (p: Pattern): boolean => p.groups.at(-1)?.kind === 'land';
const typed = (text: string, grid: number = GRID.sixteenths, meterText = '4/4'): Recipe => ({
  source: { kind: 'typed', text, meter: meterText, grid },
  moves: [],
});
const patterns = anyRecipe.map((r) => build(r).pattern).filter((p) => p.strokes.length > 0 && p.strokes.length < 400);

describe('start again from here', () => {
  it('plays the beginning from a count on, and nothing else changes', () => {
    fc.assert(
      fc.property(patterns, fc.nat(400), fc.boolean(), (p, n, bar) => {
        fc.pre(!landed(p) && p.length > p.grid);
        const from = (1 + (n % Math.max(1, Math.ceil(p.length / p.grid) - 1))) * p.grid;
        fc.pre(from < p.length);
        const after = applied(p, 'restart', { at: countRef(p, from), until: bar ? 'bar' : 'end' }).pattern;
        let until = p.length as number;
        if (bar) for (until = from + 1; until < p.length && (p.start + until) % barTicks(p.meter) !== 0;) until++;
        const expected = new Set<string>();
        for (const s of p.strokes) {
          if (s.at < from || s.at >= until) expected.add(show(s));
          if (s.at + from < until) expected.add(show({ ...s, at: (s.at + from) as Stroke['at'] }));
        }
        expect(strokes(after)).toEqual([...expected].sort());
        expect(after.length).toBe(p.length);
      }),
      { numRuns: 300 },
    );
  });
  it('refuses the beginning and counts that are none, in words', () => {
    const p = build(typed('R L R L')).pattern;
    expect(applied(p, 'restart', { at: '1', until: 'bar' }).findings[0]?.words).toBe('It already begins on beat 1.');
    expect(applied(p, 'restart', { at: '4', until: 'bar' }).pattern).toBe(p);
  });
});

describe('playing along', () => {
  const limbs = ['R', 'L', 'K', 'J', 'H'] as const;
  it('puts one limb with every chosen stroke of the others, once', () => {
    fc.assert(
      fc.property(
        patterns,
        fc.constantFrom(...limbs),
        fc.constantFrom('R' as const, 'L' as const),
        fc.constantFrom(...HAND_VOICES),
        fc.constantFrom('goes' as const, 'stays' as const),
        (p, leader, limb, voice, busy) => {
          fc.pre(leader !== limb && !landed(p));
          const led = p.strokes.filter((s) => s.limb === leader).map((s) => s.at as number);
          const after = applied(p, 'follow', {
            select: chooses({ limbs: [leader] }),
            limb,
            voice,
            level: 'same',
            busy,
          }).pattern;
          if (led.length === 0) return expect(after).toBe(p);
          for (const at of led) {
            const own = after.strokes.filter((s) => s.at === at && s.limb === limb);
            const before = p.strokes.find((s) => s.at === at && s.limb === limb);
            expect(own).toHaveLength(1);
            expect(own[0]?.voice).toBe(before && busy === 'stays' ? before.voice : voice);
          }
          // Whatever is not with a leader is as it was.
          const rest = (x: Pattern): string[] =>
            strokes({ ...x, strokes: x.strokes.filter((s) => s.limb !== limb || !led.includes(s.at)) });
          expect(rest(after)).toEqual(rest(p));
        },
      ),
      { numRuns: 300 },
    );
  });
});

describe('a part on another grid', () => {
  /** "7½" as a number. */
  const inSlots = (said = ''): number => {
    const part = { '¼': 0.25, '½': 0.5, '¾': 0.75, '⅓': 1 / 3, '⅔': 2 / 3 }[said.at(-1) ?? ''];
    if (part !== undefined) return Number(said.slice(0, -1)) + part;
    return said.split(' ').reduce((sum, n) => sum + Number(n.split('/')[0]) / Number(n.split('/')[1] ?? 1), 0);
  };
  it('on a count takes the room of its slots there, and all else stays as it was', () => {
    fc.assert(
      fc.property(patterns, fc.nat(11), fc.nat(11), fc.nat(63), fc.constantFrom(2, 3, 4), (p, a, b, n, faster) => {
        fc.pre(!landed(p) && p.grid % faster === 0);
        const [from, to] = [Math.min(a, b) + 1, Math.max(a, b) + 1];
        const at = (n * p.grid) % Math.max(p.grid, p.length);
        const room = ((to - from + 1) * p.grid) / faster;
        fc.pre(to * p.grid <= p.length && at + room <= p.length && p.strokes.every((s) => s.at % faster === 0));
        const { pattern, findings } = applied(p, 'grid', {
          grid: p.grid / faster,
          part: { from, to, on: countRef(p, at) },
        });
        const expected = [
          ...p.strokes.filter((s) => s.at < at || s.at >= at + room).map(show),
          ...p.strokes
            .filter((s) => s.at >= (from - 1) * p.grid && s.at < to * p.grid)
            .map((s) => show({ ...s, at: (at + (s.at - (from - 1) * p.grid) / faster) as Stroke['at'] })),
        ];
        expect(strokes(pattern)).toEqual(expected.sort());
        // The sum: what it takes and what is left make the whole.
        const said = /take ([\d ./¼½¾⅓⅔]+?) [a-z].* of time\. The other ([\d ./¼½¾⅓⅔]+) stay as they are\.$/.exec(
          findings[0]?.words ?? '',
        );
        expect(inSlots(said?.[1]) + inSlots(said?.[2])).toBeCloseTo(p.length / p.grid, 1);
        expect(inSlots(said?.[1])).toBeCloseTo((to - from + 1) / faster, 1);
      }),
      { numRuns: 300 },
    );
  });
  it('says what is left, in place and from a count', () => {
    const p = build(typed('(R L)x8')).pattern;
    const on = applied(p, 'grid', { grid: 630, part: { from: 1, to: 8, on: '3' } });
    expect(on.findings[0]?.words).toBe('8 slots as 32nds take 4 sixteenths of time. The other 12 stay as they are.');
    expect(textOf(on.pattern)?.text).toBe('R - L - R - L - R - L - R - L - R L R L R L R L R - L - R - L -');
    const inPlace = applied(p, 'grid', { grid: 630, part: { from: 1, to: 8 } });
    expect(inPlace.findings[0]?.words).toBe(
      '8 slots as 32nds take 4 sixteenths of time. The phrase is now 12 sixteenths long, 4 sixteenths short of the bar line.',
    );
    expect(applied(p, 'grid', { grid: 630, part: { from: 1, to: 16, on: '4' } }).pattern).toBe(p);
  });
});

describe('stroke text with pieces', () => {
  it('what a phrase is written as is read to the same strokes on the same pieces', () => {
    fc.assert(
      fc.property(patterns, (p) => {
        const written = voicedText(p);
        fc.pre(written !== null && p.start === 0);
        const read = parseStrokeText(written?.text ?? '');
        if (!read.ok) throw new Error(`${written?.text ?? ''}: ${read.problems[0].message}`);
        const slot = p.length / (written?.text.split(' ').filter((w) => !/^[a-z]/.test(w)).length || 1);
        expect(slot).toBeGreaterThan(0);
        const back = patternOfText(read.value, p.meter, GRID.sixteenths);
        const shape = (x: Pattern): string[] => x.strokes.map((s) => show({ ...s, at: 0 as Stroke['at'] }));
        expect(shape(back)).toEqual(shape(p));
      }),
      { numRuns: 300 },
    );
  });
  it.each([
    ['R[ride] l[SN] K', 'ride snare kick'],
    ['R![crash]+K -', 'right crash kick'],
    ['f[snare]R[Ride Bell] R[ crash ]!', 'ride bell right crash'],
  ])('%s', (text, voices) => {
    expect(
      build(typed(text))
        .pattern.strokes.map((s) => VOICE[s.voice].name)
        .join(' '),
    ).toBe(voices);
  });
  it.each([
    ['R[gong]', 'Column 3: “gong” is not a drum or cymbal here. Write a name such as ride, high tom or right crash.'],
    ['K[ride]', 'Column 3: K does not play the ride.'],
    ['R[kick]', 'Column 3: R does not play the kick.'],
    ['R[ride', 'Column 2: this “[” has no “]”.'],
    ['z[ride]R', 'Column 3: a buzz has no grace strokes.'],
  ])('%s is refused', (text, words) => {
    const read = parseStrokeText(text);
    expect(read.ok ? '' : read.problems[0].message).toBe(words);
  });
});

describe('grace strokes', () => {
  it('are held on the drum while the stroke goes to the cymbal, go with it, or are where their hand is', () => {
    const p = build(typed('fR! l dL R')).pattern;
    const stay = applied(p, 'voice', { select: chooses({}), voices: ['ride'], graces: 'stay' }).pattern;
    expect(stay.strokes.map((s) => s.grace ?? '-').join(' ')).toBe('snare - snare -');
    const again = applied(stay, 'voice', { select: chooses({}), voices: ['crash-right'], graces: 'stay' }).pattern;
    expect(again.strokes.map((s) => s.grace ?? '-').join(' ')).toBe('snare - snare -');
    const back = applied(again, 'voice', { select: chooses({}), voices: ['snare'], graces: 'stay' }).pattern;
    expect(strokes(plainGraces(back))).toEqual(strokes(p));
    const graces = (x: Pattern): string =>
      withGraces(x)
        .strokes.flatMap((s) => s.grace ?? [])
        .join(' ');
    const go = applied(stay, 'voice', { select: chooses({}), voices: ['high-tom'], graces: 'go' }).pattern;
    expect(graces(go)).toBe('high-tom high-tom');
    const rights = applied(p, 'voice', { select: chooses({ limbs: ['R'] }), voices: ['ride'] }).pattern;
    expect(graces(rights)).toBe('snare same-hand');
    const lefts = applied(rights, 'voice', { select: chooses({ limbs: ['L'] }), voices: ['floor-tom'] }).pattern;
    expect(graces(lefts)).toBe('floor-tom same-hand');
  });
});

describe('hand edits in matters', () => {
  const matters = (r: Recipe): string =>
    r.moves.map((m) => (m.move === 'touch' ? (m.params.edits[0]?.only ?? 'strokes') : m.move)).join(' ');
  const edit = (r: Recipe, of: (p: Pattern) => readonly Edit[]): Recipe =>
    withEdits(build(r), of(build(r).pattern)) ?? r;
  const off = (r: Recipe, i: number): Build =>
    build({ ...r, moves: r.moves.map((m, j) => (j === i ? { ...m, on: false } : m)) });

  it('a voice and a level are two cards, and each can be switched off by itself', () => {
    let r = typed('R L R L');
    r = edit(r, (p) => voiceEdits(p, [0, 1], 'high-tom'));
    r = edit(r, (p) => levelEdits(p, [1, 2], 'accent'));
    r = edit(r, (p) => voiceEdits(p, [2], 'ride'));
    expect(matters(r)).toBe('voice level');
    expect(voicedText(build(r).pattern)?.text).toBe('R[high tom] L![high tom] R![ride] L');
    expect(voicedText(off(r, 0).pattern)?.text).toBe('R L! R! L');
    expect(voicedText(off(r, 1).pattern)?.text).toBe('R[high tom] L[high tom] R[ride] L');
    expect(build(r).trail.map((s) => s.sentence)).toEqual([
      '1 and 1e to the high tom; 1& to the ride',
      '1e and 1& accented',
    ]);
  });
  it('a stroke written anew forgets what was changed about the old one', () => {
    let r = edit(typed('R L'), (p) => levelEdits(p, [0], 'accent'));
    r = edit(r, () => [{ at: 0, limb: 'R', stroke: null }]);
    r = edit(r, () => [{ at: 0, limb: 'R', stroke: { level: 'ghost', voice: 'snare' } }]);
    expect(textOf(build(r).pattern)?.text).toBe('r L');
  });
  it('what is edited is what comes out, whatever the order', () => {
    const anyEdit = fc.record({
      stroke: fc.nat(7),
      kind: fc.constantFrom('level', 'voice', 'ornament', 'rest', 'write'),
      level: fc.constantFrom(...LEVELS),
      voice: fc.constantFrom(...HAND_VOICES),
      ornament: fc.constantFrom(...ORNAMENTS, null),
    });
    fc.assert(
      fc.property(fc.array(anyEdit, { maxLength: 12 }), (edits) => {
        let r = typed('R L fR L R! l R L');
        // A model of its own: one stroke a slot, changed at once.
        const model = new Map(build(r).pattern.strokes.map((s) => [s.at as number, { ...s }]));
        for (const e of edits) {
          const at = e.stroke * 1260;
          const limb = e.stroke % 2 === 0 ? 'R' : 'L';
          const there = model.get(at);
          const index = build(r).pattern.strokes.findIndex((s) => s.at === at);
          if (e.kind === 'write') {
            r = edit(r, () => [{ at, limb, stroke: { level: e.level, voice: e.voice } }]);
            const from = there?.from ?? { index: 0, repeat: 0, move: null };
            model.set(at, { at: at as Stroke['at'], limb, level: e.level, voice: e.voice, from });
          } else if (!there) continue;
          else if (e.kind === 'rest') {
            r = edit(r, () => [{ at, limb, stroke: null }]);
            model.delete(at);
          } else if (e.kind === 'level') {
            r = edit(r, (p) => levelEdits(p, [index], e.level));
            model.set(at, { ...there, level: e.level });
          } else if (e.kind === 'voice') {
            r = edit(r, (p) => voiceEdits(p, [index], e.voice));
            model.set(at, { ...there, voice: e.voice });
          } else {
            r = edit(r, (p) => ornamentEdits(p, [index], e.ornament));
            const { ornament: _, ...plain } = there;
            model.set(at, e.ornament ? { ...plain, ornament: e.ornament } : plain);
          }
        }
        expect(strokes(build(r).pattern)).toEqual([...model.values()].map(show).sort());
        expect(r.moves.length).toBeLessThanOrEqual(4);
      }),
      { numRuns: 400 },
    );
  });
});
