import { computed, inject, Injectable, signal } from '@angular/core';
import type { Level, Ornament, Voice } from '@core/stroke';
import type { Pattern } from '@core/pattern';
import { both, select, type Selection } from '@core/selection';
import { readChoice } from '@core/language';
import {
  clipOf,
  cursorStops,
  displaceEdits,
  inRange,
  levelEdits,
  ornamentEdits,
  pasteEdits,
  restEdits,
  voiceEdits,
  type Clip,
  type Edit,
} from '@core/recipe';
import { SettingsRepo } from '../../../storage/settings.repo';
import type { RibbonMarks } from '../../../drawings/ribbon/marks';
import { BenchStore } from '../document/bench.store';
import { RepeatsStore } from '../document/repeats.store';
import { chosenWords, placeWords } from './cursor-words';

/** What is chosen on the ribbon: a stretch of it, or strokes by a description. */
type Chosen =
  | { readonly kind: 'range'; readonly anchor: number; readonly until: number }
  | { readonly kind: 'strokes'; readonly selection: Selection };

/**
 * The cursor and the selection on the ribbon, and what is done with them. Every change goes through the recipe as a
 * `touch` or an `insert`.
 */
@Injectable({ providedIn: 'root' })
export class CursorStore {
  private readonly bench = inject(BenchStore);
  private readonly repeats = inject(RepeatsStore);
  private readonly settings = inject(SettingsRepo);
  private readonly atState = signal<number | null>(null);
  private readonly selectionState = signal<Chosen | null>(null);
  private readonly clipState = signal<Clip | null>(null);
  private readonly shadowState = signal(0);
  private readonly visitState = signal(0);
  /** Counts how often the cursor was put somewhere or left: what was begun at a place is over with it. */
  readonly visit = this.visitState.asReadonly();

  readonly pattern = computed(() => this.bench.build()?.pattern ?? null);
  private readonly stops = computed(() => {
    const pattern = this.pattern();
    return pattern ? [...cursorStops(pattern), pattern.length] : [];
  });
  /**
   * Where the cursor stands, in ticks from the pattern's start; its end means behind the last slot. Null for no cursor.
   */
  readonly at = computed(() => {
    const at = this.atState();
    const stops = this.stops();
    return at === null || stops.length === 0 ? null : (stops.findLast((s) => s <= at) ?? 0);
  });
  readonly hasClip = computed(() => this.clipState() !== null);
  /** The chosen stretch; null when strokes are chosen by words, or nothing. */
  readonly range = computed(() => {
    const selection = this.selectionState();
    const pattern = this.pattern();
    if (selection?.kind !== 'range' || !pattern) return null;
    const from = Math.max(0, Math.min(selection.anchor, selection.until));
    const until = Math.min(pattern.length, Math.max(selection.anchor, selection.until));
    return until > from ? { from, until } : null;
  });
  /** Indexes of the strokes that a command means: the selection, else what stands at the cursor. */
  readonly chosen = computed((): readonly number[] => {
    const pattern = this.pattern();
    if (!pattern) return [];
    const selection = this.selectionState();
    if (selection?.kind === 'strokes') return select(pattern, selection.selection);
    const range = this.range();
    if (range) return inRange(pattern, range.from, range.until);
    const at = this.at();
    return at === null ? [] : inRange(pattern, at, at + 1);
  });
  /** Ticks that a limb's button means: those of the chosen strokes, else the cursor's own. */
  readonly places = computed((): readonly number[] => {
    const pattern = this.pattern();
    const at = this.at();
    if (!pattern) return [];
    const chosen = [...new Set(this.chosen().map((i) => pattern.strokes[i]?.at ?? 0))];
    return chosen.length > 0 || this.hasSelection() || at === null || at >= pattern.length ? chosen : [at];
  });
  readonly hasSelection = computed(() => this.selectionState() !== null);
  readonly marks = computed((): RibbonMarks => ({
    cursor: this.at(),
    range: this.range(),
    chosen: this.selectionState() ? this.chosen() : [],
    changed: [],
    tight: [],
    dots: [],
    shadow: this.shadowState(),
  }));
  /** What stands at the cursor, or what is chosen, in words: shown, and heard by a screen reader. */
  readonly words = computed(() => {
    const pattern = this.pattern();
    const selection = this.selectionState();
    if (!pattern) return '';
    if (selection)
      return chosenWords(this.chosen().length, selection.kind === 'strokes' ? selection.selection : null, pattern);
    const at = this.at();
    return at === null ? '' : placeWords(pattern, at, this.settings.schools());
  });

  /** The cursor on a tick; what was chosen is let go. */
  put(at: number): void {
    this.selectionState.set(null);
    this.atState.set(Math.max(0, at));
    this.visitState.update((n) => n + 1);
  }

  leave(): void {
    this.atState.set(null);
    this.selectionState.set(null);
    this.visitState.update((n) => n + 1);
  }

  /** One stop on or back. */
  step(by: 1 | -1): void {
    this.put(this.stopFrom(this.at() ?? (by > 0 ? -1 : 0), by));
  }

  toEnd(end: 'first' | 'last'): void {
    this.put(end === 'first' ? 0 : (this.stops().at(-2) ?? 0));
  }

