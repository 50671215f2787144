import fc from 'fast-check';
import { GRID, parseMeter, ticks, USUAL_SCHOOLS } from '../time';
import { HAND_VOICES, LEVELS, parseStrokeText, type Hand, type Stroke } from '../stroke';
import { patternOfText, tidy, type Pattern } from '../pattern';
import { build, withEdits } from '../recipe';
import { KIT_PRESETS, revoice, USUAL_KIT } from '../kit';
import { USUAL_PROFILE } from '../reach';
import {
  bestWays,
  choicesOf,
  costOf,
  limbed,
  rhythmOf,
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
          const { events } = rhythmOf(r.pattern, r.bpm, r.pins, USUAL_SCHOOLS);
          const terms = { school, kit, profile: { ...USUAL_PROFILE, leads } };
          let least = Infinity;
          const tried: Hand[][] = [];
          const all = (i: number): void => {
            if (i === events.length) {
              least = Math.min(least, costOf(terms, events, tried).cost);
              return;
            }
            for (const hands of choicesOf(events[i]!)) {
              tried.push([...hands]);
              all(i + 1);
              tried.pop();
            }
          };
          all(0);
          const [way] = bestWays(terms, events, 1);
          expect(way!.cost).toBeCloseTo(least, 6);
          expect(costOf(terms, events, way!.hands).cost).toBeCloseTo(way!.cost, 6);
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
          const { events } = rhythmOf(r.pattern, r.bpm, r.pins, USUAL_SCHOOLS);
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
            least = Math.min(least, costOf(terms, events, hands).cost);
          }
          expect(bestWays(terms, events, 1)[0]!.cost).toBeCloseTo(least, 6);
        },
      ),
      { numRuns: 8 },
    );
  });
  it('the k best are the k cheapest, in order, each once', () => {
    fc.assert(
      fc.property(anyRhythm(7), fc.constantFrom(...STICKING_SCHOOLS), (r, school) => {
        const { events } = rhythmOf(r.pattern, r.bpm, r.pins, USUAL_SCHOOLS);
        const terms = { school, kit: USUAL_KIT, profile: USUAL_PROFILE };
        const costs: number[] = [];
        const tried: Hand[][] = [];
        const all = (i: number): void => {
          if (i === events.length) costs.push(costOf(terms, events, tried).cost);
          else
            for (const hands of choicesOf(events[i]!)) {
              tried.push([...hands]);
              all(i + 1);
              tried.pop();
            }
        };
        all(0);
        const ways = bestWays(terms, events, 20);
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

describe('schools', () => {
  it.each([
    ['alternating', 'R R R R R R', 100, 'R L R L R L'],
    ['lead hand', 'R R R R R R R R', 80, 'R L R L R L R L'],
    ['lead hand', 'R - R R R - R R', 80, 'R R L R R L'],
    ['paradiddle-like', 'R! R R R R! R R R', 100, 'R L R L R L R L'],
  ] as const)('%s sticks “%s” at %d as %s', (school, text, bpm, answer) =>
    expect(best(text, school, bpm)).toBe(answer),
  );
  it('doubles come where one hand cannot keep up singles', () => {
    expect(best('(R)x16', 'doubles', 130)).toMatch(/^(R R L L ){3}R R L L$|^(L L R R ){3}L L R R$/);
    expect(best('(R)x8', 'doubles', 60)).toMatch(/^(R L ?)+$|^(L R ?)+$/);
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
    expect(unplayable[0]?.words).toBe('3 strokes for two hands on the e of 1. Leave one out, or give one to a foot.');
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
    expect(unplayable[0]?.words).toContain('One hand is wanted in two places on the 1.');
  });
  it('what is too fast for any sticking says so and where, and still gives the least bad', () => {
    const [one] = stickings(pattern('(R)x8', '4/4', GRID.thirtySeconds), { ...wish, bpm: 300 }, ['alternating']).found;
    expect(one?.fits).toBe(false);
    expect(one?.words.join(' ')).toContain('too fast on');
    expect(one?.breaksAt).toBeLessThan(300);
  });
  it('a kit that lacks voices is stuck as it is played there, and breaks where that breaks', () => {
    fc.assert(
      fc.property(
        anyRhythm(10),
        fc.constantFrom(...KIT_PRESETS),
        fc.constantFrom(...STICKING_SCHOOLS),
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
      fc.property(fc.constantFrom(...STICKING_SCHOOLS), fc.integer({ min: 60, max: 200 }), (school, bpm) => {
        const built = build({
          source: { kind: 'typed', text: 'R! l r fR K L+K r R! l K', meter: '4/4', grid: 1260 },
          moves: [],
        });
        const [one] = stickings(built.pattern, { ...wish, bpm }, [school]).found;
        expect(limbed(built.pattern, one!.limbs)).toEqual(one!.pattern);
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
