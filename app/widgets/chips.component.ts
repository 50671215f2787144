import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { Choice } from './choice';

function isMany<T>(chosen: T | readonly T[]): chosen is readonly T[] {
  return Array.isArray(chosen);
}

/** A row of buttons of which one is down, or several. A screen reader hears the row's name, and which they are. */
@Component({
  selector: 'ls-chips',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (c of chips(); track c.words) {
      <button
        type="button"
        class="btn small"
        [class.mono]="mono()"
        [class.on]="down().includes(c.value)"
        [attr.aria-pressed]="down().includes(c.value)"
        [attr.aria-label]="c.name ?? null"
        [disabled]="c.off ?? false"
        (click)="chose.emit(c.value)"
      >
        {{ c.words }}
      </button>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
    }
    :host(.dense) {
      gap: 4px;
    }
    :host(.dense) .btn {
      min-height: 28px;
      padding: 2px 9px;
      border-radius: 4px;
      font: 500 12.5px var(--text);
    }
    :host(.dense) .btn.mono {
      font-family: var(--mono);
    }
    :host(.dense) .btn.on {
      background: var(--accent);
      border-color: var(--accent);
      color: var(--accent-ink);
    }
  `,
  host: { role: 'group', '[attr.aria-label]': 'label()', '[class.dense]': 'dense()' },
})
export class ChipsComponent<T> {
  readonly label = input.required<string>();
  readonly chips = input.required<readonly Choice<T>[]>();
  readonly chosen = input.required<T | readonly T[]>();
  readonly mono = input(false);
  /** Smaller and filled, as in the cards of the recipe. */
  readonly dense = input(false);
  readonly chose = output<T>();
  readonly down = computed<readonly T[]>(() => {
    const chosen = this.chosen();
    return isMany(chosen) ? chosen : [chosen];
  });
}
