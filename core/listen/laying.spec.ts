import fc from 'fast-check';
import { meter, STRAIGHT, ticks } from '../time';
import { chanceOf } from '../take';
import {
  barsOf,
  bent,
  besideRecord,
  bpmAt,
  evenLay,
  inMeter,
  layFromTaps,
  layOf,
  moved,
  paced,
  peaksOf,
  readStrokes,
  recounted,
  roundOf,
  layMoment,
  slower,
  layTick,
  ticksIn,
  unsureOf,
  waveBetween,
  type GridChoice,
  type HeardKind,
  type TakenOnset,
} from '.';

const RATE = 44_100;

describe('a grid on a recording', () => {
  const M = meter(4, 4);

  it('goes there and back at every place, however it was bent', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 40, max: 220 }),
        fc.array(fc.tuple(fc.integer({ min: -4, max: 12 }), fc.double({ min: -0.2, max: 0.2, noNaN: true })), {
          maxLength: 5,
        }),
        fc.integer({ min: -50_000, max: 250_000 }),
        (bpm, bends, tick) => {
          let lay = evenLay(bpm, 2, M);
          for (const [bar, by] of bends) lay = bent(lay, bar * 20_160, layMoment(lay, bar * 20_160) + by) ?? lay;
          expect(layTick(lay, layMoment(lay, tick))).toBeCloseTo(tick, 3);
          expect(lay.marks.slice(1).every((m, i) => m.at > (lay.marks[i]?.at ?? 0))).toBe(true);
        },
      ),
    );
  });

  it('that is bent at one bar line leaves the lines beside it where they are', () => {
    const lay = evenLay(120, 0, M);
    const other = bent(lay, 40_320, 4.1);
    if (!other) throw new Error('not bent');
    expect([0, 20_160, 40_320, 60_480, 80_640].map((t) => Math.round(layMoment(other, t) * 1000))).toEqual([
      0, 2000, 4100, 6000, 8000,
    ]);
    expect(bent(lay, 40_320, 2.0)).toBeNull();
  });

  it('follows proposed beats and taps', () => {
    const beats = Array.from({ length: 13 }, (_, i) => 1 + i * 0.5 + (i > 6 ? (i - 6) * 0.01 : 0));
    const lay = layOf({ bpm: 120, beats, first: 2, struck: 1 }, M);
    if (!lay) throw new Error('no grid');
    expect(layMoment(lay, 0)).toBeCloseTo(2, 6);
    expect(layMoment(lay, 20_160)).toBeCloseTo(4, 2);
    const taps = [3.02, 3.49, 4.01, 4.48, 5.02];
    const tapped = layFromTaps(
      taps,
      [3, 3.5, 4, 4.5, 5].map((at) => ({ at, sure: 1 })),
      M,
    );
    if (!tapped) throw new Error('no taps');
    expect(bpmAt(tapped, 0)).toBeCloseTo(120, 1);
    expect(layMoment(tapped, 0)).toBeCloseTo(3, 3);
    expect(layFromTaps([1, 1.01, 1.02], [], M)).toBeNull();
  });

  it('tapped along a tempo that moves, it lies on every beat; taps that only stray bend nothing much', () => {
    for (const seed of [1, 2, 3]) {
      const chance = chanceOf(seed);
      const beats = [1];
      for (let i = 0; i < 32; i++) beats.push((beats[i] ?? 0) + 60 / (100 * (1 + (0.06 * i) / 32)));
      const taps = beats.map((b) => b + 0.02 * chance.normal());
      const strokes = beats.filter((_, i) => i % 4 !== 3).map((at) => ({ at, sure: 1 }));
      const lay = layFromTaps(taps, strokes, M);
      if (!lay) throw new Error('no taps');
      beats.forEach((b, i) => expect(Math.abs(layMoment(lay, i * 5040) - b)).toBeLessThan(0.025));
      const even = Array.from({ length: 24 }, (_, i) => 2 + i * 0.6);
      const strayed = layFromTaps(
        even.map((b) => b + 0.02 * chance.normal()),
        [],
        M,
      );
      if (!strayed) throw new Error('no taps');
      even.forEach((b, i) => expect(Math.abs(layMoment(strayed, i * 5040) - b)).toBeLessThan(0.035));
    }
  });

  it('is counted twice as fast, in another meter, moved, with its first 1 in place', () => {
    const lay = evenLay(80, 1, M);
    const twice = recounted(lay, 2);
    expect([twice && bpmAt(twice, 0), twice && layMoment(twice, 0)].map((x) => Math.round(Number(x)))).toEqual([
      160, 1,
    ]);
    expect(Math.round(bpmAt(inMeter(lay, meter(6, 8)), 0))).toBe(80);
    expect(layMoment(moved(lay, 0.25, 5040), 0)).toBeCloseTo(2, 6);
    expect(recounted(evenLay(300, 1, M), 8)).toBeNull();
    expect(barsOf(lay, 3.9, 7.1)).toEqual({ first: 1, many: 1 });
  });
});

