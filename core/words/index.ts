export * from './lexicon';
