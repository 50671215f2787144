import { TestBed } from '@angular/core/testing';
import { writeShelf } from '@core/formats';
import { SettingsRepo } from '../data/settings.repo';
import { phraseOf, until } from '../testing/fixtures';
import { mount } from '../testing/mount';
import { emptyPlace } from '../testing/place';
import { DataPanelComponent } from './data-panel.component';

/** What a file field holds after one file was picked. */
function picked(text: string): FileList {
  const file = { name: 'shelf.json', size: text.length, text: () => Promise.resolve(text) };
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
  it('reads a good file only when it is told to, and can take it back', async () => {
    const { db } = await emptyPlace();
    const m = mount(DataPanelComponent);
    await m.component.pick(picked(writeShelf({ phrases: [phraseOf('a'), phraseOf('b')], attempts: [], drills: [] })));
    m.fixture.detectChanges();
    expect(m.text()).toContain('2 new phrases; 0 log entries.');
    expect(await db.phrases.count()).toBe(0);
    m.press('Put it on the shelf');
    let n = 0;
    for (let i = 0; i < 100 && n < 2; i++) {
      await new Promise((r) => setTimeout(r, 5));
      n = await db.phrases.count();
    }
    expect(n).toBe(2);
  });
  it('a bad file is said, and the shelf stays', async () => {
    const { db } = await emptyPlace();
    await db.phrases.put(phraseOf('mine'));
    const m = mount(DataPanelComponent);
    await m.component.pick(picked('{"format":"loop-shelf","version":9}'));
    m.fixture.detectChanges();
    expect(m.text()).toContain('saved by a newer Loop Shelf');
    expect(m.text()).toContain('Your shelf is as it was.');
    expect(await db.phrases.count()).toBe(1);
    await m.component.pick(picked('not a shelf'));
    await until(() => m.component.problem()?.includes('JSON') ?? false);
  });
});
