import type { Pattern } from '../../pattern';
import { build, offerOf, type Build, type MoveEntry } from '../../recipe';
import { VOICE, type Voice } from '../../stroke';
import { barsAt } from '../grammar/counts';
import { scopesAt, type Pick } from '../grammar/pick';
import { keyOf } from '../grammar/stretches';
import { playingLine, type Order } from '../grammar/playing';
import { begunName, phraseNames, type ShelfPhrase } from '../lexicon/phrases';
import { correctedLines } from './corrected';
import { nearest, type Nearest } from './nearest';
import { readPrinted } from './printed';
import { framesAt } from '../frames/frames';
import { FRAMES } from '../frames/table';
import type { Act, Rule, Said, RuleContext } from '../rules/rule';
import { readJoin } from '../rules/join';
import { SLOTS } from '../grammar/slots';
import type { Match } from '../lexicon/template';
import { JOINTS, LEXIS, POLITE, RULES } from '../rules/lexis';
import { nameWords } from '../lexicon/terms';
import { MOST_LETTERS, MOST_WORDS, tokensOf, type Lexis, type Token } from '../lexicon/tokens';

/** What a line can mean: moves, one after the other, and the phrase they make. */
export interface Meant {
  readonly words: string;
  readonly moves: readonly MoveEntry[];
  readonly pattern: Pattern;
}

/** A part of a line that is not understood or cannot be met, where it stands, and why. */
export interface Diagnostic {
  readonly words: string;
  readonly from: number;
  readonly until: number;
  readonly why: string;
}

/** All a line can mean for a phrase; where it means nothing, which words are to blame. */
export type LineReading =
  | { readonly kind: 'meant'; readonly all: readonly Meant[] }
  | { readonly kind: 'not'; readonly diagnostics: readonly Diagnostic[] }
  | { readonly kind: 'playing'; readonly words: string; readonly order: Order | null; readonly says: string };

interface Clause extends Match {
  readonly rule: Rule;
}

const MOST_READINGS = 100;

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
    tokens[end]?.word === ':' ? [{ end: end + 1, value: { bars: value } as Partial<Pick> }] : [],
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

/** Every way to part a line into clauses that leave no word out. */
function partings(tokens: readonly Token[], framed: boolean): readonly (readonly Clause[])[] {
  const known = new Map<number, readonly Clause[]>();
  const dead = new Set<number>();
  const out: (readonly Clause[])[] = [];
  const go = (at: number, line: readonly Clause[]): boolean => {
    if (dead.has(at) || out.length >= MOST_READINGS) return out.length >= MOST_READINGS;
    let any = false;
    for (const c of clausesAt(tokens, known, at, framed)) {
      let next = c.end;
      while (next < tokens.length && POLITE.has(tokens[next]?.word ?? '') && next === tokens.length - 1) next++;
      if (next === tokens.length) {
        out.push([...line, c]);
        any = true;
        continue;
      }
      let joint = next;
      while (joint < tokens.length && JOINTS.has(tokens[joint]?.word ?? '')) joint++;
      // "…, next two to the mid tom": it parts, and says which as well.
      if (tokens[joint - 1]?.word === 'next' && joint - 1 > next && countsOn(tokens, joint)) joint--;
      if (joint > next && joint < tokens.length && !partsCounts(tokens, next, joint) && go(joint, [...line, c]))
        any = true;
    }
    if (!any) dead.add(at);
    return any;
  };
  let start = 0;
  while (start < tokens.length && /^(?:please|now|so|ok|okay|then)$/.test(tokens[start]?.word ?? '')) start++;
  go(start, []);
  return out;
}

interface Line {
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

function after(line: Line, a: Act): Line | { readonly wrong: string; readonly why: string } {
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
    },
    moves: [...line.moves, ...moves],
    // As the cards will say it, with the places counted in the phrase as it is by then.
    words: [...line.words, ...built.trail.slice(-moves.length).map((s) => s.sentence)],
  };
}

type Wrong = { readonly wrong: string; readonly why: string };

interface Carried {
  readonly lines: readonly Line[];
  readonly wrong: Wrong | null;
}

