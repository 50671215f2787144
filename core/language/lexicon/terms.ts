import { NUMBER_WORDS } from '../../base';
import { GRID, parseGrid, type Grid } from '../../time';
import { nth } from '../../base';
import { ordinal } from '../../base';
import { HAND_VOICES, namesOf, type Level, type Limb, type Ornament, type Voice } from '../../stroke';

/** Words of a name as they stand in a line: without hyphens, every hi-hat a hat. */
export function nameWords(name: string): readonly string[] {
  return name
    .toLowerCase()
    .replace(/hi-?hats?/g, 'hat')
    .split(/[ -]+/);
}

const HATS: readonly Voice[] = ['hat-closed', 'hat-half', 'hat-open'];
const SNARES: readonly Voice[] = ['snare', 'rimshot', 'cross-stick'];
const TOMS: readonly Voice[] = ['high-tom', 'mid-tom', 'low-tom', 'floor-tom'];

/** A piece as it is said: where strokes are sent (one, or several that could be meant), and which strokes are on it. */
export interface VoiceTerm {
  readonly to: readonly Voice[];
  readonly of: readonly Voice[];
}

const only = (v: Voice): VoiceTerm => ({ to: [v], of: [v] });

/** Names that mean more than one piece, or that drummers say beside those of the voices. */
const MORE_VOICES: Readonly<Record<string, VoiceTerm>> = {
  snare: { to: ['snare'], of: SNARES },
  'snare drum': { to: ['snare'], of: SNARES },
  hat: { to: ['hat-closed'], of: HATS },
  rim: { to: ['rimshot', 'cross-stick'], of: ['rimshot', 'cross-stick'] },
  rimshot: only('rimshot'),
  'rim shot': only('rimshot'),
  'snare rim': { to: ['rimshot', 'cross-stick'], of: ['rimshot', 'cross-stick'] },
  'side stick': only('cross-stick'),
  'rim click': only('cross-stick'),
  rimclick: only('cross-stick'),
  crash: { to: ['crash-right'], of: ['crash-left', 'crash-right'] },
  'crash cymbal': { to: ['crash-right'], of: ['crash-left', 'crash-right'] },
  cymbal: { to: ['crash-right', 'ride'], of: ['crash-left', 'crash-right', 'ride', 'ride-bell', 'china', 'splash'] },
  ride: { to: ['ride'], of: ['ride', 'ride-bell', 'ride-edge'] },
  bell: only('ride-bell'),
  'bell of the ride': only('ride-bell'),
  'edge of the ride': only('ride-edge'),
  'ride cymbal': { to: ['ride'], of: ['ride', 'ride-bell', 'ride-edge'] },
  'china cymbal': only('china'),
  'splash cymbal': only('splash'),
  cup: only('ride-bell'),
  tom: { to: ['high-tom', 'mid-tom', 'floor-tom'], of: TOMS },
  'rack tom': only('high-tom'),
  rack: only('high-tom'),
  floor: only('floor-tom'),
  'first rack tom': only('high-tom'),
  'second rack tom': only('mid-tom'),
  'third rack tom': only('low-tom'),
  'small tom': only('high-tom'),
  'low tom': { to: ['mid-tom', 'floor-tom'], of: ['mid-tom', 'low-tom', 'floor-tom'] },
  'open hat': only('hat-open'),
  'half open hat': only('hat-half'),
  'half hat': only('hat-half'),
  'closed hat': only('hat-closed'),
};

/** Every name of a piece and what it stands for. */
export const VOICE_TERMS: ReadonlyMap<string, VoiceTerm> = new Map<string, VoiceTerm>([
  ...HAND_VOICES.flatMap((v) => namesOf(v).map((n): [string, VoiceTerm] => [nameWords(n).join(' '), only(v)])),
  ...Object.entries(MORE_VOICES),
]);

/** A limb as it is said; `open` where it depends on the phrase. */
export interface LimbTerm {
  readonly limbs: readonly Limb[];
  readonly open?: 'foot' | 'left foot';
}

