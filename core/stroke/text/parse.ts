import { readFail, readOk, type Problem, type Read } from '../../base';
import { LIMBS, isHand, type Limb } from '../limb';
import type { Level, Ornament } from '../level';
import { SAME_HAND, type Grace } from '../ornament';
import { canStrike, VOICE, voiceCalled, type Voice } from '../voice';
import { TEXT_LIMITS, type Node, type TypedStroke } from './nodes';
import { SAME_HAND_WORDS } from './print';

export type TextCode =
  'empty' | 'too-long' | 'unexpected' | 'limb-twice' | 'unclosed' | 'bad-repeat' | 'too-deep' | 'bad-voice';

/** Thrown inside the parser only, caught at its door: a problem with its column. */
class Stop extends Error {
  constructor(
    readonly code: TextCode,
    readonly column: number,
    readonly words: string,
  ) {
    super(words);
  }
}

const ORNAMENT_LETTERS: ReadonlyMap<string, Ornament> = new Map([
  ['f', 'flam'],
  ['d', 'drag'],
  ['t', 'ruff'],
  ['z', 'buzz'],
]);

/** A cursor over the letters that skips blanks and bar signs. */
class Letters {
  private index = 0;
  constructor(private readonly text: string) {}

  /** Column of the next letter, from 1. */
  get column(): number {
    this.skip();
    return this.index + 1;
  }

  peek(): string | null {
    this.skip();
    return this.text[this.index] ?? null;
  }

  take(): string | null {
    const letter = this.peek();
    if (letter !== null) this.index++;
    return letter;
  }

  /** Takes the letter if it stands next. */
  eat(letter: string): boolean {
    if (this.peek() !== letter) return false;
    this.index++;
    return true;
  }

  /** Takes some words in brackets, if they stand next, however they are spaced. */
  eatBracketed(words: string): boolean {
    const until = this.peek() === '[' ? this.text.indexOf(']', this.index) : -1;
    const inside = this.text.slice(this.index + 1, Math.max(until, this.index + 1));
    if (until < 0 || inside.trim().toLowerCase().replace(/\s+/g, ' ') !== words) return false;
    this.index = until + 1;
    return true;
  }

  /** What stands before a letter, with its blanks; null when the letter never comes. The letter is taken too. */
  upTo(letter: string): string | null {
    const end = this.text.indexOf(letter, this.index);
    if (end < 0) return null;
    const found = this.text.slice(this.index, end);
    this.index = end + 1;
    return found;
  }

  private skip(): void {
    while (/[\s|]/.test(this.text[this.index] ?? 'x')) this.index++;
  }
}

/**
 * Reads one line of stroke text: `R L` hands, `K J H` feet, lower case for ghosts, `!` after for an accent, `-` a rest,
 * `_` holds one more slot, `f d t z` before a hand for flam, drag, ruff and buzz, `R+K` together, `( … )x3` repeated;
 * `R[ride]` says what is struck, `f[snare]R[ride]` what the grace strokes strike, `d[same hand]R` that the right plays
 * them too; `|` may stand anywhere. When it
 * cannot, the problem names the column and what was expected there.
 * @example
 * parseStrokeText('R! l l K').value.length // => 4
 * parseStrokeText('R Q').problems[0].message // => "Column 3: “Q” is not a stroke. Write a hand R or L, a foot K, J or H, or a rest -."
 * parseStrokeText('R+R').problems[0].code // => "limb-twice"
 * parseStrokeText('R[Ride] L').value[0].strokes // => [{ limb: 'R', level: 'tap', voice: 'ride' }]
 * parseStrokeText('R[gong]').problems[0].code // => "bad-voice"
 */
export function parseStrokeText(text: string): Read<readonly Node[], TextCode> {
  if (text.length > TEXT_LIMITS.letters) {
    return readFail('too-long', null, `This line has ${text.length} letters; the most is ${TEXT_LIMITS.letters}.`);
  }
  try {
    const letters = new Letters(text);
    const nodes = parseNodes(letters, 0);
    if (letters.peek() === ')') throw new Stop('unexpected', letters.column, '“)” has no “(” before it.');
    if (nodes.length === 0) return readFail('empty', { column: 1 }, 'Type a sticking, for instance R l l K.');
    if (slotCount(nodes) > TEXT_LIMITS.slots) {
      return readFail('too-long', null, `With its repeats this has more than ${TEXT_LIMITS.slots} slots.`);
    }
    return readOk(nodes);
  } catch (stop) {
    if (!(stop instanceof Stop)) throw stop;
    const problem: Problem<TextCode> = {
      code: stop.code,
      at: { column: stop.column },
      message: `Column ${stop.column}: ${stop.words}`,
    };
    return { ok: false, problems: [problem] };
  }
}

/** How many slots the nodes fill with their repeats written out. */
export function slotCount(nodes: readonly Node[]): number {
  return nodes.reduce((n, node) => n + (node.kind === 'repeat' ? node.times * slotCount(node.nodes) : 1), 0);
}

function parseNodes(letters: Letters, depth: number): Node[] {
  const nodes: Node[] = [];
  for (;;) {
    const next = letters.peek();
    if (next === null || next === ')') return nodes;
    nodes.push(parseNode(letters, nodes, depth));
  }
}

