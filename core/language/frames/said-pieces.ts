import { isHand, type Level } from '../../stroke';
import { offerOf } from '../../recipe';
import { places } from '../grammar/places';
import { isWrong } from '../grammar/stretches';
import { selectionOf } from '../grammar/said-select';
import type { VoicesSaid } from '../grammar/slots';
import type { Values } from '../lexicon/template';
import type { LimbTerm } from '../lexicon/terms';
import { addedOn, along } from '../rules/added';
import { acts, addAt, afterAct, forStrokes, thenAct, wrong, type Said, type RuleContext } from '../rules/rule';
import { isPieceOnly, send, voiceOn } from '../rules/voices';
import { isPlace, tradedPieces } from './meanings';
import { pickIn, markerOf, named, no, OF_STROKES, isGrace, isSaidBefore } from './said';
import { levelled } from './said-heights';

/** Strokes to pieces, in place of what they strike now; where nothing is struck, put in. */
export function sent(v: Values, scene: RuleContext): Said {
  const [pick, lists] = [pickIn(v), v['voices'] as VoicesSaid];
  const by = markerOf(v, 'voices');
  // "High tom floor tom" says of neither that it goes to the other.
  if (by === '' && isPieceOnly(pick) && v['under'] === undefined) return no(v);
  if (!named(v, ...OF_STROKES, 'with', 'from') || ['from', 'by', 'for', 'of'].includes(by)) return no(v);
  // "With" names the one or the other.
  if (by === 'with' && named(v, 'with')) return no(v);
  // Where it goes "to" something is there already.
  return isPlace(pick) &&
    v['under'] === undefined &&
    ['', 'with', 'using'].includes(by) &&
    lists.every((l) => l.length === 1)
    ? voiceOn({ pick, voices: lists }, scene)
    : send(pick, lists, scene, v['under'] !== undefined);
}

/** Jotted down: "kick 1, 3", "kick: 1 2& 3", "1 and 3 kick". */
function isJotted(v: Values): boolean {
  const { counts, ...rest } = pickIn(v);
  // "Two kicks" says how many.
  return (
    counts !== undefined &&
    /\d|&/.test(rest.said) &&
    named(v, '') &&
    markerOf(v, 'player') === '' &&
    isPlace({ counts, ...rest })
  );
}

/** A limb that joins strokes, or stands on counts. */
export function joins(v: Values, scene: RuleContext, sure: boolean): Said {
  const [pick, term] = [pickIn(v), v['player'] as LimbTerm];
  const gets = named(v, '') && /^gets?$/.test(markerOf(v, 'player')) && !term.limbs.some(isHand);
  const under =
    gets || named(v, 'under', 'underneath', 'beneath', 'below', 'with', 'along with', 'together with', 'behind');
  if ((!under && !isJotted(v) && !named(v, 'on', 'at', 'in', 'to', 'for')) || isGrace(pick)) return no(v);
  // "Stick the lefts on the china" sends them there.
  if (!under && pick.voices && !pick.limb && term.limbs.every(isHand)) return no(v);
  const level = v['level'] as Level | undefined;
  // A place takes a new stroke; strokes are played along with.
  const places = pick.counts !== undefined && !pick.limb && !pick.levels && !pick.voices;
  if (places) return addedOn(term, pick, scene, sure || under ? 'add' : 'ask', level);
  if (!under && !sure) return no(v);
  return level === undefined ? along(term, pick, scene) : no(v);
}

export const ROUTES: Readonly<Record<string, readonly ('snare' | 'high-tom' | 'mid-tom' | 'floor-tom')[]>> = {
  down: ['high-tom', 'mid-tom', 'floor-tom'],
  up: ['floor-tom', 'mid-tom', 'high-tom'],
  round: ['snare', 'high-tom', 'mid-tom', 'floor-tom'],
  back: ['floor-tom', 'mid-tom', 'high-tom', 'snare'],
};

/** The hands of a part change: those of the whole phrase are mirrored by a rule of its own. */
export function handsChanged(v: Values, scene: RuleContext): Said {
  const pick = pickIn(v);
  const hands = pick.limb?.limbs.join() === 'R,L' || pick.base === 'hands';
  const part = pick.bars ?? pick.counts ?? pick.half;
  if (!hands || part === undefined) return no(v);
  return forStrokes(pick, scene, (select) => [offerOf('swap', { select, limb: 'other' })], 'beat');
}

