import { GRID, meter, parseMeter, STRAIGHT, swung, type Feel } from '../time';
import { gridChoices, onGrid } from '.';

/** A player apart from the code: strokes on known slots, each off by a few milliseconds. */
function played(seed: number, slot: number, bars: number, bar: number, spread: number, feel: Feel = STRAIGHT) {
  let s = seed * 9973 + 7;
  const chance = (): number => ((s = (s * 16_807) % 2_147_483_647), s / 2_147_483_647);
  const normal = (): number => Math.sqrt(-2 * Math.log(chance() + 1e-12)) * Math.cos(2 * Math.PI * chance());
  const msPerTick = 60_000 / 100 / 5040;
  const meant: number[] = [];
  for (let at = 0; at < bars * bar; at += slot) if (chance() < 0.8 || at === 0) meant.push(at);
  const ats = meant.map((at) => Math.max(0, swung(at, feel) + (normal() * spread) / msPerTick));
  return { meant, ats, msPerTick };
}

describe('what was heard on a grid', () => {
  it.each([
    ['eighths', GRID.eighths],
    ['triplets', GRID.triplets],
    ['16ths', GRID.sixteenths],
    ['quintuplets', GRID.quintuplets],
    ['sextuplets', GRID.sextuplets],
    ['32nds', GRID.thirtySeconds],
  ])('%s played with a spread of 6 ms are known, and each stroke is on its slot', (_name, slot) => {
    let [known, right, all] = [0, 0, 0];
    for (let seed = 1; seed <= 40; seed++) {
      const { meant, ats, msPerTick } = played(seed, slot, 2, 20160, 6);
      const [best] = gridChoices(ats, meter(4, 4), 40320, msPerTick);
      if (best?.grid === slot && best.feel.kind === 'straight') known++;
      meant.forEach((at, i) => (right += onGrid(ats[i]!, { ...best!, meter: meter(4, 4) }) === at ? 1 : 0));
      all += meant.length;
    }
    expect(known).toBeGreaterThanOrEqual(38);
    expect(right / all).toBeGreaterThan(0.97);
  });
  it.each(['7/8', '6/8', '5/4', '11/16'])('in %s too', (text) => {
    const m = parseMeter(text)!;
    const bar = (20160 / m.unit) * m.beats;
    let right = 0;
    for (let seed = 1; seed <= 20; seed++) {
      const { meant, ats, msPerTick } = played(seed, 1260, 2, bar, 5);
      const [best] = gridChoices(ats, m, 2 * bar, msPerTick);
      right += meant.every((at, i) => Math.abs(onGrid(ats[i]!, { ...best!, meter: m }) - at) < 1) ? 1 : 0;
    }
    expect(right).toBeGreaterThanOrEqual(17);
  });
  it('swing is found with its ratio, and written straight', () => {
    for (const ratio of [0.58, 0.62, 0.71]) {
      const feel: Feel = { kind: 'swung', on: 'eighths', ratio };
      let known = 0;
      for (let seed = 1; seed <= 20; seed++) {
        const { meant, ats, msPerTick } = played(seed, 2520, 4, 20160, 4, feel);
        const [best] = gridChoices(ats, meter(4, 4), 4 * 20160, msPerTick);
        const found = best?.feel;
        const right = meant.every((at, i) => onGrid(ats[i]!, { ...best!, meter: meter(4, 4) }) === at);
        if (right && found?.kind === 'swung' && Math.abs(found.ratio - ratio) < 0.015) known++;
      }
      expect(known).toBeGreaterThanOrEqual(18);
    }
  });
  it('a beat of triplets among 16ths has its own grid', () => {
    const ats = [0, 1260, 2520, 3780, 5040, 6300, 7560, 8820, 10080, 11760, 13440, 15120, 16380, 17640, 18900];
    const [best] = gridChoices(ats, meter(4, 4), 20160, 60_000 / 100 / 5040);
    expect([best!.grid, best!.beats, best!.mean]).toEqual([1260, [1260, 1260, 1680, 1260], 0]);
  });
  it('others stand beside it with what they leave over, and none that says nothing new', () => {
    const ats = Array.from({ length: 16 }, (_, i) => i * 1260 + (i % 2 ? 20 : 0));
    const found = gridChoices(ats, meter(4, 4), 20160, 60_000 / 100 / 5040);
    expect(found.map((c) => c.grid).slice(0, 1)).toEqual([1260]);
    expect(found.length).toBeGreaterThan(2);
    // Triplets leave what they must: by hand, for each of the four places in a beat.
    const triplets = found.find((c) => c.grid === 1680 && c.mixed === 0)!;
    const off = [0, 1280, 2520, 3800].map((at) => Math.abs(at - Math.round(at / 1680) * 1680) * (60_000 / 100 / 5040));
    expect(triplets.mean).toBeCloseTo(off.reduce((a, b) => a + b) / 4, 6);
    expect(found.some((c) => c.grid === 630 || c.grid === 420)).toBe(false);
  });
  it('a hundred and fifty thousand notes are no more than many notes', () => {
    const ats = Array.from({ length: 150_000 }, (_, i) => (i % 16) * 1260);
    expect(gridChoices(ats, meter(4, 4), 20160, 0.1)[0]!.grid).toBe(1260);
  });
  it('says what is left over in ms: by hand', () => {
    const [best] = gridChoices([10, 5040, 10100, 15120], meter(4, 4), 20160, 0.5);
    expect([best!.grid, best!.mean, best!.worst]).toEqual([5040, (10 + 0 + 20 + 0) * 0.5 * 0.25, 10]);
  });
});
