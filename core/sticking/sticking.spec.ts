import fc from 'fast-check';
import { GRID, parseMeter, ticks, USUAL_SCHOOLS } from '../time';
import { HAND_VOICES, isHand, LEVELS, parseStrokeText, type Hand, type Stroke, type Voice } from '../stroke';
import TABLE from '../testing/stickings.json';
import { patternOfText, tidy, type Pattern } from '../pattern';
import { build, withEdits } from '../recipe';
import { KIT_PRESETS, revoice, USUAL_KIT } from '../kit';
import { USUAL_PROFILE } from '../reach';
import {
  bestWays,
  choicesOf,
  costOf,
  withLimbs,
  rhythmOf,
  sameAs,
  stickingEdits,
  stickings,
  stickingText,
  STICKING_SCHOOLS,
  type Pins,
  type StickingSchool,
} from '.';

const wish = {
  bpm: 100,
  kit: USUAL_KIT,
  profile: USUAL_PROFILE,
  pins: new Map(),
  schools: USUAL_SCHOOLS,
  many: 1,
  apart: 1,
};
const pattern = (text: string, meter = '4/4', grid = GRID.sixteenths): Pattern => {
  const read = parseStrokeText(text);
  return patternOfText(read.ok ? read.value : [], parseMeter(meter)!, grid);
};
const best = (text: string, school: StickingSchool, bpm = 100, pins: Pins = new Map()): string =>
  stickingText(stickings(pattern(text), { ...wish, bpm, pins }, [school]).found[0]!.pattern);

/** A random rhythm for hands: singles and unisons, any voices and heights, gaps of one to three slots, some pins. */
const anyRhythm = (most: number): fc.Arbitrary<{ pattern: Pattern; pins: Pins; bpm: number }> =>
  fc
    .record({
      moments: fc.array(
        fc.record({
          gap: fc.constantFrom(1, 1, 1, 2, 3),
          voices: fc.array(fc.constantFrom(...HAND_VOICES), { minLength: 1, maxLength: 2 }),
          level: fc.constantFrom(...LEVELS),
          pin: fc.constantFrom(null, null, null, 'R' as Hand, 'L' as Hand),
        }),
        { minLength: 1, maxLength: most },
      ),
      bpm: fc.integer({ min: 40, max: 260 }),
      meter: fc.constantFrom('4/4', '6/8', '7/8', '5/4'),
    })
    .map(({ moments, bpm, meter }) => {
      let at = 0;
      const strokes: Stroke[] = [];
      const wanted: { at: number; hand: Hand }[] = [];
      for (const m of moments) {
        m.voices.forEach((voice, i) =>
          strokes.push({
            at: ticks(at),
            limb: i === 0 ? 'R' : 'L',
            voice,
            level: m.level,
            from: { index: 0, repeat: 0, move: null },
          }),
        );
        if (m.pin) wanted.push({ at, hand: m.pin });
        at += m.gap * GRID.sixteenths;
      }
      const base = pattern('R', meter);
      const made = tidy({ ...base, length: ticks(at), strokes });
      const pins = new Map(
        wanted.flatMap((w) =>
          made.strokes.flatMap((s, i): [number, Hand][] => (s.at === w.at && s.limb === 'R' ? [[i, w.hand]] : [])),
        ),
      );
      return { pattern: made, pins, bpm };
    });

