import fc from 'fast-check';
import { contextStage, stagePattern, type Attempt, type Measured, type KeptFinding } from '../drill';
import { patternOfText } from '../pattern';
import { GRID, meter, USUAL_SCHOOLS } from '../time';
import { parseStrokeText, type Limb } from '../stroke';
import {
  breaksIn,
  breaksOf,
  busier,
  failKinds,
  failsByTempo,
  gettingThere,
  isItTooMuch,
  limbsByDay,
  limbsLately,
  minutesOf,
  mostAvoided,
  practiceDays,
  sittings,
  whatIsAvoided,
  whatWasPractised,
  whereItBreaks,
  whichLimbLags,
  whyRungsFail,
  worstBreak,
  type PracticeDay,
} from '.';

const TODAY = 20_784; // a Friday
const DAY = 864e5;
const dayOf = (at: number): number => Math.floor(at / DAY);
const measured = (more: Partial<Measured>): Measured => ({
  mean: 0,
  spread: 9,
  missed: 0,
  extra: 0,
  strokes: 16,
  drift: 0,
  limbs: [],
  ...more,
});
const one = (id: number, more: Partial<Attempt> = {}): Attempt => ({
  id: String(id),
  phrase: 'a',
  at: TODAY * DAY + id * 60_000,
  bpm: 90,
  goal: 100,
  loops: 4,
  seconds: 20,
  verdict: 'clean',
  ...more,
});
const LATE: KeptFinding = { kind: 'limb', limb: 'L', off: 18, stroke: null };
const EXTRA: KeptFinding = { kind: 'extra', many: 3 };
const UNEVEN: KeptFinding = { kind: 'uneven', spread: 21 };

describe('why rungs fail', () => {
  const tries = fc.array(
    fc.record({
      bpm: fc.integer({ min: 40, max: 180 }),
      clean: fc.boolean(),
      fix: fc.constantFrom(LATE, EXTRA, UNEVEN, undefined, null),
    }),
    { maxLength: 60 },
  );
  it('counts each try once, in its stretch of tempos, under its kind', () => {
    fc.assert(
      fc.property(tries, (all) => {
        const list = all.map((t, i) =>
          one(i, {
            bpm: t.bpm,
            verdict: t.clean ? 'clean' : 'messy',
            ...(t.fix === null ? {} : { measured: measured(t.fix ? { finding: t.fix } : {}) }),
          }),
        );
        const fails = failsByTempo(list);
        for (const f of fails) {
          const own = list.filter((t) => t.bpm >= f.from && t.bpm < f.until);
          expect(own.length).toBeGreaterThan(0);
          let [clean, late, extra, uneven, untold] = [0, 0, 0, 0, 0];
          for (const t of own)
            if (t.verdict === 'clean') clean++;
            else if (t.measured?.finding === LATE) late++;
            else if (t.measured?.finding === EXTRA) extra++;
            else if (t.measured?.finding === UNEVEN) uneven++;
            else untold++;
          expect([f.clean, f.by.late ?? 0, f.by.extra ?? 0, f.by.uneven ?? 0, f.untold]).toEqual([
            clean,
            late,
            extra,
            uneven,
            untold,
          ]);
        }
        expect(fails.map((f) => f.from)).toEqual([...fails.map((f) => f.from)].sort((a, b) => a - b));
        const title = whyRungsFail(fails);
        expect(title).toMatch(/\.$/);
        const most = Math.max(0, ...failKinds(fails).map((k) => k.times));
        if (most > 0) expect(title).toContain(`: ${most} of `);
      }),
    );
  });
  it('says in its title what is so', () => {
    const messy = (id: number, fix: KeptFinding | null): Attempt =>
      one(id, { verdict: 'messy', ...(fix === null ? {} : { measured: measured({ finding: fix }) }) });
    expect(whyRungsFail(failsByTempo([one(1)]))).toBe('No messy try yet.');
    expect(whyRungsFail(failsByTempo([messy(1, null)]))).toBe(
      '1 messy try, cause unknown: you judged by ear. Let a pad or microphone listen.',
    );
    expect(whyRungsFail(failsByTempo([messy(1, LATE), messy(2, LATE), messy(3, EXTRA), messy(4, null)]))).toBe(
      'Most often early or late: 2 of 3 measured tries. 1 more was judged by ear.',
    );
  });
});

