import { isShallow } from '../../base';
import { modernAttempt, modernDrill, modernTake, modernTries, type DrillState } from '../../drill';
import type { KeptLesson, Lesson } from '../../lesson';
import type { Phrase } from '../../recipe';
import { joinedIn } from '../../recipe';
import { withSelections } from '../../selection';
import type { Named } from '../../shelf';
import * as compiled from './generated/validators';
import type { ValidationError, Validator } from './generated/validators';

/**
 * The one place that says what may be kept: every row that is read from storage or a file, and every row that is
 * written, passes here. A rule gives null for a good row, else what is wrong with it, and where.
 */
export interface Rule {
  (row: unknown): RuleProblem | null;
  /** A row of this kind that was kept in an older form, in today's; any other row as it is. */
  readonly modern?: (row: unknown) => unknown;
}

export interface RuleProblem {
  /** Where in the row, as "recipe › moves › 2"; empty for the row itself. */
  readonly where: string;
  readonly words: string;
}

/** What is kept under a name, by that name. A name that is not here comes from a later version and is kept as it is. */
const NAMED: ReadonlyMap<string, Validator<unknown>> = new Map(
  Object.entries<Validator<unknown>>({
    settings: compiled.validateSettings,
    kits: compiled.validateKits,
    profile: compiled.validateProfile,
    loudness: compiled.validateLoudness,
    'midi-map': compiled.validateMidiMap,
    'mic-levels': compiled.validateMicLevels,
    latency: compiled.validateLatency,
    'latency-at': compiled.validateLatencyAt,
    room: compiled.validateRoomHabits,
    today: compiled.validateToday,
    'plan-days': compiled.validatePlanDays,
    backup: compiled.validateBackup,
  }),
);

function bySchema<T>(
  validate: Validator<T>,
  more: (row: T) => RuleProblem | null = none,
  modern?: Rule['modern'],
): Rule {
  const rule = (row: unknown): RuleProblem | null => {
    if (!validate(row)) return problemOf(validate.errors?.[0]);
    if (!isShallow(row)) return { where: '', words: 'it is nested too deep' };
    return more(row);
  };
  return modern ? Object.assign(rule, { modern }) : rule;
}

const none = (): null => null;

/** What is wrong, by the first thing a validator found. */
export function problemOf(error: ValidationError | undefined): RuleProblem {
  const where = (error?.instancePath ?? '').split('/').filter(Boolean).join(' › ');
  return { where, words: wordsOf(error) };
}

function wordsOf(error: ValidationError | undefined): string {
  if (error?.keyword === 'pattern' && /\/(id|phrase)$/.test(error.instancePath))
    return 'must be made of letters, digits and . _ ~ @ : + = -';
  if (error?.keyword === 'pattern' && error.instancePath.endsWith('/name')) return 'must not be blank';
  return error?.message ?? 'something is wrong';
}

function phraseProblem({ recipe }: Pick<Phrase, 'recipe'>): RuleProblem | null {
  for (const moves of [recipe.moves, ...joinedIn(recipe)]) {
    const seen = new Set<string>();
    for (const { id } of moves) {
      if (seen.has(id)) return { where: 'recipe', words: `two moves have the id “${id}”` };
      seen.add(id);
    }
  }
  return null;
}

function lessonProblem({ items }: Lesson): RuleProblem | null {
  for (const { phrase } of items) {
    const problem = phraseProblem(phrase);
    if (problem) return problem;
  }
  return null;
}

function lessonRowProblem(row: KeptLesson): RuleProblem | null {
  return row.kind === 'taken' ? lessonProblem(row.came) : null;
}

function drillProblem(drill: DrillState): RuleProblem | null {
  if (drill.rung < drill.rungs.length) return null;
  return { where: 'rung', words: 'there is no such rung' };
}

function namedProblem({ key, value }: Named): RuleProblem | null {
  const validate = NAMED.get(key);
  return !validate || validate(value) ? null : problemOf(validate.errors?.[0]);
}

/** The rule of each kind of row. */
export const RULES = {
  phrases: bySchema(compiled.validatePhrase, phraseProblem, withSelections),
  attempts: bySchema(compiled.validateAttempt, none, modernAttempt),
  tries: bySchema(compiled.validateTriesPage, none, modernTries),
  drills: bySchema(compiled.validateDrillState, drillProblem, modernDrill),
  takes: bySchema(compiled.validateTake, none, (row) => withSelections(modernTake(row))),
  states: bySchema(compiled.validateKeptState, (s) => phraseProblem(s.state), withSelections),
  removals: bySchema(compiled.validateRemoval, (r) => r.phrase && phraseProblem(r.phrase), withSelections),
  boards: bySchema(compiled.validateBoard),
  shows: bySchema(compiled.validateShow),
  showStates: bySchema(compiled.validateShowState),
  freeSittings: bySchema(compiled.validateFreeSitting),
  lessons: bySchema(compiled.validateKeptLesson, lessonRowProblem, withSelections),
  lesson: bySchema(compiled.validateLesson, lessonProblem),
  report: bySchema(compiled.validateReport),
  kept: bySchema(compiled.validateNamed, namedProblem),
  clips: bySchema(compiled.validateClip),
  listening: bySchema(compiled.validateListening),
  drafts: bySchema(
    compiled.validateTabDraft,
    ({ draft }) => (draft.base ? phraseProblem(draft.base) : null),
    withSelections,
  ),
  unkept: bySchema(compiled.validateUnkept, ({ base }) => (base ? phraseProblem(base) : null), withSelections),
} satisfies Record<string, Rule>;
export type RuleName = keyof typeof RULES;
