import { isHand, type Level, type Ornament } from '../../stroke';
import { chooses, type Selection } from '../../selection';
import { offerOf, type Offer } from '../../recipe';
import { chosen } from '../grammar/choose';
import type { Pick } from '../grammar/pick';
import { act, acts, forStrokes, pickOf, rule, themOf, wrong, type Rule, type Said, type RuleContext } from './rule';
import { ANY, selectionOf } from '../grammar/said-select';
import { isWrong } from '../grammar/stretches';

/** "Accent beat 4" is the count; "ghost beat 1" may be all of the beat. */
export function setLevel(pick: Pick, level: Level, scene: RuleContext): Said {
  const beats = level === 'accent' ? 'count' : 'ask-beat';
  return forStrokes(pick, scene, (select) => [offerOf('level', { select, level })], beats);
}

/** Two heights that change places at once. */
function exchanged(one: Level, two: Level, scene: RuleContext): Said {
  const { pattern } = scene;
  const of = (level: Level): number[] => pattern.strokes.flatMap((s, i) => (s.level === level ? [i] : []));
  const [ones, twos] = [of(one), of(two)];
  if (one === two) return wrong(one, 'Name two heights.');
  if (ones.length + twos.length === 0) return wrong(one, 'There are none here.');
  const first = offerOf('level', { select: chooses({ levels: [one] }), level: two });
  // By then all of them have the other height: those that had it before are told by where they stand.
  const between = { ...pattern, strokes: pattern.strokes.map((s) => (s.level === one ? { ...s, level: two } : s)) };
  const back = offerOf('level', { select: selectionOf(ANY, between, twos), level: one });
  const offers = [...(ones.length > 0 ? [first] : []), ...(twos.length > 0 ? [back] : [])];
  return { acts: [act(offers, themOf(pattern, [...ones, ...twos]))] };
}

/** The one height that is spoken of, and nothing else. */
function bareLevel(v: unknown): Level | null {
  const { levels, limb, voices, counts, order, bars } = pickOf(v);
  const [level, ...more] = levels ?? [];
  return level && more.length === 0 && !limb && !voices && !counts && !order && !bars ? level : null;
}

/** Only these are accents, or ghosts: others of that level become taps. */
export function onlyLevel(pick: Pick, level: Level, scene: RuleContext): Said {
  const ways = chosen(pick, scene);
  if (isWrong(ways)) return ways;
  return {
    acts: ways.ways.map((own) => {
      const others = scene.pattern.strokes.flatMap((s, i) => (s.level === level && !own.includes(i) ? [i] : []));
      const offers: Offer[] =
        others.length > 0 ? [offerOf('level', { select: selectionOf(ANY, scene.pattern, others), level: 'tap' })] : [];
      return act(
        [...offers, offerOf('level', { select: selectionOf(pick, scene.pattern, own), level })],
        themOf(scene.pattern, own),
      );
    }),
  };
}

const every = (n: number): Selection => chooses({ every: { n, offset: 0, of: 'slot' } });

/** "Accents every 3": slots, or strokes. */
export function levelEvery(n: number, level: Level, scene: RuleContext): Said {
  if (n < 2 || n * scene.pattern.grid > scene.pattern.length) return wrong(`every ${n}`, 'The phrase is shorter.');
  const slots = [offerOf('level', { select: every(n), level })];
  const strokes: Selection = { is: 'order', of: { is: 'all' }, which: { every: n, from: 1 }, within: 'phrase' };
  return acts(slots, [offerOf('level', { select: strokes, level })]);
}

const LEVELS_SAID: Rule[] = [
  rule(
    [
      '(turn|make|change) {pick:one} [in|into|to] {level:two} [,] and {pick:other} [in|into|to] {level:back}',
      '(swap|exchange|trade|switch) {pick:one} (and|with|for) {pick:other}',
    ],
    (v, scene) => {
      const [one, other] = [bareLevel(v['one']), bareLevel(v['other'])];
      const back = v['back'] as Level | undefined;
      if (!one || !other || (back !== undefined && (back !== one || v['two'] !== other))) return wrong('exchange', '');
      return exchanged(one, other, scene);
    },
    -1,
  ),
  rule(['[play|make|have|all] as [all|plain] {level}'], (v, scene) =>
    setLevel({ base: 'it', said: 'it' }, v['level'] as Level, scene),
  ),
  rule(
    [
      '{level} {pick} [as well|too|please|a bit|a little]',
      '(make|play|keep|hit|turn|have|set|take|bring|strike) {pick} [down|up] [to be|into|as] [a bit|a little|much|very|really|even] {level} [notes|note|strokes|stroke|ones]',
      '{pick} [a bit|a little|much|very|really] {level}',
    ],
    (v, scene) => setLevel(pickOf(v['pick']), v['level'] as Level, scene),
  ),
  rule(
    [
      '{level} every {n} [slots|strokes] [,] [counted|counting|starting|beginning] [from [the] 1|from the start|on the 1]',
    ],
    (v, scene) => levelEvery(v['n'] as number, v['level'] as Level, scene),
  ),
  rule(['take [the] {level} off {pick}'], (v, scene) => {
    const level = v['level'] as Level;
    return level === 'tap'
      ? wrong('off', 'Say what they should be.')
      : setLevel({ ...pickOf(v['pick']), levels: [level] }, 'tap', scene);
  }),
  rule(['[keep] (only|just) {level} [on|at] {pick}'], (v, scene) =>
    onlyLevel(pickOf(v['pick']), v['level'] as Level, scene),
  ),
  rule(['(lose|drop) {pick}'], (v, scene) => {
    const pick = pickOf(v['pick']);
    const [level] = pick.levels ?? [];
    if (!level || level === 'tap' || pick.limb || pick.voices) return wrong(pick.said, '');
    return setLevel(pick, 'tap', scene);
  }),
];

