import { computed, effect, inject, Injectable, linkedSignal, signal, untracked } from '@angular/core';
import { edited, historyOf, redone, undone } from '@core/base';
import { meterText, TEMPO } from '@core/time';
import { report } from '@core/pattern';
import {
  build,
  familyOf,
  freshId,
  newMove,
  withEdits,
  type Build,
  type Edit,
  type MoveEntry,
  type MoveName,
  type Phrase,
  type Recipe,
  type Source,
} from '@core/recipe';
import { KEPT_STEPS, type Draft } from '@core/formats';
import { rudimentById, type Rudiment } from '@core/rudiments';
import { DraftsRepo } from '../../data/drafts.repo';
import { PhrasesRepo } from '../../data/phrases.repo';
import { SettingsRepo } from '../../data/settings.repo';
import { stilled } from '../../ui/stilled';
import { plainRecipe } from './plain-recipe';

/** What is on the Bench: a recipe, the tempo it is heard at, and the phrase it was kept as, if it was. */
interface Work {
  readonly phrase: Phrase | null;
  readonly recipe: Recipe | null;
  readonly tempo: number;
}

/** What the player says when keeping a phrase. */
export type Label = Pick<Phrase, 'name' | 'family' | 'goal' | 'note'>;

type Kept = Pick<Draft, 'phrase' | 'recipe' | 'tempo'>;

function keptOf({ phrase, recipe, tempo }: Work): Kept {
  return { phrase: phrase?.id ?? null, recipe, tempo };
}

/** A goal nobody set lies so far above the tempo it was made at, in beats a minute. */
const GOAL_STEP = 20;

const EMPTY: Work = { phrase: null, recipe: null, tempo: TEMPO.usual };

/** The Bench's state. Every change is one step of its history and is kept as a draft at once. */
@Injectable({ providedIn: 'root' })
export class BenchStore {
  private readonly drafts = inject(DraftsRepo);
  private readonly phrases = inject(PhrasesRepo);
  private readonly settings = inject(SettingsRepo);
  private readonly history = signal(historyOf(EMPTY));
  private readonly loaded = signal(false);

  readonly ready = this.loaded.asReadonly();
  readonly phrase = computed(() => this.history().now.phrase);
  readonly recipe = computed(() => this.history().now.recipe);
  readonly tempo = computed(() => this.history().now.tempo);
  readonly canUndo = computed(() => this.history().past.length > 0);
  readonly canRedo = computed(() => this.history().future.length > 0);
  readonly openCard = signal<string | null>(null);

  /** What the recipe makes; only what changed is worked out again. */
  readonly build = linkedSignal<Recipe | null, Build | null>({
    source: this.recipe,
    computation: (recipe, before) => (recipe ? build(recipe, before?.value ?? undefined) : null),
  }).asReadonly();
  /** What is built, once the hand is still: for what follows from it. */
  readonly stilled = stilled(this.build);
  readonly findings = computed(() => {
    const built = this.stilled();
    return built ? report(built.pattern, this.tempo(), this.settings.schools()) : [];
  });
  /** Whether the shelf holds what is on the Bench, to the letter. */
  readonly isKept = computed(() => {
    const phrase = this.phrase();
    return (
      phrase !== null &&
      JSON.stringify(phrase.recipe) === JSON.stringify(this.recipe()) &&
      phrase.tempo === this.tempo()
    );
  });
  readonly suggestedName = computed(() => suggestName(this.recipe()));
  /** How the phrase would be kept if nobody were asked. */
  readonly suggestedLabel = computed((): Label => {
    const pattern = this.build()?.pattern;
    return {
      name: this.suggestedName(),
      family: pattern ? familyOf(pattern) : 'fill',
      goal: Math.min(TEMPO.most, this.tempo() + GOAL_STEP),
      note: '',
    };
  });

  private readonly started = this.loadDraft();

  constructor() {
    effect(() => {
      const { past, now, future } = this.history();
      if (!untracked(this.loaded)) return;
      void this.drafts.keep({
        ...keptOf(now),
        past: past.slice(-KEPT_STEPS).map(keptOf),
        future: future.slice(0, KEPT_STEPS).map(keptOf),
      });
    });
  }

  private async loadDraft(): Promise<void> {
    const draft = await this.drafts.get();
    if (draft) {
      const { past = [], future = [] } = draft;
      const ids = [...new Set([draft, ...past, ...future].flatMap((w) => w.phrase ?? []))];
      const known = new Map(await Promise.all(ids.map(async (id) => [id, await this.phrases.get(id)] as const)));
      const work = ({ phrase, recipe, tempo }: Kept): Work => ({
        phrase: (phrase ? known.get(phrase) : null) ?? null,
        recipe,
        tempo,
      });
      this.history.set({ past: past.map(work), now: work(draft), future: future.map(work), about: null });
    }
    this.loaded.set(true);
  }

  /** Puts a kept phrase on the Bench; what lay there is one undo away. False when the shelf has no such phrase. */
  async open(id: string): Promise<boolean> {
    await this.started;
    if (this.phrase()?.id === id && this.recipe()) return true;
    const phrase = await this.phrases.get(id);
    if (!phrase) return false;
    this.openCard.set(null);
    this.put({ phrase, recipe: phrase.recipe, tempo: phrase.tempo });
    return true;
  }

  /** An empty Bench for a new phrase; what lay there is one undo away. */
  async clear(): Promise<void> {
    await this.started;
    this.openCard.set(null);
    if (this.recipe()) this.put({ ...EMPTY, tempo: this.tempo() });
  }

  useRudiment(rudiment: Rudiment): void {
    this.setSource({ kind: 'rudiment', id: rudiment.id, meter: meterText(rudiment.meter), grid: rudiment.grid });
  }

