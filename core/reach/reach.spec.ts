import fc from 'fast-check';
import { chooses } from '../selection';
import { anyRecipe } from '../testing/arbitraries';
import { GRID, type Grid, parseMeter, type Ticks, USUAL_SCHOOLS } from '../time';
import { HAND_VOICES, isHand, LEVELS, LIMBS, otherHand, parseStrokeText, usualVoice } from '../stroke';
import { changedAll, patternOfText, tidy, unisons, type Pattern } from '../pattern';
import { applyMove, build } from '../recipe';
import { KIT_PRESETS, mirroredKit, revoice, USUAL_KIT, type Kit } from '../kit';
import {
  ceiling,
  FITTS,
  handPaths,
  heldStrokes,
  isMeasured,
  limbReading,
  mirroredProfile,
  pairWords,
  ceilingOn,
  raises,
  readingWords,
  travelSeconds,
  USUAL_PROFILE,
  withRate,
  type Profile,
} from '.';

const pattern = (text: string, meter = '4/4', grid = GRID.sixteenths): Pattern => {
  const read = parseStrokeText(text);
  return patternOfText(read.ok ? read.value : [], parseMeter(meter)!, grid);
};
const hands = (rate: number): Profile => ({
  ...USUAL_PROFILE,
  rates: {
    ...USUAL_PROFILE.rates,
    R: { singles: rate, doubles: rate * 1.5 },
    L: { singles: rate, doubles: rate * 1.5 },
  },
});
const anyPattern = anyRecipe
  .map((r) => build({ ...r, moves: r.moves.slice(0, 4) }).pattern)
  .filter((p) => p.strokes.length > 0 && p.strokes.length < 400);
const anyProfile: fc.Arbitrary<Profile> = fc
  .record({
    R: fc.double({ min: 2, max: 12, noNaN: true }),
    L: fc.double({ min: 2, max: 12, noNaN: true }),
    K: fc.double({ min: 2, max: 9, noNaN: true }),
    more: fc.double({ min: 1, max: 2, noNaN: true }),
  })
  .map(({ R, L, K, more }) => ({
    ...USUAL_PROFILE,
    rates: {
      R: { singles: R, doubles: R * more },
      L: { singles: L, doubles: L * more },
      K: { singles: K, doubles: K * more },
      J: { singles: K, doubles: K * more },
      H: { singles: K, doubles: K * more },
    },
  }));
const anyKit = fc.constantFrom(...KIT_PRESETS);
const bpmOf = (p: Pattern, kit: Kit, profile: Profile): number => ceiling(p, kit, profile).bpm ?? Infinity;