describe('what was heard on a grid', () => {
  const M = meter(4, 4);
  const choice: GridChoice = { grid: ticks(1260), feel: STRAIGHT, beats: [], mixed: 0, mean: 0, worst: 0 };
  const onset = (at: number, kinds: readonly HeardKind[], more: Partial<TakenOnset> = {}): TakenOnset => ({
    at,
    sure: 0.99,
    loud: -20,
    proposal: { kinds, sure: 0.95 },
    ...more,
  });
  const stretch = { lay: evenLay(60, 0, M), first: 0, many: 1 };

  it('lies on its slots, with ghosts and accents by loudness and what the player said', () => {
    const onsets = [
      onset(0.01, ['kick']),
      onset(0.5, ['drum']),
      onset(1, ['drum'], { loud: -12 }),
      onset(1.75, ['drum'], { loud: -34 }),
      onset(2.25, ['cymbal'], { proposal: { kinds: ['cymbal'], sure: 0.5 } }),
      onset(3, ['drum']),
    ];
    const read = readStrokes(stretch, choice, onsets, [
      { at: 3, gone: true },
      { at: 2.25, kinds: ['kick'], hand: 'L' },
    ]);
    expect(read.map((s) => [s.at, s.kinds.join(), s.level])).toEqual([
      [0, 'kick', 'tap'],
      [2520, 'drum', 'tap'],
      [5040, 'drum', 'accent'],
      [8820, 'drum', 'ghost'],
      [11_340, 'kick', 'tap'],
    ]);
    expect(read[0]?.off).toBeCloseTo(10, 6);
    expect(unsureOf(readStrokes(stretch, choice, onsets, [])).map((s) => s.at)).toEqual([11_340]);
  });

  it('has a cymbal that keeps time go on under drums, as unsure', () => {
    const read = readStrokes(
      stretch,
      choice,
      Array.from({ length: 8 }, (_, i) => onset(i / 2, i === 2 || i === 6 ? ['drum'] : ['cymbal'])),
      [],
    );
    expect(read.map((s) => s.kinds.join('+'))).toEqual([
      'cymbal',
      'cymbal',
      'drum+cymbal',
      'cymbal',
      'cymbal',
      'cymbal',
      'drum+cymbal',
      'cymbal',
    ]);
    expect(unsureOf(read)).toHaveLength(2);
    // A lick without time has none put into it.
    const lick = readStrokes(
      stretch,
      choice,
      [0, 0.25, 0.5, 0.75].map((at, i) => onset(at, [i === 1 ? 'cymbal' : 'drum'])),
      [],
    );
    expect(lick.filter((s) => s.kinds.includes('cymbal'))).toHaveLength(1);
  });

  it('counts from the bar that is read', () => {
    expect(
      ticksIn({ ...stretch, first: 1 }, [{ at: 3.99 }, { at: 4 }, { at: 5 }, { at: 8.2 }]).map(Math.round),
    ).toEqual([0, 0, 5040]);
  });
});

describe('a cell that comes round', () => {
  it('is the shortest one, by plain comparison of every slot', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 9 }), fc.integer({ min: 0, max: 9999 }), (length, seed) => {
        const chance = chanceOf(seed);
        const cell = Array.from({ length }, () => ['R', 'L', 'K', ''][Math.floor(chance.next() * 4)] ?? '');
        const keys = Array.from({ length: 48 }, (_, i) => cell[i % length] ?? '');
        const found = roundOf(keys, 1260, meter(4, 4));
        // Plainly: the least shift by which everything comes back, of cells that are not of one thing.
        let least = 0;
        for (let p = 2; p <= 24 && least === 0; p++) {
          const pairs = keys
            .slice(0, 48 - p)
            .map((k, i) => [k, keys[i + p]] as const)
            .filter(([a, b]) => a !== '' || b !== '');
          const same = pairs.filter(([a, b]) => a === b).length;
          if (pairs.length > 0 && same / pairs.length >= 0.88 && new Set(keys.slice(0, p)).size > 1) least = p;
        }
        expect(found?.length ?? 0).toBe(least * 1260);
      }),
    );
  });

  it('is said in beats and bars', () => {
    const cell = ['R', 'L', 'R', 'R', 'L', 'R', 'L', 'L', 'K', 'R', 'L', 'K'];
    const keys = Array.from({ length: 48 }, (_, i) => cell[i % 12] ?? '');
    expect(roundOf(keys, 1260, meter(4, 4))?.words).toBe('3 beats long, the same again after 3 bars');
  });
});

