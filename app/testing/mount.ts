import type { Type } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { By } from '@angular/platform-browser';
import { MenuButtonComponent } from '../widgets/menu-button.component';
import { SelectComponent } from '../widgets/select.component';

/** A component in a test, with the few things a person can do to it. */
export interface Mounted<C> {
  readonly fixture: ComponentFixture<C>;
  readonly component: C;
  readonly host: HTMLElement;
  /** The button whose text or label begins so. */
  button(name: string): HTMLButtonElement;
  press(name: string): void;
  /** Types into the field with this label and leaves it. */
  fill(label: string, text: string): void;
  /** Picks the option with this text in the list with this label. */
  pick(label: string, option: string): void;
  /** What is chosen in the list with this label, in its words; its placeholder where nothing is. */
  shown(label: string): string;
  /** Does what a menu button offers under these words. */
  choose(label: string, words: string): void;
  check(label: string): void;
  text(): string;
  set(input: string, value: unknown): void;
}

/** Puts a component on the page with its inputs. */
export function mount<C>(type: Type<C>, inputs: Readonly<Record<string, unknown>> = {}): Mounted<C> {
  const fixture = TestBed.createComponent(type);
  for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
  fixture.detectChanges();
  const host = fixture.nativeElement as HTMLElement;
  const labelOf = (e: Element): string => {
    const own = e.getAttribute('aria-label') ?? e.closest('label')?.childNodes[0]?.textContent ?? '';
    // A checkbox stands before its words.
    return own.trim() === '' ? (e.closest('label')?.textContent ?? '').trim() : own.trim();
  };
  const find = <E extends HTMLElement>(type: new () => E, selector: string, name: string): E => {
    const those = [...host.querySelectorAll(selector)].filter((e): e is E => e instanceof type);
    const found = those.find((e) => labelOf(e) === name) ?? those.find((e) => labelOf(e).startsWith(name));
    if (!found) throw new Error(`no ${selector} “${name}” among ${those.map(labelOf).join(' | ')}`);
    return found;
  };
  const button = (name: string): HTMLButtonElement => {
    const those = [...host.querySelectorAll<HTMLButtonElement>('button, [role=tab]')];
    const said = (b: HTMLButtonElement): string => (b.getAttribute('aria-label') ?? b.textContent).trim();
    const found = those.find((b) => said(b) === name) ?? those.find((b) => said(b).startsWith(name));
    if (!found) throw new Error(`no button “${name}” among ${those.map(said).join(' | ')}`);
    return found;
  };
  const after = (): void => fixture.detectChanges();
  const all = <E>(kind: Type<E>): E[] =>
    fixture.debugElement.queryAll(By.directive(kind)).map((d) => d.componentInstance as E);
  const listOf = (label: string): SelectComponent<string | number> => {
    const lists = all<SelectComponent<string | number>>(SelectComponent);
    const found = lists.find((l) => l.label() === label) ?? lists.find((l) => l.label().startsWith(label));
    if (!found) throw new Error(`no list “${label}” among ${lists.map((l) => l.label()).join(' | ')}`);
    return found;
  };
  return {
    fixture,
    component: fixture.componentInstance,
    host,
    button,
    press: (name) => {
      button(name).click();
      after();
    },
    fill: (label, text) => {
      const field = find<HTMLElement>(HTMLElement, 'input:not([type=checkbox]), textarea', label) as HTMLInputElement;
      field.value = text;
      for (const kind of ['input', 'change', 'blur']) field.dispatchEvent(new Event(kind));
      after();
    },
    pick: (label, option) => {
      const list = listOf(label);
      const found = list.options().find((o) => o.words === option && !o.off);
      if (!found)
        throw new Error(
          `no option “${option}” in ${label}: ${list
            .options()
            .map((o) => o.words)
            .join(' | ')}`,
        );
      list.choose(found.value);
      after();
    },
    shown: (label) => {
      const list = listOf(label);
      return list.options().find((o) => o.value === list.chosen())?.words ?? list.placeholder();
    },
    choose: (label, words) => {
      const menu = all(MenuButtonComponent).find((m) => m.label() === label);
      const found = menu?.choices().find((c) => c.words === words);
      if (!menu || !found) throw new Error(`no “${words}” under ${label}`);
      menu.chose.emit(found.value);
      after();
    },
    check: (label) => {
      find(HTMLInputElement, 'input[type=checkbox]', label).click();
      after();
    },
    text: () => (host.textContent ?? '').replace(/\s+/g, ' ').trim(),
    set: (input, value) => {
      fixture.componentRef.setInput(input, value);
      after();
    },
  };
}

/** Everything an output tells, in order. */
export function heard<T>(output: { subscribe(run: (value: T) => void): unknown }): T[] {
  const all: T[] = [];
  output.subscribe((v) => all.push(v));
  return all;
}