describe('the ceiling', () => {
  it('a steady stream of one hand at r strokes per second on 16ths is exactly the tempo at which 16ths come at r', () => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 16, noNaN: true }), fc.integer({ min: 5, max: 32 }), (r, n) => {
        expect(bpmOf(pattern(`(R)x${n}`), USUAL_KIT, hands(r))).toBeCloseTo(r * 15, 6);
      }),
    );
  });
  it('two hands in turn go twice as fast; in 6/8 the tempo counts the dotted beat', () => {
    expect(bpmOf(pattern('(R L)x8'), USUAL_KIT, hands(6))).toBeCloseTo(180, 6);
    expect(bpmOf(pattern('(R)x6', '6/8', GRID.eighths), USUAL_KIT, hands(6))).toBeCloseTo(120, 6);
  });
  it('a pair alone rides on the rebound, a burst of four on the first impulse, a run of five on neither', () => {
    const at = (text: string): number =>
      bpmOf(pattern(text), USUAL_KIT, { ...hands(6), rates: { ...hands(6).rates, R: { singles: 6, doubles: 14 } } });
    expect(at('R R - - - - - -')).toBeCloseTo(210, 6);
    expect(at('R R R R - - - -')).toBeCloseTo(6 * 1.25 * 15, 6);
    expect(at('R R R R R - - -')).toBeCloseTo(90, 6);
  });
  it('a faster drummer never has a lower ceiling', () => {
    fc.assert(
      fc.property(
        anyPattern,
        anyKit,
        anyProfile,
        fc.constantFrom(...LIMBS),
        fc.double({ min: 1, max: 3, noNaN: true }),
        (p, kit, profile, limb, by) => {
          const { singles, doubles } = profile.rates[limb];
          const faster = {
            ...profile,
            rates: { ...profile.rates, [limb]: { singles: singles * by, doubles: doubles * by } },
          };
          expect(bpmOf(p, kit, faster)).toBeGreaterThanOrEqual(bpmOf(p, kit, profile) - 1e-9);
        },
      ),
      { numRuns: 200 },
    );
  });
  it('a longer reach never raises it', () => {
    fc.assert(
      fc.property(anyPattern, anyKit, anyProfile, fc.double({ min: 1, max: 2, noNaN: true }), (p, kit, profile, by) => {
        const wider = {
          ...kit,
          pieces: kit.pieces.map((piece) => ({ ...piece, x: piece.x * by, y: piece.y * by, z: piece.z * by })),
        };
        // Heads stay as large as they are, so every way is longer and no target wider. Edges and pedals shift with the
        // piece, by less than a head.
        if (p.strokes.some((s) => !['snare', 'high-tom', 'mid-tom', 'floor-tom', 'ride', 'kick'].includes(s.voice)))
          return;
        expect(bpmOf(p, wider, profile)).toBeLessThanOrEqual(bpmOf(p, kit, profile) + 1e-9);
      }),
      { numRuns: 200 },
    );
  });
  it('phrase, kit and drummer mirrored together leave it as it is', () => {
    fc.assert(
      fc.property(anyPattern, anyKit, anyProfile, (p, kit, profile) => {
        const mirrored = tidy(changedAll(p, (own) => own.map((s) => ({ ...s, limb: otherHand(s.limb) }))));
        const one = bpmOf(p, kit, profile);
        const other = bpmOf(mirrored, mirroredKit(kit), mirroredProfile(profile));
        if (Number.isFinite(one)) expect(other).toBeCloseTo(one, 6);
        else expect(other).toBe(one);
        expect(mirroredProfile(mirroredProfile(profile))).toEqual(profile);
      }),
      { numRuns: 200 },
    );
  });
  it('is never NaN, whatever the kit', () => {
    fc.assert(
      fc.property(anyPattern, anyProfile, fc.boolean(), (p, profile, empty) => {
        const kit: Kit = empty
          ? { ...USUAL_KIT, pieces: [] }
          : { ...USUAL_KIT, pieces: USUAL_KIT.pieces.map((x) => ({ ...x, x: 0, y: 0, z: 0 })) };
        expect(Number.isNaN(bpmOf(p, kit, profile))).toBe(false);
        expect(bpmOf(p, kit, profile)).toBeGreaterThan(0);
      }),
      { numRuns: 100 },
    );
  });
  it('names the tightest places by count and limb, each once', () => {
    const { pattern: p } = build({
      source: { kind: 'typed', text: '(R L)x8', meter: '4/4', grid: 1260 },
      moves: [
        {
          id: 'v',
          on: true,
          move: 'touch',
          params: { edits: [{ at: 7 * 1260, limb: 'L', stroke: { level: 'accent', voice: 'crash-right' } }] },
        },
      ],
    });
    const found = ceiling(p, USUAL_KIT, USUAL_PROFILE);
    expect(found.pairs).toHaveLength(3);
    expect(found.estimate).toBe(true);
    expect(pairWords(p, found.pairs[0]!, USUAL_SCHOOLS)).toBe('left hand, snare to right crash, the a of 2');
    expect(new Set(found.pairs.map((x) => x.at)).size).toBe(3);
  });
  it('a flam needs the other hand before the stroke, so it lowers what that hand can do', () => {
    expect(bpmOf(pattern('fR L fR L'), USUAL_KIT, USUAL_PROFILE)).toBeLessThan(
      bpmOf(pattern('R L R L'), USUAL_KIT, USUAL_PROFILE),
    );
  });
  it('one foot wanted on two pedals at once is said', () => {
    const double = KIT_PRESETS.find((k) => k.id === 'double')!;
    expect(ceiling(pattern('J+H - - -'), double, USUAL_PROFILE).impossible).toEqual([0]);
    expect(ceiling(pattern('K+H - - -'), double, USUAL_PROFILE).impossible).toEqual([]);
  });
});

