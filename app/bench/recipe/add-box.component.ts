import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, signal, viewChild } from '@angular/core';
import { build, MOST_MOVES, MOVE_NAMES, MOVES, OFFER_HINTS, offersFor, type MoveName, type Offer } from '@core/recipe';
import { RibbonComponent } from '../../ui/ribbon/ribbon.component';
import { BenchStore } from '../document/bench.store';

/**
 * The box under the recipe: takes words, offers the moves they could mean with what they would make, and lists all
 * moves when it is empty.
 */
@Component({
  selector: 'ls-add-box',
  imports: [RibbonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './add-box.component.html',
  styleUrl: './add-box.component.css',
})
export class AddBoxComponent {
  readonly store = inject(BenchStore);
  private readonly field = viewChild<ElementRef<HTMLInputElement>>('field');
  readonly text = signal('');
  readonly browsing = signal(false);
  /** Which offer Enter takes. */
  readonly marked = signal(0);
  readonly hint = OFFER_HINTS[0] ?? '';
  readonly hints = OFFER_HINTS;
  readonly menu = MOVE_NAMES.map((name) => ({ name, title: MOVES[name].title, hint: MOVES[name].hint }));
  readonly full = computed(() => (this.store.recipe()?.moves.length ?? 0) >= MOST_MOVES);
  readonly offers = computed(() => {
    const built = this.store.build();
    if (!built) return [];
    return offersFor(this.text(), built.pattern).map((offer) => ({
      ...offer,
      pattern: build({ ...built.recipe, moves: [...built.recipe.moves, offer.entry] }, built).pattern,
    }));
  });
  readonly nothing = computed(() => this.text().trim().length > 2 && this.offers().length === 0);

  focus(): void {
    this.field()?.nativeElement.focus();
  }

  write(text: string): void {
    this.text.set(text);
    this.marked.set(0);
  }

  key(event: KeyboardEvent): void {
    const many = this.offers().length;
    if (event.key === 'ArrowDown' && many > 0) this.marked.update((n) => (n + 1) % many);
    else if (event.key === 'ArrowUp' && many > 0) this.marked.update((n) => (n + many - 1) % many);
    else if (event.key === 'Enter') {
      const offer = this.offers()[this.marked()];
      if (offer) this.take(offer);
    } else if (event.key === 'Escape') {
      this.clear();
      this.field()?.nativeElement.blur();
    } else if (event.key !== '/' || this.text() !== '') return;
    event.preventDefault();
    event.stopPropagation();
  }

  take(offer: Offer): void {
    this.store.take(offer.entry);
    this.clear();
  }

  add(name: MoveName): void {
    this.browsing.set(false);
    this.store.addMove(name);
  }

  private clear(): void {
    this.text.set('');
    // At once, and not with the next drawing: whoever types on without a pause must not write behind the old words.
    const field = this.field()?.nativeElement;
    if (field) field.value = '';
    this.marked.set(0);
  }
}