describe('the solver', () => {
  it.each(STICKING_SCHOOLS)('%s: the best cost is that of trying everything, unisons and pins included', (school) => {
    fc.assert(
      fc.property(
        anyRhythm(9),
        fc.constantFrom(...KIT_PRESETS),
        fc.constantFrom('R' as Hand, 'L' as Hand),
        (r, kit, leads) => {
          const rhythm = rhythmOf(r.pattern, r.bpm, r.pins, USUAL_SCHOOLS);
          const { events } = rhythm;
          const terms = { school, kit, profile: { ...USUAL_PROFILE, leads } };
          let least = Infinity;
          const tried: Hand[][] = [];
          const all = (i: number): void => {
            if (i === events.length) {
              least = Math.min(least, costOf(terms, rhythm, tried).cost);
              return;
            }
            for (const hands of choicesOf(events[i]!)) {
              tried.push([...hands]);
              all(i + 1);
              tried.pop();
            }
          };
          all(0);
          const [way] = bestWays(terms, rhythm, 1);
          expect(way!.cost).toBeCloseTo(least, 6);
          expect(costOf(terms, rhythm, way!.hands).cost).toBeCloseTo(way!.cost, 6);
        },
      ),
      { numRuns: 120 },
    );
  });
  it('rhythms of fourteen strokes too', () => {
    fc.assert(
      fc.property(
        anyRhythm(14).filter((r) => r.pattern.strokes.length >= 12),
        fc.constantFrom(...STICKING_SCHOOLS),
        (r, school) => {
          const rhythm = rhythmOf(r.pattern, r.bpm, r.pins, USUAL_SCHOOLS);
          const { events } = rhythm;
          const terms = { school, kit: USUAL_KIT, profile: USUAL_PROFILE };
          const ways = events.reduce((n, e) => n * choicesOf(e).length, 1);
          let least = Infinity;
          for (let n = 0; n < ways; n++) {
            let left = n;
            const hands = events.map((e) => {
              const all = choicesOf(e);
              const one = all[left % all.length]!;
              left = Math.floor(left / all.length);
              return one;
            });
            least = Math.min(least, costOf(terms, rhythm, hands).cost);
          }
          expect(bestWays(terms, rhythm, 1)[0]!.cost).toBeCloseTo(least, 6);
        },
      ),
      { numRuns: 8 },
    );
  });
  it('the k best are the k cheapest, in order, each once', () => {
    fc.assert(
      fc.property(anyRhythm(7), fc.constantFrom(...STICKING_SCHOOLS), (r, school) => {
        const rhythm = rhythmOf(r.pattern, r.bpm, r.pins, USUAL_SCHOOLS);
        const { events } = rhythm;
        const terms = { school, kit: USUAL_KIT, profile: USUAL_PROFILE };
        const costs: number[] = [];
        const tried: Hand[][] = [];
        const all = (i: number): void => {
          if (i === events.length) costs.push(costOf(terms, rhythm, tried).cost);
          else
            for (const hands of choicesOf(events[i]!)) {
              tried.push([...hands]);
              all(i + 1);
              tried.pop();
            }
        };
        all(0);
        const ways = bestWays(terms, rhythm, 20);
        costs
          .sort((a, b) => a - b)
          .slice(0, 20)
          .forEach((c, i) => expect(ways[i]!.cost).toBeCloseTo(c, 6));
        expect(new Set(ways.map((w) => JSON.stringify(w.hands))).size).toBe(ways.length);
      }),
      { numRuns: 60 },
    );
  });
});

/** Schools that need no cymbal. What keeps time is the phrase’s to say, also where a pad stands for it. */
const BARE = STICKING_SCHOOLS.filter((s) => s !== 'time hand');

interface Taught {
  readonly name: string;
  readonly text: string;
  readonly meter: string;
  readonly grid: keyof typeof GRIDS;
  readonly bpm: number;
  readonly leads: Hand;
  readonly answers: Partial<Record<StickingSchool, readonly string[]>>;
  readonly each?: readonly Voice[];
}
const GRIDS = {
  eighths: GRID.eighths,
  triplets: GRID.triplets,
  '16ths': GRID.sixteenths,
  sextuplets: GRID.sextuplets,
  '32nds': GRID.thirtySeconds,
} as const;
/** A rhythm of the table: a unison of two hand strokes is written R+R there. */
function taught({ text, meter, grid, each }: Pick<Taught, 'text' | 'meter' | 'grid' | 'each'>): Pattern {
  const plain = pattern(text.replaceAll('R+R', 'R+L'), meter, GRIDS[grid]);
  let hand = 0;
  const strokes = plain.strokes.map((s) => (isHand(s.limb) && each ? { ...s, voice: each[hand++] ?? s.voice } : s));
  return { ...plain, strokes };
}

