import { mod } from '../../base';
import { barTicks } from '../../time';
import { canStrike, isHand, otherHand, usualVoice, type Level, type Limb, type Stroke, type Voice } from '../../stroke';
import { barsSpan, countRef, type Pattern } from '../../pattern';
import { asEdit, clipOf, offerOf, pasteEdits, restEdits, type Edit, type Offer } from '../../recipe';
import { chooses, type Selection, type Stretch } from '../../selection';
import { chosen } from '../grammar/choose';
import type { CountSaid } from '../grammar/counts';
import { places } from '../grammar/places';
import type { Pick } from '../grammar/pick';
import { ANY, selectionOf } from '../grammar/said-select';
import type { FarSaid } from '../grammar/slots';
import { isWrong, stretchesOf } from '../grammar/stretches';
import { act, acts, forStrokes, themOf, wrong, type Said, type RuleContext } from '../rules/rule';
import { slotsFar } from '../rules/shift';

/** Whether a choice says where and nothing of what it is. */
export function isPlace({ base, limb, levels, voices, ornaments, order, counts, bars, half }: Pick): boolean {
  const what = limb ?? levels ?? voices ?? ornaments ?? order;
  return base === null && what === undefined && (counts ?? bars ?? half) !== undefined;
}

/** Whether all of the phrase is meant. */
export function isWhole({
  base,
  limb,
  levels,
  voices,
  counts,
  bars,
  half,
  order,
  before,
  after,
  since,
  to,
}: Pick): boolean {
  const narrowed = limb ?? levels ?? voices ?? counts ?? bars ?? half ?? order ?? before ?? after ?? since ?? to;
  return (base === 'all' || base === 'it') && narrowed === undefined;
}

/** Some strokes displaced while the others stay: round the end, where their limb is free. */
export function displacedSome(pick: Pick, far: FarSaid, ways: readonly (1 | -1)[], scene: RuleContext): Said {
  const by = slotsFar(far, scene);
  if (!Number.isInteger(by) || by < 1) return wrong('that far', 'That is not a whole number of slots here.');
  const { pattern } = scene;
  const found = ways.map((way) =>
    forStrokes(pick, scene, (_, own) => {
      const step = by * way * pattern.grid;
      return heightsOnly(pick) ? displacedHeights(pattern, own, step) : displacedStrokes(pattern, own, step);
    }),
  );
  const bad = found.find((f) => 'wrong' in f);
  return bad ?? { acts: found.flatMap((f) => ('acts' in f ? f.acts : [])) };
}

/** "The accents": their height goes elsewhere, the strokes stay. */
function heightsOnly({ levels, limb, voices }: Pick): boolean {
  return levels?.length === 1 && levels[0] !== 'tap' && !limb && !voices;
}

type Made = readonly Offer[] | { readonly wrong: string; readonly why: string };

/** One stroke to a count: of its own bar, where that comes in several. */
export function strokeMoved(pick: Pick, count: CountSaid, scene: RuleContext): Said {
  const { pattern } = scene;
  const there = places({ base: null, counts: [count], said: pick.said }, pattern);
  if (there === null || isWrong(there)) return there ?? wrong(pick.said, '');
  const bar = barTicks(pattern.meter);
  return forStrokes(pick, scene, (_, own) => {
    const [stroke, ...others] = own.flatMap((i) => pattern.strokes[i] ?? []);
    if (!stroke || others.length > 0) return { wrong: pick.said, why: 'Say which one.' };
    const all = there.ways[0] ?? [];
    const barOf = (at: number): number => Math.floor((pattern.start + at) / bar);
    const same = all.filter((at) => barOf(at) === barOf(stroke.at));
    const [to, ...more] = same.length > 0 ? same : all;
    if (to === undefined || more.length > 0) return { wrong: pick.said, why: 'Say in which bar.' };
    if (to === stroke.at) return { wrong: pick.said, why: 'It is there already.' };
    return displacedStrokes(pattern, own, to - stroke.at);
  });
}

