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
import { toSignal } from '@angular/core/rxjs-interop';
import { differenceWords, loopTicks } from '@core/pattern';
import type { ClickKind } from '@core/playback';
import { rendition, requestOf } from '@core/rendition';
import { sheetWords, VARIANT_KINDS, type Variant, type VariantKind, type VariantSheet } from '@core/variants';
import { Transport } from '../../audio/transport.service';
import { KitsRepo } from '../../data/kits.repo';
import { PhrasesRepo } from '../../data/phrases.repo';
import { ProfileRepo } from '../../data/profile.repo';
import { SettingsRepo } from '../../data/settings.repo';
import { Player } from '../../playing/player';
import { NoticesService } from '../../shell/notices.service';
import { ChipsComponent } from '../../ui/chips.component';
import { choicesOf } from '../../ui/choice';
import { NumberFieldComponent } from '../../ui/number-field.component';
import { RibbonComponent } from '../../ui/ribbon/ribbon.component';
import { VariantsWorker, type Search } from '../../workers/variants.service';
import { BenchStore } from '../document/bench.store';
import { CompareStore } from '../document/compare.store';
import { ReachStore } from '../answers/reach.store';

const MOST_PARENT_NAME = 200;
/** By this name a variant is known among what sounds. */
const VARIANT = 'variant';

/**
 * A numbered sheet of variants, each one change away from what is on the Bench: hear one, keep it, put it on the Bench,
 * or join it behind.
 */
@Component({
  selector: 'ls-variants-sheet',
  imports: [
    ChipsComponent,
    NumberFieldComponent,
    RibbonComponent,
    CdkVirtualScrollViewport,
    CdkFixedSizeVirtualScroll,
    CdkVirtualForOf,
  ],
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
  private readonly compare = inject(CompareStore);
  readonly reach = inject(ReachStore);
  private readonly profile = inject(ProfileRepo);
  private readonly worker = inject(VariantsWorker);
  private readonly phrasesRepo = inject(PhrasesRepo);
  private readonly notices = inject(NoticesService);
  private readonly settings = inject(SettingsRepo);
  readonly kits = inject(KitsRepo);
  private readonly player = inject(Player);
  readonly transport = inject(Transport);
  private readonly phrases = toSignal(this.phrasesRepo.all$, { initialValue: null });

  readonly kinds = choicesOf(VARIANT_KINDS);
  readonly wanted = signal<readonly VariantKind[]>(['accents', 'snare and kick', 'mirrored']);
  readonly accents = signal(2);
  readonly search = signal<Search | null>(null);
  readonly seen = signal(0);
  readonly sheet = signal<VariantSheet | null>(null);
  readonly said = computed(() => {
    const sheet = this.sheet();
    return sheet ? sheetWords(sheet) : '';
  });
  readonly failed = signal(false);
  readonly heard = signal<Variant | null>(null);
  readonly canJoin = computed(() => this.store.recipe()?.moves.every((m) => m.move !== 'join') ?? false);
  readonly rowHeight = 60;

  ngOnDestroy(): void {
    this.cancel();
    this.player.stop(VARIANT);
  }

  toggle(kind: VariantKind): void {
    this.wanted.update((all) =>
      all.includes(kind) ? all.filter((k) => k !== kind) : VARIANT_KINDS.filter((k) => k === kind || all.includes(k)),
    );
  }

  async find(): Promise<void> {
    const recipe = this.store.recipe();
    if (!recipe || this.wanted().length === 0) return;
    this.cancel();
    this.seen.set(0);
    this.failed.set(false);
    const wish = {
      kinds: this.wanted(),
      accents: this.accents(),
      kit: this.kits.current(),
      profile: this.profile.now(),
      schools: this.settings.schools(),
    };
    const search = this.worker.search(
      recipe,
      wish,
      (this.phrases() ?? []).map((p) => p.recipe),
      (n) => this.seen.set(n),
    );
    this.search.set(search);
    try {
      this.sheet.set(await search.sheet);
    } catch {
      this.failed.set(true);
    } finally {
      if (this.search() === search) this.search.set(null);
    }
  }

  /** Ends a search at once; the sheet before stays. */
  cancel(): void {
    this.search()?.cancel();
    this.search.set(null);
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

  /** Where a variant differs from the phrase, in words. */
  differs(variant: Variant): string {
    const parent = this.store.build()?.pattern;
    return parent ? differenceWords(parent, variant.pattern, this.settings.schools()) : '';
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

  async keep(variant: Variant, number: number): Promise<void> {
    const parent = this.store.phrase();
    if (!parent || !this.store.isKept()) {
      this.notices.tell('Keep the phrase itself first: a variant remembers what it is a variant of.');
      return;
    }
    const now = Date.now();
    const kept = await this.phrasesRepo.save({
      ...parent,
      id: crypto.randomUUID(),
      name: `${parent.name.slice(0, MOST_PARENT_NAME)} · ${number}`,
      recipe: this.store.withMove(variant.move),
      note: `Variant of “${parent.name.slice(0, MOST_PARENT_NAME)}”: ${variant.words}.`,
      parent: { id: parent.id, change: variant.words.slice(0, 1000) },
      created: now,
      changed: now,
    });
    if (kept) this.notices.tell(`“${parent.name.slice(0, 60)} · ${number}” is on the shelf: ${variant.words}.`);
  }
}
