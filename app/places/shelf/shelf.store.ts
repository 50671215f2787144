import { computed, DestroyRef, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import type { Pattern } from '@core/pattern';
import type { Board } from '@core/shelf';
import { BoardsRepo } from '../../storage/boards.repo';
import type { ShelfAnswer, ShelfRow, ShelfSort } from '../../knowledge/index/entry';
import { PhrasesRepo } from '../../storage/phrases.repo';
import { ShelfIndex } from '../../knowledge/shelf-index.service';

/** Rows that are wanted with an answer: as many as a tall screen shows. */
const FIRST = 24;

/** How long a question is still before its answer is drawn, in milliseconds. */
const DRAW_AFTER = 90;

/** So many are drawn in one go. */
const DRAWN_AT_ONCE = 5;

/** A line of the list: the place of a phrase in the index, or the head of a family as one less than nought. */
export type Line = number;

/** What is asked of the shelf and what it answers: rows come as they are looked at. Provided by the Shelf. */
@Injectable()
export class ShelfStore {
  private readonly index = inject(ShelfIndex);
  private readonly boards = inject(BoardsRepo);
  readonly words = signal('');
  readonly sort = signal<ShelfSort>('family');
  readonly descending = signal(false);
  readonly boardId = signal<string | null>(null);
  readonly board = computed(() => this.boards.all()?.find((b) => b.id === this.boardId()) ?? null);
  /** Whether what is shown lies in the player's own order: a board that is no question. */
  readonly ownOrder = computed(() => this.board()?.question === null);
  /** How many phrases there are; null until it is known. */
  readonly many = toSignal(inject(PhrasesRepo).many$, { initialValue: null });
  private readonly answerState = signal<ShelfAnswer | null>(null);
  readonly answer = this.answerState.asReadonly();
  private readonly aboutState = signal<{ readonly words: string; readonly board: Board | null }>({
    words: '',
    board: null,
  });
  /** What the answer that is shown is about: what is asked may be ahead of it. */
  readonly about = this.aboutState.asReadonly();
  private readonly rowsState = signal<ReadonlyMap<number, ShelfRow>>(new Map());
  private readonly patterns = signal<ReadonlyMap<string, { readonly key: string; readonly pattern: Pattern }>>(
    new Map(),
  );
  private asked = 0;
  private range: readonly [number, number] = [0, FIRST];
  private ended = false;

  /** What is shown, from the top: heads of families, and places of phrases. */
  readonly lines = computed((): readonly Line[] => {
    const answer = this.answer();
    if (!answer) return [];
    const lines: number[] = [];
    let head = 0;
    answer.order.forEach((place, i) => {
      if (answer.heads[head]?.at === i) lines.push(-1 - head++);
      lines.push(place);
    });
    return lines;
  });
  /** Whether the answer is about what is there: before a shelf is read, that nothing was found is no answer. */
  readonly answered = computed(() => (this.answer()?.all ?? 0) > 0);
  readonly found = computed(() => this.answer()?.order.length ?? 0);
  readonly chips = computed(() => this.answer()?.chips ?? []);
  readonly rest = computed(() => this.answer()?.rest ?? '');
  readonly scale = computed(() => this.answer()?.scale ?? 20160);
  /** Whether something is still being worked out that a question may ask for. */
  readonly reading = computed(() => (this.answer()?.unread ?? 0) > 0);
  /** The question that is asked: a board that is a question asks it too. */
  private readonly question = computed(() => {
    const board = this.board();
    return {
      words: [board?.question ?? '', this.words()].join(' ').trim(),
      board: board && board.question === null ? board.phrases : null,
      sort: this.sort(),
      descending: this.descending(),
      first: FIRST,
    };
  });

  constructor() {
    effect(() => {
      this.question();
      this.index.changed();
      untracked(() => void this.ask());
    });
    inject(DestroyRef).onDestroy(() => (this.ended = true));
  }

  headOf(line: Line): ShelfAnswer['heads'][number] | null {
    return line < 0 ? (this.answer()?.heads[-1 - line] ?? null) : null;
  }

  row(line: Line): ShelfRow | null {
    return this.rowsState().get(line) ?? null;
  }

  /** What is drawn of it: what was drawn before, until what it is now was fetched. */
  patternOf({ id }: ShelfRow): Pattern | null {
    const found = this.patterns().get(id);
    return found?.pattern ?? null;
  }

  /** The lines that are in sight: their rows are fetched, and what is drawn in them. */
  look(from: number, to: number): void {
    this.range = [from, to];
    void this.fetch();
  }

  /** Every phrase that was found, by its id. */
  async idsFound(): Promise<readonly string[]> {
    return (await this.index.rows([...(this.answer()?.order ?? [])])).map((r) => r.id);
  }

  private async ask(): Promise<void> {
    const asked = ++this.asked;
    const about = { words: this.words(), board: this.board() };
    const answer = await this.index.ask(this.question()).catch((error: unknown) => {
      if (!this.ended) throw error;
      return null;
    });
    // A later question overtook this one.
    if (answer === null || asked !== this.asked || this.ended) return;
    const first = new Map<number, ShelfRow>();
    const before = this.rowsState();
    answer.first.forEach((row, i) => {
      const [place, old] = [answer.order[i], before.get(answer.order[i] ?? -1)];
      // What looks as before stays the same object, and is not drawn again.
      if (place !== undefined) first.set(place, old && JSON.stringify(old) === JSON.stringify(row) ? old : row);
    });
    this.rowsState.set(first);
    this.answerState.set(answer);
    this.aboutState.set(about);
    await this.fetch();
  }

  /** Whether a later question was asked meanwhile, or the place was left. */
  private isOver(asked: number): boolean {
    return asked !== this.asked || this.ended;
  }

  private async fetch(): Promise<void> {
    const asked = this.asked;
    const wanted = this.lines()
      .slice(...this.range)
      .filter((l) => l >= 0);
    const missing = wanted.filter((l) => !this.rowsState().has(l));
    if (missing.length > 0) {
      const rows = await this.index.rows(missing);
      if (asked !== this.asked || this.ended) return;
      this.rowsState.update((all) => new Map([...all, ...rows.map((r, i) => [missing[i] ?? -1, r] as const)]));
    }
    // While a question is being typed nothing is drawn: what is drawn would hold up the next answer.
    if (this.question().words !== '') await new Promise((r) => setTimeout(r, DRAW_AFTER));
    if (this.isOver(asked)) return;
    const known = this.patterns();
    const rows = wanted.flatMap((l) => this.row(l) ?? []);
    const undrawn = rows.filter((r) => known.get(r.id)?.key !== r.key).map((r) => r.id);
    if (undrawn.length === 0) return;
    // A few at a time, from the top: a key or a press comes in between.
    for (let i = 0; i < undrawn.length && !this.isOver(asked); i += DRAWN_AT_ONCE) {
      const drawn = await this.index.patternsOf(undrawn.slice(i, i + DRAWN_AT_ONCE));
      if (this.ended) return;
      this.patterns.update((all) => {
        const next = new Map([...all].slice(-200));
        for (const { id, key, pattern } of drawn) next.set(id, { key, pattern });
        return next;
      });
    }
  }
}
