import { GRID, gridName, gridsOf, type Schools } from '../time';
import { listed } from '../base';
import { HAND_VOICES, isHand, VOICE, type Stroke } from '../stroke';
import { partitions, placeWords, slotsLong, type Pattern } from '../pattern';
import { asEdit, inEveryRepeat, type Edit, type MoveEntry } from '../recipe';
import type { Kit } from '../kit';
import type { Profile } from '../reach';

/** What is changed to make a variant: always one thing. */
export const VARIANT_KINDS = [
  'accents',
  'accent shift',
  'voice',
  'snare and kick',
  'mirrored',
  'displaced',
  'grid',
  'regrouped',
] as const;
export type VariantKind = (typeof VARIANT_KINDS)[number];

/** What the user asks for. */
export interface VariantWish {
  readonly kinds: readonly VariantKind[];
  /** Number of accents for `accents`. */
  readonly accents: number;
  /** On what and by whom it is played: the ceiling of each ranks them. */
  readonly kit: Kit;
  readonly profile: Profile;
  /** How places are said. */
  readonly schools: Schools;
}

/** One change: its words and the move that makes it. */
export interface Change {
  readonly kind: VariantKind;
  /** Made only for those that are shown. */
  readonly words: () => string;
  readonly move: MoveEntry;
}

const ID = 'variant';
const touchOf = (edits: Edit[]): MoveEntry => ({ id: ID, on: true, move: 'touch', params: { edits } });
/** Says where a stroke stands. */
type PlaceOfStroke = (s: Stroke) => string;

/** Kinds whose changes are made to the cell: in a phrase that repeats one, every repeat changes alike. */
const OF_THE_CELL: readonly VariantKind[] = ['accents', 'accent shift', 'voice', 'snare and kick'];

/** Every change of one kind, one at a time, without end where there are many: the caller stops. */
export function* changesOf(kind: VariantKind, pattern: Pattern, wish: VariantWish): Generator<Change> {
  const cell = OF_THE_CELL.includes(kind) ? cellOf(pattern) : null;
  if (!cell) yield* changesIn(kind, pattern, wish);
  else
    for (const { move, words, ...change } of changesIn(kind, cell, wish))
      yield {
        ...change,
        words: () => `${words()}, in every repeat`,
        move: move.move === 'touch' ? touchOf([...inEveryRepeat(pattern, move.params.edits)]) : move,
      };
}

/** The first repeat of a phrase that repeats a cell, as strokes of the phrase; null where nothing repeats. */
function cellOf(pattern: Pattern): Pattern | null {
  const cells = pattern.groups.filter((g) => g.kind === 'cell');
  const [first] = cells;
  if (!first || cells.length < 2) return null;
  const strokes = pattern.strokes.filter((s) => s.at >= first.at && s.at < first.at + first.length);
  return strokes.length > 0 ? { ...pattern, strokes } : null;
}

function* changesIn(kind: VariantKind, pattern: Pattern, { accents, schools }: VariantWish): Generator<Change> {
  const place: PlaceOfStroke = (s) => placeWords(pattern, s.at, schools);
  switch (kind) {
    case 'accents':
      yield* accentPlacements(pattern, accents, place);
      return;
    case 'accent shift':
      yield* accentShifts(pattern);
      return;
    case 'voice':
      yield* voicesMoved(pattern, place);
      return;
    case 'snare and kick':
      yield* snareAndKick(pattern, place);
      return;
    case 'mirrored':
      yield { kind, words: () => 'hands swapped', move: { id: ID, on: true, move: 'mirror', params: { feet: false } } };
      return;
    case 'displaced':
      for (let slots = 1; slots < Math.min(64, slotsLong(pattern)); slots++) {
        yield {
          kind,
          words: () => `${slots} later`,
          move: { id: ID, on: true, move: 'shift', params: { slots, mode: 'wrap' } },
        };
      }
      return;
    case 'grid':
      for (const grid of gridsOf(pattern.meter)) {
        if (grid !== pattern.grid && grid <= GRID.eighths)
          yield {
            kind,
            words: () => `on ${gridName(grid)}`,
            move: { id: ID, on: true, move: 'grid', params: { grid } },
          };
      }
      return;
    case 'regrouped':
      yield* regrouped(pattern);
      return;
  }
}

/** Edits that give every hand stroke the level it should have: accents where asked, taps where accents were. */
function levelled(hands: readonly Stroke[], accented: ReadonlySet<number>): Edit[] {
  return hands.flatMap((s, i): Edit[] => {
    const level = accented.has(i) ? 'accent' : s.level === 'accent' ? 'tap' : s.level;
    return level === s.level ? [] : [{ at: s.at, limb: s.limb, stroke: { level }, only: 'level' }];
  });
}

