import { ticks, parseCount, type Counting } from '../time';
import { LEVELS, LIMBS, ORNAMENTS, type Level, type Limb, type Ornament, type Voice } from '../stroke';
import type { Role } from '../pattern';
import { ALL, both, EDGES, either, PARTS, WITHINS, type Selection, type Which, type Within } from './selection';
import {
  EDGE_WORDS,
  LIMB_ADJECTIVES,
  LIMB_NOUNS,
  LIMBS_BY_NAME,
  PART_WORDS,
  SPOKEN_ORDINALS,
  SPOKEN_SYLLABLES,
  VOICE_NAMES,
  WITHIN_WORDS,
} from './terms';

/** Where places pressed by hand are counted: the pattern's counting, and where it begins, in ticks. */
export interface Placing {
  readonly counting: Counting;
  readonly start: number;
}

/**
 * Reads what `selectionWords` prints, and nothing else; null for other words. Drummers' own words are read by the
 * language's grammar. Where places were pressed by hand, `placing` says how their counts are read.
 * @example
 * readSelection('right accents on 2 and the & of 4') // => { is: 'and', all: [{ is: 'limb', limbs: ['R'] }, { is: 'height', levels: ['accent'] }, { is: 'count', counts: ['2', '4&'] }] }
 * readSelection('rights except on 2') // => { is: 'but', of: { is: 'limb', limbs: ['R'] }, not: { is: 'count', counts: ['2'] } }
 * readSelection('purple ones') // => null
 */
export function readSelection(text: string, placing?: Placing): Selection | null {
  const reader = new Reader(text, placing);
  const found = reader.exception();
  return found && reader.isOver ? found : null;
}

const RAW_COUNT = /^(?:-?\d+:)?\d+\S*$/;

/** A recursive descent over the words, which goes back where it was when something does not fit. */
class Reader {
  private readonly words: readonly string[];
  private at = 0;

  constructor(
    text: string,
    private readonly placing: Placing | undefined,
  ) {
    this.words = text.match(/[(),]|[^\s(),]+/g) ?? [];
  }

  get isOver(): boolean {
    return this.at === this.words.length;
  }

  private get next(): string | undefined {
    return this.words[this.at];
  }

  /** Takes all the words of a phrase if they stand next. */
  private eat(phrase: string): boolean {
    const wanted = phrase.match(/[(),]|[^\s(),]+/g) ?? [];
    if (!wanted.every((w, i) => this.words[this.at + i] === w)) return false;
    this.at += wanted.length;
    return true;
  }

  private stands(phrase: string): boolean {
    const before = this.at;
    const found = this.eat(phrase);
    this.at = before;
    return found;
  }

  /** What is read, or null and the reader where it was. */
  private attempt<T>(read: () => T | null): T | null {
    const before = this.at;
    const found = read();
    if (found === null) this.at = before;
    return found;
  }

  /** Items in a list, "1, 2 and 4": at least one. */
  private list<T>(item: () => T | null): T[] | null {
    const found: T[] = [];
    for (;;) {
      const one = this.attempt(() => {
        if (found.length > 0 && !this.eat(',') && !this.eat('and')) return null;
        return item();
      });
      if (one === null) return found.length > 0 ? found : null;
      found.push(one);
    }
  }

  private oneOf<T extends string>(all: readonly T[], words: (one: T) => string = (one) => one): T | null {
    return all.find((one) => this.eat(words(one))) ?? null;
  }

  private number(): number | null {
    return this.attempt(() => {
      const word = this.next;
      if (word === undefined || !/^\d{1,4}$/.test(word)) return null;
      this.at++;
      return Number(word);
    });
  }

  exception(): Selection | null {
    let found = this.alternative();
    while (found && this.eat('except')) {
      const not: Selection | null = this.attempt(() => this.alternative()) ?? this.where([]);
      found = not ? { is: 'but', of: found, not } : null;
    }
    return found;
  }