describe('more to play', () => {
  const more = fc.record({
    at: fc.nat(63),
    limb: fc.constantFrom(...LIMBS),
    voice: fc.constantFrom(...HAND_VOICES),
    level: fc.constantFrom(...LEVELS),
    ornament: fc.constantFrom('flam' as const, 'drag' as const, 'ruff' as const),
    graces: fc.boolean(),
  });
  it('never raises a ceiling: neither a stroke nor grace strokes', () => {
    fc.assert(
      fc.property(anyPattern, anyKit, more, (p, kit, m) => {
        if (p.strokes.length > 100 || p.length < p.grid) return;
        const nth = m.at % p.strokes.length;
        const at = ((m.at * p.grid) % (p.length - (p.length % p.grid))) as Ticks;
        const voice = isHand(m.limb) ? m.voice : usualVoice(m.limb);
        const from = { index: 0, repeat: 0, move: null };
        const strokes = m.graces
          ? p.strokes.map((s, i) => (i === nth && isHand(s.limb) && !s.ornament ? { ...s, ornament: m.ornament } : s))
          : p.strokes.some((s) => s.at === at && s.limb === m.limb)
            ? p.strokes
            : [...p.strokes, { at, limb: m.limb, voice, level: m.level, from }];
        const q = tidy({ ...p, strokes });
        // One foot on two pedals at once is no ceiling at all.
        if (ceiling(q, kit, USUAL_PROFILE).impossible.length > 0) return;
        expect(bpmOf(q, kit, USUAL_PROFILE)).toBeLessThanOrEqual(bpmOf(p, kit, USUAL_PROFILE) + 1e-6);
      }),
      { numRuns: 400 },
    );
  });
  it.each([
    ['the left never leaves the snare', 'f[snare]R[ride] L[snare] R[ride] L[snare]', 'left hand, snare twice', 150],
    ['a flam is where its hand is', 'fR[ride] L[high tom] R[mid tom] L[snare]', 'left hand, snare to high tom', 141],
    ['wherever that is', 'fR[ride] L[high tom] R[mid tom] L[high tom]', 'left hand, high tom twice', 150],
    [
      'the hat goes on over a drag',
      'R[hat]+K R[hat] R[hat]+dL! R[open hat] R[hat]+K R[hat] R[hat]+L! R[hat]',
      'right hand, closed hi-hat twice',
      112,
    ],
    ['also between its strokes', 'R[hat] dL R[hat] dL R[hat] dL R[open hat] dL', 'left hand, snare twice', 203],
  ])('%s: %s', (_, text, words, bpm) => {
    const p = pattern(text);
    const { bpm: found, pairs } = ceiling(p, USUAL_KIT, USUAL_PROFILE);
    expect(pairs[0] && pairWords(p, pairs[0], USUAL_SCHOOLS)).toContain(words);
    expect(Math.floor(found!)).toBe(bpm);
  });
});

describe('what would raise it', () => {
  it('no change asks one foot to be on two pedals at once', () => {
    const p = pattern('R L K J R L K J');
    expect(ceiling(p, USUAL_KIT, USUAL_PROFILE).impossible).toEqual([]);
    const found = raises(p, USUAL_KIT, USUAL_PROFILE, USUAL_SCHOOLS);
    expect(
      found.map((r) => ceiling(applyMove(p, r.entry, () => p).pattern, USUAL_KIT, USUAL_PROFILE).impossible),
    ).toEqual(found.map(() => []));
    expect(found.length).toBeGreaterThan(0);
  });
  it('each change is worked out: done, it gives the tempo that was promised in what is played on the kit; it keeps the music, and says what it costs', () => {
    fc.assert(
      fc.property(anyPattern, fc.constantFrom(...KIT_PRESETS), (p, kit) => {
        if (p.strokes.length > 64) return;
        const before = ceilingOn(p, kit, USUAL_PROFILE).bpm ?? Infinity;
        for (const r of raises(p, kit, USUAL_PROFILE, USUAL_SCHOOLS)) {
          const after = applyMove(p, r.entry, () => p).pattern;
          expect(ceilingOn(after, kit, USUAL_PROFILE).bpm).toBeCloseTo(r.bpm, 6);
          expect(r.bpm).toBeCloseTo(before + r.gain, 6);
          expect(r.gain).toBeGreaterThanOrEqual(1);
          const [was, is] = [p, after].map((x) => revoice(x, kit).pattern.strokes.length);
          expect(is).toBeLessThanOrEqual(was!);
          if (is! < was!) expect(r.loss).not.toBeNull();
          const heard = (x: Pattern, hands: boolean) =>
            x.strokes.map((s) => `${s.at} ${hands ? s.limb : ''} ${s.voice} ${s.level} ${s.ornament ?? ''}`);
          // What sounds is the same where nothing is said to be lost.
          if (r.loss === null) expect(heard(after, false).sort()).toEqual(heard(p, false).sort());
          if (r.entry.move === 'mirror') continue;
          const kept = new Set(heard(after, true));
          const lost = heard(p, true)
            .filter((_, i) => heldStrokes(p).has(i))
            .filter((s) => !kept.has(s));
          // Grace strokes may be left out of what is held, and only they.
          expect(lost.filter((s) => !/flam|drag|ruff/.test(s))).toEqual([]);
          expect(unisons(after).length).toBeLessThanOrEqual(unisons(p).length);
          expect(handPaths(after, kit).crossings.length).toBeLessThanOrEqual(handPaths(p, kit).crossings.length);
        }
      }),
      { numRuns: 60 },
    );
  });
  it('a second kick without a pedal of its own is the first foot’s, and is as fast as that', () => {
    const [, three] = KIT_PRESETS;
    const bpm = (text: string): number | null => ceilingOn(pattern(text), three!, USUAL_PROFILE).bpm;
    expect(bpm('R L K J R L K J')).toBe(bpm('R L K K R L K K'));
    const [first] = raises(pattern('R L K J R L K J'), three!, USUAL_PROFILE, USUAL_SCHOOLS);
    expect(first?.words).toContain('Leave out the kicks on');
  });
  it('three in a row of one hand: the other hand is offered first', () => {
    const [first] = raises(pattern('R R R L R R R L'), USUAL_KIT, USUAL_PROFILE, USUAL_SCHOOLS);
    expect(first?.words).toContain('left hand');
  });
});

