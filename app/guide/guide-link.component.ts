import { ChangeDetectionStrategy, Component, computed, effect, inject, input } from '@angular/core';
import { GuideService } from './guide.service';
import type { GuidePageId } from './page-ids';

/** Opens the guide at the page of the place it stands in. In the head of a place, without words, `?` opens the same. */
@Component({
  selector: 'ls-guide-link',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button type="button" class="btn plain" [attr.aria-label]="label()" (click)="guide.show(page(), section())">
      @if (words(); as w) {
        {{ w }}
      } @else {
        <i class="pi pi-question-circle" aria-hidden="true"></i>
      }
    </button>
  `,
  styles: `
    :host {
      display: inline-flex;
      flex: none;
    }
    .btn {
      color: var(--quiet);
    }
    .btn:hover {
      color: var(--ink);
    }
  `,
})
export class GuideLinkComponent {
  readonly guide = inject(GuideService);
  readonly page = input.required<GuidePageId>();
  readonly section = input('');
  /** What stands on it instead of the sign. */
  readonly words = input<string | null>(null);
  readonly label = computed(() => (this.words() === null ? 'Guide' : null));

  constructor() {
    effect(() => {
      if (this.words() === null) this.guide.standsAt({ page: this.page(), section: this.section() });
    });
  }
}
