export { KINDS, type Kind, type Lattice, latticeOf, type SlotHit } from './lattice';
export { type Came, type Known, type Played, recognise, SAID } from './recognise';
