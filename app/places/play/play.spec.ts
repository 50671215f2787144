import { TestBed } from '@angular/core/testing';
import { signal } from '@angular/core';
import { Subject } from 'rxjs';
import { build, type Phrase } from '@core/recipe';
import { untilLanding } from '@core/pattern';
import type { Hit } from '@core/take';
import { phraseOf, typed, until } from '../../testing/fixtures';
import { emptyPlace } from '../../testing/place';
import type { HitSource } from '../../hits/source';
import { HitSources } from '../../hits/sources.service';
import { PhrasesRepo } from '../../storage/phrases.repo';
import { CallsStore } from './calls.store';
import { NOTHING, PlayChoices } from './choices';
import { FreeEar } from './free.ear';
import { PlayStore } from './play.store';
import { TradingStore } from './trading.store';

/** A pad that is hit by the test, at seconds of the page's clock. */
class Pad implements HitSource {
  readonly kind = 'midi' as const;
  readonly name = 'Pad';
  readonly hint = '';
  readonly hits$ = new Subject<Hit>();
  readonly trouble = signal<string | null>(null);
  readonly news = signal<string | null>(null);
  hears = true;
  stops = 0;
  start(): Promise<boolean> {
    return Promise.resolve(this.hears);
  }
  stop(): void {
    this.stops++;
  }
  /** Strokes of a phrase, the first bar line at a second; a quarter is a second. */
  play({ recipe }: Phrase, at: number): void {
    for (const s of untilLanding(build(recipe).pattern).strokes)
      this.hits$.next({
        seconds: at + s.at / 5040,
        limb: null,
        voice: s.voice,
        velocity: s.level === 'accent' ? 110 : 66,
      });
  }
}

const NET = phraseOf('net', { name: 'Net', recipe: typed('R! L R R K L! R K R! L R R K L! R K') });
const ROPE = phraseOf('rope', { name: 'Rope', recipe: typed('R! R L L K R! L K R L! R! L R R K K'), family: 'lick' });
const BEAT = phraseOf('beat', { name: 'Beat', recipe: typed('R+K - R - R - R - R+K - R - R - R -'), family: 'groove' });

async function place(...phrases: readonly Phrase[]) {
  const pad = new Pad();
  const all = await emptyPlace([
    { provide: HitSources, useValue: { all: [pad], of: () => pad } },
    FreeEar,
    PlayStore,
    CallsStore,
    TradingStore,
  ]);
  const repo = TestBed.inject(PhrasesRepo);
  for (const p of phrases) await repo.save(p);
  const choices = TestBed.inject(PlayChoices);
  choices.standIn.set('midi');
  choices.bpm.set(60);
  const store = TestBed.inject(PlayStore);
  TestBed.tick();
  const said = () => all.messages;
  const told: string[] = [];
  all.messages.messageObserver.subscribe((m) => told.push(String([m].flat()[0]?.detail)));
  return { ...all, pad, choices, store, said, told };
}

/** Begins over the click, and lets the count-in be over. */
async function begun(all: Awaited<ReturnType<typeof place>>, start: () => Promise<void>): Promise<void> {
  await start();
  expect(all.store.phase()).toBe('count-in');
  all.transport.position.set(-1);
  TestBed.tick();
  all.transport.began$.next();
  expect(all.store.phase()).toBe('playing');
}

