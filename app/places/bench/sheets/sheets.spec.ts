import { TestBed } from '@angular/core/testing';
import { chooses } from '@core/selection';
import { stickings, stickingText, type Stickings } from '@core/sticking';
import { PhrasesRepo } from '../../../storage/phrases.repo';
import { phraseOf, typed, until } from '../../../testing/fixtures';
import { heard, mount } from '../../../testing/mount';
import { emptyPlace } from '../../../testing/place';
import { StickingWorker, type StickingSearch } from './stickings/sticking.service';
import { BenchStore } from '../document/bench.store';
import { PreviewStore } from '../document/preview.store';
import { ComparePanelComponent } from './compare-panel.component';
import { CompareStore } from '../document/compare.store';
import { CursorStore } from '../ribbon/cursor.store';
import { PathsPanelComponent } from '../answers/paths-panel.component';
import { Transport } from '../../../sound/transport.service';
import { BenchComponent } from '../bench.component';
import { SoundStore } from '../ribbon/sound.store';
import { LinesBarComponent } from '../ribbon/lines-bar.component';
import { LinesStore } from '../ribbon/lines.store';
import { scrolledTo } from '../ribbon/ribbon-pane.component';
import { SpeedComponent } from '../answers/speed.component';
import { StickingSheetComponent } from './sticking-sheet.component';
import { StrokeBarComponent } from '../ribbon/stroke-bar.component';

type Wish = Parameters<StickingWorker['search']>[1];

/** Finds stickings on the spot; can be made to wait or to break. */
class SpotSticking {
  mode: 'at once' | 'wait' | 'break' = 'at once';
  cancelled = 0;
  wishes: Wish[] = [];
  search(pattern: Parameters<StickingWorker['search']>[0], wish: Wish, tell: (share: number) => void): StickingSearch {
    this.wishes.push(wish);
    // A worker never answers while it is asked.
    void Promise.resolve().then(() => tell(0.5));
    const found: Promise<Stickings> =
      this.mode === 'break'
        ? Promise.reject(new Error('broken'))
        : this.mode === 'wait'
          ? new Promise(() => undefined)
          : Promise.resolve(stickings(pattern, wish));
    return { found, cancel: () => this.cancelled++ };
  }
}

async function bench(text = 'R L R L R L R L', meter = '4/4') {
  const worker = new SpotSticking();
  const place = await emptyPlace([{ provide: StickingWorker, useValue: worker }]);
  const store = TestBed.inject(BenchStore);
  await until(() => store.ready());
  store.setSource(typed(text, meter).source);
  return { ...place, worker, store };
}