  private alternative(): Selection | null {
    const all: Selection[] = [];
    do {
      const one = this.conjunction();
      if (!one) return null;
      all.push(one);
    } while (this.eat('as well as'));
    const [first, ...others] = all;
    return first ? either(first, ...others) : null;
  }

  private conjunction(): Selection | null {
    const all: Selection[] = [];
    do {
      const one = this.besides();
      if (!one) return null;
      all.push(one);
    } while (this.eat('that are also'));
    return both(...all);
  }

  private besides(): Selection | null {
    const of = this.unit();
    if (!of) return null;
    if (this.eat('alone')) return { is: 'alone', of };
    const how = this.eat('together with')
      ? 'with'
      : this.eat('just before')
        ? 'before'
        : this.eat('just after')
          ? 'after'
          : null;
    if (!how) return of;
    const what = this.unit();
    return what ? { is: 'beside', of, how, what } : null;
  }

  private unit(): Selection | null {
    if (this.eat('(')) return this.closed();
    return this.attempt(() => this.noun()) ?? this.attempt(() => this.order());
  }

  /** The rest of what stands in brackets. */
  private closed(): Selection | null {
    const inner = this.exception();
    return inner && this.eat(')') ? inner : null;
  }

  /** "the last 2 rights of each bar" */
  private order(): Selection | null {
    return this.which((singular) => (this.eat('of (') ? this.closed() : this.noun(singular)));
  }

  /** Which of several, with what they are of. */
  private which(inner: (singular: boolean) => Selection | null): Selection | null {
    const made = (of: Selection | null, which: Which | null): Selection | null => {
      if (!of || !which) return null;
      return { is: 'order', of, which, within: this.within('each') };
    };
    if (this.eat('every single')) return made(inner(true), this.everyFrom(1));
    if (this.eat('every')) {
      const spoken = this.oneOf(SPOKEN_ORDINALS);
      const every = spoken === null ? this.number() : SPOKEN_ORDINALS.indexOf(spoken) + 1;
      if (every === null) return null;
      const of = inner(spoken !== null);
      return made(of, this.everyFrom(every));
    }
    const numbers = this.eat('numbers') || this.eat('number') ? this.list(() => this.number()) : null;
    if (numbers) {
      this.eat('of the');
      return made(inner(false), { nth: numbers });
    }
    if (!this.eat('the')) return null;
    if (this.eat('middle')) return made(inner(true), { middle: true });
    const end = this.attempt(() => {
      const word = this.oneOf(['first', 'last'] as const);
      const many = word === null ? null : this.number();
      return word === null || many === null ? null : ({ [word]: many } as { first: number } | { last: number });
    });
    if (end) return made(inner(false), end);
    if (this.eat('last')) return made(inner(true), { last: 1 });
    const nth = this.list(() => this.oneOf(SPOKEN_ORDINALS))?.map((w) => SPOKEN_ORDINALS.indexOf(w) + 1);
    if (!nth) return null;
    const [only] = nth;
    return made(inner(nth.length === 1), nth.length === 1 && only === 1 ? { first: 1 } : { nth });
  }

  private everyFrom(every: number): Which {
    const from = this.attempt(() => {
      if (this.eat('from number')) return this.number();
      if (!this.eat('from the')) return null;
      const spoken = this.oneOf(SPOKEN_ORDINALS);
      return spoken === null ? null : SPOKEN_ORDINALS.indexOf(spoken) + 1;
    });
    return { every, from: from ?? 1, ...(this.eat(', one by one') ? { single: true as const } : {}) };
  }

  private within(each: 'each' | 'every'): Within {
    return WITHINS.find((w) => w !== 'phrase' && this.eat(`of ${each} ${WITHIN_WORDS[w]}`)) ?? 'phrase';
  }

  /** "rights on the snare", "the first of each double", "all strokes in bar 2", "1e and 4a, by hand". */
  private noun(singular = false): Selection | null {
    if (this.eat('no strokes')) return { is: 'hand', at: [] };
    const own = this.attempt(() => this.said());
    if (own) return this.where([own]);
    const by = this.attempt(() => this.byHand());
    if (by) return this.where([by]);
    const head = this.head(singular ? '' : 's');
    return head && (this.where(head) ?? ALL);
  }

