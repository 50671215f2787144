import { ofPhrase, type Attempt } from '../drill';
import { evidenceOf } from './evidence';
import { learnt, unknownYet, type DatedTry, type Known } from './history';
import type { Belief } from './belief';
import type { WholeTry } from './ready';

/** A day of practice on one phrase, and what is believed at its end. */
export interface PractisedDay {
  /** Days since 1970-01-01 on the player's own calendar. */
  readonly day: number;
  /** Seconds in which something was played. */
  readonly seconds: number;
  /** Counted beats that were played. */
  readonly beats: number;
  readonly tries: number;
  readonly clean: number;
  /** The fastest clean tempo of all of the phrase that day; null where it was not clean. */
  readonly best: number | null;
  /** The fastest tempo that was tried. */
  readonly tried: number;
  readonly belief: Belief;
  /** The last tries of the whole phrase, in the order they were played. */
  readonly wholes: readonly Omit<WholeTry, 'day'>[];
}

/** So many tries of the whole phrase are remembered of a day. */
const MOST_WHOLES = 12;

/** What the tries of one phrase come to. */
export interface Practised {
  readonly known: Known;
  readonly days: readonly PractisedDay[];
}

/** Longer than this no single try is: a clock was set, or a room left open. In seconds. */
const LONGEST = 1800;

/**
 * What all tries of a phrase come to, day by day. `ceiling` is in counted beats a minute, `dayOf` gives the practice
 * day of a time. Tries from after `today` are left out, and a clock that was set back counts as the day before it. Null
 * where no player played on a drum.
 */
export function practised(
  tries: readonly Attempt[],
  ceiling: number,
  today: number,
  dayOf: (at: number) => number,
): Practised | null {
  const byDay: { readonly day: number; readonly tries: { readonly one: Attempt; readonly says: DatedTry }[] }[] = [];
  for (const one of tries) {
    const says = evidenceOf(one, dayOf);
    if (!says || says.day > today) continue;
    const last = byDay.at(-1);
    if (last && says.day <= last.day) last.tries.push({ one, says });
    else byDay.push({ day: says.day, tries: [{ one, says }] });
  }
  const [first] = byDay;
  if (!first) return null;
  let known = unknownYet(ceiling, first.day);
  const days = byDay.map(({ day, tries: own }): PractisedDay => {
    known = learnt(
      known,
      own.map((t) => ({ ...t.says, day })),
    );
    const seconds = own.map(({ one }) => Math.min(one.seconds, LONGEST));
    const clean = own.filter(({ one }) => one.verdict === 'clean');
    const best = clean.filter(({ one }) => ofPhrase(one));
    return {
      day,
      seconds: Math.round(seconds.reduce((a, b) => a + b, 0)),
      beats: Math.round(own.reduce((sum, { one }, i) => sum + ((seconds[i] ?? 0) * one.bpm) / 60, 0)),
      tries: own.length,
      clean: clean.length,
      best: best.length > 0 ? Math.max(...best.map(({ one }) => one.bpm)) : null,
      tried: Math.max(...own.map(({ one }) => one.bpm)),
      belief: known.belief,
      wholes: own
        .filter(({ one }) => ofPhrase(one))
        .slice(-MOST_WHOLES)
        .map(({ one }) => ({ bpm: one.bpm, clean: one.verdict === 'clean' })),
    };
  });
  return { known, days };
}

/** The tries of the whole phrase of some days, in the order they were played. */
export function wholesOf(days: readonly Pick<PractisedDay, 'day' | 'wholes'>[]): readonly WholeTry[] {
  return days.flatMap(({ day, wholes }) => wholes.map((t) => ({ ...t, day })));
}
