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
  | 'twice'
  | 'shift'
  | 'trade'
  | 'keep'
  | 'trim'
  | 'land'
  | 'route'
  | 'stick'
  | 'mirror'
  | 'reverse'
  | 'lead'
  | 'gaps'
  | 'hands'
  | 'clear'
  | 'emptied'
  | 'no'
  | 'strip'
  | 'end'
  | 'fall'
  | 'shorter'
  | 'longer'
  | 'restart'
  | 'pickup'
  | 'unaccent'
  | 'unghost'
  | 'append'
  | 'ornament'
  | 'copy'
  | 'isolate'
  | 'start';

/**
 * Verbs by what they say, a table that can be lengthened. What several acts share says less: which of them is meant
 * follows from the roles beside it. Forms (moves, moving, moved) are made of each first word.
 */
const VERBS: Readonly<Record<string, readonly ActName[]>> = {
  'move, shift': ['send', 'give', 'shift', 'route'],
  'send, circle, transfer, route, orchestrate, voice, park, carry, relocate, transplant, land up': [
    'send',
    'give',
    'route',
  ],
  'ping pong, bounce, alternate, jump between, zigzag, zig zag, seesaw, go back and forth, jump back and forth, back and forth':
    ['send'],
  'throw, stick, switch, jump, hop, visit, travel, go, walk, run, spread, split, take, lead, slide, wander, head, roll':
    ['send', 'give', 'route'],
  'accent, stress, emphasise, emphasize, punch, hammer, pop, smack, whack, dig into, lean on, lean into, bring out, boost, smash, bash, nail, highlight, underline, spike, slam, sting, attack, lay into, raise, lift, mark, beef up, put weight on, put some weight on, put more weight on, give weight to, stand out, cut through, ring out, shout':
    ['accent'],
  'hit hard, play hard, turn up, crank up, dig in, play out, play up, push up': ['accent'],
  'ghost, soften, whisper, quieten, quiet, quiet down, tone down, turn down, back off, ease off, ease up on, take down, feather, tickle, hush, lighten, lighten up on, lower, tuck in, tuck away, play down, pull down, calm, calm down, duck, shush, drop to nothing, come down, come down a bit, back down':
    ['ghost'],
  'flatten, even out, level out, neutralise, neutralize, normalise, normalize, equalise, equalize, flatten out, even up, level, level off, reset':
    ['tap'],
  'leave out, take out, take away, get rid of, out of it, lose, drop, omit, skip, rest, kill, ditch, scrap, erase, lay out on, knock out, pull out, strip, axe, bin, dump, blank, blank out, wipe, wipe out, eliminate, banish, exclude, disappear, vanish, can go, can come out, has to go, have to go, must go, should go, goes away, go away, drops out, drop out, stops, stop playing, stop hitting, thin out, out, gone, off':
    ['rest'],
  unaccent: ['unaccent'],
  unghost: ['unghost'],
  'leave a gap, leave gaps, put a gap, a gap, put a hole, a hole, leave a hole, leave space, leave a space, a space, leave room, a breath, take a breath, put in a rest, put a rest, a rest, put rests, leave silence, a pause, put silence, stop':
    ['rest'],
  'clear, clear out, silence, silence out, empty out, nothing in': ['clear'],
  'empty, silent, free': ['emptied'],
  'nothing, play nothing, nothing on, nothing at, play nothing on, play nothing in, have nothing on, put nothing on, lay out, lay out on, sit out, sit out on':
    ['rest'],
  'no, no more, without, lose, drop': ['no'],
  'take off, strip, strip off, take away, strip away': ['strip'],
  'remove, delete, cut, cut out, throw out, snip, snip out, take off, lop off, slice off, chop off': ['remove'],
  'replace, substitute, change': ['give'],
  'give, hand, hand over, assign, pass, swap, switch, exchange, swap out, switch out, change out, trade out': [
    'give',
    'trade',
  ],
  'trade, trade places, change places, swap places, switch places, swap round, swap around': ['trade'],
  'add, put in, throw in, stick in, slip in, slip, drop in, insert, introduce, include, lay in, lay down, lay, squeeze in, sneak in, sneak, pop in, chuck in, chuck, bring in, sprinkle, plant, fit in, toss in, work in, stick, throw, toss, tack, tag':
    ['add'],
  'double, double up, support, follow, shadow, reinforce, back up, thicken, thicken up, match, track, accompany, underpin, anchor, lock to, lock with, lock in with, lock onto, go along with':
    ['follow'],
  'append, tack on, tag on, stick on, add on, attach, put on the end': ['append', 'add'],
  'ornament, decorate, embellish, dress up, garnish': ['ornament', 'add'],
  'copy, duplicate, answer, answer with, echo': ['copy'],
  'make it last, let it run, make that last, extend it to, play it for, run it for': ['fill'],
  'repeat, play it again, do it again': ['fill', 'twice'],
  'fill, to fill, fill up, fill out, cover, extend, loop, keep going, carry on, keep it going, carry it on, keep it up, prolong, lengthen, keep repeating, keep playing it, go round, go around, keep going round, cycle, run, go on, continue, keep on':
    ['fill'],
  'displace, slide, rotate, nudge, push, pull, bump, delay, drag back, offset, postpone, scoot, budge, knock, start, begin, advance':
    ['shift'],
  'keep, leave, preserve, retain, hold on to': ['keep'],
  'stay, remain, stay put': ['keep'],
  'dont play, do not play, dont hit, not play, miss out, miss': ['rest'],
  'keep playing': ['add'],
  'trim, clip, crop, truncate, limit, reduce, chop, shorten, chop down, cut down, trim down, chop it down, cut it down':
    ['trim'],
  'land, resolve, arrive, come out, go out, come down, crash out, hit the 1 with': ['land'],
  'end, finish, wrap up, close, conclude, cap, cap it off, round off, round it off, top off, end up': ['end'],
  fall: ['fall'],
  'condense, squeeze, compress, squash, shrink, tighten, fold': ['shorter'],
  'stretch, expand, widen, stretch out, expand out, spread out': ['longer'],
  'start again, begin again, start over, begin over, start it again, begin it again, start it over, restart': [
    'restart',
  ],
  'pickup, pick up': ['pickup'],
  mark: ['keep'],
  'only, just, use only, isolate, extract': ['isolate'],
  'mirror, reverse, flip, the other way round, the other way around': ['mirror', 'trade'],
  'start, begin': ['start'],
  'reverse, reverse it, reverse this, reverse that, reverse the phrase, reverse the whole thing, reverse all of it': [
    'reverse',
  ],
  'turn the sticking round, turn the hands round, turn it round': ['mirror'],
  'flip the sticking, reverse the sticking, reverse the stickings, flip the stickings, swap the stickings, swap the sticking, mirror the sticking, invert the sticking, switch the sticking, turn round the sticking, swap the hands, swap hands, mirror, mirror it, reverse both hands, swap both hands, switch hands, switch the hands, flip the hands, reverse hands, reverse the hands, change hands, mirror the hands, exchange the hands, swap over the hands, opposite sticking, use the opposite hands, opposite hands':
    ['hands'],
  'lead, go first, start first, come first': ['lead'],
  'fill the gaps, fill the gaps with, fill the holes, fill the holes with, fill the rests, fill the rests with, fill in the gaps, fill in the gaps with, fill the spaces, fill the spaces with':
    ['gaps'],
  'stick, sticking': ['stick'],
};