/** A limb plays with strokes, on a piece that may be named. */
export function alongOn(v: Values, scene: RuleContext): Said {
  // Who follows is named first.
  if (isSaidBefore(v, 'pick', 'player')) return no(v);
  const lists = v['voices'] as VoicesSaid | undefined;
  if (lists?.some((l) => l.length !== 1)) return no(v);
  return along(v['player'] as LimbTerm, pickIn(v), scene, lists?.flat() ?? null);
}

/** A part is led by the other hand: its hands change over. */
export function led(v: Values, scene: RuleContext): Said {
  const pick = pickIn(v);
  const [hand, ...others] = (v['player'] as LimbTerm).limbs;
  if (!isPlace(pick) || !hand || !isHand(hand) || others.length > 0) return no(v);
  return forStrokes(
    { ...pick, limb: { limbs: ['R', 'L'] } },
    scene,
    (select, own) => {
      const first = scene.pattern.strokes[own[0] ?? -1];
      if (first?.limb === hand) return { wrong: hand === 'R' ? 'right' : 'left', why: 'It already leads.' };
      return [offerOf('swap', { select, limb: 'other' })];
    },
    'beat',
  );
}

/** Pieces in a row, and no strokes named: the hands go over them, a stroke on each. */
export function inTurn(v: Values, scene: RuleContext): Said {
  const lists = v['voices'] as VoicesSaid;
  if (lists.some((l) => l.length < 3)) return wrong('between', 'Say which strokes go there.');
  return send({ base: null, limb: { limbs: ['R', 'L'] }, said: '' }, lists, scene);
}

/** Strokes to a piece, and at a height. */
export function sentAt(v: Values, scene: RuleContext): Said {
  // "Accents as rimshots on the snare" names what they are first.
  if (!isSaidBefore(v, 'pick', 'level')) return no(v);
  const [where, height] = [sent(v, scene), levelled(v['level'] as Level, { ...v, by: { pick: '' } }, scene)];
  if ('wrong' in where) return where;
  if ('wrong' in height) return height;
  const [one, ...others] = where.acts;
  const [level, ...more] = height.acts;
  if (!one || !level || others.length > 0 || more.length > 0) return no(v);
  return { acts: [thenAct(level, one)] };
}

/** What was given to a hand is played on these pieces. */
export function givenOn(given: Said, { limbs }: LimbTerm, lists: VoicesSaid, scene: RuleContext): Said {
  const [hand, ...others] = limbs;
  if (!('acts' in given) || !hand || others.length > 0 || !isHand(hand)) return given;
  const [only, ...more] = given.acts;
  if (!only?.them || more.length > 0) return given;
  const them = new Set([...only.them].map((key) => `${key.slice(0, key.indexOf(' '))} ${hand}`));
  const where = send({ base: 'them', said: 'them' }, lists, { ...scene, pattern: afterAct(only, scene), them });
  if (!('acts' in where)) return where;
  return { acts: where.acts.map((one) => thenAct(only, one)) };
}

/** A foot plays on these counts and nowhere else. */
export function footOnly(v: Values, scene: RuleContext): Said {
  const pick = pickIn(v);
  const [foot, ...others] = pick.limb?.limbs ?? [];
  if (!pick.counts || !foot || isHand(foot) || others.length > 0) return no(v);
  const { pattern } = scene;
  const { limb: _, ...where } = pick;
  const there = places(where, pattern);
  if (there === null || isWrong(there)) return no(v);
  const at = new Set(there.ways[0]);
  const has = (t: number): boolean => pattern.strokes.some((s) => s.limb === foot && s.at === t);
  const gone = pattern.strokes.flatMap((s, i) => (s.limb === foot && !at.has(s.at) ? [i] : []));
  const more = [...at].filter((t) => !has(t));
  if (gone.length + more.length === 0) return wrong(pick.said, 'It plays nowhere else.');
  return acts([
    ...(gone.length === 0 ? [] : [offerOf('drop', { select: selectionOf(pick, pattern, gone) })]),
    ...(more.length === 0 ? [] : [addAt(more, foot)]),
  ]);
}

/** "Swap the kick with the snare": what a foot plays cannot be sent, and so they change places. */
export function tradedWith(v: Values, scene: RuleContext): Said {
  const lists = v['voices'] as VoicesSaid;
  const [foot] = pickIn(v).limb?.limbs ?? [];
  if (markerOf(v, 'voices') !== 'with' || !foot || isHand(foot) || lists.length !== 1) return no(v);
  return tradedPieces({ ...pickIn(v), and: { base: null, voices: lists[0] ?? [], said: '' } }, scene);
}
