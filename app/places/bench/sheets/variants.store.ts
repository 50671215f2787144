import { computed, inject, Injectable, signal } from '@angular/core';
import { stableJson } from '@core/base';
import { differenceWords } from '@core/pattern';
import type { Phrase, Recipe } from '@core/recipe';
import { sheetWords, VARIANT_KINDS, type Variant, type VariantKind, type VariantSheet } from '@core/variants';
import { KitsRepo } from '../../../storage/kits.repo';
import { OneAct } from '../../../common/one-act';
import { PhrasesRepo } from '../../../storage/phrases.repo';
import { AbleService } from '../../../knowledge/able.service';
import { SettingsRepo } from '../../../storage/settings.repo';
import { ShelfIndex } from '../../../knowledge/shelf-index.service';
import { isSameWork } from '../../../storage/unkept.repo';
import { now } from '../../../environment/clock';
import { freshUuid } from '../../../environment/ids';
import { NoticesService } from '../../../common/notices.service';
import { VariantsWorker, type Search } from './variants.service';
import { BenchStore } from '../document/bench.store';

const MOST_PARENT_NAME = 200;

/** A search for variants: what is wished, what was found, and keeping one of them. Provided by the sheet. */
@Injectable()
export class VariantsStore {
  private readonly bench = inject(BenchStore);
  private readonly able = inject(AbleService);
  private readonly worker = inject(VariantsWorker);
  private readonly phrasesRepo = inject(PhrasesRepo);
  private readonly notices = inject(NoticesService);
  private readonly settings = inject(SettingsRepo);
  private readonly kits = inject(KitsRepo);
  private readonly index = inject(ShelfIndex);
  private readonly acts = new OneAct();

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

  toggle(kind: VariantKind): void {
    this.wanted.update((all) =>
      all.includes(kind) ? all.filter((k) => k !== kind) : VARIANT_KINDS.filter((k) => k === kind || all.includes(k)),
    );
  }

  async find(): Promise<void> {
    const recipe = this.bench.recipe();
    if (!recipe || this.wanted().length === 0) return;
    this.cancel();
    this.seen.set(0);
    this.failed.set(false);
    const wish = {
      kinds: this.wanted(),
      accents: this.accents(),
      kit: this.kits.current(),
      profile: this.able.now(),
      schools: this.settings.schools(),
    };
    const search = this.worker.search(recipe, wish, await this.index.forms(), (n) => this.seen.set(n));
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

  /** Where a variant differs from the phrase, in words. */
  differs(variant: Variant): string {
    const parent = this.bench.build()?.pattern;
    return parent ? differenceWords(parent, variant.pattern, this.settings.schools()) : '';
  }

  async keep(variant: Variant, number: number): Promise<void> {
    const parent = this.bench.phrase();
    if (!parent || !this.bench.isKept()) {
      this.notices.tell('Keep the phrase first; its variants stay linked to it.');
      return;
    }
    const recipe = this.bench.withMove(variant.move);
    await this.acts.run(
      stableJson([parent.id, recipe]),
      async (id) => isSameWork({ recipe, tempo: parent.tempo }, await this.phrasesRepo.get(id)),
      () => this.put(parent, recipe, variant, number),
    );
  }

  private async put(parent: Phrase, recipe: Recipe, variant: Variant, number: number): Promise<string | null> {
    const at = now();
    const kept = await this.phrasesRepo.save({
      ...parent,
      id: freshUuid(),
      name: `${parent.name.slice(0, MOST_PARENT_NAME)} · ${number}`,
      recipe,
      note: `Variant of “${parent.name.slice(0, MOST_PARENT_NAME)}”: ${variant.words}.`,
      parent: { id: parent.id, change: variant.words.slice(0, 1000) },
      created: at,
      changed: at,
    });
    if (kept.kind === 'full') this.notices.wrong(kept.words);
    if (kept.kind !== 'kept') return null;
    this.notices.tell(`“${parent.name.slice(0, 60)} · ${number}” is on the shelf: ${variant.words}.`);
    return kept.phrase.id;
  }
}
