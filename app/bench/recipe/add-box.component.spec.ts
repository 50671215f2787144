import { TestBed } from '@angular/core/testing';
import { typed, until } from '../../testing/fixtures';
import { mount } from '../../testing/mount';
import { emptyPlace, key } from '../../testing/place';
import { AddBoxComponent } from './add-box.component';
import { BenchStore } from '../document/bench.store';

async function box() {
  await emptyPlace();
  const store = TestBed.inject(BenchStore);
  await until(() => store.ready());
  store.setSource(typed('R l l K').source);
  const m = mount(AddBoxComponent);
  const field = m.host.querySelector('input')!;
  const say = (text: string): void => {
    field.value = text;
    field.dispatchEvent(new Event('input'));
    m.fixture.detectChanges();
  };
  return { store, m, field, say };
}

describe('the box that takes words', () => {
  it('offers what words could mean, drawn; arrows choose, Enter takes, and it is empty for the next', async () => {
    const { store, m, field, say } = await box();
    say('accents every 3');
    expect([...m.host.querySelectorAll('[role=option] span')].map((e) => e.textContent)).toEqual([
      'Accent every 3rd slot',
      'Accent every 3rd stroke',
    ]);
    expect(m.host.querySelectorAll('[role=option] svg')).toHaveLength(2);
    key('ArrowDown', field);
    m.fixture.detectChanges();
    expect(m.host.querySelector('[aria-selected=true]')?.textContent).toContain('stroke');
    key('Enter', field);
    expect(store.recipe()?.moves[0]).toMatchObject({
      id: 'm1',
      move: 'level',
      params: { select: { every: { of: 'stroke' } } },
    });
    m.fixture.detectChanges();
    expect(field.value).toBe('');
  });
  it('says when nothing fits, with what would, and adds nothing', async () => {
    const { store, m, field, say } = await box();
    say('purple monkey');
    expect(m.text()).toContain('These words fit no move yet. For instance: kick after every 4');
    key('Enter', field);
    expect(store.recipe()?.moves).toEqual([]);
    key('Escape', field);
    m.fixture.detectChanges();
    expect(field.value).toBe('');
  });
});
