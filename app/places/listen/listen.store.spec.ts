import { build } from '@core/recipe';
import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { evenLay } from '@core/listen';
import { meter } from '@core/time';
import { Database } from '../../storage/database';
import { NoticesService } from '../../common/notices.service';
import { until } from '../../testing/fixtures';
import { clearShelf, untilAsked } from '../../testing/shelf';
import { freshTestBed } from '../../testing/test-bed';
import { renderStrokes } from '../../sound/mixing';
import { HearingStore } from './hearing.store';
import { ListenStore } from './listen.store';
import { ListeningEngine, type Analysis } from './listening.engine';
import { RecordStore } from './record.store';

const RATE = 44_100;
const SLOT = 60 / 92 / 4;
const SOUNDS = { k: 'kick', s: 'snare', h: 'hat-closed' } as const;

/** A record of 32 slots, already listened to; its sound is not played, only told. */
class FakeRecord {
  readonly engine = new ListeningEngine();
  readonly api = this.engine;
  readonly name = signal('');
  readonly buffer = signal<{ duration: number; sampleRate: number } | null>(null);
  readonly analysis = signal<Analysis | null>(null);
  readonly doing = signal({ kind: 'nothing' });
  readonly played: { readonly speed: number; readonly round: unknown }[] = [];
  readonly slowed: string[] = [];
  readonly player = {
    playing: signal(false),
    position: signal<number | null>(null),
    bufferOf: () => ({ duration: 1, sampleRate: RATE }),
    play: (sound: { speed: number; round: unknown }) => {
      this.player.playing.set(true);
      this.played.push(sound);
      return Promise.resolve();
    },
    goOn: (sound: { speed: number; round: unknown }) => this.played.push(sound),
    stop: () => this.player.playing.set(false),
  };

  open(_file: Blob, name: string): Promise<boolean> {
    const slots = Array.from('skhsskhsskhsskhsskhsskhsskhsskhs'.replaceAll('ss', 's-s').slice(0, 32));
    const blows = slots.flatMap((l, i) =>
      l === 's' || l === 'k' || l === 'h' ? [{ at: 0.4 + i * SLOT, sound: SOUNDS[l], velocity: 96 }] : [],
    );
    const samples = renderStrokes(blows, 6.5, RATE);
    this.engine.begin(samples.length, RATE);
    this.engine.add(0, [samples]);
    this.name.set(name);
    this.analysis.set(this.engine.analyse(() => undefined));
    this.buffer.set({ duration: 6.5, sampleRate: RATE });
    return Promise.resolve(true);
  }

  paced(from: number, to: number, speed: number): Promise<object> {
    this.slowed.push(`${from.toFixed(2)}–${to.toFixed(2)} at ${speed}`);
    return Promise.resolve({ duration: (to - from) / speed, sampleRate: RATE });
  }
}

async function listening() {
  freshTestBed();
  TestBed.overrideProvider(RecordStore, { useValue: new FakeRecord() });
  const { db, ready } = TestBed.inject(Database);
  await ready;
  await clearShelf(db);
  await db.listening.clear();
  const store = TestBed.inject(ListenStore);
  const record = TestBed.inject(RecordStore) as unknown as FakeRecord;
  await store.open(new Blob(['one']), 'One');
  store.setTempo(92);
  store.oneIsHere(0.4);
  store.markAll(0.4, 0.4 + 32 * SLOT);
  await until(() => store.strokes().length > 0);
  return { db, store, record, hearing: TestBed.inject(HearingStore) };
}