describe('free play', () => {
  it('is kept with what came, its figures and what it was read against; later it is read again', async () => {
    const all = await place(NET, ROPE);
    const { store, pad, db } = all;
    await begun(all, () => store.start());
    for (let bar = 0; bar < 24; bar++) {
      if (bar % 8 === 4) pad.play(NET, 4 * bar);
      else if (bar === 10) pad.play(ROPE, 4 * bar);
      else pad.play(BEAT, 4 * bar);
    }
    await store.stop();
    expect(store.phase()).toBe('ready');
    const [row] = await db.freeSittings.toArray();
    expect(row?.came.map((c) => [c.phrase, c.at / 20_160])).toEqual([
      ['net', 4],
      ['rope', 10],
      ['net', 12],
      ['net', 20],
    ]);
    expect([row?.against, row?.source, row?.kind, row?.bpm]).toEqual([2, 'midi', 'free', 60]);
    expect(pad.stops).toBeGreaterThan(0);
    // Counted twice as fast nothing of it is a phrase any more.
    if (row) expect(await store.readAgain(row, 30)).toBe(true);
    expect((await db.freeSittings.toArray())[0]?.came).toEqual([]);
  });

  it('of nothing heard nothing is kept, and of what does not hear nothing is begun', async () => {
    const all = await place(NET);
    const { store, pad, db, told } = all;
    await begun(all, () => store.start());
    await store.stop();
    expect(told.at(-1)).toBe('Nothing was heard, so nothing is kept.');
    pad.hears = false;
    await store.start();
    expect(store.phase()).toBe('ready');
    expect(await db.freeSittings.count()).toBe(0);
  });

  it('is kept unread where the place is left, and read when it is opened', async () => {
    const all = await place(NET);
    const { store, pad, db } = all;
    await begun(all, () => store.start());
    for (let bar = 0; bar < 12; bar++) pad.play(bar % 4 === 2 ? NET : BEAT, 4 * bar);
    store.destroy();
    await until(() => (store.all() ?? []).length === 1);
    const [row] = await db.freeSittings.toArray();
    expect([row?.against, row?.came.length]).toEqual([0, 0]);
    await store.open(row?.id ?? '');
    expect(store.shown()).toBe(row?.id);
    expect((await db.freeSittings.toArray())[0]?.came).toHaveLength(3);
  });

  it('that is given up while it is read is kept, and said', async () => {
    const all = await place(NET);
    const { store, pad, db, told } = all;
    await begun(all, () => store.start());
    for (let bar = 0; bar < 12; bar++) pad.play(bar % 4 === 2 ? NET : BEAT, 4 * bar);
    const over = store.stop();
    await until(() => store.phase() === 'reading');
    store.cancelReading();
    store.cancelReading();
    await over;
    const [row] = await db.freeSittings.toArray();
    // It may have been read already: what is kept says which.
    expect([told.at(-1) === 'It is kept, and not read yet.', row?.against === 0]).toEqual(
      row?.against === 0 ? [true, true] : [false, false],
    );
    expect(row?.hits.length).toBeGreaterThan(100);
  });

  it('over nothing begins at once, and needs no sound', async () => {
    const { store, choices, transport } = await place(NET);
    choices.over.set(NOTHING);
    TestBed.tick();
    await store.start();
    expect([store.phase(), transport.requests.length]).toEqual(['playing', 0]);
    await store.stop();
    choices.over.set(':click');
  });
});

describe('calls', () => {
  it('call by number, judge what came, and are kept with it', async () => {
    const all = await place(NET, ROPE);
    const { store, pad, choices, transport, db } = all;
    choices.mode.set('calls');
    choices.calls.set(2);
    const calls = TestBed.inject(CallsStore);
    await begun(all, () => calls.start());
    expect(calls.list()).toHaveLength(2);
    const to = (tick: number): void => {
      transport.position.set(tick);
      TestBed.tick();
    };
    to(10);
    const first = calls.call();
    // A bar ahead: called for the third bar, spoken on the second.
    expect(first?.due).toBe(2 * 20_160);
    const spoken = transport.changes.at(-1)?.program?.layers.flatMap((l) => l.events.map((e) => e.sound)) ?? [];
    expect(spoken).toContain(first?.phrase.n === 1 ? 'say:one' : 'say:two');
    pad.play(first?.phrase.id === 'net' ? NET : ROPE, 8);
    to((first?.until ?? 0) - 10);
    const second = calls.call();
    expect(second?.phrase.id).not.toBe(first?.phrase.id);
    to((first?.until ?? 0) + 2000);
    expect(calls.results()).toMatchObject([{ phrase: first?.phrase.id, came: 'at once', clean: true }]);
    // The second is not played.
    to((second?.until ?? 0) - 10);
    to((second?.until ?? 0) + 2000);
    await until(() => store.phase() === 'ready');
    const [row] = await db.freeSittings.toArray();
    expect(row?.calls.map((c) => c.came)).toEqual(['at once', 'not at all']);
    expect(calls.words()).toMatch(/^1 of 2 came at once\. Clean: 1 of 1\. (Net|Rope) did not come\.$/);
    choices.mode.set('free');
  });

  it('say so where nothing can be called', async () => {
    const { told, store } = await place(BEAT);
    await TestBed.inject(CallsStore).start();
    expect([store.phase(), told.at(-1)]).toEqual([
      'ready',
      'No phrase of the shelf can be called in this meter. Choose another kind or meter.',
    ]);
  });
});

describe('trading', () => {
  it('sends bars of the shelf, is silent as long, and says what came back', async () => {
    const all = await place(NET, ROPE);
    const { store, pad, choices, transport } = all;
    choices.mode.set('trading');
    const trading = TestBed.inject(TradingStore);
    await begun(all, () => trading.start());
    const sent = trading.trade();
    const { program } = transport.requests.at(-1) ?? {};
    expect(program?.loop).toBe(4 * 20_160);
    const to = (tick: number): void => {
      transport.position.set(tick);
      TestBed.tick();
    };
    to(10);
    expect(trading.mine()).toBe(false);
    to(2 * 20_160 + 10);
    expect(trading.mine()).toBe(true);
    for (const s of sent?.pattern.strokes ?? [])
      pad.hits$.next({
        seconds: 8 + s.at / 5040,
        limb: null,
        voice: s.voice,
        velocity: s.level === 'accent' ? 110 : 66,
      });
    // While it is silent the next one is put in its place.
    expect(trading.trade()).not.toBe(sent);
    to(4 * 20_160 + 2000);
    await until(() => trading.words().length === 1);
    expect(trading.words()).toEqual(['The same came back.']);
    store.destroy();
    choices.mode.set('free');
  });
});
