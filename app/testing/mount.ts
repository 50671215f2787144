import type { Type } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';

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
  /** Picks the option with this text in the select with this label. */
  pick(label: string, option: string): void;
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
    const all = [...host.querySelectorAll(selector)].filter((e): e is E => e instanceof type);
    const found = all.find((e) => labelOf(e) === name) ?? all.find((e) => labelOf(e).startsWith(name));
    if (!found) throw new Error(`no ${selector} “${name}” among ${all.map(labelOf).join(' | ')}`);
    return found;
  };
  const button = (name: string): HTMLButtonElement => {
    const all = [...host.querySelectorAll('button')];
    const said = (b: HTMLButtonElement): string => (b.getAttribute('aria-label') ?? b.textContent).trim();
    const found = all.find((b) => said(b) === name) ?? all.find((b) => said(b).startsWith(name));
    if (!found) throw new Error(`no button “${name}” among ${all.map(said).join(' | ')}`);
    return found;
  };
  const after = (): void => fixture.detectChanges();
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
      const field = find(HTMLInputElement, 'input:not([type=checkbox])', label);
      field.value = text;
      for (const kind of ['input', 'change', 'blur']) field.dispatchEvent(new Event(kind));
      after();
    },
    pick: (label, option) => {
      const select = find(HTMLSelectElement, 'select', label);
      const found = [...select.options].find((o) => o.text.trim() === option);
      if (!found)
        throw new Error(`no option “${option}” in ${label}: ${[...select.options].map((o) => o.text).join(' | ')}`);
      select.value = found.value;
      select.dispatchEvent(new Event('change'));
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
