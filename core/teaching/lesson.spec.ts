import fc from 'fast-check';
import { stableJson } from '../base';
import type { Attempt, DrillPlan } from '../drill';
import type { Phrase } from '../recipe';
import { anyAttempt, anyPhrase } from '../testing/arbitraries';
import {
  isNewer,
  laterLesson,
  keptLessons,
  LESSON_LIMITS,
  takenBefore,
  type GivenLesson,
  type KeptLesson,
  type KeptReport,
  type Lesson,
  type Report,
  type TakenLesson,
} from '../lesson';
import {
  besideEachOther,
  breaksWords,
  changeWords,
  lessonBoard,
  lessonChanges,
  nextEdition,
  reportOf,
  standingOf,
  standingWords,
  takeLesson,
} from '.';

const phraseOf = (id: string, text = 'R l l K', over: Partial<Phrase> = {}): Phrase => ({
  id,
  name: `Phrase ${id}`,
  family: 'fill',
  recipe: { source: { kind: 'typed', text, meter: '4/4', grid: 1260 }, moves: [] },
  tempo: 80,
  goal: 110,
  note: '',
  created: 1,
  changed: 1,
  ...over,
});

const byId = (phrases: readonly Phrase[]): ReadonlyMap<string, Phrase> => new Map(phrases.map((p) => [p.id, p]));

const PLAN: DrillPlan = {
  start: 60,
  goal: 110,
  step: 5,
  loops: 4,
  stages: [
    { id: 'a', kind: 'bare', short: true },
    { id: 'b', kind: 'context', bars: 3, family: 'fill', groove: 'MARK-groove', short: false },
  ],
};

const givenOf = (ids: readonly string[], over: Partial<GivenLesson> = {}): GivenLesson => ({
  id: 'given:les',
  kind: 'given',
  lesson: 'les',
  changed: 5,
  edition: 0,
  made: null,
  title: 'Week one',
  from: 'Mara',
  note: 'Slowly.',
  due: null,
  items: ids.map((id) => ({ id: `i-${id}`, phrase: id, goal: 100, note: `Note ${id}`, plan: null, stageNotes: [] })),
  answers: [],
  ...over,
});

const lessonOf = (phrases: readonly Phrase[], over: Partial<GivenLesson> = {}, at = 50): Lesson =>
  nextEdition(
    givenOf(
      phrases.map((p) => p.id),
      over,
    ),
    byId(phrases),
    at,
  )!;

const HOW = { theirs: new Set<string>(), idOf: (item: string) => `own-${item}`, at: 100, pupil: 'pu' };

/** A pupil's shelf: what taking a lesson put there. */
function taken(lesson: Lesson, before: TakenLesson | null = null, shelf: readonly Phrase[] = [], how = HOW) {
  const took = takeLesson(before, lesson, byId(shelf), how);
  const next = new Map(byId(shelf));
  for (const p of took.phrases) next.set(p.id, p);
  return { row: took.row, shelf: [...next.values()], put: took.phrases };
}

describe('an edition of a lesson', () => {
  const a = phraseOf('a', 'R l l K', {
    note: 'MARK-note',
    tags: ['MARK-tag'],
    parent: { id: 'MARK-p', change: 'MARK-c' },
  });
  it('has the phrases in the order of the lesson, with its goals, its notes and the next number', () => {
    const b = phraseOf('b');
    const lesson = nextEdition(givenOf(['b', 'a'], { edition: 3 }), byId([a, b]), 77)!;
    expect([lesson.edition, lesson.made, lesson.items.map((i) => i.phrase.name)]).toEqual([
      4,
      77,
      ['Phrase b', 'Phrase a'],
    ]);
    expect(lesson.items.map((i) => [i.phrase.goal, i.phrase.tempo, i.note])).toEqual([
      [100, 80, 'Note b'],
      [100, 80, 'Note a'],
    ]);
  });
  it('leaves out phrases that are gone; with none left there is no lesson', () => {
    expect(nextEdition(givenOf(['a', 'x']), byId([a]), 1)!.items).toHaveLength(1);
    expect(nextEdition(givenOf(['x']), byId([a]), 1)).toBeNull();
  });
  it('takes along neither notes, tags and kin of the shelf nor the grooves of its stages, nor unknown fields', () => {
    const odd = { ...a, mood: 'MARK-mood', recipe: { ...a.recipe, later: 'MARK-later' } } as Phrase;
    const given = givenOf(['a']);
    const lesson = nextEdition({ ...given, items: given.items.map((i) => ({ ...i, plan: PLAN })) }, byId([odd]), 1)!;
    expect(stableJson(lesson)).not.toContain('MARK');
    expect(lesson.items[0]?.plan?.stages?.map((s) => s.kind)).toEqual(['bare', 'context']);
    expect(lesson.items[0]?.plan?.goal).toBe(100);
  });
});

