import { ChangeDetectionStrategy, Component, computed, DestroyRef, ElementRef, inject, input } from '@angular/core';
import { GuideService } from './guide.service';
import type { Term } from './terms';

/** The mouse rests so long on a word before its meaning is shown, in milliseconds. */
const REST = 350;

/**
 * A word of ours where it first stands in a place. Pressed, or rested on, it says what it means; once known it is plain
 * text for good.
 */
@Component({
  selector: 'ls-term',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (known()) {
      <span>{{ words() }}</span>
    } @else {
      <button
        type="button"
        [attr.aria-expanded]="shown()"
        aria-haspopup="dialog"
        (click)="toggle()"
        (pointerenter)="rest($event)"
        (pointerleave)="leave()"
        [textContent]="words()"
      ></button>
    }
  `,
  styles: `
    button {
      all: unset;
      cursor: help;
      text-decoration: underline dotted var(--quiet);
      text-decoration-thickness: 1.5px;
      text-underline-offset: 3px;
    }
    button:focus-visible {
      outline: 2px solid var(--accent);
      outline-offset: 2px;
      border-radius: 4px;
    }
    @media (pointer: coarse) {
      button {
        padding: 8px 2px;
        margin: -8px -2px;
      }
    }
  `,
})
export class TermComponent {
  private readonly guide = inject(GuideService);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  readonly of = input.required<Term>();
  /** How it is written here: “Ready”, “rungs”. */
  readonly as = input<string | null>(null);
  readonly words = computed(() => this.as() ?? this.of());
  readonly known = computed(() => this.guide.knows(this.of()));
  readonly shown = computed(() => this.guide.shown()?.at === this.host);
  private resting: ReturnType<typeof setTimeout> | undefined;

  constructor() {
    inject(DestroyRef).onDestroy(() => {
      this.leave();
      if (this.shown()) this.guide.hush();
    });
  }

  toggle(): void {
    this.leave();
    if (this.shown()) this.guide.hush();
    else this.guide.explain({ term: this.of(), at: this.host });
  }

  rest(event: PointerEvent): void {
    if (event.pointerType !== 'mouse' || this.shown()) return;
    this.resting = setTimeout(() => this.guide.explain({ term: this.of(), at: this.host }), REST);
  }

  leave(): void {
    clearTimeout(this.resting);
  }
}
