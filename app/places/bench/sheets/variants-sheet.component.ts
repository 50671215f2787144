import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import { ChangeDetectionStrategy, Component, computed, inject, input, output, type OnDestroy } from '@angular/core';
import { Tooltip } from 'primeng/tooltip';
import type { ClickKind } from '@core/playback';
import { VARIANT_KINDS, type Variant } from '@core/variants';
import { ChipsComponent } from '../../../widgets/chips.component';
import { choicesOf } from '../../../widgets/choice';
import { NumberFieldComponent } from '../../../widgets/number-field.component';
import { BenchStore } from '../document/bench.store';
import { CompareStore } from '../document/compare.store';
import { ReachStore } from '../answers/reach.store';
import { FoundRowComponent } from './found-row.component';
import { HeardStore } from './heard.store';
import { VariantsStore } from './variants.store';
import { KIND_WORDS } from './variant-kinds';

/**
 * A numbered sheet of variants, each one change away from what is on the Bench: hear one, keep it, put it on the Bench,
 * or join it behind.
 */
@Component({
  selector: 'ls-variants-sheet',
  imports: [
    Tooltip,
    ChipsComponent,
    NumberFieldComponent,
    FoundRowComponent,
    CdkVirtualScrollViewport,
    CdkFixedSizeVirtualScroll,
    CdkVirtualForOf,
  ],
  providers: [VariantsStore, HeardStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './variants-sheet.component.html',
  styleUrl: './variants-sheet.component.css',
})
export class VariantsSheetComponent implements OnDestroy {
  readonly click = input.required<ClickKind>();
  readonly closed = output();
  /** A variant is laid beneath the phrase. */
  readonly compared = output();
  /** A phrase is asked for instead. */
  readonly asked = output();
  readonly store = inject(BenchStore);
  readonly variants = inject(VariantsStore);
  private readonly compare = inject(CompareStore);
  readonly reach = inject(ReachStore);
  private readonly heard = inject(HeardStore);

  readonly kinds = choicesOf(VARIANT_KINDS, (kind) => KIND_WORDS[kind]);
  readonly canJoin = computed(() => this.store.recipe()?.moves.every((m) => m.move !== 'join') ?? false);
  readonly rowHeight = 60;

  ngOnDestroy(): void {
    this.variants.cancel();
    this.heard.stop();
  }

  use(variant: Variant): void {
    this.store.addVariant(variant.move);
    this.closed.emit();
  }

  lay(variant: Variant, number: number): void {
    this.compare.choose({ id: null, name: `Variant ${number}: ${variant.words}`, pattern: variant.pattern });
    this.compared.emit();
  }

  join(variant: Variant, number: number): void {
    this.store.joinVariant(variant.move, `variant ${number}`);
    this.closed.emit();
  }
}
