import { SHELF_LIMITS } from '@core/shelf';

/** What is said when one phrase more would be too many. */
export const FULL = `The shelf is full: ${SHELF_LIMITS.phrases.toLocaleString('en')} phrases. Your work stays on the Bench. Take some phrases off.`;
