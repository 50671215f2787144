import { retempo, secondsAt, tickAt, type Anchor } from './anchor';

/**
 * When what plays is heard, and how much of it was handed over: the clock arithmetic of the transport, apart from any
 * sound. Anchors are in order; each holds from its tick to the next. Seconds are those of the audio clock.
 */
export interface Timeline {
  readonly anchors: readonly [Anchor, ...Anchor[]];
  /** Everything before this tick was handed over. */
  readonly handedTo: number;
  /** Turns that were told; -1 before the count-in is over. */
  readonly loopsReported: number;
}

/**
 * A timeline that begins at a tick, below 0 for a count-in.
 * @example
 * timelineFrom(-20160, 1, 120, 20160).loopsReported // => -1
 * timelineFrom(40320, 1, 120, 20160).loopsReported // => 2
 */
export function timelineFrom(tick: number, seconds: number, bpm: number, loop: number): Timeline {
  return { anchors: [{ tick, seconds, bpm }], handedTo: tick, loopsReported: tick < 0 ? -1 : Math.floor(tick / loop) };
}

function anchorAtSeconds({ anchors }: Timeline, seconds: number): Anchor {
  return anchors.findLast((a) => a.seconds <= seconds) ?? anchors[0];
}

/** The anchor that holds now and for all that is handed over next. */
export function lastAnchor({ anchors }: Timeline): Anchor {
  return anchors.at(-1) ?? anchors[0];
}

/**
 * Which tick sounds at a time.
 * @example
 * tickHeardAt(timelineFrom(0, 1, 120, 20160), 1.5) // => 5040
 */
export function tickHeardAt(timeline: Timeline, seconds: number): number {
  return tickAt(anchorAtSeconds(timeline, seconds), seconds);
}

/**
 * When a tick sounds.
 * @example
 * secondsOfTick(timelineFrom(0, 1, 120, 20160), 5040) // => 1.5
 */
export function secondsOfTick(timeline: Timeline, tick: number): number {
  return secondsAt(timeline.anchors.findLast((a) => a.tick <= tick) ?? timeline.anchors[0], tick);
}

/** The tick up to which everything must be handed over that sounds before a time. */
export function dueBefore(timeline: Timeline, seconds: number): number {
  return Math.ceil(tickAt(lastAnchor(timeline), seconds));
}

/** The timeline once everything before a tick was handed over. */
export function handed(timeline: Timeline, until: number): Timeline {
  return { ...timeline, handedTo: Math.max(timeline.handedTo, until) };
}

/**
 * Where a change can take effect: the first beat that sounds `lead` seconds from now or later, and not before a change
 * that was made already.
 * @example
 * nextChangeTick(timelineFrom(0, 0, 60, 20160), 1.2, 0.15, 5040) // => 10080
 */
export function nextChangeTick(timeline: Timeline, now: number, lead: number, beat: number): number {
  const soonest = tickHeardAt(timeline, now + lead);
  return Math.max(Math.ceil(soonest / beat) * beat, lastAnchor(timeline).tick);
}

/**
 * The timeline with another tempo from a tick on. What was handed over beyond it must be called back by whoever holds
 * it. With another loop the turns are counted by it from now on.
 */
export function changedAt(
  timeline: Timeline,
  change: number,
  bpm: number,
  loopsReported = timeline.loopsReported,
): Timeline {
  const kept = timeline.anchors.filter((a) => a.tick < change);
  const next = retempo(lastAnchor(timeline), change, bpm);
  return {
    anchors: [kept[0] ?? next, ...kept.slice(1), ...(kept.length > 0 ? [next] : [])],
    handedTo: change,
    loopsReported,
  };
}

/**
 * The turns that were over by a time and are not told yet, the first 0 for the end of the count-in; and the timeline
 * that has told them.
 * @example
 * turnsOver(timelineFrom(-5040, 0, 60, 5040), 3.5, 5040).turns // => [0, 1, 2]
 */
export function turnsOver(
  timeline: Timeline,
  seconds: number,
  loop: number,
): { readonly turns: readonly number[]; readonly timeline: Timeline } {
  const now = Math.floor(tickHeardAt(timeline, seconds) / loop);
  const turns = Array.from(
    { length: Math.max(0, now - timeline.loopsReported) },
    (_, i) => timeline.loopsReported + 1 + i,
  );
  return { turns, timeline: { ...timeline, loopsReported: Math.max(timeline.loopsReported, now) } };
}
