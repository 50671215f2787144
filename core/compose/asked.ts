import type { Grid, Meter, Ticks } from '../time';
import { VOICE, type Hand, type Limb, type TypedStroke, type Voice } from '../stroke';

/** How an answer goes round the kit. */
export const WAYS = ['down', 'up', 'apart', 'floor', 'crashes'] as const;
export type Way = (typeof WAYS)[number];

/** What may be wished of a slot: an accent of a hand, a limb, nothing at all; or a hand on a piece. */
export const WISHES = ['hit', 'R', 'L', 'K', 'rest'] as const;
export type Wish = (typeof WISHES)[number] | Voice;

/** That a slot must have something, or must not. */
export interface SlotWish {
  readonly slot: number;
  readonly what: Wish;
  readonly must: boolean;
}

/** The strokes of one slot; none is a rest. */
export type Slot = readonly TypedStroke[];

/** What phrases are built from: slots that stand together, with a name to be told by. */
export interface Cell {
  readonly name: string;
  readonly slots: readonly Slot[];
}

/** Where a phrase lands: on the next 1, with a piece of a hand, the kick, or both. */
export interface Landing {
  readonly hand: Hand;
  readonly voice?: Voice;
  readonly kick: boolean;
}

/** What is asked for. All that is null or empty is left to the search. */
export interface Asked {
  readonly meter: Meter;
  readonly grid: Grid;
  /** How far behind a bar line it begins, in ticks. */
  readonly start: Ticks;
  /** How many slots it is long, 1–128. */
  readonly slots: number;
  readonly wishes: readonly SlotWish[];
  /** A line that stays stroke by stroke: the strokes of each slot, and whose line it is. */
  readonly line: { readonly limbs: readonly Limb[]; readonly slots: readonly Slot[] } | null;
  /** Slots that stay as they are, stroke by stroke; null where anything may stand. */
  readonly held: readonly (Slot | null)[] | null;
  /** What an answer is like: it differs in one slot at least and in so many at most. */
  readonly like: { readonly slots: readonly Slot[]; readonly most: number } | null;
  readonly cells: readonly Cell[];
  /** Whether the last cell may be cut off. */
  readonly cut: boolean;
  /** One stroke at a time. */
  readonly linear: boolean;
  /** The most strokes in slots that follow each other by one hand, and by the kick foot. */
  readonly longest: { readonly hand: number | null; readonly foot: number | null };
  /** How many slots are struck, at least and at most. */
  readonly struck: { readonly least: number; readonly most: number } | null;
  /** The hand of the first stroke of a hand, and of the last. */
  readonly lead: Hand | null;
  readonly end: Hand | null;
  readonly landing: Landing | null;
  /** How the hands go round the kit; null where they stay on their usual pieces. */
  readonly way: Way | null;
  /** The tempo it must hold on the kit, in counted beats a minute. */
  readonly tempo: number | null;
  /** By how many slots an answer differs from every other one, and from each phrase of the same length on the shelf. */
  readonly apart: number;
  readonly unlike: number;
  /** How many answers may have the same sum, so that others are seen too; null for any number. */
  readonly alike: number | null;
  /** How many answers are wanted. */
  readonly many: number;
}

/** The longest space that is searched, and the most answers. */
export const COMPOSE_LIMITS = Object.freeze({ slots: 128, many: 24 });

/** Asked for as little as can be: singles, doubles and their like are to be given as cells. */
export function asking(of: Pick<Asked, 'meter' | 'grid' | 'slots' | 'cells'> & Partial<Asked>): Asked {
  return {
    start: 0 as Ticks,
    wishes: [],
    line: null,
    held: null,
    like: null,
    cut: false,
    linear: false,
    longest: { hand: null, foot: null },
    struck: null,
    lead: null,
    end: null,
    landing: null,
    way: null,
    tempo: null,
    apart: 1,
    unlike: 0,
    alike: null,
    many: 6,
    ...of,
  };
}