export const LIMB_TERMS: ReadonlyMap<string, LimbTerm> = new Map<string, LimbTerm>([
  ...['right', 'rights', 'right hand', 'right hands', 'right stick'].map((w): [string, LimbTerm] => [
    w,
    { limbs: ['R'] },
  ]),
  ...['left', 'lefts', 'left hand', 'left hands', 'left stick'].map((w): [string, LimbTerm] => [w, { limbs: ['L'] }]),
  ...['hand', 'hands', 'both hands'].map((w): [string, LimbTerm] => [w, { limbs: ['R', 'L'] }]),
  ...['kick', 'kicks', 'bass drum', 'bass drums', 'bass', 'kick drum', 'kick foot', 'right foot', 'bassdrum'].map(
    (w): [string, LimbTerm] => [w, { limbs: ['K'] }],
  ),
  ['foot', { limbs: ['K', 'J', 'H'], open: 'foot' }],
  ['feet', { limbs: ['K', 'J', 'H'] }],
  ['both feet', { limbs: ['K', 'J'] }],
  ['left foot', { limbs: ['H', 'J'], open: 'left foot' }],
  ...['second pedal', 'second kick foot', 'second kick pedal', 'second bass drum pedal'].map(
    (w): [string, LimbTerm] => [w, { limbs: ['J'] }],
  ),
  ...[
    'hat foot',
    'foot hat',
    'pedal hat',
    'hat pedal',
    'hat with the foot',
    'hat with the left foot',
    'left foot chick',
    'left foot chicks',
    'foot on the hat',
    'left foot hat',
    'left hat foot',
    'chick',
    'chick the hat',
    'chick the hat with the foot',
    'chick the hat with the left foot',
    'chicks',
    'foot chick',
    'hat chick',
  ].map((w): [string, LimbTerm] => [w, { limbs: ['H'] }]),
]);

/** Limbs by their letter, where no stroke stands beside it: "K on 1", "R to the ride". */
const LETTERS: Readonly<Record<string, Limb>> = { R: 'R', L: 'L', K: 'K', H: 'H' };
export function limbLetter(raw: string, before: string, behind: string): LimbTerm | undefined {
  const limb = LETTERS[raw];
  const isStroke = (w: string): boolean => /^[fdrz]?[rlkhj]!?$|^-$|^[rlkhj]{2,}$/i.test(w);
  return limb && !isStroke(before) && !isStroke(behind) ? { limbs: [limb] } : undefined;
}

/** Said of what has not a height: which heights are left stands in the grammar. */
const NOT_SO_LEVELS = [
  'unaccented',
  'non-accented',
  'nonaccented',
  'nonaccents',
  'unghosted',
  'non-ghosted',
  'nonghosted',
  'nonghosts',
];

/** Words for how high the stick comes from. */
export const LEVEL_TERMS: ReadonlyMap<string, Level> = new Map<string, Level>([
  ...['accent', 'accents', 'accented', 'loud', 'louder', 'hard', 'strong', 'strongly', 'loudly'].map(
    (w): [string, Level] => [w, 'accent'],
  ),
  ...['ghost', 'ghosts', 'ghosted', 'soft', 'softer', 'softly', 'quiet', 'quieter', 'quietly', 'light', 'lightly'].map(
    (w): [string, Level] => [w, 'ghost'],
  ),
  ...[
    'tap',
    'taps',
    'plain',
    'normal',
    'even',
    'normally',
    'ordinary',
    'real',
    'regular',
    'proper',
    'medium',
    ...NOT_SO_LEVELS,
  ].map((w): [string, Level] => [w, 'tap']),
]);

export const ORNAMENT_TERMS: ReadonlyMap<string, Ornament> = new Map<string, Ornament>([
  ...['flam', 'flams', 'flammed'].map((w): [string, Ornament] => [w, 'flam']),
  ...['drag', 'drags', 'dragged'].map((w): [string, Ornament] => [w, 'drag']),
  ...['ruff', 'ruffs'].map((w): [string, Ornament] => [w, 'ruff']),
  ...['buzz', 'buzzes', 'buzzed', 'press', 'presses'].map((w): [string, Ornament] => [w, 'buzz']),
]);

const GRID_NAMES: Readonly<Record<string, readonly string[]>> = {
  quarters: ['quarters', 'quarter', 'crotchets'],
  eighths: ['eighths', 'eighth', '8ths', '8th', 'quavers'],
  triplets: ['triplets', 'triplet'],
  '16ths': ['16ths', '16th', 'sixteenths', 'sixteenth', 'semiquavers'],
  quintuplets: ['quintuplets', 'quintuplet'],
  sextuplets: ['sextuplets', 'sextuplet'],
  septuplets: ['septuplets', 'septuplet'],
  '32nds': ['32nds', '32nd', 'thirty-seconds'],
  nines: ['nines'],
  'quarter triplets': ['quarter-triplets'],
};
export const GRID_TERMS: ReadonlyMap<string, Grid> = new Map<string, Grid>(
  Object.entries(GRID_NAMES).flatMap(([name, words]) =>
    words.map((w): [string, Grid] => [w, parseGrid(name) ?? GRID.sixteenths]),
  ),
);

