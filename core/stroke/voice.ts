import type { Limb } from './limb';

/** What is struck and how. Families give the colour, heads the sign at a stem's end. */
export type Family = 'skin' | 'metal' | 'wood' | 'foot';
export type Head = 'disc' | 'diamond' | 'bar' | 'ring';

/** Where on a piece it is struck. The edge is the one that faces the drummer, turned by the piece's `turn`. */
export type Spot = 'centre' | 'edge' | 'bell' | 'rim' | 'pedal';

/** What a piece of a kit is. The kind says which voices it has and how it is drawn. */
export const PIECE_KINDS = [
  'snare',
  'tom',
  'floor tom',
  'kick',
  'hi-hat',
  'ride',
  'crash',
  'splash',
  'china',
  'cowbell',
  'block',
  'own',
  'pad',
] as const;
export type PieceKind = (typeof PIECE_KINDS)[number];

/** All that is known of a voice. Menus, drawings, kit, staff, sung line and MIDI map derive from it. */
interface VoiceFacts {
  readonly name: string;
  /** Two letters beside the head where there is room. */
  readonly short: string;
  readonly family: Family;
  readonly head: Head;
  /** The kind of piece that has it, and where it is struck there. */
  readonly piece: PieceKind;
  readonly spot: Spot;
  /** Whether it keeps time: it goes on over whatever is played with it. */
  readonly keepsTime: boolean;
  /** It is no part of the usual kit: offered where the player's kit has it. */
  readonly extra?: true;
  /** What drummers call it besides its name, in small letters: read in stroke text and in words. */
  readonly also: readonly string[];
  /** What may stand in for it on a kit without it, the nearest first: its own family, then by how alike it sounds. */
  readonly substitutes: readonly string[];
  /** Place on a percussion staff and note head, as engravers name them: letter, octave, head. */
  readonly staff: string;
  /** Sung syllables, softest first: ghost, tap, accent. */
  readonly sung: readonly [ghost: string, tap: string, accent: string];
  /**
   * Percussion notes that most devices send for it from the factory (General MIDI's percussion key map); none where it
   * has no key.
   */
  readonly midi: readonly number[];
}

