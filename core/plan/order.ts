import type { BlockKind, PlanOrder } from './block';

/** A block before it has its place. */
export interface Loose {
  readonly id: string;
  readonly kind: BlockKind;
  readonly minutes: number;
  readonly value: number;
}

/** A stretch of a block without a break in it. */
export interface TimeSlice<B extends Loose = Loose> {
  readonly block: B | null;
  readonly minutes: number;
  readonly round: { readonly n: number; readonly of: number } | null;
}

/** A break at the latest after so many minutes of playing, and how long it is. */
export const BREAK_AFTER = 25;
export const BREAK_MINUTES = 3;
/** A round is no longer than this, in minutes, and no stretch is shorter than the least. */
const ROUND = 4;
const LEAST = 2;

const RANK: Readonly<Record<BlockKind, number>> = Object.freeze({
  'warm-up': 0,
  mend: 1,
  rise: 2,
  new: 3,
  keep: 4,
  play: 5,
  break: 6,
});

/**
 * Blocks in the order in which they are played: warm-up, then what needs fresh hands, what is kept, and free play last;
 * what the player laid otherwise comes as it was laid.
 */
export function inOrder<B extends Loose>(blocks: readonly B[], arranged: readonly string[]): readonly B[] {
  const usual = [...blocks].sort(
    (a, b) => RANK[a.kind] - RANK[b.kind] || b.value - a.value || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0),
  );
  const laid = arranged.flatMap((id) => usual.find((b) => b.id === id) ?? []);
  if (laid.length === 0) return usual;
  // What was laid keeps its order among itself; the rest stands where it would stand.
  const own = new Set(laid.map((b) => b.id));
  let next = 0;
  return usual.map((b) => (own.has(b.id) ? (laid[next++] ?? b) : b));
}

/** The rounds of a block: as even as can be, none longer than a round. */
function roundsOf<B extends Loose>(block: B): readonly TimeSlice<B>[] {
  const of = Math.max(1, Math.ceil(block.minutes / ROUND));
  return Array.from({ length: of }, (_, i): TimeSlice<B> => {
    const minutes = Math.floor(((i + 1) * block.minutes) / of) - Math.floor((i * block.minutes) / of);
    return { block, minutes, round: of === 1 ? null : { n: i + 1, of } };
  });
}

/** Blocks one after the other, or what climbs in rounds. */
export function stretches<B extends Loose>(blocks: readonly B[], order: PlanOrder): readonly TimeSlice<B>[] {
  const whole = (block: B): TimeSlice<B> => ({ block, minutes: block.minutes, round: null });
  if (order === 'in-turn') return blocks.map(whole);
  const turns = (kind: BlockKind): boolean => kind === 'mend' || kind === 'rise' || kind === 'new' || kind === 'keep';
  const first = blocks.findIndex((b) => turns(b.kind));
  if (first < 0) return blocks.map(whole);
  const mixed = inTurns(blocks.filter((b) => turns(b.kind)).map((b) => [...roundsOf(b)]));
  return [
    ...blocks.slice(0, first).map(whole),
    ...mixed,
    ...blocks
      .slice(first)
      .filter((b) => !turns(b.kind))
      .map(whole),
  ];
}

/** Rounds of several blocks, so that none comes twice in a row as long as there is another. */
function inTurns<B extends Loose>(rounds: readonly TimeSlice<B>[][]): TimeSlice<B>[] {
  const out: TimeSlice<B>[] = [];
  for (;;) {
    const waiting = rounds.filter((own) => own.length > 0);
    if (waiting.length === 0) return out;
    const last = out.at(-1)?.block;
    // What has most before it goes first, else it is left over at the end, alone; of equals as they were laid.
    const [next = waiting[0]] = waiting.filter(([own]) => own?.block !== last).sort((x, y) => y.length - x.length);
    const slice = next?.shift();
    if (slice) out.push(slice);
  }
}

const PAUSE = Object.freeze({ block: null, minutes: BREAK_MINUTES, round: null });

/**
 * The same with breaks, so that nobody plays longer than 25 minutes without one: before what would go on beyond them.
 * Only what is longer itself is cut. `before` is how long was played since the last break; there are at least so many
 * breaks where there is room for them.
 */
export function withBreaks<B extends Loose>(
  list: readonly TimeSlice<B>[],
  before: number,
  least = 0,
): readonly TimeSlice<B>[] {
  const out: TimeSlice<B>[] = [];
  const rest = [...list];
  let played = before;
  const pause = (): void => {
    out.push(PAUSE);
    played = 0;
  };
  for (let next = rest.shift(); next; next = rest.shift()) {
    const room = BREAK_AFTER - played;
    if (next.minutes <= room) {
      out.push(next);
      played += next.minutes;
      continue;
    }
    // Neither part of what is cut is a moment only.
    const first = Math.min(room, next.minutes - LEAST);
    if (next.minutes > BREAK_AFTER && first >= LEAST) {
      out.push({ ...next, minutes: first });
      rest.unshift({ ...next, minutes: next.minutes - first });
    } else rest.unshift(next);
    pause();
  }
  let all: readonly TimeSlice<B>[] = out;
  for (let n = out.filter((s) => !s.block).length; n < least; n++) all = halved(all);
  return all;
}

/** One break more, in the middle of the longest stretch without one. */
function halved<B extends Loose>(list: readonly TimeSlice<B>[]): readonly TimeSlice<B>[] {
  const stretchesOf = list.reduce<{ from: number; until: number; minutes: number }[]>((all, s, i) => {
    const last = all.at(-1);
    if (!s.block) return [...all, { from: i + 1, until: i + 1, minutes: 0 }];
    if (!last) return [{ from: i, until: i + 1, minutes: s.minutes }];
    return [...all.slice(0, -1), { ...last, until: i + 1, minutes: last.minutes + s.minutes }];
  }, []);
  const [longest] = [...stretchesOf].sort((a, b) => b.minutes - a.minutes);
  if (!longest || longest.minutes < 2 * LEAST) return list;
  const own = list.slice(longest.from, longest.until);
  const [only] = own;
  const put = (middle: readonly TimeSlice<B>[]): readonly TimeSlice<B>[] => [
    ...list.slice(0, longest.from),
    ...middle,
    ...list.slice(longest.until),
  ];
  if (own.length === 1 && only) {
    const first = Math.floor(only.minutes / 2);
    return put([{ ...only, minutes: first }, PAUSE, { ...only, minutes: only.minutes - first }]);
  }
  let sum = 0;
  const ends = own.map((s) => (sum += s.minutes)).slice(0, -1);
  const at = ends.reduce(
    (best, end, i) => (Math.abs(end - sum / 2) < Math.abs((ends[best] ?? 0) - sum / 2) ? i : best),
    0,
  );
  return put([...own.slice(0, at + 1), PAUSE, ...own.slice(at + 1)]);
}

/**
 * How many of some minutes are for playing, when so many were played since the last break: the others are breaks.
 * @example
 * playingMinutes(20, 0) // => 20
 * playingMinutes(35, 0) // => 32
 * playingMinutes(20, 15) // => 17
 */
export function playingMinutes(minutes: number, before: number): number {
  let breaks = 0;
  // A stretch that is cut may leave its 25 minutes by the least a part is long.
  while (minutes - breaks * BREAK_MINUTES > BREAK_AFTER - before + breaks * (BREAK_AFTER - LEAST)) breaks++;
  return Math.max(0, minutes - breaks * BREAK_MINUTES);
}
