import { readyBpm } from '../../knowledge/believed-words';
import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { Router } from '@angular/router';
import { DAY_MINUTES, type Block, type PlanOrder, type PlanPlace, type Today, type TodayPlan } from '@core/plan';
import type { Pattern } from '@core/pattern';
import { ShelfIndex } from '../../knowledge/shelf-index.service';
import { TodayRepo } from '../../storage/today.repo';

/** The wishes of a day that can be taken back. */
type Wishes = Pick<Today, 'minutes' | 'place' | 'order' | 'held' | 'dropped' | 'arranged'>;

/** How far a phrase came today: what was ready before, and what is now. */
export interface Moved {
  readonly id: string;
  readonly name: string;
  readonly before: number;
  readonly now: number;
}

/** So many steps can be taken back. */
const MOST_UNDO = 60;

/** The plan of the day: it is asked for anew whenever the player's wishes or the shelf change. Provided by Today. */
@Injectable()
export class TodayStore {
  private readonly repo = inject(TodayRepo);
  private readonly index = inject(ShelfIndex);
  private readonly router = inject(Router);
  private readonly planState = signal<TodayPlan | null>(null);
  private readonly patternState = signal<ReadonlyMap<string, Pattern>>(new Map());
  private readonly movedState = signal<readonly Moved[]>([]);
  private readonly undos = signal<readonly Wishes[]>([]);
  readonly wishes = this.repo.now;
  /** Null until the first plan is there. */
  readonly plan = this.planState.asReadonly();
  /** Patterns of what is planned, by the phrase. */
  readonly patterns = this.patternState.asReadonly();
  /** What moved today. */
  readonly moved = this.movedState.asReadonly();
  readonly canUndo = computed(() => this.undos().length > 0);
  readonly running = computed(() => this.wishes().running);
  readonly doneMinutes = computed(() => this.wishes().done.reduce((sum, d) => sum + d.minutes, 0));
  /** What comes next. */
  readonly next = computed(() => this.plan()?.blocks[0] ?? null);
  private asked = 0;

  constructor() {
    effect(() => {
      const { running: _, before: _before, ...asked } = this.wishes();
      this.index.changed();
      untracked(() => void this.ask(asked));
    });
    effect(() => {
      const { before, done } = this.wishes();
      this.index.changed();
      untracked(() => void this.compare(before, done.length));
    });
  }

  private async ask(asked: Omit<Today, 'running' | 'before'>): Promise<void> {
    const turn = ++this.asked;
    const plan = await this.index.plan(asked);
    if (turn !== this.asked) return;
    this.planState.set(plan);
    const ids = [...new Set(plan.blocks.flatMap((b) => b.phrase ?? []))];
    const found = await this.index.patternsOf(ids);
    if (turn === this.asked) this.patternState.set(new Map(found.map((f) => [f.id, f.pattern])));
  }

  private async compare(before: Today['before'], done: number): Promise<void> {
    if (done === 0 || before.length === 0) return this.movedState.set([]);
    const names = new Map((await this.index.names('drilled')).map((n) => [n.id, n.name]));
    const all = await Promise.all(
      before.map(async ({ id, ready }): Promise<Moved | null> => {
        const believed = await this.index.believed(id);
        const name = names.get(id);
        const now = readyBpm(believed);
        return now !== null && name !== undefined ? { id, name, before: ready, now } : null;
      }),
    );
    this.movedState.set(all.filter((m) => m !== null));
  }

  setMinutes(minutes: number): void {
    const own = Math.round(Math.min(DAY_MINUTES.most, Math.max(DAY_MINUTES.least, minutes)));
    if (own !== this.wishes().minutes) this.wish({ minutes: own });
  }

  setPlace(place: PlanPlace): void {
    this.wish({ place });
  }

  setOrder(order: PlanOrder): void {
    this.wish({ order, arranged: [] });
  }

  /** A block keeps its minutes whatever else changes, or no longer. */
  hold(block: Block): void {
    const { held } = this.wishes();
    const rest = held.filter((h) => h.id !== block.id);
    const next = rest.length < held.length ? rest : [...rest, { id: block.id, minutes: this.minutesOf(block) }];
    this.wish({ held: next, arranged: [...this.order()] });
  }

