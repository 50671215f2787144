import { ORDINARY } from './ordinary';

/** A name of one or several words, and the one word it is read as. */
export interface NameSaid {
  readonly words: readonly string[];
  readonly as: string;
  /** It is only meant behind one of these words. */
  readonly after?: ReadonlySet<string>;
}

/** What words there are: single ones, and names of several words with the one word they are read as. */
export interface Lexis {
  readonly words: ReadonlySet<string>;
  readonly names: readonly NameSaid[];
  /** Words are only themselves: a slip is not set right. */
  readonly exact?: boolean;
}

/** A word of a line: as it is understood, as it was typed, and where it stands. */
export interface Token {
  readonly word: string;
  /** As it was typed, with its capitals. */
  readonly raw: string;
  readonly from: number;
  readonly until: number;
  /** Whether anything said can mean it. */
  readonly known: boolean;
}

/** Lines longer than this are not read, nor lines of more words. */
export const MOST_LETTERS = 400;
export const MOST_WORDS = 80;

/** A count in figures: "3", "4&", "2:3e", "1trip", "2.3". */
export const COUNT = /^(?:\d{1,2}:)?\d{1,2}(?:e|&|a|trip|let|ta|la|&trip|&let|&ta|&la|\.\d)?$/;
/** Strokes as they are typed, each a word of its own. */
const STROKES = /^(?:[fdrz]?[rlkhj]!?|-)(?:\+(?:[fdrz]?[rlkhj]!?))*$/i;

const PIECE =
  /#[^\s,]+|w\/(?=\s)|->|=>|\d{1,2}\/\d{1,2}(?!\d)|\d{0,3}½|\d{1,2}:\d{1,2}[a-z&.\d]*|[a-z0-9&.+!']+(?:-(?=[a-z])[a-z0-9]+)*|[,;:|-]|[^\s]/giu;

