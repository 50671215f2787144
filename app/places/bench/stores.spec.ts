import { TestBed } from '@angular/core/testing';
import { chooses } from '@core/selection';
import { Database } from '../../storage/database';
import { DraftsRepo } from '../../storage/drafts.repo';
import { KitsRepo } from '../../storage/kits.repo';
import { attemptOf, phraseOf, typed, until } from '../../testing/fixtures';
import { log } from '../../testing/shelf';
import { restsWords } from '../../knowledge/rests-words';
import { emptyPlace } from '../../testing/place';
import { BenchStore } from './document/bench.store';
import { CompareStore } from './document/compare.store';
import { CursorStore } from './ribbon/cursor.store';
import { PickStore } from './document/pick.store';
import { ReachStore } from './answers/reach.store';
import { ribbonKey } from './ribbon/ribbon-keys';
import { SoundStore } from './ribbon/sound.store';
import { TrailStore } from './document/trail.store';
import { TypingStore } from './ribbon/typing.store';

async function stores(text = 'R L R L') {
  const place = await emptyPlace();
  const bench = TestBed.inject(BenchStore);
  await until(() => bench.ready());
  bench.setSource(typed(text).source);
  const cursor = TestBed.inject(CursorStore);
  const typing = TestBed.inject(TypingStore);
  return { ...place, bench, cursor, typing, trail: TestBed.inject(TrailStore), sound: TestBed.inject(SoundStore) };
}
const line = (bench: BenchStore): string =>
  (bench.build()?.pattern.strokes ?? [])
    .map((s) => `${s.at / 1260}${s.limb}${s.level === 'accent' ? '!' : s.level === 'ghost' ? '.' : ''}`)
    .join(' ');

describe('the cursor', () => {
  it('writes stroke text: letters, ghosts, accents, rests, joined strokes, ornaments', async () => {
    const { bench, cursor, typing } = await stores('- - - - -');
    cursor.put(0);
    for (const c of 'R!l-fR') typing.type(c);
    expect(line(bench)).toBe('0R! 1L. 3R');
    expect(bench.build()?.pattern.strokes.at(-1)?.ornament).toBe('flam');
    for (const c of '+K') typing.type(c);
    expect(line(bench)).toBe('0R! 1L. 3R 3K');
    expect(bench.recipe()?.moves.map((m) => m.move)).toEqual(['touch']);
    expect(typing.type('q')).toBe(false);
  });
  it('behind the last slot typing makes the phrase longer, by one move', async () => {
    const { bench, cursor, typing } = await stores('R L');
    cursor.put(2 * 1260);
    expect(cursor.words()).toContain('make the phrase longer');
    for (const c of 'RLK') typing.type(c);
    expect(line(bench)).toBe('0R 1L 2R 3L 4K');
    expect(bench.recipe()?.moves).toHaveLength(1);
    expect(cursor.at()).toBe(5 * 1260);
  });
  it('what was begun at a place is forgotten when the cursor is put elsewhere', async () => {
    const { bench, cursor, typing } = await stores('- - - -');
    cursor.put(0);
    for (const c of 'R') typing.type(c);
    cursor.put(2 * 1260);
    for (const c of '+K') typing.type(c);
    expect(line(bench)).toBe('0R 2K');
    cursor.put(1260);
    typing.type('f');
    cursor.leave();
    cursor.put(1260);
    typing.type('L');
    expect(bench.build()?.pattern.strokes.find((s) => s.limb === 'L')?.ornament).toBeUndefined();
  });
  it('says where it stands and what is there, for eyes and screen readers', async () => {
    const { cursor } = await stores('R! l -');
    cursor.put(1260);
    expect(cursor.words()).toBe('the e of 1 in bar 1, left hand, ghost, snare');
    cursor.step(1);
    expect(cursor.words()).toBe('the & of 1 in bar 1, rest');
  });
  it('chooses by Shift and arrows or by words; what is not understood is said', async () => {
    const { bench, cursor } = await stores();
    cursor.put(0);
    cursor.extend(1);
    cursor.extend(1);
    expect(cursor.chosen()).toEqual([0, 1]);
    cursor.extend(-1);
    expect(cursor.range()).toEqual({ from: 0, until: 1260 });
    expect(cursor.chooseWords('lefts')).toBeNull();
    cursor.level('accent');
    expect(line(bench)).toBe('0R 1L! 2R 3L!');
    expect(cursor.chooseWords('purple')).toContain('not understood');
    expect(cursor.chooseWords('kicks')).toContain('There are no kicks here');
  });
  it('displaces, copies and puts down, rubs out, takes limbs on and off', async () => {
    const { bench, cursor, typing } = await stores('R L - -');
    cursor.chooseRange(0, 2 * 1260);
    cursor.displace(1260);
    expect(line(bench)).toBe('1R 2L');
    expect(cursor.range()).toEqual({ from: 1260, until: 3 * 1260 });
    cursor.copy();
    cursor.put(0);
    cursor.paste();
    expect(line(bench)).toBe('0R 1L 2L');
    cursor.rubOut();
    expect(line(bench)).toBe('0R 2L');
    cursor.put(1260);
    typing.limb('K');
    expect(line(bench)).toBe('0R 1K 2L');
    typing.limb('K');
    expect(line(bench)).toBe('0R 2L');
  });
  it('keys of the ribbon do what their list says, and nothing else is taken', async () => {
    const { bench, cursor, typing } = await stores();
    cursor.put(0);
    const press = (key: string, more: KeyboardEventInit = {}): boolean =>
      ribbonKey(new KeyboardEvent('keydown', { key, ...more }), cursor, typing, 1260);
    expect(press('ArrowUp')).toBe(true);
    expect(line(bench)).toBe('0R! 1L 2R 3L');
    expect(press('Delete')).toBe(true);
    expect(press('End')).toBe(true);
    expect(cursor.at()).toBe(3 * 1260);
    expect(press('a', { ctrlKey: true })).toBe(true);
    expect(cursor.chosen()).toHaveLength(3);
    expect(press('F5')).toBe(false);
    expect(press('s', { ctrlKey: true })).toBe(false);
  });
});

