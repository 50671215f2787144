import { CdkDrag, CdkDragHandle, CdkDropList, type CdkDragDrop } from '@angular/cdk/drag-drop';
import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { ToggleSwitch } from 'primeng/toggleswitch';
import { gridName } from '@core/time';
import { MOVE_NAMES, MOVES, MOST_MOVES, type MoveName } from '@core/recipe';
import { rudimentById } from '@core/rudiments';
import { RibbonComponent } from '../ui/ribbon/ribbon.component';
import { BenchStore } from './bench.store';
import { MoveEditorComponent } from './cards/move-editor.component';

/** The recipe: the source on top, a card a move with its sentence and the result so far, and what can be added at the bottom. */
@Component({
  selector: 'ls-recipe-column',
  imports: [CdkDropList, CdkDrag, CdkDragHandle, FormsModule, ToggleSwitch, RibbonComponent, MoveEditorComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './recipe-column.component.html',
  styleUrl: './recipe-column.component.css',
})
export class RecipeColumnComponent {
  readonly store = inject(BenchStore);
  readonly changeSource = output();
  readonly adding = signal(false);
  readonly menu = MOVE_NAMES.map((name) => ({ name, title: MOVES[name].title, hint: MOVES[name].hint }));
  readonly full = computed(() => (this.store.recipe()?.moves.length ?? 0) >= MOST_MOVES);
  readonly source = computed(() => {
    const recipe = this.store.recipe();
    if (!recipe) return null;
    const { source } = recipe;
    const name = source.kind === 'rudiment' ? (rudimentById(source.id)?.name ?? source.id) : source.text;
    return { kind: source.kind, name, facts: `${source.meter} · ${gridName(source.grid)}` };
  });

  add(name: MoveName): void {
    this.adding.set(false);
    this.store.addMove(name);
  }

  toggle(id: string): void {
    this.store.openCard.update((open) => (open === id ? null : id));
  }

  drop(event: CdkDragDrop<unknown>): void {
    if (event.previousIndex !== event.currentIndex) this.store.reorder(event.previousIndex, event.currentIndex);
  }
}