export const ORDINALS: ReadonlyMap<string, number> = new Map(
  Array.from({ length: 16 }, (_, i) => i + 1).flatMap((n): [string, number][] => [
    [ordinal(n), n],
    [nth(n), n],
  ]),
);

export const NUMBERS: ReadonlyMap<string, number> = new Map<string, number>([
  ...NUMBER_WORDS.map((w, i): [string, number] => [w, i + 1]),
  ['a', 1],
  ['an', 1],
  ['once', 1],
  ['couple', 2],
  ['twos', 2],
  ['threes', 3],
  ['fours', 4],
  ['fives', 5],
  ['sixes', 6],
  ['pairs', 2],
  ['another', 1],
]);

/** Syllables of counts as they are said. */
export const SYLLABLES: ReadonlyMap<string, string> = new Map([
  ['e', 'e'],
  ['es', 'e'],
  ['&', '&'],
  ['and', '&'],
  ['ands', '&'],
  ['&s', '&'],
  ['a', 'a'],
  ['ah', 'a'],
  ['as', 'a'],
  ['trip', 'trip'],
  ['trips', 'trip'],
  ['let', 'let'],
  ['lets', 'let'],
  ['ta', 'ta'],
  ['la', 'la'],
]);

/** Names of several words that are read as one. */
const PHRASES: readonly string[] = [
  'off beats',
  'off beat',
  'down beats',
  'up beats',
  'back beat',
  'back beats',
  'double time',
  'half time',
  'other hand',
  'double pedal',
  'double kick',
  'double bass',
  'four on the floor',
  'four to the floor',
  'instead of',
  'other than',
  'apart from',
  'thirty seconds',
  'quarter note triplets',
  'quarter triplets',
  'eighth note triplets',
  'eighth triplets',
  '8th note triplets',
  '8th triplets',
  '16th note triplets',
  '16th triplets',
  'sixteenth triplets',
  'buzz roll',
  'press roll',
  'big beats',
  'big beat',
  'main beats',
  'main pulses',
  'half as loud',
  'twice as loud',
  'main beat',
];
const PHRASE_AS: Readonly<Record<string, string>> = {
  'off beat': 'offbeats',
  'off beats': 'offbeats',
  'up beats': 'offbeats',
  'down beats': 'downbeats',
  'back beat': 'backbeat',
  'back beats': 'backbeat',
  'quarter note triplets': 'quarter-triplets',
  'eighth note triplets': 'triplets',
  'eighth triplets': 'triplets',
  '8th note triplets': 'triplets',
  '8th triplets': 'triplets',
  '16th note triplets': 'sextuplets',
  '16th triplets': 'sextuplets',
  'sixteenth triplets': 'sextuplets',
  'buzz roll': 'buzz',
  'press roll': 'buzz',
  'four to the floor': 'four-on-the-floor',
  'double kick': 'double-pedal',
  'double bass': 'double-pedal',
  'big beats': 'downbeats',
  'main beats': 'downbeats',
  'big beat': 'downbeats',
  'main pulses': 'downbeats',
  'main beat': 'downbeats',
  'half as loud': 'quieter',
  'twice as loud': 'louder',
};

/** All names of more than one word, the longest first, with the word they are read as. */
export const LONG_NAMES = [
  ...[...VOICE_TERMS.keys(), ...LIMB_TERMS.keys()].flatMap((name) => {
    const words = nameWords(name);
    const last = words.at(-1) ?? '';
    const many = last === 'brush' || last.endsWith('s') ? [] : [[...words.slice(0, -1), `${last}s`]];
    return words.length > 1 ? [words, ...many].map((w) => ({ words: w, as: words.join(' ') })) : [];
  }),
  ...PHRASES.map((p) => ({ words: p.split(' '), as: PHRASE_AS[p] ?? p.replace(/ /g, '-') })),
].sort((a, b) => b.words.length - a.words.length);

/** A piece by its name in one or several, as a token has it. */
export function voiceTerm(word: string): VoiceTerm | undefined {
  return VOICE_TERMS.get(word) ?? VOICE_TERMS.get(word.replace(/(?<=sh)es$|s$/, ''));
}
