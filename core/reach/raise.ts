import { canStrike, isHand, LIMB_WORDS, otherHand, VOICE, VOICES } from '../stroke';
import type { Schools } from '../time';
import { placesWords, placeWords, type Pattern } from '../pattern';
import { applyMove, limbEdits, offerOf, restEdits, voiceEdits, type Edit, type Offer } from '../recipe';
import { pieceFor, revoice, type Kit } from '../kit';
import { ceiling, tightPairs, type TightPair } from './ceiling';
import type { Profile } from './profile';

/** A change that raises the ceiling, as a move, with what it brings. */
export interface Raise extends Offer {
  /** The ceiling with it, and by how much it is higher, in counted beats a minute. */
  readonly bpm: number;
  readonly gain: number;
}

/** A change that is worth less than this, in beats a minute, is not offered. */
const LEAST_GAIN = 1;
const MOST_RAISES = 4;

/** Pairs within this share of the tightest are as tight as it: a change has to help all of them. */
const AS_TIGHT = 1.001;

/**
 * What would raise the ceiling: another hand for the strokes that are too near, another voice for them, a kick a slot
 * away, the hands swapped. Where several places are equally tight the change is made in all of them. Each is worked
 * out; those that help come back, the best first. Empty when nothing limits the phrase or nothing helps.
 */
export function raises(pattern: Pattern, kit: Kit, profile: Profile, schools: Schools): readonly Raise[] {
  // What is too near is found in what is played on this kit, and changed in what is written.
  const played = revoice(pattern, kit).pattern;
  const all = tightPairs(played, kit, profile);
  const [tight] = all;
  const { bpm: before, impossible } = ceiling(played, kit, profile);
  if (before === null || !tight) return [];
  const alike = all
    .filter((p) => p.bpm <= tight.bpm * AS_TIGHT && p.limb === tight.limb)
    .map((p) => ({ ...p, from: writtenAs(pattern, played, p.from), to: writtenAs(pattern, played, p.to) }));
  const offers = (['to', 'from'] as const).flatMap((end) => changesOf(pattern, spread(alike, end), kit, schools));
  const found = [...offers, { ...offerOf('mirror', { feet: false }), words: 'Swap the hands' }].flatMap(
    (offer): Raise[] => {
      const outcome = applyMove(pattern, offer.entry, () => pattern);
      const then = revoice(outcome.pattern, kit).pattern;
      const after = ceiling(then, kit, profile);
      // A kick put where the same foot works another pedal would be no help at all, nor one that is lost in another.
      if (
        after.bpm === null ||
        after.impossible.length > impossible.length ||
        then.strokes.length < played.strokes.length
      )
        return [];
      const gain = after.bpm - before;
      return gain >= LEAST_GAIN ? [{ ...offer, bpm: after.bpm, gain }] : [];
    },
  );
  const said = new Set<string>();
  return found
    .sort((a, b) => b.gain - a.gain)
    .filter((r) => !said.has(r.words) && said.add(r.words))
    .slice(0, MOST_RAISES);
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

/** One stroke of each pair, but never both of one: the middle of three in a row is enough. */
function spread(pairs: readonly TightPair[], end: 'to' | 'from'): readonly number[] {
  const taken = new Set<number>();
  for (const p of [...pairs].sort((a, b) => a.at - b.at)) if (!taken.has(p.from) && !taken.has(p.to)) taken.add(p[end]);
  return [...taken];
}

function changesOf(pattern: Pattern, chosen: readonly number[], kit: Kit, schools: Schools): Offer[] {
  const strokes = chosen.flatMap((i) => pattern.strokes[i] ?? []);
  const [first] = strokes;
  if (!first) return [];
  const at = strokes.map((s) => s.at);
  const where = at.length === 1 ? placeWords(pattern, first.at, schools) : placesWords(pattern, at, schools);
  const touch = (edits: readonly Edit[], words: string): Offer[] =>
    edits.length === 0 ? [] : [{ ...offerOf('touch', { edits: [...edits] }), words }];
  if (!isHand(first.limb)) {
    return [-1, 1].flatMap((by) => {
      const slots = strokes.map((s) => ({ s, to: s.at + by * pattern.grid }));
      const free = slots.every(
        ({ s, to }) => to >= 0 && to < pattern.length && !pattern.strokes.some((o) => o.at === to && o.limb === s.limb),
      );
      const moved = slots.map(({ s, to }): Edit => ({
        at: to,
        limb: s.limb,
        stroke: { level: s.level, voice: s.voice },
      }));
      const words = `Move the ${VOICE[first.voice].name} on ${where} one slot ${by < 0 ? 'earlier' : 'later'}`;
      return free ? touch([...restEdits(pattern, chosen), ...moved], words) : [];
    });
  }
  const other = otherHand(first.limb);
  const busy = strokes.some((s) => pattern.strokes.some((o) => o.at === s.at && o.limb === other));
  const hands = busy ? [] : touch(limbEdits(pattern, chosen, other), `Play ${where} with the ${LIMB_WORDS[other]}`);
  const family = VOICE[first.voice].family;
  const voices = VOICES.filter(
    (v) => v !== first.voice && VOICE[v].family === family && canStrike(first.limb, v) && pieceFor(kit, v),
  );
  return [
    ...hands,
    ...voices.flatMap((v) => touch(voiceEdits(pattern, chosen, v), `Use the ${VOICE[v].name} on ${where}`)),
  ];
}
