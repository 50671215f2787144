import { proposeStages, stagePattern, suggestLadder, type Attempt, type DrillPlan } from '@core/drill';
import { givenRow, reportRow, type GivenLesson, type KeptLesson, type KeptReport } from '@core/lesson';
import { nextEdition, reportOf, takeLesson } from '@core/teaching';
import { loopTicks } from '@core/pattern';
import { build, type Phrase } from '@core/recipe';
import { quarterTempo, secondsOf } from '@core/time';

const DAY = 24 * 60 * 60 * 1000;
const HOUR = DAY / 24;
const LESSON = 'lantern-lesson';

/** What the drummer of the demo gives to two pupils. */
const GIVEN = [
  { name: 'Cold rope', note: 'The left stays low until the last beat.' },
  { name: 'Gull wings', note: 'Count it aloud first.' },
  { name: 'Kelp', note: '' },
] as const;

interface Pupil {
  readonly id: string;
  readonly name: string;
  /** How far of the goal each phrase goes, and how late the left hand is in milliseconds. */
  readonly able: readonly number[];
  readonly left: number;
  readonly asks: string | null;
}

const PUPILS: readonly Pupil[] = [
  { id: 'pupil-1', name: 'Ilse', able: [1.02, 0.8, 0], left: 4, asks: null },
  { id: 'pupil-2', name: 'Joren', able: [0.78, 0.62, 0.7], left: 22, asks: 'Which hand takes the last accent?' },
];

/** A lesson that is given, two reports of it, and nothing that was taken. */
export function lanternLessons(phrases: readonly Phrase[], first: number, random: () => number): readonly KeptLesson[] {
  const own = GIVEN.flatMap(({ name, note }) => {
    const phrase = phrases.find((p) => p.name === name);
    return phrase ? [{ phrase, note }] : [];
  });
  const [begin, end] = [first + 30 * DAY, first + 41 * DAY];
  const given: GivenLesson = {
    id: givenRow(LESSON),
    kind: 'given',
    lesson: LESSON,
    changed: end,
    edition: 1,
    made: begin,
    title: 'Three for the second act',
    from: 'The house drummer',
    note: 'Ten minutes a day, in this order. Slow is fine.',
    due: Math.floor(first / DAY) + 49,
    items: own.map(({ phrase, note }, i) => ({
      id: `lantern-item-${i + 1}`,
      phrase: phrase.id,
      goal: phrase.goal,
      note,
      plan: i === 0 ? planOf(phrase) : null,
      stageNotes: i === 0 ? [{ stage: proposed(phrase)[0]?.id ?? '', words: 'Twenty clean in a row.' }] : [],
    })),
    answers: [],
  };
  const lesson = nextEdition({ ...given, edition: 0 }, new Map(own.map(({ phrase }) => [phrase.id, phrase])), begin);
  if (!lesson) throw new Error('no lesson');
  const reports = PUPILS.map((pupil): KeptReport => {
    const how = { theirs: new Set<string>(), idOf: (item: string) => item, at: begin, pupil: pupil.id };
    const { row, phrases: took } = takeLesson(null, lesson, new Map(), how);
    const tries = took.flatMap((phrase, i) => played(phrase, pupil, pupil.able[i] ?? 0, begin, random));
    const asked = pupil.asks === null ? [] : [{ id: `${pupil.id}-1`, item: 'lantern-item-1', words: pupil.asks }];
    const signed = { ...row, from: pupil.name, questions: asked };
    const report = reportOf(signed, new Map(took.map((p) => [p.id, p])), tries, end);
    return { id: reportRow(report), kind: 'report', changed: end, report };
  });
  return [given, ...reports];
}

function proposed({ recipe, family }: Phrase) {
  return proposeStages(build(recipe).pattern, family);
}

function planOf(phrase: Phrase): DrillPlan {
  const { start, step } = suggestLadder(phrase.goal, null);
  return { start, step, goal: phrase.goal, loops: 4, stages: [...proposed(phrase)] };
}

/** A pupil's tries of a phrase: up the ladder in each stage, clean as far as they are able to. */
function played(phrase: Phrase, pupil: Pupil, able: number, begin: number, random: () => number): readonly Attempt[] {
  if (able === 0) return [];
  const { pattern } = build(phrase.recipe);
  const tries: Attempt[] = [];
  for (const [n, stage] of proposed(phrase).slice(0, 4).entries())
    for (let rung = 0; rung < 5; rung++) {
      const bpm = Math.round(phrase.goal * (0.6 + 0.1 * rung));
      const isClean = bpm <= phrase.goal * able + 4 * (random() - 0.5);
      const loop = secondsOf(loopTicks(stagePattern(stage, pattern)), quarterTempo(bpm, pattern.meter));
      const spread = 6 + 6 * random();
      tries.push({
        id: `${phrase.id}-${n}-${rung}`,
        phrase: phrase.id,
        at: begin + (n + 1) * DAY + rung * HOUR,
        bpm,
        goal: phrase.goal,
        loops: 4,
        seconds: Math.round(4 * loop),
        verdict: isClean ? 'clean' : 'messy',
        drilled: { id: stage.id, kind: stage.kind, ...(stage.part && { part: stage.part }) },
        source: 'midi',
        measured: {
          mean: 2,
          spread: Math.round(spread * 10) / 10,
          missed: 0,
          extra: 0,
          strokes: 32,
          drift: 0,
          limbs: [
            { limb: 'R', mean: -2, spread: 7 },
            { limb: 'L', mean: pupil.left, spread: 9 },
          ],
          ...(!isClean && {
            finding: { kind: 'limb' as const, limb: 'L' as const, off: pupil.left + 6, stroke: null },
          }),
        },
      });
      if (!isClean) break;
    }
  return tries;
}
