import { computed, inject, Injectable, signal } from '@angular/core';
import { edited, historyOf, undone } from '@core/base';
import {
  cellOfPattern,
  contradictions,
  demanded,
  hitsOf,
  mostBars,
  readAsking,
  slotWords,
  slotsIn,
  USUAL_DEMANDS,
  withWishes,
  type Answer,
  type Asked,
  type Cell,
  type Demands,
  type Slot,
  type Wish,
} from '@core/compose';
import type { Pattern } from '@core/pattern';
import { build, familyOf, suggestName, type Phrase } from '@core/recipe';
import { isHand, LIMBS } from '@core/stroke';
import { barTicks, countAt, gridsOf, meterText, parseMeter, ticks, type Grid } from '@core/time';
import { now } from '../../../../environment/clock';
import { freshUuid } from '../../../../environment/ids';
import { NoticesService } from '../../../../common/notices.service';
import { AbleService } from '../../../../knowledge/able.service';
import { ShelfIndex } from '../../../../knowledge/shelf-index.service';
import { WantedService } from '../../../../knowledge/wanted.service';
import { KitsRepo } from '../../../../storage/kits.repo';
import { PhrasesRepo } from '../../../../storage/phrases.repo';
import { SettingsRepo } from '../../../../storage/settings.repo';
import { BenchStore } from '../../document/bench.store';
import { ComposeWorker, type Asking, type Found } from './compose.service';

/** What a press on a slot asks for: something, nothing of it, or nothing again. */
export interface Brush {
  readonly what: Wish;
  readonly must: boolean;
}

/** What of an answer the next ones have too, or have not. */
export const HOLDS = ['first half', 'last half', 'kicks', 'accents', 'one kick', 'one hand'] as const;
export type Hold = (typeof HOLDS)[number];

/** Demands whose change leaves the slots where they are not. */
const SPACE = ['meter', 'grid', 'bars', 'from'] as const;
/** Names longer than this are cut. */
const MOST_NAME = 180;

/** What is asked for, and what answers it. What was asked for stays while the application is open. */
@Injectable({ providedIn: 'root' })
export class ComposeStore {
  private readonly bench = inject(BenchStore);
  private readonly worker = inject(ComposeWorker);
  private readonly able = inject(AbleService);
  private readonly kits = inject(KitsRepo);
  private readonly phrases = inject(PhrasesRepo);
  private readonly settings = inject(SettingsRepo);
  private readonly index = inject(ShelfIndex);
  private readonly notices = inject(NoticesService);
  private readonly wanted = inject(WantedService);

  private readonly history = signal(historyOf<Demands>(USUAL_DEMANDS));
  readonly demands = computed(() => this.history().now);
  readonly canUndo = computed(() => this.history().past.length > 0);
  /** The phrase on the Bench when the asking began: what can be kept of it. */
  readonly phrase = signal<Pattern | null>(null);
  readonly brush = signal<Brush>({ what: 'hit', must: true });
  /** Phrases of the shelf that were chosen as cells, by their ids. */
  private readonly chosenCells = signal<ReadonlyMap<string, Cell>>(new Map());
  private readonly cells = computed(() => this.demands().shelf.flatMap(({ id }) => this.chosenCells().get(id) ?? []));
  private readonly read = computed(() =>
    demanded(this.demands(), {
      phrase: this.phrase(),
      cells: this.cells(),
      kit: this.kits.current(),
      schools: this.settings.schools(),
    }),
  );
  readonly asked = computed(() => this.read().asked);
  readonly mostBars = computed(() => mostBars(this.demands()));
  readonly wrong = computed((): readonly string[] => [
    ...this.read().wrong,
    ...contradictions(this.asked(), (slot) => this.placeOf(slot)).map((c) => c.words),
  ]);

  /** Counts what was asked: an answer to what is not wanted any more is none. */
  private turn = 0;
  readonly search = signal<Asking | null>(null);
  readonly answers = signal<readonly Answer[]>([]);
  readonly found = signal<Found | null>(null);
  readonly failed = signal(false);
  /** Answers that are to be kept together. */
  readonly picked = signal<readonly Answer[]>([]);

  /** The sheet opens: on what another place asked for, else on what was asked last, in the room of the phrase here. */
  begin(): void {
    this.worker.warm();
    const from = this.bench.build()?.pattern ?? null;
    const isOther = from !== this.phrase();
    this.phrase.set(from);
    const wanted = this.wanted.take();
    if (wanted) this.change({ ...USUAL_DEMANDS, ...wanted });
    else if (from && isOther && this.demands().wishes.length === 0)
      this.change({ meter: meterText(from.meter), grid: from.grid });
  }

