import type { Attempt } from '@core/drill';
import { namedFix, planToday, type NamedFix, type PlanPhrase, type TodayAsked, type TodayPlan } from '@core/plan';
import {
  chanceAt,
  knownUnder,
  onDay,
  practised,
  projected,
  readySaid,
  shareOf,
  shareWithout,
  unknownYet,
  USUAL_SHARE,
  wholesOf,
  type Belief,
  type Known,
  type PractisedDay,
} from '@core/player';
import { mostAvoided, practiceDays, type Avoided } from '@core/log';
import type { NightPhrase } from '@core/show';
import { TEMPO } from '@core/time';
import { practiceDay } from '../../environment/clock';
import type { Entry } from './entries';
import type { Believed, LookBack, PhraseLog } from './entry';

/** What the tries of a phrase came to, kept beside the index between visits. */
export interface Played {
  /** What it was worked out from: a log that changed is read again. */
  readonly for: string;
  /** Under the usual share, and the ceiling of that time. */
  readonly known: Known;
  readonly days: readonly PractisedDay[];
  readonly fix: NamedFix | null;
}

/** Of a phrase that nothing limits any tempo may be expected. */
const ceilingOf = ({ top }: Entry): number => top?.bpm ?? TEMPO.most;

/** What is clean at its goal by this chance is owned; after so many days without it is avoided; so many are named. */
const OWNED_AT = 0.8;
const AVOIDED_FROM = 7;
const MOST_AVOIDED = 40;
/** One list for all that was never played: what is worked out of it is worked out once. */
const NO_DAYS: readonly PractisedDay[] = [];

/** So much of a logarithm moves a tempo by less than a beat. */
const LITTLE = 0.004;

/** What a log is known by. */
export function logKey({ best }: Entry): string {
  return [best.attempts, best.lastAt, best.clean, best.cleanAt, best.edited ?? 0].join('|');
}

/**
 * What is known of the player, from all that was played: beliefs, the own share, the day's plan. It is worked out once
 * for each log that changed, and asked then without reading any.
 */
export class Practice {
  private readonly played = new Map<string, Played>();
  private readonly told = new Map<string, { readonly key: string; readonly believed: Believed }>();
  private share: Belief | null = null;
  /** The share that was told: what moves it by less than can be seen changes nothing that was told. */
  private toldShare: Belief = USUAL_SHARE;

  /** What was worked out before, of phrases whose log is the same. */
  put(rows: readonly (readonly [string, Played])[]): void {
    for (const [id, one] of rows) if (!this.played.has(id)) this.played.set(id, one);
    this.share = null;
  }

  /** Ceilings have changed, or the phrases that are there: the share is found anew. */
  stale(): void {
    this.share = null;
  }

  of(id: string): Played | null {
    return this.played.get(id) ?? null;
  }

  /** Whether the log of a phrase is to be read. */
  isMissing(entry: Entry): boolean {
    return entry.best.attempts > 0 && this.played.get(entry.id)?.for !== logKey(entry);
  }

  /** Reads the log of a phrase. */
  workOut(entry: Entry, tries: readonly Attempt[], today: number): void {
    const found = practised(tries, ceilingOf(entry), today, practiceDay);
    const empty = { known: unknownYet(ceilingOf(entry), today), days: [] };
    this.played.set(entry.id, { for: logKey(entry), ...(found ?? empty), fix: namedFix(tries) });
    this.share = null;
  }

  forget(id: string): void {
    if (this.played.delete(id)) this.share = null;
  }

  /** The fastest tempo of all of a phrase that was clean by a day; null where none was. */
  bestBy(id: string, day: number): number | null {
    const bests = (this.played.get(id)?.days ?? []).flatMap((d) => (d.day <= day && d.best !== null ? [d.best] : []));
    return bests.length > 0 ? Math.max(...bests) : null;
  }

  /** The player's own share of their ceilings, as all other phrases give it. */
  shareFor(entries: readonly Entry[], id: string): Belief {
    const share = this.shareNow(entries);
    const [entry, played] = [entries.find((e) => e.id === id), this.played.get(id)];
    return entry && played ? shareWithout(share, { known: played.known, ceiling: ceilingOf(entry) }) : share;
  }

  /** What is believed of a phrase today; null before any try. */
  believed(entries: readonly Entry[], entry: Entry, today: number): Believed | null {
    const played = this.played.get(entry.id);
    if (!played || played.known.tries === 0) return null;
    const share = this.shareNow(entries);
    if (Math.abs(share.mean - this.toldShare.mean) > LITTLE) {
      this.toldShare = share;
      this.told.clear();
    }
    const key = [played.for, ceilingOf(entry), entry.goal, today].join('|');
    const before = this.told.get(entry.id);
    if (before?.key === key) return before.believed;
    const belief = onDay(this.knownOf(entries, entry), today);
    const believed = {
      ready: readySaid(belief, wholesOf(played.days), entry.top?.bpm ?? null),
      atGoal: chanceAt(belief, entry.goal),
      tries: played.known.tries,
      days: played.known.days,
      due: played.known.memory.dueDay,
    };
    this.told.set(entry.id, { key, believed });
    return believed;
  }

