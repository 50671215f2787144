import { ChangeDetectionStrategy, Component } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Dialog } from 'primeng/dialog';
import { mount, heard } from '../testing/mount';
import { ChipsComponent } from './chips.component';
import { DialogFocusDirective } from './dialog-focus.directive';
import { MenuButtonComponent } from './menu-button.component';
import { NumberFieldComponent } from './number-field.component';
import { SelectComponent } from './select.component';
import { TempoFieldComponent } from './tempo-field.component';

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
  it('what is being typed stays when another value comes in', async () => {
    const f = field();
    f.input.dispatchEvent(new Event('focus'));
    f.input.value = '12';
    f.m.set('value', 6);
    await Promise.resolve();
    expect(f.input.value).toBe('12');
    f.input.dispatchEvent(new Event('blur'));
    expect(f.told).toEqual([12]);
  });
});

describe('the tempo field', () => {
  it('a letter is no tempo: what was typed is taken, and the key is the place’s', () => {
    const m = mount(TempoFieldComponent, { bpm: 90 });
    document.body.append(m.host);
    const told = heard(m.component.bpmChange);
    const keys: string[] = [];
    const listen = (e: KeyboardEvent): void => void keys.push(`${e.key} ${(e.target as Element).tagName}`);
    window.addEventListener('keydown', listen);
    const field = m.host.querySelector('input')!;
    field.focus();
    field.value = '95';
    field.dispatchEvent(new Event('input'));
    const press = new KeyboardEvent('keydown', { key: 'k', bubbles: true, cancelable: true });
    field.dispatchEvent(press);
    window.removeEventListener('keydown', listen);
    m.host.remove();
    expect(press.defaultPrevented).toBe(true);
    expect([told, field.value, keys]).toEqual([[95], '95', ['k BODY']]);
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

describe('the list', () => {
  const choices = [
    { value: 'a', words: 'first' },
    { value: 'b', words: 'second' },
    { value: 'c', words: 'third', off: true },
  ];
  it('tells what was chosen, and goes back to what the place says when it was not taken', async () => {
    const m = mount(SelectComponent<string>, { label: 'Which', options: choices, chosen: 'a' });
    const told = heard(m.component.chose);
    m.component.choose('b');
    expect([told, m.component.shown()]).toEqual([['b'], 'b']);
    await Promise.resolve();
    expect(m.component.shown()).toBe('a');
    m.set('chosen', 'b');
    expect(m.component.shown()).toBe('b');
  });
  it('is filled when the pointer or the keyboard comes to it, where it is long', () => {
    const many = Array.from({ length: 10_000 }, (_, i) => ({ value: i, words: `phrase ${i}` }));
    for (const come of ['pointerenter', 'focusin']) {
      const m = mount(SelectComponent<number>, { label: 'Which', options: many, chosen: 77 });
      expect(m.component.list().map((o) => o.words)).toEqual(['phrase 77']);
      m.host.dispatchEvent(new Event(come));
      expect(m.component.list()).toHaveLength(10_000);
    }
    const few = mount(SelectComponent<string>, { label: 'Which', options: choices, chosen: 'a' });
    expect(few.component.list()).toHaveLength(3);
  });
  it('has a name, and its placeholder while nothing is chosen', async () => {
    const m = mount(SelectComponent<string>, { label: 'Which', options: choices, chosen: null, placeholder: 'none' });
    await Promise.resolve();
    m.fixture.detectChanges();
    const box = m.host.querySelector('[role=combobox]');
    expect([box?.getAttribute('aria-label'), box?.textContent?.trim()]).toEqual(['Which', 'none']);
  });
});

describe('the menu', () => {
  it('does what is chosen from it', () => {
    const choices = [
      { value: 1, words: 'one' },
      { value: 2, words: 'two', off: true },
    ];
    const m = mount(MenuButtonComponent<number>, { words: 'Add', label: 'Add one', choices });
    const told = heard(m.component.chose);
    m.component.items()[0]?.command();
    expect(told).toEqual([1]);
    expect(m.component.items().map((i) => i.disabled)).toEqual([false, true]);
    expect(m.button('Add one').getAttribute('aria-haspopup')).toBe('menu');
  });
});

@Component({
  imports: [Dialog, DialogFocusDirective, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<p-dialog [visible]="true" appendTo="self"><input type="text" name="n" [ngModel]="name" /></p-dialog>`,
})
class NamedComponent {
  readonly name = 'R l l K, changed';
}

describe('the first field of a dialog', () => {
  it('is chosen whole before any key can come, so that what is typed takes the place of what is proposed', async () => {
    const seen = new Promise<HTMLInputElement>((tell) => {
      document.addEventListener('focusin', ({ target }) => target instanceof HTMLInputElement && tell(target));
    });
    const m = mount(NamedComponent);
    document.body.append(m.host);
    m.fixture.autoDetectChanges();
    const field = await seen;
    for (let i = 0; i < 6; i++) await Promise.resolve();
    expect([field.value, field.selectionStart, field.selectionEnd]).toEqual(['R l l K, changed', 0, 16]);
    m.host.remove();
  });
});
