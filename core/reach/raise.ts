import { count, listed } from '../base';
import { canStrike, isHand, LIMB_WORDS, otherHand, VOICE, VOICES, type Stroke } from '../stroke';
import type { Schools } from '../time';
import { leadHand, placesWords, placeWords, rolesOf, runsOf, unisons, type Pattern } from '../pattern';
import { applyMove, limbEdits, offerOf, ornamentEdits, restEdits, voiceEdits, type Edit, type Offer } from '../recipe';
import { pieceFor, revoice, type Kit } from '../kit';
import { ceiling, tightPairs, type TightPair } from './ceiling';
import { heldStrokes } from './held';
import { handPaths } from './paths';
import type { Profile } from './profile';
import { limitOf } from './top';

/** A change that raises the ceiling, as a move, with what it brings and what it costs. */
export interface Raise extends Offer {
  /** The ceiling with it, and by how much it is higher, in counted beats a minute. */
  readonly bpm: number;
  readonly gain: number;
  /** What is lost by it, in words: "the ghost on the e of 1 goes"; null where the music is the same. */
  readonly loss: string | null;
  /** The phrase with it, as it is written. */
  readonly pattern: Pattern;
}

/** A change that is worth less than this, in beats a minute, is not offered. */
const LEAST_GAIN = 1;
const MOST_RAISES = 4;

/** Pairs within this share of the tightest are as tight as it: a change has to help all of them. */
const AS_TIGHT = 1.001;

/** What is left out is at most this share of the strokes, or it is another phrase: of the feet's, and of the hands'. */
const FEW = { feet: 1 / 4, hands: 1 / 8 } as const;

/** What costs something must raise the ceiling by this share of it at least. */
const WORTH_IT = 0.15;

/** More places than this are told by how many they are: the ribbon shows them. */
const MOST_NAMED = { counts: 4, words: 2 } as const;

interface Change extends Offer {
  readonly loss: string | null;
}

/**
 * What would raise the ceiling and keep the music: the other hand for the strokes that are too near, a flam as one
 * stroke, what fills between left out or on the drum beside, a kick a slot away, the hands swapped. Where several
 * places are equally tight the change is made in all of them. What carries the phrase stays as it is (`heldStrokes`);
 * nothing is added, no hand crosses the other more often, and no hand plays longer runs. Each is worked out; those that
 * help come back, the best first: one that loses something must bring twice as much. Empty when nothing limits the
 * phrase below 400 or nothing helps.
 */
export function raises(pattern: Pattern, kit: Kit, profile: Profile, schools: Schools): readonly Raise[] {
  // What is too near is found in what is played on this kit, and changed in what is written.
  const played = revoice(pattern, kit).pattern;
  const all = tightPairs(played, kit, profile);
  const [tight] = all;
  const { bpm: before, impossible } = ceiling(played, kit, profile);
  if (before === null || limitOf(before) === null || !tight) return [];
  const alike = all
    .filter((p) => p.bpm <= tight.bpm * AS_TIGHT && p.limb === tight.limb)
    .map((p) => ({ ...p, from: writtenAs(pattern, played, p.from), to: writtenAs(pattern, played, p.to) }));
  const held = heldStrokes(pattern);
  const changes = [
    ...(['to', 'from'] as const).flatMap((end) => changesOf(pattern, spread(alike, end), held, kit, schools)),
    ...plainOf(pattern, alike, schools),
    ...mirrored(pattern, held),
  ];
  const was = {
    crossings: handPaths(played, kit).crossings.length,
    run: longestRun(played),
    unisons: unisons(pattern).length,
  };
  const found = changes.flatMap((change): Raise[] => {
    const { pattern: then } = applyMove(pattern, change.entry, () => pattern);
    if (unisons(then).length > was.unisons) return [];
    const on = revoice(then, kit).pattern;
    const after = ceiling(on, kit, profile);
    // A kick put where the same foot works another pedal would be no help at all.
    if (after.bpm === null || after.impossible.length > impossible.length) return [];
    if (handPaths(on, kit).crossings.length > was.crossings || longestRun(on) > Math.max(2, was.run)) return [];
    const gain = after.bpm - before;
    const least = change.loss === null ? LEAST_GAIN : Math.max(LEAST_GAIN, before * WORTH_IT);
    return gain >= least ? [{ ...change, bpm: after.bpm, gain, pattern: then }] : [];
  });
  const said = new Set<string>();
  return found
    .sort((a, b) => worthOf(b) - worthOf(a))
    .filter((r) => !said.has(r.words) && said.add(r.words))
    .slice(0, MOST_RAISES);
}

