import { quarterTempo, straightened, STRAIGHT, TICKS_PER_QUARTER, type Feel, type Meter } from '../time';
import { isHand, VOICE, type Voice } from '../stroke';
import type { Hit } from '../take';

/** What may be struck in a slot, as far as a source tells it: a foot is known by its piece or its limb. */
export const KINDS = ['hand', 'kick', 'hat-foot'] as const;
export type Kind = (typeof KINDS)[number];

/** A hit that fell into a slot of a lattice. */
export interface SlotHit {
  readonly kind: Kind;
  readonly voice: Voice | null;
  /** Whether it is loud beside the other hits of its kind; null where the source tells no force. */
  readonly loud: boolean | null;
  readonly limb: Hit['limb'];
  /** Seconds by which it is late in its slot. */
  readonly late: number;
}

/** Hits over a known tempo, laid on a subdivision: what fell into each slot, from the first bar line on. */
export interface Lattice {
  /** Ticks of a slot. */
  readonly grid: number;
  /** Whether nothing tells what was struck, as of a microphone: all are of one kind then. */
  readonly blind: boolean;
  readonly slots: readonly (readonly SlotHit[])[];
  /** Hits that fell into none, by the slot they are nearest to. */
  readonly beside: readonly number[];
}

/** A hit belongs to a slot that is no farther than this, in seconds, nor than so much of a slot. */
const NEAR = { seconds: 0.055, slot: 0.42 };

/** What struck: by the limb where it is known, else by the piece; a hand where neither is. */
function kindOf({ limb, voice }: Hit): Kind {
  if (limb !== null) return isHand(limb) ? 'hand' : limb === 'H' ? 'hat-foot' : 'kick';
  if (voice === null) return 'hand';
  const { family } = VOICE[voice];
  return family !== 'foot' ? 'hand' : voice === 'hat-foot' ? 'hat-foot' : 'kick';
}

/** Above this force a hit of a kind is loud: between its soft and its loud ones; null where none is told. */
function loudness(hits: readonly Hit[]): (hit: Hit) => boolean | null {
  const forces = hits
    .flatMap((h) => (h.velocity !== null && kindOf(h) === 'hand' ? [h.velocity] : []))
    .sort((a, b) => a - b);
  if (forces.length < 8) return () => null;
  const at = (share: number): number => forces[Math.floor(share * (forces.length - 1))] ?? 0;
  // Where all are about as loud, nothing is told by it.
  if (at(0.9) - at(0.2) < 15) return () => null;
  const border = (at(0.9) + at(0.2)) / 2;
  return ({ velocity }) => (velocity === null ? null : velocity > border);
}

/** Whether neither a limb nor a piece is told of any hit. */
export const isBlind = (hits: readonly Hit[]): boolean => hits.every((h) => h.limb === null && h.voice === null);

/**
 * Hits on a subdivision of a known tempo, in counted beats a minute. Seconds of the hits are from the first bar line;
 * what was struck before it falls nowhere. In a swung feel a hit belongs to the slot that it swings.
 */
export function latticeOf(
  hits: readonly Hit[],
  meter: Meter,
  bpm: number,
  grid: number,
  feel: Feel = STRAIGHT,
): Lattice {
  const slotSeconds = (grid * 60) / (quarterTempo(bpm, meter) * TICKS_PER_QUARTER);
  const near = Math.min(NEAR.seconds, NEAR.slot * slotSeconds);
  const loud = loudness(hits);
  const last = hits.reduce((most, h) => Math.max(most, h.seconds), 0);
  const slots: SlotHit[][] = Array.from({ length: Math.floor(last / slotSeconds) + 2 }, () => []);
  const beside: number[] = [];
  for (const hit of hits) {
    const even = straightened((hit.seconds * grid) / slotSeconds, feel) / grid;
    const at = Math.round(even);
    const late = (even - at) * slotSeconds;
    const slot = slots[at];
    if (at < 0 || !slot) continue;
    const { voice, limb } = hit;
    if (Math.abs(late) <= near) slot.push({ kind: kindOf(hit), voice, limb, loud: loud(hit), late });
    else beside.push(at);
  }
  return { grid, blind: isBlind(hits), slots, beside };
}

/** Whether any hand of a slot is loud; null where force is not told, or no hand is there. */
export function isLoud(hits: readonly SlotHit[]): boolean | null {
  const hands = hits.filter((h) => h.kind === 'hand');
  if (hands.some((h) => h.loud === true)) return true;
  return hands.length === 0 || hands.some((h) => h.loud === null) ? null : false;
}