/** A demand that cannot be met whatever is played, where it stands; null for the whole. */
export interface Contradiction {
  readonly slot: number | null;
  readonly words: string;
}

const WORDS: Readonly<Record<(typeof WISHES)[number], string>> = {
  hit: 'a hit',
  R: 'the right hand',
  L: 'the left hand',
  K: 'the kick',
  rest: 'a rest',
};

/** Whether a wish is for a hand on a piece. */
export const isPiece = (what: Wish): what is Voice => !(what in WORDS);

/**
 * What a wish is called.
 * @example
 * wishWords('hit') // => "a hit"
 * wishWords('crash-left') // => "the left crash"
 */
export const wishWords = (what: Wish): string => (isPiece(what) ? `the ${VOICE[what].name}` : WORDS[what]);

/** Every demand that contradicts another one, or itself. Empty where there may be an answer. */
export function contradictions(asked: Asked, placeOf: (slot: number) => string): readonly Contradiction[] {
  const found: Contradiction[] = [];
  const { slots, cells, line, linear, wishes, struck, way } = asked;
  if (slots < 1 || slots > COMPOSE_LIMITS.slots)
    found.push({ slot: null, words: `Ask for 1 to ${COMPOSE_LIMITS.slots} slots.` });
  if (cells.every((c) => c.slots.length === 0)) found.push({ slot: null, words: 'Choose what to build from.' });
  if (struck && (struck.least > struck.most || struck.least > slots))
    found.push({ slot: null, words: `${struck.least} strokes do not fit.` });
  for (let slot = 0; slot < slots; slot++) {
    const own = wishes.filter((w) => w.slot === slot);
    const must = new Set(own.filter((w) => w.must).map((w) => w.what));
    const not = new Set(own.filter((w) => !w.must).map((w) => w.what));
    const given = line?.slots[slot] ?? [];
    const both = (a: string, b: string): void =>
      void found.push({ slot, words: `${a} and ${b} both on ${placeOf(slot)}.` });
    const pieces = [...must].filter(isPiece);
    for (const what of must) if (not.has(what)) both(wishWords(what), `none`);
    if (must.has('rest')) {
      for (const what of must) if (what !== 'rest') both(wishWords(what), 'a rest');
      if (given.length > 0) both('the given line', 'a rest');
    }
    const [first, second] = pieces;
    if (first && second) both(wishWords(first), wishWords(second));
    if (first && way !== null)
      found.push({
        slot,
        words: `${wishWords(first)} on ${placeOf(slot)}, and the hands go round the kit: choose one.`,
      });
    const handed = must.has('hit') ? 'a hit' : first ? wishWords(first) : null;
    if (handed !== null && not.has('R') && not.has('L')) both(handed, 'no hand');
    if (linear && first && must.has('K'))
      found.push({ slot, words: `${wishWords(first)} and the kick on ${placeOf(slot)}, and it is to be linear.` });
    if (linear && [...must].filter((w) => w === 'R' || w === 'L' || w === 'K').length > 1)
      found.push({ slot, words: `Two limbs on ${placeOf(slot)}, and it is to be linear.` });
    if (linear && must.has('hit') && must.has('K'))
      found.push({ slot, words: `A hit and the kick on ${placeOf(slot)}, and it is to be linear.` });
    for (const s of given) {
      if ((s.limb === 'K' || s.limb === 'R' || s.limb === 'L') && not.has(s.limb))
        both('the given line', `no ${WORDS[s.limb].slice(4)}`);
      if (linear && (['R', 'L', 'K'] as const).some((l) => must.has(l) && l !== s.limb))
        both('the given line', 'another limb');
      if (linear && first && s.limb === 'K') both('the given line', wishWords(first));
    }
    for (const limb of line?.limbs ?? [])
      if ((limb === 'K' || limb === 'R' || limb === 'L') && must.has(limb) && !given.some((s) => s.limb === limb))
        found.push({ slot, words: `The given line has no ${WORDS[limb].slice(4)} on ${placeOf(slot)}.` });
  }
  return found;
}
