import fc from 'fast-check';
import { anyRecipe } from '../testing/arbitraries';
import { build, type Recipe } from '../recipe';
import { barTicks, meter } from '../time';
import {
  CLICK_KINDS,
  DYNAMICS,
  eventsIn,
  programOf,
  retempo,
  sampleAt,
  secondsAt,
  silencesOf,
  tickAt,
  type Anchor,
  syllableSaid,
  tickOfRecord,
} from '.';

const typed = (
  text: string,
  meter = '4/4',
  grid = 1260,
  swing?: { on: 'eighths' | '16ths'; ratio: number },
): Recipe => ({
  source: { kind: 'typed', text, meter, grid, ...(swing ? { swing } : {}) },
  moves: [],
});
const program = (r: Recipe, click: 'none' | 'beats' | 'bar' = 'none', countInBars = 0) =>
  programOf(build(r).pattern, { click, countInBars });

describe('eventsIn', () => {
  it('ranges that meet give every event once, however they are cut', () => {
    fc.assert(
      fc.property(anyRecipe, fc.array(fc.integer({ min: -50_000, max: 200_000 }), { maxLength: 20 }), (r, cuts) => {
        const prog = programOf(build(r).pattern, { click: 'beats', countInBars: 1 });
        if (prog.loop < 1000) return;
        const edges = [-50_000, ...[...cuts].sort((a, b) => a - b), 200_000];
        const parts = edges.slice(1).flatMap((b, i) => eventsIn(prog, edges[i] ?? 0, b));
        const whole = eventsIn(prog, -50_000, 200_000);
        const key = (e: (typeof whole)[number]): string => JSON.stringify(e);
        expect(parts.map(key).sort()).toEqual(whole.map(key).sort());
      }),
      { numRuns: 100 },
    );
  });

  it('a five-slot cell runs over the bar while the click keeps to it', () => {
    const events = eventsIn(program(typed('R l l R K'), 'bar'), 0, 5 * 20160);
    expect(events.filter((e) => e.sound === 'kick')).toHaveLength(16);
    expect(events.filter((e) => e.sound === 'click-bar').map((e) => e.at)).toEqual([0, 20160, 40320, 60480, 80640]);
  });

  it('the count-in is every beat, before zero only, and the phrase waits for it', () => {
    const events = eventsIn(program(typed('R L R L'), 'none', 1), -30_000, 20160);
    expect(events.filter((e) => e.at < 0).map((e) => [e.at, e.sound])).toEqual([
      [-20160, 'click-bar'],
      [-15120, 'click-beat'],
      [-10080, 'click-beat'],
      [-5040, 'click-beat'],
    ]);
    expect(events.filter((e) => e.at >= 0).every((e) => e.sound === 'snare')).toBe(true);
  });

  it('7/8 leans on its groups', () => {
    const events = eventsIn(program(typed('R', '7/8', 2520), 'beats'), 0, 17640).filter((e) => e.limb === null);
    expect(events.map((e) => e.sound)).toEqual([
      'click-bar',
      'click-beat',
      'click-group',
      'click-beat',
      'click-group',
      'click-beat',
      'click-beat',
    ]);
  });

  it('a flam has one soft stroke of the other hand before it, a ruff three', () => {
    const graces = eventsIn(program(typed('fR! tL!')), 0, 2520).filter((e) => e.offset < 0);
    expect(graces.map((e) => e.limb)).toEqual(['L', 'R', 'R', 'R']);
    expect(graces.every((e) => e.velocity < 40)).toBe(true);
  });

  it('swing moves the off-16ths of every loop by their place in the bar, not in the cell', () => {
    const at = eventsIn(program(typed('R L R', '4/4', 1260, { on: '16ths', ratio: 2 / 3 })), 0, 7560).map((e) => e.at);
    expect(at).toEqual([0, 1680, 2520, 4200, 5040, 6720]);
  });

  it('a fill from 3 comes round on 3', () => {
    const r: Recipe = {
      ...typed('R L R L'),
      moves: [
        {
          id: 'f',
          on: true,
          move: 'fit',
          params: { space: { bars: 1 }, start: '3', mirrored: false, close: { kind: 'cut' } },
        },
      ],
    };
    const p = build(r).pattern;
    expect(programOf(p, { click: 'none', countInBars: 0 }).loop).toBe(barTicks(p.meter));
    expect(eventsIn(program(r), 0, 2 * 20160).map((e) => e.at % 20160)[0]).toBe(10080);
  });
});

