import { Heap } from '../base';
import { isHand, usualVoice, type Limb, type TypedStroke } from '../stroke';
import { isPiece, type Asked, type Slot, type SlotWish, type Wish } from './asked';
import { slotKey } from './cells';

/** A way to fill the space: which cells, one after the other, what it costs, and the strokes of each slot. */
export interface Filled {
  readonly cells: readonly number[];
  /** Whether the last one is cut off. */
  readonly cut: boolean;
  readonly cost: number;
  readonly slots: readonly Slot[];
}

/**
 * What makes one filling better than another: few changes from a cell to another one (single strokes are free to
 * follow each other), few cells, whole ones, no hand three times in a row, no seam over which one hand goes on; and
 * where it is to be like a phrase, few slots that differ.
 */
export const COSTS = Object.freeze({ change: 10, cell: 2, cut: 12, third: 4, seam: 1, other: 3 });

const LIMBS: readonly Limb[] = ['R', 'L', 'K', 'J', 'H'];

/** Where a filling stands before a slot. Runs are strokes of right, left and kick that end at the slot before. */
interface Stand {
  readonly slot: number;
  readonly runs: readonly [number, number, number];
  readonly struck: number;
  /** Slots that differ from what it is to be like. */
  readonly others: number;
  /** The hand of the last stroke of a hand; empty before the first. */
  readonly hand: 'R' | 'L' | '';
}

/** A cell laid: where it leads, whether it was cut off, what it costs without the change to it. */
interface Edge {
  readonly to: number;
  readonly cut: boolean;
  readonly cost: number;
}

/**
 * The strokes of a slot of a cell where it is laid, with those of the given line, and the accents and pieces that are
 * asked: of two hands the right one is sent.
 */
export function laidOn(asked: Asked, slot: number, own: Slot): Slot {
  const given = asked.line?.slots[slot] ?? [];
  let all = given.length > 0 ? [...own, ...given] : own;
  for (const { what, must, slot: at } of asked.wishes) {
    if (at !== slot || !must) continue;
    if (what === 'hit' && !all.some((s) => isHand(s.limb) && s.level === 'accent'))
      all = all.map((s): TypedStroke => (isHand(s.limb) ? { ...s, level: 'accent' } : s));
    if (isPiece(what) && !has(all, what)) {
      const sent = all.find((s) => s.limb === 'R') ?? all.find((s) => s.limb === 'L');
      all = all.map((s): TypedStroke => (s === sent ? { ...s, voice: what } : s));
    }
  }
  return all;
}

function has(filled: Slot, what: Wish): boolean {
  switch (what) {
    case 'hit':
      return filled.some((s) => isHand(s.limb) && s.level === 'accent');
    case 'rest':
      return filled.length === 0;
    case 'R':
    case 'L':
    case 'K':
      return filled.some((s) => s.limb === what);
    default:
      return filled.some((s) => isHand(s.limb) && (s.voice ?? usualVoice(s.limb)) === what);
  }
}

/**
 * Fillings of a space, the cheapest first, exactly: all stands that can be reached slot by slot, from each the least
 * cost to the end backwards, then the ways from the beginning in order of what they cost at least (A*: Hart, Nilsson &
 * Raphael 1968). Where a cell may be laid does not depend on the one before it, only what the change costs: so stands
 * are told apart without it. Equal costs come in the order of the cells. Nothing where there is none.
 */
export class Fillings implements Iterable<Filled> {
  private readonly stands: Stand[] = [];
  private readonly keys = new Map<string, number>();
  /** From each stand, cell by cell, where it leads; null where it does not go there. */
  private readonly edges: (readonly (Edge | null)[])[] = [];
  /** The least cost from a stand to the end that begins with a cell, its change apart; and the least of all cells. */
  private readonly from: Float64Array[] = [];
  private readonly best: number[] = [];
  /** The least of those that begin with a single slot. */
  private readonly bestSingle: number[] = [];
  /** Slots that the given line has for itself: in a linear phrase cells go on behind it. */
  private readonly isTaken: readonly boolean[];
  private readonly wishes: readonly (readonly SlotWish[])[];
  /** What must stand in a slot, and what an answer is like there, as texts. */
  private readonly held: readonly (string | null)[];
  private readonly like: readonly string[] | null;
  private readonly isSingle: readonly boolean[];
  private first: { readonly stand: number; readonly cost: number } | null = null;

  constructor(
    private readonly asked: Asked,
    stopped: () => boolean = () => false,
  ) {
    const slots = Array.from({ length: asked.slots }, (_, i) => i);
    this.isTaken = slots.map((i) => asked.linear && (asked.line?.slots[i]?.length ?? 0) > 0);
    this.wishes = slots.map((i) => asked.wishes.filter((w) => w.slot === i));
    this.held = slots.map((i) => ((slot) => slot && slotKey(slot))(asked.held?.[i] ?? null));
    this.like = asked.like && slots.map((i) => slotKey(asked.like?.slots[i] ?? []));
    this.isSingle = asked.cells.map((c) => c.slots.length === 1);
    this.reach(stopped);
    this.backwards();
  }

