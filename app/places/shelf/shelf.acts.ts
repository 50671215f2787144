import { inject, Injectable } from '@angular/core';
import { Router } from '@angular/router';
import { count } from '@core/base';
import { dayWords } from '@core/plan';
import { TAGS, type GoalDay, type Phrase } from '@core/recipe';
import { folded } from '@core/language';
import { BoardsRepo } from '../../storage/boards.repo';
import { now, today } from '../../environment/clock';
import { freshUuid } from '../../environment/ids';
import { PhrasesRepo } from '../../storage/phrases.repo';
import { FULL } from '../../storage/phrases.words';
import { ShelfIndex } from '../../knowledge/shelf-index.service';
import { NoticesService } from '../../common/notices.service';

type Undo = () => Promise<boolean>;

/** What can be done with phrases of the shelf, each with its way back. Provided by the Shelf. */
@Injectable()
export class ShelfActs {
  private readonly phrases = inject(PhrasesRepo);
  private readonly boards = inject(BoardsRepo);
  private readonly index = inject(ShelfIndex);
  private readonly notices = inject(NoticesService);
  private readonly router = inject(Router);
  private duplicating: Promise<void> = Promise.resolve();
  private readonly undos: { readonly run: Undo; readonly said: string }[] = [];

  async remove(ids: readonly string[], name: string | null = null): Promise<void> {
    const undo = await this.phrases.remove(ids);
    if (!undo) return;
    const what =
      name !== null ? `“${name.slice(0, 60)}” and its log are` : `${count(ids.length, 'phrase')} with their logs are`;
    this.did(
      `${what} off the shelf. You can put it back for 30 days.`,
      'Put back on the shelf',
      undo,
      'Back on the shelf.',
    );
  }

  /** One after the other: each has the next number. */
  duplicate(id: string): Promise<void> {
    this.duplicating = this.duplicating.then(() => this.copy(id));
    return this.duplicating;
  }

  private async copy(id: string): Promise<void> {
    const phrase = await this.phrases.get(id);
    if (!phrase) return;
    const [name, at] = [await this.index.next(phrase.name), now()];
    const copy: Phrase = {
      ...phrase,
      id: freshUuid(),
      name,
      parent: { id, change: 'a duplicate' },
      created: at,
      changed: at,
    };
    this.index.gave(name);
    this.added(
      await this.phrases.add([copy]),
      `“${name.slice(0, 60)}” is on the shelf, made from “${phrase.name.slice(0, 60)}”.`,
    );
  }

