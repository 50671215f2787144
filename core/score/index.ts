export * from './engrave';
export * from './score';
export { VALUE_TICKS, VALUES, writtenAs, type Value } from './values';
