import { fraction } from '../base';
import { gridName, parseMeter, meterText, TEMPO } from '../time';
import type { Best } from '../drill';
import type { Family } from '../recipe';
import { LIMBS, VOICE, type Limb, type Voice } from '../stroke';
import { folded, meaningAt, numberOf } from '../words';
import type { Facts } from './facts';

/** What of a phrase is asked about. What is not worked out yet has no facts. */
export interface Asked {
  readonly id: string;
  readonly name: string;
  readonly family: Family;
  readonly tags: readonly string[];
  readonly goal: number;
  /** Name, tags and note in folded letters. */
  readonly text: string;
  readonly parent: { readonly id: string } | null;
  readonly facts: Facts | null;
  /** The highest tempo: worked out, or shown; null until it is known. */
  readonly top: { readonly bpm: number | null } | null;
  readonly best: Best;
}

/** One thing that is asked for, with the words it was read from. */
export interface Condition {
  readonly words: string;
  /** What was typed, to be taken out of the box. */
  readonly typed: string;
  /** Whether a phrase has it. Facts that are not known yet have nothing. */
  readonly holds: (phrase: Asked) => boolean;
}

/** A question as it was understood: conditions, and words that are looked for in names, tags and notes. */
export interface Question {
  readonly conditions: readonly Condition[];
  readonly rest: readonly string[];
}

/** What a question is read against: the time, and the phrases that can be named in it. */
export interface AskContext {
  readonly now: number;
  readonly named: (name: string) => Asked | null;
}

const DAY = 24 * 60 * 60 * 1000;

/** A condition that was read, and how many words it took. */
interface Found {
  readonly took: number;
  readonly words: string;
  readonly holds: (phrase: Asked) => boolean;
}
type Reader = (words: readonly string[], at: number, context: AskContext) => Found | null;

const found = (took: number, words: string, holds: (phrase: Asked) => boolean): Found => ({ took, words, holds });
const byFacts =
  (test: (facts: Facts) => boolean) =>
  ({ facts }: Asked): boolean =>
    facts !== null && test(facts);

const FILLERS: ReadonlySet<string> = new Set(['a', 'an', 'the', 'and', 'in', 'of', 'with', 'has']);

/** "half bar", "2 bars", "under 1 bar". */
const length: Reader = (words, at) => {
  const compare = ['under', 'over', 'shorter', 'longer'].indexOf(words[at] ?? '');
  let i = at + (compare >= 0 ? 1 : 0);
  if (words[i] === 'than') i++;
  const half = words[i] === 'half';
  if (half) i += words[i + 1] === 'a' ? 2 : 1;
  const n = half ? 0.5 : numberOf(words[i] ?? '');
  if (!half) i++;
  const unit = words[i] ?? '';
  if (n === null || !/^(bars?|measures?)$/.test(unit)) return null;
  const bars = n === 0.5 ? 'half a bar' : `${fraction(n)} ${n === 1 ? 'bar' : 'bars'}`;
  const took = i + 1 - at;
  if (compare === 0 || compare === 2)
    return found(
      took,
      `under ${bars}`,
      byFacts((f) => f.bars < n),
    );
  if (compare > 0)
    return found(
      took,
      `over ${bars}`,
      byFacts((f) => f.bars > n),
    );
  return found(
    took,
    bars,
    byFacts((f) => Math.abs(f.bars - n) < 1e-9),
  );
};

const measure: Reader = (words, at) => {
  const word = words[at] ?? '';
  const meter = /^\d{1,2}\/\d{1,2}$/.test(word) ? parseMeter(word) : null;
  if (!meter) return null;
  const wanted = meterText(meter).split(' ')[0];
  return found(
    1,
    `in ${word}`,
    byFacts((f) => f.meter.split(' ')[0] === wanted),
  );
};

/** A limb, a voice, a grid, a family; "no toms", "without kick". */
const thing: Reader = (words, at) => {
  const not = ['no', 'without', 'not'].includes(words[at] ?? '');
  const start = at + (not ? 1 : 0);
  const said = meaningAt(words, start);
  if (!said) return null;
  const took = said.words + start - at;
  const { meaning } = said;
  const turned = (what: string, test: (facts: Facts) => boolean): Found =>
    found(
      took,
      not ? `no ${what}` : what,
      byFacts((f) => test(f) !== not),
    );
  switch (meaning.kind) {
    case 'grid':
      return turned(gridName(meaning.grid), (f) => f.grid === meaning.grid);
    case 'family':
      return found(
        took,
        not ? `no ${meaning.family}s` : `${meaning.family}s`,
        (p) => (p.family === meaning.family) !== not,
      );
    case 'limb':
      return turned(limbWords(meaning.limbs), (f) => meaning.limbs.some((l) => f.limbs.includes(l)));
    case 'voice':
      return turned(voiceWords(meaning.voices), (f) => meaning.voices.some((v) => f.voices.includes(v)));
    case 'number':
      return null;
  }
};

