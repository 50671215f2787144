import { barTicks, countedBeats, secondsOf, STRAIGHT, swung, type Feel } from '../time';
import { graceCount, isHand, LEVEL_DEFAULTS, otherHand, type Limb, type Stroke, type Voice } from '../stroke';
import { loopTicks, rolesOf, type Pattern, type Role } from '../pattern';

/**
 * Tones that count, where nobody speaks: each beat of the bar a step higher than the one before, the half of a beat and
 * the slots between lower and softer.
 */
export const COUNT_TONES = [
  'count-1',
  'count-2',
  'count-3',
  'count-4',
  'count-5',
  'count-6',
  'count-7',
  'count-8',
  'count-half',
  'count-slot',
] as const;
export type CountTone = (typeof COUNT_TONES)[number];
const BEAT_TONES = COUNT_TONES.slice(0, 8);

/** What can sound: the voices of the kit, the click with its three weights, and tones that count. */
export type Sound = Voice | 'click-bar' | 'click-group' | 'click-beat' | CountTone;

/** What has a loudness of its own: the roles of the phrase, the click and the counts. */
export const PARTS = ['primary', 'timekeeping', 'texture', 'click', 'counts'] as const;
export type Part = Role | 'click' | 'counts';

/** How loud each part sounds: 1 is usual, 0 silent, `LOUDEST` the most. */
export type Loudness = Readonly<Record<Part, number>>;
export const LOUDEST = 1.5;

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
  readonly part: Part;
}

interface LayerEvent extends Omit<PlaybackEvent, 'at'> {
  /** Whole ticks from the layer's beginning. */
  readonly tick: number;
}

/**
 * Events that come round every `period` ticks, from tick `from` on. Each layer has a period of its own, so a five-slot
 * cell runs over a bar's click.
 */
interface Layer {
  readonly period: number;
  readonly from: number;
  /** Where the layer falls silent; absent for one that goes on. */
  readonly until?: number;
  readonly feel: Feel;
  /** Tick of the bar line's count at the layer's zero, where the layer is a part of a phrase: the feel swings by it. */
  readonly origin?: number;
  /** In order of their ticks. */
  readonly events: readonly LayerEvent[];
}

export interface Program {
  readonly layers: readonly Layer[];
  /** Ticks after which the phrase begins again. */
  readonly loop: number;
  /** Ticks of count-in before zero. */
  readonly countIn: number;
  /** Tick of the pattern's first bar line that sounds at the program's zero: 0 but for a range. */
  readonly origin: number;
}

/**
 * What the click marks: nothing, every beat, the slots of the home grid, the middle of each beat, every second beat, or
 * the bar alone.
 */
export const CLICK_KINDS = ['beats', 'subdivision', 'off-beats', 'two-and-four', 'bar', 'none'] as const;
export type ClickKind = (typeof CLICK_KINDS)[number];

/** A click that falls silent: it sounds for some bars, then not for some, and so on. */
export interface ClickGap {
  readonly sounding: number;
  readonly silent: number;
}

/** How loud a phrase is played as a whole, and what that does to its velocities. */
export const DYNAMICS = ['soft', 'medium', 'loud'] as const;
export type Dynamic = (typeof DYNAMICS)[number];
const LOUDER: Readonly<Record<Dynamic, number>> = { soft: 0.6, medium: 1, loud: 1.3 };

export interface ProgramOptions {
  readonly click: ClickKind;
  /** Bars of click before the phrase. */
  readonly countInBars: number;
  readonly gap?: ClickGap;
  /** Whether the beats and slots are counted by tones. */
  readonly counts?: boolean;
  /** How loud the phrase is meant; medium when absent. */
  readonly dynamic?: Dynamic;
  /** Only this part of the pattern, in ticks from its start, round and round; it sounds from the program's zero on. */
  readonly range?: { readonly from: number; readonly until: number };
}

/**
 * Seconds between the grace strokes of an ornament and before the main stroke: a flam near 30 ms, as played at medium
 * tempos.
 */