/** The one table of voices, in the order a menu shows them. */
const facts = {
  snare: {
    name: 'snare',
    short: 'SN',
    family: 'skin',
    head: 'disc',
    piece: 'snare',
    spot: 'centre',
    keepsTime: false,
    also: [],
    substitutes: ['rimshot', 'high-tom', 'mid-tom', 'floor-tom'],
    staff: 'c/5',
    sung: ['di', 'ta', 'TAH'],
    midi: [38],
  },
  rimshot: {
    name: 'snare rimshot',
    short: 'RS',
    family: 'wood',
    head: 'bar',
    piece: 'snare',
    spot: 'centre',
    keepsTime: false,
    also: ['rimshot', 'rim'],
    substitutes: ['snare', 'cross-stick', 'high-tom'],
    staff: 'c/5/s2',
    sung: ['ki', 'tak', 'TAK'],
    midi: [40],
  },
  'cross-stick': {
    name: 'cross-stick',
    short: 'XS',
    family: 'wood',
    head: 'bar',
    piece: 'snare',
    spot: 'rim',
    keepsTime: false,
    also: ['side stick', 'sidestick', 'rim click'],
    substitutes: ['rimshot', 'snare'],
    staff: 'c/5/x2',
    sung: ['ti', 'tok', 'TOK'],
    midi: [37],
  },
  'brush-tap': {
    name: 'brush tap',
    short: 'BT',
    family: 'skin',
    head: 'disc',
    piece: 'snare',
    spot: 'centre',
    keepsTime: false,
    extra: true,
    also: ['brush'],
    substitutes: ['snare'],
    staff: 'c/5',
    sung: ['fi', 'ft', 'FAT'],
    midi: [],
  },
  'brush-stir': {
    name: 'brush stir',
    short: 'BS',
    family: 'skin',
    head: 'ring',
    piece: 'snare',
    spot: 'centre',
    keepsTime: true,
    extra: true,
    also: ['brush sweep', 'stir'],
    substitutes: ['snare'],
    staff: 'c/5/s1',
    sung: ['f', 'sha', 'SHA'],
    midi: [],
  },
  'high-tom': {
    name: 'high tom',
    short: 'HT',
    family: 'skin',
    head: 'disc',
    piece: 'tom',
    spot: 'centre',
    keepsTime: false,
    also: ['first tom', 'rack tom', 'hi tom', 'tom 1'],
    substitutes: ['mid-tom', 'snare', 'floor-tom'],
    staff: 'e/5',
    sung: ['pi', 'pim', 'PIM'],
    midi: [48, 50],
  },
  'mid-tom': {
    name: 'mid tom',
    short: 'MT',
    family: 'skin',
    head: 'disc',
    piece: 'tom',
    spot: 'centre',
    keepsTime: false,
    also: ['second tom', 'middle tom', 'tom 2'],
    substitutes: ['high-tom', 'floor-tom', 'snare'],
    staff: 'd/5',
    sung: ['pe', 'pem', 'PEM'],
    midi: [45, 47],
  },
  'low-tom': {
    name: 'low tom',
    short: 'LT',
    family: 'skin',
    head: 'disc',
    piece: 'tom',
    spot: 'centre',
    keepsTime: false,
    extra: true,
    also: ['third tom', 'tom 3'],
    substitutes: ['mid-tom', 'floor-tom', 'high-tom', 'snare'],
    staff: 'b/4',
    sung: ['pu', 'pum', 'PUM'],
    midi: [],
  },
  'floor-tom': {
    name: 'floor tom',
    short: 'FT',
    family: 'skin',
    head: 'disc',
    piece: 'floor tom',
    spot: 'centre',
    keepsTime: false,
    also: ['floor'],
    substitutes: ['mid-tom', 'high-tom', 'snare'],
    staff: 'a/4',
    sung: ['po', 'pom', 'POM'],
    midi: [43, 41],
  },
  'hat-closed': {
    name: 'closed hi-hat',
    short: 'HH',
    family: 'metal',
    head: 'diamond',
    piece: 'hi-hat',
    spot: 'edge',
    keepsTime: true,
    also: ['hi-hat', 'hihat', 'hat', 'hats', 'closed hat'],
    substitutes: ['hat-half', 'ride', 'cross-stick', 'crash-left', 'crash-right'],
    staff: 'g/5/x2',
    sung: ['s', 'ts', 'TSA'],
    midi: [42],
  },
  'hat-half': {
    name: 'half-open hi-hat',
    short: 'HO',
    family: 'metal',
    head: 'ring',
    piece: 'hi-hat',
    spot: 'edge',
    keepsTime: true,
    also: ['half-open hat', 'half hat'],
    substitutes: ['hat-closed', 'hat-open', 'ride', 'crash-left', 'crash-right'],
    staff: 'g/5/x2',
    sung: ['sh', 'tsh', 'TSHA'],
    midi: [],
  },
  'hat-open': {
    name: 'open hi-hat',
    short: 'OH',
    family: 'metal',
    head: 'ring',
    piece: 'hi-hat',
    spot: 'edge',
    keepsTime: false,
    also: ['open hat'],
    substitutes: ['hat-half', 'crash-left', 'crash-right', 'ride'],
    staff: 'g/5/x2',
    sung: ['shh', 'tsss', 'TSSS'],
    midi: [46],
  },
  ride: {
    name: 'ride',
    short: 'RD',
    family: 'metal',
    head: 'diamond',
    piece: 'ride',
    spot: 'centre',
    keepsTime: true,
    also: ['ride cymbal'],
    substitutes: ['ride-bell', 'hat-closed', 'crash-right', 'crash-left'],
    staff: 'f/5/x2',
    sung: ['n', 'ding', 'DING'],
    midi: [51],
  },
  'ride-bell': {
    name: 'ride bell',
    short: 'RB',
    family: 'metal',
    head: 'diamond',
    piece: 'ride',
    spot: 'bell',
    keepsTime: true,
    also: ['bell'],
    substitutes: ['ride', 'hat-closed', 'crash-right'],
    staff: 'f/5/d2',
    sung: ['ni', 'ping', 'PING'],
    midi: [53],
  },
  'ride-edge': {
    name: 'ride edge',
    short: 'RE',
    family: 'metal',
    head: 'diamond',
    piece: 'ride',
    spot: 'edge',
    keepsTime: false,
    extra: true,
    also: ['edge'],
    substitutes: ['ride', 'crash-right', 'crash-left'],
    staff: 'f/5/x3',
    sung: ['na', 'dash', 'DASH'],
    midi: [59],
  },
  'crash-left': {
    name: 'left crash',
    short: 'CL',
    family: 'metal',
    head: 'diamond',
    piece: 'crash',
    spot: 'edge',
    keepsTime: false,
    also: [],
    substitutes: ['crash-right', 'ride', 'hat-open'],
    staff: 'b/5/x2',
    sung: ['ka', 'kash', 'KASH'],
    midi: [49],
  },
  'crash-right': {
    name: 'right crash',
    short: 'CR',
    family: 'metal',
    head: 'diamond',
    piece: 'crash',
    spot: 'edge',
    keepsTime: false,
    also: ['crash'],
    substitutes: ['crash-left', 'ride', 'hat-open'],
    staff: 'a/5/x2',
    sung: ['ka', 'kash', 'KASH'],
    midi: [57],
  },
  splash: {
    name: 'splash',
    short: 'SP',
    family: 'metal',
    head: 'diamond',
    piece: 'splash',
    spot: 'edge',
    keepsTime: false,
    extra: true,
    also: [],
    substitutes: ['crash-left', 'crash-right', 'hat-open'],
    staff: 'c/6/x2',
    sung: ['pi', 'pish', 'PISH'],
    midi: [55],
  },
  china: {
    name: 'china',
    short: 'CH',
    family: 'metal',
    head: 'diamond',
    piece: 'china',
    spot: 'edge',
    keepsTime: false,
    extra: true,
    also: ['trash'],
    substitutes: ['crash-right', 'crash-left', 'ride'],
    staff: 'd/6/x2',
    sung: ['ko', 'kosh', 'KOSH'],
    midi: [52],
  },
  cowbell: {
    name: 'cowbell',
    short: 'CB',
    family: 'wood',
    head: 'bar',
    piece: 'cowbell',
    spot: 'edge',
    keepsTime: true,
    extra: true,
    also: [],
    substitutes: ['ride-bell', 'block', 'rimshot'],
    staff: 'e/5/t2',
    sung: ['do', 'donk', 'DONK'],
    midi: [56],
  },
  block: {
    name: 'block',
    short: 'WB',
    family: 'wood',
    head: 'bar',
    piece: 'block',
    spot: 'centre',
    keepsTime: false,
    extra: true,
    also: ['wood block', 'woodblock'],
    substitutes: ['cross-stick', 'rimshot', 'cowbell'],
    staff: 'd/5/t2',
    sung: ['to', 'tock', 'TOCK'],
    midi: [76, 77],
  },
  'own-1': {
    name: 'own piece',
    short: 'O1',
    family: 'wood',
    head: 'bar',
    piece: 'own',
    spot: 'centre',
    keepsTime: false,
    extra: true,
    also: ['my piece'],
    substitutes: ['snare', 'high-tom'],
    staff: 'a/4/s2',
    sung: ['lo', 'lom', 'LOM'],
    midi: [],
  },
  'own-2': {
    name: 'second own piece',
    short: 'O2',
    family: 'wood',
    head: 'bar',
    piece: 'own',
    spot: 'edge',
    keepsTime: false,
    extra: true,
    also: [],
    substitutes: ['snare', 'high-tom'],
    staff: 'g/4/s2',
    sung: ['la', 'lam', 'LAM'],
    midi: [],
  },
  kick: {
    name: 'kick',
    short: 'KD',
    family: 'foot',
    head: 'disc',
    piece: 'kick',
    spot: 'pedal',
    keepsTime: false,
    also: ['bass drum', 'bass', 'kick drum'],
    substitutes: ['floor-tom'],
    staff: 'f/4',
    sung: ['bu', 'boom', 'BOOM'],
    midi: [36, 35],
  },
  'hat-foot': {
    name: 'hi-hat foot',
    short: 'HF',
    family: 'foot',
    head: 'diamond',
    piece: 'hi-hat',
    spot: 'pedal',
    keepsTime: true,
    also: ['hat foot', 'foot hat', 'pedal hat'],
    substitutes: [],
    staff: 'd/4/x2',
    sung: ['ch', 'chk', 'CHK'],
    midi: [44],
  },
} as const satisfies Record<string, VoiceFacts>;

