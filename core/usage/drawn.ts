import { barTicks, ticks, type Meter } from '../time';
import { tidy, type Pattern } from '../pattern';
import { isHand, otherHand, usualVoice, type Limb, type Stroke } from '../stroke';
import type { Lattice } from './lattice';

/**
 * A stretch of what was played as a pattern to be drawn and put on the Bench. Where no limb was told hands are those of
 * `like`, a phrase that begins at a tick, or take turns.
 * @param from ticks from the first bar line, on the lattice; `until` is not in it any more
 */
export function playedPattern(
  lattice: Lattice,
  meter: Meter,
  from: number,
  until: number,
  like: { readonly pattern: Pattern; readonly at: number; readonly swapped: boolean } | null = null,
): Pattern {
  const { grid, slots } = lattice;
  const strokes: Stroke[] = [];
  let last: Limb = 'L';
  for (let at = from; at < until; at += grid) {
    const written = (like?.pattern.strokes ?? []).filter((s) => like && like.at + s.at === at && isHand(s.limb));
    const hands = (slots[Math.round(at / grid)] ?? []).filter((h) => h.kind === 'hand').slice(0, 2);
    const feet = (slots[Math.round(at / grid)] ?? []).filter((h) => h.kind !== 'hand');
    hands.forEach((hit, i) => {
      const own = written[i]?.limb ?? null;
      const hand = hit.limb ?? (own ? (like?.swapped === true ? otherHand(own) : own) : otherHand(last));
      last = hand;
      strokes.push(strokeAt(at - from, hand, hit.voice ?? usualVoice(hand), hit.loud));
    });
    for (const hit of feet) {
      const foot: Limb = hit.kind === 'kick' ? 'K' : 'H';
      strokes.push(strokeAt(at - from, foot, hit.voice ?? usualVoice(foot), null));
    }
  }
  return tidy({
    meter,
    grid: ticks(grid),
    feel: { kind: 'straight' },
    start: ticks(from % barTicks(meter)),
    length: ticks(Math.max(grid, until - from)),
    strokes,
    groups: [],
  });
}

const strokeAt = (at: number, limb: Limb, voice: Stroke['voice'], loud: boolean | null): Stroke => ({
  at: ticks(at),
  limb,
  voice,
  level: loud === true ? 'accent' : 'tap',
  from: { index: 0, repeat: 0, move: null },
});

/** Bars with nothing in them: a click to play over. */
export function openBars(meter: Meter, grid: Pattern['grid'], bars: number): Pattern {
  return {
    meter,
    grid,
    feel: { kind: 'straight' },
    start: ticks(0),
    length: ticks(bars * barTicks(meter)),
    strokes: [],
    groups: [],
  };
}
