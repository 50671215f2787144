import { checksumOf, stableJson } from '../base';
import type { DrillPlan } from '../drill';
import type { Phrase, Recipe } from '../recipe';
import { LESSON_FORMAT, LESSON_VERSION, type GivenLesson, type Lesson, type LessonItem } from '../lesson';

/**
 * The next edition of a lesson, from what its teacher set. Of each phrase goes what is played, its tempo and its goal;
 * what is noted on the shelf, its tags and its log stay there. Null where none of its phrases is on the shelf any more.
 * @param phrases the phrases of the teacher's shelf, by their ids; those that are gone are left out
 * @param at when it is made, in milliseconds since 1970
 */
export function nextEdition(given: GivenLesson, phrases: ReadonlyMap<string, Phrase>, at: number): Lesson | null {
  const items = given.items.flatMap((item): LessonItem[] => {
    const phrase = phrases.get(item.phrase);
    if (!phrase) return [];
    const { name, family, recipe, tempo } = phrase;
    return [
      {
        id: item.id,
        phrase: { name, family, recipe: travelling(recipe), tempo, goal: item.goal },
        note: item.note,
        plan: item.plan && { ...withoutGrooves(item.plan), goal: item.goal },
        stageNotes: item.stageNotes.filter((n) => n.words.trim() !== ''),
      },
    ];
  });
  if (items.length === 0) return null;
  return {
    format: LESSON_FORMAT,
    version: LESSON_VERSION,
    id: given.lesson,
    edition: given.edition + 1,
    made: at,
    title: given.title,
    from: given.from,
    note: given.note,
    due: given.due,
    items,
    answers: given.answers,
  };
}

/**
 * What tells an edition of a lesson from another, apart from its number and when it was made.
 */
export function editionSum(lesson: Lesson): string {
  return checksumOf(stableJson({ ...lesson, edition: 0, made: 0 }));
}

/** A recipe without fields that a later version or a hand put there: nothing leaves that is not known here. */
function travelling({ source, moves }: Recipe): Recipe {
  return {
    source,
    moves: moves.map(({ id, on, move, params }) => ({ id, on, move, params }) as (typeof moves)[number]),
  };
}

/** Stages without the grooves of the teacher's shelf: plain time is played on the pupil's. */
function withoutGrooves(plan: DrillPlan): DrillPlan {
  const { stages, ...rest } = plan;
  return stages ? { ...rest, stages: stages.map(({ groove: _, ...stage }) => stage) } : rest;
}