  private idOf(stand: Stand): number {
    const { longest, struck } = this.asked;
    // Only what can still matter tells two stands apart.
    const run = (n: number, most: number | null): number => Math.min(n, most === null ? 2 : Math.max(2, most));
    const [r, l, k] = stand.runs;
    const foot = longest.foot === null ? 0 : run(k, longest.foot);
    const runs: Stand['runs'] = [run(r, longest.hand), run(l, longest.hand), foot];
    const key = `${stand.slot} ${runs.join()} ${struck ? stand.struck : 0} ${stand.others}${stand.hand}`;
    const known = this.keys.get(key);
    if (known !== undefined) return known;
    this.keys.set(key, this.stands.length);
    return this.stands.push({ ...stand, runs }) - 1;
  }

  /** A stand after one slot; null where it may not be filled so. */
  private after(stand: Stand, filled: Slot, seam: boolean): { readonly stand: Stand; readonly cost: number } | null {
    const { asked } = this;
    if (asked.linear && filled.length > 1) return null;
    for (const { what, must } of this.wishes[stand.slot] ?? []) if (has(filled, what) !== must) return null;
    const held = this.held[stand.slot] ?? null;
    const own = held === null && !this.like ? '' : slotKey(filled);
    if (held !== null && own !== held) return null;
    const other = this.like !== null && own !== this.like[stand.slot];
    const others = stand.others + (other ? 1 : 0);
    if (asked.like && others > asked.like.most) return null;
    let [right, left, kick] = [false, false, false];
    for (const { limb } of filled) {
      if (limb === 'R') right = true;
      else if (limb === 'L') left = true;
      else if (limb === 'K') kick = true;
    }
    const [r, l, k] = [right ? stand.runs[0] + 1 : 0, left ? stand.runs[1] + 1 : 0, kick ? stand.runs[2] + 1 : 0];
    const { hand, foot } = asked.longest;
    if (hand !== null && (r > hand || l > hand)) return null;
    if (foot !== null && k > foot) return null;
    const struck = stand.struck + (filled.length > 0 ? 1 : 0);
    if (asked.struck && struck > asked.struck.most) return null;
    // Of two hands at once the right one leads.
    const now = right ? 'R' : left ? 'L' : '';
    if (stand.hand === '' && now !== '' && asked.lead !== null && now !== asked.lead) return null;
    const third = COSTS.third * ((r > 2 ? 1 : 0) + (l > 2 ? 1 : 0));
    const over = seam && (r > 1 || l > 1) ? COSTS.seam : 0;
    return {
      stand: { slot: stand.slot + 1, runs: [r, l, k], struck, others, hand: now === '' ? stand.hand : now },
      cost: third + over + (other ? COSTS.other : 0),
    };
  }

  /** Over slots that the given line has for itself. */
  private skip(stand: Stand): { readonly stand: Stand; readonly cost: number } | null {
    let [now, cost] = [stand, 0];
    while (this.isTaken[now.slot]) {
      const next = this.after(now, laidOn(this.asked, now.slot, []), false);
      if (!next) return null;
      [now, cost] = [next.stand, cost + next.cost];
    }
    return { stand: now, cost };
  }

  /** A cell laid from a stand on; null where it does not go there. */
  private lay(stand: Stand, slots: readonly Slot[]): Edge | null {
    const { asked } = this;
    let [now, cost] = [stand, COSTS.cell as number];
    for (const [i, own] of slots.entries()) {
      if (now.slot >= asked.slots) return asked.cut ? { to: this.idOf(now), cut: true, cost: cost + COSTS.cut } : null;
      const next = this.after(now, laidOn(asked, now.slot, own), i === 0);
      const over = next && this.skip(next.stand);
      if (!next || !over) return null;
      [now, cost] = [over.stand, cost + next.cost + over.cost];
    }
    return { to: this.idOf(now), cut: false, cost };
  }

  private reach(stopped: () => boolean): void {
    const { asked } = this;
    // Whose line is given, its limbs are in no cell; and a cell of nothing goes nowhere.
    const isUsable = asked.cells.map(
      (c) => c.slots.length > 0 && !c.slots.some((slot) => slot.some((s) => asked.line?.limbs.includes(s.limb))),
    );
    const begin = this.skip({ slot: 0, runs: [0, 0, 0], struck: 0, others: 0, hand: '' });
    if (!begin) return;
    this.first = { stand: this.idOf(begin.stand), cost: begin.cost };
    // Stands are numbered as they are found, and each leads to later slots only: all are seen slot by slot.
    const bySlot = new Map<number, number[]>();
    const seen = (id: number): void => {
      const { slot } = this.stands[id] ?? begin.stand;
      const own = bySlot.get(slot) ?? [];
      if (!own.includes(id)) bySlot.set(slot, [...own, id]);
    };
    seen(this.first.stand);
    for (let slot = 0; slot < asked.slots; slot++) {
      if (stopped()) return;
      for (const at of bySlot.get(slot) ?? []) {
        const stand = this.stands[at];
        if (!stand) continue;
        const edges = asked.cells.map((c, i) => (isUsable[i] ? this.lay(stand, c.slots) : null));
        for (const e of edges) if (e) seen(e.to);
        this.edges[at] = edges;
      }
    }
  }

