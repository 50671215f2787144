import { TestBed } from '@angular/core/testing';
import { PhrasesRepo } from '../../storage/phrases.repo';
import { phraseOf, until } from '../../testing/fixtures';
import { mount } from '../../testing/mount';
import { emptyPlace, key } from '../../testing/place';
import { DrillComponent } from './drill.component';
import { PlanStore } from './plan.store';
import { UnderWayComponent } from './under-way.component';

async function room(id: string | null = 'a') {
  const place = await emptyPlace();
  await TestBed.inject(PhrasesRepo).save(phraseOf('a', { name: 'Glass', goal: 90 }));
  const m = mount(DrillComponent, id === null ? {} : { phrase: id });
  await until(() => m.component.loaded());
  m.fixture.detectChanges();
  const after = (): void => m.fixture.detectChanges();
  return { ...place, m, after };
}

describe('the practice room', () => {
  it('shows the cautions and a ladder before it starts', async () => {
    const { m } = await room();
    expect(m.text()).toContain('Stop at pain, tingling or numbness');
    expect(m.text()).toContain('doctor or physiotherapist');
    expect(m.host.querySelectorAll('ls-stairs rect').length).toBeGreaterThan(3);
    m.fill('Loops a rung', '2');
    m.fill('Step', '0');
    expect(m.fixture.debugElement.injector.get(PlanStore).plan()).toMatchObject({ loops: 2, step: 1 });
  });
  it('Space starts and says clean, Enter says messy, left pauses, Escape is enough', async () => {
    const { m, transport, after } = await room();
    m.press('Whole phrase only');
    m.fill('Loops a rung', '1');
    m.fill('Step', '20');
    key(' ');
    after();
    expect(m.text()).toContain('count-in');
    transport.began$.next();
    transport.loops$.next(1);
    after();
    expect(m.text()).toContain('1 loop played. How was it?');
    key(' ');
    after();
    expect(m.text()).toContain('50 was clean.');
    transport.began$.next();
    key('Enter');
    after();
    expect(m.text()).toContain('Messy at 70: try again.');
    transport.began$.next();
    key('ArrowDown');
    after();
    expect(m.text()).toContain('Two messy tries at 70: one rung down.');
    key('ArrowLeft');
    after();
    expect(m.text()).toContain('You stopped at 50.');
    key('Escape');
    after();
    expect(m.text()).toContain('Stopped at 50');
    expect(transport.playing()).toBe(false);
  });
  it('without a phrase it offers what is under way, or says what to do; a phrase that is gone is said', async () => {
    const none = await room(null);
    expect(none.m.text()).toContain('What do you want to drill?');
    none.m.set('phrase', 'a');
    await until(() => none.m.component.subject.phrase()?.id === 'a');
    none.m.component.pressGood();
    none.m.component.pressBad();
    const list = mount(UnderWayComponent);
    await until(() => list.component.underWay().length === 1);
    expect(list.component.underWay()[0]).toMatchObject({ name: 'Glass', at: 50, goal: 90 });
    const gone = await room('gone');
    expect(gone.m.text()).toContain('no longer on the shelf');
  });
});
