import { inject, Injectable, signal } from '@angular/core';
import { SettingsRepo } from '../storage/settings.repo';
import type { GuidePageId, GuidePlace } from './page-ids';
import type { Term } from './terms';

/** A word whose meaning is shown, and the element it is shown at. */
export interface ShownTerm {
  readonly term: Term;
  readonly at: HTMLElement;
}

/** Which page of the guide is open, and which of our words are shown or known. */
@Injectable({ providedIn: 'root' })
export class GuideService {
  private readonly settings = inject(SettingsRepo);
  private readonly openState = signal<GuidePlace | null>(null);
  private readonly shownState = signal<ShownTerm | null>(null);
  readonly open = this.openState.asReadonly();
  readonly shown = this.shownState.asReadonly();
  /** The page about the place that is open: its head says which. */
  private readonly here = signal<GuidePlace>({ page: 'first-fill', section: '' });
  /** Who had the keyboard when it was opened, to have it again. */
  private before: Element | null = null;

  show(page: GuidePageId, section = ''): void {
    if (!this.open()) this.before = document.activeElement;
    this.openState.set({ page, section });
  }

  /** Said by the head of the place that is open. */
  standsAt(here: GuidePlace): void {
    this.here.set(here);
  }

  /** Opens the page about the place that is open, or closes the book. */
  toggle(): void {
    const { page, section } = this.here();
    if (this.open()) this.close();
    else this.show(page, section);
  }

  close(): void {
    this.openState.set(null);
    if (this.before instanceof HTMLElement && this.before.isConnected) this.before.focus();
    this.before = null;
  }

  explain(shown: ShownTerm): void {
    this.shownState.set(shown);
  }

  hush(): void {
    this.shownState.set(null);
  }

  knows(term: Term): boolean {
    return this.settings.now().known?.includes(term) ?? false;
  }

  /** The word is marked nowhere any more. */
  learn(term: Term): void {
    this.hush();
    const known = this.settings.now().known ?? [];
    if (!known.includes(term)) void this.settings.change({ known: [...known, term] });
  }
}