describe('taking a lesson', () => {
  const [a, b, c] = [phraseOf('a'), phraseOf('b', 'R L R R'), phraseOf('c', 'L L R R')];
  it('puts each phrase on the shelf once, under an id of the pupil’s, with the day as its goal’s', () => {
    const { row, shelf } = taken(lessonOf([a, b], { due: 20_800 }));
    expect(shelf.map((p) => [p.id, p.name, p.goal, p.by])).toEqual([
      ['own-i-a', 'Phrase a', 100, { day: 20_800, what: 'lesson' }],
      ['own-i-b', 'Phrase b', 100, { day: 20_800, what: 'lesson' }],
    ]);
    expect(row).toMatchObject({ id: 'taken:les', since: 100, pupil: 'pu', changed: 100 });
    expect(lessonBoard(null, row, [], new Set(shelf.map((p) => p.id)))).toEqual(['own-i-a', 'own-i-b']);
  });
  it('the same edition again is no change and puts nothing', () => {
    const lesson = lessonOf([a, b]);
    const first = taken(lesson);
    expect(lessonChanges(first.row, lesson, byId(first.shelf))).toEqual([]);
    expect(taken(lesson, first.row, first.shelf).put).toEqual([]);
  });
  it('a newer one: what the teacher changed follows, what the pupil changed stays, tempos are the pupil’s', () => {
    const first = taken(lessonOf([a, b, c]));
    // The pupil plays slower, and made another of the second.
    const own = first.shelf.map((p) => ({
      ...p,
      tempo: 62,
      ...(p.id === 'own-i-b' ? { recipe: phraseOf('x', 'K K K K').recipe } : {}),
    }));
    const next = lessonOf(
      [phraseOf('a', 'R R R R'), phraseOf('b', 'L L L L'), phraseOf('d')],
      { edition: 1, note: 'Faster.' },
      60,
    );
    const kinds = lessonChanges(first.row, next, byId(own)).map((x) => ('item' in x ? `${x.kind} ${x.item}` : x.kind));
    expect(kinds).toEqual(['phrase i-a', 'own i-b', 'new i-d', 'gone i-c', 'about']);
    const then = taken(next, first.row, own);
    const text = (id: string): unknown => then.shelf.find((p) => p.id === id)?.recipe.source;
    expect(text('own-i-a')).toMatchObject({ text: 'R R R R' });
    expect(text('own-i-b')).toMatchObject({ text: 'K K K K' });
    expect(then.shelf.filter((p) => p.id !== 'own-i-d').map((p) => p.tempo)).toEqual([62, 62, 62]);
    expect(then.row).toMatchObject({ since: 100, pupil: 'pu', came: { edition: 2 } });
    expect(
      lessonBoard(first.row, then.row, ['own-i-b', 'mine', 'own-i-a', 'own-i-c'], new Set(then.shelf.map((p) => p.id))),
    ).toEqual(['own-i-b', 'mine', 'own-i-a', 'own-i-d']);
  });
  it('the teacher’s version of a phrase that both changed is taken where it is asked for', () => {
    const first = taken(lessonOf([a]));
    const own = first.shelf.map((p) => ({ ...p, name: 'Mine' }));
    const next = lessonOf([phraseOf('a', 'R R R R', { name: 'Theirs' })], { edition: 1 });
    expect(taken(next, first.row, own).shelf[0]?.name).toBe('Mine');
    expect(taken(next, first.row, own, { ...HOW, theirs: new Set(['i-a']) }).shelf[0]?.name).toBe('Theirs');
  });
  it('a goal the pupil set stays, one that was the lesson’s follows, and so does its day', () => {
    const first = taken(lessonOf([a, b], { due: 20_800 }));
    const own = first.shelf.map((p) =>
      p.id === 'own-i-b' ? { ...p, goal: 90, by: { day: 5, what: 'night' as const } } : p,
    );
    const given = givenOf(['a', 'b'], { edition: 1, due: 20_810 });
    const next = nextEdition({ ...given, items: given.items.map((i) => ({ ...i, goal: 120 })) }, byId([a, b]), 60)!;
    const then = taken(next, first.row, own);
    expect(then.shelf.map((p) => [p.goal, p.by?.day])).toEqual([
      [120, 20_810],
      [90, 5],
    ]);
  });
  it('what the pupil took off stays off; a lesson that was dropped comes anew', () => {
    const lesson = lessonOf([a, b]);
    const first = taken(lesson);
    const next = { ...lesson, edition: 2 };
    const rest = first.shelf.filter((p) => p.id !== 'own-i-a');
    expect(lessonChanges(first.row, next, byId(rest)).map((x) => x.kind)).toEqual(['off']);
    expect(taken(next, first.row, rest).put).toEqual([]);
    const again = takenBefore({ ...first.row, dropped: true }, byId(rest));
    const then = taken(next, again, rest);
    expect(then.put.map((p) => p.id)).toEqual(['own-i-a']);
    expect(then.row.dropped).toBeUndefined();
  });
  it('answers are told to the pupil who asked, and to nobody else', () => {
    const lesson = lessonOf([a]);
    const { row, shelf } = taken(lesson);
    const next = { ...lesson, edition: 2, answers: [{ question: 'q1', words: 'Lift the left.' }] };
    expect(lessonChanges(row, next, byId(shelf))).toEqual([]);
    const asked = { ...row, questions: [{ id: 'q1', item: 'i-a', words: 'Why?' }] };
    const [change] = lessonChanges(asked, next, byId(shelf));
    expect(changeWords(change!)).toBe('Your question is answered: Lift the left.');
  });

  /** Worked out another way: phrase by phrase, by what each side did since the edition before. */
  it('for any edits on either side nothing of the pupil’s is ever replaced unasked', () => {
    const edit = fc.constantFrom('R R R R', 'K K K K', 'L R L R');
    const side = fc.record({ a: fc.option(edit), b: fc.option(edit) });
    fc.assert(
      fc.property(side, side, fc.boolean(), (theirs, ours, isOff) => {
        const first = taken(lessonOf([a, b]));
        const own = first.shelf
          .filter((p) => !(isOff && p.id === 'own-i-b'))
          .map((p) => {
            const text = p.id === 'own-i-a' ? ours.a : ours.b;
            return text === null ? p : { ...p, recipe: phraseOf('x', text).recipe };
          });
        const next = lessonOf(
          [phraseOf('a', theirs.a ?? 'R l l K'), phraseOf('b', theirs.b ?? 'R L R R')],
          { edition: 1 },
          70,
        );
        const then = taken(next, first.row, own);
        for (const [id, mine, teacher, base] of [
          ['own-i-a', ours.a, theirs.a, 'R l l K'],
          ['own-i-b', ours.b, theirs.b, 'R L R R'],
        ] as const) {
          const stands = then.shelf.find((p) => p.id === id)?.recipe.source;
          if (id === 'own-i-b' && isOff) expect(stands).toBeUndefined();
          else expect(stands).toMatchObject({ text: mine ?? teacher ?? base });
        }
      }),
    );
  });
});