/** Verbs that say nothing by themselves, and what is said before and between what matters. */
const LIGHT = `want, want to, wants, need, needs, would like, id like, id, ill, like, give me, give us, get me, show me, have, get, gets, make, put, play, do, use, hit, strike, place, bring, set, let, lets, let us, let me, try, turn, change, becomes, become, turns into, turn into, is, are, be, should be, should, will be, would be, could be, can be, will, would, shall, could, can, may, might, must, ought to be, has to be, have to be, to be, needs to be, need to be, needs to, need to, has to, have to, ought to, should all, must all, are to, is to, give it, give them, this time with, now with, goes, go, comes, come, there should be, there is, how about, what about, what if, can you, could you, can we, could we, please, group, lead into, make sure, make it so, takes, falls, fall, falling, sits, sit, belongs, belong, ring, ring on, joins, plays, playing, played, i, we, want to hear, hear`;

/** Words that colour what is said and change nothing of it. */
const FILLERS = `please, so that, in turn, by turns, alternately, turn by turn, one after the other, one after another, one by one, really, nice and, nicely, a bit, a little, a touch, a tad, slightly, very, quite, too, as well, also, there, here, in there, up there, now, instead, always, all the way, for me, all along, the whole time, kind of, sort of, maybe, perhaps, simply, actually, then, though, as usual, strictly, right there, this time, for a change, if you can, would you, that is, way, much, long, as it gets, as can be, as possible, thanks, thank you, a hair, a fraction, somewhat, a notch, by a notch, up a notch, down a notch, together, so, by itself, on its own, properly, cleanly, completely, entirely, overall, from start to finish, every time, each time, if possible, for once, up there, down there, from high to floor, from high to low, from top to bottom`;

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
  ...['bring', 'turn', 'tone', 'take', 'pull', 'keep', 'drop'].map((verb) => ({
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
  ...['tag', 'tack', 'stick', 'put', 'add'].map((verb) => ({ verb, particle: 'on', acts: ['append', 'add'] as const })),
  ...['move', 'shift', 'push', 'slide', 'nudge', 'bump'].map((verb) => ({
    verb,
    particle: 'over',
    acts: ['shift', 'send', 'give'] as const,
  })),
  ...['round', 'around'].map((particle) => ({ verb: 'turn', particle, acts: ['shift'] as const })),
  ...['cut', 'chop', 'lop', 'slice', 'snip'].map((verb) => ({ verb, particle: 'off', acts: ['remove'] as const })),
  ...['take', 'strip'].map((verb) => ({ verb, particle: 'off', acts: ['strip', 'remove'] as const })),
  ...['even', 'level'].map((verb) => ({ verb, particle: 'out', acts: ['tap'] as const })),
  ...['spread', 'stretch'].map((verb) => ({ verb, particle: 'out', acts: ['longer'] as const })),
];

/** Every word of verbs and fillers, for the vocabulary. */
export const VERB_WORDS: readonly string[] = [
  ...[...VERBS_BY_WORD.values(), ...FILLERS_BY_WORD.values()].flat().flatMap((v) => v.words),
  ...PARTICLES.flatMap((p) => forms([p.verb]).flat()),
  ...PARTICLES.map((p) => p.particle),
];
