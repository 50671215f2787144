import { expose } from 'comlink';
import {
  compose,
  relaxations,
  type Answer,
  type Asked,
  type Composed,
  type Known,
  type Relaxation,
} from '@core/compose';
import type { Kit } from '@core/kit';
import type { Able } from '@core/reach';
import type { Schools } from '@core/time';

/** What stands around a search, as it is handed to the worker. */
interface Told {
  readonly kit: Kit;
  readonly profile: Able;
  readonly shelf: readonly Known[];
  readonly schools: Schools;
}

/** Looks for phrases, telling of each as it is found; where there is none, for what would help. Stopping ends it. */
function ask(
  asked: Asked,
  { schools, ...around }: Told,
  tell: (answer: Answer) => void,
): Composed & { readonly relaxed: readonly Relaxation[] } {
  const composed = compose(asked, { ...around, found: tell });
  return { ...composed, relaxed: composed.answers.length > 0 ? [] : relaxations(asked, around, schools) };
}

expose({ ask });
