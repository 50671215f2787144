import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { eventsIn, type Program } from '@core/playback';
import type { Clip } from '@core/listen';
import { EMPTY_SHELF, merged } from '@core/shelf';
import { BackingService } from '../../sound/backing.service';
import { Transport } from '../../sound/transport.service';
import { ClipsRepo } from '../../storage/clips.repo';
import { Database } from '../../storage/database';
import { DrillsRepo } from '../../storage/drills.repo';
import { LogEdits } from '../../storage/log-edits.repo';
import { LatencyRepo } from '../../storage/latency.repo';
import { PhrasesRepo } from '../../storage/phrases.repo';
import { attemptOf, phraseOf, until } from '../../testing/fixtures';
import { SilentTransport } from '../../testing/silence';
import { mount } from '../../testing/mount';
import { RungTempoComponent } from './rung-tempo.component';
import { DrillStore } from './drill.store';
import { RoomChoices } from './room-choices.store';
import { SourceWatch } from './source-watch.store';
import { SubjectStore } from './subject.store';
import { TakeRecorder } from '../../playing/take.recorder';
import { TryJudge } from './try.judge';
import { triesOf } from '../../storage/tries';
import { clearShelf, log, logged, untilAsked } from '../../testing/shelf';
import { freshTestBed } from '../../testing/test-bed';

async function room() {
  freshTestBed();
  const transport = new SilentTransport();
  TestBed.configureTestingModule({
    providers: [
      DrillStore,
      RoomChoices,
      SubjectStore,
      TakeRecorder,
      TryJudge,
      SourceWatch,
      { provide: Transport, useValue: transport },
    ],
  });
  const { db, ready } = TestBed.inject(Database);
  await ready;
  await clearShelf(db);
  await TestBed.inject(PhrasesRepo).save(phraseOf('a', { goal: 90 }));
  return {
    db,
    transport,
    store: TestBed.inject(DrillStore),
    subject: TestBed.inject(SubjectStore),
    watch: TestBed.inject(SourceWatch),
    choices: TestBed.inject(RoomChoices),
  };
}
const clipOf = (id: string): Clip => ({
  id,
  at: 1,
  from: 'the band tape',
  rate: 8000,
  samples: '',
  meter: '4/4',
  bars: 1,
  marks: [
    { tick: 0, at: 0.02 },
    { tick: 20_160, at: 2.02 },
  ],
});
const PLAN = { start: 80, goal: 90, step: 10, loops: 2 };

