import { checkedAt } from '../../base';
import { canStrike, isHand, otherHand, usualVoice, VOICE, type Limb, type Voice } from '../../stroke';
import type { Pattern } from '../../pattern';
import type { Selection } from '../../selection';
import { asEdit, offerOf, restEdits, type Offer } from '../../recipe';
import { chosen, type BeatMeaning } from '../grammar/choose';
import type { CountSaid } from '../grammar/counts';
import type { Pick } from '../grammar/pick';
import { places } from '../grammar/places';
import {
  act,
  addAt,
  allOf,
  forStrokes,
  kinOf,
  pickOf,
  rule,
  themOf,
  wrong,
  type Rule,
  type Said,
  type RuleContext,
} from './rule';
import { selectionOf } from '../grammar/said-select';
import type { VoicesSaid } from '../grammar/slots';
import { isWrong, keyOf, limbsHere } from '../grammar/stretches';
import type { Values } from '../lexicon/template';
import type { LimbTerm } from '../lexicon/terms';

/** The strokes on counts that were said beside a piece. */
function atCounts(v: Values): Pick {
  return { base: null, counts: v['counts'] as readonly CountSaid[], said: 'there' };
}

/** Whether only the way of striking changes, on the drum it is on: no stroke goes anywhere. */
function waysOfStriking(lists: VoicesSaid): boolean {
  return lists.every((l) => l.every((v) => v === 'rimshot' || v === 'cross-stick'));
}

/** A piece, and nothing that narrows what is struck there. */
export function isPieceOnly({ voices, limb, levels, counts, order }: Pick): boolean {
  return voices !== undefined && !limb && !levels && !counts && !order;
}

/** Sends strokes to pieces; feet stay on their pedals. */
export function send(pick: Pick, lists: VoicesSaid, scene: RuleContext, under = false): Said {
  const ways = chosen(pick, scene, waysOfStriking(lists) ? 'count' : 'ask-beat');
  if (isWrong(ways)) return ways;
  const { pattern } = scene;
  const found = [];
  for (const own of [...ways.ways, ...amongThem(pick, ways.ways, scene)]) {
    if (allOf(pattern, own, 'feet')) {
      const [to] = lists[0] ?? [];
      return wrong(to ? VOICE[to].name : pick.said, 'A foot stays on its pedal.');
    }
    const hands = own.filter((i) => isHand(pattern.strokes[i]?.limb ?? 'K'));
    for (const voices of lists) {
      // "Beat 4: high tom, mid tom" is no single stroke where the beat has one for each piece.
      if (hands.length < voices.length && ways.ways.some((w) => w.length >= voices.length)) continue;
      const select = selectionOf(pick, pattern, hands);
      const offer = offerOf('voice', { select, voices: [...voices], ...(under ? { under: 'K' as const } : {}) });
      const lastOnly = under && voices.length > 1 ? underTheLast(select, voices, hands, pattern) : null;
      // "Snare, high tom, crash with kick": under the crash, or under all of them.
      if (lastOnly) found.push(act(lastOnly, themOf(pattern, hands), kinOf(pick, scene)));
      // The kicks that come under them are spoken of with them.
      const kicks = under ? hands.map((i) => `${pattern.strokes[i]?.at ?? 0} K`) : [];
      found.push(act([offer], new Set([...themOf(pattern, hands), ...kicks]), kinOf(pick, scene)));
    }
  }
  return { acts: found };
}

/** "Accents on the toms, left on the high tom": the lefts, or those of them that were sent before. */
function amongThem(
  pick: Pick,
  ways: readonly (readonly number[])[],
  scene: RuleContext,
): readonly (readonly number[])[] {
  const { spoken: them, sends, pattern } = scene;
  if (!them || sends !== true || !isLimbOnly(pick)) return [];
  const isThem = (i: number): boolean => them.has(keyOf(checkedAt(pattern.strokes, i, 'stroke')));
  const other = pattern.strokes.some((s, i) => isThem(i) && isHand(s.limb) && !pick.limb?.limbs.includes(s.limb));
  const [own = []] = ways;
  const among = own.filter(isThem);
  return other && among.length > 0 && among.length < own.length ? [among] : [];
}

/** "Left", "the right ones": one hand of what was spoken of, sooner than all that it plays. */
function isLimbOnly({ limb, said }: Pick): boolean {
  return limb?.limbs.length === 1 && /^(?:the )?(?:left|right)(?: ones?)?$/i.test(said);
}

/** Strokes that go to pieces in turn, with the kick under those on the last of the pieces. */
function underTheLast(
  select: Selection,
  voices: readonly Voice[],
  hands: readonly number[],
  pattern: Pattern,
): readonly Offer[] | null {
  const at = hands.flatMap((i, n) => (n % voices.length === voices.length - 1 ? [pattern.strokes[i]?.at ?? 0] : []));
  if (at.length === 0) return null;
  return [offerOf('voice', { select, voices: [...voices] }), addAt(at, 'K')];
}

