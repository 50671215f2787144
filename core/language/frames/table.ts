import { type Level } from '../../stroke';
import { type Grid } from '../../time';
import { offerOf } from '../../recipe';
import { chosen } from '../grammar/choose';
import { refOf, type CountSaid } from '../grammar/counts';
import type { Pick } from '../grammar/pick';
import { isWrong } from '../grammar/stretches';
import type { VoicesSaid } from '../grammar/slots';
import type { LimbTerm } from '../lexicon/terms';
import { along } from '../rules/added';
import { times } from '../rules/fill';
import { landing, round } from '../rules/kit';
import { acts } from '../rules/rule';
import { countsOnto, endingOn, onto } from '../rules/shift';
import { leaveOut, removeOrRest } from '../rules/strokes';
import { give } from '../rules/voices';
import type { Frame } from './frames';
import { groupedHeights, isPlace, isWhole, keptOnly, tradedBars, tradedPieces } from './meanings';

import {
  pickIn,
  markerOf,
  named,
  no,
  sent,
  levelled,
  isNewGrace,
  joins,
  ornamented,
  moved,
  filled,
  ROUTES,
  handsChanged,
  alongOn,
  led,
  wholeOrNone,
  turned,
  begunWith,
  onTheOne,
  steadyLimb,
  inGroupsOf,
  stuckSo,
  filledUntil,
  gapsFilled,
  trimmed,
  putBehind,
  stuck,
} from './said';

