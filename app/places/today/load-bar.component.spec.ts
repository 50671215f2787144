import { mount } from '../../testing/mount';
import { LoadBarComponent } from './load-bar.component';

describe('the strokes of a day as a bar', () => {
  const drawn = (strokes: number, most: number | null) => {
    const { host } = mount(LoadBarComponent, { load: { strokes, most } });
    const style = (what: string): string =>
      (host.querySelector(what)?.getAttribute('style') ?? '-').replace(/[\d.]+/, (n) => String(Math.round(Number(n))));
    return { played: style('.played'), limit: style('.limit'), words: host.querySelector('p')?.textContent };
  };
  it.each([
    [3000, 6000, 'width: 50%;', 'left: 100%;', 'About 3,000 strokes per hand. Your limit today: 6,000.'],
    // Beyond the limit the bar is full, and the limit stands inside of it.
    [9000, 6000, 'width: 100%;', 'left: 67%;', 'About 9,000 strokes per hand. Your limit today: 6,000.'],
    [800, null, 'width: 50%;', '-', 'About 800 strokes per hand. No limit yet: it needs a week of practice.'],
  ])('%s of %s', (strokes, most, played, limit, words) =>
    expect(drawn(strokes, most)).toEqual({ played, limit, words }),
  );
  it('is red where it is too much', () => {
    const { host } = mount(LoadBarComponent, { load: { strokes: 7000, most: 6000 } });
    expect(host.querySelector('.played')?.className).toContain('over');
  });
});