describe('stick it for me', () => {
  async function sheet() {
    const all = await bench();
    const m = mount(StickingSheetComponent);
    const stilled = async (): Promise<void> => {
      TestBed.tick();
      await until(() => m.component.share() === null);
      m.fixture.detectChanges();
    };
    return { ...all, m, stilled };
  }
  it('lays the schools side by side, each with reasons and where it breaks; what is on the Bench is named', async () => {
    const { m, stilled } = await sheet();
    await stilled();
    const sections = [...m.host.querySelectorAll('.schools section')];
    expect(sections).toHaveLength(5);
    sections.slice(0, 4).forEach((s) => expect(s.querySelectorAll('article').length).toBeGreaterThan(0));
    expect(sections[2]?.textContent).toContain('As alternating.');
    expect(sections[4]?.textContent).toContain('No hi-hat or cymbal here for a hand to keep time on.');
    expect(m.text()).toMatch(/ceiling \d+/);
    const same = [...m.host.querySelectorAll('article')].find((a) => a.textContent.includes('In use'));
    expect(same?.querySelector('.letters')?.textContent).toBe('R L R L R L R L');
  });
  it('a pin goes free, right, left, free; the search asks with it, and every answer keeps it', async () => {
    const { m, worker, stilled } = await sheet();
    await stilled();
    m.press('Stroke 2, free');
    await stilled();
    expect([...worker.wishes.at(-1)!.pins]).toEqual([[1, 'R']]);
    [...m.host.querySelectorAll('.schools .letters')].forEach((l) => expect(l.textContent.split(' ')[1]).toBe('R'));
    m.press('Stroke 2, pinned to the right');
    m.press('Stroke 2, pinned to the left');
    await stilled();
    expect([...worker.wishes.at(-1)!.pins]).toEqual([]);
    m.press('Stroke 1, free');
    m.press('Unpin all');
    expect(m.component.pins().size).toBe(0);
  });
  it('pins have a bar line where a bar begins, and nowhere else', async () => {
    const { store } = await bench('(R L R L K)x5 R L R', '7/8');
    const m = mount(StickingSheetComponent);
    const lines = [...m.host.querySelectorAll('.pins .bar')].map((bar) => bar.nextElementSibling?.textContent?.trim());
    const hands = store.build()?.pattern.strokes.filter((s) => s.limb !== 'K') ?? [];
    const second = hands.findIndex((s) => s.at >= 14 * 1260);
    expect(lines).toHaveLength(1);
    const before = [...m.host.querySelectorAll('.pins > *')].findIndex((e) => e.classList.contains('bar'));
    // “Pin” itself stands first.
    expect(before - 1).toBe(second);
  });
  it('taking one is a move that undo takes back; the hands swapped is a mirror', async () => {
    const { m, store, stilled } = await sheet();
    await stilled();
    const other = [...m.host.querySelectorAll('.schools article')].find((a) => !a.textContent.includes('In use'))!;
    const letters = other.querySelector('.letters')!.textContent;
    other.querySelector('button')!.click();
    expect(stickingText(store.build()!.pattern)).toBe(letters);
    store.undo();
    expect(stickingText(store.build()!.pattern)).toBe('R L R L R L R L');
    await stilled();
    const ways = m.host.querySelector('.ways')!;
    expect(ways.textContent).toMatch(/Lead with the other hand.*ceiling \d+.*For a left-hander/s);
    // What the phrase has stands before all that is found.
    const text = m.text();
    expect(text).toMatch(/As now [RL ]+\s*ceiling\s*(\d+|no limit)/);
    expect(text.indexOf('As now')).toBeLessThan(text.indexOf('Strict singles'));
    ways.querySelector('button')!.click();
    expect(store.recipe()?.moves.map((mv) => mv.move)).toEqual(['mirror']);
  });
  it('a long search can be stopped; one that breaks says so and changes nothing; leaving ends it', async () => {
    const { m, worker, store } = await sheet();
    await until(() => m.component.share() === null);
    worker.mode = 'wait';
    m.component.tempo.set(200);
    TestBed.tick();
    await until(() => m.component.share() === 0.5);
    m.fixture.detectChanges();
    expect(m.text()).toContain('Finding … 50%');
    m.press('Stop');
    expect(worker.cancelled).toBe(1);
    expect(m.text()).not.toContain('Finding');
    worker.mode = 'break';
    m.component.tempo.set(201);
    TestBed.tick();
    await until(() => m.component.failed());
    m.fixture.detectChanges();
    expect(m.text()).toContain('Nothing changed.');
    expect(store.recipe()?.moves).toEqual([]);
    worker.mode = 'wait';
    m.component.tempo.set(202);
    TestBed.tick();
    m.fixture.destroy();
    expect(worker.cancelled).toBe(3);
  });
});

describe('compare', () => {
  it('offers the parent first, then the shelf by name; differs in words and marks; both can be heard and let go', async () => {
    const { store } = await bench('R l l R');
    const phrases = TestBed.inject(PhrasesRepo);
    await phrases.save(phraseOf('z', { name: 'Zinc', recipe: typed('R L L R') }));
    await phrases.save(phraseOf('b', { name: 'Brine', recipe: typed('R l l K') }));
    const m = mount(ComparePanelComponent);
    await until(() => m.component.phrases().length === 2);
    m.fixture.detectChanges();
    const compare = TestBed.inject(CompareStore);
    expect(m.shown('Phrase to compare with')).toBe('Compare with …');
    expect(m.component.offered().map((o) => o.words)).toEqual(['Brine', 'Zinc']);
    m.pick('Phrase to compare with', 'Brine');
    await until(() => compare.other()?.name === 'Brine');
    m.fixture.detectChanges();
    expect(m.text()).toContain(compare.words());
    expect(compare.ticks()).toEqual([3 * 1260]);
    expect(m.host.querySelectorAll('.changed')).toHaveLength(1);
    m.press('X Hear the other');
    expect(compare.heard()).toEqual(compare.other()!.pattern);
    expect(TestBed.inject(SoundStore).rendition()?.pattern).toEqual(compare.other()!.pattern);
    m.pick('Phrase to compare with', 'Compare with none');
    await until(() => compare.other() === null);
    expect([compare.heard(), compare.other()]).toEqual([null, null]);
    m.pick('Phrase to compare with', 'Zinc');
    m.fixture.destroy();
    // Laid away, it neither sounds nor marks.
    compare.swap();
    expect([compare.heard(), compare.ticks()]).toEqual([null, []]);
    expect(store.recipe()).not.toBeNull();
  });
  it('a phrase that was changed since can be held against what is kept of it', async () => {
    const { store } = await bench('R l l R');
    const phrases = TestBed.inject(PhrasesRepo);
    await phrases.save(phraseOf('own', { name: 'Own', recipe: typed('R l l R') }));
    await store.open('own');
    const m = mount(ComparePanelComponent);
    await until(() => store.isKept());
    m.fixture.detectChanges();
    expect(m.component.offered().map((o) => o.words)).not.toContain('This phrase as kept');
    store.addMove('mirror');
    m.fixture.detectChanges();
    m.pick('Phrase to compare with', 'This phrase as kept');
    await until(() => TestBed.inject(CompareStore).other() !== null);
    expect(TestBed.inject(CompareStore).words()).toContain('4 limbs');
  });
  it('an empty shelf says what to do', async () => {
    await bench();
    expect(mount(ComparePanelComponent).text()).toContain('Your shelf has no other phrase yet');
  });
});