describe('which limb lags', () => {
  const of = (limb: Limb, mean: number, spread = 8) => ({ limb, mean, spread });
  const on = (day: number, ...limbs: { limb: Limb; mean: number; spread: number }[]): Attempt =>
    one(day, { at: (TODAY - day) * DAY + 1000, measured: measured({ limbs }) });
  it('takes the mean of each day, and of the days', () => {
    const days = limbsByDay([on(3, of('R', 2), of('L', 20)), on(3, of('L', 10)), on(1, of('L', 24)), one(9)], dayOf);
    expect(days).toEqual([
      { limb: 'R', day: TODAY - 3, mean: 2, spread: 8, tries: 1 },
      { limb: 'L', day: TODAY - 3, mean: 15, spread: 8, tries: 2 },
      { limb: 'L', day: TODAY - 1, mean: 24, spread: 8, tries: 1 },
    ]);
    expect(limbsLately(days)).toEqual([
      { limb: 'R', mean: 2, days: 1 },
      { limb: 'L', mean: 19.5, days: 2 },
    ]);
  });
  it('names a limb against the rest, never what all of them do', () => {
    const said = (...limbs: { limb: Limb; mean: number; spread: number }[]): string =>
      whichLimbLags(limbsByDay([on(2, ...limbs), on(1, ...limbs)], dayOf));
    expect(said(of('R', 0), of('L', 18), of('K', 0))).toBe(
      'Left hand: 18 ms later than your other limbs over the last 2 days.',
    );
    // Of two limbs the one that is off the click: what the verdict says of the same playing.
    expect(said(of('R', 1), of('L', 25))).toContain('Left hand: 24 ms later');
    expect(said(of('R', -22), of('L', 2))).toContain('Right hand: 24 ms earlier');
    expect(said(of('R', 30), of('L', 31), of('K', 29))).toBe('No limb lags: all are within 6 ms of each other.');
    expect(said(of('R', 30))).toContain('Only one limb');
    expect(whichLimbLags([])).toContain('Nothing measured yet');
  });
});

describe('where it breaks', () => {
  const parseOk = (words: string) => {
    const read = parseStrokeText(words);
    return read.ok ? read.value : [];
  };
  const text = parseStrokeText('R L K R');
  const pattern = patternOfText(text.ok ? text.value : [], meter(4, 4), GRID.sixteenths);
  const reading = (missed: readonly number[], late: readonly number[]) => ({
    strokes: 16,
    byPlace: missed.map((m, index) => ({ index, missed: m, mean: late[index] ?? 0, spread: 5, many: 4 - m })),
  });
  it('sums the last takes and those before, stroke by stroke, as plain loops do', () => {
    const all = [
      reading([0, 0, 4, 0], [0, 0, 0, 0]),
      reading([0, 1, 2, 0], [4, 8, 0, 0]),
      reading([0, 0, 1, 0], [8, 0, 2, 0]),
    ];
    const breaks = breaksOf(all, 4, 2);
    expect(breaks.map((b) => [b.now.wanted, b.now.missed])).toEqual([
      [8, 0],
      [8, 1],
      [8, 3],
      [8, 0],
    ]);
    // Of the first: four strokes 4 ms late, four 8 ms.
    expect(breaks[0]!.now.late).toBeCloseTo(6, 9);
    expect(breaks[1]!.now.late).toBeCloseTo((3 * 8 + 4 * 0) / 7, 9);
    expect(breaks[2]!.before).toEqual({ wanted: 4, missed: 4, late: null });
    expect(worstBreak(breaks)).toMatchObject({ by: 'missed', at: { index: 2 } });
    expect(whereItBreaks(breaks, pattern, USUAL_SCHOOLS, 2)).toBe(
      'Kick, the & of 1: missed most, 3 of 8 times in the last 2 takes (before: 4 of 4).',
    );
  });
  it('of a stage in context are those of the phrase, not of the groove before it, and are named as the phrase counts', () => {
    const groove = patternOfText(parseOk('R+K - R+L - R+K - R+L -'), meter(4, 4), GRID.eighths);
    for (const bars of [1, 2, 3]) {
      const stage = { ...contextStage(bars, 'fill'), id: 's' };
      const fill = patternOfText(parseOk('R L R L R L R K'), meter(4, 4), GRID.eighths);
      const played = stagePattern(stage, fill, groove);
      // By plain sums: what lies in the bars before is the groove.
      const own = played.strokes.flatMap((s, i) =>
        s.at >= bars * 4 * 5040 && s.at < (bars + 1) * 4 * 5040 ? [i] : [],
      );
      const missed = played.strokes.map((_, i) => (i === 0 ? 4 : i === own[2] ? 2 : 0));
      const all = breaksOf(
        [
          reading(
            missed,
            missed.map(() => 0),
          ),
        ],
        played.strokes.length,
        4,
      );
      const found = breaksIn(all, { stage, played }, fill);
      expect(found.map((b) => b.index)).toEqual([0, 1, 2, 3, 4, 5, 6, 7]);
      expect(whereItBreaks(found, fill, USUAL_SCHOOLS, 1)).toBe(
        'Right hand, beat 2: missed most, 2 of 4 times in the last take.',
      );
    }
  });
  it('where nothing is left out it names what lies farthest off, and where that is little, nothing', () => {
    const off = (ms: number): string =>
      whereItBreaks(breaksOf([reading([0, 0, 0, 0], [0, ms, 0, 0])], 4, 4), pattern, USUAL_SCHOOLS, 1);
    expect(off(-21)).toBe('Left hand, the e of 1: 21 ms early on average in the last take.');
    expect(off(3)).toContain('All on time');
    expect(whereItBreaks([], pattern, USUAL_SCHOOLS, 0)).toBe('No take recorded yet.');
  });
});

