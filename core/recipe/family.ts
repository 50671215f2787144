import { backbeatTicks, barTicks, beatTicks } from '../time';
import { isHand, VOICE } from '../stroke';
import { barsSpan, untilLanding, landingAt, rolesOf, type Pattern } from '../pattern';
import type { Family } from './phrase';

/** What a phrase most likely is, and what it could be as well; null where there is no doubt. */
export interface FamilyGuess {
  readonly family: Family;
  readonly near: Family | null;
}

/** Time is kept where it is struck in this share of the beats; from the lesser one on it is asked. */
const KEPT = { sure: 0.75, near: 0.4 } as const;

/**
 * What a phrase that nobody has named yet most likely is, by what it does: what lands is a fill, or a lick where it is
 * no longer than half a bar; what goes round in whole bars with time kept in it, or as a beat of kick and backbeats, is
 * a groove; all else is a fill or a lick by its length.
 * @example
 * guessFamily(patternOfText(parseStrokeText('R[hat]+K R[hat] R[hat]+L! R[hat]').value, meter(2, 4), GRID.eighths)) // => { family: 'groove', near: null }
 * guessFamily(patternOfText(parseStrokeText('K - L! -').value, meter(2, 4), GRID.eighths)) // => { family: 'groove', near: null }
 */
export function guessFamily(pattern: Pattern): FamilyGuess {
  const bar = barTicks(pattern.meter);
  const own = untilLanding(pattern);
  if (landingAt(pattern) !== null) {
    // What leads to the landing is as long as it is played, not as the bar it stands in.
    const played = (own.strokes.at(-1)?.at ?? 0) + pattern.grid;
    return { family: played <= bar / 2 ? 'lick' : 'fill', near: null };
  }
  const short: Family = own.length <= bar / 2 ? 'lick' : 'fill';
  const goesRound = pattern.start === 0 && pattern.length >= bar && pattern.length % bar === 0;
  if (!goesRound || !rolesOf(pattern).includes('primary')) return { family: short, near: null };
  if (isBeat(pattern)) return { family: 'groove', near: null };
  const kept = timeKept(pattern);
  if (kept >= KEPT.sure) return { family: 'groove', near: null };
  return kept >= KEPT.near ? { family: 'groove', near: 'fill' } : { family: short, near: null };
}

/**
 * What a phrase that nobody has named yet most likely is.
 * @example
 * familyOf(patternOfText(parseStrokeText('R l l R K').value, meter(4, 4), GRID.sixteenths)) // => "lick"
 * familyOf(patternOfText(parseStrokeText('(R L)x8').value, meter(4, 4), GRID.sixteenths)) // => "fill"
 */
export function familyOf(pattern: Pattern): Family {
  return guessFamily(pattern).family;
}

/** The share of beats in which a hand keeps time on hats or ride. */
function timeKept(pattern: Pattern): number {
  const beat = beatTicks(pattern.meter);
  const beats = Math.max(1, Math.round(pattern.length / beat));
  const times = pattern.strokes.filter((s) => isHand(s.limb) && VOICE[s.voice].keepsTime);
  return new Set(times.map((s) => Math.floor(s.at / beat))).size / beats;
}

/** A beat of kick and snare: in every bar the snare answers where it does, and elsewhere hands only ghost. */
function isBeat(pattern: Pattern): boolean {
  const bar = barTicks(pattern.meter);
  const back = new Set<number>(backbeatTicks(pattern.meter));
  const heard = pattern.strokes.filter((s) => isHand(s.limb) && s.level !== 'ghost' && !VOICE[s.voice].keepsTime);
  if (back.size === 0 || heard.some((s) => VOICE[s.voice].piece !== 'snare' || !back.has(s.at % bar))) return false;
  return Array.from({ length: barsSpan(pattern).bars }, (_, n) => n).every((n) => {
    const inBar = (at: number): boolean => Math.floor(at / bar) === n;
    const kicks = pattern.strokes.some((s) => inBar(s.at) && VOICE[s.voice].piece === 'kick');
    return kicks && [...back].every((t) => heard.some((s) => s.at === n * bar + t));
  });
}
