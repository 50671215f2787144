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
      return 'take the limb test for a better figure';
    case 'test':
      return `from your limb test of ${day(rests.at)}`;
    case 'shown':
      return `raised from ${rests.was} by your clean try${rests.how === 'ear' ? ' by ear' : ''}, ${day(rests.at)}`;
    case 'learnt':
      return `raised from ${rests.was} by your clean try on “${shortened(rests.name)}”, ${day(rests.at)}`;
  }
}
