import { TestBed } from '@angular/core/testing';
import { build, type Recipe } from '@core/recipe';
import { allVariants, type VariantSheet, type VariantWish } from '@core/variants';
import { typed, until } from '../../../testing/fixtures';
import { mount } from '../../../testing/mount';
import { emptyPlace } from '../../../testing/place';
import { VariantsWorker, type Search } from './variants.service';
import { BenchStore } from '../document/bench.store';
import { HeardStore } from './heard.store';
import { VariantsSheetComponent } from './variants-sheet.component';

/** Looks at once, on the spot; can be made to wait or to break. */
class SpotWorker {
  mode: 'at once' | 'wait' | 'break' = 'at once';
  cancelled = 0;
  wishes: VariantWish[] = [];
  search(recipe: Recipe, wish: VariantWish, _: readonly Recipe[], tell: (n: number) => void): Search {
    this.wishes.push(wish);
    tell(500);
    const sheet: Promise<VariantSheet> =
      this.mode === 'break'
        ? Promise.reject(new Error('broken'))
        : this.mode === 'wait'
          ? new Promise(() => undefined)
          : Promise.resolve(allVariants(recipe, wish));
    return { sheet, cancel: () => this.cancelled++ };
  }
}

async function sheet() {
  const worker = new SpotWorker();
  const place = await emptyPlace([{ provide: VariantsWorker, useValue: worker }]);
  const store = TestBed.inject(BenchStore);
  await until(() => store.ready());
  store.setSource(typed('R l l R K').source);
  const m = mount(VariantsSheetComponent, { click: 'none' });
  const found = async (): Promise<VariantSheet> => {
    m.press('Find variants');
    await until(() => m.component.variants.sheet() !== null && m.component.variants.search() === null);
    m.fixture.detectChanges();
    return m.component.variants.sheet()!;
  };
  return { ...place, worker, store, m, found };
}

describe('the sheet of variants', () => {
  it('asks for what was chosen, and says how many there are', async () => {
    const { m, worker, found } = await sheet();
    m.press('hands swapped');
    m.press('displaced');
    m.fill('How many accents', '3');
    await found();
    expect(worker.wishes).toMatchObject([{ kinds: ['accents', 'snare and kick', 'displaced'], accents: 3 }]);
    expect(m.text()).toMatch(/\d+ variants, fastest first; the phrase itself reaches \d+/);
    for (const kind of ['accents', 'kick for snare', 'displaced']) m.press(kind);
    expect(m.button('Find variants').disabled).toBe(true);
  });
  it('hears one, changes to another without stopping, and stops', async () => {
    const { m, transport, found } = await sheet();
    const { best } = await found();
    const heard = m.fixture.debugElement.injector.get(HeardStore);
    heard.toggle(best[0]!.pattern, 'none');
    heard.toggle(best[1]!.pattern, 'none');
    expect([transport.requests.length, transport.changes.length]).toEqual([1, 1]);
    expect(heard.is(best[1]!.pattern)).toBe(true);
    heard.toggle(best[1]!.pattern, 'none');
    expect(transport.playing()).toBe(false);
  });
  it('one is used as a move, or joined behind; joined once, it cannot be joined again', async () => {
    const { m, store, found } = await sheet();
    const { best } = await found();
    const parent = store.build()!.pattern;
    m.component.use(best[0]!);
    expect(store.build()!.pattern.strokes.map((s) => [s.at, s.limb, s.level])).toEqual(
      best[0]!.pattern.strokes.map((s) => [s.at, s.limb, s.level]),
    );
    store.undo();
    m.component.join(best[0]!, 1);
    expect(store.build()!.trail.at(-1)?.sentence).toBe('Join “variant 1”');
    expect(store.build()!.pattern.strokes.length).toBe(parent.strokes.length + best[0]!.pattern.strokes.length);
    expect(m.component.canJoin()).toBe(false);
  });
  it('one is kept with its parent and the one change, but only when the parent is kept', async () => {
    const { m, store, db, messages, found } = await sheet();
    const told: string[] = [];
    messages.messageObserver.subscribe((x) => told.push(Array.isArray(x) ? '' : (x.detail ?? '')));
    const { best } = await found();
    await m.component.variants.keep(best[0]!, 1);
    expect(told.at(-1)).toContain('Keep the phrase first');
    const parent = await store.keep({ name: 'Parent', family: 'fill', goal: 100, note: '' }, 1);
    // A second press on the way is the same act.
    await Promise.all([m.component.variants.keep(best[0]!, 1), m.component.variants.keep(best[0]!, 1)]);
    expect(await db.phrases.count()).toBe(2);
    const kept = (await db.phrases.toArray()).find((p) => p.name === 'Parent · 1');
    expect(kept?.parent).toEqual({ id: parent.kind === 'kept' ? parent.phrase.id : '', change: best[0]!.words });
    expect(build(kept!.recipe).pattern.strokes.length).toBe(best[0]!.pattern.strokes.length);
  });
  it('can be stopped; when it breaks off it says so and the phrase is as it was', async () => {
    const { m, worker, store } = await sheet();
    const before = store.recipe();
    worker.mode = 'wait';
    m.press('Find variants');
    await until(() => m.component.variants.search() !== null);
    m.fixture.detectChanges();
    expect(m.text()).toContain('500 checked');
    m.press('Stop');
    expect(worker.cancelled).toBe(1);
    worker.mode = 'break';
    m.press('Find variants');
    await until(() => m.component.variants.failed());
    m.fixture.detectChanges();
    expect(m.text()).toContain('The search failed.');
    expect(store.recipe()).toBe(before);
  });
});
