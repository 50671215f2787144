import type { Stem } from './model';

/** What is drawn of a label or a letter, in px: generous, as fonts differ. */
export interface Box {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

/** Width of one letter of a label, and how far it reaches above and below the middle of its head. */
const LETTER = 7.2;
const UP = 4;
const DOWN = 5;
/** Between a head and its label. */
const APART = 4;

/** Where a label may stand. */
export interface LabelPlace {
  readonly labelX: number;
  readonly labelY: number;
  readonly labelSide: 'start' | 'middle' | 'end';
}

/** What a label of so many letters takes at a place. */
export function labelBox(letters: number, { labelX, labelY, labelSide }: LabelPlace): Box {
  const width = letters * LETTER;
  const left = labelSide === 'start' ? labelX : labelSide === 'middle' ? labelX - width / 2 : labelX - width;
  return { left, right: left + width, top: labelY - UP, bottom: labelY + DOWN };
}

/** Where the letter of the sticking stands. */
export function letterBox({ letterX, limb, base }: Pick<Stem, 'letterX' | 'limb' | 'base'>): Box {
  const foot = limb === 'R' ? base + 15 : base - 7;
  return { left: letterX - 5, right: letterX + 5, top: foot - 9, bottom: foot + 1 };
}

function headBox({ x, end, headSize }: Stem): Box {
  const r = headSize * 1.1;
  return { left: x - r, right: x + r, top: end - r, bottom: end + r };
}

/** Whether two boxes lie on each other. */
export function overlaps(a: Box, b: Box): boolean {
  return a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;
}

function lineBox({ x, base, end, width }: Stem): Box {
  const half = Math.max(1, width / 2);
  return { left: x - half, right: x + half, top: Math.min(base, end), bottom: Math.max(base, end) };
}

/** Places for a label, the best first: beside the head, beyond it, beside the stem under it. */
function placesFor({ x, base, end, headSize, width }: Stem): readonly LabelPlace[] {
  const up = end < base ? -1 : 1;
  const under = end - up * (headSize + UP + DOWN);
  const beside = width / 2 + 2;
  return [
    { labelX: x + headSize + APART, labelY: end, labelSide: 'start' },
    { labelX: x - headSize - APART, labelY: end, labelSide: 'end' },
    { labelX: x, labelY: end + up * (headSize * 1.1 + (up < 0 ? DOWN : UP) + 1), labelSide: 'middle' },
    { labelX: x + beside, labelY: under, labelSide: 'start' },
    { labelX: x - beside, labelY: under, labelSide: 'end' },
  ];
}

/** The part of a row in which labels may stand, and whether its slots are too narrow for a label each. */
export interface LabelRoom {
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
  readonly narrow: boolean;
}

/**
 * The stems of a row with each label where nothing else stands, else without: letters on letters can not be read at
 * all. Where slots are narrow, a piece is named where the hand goes to it, and not again while it stays there.
 */
export function withLabels(stems: readonly Stem[], room: LabelRoom): readonly Stem[] {
  const taken: { readonly of: Stem | null; readonly box: Box }[] = stems.flatMap((s) => [
    { of: s, box: headBox(s) },
    ...(room.narrow ? [{ of: s, box: lineBox(s) }] : []),
    ...(s.letter ? [{ of: null, box: letterBox(s) }] : []),
  ]);
  /** What each hand was last named on in this row. */
  const named = new Map<Stem['limb'], string | null>();
  return stems.map((stem) => {
    const { label } = stem;
    if (!label || (room.narrow && named.get(stem.limb) === label)) return { ...stem, label: null };
    for (const place of placesFor(stem)) {
      const box = labelBox(label.length, place);
      if (box.right > room.right || box.left < 0 || box.top < room.top || box.bottom > room.bottom) continue;
      if (taken.some((t) => t.of !== stem && overlaps(t.box, box))) continue;
      taken.push({ of: null, box });
      named.set(stem.limb, label);
      return { ...stem, ...place };
    }
    named.set(stem.limb, null);
    return { ...stem, label: null };
  });
}
