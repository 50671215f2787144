import { checkedAt, firstPlace } from '../base';
import { barTicks, beatTicks, quarterTempo, STRAIGHT, swung, type Feel, type Schools } from '../time';
import type { OwnSyllables } from '../stroke';
import {
  loopTicks,
  pickupBar,
  pickupOf,
  pickupRoles,
  pickupTicks,
  rolesOf,
  withGraces,
  type Pattern,
  type Role,
} from '../pattern';
import { strokeEvents, type Dynamic } from './blows';
import { clickEvents, clickLayer, type ClickGap, type ClickKind } from './click';
import { countLayer, type CountKind } from './counting';
import type { Layer, LayerEvent } from './layer';
import { recordLayer } from './record';
import type { PlaybackEvent } from './sound';

export interface Program {
  readonly layers: readonly Layer[];
  /** Ticks after which the phrase begins again. */
  readonly loop: number;
  /** Ticks of count-in before zero. */
  readonly countIn: number;
  /** Tick of the pattern's first bar line that sounds at the program's zero: 0 but for a range. */
  readonly origin: number;
}

export interface ProgramOptions {
  readonly click: ClickKind;
  /** Bars of click before the phrase. */
  readonly countInBars: number;
  readonly gap?: ClickGap;
  /** Who counts along; nobody when absent. */
  readonly counts?: CountKind;
  /** How counts are spoken, and the user's own syllables; the usual ones when absent. */
  readonly schools?: Schools;
  readonly sung?: OwnSyllables;
  /** How loud the phrase is meant; medium when absent. */
  readonly dynamic?: Dynamic;
  /** The role of each stroke, where it is not what the pattern alone would say. */
  readonly roles?: readonly Role[];
  /** Bars of the record that sounds in place of the phrase. */
  readonly record?: number;
  /** Only this part of the pattern, in ticks from its start, round and round; it sounds from the program's zero on. */
  readonly range?: { readonly from: number; readonly until: number };
}

/** A program at a tempo: what a transport is handed. */
export interface PlayRequest {
  readonly program: Program;
  /** Quarters a minute. */
  readonly bpm: number;
  /** Ticks of a counted beat: where changes take effect. */
  readonly beat: number;
}

/**
 * A program as it is handed to the transport, at a tempo in counted beats a minute.
 * @example
 * playAt(programOf(patternOfText([], meter(6, 8), GRID.eighths), { click: 'none', countInBars: 0 }), meter(6, 8), 60).bpm // => 90
 */
export function playAt(program: Program, meter: Pattern['meter'], bpm: number): PlayRequest {
  return { program, bpm: quarterTempo(bpm, meter), beat: beatTicks(meter) };
}

/**
 * A pattern and its click as something to play. The phrase starts at zero; the count-in lies before, and in it the
 * pick-up, once: a phrase that has one is counted in by at least a bar.
 */
export function programOf(written: Pattern, options: ProgramOptions): Program {
  const pattern = withGraces(written);
  const bar = barTicks(pattern.meter);
  const led = options.range ? 0 : pickupTicks(pattern);
  const countIn = Math.max(options.countInBars, led > 0 ? 1 : 0) * bar;
  // The count-in is always every beat, whatever the click does later.
  const counting: Layer = {
    period: bar,
    from: -countIn,
    until: 0,
    feel: STRAIGHT,
    events: clickEvents(pattern, 'beats'),
  };
  const click = clickLayer(pattern, options.click, options.gap ?? null);
  const roles = options.roles ?? rolesOf(pattern);
  const events = pattern.strokes.flatMap((s, i) =>
    strokeEvents(s, pattern.start + s.at, checkedAt(roles, i, 'role'), options.dynamic ?? 'medium'),
  );
  const turn = Math.max(1, loopTicks(pattern));
  const counts: Layer[] = options.counts
    ? [countLayer(pattern, options.counts, turn, options.schools, options.sung)]
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
  const loop = turn;
  return {
    layers: [
      options.record === undefined
        ? { period: loop, from: 0, feel: pattern.feel, events }
        : recordLayer(pattern.meter, options.record),
      counting,
      click,
      ...counts,
      ...leadLayers(pattern, options),
    ],
    loop,
    countIn,
    origin: 0,
  };
}

/** What is heard once before the loop: the strokes of the pick-up, and who counts them along. */
function leadLayers(pattern: Pattern, options: ProgramOptions): Layer[] {
  const led = pickupTicks(pattern);
  const own = pickupBar(pattern);
  if (!own) return [];
  const bar = barTicks(pattern.meter);
  const roles = pickupRoles(pattern);
  const once = { period: bar, from: 0 - led, until: 0 };
  const events = pickupOf(pattern).flatMap((s, i) =>
    strokeEvents(s, bar + s.at, checkedAt(roles, i, 'role'), options.dynamic ?? 'medium'),
  );
  const counts = options.counts ? countLayer(own, options.counts, bar, options.schools, options.sung) : null;
  return [{ ...once, feel: pattern.feel, events }, ...(counts ? [{ ...counts, ...once, period: counts.period }] : [])];
}

/** Layers are written out over at most so many turns. */
const MOST_TURNS = 256;

/**
 * A program as call and answer: in one turn the phrase and whoever counts along sound, in the next only the click. What
 * comes before the loop stays.
 */
export function callAndAnswer(program: Program): Program {
  const round = 2 * program.loop;
  const layers = program.layers.map((layer): Layer => {
    if (layer.until !== undefined || layer.events.every((e) => e.part === 'click')) return layer;
    // What comes round with the bar, not with the phrase, still counts the bar.
    const period = common(round, layer.period);
    if (period > MOST_TURNS * round) return layer;
    return {
      ...layer,
      period,
      events: turned(layer, period).filter((e) => e.tick < period && e.tick % round < program.loop),
    };
  });
  return { ...program, layers };
}

/** Least common multiple of two periods. */
function common(a: number, b: number): number {
  let [x, y] = [a, b];
  while (y > 0) [x, y] = [y, x % y];
  return (a / x) * b;
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

/** Index of the first event at or after a tick. */
function firstFrom(events: readonly LayerEvent[], tick: number): number {
  return firstPlace(events.length, (i) => checkedAt(events, i, 'event').tick >= tick);
}
