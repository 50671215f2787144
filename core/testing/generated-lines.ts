// Sentences made of what a drummer can say of strokes, with their meanings worked out by plain loops. Nothing of the
// reading is used to say what is meant.
import fc from 'fast-check';
import type { Level, Limb, Ornament, Stroke, Voice } from '../stroke';
import type { Pattern } from '../pattern';
import { build, type Build } from '../recipe';

export interface Whom {
  readonly words: string;
  readonly has: (s: Stroke, p: Pattern) => boolean;
  /** Slots of the bar that were named: on each something must be played, or the line is refused. */
  readonly each?: readonly number[];
}
type Change = (s: Stroke) => Stroke | null;
/** One clause: how it is said, whom it is about, what becomes of them. */
export interface Clause {
  readonly words: string;
  readonly whom: Whom;
  /** What is taken out of them: something must be there. */
  readonly out?: Whom;
  readonly change: Change;
  readonly of: 'piece' | 'height' | 'grace' | 'gone';
}

const slot = (s: Stroke, p: Pattern): number => (s.at / p.grid) % 16;
const limb = (words: string, own: Limb): Whom => ({ words, has: (s) => s.limb === own });
const NOUNS: readonly Whom[] = [
  ...['the rights', 'rights', 'my right hand', 'all rights', 'the right hand'].map((w) => limb(w, 'R')),
  ...['the lefts', 'lefts', 'my left hand', 'all lefts', 'left hand strokes'].map((w) => limb(w, 'L')),
];
const PLACES: readonly Whom[] = [
  { words: '', has: () => true },
  { words: ' on 1 and 3', has: (s, p) => [0, 8].includes(slot(s, p)), each: [0, 8] },
  { words: ' on the & of 2 and 4', has: (s, p) => [6, 14].includes(slot(s, p)), each: [6, 14] },
  { words: ' in beat 3', has: (s, p) => slot(s, p) >= 8 && slot(s, p) < 12 },
  { words: ' from 3 on', has: (s, p) => slot(s, p) >= 8 },
  { words: ' before 3', has: (s, p) => slot(s, p) < 8 },
  { words: ' in bar 2', has: (s, p) => s.at >= 16 * p.grid },
  { words: ' in beats 1 and 2', has: (s, p) => slot(s, p) < 8 },
];
const whom = fc.tuple(fc.constantFrom(...NOUNS), fc.constantFrom(...PLACES)).map(([n, p]): Whom => ({
  words: `${n.words}${p.words}`,
  has: (s, q) => n.has(s, q) && p.has(s, q),
  ...(p.each ? { each: p.each } : {}),
}));

export const PIECES: readonly (readonly [string, Voice])[] = [
  ['high tom', 'high-tom'],
  ['mid tom', 'mid-tom'],
  ['floor tom', 'floor-tom'],
  ['ride', 'ride'],
  ['china', 'china'],
  ['cowbell', 'cowbell'],
];
const sent = fc
  .tuple(
    whom,
    fc.constantFrom(...PIECES),
    fc.constantFrom(
      'W to the P',
      'W onto the P',
      'move W to the P',
      'put W on the P',
      'P for W',
      'I would like W on the P',
      'can you move W to the P please',
      'let W go to the P',
      'throw W onto the P',
      'the P gets W',
      'stick W on the P',
    ),
  )
  .map(([w, [name, voice], say]): Clause => ({
    words: say.replace('W', w.words).replace('P', name),
    whom: w,
    change: (s) => ({ ...s, voice }),
    of: 'piece',
  }));
const LEVELS: readonly (readonly [Level, readonly string[]])[] = [
  ['accent', ['accent W', 'make W loud', 'W loud', 'really dig into W', 'bring out W', 'play W as accents']],
  ['ghost', ['ghost W', 'make W soft', 'W nice and quiet', 'tone down W', 'W as ghost notes', 'W at ghost level']],
];
const levelled = fc
  .constantFrom(...LEVELS.flatMap(([level, says]) => says.map((say) => [level, say] as const)))
  .chain(([level, say]) =>
    whom.map((w): Clause => ({
      words: say.replace('W', w.words),
      whom: w,
      change: (s) => ({ ...s, level }),
      of: 'height',
    })),
  );
