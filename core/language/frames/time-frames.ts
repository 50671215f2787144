import { barsSpan } from '../../pattern';
import { barTicks, beatTicks, type Grid, gridName } from '../../time';
import { offerOf } from '../../recipe';
import { refOf, textOfCount, type CountSaid } from '../grammar/counts';
import type { Pick } from '../grammar/pick';
import type { FarSaid, SpaceSaid } from '../grammar/slots';
import type { Values } from '../lexicon/template';
import { barCopied, filledBySizes, times } from '../rules/fill';
import { acts, wrong, type Said, type RuleContext } from '../rules/rule';
import { countsOnto, endingOn, onto, partOnto, placeOnto, rated, ratedTo, restarted, slotsFar } from '../rules/shift';
import type { Frame } from './frames';
import { isPlace, isWhole, strokeMoved } from './meanings';
import {
  begunAt,
  begunWith,
  copied,
  filled,
  filledUntil,
  filledWith,
  gapsFilled,
  handsSwapped,
  inGroupsOf,
  isHands,
  moved,
  putAtEnds,
  putBefore,
  putBehind,
  stuck,
  stuckSo,
  turned,
} from './said-times';
import { handsChanged } from './said-pieces';
import { markerOf, named, no, pickIn, wholeOrNone } from './said';
import {
  backwards,
  doubledUp,
  gridOver,
  gridWithin,
  madeLinear,
  onItsOwn,
  reversed,
  roundFeet,
  roundLine,
} from './said-whole';

const farOf = (space: SpaceSaid): FarSaid =>
  'bars' in space ? { of: 'bar', n: space.bars } : { of: 'beat', n: space.beats };

type Where = Parameters<typeof offerOf<'insert'>>[1]['where'];

const put = (text: unknown, where: Where): Said => acts([offerOf('insert', { text: text as string, where })]);
const isOneBar = (v: Values): boolean => {
  const space = v['space'] as SpaceSaid | undefined;
  return v['until'] === 'bar' || (space !== undefined && 'bars' in space && space.bars === 1);
};

/** A grid for all of it, or for slots that stand side by side. */
function gridded(v: Values, scene: RuleContext): Said {
  const [grid, old] = [v['grid'] as Grid, v['oldGrid'] as Grid | undefined];
  if (old !== undefined && old !== scene.pattern.grid) return wrong(gridName(old), 'It is not on them.');
  const pick = v['pick'] as Pick | undefined;
  // "Play these as 32nds", where none were named, is all of it.
  const isThese = pick?.base === 'them' && !scene.them && Object.keys(pick).every((k) => k === 'base' || k === 'said');
  if (!pick || isWhole(pick) || isThese) return onto(scene, grid);
  if (old !== undefined) return no(v);
  const { counts, bars, half, order } = pick;
  if (order && named(v, '') && !counts && !bars && !half && !pick.limb && !pick.levels && !pick.voices)
    return slotsOnto(order, grid, pick.said, scene);
  if (!isPlace(pick)) return no(v);
  if (counts) {
    const slots = countsOnto(counts, grid, scene);
    // "3 and 4" may be slots: only a beat that is called one has time of its own.
    return counts.every((c) => c.as !== 'count') ? gridWithin(v, scene, slots) : slots;
  }
  return (bars ?? half) === undefined ? no(v) : gridWithin(v, scene, placeOnto(pick, grid, scene));
}

/** "The first four as 32nds", "slots 3 to 4 as triplets". */
function slotsOnto(order: NonNullable<Pick['order']>, grid: Grid, said: string, scene: RuleContext): Said {
  const all = scene.pattern.length / scene.pattern.grid;
  const part =
    order.kind === 'first'
      ? partOnto(scene, 1, order.n, grid)
      : order.kind === 'last'
        ? partOnto(scene, all - order.n + 1, all, grid)
        : order.kind === 'range'
          ? partOnto(scene, order.from, order.to, grid)
          : null;
  return part ? acts(part) : wrong(said, 'There are fewer than that.');
}

/** The last stroke falls on a count. */
function endedOn(v: Values, scene: RuleContext): Said {
  const pick = v['pick'] as Pick | undefined;
  const isLast = pick?.order?.kind === 'last' && pick.order.n === 1 && !pick.limb && !pick.levels && !pick.counts;
  if (pick && !isWhole(pick) && !isLast) return no(v);
  return markerOf(v, 'count') === 'on' || markerOf(v, 'count') === 'at'
    ? endingOn(v['count'] as CountSaid, scene)
    : no(v);
}