const linear: Reader = (words, at) => {
  const not = ['no', 'not'].includes(words[at] ?? '');
  if (words[at + (not ? 1 : 0)] !== 'linear') return null;
  return found(
    not ? 2 : 1,
    not ? 'not linear' : 'linear',
    byFacts((f) => f.linear !== not),
  );
};

/** "leads left", "left lead", "starts with the right". */
const lead: Reader = (words, at) => {
  const text = words.slice(at, at + 4).join(' ');
  const match =
    /^(?:leads|leading)(?: with)?(?: the)? (right|left)s?\b/.exec(text) ??
    /^(?:starts|begins) with(?: the)? (right|left)s?\b/.exec(text) ??
    /^(right|left) leads?\b/.exec(text);
  if (!match) return null;
  const hand = match[1] === 'left' ? 'L' : 'R';
  return found(
    match[0].split(' ').length,
    `leads ${hand === 'L' ? 'left' : 'right'}`,
    byFacts((f) => f.leads === hand),
  );
};

/** "lands on 1", "starts on the & of 3". */
const place: Reader = (words, at) => {
  const verb = words[at] ?? '';
  if (!['lands', 'starts', 'begins'].includes(verb) || words[at + 1] !== 'on') return null;
  let i = at + 2;
  if (words[i] === 'the') i++;
  let count = words[i] ?? '';
  if (words[i + 1] === 'of' && /^\d+$/.test(words[i + 2] ?? '')) {
    count = `${words[i + 2] ?? ''}${count}`;
    i += 2;
  }
  if (!/^\d{1,2}([a-z&]{0,4})$/.test(count)) return null;
  const took = i + 1 - at;
  if (verb === 'lands')
    return found(
      took,
      `lands on ${count}`,
      byFacts((f) => f.lands === count),
    );
  return found(
    took,
    `starts on ${count}`,
    byFacts((f) => f.starts === count),
  );
};

const TEMPO_WORDS: Readonly<Record<string, { readonly words: string; readonly of: (phrase: Asked) => number | null }>> =
  {
    goal: { words: 'goal', of: (p) => p.goal },
    clean: { words: 'clean at', of: (p) => p.best.clean },
    ceiling: { words: 'ceiling', of: (p) => p.top?.bpm ?? null },
  };

/** "clean 104", "goal 120", "ceiling over 110", "between 90 and 120". */
const tempo: Reader = (words, at) => {
  const named = TEMPO_WORDS[words[at] ?? ''];
  let i = at + (named ? 1 : 0);
  const what = named ?? TEMPO_WORDS['goal'];
  if (!what) return null;
  if (['at', 'is', 'of'].includes(words[i] ?? '')) i++;
  const isTempo = (word: string | undefined): number | null => {
    const n = numberOf(word ?? '');
    return n !== null && n >= TEMPO.least && n <= TEMPO.most ? n : null;
  };
  const how = words[i] ?? '';
  if (how === 'between') {
    const [a, b] = [isTempo(words[i + 1]), isTempo(words[i + 3])];
    if (a === null || b === null || words[i + 2] !== 'and') return null;
    const [low, high] = [Math.min(a, b), Math.max(a, b)];
    return found(i + 4 - at, `${what.words} ${low} to ${high}`, (p) => {
      const bpm = what.of(p);
      return bpm !== null && bpm >= low && bpm <= high;
    });
  }
  const over = ['over', 'above', 'from'].includes(how);
  const under = ['under', 'below', 'to'].includes(how);
  const bpm = isTempo(words[i + (over || under ? 1 : 0)]);
  if (bpm === null || (!named && !over && !under)) return null;
  const took = i + (over || under ? 2 : 1) - at;
  if (under) return found(took, `${what.words} ${bpm} or less`, (p) => (what.of(p) ?? Infinity) <= bpm);
  // A goal is what was set; what is clean at a tempo is clean below it too.
  if (!over && what === TEMPO_WORDS['goal']) return found(took, `goal ${bpm}`, (p) => p.goal === bpm);
  return found(took, `${what.words} ${bpm} or more`, (p) => (what.of(p) ?? -1) >= bpm);
};

/** "never played", "played today", "not played for 10 days", "at the goal". */
const played: Reader = (words, at, { now }) => {
  const text = words.slice(at, at + 6).join(' ');
  const days = (p: Asked): number => (p.best.lastAt === null ? Infinity : (now - p.best.lastAt) / DAY);
  if (/^(never|not) (played|drilled)(?! for)\b/.test(text))
    return found(2, 'never drilled', (p) => p.best.attempts === 0);
  const since = /^not (?:played|drilled) for (\w+) (day|week)s?\b/.exec(text);
  if (since) {
    const n = numberOf(since[1] ?? '');
    if (n === null) return null;
    const least = n * (since[2] === 'week' ? 7 : 1);
    return found(5, `not drilled for ${n} ${since[2] ?? ''}${n === 1 ? '' : 's'}`, (p) => days(p) >= least);
  }
  const lately = /^(?:played|drilled) (today|this week|this month)\b/.exec(text);
  if (lately) {
    const most = lately[1] === 'today' ? 1 : lately[1] === 'this week' ? 7 : 30;
    return found(
      1 + (lately[1] ?? '').split(' ').length,
      `drilled in the last ${most === 1 ? 'day' : `${most} days`}`,
      (p) => days(p) <= most,
    );
  }
  if (/^at (the|its) goal\b/.test(text)) return found(3, 'at the goal', (p) => (p.best.clean ?? 0) >= p.goal);
  return null;
};

