import { computed, effect, inject, Injectable, linkedSignal, signal, untracked } from '@angular/core';
import { toObservable } from '@angular/core/rxjs-interop';
import { EMPTY as NOTHING, first, Subject, Subscription, switchMap } from 'rxjs';
import { edited, historyOf, redone, undone } from '@core/base';
import { meterText, TEMPO } from '@core/time';
import { report } from '@core/pattern';
import {
  build,
  familyOf,
  freshId,
  KEPT_STEPS,
  newMove,
  suggestName,
  tooMuch,
  withEdits,
  type Build,
  type Edit,
  type MoveEntry,
  type MoveName,
  type Phrase,
  type Recipe,
  type Source,
} from '@core/recipe';
import type { Draft } from '@core/formats/shelf-file';
import type { Rudiment } from '@core/rudiments';
import { DraftsRepo } from '../../../storage/drafts.repo';
import { freshUuid } from '../../../environment/ids';
import { PhrasesRepo, type Keeping } from '../../../storage/phrases.repo';
import { SettingsRepo } from '../../../storage/settings.repo';
import { isSameWork, UnkeptRepo, type BenchWork } from '../../../storage/unkept.repo';
import { AbleService } from '../../../knowledge/able.service';
import { stilled } from '../../../common/stilled';
import { growthWords } from './naming';
import { plainRecipe } from './plain-recipe';
import { EMPTY, isLeft, ownedBy, type Work } from './work';

/** What the player says when keeping a phrase. */
export type Label = Pick<Phrase, 'name' | 'family' | 'goal' | 'note'>;

/** That the phrase on the Bench was kept elsewhere since: what stands there, null where it was taken off. */
export interface Elsewhere {
  readonly theirs: Phrase | null;
}

/** Work that left the Bench unkept, with the phrase it is of; a step back over a keeping. */
export type Noted =
  { readonly kind: 'left'; readonly phrase: Phrase | null } | { readonly kind: 'behind-keep'; readonly phrase: Phrase };

/** A goal nobody set lies so far above the tempo it was made at, in bpm. */
const GOAL_STEP = 20;

/** The Bench's state. Every change is one step of its history and is kept as a draft at once. */
@Injectable({ providedIn: 'root' })
export class BenchStore {
  private readonly drafts = inject(DraftsRepo);
  private readonly phrases = inject(PhrasesRepo);
  private readonly settings = inject(SettingsRepo);
  private readonly unkept = inject(UnkeptRepo);
  private readonly able = inject(AbleService);
  private readonly history = signal(historyOf(EMPTY));
  private readonly loaded = signal(false);

  private readonly askable = signal(false);
  readonly ready = this.askable.asReadonly();
  /** The phrases of the shelf as this tab knows them, by their ids: what was kept elsewhere since is noticed by it. */
  private readonly known = signal<ReadonlyMap<string, Phrase>>(new Map());
  private readonly elsewhereState = signal<Elsewhere | null>(null);
  /** That what is on the Bench was kept elsewhere since, and here it was changed too. */
  readonly elsewhere = this.elsewhereState.asReadonly();
  private readonly refusedState = signal<{ readonly words: string } | null>(null);
  /** Why the last change was refused: it would have been more than a phrase holds. */
  readonly refused = this.refusedState.asReadonly();
  private readonly noted = new Subject<Noted>();
  /** What an act did beside what is seen, to be told. */
  readonly noted$ = this.noted.asObservable();
  private saving = 0;
  /** A new phrase whose first keeping failed: keeping again is that phrase again, and trying again is noticed. */
  private owing: string | null = null;
  private awaited = new Subscription();
  /** Counts how often other work was laid on the Bench. */
  private laid = 0;
  readonly phrase = computed((): Phrase | null => this.known().get(this.history().now.phrase ?? '') ?? null);
  readonly recipe = computed(() => this.history().now.recipe);
  readonly tempo = computed(() => this.history().now.tempo);
  readonly canUndo = computed(() => this.history().past.length > 0);
  readonly canRedo = computed(() => this.history().future.length > 0);
  readonly openCard = signal<string | null>(null);
  /** The card that was just added and has not been shown yet. */
  readonly added = signal<string | null>(null);

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
  readonly isKept = computed(() => this.elsewhere()?.theirs !== null && this.isAsKnown(this.history().now));
  readonly suggestedName = computed(() => suggestName(this.recipe()));
  /** How the phrase would be kept if nobody were asked. */
  readonly suggestedLabel = computed((): Label => {
    const pattern = this.build()?.pattern;
    return {
      name: this.suggestedName(),
      family: pattern ? familyOf(pattern) : 'fill',
      goal: this.goalFrom(this.tempo(), this.top()),
      note: '',
    };
  });