const KICK_UNDER =
  '[,] [and] [with|add] [the|a] (kick|bass_drum) [underneath|under|under it|under them|with it|with them|along|below|beneath]';

const VOICES_SAID: Rule[] = [
  rule(['[use|take] {voices} (for|instead-of) {pick}'], (v, scene) =>
    send(pickOf(v['pick']), v['voices'] as VoicesSaid, scene),
  ),
  rule(
    [
      '[send|move|put|play|take|bring|shift|orchestrate|voice|switch|get|have|give|place|spread|change] {pick} [goes|go|moves|move|come|comes|jumps|jump] [over|down|up|across|out|back] (to|on|onto|over|into|in|at|for) {voices} [instead|please|too]',
    ],
    (v, scene) => send(pickOf(v['pick']), v['voices'] as VoicesSaid, scene),
  ),
  rule(
    [
      `[send|move|put|play|take|bring|orchestrate|voice] {pick} [goes|go|moves] [over|down|up] (to|on|onto) {voices} ${KICK_UNDER}`,
    ],
    (v, scene) => send(pickOf(v['pick']), v['voices'] as VoicesSaid, scene, true),
  ),
  rule([`{voices} (on|at) {counts} ${KICK_UNDER}`], (v, scene) =>
    send(atCounts(v), v['voices'] as VoicesSaid, scene, true),
  ),
  rule(['[play|put|hit] {voices} (on|at) {pick}'], (v, scene) => voiceOn(v, scene)),
  rule(['open [up] [the] hat (on|at) {pick}', '[the] hat (open|opens) (on|at) {pick}'], (v, scene) => {
    const voices: VoicesSaid = [['hat-open']];
    const hats = scene.pattern.strokes.some((s) => VOICE[s.voice].piece === VOICE['hat-open'].piece && isHand(s.limb));
    const pick = pickOf(v['pick']);
    // "Open the hats on the &s" is said of hats, where there are some: no snare becomes one.
    return hats && pick.voices === undefined
      ? send({ ...pick, voices: ['hat-closed', 'hat-half', 'hat-open'] }, voices, scene)
      : voiceOn({ ...v, voices }, scene);
  }),
];

/** "open hat on the & of 4": the stroke that a hand plays there goes to the piece; where none does it is added. */
export function voiceOn(v: Values, scene: RuleContext): Said {
  const lists = v['voices'] as VoicesSaid;
  const pick = v['counts'] ? atCounts(v) : pickOf(v['pick']);
  const { pattern } = scene;
  const [one] = lists;
  if (!one || one.length !== 1) return wrong(pick.said, 'Name one piece.');
  const there = places(pick, pattern);
  if (there !== null && isWrong(there)) return there;
  const own = chosen(pick, scene);
  const hands = isWrong(own) ? [] : own.ways.map((w) => w.filter((i) => isHand(pattern.strokes[i]?.limb ?? 'K')));
  const all = there === null ? null : there.ways[0];
  if (hands.some((w) => w.length > 0)) {
    // Of two hands at one place the one that is on a piece of the same kind goes: a hat is opened, not the snare.
    const target = one[0];
    const kin = (w: readonly number[]): readonly number[] => {
      const same = w.filter(
        (i) =>
          target !== undefined && VOICE[checkedAt(pattern.strokes, i, 'stroke').voice].piece === VOICE[target].piece,
      );
      return same.length > 0 ? same : w;
    };
    const struck = new Set(hands[0]?.map((i) => pattern.strokes[i]?.at as number));
    if (all && all.some((t) => !struck.has(t))) return wrong(pick.said, 'Not all of these places are struck.');
    return {
      acts: hands.flatMap((w) =>
        lists.map((voices) =>
          act(
            [offerOf('voice', { select: selectionOf(pick, pattern, kin(w)), voices: [...voices] })],
            themOf(pattern, w),
          ),
        ),
      ),
    };
  }
  if (!all || all.length === 0) return isWrong(own) ? own : wrong(pick.said, 'Nothing is played there.');
  return {
    acts: lists.map((voices) => {
      const voice: Voice = voices[0] ?? 'snare';
      // Where the right hand keeps time, the left plays what is new; a snare is the left's anyhow.
      const keeps = pattern.strokes.some((s) => s.limb === 'R' && VOICE[s.voice].keepsTime);
      const limb = VOICE[voice].piece === 'snare' || keeps ? ('L' as const) : ('R' as const);
      return act([addAt(all, limb, voice)], new Set(all.map((t) => `${t} ${limb}`)));
    }),
  };
}

