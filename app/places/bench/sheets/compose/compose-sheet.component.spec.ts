import { TestBed } from '@angular/core/testing';
import { compose, relaxations, type Answer, type Asked } from '@core/compose';
import { build } from '@core/recipe';
import { phraseOf, typed, until } from '../../../../testing/fixtures';
import { mount } from '../../../../testing/mount';
import { emptyPlace } from '../../../../testing/place';
import { WantedService } from '../../../../knowledge/wanted.service';
import { BenchStore } from '../../document/bench.store';
import { ComposeSheetComponent } from './compose-sheet.component';
import { ComposeWorker, type Asking, type Found, type Told } from './compose.service';

/** Answers on the spot, as the worker would; can be held back. */
class SpotCompose {
  readonly held: (() => void)[] = [];
  isHeld = false;
  cancelled = 0;
  asked: Asked[] = [];
  warm(): void {
    // It answers on the spot.
  }
  ask(asked: Asked, told: Told, tell: (answer: Answer) => void): Asking {
    this.asked.push(asked);
    const work = (): Found => {
      const composed = compose(asked, { ...told, found: tell });
      return { ...composed, relaxed: composed.answers.length > 0 ? [] : relaxations(asked, told, told.schools) };
    };
    const found = new Promise<Found>((resolve) => {
      if (this.isHeld) this.held.push(() => resolve(work()));
      else void Promise.resolve().then(() => resolve(work()));
    });
    return { found, cancel: () => this.cancelled++ };
  }
}

async function sheet(text: string | null = null) {
  const worker = new SpotCompose();
  const place = await emptyPlace([{ provide: ComposeWorker, useValue: worker }]);
  const store = TestBed.inject(BenchStore);
  await until(() => store.ready());
  if (text !== null) {
    store.setSource(typed(text).source);
    TestBed.tick();
  }
  const m = mount(ComposeSheetComponent, { click: 'beats' });
  return { ...place, m, worker, store, asking: m.component.compose };
}

