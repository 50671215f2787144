import { barTicks, countAt, countWords, type Counting } from '@core/time';
import { graceCount, LIMB_WORDS, VOICE, type Ornament, type Stroke } from '@core/stroke';
import type { Role } from '@core/pattern';
import { ROOM_FOR_LETTERS, type Measures } from './measures';
import type { Block, Stem } from './model';

/** What a stem needs to know beside its stroke. */
interface StemPlace {
  readonly index: number;
  readonly x: number;
  readonly line: number;
  /** Width of a slot, in px. */
  readonly slot: number;
  /** Whether the other hand strikes at the same tick. */
  readonly together: boolean;
  readonly role: Role;
  /** Whether the sticking is written at the line. */
  readonly letters: boolean;
}

export function stemOf(
  stroke: Stroke,
  m: Measures,
  { index, x, line, slot, together, role, letters }: StemPlace,
): Stem {
  const up = stroke.limb === 'R' ? -1 : 1;
  const height = m.stem[stroke.level];
  const big = m.counts > 0;
  const { family, head, short } = VOICE[stroke.voice];
  const headSize = m.head * (stroke.level === 'accent' ? 1.12 : stroke.level === 'ghost' ? 0.72 : 1);
  return {
    index,
    x,
    base: line,
    end: line + up * height,
    width: (role === 'primary' ? 4.5 : role === 'timekeeping' ? 3 : 2.5) * (big ? 1 : 0.5),
    family,
    head,
    headSize: Math.min(headSize, Math.max(1.6, slot * 0.46)),
    role,
    level: stroke.level,
    limb: stroke.limb,
    label: big ? short : null,
    // Where it stands is found when all of the row is known.
    labelX: x + headSize + 4,
    labelY: line + up * height,
    labelSide: 'start',
    letter: letters && big && slot >= ROOM_FOR_LETTERS ? stroke.limb : null,
    // In a unison of both hands the stem goes through the line: the letters stand beside it.
    letterX: together ? x - 9 : x,
    graces: gracesOf(stroke.ornament, x, slot, line + up * height * 0.6),
    buzz: stroke.ornament === 'buzz',
    stroke,
  };
}

const NO_GRACES: Stem['graces'] = [];

function gracesOf(ornament: Ornament | undefined, x: number, slot: number, top: number): Stem['graces'] {
  if (!ornament) return NO_GRACES;
  const step = Math.min(5, slot / 6);
  return Array.from({ length: graceCount(ornament) }, (_, i) => ({ foot: x - step * (i + 2), top }));
}

export function blockOf(
  stroke: Stroke,
  { index, x, floor, slot, role }: Pick<StemPlace, 'index' | 'x' | 'slot' | 'role'> & { readonly floor: number },
  m: Measures,
): Block {
  // The hi-hat foot is a tick over the kick's blocks, so that both are seen when they fall together.
  const tick = stroke.limb === 'H';
  const big = m.counts > 0;
  const share = stroke.level === 'accent' ? 1 : stroke.level === 'tap' ? 0.74 : 0.45;
  const height = tick ? (big ? 9 : 3) : (m.floor - (big ? 10 : 1)) * share;
  const width = Math.max(2, Math.min(tick ? 7 : 26, slot * (tick ? 0.3 : 0.72)));
  const y = tick ? floor - m.floor - (big ? 0 : 2) : floor - height;
  return {
    index,
    x: x - width / 2,
    y,
    width,
    height,
    limb: stroke.limb,
    role,
    letter: big && !tick && width >= 16 && height >= 13 ? stroke.limb : null,
    stroke,
  };
}

/** What a screen reader says of a stroke at a tick from the bar line: "bar 1, the e of 2, left hand, ghost, snare". */
export function wordsOf(tick: number, stroke: Stroke, counting: Counting): string {
  const before =
    tick < 0 ? `${countWords(countAt(tick + barTicks(counting.meter), counting), false)} before the 1` : null;
  return [
    before ?? countWords(countAt(tick, counting), true),
    LIMB_WORDS[stroke.limb],
    stroke.ornament,
    stroke.level,
    VOICE[stroke.voice].name,
  ]
    .filter(Boolean)
    .join(', ');
}

/** The sign at a stem's end, as an SVG path round its middle. */
export function headPath({ x, end: y, headSize: r, head }: Stem): string {
  switch (head) {
    case 'diamond':
      return `M${x} ${y - r * 1.25}L${x + r * 1.25} ${y}L${x} ${y + r * 1.25}L${x - r * 1.25} ${y}Z`;
    case 'bar':
      return `M${x - r * 1.2} ${y - r * 0.5}H${x + r * 1.2}V${y + r * 0.5}H${x - r * 1.2}Z`;
    case 'disc':
    case 'ring':
      return `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0Z`;
  }
}

/** The two strokes across a stem that is buzzed. */
export function buzzPath({ x, base, end }: Stem): string {
  const middle = (base + end) / 2;
  return `M${x - 4} ${middle + 3}l8 -4M${x - 4} ${middle + 7}l8 -4`;
}