export type Voice = keyof typeof facts;
export const VOICE: Readonly<Record<Voice, VoiceFacts>> = Object.freeze(facts);
export const VOICES = Object.freeze(Object.keys(facts) as Voice[]);
/** Voices a hand can strike, in the order a menu shows them. */
export const HAND_VOICES: readonly Voice[] = Object.freeze(VOICES.filter((v) => VOICE[v].family !== 'foot'));

/**
 * One fact of every voice, as a table of its own.
 * @example
 * byVoice((v) => v.short).kick // => "KD"
 */
export function byVoice<T>(fact: (facts: VoiceFacts, voice: Voice) => T): Readonly<Record<Voice, T>> {
  return Object.freeze(Object.fromEntries(VOICES.map((v) => [v, fact(VOICE[v], v)])) as Record<Voice, T>);
}

/**
 * What drummers call a voice, in small letters, its own name first.
 * @example
 * namesOf('ride-bell') // => ["ride bell", "bell"]
 */
export function namesOf(voice: Voice): readonly string[] {
  return [VOICE[voice].name, ...VOICE[voice].also];
}

/** Names by which a voice is known, in small letters: its own, its two letters, and what else it is called. */
const NAMED: ReadonlyMap<string, Voice> = new Map(
  VOICES.flatMap((v): [string, Voice][] => [...namesOf(v), VOICE[v].short.toLowerCase(), v].map((name) => [name, v])),
);

