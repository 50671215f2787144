import { ChangeDetectionStrategy, Component, computed, inject, input, output, resource } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Dialog } from 'primeng/dialog';
import type { ShelfRow } from '../../knowledge/index/entry';
import { ShelfIndex } from '../../knowledge/shelf-index.service';
import { DialogFocusDirective } from '../../widgets/dialog-focus.directive';

/** What a phrase was grown from and what was grown from it, as a tree; and which phrases are the same turned. */
@Component({
  selector: 'ls-kin-dialog',
  imports: [Dialog, DialogFocusDirective, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog
      [header]="'Related to ' + row().name.slice(0, 60)"
      [visible]="true"
      closeAriaLabel="Close"
      [modal]="true"
      [style]="{ width: '44rem', maxWidth: '94vw' }"
      (visibleChange)="closed.emit()"
    >
      @if (kin(); as k) {
        @if (k.tree.length === 0 && k.same.length === 0) {
          <p>No related phrases yet. Keep it as new, duplicate it or keep a variant to start.</p>
        }
        @if (k.tree.length > 0) {
          <h3>Made from each other</h3>
          <ul class="tree">
            @for (l of k.tree; track l.id) {
              <li [style.padding-left.px]="l.depth * 26" [class.own]="l.own">
                @if (l.depth > 0) {
                  <span class="branch" aria-hidden="true"></span>
                }
                <a [routerLink]="['/bench', l.id]" [queryParams]="{ kept: 1 }" (click)="closed.emit()">{{ l.name }}</a>
                <span class="quiet">{{ l.change }}</span>
              </li>
            }
          </ul>
        }
        @if (k.same.length > 0) {
          <h3>Rotated or hand-swapped copies</h3>
          <ul>
            @for (s of k.same; track s.id) {
              <li>
                <a [routerLink]="['/bench', s.id]" [queryParams]="{ kept: 1 }" (click)="closed.emit()">{{ s.name }}</a>
                <span class="quiet">This one is {{ s.words }}.</span>
              </li>
            }
          </ul>
        }
      } @else {
        <p role="status">Looking …</p>
      }
    </p-dialog>
  `,
  styles: `
    ul {
      margin: 6px 0 18px;
      padding: 0;
      list-style: none;
    }
    li {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 10px;
      align-items: center;
      min-height: 34px;
    }
    .branch {
      width: 12px;
      height: 17px;
      margin-top: -16px;
      border-left: 2px solid var(--line-strong);
      border-bottom: 2px solid var(--line-strong);
    }
    a {
      color: var(--ink);
    }
    .own a {
      font-weight: 700;
      text-decoration: none;
    }
  `,
})
export class KinDialogComponent {
  private readonly index = inject(ShelfIndex);
  readonly row = input.required<ShelfRow>();
  readonly closed = output();
  private readonly found = resource({
    params: () => this.row().id,
    loader: ({ params }) => this.index.kin(params),
  });
  readonly kin = computed(() => (this.found.hasValue() ? this.found.value() : null));
}
