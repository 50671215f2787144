import { TestBed } from '@angular/core/testing';
import { PhrasesRepo } from '../data/phrases.repo';
import { KIT_PRESETS } from '@core/kit';
import { eventsIn } from '@core/playback';
import { TakesRepo } from '../data/takes.repo';
import { attemptOf, phraseOf, typed, until } from '../testing/fixtures';
import { log } from '../testing/shelf';
import { mount } from '../testing/mount';
import { emptyPlace } from '../testing/place';
import { LogComponent } from './log.component';

describe('the Log', () => {
  it('empty, it says what will stand here', async () => {
    await emptyPlace();
    const m = mount(LogComponent);
    await until(() => m.component.ready());
    m.fixture.detectChanges();
    expect(m.text()).toContain('Nothing played yet');
  });
  it('answers in its title how far a phrase is, newest drilled first, and lists every try', async () => {
    const { db } = await emptyPlace();
    const repo = TestBed.inject(PhrasesRepo);
    await repo.save(phraseOf('old', { name: 'Old' }));
    await repo.save(phraseOf('new', { name: 'New', goal: 90 }));
    const day = 86_400_000;
    await log(
      db,
      attemptOf('1', 'old', { at: day, bpm: 80 }),
      attemptOf('2', 'new', { at: 2 * day, bpm: 85, goal: 90 }),
      attemptOf('3', 'new', { at: 3 * day, bpm: 90, goal: 90, verdict: 'messy' }),
    );
    const m = mount(LogComponent);
    await until(() => m.component.named().length === 2 && m.component.current()?.phrase.id === 'new');
    m.fixture.detectChanges();
    expect(m.component.title()).toBe('85 clean, 5 to go to 90');
    expect(m.host.querySelectorAll('tbody tr')).toHaveLength(2);
    m.pick('Phrase', 'Old');
    await until(() => m.component.current()?.phrase.id === 'old');
    m.fixture.detectChanges();
    expect(m.component.title()).toBe('80 clean, 20 to go to 100');
    expect(m.component.days()).toHaveLength(1);
  });
  it('says when the goal was reached, and when nothing was clean', async () => {
    const { db } = await emptyPlace();
    await TestBed.inject(PhrasesRepo).save(phraseOf('a'));
    await log(db, attemptOf('1', 'a', { verdict: 'messy' }));
    const m = mount(LogComponent, { phrase: 'a' });
    await until(() => m.component.current() !== null);
    expect(m.component.title()).toBe('Nothing clean yet on the way to 100');
    await log(db, attemptOf('2', 'a', { at: 2000, bpm: 100 }));
    await until(() => m.component.title() === 'At the goal of 100');
  });
  it('a take is drawn on what was meant and heard, alone or beside it; closing it is silence', async () => {
    const { db, transport } = await emptyPlace();
    await TestBed.inject(PhrasesRepo).save(phraseOf('a', { recipe: typed('R L R L'), changed: 500 }));
    await log(db, attemptOf('1', 'a', { at: 2000, bpm: 60 }));
    const hits = [0, 0.27, 0.5, 0.75].map((seconds, i) => ({
      seconds,
      limb: i % 2 === 0 ? ('R' as const) : ('L' as const),
      voice: null,
      velocity: 80,
    }));
    await TestBed.inject(TakesRepo).keep({ id: '1', phrase: 'a', at: 2000, bpm: 60, stage: null, hits });
    const m = mount(LogComponent, { phrase: 'a' });
    await until(
      () => m.component.rows()?.some((r) => m.component.takeOf(r)) === true && m.component.current() !== null,
    );
    m.fixture.detectChanges();
    const sounding = (): number =>
      eventsIn(transport.requests.at(-1)!.program, 0, 20160).filter((e) => e.limb !== null).length;
    m.press('Hear the take');
    expect(m.host.querySelectorAll('ls-take-view .hit')).toHaveLength(4);
    expect(m.text()).toContain('4 hits');
    expect(m.text()).not.toContain('was changed since');
    expect([transport.requests.length, sounding()]).toEqual([1, 4]);
    m.press('both');
    const changed = transport.changes.at(-1)?.program;
    expect(changed && eventsIn(changed, 0, 5040).filter((e) => e.limb !== null)).toHaveLength(8);
    m.press('Stop');
    m.press('Hear it');
    expect(sounding()).toBe(8);
    const stops = transport.stops;
    m.press('Close');
    expect([transport.stops, m.host.querySelector('ls-take-view')]).toEqual([stops + 1, null]);
    await TestBed.inject(PhrasesRepo).save(phraseOf('a', { recipe: typed('R L R L'), changed: 5000 }));
    m.press('Hear the take');
    await until(() => m.component.opened()?.changed === true);
    m.fixture.detectChanges();
    expect(m.text()).toContain('was changed since');
    await db.takes.clear();
  });
  it('a take is drawn with the stage, groove and kit of that day, whatever is current now', async () => {
    const { db } = await emptyPlace();
    const drums = KIT_PRESETS.find((k) => k.id === 'double')!;
    const phrase = phraseOf('a', { recipe: typed('R! l K l'), changed: 500 });
    await TestBed.inject(PhrasesRepo).save(phrase);
    await log(db, attemptOf('1', 'a', { at: 2000 }), attemptOf('2', 'a', { at: 3000 }));
    const stage = { id: 's', kind: 'context', title: 'One bar of time', why: '', bars: 1, short: false } as const;
    const meant = {
      recipe: phrase.recipe,
      stage,
      groove: typed('K - - - L! - - -'),
      kit: drums,
      dynamic: 'medium',
      click: 'beats',
      gap: null,
    } as const;
    const takes = TestBed.inject(TakesRepo);
    const hits = [{ seconds: 0, limb: 'K' as const, voice: null, velocity: null }];
    await takes.keep({ id: '1', phrase: 'a', at: 2000, bpm: 80, stage, hits, meant });
    // The groove is not on the shelf, the phrase has changed, and another kit is current.
    await TestBed.inject(PhrasesRepo).save({ ...phrase, recipe: typed('R L'), changed: 5000 });
    const m = mount(LogComponent, { phrase: 'a' });
    await until(
      () => m.component.rows()?.some((r) => m.component.takeOf(r)) === true && m.component.current() !== null,
    );
    m.fixture.detectChanges();
    m.press('Hear the take');
    const drawn = m.component.opened()!.meant.pattern;
    // A bar of the groove of two beats, twice; then the fill on the first beat, and time again: counted out by hand.
    const counted = drawn.strokes.map((s) => `${s.limb}${s.at}`);
    expect(counted.filter((s) => s.startsWith('K'))).toEqual(['K0', 'K10080', 'K22680', 'K30240']);
    const lefts = ['L5040', 'L15120', 'L21420', 'L23940', 'L25200', 'L35280'];
    expect(counted.filter((s) => s.startsWith('L'))).toEqual(lefts);
    expect(m.text()).toContain('this is what was played that day');
    m.press('Close');
    await db.takes.clear();
  });
});
