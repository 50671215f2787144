import { signal } from '@angular/core';
import { mount, heard } from '../testing/mount';
import { ChipsComponent } from './chips.component';
import { LoudnessComponent } from './loudness.component';
import { NumberFieldComponent } from './number-field.component';

describe('the number field', () => {
  const field = (more: Record<string, unknown> = {}) => {
    const m = mount(NumberFieldComponent, { label: 'Loops', value: 4, least: 1, most: 64, ...more });
    return { m, told: heard(m.component.changed), input: m.host.querySelector('input')! };
  };
  it.each([
    ['8', [8], '8'],
    ['0', [1], '1'],
    ['900', [64], '64'],
    ['7.6', [8], '8'],
    ['', [], '4'],
    ['4', [], '4'],
  ])('“%s”', (text, told, shown) => {
    const f = field();
    f.m.fill('Loops', text);
    expect(f.told).toEqual(told);
    expect(f.input.value).toBe(shown);
  });
  it('is rounded to its step without dust', () => {
    const f = field({ value: 8, step: 0.1, most: 20 });
    f.m.fill('Loops', '7.31');
    expect(f.told).toEqual([7.3]);
  });
  it('what is being typed stays when another value comes in', () => {
    const f = field();
    f.input.value = '12';
    f.input.dispatchEvent(new Event('input'));
    f.m.set('value', 6);
    expect(f.input.value).toBe('12');
    f.input.dispatchEvent(new Event('change'));
    expect(f.told).toEqual([12]);
  });
});

describe('chips', () => {
  it('one is down, and which one is told; the row has a name', () => {
    const m = mount(ChipsComponent<string | null>, {
      label: 'Who judges',
      chips: [
        { value: null, words: 'My ear' },
        { value: 'keys', words: 'Keys' },
      ],
      chosen: null,
    });
    const told = heard(m.component.chose);
    expect(m.host.getAttribute('aria-label')).toBe('Who judges');
    expect(m.button('My ear').getAttribute('aria-pressed')).toBe('true');
    m.press('Keys');
    expect(told).toEqual(['keys']);
    m.set('chosen', 'keys');
    expect([m.button('Keys').getAttribute('aria-pressed'), m.button('My ear').getAttribute('aria-pressed')]).toEqual([
      'true',
      'false',
    ]);
  });
});

describe('loudness', () => {
  it('has a slider for each part, and evens them out', async () => {
    const levels = signal({ primary: 1, timekeeping: 0.5, texture: 1, click: 1.5, counts: 0 });
    const m = mount(LoudnessComponent, { levels: levels() });
    const evened = heard(m.component.evened);
    // The form's values arrive a turn later.
    await new Promise((r) => setTimeout(r));
    m.fixture.detectChanges();
    const sliders = [...m.host.querySelectorAll('[role=slider]')];
    expect(sliders.map((s) => s.getAttribute('aria-label'))).toEqual([
      'Loudness: groove',
      'Loudness: timekeeping',
      'Loudness: texture',
      'Loudness: click',
      'Loudness: counts',
    ]);
    expect(sliders.map((s) => s.getAttribute('aria-valuenow'))).toEqual(['100', '50', '100', '150', '0']);
    const changed = heard(m.component.changed);
    sliders[1]!.dispatchEvent(new KeyboardEvent('keydown', { code: 'ArrowRight', key: 'ArrowRight', bubbles: true }));
    expect(changed).toEqual([{ part: 'timekeeping', to: 0.55 }]);
    m.press('All alike');
    expect(evened).toHaveLength(1);
  });
});
