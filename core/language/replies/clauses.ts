import type { Pattern } from '../../pattern';
import { build, type MoveEntry } from '../../recipe';
import { framesAt } from '../frames/frames';
import { FRAMES } from '../frames/table';
import { alikeOf } from '../grammar/choose';
import { barsAt } from '../grammar/counts';
import { scopesAt, type Pick } from '../grammar/pick';
import { SLOTS } from '../grammar/slots';
import { keyOf } from '../grammar/stretches';
import type { Match } from '../lexicon/template';
import type { Token } from '../lexicon/tokens';
import { JOINTS, POLITE, RULES } from './lexis';
import type { Act, Rule, RuleContext, Said } from '../rules/rule';

export interface Clause extends Match {
  readonly rule: Rule;
}

const MOST_READINGS = 64;

/** Frames say less surely what is meant than words that stand in one order, and least where a part goes unsaid. */
const FRAME_RANK = 3;
const LIKELY_RANK = 2;
const CARRIED_RANK = 4;
/** More than two clauses that say it plainly. */
const TORN_RANK = 6;

/** The clauses that can begin at each place of a line: those whose words stand in one order, and frames when asked. */
export class ClauseReader {
  private readonly plain = new Map<number, readonly Clause[]>();
  private readonly frames = new Map<number, readonly Clause[]>();
  private readonly both = new Map<number, readonly Clause[]>();

  constructor(readonly tokens: readonly Token[]) {}

  /** The likelier ones first, and of those the longer. */
  at(at: number, framed: boolean): readonly Clause[] {
    if (!framed) return this.plainAt(at);
    return once(this.both, at, () =>
      distinct([...this.plainAt(at), ...this.framesAt(at)]).sort((a, b) => a.rule.rank - b.rule.rank || b.end - a.end),
    );
  }

  private plainAt(at: number): readonly Clause[] {
    return once(this.plain, at, () =>
      distinct([
        ...RULES.flatMap((rule) =>
          rule.say.flatMap((t) => t.fits(this.tokens, at, SLOTS).map((m) => torn({ ...m, rule }))),
        ).filter((c) => c.end > at),
        ...this.scoped(at, (next) => this.plainAt(next)),
      ]),
    );
  }

  private framesAt(at: number): readonly Clause[] {
    return once(this.frames, at, () => [
      ...framesAt(this.tokens, at, FRAMES).map(({ end, values, frame, isCarried }) =>
        torn({
          end,
          values,
          rule: {
            say: [],
            rank: isCarried ? CARRIED_RANK : frame.isLikely ? LIKELY_RANK : FRAME_RANK,
            mean: frame.mean,
          },
        }),
      ),
      ...this.scoped(at, (next) => this.framesAt(next)),
    ]);
  }

  /** "In bar 2 accent the rights": what is said first holds for the strokes of the clause. */
  private scoped(at: number, clausesAt: (next: number) => readonly Clause[]): readonly Clause[] {
    const headed = barsAt(this.tokens, at).flatMap(({ end, value }) =>
      this.tokens[end]?.word === ':' ? [{ end: end + 1, value: { bars: value } }] : [],
    );
    return [...scopesAt(this.tokens, at), ...headed].flatMap((scope) => {
      const next = this.tokens[scope.end]?.word === ',' ? scope.end + 1 : scope.end;
      return clausesAt(next).flatMap((c): Clause[] => {
        const pick = c.values['pick'] as Pick | undefined;
        if (!pick || Object.keys(scope.value).some((k) => k in pick && pick[k as keyof Pick] !== undefined)) return [];
        return [{ ...c, values: { ...c.values, pick: { ...pick, ...scope.value } } }];
      });
    });
  }
}

/**
 * "The first half on the snare and the second half on the high tom" sends each half somewhere: that one of two places
 * is narrowed to a piece, and the other is not, is the last that is thought of.
 */
function torn(clause: Clause): Clause {
  const pick = clause.values['pick'] as Pick | undefined;
  if (!pick?.and || clause.values['voices'] === undefined || pick.voices === undefined) return clause;
  const place = ({ half, counts, bars }: Pick): boolean => (half ?? counts ?? bars) !== undefined;
  const { and } = pick;
  const isTorn = place(pick) && place(and) && (and.voices ?? and.limb ?? and.levels) === undefined;
  return isTorn ? { ...clause, rule: { ...clause.rule, rank: clause.rule.rank + TORN_RANK } } : clause;
}

/** Clauses that say the same in other words, as "every accent" and "accent", are one. */
function distinct(clauses: readonly Clause[]): Clause[] {
  const seen = new Map<Rule['mean'], Set<string>>();
  return clauses.filter(({ end, values, rule }) => {
    const known = seen.get(rule.mean) ?? new Set();
    const key = `${end} ${rule.rank} ${JSON.stringify(values, (k, v: unknown) => (k === 'said' ? undefined : v))}`;
    if (known.has(key)) return false;
    seen.set(rule.mean, known.add(key));
    return true;
  });
}