describe('hand paths', () => {
  it('tells the way of each hand a bar, and moves with the sound', async () => {
    const { store, transport } = await bench('R L R L');
    store.take({
      id: 'v',
      on: true,
      move: 'voice',
      params: { select: chooses({ limbs: ['R'] }), voices: ['high-tom', 'floor-tom'] },
    });
    const m = mount(PathsPanelComponent);
    expect(m.text()).toMatch(/right hand\s*\d+ cm per bar\s*left hand\s*0 cm per bar/);
    expect(Number(/right hand\s*(\d+)/.exec(m.text())?.[1])).toBeGreaterThan(20);
    expect(m.component.now()).toEqual([]);
    transport.position.set(0);
    const [first] = m.component.now();
    transport.position.set(2 * 1260);
    const [second] = m.component.now();
    expect(first?.limb).toBe('R');
    expect([first?.x, first?.y]).not.toEqual([second?.x, second?.y]);
    transport.position.set(-100);
    expect(m.component.now()).toEqual([]);
  });
});

describe('speed', () => {
  it('names the hardest spots, points at both strokes, offers what raises it, and taking that gives what was promised', async () => {
    const { store } = await bench('R R R L');
    const m = mount(SpeedComponent);
    const pointed = heard(m.component.pointAt);
    const bpm = Number(m.host.querySelector('.top strong')!.textContent);
    expect(m.text()).toContain('ceiling about');
    m.host.querySelector('li')!.dispatchEvent(new Event('mouseenter'));
    m.host.querySelector('li')!.dispatchEvent(new Event('mouseleave'));
    // Of places that are alike all strokes are pointed at, two for each.
    expect([m.host.querySelector('li')?.textContent.includes(' and more'), pointed[0]?.length]).toEqual([true, 4]);
    expect(pointed[1]).toEqual([]);
    store.setTempo(400);
    m.fixture.detectChanges();
    expect(m.text()).toContain('Too fast at 400');
    const raise = [...m.host.querySelectorAll('button')].find((b) => b.querySelector('strong'))!;
    const promised = Number(raise.querySelector('strong')!.textContent);
    expect(promised).toBeGreaterThan(bpm);
    raise.click();
    m.fixture.detectChanges();
    expect(Number(m.host.querySelector('.top strong')!.textContent)).toBe(promised);
  });
  it('shows the two best ways to raise it, with what they cost, and the others when asked', async () => {
    await bench('R L R l[floor tom] L R! l R');
    const m = mount(SpeedComponent);
    const all = m.component.reach.raises().map((r) => Math.floor(r.bpm));
    expect(all.length).toBeGreaterThan(2);
    const shown = (): number[] => [...m.host.querySelectorAll('.btn strong')].map((e) => Number(e.textContent));
    expect(shown()).toEqual(all.slice(0, 2));
    m.press(`${all.length - 2} more`);
    expect(shown()).toEqual(all);
    expect(m.text()).toContain('1 ghost less');
    // A way is looked at on the ribbon before it is taken.
    const look = TestBed.inject(PreviewStore);
    m.button('Leave out').dispatchEvent(new Event('focus'));
    expect(look.words()).toContain('Preview: Leave out');
    m.button('Leave out').dispatchEvent(new Event('blur'));
    expect(look.words()).toBeNull();
    m.press('Only the best');
    expect(shown()).toHaveLength(2);
  });
  it('a phrase in which no limb plays twice is limited by nothing but its loop', async () => {
    await bench('R');
    expect(mount(SpeedComponent).text()).toMatch(/ceiling|nothing limits/);
  });
});

describe('the ribbon while it plays', () => {
  it('is scrolled to the row that sounds where that is out of sight, and only then', () => {
    const box = { scrollTop: 0, clientHeight: 300 };
    expect(scrolledTo({ top: 50, bottom: 150 }, box)).toBeNull();
    const to = scrolledTo({ top: 250, bottom: 350 }, box) ?? -1;
    expect(scrolledTo({ top: 250, bottom: 350 }, { ...box, scrollTop: to })).toBeNull();
    // Back to the first row.
    expect(scrolledTo({ top: 20, bottom: 120 }, { ...box, scrollTop: to })).toBe(0);
    // A row that is higher than the room shows its counts.
    expect(scrolledTo({ top: 400, bottom: 900 }, box)).toBeLessThan(400);
  });
});

