import fc from 'fast-check';
import { barTicks, GRID, parseMeter, TICKS_PER_QUARTER, USUAL_SCHOOLS } from '../time';
import { parseStrokeText } from '../stroke';
import { patternOfText, type Pattern } from '../pattern';
import {
  align,
  findingWords,
  firstFix,
  latencyOf,
  measuredOf,
  perform,
  readTake,
  spreadLimit,
  steadyStream,
  USUAL_PLAYER,
  verdictOf,
  type Hit,
  type Player,
} from '.';
import { expectedOf, type Expected } from '../rendition';
import { remedyFor } from '../drill';
import { casesTried } from '../testing/cases';

const pattern = (text: string, meter = '4/4'): Pattern => {
  const read = parseStrokeText(text);
  return patternOfText(read.ok ? read.value : [], parseMeter(meter)!, GRID.sixteenths);
};
const PHRASES: readonly (readonly [string, string])[] = [
  ['R L R L K R L K R L R L R L K -', '4/4'],
  ['R l l R K R l l R K R L R L', '7/8'],
  ['R+K L - R L+H - R - L K - -', '6/8'],
  ['R L R R L R L L R! L R R L! R L L', '4/4'],
];
const slotSeconds = (bpm: number): number => (60 * GRID.sixteenths) / (TICKS_PER_QUARTER * bpm);
const hit = (seconds: number, more: Partial<Hit> = {}): Hit => ({
  seconds,
  limb: null,
  voice: null,
  velocity: null,
  ...more,
});
const stroke = (seconds: number, more: Partial<Expected> = {}): Expected => ({
  index: 0,
  turn: 0,
  seconds,
  limb: 'R',
  voice: 'snare',
  velocity: 70,
  ...more,
});

describe('laying hits on strokes', () => {
  it('what is played exactly is matched exactly', () => {
    const expected = expectedOf(pattern('R L R L'), 100, 0, 8);
    const { hits } = perform(expected, { ...USUAL_PLAYER, bias: 0, spread: 0 }, 1);
    const { matches, missed, extra } = align(expected, hits);
    expect(matches).toHaveLength(32);
    expect([...missed, ...extra]).toEqual([]);
    expect(matches.every((m) => Math.abs(m.late) < 1e-9)).toBe(true);
  });
  it.each([
    ['a stroke left out', [0, 0.5, 1], [0, 1], [1], []],
    ['one too many', [0, 0.5], [0, 0.25, 0.5], [], [1]],
    ['both late', [0, 0.5], [0.04, 0.55], [], []],
    ['out of every window', [0, 1], [0.47, 1.49], [0, 1], [0, 1]],
    ['nothing played', [0, 1], [], [0, 1], []],
    ['nothing expected', [], [0, 1], [], [0, 1]],
  ] as const)('%s', (_, expected, hits, missed, extra) => {
    const found = align(
      expected.map((s) => stroke(s)),
      hits.map((s) => hit(s)),
    );
    expect(found.missed).toEqual(missed);
    expect(found.extra).toEqual(extra);
  });
  it('limbs are told apart where they are known: a late left is no early right', () => {
    const expected = [stroke(0), stroke(0.1, { limb: 'L' }), stroke(0.2)];
    const found = align(expected, [hit(0, { limb: 'R' }), hit(0.16, { limb: 'L' }), hit(0.2, { limb: 'R' })]);
    expect(found.matches.map((m) => m.hit)).toEqual([0, 1, 2]);
  });
  it('without limbs a unison is answered by the one sound it makes', () => {
    const found = align([stroke(0), stroke(0, { limb: 'K', voice: 'kick' }), stroke(0.5)], [hit(0.01), hit(0.5)]);
    expect(found.missed).toEqual([]);
    expect(found.matches).toHaveLength(3);
  });
  it('is monotone, uses no hit and no stroke twice, and is never worth less than taking the nearest by turns', () => {
    const times = fc
      .array(fc.integer({ min: 0, max: 4000 }), { minLength: 0, maxLength: 30 })
      .map((all) => [...new Set(all)].sort((a, b) => a - b).map((t) => t / 1000));
    fc.assert(
      fc.property(times, times, (strokes, hits) => {
        const expected = strokes.map((s) => stroke(s));
        const found = align(
          expected,
          hits.map((s) => hit(s)),
        );
        expect(new Set(found.matches.map((m) => m.hit)).size).toBe(found.matches.length);
        found.matches.forEach((m, i) => {
          const before = found.matches[i - 1];
          if (before) expect(m.hit).toBeGreaterThan(before.hit);
          expect(Math.abs(m.late)).toBeLessThanOrEqual(460.0001);
        });
        expect(found.matches.length + found.missed.length).toBe(strokes.length);
        expect(found.matches.length + found.extra.length + found.doubled.length).toBe(hits.length);
      }),
    );
  });
});