function once<T>(known: Map<number, T>, at: number, read: () => T): T {
  const before = known.get(at);
  if (before) return before;
  const found = read();
  known.set(at, found);
  return found;
}

/** Whether a number stands there that says how many: "next two". */
function countsOn(tokens: readonly Token[], at: number): boolean {
  return SLOTS['n']?.(tokens, at).some((f) => f.end === at + 1) ?? false;
}

/** "Ghosts on 1 and 3 to the ride": an "and" between two counts parts no clauses. */
function partsCounts(tokens: readonly Token[], from: number, until: number): boolean {
  return until === from + 1 && tokens[from]?.word === 'and' && countsOn(tokens, from - 1) && countsOn(tokens, until);
}

/** Ways to part a line into clauses that leave no word out: those that can be carried out, and some that cannot. */
export interface Partings {
  readonly met: readonly (readonly Clause[])[];
  readonly failed: readonly (readonly Clause[])[];
}

export function partings(reader: ClauseReader, framed: boolean, carry: CarriedOut): Partings {
  const met: (readonly Clause[])[] = [];
  const failed: (readonly Clause[])[] = [];
  const parts = new PartReader(reader, framed);
  const followed = new Map<string, number>();
  let least = Infinity;
  const go = (at: number, line: readonly Clause[]): void => {
    for (const { clause, joint } of parts.at(at)) {
      const own = [...line, clause];
      const rank = rankOf(own);
      // A line that says it less surely than one that holds is not carried out.
      if (met.length >= MOST_READINGS || rank + (joint === null ? 0 : parts.cheapest(joint)) > least) continue;
      const carried = carry.of(own).lines;
      if (carried.length === 0) {
        if (failed.length < MOST_READINGS) failed.push(own);
      } else if (joint === null) {
        met.push(own);
        least = Math.min(least, rank);
      } else {
        // What makes the same phrase of the same strokes need not be followed twice.
        const state = `${joint} ${stateOf(carried)}`;
        if ((followed.get(state) ?? Infinity) <= rank) continue;
        followed.set(state, rank);
        go(joint, own);
      }
    }
  };
  go(startOf(reader.tokens), []);
  return { met, failed };
}

/** Where a line begins to say something. */
function startOf(tokens: readonly Token[]): number {
  let start = 0;
  while (start < tokens.length && /^(?:please|now|so|ok|okay|then)$/.test(tokens[start]?.word ?? '')) start++;
  return tokens[start - 1]?.word === 'so' && tokens[start]?.word === 'that' ? start + 1 : start;
}

/** A clause and where the next one begins; null where the line ends with it. */
interface Part {
  readonly clause: Clause;
  readonly joint: number | null;
}

/** Clauses from which the rest of a line can be parted, the likeliest first, whatever they do. */
class PartReader {
  private readonly parts = new Map<number, readonly Part[]>();
  private readonly ranks = new Map<number, number>();

  constructor(
    private readonly reader: ClauseReader,
    private readonly framed: boolean,
  ) {}

  at(at: number): readonly Part[] {
    return once(this.parts, at, () =>
      this.reader
        .at(at, this.framed)
        .flatMap((clause): Part[] => {
          const joint = jointBehind(this.reader.tokens, clause.end);
          return joint === undefined ? [] : [{ clause, joint }];
        })
        .filter((p) => this.rankFrom(p) < Infinity)
        .sort((a, b) => this.rankFrom(a) - this.rankFrom(b)),
    );
  }

  /** The least rank of all that can follow from a place of the line on; infinite where it cannot be parted. */
  cheapest(at: number): number {
    const known = this.ranks.get(at);
    if (known !== undefined) return known;
    const found = Math.min(Infinity, ...this.at(at).map((p) => this.rankFrom(p)));
    this.ranks.set(at, found);
    return found;
  }

  private rankFrom({ clause, joint }: Part): number {
    return rankOf([clause]) + (joint === null ? 0 : this.cheapest(joint));
  }
}

/** Where the next clause begins behind the end of one: null at the end of the line, undefined where none can. */
function jointBehind(tokens: readonly Token[], end: number): number | null | undefined {
  let next = end;
  while (next < tokens.length && POLITE.has(tokens[next]?.word ?? '') && next === tokens.length - 1) next++;
  if (next === tokens.length) return null;
  let joint = next;
  while (joint < tokens.length && JOINTS.has(tokens[joint]?.word ?? '')) joint++;
  const [behind, first, second] = [joint - 1, joint, joint + 1].map((at) => tokens[at]?.word ?? '');
  // "But keep them ghosted" says of the same what cannot be as well.
  if (behind === 'but' && /^keep (?:them|it|those)$/.test(`${first} ${second}`)) return undefined;
  // "…, next two to the mid tom": it parts, and says which as well.
  if (behind === 'next' && joint - 1 > next && countsOn(tokens, joint)) joint--;
  return joint === next || joint === tokens.length || partsCounts(tokens, next, joint) ? undefined : joint;
}

