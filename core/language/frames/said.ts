import type { CountSaid } from '../grammar/counts';
import type { Pick } from '../grammar/pick';
import type { Values } from '../lexicon/template';
import { wrong, type Said } from '../rules/rule';
import type { RoleName } from './role-names';
import { isWhole } from './meanings';

export const pickIn = (v: Values): Pick => v['pick'] as Pick;
export const markerOf = (v: Values, role: string): string => (v['by'] as Readonly<Record<string, string>>)[role] ?? '';
/** Only where the strokes are named with one of these before them. */
export const named = (v: Values, ...by: readonly string[]): boolean => by.includes(markerOf(v, 'pick'));
export const no = (v: Values): Said => wrong((v['pick'] as Pick | undefined)?.said ?? '', '');

export const OF_STROKES = ['', 'for', 'on', 'of', 'at', 'in'];

/** "A flam", and nothing of the strokes that have one. */
export const isGrace = ({ ornaments, limb, levels, voices }: Pick): boolean =>
  ornaments !== undefined && !limb && !levels && !voices;
/** "A flam on the left hand" is a new one. */
export const isNewGrace = (v: Values): boolean => isGrace(pickIn(v)) && !['to', 'by'].includes(markerOf(v, 'limb'));

/** Whether both are said, the one before the other. */
export function isSaidBefore(v: Values, one: RoleName, other: RoleName): boolean {
  const order = v['order'] as readonly RoleName[];
  return order.includes(one) && order.indexOf(one) < order.indexOf(other);
}

export const wholeOrNone = (v: Values): boolean => v['pick'] === undefined || isWhole(pickIn(v));

/** A landing falls on a 1. */
export function onTheOne(v: Values): boolean {
  const count = v['count'] as CountSaid | undefined;
  return count === undefined || (count.beat === 1 && count.syllable === '');
}
