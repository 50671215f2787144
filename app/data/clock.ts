import { moment } from '@core/base';

/** What time it is, as it can be kept: the one place that asks the clock, which may be set to anything. */
export function now(): number {
  return moment(Date.now());
}
