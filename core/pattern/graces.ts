import {
  graceCount,
  isHand,
  otherHand,
  SAME_HAND,
  VOICE,
  type Grace,
  type Limb,
  type Stroke,
  type Voice,
} from '../stroke';
import { TICKS_PER_QUARTER } from '../time';
import { loopTicks, type Pattern } from './pattern';

/** The grace strokes of one stroke: how many, which hand plays them, and what it strikes. */
export interface Graces {
  readonly many: number;
  readonly limb: Limb;
  readonly voice: Voice;
}

/** A hand is still where it last struck, and keeps time, for as long as this, in ticks: a quarter. */
const NEAR = TICKS_PER_QUARTER;

/**
 * The pattern with what the grace strokes strike written out at every stroke that has some, for whoever then sees
 * strokes without their neighbours. The same object when there are none, or all are written out.
 * @example
 * withGraces(patternOfText(parseStrokeText('fR[ride] L').value, meter(2, 4), GRID.sixteenths)).strokes[0].grace // => "snare"
 */
export function withGraces(pattern: Pattern): Pattern {
  const lead = (pattern.pickup ?? []).length;
  const line = [...(pattern.pickup ?? []), ...pattern.strokes];
  if (!line.some((s) => hasGraces(s) && s.grace !== SAME_HAND)) return pattern;
  const loop = loopTicks(pattern);
  const out = line.map((s, i): Stroke => (hasGraces(s) ? { ...s, grace: strikes(line, i, lead, loop) } : s));
  if (out.every((s, i) => s.grace === line[i]?.grace)) return pattern;
  const strokes = out.slice(lead);
  return pattern.pickup ? { ...pattern, strokes, pickup: out.slice(0, lead) } : { ...pattern, strokes };
}

/**
 * The grace strokes of a stroke of a pattern in which they are written out (`withGraces`); null for a stroke without.
 * @example
 * gracesOf({ at: 0, limb: 'L', voice: 'snare', level: 'tap', ornament: 'drag', grace: 'same-hand', from: { index: 0, repeat: 0, move: null } }) // => { many: 2, limb: 'L', voice: 'snare' }
 */
export function gracesOf({ ornament, limb, grace, voice }: Stroke): Graces | null {
  const many = ornament ? graceCount(ornament) : 0;
  if (many === 0 || !isHand(limb)) return null;
  return grace === SAME_HAND ? { many, limb, voice } : { many, limb: otherHand(limb), voice: grace ?? voice };
}

/**
 * The pattern without what needs not be said of its grace strokes: they come to the same without it.
 */
export function plainGraces(pattern: Pattern): Pattern {
  const bare = pattern.strokes.map((s): Stroke => {
    if (!s.grace) return s;
    const { grace: _, ...rest } = s;
    return rest;
  });
  const known = withGraces(pattern).strokes;
  const told = withGraces({ ...pattern, strokes: bare }).strokes;
  return {
    ...pattern,
    strokes: pattern.strokes.map((s, i) => (known[i]?.grace === told[i]?.grace ? (bare[i] ?? s) : s)),
  };
}

function hasGraces({ ornament, limb }: Stroke): boolean {
  return ornament !== undefined && isHand(limb) && graceCount(ornament) > 0;
}

/**
 * Which drum it is, or that the hand of the stroke plays them itself: where the other hand strikes something at that
 * moment, or, for what one hand can bounce, keeps time on metal before and after. Else the other hand strikes what it
 * is told to, or where it is: on the drum of its last stroke, if that was not long ago; if it is nowhere near, it comes
 * to the stroke's own.
 */
function strikes(line: readonly Stroke[], index: number, lead: number, loop: number): Grace {
  const stroke = line[index];
  if (!stroke || stroke.grace === SAME_HAND) return SAME_HAND;
  const other = otherHand(stroke.limb);
  const isBusy = [line[index - 1], line[index + 1]].some((s) => s?.limb === other && s.at === stroke.at);
  if (isBusy) return SAME_HAND;
  if (stroke.grace && stroke.grace !== stroke.voice) return stroke.grace;
  const last = nearest(line, index, -1, lead, loop);
  const next = nearest(line, index, 1, lead, loop);
  const isAway = last && next && keepsTime(last.voice, stroke.voice) && keepsTime(next.voice, stroke.voice);
  // One hand plays a drag as a bounce, but no flam: for that the other has to come.
  if (isAway && stroke.ornament !== 'flam') return SAME_HAND;
  if (stroke.grace || !last) return stroke.voice;
  const comesDown = isMetal(last.voice) && !isMetal(stroke.voice);
  return comesDown ? stroke.voice : last.voice;
}

function isMetal(voice: Voice): boolean {
  return VOICE[voice].family === 'metal';
}

/** Whether a hand on a voice is busy elsewhere than at another one: with time, on metal. */
function keepsTime(voice: Voice, at: Voice): boolean {
  return isMetal(voice) && VOICE[voice].piece !== VOICE[at].piece;
}

/**
 * The other hand's next stroke on one side of a stroke, where it is near. The loop, whose strokes stand in the line
 * from `lead` on, comes round; what is before it is played once.
 */
function nearest(line: readonly Stroke[], index: number, step: 1 | -1, lead: number, loop: number): Stroke | null {
  const stroke = line[index];
  if (!stroke) return null;
  const other = otherHand(stroke.limb);
  for (let i = index + step, turned = 0; ; i += step) {
    if (i >= line.length && turned === 0) [i, turned] = [lead, loop];
    if (i < lead && index >= lead && turned === 0) [i, turned] = [line.length - 1, -loop];
    const s = line[i];
    if (!s || i === index || Math.abs(s.at + turned - stroke.at) > NEAR) return null;
    if (s.limb === other) return s;
  }
}
