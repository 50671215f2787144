import { isHand, LIMBS, otherHand, type Level } from '../../stroke';
import { lcm, mod } from '../../base';
import { barTicks, GRID, type Grid } from '../../time';
import { leadHand } from '../../pattern';
import { offerOf } from '../../recipe';
import { refOf, textOfCount, type CountSaid } from '../grammar/counts';
import { alikeOf, chosen } from '../grammar/choose';
import type { Pick } from '../grammar/pick';
import { isWrong } from '../grammar/stretches';
import type { FarSaid } from '../grammar/slots';
import type { Values } from '../lexicon/template';
import type { LimbTerm } from '../lexicon/terms';
import { fill, singles, spaceSaid } from '../rules/fill';
import { acts, addAt, forStrokes, wrong, type Said, type RuleContext } from '../rules/rule';
import { displaced, onto } from '../rules/shift';
import { displacedSome, groupedHeights, handsInTurn, isPlace, isWhole, partCopied } from './meanings';
import { pickIn, markerOf, named, no, wholeOrNone } from './said';

export const WAYS: Readonly<Record<string, readonly (1 | -1)[]>> = { later: [1], earlier: [-1], back: [1, -1] };

export function moved(v: Values, scene: RuleContext): Said {
  const pick = v['pick'] as Pick | undefined;
  const far = v['far'] as FarSaid;
  // "Push right two slots" is no hand.
  if (/^(?:right|left)$/i.test(pick?.said ?? '')) return no(v);
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
  const closing = v['closing'] as string | undefined;
  const space = spaceSaid(v, scene);
  const [from, to] = [v['count'] as CountSaid | undefined, v['ending'] as CountSaid | undefined];
  if (from && !/from|starting|beginning/.test(markerOf(v, 'count'))) return no(v);
  const text = closing === 'singles' ? singles(scene, space, from ? refOf(from) : '1') : closing;
  const whole = v['allOfIt'] === true;
  if ((close && text !== undefined) || (whole && text === undefined)) return no(v);
  return fill(scene, space, {
    ...(v['swapped'] === undefined ? {} : { mirrored: true }),
    ...(from ? { start: refOf(from) } : {}),
    ...(to ? { end: textOfCount(to) } : {}),
    ...(close ? { close: { kind: close } } : {}),
    ...(text === undefined ? {} : { close: { kind: 'strokes', text, ...(whole ? { whole: true as const } : {}) } }),
  });
}

/** The hands of all of it, or of a part that is named beside what is done. */
export function handsSwapped(v: Values, scene: RuleContext): Said {
  const pick = v['pick'] as Pick | undefined;
  if (!pick || isWhole(pick)) return acts([offerOf('mirror', { feet: false })]);
  if (!isPlace(pick)) return no(v);
  return forStrokes(
    { ...pick, limb: { limbs: ['R', 'L'] } },
    scene,
    (select) => [offerOf('swap', { select, limb: 'other' })],
    'beat',
  );
}

/** The other hand leads all of it. */
export function turned(v: Values, scene: RuleContext): Said {
  if (!wholeOrNone(v)) return no(v);
  const now = leadHand(scene.pattern.strokes);
  const hand = v['first'] === 'other' ? otherHand(now ?? 'R') : (v['first'] as 'R' | 'L');
  if (now === hand) return wrong(hand === 'R' ? 'right' : 'left', 'It already leads.');
  return acts([offerOf('mirror', { feet: false })]);
}

/** A hand that begins all of it. */
export function begunWith(v: Values, scene: RuleContext): Said {
  const [hand, ...others] = (v['limb'] as LimbTerm).limbs;
  if (!wholeOrNone(v) || !hand || !isHand(hand) || others.length > 0 || !['with', 'on'].includes(markerOf(v, 'limb')))
    return no(v);
  return turned({ first: hand }, scene);
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
  const hands = v['sticking'] as string;
  const first = v['first'] as 'R' | 'L' | 'other' | undefined;
  // Which hand is the other one is open where the sticking is another.
  if (first === 'other') return no(v);
  const turned = first === 'L' ? hands.replace(/[RL]/g, (h) => (h === 'R' ? 'L' : 'R')) : hands;
  return inTurnOn(turned, v, scene);
}

/** To the end of the bar, or to the first repeat that ends on a bar line. */
export function filledUntil(v: Values, scene: RuleContext): Said {
  const pick = v['pick'] as Pick | undefined;
  if (pick && !isWhole(pick)) return no(v);
  const { pattern } = scene;
  const bar = barTicks(pattern.meter);
  if (typeof v['until'] === 'number') {
    // Until a bar ends, what is under way then is cut, where nothing else is said.
    const close = v['close'] ?? (v['closing'] === undefined ? 'cut' : undefined);
    return filled({ ...v, space: { bars: v['until'] }, close }, scene);
  }
  if (v['until'] === 'bar' && v['count'] !== undefined) return filled({ ...v, space: { bars: 1 } }, scene);
  if (v['closing'] !== undefined) return no(v);
  const close = { kind: v['close'] === 'rest' ? ('rest' as const) : ('cut' as const) };
  if (v['until'] === 'bar') return fill(scene, { bars: Math.max(1, Math.ceil(pattern.length / bar)) }, { close });
  if (pattern.length === 0 || pattern.start !== 0) return wrong('until', 'It does not begin on the 1.');
  const bars = lcm(pattern.length, bar) / bar;
  return bars > 16 ? wrong('until', `That would be ${bars} bars.`) : fill(scene, { bars }, { close: { kind: 'cut' } });
}

