import { stableJson } from '../base';
import type { Recipe } from './recipe';

/** Moves that say where strokes are played, and nothing of when or with which limb. */
const ORCHESTRATING: ReadonlySet<string> = new Set(['voice', 'route']);

/**
 * Whether a recipe is another with other pieces and nothing else: the two differ in moves that orchestrate.
 * @example
 * isReorchestrated({ source: { kind: 'typed', text: 'R L', meter: '4/4', grid: 1260 }, moves: [] }, { source: { kind: 'typed', text: 'R L', meter: '4/4', grid: 1260 }, moves: [] }) // => false
 */
export function isReorchestrated(from: Recipe, to: Recipe): boolean {
  if (stableJson(from.source) !== stableJson(to.source)) return false;
  const rest = ({ moves }: Recipe): string => stableJson(moves.filter((m) => !ORCHESTRATING.has(m.move)));
  return rest(from) === rest(to) && stableJson(from.moves) !== stableJson(to.moves);
}
