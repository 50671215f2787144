import { checksumOf } from '../base';
import { difference, type Pattern } from '../pattern';
import { applyMove, build, type MoveEntry, type Recipe, isSame } from '../recipe';
import { ceilingOn, limitOf } from '../reach';
import { canonicalForm, exactForm } from './canonical';
import { changesOf, type Change, type VariantKind, type VariantWish } from './kinds';

/** Candidates looked at, and variants shown, at the most. */
export const VARIANT_LIMITS = Object.freeze({ candidates: 20_000, shown: 200 });

/** One line of the sheet. */
export interface Variant {
  readonly kind: VariantKind;
  /** The one change, in words. */
  readonly words: string;
  /** The parent's recipe with one move more. */
  readonly move: MoveEntry;
  readonly pattern: Pattern;
  /** Counted beats a minute up to which it can be played, in whole ones; null when nothing limits it. */
  readonly ceiling: number | null;
  /** Places that differ from the parent. */
  readonly distance: number;
  /** Whether nothing like it lies on the shelf. */
  readonly fresh: boolean;
}

/** A variant before it is known whether it is shown. */
type Candidate = Omit<Variant, 'kind' | 'words' | 'move'> & { readonly change: Change };

/** A sheet of variants: the best of those found. */
export interface VariantSheet {
  readonly best: readonly Variant[];
  /** Different ones among the candidates. */
  readonly found: number;
  readonly candidates: number;
  /** False when the bound was reached before the end. */
  readonly complete: boolean;
}

/**
 * Counted beats a minute at which a pattern can just be played on the wish's kit by its player, in whole ones; null
 * where nothing limits it.
 */
function ceilingOf(pattern: Pattern, { kit, profile }: VariantWish): number | null {
  const bpm = limitOf(ceilingOn(pattern, kit, profile).bpm);
  return bpm === null ? null : Math.floor(bpm);
}

/** How often the caller hears how far it is. */
const TELL_EVERY = 500;

/**
 * The variants of a recipe, each one change away: generated in the order of the wish, rotations and mirrors of what was
 * there already left out, ranked by ceiling, then by what is not on the shelf yet, then by nearness to the parent. A
 * generator: it yields the number of candidates so far now and then, so that whoever runs it can show it and stop; what
 * it returns is the sheet. `shelf` holds the checksums of the canonical and of the exact forms of what lies on the
 * shelf: what is displaced or mirrored is held against what was kept, all else against what that could be turned into.
 */
export function* variantsOf(
  recipe: Recipe,
  wish: VariantWish,
  shelf: ReadonlySet<string>,
): Generator<number, VariantSheet> {
  const parent = build(recipe).pattern;
  const seen = new Set([canonicalForm(parent)]);
  const found: Candidate[] = [];
  let candidates = 0;
  // A displacement or a swap of hands is a rotation or mirror of the parent by nature: asked for, it is shown.
  const asked = (kind: VariantKind): boolean => kind === 'displaced' || kind === 'mirrored';
  for (const kind of parent.strokes.length > 0 ? wish.kinds : []) {
    for (const change of changesOf(kind, parent, wish)) {
      if (candidates >= VARIANT_LIMITS.candidates) return sheet(found, candidates, false);
      if (++candidates % TELL_EVERY === 0) yield candidates;
      const { pattern, findings } = applyMove(parent, change.move, () => parent);
      // Eight slots later two equal halves are what they were.
      if (isSame(pattern, parent) || findings.some((f) => f.weight === 'stop')) continue;
      const form = canonicalForm(pattern);
      const key = asked(kind) ? JSON.stringify(change.move) : form;
      if (seen.has(key)) continue;
      seen.add(key);
      found.push({
        change,
        pattern,
        ceiling: ceilingOf(pattern, wish),
        distance: distanceOf(parent, pattern),
        fresh: !shelf.has(checksumOf(asked(kind) ? exactForm(pattern) : form)),
      });
    }
  }
  return sheet(found, candidates, true);
}

/** Places that differ; a quick count for ranking where the lengths are alike, else all of them. */
function distanceOf(parent: Pattern, pattern: Pattern): number {
  return parent.length === pattern.length ? difference(parent, pattern).length : parent.strokes.length;
}

function sheet(found: readonly Candidate[], candidates: number, complete: boolean): VariantSheet {
  const reach = (c: Candidate): number => c.ceiling ?? Number.MAX_SAFE_INTEGER;
  const ranked = [...found].sort(
    (a, b) => reach(b) - reach(a) || Number(b.fresh) - Number(a.fresh) || a.distance - b.distance,
  );
  const best = ranked
    .slice(0, VARIANT_LIMITS.shown)
    .map(({ change, ...rest }): Variant => ({ kind: change.kind, words: change.words(), move: change.move, ...rest }));
  return { best, found: found.length, candidates, complete };
}

/** Runs a generator of variants to its end. */
export function allVariants(recipe: Recipe, wish: VariantWish, shelf: ReadonlySet<string> = new Set()): VariantSheet {
  const steps = variantsOf(recipe, wish, shelf);
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}

/** "showing the best 200 of at least 12,000". */
export function sheetWords({ best, found, complete }: VariantSheet): string {
  const number = (n: number): string => n.toLocaleString('en');
  if (complete && best.length === found) return `${number(found)} ${found === 1 ? 'variant' : 'variants'}`;
  return `showing the best ${number(best.length)} of ${complete ? '' : 'at least '}${number(found)}`;
}
