export * from './write';
export * from './read';
export { mxlOf } from './mxl';
export { placeOf, voiceAt } from './signs';
export { el } from './xml';