describe('the practice room', () => {
  it('suggests a start from the goal, never above what was clean last', async () => {
    const { db, store, subject } = await room();
    await store.open('a');
    expect(subject.suggestedPlan()).toEqual({ start: 50, step: 5, goal: 90, loops: 4 });
    await log(db, attemptOf('x', 'a', { bpm: 40 }));
    await store.open('a');
    expect(subject.suggestedPlan().start).toBe(40);
    expect(await store.open('gone')).toBe(false);
  });

  it('sounds at the rung’s tempo with a bar of count-in, follows the loops, and goes up', async () => {
    const { transport, store } = await room();
    await store.open('a');
    store.begin(PLAN);
    expect(transport.requests[0]).toMatchObject({ bpm: 80, program: { countIn: 20160 } });
    transport.began$.next();
    transport.loops$.next(1);
    transport.loops$.next(2);
    expect(store.drill()?.phase).toBe('judging');
    store.dispatch({ kind: 'clean', at: Date.now() });
    expect(transport.requests[1]?.bpm).toBe(90);
    expect(store.tempo()).toBe(90);
  });

  it('with the record that is kept with the phrase the record sounds, made for this rung and the next; without it the phrase', async () => {
    const { transport, store, subject } = await room();
    const clips = TestBed.inject(ClipsRepo);
    await clips.keep(clipOf('a'));
    await store.open('a');
    await until(() => subject.record() !== null);
    const record = subject.proposed().find((s) => s.kind === 'record');
    expect(record).toMatchObject({ kind: 'record', short: false });
    const prepared: number[] = [];
    const backing = TestBed.inject(BackingService);
    jest.spyOn(backing, 'prepare').mockImplementation((bpm) => void prepared.push(bpm));
    const broke = signal(false);
    Object.assign(backing, { broke, tryAgain: () => broke.set(false) });
    store.begin({ ...PLAN, stages: [record!] });
    TestBed.tick();
    const parts = ({ program }: { readonly program: Program }): string[] =>
      [...new Set(eventsIn(program, 0, 20_160).map((e): string => e.part))].sort();
    expect(parts(transport.requests.at(-1)!)).toEqual(['click', 'record']);
    expect([...new Set(prepared)]).toEqual([80, 90]);
    expect(store.beneath()).toBe('sounds');
    broke.set(true);
    expect(store.beneath()).toBe('broke');
    const shown = mount(RungTempoComponent);
    expect(shown.text()).toContain('The recording could not be prepared, so it is off.');
    shown.press('Try again');
    shown.fixture.destroy();
    expect(store.beneath()).toBe('sounds');
    // What is judged is the phrase all the same.
    expect(store.rendition()?.pattern.strokes.length).toBe(subject.whole()?.strokes.length);
    await clips.remove('a');
    await until(() => subject.record() === null);
    expect(store.beneath()).toBe('gone');
    expect(parts(store.rendition()!)).not.toContain('record');
    // Bars of another meter are not the bars of this phrase.
    await clips.keep({ ...clipOf('a'), meter: '7/8' });
    await new Promise((r) => setTimeout(r, 60));
    expect(subject.record()).toBeNull();
  });

  it('a room opened anew stands at its rung, silent; leaving pauses', async () => {
    const { transport, store } = await room();
    await store.open('a');
    store.begin(PLAN);
    transport.began$.next();
    transport.loops$.next(1);
    transport.loops$.next(2);
    store.dispatch({ kind: 'clean', at: 5 });
    store.destroy();
    expect(transport.stops).toBeGreaterThan(0);
    await new Promise((r) => setTimeout(r, 30));
    expect(await TestBed.inject(DrillsRepo).of('a')).toMatchObject({ rung: 1, phase: 'ready' });
    await store.open('a');
    expect(store.drill()).toMatchObject({ rung: 1, phase: 'ready', loops: 0 });
    expect(store.drill()?.attempts).toHaveLength(1);
  });

  it('a try that is taken out or corrected in the Log while the room waits: going on brings nothing back', async () => {
    const { db, transport, store } = await room();
    const edits = TestBed.inject(LogEdits);
    const messy = (at: number): void => {
      store.dispatch({ kind: 'start', at });
      transport.began$.next();
      store.dispatch({ kind: 'messy', at });
    };
    await store.open('a');
    store.begin(PLAN);
    [10, 20, 30].forEach(messy);
    await untilAsked(async () => (await logged(db, 'a')) === 3);
    const [first, second, third] = await triesOf(db, 'a');
    const back = await edits.remove('a', first!.id);
    await edits.change('a', third!.id, { verdict: 'clean', note: 'it was fine' });
    await until(() => store.drill()?.attempts.length === 2);
    expect(store.drill()?.attempts.map((t) => t.verdict)).toEqual(['messy', 'clean']);
    messy(40);
    await untilAsked(async () => (await logged(db, 'a')) === 3);
    const stands = await triesOf(db, 'a');
    expect(stands.map((t) => [t.at, t.verdict, t.note])).toEqual([
      [20, 'messy', undefined],
      [30, 'clean', 'it was fine'],
      [40, 'messy', undefined],
    ]);
    // Put back, and gone on with: nothing of it was written over.
    await back!();
    messy(50);
    await untilAsked(async () => (await logged(db, 'a')) === 5);
    const ids = (await triesOf(db, 'a')).map((t) => t.id);
    expect(new Set(ids).size).toBe(5);
    expect(ids.slice(0, 3)).toEqual([first!.id, second!.id, third!.id]);
  });

  it('one drill that goes on on two devices: every try of both is there when they are merged', async () => {
    const { db, transport, store } = await room();
    const messy = async (n: number): Promise<void> => {
      const before = await logged(db, 'a');
      store.dispatch({ kind: 'start', at: n });
      transport.began$.next();
      store.dispatch({ kind: 'messy', at: n });
      await untilAsked(async () => (await logged(db, 'a')) === before + 1);
    };
    await store.open('a');
    store.begin(PLAN);
    await messy(1);
    await messy(2);
    const [tries, drills] = [await triesOf(db, 'a'), await db.drills.toArray()];
    await messy(3);
    await messy(4);
    await messy(5);
    const here = await triesOf(db, 'a');
    await Promise.all([db.tries.clear(), db.tallies.clear(), db.drills.clear()]);
    await log(db, ...tries);
    await db.drills.bulkPut(drills);
    await store.open('a');
    for (const n of [6, 7, 8]) await messy(n);
    const there = await triesOf(db, 'a');
    const both = merged({ ...EMPTY_SHELF, attempts: here }, { ...EMPTY_SHELF, attempts: there });
    expect(both.attempts.map((t) => t.at).sort()).toEqual([1, 2, 3, 4, 5, 6, 7, 8]);
  });

  it('a new ladder forgets the drill and keeps the log', async () => {
    const { db, transport, store } = await room();
    await store.open('a');
    store.begin(PLAN);
    transport.began$.next();
    store.dispatch({ kind: 'messy', at: 9 });
    await new Promise((r) => setTimeout(r, 30));
    await store.startOver();
    expect(store.drill()).toBeNull();
    expect(await logged(db, 'a')).toBe(1);
  });

  it('half speed is only a look: the rung waits, nothing counts, Space begins it anew', async () => {
    const { transport, store } = await room();
    await store.open('a');
    store.begin(PLAN);
    transport.began$.next();
    transport.loops$.next(1);
    store.toggleSlow();
    expect(store.slow()).toBe(true);
    expect(store.drill()).toMatchObject({ phase: 'ready', rung: 0, loops: 0 });
    expect(transport.requests.at(-1)?.bpm).toBe(40);
    transport.began$.next();
    transport.loops$.next(1);
    transport.loops$.next(2);
    expect(store.drill()).toMatchObject({ phase: 'ready', loops: 0, attempts: [] });
    store.dispatch({ kind: 'start', at: 1 });
    expect(store.slow()).toBe(false);
    expect(transport.requests.at(-1)?.bpm).toBe(80);
    store.toggleSlow();
    store.toggleSlow();
    expect([store.slow(), transport.playing()]).toEqual([false, false]);
  });

  it('a device that slept breaks the try off at its rung, and nothing is logged', async () => {
    const { transport, store } = await room();
    await store.open('a');
    store.begin(PLAN);
    transport.began$.next();
    transport.loops$.next(1);
    transport.slept$.next();
    expect(store.slept()).toBe(true);
    expect(store.drill()).toMatchObject({ phase: 'ready', rung: 0, attempts: [] });
    store.dispatch({ kind: 'start', at: 1 });
    expect(store.slept()).toBe(false);
  });

  it('click, counts and gap change from the next beat on, while it sounds', async () => {
    const { choices, transport, store } = await room();
    await store.open('a');
    store.begin(PLAN);
    transport.began$.next();
    choices.clickOn('none');
    choices.countAlong('tones');
    store.refresh();
    const changed = transport.changes.at(-1)!;
    const parts = new Set(eventsIn(changed.program!, 0, 20160).map((e) => e.part));
    expect(parts).toEqual(new Set(['primary', 'texture', 'counts']));
    store.dispatch({ kind: 'pause' });
    store.refresh();
    expect(transport.changes).toHaveLength(1);
  });

  it('each pass sounds as loud as it is meant', async () => {
    const { transport, store } = await room();
    await store.open('a');
    store.begin({ ...PLAN, passes: true });
    const loudest = () =>
      Math.max(
        ...eventsIn(transport.requests.at(-1)!.program, 0, 20160).flatMap((e) => (e.limb === null ? [] : [e.velocity])),
      );
    const heard = [loudest()];
    for (let pass = 0; pass < 2; pass++) {
      transport.began$.next();
      transport.loops$.next(1);
      transport.loops$.next(2);
      store.dispatch({ kind: 'clean', at: pass });
      heard.push(loudest());
    }
    expect(heard[0]).toBeLessThan(heard[1]!);
    expect(heard[1]).toBeLessThan(heard[2]!);
    expect(store.tempo()).toBe(80);
  });

  it('a groove of the shelf keeps the time in context; when it is gone, plain groove does', async () => {
    const { db, store, subject } = await room();
    const groove = {
      source: { kind: 'typed' as const, text: 'K - R - L! - R - K - R - L! - R -', meter: '4/4', grid: 1260 },
      moves: [],
    };
    await TestBed.inject(PhrasesRepo).save(phraseOf('g', { family: 'groove', name: 'Plain walk', recipe: groove }));
    await store.open('a');
    await until(() => subject.grooves().length === 1);
    const stage = { id: 'c', kind: 'context' as const, bars: 1, short: false };
    store.begin({ ...PLAN, stages: [{ ...stage, groove: 'g' }] });
    const snares = () =>
      store
        .rendition()!
        .pattern.strokes.filter((s) => s.voice === 'snare' && s.limb === 'L' && s.level === 'accent')
        .map((s) => s.at as number);
    expect(snares()).toContain(5040);
    expect(store.rendition()!.pattern.strokes.some((s) => s.at === 2520 && s.voice === 'hat-closed')).toBe(false);
    await db.phrases.delete('g');
    await until(() => subject.grooves().length === 0);
    expect(store.rendition()!.pattern.strokes.some((s) => s.at === 2520 && s.voice === 'hat-closed')).toBe(true);
  });

  it('four tries that are late by as much say that the delay has moved; a calibration since then says nothing', async () => {
    const { choices, db, store, watch } = await room();
    const measured = (mean: number) => ({
      mean,
      spread: 5,
      missed: 0,
      extra: 0,
      strokes: 20,
      drift: 0,
      limbs: [],
    });
    await store.open('a');
    choices.listenTo('keys');
    store.begin(PLAN);
    expect(watch.moved()).toBeNull();
    [20, 22, 19, 23].forEach((mean, i) => {
      store.dispatch({ kind: 'counted-in', at: 100 + i });
      store.dispatch({ kind: 'messy', at: 100 + i, measured: measured(mean), source: 'keys' });
    });
    expect(watch.moved()).toBeCloseTo(21, 6);
    await TestBed.inject(LatencyRepo).keep('keys', 0.02, 200);
    expect(watch.moved()).toBeNull();
    await db.kept.clear();
  });
});