/**
 * The voice that a drummer's word stands for, in any case; null for a word that is none.
 * @example
 * voiceCalled('Floor tom') // => "floor-tom"
 * voiceCalled('hat') // => "hat-closed"
 * voiceCalled('gong') // => null
 */
export function voiceCalled(words: string): Voice | null {
  return NAMED.get(words.trim().toLowerCase().replace(/\s+/g, ' ')) ?? null;
}

/** Voices named in a table; names that are none are left out, and a test says so. */
export function voicesNamed(names: readonly string[]): readonly Voice[] {
  return VOICES.filter((v) => names.includes(v)).sort((a, b) => names.indexOf(a) - names.indexOf(b));
}

/**
 * What a limb strikes when nothing else is said.
 * @example
 * usualVoice('K') // => "kick"
 * usualVoice('L') // => "snare"
 */
export function usualVoice(limb: Limb): Voice {
  switch (limb) {
    case 'R':
    case 'L':
      return 'snare';
    case 'K':
    case 'J':
      return 'kick';
    case 'H':
      return 'hat-foot';
  }
}

/** Whether a limb can strike a voice: hands reach all but the pedals, each foot its own pedal. */
export function canStrike(limb: Limb, voice: Voice): boolean {
  return limb === 'R' || limb === 'L' ? VOICE[voice].family !== 'foot' : voice === usualVoice(limb);
}

/**
 * The foot that strikes a voice; null for what hands strike.
 * @example
 * footOf('kick') // => "K"
 * footOf('ride') // => null
 */
export function footOf(voice: Voice): 'K' | 'H' | null {
  return canStrike('K', voice) ? 'K' : canStrike('H', voice) ? 'H' : null;
}

/** Kinds of pieces of which a kit has several: each is called by its own name. */
const MANY: readonly PieceKind[] = ['tom', 'crash', 'own'];

/**
 * The piece that a voice is struck on, as it is called: all ways to strike one are one.
 * @example
 * pieceName('hat-open') // => "hi-hat"
 * pieceName('high-tom') // => "high tom"
 */
export function pieceName(voice: Voice): string {
  const { piece, name } = VOICE[voice];
  return MANY.includes(piece) ? name : piece;
}
