import { clamp } from '../base';
import { graceLeads, otherHand, type Limb } from '../stroke';
import type { Expected } from '../rendition';
import type { Hit } from './hit';
import { eighthOf, offBeat } from './off-beat';
import { chanceOf } from './random';

/**
 * A stand-in for a player, with faults that can be set: what a take of it measures can be held against what was set.
 */
export interface Player {
  /** Milliseconds by which everything is late (above 0) or early. */
  readonly bias: number;
  /** Spread of each stroke round its place, in milliseconds. */
  readonly spread: number;
  /** Milliseconds a minute by which the player runs away (below 0) or falls back. */
  readonly drift: number;
  /** A limb that is late beside the others, and by how many milliseconds. */
  readonly weak: { readonly limb: Limb; readonly late: number } | null;
  /** Shares of strokes that are left out, and of strokes added between. */
  readonly missed: number;
  readonly extra: number;
  /** Share of kicks that are dropped. */
  readonly droppedKicks: number;
  /** Share by which a tempo of its own is slower (above 0) or faster than what is meant. */
  readonly slower: number;
  /** Where the second 16th of each eighth falls, in percent of it: 50 is straight. */
  readonly swing: number;
  /** Only this share of each loop is played, from its beginning. */
  readonly part: number;
  /** Whether flams, drags and ruffs have their grace strokes. */
  readonly graces: boolean;
}

/** A player with small human faults and no great one. */
export const USUAL_PLAYER: Player = Object.freeze({
  bias: 2,
  spread: 5,
  drift: 0,
  weak: null,
  missed: 0,
  extra: 0,
  droppedKicks: 0,
  slower: 0,
  swing: 50,
  part: 1,
  graces: true,
});

/** What a simulated player did, and the truth about it: which strokes were left out, and how many were added. */
export interface Performance {
  readonly hits: readonly Hit[];
  /** Places in the list of expected strokes that were left out. */
  readonly missed: readonly number[];
  readonly extra: number;
  /** Which hit answers which expected stroke, and by how many milliseconds it is late. */
  readonly truth: readonly { readonly expected: number; readonly hit: number; readonly late: number }[];
}

/**
 * Plays expected strokes with a player's faults. The same seed gives the same performance. Hits come in order of time.
 * `began` is when the playing began, in the seconds of the strokes, where they are but a part of it.
 */
export function perform(
  expected: readonly Expected[],
  player: Player,
  seed: number,
  began = expected[0]?.seconds ?? 0,
): Performance {
  const chance = chanceOf(seed);
  const played: { readonly hit: Hit; readonly expected: number | null; readonly late: number }[] = [];
  const missed: number[] = [];
  let extra = 0;
  const places = new Set(expected.map((e) => e.index)).size;
  const pair = eighthOf(expected);
  const later = laterThan(expected);
  expected.forEach((e, i) => {
    // Every stroke draws the same number of chances, so that one setting does not change what another one means.
    const [off, loud, leaves, adds] = [chance.normal(), chance.normal(), chance.next(), chance.next()];
    const foot = e.limb === 'K' || e.limb === 'J';
    const isOut = e.index >= places * player.part;
    if (isOut || leaves < player.missed || (foot && leaves < player.droppedKicks)) {
      missed.push(i);
      return;
    }
    const weak = player.weak?.limb === e.limb ? player.weak.late : 0;
    const since = e.seconds - began;
    const swung = offBeat(e.tick).sixteenth ? ((player.swing - 50) / 100) * pair : 0;
    const late =
      (player.bias + weak + player.spread * off + (player.drift * since) / 60) / 1000 + player.slower * since + swung;
    played.push({
      hit: {
        seconds: e.seconds + late,
        limb: e.limb,
        voice: e.voice,
        velocity: clamp(Math.round(e.velocity + loud * 6), 1, 127),
      },
      expected: i,
      late: late * 1000,
    });
    // Grace strokes come with their stroke, softly, by the hand and on the drum that are written.
    const { limb, voice } = e.graces ?? { limb: otherHand(e.limb), voice: e.voice };
    for (const lead of e.ornament && player.graces ? graceLeads(e.ornament) : [])
      played.push({
        hit: { seconds: e.seconds + late - lead, limb, voice, velocity: 30 },
        expected: null,
        late: 0,
      });
    const next = later[i] ?? null;
    if (adds < player.extra && next !== null) {
      extra++;
      played.push({
        hit: { seconds: (e.seconds + next) / 2, limb: e.limb, voice: e.voice, velocity: 40 },
        expected: null,
        late: 0,
      });
    }
  });
  played.sort((a, b) => a.hit.seconds - b.hit.seconds);
  const truth = played.flatMap(({ expected: of, late }, hit) => (of === null ? [] : [{ expected: of, hit, late }]));
  return { hits: played.map((p) => p.hit), missed, extra, truth };
}

/** For each stroke the next time at which anything is expected later than it; null for the last. */
function laterThan(expected: readonly Expected[]): readonly (number | null)[] {
  const found: (number | null)[] = expected.map(() => null);
  for (let i = expected.length - 2; i >= 0; i--) {
    const [own, next] = [expected[i]?.seconds ?? 0, expected[i + 1]?.seconds ?? 0];
    found[i] = next > own ? next : (found[i + 1] ?? null);
  }
  return found;
}

/**
 * A steady stream of one limb at a rate, in strokes a second, for so many seconds: what a limb test listens to. Doubles
 * come in pairs with a breath as long as two strokes.
 */
export function steadyStream(limb: Limb, rate: number, seconds: number, doubles: boolean): readonly Expected[] {
  const many = Math.floor(rate * seconds * (doubles ? 0.5 : 1));
  return Array.from({ length: many }, (_, i): Expected => {
    const at = doubles ? (Math.floor(i / 2) * 4 + (i % 2)) / rate : i / rate;
    return {
      index: 0,
      turn: i,
      seconds: at,
      limb,
      voice: limb === 'K' || limb === 'J' ? 'kick' : limb === 'H' ? 'hat-foot' : 'snare',
      velocity: 80,
    };
  });
}
