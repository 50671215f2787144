import { otherHand } from '../stroke';
import type { Group, Pattern } from '../pattern';
import type { Edit } from './moves';

/** How the strokes of one repeat stand to those of another: the same, the hands swapped, or another cell. */
type Likeness = 'same' | 'mirrored' | 'other';

function strokesIn(pattern: Pattern, group: Group, until: number): Map<string, string> {
  return new Map(
    pattern.strokes.flatMap((s) => {
      const offset = s.at - group.at;
      return offset >= 0 && offset < until ? [[`${offset} ${s.limb}`, s.limb] as const] : [];
    }),
  );
}

/** A cut repeat is held against as much of the other as it has. */
function likeness(pattern: Pattern, a: Group, b: Group): Likeness {
  const until = Math.min(a.length, b.length);
  const [own, other] = [strokesIn(pattern, a, until), strokesIn(pattern, b, until)];
  const swapped = new Set([...own.keys()].map((key) => `${key.split(' ')[0] ?? ''} ${swappedLimb(key)}`));
  const same = [...own.keys()].filter((key) => other.has(key)).length;
  const mirrored = [...swapped].filter((key) => other.has(key)).length;
  // An edit before may have made one of them a little different: most of it must be alike.
  const enough = Math.max(own.size, other.size) * MOSTLY;
  if (same >= mirrored) return same >= enough ? 'same' : 'other';
  return mirrored >= enough ? 'mirrored' : 'other';
}

/** Repeats that share so many of their strokes are of one cell. */
const MOSTLY = 0.6;

function swappedLimb(key: string): string {
  const limb = key.split(' ')[1];
  return limb === 'R' || limb === 'L' ? otherHand(limb) : (limb ?? '');
}

/** The repeats of cells, one that was cut at the end too; what was typed to close with is none. */
function repeatsOf(pattern: Pattern): readonly Group[] {
  const movesIn = (g: Group): (string | null)[] =>
    pattern.strokes.flatMap((s) => (s.at >= g.at && s.at < g.at + g.length ? [s.from.move] : []));
  const cells = pattern.groups.filter((g) => g.kind === 'cell');
  const known = new Set(cells.flatMap(movesIn));
  return pattern.groups.filter(
    (g) => g.kind === 'cell' || (g.kind === 'close' && movesIn(g).every((move) => known.has(move))),
  );
}

/**
 * Hand edits in one repeat of a cell, done in every repeat of it that has that place: by the other hand where the hands
 * are swapped. What is closed with, a landing and other cells stay as they are. Edits outside of repeats come back as
 * they are.
 * @example
 * inEveryRepeat(build({ source: { kind: 'typed', text: 'R L', meter: '2/4', grid: 1260 }, moves: [{ id: 'f', on: true, move: 'fit', params: { space: { bars: 1 }, start: '1', mirrored: false, close: { kind: 'cut' } } }] }).pattern, [{ at: 1260, limb: 'L', stroke: null }]).map((e) => e.at) // => [1260, 3780, 6300, 8820]
 */
export function inEveryRepeat(pattern: Pattern, edits: readonly Edit[]): readonly Edit[] {
  const cells = repeatsOf(pattern);
  const all = new Map<string, Edit>();
  const put = (edit: Edit): void => void all.set(`${edit.at} ${edit.limb}`, edit);
  for (const edit of edits) {
    put(edit);
    const own = cells.find((g) => edit.at >= g.at && edit.at < g.at + g.length);
    if (!own) continue;
    for (const other of cells) {
      const at = other.at + edit.at - own.at;
      if (other === own || at >= other.at + other.length) continue;
      const like = likeness(pattern, own, other);
      if (like === 'same') put({ ...edit, at });
      if (like === 'mirrored') put({ ...edit, at, limb: otherHand(edit.limb) });
    }
  }
  // What was meant by hand stands, whatever a repeat of it would be.
  edits.forEach(put);
  return [...all.values()];
}