/** A part that is played again elsewhere, or with the other hand. */
export function copied(v: Values, scene: RuleContext): Said {
  const target = (v['target'] ?? v['pick']) as Pick | undefined;
  const source = (v['source'] ?? (v['target'] === undefined ? undefined : v['pick'])) as Pick | string | undefined;
  if (!target || !source) return no(v);
  // "The first beat onto the second"
  const there = typeof source === 'string' ? target : (alikeOf(target, source) ?? target);
  const own: Pick | null =
    typeof source !== 'string'
      ? source
      : target.half === undefined
        ? null
        : { ...target, half: source === 'first' ? 1 : 2 };
  return own && isPlace(own) && isPlace(there) ? partCopied(own, there, v['swapped'] !== undefined, scene) : no(v);
}

/** The phrase begins with a stroke that stands in it: what is before it comes behind. */
export function begunAt(v: Values, scene: RuleContext): Said {
  const pick = pickIn(v);
  // "Start with a kick" puts one in.
  if (/^an? /i.test(pick.said)) return no(v);
  if (pick.counts !== undefined || isWhole(pick) || !named(v, 'on', 'with', 'from', 'at')) return no(v);
  const own = chosen(pick, scene);
  if (isWrong(own)) return own;
  const { pattern } = scene;
  const ticks = [...new Set((own.ways[0] ?? []).map((i) => pattern.strokes[i]?.at ?? 0))];
  const [at = 0, ...more] = ticks;
  if (more.length > 0) return wrong(pick.said, 'Say which of them.');
  if (at === 0) return wrong(pick.said, 'It begins there already.');
  if (at % pattern.grid !== 0) return wrong(pick.said, 'It stands between two slots.');
  return acts([offerOf('shift', { slots: -(at / pattern.grid), mode: 'wrap' })]);
}

/** Strokes put in at the end of each part. */
export function putAtEnds(v: Values, scene: RuleContext): Said {
  const each = v['end'] as 'group' | 'repeat' | 'bar' | 'beat';
  const pick: Pick = { base: 'all', order: { kind: 'of', which: 'last', each }, said: `each ${each}` };
  return forStrokes(pick, scene, (select) => [
    offerOf('insert', { text: v['strokes'] as string, where: { kind: 'behind', select } }),
  ]);
}

/** The phrase once, and strokes over and over to the end of the bar. */
export function filledWith(v: Values, scene: RuleContext): Said {
  const { pattern } = scene;
  const text = v['strokes'] as string | undefined;
  const slots = Math.round((mod(-(pattern.start + pattern.length), barTicks(pattern.meter)) || 0) / pattern.grid);
  if (slots === 0) return wrong('bar', 'It is full.');
  if (text === undefined && v['sticking'] !== 'RL') return no(v);
  const own = text?.split(' ') ?? [];
  const last = leadHand([...pattern.strokes].reverse()) ?? 'L';
  const hands = last === 'R' ? ['L', 'R'] : ['R', 'L'];
  const all = Array.from({ length: slots }, (_, i) => (text === undefined ? hands[i % 2] : own[i % own.length]) ?? '-');
  return acts([offerOf('insert', { text: all.join(' '), where: { kind: 'end' } })]);
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

/** "A rest before the last note": what stands there becomes one, or it comes in between. */
export function putBefore(v: Values, scene: RuleContext): Said {
  const [pick, text] = [v['before'] as Pick, v['strokes'] as string];
  const { strokes, grid } = scene.pattern;
  const said = forStrokes(pick, scene, (_, own) => {
    const at = own.flatMap((i) => strokes[i]?.at ?? []);
    const [first, slot] = [at[0] ?? 0, (at[0] ?? 0) / grid];
    if (new Set(at).size !== 1 || !Number.isInteger(slot)) return { wrong: pick.said, why: 'Say before which one.' };
    const where = first === 0 ? ({ kind: 'start' } as const) : ({ kind: 'after', slot } as const);
    return [offerOf('insert', { text, where })];
  });
  const limb = LIMBS.find((l) => l === text);
  if ('wrong' in said || (text !== '-' && !limb)) return said;
  const there: Pick = { base: null, beside: { how: 'before', what: pick }, said: pick.said };
  const instead = forStrokes(there, scene, (select) => [
    limb ? offerOf('swap', { select, limb }) : offerOf('drop', { select }),
  ]);
  return 'wrong' in instead ? said : { acts: [...instead.acts, ...said.acts] };
}

/** Whether the hands are named, and nothing that narrows them. */
export const isHands = ({ base, limb, counts, bars, half, order, levels, voices }: Pick): boolean =>
  (base === 'hands' || limb?.limbs.join() === 'R,L') && !(counts ?? bars ?? half ?? order ?? levels ?? voices);

/** The hands of all of it, or of a part, in turn as they were said. */
function inTurnOn(hands: string, v: Values, scene: RuleContext): Said {
  const pick = v['pick'] as Pick | undefined;
  if (!pick || isWhole(pick) || isHands(pick)) return handsInTurn(hands, scene);
  const isThere = isPlace(pick) && named(v, '', 'on', 'in', 'of', 'at', 'for');
  if (!isThere || pick.counts?.some((c) => c.syllable !== '')) return no(v);
  const own = chosen(pick, scene, 'beat');
  return isWrong(own) ? own : handsInTurn(hands, scene, own.ways[0]);
}

export function stuck(v: Values, scene: RuleContext): Said {
  return inTurnOn(v['hands'] as string, v, scene);
}