describe('the lines of the ribbon', () => {
  it('are shown and hidden one by one; counts go round; while the recipe is stepped through, the step is said instead', async () => {
    const { store } = await bench('R l l R');
    store.addMove('mirror');
    const lines = TestBed.inject(LinesStore);
    const m = mount(LinesBarComponent);
    m.press('Lines');
    m.press('Count line');
    m.press('Sung line');
    expect([lines.shows('counts'), lines.shows('letters'), lines.sung()]).toEqual([false, true, true]);
    expect(m.button('Count line').getAttribute('aria-pressed')).toBe('false');
    for (const next of ['half-time', 'double-time', 'as written']) {
      m.press('Counts: ');
      expect(m.button('Counts: ').textContent.trim()).toBe(`Counts: ${next}`);
    }
    const walked = heard(m.component.walked);
    m.component.trail.back();
    m.fixture.detectChanges();
    expect(m.text()).not.toContain('Count line');
    m.press('One step on');
    expect(walked).toEqual([1]);
    m.press('Whole');
    expect(m.text()).toContain('Count line');
  });
});

describe('the stroke bar', () => {
  it('does with buttons what the keys do, on what stands under the cursor', async () => {
    const { store } = await bench('R l - -');
    const cursor = TestBed.inject(CursorStore);
    const m = mount(StrokeBarComponent);
    expect(m.host.querySelector('.tools')).toBeNull();
    cursor.put(0);
    m.fixture.detectChanges();
    expect(m.text()).toContain('beat 1 in bar 1, right hand, tap, snare');
    expect(m.button('right hand').getAttribute('aria-pressed')).toBe('true');
    m.press('accent');
    m.pick('Plays on', 'high tom');
    m.pick('Ornament', 'flam');
    expect(store.build()?.pattern.strokes[0]).toMatchObject({ level: 'accent', voice: 'high-tom', ornament: 'flam' });
    m.pick('Ornament', 'plain');
    expect(store.build()?.pattern.strokes[0]?.ornament).toBeUndefined();
    m.press('Copy');
    cursor.put(2 * 1260);
    m.fixture.detectChanges();
    expect(m.button('rest').disabled).toBe(true);
    m.press('Paste');
    expect(store.build()?.pattern.strokes.filter((s) => s.voice === 'high-tom')).toHaveLength(2);
    cursor.put(0);
    m.fixture.detectChanges();
    m.press('rest');
    expect(store.build()?.pattern.strokes.map((s) => s.at as number)).toEqual([1260, 2520]);
    m.press('kick foot');
    expect(store.build()?.pattern.strokes[0]).toMatchObject({ at: 0, limb: 'K' });
  });
  it('chooses in words, and says what was not understood', async () => {
    await bench('R l R l');
    const m = mount(StrokeBarComponent);
    m.fill('Choose strokes in words', 'lefts');
    expect(TestBed.inject(CursorStore).chosen()).toEqual([1, 3]);
    m.fill('Choose strokes in words', 'purple');
    expect(m.text()).toContain('not understood');
    // What was not understood takes nothing away, and is gone with the words.
    expect(m.button('accent')).toBeTruthy();
    m.fill('Choose strokes in words', '');
    expect(m.text()).not.toContain('not understood');
    expect(TestBed.inject(CursorStore).hasSelection()).toBe(false);
  });
});

describe('the play bar', () => {
  it('reaches what sounds on the Bench: limbs, roles, counts, half speed, click and tempo', async () => {
    const { store } = await bench('R! l K r');
    store.setTempo(120);
    const sound = TestBed.inject(SoundStore);
    const m = mount(BenchComponent);
    m.press('Mix: all');
    m.press('texture');
    expect(m.button('Mix').textContent.trim()).toBe('Mix: changed');
    expect(sound.mute().roles).toEqual(['texture']);
    sound.mute.set({ limbs: [], roles: [] });
    m.fixture.detectChanges();
    m.press('Beeps');
    expect(sound.request()?.program.layers).toHaveLength(4);
    m.press('Half speed');
    expect(sound.request()?.bpm).toBe(60);
    m.pick('Click', 'Click: 2 and 4');
    expect(sound.click()).toBe('two-and-four');
    m.fill('Tempo in bpm', '90');
    expect(sound.request()?.bpm).toBe(45);
    m.press('Play');
    expect(TestBed.inject(Transport).playing()).toBe(true);
    m.press('Stop');
    expect(TestBed.inject(Transport).playing()).toBe(false);
  });
});
