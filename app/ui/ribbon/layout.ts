import { count as counted } from '@core/base';
import { barTicks, beatTicks, countAt, countedBeats, countWords, gridName, type Counting, type Schools } from '@core/time';
import {
  graceCount,
  isHand,
  LIMB_WORDS,
  VOICE,
  type Family,
  type Head,
  type Level,
  type Limb,
  type Ornament,
  type Stroke,
  sungAt,
  type OwnSyllables,
} from '@core/stroke';
import { barsSpan, countingOf, rolesOf, type Pattern, type Role } from '@core/pattern';

/** The sizes a ribbon is drawn in: a row of the shelf, a card of the recipe, the Bench, the practice room. */
export type RibbonSize = 'strip' | 'card' | 'bench' | 'room';

export interface RibbonOptions {
  readonly size: RibbonSize;
  /** Width there is, in px. A strip uses only as much of it as the pattern is long. */
  readonly width: number;
  readonly schools: Schools;
  /** Ticks that a strip's full width stands for, so that strips beside one another show true relative lengths. */
  readonly stripTicks?: number;
  readonly pace?: Counting['pace'];
  /** A line to sing, with the user's own syllables in it; absent for none. */
  readonly sung?: OwnSyllables;
}

export interface Stem {
  readonly index: number;
  readonly x: number;
  readonly base: number;
  readonly end: number;
  readonly width: number;
  readonly family: Family;
  readonly head: Head;
  readonly headSize: number;
  readonly role: Role;
  readonly level: Level;
  readonly limb: Limb;
  /** Letters beside the head and the sticking at the hands' line; null where there is no room. */
  readonly label: string | null;
  /** Where the label stands: right of the head, or left of it at the end of a row. */
  readonly labelX: number;
  readonly labelSide: 'start' | 'end';
  readonly letter: string | null;
  readonly letterX: number;
  /** x of each grace stem's foot and head. */
  readonly graces: readonly { readonly foot: number; readonly top: number }[];
  readonly buzz: boolean;
  readonly words: string;
}

export interface Block {
  readonly index: number;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly limb: Limb;
  readonly letter: string | null;
  readonly words: string;
}

export interface RibbonRow {
  readonly top: number;
  readonly line: number;
  readonly floor: number;
  readonly left: number;
  readonly right: number;
  /** "bar 2" where there are several rows. */
  readonly head: string | null;
  readonly countY: number;
  readonly bodyTop: number;
  readonly lines: readonly { readonly x: number; readonly weight: 'bar' | 'beat' }[];
  readonly counts: readonly { readonly x: number; readonly text: string; readonly strong: boolean }[];
  readonly sung: readonly { readonly x: number; readonly text: string }[];
  readonly tints: readonly { readonly x: number; readonly width: number }[];
  readonly brackets: readonly {
    readonly x1: number;
    readonly x2: number;
    readonly text: string;
    readonly close: boolean;
    readonly open: boolean;
    readonly goesOn: boolean;
  }[];
  readonly stems: readonly Stem[];
  readonly blocks: readonly Block[];
  /** First tick of the row and px to a tick, from the bar line on. */
  readonly from: number;
  readonly until: number;
  readonly scale: number;
  readonly inset: number;
}

export interface RibbonLayout {
  readonly width: number;
  readonly height: number;
  readonly rows: readonly RibbonRow[];
  readonly size: RibbonSize;
  readonly title: string;
}

/** Measures of each size, in px. */
interface Measures {
  readonly pad: number;
  readonly counts: number;
  readonly stem: Readonly<Record<Level, number>>;
  readonly hands: number;
  readonly floor: number;
  readonly brackets: number;
  readonly gap: number;
  readonly head: number;
  /** Slots are never wider than this, nor a row denser than `least`. */
  readonly most: number;
  readonly least: number;
}

