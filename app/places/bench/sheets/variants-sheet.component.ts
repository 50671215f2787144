import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  output,
  signal,
  type OnDestroy,
} from '@angular/core';
import { Tooltip } from 'primeng/tooltip';
import { loopTicks } from '@core/pattern';
import type { ClickKind } from '@core/playback';
import { rendition, requestOf } from '@core/rendition';
import { VARIANT_KINDS, type Variant } from '@core/variants';
import { Transport } from '../../../sound/transport.service';
import { KitsRepo } from '../../../storage/kits.repo';
import { Player } from '../../../playing/player';
import { ChipsComponent } from '../../../widgets/chips.component';
import { choicesOf } from '../../../widgets/choice';
import { NumberFieldComponent } from '../../../widgets/number-field.component';
import { RibbonComponent } from '../../../drawings/ribbon/ribbon.component';
import { BenchStore } from '../document/bench.store';
import { CompareStore } from '../document/compare.store';
import { ReachStore } from '../answers/reach.store';
import { VariantsStore } from './variants.store';
import { KIND_WORDS } from './variant-kinds';

/** By this name a variant is known among what sounds. */
const VARIANT = 'variant';

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
    RibbonComponent,
    CdkVirtualScrollViewport,
    CdkFixedSizeVirtualScroll,
    CdkVirtualForOf,
  ],
  providers: [VariantsStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './variants-sheet.component.html',
  styleUrl: './variants-sheet.component.css',
})
export class VariantsSheetComponent implements OnDestroy {
  readonly click = input.required<ClickKind>();
  readonly closed = output();
  /** A variant is laid beneath the phrase. */
  readonly compared = output();
  readonly store = inject(BenchStore);
  readonly variants = inject(VariantsStore);
  private readonly compare = inject(CompareStore);
  readonly reach = inject(ReachStore);
  readonly kits = inject(KitsRepo);
  private readonly player = inject(Player);
  readonly transport = inject(Transport);

  readonly kinds = choicesOf(VARIANT_KINDS, (kind) => KIND_WORDS[kind]);
  readonly heard = signal<Variant | null>(null);
  readonly canJoin = computed(() => this.store.recipe()?.moves.every((m) => m.move !== 'join') ?? false);
  readonly rowHeight = 60;

  ngOnDestroy(): void {
    this.variants.cancel();
    this.player.stop(VARIANT);
  }

  /** Plays a variant; what plays is changed at the next beat, so that two can be held against each other. */
  hear(variant: Variant): void {
    if (this.isHeard(variant)) return this.player.stop(VARIANT);
    this.heard.set(variant);
    const sounds = rendition({ phrase: variant.pattern, kit: this.kits.current(), click: this.click() });
    this.player.takeOver(VARIANT, requestOf(sounds, this.store.tempo()));
  }

  isHeard(variant: Variant): boolean {
    return this.heard() === variant && this.player.owner() === VARIANT;
  }

  loopOf(variant: Variant): number {
    return loopTicks(variant.pattern);
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
