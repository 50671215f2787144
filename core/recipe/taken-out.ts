import { stableJson } from '../base';
import { freshId } from './hand';
import { MOST_MOVES } from './plain';
import type { MoveEntry } from './registry';
import type { Recipe } from './recipe';

/**
 * A phrase that was taken out of another, made of what that other is now: the moves by which it became a phrase of its
 * own, and all since, come behind those of its parent. Null for one that was not taken out, for one that stands on its
 * parent as it is, and where it would be too many moves.
 * @example
 * followParent({ source: { kind: 'typed', text: 'R L', meter: '4/4', grid: 1260 }, moves: [] }, { source: { kind: 'typed', text: 'R L K', meter: '4/4', grid: 1260 }, moves: [] }) // => null
 */
export function followParent(child: Recipe, parent: Recipe): Recipe | null {
  const at = child.moves.findIndex((m) => m.move === 'only' && m.on);
  if (at < 0) return null;
  const stood = { source: child.source, moves: child.moves.slice(0, at) };
  if (stableJson(stood) === stableJson({ source: parent.source, moves: parent.moves })) return null;
  // An id stands once: moves that came to the parent since may have one of the child's.
  const moves = child.moves
    .slice(at)
    .reduce<readonly MoveEntry[]>(
      (all, m) => [...all, all.some((o) => o.id === m.id) ? { ...m, id: freshId(all) } : m],
      parent.moves,
    );
  return moves.length > MOST_MOVES ? null : { source: parent.source, moves: [...moves] };
}