describe('the trail', () => {
  it('walks back to the bare sticking and on to the whole, past moves that are off', async () => {
    const { bench, trail } = await stores('R L');
    bench.addMove('insert');
    bench.addMove('mirror');
    bench.openCard.set(null);
    bench.switchMove(bench.recipe()?.moves[1]?.id ?? '');
    expect(trail.many()).toBe(2);
    trail.back();
    expect(trail.words()).toBe('Step 1 of 2: The sticking');
    expect(trail.pattern()?.strokes).toHaveLength(2);
    trail.on();
    expect(trail.isFinished()).toBe(true);
  });
  it('a card under the pointer shows what it is worth to the whole', async () => {
    const { bench, trail } = await stores('R L R L');
    bench.addMove('level');
    bench.openCard.set(null);
    trail.hovered.set(bench.recipe()?.moves[0]?.id ?? null);
    expect(trail.changed()).toEqual([0]);
  });
});

describe('picking', () => {
  it('a press joins a stroke to what the open card means, and the selector is said in words', async () => {
    const { bench } = await stores('R L R L');
    bench.addMove('level');
    const picks = TestBed.inject(PickStore);
    expect(picks.chosen()).toEqual([0]);
    picks.toggle(2 * 1260, 'R');
    expect(picks.chosen()).toEqual([0, 2]);
    expect(picks.words()).toContain('rights');
    picks.toggle(0, 'R');
    expect(picks.chosen()).toEqual([2]);
    bench.openCard.set(null);
    expect(picks.pattern()).toBeNull();
  });
});

describe('sound', () => {
  it('half speed, one limb muted, the chosen stretch going round, from the cursor', async () => {
    const { bench, cursor, sound, transport } = await stores('R L K L');
    bench.setTempo(100);
    sound.half.set(true);
    expect(sound.request()?.bpm).toBe(50);
    sound.mute.set({ limbs: ['K'], roles: [] });
    cursor.chooseRange(1260, 4 * 1260);
    expect(sound.loop()).toBe(3 * 1260);
    expect(sound.origin()).toBe(1260);
    const events = sound.rendition()?.program.layers[0]?.events ?? [];
    expect(events.map((e) => e.tick)).toEqual([0, 2 * 1260]);
    cursor.put(2 * 1260);
    sound.fromCursor();
    expect(transport.starts.at(-1)).toBe(2 * 1260);
    sound.preview();
    expect(transport.playing()).toBe(true);
  });
  it('the other phrase is heard while it is compared', async () => {
    const { bench, sound } = await stores('R L');
    const compare = TestBed.inject(CompareStore);
    const other = bench.build()!.pattern;
    compare.choose({ id: 'other', name: 'Other', pattern: { ...other, strokes: other.strokes.slice(0, 1) } });
    compare.open.set(true);
    compare.swap();
    expect(sound.rendition()?.pattern.strokes).toHaveLength(1);
    expect(compare.ticks()).toEqual([1260]);
    expect(compare.words()).toMatch(/(stroke|kick)s? less/);
    compare.open.set(false);
    expect(sound.rendition()?.pattern.strokes).toHaveLength(2);
  });
});

