import { computed, inject, Injectable } from '@angular/core';
import type { Limb } from '@core/stroke';
import type { Pattern } from '@core/pattern';
import { describeStrokes, select, selectionWords, type Selection } from '@core/selection';
import type { MoveEntry } from '@core/recipe';
import { BenchStore } from './bench.store';

/** The open card's move when it chooses strokes, with the pattern it chooses from and the one it makes. */
interface Picking {
  readonly entry: MoveEntry;
  readonly selection: Selection;
  readonly before: Pattern;
  readonly after: Pattern;
}

/**
 * Choosing strokes for a move by pressing them on the ribbon while its card is open: the selection writes itself in
 * words.
 */
@Injectable({ providedIn: 'root' })
export class PickStore {
  private readonly bench = inject(BenchStore);

  private readonly picking = computed((): Picking | null => {
    const [built, id] = [this.bench.build(), this.bench.openCard()];
    const index = built?.trail.findIndex((s) => s.entry.id === id) ?? -1;
    const step = built?.trail[index];
    if (!built || !step?.entry.on || !('select' in step.entry.params)) return null;
    const before = built.trail[index - 1]?.pattern ?? built.source.pattern;
    return { entry: step.entry, selection: step.entry.params.select, before, after: step.pattern };
  });
  /**
   * The pattern the ribbon shows while strokes are picked: as it stands after the move. Null when nothing is picked.
   */
  readonly pattern = computed(() => this.picking()?.after ?? null);
  /** Indexes, in that pattern, of the strokes the move acts on. */
  readonly chosen = computed((): readonly number[] => {
    const picking = this.picking();
    if (!picking) return [];
    const { before, after, selection } = picking;
    const own = select(before, selection).flatMap((i) => before.strokes[i] ?? []);
    return own.flatMap((s) => {
      const same = after.strokes.findIndex((t) => t.at === s.at && t.limb === s.limb);
      const any = same >= 0 ? same : after.strokes.findIndex((t) => t.at === s.at);
      return any >= 0 ? [any] : [];
    });
  });
  readonly words = computed(() => {
    const picking = this.picking();
    return picking
      ? `Press the strokes for this move. Now: ${selectionWords(picking.selection, picking.before)}.`
      : null;
  });

  /** A stroke pressed: it joins the chosen or leaves them. */
  toggle(at: number, limb: Limb): void {
    const picking = this.picking();
    if (!picking) return;
    const { before, entry, selection } = picking;
    const here = before.strokes.flatMap((s, i) => (s.at === at ? [{ limb: s.limb, i }] : []));
    const pressed = here.find((h) => h.limb === limb) ?? here[0];
    if (!pressed) return;
    const now = select(before, selection);
    const next = now.includes(pressed.i) ? now.filter((i) => i !== pressed.i) : [...now, pressed.i];
    this.bench.changeMove({
      ...entry,
      params: { ...entry.params, select: describeStrokes(before, next) },
    } as MoveEntry);
  }
}
