import { barTicks, beatTicks, countedBeats, ticks } from '../time';
import { isHand, VOICE, type Stroke } from '../stroke';
import { barsSpan, pickupOf, pickupTicks, tidy, withoutPickup, type Pattern } from '../pattern';
import { timeFeel, timeOf } from './time-feel';

/** A phrase as it is set into time: what is played before it lands, and what it lands with. */
interface Landing {
  readonly fill: Pattern;
  /** Strokes from the 1 on which it lands, ticks from that 1. */
  readonly strokes: readonly Stroke[];
}

/** What a fill lands with when it says nothing: crash and kick. */
const USUAL_LANDING: readonly Stroke[] = (['R', 'K'] as const).map((limb) => ({
  at: ticks(0),
  limb,
  voice: limb === 'R' ? ('crash-right' as const) : ('kick' as const),
  level: 'accent' as const,
  from: { index: 0, repeat: 0, move: 'landing' },
}));

/**
 * A phrase without the bar it lands in, and the landing by itself. A phrase that does not say how it lands has crash
 * and kick on the next 1; one that lands on silence has none.
 */
export function landingOf(phrase: Pattern): Landing {
  const last = phrase.groups.at(-1);
  if (last?.kind !== 'land' || last.at + last.length !== phrase.length) return { fill: phrase, strokes: USUAL_LANDING };
  return {
    fill: {
      ...phrase,
      length: last.at,
      strokes: phrase.strokes.filter((s) => s.at < last.at),
      groups: phrase.groups.slice(0, -1),
    },
    strokes: phrase.strokes.filter((s) => s.at >= last.at).map((s) => ({ ...s, at: ticks(s.at - last.at) })),
  };
}

/**
 * Bars of time, then the phrase, round and round as drummers loop it: the landing is the 1 of the time that follows,
 * which goes on. A pick-up takes the place of the time before the phrase. `groove` keeps the time where it can; plain
 * time does else.
 */
export function inContext(phrase: Pattern, bars: number, groove: Pattern | null): Pattern {
  const { fill, strokes: landing } = landingOf(phrase);
  const bar = barTicks(phrase.meter);
  const all = bars + barsSpan(fill).bars;
  const begins = bars * bar + fill.start;
  const over = begins + fill.length;
  const kept = (groove && timeOf(groove, phrase.meter, all)) ?? timeFeel(phrase, all);
  return looped(
    phrase,
    all * bar,
    kept.filter((s) => s.at < begins - pickupTicks(fill) || s.at >= over),
    [
      ...pickupOf(fill).map((s) => ({ ...s, at: ticks(s.at + begins) })),
      ...landing.map((s) => ({ ...s, at: ticks((all * bar + s.at) % (all * bar)) })),
      ...fill.strokes.map((s) => ({ ...s, at: ticks(s.at + begins) })),
    ],
  );
}

/**
 * The phrase begun on every beat of the bar, a bar later each time, with time round it: in the first bar on 1, in the
 * second on 2. It lands nowhere: what is practised is where it begins.
 */
export function onEveryBeat(phrase: Pattern, groove: Pattern | null): Pattern {
  const { fill } = landingOf(phrase);
  const bar = barTicks(phrase.meter);
  const begins = countedBeats(phrase.meter).map((b, i) => i * bar + b.start);
  const all = Math.ceil(Math.max(...begins.map((b) => b + fill.length)) / bar);
  const kept = (groove && timeOf(groove, phrase.meter, all)) ?? timeFeel(phrase, all);
  const free = (at: number): boolean => begins.every((b) => at < b || at >= b + fill.length);
  return looped(
    phrase,
    all * bar,
    kept.filter((s) => free(s.at)),
    begins.flatMap((b) => fill.strokes.map((s) => ({ ...s, at: ticks(s.at + b) }))),
  );
}

/** Bars of time, then as many that are open, round and round: the 1 after them is struck again by the time. */
export function openBars(phrase: Pattern, bars: number, groove: Pattern | null): Pattern {
  const bar = barTicks(phrase.meter);
  const kept = (groove && timeOf(groove, phrase.meter, bars)) ?? timeFeel(phrase, bars);
  return looped(phrase, 2 * bars * bar, kept, []);
}

/** Whether a phrase is short enough to begin on every beat: no longer than a bar, in a bar of more than one beat. */
export function fitsEveryBeat(phrase: Pattern): boolean {
  const bar = barTicks(phrase.meter);
  return landingOf(phrase).fill.length <= bar && beatTicks(phrase.meter) < bar;
}

/**
 * Time and what is played in it, on whole bars that go round. What is played takes the place of the time of its limb;
 * and whoever lands on a cymbal does not strike the hi-hat with the other hand at the same moment.
 */
function looped(phrase: Pattern, length: number, time: readonly Stroke[], played: readonly Stroke[]): Pattern {
  const onMetal = (s: Stroke): boolean => isHand(s.limb) && VOICE[s.voice].family === 'metal';
  const cymbals = new Set(played.filter(onMetal).map((s) => s.at));
  return tidy({
    ...withoutPickup(phrase),
    start: ticks(0),
    length: ticks(length),
    strokes: [...time.filter((s) => !onMetal(s) || !cymbals.has(s.at)), ...played],
    groups: [{ at: ticks(0), length: ticks(length), repeat: 0, kind: 'cell' }],
  });
}

/** Bars of time that are usual before a phrase: they make two, four or eight bars with it. Null for long ones. */
export function usualContext(phrase: Pattern): number | null {
  const { fill } = landingOf(phrase);
  const bar = barTicks(phrase.meter);
  const span = barsSpan(fill).bars;
  if (span === 1) return fill.length <= bar / 2 ? 1 : 3;
  return span <= 4 ? ([2, 1, 4][span - 2] ?? null) : null;
}