describe('the simulated player is read as it was set', () => {
  const settings = fc.record({
    phrase: fc.constantFrom(...PHRASES),
    bpm: fc.integer({ min: 60, max: 150 }),
    bias: fc.double({ min: -20, max: 20, noNaN: true }),
    share: fc.double({ min: 0.01, max: 0.25, noNaN: true }),
    drift: fc.double({ min: -60, max: 60, noNaN: true }),
    missed: fc.constantFrom(0, 0, 0.02, 0.05),
    extra: fc.constantFrom(0, 0, 0.02),
    seed: fc.nat(),
  });
  const tally = { strokes: 0, wrong: 0, verdicts: 0, agreed: 0, takes: 0, within: 0, spread: 0, drift: 0 };

  it('2000 players: bias is never far off', () => {
    fc.assert(
      fc.property(settings, ({ phrase: [text, meter], bpm, bias, share, drift, missed, extra, seed }) => {
        const phrase = pattern(text, meter);
        const slot = slotSeconds(bpm);
        const expected = expectedOf(phrase, bpm, 0, 24);
        const spread = Math.min(100, share * slot * 1000);
        const player: Player = { ...USUAL_PLAYER, bias, spread, drift, missed, extra };
        const played = perform(expected, player, seed);
        const found = align(expected, played.hits);
        const read = readTake(expected, played.hits, found);
        // What the player really did, stroke by stroke: the same seed without chance in it would be another player.
        const gone = new Set(played.missed);
        const truth = played.truth;
        const mean = truth.reduce((sum, t) => sum + t.late, 0) / truth.length;
        tally.takes++;
        tally.strokes += expected.length;
        const wrongMissed =
          found.missed.filter((i) => !gone.has(i)).length + [...gone].filter((i) => !found.missed.includes(i)).length;
        tally.wrong += wrongMissed + Math.abs(found.extra.length - played.extra);
        const off = Math.abs(read.mean - mean);
        if (off < 1) tally.within++;
        // Where strokes scatter far while some are left out and others added, whose a hit is cannot always be told:
        // seldom, and never by much of the scatter.
        expect(off).toBeLessThan(Math.min(3.5, Math.max(2, spread / 15)));
        // The truth is read from the matches the player knows, so only the matching can be wrong.
        const exact = readTake(expected, played.hits, {
          ...found,
          matches: truth.map((t) => ({ expected: t.expected, hit: t.hit, late: t.late })),
          missed: played.missed,
          extra: [],
        });
        if (Math.abs(read.spread / Math.max(exact.spread, 0.5) - 1) < 0.1) tally.spread++;
        // A drift below what chance alone moves it by is no drift: one standard error of the slope is allowed, else 5
        // %.
        const length = (expected.at(-1)!.seconds - expected[0]!.seconds) / Math.sqrt(12);
        const chance = (60 * exact.spread) / (length * Math.sqrt(exact.many));
        if (Math.abs(read.drift - exact.drift) < Math.max(2, chance, Math.abs(exact.drift) * 0.05)) tally.drift++;
        tally.verdicts++;
        const set = verdictOf({ ...exact, extra: played.extra }, slot);
        if (verdictOf(read, slot) === set) tally.agreed++;
      }),
      { numRuns: 2000, endOnFailure: true },
    );
  });
  it('in at least 99 % bias is within 1 ms, spread within 10 %, drift within 5 %, missed and extra strokes are right; verdicts agree in at least 98 %', () => {
    expect(tally.takes).toBeGreaterThanOrEqual(casesTried(2000));
    expect(1 - tally.wrong / tally.strokes).toBeGreaterThanOrEqual(0.99);
    expect(tally.within / tally.takes).toBeGreaterThanOrEqual(0.99);
    expect(tally.spread / tally.takes).toBeGreaterThanOrEqual(0.99);
    expect(tally.drift / tally.takes).toBeGreaterThanOrEqual(0.99);
    expect(tally.agreed / tally.verdicts).toBeGreaterThanOrEqual(0.98);
  });
  it('the same seed plays the same, another one does not', () => {
    const expected = expectedOf(pattern('R L R L'), 100, 0, 4);
    expect(perform(expected, USUAL_PLAYER, 5)).toEqual(perform(expected, USUAL_PLAYER, 5));
    expect(perform(expected, USUAL_PLAYER, 5)).not.toEqual(perform(expected, USUAL_PLAYER, 6));
  });
});

