import { Type, type Static } from '@sinclair/typebox';
import { canStrike, isHand, LIMB_WORDS, LIMBS, VOICE, VOICES, type Limb, type Stroke, type Voice } from '../../stroke';
import { placesWords, tidy } from '../../pattern';
import { chooses, select, SelectionSchema, selectionWords } from '../../selection';
import { USUAL_SCHOOLS } from '../../time';
import { choseNothing, done, finding, passes, type Move } from './move';

export const FollowParams = Type.Object({
  /** The strokes that lead. */
  select: SelectionSchema,
  /** The limb that plays with each of them, and where. */
  limb: Type.Unsafe<Limb>({ type: 'string', enum: [...LIMBS] }),
  voice: Type.Unsafe<Voice>({ type: 'string', enum: [...VOICES] }),
  /** As loud as the stroke it follows, or always the same. */
  level: Type.Union([Type.Literal('same'), Type.Literal('ghost'), Type.Literal('tap'), Type.Literal('accent')]),
  /** Where the limb plays already: it goes to the voice, or stays where it is. */
  busy: Type.Union([Type.Literal('goes'), Type.Literal('stays')]),
});
type Params = Static<typeof FollowParams>;

const limbWords = ({ limb, voice }: Pick<Params, 'limb' | 'voice'>): string =>
  isHand(limb) ? `${LIMB_WORDS[limb]} on the ${VOICE[voice].name}` : LIMB_WORDS[limb];

/** One limb plays with each of some strokes: the right follows the kick, a crash with every kick, hat on every kick. */
export const follow: Move<'follow', Params> = {
  name: 'follow',
  title: 'Play along',
  hint: 'The right hand follows the kick, a crash with each of its strokes.',
  schema: FollowParams,
  defaults: (pattern) => {
    const leads = (['K', 'L', 'H', 'J'] as const).find((l) => pattern.strokes.some((s) => s.limb === l)) ?? 'K';
    return { select: chooses({ limbs: [leads] }), limb: 'R', voice: 'hat-closed', level: 'same', busy: 'goes' };
  },
  describe: ({ select: who, level, busy, ...what }, on) =>
    `The ${limbWords(what)} plays with ${selectionWords(who, on)}${level === 'same' ? '' : `, ${level}s`}${busy === 'stays' ? ', where it is free' : ''}`,
  apply: (pattern, { select: who, limb, voice, level, busy }, { id }) => {
    if (!canStrike(limb, voice))
      return passes(pattern, 'bad-voice', `The ${LIMB_WORDS[limb]} does not play the ${VOICE[voice].name}.`);
    const led = select(pattern, who).flatMap((i) => pattern.strokes[i] ?? []);
    if (led.length === 0) return choseNothing(pattern, selectionWords(who, pattern));
    const leaders = led.filter((s) => s.limb !== limb);
    if (leaders.length === 0)
      return passes(
        pattern,
        'nothing-chosen',
        `The ${LIMB_WORDS[limb]} already plays all of them, so nothing changes.`,
      );
    const own = new Map(pattern.strokes.flatMap((s) => (s.limb === limb ? [[s.at as number, s] as const] : [])));
    const added = leaders.flatMap((s): Stroke[] => {
      const there = own.get(s.at);
      if (there) return busy === 'goes' ? [{ ...there, voice }] : [];
      return [{ at: s.at, limb, voice, level: level === 'same' ? s.level : level, from: { ...s.from, move: id } }];
    });
    const kept = busy === 'stays' ? leaders.filter((s) => own.has(s.at) && own.get(s.at)?.voice !== voice) : [];
    const at = [...new Set(kept.map((s) => s.at))];
    return done(
      tidy({ ...pattern, strokes: [...pattern.strokes, ...added] }),
      at.length === 0
        ? []
        : [
            finding(
              'limb-busy',
              'note',
              `The ${LIMB_WORDS[limb]} already plays there: ${placesWords(pattern, at, USUAL_SCHOOLS)}.`,
              at,
            ),
          ],
    );
  },
};