describe('the clock', () => {
  // What sounds where, in exact whole-number arithmetic: round(tick · 60 · rate / (bpm · 5040)), tempos in tenths.
  const exact = (tick: number, tenths: number, rate: number): number => {
    const [n, d] = [BigInt(tick) * 600n * BigInt(rate), BigInt(tenths) * 5040n];
    return Number((2n * n + d) / (2n * d));
  };
  it.each([617, 900, 1040, 1999])('0 samples off over 64 bars at %d tenths of a beat a minute', (tenths) => {
    const prog = program(typed('R l l R K', '7/8'));
    const anchor: Anchor = { tick: 0, seconds: 0, bpm: tenths / 10 };
    for (const rate of [44100, 48000]) {
      const off = eventsIn(prog, 0, 64 * 17640).map(
        (e) => sampleAt(secondsAt(anchor, e.at), rate) - exact(e.at, tenths, rate),
      );
      expect(off.length).toBeGreaterThan(800);
      expect(off.every((o) => o === 0)).toBe(true);
    }
  });

  it('a tempo change leaves no gap and keeps what came before', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 20, max: 400 }),
        fc.integer({ min: 20, max: 400 }),
        fc.integer({ min: 0, max: 1_000_000 }),
        (from, to, tick) => {
          const anchor: Anchor = { tick: 0, seconds: 3, bpm: from };
          const next = retempo(anchor, tick, to);
          expect(secondsAt(next, tick)).toBe(secondsAt(anchor, tick));
          expect(tickAt(next, secondsAt(next, tick + 5040))).toBeCloseTo(tick + 5040, 5);
        },
      ),
    );
  });
});

describe('clicks', () => {
  const clicks = (meter: string, click: (typeof CLICK_KINDS)[number], bars = 1): number[] => {
    const { pattern } = build(typed('- -', meter));
    return eventsIn(
      programOf({ ...pattern, length: barTicks(pattern.meter) }, { click, countInBars: 0 }),
      0,
      bars * barTicks(pattern.meter),
    ).map((e) => e.at);
  };
  it.each([
    ['4/4', 'beats', [0, 5040, 10080, 15120]],
    ['4/4', 'off-beats', [2520, 7560, 12600, 17640]],
    ['4/4', 'two-and-four', [5040, 15120]],
    ['6/8', 'two-and-four', [7560]],
    ['4/4', 'bar', [0]],
    ['7/8', 'none', []],
  ] as const)('%s, %s', (meter, click, at) => expect(clicks(meter, click)).toEqual(at));
  it('every slot clicks, the beats louder', () => {
    const { pattern } = build(typed('- -'));
    const events = eventsIn(programOf(pattern, { click: 'subdivision', countInBars: 0 }), 0, 20160);
    expect(events).toHaveLength(16);
    expect(events[1]!.velocity).toBeLessThan(events[0]!.velocity);
  });
  it('falls silent for m bars of n + m, and comes back', () => {
    const { pattern } = build(typed('- -'));
    const program = programOf(pattern, { click: 'bar', countInBars: 0, gap: { sounding: 2, silent: 1 } });
    expect(eventsIn(program, 0, 6 * 20160).map((e) => e.at / 20160)).toEqual([0, 1, 3, 4]);
  });
});

