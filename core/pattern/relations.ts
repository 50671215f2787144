import { count, gcd, listed } from '../base';
import { ticks, type Schools, type Ticks } from '../time';
import { isHand, LIMBS, otherHand, type Limb, type Stroke } from '../stroke';
import type { Pattern } from './pattern';
import { leadHand, placesWords } from './sums';

/** What happens to the leading hand when a pattern goes round. */
export interface Lead {
  readonly first: 'R' | 'L' | null;
  readonly last: 'R' | 'L' | null;
  /** Whether the second half is the first with the hands swapped: it leads with both. */
  readonly symmetric: boolean;
}

/** The lead of a pattern. */
export function leadOf(pattern: Pattern): Lead {
  const hands = pattern.strokes.filter((s) => isHand(s.limb));
  const first = leadHand(hands);
  const last = leadHand([...hands].reverse());
  return { first, last, symmetric: isSymmetric(pattern) };
}

/** Whether a pattern is the mirror of itself by halves. Where both hands only strike together neither leads. */
export function isSymmetric(pattern: Pattern): boolean {
  const hands = pattern.strokes.filter((s) => isHand(s.limb));
  const leads = hands.some((s) => !hands.some((o) => o.at === s.at && o.limb !== s.limb));
  if (pattern.length % 2 !== 0 || !leads) return false;
  const half = pattern.length / 2;
  const key = (s: Stroke, at: number): string =>
    `${at} ${s.limb} ${s.voice} ${s.level} ${s.ornament ?? ''} ${s.grace ?? ''}`;
  const first = new Set(
    pattern.strokes.filter((s) => s.at < half).map((s) => key({ ...s, limb: otherHand(s.limb) }, s.at)),
  );
  const second = pattern.strokes.filter((s) => s.at >= half);
  return first.size === second.length && second.every((s) => first.has(key(s, s.at - half)));
}

export type DifferenceKind = 'added' | 'left out' | 'voice' | 'limb' | 'level' | 'ornament';

/** One way in which two patterns differ at a tick. */
export interface Difference {
  readonly at: Ticks;
  readonly kind: DifferenceKind;
  /** The limb that plays there, or did. */
  readonly limb: Limb;
}

/**
 * What must be done to the first pattern, tick by tick, to make it the second. Patterns are laid on each other by their
 * beginnings.
 */
export function difference(a: Pattern, b: Pattern): readonly Difference[] {
  const ats = [...new Set([...a.strokes, ...b.strokes].map((s) => s.at))].sort((x, y) => x - y);
  return ats.flatMap((at) =>
    differAt(
      at,
      a.strokes.filter((s) => s.at === at),
      b.strokes.filter((s) => s.at === at),
    ),
  );
}

function differAt(at: Ticks, a: readonly Stroke[], b: readonly Stroke[]): Difference[] {
  const found: Difference[] = [];
  const free = b.filter((s) => !a.some((o) => o.limb === s.limb));
  for (const one of a) {
    const same = b.find((s) => s.limb === one.limb);
    // A stroke whose limb plays no more may have gone to a limb that did not play before.
    const two = same ?? free.shift();
    if (!two) {
      found.push({ at, kind: 'left out', limb: one.limb });
      continue;
    }
    const { limb } = two;
    if (!same) found.push({ at, kind: 'limb', limb });
    if (one.voice !== two.voice && same) found.push({ at, kind: 'voice', limb });
    if (one.level !== two.level) found.push({ at, kind: 'level', limb });
    if (one.ornament !== two.ornament || one.grace !== two.grace) found.push({ at, kind: 'ornament', limb });
  }
  return [...found, ...free.map(({ limb }): Difference => ({ at, kind: 'added', limb }))];
}

const LIMB_NOUNS: Readonly<Record<Limb, string>> = {
  R: 'right stroke',
  L: 'left stroke',
  K: 'kick',
  J: 'second kick',
  H: 'hi-hat foot stroke',
};

/** A difference in words: how many of what, and where. */
export function differenceWords(a: Pattern, b: Pattern, schools: Schools): string {
  const loops = loopWords(a, b, schools);
  if (difference(pickupOnly(a), pickupOnly(b)).length === 0) return `${loops ?? 'The same'}.`;
  return loops === null ? 'Only the pick-up differs.' : `${loops}; the pick-up too.`;
}

/** The strokes before the 1 as a pattern to be compared. */
function pickupOnly(pattern: Pattern): Pattern {
  return { ...pattern, strokes: pattern.pickup ?? [] };
}

/** Without its full stop; null where nothing differs. */
function loopWords(a: Pattern, b: Pattern, schools: Schools): string | null {
  const found = difference(a, b);
  if (found.length === 0) return a.length === b.length ? null : 'The same strokes, another length';
  const kinds: readonly [DifferenceKind, string][] = [
    ['voice', 'piece'],
    ['limb', 'limb'],
    ['level', 'stick height'],
    ['ornament', 'ornament'],
    ['added', 'more'],
    ['left out', 'less'],
  ];
  const parts = kinds.flatMap(([kind, noun]): string[] => {
    const own = found.filter((d) => d.kind === kind);
    if (kind !== 'added' && kind !== 'left out') return own.length === 0 ? [] : [count(own.length, noun)];
    // What is there or missing is said by its limb: "1 kick less".
    return LIMBS.flatMap((limb) => {
      const n = own.filter((d) => d.limb === limb).length;
      return n === 0 ? [] : [`${count(n, LIMB_NOUNS[limb])} ${noun}`];
    });
  });
  const longer = a.length > b.length ? a : b;
  return `${listed(parts)}: ${placesWords(longer, [...new Set(found.map((d) => d.at))], schools)}`;
}

/** The coarsest slot on which every stroke and the end of a pattern lie. */
export function finestSlot(pattern: Pattern): Ticks {
  return ticks(
    [...pattern.strokes.map((s) => s.at), pattern.length].reduce<number>((slot, t) => gcd(slot, t), pattern.grid),
  );
}
