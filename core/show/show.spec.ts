import { barTicks, beatTicks, GRID, meter, parseMeter, ticks } from '../time';
import { asTyped, parseStrokeText } from '../stroke';
import { patternOfText, type Pattern } from '../pattern';
import { USUAL_KIT } from '../kit';
import { USUAL_PROFILE } from '../reach';
import { demanded, compose, USUAL_DEMANDS } from '../compose';
import { USUAL_SCHOOLS } from '../time';
import { build, type Family } from '../recipe';
import { learnt, unknownYet, type Known, type PaceDay } from '../player';
import { factsOf, type Cue, type Show, type Spot } from '../shelf';
import { dice } from '../testing/learners';
import { showTerm, type ShowTerm, type ShowWay } from '../testing/show-terms';
import {
  chanceOn,
  choicesOf,
  cuePattern,
  cueTicks,
  demandsOfSpot,
  filledShow,
  fitOf,
  goalUnder,
  goodSpots,
  meetsCounts,
  minutesTo,
  newRun,
  nextSpot,
  parseCues,
  readinessOf,
  runStep,
  SAFE,
  spotSpan,
  standing,
  wantsOf,
  withChoices,
  type Run,
  type RunEvent,
  type ShowPhrase,
} from '.';

const TODAY = 20_784;

const typed = (text: string, m = meter(4, 4), grid: number = GRID.sixteenths): Pattern => {
  const read = parseStrokeText(text);
  return patternOfText(read.ok ? read.value : [], m, ticks(grid));
};

/** A cue from a line, its spots with ids. */
function cueOf(line: string, id = 'c'): Cue {
  const [read] = parseCues(line);
  if (!read?.ok) throw new Error(read && !read.ok ? read.words : line);
  return {
    ...read.cue,
    id,
    groove: null,
    spots: read.cue.spots.map((s, i): Spot => ({ ...s, id: `${id}-${i}`, phrase: null, pinned: false })),
  };
}
const showOf = (cues: readonly Cue[], more: Partial<Show> = {}): Show => ({
  id: 's',
  name: 'The Salt Lantern',
  place: '',
  day: TODAY + 14,
  most: 2,
  cues: [...cues],
  changed: 1,
  ...more,
});

/** What is known after so many days of tries at a tempo, all clean but every n-th. */
function known(bpm: number, days: number, messy = 99): { known: Known; days: PaceDay[] } {
  let now = unknownYet(200, TODAY - days);
  const list: PaceDay[] = [];
  for (let d = 0; d < days; d++) {
    const day = TODAY - days + d;
    now = learnt(
      now,
      Array.from({ length: 8 }, (_, i) => ({ day, bpm, clean: i % messy !== messy - 1, weight: 1 })),
    );
    list.push({ day, seconds: 300, belief: now.belief });
  }
  return { known: now, days: list };
}
const phrase = (id: string, pattern: Pattern, more: Partial<ShowPhrase> = {}): ShowPhrase => ({
  id,
  name: `Phrase ${id}`,
  family: 'fill',
  tags: [],
  parent: null,
  facts: factsOf(pattern),
  ceiling: 200,
  known: unknownYet(200, TODAY),
  days: [],
  ...more,
});

