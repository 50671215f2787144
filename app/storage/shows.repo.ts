import { inject, Injectable } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { moment, stableJson } from '@core/base';
import { keptShows, SHOW_LIMITS, showOf, showState, type Show, type ShowState } from '@core/shelf';
import { now } from '../environment/clock';
import { Database } from './database';

type Undo = () => Promise<boolean>;

/** What was typed within so long is one earlier state, in milliseconds. */
const ONE_STATE = 5 * 60_000;

/** The shows, and what they were before. */
@Injectable({ providedIn: 'root' })
export class ShowsRepo {
  private readonly database = inject(Database);
  /** Those that are there: the next night first, then those without a day, then those that have passed. */
  readonly all = toSignal(
    this.database.live<readonly Show[] | null>([], async () =>
      (await this.database.db.shows.toArray()).filter((s) => !s.dropped),
    ),
    { initialValue: null },
  );

  /** A new show. Null when there are as many as a shelf holds, or it could not be kept. */
  async create(show: Show): Promise<Undo | null> {
    const { db } = this.database;
    const room = { full: false };
    const well = await this.database.write(async () => {
      const all = await db.shows.toArray();
      room.full = all.filter((s) => !s.dropped).length >= SHOW_LIMITS.shows;
      if (room.full) return;
      // Of shows that were dropped only so many are remembered as there is room for.
      const stay = new Set(keptShows(all, 1).map((s) => s.id));
      const gone = all.filter((s) => !stay.has(s.id)).map((s) => s.id);
      await db.shows.bulkDelete(gone);
      for (const id of gone) await db.showStates.where('show').equals(id).delete();
      await db.shows.put({ ...show, changed: moment(now()) });
    });
    return well && !room.full ? () => this.drop(show.id).then((undo) => undo !== null) : null;
  }

  /**
   * Changes a show as it stands in storage. What stood there before is among its earlier states, where it had stood for
   * some minutes or `whole` says that it was another. Resolves to what takes it back where nothing was changed since.
   */
  async change(id: string, how: (show: Show) => Show, whole = false): Promise<Undo | null> {
    const { db } = this.database;
    const done: { was?: Show; now?: Show } = {};
    const well = await this.database.write(async () => {
      const was = await db.shows.get(id);
      if (!was) return;
      const next = how(was);
      if (stableJson(next) === stableJson(was)) return;
      const kept = { ...next, id, changed: moment(now(), was.changed) };
      if (whole || kept.changed - was.changed > ONE_STATE) await this.remember(was, kept);
      await db.shows.put(kept);
      Object.assign(done, { was, now: kept });
    }, `show ${id}`);
    const { was, now: kept } = done;
    return well && was && kept ? () => this.takeBack(was, kept) : null;
  }

  /** Drops a show; its phrases stay on the shelf. */
  drop(id: string): Promise<Undo | null> {
    return this.change(id, (s) => ({ ...s, dropped: true }), true);
  }

  /** What a show was before, the latest first. */
  statesOf(id: string): Promise<readonly ShowState[]> {
    return this.database.read([], async () => {
      const [stands, states] = [
        await this.database.db.shows.get(id),
        await this.database.db.showStates.where('show').equals(id).toArray(),
      ];
      const all = stands ? [showState(stands), ...states] : states;
      return (showOf(all)?.earlier ?? []).filter((s) => !s.state.dropped);
    });
  }

  private async remember(was: Show, next: Show): Promise<void> {
    const { db } = this.database;
    await db.showStates.put(showState(was));
    const all = await db.showStates.where('show').equals(was.id).toArray();
    const stay = new Set((showOf([showState(next), ...all])?.earlier ?? []).map((s) => s.id));
    await db.showStates.bulkDelete(all.filter((s) => !stay.has(s.id)).map((s) => s.id));
  }

  /** Takes one change back and only that: what was changed since stays. */
  private async takeBack(was: Show, kept: Show): Promise<boolean> {
    const { db } = this.database;
    let done = false;
    const well = await this.database.write(async () => {
      const stands = await db.shows.get(kept.id);
      // When it was written does not matter: what was taken back behind it wrote it anew.
      const held = ({ changed: _, ...show }: Show): string => stableJson(show);
      done = stands !== undefined && held(stands) === held(kept);
      if (done) await db.shows.put({ ...was, changed: moment(now(), kept.changed) });
    }, `show ${kept.id}`);
    return well && done;
  }
}
