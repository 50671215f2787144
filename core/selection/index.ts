export { describeStrokes } from './describe';
export { chooses, type Facets, facetsOf } from './facets';
export { withSelections } from './modern';
export { beatIn, partsIn, type Stretch } from './parts';
export { type Placing, readSelection } from './read';
export { select } from './select';
export {
  ALL,
  both,
  either,
  EDGES,
  PARTS,
  type Selection,
  type SelectionKind,
  type SelectionOf,
  SelectionSchema,
  type Which,
  type Within,
  WITHINS,
} from './selection';
export { LIMB_ADJECTIVES } from './terms';
export { selectionWords } from './words';
