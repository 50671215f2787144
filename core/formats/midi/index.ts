export { midiOf } from './write';
export { readMidi } from './read';