const tryOf = (id: string, phrase: string, over: Partial<Attempt> = {}): Attempt => ({
  id,
  phrase,
  at: 200,
  bpm: 80,
  goal: 100,
  loops: 4,
  seconds: 30,
  verdict: 'clean',
  source: 'midi',
  ...over,
});

describe('a report', () => {
  const lesson = lessonOf([phraseOf('a'), phraseOf('b')]);
  const { row, shelf } = taken(lesson);
  it('holds that lesson’s tries since it was taken, played on a drum, the oldest first', () => {
    const report = reportOf(
      row,
      byId(shelf),
      [
        tryOf('3', 'own-i-a', { at: 300 }),
        tryOf('1', 'own-i-a', { at: 150 }),
        tryOf('before', 'own-i-a', { at: 99 }),
        tryOf('out', 'own-i-a', { off: true }),
        tryOf('program', 'own-i-a', { source: 'simulated' }),
        tryOf('keys', 'own-i-a', { source: 'keys' }),
        tryOf('other', 'elsewhere'),
      ],
      500,
    );
    expect(report.items.map((i) => [i.item, i.stands, i.tries.map((t) => t.at), i.many, i.seconds])).toEqual([
      ['i-a', 'as it came', [150, 300], 2, 60],
      ['i-b', 'as it came', [], 0, 0],
    ]);
    expect(report).toMatchObject({ lesson: 'les', edition: 1, pupil: 'pu', made: 500, since: 100 });
  });
  it('says what was changed and what was taken off; of many tries the newest are listed and all are counted', () => {
    const own = shelf.filter((p) => p.id !== 'own-i-b').map((p) => ({ ...p, name: 'Mine' }));
    const many = Array.from({ length: LESSON_LIMITS.tries + 5 }, (_, i) => tryOf(`t${i}`, 'own-i-a', { at: 200 + i }));
    const report = reportOf(row, byId(own), many, 9000);
    expect(report.items.map((i) => i.stands)).toEqual(['changed', 'taken off']);
    expect([report.items[0]?.tries.length, report.items[0]?.tries[0]?.at, report.items[0]?.many]).toEqual([
      LESSON_LIMITS.tries,
      205,
      LESSON_LIMITS.tries + 5,
    ]);
    expect(stableJson(report)).not.toContain('Mine');
  });
  it('marks that are planted in every text of any shelf never leave with a report', () => {
    const planted = (value: unknown): unknown => {
      if (typeof value === 'string') return value;
      if (Array.isArray(value)) return value.map(planted);
      if (typeof value !== 'object' || value === null) return value;
      return Object.fromEntries([
        ...Object.entries(value).map(([k, v]) => [k, planted(v)]),
        ['mark', 'MARK'],
        ...('note' in value ? [['note', 'MARK']] : []),
      ]);
    };
    fc.assert(
      fc.property(
        fc.array(anyAttempt, { maxLength: 12 }),
        fc.array(anyPhrase, { maxLength: 4 }),
        (attempts, phrases) => {
          const tries = attempts.map((t, i) => {
            const own = { ...t, id: `MARK${i}`, phrase: i % 2 === 0 ? 'own-i-a' : 'MARK-other', at: 200 + i };
            const drilled = { id: 'MARK', kind: 'part', part: { of: 'asked', said: 'MARK' } };
            const finding = { kind: 'earlier', words: 'MARK', fix: null, stage: null };
            const measured = { mean: 1, spread: 2, missed: 0, extra: 0, strokes: 4, drift: 0, limbs: [], finding };
            return planted({ ...own, drilled, measured, source: i % 3 === 0 ? 'MARK' : 'midi' }) as Attempt;
          });
          const all = [...shelf, ...phrases].map((p) => planted({ ...p, tags: ['MARK'], name: 'MARK' }) as Phrase);
          const report = reportOf(row, byId(all), tries, 900);
          expect(JSON.stringify(report)).not.toContain('MARK');
          expect(report.items[0]?.many).toBe(tries.filter((t) => t.phrase === 'own-i-a').length);
        },
      ),
    );
  });
});

