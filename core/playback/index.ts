export * from './anchor';
export * from './program';
export * from './replay';
