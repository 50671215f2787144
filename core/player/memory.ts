import { createEmptyCard, fsrs, generatorParameters, Rating, State, type CardInput } from 'ts-fsrs';

/**
 * What is remembered of a phrase, in numbers only. Time is counted in practice days: days since 1970-01-01 on the
 * player's own calendar.
 */
export interface Memory {
  readonly dueDay: number;
  readonly lastDay: number | null;
  readonly stability: number;
  readonly difficulty: number;
  readonly reps: number;
  readonly lapses: number;
  readonly state: 0 | 1 | 2 | 3;
  readonly days: number;
}

/** How a day of practice went: 1 nothing was clean, 2 less than half, 3 most, 4 all of several tries. */
export type DayGrade = 1 | 2 | 3 | 4;

const DAY = 86_400_000;
// Free Spaced Repetition Scheduler, version 6. Its chance is left off, so that the same log gives the same memory.
const scheduler = fsrs(
  generatorParameters({
    request_retention: 0.9,
    maximum_interval: 180,
    enable_fuzz: false,
    enable_short_term: false,
  }),
);

// The package reads the clock where a date is 0, which is a day before anything was played.
const moment = (day: number): number => Math.max(1, day) * DAY;

const RATINGS = { 1: Rating.Again, 2: Rating.Hard, 3: Rating.Good, 4: Rating.Easy } as const;
const STATES = [State.New, State.Learning, State.Review, State.Relearning] as const;
const toCard = (m: Memory): CardInput => ({
  due: moment(m.dueDay),
  last_review: m.lastDay === null ? null : moment(m.lastDay),
  stability: m.stability,
  difficulty: m.difficulty,
  reps: m.reps,
  lapses: m.lapses,
  state: STATES[m.state],
  scheduled_days: m.days,
  // eslint-disable-next-line @typescript-eslint/no-deprecated -- the package asks for it and does not look at it
  elapsed_days: 0,
  learning_steps: 0,
});

const fromCard = (c: CardInput): Memory => ({
  dueDay: Number(c.due) / DAY,
  lastDay: c.last_review == null ? null : Number(c.last_review) / DAY,
  stability: c.stability,
  difficulty: c.difficulty,
  reps: c.reps,
  lapses: c.lapses,
  state: c.state as Memory['state'],
  days: c.scheduled_days,
});

/** The memory of a phrase that was never played, from a practice day on. */
export function newMemory(day: number): Memory {
  return fromCard(createEmptyCard<CardInput>(moment(day)));
}

/** The memory after a day of practice. A clock that was set back counts as the day played last. */
export function remembered(memory: Memory, day: number, grade: DayGrade): Memory {
  const at = Math.max(day, memory.lastDay ?? day);
  return fromCard(scheduler.next(toCard(memory), moment(at), RATINGS[grade]).card);
}

/** The chance that it is still there on a practice day, 0–1; 0 for what was never played. */
export function recall(memory: Memory, day: number): number {
  if (memory.lastDay === null) return 0;
  const at = moment(Math.max(day, memory.lastDay));
  return scheduler.get_retrievability(toCard(memory), at, false);
}

/**
 * How a day went, from what was clean of its tries.
 * @example
 * gradeOf(0, 3) // => 1
 * gradeOf(1, 4) // => 2
 * gradeOf(2, 3) // => 3
 * gradeOf(3, 3) // => 4
 */
export function gradeOf(clean: number, tries: number): DayGrade {
  if (clean === 0) return 1;
  if (clean === tries && tries >= 3) return 4;
  return clean * 3 < tries ? 2 : 3;
}