  private head(s: '' | 's'): Selection[] | null {
    if (this.eat(`all stroke${s}`)) return [ALL];
    const parts: Selection[] = [];
    const roles = this.list(() => this.oneOf(['primary', 'timekeeping', 'texture'] as const satisfies readonly Role[]));
    if (roles) parts.push({ is: 'role', roles });
    const limbs = this.limbs(s);
    if (limbs) parts.push({ is: 'limb', limbs: limbs.limbs });
    if (limbs?.named) return parts;
    const levels = this.list((): Level | null => this.oneOf(LEVELS, (l) => `${l}${s}`));
    if (levels) parts.push({ is: 'height', levels });
    else if (!this.eat(`stroke${s}`)) return null;
    return parts;
  }

  /** Limbs as adjectives, or as the noun itself. */
  private limbs(s: '' | 's'): { readonly limbs: readonly Limb[]; readonly named: boolean } | null {
    if (this.eat('hand')) return { limbs: ['R', 'L'], named: false };
    const noun = this.attempt(() => {
      const limb = LIMBS_BY_NAME.find((l) => this.eat(`${LIMB_NOUNS[l]}${s}`));
      // "Right accents", "right and kick strokes": it describes what follows.
      return limb && !/^(?:accent|tap|ghost|stroke)s?$/.test(this.next ?? '') && !this.describes() ? limb : null;
    });
    if (noun) return { limbs: [noun], named: true };
    const limbs = this.list(() => LIMBS_BY_NAME.find((l) => this.eat(LIMB_ADJECTIVES[l])) ?? null);
    return limbs && { limbs: LIMBS.filter((l) => limbs.includes(l)), named: false };
  }

  /** Whether another limb follows in a list of adjectives. */
  private describes(): boolean {
    const before = this.at;
    const more = (this.eat(',') || this.eat('and')) && LIMBS_BY_NAME.some((l) => this.eat(LIMB_ADJECTIVES[l]));
    this.at = before;
    return more;
  }

  /** What is said by a name of its own: parts of groups, places of the cell, slots. */
  private said(): Selection | null {
    const part = this.oneOf(PARTS, (p) => PART_WORDS[p]);
    if (part) return { is: 'part', part };
    return this.attempt(() => this.places()) ?? this.attempt(() => this.slots());
  }

  private places(): Selection | null {
    const numbered = this.eat('places') || this.eat('place') ? this.list(() => this.number()) : null;
    const places =
      numbered ??
      (this.eat('the')
        ? (this.list(() => this.oneOf(SPOKEN_ORDINALS))?.map((w) => SPOKEN_ORDINALS.indexOf(w) + 1) ?? null)
        : null);
    return places && !this.stands('of every group of the meter') && this.eat('of every group')
      ? { is: 'place', places }
      : null;
  }

  private slots(): Selection | null {
    // Behind which of them the word itself stood, if it did.
    const named: boolean[] = [];
    const found = this.which((singular) => {
      named.push(this.eat(singular ? 'slot' : 'slots'));
      return ALL;
    });
    if (found?.is !== 'order') return null;
    const within = this.within('every');
    return within === 'phrase' && !named.includes(true) ? null : { is: 'slots', which: found.which, within };
  }

  private byHand(): Selection | null {
    const { placing } = this;
    const refs = placing
      ? this.list(() => {
          const word = this.next;
          if (word === undefined || !RAW_COUNT.test(word)) return null;
          this.at++;
          return word;
        })
      : null;
    if (!refs || !placing || !this.eat(', by hand')) return null;
    const at = refs.map((r) => parseCount(r, placing.counting));
    return at.every((t) => t !== null) ? { is: 'hand', at: at.map((t) => ticks(t - placing.start)) } : null;
  }

  /** Where what was said stands: as many places as follow. */
  private where(parts: readonly Selection[]): Selection | null {
    const all = [...parts];
    for (;;) {
      const one = this.attempt(() => this.place());
      if (!one) break;
      all.push(one);
    }
    return all.length === 0 ? null : both(...all);
  }

