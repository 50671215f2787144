import type { Node, TypedStroke } from './nodes';

const ORNAMENT_LETTER = { flam: 'f', drag: 'd', ruff: 't', buzz: 'z' } as const;

/**
 * Stroke text of parsed nodes; reading it again gives the same nodes.
 * @example
 * printStrokeText(parseStrokeText('(R!l l)x2|K+fR').value) // => "(R! l l)x2 K+fR"
 */
export function printStrokeText(nodes: readonly Node[]): string {
  return nodes.map(printNode).join(' ');
}

function printNode(node: Node): string {
  switch (node.kind) {
    case 'rest':
      return '-';
    case 'hold':
      return '_';
    case 'repeat':
      return `(${printStrokeText(node.nodes)})x${node.times}`;
    case 'strokes':
      return node.strokes.map(printStroke).join('+');
  }
}

/** One stroke as it is typed: "fR!". */
export function printStroke(stroke: TypedStroke): string {
  const limb = stroke.level === 'ghost' ? stroke.limb.toLowerCase() : stroke.limb;
  return `${stroke.ornament ? ORNAMENT_LETTER[stroke.ornament] : ''}${limb}${stroke.level === 'accent' ? '!' : ''}`;
}