  /** How fast it can go on the current kit, in whole counted bpm; null where nothing limits it. */
  readonly top = computed((): number | null => {
    const pattern = this.stilled()?.pattern;
    return pattern ? this.able.top(pattern, null).bpm : null;
  });

  /** The goal that is proposed of a tempo: a step above it, and none that cannot be played. */
  goalFrom(tempo: number, top: number | null): number {
    const goal = Math.min(TEMPO.most, tempo + GOAL_STEP);
    return top === null ? goal : Math.max(TEMPO.least, Math.min(goal, top));
  }

  /** Resolves when the draft lies on the Bench. */
  readonly started = this.loadDraft();

  constructor() {
    effect(() => {
      const { past, now, future } = this.history();
      if (!untracked(this.loaded)) return;
      void this.drafts.keep({
        ...now,
        base: this.phrase(),
        past: past.slice(-KEPT_STEPS),
        future: future.slice(0, KEPT_STEPS),
      });
    });
    const id = computed(() => (this.loaded() ? this.history().now.phrase : null));
    toObservable(id)
      .pipe(switchMap((own) => (own === null ? NOTHING : this.phrases.of$(own))))
      .subscribe((phrase) => this.seen(phrase));
  }

  /** What stands on the shelf of the phrase that is on the Bench, whenever it changes, here or elsewhere. */
  private seen(stands: Phrase | null): void {
    this.stands = stands;
    if (this.saving > 0) return;
    const own = this.phrase();
    if (!own || (stands && stands.id !== own.id)) return;
    if (stands && (isSameWork(stands, own) || isSameWork(stands, this.history().now))) {
      // Its name, goal or tags at most are others: that is no other work than the one here.
      this.know(stands);
      this.elsewhereState.set(null);
    } else if (stands && this.isAsKnown(this.history().now)) this.takeOver(stands);
    else this.elsewhereState.set({ theirs: stands });
  }
  private stands: Phrase | null = null;

  /** What was kept elsewhere lies on the Bench; what lay there is one undo away. */
  takeOver(theirs: Phrase): void {
    this.elsewhereState.set(null);
    this.lay({ phrase: theirs.id, recipe: theirs.recipe, tempo: theirs.tempo }, theirs);
  }

  /** Whether work is what this tab knows of its phrase. */
  private isAsKnown({ phrase, recipe, tempo }: Work): boolean {
    const known = this.known().get(phrase ?? '');
    return known !== undefined && JSON.stringify(known.recipe) === JSON.stringify(recipe) && known.tempo === tempo;
  }

  /**
   * Other work is laid on the Bench, of a phrase as it is known from then on. What lay there is one undo away, and
   * where it is not kept it waits with its phrase, or as something new.
   */
  private lay(work: Work, known: Phrase | null = null): void {
    const before = this.history().now;
    const left = this.leftOf(before);
    if (known) this.know(known);
    this.owing = null;
    this.laid++;
    // Between two that are new lies an empty Bench: whose steps they are is known by it.
    if (before.phrase === null && work.phrase === null && before.recipe && work.recipe) this.put(EMPTY);
    this.put(work);
    if (left && !(left.phrase === work.phrase && isSameWork(left, work))) {
      void this.unkept.leave(left);
      this.noted.next({ kind: 'left', phrase: left.base ?? null });
    }
  }

  /** What of work would be lost when it leaves the Bench; null where it is kept. */
  private leftOf(work: Work): BenchWork | null {
    return this.isAsKnown(work) ? null : this.asLeft(work);
  }

  private asLeft({ phrase, recipe, tempo }: Work): BenchWork | null {
    return recipe && { phrase, recipe, tempo, base: this.known().get(phrase ?? '') ?? null };
  }

  private know(phrase: Phrase): void {
    this.known.update((all) => new Map(all).set(phrase.id, phrase));
  }

  private async loadDraft(): Promise<void> {
    const { draft, read } = await this.drafts.get();
    if (draft) await this.layDraft(draft);
    // One that could not be read must not be written over: what is made now is the draft of another name.
    if (!read) this.drafts.renew();
    this.loaded.set(true);
    this.askable.set(true);
  }

  private async layDraft({ phrase, recipe, tempo, base, past = [], future = [] }: Draft): Promise<void> {
    const ids = [...new Set([{ phrase }, ...past, ...future].flatMap((w) => w.phrase ?? []))];
    const known = new Map((await this.phrases.some(ids)).map((p) => [p.id, p]));
    // By what it was when the work on it began it is known whether it was kept elsewhere since.
    if (base) known.set(base.id, base);
    const work = (w: Work): Work => ({
      phrase: w.phrase && known.has(w.phrase) ? w.phrase : null,
      recipe: w.recipe,
      tempo: w.tempo,
    });
    this.known.set(known);
    this.history.set({
      past: past.map(work),
      now: work({ phrase, recipe, tempo }),
      future: future.map(work),
      about: null,
    });
  }

