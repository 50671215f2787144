import { beatTicks } from '../../time';
import { chosen } from '../grammar/choose';
import type { Pick } from '../grammar/pick';
import { isWrong } from '../grammar/stretches';
import type { VoicesSaid } from '../grammar/slots';
import type { Values } from '../lexicon/template';
import type { LimbTerm } from '../lexicon/terms';
import { addedOn, along, backbeatOn, fourOnTheFloor, orOnlyThose, steadyFeet, steadyPiece } from '../rules/added';
import { endedBy, endedWith, landing, round, roundNamed, roundSized } from '../rules/kit';
import { acts, stays, type Said, type RuleContext } from '../rules/rule';
import { offerOf } from '../../recipe';
import { doublePedal, give, isPieceOnly, send, unison } from '../rules/voices';
import { VOICE, type Level, type Voice } from '../../stroke';
import type { Frame } from './frames';
import { anyOf } from './height-frames';
import { isPlace, isTwoAtAnEdge, isWhole, tradedBars, tradedPieces, tradedStrokes } from './meanings';
import {
  alongOn,
  footOnly,
  givenOn,
  handsChanged,
  inTurn,
  joins,
  led,
  ROUTES,
  sent,
  sentAt,
  tradedWith,
} from './said-pieces';
import { isNewGrace, isSaidBefore, markerOf, named, no, onTheOne, pickIn, wholeOrNone } from './said';

const limbOf = (v: Values): LimbTerm => v['limb'] as LimbTerm;
const playerOf = (v: Values): LimbTerm => v['player'] as LimbTerm;
/** A pick that names some of the phrase, for what goes over the kit. */
const someOf = (v: Values): Pick | undefined => (wholeOrNone(v) ? undefined : pickIn(v));

/** What stays, on the pieces it is on; sent there where it is not. */
function kept(v: Values, scene: RuleContext): Said {
  if (!named(v, '')) return no(v);
  const lists = v['voices'] as VoicesSaid | undefined;
  if (!lists) return stays(pickIn(v), scene);
  const own = chosen(pickIn(v), scene);
  if (isWrong(own)) return own;
  const there = (own.ways[0] ?? []).every((i) => {
    const s = scene.pattern.strokes[i];
    return s && lists.some((l) => l.some((voice) => VOICE[voice].piece === VOICE[s.voice].piece));
  });
  return there ? stays(pickIn(v), scene) : send(pickIn(v), lists, scene);
}

/** What it lands with: as it is said, or each that is usual. */
function landed(v: Values): Said {
  if (!wholeOrNone(v) || !onTheOne(v)) return no(v);
  const [lists, hand] = [v['voices'] as VoicesSaid | undefined, v['limb'] as LimbTerm | undefined];
  switch (v['landing'] as 'kick' | 'hand' | 'silence' | undefined) {
    case 'kick':
      return lists || hand ? no(v) : acts([offerOf('land', { hand: 'R', kick: true })]);
    case 'silence':
      return lists || hand ? no(v) : acts([offerOf('land', { hand: 'R', kick: false })]);
    case 'hand':
      return lists ? landing(lists, hand, false) : no(v);
    case undefined: {
      if (!lists)
        return hand
          ? no(v)
          : acts(
              [offerOf('land', { voice: 'crash-right', hand: 'R', kick: true })],
              [offerOf('land', { hand: 'R', kick: true })],
            );
      // Of a hand that is named it is open whether the kick joins it.
      if (!hand || v['under'] !== undefined) return landing(lists, hand, true);
      return anyOf(
        () => landing(lists, hand, true),
        () => landing(lists, hand, false),
      );
    }
  }
}

/** "End with a crash": on the next 1, or the last stroke; with a kick, or on the 1, it lands. */
function ended(v: Values, scene: RuleContext): Said {
  const isLanding =
    v['under'] !== undefined || v['next'] !== undefined || v['count'] !== undefined || v['one'] !== undefined;
  if (isLanding || v['landing'] !== undefined) return landed(v);
  const [lists, limb] = [v['voices'] as VoicesSaid | undefined, v['limb'] as LimbTerm | undefined];
  if (!wholeOrNone(v)) return no(v);
  if (!lists && limb && ['on', 'with'].includes(markerOf(v, 'limb'))) return endedBy(limb, scene);
  return lists && limb === undefined ? endedWith(lists, scene) : no(v);
}

