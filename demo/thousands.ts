import type { Attempt } from '@core/drill';
import { shelfLines } from '@core/formats/shelf-file';
import { givenRow, reportRow, type GivenLesson, type KeptLesson, type KeptReport } from '@core/lesson';
import { FAMILIES, MOVE_NAMES, newMove, build, type MoveEntry, type Phrase, type Recipe } from '@core/recipe';
import { RUDIMENTS } from '@core/rudiments';
import { nextEdition, reportOf, takeLesson } from '@core/teaching';
import { meterText } from '@core/time';
import { seeded } from './random';

/** A shelf of full size: how many phrases and tries it has, and how many of them are of one phrase. */
export interface Size {
  readonly phrases: number;
  readonly tries: number;
  readonly ofOne: number;
  /** Lessons that are given, and as many reports of the first of them. */
  readonly lessons: number;
}
export const FULL_SIZE: Size = { phrases: 10_000, tries: 200_000, ofOne: 5000, lessons: 200 };

/** Phrases of each lesson. */
const ITEMS = 12;

const WORDS = ['Tide', 'Lantern', 'Rope', 'Gull', 'Keel', 'Brine', 'Anchor', 'Fog', 'Oar', 'Net', 'Salt', 'Wharf'];
const KINDS = ['walk', 'chain', 'song', 'steps', 'light', 'turn', 'call', 'knot'];
const TAGS = ['brushes', 'show', 'pad', 'left'];
const DAY = 24 * 60 * 60 * 1000;
const BEGAN = Date.UTC(2021, 0, 4);

/** The text of a shelf file of a size, line by line: the same for the same seed. */
export function thousands({ phrases, tries, ofOne, lessons }: Size, seed = 1): Generator<string> {
  const random = seeded(seed);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
  const all = Array.from({ length: phrases }, (_, i): Phrase => {
    const created = BEGAN + Math.floor(random() * 1500) * DAY;
    const parent =
      i > 20 && random() < 0.1 ? { parent: { id: `p${Math.floor(random() * i)}`, change: 'another turn' } } : {};
    return {
      id: `p${i}`,
      name: `${pick(WORDS)} ${pick(KINDS)} ${1 + Math.floor(i / 96)}`,
      family: FAMILIES[i % FAMILIES.length] ?? 'fill',
      recipe: recipe(pick, random),
      tempo: 60 + Math.floor(random() * 80),
      goal: 80 + Math.floor(random() * 80),
      note: random() < 0.3 ? `After the ${pick(WORDS).toLowerCase()} ${pick(KINDS)}.` : '',
      ...(random() < 0.2 ? { tags: [pick(TAGS)] } : {}),
      ...parent,
      created,
      changed: created,
    };
  });
  const attempts = Array.from({ length: tries }, (_, i): Attempt => {
    const phrase = i < ofOne ? 'p0' : `p${1 + Math.floor(random() * (phrases - 1))}`;
    const bpm = 60 + Math.floor(random() * 70);
    return {
      id: `t${i}`,
      phrase,
      at: BEGAN + Math.floor(random() * 2000 * DAY),
      bpm,
      goal: 130,
      loops: 4,
      seconds: 8 + Math.floor(random() * 30),
      verdict: random() < 0.7 - bpm / 400 ? 'clean' : 'messy',
    };
  });
  return shelfLines({ phrases: all, attempts, lessons: lessonsOf(all, lessons) });
}

/** Lessons of phrases of the shelf, and reports of the first one, each with tries of all its phrases. */
function lessonsOf(all: readonly Phrase[], many: number): readonly KeptLesson[] {
  const given = Array.from({ length: many }, (_, n): GivenLesson => {
    const at = BEGAN + n * DAY;
    const chosen = Array.from({ length: ITEMS }, (_, i) => all[(n * ITEMS + i) % all.length]).flatMap((p) => p ?? []);
    return {
      id: givenRow(`l${n}`),
      kind: 'given',
      lesson: `l${n}`,
      changed: at,
      edition: 1,
      made: at,
      title: `Lesson ${n + 1}`,
      from: 'The house drummer',
      note: '',
      due: null,
      items: chosen.map((p) => ({
        id: `${p.id}-in-${n}`,
        phrase: p.id,
        goal: p.goal,
        note: '',
        plan: null,
        stageNotes: [],
      })),
      answers: [],
    };
  });
  const [first] = given;
  const byId = new Map(all.map((p) => [p.id, p]));
  const lesson = first && nextEdition({ ...first, edition: 0 }, byId, BEGAN);
  if (!lesson) return given;
  const reports = given.map((_, n): KeptReport => {
    const how = { theirs: new Set<string>(), idOf: (item: string) => item, at: BEGAN, pupil: `pupil-${n}` };
    const { row, phrases } = takeLesson(null, lesson, new Map(), how);
    const tries = phrases.flatMap((p) => Array.from({ length: 20 }, (_, i) => tryOf(p, n, i)));
    const report = reportOf(
      { ...row, from: `Pupil ${n + 1}` },
      new Map(phrases.map((p) => [p.id, p])),
      tries,
      BEGAN + 9 * DAY,
    );
    return { id: reportRow(report), kind: 'report', changed: report.made, report };
  });
  return [...given, ...reports];
}

function tryOf({ id, goal }: Phrase, pupil: number, i: number): Attempt {
  const bpm = Math.min(goal, 50 + 4 * i);
  const verdict = (i + pupil) % 3 === 0 ? ('messy' as const) : ('clean' as const);
  const at = BEGAN + DAY + i * 60_000;
  return { id: `${id}-${i}`, phrase: id, at, bpm, goal, loops: 4, seconds: 16, verdict, source: 'midi' };
}

function recipe(pick: <T>(list: readonly T[]) => T, random: () => number): Recipe {
  const rudiment = pick(RUDIMENTS);
  const source = { kind: 'rudiment' as const, id: rudiment.id, meter: meterText(rudiment.meter), grid: rudiment.grid };
  const moves: MoveEntry[] = [];
  let made: Recipe = { source, moves };
  for (let i = 0; i < 1 + Math.floor(random() * 4); i++) {
    const name = pick(MOVE_NAMES.filter((n) => n !== 'join' && n !== 'touch'));
    moves.push(newMove(name, `m${i}`, build(made).pattern));
    made = { source, moves: [...moves] };
  }
  return made;
}
