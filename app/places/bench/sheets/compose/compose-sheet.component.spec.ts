import { TestBed } from '@angular/core/testing';
import { compose, relaxations, type Answer, type Asked } from '@core/compose';
import { build } from '@core/recipe';
import { typed, until } from '../../../../testing/fixtures';
import { mount } from '../../../../testing/mount';
import { emptyPlace } from '../../../../testing/place';
import { BenchStore } from '../../document/bench.store';
import { ComposeSheetComponent } from './compose-sheet.component';
import { ComposeWorker, type Asking, type Found, type Told } from './compose.service';

/** Answers on the spot, as the worker would; can be held back. */
class SpotCompose {
  readonly held: (() => void)[] = [];
  isHeld = false;
  cancelled = 0;
  asked: Asked[] = [];
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
  await emptyPlace([{ provide: ComposeWorker, useValue: worker }]);
  const store = TestBed.inject(BenchStore);
  await until(() => store.ready());
  if (text !== null) {
    store.setSource(typed(text).source);
    TestBed.tick();
  }
  const m = mount(ComposeSheetComponent, { click: 'beats' });
  return { m, worker, store, asking: m.component.compose };
}

describe('asking for a phrase', () => {
  it('a press on a slot asks, again takes it back; another brush asks for something else there', async () => {
    const { m, asking } = await sheet();
    expect(m.component.beats().map((b) => b.length)).toEqual([4, 4, 4, 4]);
    asking.press(4);
    m.component.paint('no K');
    asking.press(4);
    expect(asking.wishes()).toEqual([
      { slot: 4, what: 'hit', must: true },
      { slot: 4, what: 'K', must: false },
    ]);
    expect(m.component.beats()[1]?.[0]).toMatchObject({ count: '2', signs: '! ×K', hit: true });
    m.component.paint('yes hit');
    asking.press(4);
    expect(asking.wishes()).toEqual([{ slot: 4, what: 'K', must: false }]);
    // In another space slots lie elsewhere: what was asked of them goes.
    asking.bars.set(2);
    expect(asking.wishes()).toEqual([]);
    expect(asking.slots()).toBe(32);
  });
  it('answers what was asked last, whatever comes in late of what was asked before', async () => {
    const { asking, worker } = await sheet();
    worker.isHeld = true;
    const first = asking.ask();
    await until(() => worker.asked.length === 1);
    asking.blocks.set(['singles']);
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
    const { asking } = await sheet('K - - K - - K - - - K - - - K -');
    expect(asking.canGoRound).toBe(true);
    asking.roundKick.set(true);
    asking.blocks.set(['singles']);
    await asking.ask();
    const kicks = asking.answers().map((a) => a.pattern.strokes.filter((s) => s.limb === 'K').map((s) => s.at / 1260));
    expect(kicks.length).toBeGreaterThan(0);
    for (const own of kicks) expect(own).toEqual([0, 3, 6, 10, 14]);
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