/** A bar that is played again behind the last, or as a bar that is not there yet. */
function barAgain(v: Values, scene: RuleContext): Said {
  const pick = pickIn(v);
  if (!pick.bars || !isPlace(pick) || pick.half || pick.counts || pick.and || !named(v, '')) return no(v);
  const target = v['target'] as Pick | undefined;
  if (target && (!target.bars || target.half || target.counts)) return no(v);
  const { bars } = barsSpan(scene.pattern);
  // A bar that is there is written over elsewhere (copied).
  if (target?.bars?.some((b) => b === 'last' || b <= bars)) return no(v);
  return barCopied({ bars: pick.bars, to: target?.bars }, scene);
}

const startOn = (count: CountSaid): Said => acts([offerOf('shift', { slots: 0, mode: 'wrap', start: refOf(count) })]);

function restartedOn(v: Values, scene: RuleContext): Said {
  const count = v['count'] as CountSaid;
  const pick = v['pick'] as Pick | undefined;
  if (pick && !isWhole(pick) && !(pick.bars && isPlace(pick))) return no(v);
  return v['toEnd'] === undefined
    ? restarted({ count, bars: pick?.bars }, scene)
    : acts([offerOf('restart', { at: refOf(count), until: 'end' })]);
}

/** When, how long and how often: room that is filled, what is displaced, put in, copied, turned, on another grid. */
export const TIME_FRAMES: readonly Frame[] = [
  {
    acts: ['fill'],
    unsaid: true,
    needs: ['space'],
    may: ['pick', 'close', 'swapped', 'closing', 'count', 'ending', 'allOfIt'],
    mean: filled,
  },
  {
    acts: ['fill'],
    unsaid: true,
    needs: ['space', 'groups'],
    may: ['pick'],
    mean: (v, s) => (wholeOrNone(v) ? filledBySizes({ ...v, sizes: v['groups'] }, s) : no(v)),
  },
  {
    acts: ['fill'],
    unsaid: true,
    needs: ['groups'],
    may: ['pick'],
    mean: (v, s) => (wholeOrNone(v) ? filledBySizes({ ...v, sizes: v['groups'] }, s) : no(v)),
  },
  {
    // "Cut it after three beats"
    acts: ['trim', 'remove'],
    unsaid: false,
    needs: ['space'],
    may: ['pick'],
    mean: (v, s) => {
      const { beats, bars } = v['space'] as { readonly beats?: number; readonly bars?: number };
      const room = bars === undefined ? (beats ?? 0) * beatTicks(s.pattern.meter) : bars * barTicks(s.pattern.meter);
      const says = ['', 'to', 'after', 'down to'].includes(markerOf(v, 'space'));
      if (!says || !wholeOrNone(v)) return no(v);
      return room > 0 && room < s.pattern.length
        ? filled({ ...v, close: 'cut' }, s)
        : wrong('that long', 'It is no longer than that.');
    },
  },
  { acts: ['fill'], unsaid: true, needs: ['until'], may: ['pick', 'close', 'count', 'closing'], mean: filledUntil },
  {
    acts: ['fill'],
    unsaid: false,
    needs: ['count'],
    may: ['pick'],
    mean: (v, s) =>
      wholeOrNone(v) && markerOf(v, 'count') === 'from' ? filled({ ...v, space: { bars: 1 } }, s) : no(v),
  },
  ...(['space', 'until'] as const).flatMap((room): Frame[] => [
    {
      acts: ['fill'],
      unsaid: false,
      needs: [room, 'strokes'],
      may: [],
      mean: (v, s) => (markerOf(v, 'strokes') === 'with' && isOneBar(v) ? filledWith(v, s) : no(v)),
    },
    {
      acts: ['fill'],
      unsaid: false,
      needs: [room, 'sticking'],
      may: [],
      mean: (v, s) => (isOneBar(v) ? filledWith(v, s) : no(v)),
    },
  ]),
  {
    acts: ['fill', 'copy'],
    unsaid: false,
    needs: ['swapped'],
    may: ['pick'],
    mean: (v, s) => (wholeOrNone(v) ? times(s, 2, true) : no(v)),
  },
  {
    acts: ['fill'],
    unsaid: true,
    needs: ['times'],
    may: ['pick', 'swapped'],
    mean: (v, s) => (wholeOrNone(v) ? times(s, v['times'] as number, v['swapped'] !== undefined) : no(v)),
  },
  {
    acts: ['twice'],
    unsaid: false,
    needs: [],
    may: ['pick'],
    mean: (v, s) => (wholeOrNone(v) ? times(s, 2, false) : no(v)),
  },
  { acts: ['fill', 'copy'], unsaid: false, needs: ['pick'], may: ['target'], mean: barAgain },
  { acts: [], unsaid: true, needs: ['pick', 'again'], may: [], mean: barAgain },
  // "Play beat 1 again in beat 2"
  { acts: [], unsaid: true, needs: ['pick', 'again', 'target'], may: ['swapped'], mean: copied },
  { acts: ['copy', 'fill'], unsaid: true, needs: ['pick', 'source'], may: ['swapped'], mean: copied },
  { acts: ['copy', 'fill'], unsaid: false, needs: ['pick', 'target'], may: ['swapped'], mean: copied },
  { acts: ['gaps'], unsaid: false, needs: ['player'], may: ['level'], mean: gapsFilled },
  {
    acts: ['gaps', 'add', 'fill'],
    unsaid: true,
    needs: ['player', 'inGaps'],
    may: ['level', 'beneath'],
    mean: gapsFilled,
  },
  // What holds the sticking or the rhythm changes nothing, and says what is changed elsewhere.
  { acts: ['keep'], unsaid: false, needs: ['form'], may: [], mean: () => acts([]) },
  { acts: [], unsaid: true, needs: ['sameForm'], may: [], mean: () => acts([]) },
  {
    acts: ['add'],
    unsaid: true,
    needs: ['strokes', 'where'],
    may: [],
    mean: (v) => put(v['strokes'], { kind: v['where'] === 'start' ? 'start' : 'end' }),
  },
  {
    acts: ['add'],
    unsaid: true,
    needs: ['extra'],
    may: ['where'],
    mean: (v) => put(v['extra'], { kind: v['where'] === 'start' ? 'start' : 'end' }),
  },
  {
    acts: ['append', 'add'],
    unsaid: false,
    needs: ['strokes'],
    may: [],
    mean: (v) => put(v['strokes'], { kind: 'end' }),
  },
  {
    acts: ['add', 'append', 'keep', 'rest'],
    unsaid: true,
    needs: ['silence'],
    may: ['where'],
    mean: (v, s) => {
      const said = v['silence'] as SpaceSaid | FarSaid;
      const far = 'of' in said ? said : farOf(said);
      // "A rest" is a stroke that is none, and says not how long.
      if (far.of === 'slot') return no(v);
      const slots = slotsFar(far, s);
      if (!Number.isInteger(slots) || slots < 1 || slots > 256)
        return wrong('that long', 'That is no whole number of slots.');
      return put(Array.from({ length: slots }, () => '-').join(' '), {
        kind: v['where'] === 'start' ? 'start' : 'end',
      });
    },
  },
  {
    acts: ['start'],
    unsaid: false,
    needs: ['strokes'],
    may: ['pick'],
    mean: (v) => (markerOf(v, 'strokes') === 'with' && wholeOrNone(v) ? put(v['strokes'], { kind: 'start' }) : no(v)),
  },
  {
    acts: ['add'],
    unsaid: true,
    needs: ['strokes', 'every'],
    may: [],
    mean: (v) => put(v['strokes'], { kind: 'every', slots: v['every'] as number }),
  },
  {
    acts: ['add'],
    unsaid: true,
    needs: ['strokes', 'slot'],
    may: [],
    mean: (v) => put(v['strokes'], { kind: 'after', slot: v['slot'] as number }),
  },
  {
    acts: ['add', 'pickup'],
    unsaid: true,
    needs: ['strokes', 'pickup'],
    may: [],
    mean: (v) => acts([offerOf('pickup', { text: v['strokes'] as string })]),
  },
  {
    acts: ['pickup'],
    unsaid: false,
    needs: ['strokes'],
    may: [],
    mean: (v) => acts([offerOf('pickup', { text: v['strokes'] as string })]),
  },
  { acts: ['add', 'append'], unsaid: true, needs: ['strokes', 'end'], may: [], mean: putAtEnds },
  { acts: ['add', 'rest'], unsaid: true, needs: ['strokes', 'before'], may: [], mean: putBefore },
  { acts: ['add'], unsaid: false, needs: ['strokes', 'pick'], may: [], mean: putBehind },
  { acts: [], unsaid: true, needs: ['strokes', 'pick'], may: [], mean: putBehind },
  { acts: ['shift'], unsaid: true, needs: ['far', 'way'], may: ['pick', 'only'], mean: moved },
  { acts: ['shift'], unsaid: false, needs: ['far'], may: ['pick', 'only'], mean: moved },
  {
    acts: ['start', 'shift'],
    unsaid: false,
    needs: ['count'],
    may: ['pick'],
    mean: (v) =>
      wholeOrNone(v) && v['again'] === undefined && isCountOf(v, 'on', 'at', 'from', 'to')
        ? startOn(v['count'] as CountSaid)
        : no(v),
  },
  {
    acts: [],
    unsaid: true,
    needs: ['count', 'pick'],
    may: [],
    mean: (v) =>
      wholeOrNone(v) && /begins|starts/.test(markerOf(v, 'count')) ? startOn(v['count'] as CountSaid) : no(v),
  },
  { acts: ['start'], unsaid: false, needs: ['pick'], may: [], mean: begunAt },
  { acts: ['restart'], unsaid: false, needs: ['count'], may: ['pick', 'toEnd'], mean: restartedOn },
  {
    acts: ['land', 'end', 'fall'],
    unsaid: false,
    needs: ['count'],
    may: ['pick'],
    mean: (v, s) => (textOfCount(v['count'] as CountSaid) === '1' && v['pick'] === undefined ? no(v) : endedOn(v, s)),
  },
  {
    acts: ['send', 'shift'],
    unsaid: true,
    needs: ['pick', 'count'],
    may: [],
    mean: (v, s) => {
      const pick = pickIn(v);
      if (isWhole(pick)) return no(v);
      const ended = endedOn(v, s);
      const one = pick.order !== undefined && (pick.limb ?? pick.voices ?? pick.levels) !== undefined;
      const isTo = named(v, '') && ['to', 'on'].includes(markerOf(v, 'count'));
      return 'wrong' in ended && one && isTo ? strokeMoved(pick, v['count'] as CountSaid, s) : ended;
    },
  },
  {
    acts: ['land', 'end'],
    unsaid: false,
    needs: ['pick'],
    may: [],
    mean: (v, scene) => {
      const { counts = [] } = pickIn(v);
      const [only, ...more] = counts;
      const isCount = only && more.length === 0 && isPlace(pickIn(v)) && named(v, 'on', 'at');
      return isCount && textOfCount(only) !== '1' ? endingOn(only, scene) : no(v);
    },
  },
  {
    acts: [],
    unsaid: true,
    needs: ['grid'],
    may: ['pick', 'oldGrid'],
    mean: gridded,
  },
  {
    // "Stretch it to eighths"
    acts: ['longer', 'shorter'],
    unsaid: false,
    needs: ['grid'],
    may: ['pick'],
    mean: (v, s) =>
      wholeOrNone(v) && ['to', 'into'].includes(markerOf(v, 'grid')) ? onto(s, v['grid'] as Grid) : no(v),
  },
  { acts: ['give'], unsaid: false, needs: ['grid', 'oldGrid'], may: [], mean: gridded },
  {
    acts: ['shorter', 'longer'],
    unsaid: true,
    needs: ['rate'],
    may: ['pick'],
    mean: (v) => (wholeOrNone(v) ? (v['rate'] === '2' ? rated(2, 1) : rated(1, 2)) : no(v)),
  },
  {
    acts: ['shorter'],
    unsaid: false,
    needs: ['pick'],
    may: [],
    mean: (v) => (isWhole(pickIn(v)) ? rated(1, 2) : no(v)),
  },
  {
    acts: ['longer'],
    unsaid: false,
    needs: ['pick'],
    may: [],
    mean: (v) => (isWhole(pickIn(v)) ? rated(2, 1) : no(v)),
  },
  {
    acts: ['shorter', 'longer'],
    unsaid: false,
    needs: ['space'],
    may: ['pick'],
    mean: (v, s) => (wholeOrNone(v) ? ratedTo(v, s) : no(v)),
  },
  {
    acts: ['shorter', 'longer'],
    unsaid: false,
    needs: ['space', 'room'],
    may: [],
    mean: (v, s) => (markerOf(v, 'space') === '' ? ratedTo({ old: v['space'], space: v['room'] }, s) : no(v)),
  },
  {
    acts: ['shorter', 'longer'],
    unsaid: false,
    needs: ['space', 'into'],
    may: [],
    mean: (v, s) => (markerOf(v, 'space') === '' ? ratedTo({ old: v['space'], bars: v['into'] }, s) : no(v)),
  },
  { acts: ['stick'], unsaid: true, needs: ['hands'], may: ['pick'], mean: stuck },
  { acts: ['stick'], unsaid: true, needs: ['sticking'], may: ['pick', 'first'], mean: stuckSo },
  { acts: [], unsaid: true, needs: ['size'], may: ['pick'], mean: inGroupsOf },
  { acts: ['keep', 'rest', 'remove', 'isolate'], unsaid: true, needs: ['pick', 'ownPhrase'], may: [], mean: onItsOwn },
  { acts: ['isolate'], unsaid: true, needs: ['pick', 'alone'], may: [], mean: onItsOwn },
  { acts: ['isolate'], unsaid: false, needs: ['pick'], may: [], mean: onItsOwn },
  {
    acts: ['fill', 'gaps', 'add'],
    unsaid: false,
    needs: ['around'],
    may: ['hands', 'sticking', 'anew'],
    mean: roundLine,
  },
  { acts: [], unsaid: true, needs: ['around'], may: ['hands', 'sticking', 'player', 'anew'], mean: roundFeet },
  { acts: ['reverse'], unsaid: false, needs: [], may: [], mean: reversed },
  { acts: ['mirror', 'start'], unsaid: true, needs: ['backwards'], may: ['pick', 'each'], mean: backwards },
  { acts: [], unsaid: true, needs: ['linear'], may: ['pick', 'gives'], mean: madeLinear },
  { acts: ['fill'], unsaid: true, needs: ['grid', 'sameTime'], may: ['pick'], mean: gridOver },
  {
    acts: ['fill', 'rest'],
    unsaid: true,
    needs: ['pick', 'grid', 'sameTime'],
    may: ['inPlace', 'inOrder'],
    mean: (v, s) => (isPlace(pickIn(v)) ? gridWithin(v, s) : no(v)),
  },
  {
    acts: ['rest', 'follow'],
    unsaid: true,
    needs: ['pick', 'grid', 'inPlace'],
    may: [],
    mean: (v, s) => (isPlace(pickIn(v)) ? gridWithin(v, s) : no(v)),
  },
  {
    acts: [],
    unsaid: true,
    needs: ['pick', 'grid', 'inOrder'],
    may: [],
    mean: (v, s) => (isPlace(pickIn(v)) ? gridWithin(v, s) : no(v)),
  },
  { acts: ['follow'], unsaid: false, needs: ['pick'], may: [], mean: doubledUp },
  { acts: ['mirror'], unsaid: false, needs: ['pick'], may: [], mean: handsChanged },
  { acts: ['hands'], unsaid: false, needs: [], may: ['pick'], mean: handsSwapped },
  {
    acts: [],
    unsaid: true,
    needs: ['turned'],
    may: ['pick'],
    mean: (v, s) => (wholeOrNone(v) || isHands(pickIn(v)) ? handsSwapped({}, s) : handsSwapped(v, s)),
  },
  { acts: ['mirror', 'stick', 'lead', 'start'], unsaid: true, needs: ['first'], may: ['pick'], mean: turned },
  {
    acts: ['lead', 'start'],
    unsaid: false,
    needs: ['player'],
    may: ['pick'],
    mean: (v, s) => (wholeOrNone(v) ? begunWith({ ...v, limb: v['player'], by: { limb: 'with' } }, s) : no(v)),
  },
  { acts: ['start', 'lead'], unsaid: false, needs: ['limb'], may: ['pick'], mean: begunWith },
  {
    acts: ['lead', 'start'],
    unsaid: false,
    needs: ['other'],
    may: ['pick'],
    mean: (v, s) => (wholeOrNone(v) ? handsSwapped({}, s) : no(v)),
  },
];

const isCountOf = (v: Values, ...by: readonly string[]): boolean => by.includes(markerOf(v, 'count'));
