import { inject, Injectable } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { moment } from '@core/base';
import { BOARD_LIMITS, keptBoards, type Board } from '@core/shelf';
import { now } from '../environment/clock';
import { Database } from './database';
import { freshUuid } from '../environment/ids';

type Undo = () => Promise<boolean>;

/** The boards: phrases in the player's own order, and kept questions. */
@Injectable({ providedIn: 'root' })
export class BoardsRepo {
  private readonly database = inject(Database);
  /** The boards in their order; null until they are read. */
  readonly all = toSignal(
    this.database.live<readonly Board[] | null>([], async () => {
      const rows = await this.database.db.boards.toArray();
      return rows.filter((b) => !b.dropped).sort((a, b) => a.place - b.place || (a.id < b.id ? -1 : 1));
    }),
    { initialValue: null },
  );

  /** A new board behind the others. Null when there are as many as a shelf holds, or it could not be kept. */
  async create(name: string, question: string | null, phrases: readonly string[] = []): Promise<Board | null> {
    const { db } = this.database;
    let made: Board | null = null;
    const well = await this.database.write(async () => {
      const all = await db.boards.toArray();
      if (all.filter((b) => !b.dropped).length >= BOARD_LIMITS.boards) return;
      // Of boards that were dropped only so many are remembered as the shelf may hold with those that are there.
      const stay = new Set(keptBoards(all, 1).map((b) => b.id));
      await db.boards.bulkDelete(all.filter((b) => !stay.has(b.id)).map((b) => b.id));
      made = {
        id: freshUuid(),
        name: name.trim().slice(0, BOARD_LIMITS.letters) || 'Board',
        question: question === null ? null : question.slice(0, BOARD_LIMITS.question),
        phrases: [...new Set(phrases)].slice(0, BOARD_LIMITS.phrases),
        place: Math.max(0, ...all.map((b) => b.place)) + 1,
        changed: now(),
      };
      await db.boards.put(made);
    });
    return well ? made : null;
  }

  rename(id: string, name: string): Promise<Undo | null> {
    const next = name.trim().slice(0, BOARD_LIMITS.letters);
    if (next === '') return Promise.resolve(null);
    return this.change(
      id,
      (b) => ({ ...b, name: next }),
      (b, was) => (b.name === next ? { ...b, name: was.name } : b),
    );
  }

  /** Drops a board; its phrases stay on the shelf. */
  drop(id: string): Promise<Undo | null> {
    return this.change(
      id,
      (b) => ({ ...b, dropped: true }),
      (b) => ({ ...b, dropped: false }),
    );
  }

  /** Puts phrases on a board, behind those that are there. */
  add(id: string, phrases: readonly string[]): Promise<Undo | null> {
    return this.change(
      id,
      (b) => ({ ...b, phrases: [...new Set([...b.phrases, ...phrases])].slice(0, BOARD_LIMITS.phrases) }),
      (b, was) => ({ ...b, phrases: b.phrases.filter((p) => !phrases.includes(p) || was.phrases.includes(p)) }),
    );
  }

  take(id: string, phrases: readonly string[]): Promise<Undo | null> {
    const gone = new Set(phrases);
    return this.change(
      id,
      (b) => ({ ...b, phrases: b.phrases.filter((p) => !gone.has(p)) }),
      (b, was) => ({
        ...b,
        phrases: was.phrases.reduce(
          (list, p, i) => (gone.has(p) && !list.includes(p) ? list.toSpliced(Math.min(i, list.length), 0, p) : list),
          b.phrases,
        ),
      }),
    );
  }

  /** Moves a phrase on its board before another one, or behind all. */
  move(id: string, phrase: string, before: string | null): Promise<Undo | null> {
    const moved = (list: readonly string[], to: string | null): string[] => {
      const rest = list.filter((p) => p !== phrase);
      const at = to === null ? -1 : rest.indexOf(to);
      return rest.toSpliced(at < 0 ? rest.length : at, 0, phrase);
    };
    return this.change(
      id,
      (b) => ({ ...b, phrases: moved(b.phrases, before) }),
      (b, was) => ({ ...b, phrases: moved(b.phrases, was.phrases[was.phrases.indexOf(phrase) + 1] ?? null) }),
    );
  }

  /** Puts a board before another one, or behind all. */
  place(id: string, before: string | null): Promise<Undo | null> {
    const rest = (this.all() ?? []).filter((b) => b.id !== id);
    const at = before === null ? rest.length : rest.findIndex((b) => b.id === before);
    const [left, right] = [rest[at - 1]?.place, rest[at]?.place];
    const place = left === undefined ? (right ?? 1) - 1 : right === undefined ? left + 1 : (left + right) / 2;
    return this.change(
      id,
      (b) => ({ ...b, place }),
      (b, was) => ({ ...b, place: was.place }),
    );
  }

  /** Changes a board as it stands in storage. Resolves to what takes just that back, whatever was done since. */
  private async change(
    id: string,
    change: (board: Board) => Board,
    back: (board: Board, was: Board) => Board,
  ): Promise<Undo | null> {
    const { boards } = this.database.db;
    const was: { board?: Board } = {};
    const put = (how: (board: Board) => Board) => async (): Promise<void> => {
      const board = await boards.get(id);
      was.board ??= board;
      if (board) await boards.put({ ...how(board), changed: moment(now(), board.changed) });
    };
    const well = await this.database.write(put(change));
    const { board } = was;
    return well && board ? () => this.database.write(put((b) => back(b, board))) : null;
  }
}