describe('what stands in a spot', () => {
  const cue = cueOf('Nets, 88, 4/4, 16ths, 32 bars, fill 8:3, fill 16, fill 4:4&');
  const [half, whole, eighth] = cue.spots as [Spot, Spot, Spot];
  const of = (pattern: Pattern, spot: Spot, own = cue, family: Family = 'fill') =>
    fitOf(spot, own, { facts: factsOf(pattern), family }, USUAL_KIT);

  it('is told how, or why not', () => {
    expect(of(typed('R l R l R l R l'), half)).toEqual({ fits: true, way: { kind: 'moved', to: '3' } });
    expect(of({ ...typed('R l R l R l R l'), start: ticks(10_080) }, half)).toEqual({
      fits: true,
      way: { kind: 'as written' },
    });
    expect(of(typed('R l R l'), half)).toEqual({ fits: true, way: { kind: 'repeated', times: 2 } });
    expect(of(typed('R l R l '.repeat(4)), half)).toEqual({ fits: true, way: { kind: 'its end' } });
    expect(of(typed('R l R'), whole)).toEqual({ fits: false, why: 'length' });
    expect(of(typed('R l'), eighth)).toEqual({ fits: false, why: 'start' });
    expect(of(typed('R l R l R l', meter(4, 4), GRID.triplets), whole)).toEqual({ fits: false, why: 'grid' });
    expect(of(typed('R l R l', meter(4, 4), GRID.eighths), half)).toEqual({
      fits: true,
      way: { kind: 'moved', to: '3' },
    });
    expect(of(typed('R l R l R l R l', meter(3, 4)), half)).toEqual({ fits: false, why: 'meter' });
    expect(of(typed('R l R l R l R l'), half, cue, 'groove')).toEqual({ fits: false, why: 'kind' });
    expect(of(typed('R l R l R l R l'), half, { ...cue, feel: { kind: 'swung', on: '16ths', ratio: 0.6 } })).toEqual({
      fits: false,
      why: 'feel',
    });
    expect(of(typed('R l R l R l R l'), { ...half, lands: 'crash' })).toEqual({ fits: false, why: 'landing' });
    const small = { ...USUAL_KIT, pieces: USUAL_KIT.pieces.filter((p) => p.kind !== 'snare') };
    expect(fitOf(half, cue, { facts: factsOf(typed('R l R l R l R l')), family: 'fill' }, small)).toEqual({
      fits: false,
      why: 'pieces',
    });
  });

  it('hits are struck and no ghosts, and what is left alone is left alone', () => {
    const pattern = typed('R! l - L R l - K');
    const at = (hits: number[], free: number[]): boolean =>
      meetsCounts(
        pattern,
        { ...half, hits: hits.map((n) => n * 1260), free: free.map((n) => n * 1260) },
        { kind: 'moved', to: '3' },
      );
    expect([at([0, 7], [2, 6]), at([1], []), at([], [3]), at([2], [])]).toEqual([true, false, false, false]);
  });

  it('in random rooms stands on the same parts of the beat as it was written, or no shift by beats would do', () => {
    const roll = dice(5);
    const pick = <T>(all: readonly T[]): T => all[Math.floor(roll() * all.length)]!;
    const seen = { fits: 0, length: 0, start: 0 };
    for (let n = 0; n < 3000; n++) {
      const text = pick(['4/4', '3/4', '7/8', '6/8', '5/8', '11/16']);
      const m = parseMeter(text)!;
      const [bar, beat] = [barTicks(m), beatTicks(m)];
      const slot = 1260;
      const slots = 1 + Math.floor(roll() * (roll() < 0.5 ? bar / slot : 24));
      const pattern: Pattern = {
        ...typed(Array.from({ length: slots }, () => pick(['R', 'L', 'K', '-'])).join(' ') + ' R', m, slot),
        start: ticks(Math.floor((roll() * bar) / slot) * slot),
      };
      const from = Math.floor((roll() * bar) / slot) * slot;
      const room = {
        id: 's',
        what: 'fill' as const,
        bar: 2,
        from,
        hits: [],
        free: [],
        lands: 'any' as const,
        phrase: null,
        pinned: false,
      };
      const own: Cue = { ...cue, meter: text, grid: null, bars: 40 };
      const spot: Spot = { ...room, length: (1 + Math.floor((roll() * 2 * bar) / slot)) * slot };
      const fit = fitOf(spot, own, { facts: factsOf(pattern), family: 'fill' }, null);
      const lasts = pattern.length;
      const goes =
        lasts === spot.length ||
        (lasts < spot.length && lasts % beat === 0 && spot.length % lasts === 0) ||
        (lasts > spot.length && lasts <= 4 * spot.length);
      if (!fit.fits) {
        seen[fit.why as 'length' | 'start']++;
        if (fit.why === 'length') expect(goes).toBe(false);
        else {
          // No whole number of beats brings what is played to where it has to be.
          const first = lasts > spot.length ? pattern.start + lasts - spot.length : pattern.start;
          const shifts = Array.from({ length: 2 * Math.ceil(bar / beat) + 40 }, (_, k) => (k - 40) * beat);
          expect(goes && shifts.some((s) => first + s === from)).toBe(false);
        }
        continue;
      }
      seen.fits++;
      expect(goes).toBe(true);
      const strokes = standing(pattern, spot, fit.way);
      const cut = fit.way.kind === 'its end' ? lasts - spot.length : 0;
      for (const s of strokes) {
        expect(s.at).toBeGreaterThanOrEqual(0);
        expect(s.at).toBeLessThan(spot.length);
        // Where in its beat each stroke was, and is.
        const wrote = pattern.strokes.filter(
          (o) => (o.at - cut - s.at) % lasts === 0 && o.limb === s.limb && o.at >= cut,
        );
        expect(wrote.some((o) => (pattern.start + o.at - (from + s.at)) % beat === 0)).toBe(true);
      }
      const times = fit.way.kind === 'repeated' ? fit.way.times : 1;
      expect(strokes.length).toBe(times * pattern.strokes.filter((s) => s.at >= cut).length);
    }
    expect(Math.min(...Object.values(seen))).toBeGreaterThan(100);
  });
});

