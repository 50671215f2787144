import { Type, type Static } from '@sinclair/typebox';
import { barTicks, ticks } from '../../time';
import { HAND_VOICES, VOICE, type Stroke, type Voice } from '../../stroke';
import { tidy, type Group } from '../../pattern';
import { done, type Move } from './move';

export const LandParams = Type.Object({
  /** What the hand strikes on the arrival; absent for no stroke of a hand. */
  voice: Type.Optional(Type.Unsafe<Voice>({ type: 'string', enum: [...HAND_VOICES] })),
  hand: Type.Union([Type.Literal('R'), Type.Literal('L')]),
  kick: Type.Boolean(),
});
type Params = Static<typeof LandParams>;

/**
 * The arrival on the next 1. The bar it falls into becomes part of the phrase, so that a loop breathes before it begins
 * again.
 */
export const land: Move<'land', Params> = {
  name: 'land',
  title: 'Land it',
  hint: 'Crash and kick on the next 1, or a kick alone.',
  schema: LandParams,
  defaults: () => ({ voice: 'crash-right', hand: 'R', kick: true }),
  describe: ({ voice, hand, kick }) => {
    const what = [
      ...(voice ? [`the ${VOICE[voice].name}${hand === 'L' ? ' with the left' : ''}`] : []),
      ...(kick ? ['the kick'] : []),
    ];
    return what.length > 0 ? `Land on the next 1 with ${what.join(' and ')}` : 'Land on silence';
  },
  apply: (pattern, { voice, hand, kick }, { id }) => {
    const bar = barTicks(pattern.meter);
    const one = Math.ceil((pattern.start + pattern.length) / bar) * bar - pattern.start;
    const from = { index: 0, repeat: pattern.groups.reduce((most, g) => Math.max(most, g.repeat), 0) + 1, move: id };
    const strokes: Stroke[] = [
      ...(voice ? [{ at: ticks(one), limb: hand, voice, level: 'accent' as const, from }] : []),
      ...(kick ? [{ at: ticks(one), limb: 'K' as const, voice: 'kick' as const, level: 'accent' as const, from }] : []),
    ];
    const arrival: Group = { at: ticks(one), length: ticks(bar), repeat: from.repeat, kind: 'land' };
    return done(
      tidy({
        ...pattern,
        length: ticks(one + bar),
        strokes: [...pattern.strokes, ...strokes],
        groups: [...pattern.groups, arrival],
      }),
    );
  },
};
