import { isHand, type Level, type Ornament } from '../../stroke';
import { lcm } from '../../base';
import { barTicks, GRID, type Grid } from '../../time';
import { leadHand } from '../../pattern';
import { offerOf } from '../../recipe';
import { type CountSaid } from '../grammar/counts';
import type { Pick } from '../grammar/pick';
import { selectionOf } from '../grammar/said-select';
import type { FarSaid, VoicesSaid } from '../grammar/slots';
import type { Values } from '../lexicon/template';
import type { LimbTerm } from '../lexicon/terms';
import { addedOn, along, steadyFeet } from '../rules/added';
import { fill, spaceSaid } from '../rules/fill';
import { acts, addAt, forStrokes, wrong, type Said, type RuleContext } from '../rules/rule';
import { displaced, onto } from '../rules/shift';
import { onlyLevel, setLevel } from '../rules/strokes';
import { send, voiceOn } from '../rules/voices';
import type { RoleName } from './roles';
import { displacedSome, groupedHeights, handsInTurn, isPlace, isWhole } from './meanings';

export const pickIn = (v: Values): Pick => v['pick'] as Pick;
export const markerOf = (v: Values, role: string): string => (v['by'] as Readonly<Record<string, string>>)[role] ?? '';
/** Only where the strokes are named with one of these before them. */
export const named = (v: Values, ...by: readonly string[]): boolean => by.includes(markerOf(v, 'pick'));
export const no = (v: Values): Said => wrong((v['pick'] as Pick | undefined)?.said ?? '', '');

export const OF_STROKES = ['', 'for', 'on', 'of', 'at', 'in'];

/** Strokes to pieces, in place of what they strike now; where nothing is struck, put in. */
export function sent(v: Values, scene: RuleContext): Said {
  const [pick, lists] = [pickIn(v), v['voices'] as VoicesSaid];
  const by = markerOf(v, 'voices');
  if (!named(v, ...OF_STROKES, 'with', 'from') || by === 'from') return no(v);
  // "With" names the one or the other.
  if (by === 'with' && named(v, 'with')) return no(v);
  // Where it goes "to" something is there already.
  return isPlace(pick) && ['', 'with', 'using'].includes(by)
    ? voiceOn({ pick, voices: lists }, scene)
    : send(pick, lists, scene, v['under'] !== undefined);
}

export function levelled(level: Level, v: Values, scene: RuleContext): Said {
  if (!named(v, ...OF_STROKES, 'to')) return no(v);
  const pick = pickIn(v);
  return v['only'] === undefined ? setLevel(pick, level, scene) : onlyLevel(pick, level, scene);
}

/** "A flam", and nothing of the strokes that have one. */
export const isGrace = ({ ornaments, limb, levels, voices }: Pick): boolean =>
  ornaments !== undefined && !limb && !levels && !voices;
/** "A flam on the left hand" is a new one. */
export const isNewGrace = (v: Values): boolean => isGrace(pickIn(v)) && !['to', 'by'].includes(markerOf(v, 'limb'));

/** A limb that joins strokes, or stands on counts. */
export function joins(v: Values, scene: RuleContext, sure: boolean): Said {
  const [pick, term] = [pickIn(v), v['player'] as LimbTerm];
  const under = named(v, 'under', 'underneath', 'beneath', 'below', 'with', 'along with', 'behind');
  if ((!under && !named(v, 'on', 'at', 'in', 'to', 'for')) || isGrace(pick)) return no(v);
  const level = v['level'] as Level | undefined;
  // A place takes a new stroke; strokes are played along with.
  const places = pick.counts !== undefined && !pick.limb && !pick.levels && !pick.voices;
  if (places) return addedOn(term, pick, scene, sure || under ? 'add' : 'ask', level);
  if (!under && !sure) return no(v);
  return level === undefined ? along(term, pick, scene) : no(v);
}

export function ornamented(v: Values, scene: RuleContext): Said {
  const pick = pickIn(v);
  if (!named(v, ...OF_STROKES, 'to', 'into', 'onto') || /^(?:before|after)\b/i.test(pick.said)) return no(v);
  const { strokes } = scene.pattern;
  return forStrokes(pick, scene, (_, own) => {
    const hands = own.filter((i) => isHand(strokes[i]?.limb ?? 'K'));
    if (hands.length === 0) return { wrong: pick.said, why: 'Feet do not play grace strokes.' };
    const select = selectionOf(pick, scene.pattern, hands);
    return [offerOf('ornament', { select, ornament: v['ornament'] as Ornament })];
  });
}

