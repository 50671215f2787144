import { TestBed } from '@angular/core/testing';
import { PhrasesRepo } from '../data/phrases.repo';
import { phraseOf, until } from '../testing/fixtures';
import { mount } from '../testing/mount';
import { emptyPlace, key } from '../testing/place';
import { ShelfComponent } from './shelf.component';

describe('the Shelf', () => {
  it('empty, it shows one thing to do', async () => {
    const { went } = await emptyPlace();
    const m = mount(ShelfComponent);
    await until(() => m.component.shelf.phrases() !== null);
    m.fixture.detectChanges();
    expect(m.text()).toContain('Nothing here yet. Make your first fill.');
    key('n');
    expect(went).toEqual(['/bench {"fresh":1}']);
  });
  it('searches, and says when nothing is found', async () => {
    await emptyPlace();
    const repo = TestBed.inject(PhrasesRepo);
    for (const id of ['a', 'b']) await repo.save(phraseOf(id));
    const m = mount(ShelfComponent);
    await until(() => (m.component.shelf.phrases()?.length ?? 0) === 2);
    m.fixture.detectChanges();
    m.fill('Search the shelf', 'phrase b');
    expect(m.component.shelf.rows()).toHaveLength(2);
    m.fill('Search the shelf', 'zebra');
    expect(m.text()).toContain('No phrase has all of “zebra”');
    m.press('Show all 2');
    expect(m.component.shelf.rows()).toHaveLength(3);
  });
  it('hears, stops, takes off and puts back', async () => {
    const { transport, db } = await emptyPlace();
    await TestBed.inject(PhrasesRepo).save(phraseOf('a'));
    const m = mount(ShelfComponent);
    await until(() => m.component.shelf.rows().length === 2);
    const strip = m.component.shelf.rows()[1]!;
    if (strip.kind !== 'strip') throw new Error('no strip');
    m.component.pointedAt.set(strip);
    key(' ');
    expect([transport.requests.length, m.component.isHeard(strip)]).toEqual([1, true]);
    key(' ');
    expect(m.component.isHeard(strip)).toBe(false);
    await m.component.shelf.remove(strip);
    expect(await db.phrases.count()).toBe(0);
    key('z', document.body, { ctrlKey: true });
    let n = 0;
    for (let i = 0; i < 100 && n === 0; i++) {
      await new Promise((r) => setTimeout(r, 5));
      n = await db.phrases.count();
    }
    expect(n).toBe(1);
    expect(m.component.since(strip)).toBe('not drilled yet');
  });
});