  private isEnd(stand: Stand): boolean {
    const { slots, struck, end, lead, like } = this.asked;
    return (
      stand.slot === slots &&
      (like === null || stand.others > 0) &&
      (struck === null || stand.struck >= struck.least) &&
      (end === null || stand.hand === end) &&
      (lead === null || stand.hand !== '')
    );
  }

  /** The least cost to the end from a stand at which a cell has just ended. */
  private left(stand: number, cell: number): number {
    const { slot } = this.stands[stand] ?? { slot: -1 };
    if (slot === this.asked.slots) return this.best[stand] ?? Infinity;
    return Math.min(
      (this.best[stand] ?? Infinity) + COSTS.change,
      this.isSingle[cell] === true ? (this.bestSingle[stand] ?? Infinity) : (this.from[stand]?.[cell] ?? Infinity),
    );
  }

  /** What it costs to go from one cell to another. */
  private change(before: number, cell: number): number {
    const isFree = before < 0 || before === cell || (this.isSingle[before] === true && this.isSingle[cell] === true);
    return isFree ? 0 : COSTS.change;
  }

  private backwards(): void {
    const order = this.stands
      .map((_, i) => i)
      .sort((a, b) => (this.stands[b]?.slot ?? 0) - (this.stands[a]?.slot ?? 0));
    for (const at of order) {
      const stand = this.stands[at];
      if (!stand) continue;
      if (stand.slot === this.asked.slots) {
        this.best[at] = this.isEnd(stand) ? 0 : Infinity;
        continue;
      }
      const own = Float64Array.from(this.edges[at] ?? [], (e, cell) => (e ? e.cost + this.left(e.to, cell) : Infinity));
      this.from[at] = own;
      this.best[at] = own.reduce((a, b) => Math.min(a, b), Infinity);
      this.bestSingle[at] = own.reduce((a, b, cell) => (this.isSingle[cell] === true ? Math.min(a, b) : a), Infinity);
    }
  }

  *[Symbol.iterator](): Iterator<Filled> {
    const { first } = this;
    if (!first || (this.best[first.stand] ?? Infinity) === Infinity) return;
    const heap = new Heap<Way>(isBefore);
    const begin = { cost: first.cost, stand: first.stand, cell: -1, cut: false, before: null, order: 0 };
    heap.push({ ...begin, least: first.cost + (this.best[first.stand] ?? 0) });
    let order = 0;
    for (let top = heap.pop(); top; top = heap.pop()) {
      if (this.stands[top.stand]?.slot === this.asked.slots) {
        yield this.told(top);
        continue;
      }
      for (const [cell, edge] of (this.edges[top.stand] ?? []).entries()) {
        const left = edge ? this.left(edge.to, cell) : Infinity;
        if (!edge || left === Infinity) continue;
        const cost = top.cost + edge.cost + this.change(top.cell, cell);
        heap.push({ least: cost + left, cost, stand: edge.to, cell, cut: edge.cut, before: top, order: ++order });
      }
    }
  }

  private told(end: Way): Filled {
    const cells: number[] = [];
    for (let w: Way | null = end; w && w.cell >= 0; w = w.before) cells.unshift(w.cell);
    const row = cells.flatMap((c) => this.asked.cells[c]?.slots ?? []);
    let next = 0;
    return {
      cells,
      cut: end.cut,
      cost: end.cost,
      slots: Array.from({ length: this.asked.slots }, (_, i) =>
        [...laidOn(this.asked, i, this.isTaken[i] ? [] : (row[next++] ?? []))].sort(
          (a, b) => LIMBS.indexOf(a.limb) - LIMBS.indexOf(b.limb),
        ),
      ),
    };
  }
}

interface Way {
  readonly least: number;
  readonly cost: number;
  readonly stand: number;
  /** The cell it ends with; below 0 at the beginning. */
  readonly cell: number;
  readonly cut: boolean;
  readonly before: Way | null;
  readonly order: number;
}

/** The one that costs least at least; of equal ones the one that is furthest, then the one that came first. */
function isBefore(a: Way, b: Way): boolean {
  return a.least !== b.least ? a.least < b.least : a.cost !== b.cost ? a.cost > b.cost : a.order < b.order;
}