describe('what was practised, and whether it is too much', () => {
  const day = (ago: number, seconds: number, R = 1000, L = 500): PracticeDay => ({
    day: TODAY - ago,
    seconds: { fill: seconds },
    R,
    L,
  });
  it('adds up phrases by day, family and hand', () => {
    const phrases = fc.array(
      fc.record({
        family: fc.constantFrom('fill' as const, 'lick' as const, 'groove' as const, 'warm-up' as const),
        hands: fc.record({ R: fc.integer({ min: 0, max: 4 }), L: fc.integer({ min: 0, max: 4 }) }),
        days: fc.array(
          fc.record({ day: fc.integer({ min: 20_000, max: 20_009 }), seconds: fc.nat(900), beats: fc.nat(900) }),
          { maxLength: 6 },
        ),
      }),
      { maxLength: 8 },
    );
    fc.assert(
      fc.property(phrases, (all) => {
        const found = practiceDays(all);
        let [seconds, right, left] = [0, 0, 0];
        for (const p of all)
          for (const d of p.days) {
            seconds += d.seconds;
            right += d.beats * p.hands.R;
            left += d.beats * p.hands.L;
          }
        expect(found.reduce((s, d) => s + 60 * minutesOf(d), 0)).toBeCloseTo(seconds, 6);
        expect(found.reduce((s, d) => s + d.R, 0)).toBe(right);
        expect(found.reduce((s, d) => s + d.L, 0)).toBe(left);
        expect(found.map((d) => d.day)).toEqual([...new Set(found.map((d) => d.day))].sort((a, b) => a - b));
      }),
    );
  });
  const NONE = { planned: new Map<number, number>(), free: new Map<number, number>() };
  it('says the week in minutes, against the plan where there was one', () => {
    const days = [day(9, 3600), day(3, 600), day(0, 900)];
    expect(whatWasPractised(days, NONE, TODAY)).toBe('25 minutes on 2 days of the last seven.');
    expect(
      whatWasPractised(
        days,
        {
          planned: new Map([
            [TODAY, 35],
            [TODAY - 20, 60],
          ]),
          free: new Map([
            [TODAY, 4],
            [TODAY - 9, 50],
          ]),
        },
        TODAY,
      ),
    ).toBe('25 minutes on 2 days of the last seven, 35 planned, and 4 minutes of free play.');
    expect(whatWasPractised([day(9, 3600)], NONE, TODAY)).toBe('Nothing in the last seven days.');
    expect(whatWasPractised([], NONE, TODAY)).toBe('Nothing practised yet.');
  });
  it('holds the newest day against the week before it', () => {
    const week = [day(6, 600, 4000), day(4, 600, 4000), day(0, 600, 9000)];
    expect(isItTooMuch(week, TODAY)).toBe('Too many: 9,000 strokes per hand today. Your limit was 6,000.');
    expect(isItTooMuch([...week.slice(0, 2), day(1, 600, 500, 5200)], TODAY)).toBe(
      'Fine: 5,200 strokes per hand yesterday. Your limit was 6,000.',
    );
    expect(isItTooMuch([day(2, 60, 700)], TODAY)).toContain('No limit yet');
    expect(isItTooMuch([], TODAY)).toBe('Nothing practised yet.');
    expect(busier(day(0, 1, 3, 8))).toBe(8);
  });
});

