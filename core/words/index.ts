export { folded } from './folded';
export * from './say';
