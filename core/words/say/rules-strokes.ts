import {
  canStrike,
  isHand,
  otherHand,
  usualVoice,
  VOICE,
  type Level,
  type Limb,
  type Ornament,
  type Voice,
} from '../../stroke';
import { barTicks } from '../../time';
import type { Pattern, Selector } from '../../pattern';
import { offerOf, type Offer } from '../../recipe';
import { ANY, chosen, isWrong, limbsHere, places, selectorOf } from './choose';
import type { Pick } from './pick';
import { act, acts, allOf, forStrokes, rule, themOf, wrong, type Rule, type Said, type Scene } from './rule';
import type { LimbTerm, VoicesSaid } from './slots';

const pickOf = (v: unknown): Pick => v as Pick;

function setLevel(pick: Pick, level: Level, scene: Scene): Said {
  return forStrokes(pick, scene, (select) => [offerOf('level', { select, level })]);
}

/** Only these are accents, or ghosts: others of that level become taps. */
function onlyLevel(pick: Pick, level: Level, scene: Scene): Said {
  const ways = chosen(pick, scene);
  if (isWrong(ways)) return ways;
  return {
    acts: ways.ways.map((own) => {
      const others = scene.pattern.strokes.flatMap((s, i) => (s.level === level && !own.includes(i) ? [i] : []));
      const offers: Offer[] =
        others.length > 0 ? [offerOf('level', { select: selectorOf(ANY, scene.pattern, others), level: 'tap' })] : [];
      return act(
        [...offers, offerOf('level', { select: selectorOf(pick, scene.pattern, own), level })],
        themOf(scene.pattern, own),
      );
    }),
  };
}

const every = (n: number): Selector => ({ every: { n, offset: 0, of: 'slot' } });

const BUT = '[,] (except|but not|apart-from|but) [for|on] {pick:less}';

/** Strokes without those that were taken out behind them. */
function less(v: Readonly<Record<string, unknown>>): Pick {
  const pick = pickOf(v['pick']);
  return { ...pick, except: [...(pick.except ?? []), pickOf(v['less'])] };
}

const LEVELS_SAID: Rule[] = [
  rule(['(make|play|turn) {pick} [into] all {level}'], (v, scene) =>
    forStrokes(
      pickOf(v['pick']),
      scene,
      (select) => [offerOf('level', { select, level: v['level'] as Level })],
      'beat',
    ),
  ),
  rule(['(bring out|emphasise|emphasize|stress|dig into|lean on) {pick}', '{pick} (stand|stands) out'], (v, scene) =>
    setLevel(pickOf(v['pick']), 'accent', scene),
  ),
  rule(['(soften|whisper|bring down|quieten) {pick}', 'bring {pick} down'], (v, scene) =>
    setLevel(pickOf(v['pick']), 'ghost', scene),
  ),
  rule([`(make|play|keep) {pick} {level} ${BUT}`, `{pick} {level} ${BUT}`], (v, scene) =>
    setLevel(less(v), v['level'] as Level, scene),
  ),
  rule(
    [
      '{level} {pick} [as well|too|please|hard|a bit|a little|strongly]',
      '[put|play|add] {level} [notes|note|strokes|stroke|hits] (on|at|to|for) {pick}',
      '(make|play|keep|hit|turn|have|set|take|bring|strike) {pick} [down|up] [to be|into|as] [a bit|a little|much|very|really|even] {level} [notes|note|strokes|stroke|ones]',
      '{pick} (as|are|into|become|become all|should be|get|gets|is|played) {level} [notes|strokes|note|stroke]',
      '{pick} [a bit|a little|much|very|really] {level}',
    ],
    (v, scene) => setLevel(pickOf(v['pick']), v['level'] as Level, scene),
  ),
  rule(
    [
      '{level} every {n} [slots|strokes] [,] [counted|counting|starting|beginning] [from [the] 1|from the start|on the 1]',
    ],
    (v, scene) => {
      const [n, level] = [v['n'] as number, v['level'] as Level];
      if (n < 2 || n * scene.pattern.grid > scene.pattern.length) return wrong(`every ${n}`, 'The phrase is shorter.');
      return acts([offerOf('level', { select: every(n), level })]);
    },
  ),
  rule(
    [
      '(only|just) {level} {pick}',
      '{level} (only|just) [on] {pick}',
      '(only|just) {pick} (accented|loud|ghosted|soft)',
      '{level} {pick} only',
    ],
    (v, scene) => onlyLevel(pickOf(v['pick']), (v['level'] as Level | undefined) ?? 'accent', scene),
  ),
  rule(
    [
      '(no|without|lose|drop) {level} [notes|strokes]',
      'take [away|off] [the] {level}',
      'take [the] {level} (off|away|out)',
      '[all] [the] {level} off',
    ],
    (v, scene) => {
      const level = v['level'] as Level;
      if (level === 'tap') return wrong('no taps', 'Say what they should be.');
      const own = scene.pattern.strokes.flatMap((s, i) => (s.level === level ? [i] : []));
      if (own.length === 0) return wrong(level === 'accent' ? 'accents' : 'ghosts', 'There are none.');
      return {
        acts: [act([offerOf('level', { select: { levels: [level] }, level: 'tap' })], themOf(scene.pattern, own))],
      };
    },
  ),
  rule(['(no|without|lose|drop) {pick:pick}', 'take {pick} off', 'unaccent {pick}'], (v, scene) => {
    const pick = pickOf(v['pick']);
    const [level] = pick.levels ?? [];
    if (!level || level === 'tap' || pick.limb || pick.voices) return wrong(pick.said, '');
    return setLevel(pick, 'tap', scene);
  }),
];