describe('what teachers write', () => {
  const table = (TABLE.rhythms as Taught[]).flatMap((r) =>
    Object.entries(r.answers).map(([school, answers]) => [r.name, school as StickingSchool, r, answers] as const),
  );
  it.each(table)('%s, %s', (_, school, r, answers) => {
    const terms = { ...wish, bpm: r.bpm, profile: { ...USUAL_PROFILE, leads: r.leads }, many: 2, apart: 2 };
    const [first] = stickings(taught(r), terms, [school]).found;
    expect(answers.map((a) => a.replaceAll(' ', ''))).toContain(stickingText(first!.pattern).replaceAll(' ', ''));
  });
  // Others like them, by the names of rudiments and the usual ways to play a bar.
  it.each([
    ['double paradiddle', '(R! R R R R R)x2', '6/8', '16ths', 100, 'paradiddle-like', 'RLRLRRLRLRLL'],
    ['triple paradiddle', '(R! R R R R R R R)x2', '4/4', '16ths', 100, 'paradiddle-like', 'RLRLRLRRLRLRLRLL'],
    ['paradiddles in 2/4', '(R! R R R)x2', '2/4', '16ths', 90, 'paradiddle-like', 'RLRRLRLL'],
    ['five stroke rolls', '(R R R R R! - - -)x2', '4/4', '32nds', 60, 'doubles', 'RRLLRLLRRL'],
    ['seven stroke rolls', '(R R R R R R R! -)x2', '4/4', '32nds', 60, 'doubles', 'RRLLRRLRRLLRRL'],
    ['a roll in eighths, slow', '(R)x8', '4/4', 'eighths', 60, 'doubles', 'RRLLRRLL'],
    ['backbeats in a roll', '(R R R R R! R R R)x2', '4/4', '16ths', 100, 'doubles', 'RRLLRRLLRRLLRRLL'],
    ['6/8 in eighths', '(R)x6', '6/8', 'eighths', 100, 'lead hand', 'RLLRLL'],
    ['7/8 in 2 + 2 + 3', '(R)x7', '7/8', 'eighths', 120, 'lead hand', 'RLRLRLL'],
    ['7/8 in 16ths', '(R)x14', '7/8', '16ths', 90, 'lead hand', 'RLRLRLRLRLRLRL'],
    ['1 e &', '(R R R -)x4', '4/4', '16ths', 100, 'lead hand', 'RLRRLRRLRRLR'],
    ['1 e a', '(R R - R)x4', '4/4', '16ths', 100, 'lead hand', 'RLLRLLRLLRLL'],
    ['quarters', '(R)x4', '4/4', 'eighths', 100, 'lead hand', 'RLRL'],
  ] as const)('%s', (_, text, meter, grid, bpm, school, answer) => {
    const [first] = stickings(taught({ text, meter, grid }), { ...wish, bpm }, [school]).found;
    expect(stickingText(first!.pattern).replaceAll(' ', '')).toBe(answer);
  });
  it('time hand keeps the ride, the other hand plays the rest, leading left too', () => {
    const ride = taught({
      text: 'R R R R R R R R',
      meter: '4/4',
      grid: 'eighths',
      each: ['ride', 'snare', 'ride', 'snare', 'ride', 'ride', 'snare', 'ride'],
    });
    expect(stickingText(stickings(ride, wish, ['time hand']).found[0]!.pattern)).toBe('R L R L R R L R');
    const left = { ...wish, profile: { ...USUAL_PROFILE, leads: 'L' as const } };
    expect(stickingText(stickings(ride, left, ['time hand']).found[0]!.pattern)).toBe('L R L R L L R L');
    expect(stickings(pattern('(R)x8'), wish, ['time hand'])).toMatchObject({
      found: [],
      silent: [{ school: 'time hand', words: 'No hi-hat or cymbal here for a hand to keep time on.' }],
    });
  });
});

