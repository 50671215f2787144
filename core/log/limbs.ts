import { isEvidence, type Attempt } from '../drill';
import { LIMBS, type Limb } from '../stroke';

/** How a limb lay on a day, in milliseconds against the rest: above 0 is late. */
export interface LimbDay {
  readonly limb: Limb;
  /** Days since 1970-01-01 on the player's own calendar. */
  readonly day: number;
  readonly mean: number;
  readonly spread: number;
  /** Measured tries it rests on. */
  readonly tries: number;
}

/** How each limb lay day by day in what was measured: the mean over the tries of a day, oldest first. */
export function limbsByDay(tries: readonly Attempt[], dayOf: (at: number) => number): readonly LimbDay[] {
  const by = new Map<
    string,
    { readonly limb: Limb; readonly day: number; mean: number; spread: number; tries: number }
  >();
  for (const { measured, at } of tries.filter((t) => isEvidence(t)))
    for (const l of measured?.limbs ?? []) {
      const day = dayOf(at);
      const key = `${l.limb} ${day}`;
      const own = by.get(key) ?? { limb: l.limb, day, mean: 0, spread: 0, tries: 0 };
      own.mean += l.mean;
      own.spread += l.spread;
      own.tries++;
      by.set(key, own);
    }
  return [...by.values()]
    .map((d): LimbDay => ({ ...d, mean: d.mean / d.tries, spread: d.spread / d.tries }))
    .sort((a, b) => a.day - b.day || LIMBS.indexOf(a.limb) - LIMBS.indexOf(b.limb));
}

/** A limb over all days of some: the mean of its days. */
export interface LimbMean {
  readonly limb: Limb;
  readonly mean: number;
  readonly days: number;
}

/** What each limb comes to over the newest days that were measured. */
export function limbsLately(days: readonly LimbDay[], newest = 6): readonly LimbMean[] {
  return LIMBS.flatMap((limb): LimbMean[] => {
    const own = days.filter((d) => d.limb === limb).slice(-newest);
    if (own.length === 0) return [];
    return [{ limb, mean: own.reduce((s, d) => s + d.mean, 0) / own.length, days: own.length }];
  });
}
