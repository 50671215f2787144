import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { readShelf, SHELF_VERSION } from '@core/formats/shelf-file';
import { EMPTY_SHELF } from '@core/shelf';
import { build, MOVE_NAMES } from '@core/recipe';
import { gridName, meterText } from '@core/time';
import { bestOf } from '@core/drill';
import { USUAL_KIT } from '@core/kit';
import { ceilingOn, USUAL_PROFILE } from '@core/reach';
import { saltLantern } from './salt-lantern';

const text = saltLantern();
const read = readShelf(text);
const shelf = read.ok ? read.value.contents : null;

describe('The Salt Lantern', () => {
  it('is the same every time, and is the file in this folder', () => {
    expect(saltLantern()).toBe(text);
    expect(readFileSync(join(__dirname, 'salt-lantern.json'), 'utf8')).toBe(text);
  });
  it('is a good shelf file', () => expect(read.problems).toEqual([]));
  it('says as plain JSON what reading it gives: filling the demo does not read it anew', () => {
    const { format, version, checksum, ...lists } = JSON.parse(text) as Readonly<Record<string, unknown>>;
    expect([format, version, checksum]).toEqual(['loop-shelf', SHELF_VERSION, expect.any(String)]);
    expect({ ...EMPTY_SHELF, ...lists }).toEqual(shelf);
  });
  it('holds forty phrases that build without a complaint', () => {
    expect(shelf?.phrases.length).toBe(40);
    for (const p of shelf?.phrases ?? []) {
      const b = build(p.recipe);
      expect([
        p.name,
        ...b.source.findings,
        ...b.trail.flatMap((s) => s.findings.filter((f) => f.weight === 'stop')),
      ]).toEqual([p.name]);
      expect(b.pattern.strokes.length).toBeGreaterThan(3);
    }
  });
  it('was played freely: what the drummer meant is recognised, and a habit that is on no shelf', () => {
    const sittings = shelf?.freeSittings ?? [];
    const names = sittings.map((s) => s.came.map((c) => shelf?.phrases.find((p) => p.id === c.phrase)?.name));
    expect(names).toEqual([
      ['Cold rope', 'Kelp', 'Cold rope', 'Gull wings', 'Cold rope'],
      ['Kelp', 'Cold rope', 'Even keel', 'Cold rope'],
    ]);
    expect(sittings.map((s) => s.figures.map((f) => f.at.length))).toEqual([[3], [3]]);
  });
  it('shows every move at work', () => {
    const used = new Set((shelf?.phrases ?? []).flatMap((p) => p.recipe.moves.map((m) => m.move)));
    expect([...used].sort()).toEqual([...MOVE_NAMES].sort());
  });
  it('covers 4/4, 6/8 and 7/8, 16ths, triplets, sextuplets and 32nds', () => {
    const patterns = (shelf?.phrases ?? []).map((p) => build(p.recipe).pattern);
    expect([...new Set(patterns.map((p) => meterText(p.meter)))]).toEqual(
      expect.arrayContaining(['4/4', '6/8', '7/8']),
    );
    expect([...new Set(patterns.map((p) => gridName(p.grid)))]).toEqual(
      expect.arrayContaining(['16ths', 'triplets', 'sextuplets', '32nds']),
    );
  });
  it('has no clean try above what its own player can do', () => {
    const above = (shelf?.attempts ?? []).filter((a) => {
      const phrase = shelf?.phrases.find((p) => p.id === a.phrase);
      const { bpm } = phrase ? ceilingOn(build(phrase.recipe).pattern, USUAL_KIT, USUAL_PROFILE) : { bpm: null };
      return a.verdict === 'clean' && bpm !== null && a.bpm > bpm;
    });
    expect(above).toEqual([]);
  });
  it('has six weeks of log that climbs, with setbacks, and tempos that some reached and some did not', () => {
    const attempts = [...(shelf?.attempts ?? [])].sort((a, b) => a.at - b.at);
    const days = new Set(attempts.map((a) => Math.floor(a.at / 86_400_000)));
    expect((attempts.at(-1)?.at ?? 0) - (attempts[0]?.at ?? 0)).toBeGreaterThan(38 * 86_400_000);
    expect(days.size).toBeGreaterThan(24);
    const messy = attempts.filter((a) => a.verdict === 'messy').length / attempts.length;
    expect(messy).toBeGreaterThan(0.15);
    expect(messy).toBeLessThan(0.6);
    const reached = (shelf?.phrases ?? []).filter(
      (p) => (bestOf(attempts.filter((a) => a.phrase === p.id)).clean ?? 0) >= p.goal,
    ).length;
    expect(reached).toBeGreaterThan(2);
    expect(reached).toBeLessThan(20);
  });
});
