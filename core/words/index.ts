export * from './lexicon';
export * from './say';
