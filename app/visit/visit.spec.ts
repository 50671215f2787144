import { phraseCode, type SharedPhrase } from '@core/formats';
import { until } from '../testing/fixtures';
import { mount } from '../testing/mount';
import { emptyPlace } from '../testing/place';
import { VisitComponent } from './visit.component';

const ROPE: SharedPhrase = {
  name: 'Cold rope',
  family: 'fill',
  recipe: { source: { kind: 'typed', text: 'R! l l R K', meter: '7/8', grid: 1260 }, moves: [] },
  tempo: 92,
  goal: 104,
  note: 'late',
};

describe('a visitor', () => {
  it('sees the phrase of the link, and keeps nothing before taking it; a damaged link is told', async () => {
    const { db, went } = await emptyPlace();
    location.hash = `p=${phraseCode(ROPE)}`;
    const m = mount(VisitComponent);
    await until(() => m.component.phrase() !== null);
    m.fixture.detectChanges();
    expect([m.host.querySelector('h1')?.textContent, await db.phrases.count()]).toEqual(['Cold rope', 0]);
    m.press('Hear it');
    expect(m.component.heard()).toBe(true);
    await m.component.take(false);
    expect([await db.phrases.count(), went[0]]).toEqual([1, '/shelf ""']);
    location.hash = 'p=nothing';
    const bad = mount(VisitComponent);
    await until(() => bad.component.wrong() !== null);
    expect(bad.component.wrong()).toContain('damaged');
    location.hash = '';
  });
});
