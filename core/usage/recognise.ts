import { isBlind } from './lattice';
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
/** One in so many is cut short, or begun late. */
const CUT = Math.log(1 / 12);
/** What is less sure is not said. */
export const SAID = 0.9;

interface Candidate extends Came {
  readonly worth: number;
  readonly form: string;
}

/**
 * Looks for the phrases of a shelf in what was played over a click, a phrase at a time, so that a large shelf and a long
 * sitting can be read in slices.
 */
export class Recogniser {
  private readonly grounds: Grounds;
  private readonly found: Candidate[] = [];
  private readonly threshold: number;
  private readonly blind: boolean;

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
    return chosen(this.found, this.threshold);
  }
}

/**
 * The phrases that came in what was played over a click, each with how sure it is, in the order they came. A phrase is
 * compared in each place of the bar; the stretch of it that is likeliest beside the player's own background counts, so
 * that what was cut short is found too. Of stretches that overlap the likelier ones are kept. Nothing is said that is
 * less sure than nine in ten; of phrases that are the same, played so, all are named.
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
export function cameFrom(
  id: string,
  { grid, slots }: Profile,
  { lattice }: Ground,
  stretch: Stretch,
): (Omit<Came, 'or' | 'chance'> & { readonly hands: number }) | null {
  const { first } = stretch;
  // What was struck before and behind the likeliest stretch is of it too, though it is not as likely: softer, elsewhere.
  const goesOn = (i: number): boolean => {
    const [want, hits] = [slots[i], lattice.slots[first + i]];
    return want !== undefined && hits !== undefined && [...want.kinds].every((k) => hits.some((h) => h.kind === k));
  };
  let { from, until } = stretch;
  while (from > 0 && goesOn(from - 1)) from--;
  while (until < slots.length && goesOn(until)) until++;
  const own = slots.slice(from, until).map((want, i) => ({ want, hits: lattice.slots[first + from + i] ?? [] }));
  const strokes = own.filter(({ want }) => want.kinds.size > 0);
  const struck = strokes.filter(({ want, hits }) => hits.some((h) => want.kinds.has(h.kind))).length;
  if (struck < LEAST_STROKES) return null;
  const at = first * grid;
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
  };
}

function candidateOf(one: UsablePhrase, profile: Profile, ground: Ground, stretch: Stretch): Candidate | null {
  const came = cameFrom(one.id, profile, ground, stretch);
  if (!came) return null;
  const { hands, ...rest } = came;
  const whole = profile.slots.filter((s) => s.kinds.size > 0).length;
  const worth = stretch.worth + hands + (came.of < whole ? CUT : 0);
  return { ...rest, form: one.form, or: [], chance: 0, worth };
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