describe('what a take says', () => {
  const play = (text: string, part: Partial<Player>, bpm = 100) => {
    const phrase = pattern(text);
    const expected = expectedOf(phrase, bpm, 0, 8);
    const { hits } = perform(expected, { ...USUAL_PLAYER, bias: 0, spread: 3, ...part }, 7);
    const read = readTake(expected, hits, align(expected, hits));
    const fix = firstFix(phrase, read, slotSeconds(bpm), USUAL_SCHOOLS);
    return { phrase, read, fix, words: fix ? findingWords(fix.finding) : '' };
  };
  it('a kick that drags is named by its count, and the skeleton is what mends it', () => {
    const { fix, read, words } = play('R L R L R L R L R L R K R L R L', { weak: { limb: 'K', late: 18 } });
    expect(words).toMatch(/^The kick on the a of 3 is 1[5-9] ms late\.$/);
    expect(fix && remedyFor(fix.finding)).toBe('skeleton');
    expect(read.byLimb.find((l) => l.limb === 'K')?.mean).toBeGreaterThan(14);
  });
  it('dropped kicks are said before anything else', () =>
    expect(play('R L R K', { droppedKicks: 0.9 }).words).toContain('The kick on the a of 1 was missed'));
  it('lying behind, running away, scattering', () => {
    expect(play('R L R L', { bias: 20 }).words).toMatch(/^Everything is 20 ms late/);
    expect(play('R L R L R L R L R L R L R L R L', { drift: -120 }).words).toMatch(
      /^You speed up: \d+ ms early by the end of \d+ s\.$/,
    );
    expect(play('R L R L R L R L R L R L R L R L', { spread: 30 }).read.spread).toBeGreaterThan(20);
  });
  it('a clean take has nothing to fix, and what is kept of it is rounded', () => {
    const { fix, read } = play('R L R L', {});
    expect(fix).toBeNull();
    expect(verdictOf(read, slotSeconds(100))).toBe('clean');
    expect(measuredOf(read, fix)).toMatchObject({ missed: 0, extra: 0, strokes: 32 });
    expect(measuredOf(read, fix)).not.toHaveProperty('finding');
  });
  it('whether the tempo held when the click fell silent', () => {
    const expected = expectedOf(pattern('R L R L'), 60, 0, 8);
    const silences = [{ from: 4, until: 8 }];
    const hits = expected.map((e) => hit(e.seconds + (e.seconds >= 4 ? 0.012 : 0)));
    expect(readTake(expected, hits, align(expected, hits), silences).silence).toBeCloseTo(12, 6);
    expect(readTake(expected, hits, align(expected, hits)).silence).toBeNull();
  });
  it('evenness of the hands and the ratio of accents to ghosts come from loudness', () => {
    const expected = expectedOf(pattern('R! l R! l R L R L'), 90, 0, 6);
    const hits = expected.map((e) =>
      hit(e.seconds, { limb: e.limb, velocity: e.velocity - (e.limb === 'L' ? 10 : 0) }),
    );
    const read = readTake(expected, hits, align(expected, hits));
    expect(read.leftRight).toBeCloseTo(10, 6);
    expect(read.accentGhost).toBeCloseTo(116 / 18, 6);
    expect(read.meantRatio).toBeCloseTo(116 / 28, 6);
  });
  it.each([
    ['accents over taps', 'R! L R! L R! L R! L'],
    ['accents over ghosts', 'R! l R! l R! l R! l'],
    ['taps over ghosts', 'R l R l R l R l'],
  ])('%s: played as meant there is nothing to fix, flattened it is the heights', (_, text) => {
    const phrase = pattern(text);
    const expected = expectedOf(phrase, 100, 0, 8);
    const middle = expected.reduce((sum, e) => sum + e.velocity, 0) / expected.length;
    const fixOf = (flat: number) => {
      const hits = expected.map((e) =>
        hit(e.seconds, { limb: e.limb, velocity: Math.round(middle + (e.velocity - middle) * (1 - flat)) }),
      );
      return firstFix(phrase, readTake(expected, hits, align(expected, hits)), slotSeconds(100), USUAL_SCHOOLS);
    };
    expect(fixOf(0)).toBeNull();
    expect(fixOf(0.2)).toBeNull();
    expect(fixOf(0.9)?.finding.kind).toBe('heights');
    expect(findingWords(fixOf(0.9)!.finding)).toContain('Accents and ghosts are too alike');
    expect(remedyFor(fixOf(0.9)!.finding)).toBe('dynamics');
  });
  it('nothing heard is said, never NaN', () => {
    const expected = expectedOf(pattern('R L'), 90, 0, 2);
    const read = readTake(expected, [], align(expected, []));
    expect(JSON.stringify(read)).not.toContain('NaN');
    expect(firstFix(pattern('R L'), read, 0.1, USUAL_SCHOOLS)?.finding).toEqual({ kind: 'silence' });
    expect(verdictOf(read, 0.1)).toBe('loose');
  });
  it('wide slots have room, strictness narrows it', () => {
    expect(spreadLimit(0.5)).toBe(30);
    expect(spreadLimit(0.05)).toBe(8);
    expect(spreadLimit(0.5, 'strict')).toBeCloseTo(21, 9);
  });
});

