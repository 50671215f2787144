import { cut } from './cut';
import { drop } from './drop';
import { fit } from './fit';
import { follow } from './follow';
import { grid } from './grid';
import { insert } from './insert';
import { land } from './land';
import { layer } from './layer';
import { level } from './level';
import { linear } from './linear';
import { mirror } from './mirror';
import { only } from './only';
import { ornament } from './ornament';
import { pickup } from './pickup';
import { rate } from './rate';
import { restart } from './restart';
import { reverse } from './reverse';
import { round } from './round';
import { route } from './route';
import { shift } from './shift';
import { swap } from './swap';
import { touch } from './touch';
import { voice } from './voice';

/**
 * The one table of moves that know one phrase only, in the order in which a menu offers them: the order of the work.
 * Their parameters, names, sentences and schemas derive from it. `join`, which holds another phrase, is added to them
 * in `registry.ts`.
 */
export const PLAIN_MOVES = Object.freeze({
  grid,
  rate,
  insert,
  drop,
  cut,
  swap,
  fit,
  shift,
  restart,
  only,
  mirror,
  reverse,
  linear,
  round,
  level,
  ornament,
  voice,
  route,
  follow,
  layer,
  land,
  pickup,
  touch,
});

export { fitSlots } from './fit-space';
export { EditSchema, type Edit, type Matter } from './edit';
export { LINEAR_WAYS, type LinearWay } from './linear';
export { amended } from './touch';