/** Gives strokes to a limb. A hand that takes over strokes of a foot plays the snare. */
export function give(pick: Pick, to: LimbTerm | 'other', scene: RuleContext): Said {
  const { pattern } = scene;
  // "A drag on the rights" is a new one.
  if (pick.ornaments && /^(?:an? )?(?:flam|drag|ruff|buzz)$/i.test(pick.said)) return wrong(pick.said, '');
  if (to !== 'other' && to.open === 'left foot') {
    // The hi-hat's pedal or a second one: each that can be meant.
    const pedals = scene.isOnePedal ? (['H'] as const) : (['H', 'J'] as const);
    const each = pedals.map((l) => give(pick, { limbs: [l] }, scene));
    const met = each.flatMap((s) => ('acts' in s ? s.acts : []));
    return met.length > 0 ? { acts: met } : (each[0] ?? wrong(pick.said, 'Say which limb.'));
  }
  const target = to === 'other' ? 'other' : (limbsHere(pattern, { base: null, limb: to, said: '' }) ?? []);
  if (target !== 'other' && target.length !== 1) return wrong(pick.said, 'Say which limb.');
  const limb: Limb | 'other' = target === 'other' ? 'other' : (target[0] ?? 'K');
  return forStrokes(
    pick,
    scene,
    (_, own) => {
      if (limb === 'other' && allOf(pattern, own, 'feet')) return { wrong: pick.said, why: 'Feet cannot do that.' };
      const moved = own.filter((i) => limb === 'other' || pattern.strokes[i]?.limb !== limb);
      if (moved.length === 0) return { wrong: pick.said, why: 'That limb already plays them.' };
      return [offerOf('swap', { select: selectionOf(pick, pattern, moved), limb })];
    },
    'ask-beat',
  );
}

const SWAPS: Rule[] = [
  rule(
    [
      '(give|hand|swap|change|turn|play|put|move|switch|make|exchange|take) {pick} [over] (to|with|by|for|onto|into|on) {limb:to} [instead]',
      '(make|turn) {pick} {limb:to} [strokes]',
      '{limb:to} (takes|take) over {pick}',
      '{pick} (with|by|to|on|onto|becomes|become|in|into) {limb:to} [instead]',
    ],
    (v, scene) => give(pickOf(v['pick']), v['to'] as LimbTerm, scene),
  ),
  rule(['{pick} (on|to|with) [the] double-pedal [, {limb:first} first|starting with {limb:first}]'], (v, scene) =>
    doublePedal(pickOf(v['pick']), v['first'] as LimbTerm | undefined, scene),
  ),
];

/** Feet in turn, the kick foot first: in place of what is struck, or where nothing is. */
export function doublePedal(pick: Pick, first: LimbTerm | undefined, scene: RuleContext): Said {
  const { pattern } = scene;
  const lead: Limb = first?.open === 'left foot' || first?.limbs.includes('J') ? 'J' : 'K';
  const feet: readonly Limb[] = lead === 'K' ? ['K', 'J'] : ['J', 'K'];
  const own = chosen(pick, scene);
  const there = places(pick, pattern);
  const struck = isWrong(own) ? [] : (own.ways[0] ?? []);
  const at =
    there && !isWrong(there) ? (there.ways[0] ?? []) : [...new Set(struck.map((i) => pattern.strokes[i]?.at ?? 0))];
  if (at.length === 0) return isWrong(own) ? own : wrong(pick.said, 'There are none here.');
  // All that stood there gives way to the feet.
  const stood = pattern.strokes.flatMap((s, i) => (at.includes(s.at) ? [i] : []));
  const added = at.map((t, i) => asEdit({ limb: feet[i % 2] ?? 'K', voice: 'kick', level: 'tap' }, t));
  const gone = restEdits(pattern, stood).filter((g) => !added.some((a) => a.at === g.at && a.limb === g.limb));
  return {
    acts: [act([offerOf('touch', { edits: [...gone, ...added] })], new Set(added.map((a) => `${a.at} ${a.limb}`)))],
  };
}

/** Both hands at once: the other hand joins where one plays. */
const UNISONS: Rule[] = [
  rule(['[unison] (both_hands|hands) [together|at once|in unison] (on|at) {pick}'], (v, scene) =>
    unison(pickOf(v['pick']), scene),
  ),
];

/** The other hand joins where one plays. */
export function unison(pick: Pick, scene: RuleContext, beats: BeatMeaning = 'count'): Said {
  const { pattern } = scene;
  return forStrokes(
    pick,
    scene,
    (_, own) => {
      const edits = own.flatMap((i) => {
        const s = pattern.strokes[i];
        if (!s || !isHand(s.limb)) return [];
        const other = otherHand(s.limb);
        const taken = pattern.strokes.some((o) => o.at === s.at && o.limb === other);
        const voice = canStrike(other, s.voice) ? s.voice : usualVoice(other);
        return taken ? [] : [asEdit({ limb: other, voice, level: s.level }, s.at)];
      });
      return edits.length === 0
        ? { wrong: 'unison', why: 'No hand plays there alone.' }
        : [offerOf('touch', { edits })];
    },
    beats,
  );
}

/** Where strokes are struck, and by whom. */
export const VOICE_RULES: readonly Rule[] = [...VOICES_SAID, ...SWAPS, ...UNISONS];
