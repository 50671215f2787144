import { TestBed } from '@angular/core/testing';
import { By } from '@angular/platform-browser';
import { readShelf, writeShelf } from '@core/formats/shelf-file';
import { BackupService } from '../../storage/files/backup.service';
import { SettingsRepo } from '../../storage/settings.repo';
import type { NoticeAction } from '../../common/notices.service';
import { attemptOf, phraseOf, until } from '../../testing/fixtures';
import { mount } from '../../testing/mount';
import { emptyPlace } from '../../testing/place';
import { untilAsked } from '../../testing/shelf';
import { IncomingComponent } from './incoming.component';
import { MyDataComponent } from './my-data.component';
import { DataPanelComponent } from './data-panel.component';

/** What a file field holds after one file was picked. */
function picked(text: string): FileList {
  const file = Object.assign(new Blob([text]), { name: 'shelf.json' });
  return Object.assign([file], { item: () => file }) as unknown as FileList;
}

describe('my data', () => {
  it('says how many counts and syllables are the user’s own, and keeps them', async () => {
    await emptyPlace();
    const m = mount(DataPanelComponent);
    const settings = TestBed.inject(SettingsRepo);
    m.press('1 & a');
    m.press('1 ta la & ta la');
    m.press('dark');
    m.press('like the workbench');
    expect(settings.now()).toMatchObject({ triplets: 'and-a', sextuplets: 'ta-la', theme: 'dark', room: 'same' });
    m.fill('snare, tap', 'dak');
    expect(settings.sung()).toEqual({ 'snare tap': 'dak' });
    m.fill('snare, tap', '');
    expect(settings.sung()).toEqual({});
    expect(m.host.querySelector<HTMLInputElement>('[aria-label="snare, tap"]')?.value).toBe('ta');
  });
  it('explains all words again, those that are known too', async () => {
    await emptyPlace();
    const m = mount(DataPanelComponent);
    expect(m.button('Explain all again').disabled).toBe(true);
    await TestBed.inject(SettingsRepo).change({ known: ['rung', 'ready'] });
    m.fixture.detectChanges();
    expect(m.text()).toContain('You know 2 words of ours.');
    m.press('Explain all again');
    expect(TestBed.inject(SettingsRepo).now().known).toEqual([]);
    expect(m.text()).toContain('Underlined words explain themselves.');
  });
  it('says how much is kept here, and says it anew when a file was put on the shelf', async () => {
    await emptyPlace();
    let bytes = 20_000;
    const backup = TestBed.inject(BackupService);
    jest.spyOn(backup, 'used').mockImplementation(() => Promise.resolve({ bytes, forGood: false }));
    const m = mount(MyDataComponent);
    const says = (words: string): Promise<void> =>
      until(() => {
        m.fixture.detectChanges();
        return m.text().includes(words);
      });
    await says('in this browser (under 0.1 MB). The browser may delete it');
    await m.component.pick(picked(writeShelf({ phrases: [phraseOf('a')], attempts: [], drills: [] })));
    m.fixture.detectChanges();
    bytes = 3_260_000;
    m.press('Put it on the shelf');
    await says('in this browser (3.3 MB). The browser may delete it');
  });
  it('lists the records that are kept with phrases; one is let go and kept again', async () => {
    const { db, messages } = await emptyPlace();
    let undo: NoticeAction | null = null;
    messages.messageObserver.subscribe((x) => {
      if (!Array.isArray(x) && x.data) undo = x.data as NoticeAction;
    });
    const clip = { at: 1, rate: 8000, meter: '4/4', bars: 1, samples: 'A'.repeat(1_200_000) };
    const marks = [
      { tick: 0, at: 0 },
      { tick: 20_160, at: 2 },
    ];
    await db.phrases.bulkPut([phraseOf('a', { name: 'Rope' }), phraseOf('b', { name: 'Anchor' })]);
    await db.clips.bulkPut([
      { ...clip, marks, id: 'a', from: 'the band tape' },
      { ...clip, marks, id: 'b', from: 'a stairwell' },
    ]);
    const m = mount(DataPanelComponent);
    await until(() => {
      m.fixture.detectChanges();
      return m.text().includes('Anchor');
    });
    expect(m.text()).toContain('2 of 20, 2.4 MB in all');
    expect(m.text().indexOf('Anchor')).toBeLessThan(m.text().indexOf('Rope'));
    m.press('Delete the recording: Rope');
    await untilAsked(async () => (await db.clips.count()) === 1);
    await until(() => undo !== null);
    undo!.run();
    await untilAsked(async () => (await db.clips.count()) === 2);
  });
  it('reads a good file only when it is told to, says what it changes, and can take it back', async () => {
    const { db, messages } = await emptyPlace();
    let undo: NoticeAction | null = null;
    messages.messageObserver.subscribe((x) => {
      if (!Array.isArray(x) && x.data) undo = x.data as NoticeAction;
    });
    const m = mount(MyDataComponent);
    await m.component.pick(picked(writeShelf({ phrases: [phraseOf('a'), phraseOf('b')] })));
    m.fixture.detectChanges();
    expect(m.text()).toContain('2 new phrases');
    expect(await db.phrases.count()).toBe(0);
    m.press('Put it on the shelf');
    await untilAsked(async () => (await db.phrases.count()) === 2);
    await until(() => undo !== null);
    m.fixture.detectChanges();
    expect(m.text()).toContain('See the changes: 2');
    undo!.run();
    await untilAsked(async () => (await db.phrases.count()) === 0);
  });
  it('what is left out stays out', async () => {
    const { db } = await emptyPlace();
    const m = mount(MyDataComponent);
    await m.component.pick(
      picked(writeShelf({ phrases: [phraseOf('a'), phraseOf('b')], attempts: [attemptOf('1', 'a')] })),
    );
    m.fixture.detectChanges();
    const review = m.fixture.debugElement.query(By.directive(IncomingComponent)).componentInstance as IncomingComponent;
    review.toggle('b');
    m.check('1 try of the log');
    m.press('Put it on the shelf');
    await untilAsked(async () => (await db.phrases.count()) === 1);
    expect([await db.phrases.toCollection().primaryKeys(), await db.tries.count()]).toEqual([['a'], 0]);
  });
  it('a bad file is said, and the shelf stays', async () => {
    const { db } = await emptyPlace();
    await db.phrases.put(phraseOf('mine'));
    const m = mount(MyDataComponent);
    await m.component.pick(picked('{"format":"loop-shelf","version":9}'));
    m.fixture.detectChanges();
    expect(m.text()).toContain('saved by a newer Loop Shelf');
    expect(m.text()).toContain('Your shelf is unchanged.');
    expect(await db.phrases.count()).toBe(1);
    await m.component.pick(picked('not a shelf'));
    await until(() => m.component.problem()?.includes('JSON') ?? false);
  });
  it('what was set aside is told, saved and dropped, with a way back', async () => {
    const { db } = await emptyPlace();
    await db.aside.add({ table: 'phrases', key: 'x', row: { id: 'x' }, why: 'odd', at: 5 });
    const m = mount(MyDataComponent);
    await until(() => m.component.aside.all().length === 1);
    m.fixture.detectChanges();
    expect(m.text()).toContain('1 thing could not be read');
    expect(JSON.parse(m.component.aside.text())).toMatchObject({ rows: [{ row: { id: 'x' } }] });
    await m.component.dropAside();
    expect(await db.aside.count()).toBe(0);
  });
  it('a weekly backup that is due waits for a press, or is written', async () => {
    await emptyPlace();
    const backup = TestBed.inject(BackupService);
    await backup.weekly(true);
    await backup.look();
    expect(backup.waits()).toBe(true);
    const urls: Blob[] = [];
    Object.assign(URL, { createObjectURL: (b: Blob) => (urls.push(b), 'blob:x'), revokeObjectURL: () => undefined });
    expect(await backup.save()).toContain('in your downloads');
    expect([urls.length, backup.waits()]).toEqual([1, false]);
    await backup.look();
    expect(backup.waits()).toBe(false);
    expect(readShelf(await urls[0]!.text()).ok).toBe(true);
  });
});