const MEASURES: Readonly<Record<RibbonSize, Measures>> = {
  strip: {
    pad: 2,
    counts: 0,
    stem: { ghost: 4, tap: 9, accent: 15 },
    hands: 18,
    floor: 6,
    brackets: 0,
    gap: 0,
    head: 2.6,
    most: 14,
    least: 1,
  },
  card: {
    pad: 2,
    counts: 0,
    stem: { ghost: 3, tap: 7, accent: 12 },
    hands: 15,
    floor: 5,
    brackets: 0,
    gap: 0,
    head: 2.2,
    most: 14,
    least: 1,
  },
  bench: {
    pad: 2,
    counts: 26,
    stem: { ghost: 13, tap: 30, accent: 54 },
    hands: 66,
    floor: 30,
    brackets: 26,
    gap: 8,
    head: 6.5,
    most: 64,
    least: 21,
  },
  room: {
    pad: 2,
    counts: 30,
    stem: { ghost: 13, tap: 32, accent: 58 },
    hands: 70,
    floor: 32,
    brackets: 6,
    gap: 12,
    head: 7.5,
    most: 84,
    least: 24,
  },
};

/** Strips beside one another are drawn at most this large, in px to a tick: 240 px to a bar of 4/4. */
const STRIP_SCALE = 240 / 20160;

/** Slot width, in px, from which letters and labels fit. */
const ROOM_FOR_LABELS = 34;
const ROOM_FOR_LETTERS = 15;
/** Height of the line that is sung, in px. */
const SUNG_ROOM = 18;
/** Room that a label of two letters needs beside its head, in px. */
const LABEL_WIDTH = 20;

/** One pattern as rows of shapes. Pure: the same pattern and width give the same drawing, in every size. */
export function ribbonLayout(pattern: Pattern, options: RibbonOptions): RibbonLayout {
  const m = MEASURES[options.size];
  const frame = frameOf(pattern, options, m);
  const named = options.size === 'bench' && frame.rows.length > 1;
  const sungRoom = options.sung ? SUNG_ROOM : 0;
  const headRoom = m.counts + (named ? 10 : 0) + sungRoom;
  const rowHeight = headRoom + m.hands * 2 + m.floor + m.brackets;
  const roles = rolesOf(pattern);
  const bothHands = handUnisons(pattern);
  const rows = frame.rows.map(({ from, until }, i): RibbonRow => {
    const top = i * (rowHeight + m.gap);
    const line = top + headRoom + m.hands;
    const base = { top, line, floor: line + m.hands + m.floor, from, until, scale: frame.scale, inset: m.pad };
    const place = (tick: number): number => m.pad + (tick - from) * frame.scale;
    const slot = pattern.grid * frame.scale;
    const inRow = (at: number): boolean => pattern.start + at >= from && pattern.start + at < until;
    const mine = pattern.strokes.flatMap((stroke, index) =>
      inRow(stroke.at) ? [{ stroke, index, x: place(pattern.start + stroke.at) + slot / 2 }] : [],
    );
    return {
      ...base,
      left: place(from),
      right: place(until),
      countY: top + headRoom - sungRoom - 10,
      sung: sungOf(mine, options.sung),
      bodyTop: top + headRoom,
      head: named ? `bar ${Math.floor(from / barTicks(pattern.meter)) + 1}` : null,
      lines: gridLines(pattern, from, until).map((l) => ({ x: place(l.tick), weight: l.weight })),
      counts: m.counts === 0 ? [] : countsOf(pattern, options, from, until, slot, place),
      tints:
        options.size === 'card'
          ? []
          : groupsIn(pattern, from, until)
              .filter((g) => g.repeat % 2 === 0)
              .map((g) => ({ x: place(g.from), width: (g.until - g.from) * frame.scale })),
      brackets:
        m.brackets < 20
          ? []
          : groupsIn(pattern, from, until).map((g) => ({
              x1: place(g.from) + 2,
              x2: place(g.until) - 2,
              text: g.text,
              close: g.close,
              open: g.open,
              goesOn: g.goesOn,
            })),
      stems: mine
        .filter(({ stroke }) => isHand(stroke.limb))
        .map(({ stroke, index, x }) =>
          stemOf(stroke, m, {
            index,
            x,
            right: place(until),
            line,
            slot,
            together: bothHands.has(stroke.at),
            role: roles[index] ?? 'texture',
            words: wordsOf(pattern, stroke, options.schools),
          }),
        ),
      blocks: mine
        .filter(({ stroke }) => !isHand(stroke.limb))
        .map(({ stroke, index, x }) => blockOf(stroke, index, x, base.floor, slot, m, wordsOf(pattern, stroke, options.schools))),
    };
  });
  const height = rows.length * rowHeight + Math.max(0, rows.length - 1) * m.gap + 1;
  return { width: frame.width, height, rows, size: options.size, title: titleOf(pattern) };
}