describe('ready for a night', () => {
  const solid = phrase('a', typed('R l R l'), known(110, 8));
  it('falls with the tempo and with days off, and never with minutes', () => {
    const when = { today: TODAY, night: TODAY + 20 };
    for (let bpm = 60; bpm < 180; bpm += 5) {
      expect(chanceOn(solid, bpm + 5, when, 0)).toBeLessThanOrEqual(chanceOn(solid, bpm, when, 0) + 1e-12);
      for (let minutes = 0; minutes < 120; minutes += 4)
        expect(chanceOn(solid, bpm, when, minutes + 4)).toBeGreaterThanOrEqual(
          chanceOn(solid, bpm, when, minutes) - 1e-9,
        );
    }
    expect(chanceOn(solid, 100, { ...when, night: TODAY + 60 }, 0)).toBeLessThan(
      chanceOn(solid, 100, { ...when, night: TODAY }, 0),
    );
    expect(chanceOn({ ...solid, ceiling: 99 }, 100, when, 30)).toBe(0);
  });

  it('the minutes it takes are the first that do, found one by one', () => {
    const when = { today: TODAY, night: TODAY + 10 };
    for (const bpm of [80, 95, 105, 112, 118, 125, 190]) {
      const told = minutesTo(solid, bpm, when);
      const found = Array.from({ length: 401 }, (_, m) => m).find((m) => chanceOn(solid, bpm, when, m) >= SAFE);
      expect([bpm, told]).toEqual([bpm, found ?? null]);
    }
  });
});