/** Clauses carried out one after the other; what partings begin with alike is carried out once. */
class CarriedOut {
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
const rankOf = (clauses: readonly Clause[]): number =>
  clauses.reduce((sum, c) => sum + c.rule.rank, 0) * 100 + clauses.length;

const looks = (p: Pattern): string =>
  JSON.stringify([
    p.start,
    p.length,
    p.grid,
    p.pickup ?? null,
    ...p.strokes.map((s) => [s.at, s.limb, s.voice, s.level, s.ornament ?? '', s.grace ?? '']),
  ]);

/** The tempo that "slower by 10" is counted from where none is known. */
const USUAL_TEMPO = 100;

/** What is known beside the phrase: its tempo, and what the player's own pieces are called. */
export interface Around {
  readonly tempo?: number;
  readonly own?: readonly { readonly name: string; readonly voice: Voice }[];
  /** Phrases of the shelf that can be named. */
  readonly phrases?: readonly ShelfPhrase[];
}

/** The words there are, with the names of the player's own pieces and phrases first. */
function lexisWith({ own = [], phrases = [] }: Around): Lexis {
  if (own.length === 0 && phrases.length === 0) return LEXIS;
  const pieces = own.map(({ name, voice }) => ({ words: nameWords(name), as: nameWords(VOICE[voice].name).join(' ') }));
  const words = new Set([...LEXIS.words, ...pieces.flatMap((n) => n.words)]);
  return { words, names: [...phraseNames(phrases, words), ...pieces, ...LEXIS.names] };
}

/**
 * What a line of words means for a phrase. Every word counts: a reading covers the whole line. One meaning is sure;
 * several are to be chosen from; none, and the words that are not understood, or cannot be met here, are named.
 */
export function readLine(text: string, built: Build, around: Around = {}): LineReading {
  const { tempo = USUAL_TEMPO, phrases = [] } = around;
  const line = text.trim();
  if (line.length > MOST_LETTERS)
    return not([
      { words: line.slice(0, 20), from: 0, until: text.length, why: `A line has at most ${MOST_LETTERS} letters.` },
    ]);
  // What cards and offers print is read back to the same moves.
  const join = readJoin(line, phrases);
  const printed = join
    ? [offerOf('join', join).entry]
    : line.split(', then ').map((one, i) => readPrinted(one, i === 0 ? built.pattern : undefined));
  if (printed.every((p) => p !== null)) {
    const done = after(
      { scene: { pattern: built.pattern, built, them: null }, moves: [], words: [] },
      { moves: printed, words: line },
    );
    if (!('wrong' in done))
      return { kind: 'meant', all: [{ words: line, moves: done.moves, pattern: done.scene.pattern }] };
  }
  const amended = correctedLines(line, (part, instead) => sameKind(part, instead, around))?.map((one) =>
    readLine(one, built, around),
  );
  const order = amended?.find((r) => r.kind === 'playing');
  if (order) return order;
  // Where it could take back several things, each is shown.
  const meant = new Map(amended?.flatMap((r) => (r.kind === 'meant' ? r.all : [])).map((m) => [looks(m.pattern), m]));
  if (meant.size > 0) return { kind: 'meant', all: [...meant.values()] };
  const tokens = tokensOf(text, lexisWith(around));
  if (tokens.length === 0) return not([]);
  if (tokens.length > MOST_WORDS)
    return not([
      { words: line.slice(0, 20), from: 0, until: text.length, why: `A line has at most ${MOST_WORDS} words.` },
    ]);
  const playing = playingLine(tokens, text, { pattern: built.pattern, tempo, phrases });
  if (playing) return { kind: 'playing', words: line, ...playing };
  const strange = unknown(tokens);
  if (strange.length > 0) return not(strange);
  const first: RuleContext = { pattern: built.pattern, built, them: null, phrases };
  const plain = understood(tokens, first, text, false);
  return plain.kind === 'meant' ? plain : understood(tokens, first, text, true, plain);
}

/** What a line means by its clauses: as sentences in one order, or also by frames, whose roles stand in any. */
function understood(
  tokens: readonly Token[],
  first: RuleContext,
  text: string,
  framed: boolean,
  otherwise?: LineReading,
): LineReading {
  const line = text.trim();
  const { built } = first;
  const all = partings(tokens, framed);
  const carry = new CarriedOut({ lines: [{ scene: first, moves: [], words: [] }], wrong: null });
  const done = all.map((clauses) => ({ ...carry.of(clauses), rank: rankOf(clauses) }));
  const met = done.filter((d) => d.lines.length > 0);
  const least = Math.min(...met.map((d) => d.rank));
  const held = met.filter((d) => d.rank === least);
  const before = looks(built.pattern);
  const found = new Map<string, Meant>();
  for (const { lines } of held)
    for (const l of lines) {
      const key = looks(l.scene.pattern);
      if (key !== before && !found.has(key))
        found.set(key, { words: l.words.join(', then '), moves: l.moves, pattern: l.scene.pattern });
    }
  if (found.size > 0) return { kind: 'meant', all: [...found.values()] };
  if (otherwise) return otherwise;
  if (held.length > 0) return not([{ words: line, from: 0, until: text.length, why: 'It is like that already.' }]);
  // What stands in the line says more than what a rule calls by its own words.
  const bads = done.flatMap((d) => (d.wrong && d.wrong.why !== '' ? [d.wrong] : []));
  const bad = bads.find((b) => line.toLowerCase().includes(b.wrong.toLowerCase())) ?? bads[0];
  if (bad) return not([placed(bad, text)]);
  return not([{ words: line, from: 0, until: text.length, why: 'This cannot be read as one line.' }]);
}

/**
 * What is near a line that cannot be read: the fewest words that stand in its way, and up to three lines that can be
 * read for this phrase. It takes as long as reading a few dozen lines.
 * @example
 * nearestTo('accent the purple rights', build({ source: { kind: 'typed', text: 'R L R L', meter: '4/4', grid: 1260 }, moves: [] })).lines[0].line // => "accent the rights"
 */
export function nearestTo(text: string, built: Build, around: Around = {}): Nearest {
  if (text.length > MOST_LETTERS) return { diagnostics: [], lines: [] };
  const tokens = tokensOf(text, lexisWith(around));
  return nearest(text, tokens, (line) => readLine(line, built, around));
}

/** What a part of a line can be, whole: strokes, pieces, a limb, counts, a number. */
const KINDS = ['pick', 'voices', 'limb', 'counts', 'n'] as const;

/** Whether two parts of a line, each as a whole, are of one kind. */
function sameKind(part: string, instead: string, around: Around): boolean {
  const lexis = lexisWith(around);
  const [one, other] = [tokensOf(part, lexis), tokensOf(instead, lexis)];
  const isWhole = (tokens: readonly Token[], kind: string): boolean =>
    tokens.length > 0 && (SLOTS[kind]?.(tokens, 0) ?? []).some((f) => f.end === tokens.length);
  return KINDS.some((kind) => isWhole(one, kind) && isWhole(other, kind));
}

/** So many endings of a word are offered. */
const MOST_ENDINGS = 6;

/** A line that a line could become, and the part of it that was written to its end. */
export interface Ending {
  readonly line: string;
  readonly written: string;
}

/**
 * Lines that a line could become when its last word is written to its end: pieces, limbs and other words that are
 * known, and behind "then", "like" or "open" names of the shelf. Empty where the last word is known as it stands, or
 * too short to tell.
 */
export function endingsOf(text: string, names: readonly string[] = []): readonly Ending[] {
  const begun = begunName(text);
  const ended = (begun: string, all: readonly string[]): Ending[] =>
    all.slice(0, MOST_ENDINGS).map((w) => ({ line: text.slice(0, text.length - begun.length) + w, written: w }));
  const starts = begun.toLowerCase();
  const phrases =
    begun === '' ? [] : names.filter((n) => n.length > begun.length && n.toLowerCase().startsWith(starts));
  if (phrases.length > 0) return ended(begun, phrases);
  const last = /[a-z-]{2,}$/i.exec(text)?.[0].toLowerCase() ?? '';
  if (last === '' || LEXIS.words.has(last)) return [];
  const pieces = LEXIS.names.map((n) => n.words.join(' '));
  const all = [...new Set([...LEXIS.words, ...pieces])].filter((w) => w.startsWith(last) && w.length > last.length);
  return ended(
    last,
    all.sort((a, b) => a.length - b.length || a.localeCompare(b)),
  );
}

const not = (blame: readonly Diagnostic[]): LineReading => ({ kind: 'not', diagnostics: blame });

/** Words that stand for nothing, neighbours together. */
function unknown(tokens: readonly Token[]): readonly Diagnostic[] {
  const out: Diagnostic[] = [];
  for (const t of tokens) {
    if (t.known) continue;
    const last = out.at(-1);
    if (last && t.from - last.until <= 1)
      out[out.length - 1] = { ...last, words: `${last.words} ${t.raw}`, until: t.until };
    else out.push({ words: t.raw, from: t.from, until: t.until, why: '' });
  }
  return out.map((d) => ({
    ...d,
    why: `“${d.words}” is not known here.`,
  }));
}

/** What cannot be met, where it stands in the line; the whole line where its words stand nowhere. */
function placed({ wrong, why }: Wrong, text: string): Diagnostic {
  const from = text.toLowerCase().indexOf(wrong.toLowerCase());
  return from >= 0
    ? { words: wrong, from, until: from + wrong.length, why }
    : { words: wrong, from: 0, until: text.length, why };
}
