import { stableJson } from '../base';
import type { GoalDay, Phrase } from '../recipe';
import { takenRow } from '../lesson';
import type { Lesson, LessonItem, LessonPhrase, TakenLesson } from '../lesson';

/** What of a lesson is about all of it. */
export type AboutPart = 'title' | 'from' | 'note' | 'due';

/** One thing that taking a lesson does, or leaves as it is. */
export type LessonChange =
  | {
      readonly kind: 'new' | 'back' | 'phrase' | 'goal' | 'own' | 'gone' | 'off' | 'words' | 'drill';
      readonly item: string;
      readonly name: string;
    }
  | { readonly kind: 'order' }
  | { readonly kind: 'about'; readonly part: AboutPart }
  | { readonly kind: 'answer'; readonly question: string; readonly words: string };

/** Of a phrase, what the lesson may change where the pupil did not. The tempo stays the pupil's. */
const FIELDS = ['name', 'family', 'recipe'] as const;

const same = (a: unknown, b: unknown): boolean => stableJson(a) === stableJson(b);

/** What is played of a phrase and what it is called, as it is compared. */
const played = (p: Pick<LessonPhrase, (typeof FIELDS)[number]>): unknown => FIELDS.map((f) => p[f]);

/**
 * Whether the pupil made something else of a phrase than what came: its name, its family or its recipe.
 * @example
 * isOwn({ name: 'A', family: 'fill', recipe: { source: { kind: 'typed', text: 'R', meter: '4/4', grid: 1260 }, moves: [] } }, null) // => true
 */
export function isOwn(
  phrase: Pick<LessonPhrase, (typeof FIELDS)[number]>,
  came: Pick<LessonPhrase, (typeof FIELDS)[number]> | null,
): boolean {
  return came === null || !same(played(phrase), played(came));
}

/** A phrase of the lesson as it stands with the pupil, beside what came of it before and what comes now. */
interface Meeting {
  readonly item: LessonItem;
  readonly was: LessonItem | null;
  readonly id: string | null;
  readonly own: Phrase | null;
}

function meetings(taken: TakenLesson | null, lesson: Lesson, shelf: ReadonlyMap<string, Phrase>): readonly Meeting[] {
  const ids = new Map(taken?.phrases.map((p) => [p.item, p.phrase]));
  const before = new Map(taken?.came.items.map((i) => [i.id, i]));
  return lesson.items.map((item): Meeting => {
    const id = ids.get(item.id) ?? null;
    return { item, was: before.get(item.id) ?? null, id, own: id === null ? null : (shelf.get(id) ?? null) };
  });
}

/**
 * What taking a lesson would do, in the order of its phrases: with one that was taken before, only what differs.
 * - new, back: comes onto the shelf, or onto the board again; phrase, goal: changed by the teacher and not by the
 *   pupil, so it is taken over; own: changed by both, so the pupil's stays unless the teacher's is asked for; off: the
 *   pupil took it off, so it stays off; gone: left out of the lesson, it stays on the shelf; words, drill: its notes,
 *   its stages and ladder.
 * @param shelf the phrases of the pupil's shelf, by their ids
 */
export function lessonChanges(
  taken: TakenLesson | null,
  lesson: Lesson,
  shelf: ReadonlyMap<string, Phrase>,
): readonly LessonChange[] {
  const changes: LessonChange[] = [];
  for (const { item, was, id, own } of meetings(taken, lesson, shelf)) {
    // As the pupil knows it.
    const about = { item: item.id, name: own?.name ?? item.phrase.name };
    if (id === null) changes.push({ kind: 'new', ...about });
    else if (!own) changes.push({ kind: 'off', ...about });
    else {
      if (!was) changes.push({ kind: 'back', ...about });
      const moved = isOwn(item.phrase, was?.phrase ?? null);
      if (moved && isOwn(own, item.phrase))
        changes.push({ kind: isOwn(own, was?.phrase ?? null) ? 'own' : 'phrase', ...about });
      if (was && was.phrase.goal !== item.phrase.goal && own.goal === was.phrase.goal)
        changes.push({ kind: 'goal', ...about });
    }
    if (!was || id === null) continue;
    if (was.note !== item.note || !same(was.stageNotes, item.stageNotes)) changes.push({ kind: 'words', ...about });
    if (!same(was.plan, item.plan)) changes.push({ kind: 'drill', ...about });
  }
  const stay = new Set(lesson.items.map((i) => i.id));
  for (const item of taken?.came.items ?? [])
    if (!stay.has(item.id)) changes.push({ kind: 'gone', item: item.id, name: item.phrase.name });
  if (!taken) return changes;
  if (isReordered(taken.came, lesson)) changes.push({ kind: 'order' });
  for (const part of ['title', 'from', 'note', 'due'] as const)
    if (taken.came[part] !== lesson[part]) changes.push({ kind: 'about', part });
  const known = new Map(taken.came.answers.map((a) => [a.question, a.words]));
  const asked = new Set(taken.questions.map((q) => q.id));
  for (const { question, words } of lesson.answers)
    if (asked.has(question) && known.get(question) !== words) changes.push({ kind: 'answer', question, words });
  return changes;
}

