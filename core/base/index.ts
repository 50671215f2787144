export { clamp, gcd, lcm, mod, sum } from './numbers';
export { firstPlace } from './search';
export { deviation, mean, median } from './statistics';
export { type Problem, type Read, readFail, readOk } from './problem';
export { count, fraction, listed, listedUpTo, nth, NUMBER_WORDS, ordinal, sentence } from './words';
export { edited, type History, historyOf, redone, undone } from './history';
export { checkedAt } from './checked';
export { idSchema, isShallow, moment, OffsetSchema, TimeSchema } from './bounds';
export { Checksum, checksumOf, stableJson } from './stable';