/** What a change is worth: where something is lost, it must bring twice as much. */
function worthOf({ gain, loss }: Raise): number {
  return loss === null ? 2 * gain : gain;
}

/**
 * Which stroke of the written pattern a stroke of the played one comes from: a second kick may have gone to the first
 * foot.
 */
function writtenAs(written: Pattern, played: Pattern, index: number): number {
  const s = played.strokes[index];
  const own = written.strokes.findIndex((w) => w.at === s?.at && w.limb === s.limb);
  return own >= 0 ? own : written.strokes.findIndex((w) => w.at === s?.at && w.limb === 'J' && s.limb === 'K');
}

/** The longest run of one hand, in strokes that follow each other on the grid. */
function longestRun({ strokes, grid }: Pattern): number {
  const hands = strokes.filter((s) => isHand(s.limb));
  return Math.max(0, ...runsOf(hands, (a, b) => a.limb === b.limb && b.at - a.at <= grid).map((r) => r.length));
}

/** One stroke of each pair, but never both of one: the middle of three in a row is enough. Grace strokes are none. */
function spread(pairs: readonly TightPair[], end: 'to' | 'from'): readonly number[] {
  const taken = new Set<number>();
  for (const p of [...pairs].sort((a, b) => a.at - b.at)) {
    const isGrace = p.graces[end === 'from' ? 0 : 1];
    if (!isGrace && !taken.has(p.from) && !taken.has(p.to)) taken.add(p[end]);
  }
  return [...taken];
}

/** Strokes whose grace strokes are too near, played without them. */
function plainOf(pattern: Pattern, pairs: readonly TightPair[], schools: Schools): Change[] {
  const own = pairs.flatMap((p) => [...(p.graces[0] ? [p.from] : []), ...(p.graces[1] ? [p.to] : [])]);
  const chosen = [...new Set(own)].filter((i) => pattern.strokes[i]?.ornament);
  const [first] = chosen.map((i) => pattern.strokes[i]);
  if (!first?.ornament) return [];
  const where = whereOf(pattern, chosen, schools);
  const many = chosen.length > 1;
  return touch(
    ornamentEdits(pattern, chosen, null),
    `Play ${where.these} without the ${first.ornament}${many ? 's' : ''}`,
    `${count(chosen.length, first.ornament)} less`,
  );
}

/** The other way round: only where no hand keeps time and nothing is landed on. */
function mirrored(pattern: Pattern, held: ReadonlySet<number>): Change[] {
  const hands = pattern.strokes.filter((s) => isHand(s.limb));
  const isFree = pattern.strokes.every((s, i) => !held.has(i) || s.at === pattern.strokes[0]?.at);
  const lead = leadHand(hands);
  if (!isFree || !lead) return [];
  const loss = `it begins with the ${LIMB_WORDS[otherHand(lead)]}`;
  return [{ ...offerOf('mirror', { feet: false }), words: 'Swap the hands', loss }];
}

function touch(edits: readonly Edit[], words: string, loss: string | null): Change[] {
  return edits.length === 0 ? [] : [{ ...offerOf('touch', { edits: [...edits] }), words, loss }];
}

/** Places in a sentence: behind a verb ("1a and 3a"), and behind what is there ("on 1a and 3a", "in 8 places"). */
interface Where {
  readonly these: string;
  readonly on: string;
}

function whereOf(pattern: Pattern, chosen: readonly number[], schools: Schools): Where {
  const at = [...new Set(chosen.flatMap((i) => pattern.strokes[i]?.at ?? []))];
  const counts = placesWords(pattern, at, schools);
  // Letters stand in a list as they are; what has none is named in words, which are long.
  const isPlain = at.length > 1 && /^[\dea&, ]+(?:and [\dea&]+)?$/.test(counts);
  if (at.length > (isPlain ? MOST_NAMED.counts : MOST_NAMED.words))
    return { these: `${at.length} strokes`, on: `in ${at.length} places` };
  const these = isPlain ? counts : listed(at.map((t) => placeWords(pattern, t, schools)));
  return { these, on: `on ${these}` };
}

function changesOf(
  pattern: Pattern,
  all: readonly number[],
  held: ReadonlySet<number>,
  kit: Kit,
  schools: Schools,
): Change[] {
  // Some of the places helped is no help: all are as tight.
  if (all.length === 0 || all.some((i) => held.has(i))) return [];
  const strokes = all.flatMap((i) => pattern.strokes[i] ?? []);
  const [first] = strokes;
  if (!first) return [];
  const where = whereOf(pattern, all, schools);
  const isFiller = isFillerIn(pattern);
  const out = all.every(isFiller) ? leftOut(pattern, all, where) : [];
  if (!isHand(first.limb)) return [...kicksMoved(pattern, all, where), ...out];
  return [
    ...otherHands(pattern, all, where),
    ...out,
    ...(all.every(isFiller) ? voicesOf(pattern, all, where, kit) : []),
  ];
}