  /** Gives phrases a tag, or takes it from them where all have it. */
  async tag(ids: readonly string[], word: string): Promise<void> {
    const own = folded(word)
      .replace(/^#/, '')
      .replace(/[\s#,]+/g, '-')
      .slice(0, TAGS.letters);
    if (own === '') return;
    const all = await this.phrases.some(ids);
    const had = new Set(all.filter((p) => p.tags?.includes(own)).map((p) => p.id));
    const takes = had.size === all.length;
    const give = (p: Phrase): Phrase =>
      (p.tags?.length ?? 0) >= TAGS.most || p.tags?.includes(own) ? p : { ...p, tags: [...(p.tags ?? []), own] };
    const take = (p: Phrase): Phrase => ({ ...p, tags: (p.tags ?? []).filter((t) => t !== own) });
    const undo = takes
      ? await this.phrases.changeMany(ids, take, give)
      : await this.phrases.changeMany(ids, give, (p) => (had.has(p.id) ? p : take(p)));
    if (undo)
      this.did(
        takes
          ? `#${own} removed from ${count(all.length, 'phrase')}.`
          : `${count(all.length, 'phrase')} tagged #${own}.`,
        'Undo',
        undo,
        'The tags are as before.',
      );
  }

  /** Sets by when goals are wanted, and of one phrase the goal itself; what else changed since stays. */
  async want(ids: readonly string[], by: GoalDay | null, goal: number | null): Promise<void> {
    const before = new Map((await this.phrases.some(ids)).map((p) => [p.id, { by: p.by, goal: p.goal }]));
    const set = (p: Phrase): Phrase => withGoal(p, by, goal ?? p.goal);
    const back = (p: Phrase): Phrase => {
      const old = before.get(p.id);
      return old ? withGoal(p, old.by ?? null, old.goal) : p;
    };
    const undo = await this.phrases.changeMany(ids, set, back);
    if (!undo) return;
    const many = count(before.size, 'goal');
    const when = by === null ? `${many} without a date now.` : `${many} needed ${dayWords(by.day, today())}.`;
    this.did(when, 'Undo', undo, 'The goals are as before.');
  }

  async toBoard(board: string, ids: readonly string[]): Promise<void> {
    const undo = await this.boards.add(board, ids);
    const name = this.boards.all()?.find((b) => b.id === board)?.name ?? 'the board';
    if (undo) this.did(`${count(ids.length, 'phrase')} added to ${name}.`, 'Undo', undo, 'The board is as before.');
  }

  async offBoard(board: string, ids: readonly string[]): Promise<void> {
    const undo = await this.boards.take(board, ids);
    if (undo)
      this.did(
        `${count(ids.length, 'phrase')} removed from the board, still on the shelf.`,
        'Put back on the shelf',
        undo,
        'The board is as before.',
      );
  }

  async moveOnBoard(board: string, phrase: string, before: string | null): Promise<void> {
    const undo = await this.boards.move(board, phrase, before);
    if (undo) this.undos.push({ run: undo, said: 'The order is as before.' });
  }

  async renameBoard(board: string, name: string): Promise<void> {
    const undo = await this.boards.rename(board, name);
    if (undo) this.did('The board is renamed.', 'Undo', undo, 'The board has its old name.');
  }

  async newBoard(name: string, question: string | null, ids: readonly string[]): Promise<string | null> {
    const made = await this.boards.create(name, question, ids);
    if (!made) {
      this.notices.wrong('The shelf is full of boards. Delete one first.');
      return null;
    }
    this.notices.tell(
      question === null
        ? `Board ${made.name} is made. Drag its phrases into your order.`
        : `The search is saved as ${made.name}.`,
    );
    return made.id;
  }

  async dropBoard(id: string): Promise<void> {
    const undo = await this.boards.drop(id);
    if (undo) this.did('The board is deleted. Its phrases stay on the shelf.', 'Undo', undo, 'The board is back.');
  }

  async putBack(ids: readonly string[]): Promise<void> {
    if (await this.phrases.putBack(ids))
      this.notices.tell(`${count(ids.length, 'phrase')} back on the shelf, with all tries.`);
  }

  /** One phrase after the other in the practice room. */
  drill(ids: readonly string[]): void {
    const [first, ...rest] = ids;
    if (first !== undefined)
      void this.router.navigate(
        ['/drill', first],
        rest.length > 0 ? { queryParams: { then: rest.slice(0, 100).join(',') } } : {},
      );
  }

  /** Takes back what was done last on the shelf, and only that. */
  async undo(): Promise<void> {
    const last = this.undos.pop();
    if (last)
      this.notices.tell((await last.run()) ? last.said : 'It was changed or played since, so it cannot be undone.');
  }

  private added(undo: Undo | 'full' | null, words: string): void {
    if (undo === 'full') this.notices.wrong(FULL);
    else if (undo) this.did(words, 'Undo', undo, 'Off the shelf again.');
  }

  private did(words: string, label: string, run: Undo, said: string): void {
    this.undos.push({ run, said });
    this.notices.tell(words, { label, run: () => void this.undo() });
  }
}

function withGoal({ by: _, ...phrase }: Phrase, by: GoalDay | null, goal: number): Phrase {
  return { ...phrase, goal, ...(by ? { by } : {}) };
}
