export * from './taps';
export * from './onsets';
export * from './quantise';
