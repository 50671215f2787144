import { isHand, type Limb, type Voice } from '../stroke';
import { untilLanding, type Pattern } from '../pattern';
import { isLoud, type Kind, type Lattice, type SlotHit } from './lattice';

/** A phrase that may come while somebody plays freely. */
export interface UsablePhrase {
  readonly id: string;
  readonly pattern: Pattern;
  /** The same for phrases that are each other turned or mirrored: these cannot be told apart by ear alone. */
  readonly form: string;
}

/** A stroke of a phrase is struck, and a slot of it that has none is not, by these chances. */
const STRUCK = 0.94;
const EXTRA = 0.05;
/** An accent is loud, another stroke is not; a stroke is on its own piece. */
const LOUD = 0.94;
const OWN_PIECE = 0.8;
/** Of a phrase so many strokes are needed to be told. */
export const LEAST_STROKES = 5;
/** The background is never surer than this of a slot. */
const FLOOR = 0.02;

/** What a phrase has in one of its slots. */
export interface Want {
  readonly kinds: ReadonlySet<Kind>;
  readonly loud: boolean | null;
  /** The piece of its hand, and which hand; null where both play, or none. */
  readonly voice: Voice | null;
  readonly hand: Limb | null;
}

/** What is known of a phrase, slot by slot. */
export interface Profile {
  readonly grid: number;
  readonly slots: readonly Want[];
}

/**
 * A phrase slot by slot, its landing aside; null where it has too few strokes, or they do not lie on its grid.
 * @param blind whether hits are of one kind, whatever strikes
 */
export function profileOf(pattern: Pattern, blind = false): Profile | null {
  const own = untilLanding(pattern);
  const { grid, length, strokes } = own;
  if (length === 0 || strokes.some((s) => s.at % grid !== 0)) return null;
  const slots = Array.from({ length: Math.ceil(length / grid) }, (_, i) => {
    const here = strokes.filter((s) => s.at === i * grid);
    const hands = here.filter((s) => isHand(s.limb));
    const kinds = new Set<Kind>(
      here.map((s) => (blind || isHand(s.limb) ? 'hand' : s.limb === 'H' ? 'hat-foot' : 'kick')),
    );
    const [one] = hands;
    return {
      kinds,
      loud: hands.length === 0 ? null : hands.some((s) => s.level === 'accent'),
      voice: hands.length === 1 ? (one?.voice ?? null) : null,
      hand: hands.length === 1 ? (one?.limb ?? null) : null,
    };
  });
  return slots.filter((s) => s.kinds.size > 0).length < LEAST_STROKES ? null : { grid, slots };
}

/** How often a slot of the bar has each kind of hit, and a hit of hands is loud, by all that was played. */
export interface Background {
  readonly share: (slot: number, kind: Kind) => number;
  readonly loud: number;
  /** How often a hit of a hand is on a piece. */
  readonly piece: (voice: Voice) => number;
}

/** Who does not play the groove may play anything: so often, and by these chances of a slot. */
const ELSE = 0.4;
const ANY_PIECE = 0.27;
const ANY_LOUD = 0.35;
const ANYTHING: Readonly<Record<Kind, number>> = { hand: 0.55, kick: 0.35, 'hat-foot': 0.1 };

/**
 * The player's own background on a lattice with so many slots to the bar; `own` says whether there is one, as in a few
 * bars of a recording a phrase would be its own background.
 */
export function backgroundOf({ slots }: Lattice, bar: number, own = true): Background {
  const mix = own ? ELSE : 1;
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
      const here = ((seen.get(`${slot % bar}|${kind}`) ?? 0) + PRIOR * usual) / (many + PRIOR);
      return Math.min(1 - FLOOR, Math.max(FLOOR, (1 - mix) * here + mix * ANYTHING[kind]));
    },
    loud: hands === 0 ? 0.5 : (1 - mix) * Math.min(0.95, Math.max(0.05, louds / hands)) + mix * ANY_LOUD,
    piece: (voice) => (1 - mix) * ((pieces.get(voice) ?? 0) / Math.max(1, hands)) + mix * ANY_PIECE,
  };
}

/** How much likelier a slot is as that of the phrase than as anything else: a logarithm. */
export function slotWorth(want: Want, hits: readonly SlotHit[], slot: number, back: Background): number {
  let worth = 0;
  for (const kind of ['hand', 'kick', 'hat-foot'] as const) {
    const own = want.kinds.has(kind) ? STRUCK : EXTRA;
    const usual = back.share(slot, kind);
    const is = hits.some((h) => h.kind === kind);
    worth += is ? Math.log(own / usual) : Math.log((1 - own) / (1 - usual));
  }
  const hands = hits.filter((h) => h.kind === 'hand');
  const hand = hands.find((h) => h.voice === want.voice) ?? hands[0];
  if (!hand || !want.kinds.has('hand')) return worth;
  const loud = isLoud(hits);
  if (loud !== null && want.loud !== null) {
    const own = want.loud ? LOUD : 1 - LOUD;
    worth += loud ? Math.log(own / back.loud) : Math.log((1 - own) / (1 - back.loud));
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

/** Where limbs are told, a hand is the one that is written, or in a phrase that is mirrored always the other. */
const OWN_HAND = Math.log(0.95 / 0.5);
const OTHER_HAND = Math.log(0.05 / 0.5);

/** What the hands say of a phrase: how much likelier they are as written than by chance, and the other way round. */
export function handsWorth(slots: readonly { readonly want: Want; readonly hits: readonly SlotHit[] }[]): {
  readonly written: number;
  readonly swapped: number;
} {
  let [written, swapped] = [0, 0];
  for (const { want, hits } of slots) {
    const [one, more] = hits.filter((h) => h.kind === 'hand');
    if (want.hand === null || !one || more || one.limb === null) continue;
    written += one.limb === want.hand ? OWN_HAND : OTHER_HAND;
    swapped += one.limb === want.hand ? OTHER_HAND : OWN_HAND;
  }
  return { written, swapped };
}