describe('travel', () => {
  it('is Fitts’s law in the Shannon form', () => expect(travelSeconds(36, 36)).toBeCloseTo(FITTS.a + FITTS.b, 12));
  it('crossings and cm to a bar are those of the way', () => {
    const { pattern: p } = build({
      source: { kind: 'typed', text: 'R L R L', meter: '4/4', grid: 5040 },
      moves: [
        {
          id: 'v',
          on: true,
          move: 'voice',
          params: { select: chooses({ limbs: ['R'] }), voices: ['snare', 'hat-closed'] },
        },
      ],
    });
    const { hands: ways, crossings } = handPaths(p, USUAL_KIT);
    expect(ways[0]!.perBar).toBeGreaterThan(60);
    expect(ways[1]!.perBar).toBe(0);
    expect(crossings).toEqual([10080, 15120]);
  });
});

describe('the limb test', () => {
  const noise = fc.array(fc.double({ min: -0.5, max: 0.5, noNaN: true }), { minLength: 200, maxLength: 200 });
  it('gives the rate that was played, singles and doubles, within 3 %', () => {
    fc.assert(
      fc.property(fc.double({ min: 3, max: 14, noNaN: true }), noise, (rate, off) => {
        const n = Math.floor(rate * 10);
        const singles = Array.from({ length: n }, (_, i) => i / rate + (0.08 * (off[i % 200] ?? 0)) / rate);
        const read = limbReading(singles, 'singles');
        expect(read.ok && Math.abs(read.value.rate / rate - 1)).toBeLessThan(0.03);
        const pairs = Array.from(
          { length: 40 },
          (_, i) => (Math.floor(i / 2) * 2.8 + (i % 2)) / rate + (0.02 * (off[i] ?? 0)) / rate,
        );
        const doubles = limbReading(pairs, 'doubles');
        expect(doubles.ok && Math.abs(doubles.value.rate / rate - 1)).toBeLessThan(0.03);
      }),
      { numRuns: 200 },
    );
  });
  it.each([[[]], [[0]], [[0, 1]], [[0, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1, 1.1]]])(
    '%j is not enough to tell',
    (moments) => expect(limbReading(moments, 'singles').ok).toBe(false),
  );
  it('a pause is no stroke, and tiring is said', () => {
    const at = [...Array.from({ length: 30 }, (_, i) => i / 8), ...Array.from({ length: 30 }, (_, i) => 6 + i / 8)];
    const read = limbReading(at, 'singles');
    expect(read.ok && read.value.rate).toBeCloseTo(8, 1);
    let t = 0;
    const slowing = Array.from({ length: 60 }, (_, i) => (t += 1 / (8 - i / 30)));
    const tired = limbReading(slowing, 'singles');
    expect(tired.ok && readingWords(tired.value)).toContain('slower at the end');
  });
  it('strokes that were not heard and strokes heard twice do not move the rate', () => {
    const some = fc.uniqueArray(fc.nat({ max: 79 }), { maxLength: 6 });
    fc.assert(
      fc.property(fc.double({ min: 3, max: 12, noNaN: true }), some, some, (rate, missed, twice) => {
        const at = Array.from({ length: 80 }, (_, i) =>
          missed.includes(i) ? [] : twice.includes(i) ? [i / rate, (i + 0.1) / rate] : [i / rate],
        ).flat();
        const read = limbReading(at, 'singles');
        expect(read.ok && Math.abs(read.value.rate / rate - 1)).toBeLessThan(0.03);
      }),
      { numRuns: 200 },
    );
  });
  it('sets the rate with its date, held to what is believable, and the limb counts as measured', () => {
    const p = withRate(USUAL_PROFILE, 'L', 'singles', 99, 5);
    expect(p.rates.L.singles).toBe(25);
    expect(isMeasured(p, ['L'])).toBe(true);
    expect(isMeasured(p, ['L', 'R'])).toBe(false);
  });
});

