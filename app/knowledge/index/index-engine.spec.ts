import { RULES } from '@core/formats/shelf-file';
import { effectiveProfile, ceilingOn, USUAL_PROFILE } from '@core/reach';
import { KIT_PRESETS, USUAL_KIT } from '@core/kit';
import { build } from '@core/recipe';
import { factsOf } from '@core/shelf';
import { meter } from '@core/time';
import { attemptOf, phraseOf, sittingOf, typed, until } from '../../testing/fixtures';
import { clearShelf, log, untilAsked } from '../../testing/shelf';
import { ShelfDb } from '../../storage/db';
import type { Believed, ShelfQuestion } from './entry';
import { chanceAt, knownUnder, learnt, onDay, readyTempo, shareOf, unknownYet } from '@core/player';
import { practiceDay, today } from '../../environment/clock';
import { countAnew } from '../../storage/tries';
import { IndexEngine } from './index-engine';

const MEASURED = { strokes: 64, mean: 1, spread: 5, missed: 0, extra: 0, drift: 0, limbs: [] };
const ALL: ShelfQuestion = { words: '', board: null, sort: 'name', descending: false, first: 50 };
const TEXTS = ['R l l K', '(R L)x8', 'R! l R l K', 'K R L', '(R+L K)x4'];
const phrases = TEXTS.map((text, i) => phraseOf(`p${i}`, { recipe: typed(text), changed: 1000 + i }));

function index(name = 'index-test', peace = 0) {
  const db = new ShelfDb(name, { rules: RULES });
  const told: string[] = [];
  const engine = new IndexEngine(name, (what) => told.push(what), peace);
  return { db, engine, told };
}