  /** Makes the chosen stretch a stop longer or shorter at the cursor's side. */
  extend(by: 1 | -1): void {
    const at = this.at() ?? 0;
    const selection = this.selectionState();
    if (selection?.kind !== 'range') {
      this.selectionState.set({ kind: 'range', anchor: at, until: this.stopFrom(at, 1) });
      return;
    }
    const until = this.stopFrom(selection.until, by);
    this.atState.set(Math.min(selection.anchor, until));
    this.selectionState.set(until === selection.anchor ? null : { ...selection, until });
  }

  chooseRange(from: number, until: number): void {
    this.atState.set(Math.max(0, from));
    this.selectionState.set({ kind: 'range', anchor: from, until });
  }

  chooseAll(): void {
    const pattern = this.pattern();
    if (pattern) this.chooseRange(0, pattern.length);
  }

  /** Strokes chosen by words; what is wrong with them, or null. */
  chooseWords(text: string): string | null {
    const pattern = this.pattern();
    if (!pattern || text.trim() === '') {
      this.selectionState.set(null);
      return null;
    }
    const read = readChoice(text, pattern, this.settings.schools());
    if (!read.ok) return read.words;
    this.selectionState.set({ kind: 'strokes', selection: read.select });
    return null;
  }

  /** To the stop after one that was just written; what was chosen is let go. */
  goOn(from: number): void {
    this.selectionState.set(null);
    this.atState.set(this.stopFrom(from, 1));
  }

  /** Back one stop, and a rest there. */
  rubOut(): void {
    if (this.selectionState()) return this.rest();
    this.step(-1);
    this.rest();
  }

  rest(): void {
    this.change((p, chosen) => restEdits(p, chosen));
  }

  level(to: Level | 1 | -1): void {
    this.change((p, chosen) => levelEdits(p, chosen, to));
  }

  voice(to: Voice): void {
    this.change((p, chosen) => voiceEdits(p, chosen, to));
  }

  ornate(to: Ornament | null): void {
    this.change((p, chosen) => ornamentEdits(p, chosen, to));
  }

  displace(by: number): void {
    const pattern = this.pattern();
    if (!pattern) return;
    const chosen = this.chosen();
    const edits = displaceEdits(pattern, chosen, by);
    const first = pattern.strokes[chosen[0] ?? -1]?.at ?? 0;
    if (edits.length === 0 || !this.repeats.touch(edits)) return;
    const landed = edits.flatMap((e) => (e.stroke ? [e.at] : []));
    const moved = Math.min(...landed) - first;
    const range = this.range();
    if (range) this.chooseRange(range.from + moved, range.until + moved);
    else if (this.selectionState()) this.selectionState.set({ kind: 'strokes', selection: { is: 'hand', at: landed } });
    else this.atState.set((this.at() ?? 0) + moved);
  }

  /** A drag that is under way: where the chosen strokes would land. */
  shadow(by: number): void {
    this.shadowState.set(by);
  }

  /** A stroke taken up for a drag: it alone, unless it is one of the chosen. */
  hold(stroke: number): void {
    const at = this.pattern()?.strokes[stroke]?.at;
    if (at !== undefined && !(this.selectionState() && this.chosen().includes(stroke)))
      this.selectionState.set({
        kind: 'strokes',
        selection: both(
          { is: 'limb', limbs: [this.pattern()?.strokes[stroke]?.limb ?? 'R'] },
          { is: 'hand', at: [at] },
        ),
      });
  }

  raise(stroke: number, level: Level): void {
    const pattern = this.pattern();
    if (pattern && pattern.strokes[stroke]?.level !== level)
      this.repeats.touch(levelEdits(pattern, [stroke], level), `height ${stroke}`);
  }

  copy(): boolean {
    const pattern = this.pattern();
    if (!pattern) return false;
    const range = this.range() ?? this.span();
    if (!range) return false;
    this.clipState.set(clipOf(pattern, range.from, range.until));
    return true;
  }

  cut(): void {
    if (this.copy()) this.rest();
  }

  paste(): void {
    const [pattern, clip] = [this.pattern(), this.clipState()];
    const at = this.range()?.from ?? this.at();
    if (!pattern || !clip || at === null || at >= pattern.length) return;
    this.repeats.touch(pasteEdits(pattern, at, clip));
    this.put(Math.min(pattern.length, at + clip.length));
  }

  private span(): { readonly from: number; readonly until: number } | null {
    const pattern = this.pattern();
    const at = this.chosen().flatMap((i) => pattern?.strokes[i]?.at ?? []);
    const [first, last] = [at[0], at.at(-1)];
    return pattern && first !== undefined && last !== undefined ? { from: first, until: last + pattern.grid } : null;
  }

  private change(edits: (pattern: Pattern, chosen: readonly number[]) => Edit[]): void {
    const pattern = this.pattern();
    if (pattern) this.repeats.touch(edits(pattern, this.chosen()));
  }

  private stopFrom(at: number, by: 1 | -1): number {
    const stops = this.stops();
    return (by > 0 ? stops.find((s) => s > at) : stops.findLast((s) => s < at)) ?? (by > 0 ? (stops.at(-1) ?? 0) : 0);
  }
}
