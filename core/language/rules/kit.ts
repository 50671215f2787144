import { beatTicks } from '../../time';
import { chooses } from '../../selection';
import { isHand, type Voice } from '../../stroke';
import { countRef } from '../../pattern';
import { offerOf, type MoveParams } from '../../recipe';
import { chosen } from '../grammar/choose';
import type { Pick } from '../grammar/pick';
import { act, acts, forStrokes, rule, wrong, type Rule, type Said, type RuleContext } from './rule';
import type { VoicesSaid } from '../grammar/slots';
import { selectionOf } from '../grammar/said-select';
import { isWrong } from '../grammar/stretches';
import type { Values } from '../lexicon/template';
import type { LimbTerm } from '../lexicon/terms';

const LAND =
  '((land|come out|resolve|arrive) [it] [on|with|to|into] [the] [next] [1|one|downbeat]|(end|finish) [it] [on|with] [the] [next] (1|one|downbeat))';
const LANDS: Rule[] = [
  rule(['{voices} (and|with|plus) [a|the] (kick|bass_drum) on [the] next (1|one|downbeat)'], (v) =>
    landing(v['voices'] as VoicesSaid, undefined, true),
  ),
  rule(
    [
      `${LAND} [with] [a|the] {voices} [and|with|plus] [a|the] [kick] [under it|underneath|under] [on [the] [next] (1|one|downbeat)]`,
      `(land [it] [on the] [next] [1|one]|end [it] [on the] [next] (1|one)) with {limb:hand} on {voices} [, ] [and|with] [a|the] [kick] [under it|underneath|under]`,
      '(end|finish) [it] (with|on) [a|the] {voices} [and|with|plus] [a|the] [kick] on [the] [next] (1|one|downbeat)',
    ],
    (v) => {
      return landing(v['voices'] as VoicesSaid, v['hand'] as LimbTerm | undefined, true);
    },
  ),
  rule(
    [
      'land [it] [on] [the] [next] [1|one] with [just|only] {limb:hand} on {voices}',
      'land [it] [on] [the] [next] [1|one] with [just|only] [a|the] {voices} (alone|only|without the kick|but no kick|no kick)',
    ],
    (v) => {
      return landing(v['voices'] as VoicesSaid, v['hand'] as LimbTerm | undefined, false);
    },
  ),
  rule(['land [it] [on] [the] [next] [1|one] with [just|only] [a|the] kick [only|alone]'], () =>
    acts([offerOf('land', { hand: 'R', kick: true })]),
  ),
];

/** A piece it ends with: the last stroke, or the 1 behind it. */
export function endedWith(lists: VoicesSaid, scene: RuleContext): Said {
  const landed = landing(lists, undefined, true);
  const moments = scene.pattern.strokes.filter((s) => isHand(s.limb)).map((s) => s.at);
  const last = countRef(scene.pattern, Math.max(0, ...moments));
  if ('wrong' in landed || moments.length === 0) return landed;
  const sent = lists.map((l) => act([offerOf('voice', { select: chooses({ counts: [last] }), voices: [...l] })]));
  return { acts: [...landed.acts, ...sent] };
}

/** "End it on a kick": the last stroke becomes one, or one more comes behind it. */
export function endedBy({ limbs }: LimbTerm, scene: RuleContext): Said {
  const [limb, ...others] = limbs;
  const last: Pick = { base: null, order: { kind: 'last', n: 1 }, said: 'the last' };
  if (!limb || others.length > 0) return wrong('end', 'Say which limb.');
  const one = forStrokes(last, scene, (select, own) =>
    own.some((i) => scene.pattern.strokes[i]?.limb === limb)
      ? { wrong: 'end', why: 'It ends so already.' }
      : [offerOf('swap', { select, limb })],
  );
  if ('wrong' in one) return one;
  return { acts: [...one.acts, act([offerOf('insert', { text: limb, where: { kind: 'end' } })])] };
}

/** What it lands with; of a name that can mean several pieces each. */
export function landing(lists: VoicesSaid, hand: LimbTerm | undefined, kick: boolean): Said {
  if (lists.some((l) => l.length !== 1)) return wrong('land', 'Name one piece.');
  const [own, ...others] = hand?.limbs ?? ['R'];
  if (!own || !isHand(own) || others.length > 0) return wrong('land', 'Say which hand.');
  return acts(...lists.map((l) => [offerOf('land', { ...(l[0] ? { voice: l[0] } : {}), hand: own, kick })]));
}

/** Words before what they announce. */
const ANNOUNCED: Rule[] = [
  rule(['(spread|split) it [out|up|between the hands|over the kit]'], () => ({ acts: [{ moves: [], words: '' }] })),
];

const HANDS: Pick = { base: null, limb: { limbs: ['R', 'L'] }, said: '' };
type Route = Omit<MoveParams['route'], 'select' | 'stations' | 'order'>;

/** Strokes that travel over pieces, in each way that is possible: a meaning for each way and each choice of strokes. */
function travels(pick: Pick | undefined, lists: VoicesSaid, ways: readonly Route[], scene: RuleContext): Said {
  const found = lists.flatMap((voices) =>
    ways.map((way) =>
      forStrokes(
        pick ?? HANDS,
        scene,
        (select) => [
          offerOf('route', { select, stations: voices.map((v) => ({ right: v, left: v })), order: [], ...way }),
        ],
        'beat',
      ),
    ),
  );
  const bad = found.find((f) => 'wrong' in f);
  return bad ?? { acts: found.flatMap((f) => ('acts' in f ? f.acts : [])) };
}

