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
  const rounds = blocks.filter((b) => turns(b.kind)).map(roundsOf);
  const most = Math.max(...rounds.map((r) => r.length));
  // Late rounds of the longer ones meet those of the shorter: nothing is played twice in a row where it can be helped.
  const mixed = Array.from({ length: most }, (_, n) => rounds.flatMap((r) => r[n] ?? [])).flat();
  return [
    ...blocks.slice(0, first).map(whole),
    ...mixed,
    ...blocks
      .slice(first)
      .filter((b) => !turns(b.kind))
      .map(whole),
  ];
}

/**
 * The same with breaks, so that nobody plays longer than 25 minutes without one; a block that would go on is cut there.
 * `before` is how long was played since the last break.
 */
export function withBreaks<B extends Loose>(list: readonly TimeSlice<B>[], before: number): readonly TimeSlice<B>[] {
  const out: TimeSlice<B>[] = [];
  const rest = [...list];
  let played = before;
  const pause = (): void => {
    out.push({ block: null, minutes: BREAK_MINUTES, round: null });
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
    if (first >= LEAST) {
      out.push({ ...next, minutes: first });
      rest.unshift({ ...next, minutes: next.minutes - first });
    } else rest.unshift(next);
    pause();
  }
  return out;
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