describe('the index of a shelf', () => {
  it('knows of every phrase what working it out by itself gives', async () => {
    const { db, engine } = index();
    await clearShelf(db);
    await db.phrases.bulkPut(phrases);
    engine.about(USUAL_KIT, USUAL_PROFILE);
    await untilAsked(async () => {
      const a = await engine.ask(ALL);
      return a.all === phrases.length && a.unread === 0;
    });
    const { first } = await engine.ask(ALL);
    for (const [i, row] of first.entries()) {
      const { pattern } = build(phrases[i]!.recipe);
      const bpm = ceilingOn(pattern, USUAL_KIT, USUAL_PROFILE).bpm;
      expect([row.id, row.length, row.top?.bpm ?? null]).toEqual([
        `p${i}`,
        factsOf(pattern).length,
        bpm === null ? null : Math.floor(bpm),
      ]);
    }
    engine.end();
  });

  it('leaves the machine to a page that asks for nothing, and begins when it asks', async () => {
    const { db, engine, told } = index('index-test', 60_000);
    await clearShelf(db);
    await db.phrases.bulkPut(phrases);
    engine.about(USUAL_KIT, USUAL_PROFILE);
    await until(() => told.length > 0);
    await new Promise((r) => setTimeout(r, 200));
    expect(await engine.forms()).toEqual([]);
    // What was practised rests on what is worked out.
    await engine.lookBack();
    expect(await engine.forms()).not.toEqual([]);
    engine.end();
    db.close();
  });

  it('follows what is kept, played and taken off, by whomever', async () => {
    const { db, engine, told } = index();
    await clearShelf(db);
    engine.about(USUAL_KIT, USUAL_PROFILE);
    await db.phrases.bulkPut(phrases);
    await untilAsked(async () => (await engine.ask(ALL)).all === 5);
    await log(db, attemptOf('1', 'p1', { bpm: 88 }));
    await untilAsked(async () => (await engine.ask({ ...ALL, words: 'clean 88' })).order.length === 1);
    await db.phrases.put({ ...phrases[0]!, name: 'Zebra', changed: 5000 });
    await untilAsked(async () => (await engine.ask(ALL)).first.at(-1)?.name === 'Zebra');
    await db.phrases.delete('p2');
    await untilAsked(async () => (await engine.ask(ALL)).all === 4);
    await db.phrases.clear();
    await untilAsked(async () => (await engine.ask(ALL)).all === 0);
    await until(() => told.length > 0);
    engine.end();
  });

  it('a changed profile or kit gives the ceilings of the new one', async () => {
    const { db, engine } = index();
    await clearShelf(db);
    await db.phrases.bulkPut(phrases);
    engine.about(USUAL_KIT, USUAL_PROFILE);
    const ceilings = async (): Promise<(number | null | undefined)[]> =>
      (await engine.ask(ALL)).first.map((r) => r.top?.bpm);
    await untilAsked(async () => (await ceilings()).length === 5 && !(await ceilings()).includes(undefined));
    const before = await ceilings();
    const slow = {
      ...USUAL_PROFILE,
      rates: { ...USUAL_PROFILE.rates, R: { singles: 2, doubles: 2 }, K: { singles: 1, doubles: 1 } },
    };
    engine.about(USUAL_KIT, slow);
    expect(await ceilings()).toEqual(before.map(() => undefined));
    await untilAsked(async () => !(await ceilings()).includes(undefined));
    const expected = phrases.map((p) => ceilingOn(build(p.recipe).pattern, USUAL_KIT, slow).bpm);
    expect(await ceilings()).toEqual(expected.map((n) => (n === null ? null : Math.floor(n))));
    engine.about(KIT_PRESETS.at(-1)!, USUAL_PROFILE);
    await untilAsked(async () => !(await ceilings()).includes(undefined));
    engine.end();
  });

  it('what was shown on one phrase raises others, names the one that showed it, and no longer when it is taken back', async () => {
    const { db, engine } = index();
    await clearShelf(db);
    const own = [...phrases, phraseOf('p5', { recipe: typed('K R l l'), changed: 2000 })];
    await db.phrases.bulkPut(own);
    engine.about(USUAL_KIT, USUAL_PROFILE);
    const tops = async () => new Map((await engine.ask(ALL)).first.map((r) => [r.id, r.top]));
    await untilAsked(async () => [...(await tops()).values()].every(Boolean) && (await tops()).size === 6);
    const before = await tops();
    expect(await engine.lessons()).toEqual([]);
    // `p0` and `p5` are limited by the same double strokes of the left hand; `p0` is played a third faster.
    const bpm = Math.round(before.get('p0')!.bpm! * 1.3);
    await log(db, attemptOf('1', 'p0', { bpm, at: Date.now(), source: 'midi', measured: MEASURED }));
    await untilAsked(async () => (await engine.lessons()).length > 0 && [...(await tops()).values()].every(Boolean));
    const after = await tops();
    expect(after.get('p0')).toMatchObject({ bpm, rests: { kind: 'shown', was: before.get('p0')!.bpm } });
    const able = effectiveProfile(USUAL_PROFILE, await engine.lessons());
    let raised = 0;
    for (const p of own) {
      if (p.id === 'p0') continue;
      const worked = ceilingOn(build(p.recipe).pattern, USUAL_KIT, able).bpm;
      expect(after.get(p.id)!.bpm).toBe(worked === null ? null : Math.floor(worked));
      const was = before.get(p.id)!.bpm;
      if ((after.get(p.id)!.bpm ?? 0) === (was ?? 0)) continue;
      raised++;
      expect(after.get(p.id)!.rests).toMatchObject({ kind: 'learnt', name: 'Phrase p0', was, by: 'estimate' });
    }
    expect(raised).toBeGreaterThan(0);
    // A phrase that was changed since proves nothing.
    await db.phrases.put({ ...phrases[0]!, recipe: typed('R'), changed: Date.now() + 1000 });
    await untilAsked(async () => (await engine.lessons()).length === 0 && [...(await tops()).values()].every(Boolean));
    expect((await tops()).get('p5')).toEqual(before.get('p5'));
    engine.end();
  });

  it('kept between visits it is there at once, and what changed meanwhile is put right', async () => {
    const first = index();
    await clearShelf(first.db);
    await first.db.phrases.bulkPut(phrases);
    first.engine.about(USUAL_KIT, USUAL_PROFILE);
    await untilAsked(async () => (await first.engine.ask(ALL)).unread === 0 && (await first.engine.ask(ALL)).all === 5);
    let packs = 0;
    for (let i = 0; i < 100 && packs === 0; i++) {
      await new Promise((r) => setTimeout(r, 50));
      packs = await first.db.packs.count();
    }
    expect(packs).toBeGreaterThan(0);
    first.engine.end();
    await first.db.phrases.put({ ...phrases[1]!, name: 'Renamed', changed: 9000 });
    await first.db.phrases.delete('p4');
    const { engine } = index();
    const early = await engine.ask(ALL);
    expect([early.all, early.unread]).toEqual([5, 0]);
    engine.about(USUAL_KIT, USUAL_PROFILE);
    await untilAsked(async () => {
      const a = await engine.ask(ALL);
      return a.all === 4 && a.first.some((r) => r.name === 'Renamed');
    });
    engine.end();
  });

  it('says that nothing was drilled only when it was looked at, not from what was kept before', async () => {
    const first = index('index-drilled');
    await clearShelf(first.db);
    await first.db.phrases.bulkPut(phrases);
    first.engine.about(USUAL_KIT, USUAL_PROFILE);
    await untilAsked(async () => (await first.engine.ask(ALL)).unread === 0);
    expect(await first.engine.names('drilled')).toEqual([]);
    await untilAsked(async () => (await first.db.packs.count()) > 0);
    first.engine.end();
    // A try is kept while no index is there to hear of it.
    await log(first.db, attemptOf('1', 'p1', { bpm: 88 }));
    const second = index('index-drilled');
    expect((await second.engine.names('drilled')).map((p) => p.id)).toEqual(['p1']);
    second.engine.end();
  });

  it('draws what it is asked to, on the kit that is current', async () => {
    const { db, engine } = index();
    await clearShelf(db);
    await db.phrases.bulkPut(phrases);
    engine.about(USUAL_KIT, USUAL_PROFILE);
    await untilAsked(async () => (await engine.ask(ALL)).all === 5);
    const drawn = await engine.patternsOf(['p3', 'p0', 'gone']);
    expect(drawn.map((d) => [d.id, d.pattern.strokes.length])).toEqual([
      ['p3', 3],
      ['p0', 4],
    ]);
    expect(await engine.next('Phrase p0')).toBe('Phrase p0 2');
    await until(() => true);
    engine.end();
  });
});