/** What only fills between: ghosts, plain strokes that carry nothing, kicks that are not accented. */
function isFillerIn(pattern: Pattern): (index: number) => boolean {
  const roles = rolesOf(pattern);
  return (i) => {
    const s = pattern.strokes[i];
    return s !== undefined && s.level !== 'accent' && (roles[i] === 'texture' || !isHand(s.limb));
  };
}

function otherHands(pattern: Pattern, all: readonly number[], where: Where): Change[] {
  const strokes = all.flatMap((i) => pattern.strokes[i] ?? []);
  const [first] = strokes;
  if (!first || strokes.some((s) => s.ornament)) return [];
  const other = otherHand(first.limb);
  const busy = strokes.some((s) => pattern.strokes.some((o) => o.at === s.at && o.limb === other));
  return busy ? [] : touch(limbEdits(pattern, all, other), `Play ${where.these} with the ${LIMB_WORDS[other]}`, null);
}

function leftOut(pattern: Pattern, all: readonly number[], where: Where): Change[] {
  const isFoot = all.every((i) => !isHand(pattern.strokes[i]?.limb ?? 'R'));
  if (all.length > Math.max(1, pattern.strokes.length * (isFoot ? FEW.feet : FEW.hands))) return [];
  const names = [...new Set(all.flatMap((i) => nameOf(pattern.strokes[i])))];
  const many = all.length > 1;
  const what = `${listed(names.map((n) => `the ${n}${many && names.length === 1 ? 's' : ''}`))} ${where.on}`;
  const one = names.length === 1 ? (names[0] ?? 'stroke') : 'stroke';
  return touch(restEdits(pattern, all), `Leave out ${what}`, `${count(all.length, one)} less`);
}

function nameOf(stroke: Stroke | undefined): string[] {
  if (!stroke) return [];
  if (stroke.level === 'ghost') return ['ghost'];
  return [isHand(stroke.limb) && VOICE[stroke.voice].piece === 'snare' ? 'plain stroke' : VOICE[stroke.voice].name];
}

/** A slot earlier or later, where the foot is free and no hand plays that did not before. */
function kicksMoved(pattern: Pattern, all: readonly number[], where: Where): Change[] {
  const strokes = all.flatMap((i) => pattern.strokes[i] ?? []);
  const [first] = strokes;
  if (!first || strokes.some((s) => s.level === 'accent')) return [];
  const sounds = (at: number): boolean => pattern.strokes.some((o) => o.at === at && isHand(o.limb));
  return [-1, 1].flatMap((by) => {
    const slots = strokes.map((s) => ({ s, to: s.at + by * pattern.grid }));
    const free = slots.every(
      ({ s, to }) =>
        to >= 0 &&
        to < pattern.length &&
        !pattern.strokes.some((o) => o.at === to && !isHand(o.limb)) &&
        (!sounds(to) || sounds(s.at)),
    );
    if (!free) return [];
    const name = VOICE[first.voice].name;
    const moved = slots.map(({ s, to }): Edit => ({
      at: to,
      limb: s.limb,
      stroke: { level: s.level, voice: s.voice },
    }));
    const words = `Move the ${name} ${where.on} one slot ${by < 0 ? 'earlier' : 'later'}`;
    return touch([...restEdits(pattern, all), ...moved], words, `no ${name} ${where.on}`);
  });
}

/** On a drum beside: as far as it has to be, and no further. */
function voicesOf(pattern: Pattern, all: readonly number[], where: Where, kit: Kit): Change[] {
  const [first] = all.flatMap((i) => pattern.strokes[i] ?? []);
  if (!first) return [];
  const { family, name } = VOICE[first.voice];
  if (family !== 'skin' || all.some((i) => pattern.strokes[i]?.voice !== first.voice)) return [];
  const near = VOICES.filter(
    (v) =>
      v !== first.voice &&
      VOICE[v].family === family &&
      VOICE[v].piece !== VOICE[first.voice].piece &&
      VOICE[v].spot === 'centre' &&
      canStrike(first.limb, v) &&
      pieceFor(kit, v),
  );
  return near.flatMap((v) =>
    touch(voiceEdits(pattern, all, v), `Use the ${VOICE[v].name} ${where.on}`, `no ${name} ${where.on}`),
  );
}
