import { isHand, type Level, type Ornament } from '../../stroke';
import { along } from '../rules/added';
import { afterAct, forStrokes, thenAct, type Said, type RuleContext } from '../rules/rule';
import type { Pick } from '../grammar/pick';
import { selectionOf } from '../grammar/said-select';
import { offerOf } from '../../recipe';
import { cutOut, leaveOut, levelEvery, onlyLevel, ornamentsOff, removeOrRest, setLevel } from '../rules/strokes';
import type { Values } from '../lexicon/template';
import type { Frame } from './frames';
import { groupedHeights, isWhole, keptOnly } from './meanings';
import {
  edgeOrnamented,
  levelled,
  ornamented,
  strokesInstead,
  takenOff,
  trimmed,
  trimmedTo,
  heightsMoved,
} from './said-heights';
import { markerOf, named, no, pickIn, wholeOrNone, isSaidBefore } from './said';

/** Every meaning that can be carried out; the first reason where none can. */
export function anyOf(...all: readonly (() => Said)[]): Said {
  const said = all.map((one) => one());
  const met = said.flatMap((s) => ('acts' in s ? s.acts : []));
  return met.length > 0 ? { acts: met } : (said.find((s) => 'wrong' in s && s.why !== '') ?? said[0] ?? { acts: [] });
}

/** "No ghosts": they are taps, or they go; "no flams": without grace strokes, or they go. */
function without(v: Values, scene: RuleContext): Said {
  const pick = pickIn(v);
  const [level, ...levels] = pick.levels ?? [];
  const [ornament] = pick.ornaments ?? [];
  if (!named(v, '')) return no(v);
  const ofKin = othersOf(v, scene);
  if (ofKin) return ofKin;
  // "No grace notes" leaves the strokes.
  if ((pick.ornaments?.length ?? 0) > 1) return stripped(v, scene);
  // "No accents on the left hand": what is played stays.
  if (level === 'accent' && levels.length === 0) return setLevel(pick, 'tap', scene);
  return anyOf(
    () => (level && levels.length === 0 && level !== 'tap' ? setLevel(pick, 'tap', scene) : no(v)),
    () => (ornament && !pick.limb && pick.levels === undefined ? stripped(v, scene) : no(v)),
    () => leaveOut(pick, scene, 'ask'),
  );
}

/** "Keep the first accent, lose the others": the others lose their accent. Null where no one height was kept. */
function othersOf(v: Values, scene: RuleContext): Said | null {
  const { others, base, ...rest } = pickIn(v);
  const [level, ...more] = (scene.last?.values['pick'] as Pick | undefined)?.levels ?? [];
  if (!level || level === 'tap' || more.length > 0 || !scene.kin || (others !== true && base !== 'else')) return null;
  const lowered = setLevel({ ...rest, base: 'else', others: true, levels: [level] }, 'tap', scene);
  if (level === 'accent' && others === true) return lowered;
  return anyOf(
    () => lowered,
    () => leaveOut(pickIn(v), scene, 'ask'),
  );
}

/** What is to go: of grace strokes it is open whether the strokes go with them. */
function gone(v: Values, scene: RuleContext): Said {
  const { ornaments, limb, levels, voices, counts, order } = pickIn(v);
  const rest = limb ?? levels ?? voices ?? counts ?? order;
  const ofKin = othersOf(v, scene);
  if (ofKin) return ofKin;
  const left = leaveOut(pickIn(v), scene, 'ask');
  return ornaments && rest === undefined
    ? anyOf(
        () => stripped(v, scene),
        () => left,
      )
    : left;
}

/** "Strip the ornaments off", "take the flams off bar 2": the strokes stay. */
function stripped(v: Values, scene: RuleContext): Said {
  const pick = pickIn(v);
  const { pattern } = scene;
  const [level, ...more] = pick.levels ?? [];
  if (level && more.length === 0 && level !== 'tap') return setLevel(pick, 'tap', scene);
  if (!pick.ornaments) return no(v);
  return forStrokes(pick, scene, (_, own) => [
    offerOf('ornament', { select: selectionOf(pick, pattern, own), ornament: 'none' }),
  ]);
}