describe('reports beside each other', () => {
  const reported = (pupil: string, from: string, tries: readonly Attempt[]): KeptReport => {
    const lesson = lessonOf([phraseOf('a'), phraseOf('b')]);
    const { row, shelf } = taken(lesson, null, [], { ...HOW, pupil });
    const report: Report = reportOf(
      { ...row, from, questions: [{ id: `q-${pupil}`, item: null, words: 'How?' }] },
      byId(shelf),
      tries,
      900,
    );
    return { id: `report:les:${pupil}`, kind: 'report', changed: 900, report };
  };
  const given = givenOf(['a', 'b'], { answers: [{ question: 'q-p1', words: 'So.' }] });
  it('a line for each phrase, a column for each pupil by name, questions with their answers', () => {
    const other = reported('p3', 'Zoe', []);
    const beside = besideEachOther(given, [
      reported('p2', 'Nils', [tryOf('1', 'own-i-a', { bpm: 92 })]),
      reported('p1', 'Ada', []),
      { ...other, report: { ...other.report, lesson: 'another' } },
    ]);
    expect(beside.pupils.map((p) => [p.name, p.minutes])).toEqual([
      ['Ada', 0],
      ['Nils', 0.5],
    ]);
    expect(beside.lines.map((l) => l.standings.map(standingWords))).toEqual([
      ['Not begun.', 'Clean at 92 of 100.'],
      ['Not begun.', 'Not begun.'],
    ]);
    expect(beside.questions.map((q) => [q.from, q.words, q.answer])).toEqual([
      ['Ada', 'How?', 'So.'],
      ['Nils', 'How?', ''],
    ]);
  });
  it('what a pupil is at, by stage, and what breaks: the same as counted by hand', () => {
    const limbs = (off: number) => [
      { limb: 'L' as const, mean: off, spread: 4 },
      { limb: 'R' as const, mean: -off / 4, spread: 4 },
    ];
    const measured = (kind: 'late' | 'extra', off: number): NonNullable<Attempt['measured']> => ({
      mean: 0,
      spread: 5,
      missed: 0,
      extra: 0,
      strokes: 32,
      drift: 0,
      limbs: limbs(off),
      finding: kind === 'late' ? { kind: 'limb', limb: 'L', off, stroke: null } : { kind: 'extra', many: 2 },
    });
    const bare = { id: 'bare', kind: 'bare' as const };
    const { report } = reported('p1', 'Ada', [
      tryOf('1', 'own-i-a', { at: 210, bpm: 70, drilled: bare }),
      tryOf('2', 'own-i-a', { at: 220, bpm: 60, verdict: 'messy', measured: measured('late', 20) }),
      tryOf('3', 'own-i-a', { at: 230, bpm: 60, verdict: 'messy', measured: measured('late', 24) }),
      tryOf('4', 'own-i-a', { at: 240, bpm: 64, verdict: 'messy', measured: measured('extra', 22) }),
    ]);
    const standing = standingOf(report.items[0] ?? null, { goal: 100, plan: PLAN });
    expect(standing.stages).toEqual([
      { title: 'Sticking only, one surface', tries: 1, clean: 70 },
      { title: 'The whole phrase', tries: 3, clean: null },
    ]);
    expect([standing.at?.title, standing.best, standing.tries, standing.minutes]).toEqual([
      'The whole phrase',
      null,
      4,
      2,
    ]);
    expect(standing.breaks).toEqual({ kind: 'late', times: 2, of: 3 });
    expect(standing.limb).toEqual({ limb: 'L', off: 22 });
    expect(standingWords(standing)).toBe('The whole phrase: not clean yet.');
    expect(breaksWords(standing)).toBe('Mostly early or late (2 of 3), left hand 22 ms late');
  });
  it('for any tries: the best is the fastest clean one of the whole, and tries by stage add up', () => {
    const kinds = fc.constantFrom(undefined, 'bare', 'whole', 'context', 'part');
    const one = fc.record({
      bpm: fc.integer({ min: 40, max: 200 }),
      clean: fc.boolean(),
      kind: kinds,
      at: fc.integer({ min: 101, max: 5000 }),
    });
    fc.assert(
      fc.property(fc.array(one, { maxLength: 40 }), (all) => {
        const tries = all.map((t, i) =>
          tryOf(`t${i}`, 'own-i-a', {
            at: t.at,
            bpm: t.bpm,
            verdict: t.clean ? 'clean' : 'messy',
            ...(t.kind && { drilled: { id: t.kind, kind: t.kind } }),
          }),
        );
        const standing = standingOf(reported('p', 'P', tries).report.items[0] ?? null, { goal: 120, plan: null });
        const whole = all.filter((t) => t.clean && t.kind !== 'bare' && t.kind !== 'part').map((t) => t.bpm);
        expect(standing.best).toBe(whole.length === 0 ? null : Math.max(...whole));
        expect(standing.stages.reduce((n, s) => n + s.tries, 0)).toBe(all.length);
        expect(standing.lastAt).toBe(all.length === 0 ? null : Math.max(...all.map((t) => t.at)));
      }),
    );
  });
});