const graced = fc
  .tuple(
    whom,
    fc.constantFrom<Ornament>('flam', 'drag'),
    fc.constantFrom('put a O on W', 'O on W', 'give me a O on W', 'a little O on W', 'W with a O', 'add a O to W'),
  )
  .map(([w, ornament, say]): Clause => ({
    words: say.replace('W', w.words).replace('O', ornament),
    whom: w,
    change: (s) => ({ ...s, ornament }),
    of: 'grace',
  }));
const dropped = fc
  .tuple(
    whom,
    fc.constantFrom('leave out W', 'get rid of W', 'take W out', 'omit W', 'I would like you to leave out W'),
  )
  .filter(([, say]) => !say.startsWith('I'))
  .map(([w, say]): Clause => ({ words: say.replace('W', w.words), whom: w, change: () => null, of: 'gone' }));
/** Strokes without some of them: "the rights except on 2 and 4". */
const excepted = fc
  .tuple(
    whom,
    fc.constantFrom(
      { words: 'on 2 and 4', has: (s: Stroke, p: Pattern) => [4, 12].includes(slot(s, p)), each: [4, 12] },
      { words: 'in bar 2', has: (s: Stroke, p: Pattern) => s.at >= 16 * p.grid },
      { words: 'in beat 3', has: (s: Stroke, p: Pattern) => slot(s, p) >= 8 && slot(s, p) < 12 },
    ),
    fc.constantFrom('except', 'but not', 'apart from'),
    fc.constantFrom(...PIECES),
    fc.boolean(),
  )
  .map(([w, out, but, [name, voice], behind]): Clause => ({
    words: behind ? `${w.words} to the ${name} ${but} ${out.words}` : `${w.words} ${but} ${out.words} to the ${name}`,
    whom: { words: w.words, has: (s, p) => w.has(s, p) && !out.has(s, p), each: w.each ?? [] },
    out: { words: out.words, has: (s, p) => w.has(s, p) && out.has(s, p), each: 'each' in out ? out.each : [] },
    change: (s) => ({ ...s, voice }),
    of: 'piece',
  }));
/** Notes jotted down: "rights: ride". */
const jotted = fc.tuple(whom, fc.constantFrom(...PIECES)).map(([w, [name, voice]]): Clause => ({
  words: `${w.words}: ${name}`,
  whom: w,
  change: (s) => ({ ...s, voice }),
  of: 'piece',
}));
const clause = fc.oneof(sent, levelled, graced, dropped, excepted);

/** What is carried on from the clause before: what was done, to others; or something else, to the same. */
type Carried =
  | { readonly does: Whom; readonly say: string }
  | { readonly alike: Change; readonly of: Clause['of']; readonly say: string };
const carried: fc.Arbitrary<Carried> = fc.oneof(
  fc.tuple(whom, fc.constantFrom('W too', 'W as well', 'W')).map(([does, say]): Carried => ({
    does,
    say: say.replace('W', does.words),
  })),
  fc.constantFrom<Carried>(
    { alike: (s) => ({ ...s, level: 'ghost' }), of: 'height', say: 'ghosted' },
    { alike: (s) => ({ ...s, level: 'accent' }), of: 'height', say: 'accented' },
    { alike: (s) => ({ ...s, ornament: 'flam' }), of: 'grace', say: 'with a flam' },
    { alike: (s) => ({ ...s, voice: 'splash' }), of: 'piece', say: 'on the splash' },
  ),
);

const PHRASES = ['(R L R R L R L L)x4', 'R l l R l l R L R l R l R R L L R L R L R L R L R L R L R L R L', '(R L)x16'];