describe('a show', () => {
  const cues = [
    cueOf('Nets, 88, 4/4, 16ths, 32 bars, fill 8:3, fill 16:3', 'n'),
    cueOf('March, 112, 4/4, 16 bars, fill 16:3', 'm'),
  ];
  const show = showOf(cues);
  const sticking = ['R l R l R l R l', 'R r L l R r L l', 'R l l R l l R l', 'K R l l K R l l'];
  const speeds = [130, 105, 95, 80];
  const phrases = sticking.map((text, i) => phrase(`p${i}`, typed(text), known(speeds[i] ?? 90, 6)));
  const scene = { kit: USUAL_KIT, today: TODAY, patternOf: () => null };

  it('is filled by what is surest, each at most so often and no neighbours alike', () => {
    const all = choicesOf(show, phrases, scene);
    expect(all.map((c) => c.fits.map((f) => f.phrase)[0])).toEqual(['p0', 'p0', 'p0']);
    const filled = filledShow(show, all, phrases);
    expect(filled.exact).toBe(true);
    const names = filled.choices.map((c) => c.phrase);
    expect(names[0] === names[1] || names[1] === names[2]).toBe(false);
    expect(names[2]).toBe('p0');
    expect(filled.choices[1]?.words).toMatch(/is surer \(.*\), but too like its neighbour\./);
    const after = withChoices(show, filled);
    expect(after.cues.flatMap((c) => c.spots.map((s) => s.phrase))).toEqual(names);
  });

  it('what was chosen by hand stands, and a showpiece comes once', () => {
    const pinned = showOf([
      { ...cues[0]!, spots: [{ ...cues[0]!.spots[0]!, phrase: 'p3', pinned: true }, cues[0]!.spots[1]!] },
      cues[1]!,
    ]);
    const once = phrases.map((p) => (p.id === 'p0' ? { ...p, tags: ['showpiece'] } : p));
    const filled = filledShow(pinned, choicesOf(pinned, once, scene), once);
    expect(filled.choices[0]).toMatchObject({ phrase: 'p3', words: 'You chose it.' });
    expect(filled.choices.filter((c) => c.phrase === 'p0')).toHaveLength(1);
  });

  it('a spot nothing fits says why', () => {
    const odd = showOf([cueOf('Storm, 104, 7/8, 8 bars, fill 8', 'o')]);
    const filled = filledShow(odd, choicesOf(odd, phrases, scene), phrases);
    expect(filled.choices[0]).toMatchObject({ phrase: null, words: 'Nothing fits: 4 have another meter.' });
  });

  it('says how ready it is, with and without the minutes there are', () => {
    const filled = withChoices(show, filledShow(show, choicesOf(show, phrases, scene), phrases));
    const by = new Map(phrases.map((p) => [p.id, p]));
    const ready = readinessOf(filled, (id) => by.get(id) ?? null, { today: TODAY, aDay: 10 });
    expect([ready.left, ready.have, ready.open]).toEqual([14, 140, 0]);
    for (const s of ready.spots) {
      const own = by.get(s.phrase ?? '')!;
      const tempo = filled.cues.find((c) => c.id === s.cue)!.tempo;
      const when = { today: TODAY, night: TODAY + 14 };
      expect(s.chance).toBe(chanceOn(own, tempo, when, 0));
      expect(s.after ?? 0).toBeGreaterThanOrEqual(s.chance ?? 0);
      // Nobody gets more than all the minutes.
      expect(s.after ?? 0).toBeLessThanOrEqual(chanceOn(own, tempo, when, 140) + 1e-12);
      expect(s.minutes).toBe(minutesTo(own, tempo, when));
    }
    expect(ready.safe).toBe(ready.spots.filter((s) => (s.chance ?? 0) >= SAFE).length);
    expect(readinessOf(filled, () => null, { today: TODAY, aDay: 10 }).open).toBe(3);
    expect(
      readinessOf({ ...filled, day: TODAY - 3 }, (id) => by.get(id) ?? null, { today: TODAY, aDay: 10 }),
    ).toMatchObject({ left: -3, have: 0 });
  });

  it('wants of each phrase its cue’s tempo by its day; of two nights the first it is not ready for', () => {
    const filled = withChoices(show, filledShow(show, choicesOf(show, phrases, scene), phrases));
    const later = showOf([{ ...cueOf('Encore, 140, 4/4, 8 bars, fill 8:3', 'e') }], { id: 't', day: TODAY + 40 });
    const second = {
      ...later,
      cues: later.cues.map((c) => ({ ...c, spots: c.spots.map((s) => ({ ...s, phrase: 'p0' })) })),
    };
    const wants = wantsOf(
      [second, filled, { ...filled, id: 'gone', day: TODAY - 1 }, { ...filled, id: 'off', dropped: true }],
      TODAY,
    );
    const own = wants.get('p0') ?? [];
    expect(own.map((w) => w.day)).toEqual([...own.map((w) => w.day)].sort((a, b) => a - b));
    expect(own.at(-1)).toEqual({ tempo: 140, day: TODAY + 40, show: 'The Salt Lantern' });
    const mine = { goal: 100, by: null };
    // Ready for the first night, not for the second: that one is worked for.
    expect(goalUnder(mine, own, (tempo) => (tempo <= 112 ? 0.9 : 0.2))).toEqual({
      goal: 140,
      by: { day: TODAY + 40, what: 'night' },
    });
    expect(goalUnder(mine, own, () => 0.2).by?.day).toBe(TODAY + 14);
    expect(goalUnder(mine, own, () => 0.99).goal).toBe(140);
    expect(goalUnder(mine, [], () => 0)).toBe(mine);
    const lesson = { goal: 150, by: { day: TODAY + 2, what: 'lesson' as const } };
    expect(goalUnder(lesson, own, () => 0.2)).toBe(lesson);
  });
});

