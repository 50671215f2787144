import { parseSelector, type Pattern, type Selector } from '../../pattern';
import { countingOf } from '../../pattern';
import {
  canStrike,
  HAND_VOICES,
  namesOf,
  ORNAMENTS,
  voiceCalled,
  type Level,
  type Limb,
  type Voice,
} from '../../stroke';
import { USUAL_SCHOOLS } from '../../time';
import { NUMBER, numberOf } from './numbers';
import { offerOf, type Offer, type Reader } from './offer';

/** A selector from words; null when they are not understood. */
function selectorOf(words: string, pattern: Pattern): Selector | null {
  const text = words.trim().replace(/^the (rights|lefts|kicks|ghosts|accents|taps|strokes)/, '$1');
  if (text === '' || text === 'it' || text === 'everything' || text === 'all') return {};
  const read = parseSelector(text, countingOf(pattern, USUAL_SCHOOLS));
  return read.ok ? read.value : null;
}

const LEVEL_WORDS: readonly (readonly [RegExp, Level])[] = [
  [/^(?:accents?|accented|loud)\b ?/, 'accent'],
  [/^(?:ghosts?|ghosted|soft|quiet)\b ?/, 'ghost'],
  [/^(?:taps?|plain)\b ?/, 'tap'],
];

/** "accents every 5", "ghost the lefts", "accent rights on 2 and 4". */
export const levels: Reader = (text, pattern) =>
  LEVEL_WORDS.flatMap(([word, level]): Offer[] => {
    const found = word.exec(text);
    if (!found) return [];
    const rest = text.slice(found[0].length);
    const every = new RegExp(`^every (${NUMBER})(?: slots?)?$`).exec(rest);
    const n = every ? numberOf(every[1] ?? '') : null;
    if (n !== null && n > 0) {
      return (['slot', 'stroke'] as const).map((of) =>
        offerOf('level', { select: { every: { n, offset: 0, of } }, level }),
      );
    }
    const select = selectorOf(rest, pattern);
    return select && rest.trim() !== '' ? [offerOf('level', { select, level })] : [];
  });

/** What plays along, by its words: the limb, where, and whether it only joins where it is free. */
const ALONG: ReadonlyMap<string, readonly [Limb, Voice]> = new Map<string, readonly [Limb, Voice]>([
  ...HAND_VOICES.flatMap((v) => namesOf(v).map((name): [string, readonly [Limb, Voice]] => [name, ['R', v]])),
  ['cymbal', ['R', 'crash-right']],
  ['kick', ['K', 'kick']],
  ['bass drum', ['K', 'kick']],
  ['hi-hat foot', ['H', 'hat-foot']],
  ['hat foot', ['H', 'hat-foot']],
]);

/** "the right hand follows the kick", "a crash with every kick", "hat on every kick", "kick under every accent". */
export const following: Reader = (text, pattern) => {
  const hand =
    /^(?:the )?(right|left)(?: hand)?(?: on (?:the )?(.+?))? (?:follows?|plays? with|with) (?:the |every |each )?(.+)$/.exec(
      text,
    );
  const piece = /^(?:an? |the )?(.+?) (?:with|on|under|at) (?:every|each) (.+)$/.exec(text);
  const limb: Limb = hand?.[1] === 'left' ? 'L' : 'R';
  const along = hand ? handOn(limb, hand[2], pattern) : ALONG.get(piece?.[1] ?? '');
  const select = selectorOf(hand?.[3] ?? piece?.[2] ?? '', pattern);
  if (!along || !select || (hand?.[3] ?? piece?.[2] ?? '') === '') return [];
  // "every 4" counts slots, and belongs to other words.
  if (/^\d/.test(piece?.[2] ?? '')) return [];
  return [offerOf('follow', { select, limb: along[0], voice: along[1], level: 'same', busy: 'goes' })];
};

/** A hand on what was said, else on the piece it strikes most; null for a piece that is none. */
function handOn(limb: Limb, said: string | undefined, pattern: Pattern): readonly [Limb, Voice] | null {
  if (said !== undefined) {
    const voice = voiceCalled(said);
    return voice && canStrike(limb, voice) ? [limb, voice] : null;
  }
  const own = pattern.strokes.filter((s) => s.limb === limb).map((s) => s.voice);
  const most = HAND_VOICES.reduce<Voice>(
    (best, v) => (own.filter((o) => o === v).length > own.filter((o) => o === best).length ? v : best),
    'snare',
  );
  return [limb, most];
}

const VOICE_WORDS: ReadonlyMap<string, readonly Voice[]> = new Map<string, readonly Voice[]>([
  ...HAND_VOICES.flatMap((v) => namesOf(v).map((name): [string, readonly Voice[]] => [name, [v]])),
  ['crashes', ['crash-left', 'crash-right']],
  ['toms', ['high-tom', 'mid-tom', 'floor-tom']],
]);

/** "right accents to the crash with kick under", "send lefts to the high tom and floor tom". */
export const sending: Reader = (text, pattern) => {
  const found =
    /^(?:send |move |put |play )?(.+?) (?:to|on) (?:the )?(.+?)(,? with (?:a |the )?kick(?: under(?: them)?)?)?$/.exec(
      text,
    );
  if (!found) return [];
  const voices = (found[2] ?? '').split(/,| and (?:the )?/).map((w) => VOICE_WORDS.get(w.trim().replace(/^the /, '')));
  if (voices.length === 0 || voices.some((v) => v === undefined)) return [];
  const select = selectorOf(found[1] ?? '', pattern);
  if (!select) return [];
  return [offerOf('voice', { select, voices: voices.flatMap((v) => v ?? []), ...(found[3] ? { under: 'K' } : {}) })];
};

/** "flam the accents", "drags on 4". */
export const ornaments: Reader = (text, pattern) =>
  ORNAMENTS.flatMap((ornament): Offer[] => {
    const found = new RegExp(`^${ornament}(?:s|es)?\\b ?(.*)$`).exec(text);
    const select = found ? selectorOf(found[1] ?? '', pattern) : null;
    return select ? [offerOf('ornament', { select: found?.[1] ? select : { places: [1] }, ornament })] : [];
  });

/** "leave out the kicks", "drop lefts in bar 2". */
export const leavingOut: Reader = (text, pattern) => {
  const found = /^(?:leave out|drop|rest|remove|without|no) (.+)$/.exec(text);
  const select = found ? selectorOf(found[1] ?? '', pattern) : null;
  return select ? [offerOf('drop', { select })] : [];
};

const LIMB_OF = {
  kick: 'K',
  'the kick': 'K',
  left: 'L',
  'the left': 'L',
  right: 'R',
  'the right': 'R',
  'other hand': 'other',
  'the other hand': 'other',
} as const;

/** "swap the second of each double to kick", "play ghosts with the left". */
export const swapping: Reader = (text, pattern) => {
  const found =
    /^(?:swap|play|give) (.+?) (?:to|with|for) (kick|the kick|left|the left|right|the right|other hand|the other hand)$/.exec(
      text,
    );
  const to = found?.[2] as keyof typeof LIMB_OF | undefined;
  const select = found && to ? selectorOf(found[1] ?? '', pattern) : null;
  return select && to ? [offerOf('swap', { select, limb: LIMB_OF[to] })] : [];
};
