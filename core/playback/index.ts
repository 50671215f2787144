export * from './anchor';
export * from './program';
