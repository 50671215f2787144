import { GRID, STRAIGHT } from '../time';
import { isBlind, isLoud, KINDS } from './lattice';
import { codesOf, grooveSlots } from './groove';
import { Grounds, type Ground, type Played, type Stretch } from './ground';
import { handsWorth, LEAST_STROKES, profileOf, type Profile, type UsablePhrase } from './profile';

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
  /** Whether its hands were swapped; null where nobody told the hands. */
  readonly swapped: boolean | null;
}

/** A phrase of so many slots comes about so often: what has to be outweighed before anything is said. */
const RARE = Math.log(1 / 150);
/** One in so many is cut short, or begun late; and of what is less than half of a phrase nothing is said. */
const CUT = Math.log(1 / 40);
const HALF = 0.5;
/** So many of its strokes must be there. */
const THERE = 0.7;
/** So often something is otherwise in a slot of a phrase that is played, stroke or accent; more is another phrase. */
const OTHERWISE = 0.14;
const SPREADS = 2.5;
/**
 * What is likelier than all else by a logarithm is so sure: fitted once to sittings in which half of what was played
 * was on no shelf, as slots of one phrase are not as independent as they are taken to be.
 */
const calibrated = (odds: number, strange: number): number => {
  const doubt = DOUBT * Math.min(1, Math.max(0, (strange - KNOWN) / MIXED));
  return 1 / (1 + Math.exp(doubt - SLOPE * odds));
};
const SLOPE = 0.62;
/** Doubt rises from this share of what no phrase explains on, by so much over a share of so much. */
const DOUBT = 1.8;
const KNOWN = 0.2;
const MIXED = 0.3;
/** What lies so far beyond what has to be outweighed is beyond doubt: a logarithm. */
const BEYOND_DOUBT = 4.5;
/** What is less sure is not said. */
export const SAID = 0.82;

interface Candidate extends Came {
  readonly worth: number;
  readonly form: string;
  /** Whether all of it came, to the stroke and the accent, and nothing else. */
  readonly exact: boolean;
}

/** So many strokes of a phrase that was cut short are as good as the whole. */
const EXACT_PART = 10;
/** What comes exactly is likelier the phrase than something like it, the more so the more often: logarithms. */
const EXACT = 1.5;
const EXACT_AGAIN = 1.5;
const MOST_AGAIN = 3;

/**
 * Looks for the phrases of a shelf in what was played over a click, a phrase at a time, so that a large shelf and a
 * long sitting can be read in slices.
 */
export class Recogniser {
  private readonly grounds: Grounds;
  private readonly found: Candidate[] = [];
  private readonly threshold: number;
  private readonly blind: boolean;
  private readonly isPart: boolean;

  /**
   * @param many phrases that are going to be looked for
   * @param since ticks from the first bar line: only what ends behind it is looked for
   */
  constructor(
    played: Played,
    many: number,
    private readonly since = 0,
  ) {
    this.grounds = new Grounds(played);
    this.blind = isBlind(played.hits);
    this.isPart = played.isPart === true;
    this.threshold = Math.log(Math.max(1, many)) - RARE;
  }

  look(one: UsablePhrase): void {
    const profile = profileOf(one.pattern, this.blind);
    const ground = profile && this.grounds.on(profile.grid, one.pattern.feel);
    if (!profile || !ground) return;
    const least = this.threshold - 2;
    for (const stretch of ground.stretches(profile, least, Math.floor(this.since / profile.grid))) {
      const candidate = candidateOf(one, profile, ground, stretch);
      if (candidate && candidate.worth > least) this.found.push(candidate);
    }
  }

  /** What came, in the order it came. */
  came(): readonly Came[] {
    // Of the last moments alone it cannot be told how much is on no shelf.
    return chosen(
      withExact(this.found),
      this.threshold,
      this.isPart ? 1 : this.since > 0 ? KNOWN + MIXED / 2 : this.strange(),
    );
  }

  /**
   * Of what is no groove the share that no phrase explains beyond doubt, 0–1: who plays much that is on no shelf may as
   * well have played something else here too.
   */
  private strange(): number {
    const ground = this.grounds.on(GRID.sixteenths, STRAIGHT) ?? this.grounds.on(GRID.triplets, STRAIGHT);
    if (!ground) return 1;
    const { grid, slots } = ground.lattice;
    const groove = grooveSlots(codesOf(ground.lattice), ground.bar, Math.max(1, Math.round(GRID.quarters / grid)), 1);
    const sure = this.found.filter((c) => c.worth - this.threshold > BEYOND_DOUBT);
    const known = new Uint8Array(slots.length);
    for (const c of sure) known.fill(1, Math.max(0, Math.floor(c.from / grid)), Math.ceil(c.until / grid));
    let [own, open] = [0, 0];
    slots.forEach((hits, i) => {
      if (hits.length === 0 || groove[i] === 1) return;
      own++;
      if (known[i] === 0) open++;
    });
    return own === 0 ? 1 : open / own;
  }
}

/**
 * The phrases that came in what was played over a click, each with how sure it is, in the order they came. A phrase is
 * compared in each place of the bar; the stretch of it that is likeliest beside the player's own background counts, so
 * that what was cut short is found too. Of stretches that overlap the likelier ones are kept. Nothing is said that is
 * less sure than `SAID`; of phrases that are the same, played so, all are named.
 * @param since ticks from the first bar line: only what ends behind it is looked for
 * @example
 * recognise([], { hits: [], meter: meter(4, 4), bpm: 100 }) // => []
 */