/** Words that belong together are one, however they are spelt: "hi-hat", "hi hat", "hihat". */
const TOGETHER: readonly (readonly [RegExp, string])[] = [
  [/^hi-?hats?$/, 'hat'],
  [/^high-?hats?$/, 'hat'],
  [/^hats$/, 'hat'],
  [/^x-?stick$/, 'cross stick'],
  [/^bassdrum$/, 'bass drum'],
  // As drummers jot it down.
  [/^hh$/, 'hat'],
  [/^bd$/, 'kick'],
  [/^sd$/, 'snare'],
  [/^rh$/, 'right hand'],
  [/^lh$/, 'left hand'],
  [/^acct?$/, 'accent'],
  [/^r's$/, 'rights'],
  [/^l's$/, 'lefts'],
  [/^k's$/, 'kicks'],
  // Loudness as scores write it.
  [/^(?:pp?|piano)$/, 'soft'],
  [/^(?:ff?|forte)$/, 'loud'],
  // As fingers type it.
  [/^(?:te|hte|teh)$/, 'the'],
  [/^(?:adn|nad)$/, 'and'],
  [/^gh$/, 'ghost'],
  [/^un-accent$/, 'unaccent'],
  [/^non-(accents|ghosts)$/, 'non'],
  [/^1st$/, 'first'],
  [/^2nd$/, 'second'],
  // One part of a note beside the next.
  [/^\/$/, ';'],
  [/^w\/$/, 'with'],
  [/^(?:->|=>|→|=)$/, 'to'],
  [/^\+$/, 'and'],
  [/^diddle$/, 'double'],
  [/^diddles$/, 'doubles'],
];
/** Counts that are joined: "1+3". */
const JOINED_COUNTS = /^\d{1,2}[ea&]?(?:\+\d{1,2}[ea&]?)+$/i;

/** Pieces and limbs that are joined: "crash+kick", and no strokes. */
const JOINED_WORDS = /^(?=.*[a-z]{3})[a-z]+(?:\+[a-z]+)+$/i;

/** The words of a line; hyphens part words but for those that are one word with them. */
export function tokensOf(line: string, lexis: Lexis): readonly Token[] {
  const found: Token[] = [];
  // Marks that are typed in more than one way: all as long as what stands for them.
  for (const match of line.replace(/[’‘]/g, "'").replace(/[–—]/g, ',').matchAll(PIECE)) {
    const raw = match[0].replace(/[.!?']+$/, (end) => (/^[fdrz]?[rlkhj]!$/i.test(match[0]) ? end : ''));
    if (raw === '') continue;
    const from = match.index;
    let at = from;
    const whole = TOGETHER.find(([said]) => said.test(raw.toLowerCase()));
    if (JOINED_COUNTS.test(raw) || JOINED_WORDS.test(raw)) {
      for (const part of raw.split(/(?=\+)|(?<=\+)/)) {
        const word = part === '+' ? 'and' : part.toLowerCase();
        found.push({
          word,
          raw: part,
          from: at,
          until: at + part.length,
          known: JOINED_COUNTS.test(raw) || isKnown(word, lexis),
        });
        at += part.length;
      }
      continue;
    }
    for (const part of whole || raw === '-' ? [raw] : raw.split('-')) {
      const word =
        (whole?.[1] === 'non' ? raw.toLowerCase().replace('-', '') : whole?.[1]) ??
        part.toLowerCase().replace(/'/g, '');
      found.push({ word, raw: part, from: at, until: at + part.length, known: isKnown(word, lexis) });
      at += part.length + 1;
    }
    // A full stop parts clauses; the one at the end says nothing.
    const stop = /^(?:[a-z].*[a-z0-9]|\d{1,2}[e&a]?)(\.)$/i.exec(match[0]);
    const end = from + match[0].length;
    if (stop && line.slice(end).trim() !== '')
      found.push({ word: '.', raw: '.', from: end - 1, until: end, known: true });
  }
  return joined(found, lexis).map((t) => spelt(t, lexis));
}

/** Names of several words as one: "floor tom", "bass drum", "half open hat". */
function joined(tokens: readonly Token[], lexis: Lexis): Token[] {
  const out: Token[] = [];
  for (let i = 0; i < tokens.length;) {
    const behind = out.at(-1)?.word ?? '';
    const own = lexis.names.find(
      ({ words, after }) =>
        (!after || after.has(behind)) &&
        // "Off beat 2" names a beat.
        !(words[0] === 'off' && /^\d/.test(tokens[i + words.length]?.word ?? '')) &&
        words.every((w, k) => isSpelt(tokens[i + k]?.word ?? '', w, lexis)),
    );
    const [first, last] = [tokens[i], tokens[i + (own?.words.length ?? 1) - 1]];
    if (!first || !last) break;
    out.push(
      own
        ? {
            word: own.as,
            raw: tokens
              .slice(i, i + own.words.length)
              .map((t) => t.raw)
              .join(' '),
            from: first.from,
            until: last.until,
            known: true,
          }
        : first,
    );
    i += own?.words.length ?? 1;
  }
  return out;
}

function isKnown(word: string, { words }: Lexis): boolean {
  return (
    words.has(word) ||
    COUNT.test(word) ||
    STROKES.test(word) ||
    /^\d{1,4}$|^\d{1,2}s$|^\d{0,3}½$|^[rl]{2,16}$/.test(word)
  );
}

/** Whether a word is another one, or a slip away from it. */
function isSpelt(word: string, meant: string, lexis: Lexis): boolean {
  return (
    word === meant ||
    (!lexis.exact && !isKnown(word, lexis) && !ORDINARY.has(word) && meant.length > 3 && distance(word, meant) <= 1)
  );
}

/** A word nobody knows that is one slip away from exactly one that is known (two in long words), as that one. */
function spelt(token: Token, lexis: Lexis): Token {
  const own = token.word;
  // "Tripletise" is a word made of another, and no slip.
  if (/(?:is|iz)(?:e|es|ed|ing)$/.test(own)) return token;
  if (lexis.exact || token.known || ORDINARY.has(own) || own.length < 3 || !/^[a-z]+$/.test(own)) return token;
  const most = own.length > 7 ? 2 : 1;
  let best: { readonly word: string; readonly far: number } | null = null;
  let ties = 0;
  for (const word of lexis.words) {
    if (word.length < 3 || Math.abs(word.length - own.length) > most) continue;
    const slips = distance(word, own);
    const changed = word.length === own.length && sortedLetters(word) !== sortedLetters(own);
    // Three letters of which one is another are another word, and so are short ones that begin with another.
    const short = Math.min(own.length, word.length);
    const begins = word.charAt(0) === own.charAt(0);
    if (slips > most || (changed && (short < 4 || (short < 6 && !begins)))) continue;
    // First letters are mostly right, and letters are left out or doubled sooner than taken for others.
    const turned = word.length === own.length && !changed;
    const far = slips + (begins ? 0 : 0.5) + (changed ? 0.25 : 0) - (turned ? 0.25 : 0);
    if (!best || far < best.far) [best, ties] = [{ word, far }, 1];
    else if (far === best.far) ties++;
  }
  return best && ties === 1 ? { ...token, word: best.word, known: true } : token;
}

const sortedLetters = (word: string): string => Array.from(word).sort().join('');

/** Slips from one word to another: letters left out, put in, changed, or two that changed places. */
export function distance(a: string, b: string): number {
  const rows = Array.from({ length: a.length + 1 }, (_, i) => [i, ...Array.from({ length: b.length }, () => 0)]);
  for (let j = 0; j <= b.length; j++) (rows[0] ?? [])[j] = j;
  const cell = (i: number, j: number): number => rows[i]?.[j] ?? 0;
  for (let i = 1; i <= a.length; i++)
    for (let j = 1; j <= b.length; j++) {
      const same = a[i - 1] === b[j - 1] ? 0 : 1;
      let least = Math.min(cell(i - 1, j) + 1, cell(i, j - 1) + 1, cell(i - 1, j - 1) + same);
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1])
        least = Math.min(least, cell(i - 2, j - 2) + 1);
      (rows[i] ?? [])[j] = least;
    }
  return cell(a.length, b.length);
}
