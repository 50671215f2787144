export * from './write';
export * from './read';
