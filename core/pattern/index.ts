export * from './finding';
export * from './pattern';
export * from './report';
export * from './roles';
export * from './selector';
export * from './selector-words';
export * from './sums';
