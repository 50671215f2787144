import { format } from 'date-fns';
import type { Rests } from '@core/reach';

/** A name longer than this makes a sentence hard to read. */
const LONGEST_NAME = 40;

function shortened(name: string): string {
  return name.length > LONGEST_NAME ? `${name.slice(0, LONGEST_NAME).trimEnd()}…` : name;
}

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
    case 'learnt':
      return `as “${shortened(rests.name)}” showed on ${day(rests.at)}, was ${rests.was} by ${rests.by}`;
  }
}
