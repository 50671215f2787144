import { computed, inject, Injectable, linkedSignal, signal } from '@angular/core';
import {
  asking,
  type Answer,
  type Asked,
  type Cell,
  cellOf,
  COMPOSE_LIMITS,
  contradictions,
  different,
  freeCells,
  linearCells,
  rudimentCells,
  slotWords,
  type Slot,
  type SlotWish,
  type Wish,
} from '@core/compose';
import { barTicks, GRID, meter, parseMeter, ticks, type Meter } from '@core/time';
import type { Hand, Voice } from '@core/stroke';
import { familyOf, suggestName } from '@core/recipe';
import { now } from '../../../../environment/clock';
import { freshUuid } from '../../../../environment/ids';
import { NoticesService } from '../../../../common/notices.service';
import { AbleService } from '../../../../knowledge/able.service';
import { ShelfIndex } from '../../../../knowledge/shelf-index.service';
import { KitsRepo } from '../../../../storage/kits.repo';
import { PhrasesRepo } from '../../../../storage/phrases.repo';
import { SettingsRepo } from '../../../../storage/settings.repo';
import { BenchStore } from '../../document/bench.store';
import { ComposeWorker, type Asking, type Found } from './compose.service';

/** What a phrase may be built from, as the player chooses it. */
export const BLOCKS = ['singles', 'rudiments', '3', '4', '5', '6', '7', 'kick-inside', 'two-kicks', 'own'] as const;
export type Block = (typeof BLOCKS)[number];
/** What a press on a slot asks for: something, nothing of it, or nothing again. */
export type Brush = { readonly what: Wish; readonly must: boolean };

/** Where it lands. */
export type Lands = 'nowhere' | 'right' | 'left' | 'kick';
const CRASHES: Readonly<Record<'right' | 'left', { readonly hand: Hand; readonly voice: Voice }>> = {
  right: { hand: 'R', voice: 'crash-right' },
  left: { hand: 'L', voice: 'crash-left' },
};

/** Phrases of the shelf that answers are held against. */
const MOST_SHELF = 400;
const MOST_BARS = 4;
/** So many answers of one sum are shown. */
const SAME_SUM = 2;

function cellsOf(block: Block, own: string): readonly Cell[] {
  switch (block) {
    case 'singles':
      return freeCells(false, false);
    case 'rudiments':
      return rudimentCells();
    case 'kick-inside':
    case 'two-kicks':
      return [3, 4, 5, 6, 7].flatMap((n) => linearCells(n, block));
    case 'own':
      return own.split(/[,;\n]/).flatMap((text) => (text.trim() === '' ? [] : (cellOf(text.trim(), text) ?? [])));
    default:
      return linearCells(Number(block), 'kick-last');
  }
}

/** What is asked for, and what answers it. Provided by the sheet. */
@Injectable()
export class ComposeStore {
  private readonly bench = inject(BenchStore);
  private readonly worker = inject(ComposeWorker);
  private readonly able = inject(AbleService);
  private readonly kits = inject(KitsRepo);
  private readonly phrases = inject(PhrasesRepo);
  private readonly settings = inject(SettingsRepo);
  private readonly index = inject(ShelfIndex);
  private readonly notices = inject(NoticesService);

  /** The phrase on the Bench when the asking began: its meter, its grid, and its kick as a line that stays. */
  private readonly from = this.bench.build()?.pattern ?? null;
  readonly meter = signal(this.bench.recipe()?.source.meter ?? '4/4');
  readonly grid = signal<number>(this.from?.grid ?? GRID.sixteenths);
  readonly bars = signal(1);
  readonly blocks = signal<readonly Block[]>(['3', '4', '5']);
  readonly own = signal('');
  readonly wishes = linkedSignal<unknown, readonly SlotWish[]>({
    source: () => [this.meter(), this.grid(), this.bars()].join(),
    computation: () => [],
  });
  readonly brush = signal<Brush>({ what: 'hit', must: true });
  readonly linear = signal(true);
  readonly cut = signal(false);
  readonly hand = signal(2);
  readonly lead = signal<Hand | 'either'>('either');
  readonly lands = signal<Lands>('nowhere');
  /** The tempo it must hold; 0 where any does. */
  readonly holds = signal(0);
  readonly apart = signal(3);
  readonly unlike = signal(1);
  readonly roundKick = signal(false);
  readonly canGoRound = this.from?.strokes.some((s) => s.limb === 'K') ?? false;

