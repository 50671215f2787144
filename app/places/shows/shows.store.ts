import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { count } from '@core/base';
import { build, type Phrase } from '@core/recipe';
import type { Pattern } from '@core/pattern';
import { SHOW_LIMITS, type Cue, type Show, type ShowState, type Spot, type Went } from '@core/shelf';
import {
  demandsOfSpot,
  keptSpots,
  newShow,
  parseCues,
  parseFeel,
  parseSpots,
  withChoices,
  type CueLine,
  type SpotChoice,
  type SpotFit,
  type SpotReady,
} from '@core/show';
import { now } from '../../environment/clock';
import { DayService } from '../../environment/day.service';
import { freshUuid } from '../../environment/ids';
import { NoticesService } from '../../common/notices.service';
import type { ShowAnswer } from '../../knowledge/index/showing';
import { ShelfIndex } from '../../knowledge/shelf-index.service';
import { WantedService } from '../../knowledge/wanted.service';
import { PhrasesRepo } from '../../storage/phrases.repo';
import { ShowsRepo } from '../../storage/shows.repo';
import { TodayRepo } from '../../storage/today.repo';
import { inNights } from './nights';

/** So many steps can be taken back. */
const MOST_UNDO = 60;
/** So many of what fits are drawn. */
const DRAWN = 12;

/** What became of something typed: null where it was taken, else what is wrong with it. */
export type Taken = string | null;

/** The show that is looked at, its cues and spots, and what is worked out of them. Provided by the place. */
@Injectable()
export class ShowsStore {
  private readonly repo = inject(ShowsRepo);
  private readonly phrases = inject(PhrasesRepo);
  private readonly index = inject(ShelfIndex);
  private readonly day = inject(DayService);
  private readonly todays = inject(TodayRepo);
  private readonly wanted = inject(WantedService);
  private readonly notices = inject(NoticesService);
  private readonly chosen = signal<string | null>(null);
  private readonly spotId = signal<string | null>(null);
  private readonly undos = signal<readonly (() => Promise<boolean>)[]>([]);
  private readonly answerState = signal<ShowAnswer | null>(null);
  private readonly namesState = signal<ReadonlyMap<string, string>>(new Map());
  private readonly groovesState = signal<readonly { readonly id: string; readonly name: string }[]>([]);
  private readonly drawnState = signal<ReadonlyMap<string, Pattern>>(new Map());
  private asked = 0;
  private drew = 0;

  /** The shows as they come: see `inNights`. Null until they are read. */
  readonly all = computed(() => {
    const all = this.repo.all();
    return all && inNights(all, this.day.today());
  });
  readonly show = computed((): Show | null => {
    const all = this.all();
    return all?.find((s) => s.id === this.chosen()) ?? all?.[0] ?? null;
  });
  /** Days until the night; null where it has none. Below zero it has passed. */
  readonly left = computed(() => {
    const day = this.show()?.day ?? null;
    return day === null ? null : day - this.day.today();
  });
  /** What is worked out of the show; null while it is. */
  readonly answer = this.answerState.asReadonly();
  readonly canUndo = computed(() => this.undos().length > 0);
  readonly names = this.namesState.asReadonly();
  readonly grooves = this.groovesState.asReadonly();
  readonly drawn = this.drawnState.asReadonly();
  /** The spot that is looked at, with its cue. */
  readonly spot = computed((): { readonly cue: Cue; readonly spot: Spot } | null => {
    const cues = this.show()?.cues ?? [];
    for (const cue of cues) for (const spot of cue.spots) if (spot.id === this.spotId()) return { cue, spot };
    const [first] = cues.flatMap((cue) => cue.spots.slice(0, 1).map((spot) => ({ cue, spot })));
    return first ?? null;
  });
  /** What stands in the spot that is looked at. */
  readonly choice = computed((): SpotChoice | null => {
    const own = this.spot();
    return this.answer()?.choices.find((c) => c.spot === own?.spot.id) ?? null;
  });
  /** Why the spot is filled as it would be best. */
  readonly best = computed(() => {
    const own = this.spot();
    return this.answer()?.filled.choices.find((c) => c.spot === own?.spot.id) ?? null;
  });

  constructor() {
    effect(() => {
      const show = this.show();
      this.index.changed();
      const aDay = this.todays.now().minutes;
      untracked(() => void this.ask(show, aDay));
    });
    effect(() => {
      this.index.changed();
      untracked(() => void this.readNames());
    });
    effect(() => {
      const [choice, own] = [this.choice(), this.spot()];
      const ids = [
        ...new Set([
          ...(own?.spot.phrase ? [own.spot.phrase] : []),
          ...(choice?.fits.slice(0, DRAWN) ?? []).map((f) => f.phrase),
        ]),
      ];
      untracked(() => void this.draw(ids));
    });
  }

  private async ask(show: Show | null, aDay: number): Promise<void> {
    const turn = ++this.asked;
    const answer = show && (await this.index.show({ show, aDay }));
    if (turn === this.asked) this.answerState.set(answer);
  }

