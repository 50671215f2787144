import { TestBed } from '@angular/core/testing';
import { phraseCode, type SharedPhrase } from '@core/formats/shared';
import { PhrasesRepo } from '../../storage/phrases.repo';
import { NoticesService } from '../../common/notices.service';
import { until } from '../../testing/fixtures';
import { mount } from '../../testing/mount';
import { emptyPlace } from '../../testing/place';
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
    m.press('Hear');
    expect(m.component.heard()).toBe(true);
    await m.component.take(false);
    expect([await db.phrases.count(), went[0]]).toEqual([1, '/shelf ""']);
    location.hash = 'p=nothing';
    const bad = mount(VisitComponent);
    await until(() => bad.component.wrong() !== null);
    expect(bad.component.wrong()).toContain('damaged');
    location.hash = '';
  });

  it('pressed twice, or one way and then the other, it is one act and one phrase; taken off again, it can be kept anew', async () => {
    const { db, messages } = await emptyPlace();
    const said: string[] = [];
    const follow = messages.messageObserver.subscribe((m) => said.push(String([m].flat()[0]?.detail)));
    location.hash = `p=${phraseCode(ROPE)}`;
    const m = mount(VisitComponent);
    await until(() => m.component.phrase() !== null);
    TestBed.inject(NoticesService).stand();
    await Promise.all([m.component.take(false), m.component.take(true), m.component.take(false)]);
    await m.component.take(true);
    const [one, ...more] = await db.phrases.toArray();
    expect([one?.name, more, said.filter((w) => w.includes('is on the shelf'))]).toEqual([
      'Cold rope',
      [],
      ['“Cold rope” is on the shelf.'],
    ]);
    await TestBed.inject(PhrasesRepo).remove([one!.id]);
    await m.component.take(false);
    expect((await db.phrases.toArray()).map((p) => p.name)).toEqual(['Cold rope']);
    // What became another phrase on the Bench meanwhile is not what the link holds.
    await db.phrases.toCollection().modify({ tempo: 61 });
    await m.component.take(false);
    expect(await db.phrases.count()).toBe(2);
    follow.unsubscribe();
    location.hash = '';
  });
});