export const WAYS: Readonly<Record<string, readonly (1 | -1)[]>> = { later: [1], earlier: [-1], back: [1, -1] };

export function moved(v: Values, scene: RuleContext): Said {
  const pick = v['pick'] as Pick | undefined;
  const far = v['far'] as FarSaid;
  const ways = WAYS[(v['way'] as string | undefined) ?? 'later'] ?? [1];
  if (pick && !isWhole(pick)) {
    if (!named(v, '', 'for', 'of', 'on', 'with')) return no(v);
    return displacedSome(pick, far, ways, scene);
  }
  const all = ways.map((way) => displaced(far, scene, way));
  const bad = all.find((s) => 'wrong' in s);
  return bad ?? { acts: all.flatMap((s) => ('acts' in s ? s.acts : [])) };
}

export function filled(v: Values, scene: RuleContext): Said {
  const pick = v['pick'] as Pick | undefined;
  if (pick && !isWhole(pick)) return no(v);
  const close = v['close'] as 'cut' | 'rest' | undefined;
  return fill(scene, spaceSaid(v, scene), {
    ...(v['swapped'] === undefined ? {} : { mirrored: true }),
    ...(close ? { close: { kind: close } } : {}),
  });
}

export const ROUTES: Readonly<Record<string, readonly ('snare' | 'high-tom' | 'mid-tom' | 'floor-tom')[]>> = {
  down: ['high-tom', 'mid-tom', 'floor-tom'],
  up: ['floor-tom', 'mid-tom', 'high-tom'],
  round: ['snare', 'high-tom', 'mid-tom', 'floor-tom'],
};

/** The hands of a part change: those of the whole phrase are mirrored by a rule of its own. */
export function handsChanged(v: Values, scene: RuleContext): Said {
  const pick = pickIn(v);
  const hands = pick.limb?.limbs.join() === 'R,L' || pick.base === 'hands';
  const part = pick.bars ?? pick.counts ?? pick.half;
  if (!hands || part === undefined) return no(v);
  return forStrokes(pick, scene, (select) => [offerOf('swap', { select, limb: 'other' })], 'beat');
}

/** A limb plays with strokes, on a piece that may be named. */
export function alongOn(v: Values, scene: RuleContext): Said {
  // Who follows is named first.
  const order = v['order'] as readonly RoleName[];
  if (order.indexOf('player') > order.indexOf('pick')) return no(v);
  const lists = v['voices'] as VoicesSaid | undefined;
  if (lists?.some((l) => l.length !== 1)) return no(v);
  return along(v['player'] as LimbTerm, pickIn(v), scene, lists?.flat() ?? null);
}

/** A part is led by the other hand: its hands change over. */
export function led(v: Values, scene: RuleContext): Said {
  const pick = pickIn(v);
  const [hand, ...others] = (v['player'] as LimbTerm).limbs;
  if (!isPlace(pick) || !hand || !isHand(hand) || others.length > 0) return no(v);
  return forStrokes(
    { ...pick, limb: { limbs: ['R', 'L'] } },
    scene,
    (select, own) => {
      const first = scene.pattern.strokes[own[0] ?? -1];
      if (first?.limb === hand) return { wrong: hand === 'R' ? 'right' : 'left', why: 'It already leads.' };
      return [offerOf('swap', { select, limb: 'other' })];
    },
    'beat',
  );
}

export const wholeOrNone = (v: Values): boolean => v['pick'] === undefined || isWhole(pickIn(v));

/** The other hand leads all of it. */
export function turned(v: Values, scene: RuleContext): Said {
  if (!wholeOrNone(v)) return no(v);
  const hand = v['first'] as 'R' | 'L';
  if (leadHand(scene.pattern.strokes) === hand) return wrong(hand === 'R' ? 'right' : 'left', 'It already leads.');
  return acts([offerOf('mirror', { feet: false })]);
}

/** A hand that begins all of it. */
export function begunWith(v: Values, scene: RuleContext): Said {
  const [hand, ...others] = (v['limb'] as LimbTerm).limbs;
  if (!wholeOrNone(v) || !hand || !isHand(hand) || others.length > 0 || markerOf(v, 'limb') !== 'with') return no(v);
  return turned({ first: hand }, scene);
}