  /** Goes on with work that was left: what lies here is one undo away. */
  async goOn({ phrase, recipe, tempo, base }: BenchWork): Promise<void> {
    await this.started;
    const whose = base ?? (phrase === null ? null : await this.phrases.get(phrase));
    this.lay({ phrase: whose?.id ?? null, recipe, tempo }, whose);
    // What stands on the shelf may be another by now than what that work began from.
    if (this.stands?.id === phrase) this.seen(this.stands);
  }

  /**
   * Puts a kept phrase on the Bench; what lay there is one undo away. False when the shelf has no such phrase. Unkept
   * work on the same phrase stays, unless it is asked for as the shelf has it.
   */
  async open(id: string, asKept = false): Promise<boolean> {
    await this.started;
    if (this.phrase()?.id === id && this.recipe() && (!asKept || this.isKept())) return true;
    const phrase = await this.phrases.get(id);
    if (!phrase) return false;
    this.openCard.set(null);
    this.takeOver(phrase);
    return true;
  }

  /** An empty Bench for a new phrase; what lay there is one undo away. */
  async clear(): Promise<void> {
    await this.started;
    this.openCard.set(null);
    if (this.recipe()) this.lay({ ...EMPTY, tempo: this.tempo() });
  }

  useRudiment(rudiment: Rudiment): void {
    this.setSource({ kind: 'rudiment', id: rudiment.id, meter: meterText(rudiment.meter), grid: rudiment.grid });
  }

  /** A new source keeps the moves that stand on it, and the phrase its feel. */
  setSource(source: Source, about: string | null = null): void {
    this.edit((recipe) => {
      const swing = source.swing ?? recipe?.source.swing;
      return { source: swing ? { ...source, swing } : source, moves: recipe?.moves ?? [] };
    }, about);
  }

  /** The phrase swung, or straight again. */
  setSwing(swing: Source['swing'] | null, about: string | null = null): void {
    this.edit((recipe) => {
      if (!recipe) return null;
      const source = { ...recipe.source };
      if (swing) source.swing = swing;
      else delete source.swing;
      return { ...recipe, source };
    }, about);
  }

  addMove(name: MoveName): void {
    const built = this.build();
    if (!built) return;
    const entry = newMove(name, freshId(built.recipe.moves), built.pattern);
    if (!this.edit((recipe) => recipe && { ...recipe, moves: [...recipe.moves, entry] })) return;
    this.added.set(entry.id);
    this.openCard.set(entry.id);
  }

  /** An offered move, taken: it is signed and stands last. */
  take(entry: MoveEntry): string | null {
    return this.takeAll([entry]).at(-1) ?? null;
  }

  /** Moves that were said in one line, as one step; the ids they got, none when the recipe cannot hold them. */
  takeAll(entries: readonly MoveEntry[]): readonly string[] {
    const before = this.recipe();
    if (!before) return [];
    const recipe = entries.reduce<Recipe>(
      (r, entry) => ({ ...r, moves: [...r.moves, { ...entry, id: freshId(r.moves) }] }),
      before,
    );
    return this.edit(() => recipe) ? recipe.moves.slice(before.moves.length).map((m) => m.id) : [];
  }