describe('asking for a phrase', () => {
  it('a press on a slot asks, again takes it back; another brush asks for something else there', async () => {
    const { m, asking } = await sheet();
    expect(m.component.beats().map((b) => b.length)).toEqual([4, 4, 4, 4]);
    asking.press(4);
    m.component.paint('K');
    m.component.paintNot();
    asking.press(4);
    expect(asking.demands().wishes).toEqual([
      { slot: 4, what: 'hit', must: true },
      { slot: 4, what: 'K', must: false },
    ]);
    expect(m.component.beats()[1]?.[0]).toMatchObject({ count: '2', signs: '! ×K', hit: true });
    m.component.paint('hit');
    m.component.paintNot();
    asking.press(4);
    expect(asking.demands().wishes).toEqual([{ slot: 4, what: 'K', must: false }]);
    asking.undo();
    expect(asking.demands().wishes).toHaveLength(2);
    // In another space slots lie elsewhere: what was asked of them goes.
    asking.change({ bars: 2 });
    expect(asking.demands().wishes).toEqual([]);
    expect(asking.asked().slots).toBe(32);
    asking.change({ from: '3' });
    expect(asking.asked().slots).toBe(24);
    expect(m.component.beats()[0]?.[0]?.count).toBe('3');
  });
  it('drawn over slots the brush asks for all of them in one step, and takes them away as it began', async () => {
    const { m, asking } = await sheet();
    const slot = (n: number, type: string): void => {
      const at = m.host.querySelector(`[data-slot="${n}"]`)!;
      at.dispatchEvent(
        Object.assign(new MouseEvent(type, { bubbles: type === 'pointerdown', button: 0 }), { pointerId: 1 }),
      );
    };
    slot(2, 'pointerdown');
    for (const n of [3, 4, 5]) slot(n, 'pointerenter');
    m.host.querySelector('.slots')!.dispatchEvent(new MouseEvent('pointerup'));
    slot(9, 'pointerenter');
    expect(asking.demands().wishes.map((w) => w.slot)).toEqual([2, 3, 4, 5]);
    slot(4, 'pointerdown');
    slot(5, 'pointerenter');
    slot(6, 'pointerenter');
    expect(asking.demands().wishes.map((w) => w.slot)).toEqual([2, 3]);
    asking.undo();
    asking.undo();
    expect(asking.demands().wishes).toEqual([]);
  });
  it('in words: what is read is set and asked for; what is not is named, and nothing changes', async () => {
    const { m, asking, worker } = await sheet();
    const field = m.host.querySelector<HTMLInputElement>('input[aria-label="Say what it must have"]')!;
    field.value = 'hits on 1 and 3, holds at 100, wibble';
    m.component.say(field);
    expect(m.component.told()).toBe('“wibble” is not understood here.');
    expect(asking.demands().wishes).toEqual([]);
    expect(field.value).toContain('wibble');
    field.value = 'hits on 1 and 3, holds at 100';
    m.component.say(field);
    await until(() => asking.answers().length > 0);
    expect(worker.asked[0]).toMatchObject({ tempo: 100, wishes: [{ slot: 0 }, { slot: 8 }] });
    expect(field.value).toBe('');
  });
  it('tapped hits stand on their slots; those of a phrase are its accents', async () => {
    const { m, asking, db } = await sheet();
    m.component.tapped({ text: 'R - - L - - R -', grid: asking.asked().grid, tempo: 100 });
    expect(asking.demands().wishes.map((w) => [w.slot, w.what])).toEqual([
      [0, 'hit'],
      [3, 'hit'],
      [6, 'hit'],
    ]);
    await db.phrases.put(phraseOf('Rope', { name: 'Rope', recipe: typed('R! l l R! K') }));
    await m.component.hitsOf('Rope');
    expect(asking.demands().wishes.map((w) => w.slot)).toEqual([0, 3]);
    await m.component.addCell('Rope');
    expect(asking.asked().cells.at(-1)?.name).toBe('Rope');
    expect(await asking.hitsOf('gone')).toContain('not on the shelf any more');
  });
  it('answers what was asked last, whatever comes in late of what was asked before', async () => {
    const { asking, worker } = await sheet();
    worker.isHeld = true;
    const first = asking.ask();
    await until(() => worker.asked.length === 1);
    asking.change({ blocks: ['singles'] });
    const second = asking.ask();
    await until(() => worker.asked.length === 2);
    expect(worker.cancelled).toBe(1);
    worker.held[1]!();
    await second;
    const shown = asking.answers();
    expect(shown[0]?.sum).toBe('16');
    worker.held[0]!();
    await first;
    expect(asking.answers()).toBe(shown);
    expect(asking.search()).toBeNull();
  });
  it('used, an answer is on the Bench as something new and builds what was promised', async () => {
    const { m, asking, store } = await sheet('R L R L');
    await asking.ask();
    const [answer] = asking.answers();
    await m.component.use(answer!);
    expect(store.phrase()).toBeNull();
    expect(build(store.recipe()!).pattern.strokes.map((s) => s.limb)).toEqual(
      answer!.pattern.strokes.map((s) => s.limb),
    );
    store.undo();
    store.undo();
    expect(store.recipe()?.source).toMatchObject({ text: 'R L R L' });
  });
  it('goes round the kick of the phrase on the Bench, stroke by stroke', async () => {
    const { asking, m } = await sheet('K - - K - - K - - - K - - - K -');
    expect(asking.phrase()).not.toBeNull();
    m.component.toggleKeep('kick');
    asking.change({ blocks: ['singles'] });
    await asking.ask();
    const kicks = asking.answers().map((a) => a.pattern.strokes.filter((s) => s.limb === 'K').map((s) => s.at / 1260));
    expect(kicks.length).toBeGreaterThan(0);
    for (const own of kicks) expect(own).toEqual([0, 3, 6, 10, 14]);
  });
  it('asks on from an answer: what is held of it stands in the next ones', async () => {
    const { asking } = await sheet();
    await asking.ask();
    const first = asking.answers()[1]!;
    const limbs = (p: typeof first.pattern): readonly string[] =>
      p.strokes.filter((s) => s.at < 8 * 1260).map((s) => `${s.at} ${s.limb}`);
    await asking.hold(first, 'first half');
    expect(asking.answers().length).toBeGreaterThan(0);
    for (const a of asking.answers()) expect(limbs(a.pattern)).toEqual(limbs(first.pattern));
    asking.change({ held: null });
    await asking.hold(first, 'kicks');
    const kicks = (p: typeof first.pattern): readonly number[] =>
      p.strokes.filter((s) => s.limb === 'K').map((s) => s.at);
    for (const a of asking.answers()) expect(kicks(a.pattern)).toEqual(kicks(first.pattern));
    await asking.hold(first, 'one kick');
    expect(asking.demands().foot).toBe(1);
  });
  it('several are kept as a series, all or none, and taken back by one undo', async () => {
    const { asking, db, messages } = await sheet();
    await asking.ask();
    for (const a of asking.answers().slice(0, 3)) asking.pick(a);
    asking.pick(asking.answers()[2]!);
    const told: string[] = [];
    messages.messageObserver.subscribe((x) => told.push(Array.isArray(x) ? '' : (x.detail ?? '')));
    await asking.keep(asking.picked());
    const kept = await db.phrases.toArray();
    expect(kept).toHaveLength(2);
    expect(new Set(kept.map((p) => p.name)).size).toBe(2);
    for (const p of kept) expect(p.goal).toBeLessThanOrEqual(400);
    expect(told.at(-1)).toContain('2 phrases from');
    expect(asking.picked()).toEqual([]);
  });
  it('another place asks with its own demands', async () => {
    await emptyPlace([{ provide: ComposeWorker, useValue: new SpotCompose() }]);
    const store = TestBed.inject(BenchStore);
    await until(() => store.ready());
    await TestBed.inject(WantedService).ask({ meter: '7/8', wishes: [{ slot: 3, what: 'hit', must: true }] });
    const m = mount(ComposeSheetComponent, { click: 'beats' });
    expect(m.component.d()).toMatchObject({ meter: '7/8', wishes: [{ slot: 3 }] });
    // Once: the next time the sheet opens on what was asked last.
    m.component.set({ holds: 90 });
    expect(mount(ComposeSheetComponent, { click: 'beats' }).component.d()).toMatchObject({ meter: '7/8', holds: 90 });
  });
  it('the arrows go through the answers and play each, Space stops', async () => {
    const { m, asking, transport } = await sheet();
    await asking.ask();
    m.fixture.detectChanges();
    const list = m.host.querySelector<HTMLElement>('.answers')!;
    const key = (k: string): boolean => list.dispatchEvent(new KeyboardEvent('keydown', { key: k, bubbles: true }));
    const [a, b] = asking.answers();
    key('ArrowDown');
    expect(m.component.heard.is(a!.pattern)).toBe(true);
    key('ArrowDown');
    expect(m.component.heard.is(b!.pattern)).toBe(true);
    key('ArrowUp');
    expect(m.component.heard.is(a!.pattern)).toBe(true);
    key(' ');
    expect(transport.playing()).toBe(false);
  });
  it('where nothing answers it offers what would, and asks for that on a press', async () => {
    const { m, asking } = await sheet();
    asking.press(1, { what: 'rest', must: true });
    await asking.ask();
    m.fixture.detectChanges();
    expect(m.text()).toContain('Nothing is all of that');
    const help = [...m.host.querySelectorAll<HTMLButtonElement>('.none button')];
    help.find((b) => b.textContent.includes('without a rest on the e of 1'))?.click();
    await until(() => asking.answers().length > 0);
  });
});
