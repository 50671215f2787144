/** What is done to strokes, as far as a verb says it. */
export type ActName =
  | 'send'
  | 'accent'
  | 'ghost'
  | 'level'
  | 'tap'
  | 'rest'
  | 'remove'
  | 'give'
  | 'add'
  | 'follow'
  | 'fill'
  | 'shift'
  | 'trade'
  | 'keep'
  | 'trim'
  | 'land'
  | 'route'
  | 'stick'
  | 'mirror'
  | 'lead'
  | 'gaps'
  | 'start';

/**
 * Verbs by what they say, a table that can be lengthened. What several acts share says less: which of them is meant
 * follows from the roles beside it. Forms (moves, moving, moved) are made of each first word.
 */
const VERBS: Readonly<Record<string, readonly ActName[]>> = {
  'move, shift': ['send', 'give', 'shift', 'route'],
  'send, transfer, route, orchestrate, voice, park, carry': ['send', 'give', 'route'],
  'ping pong, bounce, alternate, jump between': ['send'],
  'throw, stick, switch, jump, hop, visit, travel, go, walk, run, spread, split, take': ['send', 'give', 'route'],
  'accent, stress, emphasise, emphasize, punch, hammer, pop, smack, whack, dig into, lean on, lean into, bring out': [
    'accent',
  ],
  'hit hard, play hard, turn up, crank up': ['accent'],
  'ghost, soften, whisper, quieten, tone down, turn down, back off, ease off, ease up on, take down': ['ghost'],
  'flatten, even out, level out, neutralise, neutralize': ['tap'],
  'leave out, take out, take away, get rid of, lose, drop, omit, skip, silence, rest, clear, clear out, empty, kill, ditch, scrap, erase, lay out on, knock out, pull out, strip':
    ['rest'],
  'remove, delete, cut, cut out, throw out': ['remove'],
  'give, hand, hand over, assign, pass, swap, switch, change, replace, substitute, exchange': ['give', 'trade'],
  'trade, trade places, change places, swap places, switch places, swap round, swap around': ['trade'],
  'add, put in, throw in, stick in, slip in, slip, drop in, insert, append, tack, tack on, tag, tag on, stick on': [
    'add',
  ],
  'double, support, follow, shadow, reinforce, back up, thicken': ['follow'],
  'fill, fill up, fill out, cover, repeat, extend, loop': ['fill'],
  'displace, slide, rotate, nudge, push, pull, bump, delay, drag back': ['shift'],
  'keep, leave': ['keep'],
  'stay, remain, stay put': ['keep'],
  'dont play, do not play, dont hit, not play, miss out, miss': ['rest'],
  'keep playing': ['add'],
  'trim, chop, shorten, chop down, cut down, trim down, chop it down, cut it down': ['trim'],
  'land, resolve, arrive, end, finish, come out, go out': ['land'],
  'mirror, reverse, flip, the other way round, the other way around': ['mirror', 'trade'],
  'start, begin': ['start'],
  'turn the sticking round, turn the hands round, turn it round': ['mirror'],
  'lead, go first, start first, come first': ['lead'],
  'fill the gaps, fill the gaps with, fill the holes, fill the holes with, fill the rests, fill the rests with, fill in the gaps, fill in the gaps with, fill the spaces, fill the spaces with':
    ['gaps'],
  'stick, sticking': ['stick'],
};

/** Verbs that say nothing by themselves, and what is said before and between what matters. */
const LIGHT = `want, wants, need, needs, would like, id like, id, ill, like, give me, give us, get me, show me, have, get, gets, make, put, play, do, use, hit, strike, place, bring, set, let, lets, let us, let me, try, turn, change, becomes, become, turns into, turn into, is, are, be, should be, should, will be, would be, could be, can be, goes, go, comes, come, there should be, there is, how about, what about, what if, can you, could you, can we, could we, please, start playing, group, lead into, make sure, make it so, takes, falls, fall, sits, sit, belongs, belong, joins, plays, playing, played, i, we, want to hear, hear`;

