import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  ElementRef,
  inject,
  input,
  viewChild,
} from '@angular/core';
import { GuideService, type ShownTerm } from './guide.service';
import { meaningOf } from './terms';

/** Between the word and its meaning, and the least that is left of the page beside it, in pixels. */
const GAP = 8;

/** What a word means, under the word; over it where there is no room below. */
@Component({
  selector: 'ls-meaning',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div #card class="panel card" role="dialog" [attr.aria-label]="'Meaning of ' + shown().term">
      <p>{{ meaning().says }}</p>
      <div class="row">
        <button #first type="button" class="btn small" (click)="learnt()">Got it</button>
        <button type="button" class="btn small plain" (click)="more()">More in the guide</button>
      </div>
    </div>
  `,
  styles: `
    /* In the page's grid it takes no place. */
    :host {
      display: contents;
    }
    .card {
      position: fixed;
      z-index: 1150;
      width: min(290px, calc(100vw - 16px));
      padding: 12px 14px;
      border-left: 4px solid var(--accent);
      box-shadow: 0 8px 28px color-mix(in srgb, var(--ink) 18%, transparent);
      font-size: 14px;
    }
    .row {
      display: flex;
      gap: 8px;
      margin-top: 10px;
    }
  `,
})
export class MeaningComponent {
  readonly guide = inject(GuideService);
  readonly shown = input.required<ShownTerm>();
  readonly meaning = computed(() => meaningOf(this.shown().term));
  private readonly card = viewChild.required<ElementRef<HTMLElement>>('card');
  private readonly first = viewChild.required<ElementRef<HTMLElement>>('first');

  constructor() {
    // Before anyone else: Esc closes this and nothing under it, and what is scrolled takes the word away.
    const early = { capture: true };
    const listeners: Readonly<Record<string, (event: Event) => void>> = {
      keydown: (e) => this.key(e),
      pointerdown: (e) => this.press(e),
      scroll: () => this.guide.hush(),
    };
    for (const [kind, listen] of Object.entries(listeners)) document.addEventListener(kind, listen, early);
    inject(DestroyRef).onDestroy(() => {
      for (const [kind, listen] of Object.entries(listeners)) document.removeEventListener(kind, listen, early);
    });
    afterNextRender(() => {
      this.lay();
      // By keys the way to the answers is short: the word was pressed, and they come next.
      const by = this.shown().at.querySelector('button');
      if (by && document.activeElement === by) this.first().nativeElement.focus();
    });
  }

  private lay(): void {
    const word = this.shown().at.getBoundingClientRect();
    const card = this.card().nativeElement;
    const { width, height } = card.getBoundingClientRect();
    const below = word.bottom + GAP;
    const top = below + height > innerHeight - GAP ? word.top - GAP - height : below;
    card.style.left = `${Math.max(GAP, Math.min(word.left, innerWidth - width - GAP))}px`;
    card.style.top = `${Math.max(GAP, top)}px`;
  }

  learnt(): void {
    this.leave();
    this.guide.learn(this.shown().term);
  }

  more(): void {
    const { page, section } = this.meaning();
    this.guide.hush();
    this.guide.show(page, section);
  }

  private key(event: Event): void {
    if (!(event instanceof KeyboardEvent) || event.key !== 'Escape') return;
    event.preventDefault();
    event.stopImmediatePropagation();
    this.leave();
    this.guide.hush();
  }

  private press(event: Event): void {
    const on = event.target instanceof Node ? event.target : null;
    if (!this.card().nativeElement.contains(on) && !this.shown().at.contains(on)) this.guide.hush();
  }

  /** The keyboard goes back to the word. */
  private leave(): void {
    if (this.card().nativeElement.contains(document.activeElement)) this.shown().at.querySelector('button')?.focus();
  }
}
