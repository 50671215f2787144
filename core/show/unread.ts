import { fraction } from '../base';

/** A wrong line of which the rest is not looked at. */
export class Unread extends Error {}

export const barsWords = (bars: number): string => `${fraction(bars)} ${bars === 1 ? 'bar' : 'bars'}`;
