import { TestBed } from '@angular/core/testing';
import { Transport } from '../audio/transport.service';
import { Database } from '../data/database';
import { DrillsRepo } from '../data/drills.repo';
import { PhrasesRepo } from '../data/phrases.repo';
import { attemptOf, phraseOf } from '../testing/fixtures';
import { SilentTransport } from '../testing/silence';
import { DrillStore } from './drill.store';

async function room() {
  TestBed.resetTestingModule();
  const transport = new SilentTransport();
  TestBed.configureTestingModule({ providers: [DrillStore, { provide: Transport, useValue: transport }] });
  const { db, ready } = TestBed.inject(Database);
  await ready;
  await Promise.all([db.phrases.clear(), db.attempts.clear(), db.drills.clear()]);
  await TestBed.inject(PhrasesRepo).save(phraseOf('a', { goal: 90 }));
  return { db, transport, store: TestBed.inject(DrillStore) };
}
const PLAN = { start: 80, goal: 90, step: 10, loops: 2 };

describe('the practice room', () => {
  it('suggests a start from the goal, never above what was clean last', async () => {
    const { db, store } = await room();
    await store.open('a');
    expect(store.suggestedPlan()).toEqual({ start: 50, step: 5, goal: 90, loops: 4 });
    await db.attempts.put(attemptOf('x', 'a', { bpm: 40 }));
    await store.open('a');
    expect(store.suggestedPlan().start).toBe(40);
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
    store.happen({ kind: 'clean', at: Date.now() });
    expect(transport.requests[1]?.bpm).toBe(90);
    expect(store.tempo()).toBe(90);
  });

  it('a room opened anew stands at its rung, silent; leaving pauses', async () => {
    const { transport, store } = await room();
    await store.open('a');
    store.begin(PLAN);
    transport.began$.next();
    transport.loops$.next(1);
    transport.loops$.next(2);
    store.happen({ kind: 'clean', at: 5 });
    store.destroy();
    expect(transport.stops).toBeGreaterThan(0);
    await new Promise((r) => setTimeout(r, 30));
    expect(await TestBed.inject(DrillsRepo).of('a')).toMatchObject({ rung: 1, phase: 'ready' });
    await store.open('a');
    expect(store.drill()).toMatchObject({ rung: 1, phase: 'ready', loops: 0 });
    expect(store.drill()?.attempts).toHaveLength(1);
  });

  it('a new ladder forgets the drill and keeps the log', async () => {
    const { db, transport, store } = await room();
    await store.open('a');
    store.begin(PLAN);
    transport.began$.next();
    store.happen({ kind: 'messy', at: 9 });
    await new Promise((r) => setTimeout(r, 30));
    await store.startOver();
    expect(store.drill()).toBeNull();
    expect(await db.attempts.count()).toBe(1);
  });
});
