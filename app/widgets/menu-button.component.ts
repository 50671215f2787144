import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { Menu } from 'primeng/menu';
import type { Choice } from './choice';

/** A button that opens a list of things to do. */
@Component({
  selector: 'ls-menu-button',
  imports: [Menu],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button
      type="button"
      class="btn"
      [class.small]="small()"
      aria-haspopup="menu"
      [attr.aria-label]="label()"
      (click)="menu.toggle($event)"
    >
      <i class="pi pi-plus" aria-hidden="true"></i> {{ words() }}
    </button>
    <p-menu #menu [model]="items()" [popup]="true" appendTo="body" [ariaLabel]="label()" />
  `,
  styles: `
    :host {
      display: inline-block;
    }
    .pi {
      font-size: 11px;
    }
  `,
})
export class MenuButtonComponent<T> {
  readonly words = input.required<string>();
  readonly label = input.required<string>();
  readonly choices = input.required<readonly Choice<T>[]>();
  readonly small = input(false);
  readonly chose = output<T>();
  readonly items = computed(() =>
    this.choices().map((c) => ({ label: c.words, disabled: c.off ?? false, command: () => this.chose.emit(c.value) })),
  );
}
