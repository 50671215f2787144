import { barTicks, type Meter } from '../time';
import { isHand, type Voice } from '../stroke';
import { untilLanding, type Pattern } from '../pattern';
import type { Hit } from '../take';
import { latticeOf, type Kind, type Lattice, type SlotHit } from './lattice';

/** A phrase that may come while somebody plays freely. */
export interface Known {
  readonly id: string;
  readonly pattern: Pattern;
  /** The same for phrases that are each other turned or mirrored: these cannot be told apart by ear alone. */
  readonly form: string;
}

/** What was played: hits over a click, in seconds from the first bar line. */
export interface Played {
  readonly hits: readonly Hit[];
  readonly meter: Meter;
  /** Counted beats a minute. */
  readonly bpm: number;
}

/** A phrase that came. */
export interface Came {
  readonly id: string;
  /** Others that it may as well have been: played so, they are the same. */
  readonly or: readonly string[];
  /** Ticks from the first bar line where the phrase begins, and where what was played of it begins and ends. */
  readonly at: number;
  readonly from: number;
  readonly until: number;
  /** How sure it is, 0–1. */
  readonly chance: number;
  /** Strokes of it that were struck, of as many as it has there. */
  readonly struck: number;
  readonly of: number;
}

/** A stroke of a phrase is struck, and a slot of it that has none is not, by these chances. */
const STRUCK = 0.94;
const EXTRA = 0.05;
/** An accent is loud, another stroke is not; a stroke is on its own piece. */
const LOUD = 0.94;
const OWN_PIECE = 0.8;
/** Of a phrase so many strokes are needed to be told. */
const LEAST = 5;
/** A phrase of so many slots comes about so often: what has to be outweighed before anything is said. */
const RARE = Math.log(1 / 150);
/** One in so many is cut short, or begun late. */
const CUT = Math.log(1 / 12);
/** What is less sure is not said. */
export const SAID = 0.9;
/** The background is never surer than this of a slot. */
const FLOOR = 0.02;

/** What a phrase has in one of its slots. */
interface Want {
  readonly kinds: ReadonlySet<Kind>;
  readonly loud: boolean | null;
  /** The piece of its hand; null where both play, or none. */
  readonly voice: Voice | null;
}

/** What is known of a phrase, slot by slot. */
interface Profile {
  readonly known: Known;
  readonly grid: number;
  readonly slots: readonly Want[];
}

function profileOf(known: Known): Profile | null {
  const own = untilLanding(known.pattern);
  const { grid, length, strokes } = own;
  if (length === 0 || strokes.some((s) => s.at % grid !== 0)) return null;
  const slots = Array.from({ length: Math.ceil(length / grid) }, (_, i) => {
    const here = strokes.filter((s) => s.at === i * grid);
    const hands = here.filter((s) => isHand(s.limb));
    const kinds = new Set<Kind>(here.map((s) => (isHand(s.limb) ? 'hand' : s.limb === 'H' ? 'hat-foot' : 'kick')));
    const [one] = hands;
    return {
      kinds,
      loud: hands.length === 0 ? null : hands.some((s) => s.level === 'accent'),
      voice: hands.length === 1 ? (one?.voice ?? null) : null,
    };
  });
  return slots.filter((s) => s.kinds.size > 0).length < LEAST ? null : { known, grid, slots };
}

/** How often a slot of the bar has each kind of hit, and a hit of hands is loud, by all that was played. */
interface Background {
  readonly share: (slot: number, kind: Kind) => number;
  readonly loud: number;
  /** How often a hit of a hand is on a piece. */
  readonly piece: (voice: Voice) => number;
}