/** A phrase as it looks, whatever made it. */
export const looks = (p: Pattern): string =>
  JSON.stringify([
    p.start,
    p.length,
    p.grid,
    p.pickup ?? null,
    ...p.strokes.map((s) => [s.at, s.limb, s.voice, s.level, s.ornament ?? '', s.grace ?? '']),
  ]);

/** What a line has come to: the phrases it can mean, and the strokes it spoke of. */
const stateOf = (lines: readonly Line[]): string =>
  lines.map(({ scene }) => `${looks(scene.pattern)} ${[...(scene.them ?? [])].join()}`).join('|');

export interface Line {
  readonly scene: RuleContext;
  readonly moves: readonly MoveEntry[];
  readonly words: readonly string[];
}

/** Moves of one line do not share an id while they are looked at, nor have one that stands in the recipe. */
function withTemporaryIds(moves: readonly MoveEntry[], before: readonly MoveEntry[]): readonly MoveEntry[] {
  const taken = new Set(before.map((m) => m.id));
  let n = before.length;
  return moves.map((m) => {
    do n++;
    while (taken.has(`said-${n}`));
    return { ...m, id: `said-${n}` };
  });
}

export function after(line: Line, a: Act): Line | { readonly wrong: string; readonly why: string } {
  const { scene } = line;
  if (a.moves.length === 0)
    return a.them
      ? {
          ...line,
          scene: { ...scene, them: a.them, isNamed: true, spoken: joined(scene.spoken, a.them), kin: a.kin },
        }
      : line;
  const moves = withTemporaryIds(a.moves, line.scene.built.recipe.moves);
  const built = build(
    { ...line.scene.built.recipe, moves: [...line.scene.built.recipe.moves, ...moves] },
    line.scene.built,
  );
  const stop = built.trail
    .slice(-moves.length)
    .flatMap((s) => s.findings)
    .find((f) => f.weight === 'stop');
  if (stop) return { wrong: a.words, why: stop.words };
  return {
    scene: {
      ...line.scene,
      pattern: built.pattern,
      built,
      them: a.them ?? new Set(built.pattern.strokes.map(keyOf)),
      isNamed: a.them !== undefined,
      ...(a.them ? { spoken: joined(scene.spoken, a.them) } : {}),
      kin: a.kin,
      sends: line.scene.sends === true || moves.some((m) => m.move === 'voice'),
    },
    moves: [...line.moves, ...moves],
    // As the cards will say it, with the places counted in the phrase as it is by then.
    words: [...line.words, ...built.trail.slice(-moves.length).map((s) => s.sentence)],
  };
}

const joined = (a: ReadonlySet<string> | undefined, b: ReadonlySet<string>): ReadonlySet<string> =>
  new Set([...(a ?? []), ...b]);

export type Wrong = { readonly wrong: string; readonly why: string };

interface Carried {
  readonly lines: readonly Line[];
  readonly wrong: Wrong | null;
}

/** Clauses carried out one after the other; what partings begin with alike is carried out once. */
export class CarriedOut {
  private readonly known = new Map<Clause | null, { readonly done: Carried; readonly next: CarriedOut }>();

  constructor(private readonly before: Carried) {}

  of(clauses: readonly Clause[], at = 0): Carried {
    const clause = clauses[at];
    if (!clause || this.before.lines.length === 0) return this.before;
    let own = this.known.get(clause);
    if (!own) {
      const done = carriedOut(clause, this.before);
      own = { done, next: new CarriedOut(done) };
      this.known.set(clause, own);
    }
    return own.next.of(clauses, at + 1);
  }
}

function carriedOut(clause: Clause, before: Carried): Carried {
  const lines: Line[] = [];
  let { wrong } = before;
  for (const line of before.lines) {
    const said: Said = clause.rule.mean(named(clause.values, line.scene), line.scene);
    if ('wrong' in said) {
      wrong ??= said;
      continue;
    }
    for (const a of said.acts) {
      const done = after(line, a);
      if ('wrong' in done) wrong ??= done;
      else lines.push({ ...done, scene: { ...done.scene, last: lastOf(clause, line.scene) } });
    }
  }
  return { lines, wrong };
}

/** "The first half …, the second …": what is not named again is what was named before. */
function named(values: Clause['values'], { last }: RuleContext): Clause['values'] {
  const [pick, before] = [values['pick'], last?.values['pick']] as readonly (Pick | undefined)[];
  const alike = pick ? alikeOf(pick, before) : null;
  return alike ? { ...values, pick: alike } : values;
}

/** What a clause does to strokes, for the next one; a clause that names none leaves what was said before. */
function lastOf({ rule, values }: Clause, { last }: RuleContext): RuleContext['last'] {
  const pick = values['pick'] as Pick | undefined;
  const isAll = pick?.base === 'it' || pick?.base === 'all';
  return !pick || isAll || rule.rank === CARRIED_RANK ? last : { mean: rule.mean, values };
}

/** The fewer unlikely rules and the fewer clauses, the better. */
export const rankOf = (clauses: readonly Clause[]): number =>
  clauses.reduce((sum, c) => sum + c.rule.rank, 0) * 100 + clauses.length;
