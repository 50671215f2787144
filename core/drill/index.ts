export * from './hold';
export * from './ladder';
export * from './machine';
export * from './record';
export * from './state';
export * from './stage';
export * from './stages';
export * from './time-feel';
