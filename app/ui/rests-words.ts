import { format } from 'date-fns';
import type { Rests } from '@core/reach';

/** What a ceiling rests on, in words: "shown on 21 Nov, was 73 by estimate". */
export function restsWords(rests: Rests): string {
  const day = (at: number): string => format(at, 'd MMM');
  switch (rests.kind) {
    case 'default':
      return 'an estimate: your limbs were not timed yet';
    case 'test':
      return `by your limb test of ${day(rests.at)}`;
    case 'shown':
      return `shown on ${day(rests.at)}${rests.how === 'ear' ? ' by ear' : ''}, was ${rests.was} by ${rests.by}`;
  }
}
