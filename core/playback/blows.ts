import { BUZZ, graceLeads, isHand, LEVEL_DEFAULTS, type Stroke } from '../stroke';
import { gracesOf } from '../pattern';
import type { LayerEvent } from './layer';
import type { Part } from './sound';

/** How loud a phrase is played as a whole, and what that does to its velocities. */
export const DYNAMICS = ['soft', 'medium', 'loud'] as const;
export type Dynamic = (typeof DYNAMICS)[number];
const LOUDER: Readonly<Record<Dynamic, number>> = { soft: 0.6, medium: 1, loud: 1.3 };

/**
 * What one stroke sounds like: its grace strokes before it, its bounces after. What they strike is written out
 * (`withGraces`).
 */
export function strokeEvents(stroke: Stroke, tick: number, part: Part, dynamic: Dynamic): LayerEvent[] {
  const louder = LOUDER[dynamic];
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
    const bounces = Array.from({ length: BUZZ.bounces }, (_, i) => ({
      ...main,
      offset: (i + 1) * BUZZ.seconds,
      velocity: Math.round(main.velocity * 0.6 ** (i + 1)) + 1,
    }));
    return [main, ...bounces];
  }
  const graces = gracesOf(stroke);
  if (!graces) return [main];
  const grace = { ...main, sound: graces.voice, velocity: velocity('ghost'), limb: graces.limb };
  return [...graceLeads(stroke.ornament).map((lead) => ({ ...grace, offset: -lead })), main];
}