/** A landing falls on a 1. */
export function onTheOne(v: Values): boolean {
  const count = v['count'] as CountSaid | undefined;
  return count === undefined || (count.beat === 1 && count.syllable === '');
}

/** A foot that goes on and on. */
export function steadyLimb(v: Values, scene: RuleContext): Said {
  return steadyFeet({ limb: v['player'] }, scene, v['grid'] as number);
}

/** "In fives": so many to the beat, or accents so far apart. */
export function inGroupsOf(v: Values, scene: RuleContext): Said {
  const size = v['size'] as number;
  const grid = GRID_OF[size];
  if (!wholeOrNone(v) || markerOf(v, 'size') !== 'in' || grid === undefined) return no(v);
  const [as, grouped] = [onto(scene, grid), groupedHeights('accent', [size], scene)];
  if ('wrong' in grouped) return as;
  return 'wrong' in as ? grouped : { acts: [...as.acts, ...grouped.acts] };
}
export const GRID_OF: Readonly<Record<number, Grid>> = {
  3: GRID.triplets,
  5: GRID.quintuplets,
  6: GRID.sextuplets,
  7: GRID.septuplets,
};

export function stuckSo(v: Values, scene: RuleContext): Said {
  const pick = v['pick'] as Pick | undefined;
  if (pick && !isWhole(pick)) return no(v);
  const hands = v['sticking'] as string;
  const first = v['first'] as 'R' | 'L' | undefined;
  const turned = first === 'L' ? hands.replace(/[RL]/g, (h) => (h === 'R' ? 'L' : 'R')) : hands;
  return handsInTurn(turned, scene);
}

/** To the end of the bar, or to the first repeat that ends on a bar line. */
export function filledUntil(v: Values, scene: RuleContext): Said {
  const pick = v['pick'] as Pick | undefined;
  if (pick && !isWhole(pick)) return no(v);
  const { pattern } = scene;
  const bar = barTicks(pattern.meter);
  if (v['until'] === 'bar')
    return fill(scene, { bars: Math.max(1, Math.ceil(pattern.length / bar)) }, { close: { kind: 'cut' } });
  if (pattern.length === 0 || pattern.start !== 0) return wrong('until', 'It does not begin on the 1.');
  const bars = lcm(pattern.length, bar) / bar;
  return bars > 16 ? wrong('until', `That would be ${bars} bars.`) : fill(scene, { bars }, { close: { kind: 'cut' } });
}

/** A limb on every slot where nothing is struck. */
export function gapsFilled(v: Values, { pattern }: RuleContext): Said {
  const [limb, ...others] = (v['player'] as LimbTerm).limbs;
  if (!limb || others.length > 0) return wrong('gaps', 'Say with which limb.');
  const struck = new Set(pattern.strokes.map((s) => Math.floor(s.at / pattern.grid)));
  const slots = Array.from({ length: Math.floor(pattern.length / pattern.grid) }, (_, i) => i);
  const free = slots.filter((slot) => !struck.has(slot)).map((slot) => slot * pattern.grid);
  if (free.length === 0) return wrong('gaps', 'There are none here.');
  return acts([addAt(free, limb, undefined, (v['level'] as Level | undefined) ?? 'tap')]);
}

/** Only what is named stays, and the phrase ends with it. */
export function trimmed(v: Values, scene: RuleContext): Said {
  const pick = pickIn(v);
  if (pick.order?.kind !== 'first' || pick.limb || pick.levels || !named(v, '', 'to')) return no(v);
  return forStrokes(pick, scene, (select) => [
    offerOf('cut', { select: { is: 'but', of: { is: 'all' }, not: select } }),
  ]);
}

/** Strokes put in behind others, so that the phrase gets longer. */
export function putBehind(v: Values, scene: RuleContext): Said {
  const pick = pickIn(v);
  if (!named(v, 'after', 'behind')) return no(v);
  // Behind a pair is behind its second stroke.
  const own: Pick =
    pick.order?.kind === 'doubles' ? { ...pick, order: { kind: 'of', which: 2, each: 'double' } } : pick;
  if (isPlace(own) || own.base === 'it') return no(v);
  return forStrokes(own, scene, (select) => [
    offerOf('insert', { text: v['strokes'] as string, where: { kind: 'behind', select } }),
  ]);
}

export function stuck(v: Values, scene: RuleContext): Said {
  const pick = v['pick'] as Pick | undefined;
  return pick && !isWhole(pick) ? no(v) : handsInTurn(v['hands'] as string, scene);
}