/** Words that colour what is said and change nothing of it. */
const FILLERS = `please, really, nice and, nicely, a bit, a little, a touch, a tad, slightly, very, quite, too, as well, also, there, here, in there, up there, now, instead, always, all the way, throughout, for me, all along, the whole time, kind of, sort of, maybe, perhaps, simply, actually, then, though, again, as usual, strictly, right there, this time, for a change, if you can, would you, that is, way, much, long, as it gets, as can be, as possible, from high to floor, from high to low, from top to bottom`;

export interface VerbSaid {
  readonly words: readonly string[];
  /** Null: it says nothing of what is done. */
  readonly acts: readonly ActName[] | null;
}

const list = (text: string): readonly (readonly string[])[] => text.split(', ').map((w) => w.trim().split(' '));

/** A verb with its usual forms: "moves", "moving", "moved". */
function forms([verb = '', ...rest]: readonly string[]): readonly (readonly string[])[] {
  const stem = verb.endsWith('e') ? verb.slice(0, -1) : verb;
  const s = /(?:s|sh|ch|x|z)$/.test(verb) ? `${verb}es` : `${verb}s`;
  return [verb, s, `${stem}ing`, `${stem}ed`].map((w) => [w, ...rest]);
}

const byFirst = (all: readonly VerbSaid[]): ReadonlyMap<string, readonly VerbSaid[]> => {
  const found = new Map<string, VerbSaid[]>();
  for (const v of all) found.set(v.words[0] ?? '', [...(found.get(v.words[0] ?? '') ?? []), v]);
  return found;
};

/** Verbs by their first word. */
export const VERBS_BY_WORD = byFirst([
  ...Object.entries(VERBS).flatMap(([said, acts]) =>
    list(said).flatMap((words) => forms(words).map((w): VerbSaid => ({ words: w, acts }))),
  ),
  ...list(LIGHT).map((words): VerbSaid => ({ words, acts: null })),
]);

/** What is done, with the verbs that say so, for the page of what can be said. */
export const VERB_TABLE: readonly (readonly [acts: readonly ActName[], verbs: string])[] = Object.entries(VERBS).map(
  ([verbs, acts]) => [acts, verbs],
);

/** Fillers by their first word. */
export const FILLERS_BY_WORD = byFirst(list(FILLERS).map((words): VerbSaid => ({ words, acts: null })));

/** Verbs of which the second word may stand behind what is meant: "bring the lefts up". */
export const PARTICLES: readonly {
  readonly verb: string;
  readonly particle: string;
  readonly acts: readonly ActName[];
}[] = [
  ...['bring', 'turn', 'crank', 'pull', 'push'].map((verb) => ({ verb, particle: 'up', acts: ['accent'] as const })),
  ...['bring', 'turn', 'tone', 'take', 'pull', 'keep'].map((verb) => ({
    verb,
    particle: 'down',
    acts: ['ghost'] as const,
  })),
  ...['leave', 'take', 'cut', 'knock', 'pull', 'throw', 'miss'].map((verb) => ({
    verb,
    particle: 'out',
    acts: ['rest'] as const,
  })),
  ...['slip', 'put', 'throw', 'stick', 'drop', 'add'].map((verb) => ({ verb, particle: 'in', acts: ['add'] as const })),
  ...['tag', 'tack', 'stick', 'put'].map((verb) => ({ verb, particle: 'on', acts: ['add'] as const })),
  ...['move', 'shift', 'push', 'slide', 'nudge', 'bump'].map((verb) => ({
    verb,
    particle: 'over',
    acts: ['shift', 'send', 'give'] as const,
  })),
  ...['even', 'level'].map((verb) => ({ verb, particle: 'out', acts: ['tap'] as const })),
];

/** Every word of verbs and fillers, for the vocabulary. */
export const VERB_WORDS: readonly string[] = [
  ...[...VERBS_BY_WORD.values(), ...FILLERS_BY_WORD.values()].flat().flatMap((v) => v.words),
  ...PARTICLES.flatMap((p) => forms([p.verb]).flat()),
  ...PARTICLES.map((p) => p.particle),
];
