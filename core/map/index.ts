export { type First, firstsOf, firstWords } from './firsts';
export { BUILT_ON, type Mapped, mapOf, type ShelfMap, type Square } from './grid';
export { demandOf, linesTo } from './lines';
export { type BuiltOn, demandsOf, nextToLearn, type Scene, type Step, stepsTo, type Wanted } from './next';
