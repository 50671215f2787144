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

/** Where a label stands. */
export function labelBox({ label, labelX, labelSide, end }: Pick<Stem, 'label' | 'labelX' | 'labelSide' | 'end'>): Box {
  const width = (label?.length ?? 0) * LETTER;
  const left = labelSide === 'start' ? labelX : labelX - width;
  return { left, right: left + width, top: end - UP, bottom: end + DOWN };
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

/**
 * The stems of a row with each label where nothing else stands: right of its head, else left of it, else nowhere. What
 * a stroke sounds on can be read from its neighbours, or by pointing at it; letters on letters can not be read at all.
 */
export function withLabels(stems: readonly Stem[], right: number): readonly Stem[] {
  const taken: Box[] = stems.flatMap((s) => [headBox(s), ...(s.letter ? [letterBox(s)] : [])]);
  return stems.map((stem) => {
    if (!stem.label) return stem;
    const own = headBox(stem);
    const sides = [
      { labelX: stem.x + stem.headSize + APART, labelSide: 'start' as const },
      { labelX: stem.x - stem.headSize - APART, labelSide: 'end' as const },
    ];
    for (const side of sides) {
      const box = labelBox({ ...stem, ...side });
      if (box.right > right || box.left < 0) continue;
      if (taken.some((t) => overlaps(t, box) && !same(t, own))) continue;
      taken.push(box);
      return { ...stem, ...side };
    }
    return { ...stem, label: null };
  });
}

function same(a: Box, b: Box): boolean {
  return a.left === b.left && a.top === b.top && a.right === b.right;
}
