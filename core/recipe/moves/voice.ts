import { Type, type Static } from '@sinclair/typebox';
import { count, listed } from '../../base';
import { canStrike, LIMB_WORDS, SAME_HAND, usualVoice, VOICE, VOICES, type Stroke, type Voice } from '../../stroke';
import { gracesOf, placesWords, tidy, withGraces } from '../../pattern';
import { chooses, select, SelectionSchema, selectionWords } from '../../selection';
import { USUAL_SCHOOLS } from '../../time';
import { choseNothing, done, finding, passes, type Move } from './move';

export const VoiceParams = Type.Object({
  select: SelectionSchema,
  /** Taken in turn by the chosen strokes. */
  voices: Type.Array(Type.Unsafe<Voice>({ type: 'string', enum: [...VOICES] }), { minItems: 1, maxItems: 16 }),
  /** A foot that plays along with every chosen stroke. */
  under: Type.Optional(Type.Union([Type.Literal('K'), Type.Literal('J'), Type.Literal('H')])),
  /** Grace strokes are held on the drum where they are, or go with their stroke; absent: they are their hand's. */
  graces: Type.Optional(Type.Union([Type.Literal('stay'), Type.Literal('go')])),
});
type Params = Static<typeof VoiceParams>;

const GRACES: Readonly<Record<NonNullable<Params['graces']>, string>> = {
  stay: ', grace strokes stay on the drum',
  go: ', grace strokes with them',
};

/** Orchestrate: send chosen strokes round the kit, and put a foot under them. */
export const voice: Move<'voice', Params> = {
  name: 'voice',
  title: 'Move it on the kit',
  hint: 'Right hand to the high tom, accents to the crash with a kick underneath.',
  schema: VoiceParams,
  defaults: () => ({ select: chooses({ limbs: ['R'] }), voices: ['high-tom'] }),
  describe: ({ select: who, voices, under, graces }, on) => {
    const to = listed(voices.map((v) => `the ${VOICE[v].name}`));
    const foot = under ? `, ${under === 'K' ? 'kick' : LIMB_WORDS[under]} under them` : '';
    return `Send ${selectionWords(who, on)} to ${voices.length > 1 ? `${to} in turn` : to}${foot}${graces ? GRACES[graces] : ''}`;
  },
  apply: (pattern, params, { id }) => {
    const chosen = select(pattern, params.select);
    if (chosen.length === 0) return choseNothing(pattern, selectionWords(params.select, pattern));
    const turn = new Map(chosen.map((index, nth) => [index, params.voices[nth % params.voices.length]]));
    const cannot = chosen.filter((i) => !reaches(pattern.strokes[i], turn.get(i)));
    if (cannot.length === chosen.length) {
      return passes(
        pattern,
        'bad-voice',
        `Feet stay on their pedals: none of these strokes can go to ${listed(params.voices.map((v) => `the ${VOICE[v].name}`))}.`,
      );
    }
    const told = withGraces(pattern).strokes;
    const sent = pattern.strokes.map((s, i) => {
      const to = turn.get(i);
      return to && reaches(s, to) ? { ...s, voice: to, ...gracedTo(told[i] ?? s, to, params.graces) } : s;
    });
    const { under } = params;
    const feet = under ? chosen.flatMap((i) => underStroke(pattern.strokes[i], under, id)) : [];
    const busy = feet.filter((f) => pattern.strokes.some((s) => s.at === f.at && s.limb === f.limb));
    const added = feet.filter((f) => !busy.includes(f));
    const findings = [
      ...(cannot.length > 0
        ? [finding('bad-voice', 'check', `${count(cannot.length, 'stroke')} of the feet stayed where they were.`)]
        : []),
      ...(busy.length > 0
        ? [
            finding(
              'limb-busy',
              'note',
              `The foot already plays there: ${placesWords(
                pattern,
                busy.map((f) => f.at),
                USUAL_SCHOOLS,
              )}.`,
              busy.map((f) => f.at),
            ),
          ]
        : []),
    ];
    return done(tidy({ ...pattern, strokes: [...sent, ...added] }), findings);
  },
};

/** Where the grace strokes of a stroke that is sent somewhere are told to be; nothing where they are their hand's. */
function gracedTo(before: Stroke, to: Voice, graces: Params['graces']): Pick<Stroke, 'grace'> {
  const own = gracesOf(before);
  if (!own || !graces || before.grace === SAME_HAND) return {};
  return { grace: graces === 'go' ? to : own.voice };
}

function reaches(stroke: Stroke | undefined, to: Voice | undefined): boolean {
  return stroke !== undefined && to !== undefined && canStrike(stroke.limb, to);
}

function underStroke(stroke: Stroke | undefined, limb: 'K' | 'J' | 'H', move: string): Stroke[] {
  if (!stroke || stroke.limb === limb) return [];
  return [
    {
      at: stroke.at,
      limb,
      voice: usualVoice(limb),
      level: stroke.level === 'accent' ? 'accent' : 'tap',
      from: { ...stroke.from, move },
    },
  ];
}