const emptied = (v: Values, scene: RuleContext): Said => {
  // "Leave beat 4 empty" is all of it; of "3" it is open.
  const whole = pickIn(v).counts?.every((c) => c.as !== 'count') ?? true;
  return named(v, '', 'in', 'on') ? leaveOut(pickIn(v), scene, whole ? 'beat' : 'ask') : no(v);
};

const everyLevel = (level: Level, v: Values, scene: RuleContext): Said =>
  wholeOrNone(v) ? levelEvery(v['every'] as number, level, scene) : no(v);

/** "Every third note starting with the first". */
function fromFirst(v: Values): Values {
  const pick = pickIn(v);
  if (v['fromFirst'] === undefined || pick.order?.kind !== 'every') return v;
  return { ...v, pick: { ...pick, order: { ...pick.order, first: true } } };
}

/** What there is and how high: heights, grace strokes, strokes left out. */
export const HEIGHT_FRAMES: readonly Frame[] = [
  ...(['accent', 'ghost', 'tap'] as const).flatMap((level): Frame[] => [
    {
      acts: [level],
      unsaid: false,
      needs: ['pick'],
      may: ['only', 'fromFirst'],
      mean: (v, scene) => levelled(level, fromFirst(v), scene),
    },
    {
      acts: [level],
      unsaid: false,
      needs: ['every'],
      may: ['pick', 'fromFirst'],
      mean: (v, scene) => everyLevel(level, v, scene),
    },
  ]),
  {
    acts: ['add'],
    unsaid: false,
    needs: ['pick', 'level'],
    may: [],
    mean: (v, scene) =>
      isSaidBefore(v, 'level', 'pick') ? levelled(v['level'] as Level, { ...v, adds: true }, scene) : no(v),
  },
  {
    // "Bring the lefts down to ghosts"
    acts: ['accent', 'ghost', 'rest', 'no'],
    unsaid: false,
    needs: ['pick', 'level'],
    may: [],
    mean: (v, scene) =>
      ['to', 'down to', 'up to', 'back to', 'into', 'as', 'at'].includes(markerOf(v, 'level'))
        ? levelled(v['level'] as Level, v, scene)
        : no(v),
  },
  {
    acts: ['level', 'keep'],
    unsaid: true,
    needs: ['pick', 'level'],
    may: ['only', 'fromFirst'],
    carries: true,
    mean: (v, scene) => levelled(v['level'] as Level, fromFirst(v), scene),
  },
  {
    acts: ['level', 'add'],
    unsaid: true,
    needs: ['level', 'every'],
    may: ['pick', 'fromFirst'],
    mean: (v, scene) => everyLevel(v['level'] as Level, v, scene),
  },
  {
    acts: ['accent', 'level'],
    unsaid: true,
    needs: ['level', 'sizes'],
    may: ['only'],
    mean: (v, scene) => groupedHeights(v['level'] as Level, v['sizes'] as readonly number[], scene),
  },
  {
    // "Group it 3 3 2", "make it 3 3 2": the first of each is an accent.
    acts: ['accent', 'level'],
    unsaid: true,
    needs: ['pick', 'sizes'],
    may: [],
    mean: (v, s) => (isWhole(pickIn(v)) ? groupedHeights('accent', v['sizes'] as readonly number[], s) : no(v)),
  },
  {
    // "Accents 3 3 2 with the kick under each"
    acts: ['accent', 'level'],
    unsaid: true,
    needs: ['level', 'sizes', 'under'],
    may: [],
    mean: (v, s) => {
      const heights = groupedHeights(v['level'] as Level, v['sizes'] as readonly number[], s);
      const [only, ...more] = 'acts' in heights ? heights.acts : [];
      if (!only || more.length > 0) return heights;
      const each: Pick = { base: null, levels: [v['level'] as Level], said: 'each' };
      const kicks = along({ limbs: ['K'] }, each, { ...s, pattern: afterAct(only, s) });
      return 'acts' in kicks ? { acts: kicks.acts.map((k) => thenAct(only, k)) } : kicks;
    },
  },
  {
    acts: ['accent'],
    unsaid: false,
    needs: ['size'],
    may: ['pick'],
    mean: (v, scene) =>
      wholeOrNone(v) && markerOf(v, 'size') === 'in' ? groupedHeights('accent', [v['size'] as number], scene) : no(v),
  },
  ...(['accent', 'ghost'] as const).map((level): Frame => ({
    acts: [`un${level}`],
    unsaid: false,
    needs: ['pick'],
    may: [],
    mean: (v, s) => (pickIn(v).levels ? no(v) : levelled('tap', { ...v, pick: { ...pickIn(v), levels: [level] } }, s)),
  })),
  {
    acts: ['tap', 'level'],
    unsaid: true,
    needs: ['flat'],
    may: ['pick'],
    mean: (v, s) => levelled('tap', { ...v, by: { pick: '' }, pick: v['pick'] ?? { base: 'all', said: 'all' } }, s),
  },
  { acts: ['level'], unsaid: true, needs: ['pick', 'ornament'], may: ['itself'], carries: true, mean: ornamented },
  {
    acts: ['add'],
    unsaid: false,
    needs: ['pick', 'ornament'],
    may: ['itself'],
    // "Stick the rights on the mid tom, with a flam" sends them there.
    mean: (v, scene) => (isSaidBefore(v, 'ornament', 'pick') ? ornamented(v, scene) : no(v)),
  },
  {
    // "Flams instead of accents": the height goes, the grace stroke comes.
    acts: ['give', 'add', 'level'],
    unsaid: true,
    needs: ['ornament', 'old'],
    may: [],
    mean: (v, s) => {
      const old = v['old'] as Pick;
      if (old.levels?.join() !== 'accent') return no(v);
      return forStrokes(old, s, (_, own) => {
        const hands = own.filter((i) => isHand(s.pattern.strokes[i]?.limb ?? 'K'));
        if (hands.length === 0) return { wrong: old.said, why: 'Feet do not play grace strokes.' };
        const select = selectionOf(old, s.pattern, hands);
        return [
          offerOf('ornament', { select, ornament: v['ornament'] as Ornament }),
          offerOf('level', { select, level: 'tap' }),
        ];
      });
    },
  },
  {
    // "A drag before the 3"
    acts: ['add', 'ornament', 'level'],
    unsaid: true,
    needs: ['ornament', 'before'],
    may: ['itself'],
    mean: (v, s) => ornamented({ ...v, by: { pick: '' }, pick: v['before'] }, s),
  },
  { acts: ['ornament'], unsaid: false, needs: ['pick', 'ornament'], may: ['itself'], carries: true, mean: ornamented },
  {
    acts: ['start'],
    unsaid: false,
    needs: ['ornament'],
    may: ['pick'],
    mean: (v, s) => (wholeOrNone(v) ? edgeOrnamented('first', v, s) : no(v)),
  },
  {
    acts: ['land', 'end'],
    unsaid: false,
    needs: ['ornament'],
    may: ['pick'],
    mean: (v, s) => (wholeOrNone(v) ? edgeOrnamented('last', v, s) : no(v)),
  },
  {
    acts: ['strip', 'no'],
    unsaid: true,
    needs: ['pick', 'bare'],
    may: [],
    mean: (v, s) => stripped({ ...v, pick: { ...pickIn(v), ornaments: [v['bare'] as Ornament] } }, s),
  },
  { acts: ['strip'], unsaid: false, needs: ['pick'], may: [], mean: stripped },
  {
    acts: ['strip', 'rest', 'remove', 'no'],
    unsaid: false,
    needs: ['ornaments'],
    may: [],
    mean: (_, scene) => ornamentsOff(undefined, scene),
  },
  {
    acts: ['rest'],
    unsaid: false,
    needs: ['pick'],
    may: [],
    mean: (v, scene) => (named(v, '', 'of', 'on', 'at', 'in', 'for') ? gone(v, scene) : no(v)),
  },
  { acts: ['no'], unsaid: false, needs: ['pick'], may: [], mean: without },
  {
    // "Delete the first kick and close the gap"
    acts: ['remove', 'rest', 'no'],
    unsaid: false,
    needs: ['pick', 'closesUp'],
    may: [],
    mean: (v, s) => (named(v, '') ? cutOut(pickIn(v), s) : no(v)),
  },
  {
    acts: ['clear'],
    unsaid: false,
    needs: ['pick'],
    may: [],
    mean: (v, scene) => (named(v, '', 'on', 'in', 'at') ? leaveOut(pickIn(v), scene, 'beat') : no(v)),
  },
  { acts: ['emptied'], unsaid: false, needs: ['pick'], may: [], mean: emptied },
  {
    acts: ['remove'],
    unsaid: false,
    needs: ['pick'],
    may: [],
    mean: (v, scene) => (named(v, '') ? removeOrRest(pickIn(v), scene) : no(v)),
  },
  { acts: ['rest', 'remove', 'send', 'give', 'strip'], unsaid: true, needs: ['pick', 'off'], may: [], mean: takenOff },
  {
    // "Swap the drag for a flam"
    acts: ['give', 'trade'],
    unsaid: false,
    needs: ['pick', 'ornament'],
    may: [],
    mean: (v, s) =>
      pickIn(v).ornaments && ['for', 'with', 'into'].includes(markerOf(v, 'ornament')) ? ornamented(v, s) : no(v),
  },
  {
    acts: ['give'],
    unsaid: false,
    needs: ['pick', 'strokes'],
    may: [],
    // "Replace the taps with rests", "replace the doubles with K L"
    mean: (v, s) => {
      if (markerOf(v, 'strokes') !== 'with' || !named(v, '')) return no(v);
      return v['strokes'] === '-'
        ? leaveOut(pickIn(v), s, 'ask')
        : strokesInstead(pickIn(v), v['strokes'] as string, s);
    },
  },
  {
    acts: ['keep', 'rest'],
    unsaid: false,
    needs: ['only', 'pick'],
    may: [],
    mean: (v, s) => {
      const { levels, order } = pickIn(v);
      const [level, ...more] = levels ?? [];
      const all = keptOnly(pickIn(v), s);
      // "Only the first accent stays": as an accent, or as a stroke.
      return order && level && level !== 'tap' && more.length === 0
        ? anyOf(
            () => onlyLevel(pickIn(v), level, s),
            () => all,
          )
        : all;
    },
  },
  // "Hands only", "just the feet"
  ...(['only', 'alone'] as const).map((only): Frame => ({
    acts: ['keep'],
    unsaid: true,
    needs: [only, 'pick'],
    may: [],
    mean: (v, s) => {
      const { limb, counts, order, levels, voices } = pickIn(v);
      const isLimb = limb !== undefined && (counts ?? order ?? levels ?? voices) === undefined;
      const isKind = order?.kind === 'doubles' || order?.kind === 'singles';
      return (isLimb || isKind) && named(v, '') ? keptOnly(pickIn(v), s) : no(v);
    },
  })),
  { acts: ['trim', 'keep'], unsaid: false, needs: ['pick'], may: ['only'], mean: trimmed },
  { acts: ['trim'], unsaid: false, needs: ['kept'], may: ['pick'], mean: trimmedTo },
  { acts: ['send', 'shift'], unsaid: false, needs: ['pick', 'target'], may: [], mean: heightsMoved },
  {
    // "The accents to the offbeats"
    acts: [],
    unsaid: true,
    needs: ['pick', 'target'],
    may: [],
    mean: (v, s) => (['to', 'onto'].includes(markerOf(v, 'target')) ? heightsMoved(v, s) : no(v)),
  },
];