/** Grace strokes and rolls go; of one kind, or all. */
export function ornamentsOff(what: Ornament | undefined, scene: RuleContext): Said {
  const own = scene.pattern.strokes.flatMap((s, i) => (s.ornament && (!what || s.ornament === what) ? [i] : []));
  if (own.length === 0) return wrong(what ?? 'grace strokes', 'There are none.');
  return { acts: [act([offerOf('ornament', { select: selectionOf(ANY, scene.pattern, own), ornament: 'none' })])] };
}

const ORNAMENTS_SAID: Rule[] = [
  rule(['[put|play|add|give] {ornament} before {pick} [too|as well]'], (v, scene) => {
    const pick = pickOf(v['pick']);
    // "A drag before 4" leads to the 4.
    if (/^(?:before|after)\b/i.test(pick.said)) return wrong(pick.said, 'Say on which stroke.');
    return forStrokes(pick, scene, (_, own) => {
      const hands = own.filter((i) => isHand(scene.pattern.strokes[i]?.limb ?? 'K'));
      if (hands.length === 0) return { wrong: pick.said, why: 'Feet do not play grace strokes.' };
      return [
        offerOf('ornament', { select: selectionOf(pick, scene.pattern, hands), ornament: v['ornament'] as Ornament }),
      ];
    });
  }),
  rule(
    ['take [all] [the] {ornament} (off|away|out)', '(strip|drop|take) [off|away] [all] [the] ornaments [off|away]'],
    (v, scene) => ornamentsOff(v['ornament'] as Ornament | undefined, scene),
  ),
];

const DROPS: Rule[] = [
  rule(['(leave|take|keep) {pick} (out|away|empty|silent|free)'], (v, scene) =>
    leaveOut(pickOf(v['pick']), scene, 'ask'),
  ),
  rule(
    ['(make|keep|leave|have) {pick} (silent|empty)'],
    (v, scene) => {
      const pick = pickOf(v['pick']);
      // "Leave beat 4 empty" is all of it; of "3" it is open.
      const whole = pick.counts?.every((c) => c.as !== 'count') ?? true;
      return leaveOut(pick, scene, whole ? 'beat' : 'ask');
    },
    -1,
  ),
  rule(['(remove|cut|delete|drop|cut out|throw out) {pick}'], (v, scene) => removeOrRest(pickOf(v['pick']), scene)),
];

export function leaveOut(pick: Pick, scene: RuleContext, beats: 'ask' | 'beat' | 'count'): Said {
  const plain = pick.levels && !pick.limb && !pick.voices ? pick.levels[0] : undefined;
  // "no accents" takes the accents from the strokes, not the strokes.
  if (plain === 'accent' && !pick.order) return setLevel(pick, 'tap', scene);
  return forStrokes(pick, scene, (select) => [offerOf('drop', { select })], beats);
}

/** What is cut out so that the rest moves up. */
export function cutOut(pick: Pick, scene: RuleContext): Said {
  const beats = pick.counts?.every((c) => c.as === 'beat') ? 'beat' : 'ask';
  return forStrokes(pick, scene, (select) => [offerOf('cut', { select })], beats);
}

/** "cut bar 2", "delete the last note": rests in their place, or a phrase that is so much shorter. */
export function removeOrRest(pick: Pick, scene: RuleContext): Said {
  const plain = pick.levels && !pick.limb && !pick.voices ? pick.levels[0] : undefined;
  // "Delete beat 4" is all of it.
  const beats = pick.counts?.every((c) => c.as === 'beat') ? 'beat' : 'ask';
  const rests = leaveOut(pick, scene, beats);
  if ('wrong' in rests || plain !== undefined) return rests;
  const shorter = cutOut(pick, scene);
  return 'wrong' in shorter ? rests : { acts: [...rests.acts, ...shorter.acts] };
}

/** What strokes there are and how high: accents and ghosts, grace strokes, rests. */
export const STROKE_RULES: readonly Rule[] = [...LEVELS_SAID, ...ORNAMENTS_SAID, ...DROPS];