/** Ticks at which both hands strike. */
function handUnisons(pattern: Pattern): ReadonlySet<number> {
  const hands = pattern.strokes.filter((s) => isHand(s.limb));
  return new Set(hands.filter((s, i) => hands[i + 1]?.at === s.at).map((s) => s.at));
}

interface Frame {
  readonly rows: readonly { readonly from: number; readonly until: number }[];
  readonly scale: number;
  readonly width: number;
}

/** How the pattern is cut into rows, and px to a tick. */
function frameOf(pattern: Pattern, options: RibbonOptions, m: Measures): Frame {
  const bar = barTicks(pattern.meter);
  const end = Math.max(pattern.start + pattern.length, pattern.grid);
  const room = Math.max(40, options.width - 2 * m.pad);
  if (options.size === 'strip' || options.size === 'card') {
    const shown = Math.max(end - pattern.start, pattern.grid);
    const scale = options.stripTicks
      ? Math.min(room / Math.max(options.stripTicks, shown), STRIP_SCALE)
      : Math.min(room / shown, m.most / pattern.grid);
    return { rows: [{ from: pattern.start, until: pattern.start + shown }], scale, width: Math.ceil(shown * scale) + 2 * m.pad };
  }
  const span = barsSpan(pattern).bars;
  // Short phrases get slots wide enough for labels; long ones are drawn denser, to stay in sight.
  const least = span <= 2 ? Math.max(m.least, ROOM_FOR_LABELS) : m.least;
  const perRow = Math.max(1, Math.min(span, Math.floor(room / ((bar / pattern.grid) * least))));
  // Rows as even as they can be: five bars with room for four make three and two.
  const rowCount = Math.ceil(span / perRow);
  const even = Math.ceil(span / rowCount);
  const whole = pattern.start > 0 || end >= bar;
  const rows = Array.from({ length: rowCount }, (_, i) => ({
    from: i * even * bar,
    until: Math.min(
      (i + 1) * even * bar,
      whole && end % bar === 0 ? span * bar : span === 1 && !whole ? end : Math.max(end, i * even * bar + 1),
    ),
  }));
  const widest = rows.reduce<number>((most, r) => Math.max(most, r.until - r.from), pattern.grid);
  const scale = Math.min(room / widest, m.most / pattern.grid);
  return { rows, scale, width: Math.ceil(widest * scale) + 2 * m.pad };
}

function gridLines(pattern: Pattern, from: number, until: number): { tick: number; weight: 'bar' | 'beat' }[] {
  const bar = barTicks(pattern.meter);
  const lines: { tick: number; weight: 'bar' | 'beat' }[] = [];
  for (let start = Math.floor(from / bar) * bar; start <= until; start += bar) {
    for (const beat of countedBeats(pattern.meter)) {
      const tick = start + beat.start;
      if (tick >= from && tick <= until) lines.push({ tick, weight: beat.number === 1 ? 'bar' : 'beat' });
    }
  }
  return lines;
}

function countsOf(
  pattern: Pattern,
  { schools, pace }: RibbonOptions,
  from: number,
  until: number,
  slot: number,
  place: (t: number) => number,
): RibbonRow['counts'] {
  const counting: Counting = pace ? { ...countingOf(pattern, schools), pace } : countingOf(pattern, schools);
  const counts: RibbonRow['counts'][number][] = [];
  for (let tick = from; tick < until; tick += pattern.grid) {
    const { beat, syllable } = countAt(tick, counting);
    // In narrow rows only the beats and their halves are said.
    const strong = syllable === '';
    if (!strong && (slot < 13 || (slot < 19 && syllable !== '&'))) continue;
    counts.push({ x: place(tick) + slot / 2, text: strong ? String(beat) : syllableShown(syllable), strong });
  }
  return counts;
}

/** One syllable a tick, over its stroke. */
function sungOf(strokes: readonly { readonly stroke: Stroke; readonly x: number }[], own: OwnSyllables | undefined): RibbonRow['sung'] {
  if (!own) return [];
  const places = [...new Map(strokes.map((s) => [s.stroke.at, s.x]))];
  return places.map(([at, x]) => ({
    x,
    text: sungAt(
      strokes.filter((s) => s.stroke.at === at).map((s) => s.stroke),
      own,
    ),
  }));
}