function displacedStrokes(pattern: Pattern, own: readonly number[], step: number): Made {
  const moving = own.flatMap((i) => pattern.strokes[i] ?? []);
  const to = moving.map((s) => ({ s, at: mod(s.at + step, pattern.length) }));
  const stays = pattern.strokes.filter((s) => !moving.includes(s));
  if (to.some(({ s, at }) => stays.some((o) => o.at === at && o.limb === s.limb)))
    return { wrong: 'there', why: 'That limb plays there already.' };
  const landed = new Set(to.map(({ s, at }) => `${at} ${s.limb}`));
  const gone = restEdits(pattern, own).filter((e) => !landed.has(`${e.at} ${e.limb}`));
  return [offerOf('touch', { edits: [...gone, ...to.map(({ s, at }) => asEdit(s, at))] })];
}

function displacedHeights(pattern: Pattern, own: readonly number[], step: number): Made {
  const before = own.flatMap((i) => pattern.strokes[i] ?? []);
  const [level] = before.map((s) => s.level);
  const places = new Set(before.map((s) => mod(s.at + step, pattern.length)));
  const now = pattern.strokes.flatMap((s, i) => (places.has(s.at) ? [i] : []));
  if (!level || places.size !== new Set(now.map((i) => pattern.strokes[i]?.at)).size)
    return { wrong: 'there', why: 'Not every place it would fall on is played.' };
  const less = own.filter((i) => !now.includes(i));
  const more = now.filter((i) => pattern.strokes[i]?.level !== level);
  const set = (list: readonly number[], to: Level): readonly Offer[] =>
    list.length === 0 ? [] : [offerOf('level', { select: selectionOf(ANY, pattern, list), level: to })];
  const between: Pattern = {
    ...pattern,
    strokes: pattern.strokes.map((s, i) => (less.includes(i) ? { ...s, level: 'tap' as const } : s)),
  };
  return [
    ...set(less, 'tap'),
    ...(more.length === 0 ? [] : [offerOf('level', { select: selectionOf(ANY, between, more), level })]),
  ];
}

/** Heads of groups of such sizes, over and over, at a height; other strokes of that height are taps. */
export function groupedHeights(level: Level, sizes: readonly number[], scene: RuleContext): Said {
  const { pattern } = scene;
  const slots = pattern.length / pattern.grid;
  const heads = new Set<number>();
  for (let at = 0, n = 0; at < slots; at += sizes[n++ % sizes.length] ?? slots) heads.add(at * pattern.grid);
  const own = pattern.strokes.flatMap((s, i) => (heads.has(s.at) ? [i] : []));
  if (own.length === 0) return wrong(sizes.join('-'), 'Nothing is played there.');
  const others = pattern.strokes.flatMap((s, i) => (s.level === level && !own.includes(i) ? [i] : []));
  const [size, ...more] = sizes;
  const every = size !== undefined && more.every((n) => n === size);
  const select: Selection = every
    ? chooses({ every: { n: size, offset: 0, of: 'slot' } })
    : { is: 'count', counts: [...new Set(own.map((i) => countRef(pattern, pattern.strokes[i]?.at ?? 0)))] };
  return {
    acts: [
      act(
        [
          ...(others.length > 0 ? [offerOf('level', { select: selectionOf(ANY, pattern, others), level: 'tap' })] : []),
          offerOf('level', { select, level }),
        ],
        themOf(pattern, own),
      ),
    ],
  };
}

/** All but some strokes are left out. */
export function keptOnly(pick: Pick, scene: RuleContext): Said {
  const ways = chosen(pick, scene);
  if (isWrong(ways)) return ways;
  const { strokes } = scene.pattern;
  const made = ways.ways.flatMap((own) => {
    const others = strokes.flatMap((_, i) => (own.includes(i) ? [] : [i]));
    if (others.length === 0) return [];
    const kept = selectionOf(pick, scene.pattern, own);
    return [
      act([offerOf('drop', { select: { is: 'but', of: { is: 'all' }, not: kept } })], themOf(scene.pattern, own)),
    ];
  });
  return made.length > 0 ? { acts: made } : wrong(pick.said, 'There is nothing else.');
}