describe('what the index believes of the player', () => {
  const DAY = 864e5;
  const asked = {
    day: today(),
    minutes: 35,
    place: 'kit',
    order: 'in-turn',
    held: [],
    dropped: [],
    arranged: [],
    done: [],
  } as const;
  const tries = (
    phrase: string,
    bpm: number,
    many: number,
    days: readonly number[],
    verdict: 'clean' | 'messy' = 'clean',
  ) =>
    days.flatMap((ago) =>
      Array.from({ length: many }, (_, i) =>
        attemptOf(`${phrase}-${ago}-${bpm}-${i}`, phrase, {
          at: Date.now() - ago * DAY + i * 1000,
          bpm,
          seconds: 30,
          verdict,
        }),
      ),
    );

  it('is what all tries of each phrase come to under the share that the others give, and follows every try', async () => {
    const { db, engine } = index();
    await clearShelf(db);
    await db.phrases.bulkPut(phrases.map((p) => ({ ...p, goal: 100 })));
    const own = { p0: tries('p0', 90, 4, [9, 6, 3]), p1: tries('p1', 70, 5, [5, 2]) };
    await log(db, ...own.p0, ...own.p1);
    engine.about(USUAL_KIT, USUAL_PROFILE);
    await untilAsked(async () => (await engine.believed('p1')) !== null);
    const ceiling = (id: string): number => {
      const bpm = ceilingOn(build(phrases.find((p) => p.id === id)!.recipe).pattern, USUAL_KIT, USUAL_PROFILE).bpm;
      return Math.floor(bpm ?? 300);
    };
    const known = (id: 'p0' | 'p1', of = own[id]) =>
      learnt(
        unknownYet(ceiling(id), practiceDay(of[0]!.at)),
        of.map((t) => ({ day: practiceDay(t.at), bpm: t.bpm, clean: t.verdict === 'clean', weight: 0.8 })),
      );
    // The share by the other phrase alone, worked out from its tries.
    const share = shareOf([{ known: known('p1'), ceiling: ceiling('p1') }]);
    const belief = onDay(knownUnder(known('p0'), ceiling('p0'), share), today());
    const told = (await engine.believed('p0'))!;
    const bpm = (b: Believed): number => (b.ready.kind === 'ready' ? b.ready.bpm : NaN);
    // Never above 1.06 times what was tried, whatever is believed.
    const most = 1.06 * Math.max(...own.p0.map((t) => t.bpm));
    expect(bpm(told)).toBe(Math.floor(Math.min(readyTempo(belief).bpm, most)));
    expect(told.atGoal).toBeCloseTo(chanceAt(belief, 100), 6);
    expect([told.tries, told.days]).toEqual([12, 3]);
    expect(await engine.believed('p2')).toBeNull();
    expect((await engine.shareFor('p0')).mean).toBeCloseTo(share.mean, 6);
    await log(db, ...tries('p0', 99, 6, [0]));
    await untilAsked(async () => (await engine.believed('p0'))!.tries === 18);
    expect(bpm((await engine.believed('p0'))!)).toBeGreaterThan(bpm(told));
    // A try that is corrected is believed as it was corrected.
    const before = bpm((await engine.believed('p0'))!);
    const pages = await db.tries.toArray();
    const page = pages.find((p) => p.phrase === 'p0')!;
    await db.transaction('rw', db.own, async () => {
      await db.tries.put({
        ...page,
        tries: page.tries.map((t) => (t.bpm === 99 ? { ...t, verdict: 'messy' as const } : t)),
      });
      await countAnew(db, 'p0');
    });
    await untilAsked(async () => bpm((await engine.believed('p0'))!) < before);
    engine.end();
  });

  it('is kept between visits, plans the day and looks back without a log being read', async () => {
    const first = index('believed');
    await clearShelf(first.db);
    await first.db.phrases.bulkPut(phrases.map((p) => ({ ...p, goal: 100 })));
    await log(
      first.db,
      ...tries('p0', 90, 4, [12, 10, 8, 6]),
      ...tries('p0', 96, 3, [6], 'messy'),
      ...tries('p1', 80, 5, [20]),
    );
    first.engine.about(USUAL_KIT, USUAL_PROFILE);
    const plan = await first.engine.plan(asked);
    expect(plan.blocks.some((b) => b.id === 'rise:p0')).toBe(true);
    await untilAsked(async () => (await first.db.packs.toArray()).some((p) => p.n >= 1000 && p.json.length > 2));
    first.engine.end();
    const second = index('believed');
    const reads = jest.spyOn(IDBObjectStore.prototype, 'openCursor');
    const whole = jest.spyOn(IDBObjectStore.prototype, 'getAll');
    second.engine.about(USUAL_KIT, USUAL_PROFILE);
    expect(await second.engine.plan(asked)).toEqual(plan);
    const { days, projection } = await second.engine.phraseLog('p0');
    expect(days.map((d) => [d.day, d.tries, d.clean])).toEqual([
      [today() - 12, 4, 4],
      [today() - 10, 4, 4],
      [today() - 8, 4, 4],
      [today() - 6, 7, 4],
    ]);
    expect(projection?.kind).toBeDefined();
    const back = await second.engine.lookBack();
    expect(back.days.map((d) => d.day)).toEqual([20, 12, 10, 8, 6].map((d) => today() - d));
    const names = (spy: { mock: { contexts: unknown[] } }) => spy.mock.contexts.map((c) => (c as IDBObjectStore).name);
    expect([...names(reads), ...names(whole)].filter((n) => n === 'tries')).toEqual([]);
    reads.mockRestore();
    whole.mockRestore();
    second.engine.end();
  });
});