const steadyOn = (v: Values, scene: RuleContext): Said =>
  orOnlyThose(steadyFeet({ limb: v['player'] }, scene, v['grid'] as number), { ...v, limb: v['player'] }, scene);

/** On what and by whom: pieces, limbs, what they add, the way over the kit, what it lands on. */
export const PIECE_FRAMES: readonly Frame[] = [
  { acts: ['send'], unsaid: true, needs: ['pick', 'voices'], may: ['under'], carries: true, mean: sent },
  // "Add a crash and kick on the first note"
  { acts: ['add'], unsaid: false, needs: ['pick', 'voices', 'under'], may: [], mean: sent },
  {
    // "The accents on the crash, alternating left and right"
    acts: ['send'],
    unsaid: true,
    needs: ['pick', 'voices', 'sides'],
    may: ['under'],
    carries: true,
    mean: (v, s) => {
      const crash = (v['voices'] as VoicesSaid).every((l) => l.every((one) => one.startsWith('crash')));
      const sides =
        v['sides'] === 'LR' ? (['crash-left', 'crash-right'] as const) : (['crash-right', 'crash-left'] as const);
      return crash ? sent({ ...v, voices: [sides] }, s) : no(v);
    },
  },
  {
    // "The first hat open", "hats on the &s half open"
    acts: ['send', 'level'],
    unsaid: true,
    needs: ['pick', 'opened'],
    may: [],
    mean: (v, s) => {
      const hats = pickIn(v).voices?.every((one) => one.startsWith('hat-')) === true;
      return hats && named(v, '', 'on', 'for') ? send(pickIn(v), [[v['opened'] as Voice]], s) : no(v);
    },
  },
  {
    // "Crash on 1, then back to the hat": what plays there goes on.
    acts: ['send'],
    unsaid: true,
    needs: ['voices'],
    may: [],
    mean: (v, { pattern, last }) => {
      const pieces = (v['voices'] as VoicesSaid).flat().map((one) => VOICE[one].piece);
      const goesOn = pattern.strokes.some((s) => pieces.includes(VOICE[s.voice].piece));
      return last && goesOn && /^back /.test(markerOf(v, 'voices')) ? acts([]) : no(v);
    },
  },
  { acts: ['send', 'route'], unsaid: true, needs: ['voices'], may: [], mean: inTurn },
  { acts: ['send', 'level'], unsaid: true, needs: ['pick', 'voices', 'level'], may: [], mean: sentAt },
  {
    acts: ['give'],
    unsaid: false,
    needs: ['pick', 'voices'],
    may: [],
    mean: (v, s) =>
      named(v, '') && ['with', 'by', 'for', 'into', 'to', 'as'].includes(markerOf(v, 'voices'))
        ? send(pickIn(v), v['voices'] as VoicesSaid, s)
        : no(v),
  },
  {
    acts: ['send', 'give'],
    unsaid: true,
    needs: ['voices', 'old'],
    may: [],
    mean: (v, s) => send(v['old'] as Pick, v['voices'] as VoicesSaid, s),
  },
  {
    acts: ['give'],
    unsaid: true,
    needs: ['pick', 'limb'],
    may: [],
    carries: true,
    mean: (v, scene) =>
      named(v, '', 'for', 'of', 'on') &&
      !(named(v, 'on') && markerOf(v, 'limb') === 'on') &&
      // "All lefts" by itself names strokes, and gives none to a hand.
      !(/\ball\b/.test(markerOf(v, 'limb')) && (!isSaidBefore(v, 'pick', 'limb') || isPieceOnly(pickIn(v)))) &&
      !isNewGrace(v) &&
      // "Snare for the lefts" sends the lefts.
      !(markerOf(v, 'limb') === 'for' && isPieceOnly(pickIn(v)))
        ? give(pickIn(v), limbOf(v), scene)
        : no(v),
  },
  {
    // "Replace the kicks with the left hand on the floor tom"
    acts: ['give'],
    unsaid: true,
    needs: ['pick', 'limb', 'voices'],
    may: [],
    mean: (v, scene) => {
      const isSaidSo = isSaidBefore(v, 'limb', 'voices') && ['on', ''].includes(markerOf(v, 'voices'));
      const isGiven = ['with', 'by', 'to', 'over to', 'using'].includes(markerOf(v, 'limb'));
      if (!named(v, '') || isNewGrace(v) || !isSaidSo || !isGiven) return no(v);
      const given = give(pickIn(v), limbOf(v), scene);
      return givenOn(given, limbOf(v), v['voices'] as VoicesSaid, scene);
    },
  },
  {
    acts: ['give'],
    unsaid: false,
    needs: ['player', 'pick'],
    may: [],
    mean: (v, scene) => (named(v, '') ? give(pickIn(v), playerOf(v), scene) : no(v)),
  },
  {
    acts: ['give'],
    unsaid: true,
    needs: ['player', 'old'],
    may: [],
    mean: (v, s) => give(v['old'] as Pick, playerOf(v), s),
  },
  {
    acts: ['give'],
    unsaid: true,
    needs: ['pick', 'other'],
    may: [],
    carries: true,
    mean: (v, s) => give(pickIn(v), 'other', s),
  },
  {
    acts: ['give', 'send'],
    unsaid: true,
    needs: ['pick', 'pedals'],
    may: ['first'],
    mean: (v, s) => {
      const first = v['first'] === 'L' ? ({ limbs: ['J'] } as const) : undefined;
      return named(v, '', 'on', 'for', 'over') && !isWhole(pickIn(v)) ? doublePedal(pickIn(v), first, s) : no(v);
    },
  },
  {
    acts: ['add'],
    unsaid: false,
    needs: ['player', 'pick'],
    may: ['level', 'beneath'],
    mean: (v, s) => joins(v, s, true),
  },
  {
    acts: [],
    unsaid: true,
    needs: ['player', 'pick'],
    may: ['beneath'],
    mean: (v, s) => joins(v, s, v['beneath'] !== undefined),
  },
  {
    acts: [],
    unsaid: true,
    needs: ['player', 'level', 'pick'],
    may: [],
    mean: (v, s) =>
      named(v, 'on', 'at') && isPlace(pickIn(v)) && isSaidBefore(v, 'player', 'level')
        ? addedOn(playerOf(v), pickIn(v), s, 'add', v['level'] as Level)
        : no(v),
  },
  {
    acts: ['keep'],
    unsaid: false,
    needs: ['player', 'pick'],
    may: [],
    mean: (v, s) => (named(v, '') && isPlace(pickIn(v)) ? addedOn(playerOf(v), pickIn(v), s, 'add') : no(v)),
  },
  {
    acts: ['follow'],
    unsaid: false,
    needs: ['pick', 'limb'],
    may: [],
    mean: (v, scene) => (named(v, '') ? along(limbOf(v), pickIn(v), scene) : no(v)),
  },
  {
    acts: ['follow'],
    unsaid: false,
    needs: ['player', 'pick'],
    may: ['voices'],
    mean: (v, scene) => (named(v, '', 'along with') ? alongOn(v, scene) : no(v)),
  },
  {
    acts: [],
    unsaid: true,
    needs: ['pick', 'under'],
    may: [],
    mean: (v, s) => (isPlace(pickIn(v)) || isWhole(pickIn(v)) ? no(v) : along({ limbs: ['K'] }, pickIn(v), s)),
  },
  { acts: [], unsaid: true, needs: ['pick', 'together'], may: [], mean: (v, s) => unison(pickIn(v), s, 'ask-beat') },
  { acts: ['keep'], unsaid: true, needs: ['pick', 'only'], may: [], mean: footOnly },
  // What stays changes nothing.
  { acts: ['keep'], unsaid: false, needs: ['pick'], may: ['stays', 'voices'], mean: kept },
  { acts: [], unsaid: true, needs: ['pick', 'stays'], may: [], mean: kept },
  {
    acts: ['add'],
    unsaid: false,
    needs: ['player', 'grid'],
    may: ['under', 'beneath'],
    isLikely: true,
    mean: (v, s) => steadyFeet({ limb: v['player'] }, s, v['grid'] as number),
  },
  {
    acts: ['keep'],
    unsaid: true,
    needs: ['player', 'grid'],
    may: ['under', 'beneath'],
    isLikely: true,
    mean: steadyOn,
  },
  {
    acts: ['add', 'keep'],
    unsaid: true,
    needs: ['player', 'pulse'],
    may: ['beneath'],
    isLikely: true,
    mean: (v, s) => steadyFeet({ limb: v['player'] }, s, beatTicks(s.pattern.meter)),
  },
  {
    acts: ['add', 'keep', 'send'],
    unsaid: true,
    needs: ['voices', 'grid'],
    may: ['limb', 'player', 'beneath'],
    isLikely: true,
    mean: (v) => steadyPiece({ ...v, limb: v['limb'] ?? v['player'] }),
  },
  {
    acts: ['add', 'give'],
    unsaid: true,
    needs: ['floor'],
    may: ['beneath'],
    isLikely: true,
    mean: (_, s) => fourOnTheFloor(s),
  },
  {
    acts: ['add', 'give'],
    unsaid: true,
    needs: ['backbeat'],
    may: ['pick', 'beneath'],
    isLikely: true,
    mean: (v, s) => {
      const pick = v['pick'] as Pick | undefined;
      return !pick || (isPlace(pick) && named(v, 'on', '')) ? backbeatOn(pick?.counts, s) : no(v);
    },
  },
  {
    acts: ['route', 'send'],
    unsaid: true,
    needs: ['route'],
    may: ['pick', 'size', 'beats'],
    mean: (v, s) => {
      const { size, beats } = v as { readonly size?: number; readonly beats?: number };
      return round({ pick: someOf(v), size, beats }, s, ROUTES[v['route'] as string] ?? []);
    },
  },
  ...(['size', 'beats'] as const).map((much): Frame => ({
    acts: ['route', 'send'],
    unsaid: true,
    needs: ['voices', much],
    may: ['pick'],
    mean: (v, s) => (isListed(v) ? roundNamed({ ...v, pick: someOf(v) }, s) : no(v)),
  })),
  {
    acts: ['route', 'send'],
    unsaid: true,
    needs: ['voices', 'sizes'],
    may: ['pick'],
    mean: (v, s) => (isListed(v) ? roundSized({ ...v, pick: someOf(v) }, s) : no(v)),
  },
  {
    acts: ['route', 'send'],
    unsaid: true,
    needs: ['voices', 'groups'],
    may: ['pick'],
    mean: (v, s) => (isListed(v) ? roundSized({ ...v, sizes: v['groups'], pick: someOf(v) }, s) : no(v)),
  },
  {
    acts: ['trade'],
    unsaid: false,
    needs: ['pick'],
    may: [],
    mean: (v, scene) => {
      const { and, bars, limb } = pickIn(v);
      if (isTwoAtAnEdge(pickIn(v)) && named(v, '')) return tradedStrokes(pickIn(v), scene);
      const hands = [limb, and?.limb].map((l) => l?.limbs.join()).sort();
      if (hands.join() === 'L,R' && isHandsOnly(pickIn(v))) return acts([offerOf('mirror', { feet: false })]);
      if (and) return tradedPieces(pickIn(v), scene);
      return bars && !limb ? tradedBars(pickIn(v), scene) : handsChanged(v, scene);
    },
  },
  { acts: ['trade'], unsaid: false, needs: ['pick', 'voices'], may: [], mean: tradedWith },
  { acts: ['lead'], unsaid: false, needs: ['player', 'pick'], may: [], mean: led },
  {
    acts: ['land'],
    unsaid: false,
    needs: [],
    may: ['voices', 'under', 'limb', 'count', 'next', 'one', 'landing', 'pick'],
    mean: landed,
  },
  {
    acts: ['end'],
    unsaid: false,
    needs: [],
    may: ['voices', 'under', 'limb', 'count', 'next', 'one', 'landing', 'pick'],
    mean: ended,
  },
  {
    acts: ['send', 'add'],
    unsaid: true,
    needs: ['voices', 'next'],
    may: ['under', 'limb'],
    mean: (v) => landing(v['voices'] as VoicesSaid, v['limb'] as LimbTerm | undefined, true),
  },
];

/** "Rights and lefts", and nothing that narrows them. */
function isHandsOnly({ and, ...pick }: Pick): boolean {
  const isPlain = ({ base: _, said: __, many: ___, limb: ____, ...rest }: Pick): boolean =>
    Object.keys(rest).length === 0;
  return and !== undefined && isPlain(pick) && isPlain(and);
}

/** "Snare, high tom in twos" names no strokes on the snare. */
function isListed(v: Values): boolean {
  const pick = v['pick'] as Pick | undefined;
  return !pick || !named(v, '') || pick.voices === undefined;
}
