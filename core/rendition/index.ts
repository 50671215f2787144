export * from './duration';
export * from './expect';
export * from './record';
export * from './rendition';
export * from './track';
