import { readyBpm } from '../../knowledge/believed-words';
import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { format } from 'date-fns';
import { TableModule, type TableLazyLoadEvent } from 'primeng/table';
import type { ShelfRow, ShelfSort } from '../../knowledge/index/entry';
import { ShelfStore } from './shelf.store';

/** The shelf as a table, for the many: sorted by what its heads say, rows fetched as they come into sight. */
@Component({
  selector: 'ls-shelf-table',
  imports: [TableModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-table
      [value]="$any(places())"
      [lazy]="true"
      [scrollable]="true"
      scrollHeight="flex"
      [virtualScroll]="true"
      [virtualScrollItemSize]="44"
      [customSort]="true"
      (onLazyLoad)="load($event)"
    >
      <ng-template #header>
        <tr>
          <th class="choose"><span class="visually-hidden">Choose</span></th>
          @for (h of heads; track h.sort) {
            <th [attr.aria-sort]="ariaSort(h.sort)">
              <button type="button" class="btn plain" (click)="sort(h.sort)">
                {{ h.words }}
                @if (shelf.sort() === h.sort) {
                  <i [class]="shelf.descending() ? 'pi pi-arrow-down' : 'pi pi-arrow-up'" aria-hidden="true"></i>
                }
              </button>
            </th>
          }
        </tr>
      </ng-template>
      <ng-template #body let-place>
        <tr style="height: 44px">
          @if (shelf.row(place - 1); as row) {
            <td class="choose">
              <input
                type="checkbox"
                [checked]="chosen().has(row.id)"
                [attr.aria-label]="'Choose ' + row.name.slice(0, 80)"
                (change)="chose.emit(row)"
              />
            </td>
            <td>
              <button type="button" class="btn plain name cut" (click)="opened.emit(row)">{{ row.name }}</button>
            </td>
            <td>{{ row.family }}</td>
            <td class="cut">{{ row.facts ?? '…' }}</td>
            <td class="mono">{{ row.goal }}</td>
            <td class="mono">{{ row.best.clean ?? '–' }}</td>
            <td class="mono">{{ readyBpm(row.believed) ?? '–' }}</td>
            <td class="mono">{{ row.top?.bpm ?? '–' }}</td>
            <td>{{ when(row) }}</td>
          } @else {
            <td colspan="9"></td>
          }
        </tr>
      </ng-template>
    </p-table>
  `,
  styles: `
    :host {
      display: block;
      min-height: 0;
      padding: 4px 24px 0;
    }
    .choose {
      width: 36px;
    }
    input {
      width: 24px;
      height: 24px;
      accent-color: var(--accent);
    }
    .name {
      max-width: 260px;
      font-weight: 600;
      padding-left: 0;
      display: block;
    }
    th .btn {
      padding: 0;
      font-weight: 600;
    }
    .pi {
      font-size: 11px;
    }
  `,
})
export class ShelfTableComponent {
  readonly readyBpm = readyBpm;
  readonly shelf = inject(ShelfStore);
  readonly chosen = input.required<ReadonlySet<string>>();
  readonly chose = output<ShelfRow>();
  readonly opened = output<ShelfRow>();
  readonly heads: readonly { readonly sort: ShelfSort; readonly words: string }[] = [
    { sort: 'name', words: 'Name' },
    { sort: 'family', words: 'Family' },
    { sort: 'length', words: 'Length' },
    { sort: 'goal', words: 'Goal' },
    { sort: 'clean', words: 'Best clean' },
    { sort: 'ready', words: 'Ready' },
    { sort: 'ceiling', words: 'Ceiling' },
    { sort: 'played', words: 'Last played' },
  ];
  /** Places counted from 1, as the package takes nought for a row that is still to come. Heads of families are none. */
  readonly places = computed(() => this.shelf.lines().flatMap((l) => (l >= 0 ? [l + 1] : [])));

  load(event: TableLazyLoadEvent): void {
    const first = event.first ?? 0;
    this.shelf.look(first, first + Math.max(30, (event.rows ?? 0) + 10));
  }

  sort(by: ShelfSort): void {
    if (this.shelf.sort() === by) this.shelf.descending.update((on) => !on);
    else {
      this.shelf.sort.set(by);
      this.shelf.descending.set(['clean', 'played', 'length'].includes(by));
    }
  }

  ariaSort(by: ShelfSort): 'ascending' | 'descending' | null {
    return this.shelf.sort() !== by ? null : this.shelf.descending() ? 'descending' : 'ascending';
  }

  when({ best }: ShelfRow): string {
    return best.lastAt === null ? '–' : format(best.lastAt, 'd MMM yyyy');
  }
}
