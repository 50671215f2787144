export { wavBytes, wavEnd, type WavForm, wavHead } from './wav';
