import { barTicks, beatTicks, countedBeats, GRID, isCompound } from '../../time';
import { canStrike, isHand, usualVoice, type Level, type Limb, type Voice } from '../../stroke';
import { countRef, type Pattern } from '../../pattern';
import { chooses, select } from '../../selection';
import { offerOf, type Offer } from '../../recipe';
import { chosen } from '../grammar/choose';
import { places } from '../grammar/places';
import { selectionOf } from '../grammar/said-select';
import { isWrong, limbsHere } from '../grammar/stretches';
import { refOf, type CountSaid } from '../grammar/counts';
import type { Pick } from '../grammar/pick';
import { act, addAt, allOf, forStrokes, rule, wrong, type Act, type Rule, type Said, type RuleContext } from './rule';
import type { VoicesSaid } from '../grammar/slots';
import type { Values } from '../lexicon/template';
import type { LimbTerm } from '../lexicon/terms';

/** Which limb plays something new: the only one it can be, or several that could be meant. */
function newLimbs({ pattern, isOnePedal }: RuleContext, term: LimbTerm): readonly Limb[] {
  if (term.open === 'left foot') {
    const here = limbsHere(pattern, { base: null, limb: term, said: '' }) ?? [];
    const plays = here.filter((l) => pattern.strokes.some((s) => s.limb === l));
    // A second pedal that plays says nothing of the hi-hat's.
    if (plays.includes('H')) return plays;
    // Where no second pedal is known of, the left foot stands on the hi-hat.
    return plays.includes('J') || isOnePedal === false ? ['H', 'J'] : ['H'];
  }
  if (term.open === 'foot') return ['K'];
  return term.limbs;
}

function footStrokes(pattern: Pattern, at: readonly number[], limb: Limb, level: Level = 'tap'): Offer {
  const bar = barTicks(pattern.meter);
  const everyBar = pattern.start === 0 && pattern.length % bar === 0 ? sameInEveryBar(pattern, at) : null;
  const voice = usualVoice(limb);
  if (everyBar)
    return offerOf('layer', { limb, voice, level, on: { kind: 'counts', counts: [...everyBar] }, clash: 'keep' });
  return addAt(at, limb, voice, level);
}

/** Counts without a bar that stand for exactly these places in every bar; null when there are none. */
function sameInEveryBar(pattern: Pattern, at: readonly number[]): readonly string[] | null {
  const bar = barTicks(pattern.meter);
  const bars = pattern.length / bar;
  const first = at.filter((t) => t < bar);
  if (first.length * bars !== at.length || first.length === 0 || first.length > 24) return null;
  const all = new Set(at);
  for (let b = 0; b < bars; b++) if (!first.every((t) => all.has(b * bar + t))) return null;
  return first.map((t) => countRef({ ...pattern, length: Math.min(pattern.length, bar) as Pattern['length'] }, t));
}

/** Where chosen strokes are. */
function placesOf(pick: Pick, scene: RuleContext): ReturnType<typeof places> {
  const own = chosen(pick, scene);
  if (isWrong(own)) return own;
  const at = (way: readonly number[]): readonly number[] => [
    ...new Set(way.flatMap((i) => scene.pattern.strokes[i]?.at ?? [])),
  ];
  return { ways: own.ways.map(at) };
}

/** "kick on 1 and 3": added where it is free; where a hand plays, under it or in its place, which is asked. */
function limbOn(term: LimbTerm, pick: Pick, scene: RuleContext, mode: 'ask' | 'add', level: Level = 'tap'): Said {
  const { pattern } = scene;
  // "On the last of each beat" is where that one is.
  const there = places(pick, pattern) ?? (pick.order ? placesOf(pick, scene) : null);
  if (there === null) return wrong(pick.said, 'Say on which counts.');
  if (isWrong(there)) return there;
  const at = there.ways[0] ?? [];
  if (at.length === 0) return wrong(pick.said, 'There is no such place here.');
  const limbs = newLimbs(scene, term);
  const hands = pattern.strokes.flatMap((s, i) => (at.includes(s.at) && isHand(s.limb) ? [i] : []));
  const out: Act[] = [];
  // "Both feet" play together.
  if (limbs.length > 1 && !term.open) {
    const feet = limbs.filter((l) => !isHand(l));
    return feet.length < limbs.length
      ? wrong(pick.said, 'Say which limb.')
      : { acts: [act(feet.map((l) => footStrokes(pattern, at, l, level)))] };
  }
  for (const limb of limbs) {
    if (isHand(limb)) continue;
    const own = pattern.strokes.filter((s) => s.limb === limb && at.includes(s.at));
    if (own.length === at.length) return wrong(pick.said, 'It already plays there.');
    out.push(act([footStrokes(pattern, at, limb, level)], new Set(at.map((t) => `${t} ${limb}`))));
    // A hi-hat foot joins a hand; nobody puts it in the hand's place.
    if (mode === 'ask' && scene.sends !== true && scene.isBeneath !== true && hands.length > 0 && limb !== 'H') {
      const struck = new Set(hands.map((i) => pattern.strokes[i]?.at as number));
      const free = at.filter((t) => !struck.has(t));
      const instead = [offerOf('swap', { select: selectionOf(pick, pattern, hands), limb })];
      out.push(act(free.length > 0 ? [...instead, footStrokes(pattern, free, limb, level)] : instead));
    }
  }
  return out.length > 0 ? { acts: out } : wrong(pick.said, 'Say which limb.');
}

