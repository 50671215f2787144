import { CdkDrag, CdkDropList, type CdkDragDrop } from '@angular/cdk/drag-drop';
import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import type { Board } from '@core/shelf';
import { BoardsRepo } from '../../storage/boards.repo';

/** The boards, in the player's order: dragged, or moved by Alt and the arrow keys. */
@Component({
  selector: 'ls-board-tabs',
  imports: [CdkDrag, CdkDropList],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="tabs" role="group" aria-label="Boards">
      <button
        type="button"
        class="tab"
        [class.here]="board() === null"
        [attr.aria-pressed]="board() === null"
        (click)="chose.emit(null)"
      >
        All
      </button>
      <div class="own" cdkDropList cdkDropListOrientation="horizontal" (cdkDropListDropped)="dropped($event)">
        @for (b of boards(); track b.id) {
          <button
            type="button"
            class="tab"
            cdkDrag
            [cdkDragStartDelay]="{ touch: 300, mouse: 0 }"
            [class.here]="board() === b.id"
            [attr.aria-pressed]="board() === b.id"
            (click)="chose.emit(b.id)"
            (keydown.alt.arrowleft)="move(b, -1, $event)"
            (keydown.alt.arrowright)="move(b, 1, $event)"
          >
            <span class="cut">{{ b.name }}</span>
            @if (b.question !== null) {
              <span class="quiet" aria-label="a saved search">?</span>
            }
          </button>
        }
      </div>
      <button type="button" class="tab quiet" (click)="create.emit()">+ Board</button>
      @if (current(); as b) {
        <button type="button" class="tab quiet" (click)="rename.emit(b)">Rename</button>
        <button type="button" class="tab quiet" (click)="teach.emit(b)">Make a lesson</button>
        <button type="button" class="tab quiet" (click)="dropBoard.emit(b.id)">Delete this board</button>
      }
      <span class="spacer"></span>
      @if (removed() > 0) {
        <button type="button" class="tab quiet" (click)="showRemoved.emit()">Taken off: {{ removed() }}</button>
      }
    </div>
  `,
  styles: `
    .tabs {
      display: flex;
      align-items: center;
      gap: 4px;
      padding: 4px 24px 0;
      overflow-x: auto;
      scrollbar-width: none;
    }
    .own {
      display: flex;
      gap: 4px;
    }
    .tab {
      flex: none;
      display: inline-flex;
      gap: 6px;
      max-width: 220px;
      min-height: 36px;
      align-items: center;
      padding: 4px 10px;
      border: 0;
      border-bottom: 3px solid transparent;
      background: transparent;
      color: var(--ink);
      font: 500 13.5px/1.2 var(--text);
      cursor: pointer;
    }
    .tab.quiet {
      color: var(--quiet);
    }
    .tab.here {
      border-color: var(--accent);
      font-weight: 650;
    }
    .spacer {
      flex: 1;
    }
    @container place (max-width: 628px) {
      .tabs {
        padding: 0 12px;
      }
    }
    @media (pointer: coarse) {
      .tab {
        min-height: 44px;
      }
    }
  `,
})
export class BoardTabsComponent {
  private readonly repo = inject(BoardsRepo);
  readonly board = input.required<string | null>();
  readonly removed = input(0);
  readonly chose = output<string | null>();
  readonly create = output();
  readonly rename = output<Board>();
  readonly teach = output<Board>();
  readonly dropBoard = output<string>();
  readonly showRemoved = output();
  readonly boards = computed(() => this.repo.all() ?? []);
  readonly current = computed(() => this.boards().find((b) => b.id === this.board()) ?? null);

  dropped({ previousIndex, currentIndex }: CdkDragDrop<unknown>): void {
    const all = this.boards();
    const own = all[previousIndex];
    if (own && previousIndex !== currentIndex)
      void this.repo.place(own.id, all[currentIndex > previousIndex ? currentIndex + 1 : currentIndex]?.id ?? null);
  }

  move(board: Board, by: 1 | -1, event: Event): void {
    event.preventDefault();
    const all = this.boards();
    const at = all.findIndex((b) => b.id === board.id);
    if (at + by >= 0 && at + by < all.length) void this.repo.place(board.id, all[by < 0 ? at - 1 : at + 2]?.id ?? null);
  }
}