describe('schools', () => {
  it('give one rhythm one answer, whatever grid it is written on', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('R', 'R', 'R!', 'r', '-'), { minLength: 4, maxLength: 16 }),
        fc.constantFrom('4/4', '6/8', '7/8', '3/4', '5/8'),
        fc.constantFrom(...STICKING_SCHOOLS),
        fc.integer({ min: 50, max: 160 }),
        (letters, meter, school, bpm) => {
          const plain = pattern(letters.join(' '), meter, GRID.eighths);
          const fine = pattern(letters.map((l) => `${l} -`).join(' '), meter, GRID.sixteenths);
          const said = (p: Pattern): (string | number)[][] =>
            stickings(p, { ...wish, bpm, many: 3 }, [school]).found.map((f) => [stickingText(f.pattern), f.cost]);
          expect(said(fine)).toEqual(said(plain));
        },
      ),
      { numRuns: 150 },
    );
  });
  it('alternating alternates, round the loop, or says where it cannot: by walking the letters', () => {
    fc.assert(
      fc.property(anyRhythm(14), ({ pattern: p, pins, bpm }) => {
        const [one] = stickings(p, { ...wish, bpm, pins }, ['alternating']).found;
        const letters = stickingText(one!.pattern).split(' ');
        const again = letters.filter(
          (l, i) => l.length === 1 && l === letters[(i + letters.length - 1) % letters.length],
        );
        const said = one!.words.some((w) => w.startsWith('not strict'));
        expect(said).toBe(again.length > 0);
        // With free hands only an odd number, with nothing between, has to do it, and once, into the beginning.
        if (pins.size === 0 && letters.every((l) => l.length === 1)) {
          expect(again.length).toBe(letters.length % 2);
          if (again.length > 0) expect(letters[0]).toBe(letters.at(-1));
        }
      }),
      { numRuns: 150 },
    );
  });
  it('say of themselves what counting the letters says', () => {
    fc.assert(
      fc.property(anyRhythm(12), fc.constantFrom(...STICKING_SCHOOLS), ({ pattern: p, pins, bpm }, school) => {
        for (const one of stickings(p, { ...wish, bpm, pins, many: 3 }, [school]).found) {
          const letters = stickingText(one.pattern).split(' ');
          const n = letters.length;
          const at = (i: number): string => letters[((i % n) + n) % n]!;
          const same = (i: number): boolean => at(i).length === 1 && at(i) === at(i - 1);
          const words = one.words.join(' · ');
          expect(words).toContain(`right hand ${letters.join('').split('R').length - 1}, `);
          if (school !== 'time hand') {
            const thirds = letters.filter((_, i) => same(i) && same(i - 1)).length;
            expect(words.includes('3 or more in a row')).toBe(thirds > 0);
            if (thirds > 0) expect(words).toContain(`${thirds} stroke`);
          }
          expect(one.fits).toBe(one.breaksAt === null || bpm <= one.breaksAt);
        }
      }),
      { numRuns: 150 },
    );
  });
  it('what holds nowhere at a tempo says so, with the tempo where it does', () => {
    const { silent } = stickings(pattern('(R)x8', '4/4', GRID.thirtySeconds), { ...wish, bpm: 200 }, ['doubles']);
    expect(silent[0]?.words).toMatch(/^Too fast for this style at 200\. Its best reaches 10\d\.$/);
  });
  it('the same letters as a school before are known', () => {
    const { found } = stickings(pattern('(R)x16'), wish);
    const of = (school: StickingSchool) => found.find((f) => f.school === school)!;
    expect(sameAs(found, of('lead hand'))).toBe('alternating');
    expect(sameAs(found, of('doubles'))).toBeNull();
  });
  it('paradiddle-like keeps the accents on one hand when they come every third stroke', () => {
    const stuck = stickings(pattern('R! R R R! R R R! R R R! R R'), wish, ['paradiddle-like']).found[0]!.pattern;
    expect(new Set(stuck.strokes.filter((s) => s.level === 'accent').map((s) => s.limb)).size).toBe(1);
  });
  it('a left-leading drummer gets the lead hand on the left', () =>
    expect(
      stickingText(
        stickings(pattern('R R R R'), { ...wish, bpm: 80, profile: { ...USUAL_PROFILE, leads: 'L' } }, ['lead hand'])
          .found[0]!.pattern,
      ),
    ).toBe('L R L R'));
  it('pins hold', () =>
    expect(
      best(
        'R R R R',
        'lead hand',
        80,
        new Map([
          [0, 'L'],
          [1, 'L'],
        ]),
      ),
    ).toMatch(/^L L/));
});