describe('rows of two devices', () => {
  const lesson = lessonOf([phraseOf('a'), phraseOf('b')]);
  const anyRow = fc
    .record({
      changed: fc.integer({ min: 0, max: 5 }),
      edition: fc.integer({ min: 1, max: 3 }),
      items: fc.uniqueArray(fc.constantFrom('i-a', 'i-b', 'i-c'), { maxLength: 3 }),
      asked: fc.uniqueArray(fc.constantFrom('q1', 'q2'), { maxLength: 2 }),
      dropped: fc.boolean(),
    })
    .map(({ changed, edition, items, asked, dropped }): TakenLesson => ({
      ...taken({ ...lesson, edition }).row,
      changed,
      phrases: items.map((item) => ({ item, phrase: `own-${item}` })),
      questions: asked.map((id) => ({ id, item: null, words: 'Why?' })),
      ...(dropped && { dropped }),
    }));
  it('are the same in either order, and again', () => {
    fc.assert(
      fc.property(anyRow, anyRow, (a, b) => {
        const one = laterLesson(a, b);
        expect(laterLesson(b, a)).toEqual(one);
        expect(laterLesson(one, b)).toEqual(one);
        expect(laterLesson(a, one)).toEqual(one);
        const newest = isNewer(a.came, b.came) ? a.came : b.came;
        if (!one.dropped && one.kind === 'taken') expect(one.came.edition).toBe(newest.edition);
      }),
    );
  });
  it('dropped ones give way to those that are there', () => {
    const row = (id: string, changed: number, dropped: boolean): KeptLesson => ({
      ...givenOf([]),
      id,
      changed,
      dropped,
    });
    const all = Array.from({ length: LESSON_LIMITS.kept }, (_, i) => row(`g${i}`, i, i % 2 === 0));
    const kept = keptLessons(all, 10);
    expect(kept).toHaveLength(LESSON_LIMITS.kept - 10);
    expect(kept.filter((r) => !r.dropped)).toHaveLength(LESSON_LIMITS.kept / 2);
  });
});
