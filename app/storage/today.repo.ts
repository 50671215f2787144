import { computed, inject, Injectable } from '@angular/core';
import type { Attempt } from '@core/drill';
import { DAY_MINUTES, type Block, type PlanDays, type RunningBlock, type Today } from '@core/plan';
import { now, today } from '../environment/clock';
import { Database } from './database';
import { DayService } from '../environment/day.service';
import { KeptValue } from './kept-value';
import { lastTries } from './tries';

/** What belongs to one day only. */
const FRESH: Pick<Today, 'held' | 'dropped' | 'arranged' | 'done' | 'running' | 'before'> = Object.freeze({
  held: [],
  dropped: [],
  arranged: [],
  done: [],
  running: null,
  before: [],
});
const USUAL: Today = Object.freeze({ ...FRESH, day: 0, minutes: 35, place: 'kit', order: 'in-turn' });

/** A block that began longer ago than this was left: it does not carry its day over midnight. In milliseconds. */
const LEFT_AFTER = 4 * 3_600_000;
/** A block that is over counts no more than this beyond its minutes: the player was elsewhere. */
const MOST_OVER = 5;
/** So many days are remembered. */
const MOST_DAYS = 400;

/** The day's plan as the player wishes it, and how far it has come. */
@Injectable({ providedIn: 'root' })
export class TodayRepo {
  private readonly database = inject(Database);
  private readonly clock = inject(DayService);
  private readonly value = new KeptValue<Today>(this.database, 'today', USUAL);
  private readonly days = new KeptValue<PlanDays>(this.database, 'plan-days', {});
  /** What was planned and played freely, by day. */
  readonly planDays = this.days.now;

  /**
   * The plan of today: of another day only minutes, place and order stay. What runs over midnight is of its own day.
   */
  readonly now = computed((): Today => {
    const kept = this.value.now();
    const day = this.clock.today();
    if (kept.day === day) return kept;
    const goesOn = kept.running && kept.day === day - 1 && now() - kept.running.began < LEFT_AFTER;
    return goesOn ? kept : { ...kept, ...FRESH, day };
  });

  /** Some of it, the rest as it is. */
  change(part: Partial<Today>): Promise<boolean> {
    return this.value.keep({ ...this.now(), ...part });
  }

  /**
   * A block begins. `ready` is what was ready of its phrase before, `rest` the minutes of it that come in later rounds
   * or after a break.
   */
  async begin(block: Block, ready: number | null, rest = 0): Promise<boolean> {
    const state = this.now();
    const { id, kind, phrase, name, bring, minutes, from, to, stage } = block;
    const running: RunningBlock = {
      id,
      kind,
      phrase,
      name: name.slice(0, 200),
      bring: [...bring].slice(0, 4),
      minutes,
      rest,
      from,
      to,
      stage,
      began: now(),
    };
    const known = phrase === null || ready === null || state.before.some((b) => b.id === phrase);
    const before = known ? state.before : [...state.before, { id: phrase, ready }];
    return this.change({ running, before: before.slice(-200) });
  }

  /** Minutes that the block under way has been played, whole, and no more than a few beyond its own. */
  played(): number {
    const { running } = this.now();
    if (!running) return 0;
    const gone = Math.round((now() - running.began) / 60_000);
    return Math.max(0, Math.min(gone, running.minutes + MOST_OVER));
  }

  /** The block under way is over; of free play its minutes are remembered. What was hardly begun is not done. */
  async finish(): Promise<boolean> {
    const { running, done, held, day } = this.now();
    if (!running) return true;
    const minutes = this.played();
    const { id, rest } = running;
    // What is played in the room is timed there.
    if (running.kind === 'play' && running.bring.length === 0) await this.addFree(minutes * 60, day);
    const played = running.phrase === null ? null : await this.secondsOf(running.phrase, running.began);
    // A second press while the log was read is the same act.
    if (this.now().running?.began !== running.began) return true;
    const over = minutes > 0 || running.kind === 'break';
    if (!over) return this.change({ running: null });
    // What is played in rounds is not done with the first of them: its other minutes wait.
    const goesOn = rest > 0 ? [...held.filter((h) => h.id !== id), { id, minutes: rest }] : held;
    return this.change({
      running: null,
      held: goesOn,
      done: [
        ...done,
        {
          id: rest > 0 ? `${id}#${done.length + 1}` : id,
          minutes,
          ...(played === null ? {} : { played: Math.min(minutes, Math.round(played / 60)) }),
        },
      ].slice(-200),
    });
  }

  /** Seconds in which a phrase was played since a moment, as its newest tries tell. */
  private async secondsOf(phrase: string, since: number): Promise<number> {
    const tries = await this.database.read<readonly Attempt[]>([], () => lastTries(this.database.db, phrase));
    return tries.filter((t) => t.at >= since).reduce((sum, t) => sum + t.seconds, 0);
  }

  /** It was not played: back to the plan as if it had not begun. */
  leave(): Promise<boolean> {
    return this.change({ running: null });
  }

  /** What today's practice was to be. */
  planned(minutes: number): Promise<boolean> {
    return this.addDay(this.now().day, { planned: minutes });
  }

  /** Seconds that were played freely. */
  async addFree(seconds: number, day = this.now().day): Promise<boolean> {
    return seconds >= 1 && this.addDay(day, { free: Math.round(seconds) });
  }

  private addDay(day: number, more: { readonly planned?: number; readonly free?: number }): Promise<boolean> {
    const all = this.days.now();
    const before = all[String(day)] ?? { planned: 0, free: 0 };
    const own = {
      planned: Math.min(DAY_MINUTES.most, more.planned ?? before.planned),
      free: Math.min(86_400, before.free + (more.free ?? 0)),
    };
    const kept = Object.entries(all)
      .filter(([d]) => Number(d) > today() - MOST_DAYS)
      .slice(-MOST_DAYS);
    return this.days.keep({ ...Object.fromEntries(kept), [String(day)]: own });
  }
}