/** Whether only the way of striking changes, on the drum it is on: no stroke goes anywhere. */
function waysOfStriking(lists: VoicesSaid): boolean {
  return lists.every((l) => l.every((v) => v === 'rimshot' || v === 'cross-stick'));
}

/** Sends strokes to pieces; feet stay on their pedals. */
function send(pick: Pick, lists: VoicesSaid, scene: Scene, under: boolean, limb: Limb | null = null): Said {
  const ways = chosen(pick, scene, waysOfStriking(lists) ? 'count' : 'ask-beat');
  if (isWrong(ways)) return ways;
  const { pattern } = scene;
  const found = [];
  for (const own of ways.ways) {
    if (allOf(pattern, own, 'feet') && limb === null) {
      const [to] = lists[0] ?? [];
      return wrong(to ? VOICE[to].name : pick.said, 'A foot stays on its pedal.');
    }
    const hands = own.filter((i) => isHand(pattern.strokes[i]?.limb ?? 'K'));
    for (const voices of lists) {
      const select = selectorOf(pick, pattern, hands);
      const offer = offerOf('voice', { select, voices: [...voices], ...(under ? { under: 'K' as const } : {}) });
      found.push(act([offer], themOf(pattern, hands)));
    }
  }
  return { acts: found };
}

const KICK_UNDER =
  '[,] [and] [with|add] [the|a] (kick|bass drum) [underneath|under|under it|under them|with it|with them|along|below|beneath]';

const VOICES_SAID: Rule[] = [
  rule(
    [
      '(replace|exchange|swap|change) {pick} (with|by|for) {voices}',
      '{voices} instead-of {pick}',
      '(use|take) {voices} (for|instead-of) {pick}',
    ],
    (v, scene) => send(pickOf(v['pick']), v['voices'] as VoicesSaid, scene, false),
  ),
  rule([`[send|move|put|play|take|bring] {pick} [over|down|up] (to|on|onto) {voices} ${BUT}`], (v, scene) =>
    send(less(v), v['voices'] as VoicesSaid, scene, false),
  ),
  rule(
    [
      '[send|move|put|play|take|bring|shift|orchestrate|voice|switch|get|have|give|place|spread|change] {pick} [goes|go|moves|move|come|comes|jumps|jump] [over|down|up|across|out] (to|on|onto|over|into|in|at|for) {voices} [instead|please|too]',
      '{pick} [becomes|become|turn into|turns into|as|are|is] {voices}',
      '(make|play|turn) {pick} [into|as|to] {voices}',
      '{pick} (goes|go) (to|on) {voices}',
    ],
    (v, scene) => send(pickOf(v['pick']), v['voices'] as VoicesSaid, scene, false),
  ),
  rule(
    [
      `[send|move|put|play|take|bring|orchestrate|voice] {pick} [goes|go|moves] [over|down|up] (to|on|onto) {voices} ${KICK_UNDER}`,
    ],
    (v, scene) => send(pickOf(v['pick']), v['voices'] as VoicesSaid, scene, true),
  ),
  rule(
    [
      '{pick} (alternate|alternates|alternating|in turn|take turns|swing) [between|on] {voices} [in turn]',
      '[send|move|put|play] {pick} [in turn|by turns|alternately] (to|on|between) {voices} [in turn|by turns|alternately]',
    ],
    (v, scene) => {
      const lists = v['voices'] as VoicesSaid;
      return (lists[0]?.length ?? 0) < 2
        ? wrong('between', 'Name two pieces.')
        : send(pickOf(v['pick']), lists, scene, false);
    },
    1,
  ),
  rule([`{voices} (on|at) {counts} ${KICK_UNDER}`, `(crash|hit) (on|at) {counts} ${KICK_UNDER}`], (v, scene) => {
    const lists = (v['voices'] as VoicesSaid | undefined) ?? [['crash-right']];
    return send({ base: null, counts: v['counts'] as NonNullable<Pick['counts']>, said: 'there' }, lists, scene, true);
  }),
  rule(['{voices} (on|at) {counts}', '[play|put|hit] {voices} (on|at) {pick}'], (v, scene) => voiceOn(v, scene)),
  rule(['open [up] [the] hat (on|at) {counts}', '[the] hat (open|opens) (on|at) {counts}'], (v, scene) =>
    voiceOn({ ...v, voices: [['hat-open']] }, scene),
  ),
];