describe('what is worked out from a recording', () => {
  it('changes only by what was said of it, is undone, and moves no grid', async () => {
    const { store } = await listening();
    expect(store.beats()).toBe(8);
    const [span, lay] = [store.span(), store.lay()];
    const first = store.strokes()[0];
    if (!first) throw new Error('no stroke');
    store.choose(first);
    store.say({ kinds: ['cymbal'] });
    await until(() => store.strokes()[0]?.said === true);
    expect(store.strokes()[0]?.kinds).toEqual(['cymbal']);
    // Whoever looks closely is not moved away by a word.
    expect([store.span() === span, store.lay() === lay]).toEqual([true, true]);
    store.undo();
    await until(() => store.strokes()[0]?.said === false);
    store.redo();
    await until(() => store.strokes()[0]?.said === true);
  });

  it('a name that is typed reads nothing anew', async () => {
    const { store } = await listening();
    const reading = store.reading();
    store.setFrom('the');
    store.setFrom('the tape');
    await new Promise((r) => setTimeout(r, 30));
    expect(store.reading()).toBe(reading);
    store.undo();
    expect(store.work().from).toBe('');
  });

  it('a stroke goes to the slot beside, is taken out, and is put in', async () => {
    const { store } = await listening();
    const many = store.strokes().length;
    const rests = Array.from({ length: 32 }, (_, i) => i * 1260).filter((t) =>
      store.strokes().every((s) => s.at !== t),
    );
    const before = store.strokes().find((s) => s.at + 1260 === rests[0]);
    if (!before) throw new Error('no rest behind a stroke');
    store.choose(before);
    store.nudge(1);
    await until(() => store.strokes().some((s) => s.at === rests[0]));
    expect(store.strokes().some((s) => s.at === before.at)).toBe(false);
    store.undo();
    store.choose(before);
    store.say({ gone: true });
    await until(() => store.strokes().length === many - 1);
    await store.put(before.seconds);
    await until(() => store.strokes().length === many);
  });

  it('goes to the Bench as a phrase that says where it was heard, or as its cell', async () => {
    const { store } = await listening();
    store.setFrom('the pit, second night');
    const phrase = await store.phrase(false);
    expect(phrase?.recipe.source).toMatchObject({
      kind: 'heard',
      from: 'the pit, second night',
      meter: '4/4',
      grid: 1260,
    });
    expect(phrase?.tempo).toBe(92);
    const [clip, words] = [await store.clip('a'), store.reading()?.round?.words];
    expect([clip?.id, clip?.bars, clip?.from]).toEqual(['a', 2, 'the pit, second night']);
    if (words) expect((await store.phrase(true))?.recipe.source).not.toEqual(phrase?.recipe.source);
  });

  it('goes to the Bench as it is meant now, not as it was read before; what could not be read does not go', async () => {
    const { store, record } = await listening();
    const bars = async (): Promise<number | undefined> => {
      const phrase = await store.phrase(false);
      return phrase ? build(phrase.recipe).pattern.length / 20_160 : undefined;
    };
    expect(await bars()).toBe(2);
    // The next key comes before these bars are read.
    store.markAll(0.4, 0.4 + 16 * SLOT);
    expect(store.busy()).toBe(true);
    expect(await bars()).toBe(1);
    const read = jest.spyOn(record.engine, 'read').mockImplementation(() => {
      throw new Error('out of memory');
    });
    store.markAll(0.4, 0.4 + 32 * SLOT);
    expect([await bars(), store.failed()]).toEqual([undefined, true]);
    read.mockRestore();
    store.markAll(0.4, 0.4 + 16 * SLOT);
    expect([await bars(), store.failed()]).toEqual([1, false]);
  });

  it('taps, half, double, another meter, a bent bar: all of it moves the grid and can be taken back', async () => {
    const { store, record } = await listening();
    const at = (): number => Math.round(store.bpm() ?? 0);
    store.times(2);
    expect(at()).toBe(184);
    store.undo();
    record.player.playing.set(true);
    for (const t of [0.41, 1.04, 1.71, 2.35]) {
      record.player.position.set(t);
      store.tap();
    }
    expect(at()).toBe(92);
    store.setMeter('3/4');
    expect(store.work().meter).toBe('3/4');
    store.undo();
    const lay = store.lay();
    store.bend(1, 3.1);
    expect(store.lay()).not.toBe(lay);
    store.undo();
    expect(store.lay()?.marks).toEqual(lay?.marks);
  });
});