/** Hands put on the strokes of the hands, in turn, round and round; where they do not come out even, nothing. */
export function handsInTurn(text: string, scene: RuleContext, among?: readonly number[]): Said {
  const { pattern } = scene;
  const hands = pattern.strokes.filter((s, i) => isHand(s.limb) && (!among || among.includes(i)));
  const moments = [...new Set(hands.map((s) => s.at))];
  if (moments.length === 0) return wrong(text, 'No hand plays here.');
  if (moments.length < hands.length) return wrong(text, 'Both hands play together here.');
  if (moments.length % text.length !== 0)
    return wrong(text, `That is ${text.length} strokes, and the hands play ${moments.length}.`);
  const edits = hands.flatMap((s, n): Edit[] => {
    const limb: Limb = text.charAt(n % text.length) === 'R' ? 'R' : 'L';
    if (limb === s.limb) return [];
    const voice = canStrike(limb, s.voice) ? s.voice : usualVoice(limb);
    return [{ at: s.at, limb: s.limb, stroke: null }, asEdit({ ...s, limb, voice }, s.at)];
  });
  return edits.length === 0 ? wrong(text, 'It is played so already.') : acts([offerOf('touch', { edits })]);
}

/** Two bars that change places. */
export function tradedBars(pick: Pick, { pattern }: RuleContext): Said {
  const { bars: many } = barsSpan(pattern);
  const [one, other, ...more] = (pick.bars ?? []).map((b) => (b === 'last' ? many : b));
  const bar = barTicks(pattern.meter);
  if (one === undefined || other === undefined || more.length > 0) return wrong(pick.said, 'Name two bars.');
  if (Math.max(one, other) > many || one === other) return wrong(pick.said, 'There are no two such bars.');
  if (pattern.start !== 0 || pattern.length % bar !== 0)
    return wrong(pick.said, 'The phrase is not made of whole bars.');
  const [a, b] = [one, other].map((n) => (n - 1) * bar);
  const clip = (from: number) => clipOf(pattern, from, from + bar);
  const edits = [...pasteEdits(pattern, a ?? 0, clip(b ?? 0)), ...pasteEdits(pattern, b ?? 0, clip(a ?? 0))];
  return acts([offerOf('touch', { edits })]);
}

/** "The last two", "the first two strokes", and nothing of what they are. */
export function isTwoAtAnEdge({ base, order, said: _, many: __, ...rest }: Pick): boolean {
  const isEdge = (order?.kind === 'last' || order?.kind === 'first') && order.n === 2;
  return isEdge && base === null && Object.keys(rest).length === 0;
}

/** Two neighbours change places, or each changes hands. */
export function tradedStrokes(pick: Pick, scene: RuleContext): Said {
  const { pattern } = scene;
  const own = chosen(pick, scene);
  if (isWrong(own)) return own;
  const [a, b, ...more] = [...new Set((own.ways[0] ?? []).map((i) => pattern.strokes[i]?.at ?? 0))];
  if (a === undefined || b === undefined || more.length > 0) return wrong(pick.said, 'Name two strokes.');
  const clip = (from: number) => clipOf(pattern, from, from + pattern.grid);
  const edits = [...pasteEdits(pattern, a, clip(b)), ...pasteEdits(pattern, b, clip(a))];
  const hands = forStrokes(pick, scene, (_, all) => {
    const some = all.filter((i) => isHand(pattern.strokes[i]?.limb ?? 'K'));
    if (some.length === 0) return { wrong: pick.said, why: 'Feet cannot do that.' };
    return [offerOf('swap', { select: selectionOf(pick, pattern, some), limb: 'other' })];
  });
  return { acts: [act([offerOf('touch', { edits })]), ...('acts' in hands ? hands.acts : [])] };
}

/** A bar, a half or a beat as stretches in ticks from the start; none where it is not in the phrase. */
function stretchesSaid({ bars, counts, half, halfOf }: Pick, pattern: Pattern): readonly Stretch[] {
  const bar = barTicks(pattern.meter);
  const { bars: many } = barsSpan(pattern);
  if (counts) return counts.flatMap((c) => stretchesOf(pattern, c, 'beat', bars) ?? []);
  const numbers = bars?.map((b) => (b === 'last' ? many : b)) ?? (halfOf === 'bar' ? [1] : null);
  const wholes =
    numbers === null
      ? [{ from: 0, until: pattern.length as number }]
      : numbers.map((n) => ({ from: (n - 1) * bar - pattern.start, until: n * bar - pattern.start }));
  const own = wholes.filter((w) => w.from >= 0 && w.until <= pattern.length);
  if (half === undefined) return own;
  return own.map(({ from, until }) => {
    const middle = from + Math.floor((until - from) / 2);
    return half === 1 ? { from, until: middle } : { from: middle, until };
  });
}