  /**
   * Hand edits on what is built. `about` joins edits of one drag into one step. False when the recipe can hold no more.
   */
  touch(edits: readonly Edit[], about: string | null = null): boolean {
    const built = this.build();
    const next = built && edits.length > 0 ? withEdits(built, edits) : null;
    if (!next) return edits.length === 0;
    return JSON.stringify(next) === JSON.stringify(built?.recipe) || this.edit(() => next, about);
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

  /** Moves that were said in place of one: they stand where it stood, as one step. False when there is no room. */
  replaceMove(id: string, entries: readonly MoveEntry[]): boolean {
    return this.edit((recipe) => {
      if (!recipe?.moves.some((m) => m.id === id)) return recipe;
      const moves = recipe.moves.flatMap((m) => (m.id === id ? [] : [m]));
      const at = recipe.moves.findIndex((m) => m.id === id);
      const fresh = entries.reduce<MoveEntry[]>(
        (all, entry) => [...all, { ...entry, id: freshId([...recipe.moves, ...all]) }],
        [],
      );
      return { ...recipe, moves: [...moves.slice(0, at), ...fresh, ...moves.slice(at)] };
    });
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
    this.walk(undone, false);
  }

  redo(): void {
    this.walk(redone, true);
  }

  private walk(step: typeof undone, forward: boolean): void {
    const before = this.history().now;
    this.history.update((h) => step(h));
    const after = this.history().now;
    const left = isLeft(before, after, forward) ? this.leftOf(before) : null;
    if (left) void this.unkept.leave(left);
    const back = before.recipe === null || before.phrase !== after.phrase ? this.asLeft(after) : null;
    if (back) void this.unkept.settle(back);
    const kept = this.phrase();
    if (!forward && kept && before.phrase === after.phrase && this.isAsKnown(before) && !this.isAsKnown(after))
      this.noted.next({ kind: 'behind-keep', phrase: kept });
  }

  /**
   * Keeps what is on the Bench on the shelf under a label: as the phrase it is, or as a new one that remembers what it
   * was grown from. Where the phrase was kept elsewhere since, nothing is written, and that is said.
   */
  async keep(label: Label, now: number, asNew = false): Promise<Keeping> {
    const [work, laid] = [this.history().now, this.laid];
    const { recipe, tempo } = work;
    if (!recipe) return { kind: 'failed' };
    const { name, family, goal, note } = label;
    const old = this.phrase();
    const parent = old ? { parent: { id: old.id, change: growthWords(old.recipe, recipe) } } : {};
    const own =
      old && !asNew
        ? old
        : { ...(old?.tags ? { tags: old.tags } : {}), ...parent, id: this.owing ?? freshUuid(), created: now };
    const phrase: Phrase = { ...own, name, family, goal, note, recipe, tempo, changed: now };
    this.saving++;
    // One that was taken off elsewhere is put on again: then nothing may stand there.
    const base = old && !asNew && this.elsewhere()?.theirs !== null ? old : null;
    const kept = await this.phrases.save(phrase, base);
    this.saving--;
    switch (kept.kind) {
      case 'kept':
        if (laid === this.laid) this.elsewhereState.set(null);
        this.hasKept(kept.phrase, work, laid);
        break;
      case 'elsewhere':
        if (laid === this.laid) this.elsewhereState.set({ theirs: kept.theirs });
        break;
      case 'full':
      case 'failed':
        if (this.stands && old?.id === this.stands.id) this.seen(this.stands);
    }
    if (kept.kind === 'failed' && old === null) this.owe(phrase, work, laid);
    return kept;
  }

  /**
   * Keeping is no step back: undo changes the recipe, the shelf keeps what it was given. Other work may lie here by
   * now, as keeping takes its time: that stays whose it is.
   */
  private hasKept(phrase: Phrase, work: Work, laid: number): void {
    this.know(phrase);
    if (laid === this.laid) this.owing = null;
    const stands = [...this.history().past, ...this.history().future].includes(work);
    if (laid === this.laid || stands) this.history.update((h) => ownedBy(h, work, phrase.id));
    for (const whose of new Set([work.phrase, phrase.id]))
      void this.unkept.settle({ phrase: whose, recipe: phrase.recipe, tempo: phrase.tempo });
  }

  /** What could not be kept is kept as soon as trying again works: whose it is is known here then. */
  private owe(phrase: Phrase, work: Work, laid: number): void {
    this.awaited.unsubscribe();
    this.awaited = this.phrases
      .of$(phrase.id)
      .pipe(first((stands) => stands !== null))
      .subscribe((stands) => this.hasKept(stands, work, laid));
    if (laid === this.laid) this.owing = phrase.id;
  }

  /**
   * Takes a keeping back: the shelf is as it was before, and what is on the Bench stays, as unkept changes. Resolves to
   * what stands on the shelf then, null where nothing does; undefined where it could not be taken back.
   */
  async takeBack(kept: Keeping & { kind: 'kept' }): Promise<Phrase | null | undefined> {
    const { id } = kept.phrase;
    this.saving++;
    const well = await kept.undo?.();
    const stands = well ? await this.phrases.get(id) : undefined;
    if (stands) this.know(stands);
    this.saving--;
    if (stands !== undefined && this.history().now.phrase === id) this.seen(stands);
    return stands;
  }

  /** False when it would be more than a phrase holds: then nothing changes, and why is told. */
  private edit(change: (recipe: Recipe | null) => Recipe | null, about: string | null = null): boolean {
    const { now } = this.history();
    const recipe = change(now.recipe);
    const words = recipe && recipe !== now.recipe ? tooMuch(recipe) : null;
    if (words !== null) this.refusedState.set({ words });
    else if (recipe !== now.recipe) this.put({ ...now, recipe }, about);
    return words === null;
  }

  private put(work: Work, about: string | null = null): void {
    this.history.update((h) => edited(h, work, about));
  }
}
