import { TestBed } from '@angular/core/testing';
import { PhrasesRepo } from '../../storage/phrases.repo';
import { KIT_PRESETS } from '@core/kit';
import { csvText } from '@core/formats/csv';
import { eventsIn } from '@core/playback';
import { ShelfIndex } from '../../knowledge/shelf-index.service';
import { TakesRepo } from '../../storage/takes.repo';
import { WantedService } from '../../knowledge/wanted.service';
import { attemptOf, phraseOf, sittingOf, typed, until } from '../../testing/fixtures';
import { log } from '../../testing/shelf';
import { mount } from '../../testing/mount';
import { STILLNESS } from '../../common/stilled';
import { emptyPlace } from '../../testing/place';
import { LogComponent } from './log.component';
import { triesCsv } from './tries-words';

const DAY = 86_400_000;

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
    await log(
      db,
      attemptOf('1', 'old', { at: DAY, bpm: 80 }),
      attemptOf('2', 'new', { at: 2 * DAY, bpm: 85, goal: 90 }),
      attemptOf('3', 'new', { at: 3 * DAY, bpm: 90, goal: 90, verdict: 'messy' }),
    );
    const m = mount(LogComponent);
    await until(() => m.component.named().length === 2 && /best clean try 85/i.test(m.component.title()));
    m.fixture.detectChanges();
    expect(m.component.title()).toMatch(
      /^Too early to say what is ready: it takes \d more tries of the whole phrase and \d more days?\. Best clean try 85, goal 90\./,
    );
    expect(m.host.querySelectorAll('tbody tr:not(.sitting)')).toHaveLength(2);
    // Two days are two sittings.
    expect(m.host.querySelectorAll('tbody tr.sitting')).toHaveLength(2);
    m.press('messy');
    await until(() => m.text().includes('1 of 2 tries'));
    m.press('all');
    m.pick('Phrase', 'Old');
    await until(() => /best clean try 80/i.test(m.component.title()));
    m.fixture.detectChanges();
    expect(m.host.querySelector('ls-chart svg')?.getAttribute('aria-label')).toContain('1 values');
  });
  it('sorts its tries by what a head says, without heads of sittings, and writes them out with units', async () => {
    const { db } = await emptyPlace();
    await TestBed.inject(PhrasesRepo).save(phraseOf('a'));
    await log(db, ...[90, 70, 80].map((bpm, i) => attemptOf(`${i}`, 'a', { at: (i + 1) * DAY, bpm })));
    const m = mount(LogComponent, { phrase: 'a' });
    const tempos = (): number[] =>
      [...m.host.querySelectorAll('tbody tr:not(.sitting) td:nth-child(2)')].map((td) => parseInt(td.textContent));
    await until(() => {
      m.fixture.detectChanges();
      return tempos().length === 3;
    });
    expect(tempos()).toEqual([80, 70, 90]);
    m.press('Tempo');
    m.fixture.detectChanges();
    expect([tempos(), m.host.querySelectorAll('tr.sitting').length]).toEqual([[70, 80, 90], 0]);
    m.press('Tempo');
    m.fixture.detectChanges();
    expect([tempos(), m.host.querySelector('th[aria-sort]')?.getAttribute('aria-sort')]).toEqual([
      [90, 80, 70],
      'descending',
    ]);
    const rows = triesCsv([attemptOf('x', 'a', { at: DAY, bpm: 84, note: '=1+1' })]);
    expect(csvText(rows).split('\r\n')[1]).toBe("1970-01-02T00:00:00.000Z,84,100,clean,you,whole,4,12,,,,,'=1+1");
  });
  it('reads what a phrase adds up to once, however much of it comes after, and anew for another', async () => {
    const { db } = await emptyPlace();
    const repo = TestBed.inject(PhrasesRepo);
    await repo.save(phraseOf('a', { name: 'A', goal: 200 }));
    await repo.save(phraseOf('b', { name: 'B', goal: 200 }));
    await log(db, attemptOf('1', 'a', { at: DAY, bpm: 80 }), attemptOf('2', 'b', { at: 2 * DAY, bpm: 90 }));
    const index = TestBed.inject(ShelfIndex);
    const reads: string[] = [];
    const phraseLog = index.phraseLog.bind(index);
    jest.spyOn(index, 'phraseLog').mockImplementation((id) => {
      reads.push(`${id} ${index.changed()}`);
      return phraseLog(id);
    });
    const m = mount(LogComponent, { phrase: 'a' });
    await until(() => m.component.title().includes('est clean try 80'));
    m.press('Which limb lags?');
    m.press('Am I getting there?');
    await until(() => m.component.title().includes('est clean try 80'));
    m.pick('Phrase', 'B');
    await until(() => m.component.title().includes('est clean try 90'));
    expect(new Set(reads.map((r) => r[0]))).toEqual(new Set(['a', 'b']));
    expect(reads).toEqual([...new Set(reads)]);
  });
  it('says its answer in words first, then draws it', async () => {
    const { db } = await emptyPlace([{ provide: STILLNESS, useValue: 140 }]);
    await TestBed.inject(PhrasesRepo).save(phraseOf('a', { goal: 200 }));
    await log(db, attemptOf('1', 'a', { at: DAY, bpm: 80 }));
    const m = mount(LogComponent, { phrase: 'a' });
    const stands = (): string =>
      [
        /best clean try 80/i.test(m.host.querySelector('#chart-title')?.textContent ?? ''),
        m.host.querySelector('ls-chart'),
      ]
        .map((x) => (x ? 'there' : '-'))
        .join();
    const seen = new Set<string>();
    await until(() => {
      seen.add(stands());
      m.fixture.detectChanges();
      seen.add(stands());
      return stands() === 'there,there';
    });
    expect([...seen]).toEqual(['-,-', 'there,-', 'there,there']);
  });
  it('says when nothing was clean, and follows what is played', async () => {
    const { db } = await emptyPlace();
    await TestBed.inject(PhrasesRepo).save(phraseOf('a'));
    await log(db, attemptOf('1', 'a', { verdict: 'messy' }));
    const m = mount(LogComponent, { phrase: 'a' });
    await until(() => m.component.title() === 'No clean try yet on the way to 100.');
    await log(db, attemptOf('2', 'a', { at: 2000, bpm: 100 }));
    await until(() => m.component.title().includes('est clean try 100'));
  });
  it('answers each of its seven questions, with its values as a table', async () => {
    const { db } = await emptyPlace();
    const at = (days: number): number => Date.now() - days * DAY;
    const measured = {
      mean: 1,
      spread: 8,
      missed: 0,
      extra: 0,
      strokes: 16,
      drift: 0,
      limbs: [
        { limb: 'R' as const, mean: 0, spread: 5 },
        { limb: 'L' as const, mean: 20, spread: 6 },
      ],
      finding: { kind: 'limb' as const, limb: 'L' as const, off: 20, stroke: null },
    };
    await TestBed.inject(PhrasesRepo).save(phraseOf('a', { name: 'Glass', goal: 60 }));
    await log(
      db,
      ...[20, 18, 16, 14, 12].flatMap((d) =>
        [0, 1, 2, 3].map((i) => attemptOf(`${d}-${i}`, 'a', { at: at(d) + i * 60_000, bpm: 80, seconds: 60 })),
      ),
      attemptOf('m', 'a', { at: at(12) + 600_000, bpm: 95, verdict: 'messy', measured }),
    );
    const m = mount(LogComponent, { phrase: 'a' });
    const asks = async (question: string, title: RegExp): Promise<void> => {
      m.press(question);
      await until(() => title.test(m.component.title()));
      m.fixture.detectChanges();
      const csv = m.component.answers.answer()!.csv();
      expect(csv.length).toBeGreaterThan(1);
      expect(csv.every((row) => row.length === csv[0]!.length)).toBe(true);
      expect(m.host.querySelector('ls-chart svg')).not.toBeNull();
    };
    await until(() => m.component.title() === 'You are ready for 60.');
    m.fixture.detectChanges();
    await asks('Which limb lags?', /^Left hand: 20 ms later than your other limbs on the last day\.$/);
    await asks('Why do rungs fail?', /^Most often early or late: 1 of 1 measured try\.$/);
    await asks('What did I practise?', /^Nothing in the last seven days\.$/);
    await asks('Is it too much?', /^(Fine|Too many): [\d,]+ strokes per hand on .*\. Your limit was 4,000\./);
    await asks('What have I not played?', /^Glass was not played for 12 days\.$/);
    m.press('Where do I miss?');
    await until(() => m.component.title().startsWith('No take recorded yet'));
  });
  it('where it breaks is read from the takes of the whole phrase, newest against those before', async () => {
    const { db } = await emptyPlace();
    const phrase = phraseOf('a', { recipe: typed('R L R L') });
    await TestBed.inject(PhrasesRepo).save(phrase);
    await log(db, attemptOf('1', 'a', { at: 2000, bpm: 60 }));
    const meant = {
      recipe: phrase.recipe,
      stage: null,
      groove: null,
      kit: KIT_PRESETS[0]!,
      dynamic: 'medium',
      click: 'beats',
      gap: null,
    } as const;
    // Four turns of a beat; the third stroke is never struck.
    const hits = [0, 1, 2, 3].flatMap((turn) =>
      [0, 0.25, 0.75].map((s, i) => ({
        seconds: turn + s,
        limb: i === 0 ? ('R' as const) : ('L' as const),
        voice: null,
        velocity: null,
      })),
    );
    await TestBed.inject(TakesRepo).keep({ id: '1', phrase: 'a', at: 2000, bpm: 60, stage: null, hits, meant });
    const m = mount(LogComponent, { phrase: 'a', ask: 'breaks' });
    await until(() => m.component.title().includes('missed most'));
    expect(m.component.title()).toMatch(/^Right hand, .*: missed most, [34] of 4 times in the last take\.$/);
    m.fixture.detectChanges();
    expect(m.host.querySelector('ls-ribbon')).not.toBeNull();
    await db.takes.clear();
  });
  it('corrects a verdict, writes a note and takes a try out, each with its way back', async () => {
    const { db } = await emptyPlace();
    await TestBed.inject(PhrasesRepo).save(phraseOf('a'));
    await log(db, attemptOf('1', 'a', { bpm: 70 }), attemptOf('2', 'a', { at: 5000, bpm: 95 }));
    const m = mount(LogComponent, { phrase: 'a' });
    await until(() => m.component.current()?.best === 95);
    const row = () => m.component.rows()!.find((r) => r.id === '2');
    await m.component.correct(row()!);
    await until(() => m.component.current()?.best === 70);
    expect((await db.tallies.get('a'))?.clean).toBe(70);
    await m.component.noted(row()!, 'Too loud a room.');
    await until(() => row()?.note === 'Too loud a room.');
    m.fixture.detectChanges();
    expect(m.text()).toContain('Too loud a room.');
    await m.component.remove(row()!);
    await until(() => m.component.rows()?.length === 1);
    expect((await db.tallies.get('#'))?.attempts).toBe(1);
    for (const holds of [
      () => row()?.note === 'Too loud a room.',
      () => row()?.note === undefined && row()?.verdict === 'messy',
      () => row()?.verdict === 'clean',
    ]) {
      await m.component.undo();
      await until(holds);
    }
    await until(() => m.component.current()?.best === 95);
    expect((await db.tallies.get('#'))?.attempts).toBe(2);
    // Once there is nothing to take back, nothing happens.
    await m.component.undo();
    expect(m.component.rows()).toHaveLength(2);
  });
  it('a take is drawn on what was written and heard, alone or beside it; closing it is silence', async () => {
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
    await until(() => m.component.takes().length > 0 && m.component.current() !== null);
    m.fixture.detectChanges();
    const sounding = (): number =>
      eventsIn(transport.requests.at(-1)!.program, 0, 20160).filter((e) => e.limb !== null).length;
    m.press('Hear the take');
    expect(m.host.querySelectorAll('ls-take-view .hit')).toHaveLength(4);
    expect(m.text()).toContain('4 hits');
    expect(m.text()).not.toContain('changed since');
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
    expect(m.text()).toContain('changed since');
    await db.takes.clear();
  });
  it('a take is drawn with the stage, groove and kit of that day, whatever is current now', async () => {
    const { db } = await emptyPlace();
    const drums = KIT_PRESETS.find((k) => k.id === 'double')!;
    const phrase = phraseOf('a', { recipe: typed('R! l K l'), changed: 500 });
    await TestBed.inject(PhrasesRepo).save(phrase);
    await log(db, attemptOf('1', 'a', { at: 2000 }), attemptOf('2', 'a', { at: 3000 }));
    const stage = { id: 's', kind: 'context', bars: 1, short: false } as const;
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
    await until(() => m.component.takes().length > 0 && m.component.current() !== null);
    m.fixture.detectChanges();
    m.press('Hear the take');
    const drawn = m.component.opened()!.meant.pattern;
    // A bar of the groove of two beats, twice; then the fill on the first beat, and time again: counted out by hand.
    const counted = drawn.strokes.map((s) => `${s.limb}${s.at}`);
    expect(counted.filter((s) => s.startsWith('K'))).toEqual(['K0', 'K10080', 'K22680', 'K30240']);
    const lefts = ['L5040', 'L15120', 'L21420', 'L23940', 'L25200', 'L35280'];
    expect(counted.filter((s) => s.startsWith('L'))).toEqual(lefts);
    expect(m.text()).toContain('You see it as on that day');
    m.press('Close');
    await db.takes.clear();
  });
  it('answers what is used, what never and what is on no shelf, and lays a figure on the Bench', async () => {
    const { db, went } = await emptyPlace();
    const repo = TestBed.inject(PhrasesRepo);
    await repo.save(phraseOf('net', { name: 'Net' }));
    await repo.save(phraseOf('rope', { name: 'Rope' }));
    await log(db, attemptOf('1', 'rope', { at: DAY, bpm: 80 }));
    const figure = { text: 'R! L K R! L K R! L', grid: 1260, start: 0, at: [0, 20_160, 60_480], exact: true };
    await db.freeSittings.put(sittingOf('a', ['net', 'net', 'net'], { figures: [figure] }));
    const m = mount(LogComponent, { ask: 'used' });
    await until(() => m.component.title() === 'Net came most: 3 times, at 96, always from the 1.');
    m.press('What do I never use?');
    await until(() => m.component.title() === 'Rope was played clean and never came in free play.');
    m.press('What is not on the shelf?');
    await until(() => m.component.title() === 'One figure that is not on the shelf came 3 times.');
    m.fixture.detectChanges();
    expect(m.text()).toContain('3 times');
    m.press('To the Bench');
    await until(() => went.length === 1);
    expect(went[0]).toContain('/bench');
    expect(TestBed.inject(WantedService).takeLaid()?.tempo).toBe(96);
  });
});