describe('a part of a phrase', () => {
  it('goes round by itself, with its own part of the click, swung by its place in the bar', () => {
    const { pattern } = build(typed('R L R L R L R L', '4/4', 1260, { on: '16ths', ratio: 2 / 3 }));
    const program = programOf(pattern, { click: 'beats', countInBars: 0, range: { from: 3 * 1260, until: 6 * 1260 } });
    expect([program.loop, program.origin]).toEqual([3 * 1260, 3 * 1260]);
    const events = eventsIn(program, 0, 2 * program.loop);
    expect(events.filter((e) => e.limb !== null).map((e) => e.at)).toEqual([420, 1260, 2940, 4200, 5040, 6720]);
    expect(events.filter((e) => e.limb === null).map((e) => e.at)).toEqual([1260, 5040]);
  });
});

describe('parts, counts and loudness', () => {
  const pattern = (text: string, bar = '4/4', grid = 1260) => build(typed(text, bar, grid)).pattern;
  it('every event belongs to a part: the roles of the phrase, the click, the counts', () => {
    const prog = programOf(pattern('R! l K r'), { click: 'beats', countInBars: 1, counts: 'tones' });
    const events = eventsIn(prog, -20160, 20160);
    expect(new Set(events.map((e) => e.part))).toEqual(new Set(['primary', 'texture', 'click', 'counts']));
    expect(events.every((e) => (e.limb === null) === (e.part === 'click' || e.part === 'counts'))).toBe(true);
    // The count-in is the click's.
    expect(events.filter((e) => e.at < 0).every((e) => e.part === 'click')).toBe(true);
  });
  it.each([
    ['4/4', 1260, 'count-1 count-slot count-half count-slot count-2'],
    ['4/4', 2520, 'count-1 count-half count-2 count-half count-3'],
    ['6/8', 2520, 'count-1 count-slot count-slot count-2 count-slot'],
    ['7/8', 2520, 'count-1 count-2 count-3 count-4 count-5'],
    ['4/4', 4032, 'count-1 count-2 count-3 count-4'],
  ])('%s on slots of %d counts %s', (bar, grid, wanted) => {
    const prog = programOf(pattern('R', bar, grid), { click: 'none', countInBars: 0, counts: 'tones' });
    const tones = eventsIn(prog, 0, barTicks(build(typed('R', bar, grid)).pattern.meter)).filter(
      (e) => e.part === 'counts',
    );
    expect(
      tones
        .map((e) => e.sound)
        .join(' ')
        .startsWith(wanted),
    ).toBe(true);
  });
  it.each([
    ['4/4', 1260, 'one e and a two e and a three e and a four e and a'],
    ['4/4', 1680, 'one trip let two trip let three trip let four trip let'],
    [
      '4/4',
      840,
      'one trip let and trip let two trip let and trip let three trip let and trip let four trip let and trip let',
    ],
    ['4/4', 630, 'one e and a two e and a three e and a four e and a'],
    ['6/8', 2520, 'one and a two and a'],
    ['7/8', 2520, 'one two three four five six seven'],
    ['4/4', 1008, 'one two three four five two two three four five three two three four five four two three four five'],
    ['4/4', 4032, 'one two three four'],
  ])('%s on slots of %d is spoken “%s”, each over when the next begins', (bar, grid, wanted) => {
    const { meter: m } = build(typed('R', bar, grid)).pattern;
    const prog = programOf(pattern('R', bar, grid), { click: 'none', countInBars: 0, counts: 'spoken' });
    const spoken = eventsIn(prog, 0, barTicks(m)).filter((e) => e.part === 'counts');
    expect(spoken.map((e) => syllableSaid(e.sound)).join(' ')).toBe(wanted);
    spoken.forEach((e, i) => expect(e.at + (e.room ?? 0)).toBe(spoken[i + 1]?.at ?? barTicks(m)));
  });
  it('is counted in the user’s school', () => {
    const prog = programOf(pattern('R', '4/4', 1680), {
      click: 'none',
      countInBars: 0,
      counts: 'spoken',
      schools: { triplets: 'and-a', sextuplets: 'ta-la' },
    });
    const spoken = eventsIn(prog, 0, 5040).map((e) => syllableSaid(e.sound) ?? '');
    expect(spoken.filter(Boolean)).toEqual(['one', 'and', 'a']);
  });
  it('the sung line is sung: a syllable to each moment of the phrase, by the loudest stroke, with own syllables', () => {
    const p = pattern('R! l K R+K');
    const prog = programOf(p, { click: 'none', countInBars: 0, counts: 'sung', sung: { 'kick tap': 'Dum' } });
    const sung = eventsIn(prog, 0, 2 * prog.loop).filter((e) => e.part === 'counts');
    expect(sung.slice(0, 4).map((e) => [e.at, syllableSaid(e.sound)])).toEqual([
      [0, 'tah'],
      [1260, 'di'],
      [2520, 'dum'],
      [3780, 'ta'],
    ]);
    expect(sung).toHaveLength(8);
    expect(sung.map((e) => e.velocity > 100)).toEqual([true, false, false, false, true, false, false, false]);
  });
  it('a chosen stretch is counted as the bar counts it', () => {
    const prog = programOf(pattern('R L R L R L R L'), {
      click: 'none',
      countInBars: 0,
      counts: 'tones',
      range: { from: 5040, until: 10080 },
    });
    expect(
      eventsIn(prog, 0, 5040)
        .filter((e) => e.part === 'counts')
        .map((e) => e.sound),
    ).toEqual(['count-2', 'count-slot', 'count-half', 'count-slot']);
  });
  it('soft is softer and loud louder, never beyond what can be, and accents stay above ghosts', () => {
    const by = DYNAMICS.map((dynamic) =>
      eventsIn(programOf(pattern('R! l R L'), { click: 'none', countInBars: 0, dynamic }), 0, 5040).map(
        (e) => e.velocity,
      ),
    );
    by[0]!.forEach((v, i) => {
      expect(v).toBeLessThan(by[1]![i]!);
      expect(by[1]![i]!).toBeLessThanOrEqual(by[2]![i]!);
      expect(v).toBeGreaterThanOrEqual(1);
      expect(by[2]![i]!).toBeLessThanOrEqual(127);
    });
    by.forEach(([accent, ghost, tap]) => expect(accent! > tap! && tap! > ghost!).toBe(true));
  });
  it('a click is silent where its program has no click, and nowhere else', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 4 }),
        fc.integer({ min: 0, max: 4 }),
        fc.integer({ min: 1, max: 24 }),
        (sounding, silent, bars) => {
          const prog = programOf(pattern('R'), { click: 'beats', countInBars: 0, gap: { sounding, silent } });
          const silences = silencesOf(meter(4, 4), { sounding, silent }, 120, bars);
          for (let bar = 0; bar < bars; bar++) {
            const clicks = eventsIn(prog, bar * 20160, (bar + 1) * 20160).filter((e) => e.part === 'click').length;
            const middle = bar * 2 + 1;
            expect(silences.some((s) => middle >= s.from && middle < s.until)).toBe(clicks === 0);
          }
        },
      ),
    );
    expect(silencesOf(meter(4, 4), null, 120, 8)).toEqual([]);
  });
  it('a record takes the place of the strokes, beat after beat without gap or overlap, in every meter', () => {
    for (const [beats, unit, bars] of [
      [4, 4, 2],
      [7, 8, 3],
      [6, 8, 1],
      [5, 16, 4],
      [3, 2, 1],
    ] as const) {
      const m = meter(beats, unit);
      const p = { ...pattern('R L K'), meter: m };
      const whole = bars * barTicks(m);
      const found = eventsIn(programOf(p, { click: 'beats', countInBars: 1, record: bars }), -whole, 3 * whole);
      const record = found.filter((e) => e.part === 'record');
      expect(found.filter((e) => e.limb !== null)).toEqual([]);
      expect(record[0]?.at).toBe(0);
      let at = 0;
      for (const e of record) {
        expect([e.at, tickOfRecord(e.sound)]).toEqual([at, at % whole]);
        at += e.room ?? 0;
      }
      expect(at).toBe(3 * whole);
    }
    expect(tickOfRecord('kick')).toBeNull();
  });
});