function backgroundOf({ slots }: Lattice, bar: number): Background {
  const many = Math.max(1, Math.ceil(slots.length / bar));
  const seen = new Map<string, number>();
  const pieces = new Map<Voice, number>();
  let [hands, louds, all] = [0, 0, 0];
  const kinds = new Map<Kind, number>();
  slots.forEach((hits, i) => {
    for (const kind of new Set(hits.map((h) => h.kind))) {
      seen.set(`${i % bar}|${kind}`, (seen.get(`${i % bar}|${kind}`) ?? 0) + 1);
      kinds.set(kind, (kinds.get(kind) ?? 0) + 1);
    }
    for (const h of hits) {
      if (h.kind !== 'hand') continue;
      hands++;
      if (h.loud === true) louds++;
      if (h.voice) pieces.set(h.voice, (pieces.get(h.voice) ?? 0) + 1);
    }
    all++;
  });
  // Of few bars a slot tells little: it is drawn towards what all slots have.
  const PRIOR = 3;
  return {
    share: (slot, kind) => {
      const usual = (kinds.get(kind) ?? 0) / Math.max(1, all);
      const own = ((seen.get(`${slot % bar}|${kind}`) ?? 0) + PRIOR * usual) / (many + PRIOR);
      return Math.min(1 - FLOOR, Math.max(FLOOR, own));
    },
    loud: hands === 0 ? 0.5 : Math.min(0.95, Math.max(0.05, louds / hands)),
    piece: (voice) => Math.max(0.02, (pieces.get(voice) ?? 0) / Math.max(1, hands)),
  };
}

/** How much likelier a slot is as that of the phrase than as anything else: a logarithm. */
function slotWorth(want: Want, hits: readonly SlotHit[], slot: number, back: Background): number {
  let worth = 0;
  for (const kind of ['hand', 'kick', 'hat-foot'] as const) {
    const own = want.kinds.has(kind) ? STRUCK : EXTRA;
    const usual = back.share(slot, kind);
    const is = hits.some((h) => h.kind === kind);
    worth += is ? Math.log(own / usual) : Math.log((1 - own) / (1 - usual));
  }
  const hand = hits.find((h) => h.kind === 'hand');
  if (!hand || !want.kinds.has('hand')) return worth;
  if (hand.loud !== null && want.loud !== null) {
    const own = want.loud ? LOUD : 1 - LOUD;
    worth += hand.loud ? Math.log(own / back.loud) : Math.log((1 - own) / (1 - back.loud));
  }
  if (hand.voice !== null && want.voice !== null) {
    // On another piece it is still the phrase, orchestrated otherwise.
    const usual = back.piece(hand.voice);
    worth += Math.log(
      (hand.voice === want.voice ? OWN_PIECE + (1 - OWN_PIECE) * usual : (1 - OWN_PIECE) * usual) / usual,
    );
  }
  return worth;
}

interface Candidate extends Came {
  readonly worth: number;
  readonly form: string;
}

/** What was played on a subdivision, with what each kind of slot is worth at each place: worked out once. */
class Ground {
  private readonly back: Background;
  private readonly rows = new Map<string, Float64Array>();

  constructor(
    readonly lattice: Lattice,
    bar: number,
  ) {
    this.back = backgroundOf(lattice, bar);
  }

  get length(): number {
    return this.lattice.slots.length;
  }

  /** What a slot of a phrase is worth at each place. */
  row(want: Want): Float64Array {
    const key = `${[...want.kinds].sort().join()}|${String(want.loud)}|${want.voice ?? ''}`;
    let row = this.rows.get(key);
    if (!row) {
      row = Float64Array.from(this.lattice.slots, (hits, at) => slotWorth(want, hits, at, this.back));
      this.rows.set(key, row);
    }
    return row;
  }
}

/**
 * The phrases that came in what was played over a click, each with how sure it is, in the order they came. A phrase is
 * compared in each place of the bar; the stretch of it that is likeliest beside the player's own background counts, so
 * that what was cut short is found too. Of stretches that overlap the likelier ones are kept. Nothing is said that is
 * less sure than nine in ten; of phrases that are the same, played so, all are named.
 */