/** Whether the phrases that both have stand in another order. */
function isReordered(was: Lesson, now: Lesson): boolean {
  const [before, after] = [was, now].map((l) => l.items.map((i) => i.id)) as [string[], string[]];
  return !same(
    before.filter((id) => after.includes(id)),
    after.filter((id) => before.includes(id)),
  );
}

/** What taking a lesson asks for beside it. */
export interface Taking {
  /** Phrases, by their ids in the lesson, whose own changes give way to the teacher's. */
  readonly theirs: ReadonlySet<string>;
  /** The id under which a phrase that is new comes onto the shelf, by its id in the lesson. */
  readonly idOf: (item: string) => string;
  /** Milliseconds since 1970. */
  readonly at: number;
  /** Who takes it, where it is taken first. */
  readonly pupil: string;
}

/** What a lesson becomes on the pupil's shelf. */
export interface LessonTaken {
  readonly row: TakenLesson;
  /** Phrases that are put on the shelf, or changed there; others stay as they are. */
  readonly phrases: readonly Phrase[];
}

/** A lesson as it is taken: the first time, or in place of the edition before it. */
export function takeLesson(
  taken: TakenLesson | null,
  lesson: Lesson,
  shelf: ReadonlyMap<string, Phrase>,
  { theirs, idOf, at, pupil }: Taking,
): LessonTaken {
  const by: GoalDay | null = lesson.due === null ? null : { day: lesson.due, what: 'lesson' };
  const phrases: Phrase[] = [];
  const ids = new Map(taken?.phrases.map((p) => [p.item, p.phrase]));
  for (const { item, was, id, own } of meetings(taken, lesson, shelf)) {
    if (id === null) {
      const fresh = idOf(item.id);
      ids.set(item.id, fresh);
      phrases.push({ ...item.phrase, note: '', ...(by && { by }), id: fresh, created: at, changed: at });
    } else if (own) {
      const next = metPhrase(own, was?.phrase ?? null, item.phrase, theirs.has(item.id));
      const dated = withDay(next, taken?.came.due ?? null, by);
      if (!same(dated, own)) phrases.push({ ...dated, changed: at });
    }
  }
  const row: TakenLesson = {
    ...(taken ?? {
      id: takenRow(lesson.id),
      kind: 'taken',
      since: at,
      board: null,
      pupil,
      from: '',
      questions: [],
      reported: null,
    }),
    changed: at,
    came: lesson,
    phrases: [...ids].map(([item, phrase]) => ({ item, phrase })),
  };
  return { row: withoutDropped(row), phrases };
}

function withoutDropped({ dropped: _, ...row }: TakenLesson): TakenLesson {
  return row;
}

/** The pupil's phrase after a newer edition: what the pupil did not change follows the teacher. */
function metPhrase(own: Phrase, was: LessonPhrase | null, now: LessonPhrase, theirs: boolean): Phrase {
  const goal = was && own.goal === was.goal ? now.goal : own.goal;
  const follows = theirs || (was !== null && !isOwn(own, was));
  const { name, family, recipe } = follows ? now : own;
  return { ...own, name, family, recipe, goal };
}

/** The day of a goal follows that of the lesson where it was the lesson's. */
function withDay({ by, ...phrase }: Phrase, was: number | null, now: GoalDay | null): Phrase {
  const isLessons = by === undefined ? was === null : by.what === 'lesson' && by.day === was;
  const day = isLessons ? now : (by ?? null);
  return { ...phrase, ...(day && { by: day }) };
}

/**
 * The board of a lesson after it was taken: in the lesson's order where that is another now, else in the pupil's; what
 * the pupil put there stays, behind it.
 * @param board the phrases on the board before; none where there was none
 * @param shelf the phrases of the pupil's shelf by then, by their ids
 */
export function lessonBoard(
  taken: TakenLesson | null,
  row: TakenLesson,
  board: readonly string[],
  shelf: ReadonlySet<string>,
): readonly string[] {
  const ids = new Map(row.phrases.map((p) => [p.item, p.phrase]));
  const own = row.came.items.flatMap((i) => ids.get(i.id) ?? []).filter((id) => shelf.has(id));
  const lessons = new Set(ids.values());
  const kept =
    taken && !isReordered(taken.came, row.came) ? board.filter((id) => !lessons.has(id) || own.includes(id)) : [];
  return [...new Set([...kept, ...own, ...board.filter((id) => !lessons.has(id))])];
}