describe('a record beside what was written', () => {
  it('pairs each stroke once, and names what differs', () => {
    const where = (at: number): string => `at ${at}`;
    const b = besideRecord(
      [0, 0.5, 1].map((at) => ({ at, where: where(at) })),
      [0.012, 0.02, 1.03, 1.7],
      where,
    );
    expect(b.written.map((w) => (w.off === null ? null : Math.round(w.off)))).toEqual([12, null, 30]);
    expect(b.over).toEqual([0.02, 1.7]);
    expect(b.words).toEqual([
      'Written but not heard: at 0.5.',
      'Heard but not written: at 0.02; at 1.7.',
      '2 strokes of the recording match, 21 ms apart on average.',
    ]);
  });
});

describe('slowed down', () => {
  /** Bursts that ring, at random places. */
  function bursts(seed: number): { x: Float32Array; at: number[] } {
    const chance = chanceOf(seed);
    const x = new Float32Array(RATE * 3);
    const at: number[] = [];
    for (let t = 0.1; t < 2.7; t += 0.09 + 0.2 * chance.next()) at.push(Math.round(t * RATE));
    for (const o of at)
      for (let i = 0; i < 0.3 * RATE && o + i < x.length; i++)
        x[o + i] = (x[o + i] ?? 0) + Math.exp(-i / 3000) * (Math.sin(i / 9) + 0.3 * (chance.next() - 0.5));
    return { x, at };
  }
  /** Where, near a place, a sound begins: the sample before which 10 ms are far softer than the 4 ms after it. */
  const rise = (y: Float32Array, near: number): { at: number; wide: number } => {
    const energy = (from: number, to: number): number => y.slice(from, to).reduce((s, v) => s + v * v, 0) / (to - from);
    let best = { at: near, ratio: 0 };
    for (let i = near - 600; i < near + 600; i += 4) {
      const ratio = energy(i, i + 176) / (energy(i - 441, i) + 1e-9);
      if (ratio > best.ratio) best = { at: i, ratio };
    }
    const top = y.slice(best.at, best.at + 700).reduce((m, v) => Math.max(m, Math.abs(v)), 0);
    let wide = 0;
    while (wide < 900 && Math.abs(y[best.at + wide] ?? 0) < 0.7 * top) wide++;
    return { at: best.at, wide };
  };

  it.each([0.25, 0.5, 0.75])(
    'to %s, attacks lie within 3 ms of where they belong and are as sharp as before',
    (speed) => {
      for (const seed of [1, 2]) {
        const { x, at } = bursts(seed);
        const y = slower(x, speed, at, RATE);
        expect(y.length).toBe(Math.round(x.length / speed));
        for (const o of at) {
          const found = rise(y, Math.round(o / speed));
          expect(Math.abs(found.at - o / speed)).toBeLessThan(0.003 * RATE);
          expect(found.wide).toBeLessThan(0.01 * RATE);
        }
      }
    },
  );

  it('keeps the pitch: as many turns of a tone in a second as before', () => {
    const x = Float32Array.from({ length: RATE * 2 }, (_, i) => Math.sin((2 * Math.PI * 220 * i) / RATE));
    const y = slower(x, 0.5, [], RATE);
    let turns = 0;
    for (let i = RATE; i < 3 * RATE; i++) if ((y[i - 1] ?? 0) < 0 && (y[i] ?? 0) >= 0) turns++;
    expect(turns / 2).toBeGreaterThan(217);
    expect(turns / 2).toBeLessThan(223);
  });

  it('lays attacks wherever they are wanted, faster too, and takes anything', () => {
    const { x, at } = bursts(5);
    const even = at.map((from, i) => ({ from, to: 4000 + i * 5000 }));
    const y = paced(x, RATE, 4000 + even.length * 5000, even);
    for (const { to } of even) expect(Math.abs(rise(y, to).at - to)).toBeLessThan(0.003 * RATE);
    expect(paced(new Float32Array(0), RATE, 10, [])).toHaveLength(10);
    expect(slower(x, 1, [], RATE)).toHaveLength(x.length);
  });
});

describe('the drawing of a wave', () => {
  it('has in each column the least and the greatest of its samples, at every width', () => {
    const chance = chanceOf(4);
    const x = Float32Array.from({ length: 50_000 }, () => chance.next() * 2 - 1);
    const peaks = peaksOf(x, 1000);
    for (const columns of [1, 7, 100, 700]) {
      const wave = waveBetween(peaks, 0, 50, columns);
      expect(wave).toHaveLength(columns);
      wave.forEach(([low, high], c) => {
        const part = x.slice(Math.floor((c * 50_000) / columns), Math.ceil(((c + 1) * 50_000) / columns));
        // A column may see a little of its neighbours, and misses nothing of its own.
        expect(low).toBeLessThanOrEqual(Math.min(...part.map((v) => Math.fround(v))) + 1e-6);
        expect(high).toBeGreaterThanOrEqual(Math.max(...part.map((v) => Math.fround(v))) - 1e-6);
      });
    }
    expect(waveBetween(peaks, 60, 61, 2)).toEqual([
      [0, 0],
      [0, 0],
    ]);
  });
});