describe('how it is heard', () => {
  it('what goes round and how fast change under what sounds; a word of a stroke disturbs nothing', async () => {
    const { store, record, hearing } = await listening();
    await hearing.toggle();
    TestBed.tick();
    hearing.round.set('beat');
    TestBed.tick();
    hearing.speed.set(0.5);
    TestBed.tick();
    await until(() => record.played.some((p) => p.speed === 0.5));
    expect(record.slowed.at(-1)).toBe(`0.40–${(0.4 + 4 * SLOT).toFixed(2)} at 0.5`);
    const many = record.played.length;
    store.setFrom('x');
    TestBed.tick();
    await new Promise((r) => setTimeout(r, 20));
    expect(record.played).toHaveLength(many);
    await hearing.check('ears');
    expect(hearing.checking()).toBe('ears');
    hearing.speed.set(0.75);
    TestBed.tick();
    await until(() => record.played.at(-1)?.speed === 0.75);
    expect(hearing.checking()).toBe('ears');
    await hearing.check('ears');
    TestBed.tick();
    expect([record.player.playing(), hearing.checking()]).toEqual([false, null]);
  });
});

describe('a recording that is listened to', () => {
  it('is kept with all that was worked out, and another one puts it aside', async () => {
    const { db, store } = await listening();
    const kept = async (): Promise<object> =>
      Object.fromEntries(
        (await db.listening.toArray()).map((r) => [r.id.includes('~') ? 'before' : 'now', r.work.from]),
      );
    store.setFrom('first');
    TestBed.tick();
    await untilAsked(async () => JSON.stringify(await kept()) === '{"now":"first"}');
    const told = jest.spyOn(TestBed.inject(NoticesService), 'tell');
    await store.open(new Blob(['two']), 'Two');
    store.setFrom('second');
    TestBed.tick();
    await untilAsked(async () => JSON.stringify(await kept()) === '{"now":"second","before":"first"}');
    expect(told.mock.calls.at(-1)?.[0]).toBe('“One” is closed.');
    // One that is too large to be kept takes nothing of the one before with it.
    const large = new Blob(['x']);
    Object.defineProperty(large, 'size', { value: 90_000_000 });
    await store.open(large, 'Large');
    expect(store.safe()).toBe(false);
    store.setFrom('large');
    TestBed.tick();
    await new Promise((r) => setTimeout(r, 30));
    expect(await kept()).toEqual({ before: 'second' });
  });

  it('goes on after the beginning of a lick until its end is marked, or it is stopped', async () => {
    const { store, record, hearing } = await listening();
    store.markAll(5, 5.4);
    record.player.position.set(0.41);
    await hearing.sound();
    store.mark('from', 5.9);
    TestBed.tick();
    expect(store.endless()).toBe(true);
    await until(() => record.played.at(-1)?.round === null);
    store.mark('to', 6.3);
    TestBed.tick();
    expect(store.endless()).toBe(false);
    await until(() => record.played.at(-1)?.round !== null);
    store.mark('from', 6.4);
    TestBed.tick();
    expect(store.endless()).toBe(true);
    record.player.stop();
    TestBed.tick();
    expect(store.endless()).toBe(false);
  });

  it('bars that reach over an end of the record go round whole, in silence where there is none', async () => {
    const { store, record, hearing } = await listening();
    // The 1 a beat and a half before the record begins.
    store.setLay(evenLay(92, 0.4 - (60 / 92) * 2.5, meter(4, 4)));
    store.markAll(0.3, 1);
    await until(() => (store.span()?.from ?? 0) < 0);
    const known = record.slowed.length;
    await hearing.sound();
    expect(record.slowed.slice(known)).toHaveLength(1);
    const round = record.played.at(-1)?.round as { from: number; to: number };
    expect(round.from).toBeGreaterThanOrEqual(0);
    const bar = (4 * 60) / 92;
    expect((round.to - round.from) / bar).toBeCloseTo(Math.round((round.to - round.from) / bar), 6);
  });
});
