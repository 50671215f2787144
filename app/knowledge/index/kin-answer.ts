import type { Pattern } from '@core/pattern';
import { kinOf, type Kin, type KinNode } from '@core/shelf';
import { turnBetween } from '@core/variants';
import type { KinAnswer, KinLine, NamedPhrase } from './entry';
import { turnWords } from './row-words';

/** The most lines of a tree that are shown. */
const MOST_LINES = 500;

/** The tree a phrase stands in, line by line; empty for one that stands alone. */
export function kinLines(all: readonly Kin[], id: string): readonly KinLine[] {
  const lines: KinLine[] = [];
  const walk = (node: KinNode, depth: number): void => {
    if (lines.length >= MOST_LINES) return;
    lines.push({ id: node.id, name: node.name, depth, change: node.change, own: node.id === id });
    node.children.forEach((c) => walk(c, depth + 1));
  };
  const tree = kinOf(all, id);
  if (tree) walk(tree, 0);
  return lines.length > 1 ? lines : [];
}

/** Of which phrases a phrase is a turn, and how, by what is drawn of them. */
export function sameTurned(
  id: string,
  others: readonly NamedPhrase[],
  drawn: ReadonlyMap<string, Pattern>,
): KinAnswer['same'] {
  const mine = drawn.get(id);
  return others.flatMap((other) => {
    const theirs = drawn.get(other.id);
    const turn = mine && theirs ? turnBetween(theirs, mine) : null;
    return turn && mine ? [{ id: other.id, name: other.name, words: turnWords(other.name, turn, mine) }] : [];
  });
}
