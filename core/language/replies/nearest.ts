import type { RoleName } from '../frames/role-names';
import { rolesAt } from '../frames/roles';
import { VERBS_BY_WORD, type ActName } from '../lexicon/verbs';
import type { Build } from '../../recipe';
import { MOST_LETTERS, tokensOf, type Token } from '../lexicon/tokens';
import { lexisWith, readLine } from './read';
import type { Around, Diagnostic, LineReading, Meant } from './reading';

/** A line that can be read for this phrase, and what it means. */
export interface Near {
  readonly line: string;
  readonly meant: Meant;
}

/** What is near a line that is not understood: the fewest words that stand in its way, and up to three lines. */
export interface Nearest {
  readonly diagnostics: readonly Diagnostic[];
  readonly lines: readonly Near[];
}

type Read = (line: string) => LineReading;

/** So many lines are offered. */
const MOST = 3;
/** So many words are left out at most, of a line of so many, to see whether the rest can be read. */
const MOST_LEFT_OUT = 4;
const MOST_WORDS = 24;
/** So many lines are tried. */
const MOST_TRIED = 90;

/**
 * What is near a line that cannot be read, for this phrase: the smallest part of it without which it can, and the
 * nearest lines, by words and roles in common, each of which means one thing. `tokens` are those of the line, `read`
 * reads others. Nothing is near a line of which no word is known.
 */
function nearest(text: string, tokens: readonly Token[], read: Read): Nearest {
  let tried = 0;
  const meaning = (line: string): Meant | null => {
    if (tried++ > MOST_TRIED) return null;
    const reading = read(line);
    const [only, ...more] = reading.kind === 'meant' ? reading.all : [];
    return only && more.length === 0 ? only : null;
  };
  const found = new Map<string, Near & { readonly far: number }>();
  const add = (line: string, far: number): boolean => {
    const meant = meaning(line);
    if (!meant) return false;
    const key = meant.words;
    const before = found.get(key);
    if (!before || far < before.far) found.set(key, { line, meant, far });
    return true;
  };
  const strange = tokens.filter((t) => !t.known);
  // Without the words nobody knows, wherever they stand.
  if (strange.length > 0 && strange.length < tokens.length)
    add(
      tidied(strange.reduceRight((line, t) => `${line.slice(0, t.from)} ${line.slice(t.until)}`, text)),
      strange.length,
    );
  const diagnostics = leftOut(text, tokens, add);
  const own = new Set(tokens.map((t) => t.word));
  for (const line of fromRoles(tokens)) {
    const words = line.toLowerCase().split(/\s+/);
    const shared = words.filter((w) => own.has(w)).length;
    const others = words.length - shared;
    if (found.size < MOST * 2) add(line, tokens.length - shared + others * 0.5);
  }
  const lines = [...found.values()].sort((a, b) => a.far - b.far).slice(0, MOST);
  return { diagnostics, lines: lines.map(({ line, meant }) => ({ line, meant })) };
}

/** A line with words taken out, as one would type it. */
const tidied = (line: string): string =>
  line
    .replace(/\s+/g, ' ')
    .trim()
    .replace(/^[,;:]\s*|\s*[,;:]$/g, '');

/** Lines with a few words left out, the fewest first; the words without which one of them can be read. */
function leftOut(text: string, tokens: readonly Token[], add: (line: string, far: number) => boolean): Diagnostic[] {
  if (tokens.length > MOST_WORDS) return [];
  for (let many = 1; many <= Math.min(MOST_LEFT_OUT, tokens.length - 1); many++) {
    const blamed: Diagnostic[] = [];
    for (let at = 0; at + many <= tokens.length; at++) {
      const [first, last] = [tokens[at], tokens[at + many - 1]];
      if (!first || !last) continue;
      if (!add(tidied(`${text.slice(0, first.from)} ${text.slice(last.until)}`), many)) continue;
      const words = text.slice(first.from, last.until);
      blamed.push({ words, from: first.from, until: last.until, why: `“${words}” does not fit here.` });
    }
    const [one] = blamed;
    if (one) return [one];
  }
  return [];
}

