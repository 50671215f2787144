import { isHand } from '../../stroke';
import { LINEAR_WAYS, offerOf, type LinearWay, type MoveParams } from '../../recipe';
import { gridName, gridsOf, type Grid } from '../../time';
import type { Values } from '../lexicon/template';
import type { Pick } from '../grammar/pick';
import { act, acts, forStrokes, wrong, type RuleContext, type Said } from '../rules/rule';
import { isPlace } from './meanings';
import { markerOf, no, pickIn, wholeOrNone } from './said';

/** "Play it backwards": the order of strokes, of all of it. */
export function backwards(v: Values): Said {
  if (v['each'] === true && v['pick'] === undefined) return acts([offerOf('reverse', { by: 'group' })]);
  return wholeOrNone(v) ? acts([offerOf('reverse', {})]) : no(v);
}

/** "Reverse it" is either: the hands, or the order. */
export function reversed(v: Values, scene: RuleContext): Said {
  if (!wholeOrNone(v)) return no(v);
  const hands = scene.pattern.strokes.some((s) => isHand(s.limb));
  const order = [offerOf('reverse', {})];
  return hands ? acts([offerOf('mirror', { feet: false })], order) : acts(order);
}

/** "Make it linear": as it is said, or each of the ways there are. */
export function madeLinear(v: Values): Said {
  if (!wholeOrNone(v)) return no(v);
  const gives = v['gives'] as LinearWay | undefined;
  return acts(...(gives ? [gives] : LINEAR_WAYS).map((give) => [offerOf('linear', { give })]));
}

/** "In triplets over the same bars": the cell laid anew. */
export function gridOver(v: Values, scene: RuleContext): Said {
  const grid = v['grid'] as Grid;
  if (!wholeOrNone(v) || !['', 'in', 'as', 'on', 'to', 'into', 'with'].includes(markerOf(v, 'grid'))) return no(v);
  if (!gridsOf(scene.pattern.meter).includes(grid))
    return wrong(gridName(grid), 'That subdivision does not fit the meter.');
  return grid === scene.pattern.grid
    ? wrong(gridName(grid), 'It already is.')
    : acts([offerOf('grid', { grid, fill: true })]);
}

/** "From 3 to 4&", "all after 2": where, and nothing of what it is. */
function isStretch({ base, limb, levels, voices, ornaments, order, before, after, since, to }: Pick): boolean {
  const what = limb ?? levels ?? voices ?? ornaments ?? order;
  return base === 'all' && what === undefined && (before ?? after ?? since ?? to) !== undefined;
}

/** "Bar 4 on its own", "beat 3 as a phrase": the phrase is that part. */
export function onItsOwn(v: Values, scene: RuleContext): Said {
  const pick = pickIn(v);
  if (!(isPlace(pick) || isStretch(pick)) || !['', 'from', 'of'].includes(markerOf(v, 'pick'))) return no(v);
  return forStrokes(pick, scene, (select) => [offerOf('only', { select })], 'beat');
}

/**
 * "Beat 3 in triplets": in the time that it has, by the order of its strokes or each in its place; or as it is, and
 * what follows moves up.
 */
export function gridWithin(v: Values, scene: RuleContext, otherwise?: Said): Said {
  const [pick, grid] = [pickIn(v), v['grid'] as Grid];
  const by = v['inPlace'] === true ? 'place' : v['inOrder'] === true ? 'order' : null;
  if (!gridsOf(scene.pattern.meter).includes(grid))
    return wrong(gridName(grid), 'That subdivision does not fit the meter.');
  if (grid === scene.pattern.grid) return wrong(gridName(grid), 'It already is.');
  const ways: readonly ('order' | 'place')[] = by ? [by] : ['order', 'place'];
  const all = ways.map((way) =>
    forStrokes(pick, scene, (select) => [offerOf('grid', { grid, within: { select, by: way } })], 'beat'),
  );
  const bad = all.find((s) => 'wrong' in s);
  if (bad) return bad;
  const met = all.flatMap((s) => ('acts' in s ? s.acts : []));
  const rest = !by && v['sameTime'] === undefined && otherwise && 'acts' in otherwise ? otherwise.acts : [];
  return { acts: [...met, ...rest] };
}

/** "Double up beat 4", "double the last note": twice as many strokes in its time. */
export function doubledUp(v: Values, scene: RuleContext): Said {
  const half = gridsOf(scene.pattern.meter).find((g) => g === scene.pattern.grid / 2);
  const pick = pickIn(v);
  const side = /^(?:first|last|nth)$/.test(pick.order?.kind ?? '') && !pick.limb && !pick.levels && !pick.voices;
  return (isPlace(pick) || side) && markerOf(v, 'pick') === '' && half !== undefined
    ? gridWithin({ ...v, grid: half, inPlace: true }, scene)
    : no(v);
}

/** What hands play round a line where nothing is said of it: each is offered. */
const USUAL_HANDS = ['R L', 'R R L L', 'R L R R L R L L'];

/** "R L L round the kick": the line stays, the hands fill what is free. */
export function roundLine(v: Values, scene: RuleContext): Said {
  const pick = v['around'] as Pick;
  const letters = (v['hands'] ?? v['sticking']) as string | undefined;
  const texts = letters ? [Array.from(letters).join(' ')] : USUAL_HANDS;
  const said = forStrokes(pick, scene, (select) => [
    offerOf('round', { select, text: texts[0] ?? 'R L', ...(v['anew'] === true ? { anew: true as const } : {}) }),
  ]);
  if (!('acts' in said) || texts.length === 1) return said;
  return {
    acts: said.acts.flatMap(({ moves }) =>
      texts.map((text) => act(moves.map((m) => offerOf('round', { ...(m.params as MoveParams['round']), text })))),
    ),
  };
}

/** The same, where no verb says that something is filled: only round what nobody takes for a way over the kit. */
export function roundFeet(v: Values, scene: RuleContext): Said {
  const { limb, levels, voices } = v['around'] as Pick;
  const isLine = (limb?.limbs.every((l) => !isHand(l)) ?? false) || (levels?.length ?? 0) > 0;
  return isLine && voices === undefined ? roundLine(v, scene) : no(v);
}
