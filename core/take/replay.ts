import { barTicks, quarterTempo, STRAIGHT, TICKS_PER_QUARTER } from '../time';
import { usualVoice } from '../stroke';
import type { PlayRequest } from '../playback';
import { requestOf, type Rendition } from '../rendition';
import type { Hit } from './hit';

/** How loud a hit is that nothing tells the loudness of. */
const USUAL_VELOCITY = 80;

/**
 * What is heard of a take: what was struck, what was meant, or both on each other, where late strokes sound as flams.
 */
export const REPLAYS = ['struck', 'both', 'meant'] as const;
export type Replay = (typeof REPLAYS)[number];

/**
 * A take to be heard with the click it was played against: each hit at its true time, what was meant beside it or
 * alone. Hits are in seconds from the first bar line, the tempo in counted beats a minute.
 */
export function replayOf(meant: Rendition, bpm: number, hits: readonly Hit[], what: Replay = 'struck'): PlayRequest {
  const { pattern, program } = meant;
  const ticksPerSecond = (quarterTempo(bpm, pattern.meter) * TICKS_PER_QUARTER) / 60;
  const bar = barTicks(pattern.meter);
  const last = Math.max(0, ...hits.map((h) => h.seconds * ticksPerSecond));
  const length = (Math.floor(last / bar) + 2) * bar;
  const events = hits
    .filter((h) => h.seconds * ticksPerSecond + bar > 0)
    .map((h) => {
      const tick = Math.max(0, Math.floor(h.seconds * ticksPerSecond));
      return {
        tick,
        offset: h.seconds - tick / ticksPerSecond,
        sound: h.voice ?? (h.limb ? usualVoice(h.limb) : ('snare' as const)),
        velocity: h.velocity ?? USUAL_VELOCITY,
        limb: h.limb ?? ('R' as const),
        part: 'primary' as const,
      };
    })
    .sort((a, b) => a.tick - b.tick);
  const [phrase, ...click] = program.layers;
  const turns = Math.floor(last / program.loop) + 1;
  const written = Array.from({ length: turns }, (_, turn) =>
    (phrase?.events ?? []).map((e) => ({ ...e, tick: e.tick + turn * program.loop })),
  ).flat();
  const heard = [
    ...(what === 'meant' ? [] : [{ period: length, from: 0, feel: STRAIGHT, events }]),
    ...(what === 'struck' ? [] : [{ period: length, from: 0, feel: pattern.feel, events: written }]),
  ];
  return { ...requestOf(meant, bpm), program: { ...program, layers: [...heard, ...click], loop: length } };
}