const GRACE_GAP = 0.028;
/** Seconds between the bounces of a buzz, and how many sound. */
const BUZZ_GAP = 0.034;
const BUZZ_BOUNCES = 4;
const CLICK_VELOCITY = { 'click-bar': 112, 'click-group': 96, 'click-beat': 78 } as const;

/** The furthest a sound can come before its tick, in seconds: a scheduler must look ahead at least this far. */
export const MOST_LEAD = GRACE_GAP * 3;

/** A pattern and its click as something to play. The phrase starts at zero; the count-in lies before. */
export function programOf(pattern: Pattern, options: ProgramOptions): Program {
  const bar = barTicks(pattern.meter);
  const countIn = options.countInBars * bar;
  // The count-in is always every beat, whatever the click does later.
  const counting: Layer = {
    period: bar,
    from: -countIn,
    until: 0,
    feel: STRAIGHT,
    events: clickEvents(pattern, 'beats'),
  };
  const click = clickLayer(pattern, options, bar);
  const roles = rolesOf(pattern);
  const louder = LOUDER[options.dynamic ?? 'medium'];
  const events = pattern.strokes.flatMap((s, i) =>
    strokeEvents(s, pattern.start + s.at, roles[i] ?? 'texture', louder),
  );
  const counts: Layer[] = options.counts
    ? [{ period: bar, from: 0, feel: pattern.feel, events: countEvents(pattern) }]
    : [];
  if (options.range) {
    const origin = pattern.start + options.range.from;
    const loop = Math.max(1, options.range.until - options.range.from);
    return {
      layers: [
        ranged(events, pattern.feel, origin, loop),
        counting,
        ranged(turned(click, origin + loop), STRAIGHT, origin, loop),
        ...counts.map((c) => ranged(turned(c, origin + loop), c.feel, origin, loop)),
      ],
      loop,
      countIn,
      origin,
    };
  }
  const loop = Math.max(1, loopTicks(pattern));
  return {
    layers: [{ period: loop, from: 0, feel: pattern.feel, events }, counting, click, ...counts],
    loop,
    countIn,
    origin: 0,
  };
}

/** Events of [origin, origin + loop) as a layer that begins at zero and comes round. */
function ranged(events: readonly LayerEvent[], feel: Feel, origin: number, loop: number): Layer {
  const own = events
    .filter((e) => e.tick >= origin && e.tick < origin + loop)
    .map((e) => ({ ...e, tick: e.tick - origin }));
  return { period: loop, from: 0, feel, origin, events: own };
}

/** A layer's events written out up to a tick. */
function turned(layer: Layer, until: number): LayerEvent[] {
  return Array.from({ length: Math.ceil(until / layer.period) }, (_, turn) =>
    layer.events.map((e) => ({ ...e, tick: e.tick + turn * layer.period })),
  ).flat();
}

function clickLayer(pattern: Pattern, { click, gap }: ProgramOptions, bar: number): Layer {
  const once = clickEvents(pattern, click);
  if (!gap || gap.silent === 0) return { period: bar, from: 0, feel: STRAIGHT, events: once };
  const bars = Array.from({ length: gap.sounding }, (_, b) => once.map((e) => ({ ...e, tick: e.tick + b * bar })));
  return { period: (gap.sounding + gap.silent) * bar, from: 0, feel: STRAIGHT, events: bars.flat() };
}