  /** What is known of a phrase when a night is looked ahead to. */
  nightOf(entries: readonly Entry[], entry: Entry): NightPhrase {
    return {
      known: this.knownOf(entries, entry),
      days: this.played.get(entry.id)?.days ?? NO_DAYS,
      ceiling: ceilingOf(entry),
    };
  }

  /** The day as it is best practised; `comes` says how surely phrases come by themselves; null where nobody heard. */
  plan(
    entries: readonly Entry[],
    asked: Omit<TodayAsked, 'strokes'>,
    comes: ReadonlyMap<string, number> | null,
  ): TodayPlan {
    const phrases = entries.flatMap((e): PlanPhrase[] => {
      if (!e.facts || e.facts.limbs.length === 0) return [];
      const played = this.played.get(e.id);
      return [
        {
          id: e.id,
          name: e.name.slice(0, 200),
          family: e.family,
          goal: e.goal,
          by: e.by,
          ceiling: ceilingOf(e),
          best: e.best.clean,
          known: this.knownOf(entries, e),
          days: played?.days ?? [],
          hands: e.facts.hands,
          kit: e.facts.voices.length > 1,
          fix: played?.fix ?? null,
          ...(comes ? { comes: comes.get(e.id) ?? null } : {}),
        },
      ];
    });
    return planToday(phrases, { ...asked, strokes: this.strokes(entries, asked.day) });
  }

  /** The days of one phrase with what was believed at their ends, and when its goal will be ready. */
  phraseLog(entries: readonly Entry[], entry: Entry, today: number): PhraseLog {
    const played = this.played.get(entry.id);
    if (!played || played.known.tries === 0)
      return { days: [], projection: null, ready: null, ceiling: entry.top?.bpm ?? null };
    const belief = onDay(this.knownOf(entries, entry), today);
    return {
      days: played.days,
      projection: projected(belief, played.days, entry.goal, today),
      ready: this.believed(entries, entry, today)?.ready ?? null,
      ceiling: entry.top?.bpm ?? null,
    };
  }

  /** All that was practised, day by day, and what is owned and avoided. */
  lookBack(entries: readonly Entry[], today: number): LookBack {
    const known = entries.flatMap((e) => {
      const played = this.played.get(e.id);
      return e.facts && played ? [{ id: e.id, family: e.family, hands: e.facts.hands, days: played.days }] : [];
    });
    const avoided = entries.flatMap((e): Avoided[] => {
      const last = this.played.get(e.id)?.days.at(-1);
      const days = last ? today - last.day : 0;
      if (!e.believed || e.believed.atGoal < OWNED_AT || days < AVOIDED_FROM) return [];
      const night = e.by && e.by.day >= today ? e.by.day - today : null;
      return [{ id: e.id, name: e.name.slice(0, 200), days, sure: e.believed.atGoal, night }];
    });
    return { days: practiceDays(known), avoided: mostAvoided(avoided).slice(0, MOST_AVOIDED) };
  }

  /** Strokes of the busier hand today, and on each day of the week before. */
  private strokes(entries: readonly Entry[], day: number): TodayAsked['strokes'] {
    const by = Array.from({ length: 8 }, () => ({ R: 0, L: 0 }));
    for (const { id, facts } of entries)
      for (const d of this.played.get(id)?.days ?? []) {
        const own = by[day - d.day];
        if (!own || !facts) continue;
        own.R += d.beats * facts.hands.R;
        own.L += d.beats * facts.hands.L;
      }
    const [now = 0, ...week] = by.map(({ R, L }) => Math.round(Math.max(R, L)));
    return { today: now, week };
  }

  private knownOf(entries: readonly Entry[], entry: Entry): Known {
    const ceiling = ceilingOf(entry);
    const played = this.played.get(entry.id);
    const share = this.shareNow(entries);
    if (!played || played.known.tries === 0) return unknownYet(ceiling, 0, share);
    return knownUnder(played.known, ceiling, shareWithout(share, { known: played.known, ceiling }));
  }

  private shareNow(entries: readonly Entry[]): Belief {
    this.share ??=
      this.played.size === 0
        ? USUAL_SHARE
        : shareOf(
            entries.flatMap((e) => {
              const played = this.played.get(e.id);
              return played && played.known.tries > 0 ? [{ known: played.known, ceiling: ceilingOf(e) }] : [];
            }),
          );
    return this.share;
  }
}