  private async readNames(): Promise<void> {
    const all = await this.index.names('all');
    this.namesState.set(new Map(all.map((n) => [n.id, n.name])));
    this.groovesState.set(all.filter((n) => n.family === 'groove').map(({ id, name }) => ({ id, name })));
  }

  private async draw(ids: readonly string[]): Promise<void> {
    const turn = ++this.drew;
    const missing = ids.filter((id) => !this.drawn().has(id));
    if (missing.length === 0) return;
    const found = await this.index.patternsOf(missing);
    if (turn !== this.drew) return;
    this.drawnState.update((old) => new Map([...old, ...found.map((f) => [f.id, f.pattern] as const)]));
  }

  look(id: string): void {
    this.chosen.set(id);
    this.undos.set([]);
  }

  lookAt(spot: string): void {
    this.spotId.set(spot);
  }

  readyOf(spot: string): SpotReady | null {
    return this.answer()?.ready.spots.find((s) => s.spot === spot) ?? null;
  }

  nameOf(id: string | null): string | null {
    return id === null ? null : (this.names().get(id) ?? null);
  }

  /** A new show; false where there are as many as a shelf holds. */
  async create(name = 'New show'): Promise<boolean> {
    const show = newShow(freshUuid(), name, now());
    if ((await this.repo.create(show)) === null) {
      this.notices.wrong(`Your shelf holds ${SHOW_LIMITS.shows} shows. Delete one that has passed first.`);
      return false;
    }
    this.look(show.id);
    return true;
  }

  async drop(): Promise<void> {
    const show = this.show();
    if (!show) return;
    const undo = await this.repo.drop(show.id);
    if (!undo) return;
    this.chosen.set(null);
    this.notices.tell(`${show.name} is deleted. Its phrases stay on the shelf.`, {
      label: 'Undo',
      run: () => void undo().then(() => this.look(show.id)),
    });
  }

  /** The same cues as another show, for the next night: without what became of it. */
  async copy(): Promise<void> {
    const show = this.show();
    if (!show) return;
    const cues = show.cues.map((c) => ({
      ...c,
      spots: c.spots.map(({ went: _, ...s }) => s),
    }));
    const next: Show = {
      ...show,
      id: freshUuid(),
      name: `${show.name} again`.slice(0, SHOW_LIMITS.letters),
      day: null,
      cues,
    };
    if ((await this.repo.create(next)) !== null) this.look(next.id);
  }

  set(part: Partial<Pick<Show, 'name' | 'place' | 'day' | 'most'>>): Promise<boolean> {
    return this.change((s) => ({ ...s, ...part }));
  }

  /** Cues from typed or pasted lines, behind those that are there. What could not be read comes back. */
  async add(text: string): Promise<readonly Extract<CueLine, { ok: false }>[]> {
    const lines = parseCues(text);
    const grooves = new Map(this.grooves().map((g) => [g.name.trim().toLowerCase(), g.id]));
    const wrong = lines.flatMap((l) => (l.ok ? [] : [l]));
    const fresh = lines.flatMap((l): Cue[] => {
      if (!l.ok) return [];
      const { groove, spots, ...cue } = l.cue;
      const id = groove === null ? null : (grooves.get(groove.trim().toLowerCase()) ?? null);
      if (groove !== null && id === null)
        wrong.push({
          ok: false,
          line: l.line,
          text: text.split(/\r?\n/)[l.line - 1] ?? '',
          words: `There is no groove “${groove.slice(0, 60)}” on your shelf.`,
        });
      if (groove !== null && id === null) return [];
      return [{ ...cue, id: freshUuid(), groove: id, spots: [...keptSpots([], spots, freshUuid)] }];
    });
    if (fresh.length === 0) return wrong;
    const room = SHOW_LIMITS.cues - (this.show()?.cues.length ?? 0);
    const asTyped =
      (words: string) =>
      (l: CueLine): Extract<CueLine, { ok: false }> =>
        l.ok ? { ok: false, line: l.line, text: text.split(/\r?\n/)[l.line - 1] ?? '', words } : l;
    if (fresh.length > room)
      return lines.map(asTyped(`A show has at most ${SHOW_LIMITS.cues} cues: nothing was added.`));
    const isKept = await this.change((s) => ({ ...s, cues: [...s.cues, ...fresh] }), fresh.length > 1);
    if (!isKept) return lines.map(asTyped('This could not be kept. Press Add once more.'));
    return wrong.sort((a, b) => a.line - b.line);
  }

  setCue(id: string, part: Partial<Omit<Cue, 'id' | 'spots'>>): Promise<boolean> {
    return this.change((s) => ({ ...s, cues: s.cues.map((c) => (c.id === id ? { ...c, ...part } : c)) }));
  }

  /** A cue's feel and subdivision as typed. */
  setFeel(id: string, text: string): Taken {
    const read = parseFeel(text);
    if (!read) return 'Write straight, swung or swung 16ths 58%, and on triplets or another subdivision.';
    void this.setCue(id, read);
    return null;
  }

