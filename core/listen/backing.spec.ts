import { randomGroove, randomKit, playedOut, recorded, type Blow } from '../testing/recordings';
import { backingClip, backingOf, BACKING, backs, lettersOf, type Clip } from '.';
import { meter } from '../time';

const { abs, max, round } = Math;

/** A clip of bars that a drummer played, with when each blow was struck and when each bar began, all in the clip. */
function clipOf(rate: number, drift: number, swing: number, meterText = '4/4', perBar = 4) {
  const groove = randomGroove(3);
  const slots = groove.slots.slice(0, 4 * perBar * 2);
  const manner = { bpm: 104, begins: BACKING.lead, drift, swing, spread: 0.003, seed: 9 };
  const { blows, beats, ends } = playedOut({ ...groove, slots }, manner);
  const seconds = ends + BACKING.tail;
  const x = recorded({ rate, seconds, kit: randomKit(8, rate), blows, seed: 2, noise: -50 });
  const lines = beats.filter((_, i) => i % perBar === 0);
  const clip: Clip = {
    id: 'p1',
    at: 0,
    from: '',
    rate,
    samples: lettersOf(x.map((v) => 0.5 * v)),
    meter: meterText,
    bars: 2,
    marks: lines.map((at, i) => ({ tick: (i * perBar * 20_160) / 4, at })),
  };
  return { clip, blows, lines };
}

/** Where, near a place, a sound begins: plain loops, nothing of what slows it down. */
function rise(y: Float32Array, near: number, rate: number): number {
  const energy = (from: number, to: number): number => {
    let all = 0;
    for (let i = max(0, from); i < to; i++) all += (y[i] ?? 0) ** 2;
    return all / (to - from);
  };
  const ms = (v: number): number => round((v * rate) / 1000);
  let best = { at: near, ratio: 0 };
  for (let i = near - ms(12); i < near + ms(12); i += 2) {
    const ratio = energy(i, i + ms(4)) / (energy(i - ms(8), i) + 1e-7);
    if (ratio > best.ratio) best = { at: i, ratio };
  }
  return best.at;
}

/** Blows that stand alone, and that a plain loop finds in the record itself. */
function clear(blows: readonly Blow[], x: Float32Array, rate: number): readonly Blow[] {
  return blows
    .filter((b) => blows.every((o) => o === b || abs(o.at - b.at) > 0.06))
    .filter((b) => abs(rise(x, round(b.at * rate), rate) / rate - b.at) < 0.0007);
}

describe('a record to play along with', () => {
  it.each([
    [32_000, 0.03, 0.5, '4/4', 4],
    [32_000, -0.03, 0.6, '4/4', 4],
    [32_000, 0.02, 0.5, '3/4', 3],
  ])('at %i Hz, drift %s, swing %s in %s: every blow lies where a click has it', (rate, drift, swing, text, perBar) => {
    const { clip, blows, lines } = clipOf(rate, drift, swing, text, perBar);
    const own = backingClip(clip);
    if (!own) throw new Error('no clip');
    for (const bpm of [52, 78, 104, 150]) {
      const made = backingOf(own, bpm);
      if (!made) throw new Error('no backing');
      const bar = (perBar * 60) / bpm;
      expect(made.samples.length).toBe(round((BACKING.lead + 2 * bar + BACKING.tail) * rate));
      const off = clear(blows, own.samples, rate).map((b) => {
        const i = lines.findLastIndex((line) => line <= b.at + 1e-9);
        const [from, to] = [lines[i] ?? 0, lines[i + 1] ?? Infinity];
        if (i < 0 || to === Infinity) return 0;
        const want = BACKING.lead + (i + (b.at - from) / (to - from)) * bar;
        return abs(rise(made.samples, round(want * rate), rate) / rate - want);
      });
      expect(off.length).toBeGreaterThanOrEqual(6);
      expect(off.filter((d) => d < 0.003).length / off.length).toBeGreaterThan(0.85);
      expect(max(...off)).toBeLessThan(0.009);
    }
  });

  it('says that it cannot at a tempo too far from its own, and takes no grid that runs backwards', () => {
    const { clip } = clipOf(16_000, 0, 0.5);
    const own = backingClip(clip);
    if (!own) throw new Error('no clip');
    expect(backingOf(own, 104 * BACKING.slowest * 0.95)).toBeNull();
    expect(backingOf(own, 104 * BACKING.fastest * 1.05)).toBeNull();
    expect(backingOf(own, 104 * BACKING.slowest * 1.05)).not.toBeNull();
    expect(backingOf({ ...own, bars: 60 }, 104)).toBeNull();
    expect(backingClip({ ...clip, marks: [...clip.marks].reverse() })).toBeNull();
    expect(backingClip({ ...clip, meter: 'four' })).toBeNull();
    expect(backs(clip, meter(4, 4))).toBe(true);
    expect(backs(clip, meter(8, 8))).toBe(false);
  });

  it('a clip of nothing is silence of the right length', () => {
    const silent: Clip = { ...clipOf(16_000, 0, 0.5).clip, samples: '' };
    const own = backingClip(silent);
    const made = own && backingOf(own, 104);
    expect(made?.samples.some((v) => v !== 0)).toBe(false);
  });
});