  private place(): Selection | null {
    if (this.eat('with a')) {
      const ornaments: Ornament[] = [];
      do {
        const one = this.oneOf(ORNAMENTS);
        if (!one) return null;
        ornaments.push(one);
      } while (this.eat('or'));
      return { is: 'ornament', ornaments };
    }
    if (this.eat('that are')) return this.said();
    if (this.eat('at')) return this.byHand();
    if (this.eat('on the')) {
      const voices = this.attempt(() => this.list(() => this.voice()));
      if (voices) return { is: 'piece', voices };
      this.at--;
      const counts = this.counts();
      return counts && { is: 'count', counts };
    }
    if (this.eat('on')) {
      const counts = this.counts();
      return counts && { is: 'count', counts };
    }
    if (this.eat('in')) return this.inside();
    for (const edge of EDGES) {
      const found = this.attempt((): Selection | null => {
        const [before, behind] = EDGE_WORDS[edge];
        const [only, ...more] = (this.eat(before) ? this.counts(1) : null) ?? [];
        return only !== undefined && more.length === 0 && (behind === '' || this.eat(behind))
          ? { is: 'stretch', edge, count: only }
          : null;
      });
      if (found) return found;
    }
    return null;
  }

  private voice(): Voice | null {
    return VOICE_NAMES.find(([name]) => this.eat(name))?.[1] ?? null;
  }

  private inside(): Selection | null {
    for (const half of [1, 2] as const)
      for (const whole of ['bar', 'phrase'] as const)
        if (this.eat(`the ${SPOKEN_ORDINALS[half - 1] ?? ''} half of the ${whole}`))
          return { is: 'half', half, of: whole };
    if (this.eat('the last beat')) return { is: 'beat', beats: ['last'] };
    if (this.eat('the last bar')) return { is: 'bar', bars: ['last'] };
    const numberOrLast = (): number | 'last' | null => this.number() ?? (this.eat('the last') ? 'last' : null);
    if (this.eat('beats') || this.eat('beat')) {
      const beats = this.list(numberOrLast);
      return beats && { is: 'beat', beats };
    }
    if (this.eat('bars') || this.eat('bar')) {
      const bars = this.list(numberOrLast);
      return bars && { is: 'bar', bars };
    }
    const repeat = (): 'first' | 'last' | number | null => this.oneOf(['first', 'last'] as const) ?? this.number();
    if (this.eat('repeats') || this.eat('repeat')) {
      const repeats = this.list(repeat);
      return repeats && { is: 'repeat', repeats };
    }
    if (!this.eat('the')) return null;
    const repeats = this.list(() => this.oneOf(['first', 'last'] as const));
    return repeats && (this.eat('repeats') || this.eat('repeat')) ? { is: 'repeat', repeats } : null;
  }

  /** "1 and the & of 2 and 4", "every beat", "every &": at most so many. */
  private counts(most = Infinity): string[] | null {
    const all: string[] = [];
    let syllable = '';
    const item = (): string | null => {
      const { next } = this;
      if (next === undefined) return null;
      if (this.eat('every beat')) return '*';
      if (this.eat('every')) {
        const word = this.next ?? '';
        this.at++;
        return word === '' ? null : `*${word}`;
      }
      if (this.eat('the')) {
        const word = this.next ?? '';
        if (!SPOKEN_SYLLABLES.has(word)) return null;
        this.at++;
        syllable = word;
        const n = this.eat('of') ? this.number() : null;
        return n === null ? null : `${n}${syllable}`;
      }
      if (!RAW_COUNT.test(next)) return null;
      this.at++;
      return `${next}${/^\d+$/.test(next) ? syllable : ''}`;
    };
    while (all.length < most) {
      const one = this.attempt(() => {
        if (all.length > 0 && !this.eat(',') && !this.eat('and')) return null;
        return item();
      });
      if (one === null) break;
      all.push(one);
    }
    return all.length > 0 ? all : null;
  }
}