export const looks = (strokes: readonly Stroke[]): string =>
  JSON.stringify(strokes.map((s) => [s.at, s.limb, s.voice, s.level, s.ornament ?? '']));

/** What is meant, by plain loops: the clauses one after the other; null where one of them chooses nothing. */
export function meant(clauses: readonly Clause[], { pattern }: Build): string | null {
  let strokes = [...pattern.strokes];
  for (const c of clauses) {
    const now = strokes.map((s) => (c.whom.has(s, pattern) ? c.change(s) : s));
    const own = strokes.filter((s) => c.whom.has(s, pattern));
    const missing = (w: Whom): boolean =>
      strokes.every((s) => !w.has(s, pattern)) ||
      (w.each?.some((n) => strokes.every((s) => !w.has(s, pattern) || slot(s, pattern) !== n)) ?? false);
    if (own.length === 0 || missing(c.whom) || (c.out && missing(c.out))) return null;
    strokes = now.filter((s) => s !== null);
  }
  return looks(strokes) === looks(pattern.strokes) ? null : looks(strokes);
}

const line = (clauses: readonly Clause[], joints: readonly string[]): string =>
  clauses.map((c, i) => (i === 0 ? c.words : `${joints[i - 1] ?? ', '}${c.words}`)).join('');
export interface GeneratedLine {
  readonly clauses: readonly Clause[];
  readonly text: string;
  readonly phrase: string;
}

/** One to three clauses, some of which carry on what was said before. */
const spoken: fc.Arbitrary<GeneratedLine> = fc
  .tuple(
    fc.array(clause, { minLength: 1, maxLength: 2 }),
    fc.option(carried, { freq: 2, nil: null }),
    fc.option(clause, { nil: null }),
    fc.array(fc.constantFrom(', ', ', then ', ' and then ', ' then '), { minLength: 3, maxLength: 3 }),
    fc.nat({ max: PHRASES.length - 1 }),
  )
  .map(([first, more, last, joints, n]) => {
    const before = first.at(-1);
    const carriedOn: Clause[] =
      !more || !before
        ? []
        : 'does' in more
          ? [{ ...before, words: more.say, whom: more.does }]
          : // Nothing is done to what is gone, nor the same kind of thing twice.
            // "Ghost lefts, with a flam" can be said of the lefts that are ghosts.
            before.of === 'gone' ||
              before.of === more.of ||
              /^(?:ghost|accent) (?:lefts|rights|left hand)/.test(before.words)
            ? []
            : [{ ...before, words: more.say, change: more.alike, of: more.of }];
    // "…, ghosted, the lefts …" could say that of what comes behind it.
    const goesOn = last && first.length + carriedOn.length < 3 && !(more && 'alike' in more);
    const clauses = [...first, ...carriedOn, ...(goesOn ? [last] : [])];
    return { clauses, text: line(clauses, joints), phrase: PHRASES[n] ?? '' };
  });

/** One to three notes: "rights: ride, lefts: high tom". */
const notes: fc.Arbitrary<GeneratedLine> = fc
  .tuple(
    fc.array(jotted, { minLength: 1, maxLength: 3 }),
    fc.constantFrom(', ', '. ', '; ', ' / '),
    fc.nat({ max: PHRASES.length - 1 }),
  )
  .map(([clauses, joint, n]) => ({ clauses, text: line(clauses, [joint, joint]), phrase: PHRASES[n] ?? '' }));

/** Lines with the phrase they are said of. */
export const anyLine: fc.Arbitrary<GeneratedLine> = fc.oneof({ weight: 6, arbitrary: spoken }, notes);

/** The phrases that lines are said of, built. */
export const BUILDS: ReadonlyMap<string, Build> = new Map(
  PHRASES.map((text) => [text, build({ source: { kind: 'typed', text, meter: '4/4', grid: 1260 }, moves: [] })]),
);