describe('what cannot be stuck', () => {
  it('three strokes at once are said by count, with what could give', () => {
    const three = tidy({ ...pattern('R R'), strokes: [...pattern('R R').strokes] });
    const strokes: Stroke[] = [
      ...three.strokes,
      { ...three.strokes[1]!, limb: 'L' },
      { ...three.strokes[1]!, voice: 'ride' },
    ];
    const { found, unplayable } = stickings({ ...three, strokes }, wish);
    expect(found).toEqual([]);
    expect(unplayable[0]?.words).toBe('3 strokes for two hands at the e of 1. Remove one, or give one to a foot.');
  });
  it('one hand pinned in two places is said by count', () => {
    const both = pattern('R+L R');
    const { unplayable } = stickings(both, {
      ...wish,
      pins: new Map([
        [0, 'R'],
        [1, 'R'],
      ]),
    });
    expect(unplayable[0]?.words).toContain('One hand is pinned to two pieces at beat 1.');
  });
  it('what is too fast for any sticking says so and where, and still gives the least bad', () => {
    const [one] = stickings(pattern('(R)x8', '4/4', GRID.thirtySeconds), { ...wish, bpm: 300 }, ['alternating']).found;
    expect(one?.fits).toBe(false);
    expect(one?.words.join(' ')).toContain('too fast just after');
    expect(one?.breaksAt).toBeLessThan(300);
  });
  it('a kit that lacks voices is stuck as it is played there, and breaks where that breaks', () => {
    fc.assert(
      fc.property(
        anyRhythm(10),
        fc.constantFrom(...KIT_PRESETS),
        fc.constantFrom(...BARE),
        ({ pattern: p, pins, bpm }, kit, school) => {
          const on = { ...wish, kit, bpm, pins, many: 3 };
          const said = (q: Pattern) => stickings(q, on, [school]).found.map((s) => [s.limbs, s.cost, s.breaksAt]);
          expect(said(p)).toEqual(said(revoice(p, kit).pattern));
        },
      ),
      { numRuns: 200 },
    );
  });
  it('no strokes for hands: nothing to stick, nothing wrong', () => {
    const { found, unplayable } = stickings(pattern('K - K -'), wish, ['alternating']);
    expect(unplayable).toEqual([]);
    expect(found[0]?.load).toEqual({ R: 0, L: 0 });
  });
});

describe('taking a sticking', () => {
  it('turns the recipe into exactly the phrase that was shown; voices, heights and feet stay', () => {
    fc.assert(
      fc.property(fc.constantFrom(...BARE), fc.integer({ min: 60, max: 200 }), (school, bpm) => {
        const built = build({
          source: { kind: 'typed', text: 'R! l r fR K L+K r R! l K', meter: '4/4', grid: 1260 },
          moves: [],
        });
        const [one] = stickings(built.pattern, { ...wish, bpm }, [school]).found;
        expect(withLimbs(built.pattern, one!.limbs)).toEqual(one!.pattern);
        const next = withEdits(built, stickingEdits(built.pattern, one!.pattern));
        const strip = (p: Pattern) =>
          p.strokes.map(({ at, limb, voice, level, ornament }) => ({ at, limb, voice, level, ornament }));
        expect(strip(build(next!).pattern)).toEqual(strip(one!.pattern));
      }),
      { numRuns: 40 },
    );
  });
  it('answers shown beside each other differ by as many strokes as asked, the best first', () => {
    const { found } = stickings(pattern('(R)x12'), { ...wish, many: 3, apart: 3 }, ['doubles']);
    expect(found).toHaveLength(3);
    expect(found[0]!.cost).toBeLessThanOrEqual(found[1]!.cost);
    const [a, b] = found.map((f) => stickingText(f.pattern).split(' '));
    expect(a!.filter((h, i) => h !== b![i]).length).toBeGreaterThanOrEqual(3);
  });
});
