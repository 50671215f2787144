export * from './counts';
export * from './feel';
export * from './grid';
export * from './meter';
export * from './tempo';
export * from './ticks';