  placeOf(slot: number): string {
    return slotWords(this.asked(), slot, this.settings.schools());
  }

  /** Sets some of what is asked. In another space slots lie elsewhere: what was asked of them goes. */
  change(fields: Partial<Demands>, about: string | null = null): void {
    const before = this.demands();
    const after = { ...before, ...fields };
    const meter = parseMeter(after.meter);
    const grids = meter ? gridsOf(meter).map(Number) : [];
    const grid = grids.includes(after.grid) || fields.grid !== undefined ? after.grid : (grids[3] ?? after.grid);
    const room = { ...after, grid, bars: Math.min(after.bars, mostBars({ ...after, grid })) };
    const isSame = SPACE.every((f) => room[f] === before[f]) || fields.wishes !== undefined;
    const short = isSame || fields.short !== undefined ? room.short : 0;
    this.history.update((h) => edited(h, isSame ? room : { ...room, short, wishes: [], held: null }, about));
  }

  undo(): void {
    this.history.update(undone);
  }

  clear(): void {
    this.change({ ...USUAL_DEMANDS, meter: this.demands().meter, grid: this.demands().grid });
    this.answers.set([]);
    this.found.set(null);
  }

  /** What the brush asks for stands on a slot, or does not any more. */
  press(slot: number, brush = this.brush()): void {
    this.stroke(slot, brush, !this.stands(slot, brush));
  }

  stands(slot: number, { what, must }: Brush): boolean {
    return this.demands().wishes.some((w) => w.slot === slot && w.what === what && w.must === must);
  }

  /** The brush over a slot: it asks for what it does, or takes it away. What is brushed at once is one step. */
  stroke(slot: number, brush: Brush, on: boolean, about: string | null = null): void {
    const all = withWishes(this.demands(), [slot], brush.what, brush.must);
    const wishes = on ? all.wishes : this.demands().wishes.filter((w) => !(w.slot === slot && w.what === brush.what));
    this.change({ wishes }, about);
  }

  /** Sets what a line says; what is not understood comes back in words, and nothing is changed. */
  say(line: string): string | null {
    const read = readAsking(line, this.demands(), this.settings.schools());
    if (!read.ok) return read.words;
    this.change(read.demands);
    return null;
  }

  /** Hits where strokes were tapped. */
  tapped(text: readonly boolean[], grid: Grid): string | null {
    const meter = parseMeter(this.demands().meter);
    if (!meter || !gridsOf(meter).includes(grid)) return 'What you tapped lies on no subdivision of this meter.';
    const bars = Math.max(1, Math.ceil((text.length * grid) / barTicks(meter)));
    this.change({ grid, bars, from: null, wishes: [], held: null });
    this.hitsOn(text.flatMap((is, i) => (is ? [i] : [])));
    return null;
  }

  /** The hits of a phrase of the shelf: its accents, or where it has none the strokes of its hands. */
  async hitsOf(id: string): Promise<string | null> {
    const phrase = await this.phrases.get(id);
    if (!phrase) return 'This phrase is not on the shelf any more.';
    const hits = hitsOf(build(phrase.recipe).pattern);
    if (!hits) return `“${phrase.name.slice(0, 60)}” lies on more than one subdivision.`;
    this.change(hits);
    return null;
  }

  private hitsOn(slots: readonly number[]): void {
    const { slots: many } = this.asked();
    const own = slots.filter((s) => s < many);
    this.change({ wishes: withWishes(this.demands(), own, 'hit', true).wishes });
  }

  /** A phrase of the shelf as a cell. */
  async addCell(id: string): Promise<string | null> {
    const phrase = await this.phrases.get(id);
    const cell = phrase && cellOfPattern(phrase.name, build(phrase.recipe).pattern);
    if (!phrase) return 'This phrase is not on the shelf any more.';
    if (!cell) return `“${phrase.name.slice(0, 60)}” lies on more than one subdivision.`;
    this.chosenCells.update((all) => new Map([...all, [id, cell]]));
    const { shelf } = this.demands();
    this.change({ shelf: [...shelf.filter((s) => s.id !== id), { id, name: phrase.name }] });
    return null;
  }

