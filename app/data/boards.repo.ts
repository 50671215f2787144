import { inject, Injectable } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { moment } from '@core/base';
import { BOARD_LIMITS, type Board } from '@core/shelf';
import { now } from './clock';
import { Database } from './database';
import { freshUuid } from './ids';

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

  /** Changes a board as it stands in storage. Resolves to what takes it back. */
  async change(id: string, change: (board: Board) => Board): Promise<(() => Promise<boolean>) | null> {
    const { db } = this.database;
    let before: Board | undefined;
    const well = await this.database.write(async () => {
      before = await db.boards.get(id);
      if (before) await db.boards.put({ ...change(before), changed: moment(now(), before.changed) });
    });
    const old = before;
    return well && old
      ? () =>
          this.database.write(async () =>
            db.boards.put({ ...old, changed: moment(now(), (await db.boards.get(id))?.changed) }),
          )
      : null;
  }

  rename(id: string, name: string): Promise<(() => Promise<boolean>) | null> {
    return this.change(id, (b) => ({ ...b, name: name.trim().slice(0, BOARD_LIMITS.letters) || b.name }));
  }

  /** Drops a board; its phrases stay on the shelf. */
  drop(id: string): Promise<(() => Promise<boolean>) | null> {
    return this.change(id, (b) => ({ ...b, dropped: true }));
  }

  /** Puts phrases on a board, behind those that are there. */
  add(id: string, phrases: readonly string[]): Promise<(() => Promise<boolean>) | null> {
    return this.change(id, (b) => ({
      ...b,
      phrases: [...new Set([...b.phrases, ...phrases])].slice(0, BOARD_LIMITS.phrases),
    }));
  }

  take(id: string, phrases: readonly string[]): Promise<(() => Promise<boolean>) | null> {
    const gone = new Set(phrases);
    return this.change(id, (b) => ({ ...b, phrases: b.phrases.filter((p) => !gone.has(p)) }));
  }

  /** Moves a phrase on its board to another place among those that are shown. */
  move(id: string, phrase: string, before: string | null): Promise<(() => Promise<boolean>) | null> {
    return this.change(id, (b) => {
      const rest = b.phrases.filter((p) => p !== phrase);
      const at = before === null ? rest.length : rest.indexOf(before);
      const to = at < 0 ? rest.length : at;
      return { ...b, phrases: [...rest.slice(0, to), phrase, ...rest.slice(to)] };
    });
  }

  /** Puts a board before another one, or behind all. */
  place(id: string, before: string | null): Promise<(() => Promise<boolean>) | null> {
    const rest = (this.all() ?? []).filter((b) => b.id !== id);
    const at = before === null ? rest.length : rest.findIndex((b) => b.id === before);
    const [left, right] = [rest[at - 1]?.place, rest[at]?.place];
    const place = left === undefined ? (right ?? 1) - 1 : right === undefined ? left + 1 : (left + right) / 2;
    return this.change(id, (b) => ({ ...b, place }));
  }
}