  /** Longer or shorter: it is held so. */
  lengthen(block: Block, by: number): void {
    const minutes = Math.max(1, Math.min(60, this.minutesOf(block) + by));
    const { held } = this.wishes();
    const rest = held.filter((h) => h.id !== block.id);
    this.wish({ held: [...rest, { id: block.id, minutes }], arranged: [...this.order()] });
  }

  /** Not today: something else takes its minutes. */
  drop(block: Block): void {
    const id = block.phrase !== null && block.kind !== 'warm-up' ? block.phrase : block.kind;
    const { dropped, held } = this.wishes();
    this.wish({ dropped: [...dropped.filter((d) => d !== id), id], held: held.filter((h) => h.id !== block.id) });
  }

  /** What was dropped may come again. */
  takeBack(id: string): void {
    this.wish({ dropped: this.wishes().dropped.filter((d) => d !== id) });
  }

  /** What was left out is wanted after all: it is held. */
  want(id: string, minutes: number): void {
    const { held, dropped } = this.wishes();
    const phrase = id.slice(id.indexOf(':') + 1);
    this.wish({
      held: [...held.filter((h) => h.id !== id), { id, minutes }],
      dropped: dropped.filter((d) => d !== phrase),
    });
  }

  /** A block is laid before or behind others. */
  move(from: number, to: number): void {
    const blocks = this.plan()?.blocks ?? [];
    const ids = this.order();
    const [own, other] = [blocks[from]?.id, blocks[to]?.id];
    if (own === undefined || other === undefined || own === other || !ids.includes(own)) return;
    const rest = ids.filter((id) => id !== own);
    const place = rest.indexOf(other);
    if (place < 0) return;
    rest.splice(to > from ? place + 1 : place, 0, own);
    this.wish({ arranged: rest });
  }

  /** Takes back the last wish. */
  undo(): void {
    const last = this.undos().at(-1);
    if (!last) return;
    this.undos.update((all) => all.slice(0, -1));
    void this.repo.change(last);
  }

  /** Plays a block: its phrase in the room, what has none here. */
  async start(block: Block): Promise<void> {
    const all = this.plan()?.blocks ?? [];
    const minutes = this.doneMinutes() + all.reduce((sum, b) => sum + b.minutes, 0);
    const room = block.phrase ?? block.bring[0]?.id ?? null;
    const ready = block.phrase === null ? null : readyBpm(await this.index.believed(block.phrase));
    if (this.wishes().done.length === 0) await this.repo.planned(Math.min(DAY_MINUTES.most, minutes));
    const rest = block.kind === 'break' ? 0 : this.minutesOf(block) - block.minutes;
    await this.repo.begin(block, ready, rest);
    if (room !== null) await this.toRoom();
  }

  /** Back to the room of the block that is under way. */
  async toRoom(): Promise<void> {
    const { running } = this.wishes();
    const room = running?.phrase ?? running?.bring[0]?.id ?? null;
    if (running && room !== null) await this.router.navigate(['/drill', room], { queryParams: { block: running.id } });
  }

  async finish(): Promise<void> {
    await this.repo.finish();
  }

  async leave(): Promise<void> {
    await this.repo.leave();
  }

  /** The blocks as they lie: what is held or lengthened stays where it is. */
  private order(): readonly string[] {
    const blocks = this.plan()?.blocks ?? [];
    return [...new Set(blocks.filter((b) => b.kind !== 'break').map((b) => b.id))];
  }

  /** All minutes of a block, though it is cut by a break or played in rounds. */
  private minutesOf(block: Block): number {
    return (this.plan()?.blocks ?? []).filter((b) => b.id === block.id).reduce((sum, b) => sum + b.minutes, 0);
  }

  private wish(part: Partial<Wishes>): void {
    const { minutes, place, order, held, dropped, arranged } = this.wishes();
    const before: Wishes = { minutes, place, order, held, dropped, arranged };
    this.undos.update((all) => [...all.slice(1 - MOST_UNDO), before]);
    void this.repo.change(part);
  }
}
