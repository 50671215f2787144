import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { count } from '@core/base';
import type { Board } from '@core/shelf';
import { ShelfFiles } from '../../storage/files/shelf-files.service';
import { saveBlob } from '../../widgets/save-svg';
import { ShelfActs } from './shelf.acts';

/** What can be done with the phrases that are chosen. */
@Component({
  selector: 'ls-chosen-bar',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="bar" role="toolbar" aria-label="What to do with the chosen phrases">
      <strong>{{ words() }}</strong>
      @if (ids().size < found()) {
        <button type="button" class="btn small plain" (click)="all.emit()">All {{ found() }} found</button>
      }
      <span class="spacer"></span>
      <button type="button" class="btn small" (click)="acts.drill(list())">Drill one by one</button>
      <button type="button" class="btn small" (click)="want.emit(list())">Needed by …</button>
      <button type="button" class="btn small" (click)="tag.emit(list())">Tag …</button>
      <button type="button" class="btn small" (click)="toBoard.emit(list())">Put on a board …</button>
      @if (ownBoard(); as b) {
        <button type="button" class="btn small" (click)="acts.offBoard(b.id, list()); letGo.emit()">
          Remove from board
        </button>
      }
      <button type="button" class="btn small" (click)="teach.emit(list())">Put in a lesson …</button>
      <button type="button" class="btn small" (click)="print.emit(list())">Print</button>
      <button type="button" class="btn small" [disabled]="files.working() !== null" (click)="export()">Export</button>
      <button type="button" class="btn small" (click)="acts.remove(list()); letGo.emit()">Take off the shelf</button>
      <button type="button" class="btn small plain" (click)="letGo.emit()">Choose none</button>
    </div>
  `,
  styles: `
    .bar {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 6px;
      padding: 10px 24px;
      border-top: 2px solid var(--accent);
      background: var(--surface);
    }
    .spacer {
      flex: 1;
    }
    @container place (max-width: 628px) {
      .bar {
        padding: 8px 12px;
      }
      .spacer {
        flex: 0 0 100%;
      }
    }
  `,
})
export class ChosenBarComponent {
  readonly acts = inject(ShelfActs);
  readonly files = inject(ShelfFiles);
  readonly ids = input.required<ReadonlySet<string>>();
  readonly found = input.required<number>();
  readonly board = input<Board | null>(null);
  readonly all = output();
  readonly letGo = output();
  readonly want = output<readonly string[]>();
  readonly tag = output<readonly string[]>();
  readonly toBoard = output<readonly string[]>();
  readonly teach = output<readonly string[]>();
  readonly print = output<readonly string[]>();
  /** The board that is shown, if it is in the player's own order. */
  readonly ownBoard = computed(() => {
    const board = this.board();
    return board && board.question === null ? board : null;
  });
  readonly list = computed(() => [...this.ids()]);
  readonly words = computed(() => `${count(this.ids().size, 'phrase')} chosen`);

  async export(): Promise<void> {
    saveBlob(await this.files.export(this.list()), `loop-shelf-${this.ids().size}-phrases.json`);
  }
}