/** What each act takes, the roles in whatever order they are said. */
export const FRAMES: readonly Frame[] = [
  { acts: ['send'], unsaid: true, needs: ['pick', 'voices'], may: ['under'], mean: sent },
  ...(['accent', 'ghost', 'tap'] as const).map((act): Frame => ({
    acts: [act],
    unsaid: false,
    needs: ['pick'],
    may: ['only'],
    mean: (v, scene) => levelled(act, v, scene),
  })),
  {
    acts: ['level', 'add', 'keep'],
    unsaid: true,
    needs: ['pick', 'level'],
    may: ['only'],
    mean: (v, scene) => levelled(v['level'] as Level, v, scene),
  },
  {
    acts: ['accent', 'level'],
    unsaid: true,
    needs: ['level', 'sizes'],
    may: ['only'],
    mean: (v, scene) => groupedHeights(v['level'] as Level, v['sizes'] as readonly number[], scene),
  },
  { acts: ['add'], unsaid: true, needs: ['pick', 'ornament'], may: [], mean: ornamented },
  {
    acts: ['rest'],
    unsaid: false,
    needs: ['pick'],
    may: [],
    mean: (v, scene) => (named(v, '', 'of', 'on', 'at') ? leaveOut(pickIn(v), scene, 'ask') : no(v)),
  },
  {
    acts: ['remove'],
    unsaid: false,
    needs: ['pick'],
    may: [],
    mean: (v, scene) => (named(v, '') ? removeOrRest(pickIn(v), scene) : no(v)),
  },
  {
    acts: ['give'],
    unsaid: true,
    needs: ['pick', 'limb'],
    may: [],
    mean: (v, scene) =>
      named(v, '', 'for', 'of', 'on') && !(named(v, 'on') && markerOf(v, 'limb') === 'on') && !isNewGrace(v)
        ? give(pickIn(v), v['limb'] as LimbTerm, scene)
        : no(v),
  },
  {
    acts: ['give'],
    unsaid: false,
    needs: ['player', 'pick'],
    may: [],
    mean: (v, scene) => (named(v, '') ? give(pickIn(v), v['player'] as LimbTerm, scene) : no(v)),
  },
  { acts: ['add'], unsaid: false, needs: ['player', 'pick'], may: ['level'], mean: (v, s) => joins(v, s, true) },
  { acts: [], unsaid: true, needs: ['player', 'pick'], may: [], mean: (v, s) => joins(v, s, false) },
  {
    acts: ['follow'],
    unsaid: false,
    needs: ['pick', 'limb'],
    may: [],
    mean: (v, scene) => (named(v, '') ? along(v['limb'] as LimbTerm, pickIn(v), scene) : no(v)),
  },
  {
    acts: ['follow'],
    unsaid: false,
    needs: ['player', 'pick'],
    may: ['voices'],
    mean: (v, scene) => (named(v, '', 'along with') ? alongOn(v, scene) : no(v)),
  },
  {
    acts: ['add'],
    unsaid: true,
    needs: ['strokes', 'where'],
    may: [],
    mean: (v) =>
      acts([
        offerOf('insert', {
          text: v['strokes'] as string,
          where: { kind: v['where'] === 'start' ? ('start' as const) : ('end' as const) },
        }),
      ]),
  },
  { acts: ['fill'], unsaid: false, needs: ['space'], may: ['pick', 'close', 'swapped'], mean: filled },
  { acts: ['shift'], unsaid: true, needs: ['far', 'way'], may: ['pick', 'only'], mean: moved },
  { acts: ['shift'], unsaid: false, needs: ['far'], may: ['pick', 'only'], mean: moved },
  {
    acts: ['route', 'send'],
    unsaid: true,
    needs: ['route'],
    may: ['pick', 'size'],
    mean: (v, scene) => {
      const pick = v['pick'] as Pick | undefined;
      const own = pick && !isWhole(pick) ? { pick } : {};
      const size = v['size'] === undefined ? {} : { size: v['size'] };
      return round({ ...own, ...size }, scene, ROUTES[v['route'] as string] ?? []);
    },
  },
  {
    acts: [],
    unsaid: true,
    needs: ['grid', 'pick'],
    may: [],
    mean: (v, scene) => {
      if (isWhole(pickIn(v))) return onto(scene, v['grid'] as Grid);
      const { counts } = pickIn(v);
      return counts && isPlace(pickIn(v)) ? countsOnto(counts, v['grid'] as number, scene) : no(v);
    },
  },
  { acts: ['keep', 'rest'], unsaid: false, needs: ['only', 'pick'], may: [], mean: (v, s) => keptOnly(pickIn(v), s) },
  { acts: ['stick'], unsaid: true, needs: ['hands'], may: ['pick'], mean: (v, s) => stuck(v, s) },
  {
    acts: ['trade'],
    unsaid: false,
    needs: ['pick'],
    may: [],
    mean: (v, scene) =>
      pickIn(v).and
        ? tradedPieces(pickIn(v), scene)
        : pickIn(v).bars && !pickIn(v).limb
          ? tradedBars(pickIn(v), scene)
          : handsChanged(v, scene),
  },
  { acts: ['mirror'], unsaid: false, needs: ['pick'], may: [], mean: handsChanged },
  { acts: ['lead'], unsaid: false, needs: ['player', 'pick'], may: [], mean: led },
  { acts: ['stick'], unsaid: true, needs: ['sticking'], may: ['pick', 'first'], mean: stuckSo },
  { acts: ['fill'], unsaid: true, needs: ['until'], may: ['pick', 'close'], mean: filledUntil },
  {
    acts: ['fill'],
    unsaid: true,
    needs: ['times'],
    may: ['pick'],
    mean: (v, scene) => {
      const pick = v['pick'] as Pick | undefined;
      return pick && !isWhole(pick) ? no(v) : times(scene, v['times'] as number, false);
    },
  },
  { acts: ['gaps'], unsaid: false, needs: ['player'], may: ['level'], mean: gapsFilled },
  { acts: ['trim', 'keep'], unsaid: false, needs: ['pick'], may: ['only'], mean: trimmed },
  { acts: ['add'], unsaid: false, needs: ['strokes', 'pick'], may: [], mean: putBehind },
  { acts: [], unsaid: true, needs: ['strokes', 'pick'], may: [], mean: putBehind },
  // What stays changes nothing.
  {
    acts: ['keep'],
    unsaid: false,
    needs: ['pick'],
    may: [],
    mean: (v, scene) => {
      if (!named(v, '')) return no(v);
      const ways = chosen(pickIn(v), scene);
      return isWrong(ways) ? ways : { acts: [{ moves: [], words: '' }] };
    },
  },
  { acts: ['mirror', 'stick', 'lead'], unsaid: true, needs: ['first'], may: ['pick'], mean: turned },
  {
    acts: ['land'],
    unsaid: false,
    needs: ['count'],
    may: ['pick'],
    mean: (v, scene) => (wholeOrNone(v) ? endingOn(v['count'] as CountSaid, scene) : no(v)),
  },
  {
    acts: ['start'],
    unsaid: false,
    needs: ['count'],
    may: ['pick'],
    mean: (v) =>
      wholeOrNone(v)
        ? acts([offerOf('shift', { slots: 0, mode: 'wrap', start: refOf(v['count'] as CountSaid) })])
        : no(v),
  },
  { acts: ['start', 'lead'], unsaid: false, needs: ['limb'], may: ['pick'], mean: begunWith },
  {
    acts: ['land'],
    unsaid: false,
    needs: ['voices'],
    may: ['under', 'limb', 'count', 'pick'],
    mean: (v) =>
      wholeOrNone(v) && onTheOne(v) ? landing(v['voices'] as VoicesSaid, v['limb'] as LimbTerm, true) : no(v),
  },
  { acts: ['keep', 'add'], unsaid: true, needs: ['player', 'grid'], may: ['under'], mean: steadyLimb },
  { acts: [], unsaid: true, needs: ['size'], may: ['pick'], mean: inGroupsOf },
  {
    acts: ['land'],
    unsaid: false,
    needs: ['pick'],
    may: [],
    mean: (v, scene) => {
      const { counts = [] } = pickIn(v);
      const [only, ...more] = counts;
      return only && more.length === 0 && isPlace(pickIn(v)) && named(v, 'on', 'at') ? endingOn(only, scene) : no(v);
    },
  },
];
