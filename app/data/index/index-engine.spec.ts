import { RULES } from '@core/formats';
import { ableOf, ceilingOn, USUAL_PROFILE } from '@core/reach';
import { KIT_PRESETS, USUAL_KIT } from '@core/kit';
import { build } from '@core/recipe';
import { factsOf } from '@core/shelf';
import { attemptOf, phraseOf, typed, until } from '../../testing/fixtures';
import { clearShelf, log, untilAsked } from '../../testing/shelf';
import { ShelfDb } from '../db';
import type { ShelfQuestion } from './entry';
import { IndexEngine } from './index-engine';

const MEASURED = { strokes: 64, mean: 1, spread: 5, missed: 0, extra: 0, drift: 0, limbs: [], fix: '' };
const ALL: ShelfQuestion = { words: '', board: null, sort: 'name', descending: false, first: 50 };
const TEXTS = ['R l l K', '(R L)x8', 'R! l R l K', 'K R L', '(R+L K)x4'];
const phrases = TEXTS.map((text, i) => phraseOf(`p${i}`, { recipe: typed(text), changed: 1000 + i }));

function index(name = 'index-test') {
  const db = new ShelfDb(name, { rules: RULES });
  const told: string[] = [];
  const engine = new IndexEngine(name, (what) => told.push(what));
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
    const able = ableOf(USUAL_PROFILE, await engine.lessons());
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
