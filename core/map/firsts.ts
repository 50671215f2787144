import { listed } from '../base';
import { TRAITS, type Trait, type Traits } from '../shelf';

/** What a phrase has that none of the others has: one trait, or two together. */
export interface First {
  readonly traits: readonly (readonly [Trait, string])[];
}

/** Values that say that something is not there: nobody is first with them. */
const PLAIN: ReadonlySet<string> = new Set(['none', 'nowhere', 'stays', 'in one', 'on 1', 'no hands', 'nothing']);
/** On a shelf of fewer phrases nearly everything is a first; and so it is of two traits that hardly any phrase has. */
const LEAST = 5;
const AT_HOME = 3;

/**
 * What a phrase would be the first of among others: traits that none of them has, then pairs of traits of which each is
 * at home on the shelf (three phrases have it), those most at home first. Up to so many; empty on a shelf of less than
 * five.
 * @example
 * firstsOf(traitsOf(patternOfText([], meter(4, 4), GRID.triplets)), []) // => []
 */
export function firstsOf(own: Traits, others: readonly Traits[], most = 2): readonly First[] {
  if (others.length < LEAST) return [];
  const told = TRAITS.filter((t) => !PLAIN.has(own[t]));
  const many = (...of: readonly Trait[]): number => others.filter((o) => of.every((t) => o[t] === own[t])).length;
  const single = told.filter((t) => many(t) === 0);
  const known = told.filter((t) => !single.includes(t));
  const pairs = known
    .flatMap((a, i) => known.slice(i + 1).map((b) => [a, b] as const))
    .filter(([a, b]) => many(a, b) === 0)
    .map((pair) => ({ pair, home: Math.min(...pair.map((t) => many(t))) }))
    .filter(({ home }) => home >= AT_HOME)
    .sort((x, y) => y.home - x.home);
  return [
    ...single.map((t): First => ({ traits: [[t, own[t]]] })),
    ...pairs.map(({ pair }): First => ({ traits: pair.map((t) => [t, own[t]] as const) })),
  ].slice(0, most);
}

/** A trait as it is said of a phrase. */
function said([trait, value]: readonly [Trait, string]): string {
  switch (trait) {
    case 'grid':
    case 'meter':
      return `in ${value}`;
    case 'groups':
      return value === 'mixed' ? 'in mixed groups' : `in groups of ${value}`;
    case 'lead':
      return value === 'both' ? 'led by both hands' : `led by the ${value}`;
    case 'starts':
      return `starting ${value}`;
    case 'lands':
      return `landing on a ${value}`;
    case 'length':
      return value === 'longer' ? 'over four bars' : value;
    case 'accents':
    case 'ghosts':
      return `${trait} ${value}`;
    case 'way':
      return value === 'hands apart' ? 'with a piece for each hand' : `${value} the kit`;
    case 'together':
      return value;
    case 'sticking':
    case 'limbs':
    case 'ornaments':
      return `with ${value}`;
  }
}

/**
 * What a phrase would be the first of, in a sentence; empty where it is of nothing.
 * @example
 * firstWords([{ traits: [['grid', 'septuplets'], ['lead', 'left']] }]) // => "The first on your shelf in septuplets and led by the left."
 * firstWords([]) // => ""
 */
export function firstWords(firsts: readonly First[]): string {
  if (firsts.length === 0) return '';
  return `The first on your shelf ${firsts.map((f) => listed(f.traits.map(said))).join('; and ')}.`;
}
