import { Template, type CountSaid, type LimbTerm, type Values, type VoicesSaid } from '../language';
import { beatIn } from '../selection';
import { canStrike, type Limb, type Voice } from '../stroke';
import { barTicks, beatTicks, countedBeats, parseCount, ticks, type Schools } from '../time';
import type { SlotWish, Wish } from './asked';
import { meterOf, slotsAsked, startOf, type Demands } from './demands';

/** What stands around a line: how it is counted. */
export interface Scene {
  readonly schools: Schools;
}
export type Change = (demands: Demands, scene: Scene) => Demands;
/** A clause, and what it changes. The space is read before what stands on its counts. */
export interface Clause {
  readonly say: readonly Template[];
  readonly isSpace: boolean;
  readonly change: (values: Values) => Change | null;
}

export const clause = (say: readonly string[], change: Clause['change'], isSpace = false): Clause => ({
  say: say.map((s) => new Template(s)),
  isSpace,
  change,
});
export const set =
  (fields: Partial<Demands>): (() => Change) =>
  () =>
  (d) => ({ ...d, ...fields });

/** Slots of the space that counts stand for, in every bar where none was said; `whole` beats have all of theirs. */
export function slotsOf(
  said: readonly CountSaid[],
  d: Demands,
  { schools }: Scene,
  whole: boolean,
): readonly number[] | null {
  const meter = meterOf(d);
  const [bar, start, many] = [barTicks(meter), startOf(d, schools), slotsAsked(d, schools)];
  const counting = { meter, grid: ticks(d.grid), schools };
  const beats = countedBeats(meter);
  const out = new Set<number>();
  for (const c of said) {
    const numbers = c.beat === null ? beats.map((b) => b.number) : [c.beat < 0 ? (beats.at(-1)?.number ?? 1) : c.beat];
    for (const n of numbers) {
      const at = parseCount(`${n}${c.syllable}`, counting);
      if (at === null) return null;
      const beat = beatIn(meter, n);
      const long = whole && c.as !== 'count' ? (beat ? beat.until - beat.from : beatTicks(meter)) : d.grid;
      for (let b = c.bar === null ? 0 : c.bar - 1; b < (c.bar ?? Math.ceil(d.bars)); b++)
        for (let t: number = at; t < at + long; t += d.grid) {
          const slot = (b * bar + t - start) / d.grid;
          if (slot >= 0 && slot < many && Number.isInteger(slot)) out.add(slot);
        }
    }
  }
  return out.size > 0 ? [...out].sort((a, b) => a - b) : null;
}

/** The same wish of every slot; what it contradicts there goes. */
export function withWishes(d: Demands, slots: readonly number[], what: Wish, must: boolean): Demands {
  const rest = d.wishes.filter((w) => !(slots.includes(w.slot) && w.what === what));
  return { ...d, wishes: [...rest, ...slots.map((slot): SlotWish => ({ slot, what, must }))] };
}

export const limbsOf = (said: LimbTerm): readonly ('R' | 'L' | 'K')[] =>
  said.limbs.filter((l: Limb): l is 'R' | 'L' | 'K' => l === 'R' || l === 'L' || l === 'K');
export const limbsSaid = (v: Values): readonly ('R' | 'L' | 'K')[] => limbsOf(v['limb'] as LimbTerm);
export const handSaid = (v: Values): 'R' | 'L' | null => {
  const [one, other] = (v['limb'] as LimbTerm).limbs;
  return (one === 'R' || one === 'L') && other === undefined ? one : null;
};
export const voiceSaid = (v: Values): Voice | null => {
  const voice = (v['voices'] as VoicesSaid)[0]?.[0];
  return voice && canStrike('R', voice) ? voice : null;
};