const tag: Reader = (words, at) => {
  const word = words[at] ?? '';
  const own = folded(word.slice(1));
  if (!word.startsWith('#') || own === '') return null;
  return found(1, `#${own}`, (p) => p.tags.some((t) => folded(t).startsWith(own)));
};

/** "like Cold rope", "from Cold rope": the longest name of the shelf that stands there. */
const alike: Reader = (words, at, { named }) => {
  const verb = words[at] ?? '';
  if (verb !== 'like' && verb !== 'from') return null;
  for (let n = Math.min(8, words.length - at - 1); n > 0; n--) {
    const other = named(words.slice(at + 1, at + 1 + n).join(' '));
    if (!other) continue;
    if (verb === 'from') return found(n + 1, `grown from ${other.name}`, (p) => p.parent?.id === other.id);
    const own = other.facts;
    return found(
      n + 1,
      `like ${other.name}`,
      (p) => p.id !== other.id && own !== null && p.facts !== null && isAlike(own, p.facts),
    );
  }
  return null;
};

/**
 * Whether two phrases are alike: the same turned or mirrored, or of the same length, grid and meter, both linear or
 * not, with the same limbs.
 */
export function isAlike(a: Facts, b: Facts): boolean {
  if (a.form === b.form) return true;
  return (
    a.length === b.length &&
    a.grid === b.grid &&
    a.meter === b.meter &&
    a.linear === b.linear &&
    a.limbs.join('') === b.limbs.join('')
  );
}

const READERS: readonly Reader[] = [length, measure, linear, lead, place, played, tempo, tag, alike, thing];

/**
 * Reads a question. What is understood becomes conditions; the rest is looked for in names, tags and notes. Never an
 * error.
 * @example
 * readQuestion('half bar 16ths no toms rope', { now: 0, named: () => null }).conditions.map((c) => c.words) // => ['half a bar', '16ths', 'no toms']
 * readQuestion('half bar 16ths no toms rope', { now: 0, named: () => null }).rest // => ['rope']
 */
export function readQuestion(text: string, context: AskContext): Question {
  const typed = text
    .trim()
    .split(/[\s,]+/)
    .filter(Boolean);
  const words = typed.map((w) => w.toLowerCase());
  const conditions: Condition[] = [];
  const rest: string[] = [];
  for (let at = 0; at < words.length;) {
    const read = READERS.reduce<Found | null>((won, reader) => won ?? reader(words, at, context), null);
    if (read) {
      conditions.push({ words: read.words, typed: typed.slice(at, at + read.took).join(' '), holds: read.holds });
      at += read.took;
    } else {
      const word = words[at] ?? '';
      if (!FILLERS.has(word)) rest.push(folded(word));
      at++;
    }
  }
  return { conditions, rest };
}

/** A question's answer: which phrases, the best first, and how many are left after each condition. */
export interface Answer {
  readonly found: readonly number[];
  readonly leaves: readonly number[];
}

/**
 * Which phrases a question finds, as places in the list. A word in the name counts three times one elsewhere; of the
 * same weight they stay in the order they come in.
 */
export function answer(phrases: readonly Asked[], { conditions, rest }: Question): Answer {
  let left: readonly number[] = phrases.map((_, i) => i);
  const leaves: number[] = [];
  for (const { holds } of conditions) {
    left = left.filter((i) => {
      const p = phrases[i];
      return p !== undefined && holds(p);
    });
    leaves.push(left.length);
  }
  if (rest.length === 0) return { found: left, leaves };
  const ranked = left.flatMap((i) => {
    const p = phrases[i];
    if (!p || !rest.every((w) => p.text.includes(w))) return [];
    const name = folded(p.name);
    return [{ i, rank: rest.reduce((sum, w) => sum + (name.includes(w) ? 3 : 1), 0) }];
  });
  return { found: ranked.sort((a, b) => b.rank - a.rank || a.i - b.i).map((r) => r.i), leaves };
}

function limbWords(limbs: readonly Limb[]): string {
  const words: Readonly<Record<Limb, string>> = {
    R: 'right',
    L: 'left',
    K: 'kick',
    J: 'second kick',
    H: 'hi-hat foot',
  };
  if (limbs.length === 2 && limbs.includes('R')) return 'hands';
  if (limbs.length === LIMBS.length - 2) return 'feet';
  return limbs.map((l) => words[l]).join(' or ');
}

function voiceWords(voices: readonly Voice[]): string {
  const [first] = voices;
  if (voices.length === 1 && first) return VOICE[first].name;
  if (voices.includes('floor-tom')) return 'toms';
  if (voices.includes('hat-closed')) return 'hi-hat';
  if (voices.includes('ride')) return 'ride';
  if (voices.includes('crash-left')) return 'crash';
  return first ? VOICE[first].name : '';
}
