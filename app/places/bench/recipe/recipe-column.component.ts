import { count } from '@core/base';
import { CdkDrag, CdkDragHandle, CdkDropList, type CdkDragDrop } from '@angular/cdk/drag-drop';
import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  ChangeDetectorRef,
  Component,
  computed,
  ElementRef,
  inject,
  output,
  untracked,
  viewChild,
} from '@angular/core';
import { Tooltip } from 'primeng/tooltip';
import { FormsModule } from '@angular/forms';
import { ToggleSwitch } from 'primeng/toggleswitch';
import { gridName } from '@core/time';
import { rudimentById } from '@core/rudiments';
import { RibbonComponent } from '../../../drawings/ribbon/ribbon.component';
import { AddBoxComponent } from './add-box.component';
import { OwnRecordComponent } from './own-record.component';
import { linesTyped, type MoveName } from '@core/recipe';
import { KitsRepo } from '../../../storage/kits.repo';
import { BenchStore } from '../document/bench.store';
import { inTurns } from '../../../common/in-turns';
import { MoveEditorComponent } from './cards/move-editor.component';
import { TrailStore } from '../document/trail.store';
import { TermComponent } from '../../../guide/term.component';

/**
 * The recipe: the source on top, a card a move with its sentence and the result so far, and what can be added at the
 * bottom.
 */
@Component({
  selector: 'ls-recipe-column',
  imports: [
    TermComponent,
    Tooltip,
    CdkDropList,
    CdkDrag,
    CdkDragHandle,
    FormsModule,
    ToggleSwitch,
    RibbonComponent,
    MoveEditorComponent,
    AddBoxComponent,
    OwnRecordComponent,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './recipe-column.component.html',
  styleUrl: './recipe-column.component.css',
})
export class RecipeColumnComponent {
  readonly store = inject(BenchStore);
  readonly kits = inject(KitsRepo);
  readonly changeSource = output();
  readonly trail = inject(TrailStore);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly drawing = inject(ChangeDetectorRef);
  private readonly box = viewChild(AddBoxComponent);
  private readonly opened = viewChild<MoveEditorComponent, ElementRef<HTMLElement>>('opened', { read: ElementRef });
  /** The first card stands there first, then the others, then what adds to them. */
  readonly turn = inTurns(2, () => this.store.build() !== null);
  readonly trailSoFar = computed(() => (this.store.build()?.trail ?? []).slice(0, this.turn() > 0 ? undefined : 1));
  readonly source = computed(() => {
    const recipe = this.store.recipe();
    if (!recipe) return null;
    const { source } = recipe;
    const name =
      source.kind === 'rudiment' ? (rudimentById(source.id)?.name ?? source.id) : (linesTyped(source) ?? source.text);
    const unsure = source.kind === 'heard' && source.unsure ? `, ${count(source.unsure, 'stroke')} unsure` : '';
    return {
      kind: source.kind,
      name,
      heard: source.kind === 'heard' ? source.from : '',
      facts: `${source.meter} · ${gridName(source.grid)}${unsure}`,
    };
  });

  /** The small drawings follow when the hand is still. */
  readonly drawings = computed(
    () => new Map((this.store.stilled()?.trail ?? []).map((step) => [step.entry.id, step.pattern])),
  );

  constructor() {
    // The newest card is seen, also one that was made by words and opens no editor.
    let before = Infinity;
    afterRenderEffect(() => {
      const moves = this.store.build()?.trail.length ?? 0;
      if (moves > before) {
        const cards = this.host.nativeElement.querySelectorAll<HTMLElement>('article.move');
        cards[moves - 1]?.scrollIntoView({ block: 'nearest' });
      }
      before = moves;
    });
    // An editor that opens below the edge of the column would not be seen.
    afterRenderEffect(() => {
      const card = this.opened()?.nativeElement.closest('article');
      card?.scrollIntoView({ block: 'nearest' });
      // The keyboard follows to a card that was just added: on the card, so that Space still plays.
      const id = untracked(this.store.openCard);
      if (card && id !== null && id === untracked(this.store.added)) {
        card.focus({ preventScroll: true });
        this.store.added.set(null);
      }
    });
  }

  /**
   * The keyboard goes to the box that takes words. Where the box is not drawn yet it is drawn before the next key: that
   * one is a letter of the line, and would be taken for a key of the Bench. Not to be called while drawing.
   */
  toWords(): void {
    if (!this.box()) {
      this.turn.atOnce();
      this.drawing.detectChanges();
    }
    this.box()?.focus();
  }

  /** Single strokes have no words of their own. */
  canBeSaid(move: MoveName): boolean {
    return move !== 'touch';
  }

  /** A card's sentence goes back into the box, to be said anew. */
  sayAnew(id: string, words: string): void {
    this.store.openCard.set(null);
    this.box()?.sayAnew(id, words);
  }

  toggle(id: string): void {
    this.store.openCard.update((open) => (open === id ? null : id));
  }

  drop(event: CdkDragDrop<unknown>): void {
    if (event.previousIndex !== event.currentIndex) this.store.reorder(event.previousIndex, event.currentIndex);
  }
}