  private readonly read = computed((): Meter => parseMeter(this.meter()) ?? meter(4, 4));
  readonly slots = computed(() => Math.floor((this.bars() * barTicks(this.read())) / this.grid()));
  readonly mostBars = computed(() =>
    Math.max(1, Math.min(MOST_BARS, Math.floor((COMPOSE_LIMITS.slots * this.grid()) / barTicks(this.read())))),
  );
  readonly cells = computed(() => different(this.blocks().flatMap((b) => cellsOf(b, this.own()))));
  readonly asked = computed((): Asked => {
    const lands = this.lands();
    const hand = this.hand();
    return asking({
      meter: this.read(),
      grid: ticks(this.grid()),
      slots: this.slots(),
      cells: this.cells(),
      wishes: this.wishes(),
      line: this.roundKick() ? this.kickLine() : null,
      linear: this.linear(),
      cut: this.cut(),
      longest: { hand: hand > 0 ? hand : null, foot: null },
      lead: ((lead) => (lead === 'either' ? null : lead))(this.lead()),
      landing:
        lands === 'nowhere' ? null : lands === 'kick' ? { hand: 'R', kick: true } : { ...CRASHES[lands], kick: true },
      tempo: this.holds() > 0 ? this.holds() : null,
      apart: Math.max(1, this.apart()),
      unlike: this.unlike(),
      alike: SAME_SUM,
      many: 12,
    });
  });
  readonly wrong = computed(() => contradictions(this.asked(), (slot) => this.placeOf(slot)));

  /** Counts what was asked: an answer to what is not wanted any more is none. */
  private turn = 0;
  readonly search = signal<Asking | null>(null);
  readonly answers = signal<readonly Answer[]>([]);
  readonly found = signal<Found | null>(null);
  readonly failed = signal(false);

  placeOf(slot: number): string {
    return slotWords(this.asked(), slot, this.settings.schools());
  }

  toggle(block: Block): void {
    this.blocks.update((all) => (all.includes(block) ? all.filter((b) => b !== block) : [...all, block]));
  }

  /** What the brush asks for stands on a slot, or does not any more. */
  press(slot: number, brush = this.brush()): void {
    this.wishes.update((all) => {
      const is = (w: SlotWish): boolean => w.slot === slot && w.what === brush.what;
      const before = all.find(is);
      const rest = all.filter((w) => !is(w));
      return before?.must === brush.must ? rest : [...rest, { slot, ...brush }];
    });
  }

  /** Asks; what was asked before is given up. `asked` is a smaller demand that was offered. */
  async ask(asked = this.asked()): Promise<void> {
    this.cancel();
    const mine = ++this.turn;
    this.answers.set([]);
    this.found.set(null);
    this.failed.set(false);
    const names = (await this.index.names('all')).slice(0, MOST_SHELF);
    const drawn = await this.index.patternsOf(names.map((n) => n.id));
    // Meanwhile it may have been asked for something else.
    if (mine !== this.turn) return;
    const patterns = new Map(drawn.map((d) => [d.id, d.pattern]));
    const search = this.worker.ask(
      asked,
      {
        kit: this.kits.current(),
        profile: this.able.now(),
        schools: this.settings.schools(),
        shelf: names.flatMap(({ id, name }) => {
          const pattern = patterns.get(id);
          return pattern ? [{ name, pattern }] : [];
        }),
      },
      (answer) => {
        // Of a search that was given up nothing is shown any more.
        if (this.search() === search) this.answers.update((all) => [...all, answer]);
      },
    );
    this.search.set(search);
    try {
      const found = await search.found;
      if (this.search() !== search) return;
      this.found.set(found);
      this.answers.set(found.answers);
    } catch {
      if (this.search() === search) this.failed.set(true);
    } finally {
      if (this.search() === search) this.search.set(null);
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

  async keep(answer: Answer): Promise<void> {
    const at = now();
    const name = suggestName(answer.recipe);
    const tempo = Math.min(this.bench.tempo(), answer.ceiling ?? this.bench.tempo());
    const kept = await this.phrases.save({
      id: freshUuid(),
      name: `${name} (${answer.sum})`.slice(0, 200),
      family: familyOf(answer.pattern),
      goal: Math.min(answer.ceiling ?? tempo + 20, tempo + 20),
      note: '',
      recipe: answer.recipe,
      tempo,
      created: at,
      changed: at,
    });
    if (kept.kind === 'full') this.notices.wrong(kept.words);
    if (kept.kind === 'kept') this.notices.tell(`“${kept.phrase.name.slice(0, 60)}” is on the shelf.`);
  }

  /** The kick of the phrase the asking began from, slot by slot of the space. */
  private kickLine(): Asked['line'] {
    const { from } = this;
    const [grid, slots] = [this.grid(), this.slots()];
    const own = Array.from({ length: slots }, (): Slot => []);
    for (const s of from?.strokes ?? []) {
      if (s.limb !== 'K' || s.at % grid !== 0) continue;
      const slot = s.at / grid;
      if (slot < slots) own[slot] = [{ limb: 'K', level: s.level }];
    }
    return { limbs: ['K'], slots: own };
  }
}