function* accentPlacements(pattern: Pattern, k: number, place: PlaceOfStroke): Generator<Change> {
  const hands = pattern.strokes.filter((s) => isHand(s.limb));
  for (const chosen of combinations(hands.length, Math.min(k, hands.length))) {
    const words = (): string => `accents on ${listed(chosen.flatMap((i) => hands[i] ?? []).map(place))}`;
    yield { kind: 'accents', words, move: touchOf(levelled(hands, new Set(chosen))) };
  }
}

/** Every choice of k indexes out of n, in order. */
export function* combinations(n: number, k: number): Generator<readonly number[]> {
  const chosen = Array.from({ length: k }, (_, i) => i);
  if (k === 0 || k > n) return;
  for (;;) {
    yield [...chosen];
    let i = k - 1;
    while (i >= 0 && chosen[i] === n - k + i) i--;
    if (i < 0) return;
    const next = (chosen[i] ?? 0) + 1;
    for (let j = i; j < k; j++) chosen[j] = next + (j - i);
  }
}

function* accentShifts(pattern: Pattern): Generator<Change> {
  const hands = pattern.strokes.filter((s) => isHand(s.limb));
  const accents = hands.flatMap((s, i) => (s.level === 'accent' ? [i] : []));
  if (accents.length === 0) return;
  for (let by = 1; by < hands.length; by++) {
    const words = (): string => `accents ${by} ${by === 1 ? 'stroke' : 'strokes'} later`;
    yield {
      kind: 'accent shift',
      words,
      move: touchOf(levelled(hands, new Set(accents.map((i) => (i + by) % hands.length)))),
    };
  }
}

function* voicesMoved(pattern: Pattern, place: PlaceOfStroke): Generator<Change> {
  for (const s of pattern.strokes.filter((x) => isHand(x.limb))) {
    for (const voice of HAND_VOICES) {
      if (voice === s.voice) continue;
      yield {
        kind: 'voice',
        words: () => `${place(s)} to the ${VOICE[voice].name}`,
        move: touchOf([{ at: s.at, limb: s.limb, stroke: { level: s.level, voice }, only: 'voice' }]),
      };
    }
  }
}

function* snareAndKick(pattern: Pattern, place: PlaceOfStroke): Generator<Change> {
  for (const s of pattern.strokes) {
    if (s.voice === 'kick') {
      // The kick's slot goes to the hand that did not play last.
      const before = pattern.strokes.filter((x) => isHand(x.limb) && x.at < s.at).at(-1);
      const limb = before?.limb === 'R' ? 'L' : 'R';
      if (pattern.strokes.some((x) => x.at === s.at && x.limb === limb)) continue;
      const edits: Edit[] = [
        { at: s.at, limb: s.limb, stroke: null },
        { at: s.at, limb, stroke: { level: s.level, voice: 'snare' } },
      ];
      yield { kind: 'snare and kick', words: () => `snare for the kick on ${place(s)}`, move: touchOf(edits) };
    } else if (s.voice === 'snare' && !pattern.strokes.some((x) => x.at === s.at && x.limb === 'K')) {
      const edits: Edit[] = [
        { at: s.at, limb: s.limb, stroke: null },
        { at: s.at, limb: 'K', stroke: { level: s.level === 'ghost' ? 'tap' : s.level } },
      ];
      yield { kind: 'snare and kick', words: () => `kick for the snare on ${place(s)}`, move: touchOf(edits) };
    }
  }
}

/** Sizes a phrase is usually grouped in. */
const SIZES = [3, 4, 5, 6, 7];

function* regrouped(pattern: Pattern): Generator<Change> {
  const slots = slotsLong(pattern);
  if (!Number.isInteger(slots) || pattern.groups.length < 2 || pattern.start !== 0) return;
  const cell = (pattern.groups[0]?.length ?? pattern.length) / pattern.grid;
  for (const groups of partitions(slots, SIZES, 4).best) {
    if (groups.every((g) => g === cell)) continue;
    // The first repeat is the cell; it is cut out, then laid out anew.
    yield { kind: 'regrouped', words: () => `in ${groups.join(' + ')}`, move: regroup(pattern, groups) };
  }
}

/**
 * The first group of a pattern laid out in other groups, as edits: strokes of the cell at each new beginning, nothing
 * elsewhere.
 */
function regroup(pattern: Pattern, groups: readonly number[]): MoveEntry {
  const cell = pattern.groups[0];
  const source = pattern.strokes.filter((s) => cell !== undefined && s.at >= cell.at && s.at < cell.at + cell.length);
  const wanted = new Map<string, Edit>();
  let start = 0;
  for (const size of groups) {
    for (const s of source) {
      const within = s.at - (cell?.at ?? 0);
      if (within < size * pattern.grid) {
        const at = start + within;
        wanted.set(`${at}${s.limb}`, asEdit(s, at));
      }
    }
    start += size * pattern.grid;
  }
  const gone = pattern.strokes
    .filter((s) => !wanted.has(`${s.at}${s.limb}`))
    .map((s): Edit => ({ at: s.at, limb: s.limb, stroke: null }));
  return touchOf([...gone, ...wanted.values()]);
}