/** A hand on counts: added where it is free. */
function handOn(term: LimbTerm, pick: Pick, scene: RuleContext, level: Level): Said {
  const { pattern } = scene;
  const there = places(pick, pattern);
  const [limb, ...others] = term.limbs;
  if (there === null || !limb || others.length > 0) return wrong(pick.said, 'Say on which counts.');
  if (isWrong(there)) return there;
  const at = there.ways[0] ?? [];
  if (at.length === 0) return wrong(pick.said, 'There is no such place here.');
  if (pattern.strokes.some((s) => s.limb === limb && at.includes(s.at)))
    return wrong(pick.said, 'It already plays there.');
  return { acts: [act([addAt(at, limb, usualVoice(limb), level)])] };
}

export function addedOn(
  term: LimbTerm,
  pick: Pick,
  scene: RuleContext,
  mode: 'ask' | 'add',
  level: Level = 'tap',
): Said {
  return term.limbs.every(isHand) && !term.open
    ? handOn(term, pick, scene, level)
    : limbOn(term, pick, scene, mode, level);
}

/**
 * "kick under the accents": a limb plays with each of some strokes, as loud as they are; on a piece that was said, or
 * the one it strikes most. A meaning for each piece and limb it can be.
 */
export function along(term: LimbTerm, pick: Pick, scene: RuleContext, voices: readonly Voice[] | null = null): Said {
  // "My left hand with a flam" has a new one; "with every flam" plays with what is there.
  if (pick.ornaments && !pick.limb && !pick.levels && /^an? /i.test(pick.said)) return wrong(pick.said, '');
  const limbs = newLimbs(scene, term);
  if (limbs.length > 1 && limbs.some(isHand)) return wrong(pick.said, 'Say which hand.');
  const found: Act[] = [];
  // "Both feet under the accents" play together.
  if (limbs.length > 1 && !term.open && voices === null)
    return forStrokes(pick, scene, (select) =>
      limbs.map((limb) =>
        offerOf('follow', { select, limb, voice: mostStruck(scene.pattern, limb), level: 'same', busy: 'goes' }),
      ),
    );
  for (const limb of limbs)
    for (const voice of voices ?? [mostStruck(scene.pattern, limb)]) {
      if (!canStrike(limb, voice)) return wrong(pick.said, 'That limb does not play there.');
      const said = forStrokes(pick, scene, (select) => [
        offerOf('follow', { select, limb, voice, level: 'same', busy: 'goes' }),
      ]);
      if ('wrong' in said) return said;
      found.push(...said.acts);
    }
  return { acts: found };
}

function mostStruck(pattern: Pattern, limb: Limb): Voice {
  const many = new Map<Voice, number>();
  for (const s of pattern.strokes) if (s.limb === limb) many.set(s.voice, (many.get(s.voice) ?? 0) + 1);
  return [...many].sort((a, b) => b[1] - a[1])[0]?.[0] ?? usualVoice(limb);
}

/** A limb that keeps time: feet on their pedals, a hand where it is said to. */
function steady(limbs: readonly Limb[], grid: number, voice?: Voice): Said {
  const found = limbs.map((limb) =>
    act([
      offerOf('layer', {
        limb,
        voice: voice ?? usualVoice(limb),
        level: 'tap',
        on: { kind: 'grid', grid },
        clash: 'keep',
      }),
    ]),
  );
  return { acts: found };
}

export function steadyFeet(v: Values, scene: RuleContext, grid: number): Said {
  const limbs = newLimbs(scene, v['limb'] as LimbTerm);
  return limbs.some(isHand) ? wrong('hand', 'Say which piece it plays.') : steady(limbs, grid);
}

/** The same, and beside it: what the foot plays at other places goes. */
export function orOnlyThose(said: Said, v: Values, scene: RuleContext): Said {
  if ('wrong' in said) return said;
  const { pattern } = scene;
  const grid = v['grid'] as number;
  const limbs = newLimbs(scene, v['limb'] as LimbTerm);
  const between = pattern.strokes.flatMap((s, i) =>
    limbs.includes(s.limb) && (pattern.start + s.at) % grid !== 0 ? [i] : [],
  );
  if (between.length === 0) return said;
  const gone = offerOf('drop', { select: selectionOf({ base: null, said: '' }, pattern, between) });
  return {
    acts: [
      ...said.acts,
      ...said.acts.map((a) => ({ moves: [gone.entry, ...a.moves], words: `${gone.words}, then ${a.words}` })),
    ],
  };
}

