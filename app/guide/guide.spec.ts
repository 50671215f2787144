import { ChangeDetectionStrategy, Component } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { KeysService } from '../common/keys.service';
import { SettingsRepo } from '../storage/settings.repo';
import { mount } from '../testing/mount';
import { emptyPlace, key } from '../testing/place';
import { PAGES } from './generated/book';
import { GuideLinkComponent } from './guide-link.component';
import { GuidePanelComponent } from './guide-panel.component';
import { searchOf } from './guide-search';
import { GuideService } from './guide.service';
import { MeaningComponent } from './meaning.component';
import { GUIDE_PAGES, placeOfLink } from './page-ids';
import { TermComponent } from './term.component';
import { piecesOf, TermedComponent } from './termed.component';
import { TERMS } from './terms';

/** Every word of the book beside where it stands, found without the search. */
const plainly = (word: string): readonly string[] =>
  PAGES.flatMap((p) =>
    p.sections.flatMap((s) =>
      [s.title, p.title, s.text].some((t) => ` ${t.toLowerCase()}`.match(new RegExp(`[^\\p{L}\\d]${word}`, 'u')))
        ? [`${p.id}/${s.id}`]
        : [],
    ),
  );

describe('the book', () => {
  it('has the pages that places and words refer to, in their order', () => {
    expect(PAGES.map((p) => p.id)).toEqual([...GUIDE_PAGES]);
    for (const { page, section } of Object.values(TERMS))
      expect(PAGES.find((p) => p.id === page)?.sections.map((s) => s.id)).toContain(section);
  });
  it('has steps to try on every page', () => {
    for (const p of PAGES) {
      const steps = p.sections.find((s) => s.id === 'try-it')?.html.match(/<li>/g)?.length ?? 0;
      expect([p.id, steps >= 4]).toEqual([p.id, true]);
    }
  });
  it('leads from page to page inside itself, and nowhere else', () => {
    const links = PAGES.flatMap((p) => p.sections.flatMap((s) => [...s.html.matchAll(/href="([^"]*)"/g)]));
    expect(links.length).toBeGreaterThan(3);
    for (const [, href] of links) expect(placeOfLink(href ?? '')).not.toBeNull();
    expect([
      placeOfLink('#guide/elsewhere'),
      placeOfLink('https://drill.md'),
      placeOfLink('#guide/drill/care'),
    ]).toEqual([null, null, { page: 'drill', section: 'care' }]);
  });
});

describe('the search of the guide', () => {
  const search = searchOf(PAGES);
  it('finds every section a word stands in, as a plain walk does', () => {
    for (const word of ['swing', 'unplugged', 'microphone', 'paradiddle', 'pupil', 'headphones', 'zipped', 'landing']) {
      const there = plainly(word);
      const found = search(word).map((f) => `${f.page}/${f.section}`);
      expect([word, there.length > 0]).toEqual([word, true]);
      expect([word, found.toSorted()]).toEqual([word, there.length <= 8 ? there.toSorted() : expect.any(Array)]);
      expect(found.every((f) => there.includes(f))).toBe(true);
    }
  });
  it('shows the words round what it found', () => {
    const [first] = search('unplugged');
    expect(first).toMatchObject({ page: 'drill' });
    expect(first?.words).toContain('unplugged');
  });
  it('reads a slip of the finger only where nothing is written so', () => {
    expect(plainly('microfone')).toEqual([]);
    expect(search('microfone').length).toBeGreaterThan(0);
    expect(search('zzzzqqq')).toEqual([]);
  });
});

describe('the guide beside the work', () => {
  const openAt = async (page: 'drill' | 'first-fill') => {
    await emptyPlace();
    const guide = TestBed.inject(GuideService);
    guide.show(page);
    return { guide, m: mount(GuidePanelComponent) };
  };
  it('opens the page of the place, and closes with the same key', async () => {
    await emptyPlace();
    const guide = TestBed.inject(GuideService);
    guide.toggle();
    expect(guide.open()?.page).toBe('first-fill');
    guide.toggle();
    const m = mount(GuideLinkComponent, { page: 'today-and-log', section: 'the-log' });
    TestBed.tick();
    guide.toggle();
    expect(guide.open()).toEqual({ page: 'today-and-log', section: 'the-log' });
    guide.toggle();
    expect(guide.open()).toBeNull();
    m.press('Guide');
    expect(guide.open()).toEqual({ page: 'today-and-log', section: 'the-log' });
  });
  it('a link with words leads to its page, and leaves what ? opens', async () => {
    await emptyPlace();
    const guide = TestBed.inject(GuideService);
    mount(GuideLinkComponent, { page: 'drill' });
    const m = mount(GuideLinkComponent, { page: 'shows', words: 'How it goes' });
    TestBed.tick();
    m.press('How it goes');
    expect(guide.open()?.page).toBe('shows');
    guide.close();
    guide.toggle();
    expect(guide.open()?.page).toBe('drill');
  });
  it('has the keys of the place on top, its own before those of every place', async () => {
    const { m } = await openAt('drill');
    TestBed.runInInjectionContext(() => {
      TestBed.inject(KeysService).use([{ combo: '4', shown: '4', does: 'To the Shelf', run: () => undefined }]);
      TestBed.inject(KeysService).use([{ combo: 'q', shown: 'Q', does: 'Quieter', run: () => undefined }]);
    });
    m.fixture.detectChanges();
    expect([...m.host.querySelectorAll('dd')].map((d) => d.textContent)).toEqual(['Quieter', 'To the Shelf']);
  });
  it('turns pages: from the list, from a link of the text, to the next', async () => {
    const { guide, m } = await openAt('first-fill');
    expect(m.text()).toContain('R! l l R K');
    m.press('All pages');
    expect([...m.host.querySelectorAll('ol button')].map((b) => b.textContent?.trim())).toEqual(
      PAGES.map((p) => p.title),
    );
    m.press('Teaching');
    expect(guide.open()?.page).toBe('teaching');
    m.press('Next:');
    expect(guide.open()?.page).toBe('when-something-is-wrong');
    expect(m.host.querySelector('.next')).toBeNull();
    const link = [...m.host.querySelectorAll<HTMLAnchorElement>('.prose a')].find((a) => /files/i.test(a.textContent));
    link?.click();
    expect(guide.open()?.page).toBe('files-and-devices');
  });
  it('finds, says where it finds nothing, and Esc goes back one step at a time', async () => {
    const { guide, m } = await openAt('drill');
    m.fill('Search the guide', 'unplugged');
    m.press('Verdicts');
    expect(guide.open()).toEqual({ page: 'drill', section: 'verdicts' });
    m.fill('Search the guide', 'zzzzqqq');
    expect(m.text()).toContain('Nothing about that');
    const inside = m.host.querySelector('input') ?? m.host;
    key('Escape', inside);
    m.fixture.detectChanges();
    expect([guide.open() === null, m.text().includes('Nothing about that')]).toEqual([false, false]);
    key('Escape', inside);
    expect(guide.open()).toBeNull();
  });
});

describe('a word of ours', () => {
  @Component({
    changeDetection: ChangeDetectionStrategy.OnPush,
    imports: [TermComponent],
    template: `<ls-term of="rung" as="Rungs" /><span>, </span><ls-term of="hold" />`,
  })
  class TwoWords {}
  const withMeaning = async () => {
    await emptyPlace();
    const guide = TestBed.inject(GuideService);
    const m = mount(TwoWords);
    m.press('Rungs');
    const shown = guide.shown();
    if (!shown) throw new Error('nothing is shown');
    document.body.append(m.host);
    return { guide, m, card: mount(MeaningComponent, { shown }) };
  };
  it('says what it means, and is plain text for good once it is known', async () => {
    const { guide, m, card } = await withMeaning();
    expect(card.text()).toContain(TERMS.rung.says);
    card.press('Got it');
    expect(guide.shown()).toBeNull();
    m.fixture.detectChanges();
    expect([...m.host.querySelectorAll('button')].map((b) => b.textContent)).toEqual(['hold']);
    expect(m.text()).toBe('Rungs, hold');
    expect(TestBed.inject(SettingsRepo).now().known).toEqual(['rung']);
    guide.learn('rung');
    guide.learn('hold');
    expect(TestBed.inject(SettingsRepo).now().known).toEqual(['rung', 'hold']);
    m.host.remove();
  });
  it('closes on Esc before anything under it hears of it, and on a press elsewhere', async () => {
    const { guide, m } = await withMeaning();
    let under = 0;
    const hears = (): void => {
      under++;
    };
    window.addEventListener('keydown', hears);
    key('Escape');
    expect([guide.shown(), under]).toEqual([null, 0]);
    m.press('hold');
    expect(guide.shown()?.term).toBe('hold');
    document.body.dispatchEvent(new Event('pointerdown', { bubbles: true }));
    expect(guide.shown()).toBeNull();
    window.removeEventListener('keydown', hears);
    m.host.remove();
  });
  it('leads to where the guide says more', async () => {
    const { guide, m, card } = await withMeaning();
    card.press('More in the guide');
    expect([guide.shown(), guide.open()]).toEqual([null, { page: 'drill', section: 'stages-and-ladder' }]);
    m.host.remove();
  });
  it('is told apart in a sentence where it first stands, and the sentence stays as it was', () => {
    expect(piecesOf('Ready at 78; 5% chance. Ready soon.', ['ready', 'chance', 'rung'])).toEqual([
      { text: 'Ready', term: 'ready' },
      { text: ' at 78; 5% ', term: null },
      { text: 'chance', term: 'chance' },
      { text: '. Ready soon.', term: null },
    ]);
    for (const text of ['', 'already there', 'ready', 'the chance is ready'])
      expect(
        piecesOf(text, ['chance', 'ready'])
          .map((p) => p.text)
          .join(''),
      ).toBe(text);
    expect(piecesOf('already there', ['ready'])).toEqual([{ text: 'already there', term: null }]);
  });
  it('is no more than its text in a sentence when it is known', async () => {
    await emptyPlace();
    await TestBed.inject(SettingsRepo).change({ known: ['ready'] });
    const m = mount(TermedComponent, { text: 'Ready at 78; 5% chance.', terms: ['ready', 'chance'] });
    expect(m.text()).toBe('Ready at 78; 5% chance.');
    expect([...m.host.querySelectorAll('button')].map((b) => b.textContent)).toEqual(['chance']);
  });
});
