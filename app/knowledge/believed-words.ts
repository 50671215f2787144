import { count } from '@core/base';
import type { Believed } from './index/entry';

/** Below so many tries a tempo is given as a guess. */
export const FEW = 5;

/** What a ready tempo is, and what it rests on. */
export function restsOfReady({ low, high, tries, days }: Omit<Believed, 'ready' | 'atGoal' | 'due'>): string {
  return `Ready: the tempo you play clean 4 times in 5 today. Range ${low}–${high}, from ${count(tries, 'try', 'tries')} on ${count(days, 'day')}`;
}
