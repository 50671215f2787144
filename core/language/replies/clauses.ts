import { build, type MoveEntry } from '../../recipe';
import { framesAt } from '../frames/frames';
import { FRAMES } from '../frames/table';
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

/** Frames say less surely what is meant than words that stand in one order. */
const FRAME_RANK = 3;

function clausesAt(
  tokens: readonly Token[],
  known: Map<number, readonly Clause[]>,
  at: number,
  framed: boolean,
): readonly Clause[] {
  const before = known.get(at);
  if (before) return before;
  const found = RULES.flatMap((rule) =>
    rule.say.flatMap((t) => t.fits(tokens, at, SLOTS).map((m): Clause => ({ ...m, rule }))),
  ).filter((c) => c.end > at);
  if (framed)
    found.push(
      ...framesAt(tokens, at, FRAMES).map(({ end, values, frame }): Clause => ({
        end,
        values,
        rule: { say: [], rank: FRAME_RANK, mean: frame.mean },
      })),
    );
  // "In bar 2 accent the rights": what is said first holds for the strokes of the clause.
  const headed = barsAt(tokens, at).flatMap(({ end, value }) =>
    tokens[end]?.word === ':' ? [{ end: end + 1, value: { bars: value } }] : [],
  );
  for (const scope of [...scopesAt(tokens, at), ...headed]) {
    const next = tokens[scope.end]?.word === ',' ? scope.end + 1 : scope.end;
    for (const c of clausesAt(tokens, known, next, framed)) {
      const pick = c.values['pick'] as Pick | undefined;
      if (!pick || Object.keys(scope.value).some((k) => k in pick && pick[k as keyof Pick] !== undefined)) continue;
      found.push({ ...c, values: { ...c.values, pick: { ...pick, ...scope.value } } });
    }
  }
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

export function partings(tokens: readonly Token[], framed: boolean, carry: CarriedOut): Partings {
  const known = new Map<number, readonly Clause[]>();
  const dead = new Set<number>();
  const met: (readonly Clause[])[] = [];
  const failed: (readonly Clause[])[] = [];
  /** Whether the words from here on can be parted at all. */
  const go = (at: number, line: readonly Clause[]): boolean => {
    if (dead.has(at) || met.length >= MOST_READINGS) return met.length >= MOST_READINGS;
    let any = false;
    for (const c of clausesAt(tokens, known, at, framed)) {
      let next = c.end;
      while (next < tokens.length && POLITE.has(tokens[next]?.word ?? '') && next === tokens.length - 1) next++;
      let joint = next;
      while (joint < tokens.length && JOINTS.has(tokens[joint]?.word ?? '')) joint++;
      // "…, next two to the mid tom": it parts, and says which as well.
      if (tokens[joint - 1]?.word === 'next' && joint - 1 > next && countsOn(tokens, joint)) joint--;
      const over = next === tokens.length;
      if (!over && (joint === next || joint === tokens.length || partsCounts(tokens, next, joint))) continue;
      const own = [...line, c];
      const can = carry.of(own).lines.length > 0;
      if (!can && failed.length < MOST_READINGS) failed.push(own);
      if (over) {
        any = true;
        if (can) met.push(own);
      } else if (can && go(joint, own)) any = true;
      // What follows may still be well said.
      else if (!can) any = true;
    }
    if (!any) dead.add(at);
    return any;
  };
  let start = 0;
  while (start < tokens.length && /^(?:please|now|so|ok|okay|then)$/.test(tokens[start]?.word ?? '')) start++;
  go(start, []);
  return { met, failed };
}

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
  if (a.moves.length === 0) return line;
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
      kin: a.kin,
      sends: line.scene.sends === true || moves.some((m) => m.move === 'voice'),
    },
    moves: [...line.moves, ...moves],
    // As the cards will say it, with the places counted in the phrase as it is by then.
    words: [...line.words, ...built.trail.slice(-moves.length).map((s) => s.sentence)],
  };
}

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
    const said: Said = clause.rule.mean(clause.values, line.scene);
    if ('wrong' in said) {
      wrong ??= said;
      continue;
    }
    for (const a of said.acts) {
      const done = after(line, a);
      if ('wrong' in done) wrong ??= done;
      else lines.push(done);
    }
  }
  return { lines, wrong };
}

/** The fewer unlikely rules and the fewer clauses, the better. */
export const rankOf = (clauses: readonly Clause[]): number =>
  clauses.reduce((sum, c) => sum + c.rule.rank, 0) * 100 + clauses.length;
