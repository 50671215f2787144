import { barTicks, countedBeats, secondsOf, STRAIGHT } from '../time';
import type { Pattern } from '../pattern';
import type { Layer, LayerEvent } from './layer';
import { BEAT_TONES, type CountTone } from './sound';

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

const CLICK_VELOCITY = { 'click-bar': 112, 'click-group': 96, 'click-beat': 78 } as const;

/** The click that goes round bar by bar, with the bars in which it is silent. */
export function clickLayer(pattern: Pattern, click: ClickKind, gap: ClickGap | null): Layer {
  const bar = barTicks(pattern.meter);
  const once = clickEvents(pattern, click);
  if (!gap || gap.silent === 0) return { period: bar, from: 0, feel: STRAIGHT, events: once };
  const bars = Array.from({ length: gap.sounding }, (_, b) => once.map((e) => ({ ...e, tick: e.tick + b * bar })));
  return { period: (gap.sounding + gap.silent) * bar, from: 0, feel: STRAIGHT, events: bars.flat() };
}

/** The clicks of one bar. */
export function clickEvents({ meter, grid }: Pattern, kind: ClickKind): LayerEvent[] {
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
export function countEvents({ meter, grid }: Pattern): LayerEvent[] {
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
