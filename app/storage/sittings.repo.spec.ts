import { TestBed } from '@angular/core/testing';
import { keptSittings, laterSitting, SITTING_LIMITS, type FreeSitting } from '@core/shelf';
import { readShelf } from '@core/formats/shelf-file';
import type { Hit } from '@core/take';
import { sittingOf } from '../testing/fixtures';
import { clearShelf } from '../testing/shelf';
import { freshTestBed } from '../testing/test-bed';
import { Database } from './database';
import { ShelfFiles } from './files/shelf-files.service';
import { SittingsRepo } from './sittings.repo';

async function sittings() {
  freshTestBed();
  const { db, ready } = TestBed.inject(Database);
  await ready;
  await clearShelf(db);
  return { db, repo: TestBed.inject(SittingsRepo), files: TestBed.inject(ShelfFiles) };
}

const hit = (seconds: number): Hit => ({ seconds, limb: null, voice: 'snare', velocity: 80 });
const hits = (many: number): Hit[] => Array.from({ length: many }, (_, i) => hit(i / 10));

const sitting = (id: string, more: Partial<FreeSitting> = {}): FreeSitting =>
  sittingOf(id, ['p'], { hits: hits(20), heard: 20, ...more });

describe('sittings', () => {
  it('are kept, changed and dropped, each taken back', async () => {
    const { db, repo } = await sittings();
    expect(await repo.keep(sitting('a'))).toEqual({ kept: true, thinned: 0 });
    const undo = await repo.change('a', (s) => ({ ...s, bpm: 192 }));
    expect((await db.freeSittings.get('a'))?.bpm).toBe(192);
    expect(await undo?.()).toBe(true);
    expect((await db.freeSittings.get('a'))?.bpm).toBe(96);
    const back = await repo.drop('a');
    const gone = await db.freeSittings.get('a');
    expect([gone?.dropped, gone?.hits.length, gone?.came.length]).toEqual([true, 0, 0]);
    await back?.();
    expect(await repo.of('a')).toMatchObject({ heard: 20, hits: hits(20) });
    expect(await repo.change('nobody', (s) => s)).toBeNull();
  });

  it('lose the strokes of the oldest where a shelf has no room, never what came', async () => {
    const { db, repo } = await sittings();
    const long = SITTING_LIMITS.hits;
    for (const [id, at] of [
      ['old', 1],
      ['middle', 2],
    ] as const)
      await repo.keep(sitting(id, { at, hits: hits(long), heard: long }));
    expect(await repo.keep(sitting('new', { at: 3, hits: hits(long + 50), heard: long + 50 }))).toEqual({
      kept: true,
      thinned: 1,
    });
    const all = await db.freeSittings.orderBy('at').toArray();
    expect(all.map((s) => [s.id, s.hits.length, s.came.length])).toEqual([
      ['old', 0, 1],
      ['middle', long, 1],
      ['new', long, 1],
    ]);
  });

  it('go into the file of the shelf and come back, and a wrong one is refused', async () => {
    const { db, repo, files } = await sittings();
    await repo.keep(sitting('a', { figures: [{ text: 'R L K', grid: 1260, start: 0, at: [0, 5], exact: true }] }));
    const stands = await db.freeSittings.toArray();
    const blob = await files.export();
    const text = await blob.text();
    const read = readShelf(text);
    expect(read.ok && read.value.contents.freeSittings).toEqual(stands);
    await expect(db.freeSittings.put({ ...sitting('b'), kind: 'humming' as never })).rejects.toThrow();
  });
});

describe('sittings of two devices', () => {
  it('stand as they were changed last, in either order; strokes that one has left are kept', () => {
    const [a, b] = [sitting('a', { changed: 5, bpm: 192 }), sitting('a', { changed: 9, hits: [] })];
    expect(laterSitting(a, b)).toEqual({ ...b, hits: a.hits });
    expect(laterSitting(b, a)).toEqual(laterSitting(a, b));
    const same = sitting('a', { changed: 9, bpm: 100 });
    expect(laterSitting(b, same)).toEqual(laterSitting(same, b));
    const gone = sitting('a', { changed: 12, dropped: true, hits: [] });
    expect(laterSitting(a, gone)).toEqual(gone);
  });

  it('are as many as a shelf holds, the newest', () => {
    const all = Array.from({ length: SITTING_LIMITS.sittings + 5 }, (_, i) => sitting(`s${i}`, { at: i, hits: [] }));
    const kept = keptSittings(all);
    expect(kept).toHaveLength(SITTING_LIMITS.sittings);
    expect(kept[0]?.at).toBe(SITTING_LIMITS.sittings + 4);
  });
});
