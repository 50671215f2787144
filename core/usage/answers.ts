import { count, listedUpTo, mod } from '../base';
import { barTicks, countAt, GRID, parseMeter, USUAL_SCHOOLS } from '../time';
import type { FreeSitting, KeptFigure } from '../shelf';
import type { RecallEvent } from './recall';

/** How a phrase was used in free play. */
export interface PhraseUse {
  readonly phrase: string;
  readonly times: number;
  readonly sittings: number;
  /** On which counts of the bar it began, the most frequent first. */
  readonly starts: readonly { readonly count: string; readonly times: number }[];
  /** Counted beats a minute: the slowest and the fastest it was used at. */
  readonly slowest: number;
  readonly fastest: number;
  /** When it was used last, as a time. */
  readonly lastAt: number;
  /** Share of the times it may as well have been another phrase of the shelf. */
  readonly unsure: number;
}

/**
 * How often, where and at what tempos phrases were used, the most used first, of as many times the one that came last,
 * then the one that came first in its sitting. What was called or sent was asked for and is no use.
 * @example
 * usesIn([]) // => []
 */
export function usesIn(sittings: readonly FreeSitting[]): readonly PhraseUse[] {
  const uses = new Map<string, { sitting: FreeSitting; at: number; or: boolean }[]>();
  for (const sitting of sittings) {
    if (!isFree(sitting)) continue;
    for (const c of sitting.came)
      uses.set(c.phrase, [...(uses.get(c.phrase) ?? []), { sitting, at: c.at, or: c.or.length > 0 }]);
  }
  return [...uses]
    .map(([phrase, own]): PhraseUse => {
      const counts = new Map<string, number>();
      for (const { sitting, at } of own) {
        const text = countIn(sitting, at);
        counts.set(text, (counts.get(text) ?? 0) + 1);
      }
      const tempos = own.map((u) => u.sitting.bpm);
      return {
        phrase,
        times: own.length,
        sittings: new Set(own.map((u) => u.sitting.id)).size,
        starts: [...counts].map(([text, times]) => ({ count: text, times })).sort((a, b) => b.times - a.times),
        slowest: Math.min(...tempos),
        fastest: Math.max(...tempos),
        lastAt: Math.max(...own.map((u) => u.sitting.at)),
        unsure: own.filter((u) => u.or).length / own.length,
      };
    })
    .sort((a, b) => b.times - a.times || b.lastAt - a.lastAt);
}

/** What a program played, or fingers on computer keys, is nobody's vocabulary on a drum. */
const isOwn = ({ source, dropped }: FreeSitting): boolean => !dropped && source !== 'simulated' && source !== 'keys';

/** Whether somebody played freely there, on a drum. */
export const isFree = (s: FreeSitting): boolean => isOwn(s) && (s.kind === 'free' || s.kind === 'record');

/** The count of the bar on which something begins: "1", "2&". */
function countIn({ meter }: FreeSitting, at: number): string {
  const own = parseMeter(meter);
  if (!own) return '1';
  const bar = barTicks(own);
  const tick = mod(at, bar);
  const grid = tick % GRID.sixteenths === 0 ? GRID.sixteenths : GRID.triplets;
  return countAt(tick, { meter: own, grid, schools: USUAL_SCHOOLS }).text;
}

/**
 * A use in words.
 * @example
 * useWords({ phrase: 'a', times: 4, sittings: 2, starts: [{ count: '1', times: 4 }], slowest: 92, fastest: 120, lastAt: 0, unsure: 0 }) // => "4 times in 2 sittings, at 92–120, always from the 1"
 * useWords({ phrase: 'a', times: 1, sittings: 1, starts: [{ count: '3&', times: 1 }], slowest: 92, fastest: 92, lastAt: 0, unsure: 0 }) // => "once, at 92, from 3&"
 */
export function useWords({ times, sittings, starts, slowest, fastest }: PhraseUse): string {
  const tempos =
    Math.round(slowest) === Math.round(fastest)
      ? `${Math.round(slowest)}`
      : `${Math.round(slowest)}–${Math.round(fastest)}`;
  const [most] = starts;
  const of = (text: string): string => (text === '1' ? 'the 1' : text);
  const where = !most
    ? ''
    : starts.length === 1
      ? `, ${times > 2 ? 'always ' : ''}from ${of(most.count)}`
      : `, from ${listedUpTo(
          starts.map((s) => of(s.count)),
          3,
        )}`;
  const often = times === 1 ? 'once' : `${times} times${sittings > 1 ? ` in ${count(sittings, 'sitting')}` : ''}`;
  return `${often}, at ${tempos}${where}`;
}

/** What a phrase of the shelf says to who asks what is used. */
export interface Drilled {
  readonly id: string;
  /** The fastest clean tempo, in counted beats a minute; null where none was. */
  readonly clean: number | null;
  readonly lastAt: number | null;
}

/**
 * Phrases that were played clean and never used, those played last first: what is drilled, and does not come yet.
 * @example
 * neverUsed([{ id: 'a', clean: 100, lastAt: 3 }, { id: 'b', clean: null, lastAt: 4 }], []) // => ["a"]
 */
export function neverUsed(drilled: readonly Drilled[], uses: readonly PhraseUse[]): readonly string[] {
  const used = new Set(uses.map((u) => u.phrase));
  return drilled
    .filter((d) => d.clean !== null && !used.has(d.id))
    .sort((a, b) => (b.lastAt ?? 0) - (a.lastAt ?? 0) || (a.id < b.id ? -1 : 1))
    .map((d) => d.id);
}

/** A figure of more sittings: the same strokes on the same grid are one. */
export interface OwnFigure extends KeptFigure {
  readonly times: number;
  readonly sittings: number;
  readonly meter: string;
  readonly bpm: number;
}

/**
 * What is played often and is no phrase of the shelf, over all sittings: the longest first, of the same length the most
 * frequent.
 */
export function figuresOf(sittings: readonly FreeSitting[]): readonly OwnFigure[] {
  const all = new Map<string, OwnFigure>();
  for (const sitting of sittings.filter(isFree))
    for (const figure of sitting.figures) {
      const key = `${sitting.meter}|${figure.grid}|${figure.text}`;
      const known = all.get(key);
      all.set(key, {
        ...figure,
        meter: sitting.meter,
        bpm: sitting.bpm,
        times: (known?.times ?? 0) + figure.at.length,
        sittings: (known?.sittings ?? 0) + 1,
      });
    }
  const long = (f: OwnFigure): number => f.text.split(' ').length * f.grid;
  return [...all.values()].sort((a, b) => long(b) - long(a) || b.times - a.times);
}

/** Whether and when a phrase came by itself: uses, and calls. `dayOf` gives the practice day of a time. */
export function recallEvents(
  sittings: readonly FreeSitting[],
  dayOf: (at: number) => number,
): ReadonlyMap<string, readonly RecallEvent[]> {
  const events = new Map<string, RecallEvent[]>();
  const add = (phrase: string, event: RecallEvent): void => {
    events.set(phrase, [...(events.get(phrase) ?? []), event]);
  };
  for (const s of sittings) {
    if (!isOwn(s)) continue;
    const day = dayOf(s.at);
    if (isFree(s)) for (const c of s.came) add(c.phrase, { day, came: 'at once' });
    for (const c of s.calls) add(c.phrase, { day, came: c.came });
  }
  return events;
}