describe('grace strokes on the way', () => {
  const on = (text: string, voices: Partial<Record<'R' | 'L', 'snare' | 'hat-closed' | 'floor-tom'>>): Pattern => {
    const p = pattern(text);
    const voiced = p.strokes.map((s) =>
      s.limb === 'R' || s.limb === 'L' ? { ...s, voice: voices[s.limb] ?? s.voice } : s,
    );
    return { ...p, strokes: voiced };
  };
  it('a drag beside a hand that keeps time on the hat is the left hand’s own: the right never goes to the snare', () => {
    const { pairs, bpm } = ceiling(on('R - dL - R - dL -', { R: 'hat-closed' }), USUAL_KIT, USUAL_PROFILE);
    expect(pairs.every((p) => p.why === 'repeat')).toBe(true);
    expect(bpm).toBeGreaterThan(120);
    const together = ceiling(on('R+dL - R - R+dL - R -', { R: 'hat-closed' }), USUAL_KIT, USUAL_PROFILE);
    expect(together.pairs.every((p) => p.why === 'repeat')).toBe(true);
  });
  it('a free hand plays the grace strokes of the other one, and needs its time for them', () => {
    const alone = bpmOf(on('fR L R L', {}), USUAL_KIT, USUAL_PROFILE);
    expect(alone).toBeLessThan(bpmOf(on('R L R L', {}), USUAL_KIT, USUAL_PROFILE) + 1e-9);
  });
});

describe('laws of the rates', () => {
  it('double strokes are never slower than single ones, whoever plays, as long as they were not timed', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 3, max: 12, noNaN: true }),
        fc.double({ min: 3, max: 12, noNaN: true }),
        fc.constantFrom<readonly [Grid, string, string]>(
          [GRID.sixteenths, '(R R L L)x4', '(R L)x8'],
          [GRID.thirtySeconds, '(R R L L)x8', '(R L)x16'],
          [GRID.triplets, '(R R L L)x3', '(R L)x6'],
        ),
        (right, left, [grid, doubles, singles]) => {
          const rates = { ...USUAL_PROFILE.rates };
          const own: Profile = {
            ...USUAL_PROFILE,
            rates: { ...rates, R: { ...rates.R, singles: right }, L: { ...rates.L, singles: left } },
          };
          const of = (text: string): number => bpmOf(pattern(text, '4/4', grid), USUAL_KIT, own);
          expect(of(doubles)).toBeGreaterThanOrEqual(of(singles) - 1e-9);
        },
      ),
    );
  });
  it('raising the stick on the way to another place costs nothing more', () => {
    const kit = USUAL_KIT;
    const to = (level: 'tap' | 'accent'): number => {
      const p = pattern('R - R -');
      const strokes = p.strokes.map((s, i) => ({
        ...s,
        voice: i ? ('ride' as const) : ('hat-closed' as const),
        level,
      }));
      return bpmOf(
        { ...p, strokes: strokes.map((s, i) => (i ? s : { ...s, level: 'tap' as const })) },
        kit,
        USUAL_PROFILE,
      );
    };
    expect(to('accent')).toBeCloseTo(to('tap'), 9);
  });
});