describe('sixty days to a show', () => {
  const total = (of: ShowTerm, seeds: number, way: ShowWay): number =>
    Array.from({ length: seeds }, (_, i) => showTerm(i + 1, of, way)).reduce((a, b) => a + b, 0);

  it('a fifth more spots are ready by the show than by the worst first, or the shelf in order', () => {
    const hard = { phrases: 40, spots: 24, minutes: 20, slowest: 0.9 };
    const own = total(hard, 3, 'by the show');
    expect(own / total(hard, 3, 'in order')).toBeGreaterThan(1.2);
    expect(own / total(hard, 3, 'worst first')).toBeGreaterThan(1.2);
  });
  it('of an easy one it is no fewer', () => {
    const easy = { phrases: 24, spots: 12, minutes: 20, slowest: 0.75 };
    expect(total(easy, 3, 'by the show')).toBeGreaterThanOrEqual(total(easy, 3, 'in order'));
  });
});

describe('a spot that asks for a phrase', () => {
  it.each([
    'Nets, 88, 4/4, 16ths, 32 bars, fill 8:3 hits 4& lands crash',
    'Storm, 104, 7/8, 24 bars, fill 7:4-8:2 leave 5',
    'Waltz, 96, 6/8, 48 bars, fill 8:1',
    'Odd, 90, 11/16, 8 bars, fill 8:2-9',
    'Half, 100, 4/4, triplets, 8 bars, fill 8:1-2',
  ])('%s: what is composed for it stands in it', (line) => {
    const cue = cueOf(line);
    const spot = cue.spots[0]!;
    const demands = demandsOfSpot(spot, cue);
    expect(demands).not.toBeNull();
    const { asked, wrong } = demanded(
      { ...USUAL_DEMANDS, blocks: ['singles', 'kicks'], ...demands },
      { phrase: null, cells: [], kit: USUAL_KIT, schools: USUAL_SCHOOLS },
    );
    expect(wrong).toEqual([]);
    expect(asked.slots * asked.grid).toBe(spot.length);
    const { answers } = compose(
      { ...asked, tempo: null, many: 3, apart: 1 },
      { kit: USUAL_KIT, profile: USUAL_PROFILE, shelf: [] },
    );
    expect(answers.length).toBeGreaterThan(0);
    for (const answer of answers) {
      const { pattern } = build(answer.recipe);
      const fit = fitOf(spot, cue, { facts: factsOf(pattern), family: 'fill' }, USUAL_KIT);
      expect(fit.fits).toBe(true);
      if (fit.fits) expect(meetsCounts(pattern, spot, fit.way)).toBe(true);
    }
  });
});

