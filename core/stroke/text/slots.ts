import type { Node, TypedStroke } from './nodes';

/**
 * The strokes of each slot with repeats written out; rests and holds are empty slots.
 * @example
 * slotsOf(parseStrokeText('(R -)x2').value).map((slot) => slot.length) // => [1, 0, 1, 0]
 */
export function slotsOf(nodes: readonly Node[]): readonly (readonly TypedStroke[])[] {
  return nodes.flatMap((node): readonly (readonly TypedStroke[])[] => {
    switch (node.kind) {
      case 'strokes':
        return [node.strokes];
      case 'rest':
      case 'hold':
        return [[]];
      case 'repeat': {
        const once = slotsOf(node.nodes);
        return Array.from({ length: node.times }, () => once).flat();
      }
    }
  });
}