/** One part of the phrase is played again in place of others as long as it. */
export function partCopied(source: Pick, target: Pick, isMirrored: boolean, { pattern }: RuleContext): Said {
  const [own, ...more] = stretchesSaid(source, pattern);
  const targets = stretchesSaid(target, pattern);
  if (!own || more.length > 0) return wrong(source.said, 'Say one part that is played again.');
  if (targets.length === 0) return wrong(target.said, 'It is not in this phrase.');
  if (targets.some((t) => t.until - t.from !== own.until - own.from))
    return wrong(target.said, 'They are not equally long.');
  const clip = clipOf(pattern, own.from, own.until);
  const strokes = isMirrored
    ? clip.strokes.map((s) => (isHand(s.limb) ? { ...s, limb: otherHand(s.limb) } : s))
    : clip.strokes;
  const edits = targets.flatMap((t) => (t.from === own.from ? [] : pasteEdits(pattern, t.from, { ...clip, strokes })));
  return edits.length === 0 ? wrong(target.said, 'It is that already.') : acts([offerOf('touch', { edits })]);
}

/** Two pieces, or a foot and a piece, that change places: what was on the one is on the other. */
export function tradedPieces(pick: Pick, { pattern }: RuleContext): Said {
  const { and, ...first } = pick;
  if (!and || and.and) return wrong(pick.said, 'Name two.');
  const [one, other] = [sideOf(first, pattern), sideOf(and, pattern)];
  if (!one || !other) return wrong(pick.said, 'Name two pieces.');
  const edits: Edit[] = [];
  for (const s of pattern.strokes) {
    const to = one.has(s) ? other : other.has(s) ? one : null;
    if (!to) continue;
    const limb = isHand(s.limb) === isHand(to.limb) ? s.limb : to.limb;
    if (!canStrike(limb, to.voice)) return wrong(pick.said, 'They cannot change places.');
    if (limb !== s.limb) edits.push({ at: s.at, limb: s.limb, stroke: null });
    edits.push(asEdit({ ...s, limb, voice: to.voice, level: s.level }, s.at));
  }
  const landed = edits.filter((e) => e.stroke);
  const twice = new Set(landed.map((e) => `${e.at} ${e.limb}`)).size < landed.length;
  if (twice) return wrong(pick.said, 'They are played together here.');
  // What comes to a place stays there, whatever else leaves it.
  const taken = new Set(landed.map((e) => `${e.at} ${e.limb}`));
  const gone = edits.filter((e) => !e.stroke && !taken.has(`${e.at} ${e.limb}`));
  return edits.length === 0
    ? wrong(pick.said, 'There are none here.')
    : acts([offerOf('touch', { edits: [...gone, ...landed] })]);
}

interface Side {
  readonly has: (s: Stroke) => boolean;
  readonly voice: Voice;
  /** The limb that plays it most. */
  readonly limb: Limb;
}

/** One of two that change places, as it stands in the phrase; null where more is said of it than what it is. */
function sideOf({ voices, limb, ...rest }: Pick, pattern: Pattern): Side | null {
  const plain = Object.keys(rest).every((key) => key === 'base' || key === 'said' || key === 'many');
  const [foot, ...more] = limb?.limbs ?? [];
  if (!plain || rest.base !== null || (voices === undefined) === (limb === undefined) || more.length > 0) return null;
  const has = (s: Stroke): boolean => (voices ? voices.includes(s.voice) : s.limb === foot);
  const own = pattern.strokes.filter(has);
  const [voice = own[0]?.voice ?? (foot ? usualVoice(foot) : undefined)] = voices ?? [];
  const lefts = own.filter((s) => s.limb === 'L').length;
  const most = own[0] && isHand(own[0].limb) ? (lefts * 2 >= own.length ? 'L' : 'R') : own[0]?.limb;
  return voice ? { has, voice, limb: most ?? foot ?? 'R' } : null;
}
