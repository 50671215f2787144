export * from './taps';
export * from './onsets';
