import fc from 'fast-check';
import { anyRecipe } from '../testing/arbitraries';
import { build, type Recipe } from '../recipe';
import { barTicks } from '../time';
import { eventsIn, programOf, retempo, sampleAt, secondsAt, tickAt, type Anchor } from '.';

const typed = (text: string, meter = '4/4', grid = 1260, swing?: { on: 'eighths' | '16ths'; ratio: number }): Recipe => ({
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
      moves: [{ id: 'f', on: true, move: 'fit', params: { space: { bars: 1 }, start: '3', mirrored: false, close: { kind: 'cut' } } }],
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
      const off = eventsIn(prog, 0, 64 * 17640).map((e) => sampleAt(secondsAt(anchor, e.at), rate) - exact(e.at, tenths, rate));
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