  /** A new source keeps the moves that stand on it. */
  setSource(source: Source, about: string | null = null): void {
    this.edit((recipe) => ({ source, moves: recipe?.moves ?? [] }), about);
  }

  addMove(name: MoveName): void {
    const built = this.build();
    if (!built) return;
    const entry = newMove(name, freshId(built.recipe.moves), built.pattern);
    this.edit((recipe) => recipe && { ...recipe, moves: [...recipe.moves, entry] });
    this.openCard.set(entry.id);
  }

  /** An offered move, taken: it is signed and stands last. */
  take(entry: MoveEntry): string | null {
    if (!this.recipe()) return null;
    const recipe = this.withMove(entry);
    this.edit(() => recipe);
    return recipe.moves.at(-1)?.id ?? null;
  }

  /**
   * Hand edits on what is built. `about` joins edits of one drag into one step. False when the recipe can hold no more.
   */
  touch(edits: readonly Edit[], about: string | null = null): boolean {
    const built = this.build();
    const next = built && edits.length > 0 ? withEdits(built, edits) : null;
    if (!next) return edits.length === 0;
    if (JSON.stringify(next) !== JSON.stringify(built?.recipe)) this.edit(() => next, about);
    return true;
  }

  /** Another recipe in place of this one, as one step. */
  replace(recipe: Recipe, about: string | null = null): void {
    this.edit(() => recipe, about);
  }

  /** A phrase begun from strokes that were heard, at the tempo they were heard at. */
  begin(source: Source, tempo: number): void {
    this.put({ ...this.history().now, recipe: { source, moves: this.recipe()?.moves ?? [] }, tempo });
  }

  /** A drag is over: what comes next is a step of its own. */
  endStep(): void {
    this.history.update((h) => ({ ...h, about: null }));
  }

  /** The recipe with one move more, freshly signed. */
  withMove(move: MoveEntry): Recipe {
    const recipe = this.recipe() ?? { source: { kind: 'typed', text: '-', meter: '4/4', grid: 1260 }, moves: [] };
    return { ...recipe, moves: [...recipe.moves, { ...move, id: freshId(recipe.moves) }] };
  }

  /** A variant's change becomes a move of the recipe. */
  addVariant(move: MoveEntry): void {
    this.edit((recipe) => recipe && this.withMove(move));
  }

  /** A variant follows what is on the Bench. Nothing happens when what is there is joined already. */
  joinVariant(move: MoveEntry, name: string): void {
    const other = plainRecipe(this.withMove(move));
    if (other)
      this.edit((recipe) => recipe && this.withMove({ id: 'join', on: true, move: 'join', params: { other, name } }));
  }

  changeMove(entry: MoveEntry): void {
    this.edit(
      (recipe) => recipe && { ...recipe, moves: recipe.moves.map((m) => (m.id === entry.id ? entry : m)) },
      `move ${entry.id}`,
    );
  }

  switchMove(id: string): void {
    this.edit(
      (recipe) => recipe && { ...recipe, moves: recipe.moves.map((m) => (m.id === id ? { ...m, on: !m.on } : m)) },
    );
  }

  removeMove(id: string): void {
    this.edit((recipe) => recipe && { ...recipe, moves: recipe.moves.filter((m) => m.id !== id) });
    if (this.openCard() === id) this.openCard.set(null);
  }

  duplicateMove(id: string): void {
    this.edit(
      (recipe) =>
        recipe && {
          ...recipe,
          moves: recipe.moves.flatMap((m) => (m.id === id ? [m, { ...m, id: freshId(recipe.moves) }] : [m])),
        },
    );
  }

  reorder(from: number, to: number): void {
    this.edit((recipe) => {
      if (!recipe) return recipe;
      const moves = [...recipe.moves];
      const [taken] = moves.splice(from, 1);
      if (taken) moves.splice(Math.max(0, Math.min(to, moves.length)), 0, taken);
      return { ...recipe, moves };
    });
  }

  setTempo(tempo: number): void {
    this.put({ ...this.history().now, tempo }, 'tempo');
  }

  undo(): void {
    this.history.update(undone);
  }

  redo(): void {
    this.history.update(redone);
  }

  /**
   * Keeps what is on the Bench on the shelf under a label. Resolves to the phrase, or null when it could not be kept.
   */
  async keep(label: Label, now: number): Promise<Phrase | null> {
    const { phrase: old, recipe, tempo } = this.history().now;
    if (!recipe) return null;
    const { name, family, goal, note } = label;
    const known = old ?? { id: crypto.randomUUID(), created: now };
    const phrase: Phrase = { ...known, name, family, goal, note, recipe, tempo, changed: now };
    if (!(await this.phrases.save(phrase))) return null;
    // Keeping is no step back: undo changes the recipe, the shelf keeps what it was given.
    this.history.update((h) => ({ ...h, now: { ...h.now, phrase } }));
    return phrase;
  }

  private edit(change: (recipe: Recipe | null) => Recipe | null, about: string | null = null): void {
    const { now } = this.history();
    const recipe = change(now.recipe);
    if (recipe !== now.recipe) this.put({ ...now, recipe }, about);
  }

  private put(work: Work, about: string | null = null): void {
    this.history.update((h) => edited(h, work, about));
  }
}

function suggestName(recipe: Recipe | null): string {
  if (!recipe) return '';
  const { source } = recipe;
  const base =
    source.kind === 'rudiment' ? (rudimentById(source.id)?.name ?? 'Rudiment') : source.text.trim().slice(0, 24);
  return recipe.moves.length > 0 ? `${base}, worked out` : base;
}