describe('what is used', () => {
  it('follows the sittings that are kept: uses, what is clean and never used, what can be called, and today’s play', async () => {
    const { db, engine } = index();
    await clearShelf(db);
    await db.phrases.bulkPut(phrases);
    // p1 and p3 are clean at their goals on three days.
    const day = 86_400_000;
    const tries = ['p1', 'p3'].flatMap((id) =>
      [3, 2, 1].flatMap((ago) =>
        [0, 1, 2].map((n) => attemptOf(`${id}-${ago}-${n}`, id, { at: Date.now() - ago * day + n, bpm: 100 })),
      ),
    );
    await log(db, ...tries);
    engine.about(USUAL_KIT, USUAL_PROFILE);
    expect(await engine.usage()).toMatchObject({ sittings: 0, uses: [] });
    await db.freeSittings.put(sittingOf('a', ['p1', 'p1', 'p0'], { at: Date.now() - day }));
    await untilAsked(async () => (await engine.usage()).sittings === 1);
    const usage = await engine.usage();
    expect(usage.uses.map((u) => [u.phrase, u.name, u.times])).toEqual([
      ['p1', phrases[1]!.name, 2],
      ['p0', phrases[0]!.name, 1],
    ]);
    expect(usage.never.map((n) => n.id)).toEqual(['p3']);
    const called = await engine.callables(meter(4, 4), 100);
    const of = (id: string) => called.find((c) => c.id === id);
    expect([of('p1')?.recall !== null, of('p3')?.recall]).toEqual([true, null]);
    expect(of('p1')?.chance ?? 0).toBeGreaterThan(of('p2')?.chance ?? 1);
    // What a program played changes nothing.
    await db.freeSittings.put(sittingOf('b', ['p3'], { source: 'simulated' }));
    await new Promise((r) => setTimeout(r, 100));
    expect((await engine.usage()).never.map((n) => n.id)).toEqual(['p3']);
    engine.end();
    db.close();
  });
});