  /** A cue's spots as typed: those that stand where one stood keep their phrases. */
  setSpots(cue: Cue, text: string): Taken {
    const read = parseSpots(text, cue);
    if (!read.ok) return read.words;
    void this.change((s) => ({
      ...s,
      cues: s.cues.map((c) => (c.id === cue.id ? { ...c, spots: [...keptSpots(c.spots, read.value, freshUuid)] } : c)),
    }));
    return null;
  }

  move(from: number, to: number): Promise<boolean> {
    return this.change((s) => {
      const own = s.cues[from];
      if (!own || to < 0 || to >= s.cues.length) return s;
      return { ...s, cues: s.cues.toSpliced(from, 1).toSpliced(to, 0, own) };
    });
  }

  async remove(id: string): Promise<void> {
    const name = this.show()?.cues.find((c) => c.id === id)?.name;
    if (!(await this.change((s) => ({ ...s, cues: s.cues.filter((c) => c.id !== id) })))) return;
    this.notices.tell(`${name ?? 'The cue'} is taken out.`, { label: 'Undo', run: () => void this.undo() });
  }

  /** Every spot gets what is best for the whole night; what was chosen by hand stays. */
  async fill(): Promise<void> {
    const answer = this.answer();
    if (!answer || !(await this.change((s) => withChoices(s, answer.filled), true))) return;
    const { choices, exact } = answer.filled;
    const many = choices.filter((c) => c.phrase !== null).length;
    const best = exact ? '' : ' It is the best that was found, there may be a better one.';
    this.notices.tell(`${many} of ${count(choices.length, 'spot')} filled.${best}`, {
      label: 'Undo',
      run: () => void this.undo(),
    });
  }

  /** A phrase for a spot, chosen by hand; null to leave it open again. */
  put(spot: string, phrase: string | null): Promise<boolean> {
    return this.setSpot(spot, (s) => ({ ...s, phrase, pinned: phrase !== null }));
  }

  /** What was chosen by hand may be chosen anew, or not. */
  pin(spot: string, pinned: boolean): Promise<boolean> {
    return this.setSpot(spot, (s) => ({ ...s, pinned: pinned && s.phrase !== null }));
  }

  /** The next phrase that fits behind the one that stands there. */
  another(spot: Spot, fits: readonly SpotFit[]): void {
    const able = fits.filter((f) => f.chance > 0);
    const at = able.findIndex((f) => f.phrase === spot.phrase);
    const next = able[(at + 1) % Math.max(1, able.length)];
    if (next) void this.put(spot.id, next.phrase);
  }

  /** What became of a spot on the night; once more to take it back. */
  went(spot: string, went: Went): Promise<boolean> {
    return this.setSpot(spot, ({ went: was, ...s }) => (was === went ? s : { ...s, went }));
  }

  /** Asks the Bench for a phrase that stands in a spot. */
  async compose({ cue, spot }: { readonly cue: Cue; readonly spot: Spot }): Promise<void> {
    const demands = demandsOfSpot(spot, cue);
    if (demands) await this.wanted.ask(demands);
    else this.notices.wrong('This spot begins or ends between the notes of its subdivision. Change its counts first.');
  }

  states(): Promise<readonly ShowState[]> {
    const show = this.show();
    return show ? this.repo.statesOf(show.id) : Promise.resolve([]);
  }

  goBack({ state }: ShowState): Promise<boolean> {
    return this.change((s) => ({ ...state, id: s.id, changed: s.changed }), true);
  }

  /** Takes back the last change. */
  async undo(): Promise<void> {
    const last = this.undos().at(-1);
    if (!last) return;
    this.undos.update((all) => all.slice(0, -1));
    if (!(await last())) {
      this.undos.set([]);
      this.notices.wrong('This show was changed elsewhere since, so it stays as it is.');
    }
  }

  /** The phrases of the show with what is played of them, for the run-through. */
  async played(): Promise<{ readonly patterns: ReadonlyMap<string, Pattern>; readonly phrases: readonly Phrase[] }> {
    const show = this.show();
    const ids = new Set(
      show?.cues.flatMap((c) => [...(c.groove ? [c.groove] : []), ...c.spots.flatMap((s) => s.phrase ?? [])]),
    );
    const phrases = await this.phrases.some([...ids]);
    return { phrases, patterns: new Map(phrases.map((p) => [p.id, build(p.recipe).pattern])) };
  }

  private setSpot(id: string, how: (spot: Spot) => Spot): Promise<boolean> {
    return this.change((s) => ({
      ...s,
      cues: s.cues.map((c) => ({ ...c, spots: c.spots.map((o) => (o.id === id ? how(o) : o)) })),
    }));
  }

  private async change(how: (show: Show) => Show, whole = false): Promise<boolean> {
    const show = this.show();
    const undo = show && (await this.repo.change(show.id, how, whole));
    if (!undo) return false;
    this.undos.update((all) => [...all.slice(1 - MOST_UNDO), undo]);
    return true;
  }
}