/** "open hat on the & of 4": the stroke that a hand plays there goes to the piece; where none does it is added. */
function voiceOn(v: Readonly<Record<string, unknown>>, scene: Scene): Said {
  const lists = v['voices'] as VoicesSaid;
  const pick: Pick = v['counts']
    ? { base: null, counts: v['counts'] as NonNullable<Pick['counts']>, said: '' }
    : pickOf(v['pick']);
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
        (i) => target !== undefined && VOICE[pattern.strokes[i]?.voice ?? 'kick'].piece === VOICE[target].piece,
      );
      return same.length > 0 ? same : w;
    };
    const struck = new Set(hands[0]?.map((i) => pattern.strokes[i]?.at as number));
    if (all && all.some((t) => !struck.has(t)))
      return wrong(pick.said || 'there', 'Not all of these places are struck.');
    return {
      acts: hands.flatMap((w) =>
        lists.map((voices) =>
          act(
            [offerOf('voice', { select: selectorOf(pick, pattern, kin(w)), voices: [...voices] })],
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
      return act([addAt(pattern, all, limb, voice, 'tap')], new Set(all.map((t) => `${t} ${limb}`)));
    }),
  };
}

/** Strokes put in at places where nothing stands in their way. */
export function addAt(pattern: Pattern, at: readonly number[], limb: Limb, voice: Voice, level: Level): Offer {
  return offerOf('touch', { edits: at.map((t) => ({ at: t, limb, stroke: { level, voice } })) });
}

const ORNAMENTS_SAID: Rule[] = [
  rule(
    [
      '{ornament} [on|onto|into|for|to|before|at] {pick}',
      '[put|play|add|give] {ornament} (on|onto|into|for|to|before|at) {pick}',
      '(make|play|turn|change) {pick} [into|as|to] {ornament}',
      '{pick} [as|with|get|gets|are|become] {ornament}',
    ],
    (v, scene) => {
      const pick = pickOf(v['pick']);
      // "A drag before 4" leads to the 4.
      if (/^(?:before|after)\b/i.test(pick.said)) return wrong(pick.said, 'Say on which stroke.');
      return forStrokes(pick, scene, (_, own) => {
        const hands = own.filter((i) => isHand(scene.pattern.strokes[i]?.limb ?? 'K'));
        if (hands.length === 0) return { wrong: pick.said, why: 'Feet play no grace strokes.' };
        return [
          offerOf('ornament', { select: selectorOf(pick, scene.pattern, hands), ornament: v['ornament'] as Ornament }),
        ];
      });
    },
  ),
  rule(
    ['(no|without|leave out|take away|drop) [the] {ornament} [on {pick}]', 'no grace (notes|strokes)'],
    (v, scene) => {
      const what = v['ornament'] as Ornament | undefined;
      const own = scene.pattern.strokes.flatMap((s, i) => (s.ornament && (!what || s.ornament === what) ? [i] : []));
      if (own.length === 0) return wrong(what ?? 'grace strokes', 'There are none.');
      return { acts: [act([offerOf('ornament', { select: selectorOf(ANY, scene.pattern, own), ornament: 'none' })])] };
    },
  ),
];

