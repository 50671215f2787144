import { isHand, type Level, type Ornament } from '../../stroke';
import type { Grid } from '../../time';
import { offerOf } from '../../recipe';
import type { Pick } from '../grammar/pick';
import { selectionOf } from '../grammar/said-select';
import type { FarSaid, VoicesSaid } from '../grammar/slots';
import type { Values } from '../lexicon/template';
import type { LimbTerm } from '../lexicon/terms';
import { addedOn, along } from '../rules/added';
import { fill, spaceSaid } from '../rules/fill';
import { round } from '../rules/kit';
import { acts, forStrokes, wrong, type Said, type RuleContext } from '../rules/rule';
import { displaced, onto } from '../rules/shift';
import { leaveOut, onlyLevel, removeOrRest, setLevel } from '../rules/strokes';
import { give, send, voiceOn } from '../rules/voices';
import type { Frame } from './frames';
import { displacedSome, groupedHeights, handsInTurn, isPlace, isWhole, keptOnly, tradedBars } from './meanings';

const pickIn = (v: Values): Pick => v['pick'] as Pick;
const markerOf = (v: Values, role: string): string => (v['by'] as Readonly<Record<string, string>>)[role] ?? '';
/** Only where the strokes are named with one of these before them. */
const named = (v: Values, ...by: readonly string[]): boolean => by.includes(markerOf(v, 'pick'));
const no = (v: Values): Said => wrong(pickIn(v).said, '');

const OF_STROKES = ['', 'for', 'on', 'of', 'at', 'in'];

/** Strokes to pieces, in place of what they strike now; where nothing is struck, put in. */
function sent(v: Values, scene: RuleContext): Said {
  const [pick, lists] = [pickIn(v), v['voices'] as VoicesSaid];
  const by = markerOf(v, 'voices');
  if (!named(v, ...OF_STROKES, 'with', 'from') || by === 'from') return no(v);
  // "With" names the one or the other.
  if (by === 'with' && named(v, 'with')) return no(v);
  return isPlace(pick) ? voiceOn({ pick, voices: lists }, scene) : send(pick, lists, scene, v['under'] !== undefined);
}

function levelled(level: Level, v: Values, scene: RuleContext): Said {
  if (!named(v, ...OF_STROKES, 'to')) return no(v);
  const pick = pickIn(v);
  return v['only'] === undefined ? setLevel(pick, level, scene) : onlyLevel(pick, level, scene);
}

/** A limb that joins strokes, or stands on counts. */
function joins(v: Values, scene: RuleContext, sure: boolean): Said {
  const [pick, term] = [pickIn(v), v['player'] as LimbTerm];
  const under = named(v, 'under', 'underneath', 'beneath', 'below', 'with', 'along with', 'behind');
  if (!under && !named(v, 'on', 'at', 'in', 'to', 'for')) return no(v);
  const level = v['level'] as Level | undefined;
  // A place takes a new stroke; strokes are played along with.
  const places = pick.counts !== undefined && !pick.limb && !pick.levels && !pick.voices;
  if (places) return addedOn(term, pick, scene, sure || under ? 'add' : 'ask', level);
  if (!under && !sure) return no(v);
  return level === undefined ? along(term, pick, scene) : no(v);
}

function ornamented(v: Values, scene: RuleContext): Said {
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

const WAYS: Readonly<Record<string, readonly (1 | -1)[]>> = { later: [1], earlier: [-1], back: [1, -1] };

function moved(v: Values, scene: RuleContext): Said {
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

function filled(v: Values, scene: RuleContext): Said {
  const pick = v['pick'] as Pick | undefined;
  if (pick && !isWhole(pick)) return no(v);
  const close = v['close'] as 'cut' | 'rest' | undefined;
  return fill(scene, spaceSaid(v, scene), {
    ...(v['swapped'] === undefined ? {} : { mirrored: true }),
    ...(close ? { close: { kind: close } } : {}),
  });
}

const ROUTES: Readonly<Record<string, readonly ('snare' | 'high-tom' | 'mid-tom' | 'floor-tom')[]>> = {
  down: ['high-tom', 'mid-tom', 'floor-tom'],
  up: ['floor-tom', 'mid-tom', 'high-tom'],
  round: ['snare', 'high-tom', 'mid-tom', 'floor-tom'],
};

/** The hands of a part change: those of the whole phrase are mirrored by a rule of its own. */
function handsChanged(v: Values, scene: RuleContext): Said {
  const pick = pickIn(v);
  const hands = pick.limb?.limbs.join() === 'R,L' || pick.base === 'hands';
  const part = pick.bars ?? pick.counts ?? pick.half;
  if (!hands || part === undefined) return no(v);
  return forStrokes(pick, scene, (select) => [offerOf('swap', { select, limb: 'other' })], 'beat');
}

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
      named(v, '', 'for', 'of', 'on') && !(named(v, 'on') && markerOf(v, 'limb') === 'on')
        ? give(pickIn(v), v['limb'] as LimbTerm, scene)
        : no(v),
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
    may: [],
    mean: (v, scene) => (named(v, '', 'along with') ? along(v['player'] as LimbTerm, pickIn(v), scene) : no(v)),
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
  { acts: ['shift'], unsaid: true, needs: ['far', 'way'], may: ['pick'], mean: moved },
  { acts: ['shift'], unsaid: false, needs: ['far'], may: ['pick'], mean: moved },
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
    mean: (v, scene) => (isWhole(pickIn(v)) ? onto(scene, v['grid'] as Grid) : no(v)),
  },
  { acts: ['keep', 'rest'], unsaid: false, needs: ['only', 'pick'], may: [], mean: (v, s) => keptOnly(pickIn(v), s) },
  { acts: ['stick'], unsaid: true, needs: ['hands'], may: ['pick'], mean: (v, s) => stuck(v, s) },
  {
    acts: ['trade'],
    unsaid: false,
    needs: ['pick'],
    may: [],
    mean: (v, scene) => (pickIn(v).bars && !pickIn(v).limb ? tradedBars(pickIn(v), scene) : handsChanged(v, scene)),
  },
  { acts: ['mirror'], unsaid: false, needs: ['pick'], may: [], mean: handsChanged },
];

function stuck(v: Values, scene: RuleContext): Said {
  const pick = v['pick'] as Pick | undefined;
  return pick && !isWhole(pick) ? no(v) : handsInTurn(v['hands'] as string, scene);
}