/** How many strokes stand on each piece, as it was said; null where it was not. */
function sizeSaid(v: Values, { pattern }: RuleContext): number | null {
  const [size, beats] = [v['size'] as number | undefined, v['beats'] as number | undefined];
  if (beats !== undefined) return Math.max(1, Math.round((beats * beatTicks(pattern.meter)) / pattern.grid));
  return size === undefined ? null : Math.max(1, Math.min(64, size));
}

/** Doubles must not be torn apart unasked: by hand, by pair and by stroke are all offered. */
const WAYS: readonly Route[] = [{ sizes: [1], by: 'hand' }, { sizes: [2] }, { sizes: [1] }];

/** Over pieces that are known by one word: "down the toms", "round the kit". */
export function round(v: Values, scene: RuleContext, voices: readonly Voice[]): Said {
  const pick = v['pick'] as Pick | undefined;
  const size = sizeSaid(v, scene);
  if (size !== null) return travels(pick, [voices], [{ sizes: [size] }], scene);
  if (pick) {
    const ways = chosen(pick, scene, 'beat');
    if (isWrong(ways)) return ways;
    const limbs = new Set(ways.ways.flat().map((i) => scene.pattern.strokes[i]?.limb));
    // One hand alone never changes hands.
    if (limbs.size === 1 && ways.ways.some((w) => w.length > voices.length))
      return travels(
        pick,
        [voices],
        WAYS.filter((w) => w.by !== 'hand'),
        scene,
      );
    // No more strokes than pieces: one to each.
    if (ways.ways.every((w) => w.length <= voices.length)) return travels(pick, [voices], [{ sizes: [1] }], scene);
  }
  return travels(pick, [voices], WAYS, scene);
}

/** Over pieces that are named one after the other, so many strokes on each. */
export function roundNamed(v: Values, scene: RuleContext): Said {
  const lists = v['voices'] as VoicesSaid;
  const pick = v['pick'] as Pick | undefined;
  const size = sizeSaid(v, scene);
  if (size === null || lists.some((l) => l.length < 2)) return wrong('each', 'Name the drums.');
  return travels(pick, lists, [{ sizes: [size] }], scene);
}

/** The same, with so many strokes on the first, so many on the second. */
export function roundSized(v: Values, scene: RuleContext): Said {
  const [lists, sizes] = [v['voices'] as VoicesSaid, v['sizes'] as readonly number[]];
  if (lists.some((l) => l.length < 2) || sizes.length < 2)
    return wrong('each', 'Name the drums, and how many on each.');
  return travels(v['pick'] as Pick | undefined, lists, [{ sizes: [...sizes] }], scene);
}

/** "2 on the snare, 2 on the high tom, 3 on the floor tom": so many after each other; where they cannot be counts. */
function inGroups(v: Values, { pattern }: RuleContext): Said {
  const parts = ['a', 'b', 'c', 'd'].flatMap((k) => {
    const [n, lists] = [v[`n${k}`] as number | undefined, v[k] as VoicesSaid | undefined];
    return n !== undefined && lists ? [{ n, lists }] : [];
  });
  // Rising numbers are counts as well as sizes, and are read as counts.
  if (parts.every((p, i) => i === 0 || p.n > (parts[i - 1]?.n ?? 0))) return wrong('each', '');
  if (parts.some((p) => p.lists.length !== 1 || p.lists[0]?.length !== 1)) return wrong('each', 'Name one piece each.');
  const hands = pattern.strokes.flatMap((s, i) => (isHand(s.limb) ? [i] : []));
  const moments = [...new Set(hands.map((i) => pattern.strokes[i]?.at ?? 0))];
  const all = parts.reduce((sum, p) => sum + p.n, 0);
  if (all > moments.length) return wrong(`${all}`, `There are ${moments.length} places with a hand.`);
  let from = 0;
  const offers = parts.map(({ n, lists }) => {
    const own = moments.slice(from, from + n);
    from += n;
    const indexes = hands.filter((i) => own.includes(pattern.strokes[i]?.at ?? 0));
    return offerOf('voice', { select: selectionOf(HANDS, pattern, indexes), voices: [...(lists[0] ?? [])] });
  });
  return acts(offers);
}

const EACH_ON = (k: string): string => `{n:n${k}} [strokes|notes|hits] (on|to) {voices:${k}}`;

const ROUTES: Rule[] = [
  rule(
    [
      `${EACH_ON('a')} [,] [and|then] ${EACH_ON('b')}`,
      `${EACH_ON('a')} [,] [then] ${EACH_ON('b')} [,] [and|then] ${EACH_ON('c')}`,
      `${EACH_ON('a')} [,] [then] ${EACH_ON('b')} [,] [then] ${EACH_ON('c')} [,] [and|then] ${EACH_ON('d')}`,
    ],
    inGroups,
    -1,
  ),
];

/** Over the kit: ways round it, and what it lands with. */
export const KIT_RULES: readonly Rule[] = [...ANNOUNCED, ...LANDS, ...ROUTES];