/** A syllable as it stands over its slot: in-betweens are a dot, and what is said twice in a beat is said plainly. */
function syllableShown(syllable: string): string {
  return syllable.endsWith('·') ? '·' : syllable.replace(/^[.&](?=.)/, '');
}

/** The parts of the pattern's groups that lie in a row, with the group's length in slots where it is longest. */
function groupsIn(
  pattern: Pattern,
  from: number,
  until: number,
): { from: number; until: number; repeat: number; text: string; close: boolean; open: boolean; goesOn: boolean }[] {
  return pattern.groups.flatMap((g) => {
    const [start, end] = [pattern.start + g.at, pattern.start + g.at + g.length];
    const [a, b] = [Math.max(start, from), Math.min(end, until)];
    if (a >= b) return [];
    const slots = g.length / pattern.grid;
    const most = end - start <= 2 * (b - a);
    return [
      {
        from: a,
        until: b,
        repeat: g.repeat,
        text: most ? String(Math.round(slots * 100) / 100) : '',
        close: g.kind === 'close',
        open: a > start,
        goesOn: b < end,
      },
    ];
  });
}

/** What a stem needs to know beside its stroke. */
interface StemPlace {
  readonly index: number;
  readonly x: number;
  /** Right end of the row and y of the hands' line. */
  readonly right: number;
  readonly line: number;
  /** Width of a slot, in px. */
  readonly slot: number;
  /** Whether the other hand strikes at the same tick. */
  readonly together: boolean;
  readonly role: Role;
  readonly words: string;
}

function stemOf(stroke: Stroke, m: Measures, { index, x, right, line, slot, together, role, words }: StemPlace): Stem {
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
    label: big && slot >= ROOM_FOR_LABELS ? short : null,
    ...(x + headSize + LABEL_WIDTH > right
      ? { labelX: x - headSize - 4, labelSide: 'end' as const }
      : { labelX: x + headSize + 4, labelSide: 'start' as const }),
    letter: big && slot >= ROOM_FOR_LETTERS ? stroke.limb : null,
    // In a unison of both hands the stem goes through the line: the letters stand beside it.
    letterX: together ? x - 9 : x,
    graces: gracesOf(stroke.ornament, x, slot, line + up * height * 0.6),
    buzz: stroke.ornament === 'buzz',
    words,
  };
}

function gracesOf(ornament: Ornament | undefined, x: number, slot: number, top: number): Stem['graces'] {
  if (!ornament) return [];
  const step = Math.min(5, slot / 6);
  return Array.from({ length: graceCount(ornament) }, (_, i) => ({ foot: x - step * (i + 2), top }));
}

function blockOf(stroke: Stroke, index: number, x: number, floor: number, slot: number, m: Measures, words: string): Block {
  // The hi-hat foot is a tick over the kick's blocks, so that both are seen when they fall together.
  const tick = stroke.limb === 'H';
  const big = m.counts > 0;
  const share = stroke.level === 'accent' ? 1 : stroke.level === 'tap' ? 0.74 : 0.45;
  const height = tick ? (big ? 9 : 3) : (m.floor - (big ? 4 : 1)) * share;
  const width = Math.max(2, Math.min(tick ? 7 : 26, slot * (tick ? 0.3 : 0.72)));
  const y = tick ? floor - m.floor - (big ? 6 : 2) : floor - height;
  return {
    index,
    x: x - width / 2,
    y,
    width,
    height,
    limb: stroke.limb,
    letter: big && !tick && width >= 16 && height >= 13 ? stroke.limb : null,
    words,
  };
}

/** What a screen reader says of a stroke: "bar 1, the e of 2, left hand, ghost, snare". */
function wordsOf(pattern: Pattern, stroke: Stroke, schools: Schools): string {
  const count = countAt(pattern.start + stroke.at, countingOf(pattern, schools));
  return [countWords(count, true), LIMB_WORDS[stroke.limb], stroke.ornament, stroke.level, VOICE[stroke.voice].name]
    .filter(Boolean)
    .join(', ');
}

function titleOf(pattern: Pattern): string {
  const beats = Math.round((100 * pattern.length) / beatTicks(pattern.meter)) / 100;
  return `${counted(pattern.strokes.length, 'stroke')} on ${gridName(pattern.grid)} over ${counted(beats, 'beat')}`;
}