/** What is most often meant, where a line does not say it. */
const USUAL: Partial<Record<RoleName, readonly string[]>> = {
  pick: ['the rights', 'the lefts', 'the accents', 'the last note'],
  voices: ['high tom', 'floor tom'],
};

/** How each act is said with what it needs. */
const SENTENCES: readonly (readonly [acts: readonly ActName[], needs: readonly RoleName[], say: string])[] = [
  [['send'], ['pick', 'voices'], '{pick} to the {voices}'],
  [['accent', 'level'], ['pick'], 'accent {pick}'],
  [['ghost', 'level'], ['pick'], 'ghost {pick}'],
  [['level'], ['level', 'pick'], 'make {pick} {level}'],
  [['add'], ['ornament', 'pick'], '{ornament} on {pick}'],
  [['give'], ['pick', 'limb'], '{pick} with the {limb}'],
  [['add'], ['player', 'pick'], '{player} under {pick}'],
  [['rest', 'remove'], ['pick'], 'leave out {pick}'],
  [['shift'], ['far', 'way'], '{far} {way}'],
  [['shift'], ['far'], 'later by {far}'],
  [['fill'], ['space'], 'fill {space}, cut the last one'],
  [['route'], ['route'], '{route} in twos'],
  [[], ['grid'], 'as {grid}'],
  [['land'], ['voices'], 'land on the next 1 with the {voices}'],
];

/** Lines made of what can be made out: by its acts first, then by its roles, with the usual for what is missing. */
function fromRoles(tokens: readonly Token[]): readonly string[] {
  const said = rolesSaid(tokens);
  const acts = actsSaid(tokens);
  if (said.size === 0 && acts.size === 0) return [];
  const lines: { readonly line: string; readonly far: number }[] = [];
  for (const [act, needs, say] of SENTENCES) {
    const missing = needs.filter((n) => !said.has(n));
    const meant = act.some((a) => acts.has(a));
    if (missing.length === needs.length && !meant) continue;
    if (missing.some((n) => !USUAL[n])) continue;
    const usual = missing.length > 0 ? (USUAL[missing[0] ?? 'pick'] ?? []) : [''];
    for (const [i, word] of usual.entries()) {
      const line = say.replace(/\{(\w+)\}/g, (_, role: RoleName) => said.get(role) ?? word);
      lines.push({ line, far: missing.length * 2 + i * 0.1 + (meant ? 0 : 1) });
    }
  }
  return lines.sort((a, b) => a.far - b.far).map((l) => l.line);
}

/** The longest words of each role, as they were typed. */
function rolesSaid(tokens: readonly Token[]): ReadonlyMap<RoleName, string> {
  const said = new Map<RoleName, { readonly words: string; readonly many: number }>();
  tokens.forEach((_, at) => {
    const all = rolesAt(tokens, at);
    for (const { role, end, by } of all) {
      const from = by === '' ? at : at + by.split(' ').length;
      const many = end - from;
      if (many < 1 || many <= (said.get(role)?.many ?? 0)) continue;
      // A piece is where strokes go, sooner than those that are on it.
      if (role === 'pick' && all.some((r) => r.role === 'voices' && r.end === end)) continue;
      // "Accent" by itself is what is done, and not to what.
      if (role === 'pick' && many === 1 && VERBS_BY_WORD.has(tokens[from]?.word ?? '')) continue;
      const words = tokens
        .slice(from, end)
        .map((t) => t.raw)
        .join(' ');
      said.set(role, { words: words.replace(/^(?:the|a|an) (?=.)/i, role === 'pick' ? '$&' : ''), many });
    }
  });
  return new Map([...said].map(([role, s]) => [role, s.words]));
}

function actsSaid(tokens: readonly Token[]): ReadonlySet<ActName> {
  const acts = new Set<ActName>();
  for (const { word } of tokens)
    for (const { words, acts: own } of VERBS_BY_WORD.get(word) ?? [])
      if (words.length === 1 && own) for (const a of own) acts.add(a);
  return acts;
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
