export { keyOf, USUAL_MAP, type MidiMap } from './map';
export * from './write';
export * from './read';