function parseNode(letters: Letters, before: readonly Node[], depth: number): Node {
  const column = letters.column;
  if (letters.eat('-')) return { kind: 'rest' };
  if (letters.eat('_')) {
    if (before.length === 0)
      throw new Stop('unexpected', column, '“_” holds the stroke before it. Write a stroke first.');
    return { kind: 'hold' };
  }
  if (letters.eat('(')) return parseRepeat(letters, column, depth);
  const strokes = [parseStroke(letters)];
  for (;;) {
    const plus = letters.column;
    if (!letters.eat('+')) return { kind: 'strokes', strokes };
    const stroke = parseStroke(letters);
    if (strokes.some((s) => s.limb === stroke.limb)) {
      throw new Stop(
        'limb-twice',
        plus + 1,
        `${stroke.limb} is already there: one limb cannot play two things at once.`,
      );
    }
    strokes.push(stroke);
  }
}

function parseRepeat(letters: Letters, column: number, depth: number): Node {
  if (depth >= TEXT_LIMITS.depth)
    throw new Stop('too-deep', column, `brackets can be at most ${TEXT_LIMITS.depth} deep.`);
  const nodes = parseNodes(letters, depth + 1);
  if (!letters.eat(')')) throw new Stop('unclosed', column, 'this “(” has no “)”.');
  if (nodes.length === 0) throw new Stop('unexpected', column, 'these brackets are empty. Put strokes between them.');
  const at = letters.column;
  let digits = '';
  if (letters.eat('x')) while (/\d/.test(letters.peek() ?? '')) digits += letters.take() ?? '';
  const times = Number(digits);
  if (digits === '' || times < 1 || times > TEXT_LIMITS.repeats) {
    throw new Stop('bad-repeat', at, `after “)” write the number of repeats, x1 to x${TEXT_LIMITS.repeats}.`);
  }
  return { kind: 'repeat', nodes, times };
}

function parseStroke(letters: Letters): TypedStroke {
  const ornament = ORNAMENT_LETTERS.get(letters.peek() ?? '');
  if (ornament) letters.take();
  const grace = ornament ? (itself(letters) ?? struck(letters)) : null;
  const column = letters.column;
  const letter = letters.take();
  const limb = LIMBS.find((l) => l === letter?.toUpperCase());
  if (letter === null)
    throw new Stop(
      'unexpected',
      column,
      ornament ? 'a hand, R or L, is missing at the end.' : 'a stroke is missing at the end.',
    );
  if (!limb) throw new Stop('unexpected', column, `“${letter}” is not a stroke. ${expected(ornament)}`);
  if (ornament && !isHand(limb)) throw new Stop('unexpected', column, `only hands play a ${ornament}. Write R or L.`);
  if (grace && ornament === 'buzz') throw new Stop('bad-voice', grace.column, 'a buzz has no grace strokes.');
  const before = struck(letters);
  const high = level(letters, letter, limb);
  const to = before ?? struck(letters);
  for (const [one, who] of [
    [to, limb],
    [grace, 'R'],
  ] as const)
    if (one && one.voice !== SAME_HAND && !canStrike(who, one.voice))
      throw new Stop('bad-voice', one.column, `${who} does not play the ${VOICE[one.voice].name}.`);
  return {
    ...withOrnament({ limb, level: high }, ornament),
    ...(to ? { voice: to.voice } : {}),
    ...(grace ? { grace: grace.voice } : {}),
  };
}

/** That the hand of the stroke plays its grace strokes itself, in brackets. */
function itself(letters: Letters): { readonly voice: Grace; readonly column: number } | null {
  const { column } = letters;
  return letters.eatBracketed(SAME_HAND_WORDS) ? { voice: SAME_HAND, column } : null;
}

/** A piece in brackets, or null where there are none. */
function struck(letters: Letters): { readonly voice: Voice; readonly column: number } | null {
  if (!letters.eat('[')) return null;
  const column = letters.column;
  const name = letters.upTo(']');
  if (name === null) throw new Stop('unclosed', column - 1, 'this “[” has no “]”.');
  const voice = voiceCalled(name);
  if (voice) return { voice, column };
  throw new Stop(
    'bad-voice',
    column,
    `“${name.trim().slice(0, 40)}” is not a drum or cymbal here. Write a name such as ride, high tom or right crash.`,
  );
}

function level(letters: Letters, letter: string, limb: Limb): Level {
  const column = letters.column;
  const ghost = letter !== limb;
  if (!letters.eat('!')) return ghost ? 'ghost' : 'tap';
  if (ghost)
    throw new Stop('unexpected', column, `“${letter}!” is both ghost and accent. Write ${limb}! or ${letter}.`);
  return 'accent';
}

function withOrnament(stroke: TypedStroke, ornament: Ornament | undefined): TypedStroke {
  return ornament ? { ...stroke, ornament } : stroke;
}

function expected(ornament: Ornament | undefined): string {
  return ornament ? `A ${ornament} needs a hand, R or L.` : 'Write a hand R or L, a foot K, J or H, or a rest -.';
}