export function recognise(known: readonly Known[], played: Played): readonly Came[] {
  const bar = barTicks(played.meter);
  const grounds = new Map<number, Ground | null>();
  const groundFor = (grid: number): Ground | null => {
    let ground = grounds.get(grid);
    if (ground === undefined) {
      const lies = bar % grid === 0;
      ground = lies ? new Ground(latticeOf(played.hits, played.meter, played.bpm, grid), bar / grid) : null;
      grounds.set(grid, ground);
    }
    return ground;
  };
  const threshold = Math.log(Math.max(1, known.length)) - RARE;
  const found = known.flatMap((one): readonly Candidate[] => {
    const profile = profileOf(one);
    const ground = profile && groundFor(profile.grid);
    return profile && ground ? stretches(profile, ground, threshold - 2) : [];
  });
  return chosen(found, threshold);
}

/** Each place of the bar where a stretch of a phrase is likelier than some worth. */
function stretches({ known, grid, slots }: Profile, ground: Ground, least: number): readonly Candidate[] {
  const found: Candidate[] = [];
  const rows = slots.map((want) => ground.row(want));
  const strokes = slots.filter((s) => s.kinds.size > 0).length;
  for (let first = 1 - slots.length; first < ground.length; first++) {
    // The likeliest stretch is the one of the greatest sum (Kadane).
    let [best, now, from, bestFrom, bestUntil] = [0, 0, 0, 0, 0];
    const end = Math.min(slots.length, ground.length - first);
    for (let i = Math.max(0, -first); i < end; i++) {
      now += rows[i]?.[first + i] ?? 0;
      if (now <= 0) {
        now = 0;
        from = i + 1;
      } else if (now > best) {
        best = now;
        bestFrom = from;
        bestUntil = i + 1;
      }
    }
    if (best <= least) continue;
    const own = struckIn(slots, ground.lattice, first, { from: bestFrom, until: bestUntil });
    const worth = own.of < strokes ? best + CUT : best;
    if (own.struck >= LEAST && worth > least)
      found.push({
        id: known.id,
        form: known.form,
        or: [],
        at: first * grid,
        from: (first + bestFrom) * grid,
        until: (first + bestUntil) * grid,
        chance: 0,
        worth,
        ...own,
      });
  }
  return found;
}

/** How many strokes of a stretch were struck, of how many. */
function struckIn(
  slots: readonly Want[],
  { slots: played }: Lattice,
  first: number,
  { from, until }: { readonly from: number; readonly until: number },
): { readonly struck: number; readonly of: number } {
  const own = slots.slice(from, until).map((want, i) => ({ want, hits: played[first + from + i] ?? [] }));
  const strokes = own.filter(({ want }) => want.kinds.size > 0);
  return {
    of: strokes.length,
    struck: strokes.filter(({ want, hits }) => hits.some((h) => want.kinds.has(h.kind))).length,
  };
}

/** Of stretches that overlap the likelier ones; each with its chance beside the others and beside nothing. */
function chosen(found: readonly Candidate[], threshold: number): readonly Came[] {
  const overlaps = (a: Candidate, b: Candidate): boolean => a.from < b.until && b.from < a.until;
  const left = [...found].sort((a, b) => b.worth - a.worth || a.at - b.at || (a.id < b.id ? -1 : 1));
  const taken: Candidate[] = [];
  const out: Came[] = [];
  for (const one of left) {
    if (taken.some((t) => overlaps(t, one))) continue;
    taken.push(one);
    const others = left.filter((o) => o !== one && overlaps(o, one));
    // What is the same, played so, is no rival: it is named beside it.
    const isSame = (o: Candidate): boolean => o.at === one.at && one.worth - o.worth < 0.5;
    const same = others.filter(
      (o) => o.id !== one.id && (isSame(o) || (o.form === one.form && one.worth - o.worth < 2)),
    );
    const rivals = others.filter((o) => o.id !== one.id && !same.includes(o));
    const odds = (c: Candidate): number => Math.exp(Math.min(40, c.worth - threshold));
    const sum = [...new Map(rivals.map((r) => [r.id, r])).values()].reduce((s, r) => s + odds(r), 1);
    const chance = odds(one) / (odds(one) + sum);
    if (chance < SAID) continue;
    const { worth: _, form: _form, ...came } = one;
    out.push({ ...came, chance, or: [...new Set(same.map((o) => o.id))].filter((id) => id !== one.id) });
  }
  return out.sort((a, b) => a.from - b.from);
}
