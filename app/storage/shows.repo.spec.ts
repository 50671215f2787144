import { TestBed } from '@angular/core/testing';
import { keptSpots, newShow, parseCues } from '@core/show';
import type { Cue, Show } from '@core/shelf';
import { SHOW_LIMITS } from '@core/shelf';
import { readShelf } from '@core/formats/shelf-file';
import { clearShelf } from '../testing/shelf';
import { freshTestBed } from '../testing/test-bed';
import { Database } from './database';
import { ShelfFiles } from './files/shelf-files.service';
import { ShowsRepo } from './shows.repo';

async function shows() {
  freshTestBed();
  const { db, ready } = TestBed.inject(Database);
  await ready;
  await clearShelf(db);
  return { db, repo: TestBed.inject(ShowsRepo), files: TestBed.inject(ShelfFiles) };
}

function showOf(id: string, line = 'Net song, 96, 32 bars, fill 8:3'): Show {
  const [read] = parseCues(line);
  if (!read?.ok) throw new Error(line);
  let n = 0;
  const cue: Cue = { ...read.cue, id: 'c', groove: null, spots: [...keptSpots([], read.cue.spots, () => `s${n++}`)] };
  return { ...newShow(id, 'First night', 1), cues: [cue] };
}

describe('shows', () => {
  it('are kept, changed and dropped, each taken back alone', async () => {
    const { db, repo } = await shows();
    expect(await repo.create(showOf('a'))).not.toBeNull();
    const undo = await repo.change('a', (s) => ({ ...s, name: 'Second night' }));
    expect((await db.shows.get('a'))?.name).toBe('Second night');
    expect(await undo?.()).toBe(true);
    expect((await db.shows.get('a'))?.name).toBe('First night');
    // One after the other, as far back as one likes.
    const steps = [];
    for (const place of ['Pier', 'Mole', 'Dock']) steps.push(await repo.change('a', (s) => ({ ...s, place })));
    for (const step of steps.reverse()) expect(await step?.()).toBe(true);
    expect((await db.shows.get('a'))?.place).toBe('');
    // What was changed since is not taken back.
    const other = await repo.change('a', (s) => ({ ...s, place: 'Harbour' }));
    await repo.change('a', (s) => ({ ...s, place: 'Quay' }));
    expect(await other?.()).toBe(false);
    expect((await db.shows.get('a'))?.place).toBe('Quay');
    const back = await repo.drop('a');
    expect((await db.shows.get('a'))?.dropped).toBe(true);
    await back?.();
    expect((await db.shows.get('a'))?.dropped).toBeUndefined();
  });

  it('what is no change is none; what must not be kept is refused', async () => {
    const { db, repo } = await shows();
    await repo.create(showOf('a'));
    const before = await db.shows.get('a');
    expect(await repo.change('a', (s) => ({ ...s }))).toBeNull();
    expect(await repo.change('gone', (s) => s)).toBeNull();
    expect(await repo.change('a', (s) => ({ ...s, cues: s.cues.map((c) => ({ ...c, tempo: 1e9 })) }))).toBeNull();
    expect(await db.shows.get('a')).toEqual(before);
  });

  it('remember twenty earlier states: whole changes each, typing within some minutes as one', async () => {
    const { repo } = await shows();
    await repo.create(showOf('a'));
    for (let i = 0; i < 5; i++) await repo.change('a', (s) => ({ ...s, name: `Typed ${i}` }));
    expect(await repo.statesOf('a')).toHaveLength(0);
    for (let i = 0; i < 25; i++) await repo.change('a', (s) => ({ ...s, name: `Whole ${i}` }), true);
    const states = await repo.statesOf('a');
    expect(states).toHaveLength(SHOW_LIMITS.states);
    expect(states[0]?.state.name).toBe('Whole 23');
  });

  it('go out in the file and come back from it, merged like phrases', async () => {
    const { db, repo, files } = await shows();
    await repo.create(showOf('a'));
    const blob = await files.export();
    const text = await blob.text();
    const read = readShelf(text);
    expect(read.ok && read.value.contents.shows.map((s) => s.name)).toEqual(['First night']);
    await repo.change('a', (s) => ({ ...s, name: 'Changed here' }));
    await db.shows.delete('a');
    await files.read(new Blob([text]));
    await files.take({ without: [], log: true, boards: true, shows: true, lessons: true, named: [] });
    expect((await db.shows.get('a'))?.name).toBe('First night');
  });
});