type To = LimbTerm | 'other';

/** Gives strokes to a limb. A hand that takes over strokes of a foot plays the snare. */
function give(pick: Pick, to: To, scene: Scene): Said {
  const { pattern } = scene;
  const target = to === 'other' ? 'other' : (limbsHere(pattern, { base: null, limb: to, said: '' }) ?? []);
  if (target !== 'other' && target.length !== 1) return wrong(pick.said, 'Say which limb.');
  const limb: Limb | 'other' = target === 'other' ? 'other' : (target[0] ?? 'K');
  return forStrokes(
    pick,
    scene,
    (_, own) => {
      if (limb === 'other' && allOf(pattern, own, 'feet')) return { wrong: pick.said, why: 'Those are feet.' };
      const moved = own.filter((i) => limb === 'other' || pattern.strokes[i]?.limb !== limb);
      if (moved.length === 0) return { wrong: pick.said, why: 'That limb plays them already.' };
      return [offerOf('swap', { select: selectorOf(pick, pattern, moved), limb })];
    },
    'ask-beat',
  );
}

const SWAPS: Rule[] = [
  rule(
    [
      '(give|hand|swap|change|turn|play|put|move|switch|make|exchange|take) {pick} [over] (to|with|by|for|onto|into|on) {limb:to} [instead]',
      '(make|turn) {pick} {limb:to} [strokes]',
      '{pick} (with|by|to|on|onto|for|becomes|become|in|into) {limb:to} [instead]',
      '(replace|exchange) {pick} (with|by|for) {limb:to}',
      '{limb:to} (instead-of|for) {pick}',
    ],
    (v, scene) => give(pickOf(v['pick']), v['to'] as To, scene),
  ),
  rule(['(replace|exchange|swap) {pick} (with|by|for) {limb:to} (on|at) {counts}'], (v, scene) =>
    give({ ...pickOf(v['pick']), counts: v['counts'] as NonNullable<Pick['counts']> }, v['to'] as To, scene),
  ),
  rule(
    [
      '(give|hand|play|put|switch|swap) {pick} [over] (to|with|by|on) [the] other-hand',
      '{pick} (with|by|to|in) [the] other-hand',
    ],
    (v, scene) => give(pickOf(v['pick']), 'other', scene),
  ),
  rule(
    [
      '{pick} (on|to|with) [the] double-pedal [, (right foot|kick) first|, (kick|right) foot first|, {limb:first} first|starting with {limb:first}]',
      '(play|put|make) {pick} (on|to|with) [the] double-pedal [, {limb:first} first]',
      '[the] double-pedal (on|over|for) {pick}',
    ],
    (v, scene) => doublePedal(pickOf(v['pick']), v['first'] as LimbTerm | undefined, scene),
  ),
];

/** Feet in turn, the kick foot first: in place of what is struck, or where nothing is. */
function doublePedal(pick: Pick, first: LimbTerm | undefined, scene: Scene): Said {
  const { pattern } = scene;
  const lead: Limb = first?.open === 'left foot' || first?.limbs.includes('J') ? 'J' : 'K';
  const feet: readonly Limb[] = lead === 'K' ? ['K', 'J'] : ['J', 'K'];
  const own = chosen(pick, scene);
  const there = places(pick, pattern);
  const struck = isWrong(own) ? [] : (own.ways[0] ?? []);
  const at =
    there && !isWrong(there) ? (there.ways[0] ?? []) : [...new Set(struck.map((i) => pattern.strokes[i]?.at ?? 0))];
  if (at.length === 0) return isWrong(own) ? own : wrong(pick.said, 'There are none here.');
  const gone = pattern.strokes.filter((s) => at.includes(s.at)).map((s) => ({ at: s.at, limb: s.limb, stroke: null }));
  const added = at.map((t, i) => ({
    at: t,
    limb: feet[i % 2] ?? 'K',
    stroke: { level: 'tap' as const, voice: 'kick' as const },
  }));
  const kept = gone.filter((g) => !added.some((a) => a.at === g.at && a.limb === g.limb));
  return {
    acts: [act([offerOf('touch', { edits: [...kept, ...added] })], new Set(added.map((a) => `${a.at} ${a.limb}`)))],
  };
}

