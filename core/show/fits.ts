import { barTicks, beatTicks, type Feel } from '../time';
import { isHand } from '../stroke';
import { untilLanding, type Pattern } from '../pattern';
import { pieceFor, type Kit } from '../kit';
import type { Family } from '../recipe';
import type { Cue, Facts, Spot, SpotKind } from '../shelf';
import { bends } from './feels';
import { countText, cueMeter } from './room';

/** How a phrase stands in a spot. */
export type FitWay =
  | { readonly kind: 'as written' }
  /** Begun on another beat than it is written on. */
  | { readonly kind: 'moved'; readonly to: string }
  | { readonly kind: 'repeated'; readonly times: number }
  /** Only the end of it, as long as the spot is. */
  | { readonly kind: 'its end' };

/** Why a phrase does not stand in a spot. */
export type NoFit = 'kind' | 'meter' | 'feel' | 'grid' | 'length' | 'start' | 'pieces' | 'landing' | 'counts';

export type Fit = { readonly fits: true; readonly way: FitWay } | { readonly fits: false; readonly why: NoFit };

const FAMILIES: Readonly<Record<SpotKind, readonly Family[]>> = Object.freeze({
  fill: ['fill', 'lick'],
  lick: ['lick', 'fill'],
  groove: ['groove'],
});
/** Of a longer phrase the end is played where it is at most so many times as long. */
const LONGEST = 4;

const no = (why: NoFit): Fit => ({ fits: false, why });

/**
 * Whether a phrase stands in a spot of a cue, by its facts, and how. It is in the cue's meter and feel, on its
 * subdivision or a coarser one in it, as long as the spot (or goes into it a whole number of times, or its end is as
 * long), begins on the same part of the beat, and the kit has its pieces. Counts are asked of `meetsCounts`.
 */
export function fitOf(
  spot: Spot,
  cue: Cue,
  { facts, family }: { readonly facts: Facts; readonly family: Family },
  kit: Kit | null,
): Fit {
  if (!FAMILIES[spot.what].includes(family) || facts.limbs.length === 0) return no('kind');
  if (facts.meter !== cue.meter) return no('meter');
  if (!feelsAlike(facts, cue.feel)) return no('feel');
  if (cue.grid !== null && facts.grid % cue.grid !== 0) return no('grid');
  if (kit && facts.voices.some((v) => pieceFor(kit, v) === null)) return no('pieces');
  if (!landsWell(spot, facts)) return no('landing');
  const m = cueMeter(cue);
  const [bar, beat] = [barTicks(m), beatTicks(m)];
  const { own, start } = facts;
  const onBeats = (ticks: number): boolean => ticks % beat === 0;
  if (own === spot.length) {
    if (start === spot.from % bar) return { fits: true, way: { kind: 'as written' } };
    return onBeats(start - spot.from)
      ? { fits: true, way: { kind: 'moved', to: countText(spot.from, cue) } }
      : no('start');
  }
  if (own < spot.length) {
    if (own === 0 || !onBeats(own) || spot.length % own !== 0) return no('length');
    return onBeats(start - spot.from)
      ? { fits: true, way: { kind: 'repeated', times: spot.length / own } }
      : no('start');
  }
  if (spot.what === 'groove' || own > LONGEST * spot.length) return no('length');
  return onBeats(start + own - spot.from - spot.length) ? { fits: true, way: { kind: 'its end' } } : no('start');
}

/** Whether a phrase swings as a cue does; what swing does not move swings with any. */
function feelsAlike({ feel, grid }: Facts, cue: Feel): boolean {
  if (feel.kind === 'straight') return cue.kind === 'straight' || !bends(grid);
  return cue.kind === 'swung' && cue.on === feel.on;
}

function landsWell({ lands }: Spot, { traits }: Facts): boolean {
  switch (lands) {
    case 'any':
      return true;
    case 'crash':
      return traits.lands.startsWith('cymbal');
    case 'kick':
      return traits.lands === 'kick';
  }
}

/**
 * The strokes of a phrase as they stand in a spot, in ticks behind its start, and the landing behind its end. None
 * where it does not stand there.
 */
export function standing(pattern: Pattern, spot: Pick<Spot, 'length'>, way: FitWay): Pattern['strokes'] {
  const own = untilLanding(pattern);
  const landing = pattern.strokes.filter((s) => s.at >= own.length);
  const at = (strokes: Pattern['strokes'], by: number): Pattern['strokes'] =>
    strokes.map((s) => ({ ...s, at: (s.at + by) as typeof s.at }));
  switch (way.kind) {
    case 'as written':
    case 'moved':
      return pattern.strokes;
    case 'repeated':
      return [
        ...Array.from({ length: way.times }, (_, i) => at(own.strokes, i * own.length)).flat(),
        ...at(landing, spot.length - own.length),
      ];
    case 'its end': {
      const cut = own.length - spot.length;
      return at(
        pattern.strokes.filter((s) => s.at >= cut),
        -cut,
      );
    }
  }
}

/** Whether a phrase in a spot strikes where it must, and leaves alone what it must. Ghosts are no hits. */
export function meetsCounts(pattern: Pattern, spot: Spot, way: FitWay): boolean {
  if (spot.hits.length + spot.free.length === 0) return true;
  const strokes = standing(pattern, spot, way);
  const struck = new Set<number>(strokes.map((s) => s.at));
  const hit = new Set<number>(
    strokes.flatMap((s) => (s.level !== 'ghost' && (isHand(s.limb) || s.limb === 'K') ? s.at : [])),
  );
  return spot.hits.every((t) => hit.has(t)) && spot.free.every((t) => !struck.has(t));
}

/**
 * How a phrase stands in a spot, in words; empty as it is written.
 * @example
 * standsWords({ kind: 'moved', to: '3' }) // => "start it on 3"
 * standsWords({ kind: 'repeated', times: 2 }) // => "play it twice"
 */
export function standsWords(way: FitWay): string {
  switch (way.kind) {
    case 'as written':
      return '';
    case 'moved':
      return `start it on ${way.to}`;
    case 'repeated':
      return way.times === 2 ? 'play it twice' : `play it ${way.times} times`;
    case 'its end':
      return 'only its end';
  }
}

const WHY: Readonly<Record<NoFit, string>> = {
  kind: 'another kind of phrase',
  meter: 'another meter',
  feel: 'another feel',
  grid: 'another subdivision',
  length: 'another length',
  start: 'off the beat',
  pieces: 'pieces your kit has not',
  landing: 'another landing',
  counts: 'other hits',
};

/** Why nothing on the shelf stands in a spot, the most frequent reason first; up to three of them. */
export function noFitWords(whys: readonly NoFit[]): string {
  const many = new Map<NoFit, number>();
  for (const w of whys) if (w !== 'kind') many.set(w, (many.get(w) ?? 0) + 1);
  const told = [...many].sort((a, b) => b[1] - a[1]).slice(0, 3);
  if (told.length === 0) return 'There is no such phrase on your shelf.';
  return `Nothing fits: ${told.map(([w, n]) => `${n} ${n === 1 ? 'has' : 'have'} ${WHY[w]}`).join(', ')}.`;
}
