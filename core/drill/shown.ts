import { ofWhole } from './of-whole';
import { isEvidence } from './played';
import type { Attempt } from './state';

/** A clean try of a whole phrase: what it shows of what can be played. Times are milliseconds since 1970. */
export interface ShownTry {
  readonly bpm: number;
  readonly at: number;
  /** Whether a kit measured it; else an ear judged it. */
  readonly measured: boolean;
}

/** The tempo that was shown: by one measured try, or by two that the ear judged. */
export interface ShownTempo {
  readonly bpm: number;
  readonly at: number;
  readonly how: 'measured' | 'ear';
}

/** For so long a clean try proves what can be played, in milliseconds: 90 days. */
export const SHOWN_FOR = 90 * 24 * 60 * 60 * 1000;
/** By ear so many tries prove it. */
const BY_EAR = 2;
/** Tries that are remembered; those that others outdo are not. */
const MOST = 12;

/**
 * What is remembered of clean tries when one more comes: those that no others outdo by being as fast and newer. A
 * microphone at a pad hears strokes, but not that the way between the drums was gone: it counts as an ear.
 */
export function withShown(before: readonly ShownTry[], attempt: Attempt): readonly ShownTry[] {
  const { verdict, source, measured, bpm, at } = attempt;
  if (verdict !== 'clean' || !ofWhole(attempt) || !isEvidence(attempt)) return before;
  const own: ShownTry = { bpm, at, measured: source === 'midi' && measured !== undefined };
  const all = [...before, own];
  const outdone = (t: ShownTry): boolean => {
    const better = all.filter((o) => o !== t && o.bpm >= t.bpm && o.at >= t.at && (o.measured || !t.measured));
    return better.length >= BY_EAR;
  };
  return all
    .filter((t) => !outdone(t))
    .sort((a, b) => b.at - a.at || b.bpm - a.bpm)
    .slice(0, MOST);
}

/**
 * The fastest tempo that was shown in the last 90 days and since the phrase was changed; null when nothing was.
 * @example
 * shownTempo([{ bpm: 97, at: 5, measured: true }], 0, 10) // => { bpm: 97, at: 5, how: 'measured' }
 * shownTempo([{ bpm: 97, at: 5, measured: false }], 0, 10) // => null
 * shownTempo([{ bpm: 97, at: 5, measured: false }, { bpm: 99, at: 6, measured: false }], 0, 10) // => { bpm: 97, at: 5, how: 'ear' }
 */
export function shownTempo(tries: readonly ShownTry[], changed: number, now: number): ShownTempo | null {
  const fresh = tries
    .filter((t) => t.at >= changed && t.at >= now - SHOWN_FOR)
    .sort((a, b) => b.bpm - a.bpm || b.at - a.at);
  const measured = fresh.find((t) => t.measured);
  // As many as it needs were at least so fast.
  const heard = fresh[BY_EAR - 1];
  if (measured && (!heard || measured.bpm >= heard.bpm)) return { bpm: measured.bpm, at: measured.at, how: 'measured' };
  return heard ? { bpm: heard.bpm, at: heard.at, how: 'ear' } : null;
}
