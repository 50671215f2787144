import { isHand, parseStrokeText, SAME_HAND, slotsOf, type Level, type Limb, type Ornament } from '../../stroke';
import { applyMove, offerOf } from '../../recipe';
import type { CountSaid } from '../grammar/counts';
import type { Pick } from '../grammar/pick';
import { selectionOf } from '../grammar/said-select';
import type { Values } from '../lexicon/template';
import { forStrokes, wrong, type Said, type RuleContext } from '../rules/rule';
import { leaveOut, onlyLevel, setLevel } from '../rules/strokes';
import { isPlace } from './meanings';
import { pickIn, markerOf, named, no, OF_STROKES, isGrace, wholeOrNone } from './said';

export function levelled(level: Level, v: Values, scene: RuleContext): Said {
  // "Add accents to the lefts" gives them; "the accents to the left hand" moves them.
  if (!named(v, ...OF_STROKES, ...(v['adds'] === true ? ['to'] : []))) return no(v);
  const pick = pickIn(v);
  return v['only'] === undefined ? setLevel(pick, level, scene) : onlyLevel(pick, level, scene);
}

export function ornamented(v: Values, scene: RuleContext): Said {
  const pick = pickIn(v);
  if (!named(v, ...OF_STROKES, 'to', 'into', 'onto') || /^(?:before|after)\b/i.test(pick.said)) return no(v);
  // "Drags to flams" changes the drags.
  if (isGrace(pick) && !named(v, '')) return no(v);
  const { strokes } = scene.pattern;
  return forStrokes(pick, scene, (_, own) => {
    const hands = own.filter((i) => isHand(strokes[i]?.limb ?? 'K'));
    if (hands.length === 0) return { wrong: pick.said, why: 'Feet do not play grace strokes.' };
    const select = selectionOf(pick, scene.pattern, hands);
    const by = v['itself'] === true ? { by: SAME_HAND as typeof SAME_HAND } : {};
    return [offerOf('ornament', { select, ornament: v['ornament'] as Ornament, ...by })];
  });
}

/**
 * "Replace the doubles with a kick and a left": strokes are given to these limbs one after the other, again and again,
 * where that comes out even. A stroke that is written as an accent or a ghost becomes one.
 */
export function strokesInstead(pick: Pick, text: string, scene: RuleContext): Said {
  const read = parseStrokeText(text);
  const slots = read.ok ? slotsOf(read.value) : [];
  if (slots.length < 2 || slots.some((s) => s.length !== 1)) return wrong(pick.said, '');
  const strokes = slots.flat();
  return forStrokes(
    pick,
    scene,
    (_, own) => {
      const many = strokes.length;
      if (own.length % many !== 0)
        return { wrong: pick.said, why: `They are ${own.length}, and cannot be given ${many} by ${many}.` };
      const groups = new Map<string, { readonly limb: Limb; readonly level: Level; readonly own: readonly number[] }>();
      for (const [i, index] of own.entries()) {
        const { limb, level } = strokes[i % many] ?? { limb: 'R', level: 'tap' };
        const key = `${limb} ${level}`;
        groups.set(key, { limb, level, own: [...(groups.get(key)?.own ?? []), index] });
      }
      // What was given already is no double any more: each is chosen in the phrase as it is by then.
      let { pattern } = scene;
      return [...groups.values()].flatMap(({ limb, level, own: some }) => {
        const select = selectionOf({ base: null, said: '' }, pattern, some);
        const given = some.every((i) => pattern.strokes[i]?.limb === limb) ? [] : [offerOf('swap', { select, limb })];
        const all = level === 'tap' ? given : [offerOf('level', { select, level }), ...given];
        pattern = all.reduce((now, o) => applyMove(now, o.entry, () => now).pattern, pattern);
        return all;
      });
    },
    'beat',
  );
}

/** A grace stroke, or another, on the first or the last stroke of the hands. */
export function edgeOrnamented(which: 'first' | 'last', v: Values, scene: RuleContext): Said {
  const order: Pick['order'] = which === 'first' ? { kind: 'nth', n: 1, very: true } : { kind: 'last', n: 1 };
  return ornamented({ ...v, by: {}, pick: { base: null, order, said: which } }, scene);
}

/** What is left out is said with where it is taken from: "take the kick off beat 2". */
export function takenOff(v: Values, scene: RuleContext): Said {
  const pick = pickIn(v);
  const counts = v['off'] as readonly CountSaid[];
  if (pick.counts ?? pick.bars ?? pick.order) return no(v);
  return leaveOut({ ...pick, counts }, scene, counts.every((c) => c.as === 'beat') ? 'beat' : 'ask');
}

/** Only what is named stays, and the phrase ends with it. */
export function trimmed(v: Values, scene: RuleContext): Said {
  const pick = pickIn(v);
  if (pick.order?.kind !== 'first' || pick.limb || pick.levels || !named(v, '', 'to')) return no(v);
  return forStrokes(pick, scene, (select) => [
    offerOf('cut', { select: { is: 'but', of: { is: 'all' }, not: select } }),
  ]);
}

/** "Shorten it to the first three": what is kept is said behind. */
export const trimmedTo = (v: Values, scene: RuleContext): Said =>
  wholeOrNone(v) ? trimmed({ ...v, by: { pick: '' }, pick: v['kept'] }, scene) : no(v);

/** "Move the accents to the offbeats": they are there, and nowhere else. */
export function heightsMoved(v: Values, scene: RuleContext): Said {
  const { levels, limb, voices, order, counts, bars, half } = pickIn(v);
  const [level, ...more] = levels ?? [];
  const named = limb ?? voices ?? order ?? counts ?? bars ?? half;
  const there = v['target'] as Pick;
  if (!level || level === 'tap' || more.length > 0 || named !== undefined || !isPlace(there)) return no(v);
  // What is not there is not moved.
  if (!scene.pattern.strokes.some((s) => s.level === level)) return wrong(pickIn(v).said, 'There are none here.');
  return ['to', 'onto', 'on'].includes(markerOf(v, 'target')) ? onlyLevel(there, level, scene) : no(v);
}
