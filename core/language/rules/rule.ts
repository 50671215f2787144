import { isHand, usualVoice, type Level, type Limb } from '../../stroke';
import type { Pattern } from '../../pattern';
import type { Selection } from '../../selection';
import { applyMove, asEdit, offerOf, type Build, type MoveEntry, type Offer } from '../../recipe';
import { chosen, type Before, type BeatMeaning } from '../grammar/choose';
import { selectionOf } from '../grammar/said-select';
import { isWrong, keyOf } from '../grammar/stretches';
import type { Pick } from '../grammar/pick';
import type { ShelfPhrase } from '../lexicon/phrases';
import { Template, type Values } from '../lexicon/template';

/** One thing a clause can mean: moves, and the strokes it spoke of. */
export interface Act {
  readonly moves: readonly MoveEntry[];
  readonly words: string;
  /** What "them", "it" and "the rest" stand for afterwards, by tick and limb. */
  readonly them?: ReadonlySet<string>;
  /** Where one of several was spoken of: all of them, for "the others". */
  readonly kin?: ReadonlySet<string>;
}

/** What a clause means for a phrase; or which of its words cannot be met, and why. */
export type Said = { readonly acts: readonly Act[] } | { readonly wrong: string; readonly why: string };

export interface RuleContext extends Before {
  readonly built: Build;
  /** The line has sent hands elsewhere already: a kick that is listed with them joins in. */
  readonly sends?: boolean;
  /** All that was spoken of in the line so far, for "the rest". */
  readonly spoken?: ReadonlySet<string>;
  /** What the clause before did to strokes it named, for a clause that names others and no act. */
  readonly last?: { readonly mean: Rule['mean']; readonly values: Values } | undefined;
  /** "…, underneath" was said of all of the line: what is added takes nobody's place. */
  readonly isBeneath?: boolean;
  /** The kit has no second kick pedal: nobody is asked whether it is meant. */
  readonly isOnePedal?: boolean;
  /** Phrases of the shelf that can be named. */
  readonly phrases?: readonly ShelfPhrase[];
}

/** Sentences of one meaning. `rank` puts meanings that only count when no other holds behind. */
export interface Rule {
  readonly say: readonly Template[];
  readonly rank: number;
  readonly mean: (values: Values, scene: RuleContext) => Said;
}

export function rule(say: readonly string[], mean: Rule['mean'], rank = 0): Rule {
  return { say: say.map((s) => new Template(s)), rank, mean };
}

export const wrong = (words: string, why: string): Said => ({ wrong: words, why });

/** A clause that means one thing. */
export function act(offers: readonly Offer[], them?: ReadonlySet<string>, kin?: ReadonlySet<string>): Act {
  return {
    moves: offers.map((o) => o.entry),
    words: offers.map((o) => o.words).join(', then '),
    ...(them ? { them } : {}),
    ...(kin ? { kin } : {}),
  };
}

/** One thing after the other. */
export const thenAct = (one: Act, next: Act): Act => ({
  ...next,
  moves: [...one.moves, ...next.moves],
  words: `${one.words}, then ${next.words}`,
});

/** The phrase as an act leaves it. */
export const afterAct = ({ moves }: Act, { pattern }: RuleContext): Pattern =>
  moves.reduce((now, move) => applyMove(now, move, () => now).pattern, pattern);

export function acts(...all: readonly (readonly Offer[])[]): Said {
  return { acts: all.map((offers) => act(offers)) };
}

export function themOf(pattern: Pattern, indexes: readonly number[]): ReadonlySet<string> {
  return new Set(indexes.flatMap((i) => (pattern.strokes[i] ? [keyOf(pattern.strokes[i])] : [])));
}

/** What is named stays as it is, and is what was spoken of; a beat that stays is all of it. */
export function stays(pick: Pick, scene: RuleContext): Said {
  const whole = pick.counts?.every((c) => c.as !== 'count') === true;
  const ways = chosen(pick, scene, whole ? 'beat' : 'count');
  if (isWrong(ways)) return ways;
  const kin = kinOf(pick, scene);
  return {
    acts: ways.ways.map((own) => ({ moves: [], words: '', them: themOf(scene.pattern, own), ...(kin ? { kin } : {}) })),
  };
}

/** All of which an ordinal chose one; undefined where none was said. */
export function kinOf(
  { order, except: _, ...rest }: Pick,
  scene: RuleContext,
  beats: BeatMeaning = 'count',
): ReadonlySet<string> | undefined {
  if (!order) return undefined;
  const all = chosen(rest, scene, beats);
  return isWrong(all) ? undefined : themOf(scene.pattern, all.ways[0] ?? []);
}

/** A meaning for each way to understand which strokes are meant. */
export function forStrokes(
  pick: Pick,
  scene: RuleContext,
  make: (
    select: Selection,
    indexes: readonly number[],
  ) => readonly Offer[] | { readonly wrong: string; readonly why: string },
  beats: BeatMeaning = 'count',
): Said {
  const ways = chosen(pick, scene, beats);
  if (isWrong(ways)) return ways;
  const found: Act[] = [];
  let bad: { readonly wrong: string; readonly why: string } | null = null;
  for (const own of ways.ways) {
    const made = make(selectionOf(pick, scene.pattern, own), own);
    if ('why' in made) bad ??= made;
    else found.push(act(made, themOf(scene.pattern, own), kinOf(pick, scene, beats)));
  }
  // Of several ways to understand it those count that can be carried out.
  return found.length > 0 || !bad ? { acts: found } : bad;
}

/** Whether all of these strokes are of feet, or of hands. */
export function allOf(pattern: Pattern, indexes: readonly number[], what: 'hands' | 'feet'): boolean {
  return indexes.every((i) => isHand(pattern.strokes[i]?.limb ?? 'K') === (what === 'hands'));
}

/** The strokes a clause speaks of. */
export const pickOf = (v: unknown): Pick => v as Pick;

/** Taps put in at places where nothing stands in their way. */
export function addAt(at: readonly number[], limb: Limb, voice = usualVoice(limb), level: Level = 'tap'): Offer {
  return offerOf('touch', { edits: at.map((t) => asEdit({ limb, voice, level }, t)) });
}
