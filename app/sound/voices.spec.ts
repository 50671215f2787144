import { BUFFER_NAMES, playing, synthesise } from './voices';

describe('voices', () => {
  it.each(BUFFER_NAMES)('%s begins at once, ends in silence, and is neither too loud nor broken', (name) => {
    const samples = synthesise(name, 22_050);
    const most = samples.reduce((m, v) => Math.max(m, Math.abs(v)), 0);
    expect(samples.every(Number.isFinite)).toBe(true);
    expect(most).toBeGreaterThan(0.3);
    expect(most).toBeLessThanOrEqual(1);
    expect(samples.slice(0, 110).some((v) => Math.abs(v) > most * 0.2)).toBe(true);
    expect(Math.abs(samples.at(-1) ?? 1)).toBeLessThan(0.02);
  });
  it('is the same every time', () => expect(synthesise('snare', 8000)).toEqual(synthesise('snare', 8000)));
  it('a ghost is another colour of the snare, and louder is louder', () => {
    expect(playing('snare', 28).name).toBe('snare-ghost');
    expect(playing('snare', 70).name).toBe('snare');
    expect(playing('ride', 28).name).toBe('ride');
    expect(playing('kick', 116).gain).toBeGreaterThan(playing('kick', 70).gain);
    expect(playing('kick', 127).gain).toBe(1);
  });
  it('no two voices sound the same', () => {
    const prints = BUFFER_NAMES.map((n) => synthesise(n, 8000).slice(0, 200).join());
    expect(new Set(prints).size).toBe(BUFFER_NAMES.length);
  });
});