describe('a cue that is run through', () => {
  const groove = typed('R+K R R+L R '.repeat(2), meter(4, 4), GRID.eighths);
  const fill = typed('R l R l R l R l');
  const cue = cueOf('Nets, 88, 4/4, 4½ bars, fill 2:3, fill 4');
  const played = cuePattern(cue, groove, (spot) =>
    spot.from > 0 ? { pattern: fill, way: { kind: 'moved', to: '3' } } : null,
  );

  it('keeps time but where a spot is, and leaves an open spot open', () => {
    expect(played.pattern.length).toBe(cueTicks(cue));
    expect(played.pattern.length).toBe(4.5 * 20_160);
    const at = (from: number, until: number): number =>
      played.pattern.strokes.filter((s) => s.at >= from && s.at < until).length;
    const bar = 20_160;
    expect(at(0, bar)).toBe(12);
    expect(at(bar, 1.5 * bar)).toBe(6);
    expect(at(1.5 * bar, 2 * bar)).toBe(8);
    expect(at(3 * bar, 4 * bar)).toBe(0);
    expect(at(4 * bar, 4.5 * bar)).toBe(6);
    expect(played.spots.map((s) => [s.from / bar, s.until / bar])).toEqual([
      [1.5, 2],
      [3, 4],
    ]);
  });

  it('leaves the 1 to a landing', () => {
    const landing: Pattern = {
      ...fill,
      length: ticks(fill.length + 5040),
      strokes: [
        ...fill.strokes,
        {
          ...asTyped(fill.strokes[0]!),
          limb: 'R',
          level: 'accent',
          at: ticks(fill.length),
          voice: 'crash-right',
          from: fill.strokes[0]!.from,
        },
      ],
      groups: [...fill.groups, { at: ticks(fill.length), length: ticks(5040), repeat: 0, kind: 'land' }],
    };
    const own = cuePattern(cue, groove, (spot) =>
      spot.from > 0 ? { pattern: landing, way: { kind: 'moved', to: '3' } } : null,
    );
    expect(own.pattern.strokes.filter((s) => s.at === 2 * 20_160).map((s) => s.voice)).toEqual(['crash-right']);
  });

  it('of spots that overlap or lie behind the end nothing is played', () => {
    const wrong: Cue = {
      ...cue,
      bars: 2,
      spots: [...cue.spots, { ...cue.spots[0]!, id: 'x', from: 5040, length: 10_080 }],
    };
    expect(goodSpots(wrong).map((s) => s.id)).toEqual(['x']);
    expect(spotSpan(goodSpots(wrong)[0]!, wrong)).toEqual({ from: 25_200, until: 35_280 });
  });

  it('the spot is told a bar ahead, while it goes on, and not behind it', () => {
    const spots = played.spots;
    const bar = 20_160;
    expect(nextSpot(spots, 0.4 * bar, bar)).toBeNull();
    expect(nextSpot(spots, 0.5 * bar, bar)?.spot.bar).toBe(2);
    expect(nextSpot(spots, 1.9 * bar, bar)?.spot.bar).toBe(2);
    expect(nextSpot(spots, 2 * bar, bar)?.spot.bar).toBe(4);
    expect(nextSpot(spots, 4 * bar, bar)).toBeNull();
  });
});

describe('a run-through', () => {
  it('goes through all cues, stops and goes on anywhere, and never gets lost', () => {
    const roll = dice(9);
    const kinds: readonly RunEvent[] = [{ kind: 'go' }, { kind: 'counted-in' }, { kind: 'ended' }, { kind: 'stop' }];
    for (let n = 0; n < 200; n++) {
      const cues = Math.floor(roll() * 4);
      let run: Run = newRun({ cues: Array.from({ length: cues }) as never });
      for (let i = 0; i < 60; i++) {
        const event: RunEvent =
          roll() < 0.2 ? { kind: 'to', cue: Math.floor(roll() * 6) - 1 } : kinds[Math.floor(roll() * 4)]!;
        run = runStep(run, event, cues);
        expect(cues === 0 ? run.phase : 'over').toBe('over');
        expect(run.cue >= 0 && run.cue < Math.max(1, cues)).toBe(true);
        expect(new Set(run.played).size).toBe(run.played.length);
      }
    }
    let run = newRun({ cues: [1, 2] as never });
    for (const kind of ['go', 'counted-in', 'ended', 'go', 'counted-in', 'ended'] as const)
      run = runStep(run, { kind }, 2);
    expect(run).toEqual({ cue: 1, phase: 'over', played: [0, 1] });
    expect(runStep(run, { kind: 'go' }, 2)).toMatchObject({ cue: 0, phase: 'count-in' });
  });
});