  /** What of an answer is held, or what is not to come again: asked for at once. */
  hold(answer: Answer, hold: Hold): Promise<void> {
    const { slots, grid } = this.asked();
    const own = slotsIn(answer.pattern, grid, slots, LIMBS) ?? [];
    const d = this.demands();
    const half = Math.floor(slots / 2);
    const all = own.map((_, i) => i);
    const bare = (i: number): Slot =>
      (own[i] ?? []).map(({ limb, level, ornament }) => ({ limb, level, ...(ornament ? { ornament } : {}) }));
    const heldIn = (from: number, until: number): Demands['held'] =>
      all.map((i) => (i >= from && i < until ? bare(i) : (d.held?.[i] ?? null)));
    const split = (what: Wish, has: (slot: Slot) => boolean): readonly Demands['wishes'][number][] => {
      const on = all.filter((i) => has(own[i] ?? []));
      const with_ = withWishes(d, on, what, true);
      return withWishes(
        { ...d, wishes: with_.wishes },
        all.filter((i) => !on.includes(i)),
        what,
        false,
      ).wishes;
    };
    switch (hold) {
      case 'first half':
        this.change({ held: heldIn(0, half) });
        break;
      case 'last half':
        this.change({ held: heldIn(half, slots) });
        break;
      case 'kicks':
        this.change({ wishes: split('K', (slot) => slot.some((s) => s.limb === 'K')) });
        break;
      case 'accents':
        this.change({ wishes: split('hit', (slot) => slot.some((s) => isHand(s.limb) && s.level === 'accent')) });
        break;
      case 'one kick':
        this.change({ foot: 1 });
        break;
      case 'one hand':
        this.change({ hand: 1 });
        break;
    }
    return this.ask();
  }

  /** Asks; what was asked before is given up. `asked` is a smaller demand that was offered. */
  async ask(asked: Asked = this.asked()): Promise<void> {
    this.cancel();
    const mine = ++this.turn;
    this.answers.set([]);
    this.picked.set([]);
    this.found.set(null);
    this.failed.set(false);
    let search: Asking | null = null;
    const isMine = (): boolean => mine === this.turn;
    try {
      const long = asked.slots * asked.grid;
      const shelf = await this.index.alike(asked.grid, long, long + barTicks(asked.meter) + asked.grid);
      // Meanwhile it may have been asked for something else.
      if (!isMine()) return;
      search = this.worker.ask(
        asked,
        { kit: this.kits.current(), profile: this.able.now(), schools: this.settings.schools(), shelf },
        (answer) => {
          // Of a search that was given up nothing is shown any more.
          if (isMine()) this.answers.update((all) => [...all, answer]);
        },
      );
      this.search.set(search);
      const found = await search.found;
      if (!isMine()) return;
      this.found.set(found);
      this.answers.set(found.answers);
    } catch {
      if (isMine()) this.failed.set(true);
    } finally {
      if (search && this.search() === search) this.search.set(null);
    }
  }

  cancel(): void {
    this.turn++;
    this.search()?.cancel();
    this.search.set(null);
  }

  /** An answer lies on the Bench as something new; what lay there is one undo away. */
  async use(answer: Answer): Promise<void> {
    await this.bench.clear();
    this.bench.replace(answer.recipe);
  }

  pick(answer: Answer): void {
    this.picked.update((all) => (all.includes(answer) ? all.filter((a) => a !== answer) : [...all, answer]));
  }

  /** Answers are kept together, all or none: one by its name, several as a series with numbers. */
  async keep(answers: readonly Answer[]): Promise<void> {
    const made: Phrase[] = [];
    for (const answer of answers) made.push(await this.phraseOf(answer, answers.length > 1));
    const undo = await this.phrases.add(made);
    const [first] = made;
    if (undo === 'full') this.notices.wrong('The shelf is full. Take phrases off, or bring them out as a file.');
    else if (undo && first) {
      const name = `“${first.name.slice(0, 60)}”`;
      const words =
        made.length > 1 ? `${made.length} phrases from ${name} on are on the shelf.` : `${name} is on the shelf.`;
      this.notices.tell(words, { label: 'Undo', run: () => void undo() });
      this.picked.set([]);
    }
  }

  private async phraseOf(answer: Answer, isOfMany: boolean): Promise<Phrase> {
    const at = now();
    const tempo = Math.min(this.bench.tempo(), answer.ceiling ?? this.bench.tempo());
    const stem = suggestName(answer.recipe);
    const name = isOfMany ? await this.index.next(stem) : `${stem} (${answer.sum})`;
    this.index.gave(name);
    return {
      id: freshUuid(),
      name: name.slice(0, MOST_NAME),
      family: familyOf(answer.pattern),
      goal: this.bench.goalFrom(tempo, answer.ceiling),
      note: '',
      recipe: answer.recipe,
      tempo,
      created: at,
      changed: at,
    };
  }

  /** The counts of the first bar that a phrase can begin on. */
  readonly counts = computed(() => {
    const { meter, grid } = this.asked();
    const counting = { meter, grid, schools: this.settings.schools() };
    return Array.from(
      { length: Math.floor(barTicks(meter) / grid) },
      (_, i) => countAt(ticks(i * grid), counting).text,
    );
  });
}