/** A hand keeps time on a piece: the right, where none is named. */
export function steadyPiece(v: Values): Said {
  const lists = v['voices'] as VoicesSaid;
  const [hand, ...others] = (v['limb'] as LimbTerm | undefined)?.limbs ?? (['R'] as const);
  if (!hand || others.length > 0) return wrong('hands', 'Say which hand.');
  if (lists.some((l) => l.length !== 1)) return wrong('pieces', 'Name one piece.');
  const pieces = lists.flat();
  if (pieces.some((p) => !canStrike(hand, p))) return wrong('that piece', 'That limb does not play there.');
  return { acts: pieces.flatMap((p) => actsOf(steady([hand], v['grid'] as number, p))) };
}

/** The kick on every beat. */
export function fourOnTheFloor(scene: RuleContext): Said {
  return steady(['K'], isCompound(scene.pattern.meter) ? beatTicks(scene.pattern.meter) : GRID.quarters);
}

/** The left hand accents the backbeats, or the counts that are said. */
export function backbeatOn(said: readonly CountSaid[] | undefined, scene: RuleContext): Said {
  const { pattern } = scene;
  const beats = countedBeats(pattern.meter).length;
  if (beats < 2) return wrong('backbeat', 'There is one beat.');
  const counts = said ? said.map(refOf) : beats >= 4 ? ['2', '4'] : ['2'];
  // A left that plays there already is the backbeat once it is accented.
  const those = chooses({ limbs: ['L'], counts });
  const there = select(pattern, those);
  const accented = there.length > 0 ? [offerOf('level', { select: those, level: 'accent' })] : [];
  return {
    acts: [
      act([
        ...accented,
        offerOf('layer', {
          limb: 'L',
          voice: 'snare',
          level: 'accent',
          on: { kind: 'counts', counts },
          clash: 'keep',
        }),
      ]),
    ],
  };
}

const STEADY: Rule[] = [
  rule(
    ['[add|put|play|lay] {limb} (on|with|at) (every|each|all) [the] (beat|beats|quarter|quarters|numbers)'],
    (v, scene) => steadyFeet(v, scene, beatTicks(scene.pattern.meter)),
  ),
  rule(['[give it|add|put in|put|play|with|lay] [a|the] backbeat [in|on it|under it|on {counts}]'], (v, scene) =>
    backbeatOn(v['counts'] as readonly CountSaid[] | undefined, scene),
  ),
];

const ADDED: Rule[] = [
  // Jotted down: "kick 1+3", "HH foot 2 + 4".
  rule(['{limb} {counts}'], (v, scene) => {
    const term = v['limb'] as LimbTerm;
    const pick: Pick = { base: null, counts: v['counts'] as readonly CountSaid[], said: 'there' };
    return term.limbs.some(isHand) ? wrong(pick.said, 'Say where the hand goes.') : addedOn(term, pick, scene, 'ask');
  }),
  rule(['[a] {limb} (on|at) {pick} [too|as well]'], (v, scene) => {
    const pick = v['pick'] as Pick;
    return pick.counts || pick.order
      ? addedOn(v['limb'] as LimbTerm, pick, scene, 'ask')
      : wrong(pick.said, 'Say on which counts.');
  }),
  rule(
    [
      '[add|put|play] [a] {limb} (under|underneath|with|below|beneath|along with) [every|each|all] {pick}',
      '[add|put|play] [a] {limb} on (every|each|all) [the] {pick}',
    ],
    (v, scene) => {
      const [term, pick] = [v['limb'] as LimbTerm, v['pick'] as Pick];
      // Counts are places, not strokes: a kick is put there.
      if (pick.counts && !pick.limb && !pick.levels) return addedOn(term, pick, scene, 'add');
      return along(term, pick, scene);
    },
  ),
  rule(
    ['[the] {limb} (follows|follow|plays with|play with|plays along with|doubles|goes with) [the|every|each] {pick}'],
    (v, scene) => {
      const voices = v['voices'] as VoicesSaid | undefined;
      const pick = v['pick'] as Pick;
      if (voices?.some((l) => l.length !== 1)) return wrong(pick.said, 'Name one piece.');
      return along(v['limb'] as LimbTerm, pick, scene, voices?.flat() ?? null);
    },
  ),
  rule(['[add|put|play] [a] {voices} (with|on|under|over) (every|each|all) [the] {pick}'], (v, scene) => {
    const lists = v['voices'] as VoicesSaid;
    const pick = v['pick'] as Pick;
    if (lists.some((l) => l.length !== 1)) return wrong(pick.said, 'Name one piece.');
    if (pick.limb && !allOf(scene.pattern, waysOf(pick, scene), 'feet')) return wrong(pick.said, 'Say which hand.');
    return along({ limbs: ['R'] }, pick, scene, lists.flat());
  }),
];

function waysOf(pick: Pick, scene: RuleContext): readonly number[] {
  const ways = chosen(pick, scene);
  return isWrong(ways) ? [] : (ways.ways[0] ?? []);
}

const actsOf = (said: Said): readonly Act[] => ('acts' in said ? said.acts : []);

/** Time that goes on is meant as such, where it can be. */
export const ADDED_RULES: readonly Rule[] = [...STEADY.map((r) => ({ ...r, rank: -1 })), ...ADDED];