const DROPS: Rule[] = [
  rule(
    [
      '(leave|take|keep|put) out {pick}',
      '(leave|take|keep) {pick} (out|away|empty|silent|free)',
      '(omit|silence|mute|skip|rest|clear|empty|lose|drop) [out] {pick}',
      '(no|without) {pick}',
      '[a] rest (on|for|at|instead-of) {pick}',
      '[play|put|have] nothing (on|in|at) {pick}',
      '(make|keep|leave|have) {pick} (silent|empty)',
      '{pick} (out|away)',
    ],
    (v, scene) => leaveOut(pickOf(v['pick']), scene, 'ask'),
  ),
  rule(
    ['(clear|empty|silence|mute) [out] {pick}', 'nothing in {pick}'],
    (v, scene) => leaveOut(pickOf(v['pick']), scene, 'beat'),
    -1,
  ),
  rule(
    [
      '[play] nothing after {count:after}',
      '[play] nothing before {count:before}',
      '[play] nothing from {count:since} [on|onwards]',
    ],
    (v, scene) => {
      const edges = v as Partial<Pick>;
      return leaveOut({ ...edges, base: 'all', said: 'nothing' }, scene, 'count');
    },
  ),
  rule(['(remove|cut|delete|cut out|throw out) {pick}'], (v, scene) => removeOrRest(pickOf(v['pick']), scene)),
];

function leaveOut(pick: Pick, scene: Scene, beats: 'ask' | 'beat' | 'count'): Said {
  const plain = pick.levels && !pick.limb && !pick.voices ? pick.levels[0] : undefined;
  // "no accents" takes the accents from the strokes, not the strokes.
  if (plain === 'accent' && !pick.order) return setLevel(pick, 'tap', scene);
  return forStrokes(pick, scene, (select) => [offerOf('drop', { select })], beats);
}

/** "cut bar 2": rests in its place, or a phrase that is so much shorter. */
function removeOrRest(pick: Pick, scene: Scene): Said {
  const rests = leaveOut(pick, scene, 'ask');
  const { pattern } = scene;
  const bar = barTicks(pattern.meter);
  if ('wrong' in rests || !pick.bars || pick.limb || pick.levels || pick.voices) return rests;
  const last = pick.bars.map((b) => (b === 'last' ? Math.ceil(pattern.length / bar) : b));
  const end = pattern.length / bar;
  // Only bars at the end can go without the rest moving up.
  const first = Math.min(...last);
  if (last.length !== end - first + 1 || first < 2 || pattern.start !== 0) return rests;
  return {
    acts: [
      ...rests.acts,
      act([offerOf('fit', { space: { bars: first - 1 }, start: '1', mirrored: false, close: { kind: 'cut' } })]),
    ],
  };
}

/** Both hands at once: the other hand joins where one plays. */
const UNISONS: Rule[] = [
  rule(
    [
      '[a] unison [of] [the] [both] [hands] (on|at) {pick}',
      '[unison] (both hands|hands) [together|at once|in unison] (on|at) {pick}',
      '{pick} (together|in unison|as a unison) [with both hands]',
    ],
    (v, scene) => {
      const { pattern } = scene;
      return forStrokes(pickOf(v['pick']), scene, (_, own) => {
        const edits = own.flatMap((i) => {
          const s = pattern.strokes[i];
          if (!s || !isHand(s.limb)) return [];
          const other = otherHand(s.limb);
          const taken = pattern.strokes.some((o) => o.at === s.at && o.limb === other);
          const voice = canStrike(other, s.voice) ? s.voice : usualVoice(other);
          return taken ? [] : [{ at: s.at, limb: other, stroke: { level: s.level, voice } }];
        });
        return edits.length === 0
          ? { wrong: 'unison', why: 'No hand plays there alone.' }
          : [offerOf('touch', { edits })];
      });
    },
  ),
];

export const STROKE_RULES: readonly Rule[] = [
  ...LEVELS_SAID,
  ...VOICES_SAID,
  ...ORNAMENTS_SAID,
  ...SWAPS,
  ...DROPS,
  ...UNISONS,
];