describe('sittings', () => {
  it('are tries without a pause of half an hour, newest first, each try in one', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 600 }), { maxLength: 40 }), (minutes) => {
        const tries = minutes.map((m, i) => one(i, { at: 1e12 + m * 60_000, seconds: 30 }));
        const found = sittings(tries);
        expect(
          found
            .flatMap((s) => s.tries)
            .map((t) => t.id)
            .sort(),
        ).toEqual(tries.map((t) => t.id).sort());
        const times = found.flatMap((s) => s.tries.map((t) => t.at));
        expect(times).toEqual([...times].sort((a, b) => b - a));
        found.forEach((s, i) => {
          const next = found[i + 1];
          if (next) expect(s.from - next.until).toBeGreaterThan(30 * 60_000);
          expect(s.from).toBeLessThanOrEqual(s.until);
        });
      }),
    );
  });
});

describe('am I getting there, what do I avoid', () => {
  const ready = { kind: 'ready', bpm: 88, low: 84, high: 92 } as const;
  const of = { best: 95, ready, goal: 104, by: null, projection: null };
  it('says what is clean, what is ready, when it will be, and whether that is in time', () => {
    expect(gettingThere({ ...of, best: null }, TODAY)).toBe('No clean try yet on the way to 104.');
    expect(gettingThere(of, TODAY)).toBe('Ready at 88, best clean try 95, goal 104.');
    expect(gettingThere({ ...of, projection: { kind: 'unknown', days: 2 } }, TODAY)).toContain(
      'Too early to say when: 2 days',
    );
    expect(gettingThere({ ...of, best: 104, projection: { kind: 'ready' } }, TODAY)).toBe('You are ready for 104.');
    // Never played clean so fast: it is believed, and said so.
    expect(gettingThere({ ...of, projection: { kind: 'ready' } }, TODAY)).toBe(
      'You are near 104. Your fastest clean try is 95: try it.',
    );
    expect(gettingThere({ ...of, projection: { kind: 'resting', since: TODAY - 40 } }, TODAY)).toBe(
      'No pace to go by: last played on 18 Oct. Ready at 88, best clean try 95, goal 104.',
    );
    const early = { kind: 'early', tries: 2, days: 1 } as const;
    expect(gettingThere({ ...of, best: 104, ready: early, projection: { kind: 'ready' } }, TODAY)).toBe(
      'Too early to say what is ready: it takes 2 more tries of the whole phrase and 1 more day. Best clean try 104, goal 104.',
    );
    const on = { kind: 'on', day: TODAY + 9, from: TODAY + 4, until: TODAY + 30, chance: 0.97, still: null } as const;
    expect(gettingThere({ ...of, projection: on }, TODAY)).toBe(
      'Ready about 6 Dec at this pace, between Tuesday and 27 Dec. Ready at 88, best clean try 95, goal 104.',
    );
    const by = { day: TODAY + 2, what: 'night' } as const;
    expect(gettingThere({ ...of, by, projection: on }, TODAY)).toContain('Needed by Sunday. That is too late.');
    const says = (more: object): string => gettingThere({ ...of, projection: { ...on, ...more } }, TODAY);
    const where = ' Ready at 88, best clean try 95, goal 104.';
    expect(says({ until: null, chance: 0.7 })).toBe(`Perhaps about 6 Dec at this pace, not before Tuesday.${where}`);
    expect(says({ day: null, until: null, chance: 0.31 })).toBe(
      `3 chances in 10 at this pace, not before Tuesday.${where}`,
    );
    expect(says({ day: null, until: null, chance: 0.31, still: 8 })).toContain('No gain in 8 days. 3 chances in 10');
    // Only what nine of ten would not reach is not likely.
    for (const from of [null, TODAY + 365])
      expect(says({ from, day: null, until: null, chance: 0.08 })).toBe(
        `Not likely within a year at this pace.${where}`,
      );
    expect(gettingThere({ ...of, by, projection: { ...on, from: null } }, TODAY)).not.toContain('too late');
  });
  it('names first what has a night, then what was longest not played', () => {
    const p = (name: string, days: number, night: number | null) => ({ id: name, name, days, sure: 0.9, night });
    const all = mostAvoided([p('A', 40, null), p('B', 9, 6), p('C', 12, 6)]);
    expect(all.map((a) => a.name)).toEqual(['C', 'B', 'A']);
    expect(whatIsAvoided(all)).toBe('C was not played for 12 days, and its show is in 6 days.');
    expect(whatIsAvoided([])).toBe('No goal-ready phrase went a week unplayed.');
  });
});
