import { offerOf, type Build } from '../../recipe';
import { VOICE } from '../../stroke';
import type { Pick } from '../grammar/pick';
import { playingLine } from '../grammar/playing';
import { SLOTS } from '../grammar/slots';
import { begunName, phraseNames } from '../lexicon/phrases';
import { nameWords } from '../lexicon/terms';
import { MOST_LETTERS, MOST_WORDS, tokensOf, type Lexis, type Token } from '../lexicon/tokens';
import { readJoin } from '../rules/join';
import { joinVersions, lettersIn } from '../rules/versions';
import { LEXIS } from './lexis';
import type { RuleContext } from '../rules/rule';
import { after, CarriedOut, ClauseReader, looks, partings, rankOf, type Wrong } from './clauses';
import { correctedLines } from './corrected';
import { readPrinted } from './printed';
import type { Around, Diagnostic, LineReading, Meant } from './reading';

/** The tempo that "slower by 10" is counted from where none is known. */
const USUAL_TEMPO = 100;

/** The words there are, with the names of the player's own pieces and phrases first. */
export function lexisWith({ own = [], phrases = [] }: Around): Lexis {
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
  const { tempo = USUAL_TEMPO, phrases = [], isOnePedal } = around;
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
  const letters = lettersIn(line);
  if (letters) {
    const joined = joinVersions(letters, around.letter ?? null, around.versions ?? []);
    if ('wrong' in joined) return not([placed(joined, text)]);
    const done = after({ scene: { pattern: built.pattern, built, them: null }, moves: [], words: [] }, joined);
    if (!('wrong' in done))
      return { kind: 'meant', all: [{ words: joined.words, moves: done.moves, pattern: done.scene.pattern }] };
  }
  const amended = correctedLines(line.replace(/\s*[–—]\s*/g, ', '), (part, instead) =>
    sameKind(part, instead, around),
  )?.map((one) => readLine(one, built, around));
  const order = amended?.find((r) => r.kind === 'playing');
  if (order) return order;
  // Where it could take back several things, each is shown.
  const meant = new Map(amended?.flatMap((r) => (r.kind === 'meant' ? r.all : [])).map((m) => [looks(m.pattern), m]));
  if (meant.size > 0) return { kind: 'meant', all: [...meant.values()] };
  const typed = tokensOf(text, lexisWith(around));
  const isBeneath = UNDERNEATH.test(typed.at(-1)?.word ?? '') && typed.at(-2)?.word === ',' && typed.length > 2;
  const tokens = isBeneath ? typed.slice(0, -2) : typed;
  if (tokens.length === 0) return not([]);
  if (tokens.length > MOST_WORDS)
    return not([
      { words: line.slice(0, 20), from: 0, until: text.length, why: `A line has at most ${MOST_WORDS} words.` },
    ]);
  const playing = playingLine(tokens, text, { pattern: built.pattern, tempo, phrases });
  if (playing) return { kind: 'playing', words: line, ...playing };
  const strange = unknown(tokens);
  if (strange.length > 0) return not(strange);
  const first: RuleContext = {
    pattern: built.pattern,
    built,
    them: null,
    phrases,
    isBeneath,
    ...(isOnePedal === undefined ? {} : { isOnePedal }),
  };
  const heard: Heard = {
    reader: new ClauseReader(tokens),
    carry: new CarriedOut({ lines: [{ scene: first, moves: [], words: [] }], wrong: null }),
  };
  const plain = understood(heard, first, text, false);
  return plain.kind === 'meant' ? plain : understood(heard, first, text, true, plain);
}

/** Said behind a comma it holds for all that is added before. */
const UNDERNEATH = /^(?:underneath|beneath|below)$/;

/** Clauses of a line, and what they do, kept between two ways to read it. */
interface Heard {
  readonly reader: ClauseReader;
  readonly carry: CarriedOut;
}

const NO_LINE = 'This cannot be read as one line.';

/** What a line means by its clauses: as sentences in one order, or also by frames, whose roles stand in any. */
function understood(
  { reader, carry }: Heard,
  first: RuleContext,
  text: string,
  framed: boolean,
  otherwise?: LineReading,
): LineReading {
  const line = text.trim();
  const { built } = first;
  const all = partings(reader, framed, carry);
  const met = all.met.map((clauses) => ({ ...carry.of(clauses), rank: rankOf(clauses) }));
  const done = [...met, ...all.failed.map((clauses) => carry.of(clauses))];
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
  // What stood in the way of the first reading is said, where that was more than that it is none.
  if (otherwise?.kind === 'not' && otherwise.diagnostics.every((d) => d.why !== NO_LINE)) return otherwise;
  if (held.length > 0) return not([{ words: line, from: 0, until: text.length, why: 'It is like that already.' }]);
  // What stands in the line says more than what a rule calls by its own words.
  const bads = done.flatMap((d) => (d.wrong && d.wrong.why !== '' && d.wrong.wrong !== '' ? [d.wrong] : []));
  const bad = bads.find((b) => line.toLowerCase().includes(b.wrong.toLowerCase())) ?? bads[0];
  if (bad) return not([placed(bad, text)]);
  return not([{ words: line, from: 0, until: text.length, why: NO_LINE }]);
}

/** What a part of a line can be, whole: strokes, pieces, a limb, counts, a number. */
const KINDS = ['pick', 'voices', 'limb', 'counts', 'n'] as const;

/** Whether two parts of a line, each as a whole, are of one kind: a piece is no limb, though both can name strokes. */
function sameKind(part: string, instead: string, around: Around): boolean {
  const lexis = lexisWith(around);
  const [one, other] = [tokensOf(part, lexis), tokensOf(instead, lexis)];
  const whole = (tokens: readonly Token[], kind: string): readonly unknown[] =>
    tokens.length === 0
      ? []
      : (SLOTS[kind]?.(tokens, 0) ?? []).flatMap((f) => (f.end === tokens.length ? [f.value] : []));
  return KINDS.some((kind) => {
    const [a, b] = [whole(one, kind), whole(other, kind)];
    if (kind !== 'pick') return a.length > 0 && b.length > 0;
    return a.some((x) => b.some((y) => saysOf(x as Pick) === saysOf(y as Pick)));
  });
}

/** What of strokes a choice names: by what they are, or else by where they stand. */
function saysOf({ limb, levels, voices, ornaments, order, base }: Pick): string {
  if (limb) return 'limb';
  if (voices) return 'voices';
  if (levels ?? ornaments) return 'levels';
  return order ? 'order' : base === null ? 'where' : base;
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