export function recognise(known: readonly UsablePhrase[], played: Played, since = 0): readonly Came[] {
  const recogniser = new Recogniser(played, known.length, since);
  for (const one of known) recogniser.look(one);
  return recogniser.came();
}

/**
 * The phrase whose end was heard last while somebody plays: one that is whole, or that was left a beat ago. Hits up to
 * now suffice; null where nothing is sure, or what ended did so more than a beat before `now`.
 * @param now ticks from the first bar line
 * @param beat ticks of a beat
 * @example
 * justCame([], { hits: [], meter: meter(4, 4), bpm: 100 }, 20160, 5040) // => null
 */
export function justCame(known: readonly UsablePhrase[], played: Played, now: number, beat: number): Came | null {
  const patterns = new Map(known.map((k) => [k.id, k.pattern]));
  const own = recognise(known, played, now - 2 * beat).filter((c) => {
    const last = patterns.get(c.id)?.strokes.reduce((most, s) => Math.max(most, s.at), 0) ?? 0;
    const whole = c.until > c.at + last;
    return c.until <= now && (whole ? c.until > now - beat : c.until <= now - beat && c.until > now - 2 * beat);
  });
  return own.at(-1) ?? null;
}

/** A stretch as a phrase that came; null where too few of its strokes were struck. */
function cameFrom(
  id: string,
  { grid, slots }: Profile,
  { lattice }: Ground,
  stretch: Stretch,
): (Omit<Came, 'or' | 'chance'> & { readonly hands: number; readonly off: number }) | null {
  const { first } = stretch;
  // What was struck before and behind the likeliest stretch is of it too, though it is not as likely: softer.
  const goesOn = (i: number): boolean => {
    const [want, hits] = [slots[i], lattice.slots[first + i]];
    if (!want || !hits || ![...want.kinds].every((k) => hits.some((h) => h.kind === k))) return false;
    const hands = hits.filter((h) => h.kind === 'hand');
    return want.voice === null || hands.every((h) => h.voice === null || h.voice === want.voice);
  };
  let { from, until } = stretch;
  while (from > 0 && goesOn(from - 1)) from--;
  while (until < slots.length && goesOn(until)) until++;
  const own = slots.slice(from, until).map((want, i) => ({ want, hits: lattice.slots[first + from + i] ?? [] }));
  const strokes = own.filter(({ want }) => want.kinds.size > 0);
  const struck = strokes.filter(({ want, hits }) => hits.some((h) => want.kinds.has(h.kind))).length;
  if (struck < LEAST_STROKES || struck < THERE * strokes.length) return null;
  const at = first * grid;
  let off = 0;
  for (const { want, hits } of own) {
    for (const kind of KINDS) if (want.kinds.has(kind) !== hits.some((h) => h.kind === kind)) off++;
    const loud = isLoud(hits);
    if (loud !== null && want.loud !== null && loud !== want.loud) off++;
  }
  const mean = OTHERWISE * own.length;
  if (off > mean + SPREADS * Math.sqrt(mean)) return null;
  if (strokes.length < HALF * slots.filter((s) => s.kinds.size > 0).length) return null;
  const { written, swapped } = handsWorth(own);
  return {
    id,
    at,
    from: at + from * grid,
    until: at + until * grid,
    struck,
    of: strokes.length,
    swapped: written === swapped ? null : swapped > written,
    hands: Math.max(written, swapped),
    off,
  };
}

function candidateOf(one: UsablePhrase, profile: Profile, ground: Ground, stretch: Stretch): Candidate | null {
  const came = cameFrom(one.id, profile, ground, stretch);
  if (!came) return null;
  const { hands, off, ...rest } = came;
  const whole = profile.slots.filter((s) => s.kinds.size > 0).length;
  const worth = stretch.worth + hands + (came.of < whole ? CUT : 0);
  return {
    ...rest,
    form: one.form,
    or: [],
    chance: 0,
    worth,
    exact: off === 0 && (came.of === whole || came.of >= EXACT_PART),
  };
}

/** Stretches with what their exactness adds, and that the same phrase came exactly elsewhere. */
function withExact(found: readonly Candidate[]): readonly Candidate[] {
  const exact = new Map<string, Candidate[]>();
  for (const c of found) {
    const own = exact.get(c.id) ?? [];
    if (c.exact && !own.some((o) => o.from < c.until && c.from < o.until)) exact.set(c.id, [...own, c]);
  }
  return found.map((c) => {
    const others = (exact.get(c.id) ?? []).filter((o) => o.until <= c.from || o.from >= c.until).length;
    const again = EXACT_AGAIN * Math.min(MOST_AGAIN, others);
    return { ...c, worth: c.worth + again + (c.exact ? EXACT : 0) };
  });
}

/** Of stretches that overlap the likelier ones; each with its chance beside the others and beside nothing. */
function chosen(found: readonly Candidate[], threshold: number, strange: number): readonly Came[] {
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
    const chance = calibrated(Math.log(odds(one) / sum), strange);
    if (chance < SAID) continue;
    const { worth: _, form: _form, exact: _exact, ...came } = one;
    out.push({ ...came, chance, or: [...new Set(same.map((o) => o.id))].filter((id) => id !== one.id) });
  }
  return out.sort((a, b) => a.from - b.from);
}
