import { LEXIS, tokensOf, type Lexis, type Token, type Values } from '../language';
import { searchRudiments } from '../rudiments';
import { gridName, type Schools } from '../time';
import type { Demands } from './demands';
import { slotsOf, type Clause } from './said-clause';
import { READERS, word } from './said-readers';
import { countsIn, GLUE, HITS, NOT, RESTS, standing, STANDING, type Standing } from './said-standing';
import { BUILT, SPACE, WHOLE } from './said-whole';

/** A line that asks for a phrase, read: what is asked for then; or the words that are not understood. */
export type AskingRead =
  | { readonly ok: true; readonly demands: Demands }
  | { readonly ok: false; readonly unread: readonly string[]; readonly words: string };

const SAID = { ...READERS, standing };
/** Of two clauses of one length the one that stands first is meant: idioms before what stands on counts. */
const CLAUSES: readonly Clause[] = [...SPACE, ...WHOLE, ...BUILT, ...STANDING];
/** Words between clauses that ask for nothing. */
const JOINTS = new Set(
  `, ; . : a an the with and that please something some me give want i need phrase fill lick one it is should be but then for of in to make find just only there all inside within over mostly mainly built made from hands closing some few can could would like have has`.split(
    ' ',
  ),
);

/** Every word that is known here: those of the box, and those of these clauses. */
const ASKED_LEXIS: Lexis = {
  get words() {
    return (known ??= new Set([
      ...LEXIS.words,
      ...[...JOINTS, ...HITS, ...RESTS, ...NOT, ...GLUE],
      ...CLAUSES.flatMap((c) => c.say.flatMap((t) => t.words())),
      ...searchRudiments('').flatMap((r) => r.name.toLowerCase().split(/[ -]/)),
    ]));
  },
  names: LEXIS.names,
};
let known: ReadonlySet<string> | null = null;

interface Reading {
  readonly clauses: readonly { readonly of: Clause; readonly values: Values }[];
}

/** The clauses of a line, leaving no word out; the longest first. Null where there are none. */
function clausesOf(tokens: readonly Token[]): Reading | null {
  const dead = new Set<number>();
  const go = (at: number): Reading['clauses'] | null => {
    if (at >= tokens.length) return [];
    if (dead.has(at)) return null;
    const fits = CLAUSES.flatMap((of) => of.say.flatMap((t) => t.fits(tokens, at, SAID).map((m) => ({ of, ...m }))))
      .filter((m) => m.end > at && m.of.change(m.values) !== null)
      .sort((a, b) => b.end - a.end);
    for (const { of, values, end } of fits) {
      const rest = go(end);
      if (rest) return [{ of, values }, ...rest];
    }
    const over = JOINTS.has(word(tokens, at)) ? go(at + 1) : null;
    if (!over) dead.add(at);
    return over;
  };
  const clauses = go(0);
  return clauses && clauses.length > 0 ? { clauses } : null;
}

/** Words that no clause and no joint takes, walking from the left. */
function unreadIn(tokens: readonly Token[]): readonly string[] {
  const out: string[] = [];
  for (let at = 0; at < tokens.length;) {
    const ends = CLAUSES.flatMap((c) =>
      c.say.flatMap((t) => t.fits(tokens, at, SAID).flatMap((m) => (c.change(m.values) ? [m.end] : []))),
    );
    const end = Math.max(at, ...ends);
    if (end > at) at = end;
    else {
      if (!JOINTS.has(word(tokens, at))) out.push(tokens[at]?.raw ?? '');
      at++;
    }
  }
  return out;
}

/** Letters of a line that is read at most. */
const MOST_LETTERS = 300;

/**
 * Reads a line that asks for a phrase, in the words of the box, on top of what is asked already. Counts without a bar
 * are meant in every bar. Nothing is taken of a line that is not understood to its end.
 * @example
 * readAsking('two bars of 16ths, hits on 1 and the a of 2, linear, playable at 110', USUAL_DEMANDS, USUAL_SCHOOLS).demands.holds // => 110
 * readAsking('linear and purple', USUAL_DEMANDS, USUAL_SCHOOLS).unread // => ["purple"]
 */
export function readAsking(line: string, before: Demands, schools: Schools): AskingRead {
  const tokens = tokensOf(line.slice(0, MOST_LETTERS), ASKED_LEXIS);
  const reading = clausesOf(tokens);
  if (!reading) {
    const unread = unreadIn(tokens);
    return {
      ok: false,
      unread,
      words:
        unread.length > 0
          ? `“${unread.slice(0, 4).join(' ')}” is not understood here.`
          : 'Say what it must have: “hits on 1 and the & of 3, linear”.',
    };
  }
  const space = reading.clauses.filter((c) => c.of.isSpace);
  // A meter is known before the bars and subdivisions it has.
  const ordered = [...space.filter((c) => c.values['meter']), ...space.filter((c) => !c.values['meter'])];
  const apply = (d: Demands, all: Reading['clauses']): Demands =>
    all.reduce((now, c) => c.of.change(c.values)?.(now, { schools }) ?? now, d);
  const laid = apply(before, ordered);
  // In another space slots lie elsewhere: what was asked of them goes.
  const isSame = (['meter', 'grid', 'bars', 'from'] as const).every((f) => laid[f] === before[f]);
  const room: Demands = isSame ? laid : { ...laid, wishes: [], held: null };
  const built = reading.clauses.some((c) => BUILT.includes(c.of))
    ? { ...room, blocks: [], own: '', rudiments: [], shelf: [] }
    : room;
  const rest = reading.clauses.filter((c) => !c.of.isSpace);
  const demands = apply(built, rest);
  const lost = rest
    .flatMap((c) => {
      const own = c.values['standing'] as Standing | undefined;
      return own ? countsIn(own, demands) : [];
    })
    .find((c) => slotsOf([c], demands, { schools }, false) === null);
  if (lost) {
    const place = lost.beat === null || lost.beat < 0 ? lost.syllable : `${lost.beat}${lost.syllable}`;
    const bar = lost.bar === null ? '' : ` of bar ${lost.bar}`;
    return {
      ok: false,
      unread: [],
      words: `${place}${bar} is not a slot of what is asked for: ${demands.meter} in ${gridName(demands.grid)}.`,
    };
  }
  return { ok: true, demands };
}
