import { barTicks, countedBeats, STRAIGHT, swung, type Feel, type Meter } from '../time';
import { graceCount, isHand, LEVEL_DEFAULTS, otherHand, type Limb, type Stroke, type Voice } from '../stroke';
import { loopTicks, type Pattern } from '../pattern';

/** What can sound: the voices of the kit, and the click with its three weights. */
export type Sound = Voice | 'click-bar' | 'click-group' | 'click-beat';

/** One thing to sound. */
export interface PlaybackEvent {
  /** Ticks from the program's zero, with a fraction where the feel swings. */
  readonly at: number;
  /** Seconds after `at`; negative for grace strokes, which come before their stroke whatever the tempo. */
  readonly offset: number;
  readonly sound: Sound;
  /** 1–127. */
  readonly velocity: number;
  readonly limb: Limb | null;
}

interface LayerEvent extends Omit<PlaybackEvent, 'at'> {
  /** Whole ticks from the layer's beginning. */
  readonly tick: number;
}

/** Events that come round every `period` ticks, from tick `from` on. Each layer has a period of its own, so a five-slot cell runs over a bar's click. */
interface Layer {
  readonly period: number;
  readonly from: number;
  /** Where the layer falls silent; absent for one that goes on. */
  readonly until?: number;
  readonly feel: Feel;
  /** In order of their ticks. */
  readonly events: readonly LayerEvent[];
}

export interface Program {
  readonly layers: readonly Layer[];
  /** Ticks after which the phrase begins again. */
  readonly loop: number;
  /** Ticks of count-in before zero. */
  readonly countIn: number;
}

export type ClickKind = 'none' | 'beats' | 'bar';

export interface ProgramOptions {
  readonly click: ClickKind;
  /** Bars of click before the phrase. */
  readonly countInBars: number;
}

/** Seconds between the grace strokes of an ornament and before the main stroke: a flam near 30 ms, as played at medium tempos. */
const GRACE_GAP = 0.028;
/** Seconds between the bounces of a buzz, and how many sound. */
const BUZZ_GAP = 0.034;
const BUZZ_BOUNCES = 4;
const CLICK_VELOCITY = { 'click-bar': 112, 'click-group': 96, 'click-beat': 78 } as const;

/** The furthest a sound can come before its tick, in seconds: a scheduler must look ahead at least this far. */
export const MOST_LEAD = GRACE_GAP * 3;

/** A pattern and its click as something to play. The phrase starts at zero; the count-in lies before. */
export function programOf(pattern: Pattern, options: ProgramOptions): Program {
  const loop = Math.max(1, loopTicks(pattern));
  const bar = barTicks(pattern.meter);
  const countIn = options.countInBars * bar;
  const phrase: Layer = {
    period: loop,
    from: 0,
    feel: pattern.feel,
    events: pattern.strokes.flatMap((s) => strokeEvents(s, pattern.start + s.at)),
  };
  // The count-in is always every beat, whatever the click does later.
  const counting: Layer = { period: bar, from: -countIn, until: 0, feel: STRAIGHT, events: clickEvents(pattern.meter, 'beats') };
  const click: Layer = { period: bar, from: 0, feel: STRAIGHT, events: clickEvents(pattern.meter, options.click) };
  return { layers: [phrase, counting, click], loop, countIn };
}

function clickEvents(meter: Meter, kind: ClickKind): LayerEvent[] {
  if (kind === 'none') return [];
  return countedBeats(meter)
    .filter((b) => kind === 'beats' || b.number === 1)
    .map((b): LayerEvent => {
      const sound = b.number === 1 ? 'click-bar' : b.leads ? 'click-group' : 'click-beat';
      return { tick: b.start, offset: 0, sound, velocity: CLICK_VELOCITY[sound], limb: null };
    });
}

function strokeEvents(stroke: Stroke, tick: number): LayerEvent[] {
  const main: LayerEvent = { tick, offset: 0, sound: stroke.voice, velocity: LEVEL_DEFAULTS[stroke.level].velocity, limb: stroke.limb };
  if (!stroke.ornament || !isHand(stroke.limb)) return [main];
  if (stroke.ornament === 'buzz') {
    const bounces = Array.from({ length: BUZZ_BOUNCES }, (_, i) => ({
      ...main,
      offset: (i + 1) * BUZZ_GAP,
      velocity: Math.round(main.velocity * 0.6 ** (i + 1)) + 1,
    }));
    return [main, ...bounces];
  }
  const n = graceCount(stroke.ornament);
  const grace = { ...main, velocity: LEVEL_DEFAULTS.ghost.velocity, limb: otherHand(stroke.limb) };
  return [...Array.from({ length: n }, (_, i) => ({ ...grace, offset: -(n - i) * GRACE_GAP })), main];
}

/**
 * Everything whose tick lies in [a, b), in order of time. Ranges that meet give every event exactly once, whatever their size.
 */
export function eventsIn(program: Program, a: number, b: number): readonly PlaybackEvent[] {
  const found: PlaybackEvent[] = [];
  for (const layer of program.layers) {
    const from = Math.max(a, layer.from);
    const to = Math.min(b, layer.until ?? Infinity);
    for (let turn = Math.floor(from / layer.period); turn * layer.period < to; turn++) {
      const base = turn * layer.period;
      for (let i = firstFrom(layer.events, from - base); i < layer.events.length; i++) {
        const event = layer.events[i];
        if (!event || base + event.tick >= to) break;
        const { tick, ...rest } = event;
        found.push({ ...rest, at: swung(base + tick, layer.feel) });
      }
    }
  }
  return found.sort((x, y) => x.at - y.at);
}

/** Index of the first event at or after a tick, found by halving. */
function firstFrom(events: readonly LayerEvent[], tick: number): number {
  let [low, high] = [0, events.length];
  while (low < high) {
    const middle = (low + high) >>> 1;
    if ((events[middle]?.tick ?? Infinity) < tick) low = middle + 1;
    else high = middle;
  }
  return low;
}