describe('expected strokes', () => {
  it('lie where they sound: swing in, turns one after the other', () => {
    const phrase = { ...pattern('R L R L'), feel: { kind: 'swung' as const, on: '16ths' as const, ratio: 2 / 3 } };
    const at = expectedOf(phrase, 60, 0, 2).map((e) => e.seconds);
    expect(at[1]).toBeCloseTo(1 / 3, 9);
    expect(at[4]).toBeCloseTo((phrase.length / TICKS_PER_QUARTER) * 1, 9);
    expect(barTicks(phrase.meter)).toBe(20160);
  });
  it('a steady stream comes at its rate, doubles in pairs', () => {
    expect(steadyStream('R', 8, 10, false)).toHaveLength(80);
    const pairs = steadyStream('L', 10, 2, true).map((e) => e.seconds);
    expect(pairs[1]! - pairs[0]!).toBeCloseTo(0.1, 9);
    expect(pairs[2]! - pairs[1]!).toBeCloseTo(0.3, 9);
  });
});

describe('latency', () => {
  it('is the median, whatever a few wild taps do; too few are refused', () => {
    const beats = Array.from({ length: 16 }, (_, i) => i * 0.5);
    const taps = beats.map((b, i) => b + 0.042 + (i % 5 === 0 ? 0.12 : 0));
    const read = latencyOf(beats, taps);
    expect(read.ok && read.value.seconds).toBeCloseTo(0.042, 6);
    expect(latencyOf(beats, taps.slice(0, 5)).ok).toBe(false);
  });
});
