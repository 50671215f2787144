import { SAME_HAND, type Grace } from '../ornament';
import { usualVoice, VOICE } from '../voice';
import type { Node, TypedStroke } from './nodes';

/** How it is typed that the hand of a stroke plays its grace strokes. */
export const SAME_HAND_WORDS = 'same hand';

const ORNAMENT_LETTER = { flam: 'f', drag: 'd', ruff: 't', buzz: 'z' } as const;

/**
 * Stroke text of parsed nodes; reading it again gives the same nodes.
 * @example
 * printStrokeText(parseStrokeText('(R!l l)x2|K+fR').value) // => "(R! l l)x2 K+fR"
 * printStrokeText(parseStrokeText('R[hat]! f[SN]R[crash]').value) // => "R![closed hi-hat] f[snare]R[right crash]"
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
      return node.strokes.map(printTyped).join('+');
  }
}

/** The sticking of one stroke as it is typed, without its piece: "fR!". */
export function printStroke({ limb, level, ornament }: TypedStroke): string {
  return printTyped({ limb, level, ...(ornament ? { ornament } : {}) });
}

/** One stroke as it is typed, with what it strikes where that is written: "fR!", "R[ride]". */
export function printTyped(stroke: TypedStroke): string {
  const limb = stroke.level === 'ghost' ? stroke.limb.toLowerCase() : stroke.limb;
  const ornament = stroke.ornament ? ORNAMENT_LETTER[stroke.ornament] + inBrackets(stroke.grace) : '';
  return `${ornament}${limb}${stroke.level === 'accent' ? '!' : ''}${inBrackets(stroke.voice)}`;
}

function inBrackets(voice: Grace | undefined): string {
  return voice ? `[${voice === SAME_HAND ? SAME_HAND_WORDS : VOICE[voice].name}]` : '';
}

/**
 * A stroke of a pattern as it is typed, with what is said without saying left out: the limb's usual voice.
 * @example
 * asTyped({ limb: 'R', level: 'tap', voice: 'snare' }) // => { limb: 'R', level: 'tap' }
 */
export function asTyped({ limb, level, ornament, voice, grace }: TypedStroke): TypedStroke {
  return {
    limb,
    level,
    ...(ornament ? { ornament } : {}),
    ...(voice && voice !== usualVoice(limb) ? { voice } : {}),
    ...(ornament && ornament !== 'buzz' && grace ? { grace } : {}),
  };
}
