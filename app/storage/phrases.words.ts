import { SHELF_LIMITS } from '@core/shelf';

/** What is said when one phrase more would be too many. */
export const FULL = `A shelf holds at most ${SHELF_LIMITS.phrases.toLocaleString('en')} phrases, and this one is full. Take some off, or export them and begin a new one; what is on the Bench stays there.`;
