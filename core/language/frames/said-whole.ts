import { isHand } from '../../stroke';
import { LINEAR_WAYS, offerOf, type LinearWay } from '../../recipe';
import { gridName, gridsOf, type Grid } from '../../time';
import type { Values } from '../lexicon/template';
import { acts, wrong, type RuleContext, type Said } from '../rules/rule';
import { markerOf, no, wholeOrNone } from './said';

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
