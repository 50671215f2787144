import { computed, inject, Injectable, resource } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { of, switchMap } from 'rxjs';
import { build, followParent } from '@core/recipe';
import { traitsOf } from '@core/shelf';
import { ShelfIndex } from '../../../knowledge/shelf-index.service';
import type { KinLine } from '../../../knowledge/index/entry';
import { PhrasesRepo } from '../../../storage/phrases.repo';
import { BenchStore } from './bench.store';

/** What the phrase on the Bench was made from, and what was made from it. Provided by the Bench. */
@Injectable()
export class KinStore {
  private readonly bench = inject(BenchStore);
  private readonly phrases = inject(PhrasesRepo);
  private readonly index = inject(ShelfIndex);
  private readonly found = resource({
    params: () => {
      const id = this.bench.phrase()?.id;
      return id === undefined ? undefined : { id, now: this.index.changed() };
    },
    loader: ({ params }) => this.index.kin(params.id),
  });
  private readonly tree = computed((): readonly KinLine[] => (this.found.hasValue() ? this.found.value().tree : []));
  private readonly own = computed(() => this.tree().findIndex((l) => l.own));
  readonly parent = computed((): KinLine | null => {
    const [tree, at] = [this.tree(), this.own()];
    const depth = tree[at]?.depth ?? 0;
    return depth === 0 ? null : (tree.slice(0, at).findLast((l) => l.depth === depth - 1) ?? null);
  });
  /** How it was made from its parent. */
  readonly change = computed(() => this.tree()[this.own()]?.change ?? '');
  readonly children = computed((): readonly KinLine[] => {
    const [tree, at] = [this.tree(), this.own()];
    const depth = tree[at]?.depth ?? 0;
    const below = at < 0 ? [] : tree.slice(at + 1);
    const end = below.findIndex((l) => l.depth <= depth);
    return (end < 0 ? below : below.slice(0, end)).filter((l) => l.depth === depth + 1);
  });

  private readonly elder = toSignal(
    toObservable(computed(() => this.parent()?.id ?? null)).pipe(
      switchMap((id) => (id === null ? of(null) : this.phrases.of$(id))),
    ),
    { initialValue: null },
  );
  /** The phrase made anew of its parent as that is now, where it was taken out of it and the parent changed since. */
  readonly followed = computed(() => {
    const [elder, phrase, recipe] = [this.elder(), this.bench.phrase(), this.bench.recipe()];
    if (!elder || !phrase || !recipe || elder.id !== this.parent()?.id || elder.changed <= phrase.created) return null;
    const made = followParent(recipe, elder.recipe);
    return made && { recipe: made, pattern: build(made).pattern };
  });

  private readonly news = resource({
    params: () => {
      // Of what is kept the map itself tells.
      const pattern = this.bench.phrase() ? undefined : this.bench.stilled()?.pattern;
      return pattern && { pattern, now: this.index.changed() };
    },
    loader: ({ params }) => this.index.firsts(traitsOf(params.pattern)),
  });
  /** What the phrase would be the first of on the shelf; empty where it is of nothing. */
  readonly firsts = computed(() => (this.news.hasValue() ? this.news.value() : []));

  follow(): void {
    const made = this.followed();
    if (made) this.bench.replace(made.recipe);
  }
}