/** The clicks of one bar. */
function clickEvents({ meter, grid }: Pattern, kind: ClickKind): LayerEvent[] {
  const event = (tick: number, sound: keyof typeof CLICK_VELOCITY, soft = 1): LayerEvent => ({
    tick,
    offset: 0,
    sound,
    velocity: Math.round(CLICK_VELOCITY[sound] * soft),
    limb: null,
    part: 'click',
  });
  const beats = countedBeats(meter);
  const onBeats = beats.map((b) =>
    event(b.start, b.number === 1 ? 'click-bar' : b.leads ? 'click-group' : 'click-beat'),
  );
  switch (kind) {
    case 'none':
      return [];
    case 'beats':
      return onBeats;
    case 'bar':
      return onBeats.slice(0, 1);
    case 'two-and-four':
      return beats.length === 1
        ? onBeats
        : beats.filter((b) => b.number % 2 === 0).map((b) => event(b.start, 'click-group'));
    case 'off-beats':
      return beats.map((b) => event(b.start + b.length / 2, 'click-beat'));
    case 'subdivision': {
      const bar = barTicks(meter);
      // A grid that does not divide the bar has no even clicks in it: the beats are all there is to mark.
      if (bar % grid !== 0) return onBeats;
      const between = Array.from({ length: bar / grid }, (_, i) => i * grid).filter(
        (t) => !beats.some((b) => b.start === t),
      );
      return [...onBeats, ...between.map((t) => event(t, 'click-beat', 0.55))].sort((a, b) => a.tick - b.tick);
    }
  }
}

/** The counts of one bar: every beat, and the slots of the home grid where they divide it. */
function countEvents({ meter, grid }: Pattern): LayerEvent[] {
  const beats = countedBeats(meter);
  const event = (tick: number, sound: CountTone, velocity: number): LayerEvent => ({
    tick,
    offset: 0,
    sound,
    velocity,
    limb: null,
    part: 'counts',
  });
  return beats.flatMap((beat) => {
    const tone = BEAT_TONES[(beat.number - 1) % BEAT_TONES.length] ?? 'count-1';
    const slots = beat.length % grid === 0 ? beat.length / grid : 1;
    const between = Array.from({ length: slots - 1 }, (_, i) => (i + 1) * grid).map((t) =>
      t * 2 === beat.length ? event(beat.start + t, 'count-half', 84) : event(beat.start + t, 'count-slot', 62),
    );
    return [event(beat.start, tone, 104), ...between];
  });
}

/**
 * When the click is silent in the first bars of a program, in seconds from its first bar line, so that a take can tell
 * how the time held meanwhile. Empty for a click that goes on.
 * @param quarterBpm quarters a minute
 * @example
 * silencesOf(meter(4, 4), { sounding: 1, silent: 1 }, 120, 4) // => [{ from: 2, until: 4 }, { from: 6, until: 8 }]
 */
export function silencesOf(
  meter: Pattern['meter'],
  gap: ClickGap | null,
  quarterBpm: number,
  bars: number,
): readonly { readonly from: number; readonly until: number }[] {
  if (!gap || gap.silent === 0) return [];
  const bar = secondsOf(barTicks(meter), quarterBpm);
  const period = gap.sounding + gap.silent;
  return Array.from({ length: Math.ceil(bars / period) }, (_, i) => ({
    from: (i * period + gap.sounding) * bar,
    until: Math.min(bars, (i + 1) * period) * bar,
  })).filter((s) => s.until > s.from);
}

function strokeEvents(stroke: Stroke, tick: number, part: Part, louder: number): LayerEvent[] {
  const velocity = (level: Stroke['level']): number =>
    Math.max(1, Math.min(127, Math.round(LEVEL_DEFAULTS[level].velocity * louder)));
  const main: LayerEvent = {
    tick,
    offset: 0,
    sound: stroke.voice,
    velocity: velocity(stroke.level),
    limb: stroke.limb,
    part,
  };
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
  const grace = { ...main, velocity: velocity('ghost'), limb: otherHand(stroke.limb) };
  return [...Array.from({ length: n }, (_, i) => ({ ...grace, offset: -(n - i) * GRACE_GAP })), main];
}

/**
 * Everything whose tick lies in [a, b), in order of time. Ranges that meet give every event exactly once, whatever
 * their size.
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
        const { origin } = layer;
        found.push({
          ...rest,
          at: origin === undefined ? swung(base + tick, layer.feel) : base + swung(tick + origin, layer.feel) - origin,
        });
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