describe('reach', () => {
  it('follows the kit: fewer drums are a finding, never another recipe', async () => {
    const { bench } = await stores('R L R L');
    bench.take({ id: 'x', on: true, move: 'voice', params: { select: chooses({}), voices: ['mid-tom'] } });
    const reach = TestBed.inject(ReachStore);
    const kits = TestBed.inject(KitsRepo);
    expect(reach.onKit()?.findings).toEqual([]);
    const recipe = JSON.stringify(bench.recipe());
    const five = kits.current();
    await kits.keep({ kits: [{ ...five, pieces: five.pieces.filter((p) => p.kind !== 'tom') }], current: five.id });
    expect(reach.onKit()?.findings[0]?.words).toContain('No mid tom');
    expect(JSON.stringify(bench.recipe())).toBe(recipe);
    expect(reach.bpm()).toBeGreaterThan(20);
  });

  it('no ceiling is below what was shown: by a kit once, by ear twice, as long as the phrase is as it was', async () => {
    const { bench, db } = await stores();
    const reach = TestBed.inject(ReachStore);
    const text = 'R R R R R R R R';
    await db.phrases.put(phraseOf('hard', { recipe: typed(text), changed: 1000 }));
    const at = Date.now() - 86_400_000;
    await bench.open('hard');
    await until(() => reach.bpm() !== null);
    const worked = reach.bpm()!;
    expect(reach.top()?.rests).toEqual({ kind: 'default' });
    await log(db, attemptOf('1', 'hard', { at, bpm: worked + 20 }));
    await new Promise((r) => setTimeout(r, 30));
    expect(reach.bpm()).toBe(worked);
    await log(db, attemptOf('2', 'hard', { at: at + 1000, bpm: worked + 20 }));
    await until(() => reach.bpm() === worked + 20);
    expect(restsWords(reach.top()!.rests)).toMatch(
      new RegExp(`^raised from ${worked} by your clean try by ear, \\d+ \\w+$`),
    );
    bench.setSource(typed(`${text} R`).source);
    await until(() => reach.top()?.rests.kind !== 'shown');
  });
});

describe('undo across a reload', () => {
  it('the steps are kept with the draft and walk on after it', async () => {
    const { bench, db } = await stores('R L');
    bench.addMove('mirror');
    bench.setTempo(120);
    await until(() => bench.canUndo());
    const kept = async () =>
      (await db.drafts.toArray())[0]?.draft as unknown as { past: unknown[]; tempo: number } | undefined;
    let draft = await kept();
    for (let i = 0; i < 400 && draft?.tempo !== 120; i++) {
      await new Promise((r) => setTimeout(r, 10));
      draft = await kept();
    }
    expect(draft?.tempo).toBe(120);
    expect(draft?.past).toHaveLength(3);
    // A fresh store is a reloaded tab.
    const again = TestBed.runInInjectionContext(() => new BenchStore());
    await until(() => again.ready());
    again.undo();
    expect(again.tempo()).toBe(90);
    again.undo();
    expect(again.recipe()?.moves).toEqual([]);
    again.redo();
    expect(again.recipe()?.moves).toHaveLength(1);
  });
  it('while one draft is being written only the newest waits', async () => {
    const { db } = await emptyPlace();
    const drafts = TestBed.inject(DraftsRepo);
    const write = jest.spyOn(TestBed.inject(Database), 'write');
    for (let i = 0; i < 20; i++) void drafts.keep({ phrase: null, recipe: null, tempo: 60 + i });
    await until(() => write.mock.calls.length > 1);
    await new Promise((r) => setTimeout(r, 60));
    expect(write.mock.calls.length).toBeLessThan(6);
    expect((await db.drafts.toArray()).map((d) => d.draft.tempo)).toEqual([79]);
  });
});
