import { TestBed } from '@angular/core/testing';
import { practiceDays, breaksOf, failsByTempo, limbsByDay } from '@core/log';
import { practised, projected, type PractisedDay } from '@core/player';
import type { Attempt } from '@core/drill';
import { avoidedChart, breaksChart, failsChart, limbsChart, loadChart, minutesChart } from './bars';
import { svgText } from '../../../widgets/save-svg';
import { ChartComponent } from './chart.component';
import { MARGIN, type ChartModel } from './model';
import { tempoChart } from './tempo';

const TODAY = 20_784;
const DAY = 864e5;
const dayOf = (at: number): number => Math.floor(at / DAY);

/** So many tries, some a day, ending yesterday. */
function tries(many: number, aDay = 8): Attempt[] {
  const days = Math.ceil(many / aDay);
  return Array.from({ length: many }, (_, i) => ({
    id: String(i),
    phrase: 'a',
    at: (TODAY - days + Math.floor(i / aDay)) * DAY + (i % aDay) * 60_000,
    bpm: 70 + ((i * 7) % 40),
    goal: 110,
    loops: 4,
    seconds: 20,
    verdict: i % 3 === 0 ? 'messy' : 'clean',
    measured: {
      mean: 2,
      spread: 8,
      missed: 0,
      extra: 0,
      strokes: 16,
      drift: 0,
      limbs: [
        { limb: 'R', mean: (i % 5) - 2, spread: 6 },
        { limb: 'L', mean: (i % 7) + 4, spread: 7 },
      ],
      ...(i % 3 === 0 && { finding: { kind: 'limb' as const, limb: 'L' as const, off: 18, stroke: null } }),
    },
  }));
}

/** Every chart of so many tries. */
function charts(many: number, aDay?: number): Readonly<Record<string, (width: number) => ChartModel>> {
  const all = tries(many, aDay);
  const found = practised(all, 150, TODAY, dayOf);
  const days: readonly PractisedDay[] = found?.days ?? [];
  const projection = found ? projected(found.known.belief, days, 110, TODAY) : null;
  const back = practiceDays([{ family: 'fill', hands: { R: 2, L: 2 }, days }]);
  const planned = new Map(many > 0 ? [[TODAY - 1, 35]] : []);
  const readings = Array.from({ length: Math.min(16, many) }, () => ({
    strokes: 64,
    byPlace: Array.from({ length: 16 }, (_, index) => ({ index, missed: index % 3, mean: index, spread: 5, many: 4 })),
  }));
  const avoided = Array.from({ length: Math.min(many, 60) }, (_, i) => ({
    id: `p${i}`,
    name: `A phrase with a long name, number ${i}`,
    days: 8 + i,
    sure: 0.9,
    night: i % 2 === 0 ? 5 : null,
  }));
  return {
    tempo: (w) =>
      tempoChart(
        { days, goal: 110, by: { day: TODAY + 6, what: 'night' }, projection, today: TODAY, ceiling: null },
        w,
      ),
    minutes: (w) => minutesChart(back, { planned, free: planned }, TODAY, w),
    load: (w) => loadChart(back, TODAY, w),
    limbs: (w) => limbsChart(limbsByDay(all, dayOf), w),
    fails: (w) => failsChart(failsByTempo(all), w),
    breaks: (w) =>
      breaksChart(
        breaksOf(readings, 16, 8),
        Array.from({ length: 16 }, (_, i) => ({ long: `R on ${i + 1}`, short: `R ${i + 1}` })),
        w,
      ),
    avoided: (w) => avoidedChart(avoided, w),
  };
}

/** What is wrong in a chart; collected, as a matcher for each of so many marks takes longer than all else. */
function isWell(m: ChartModel): void {
  const wrong: string[] = [];
  const inside = (x: number, y: number, what: string): void => {
    const isIn = x >= 0 && x <= m.width && y >= 0 && y <= m.height;
    if (!isIn) wrong.push(`${what} at ${x}, ${y}`);
  };
  const bad = /NaN|undefined|Infinity/;
  for (const mark of m.marks) {
    inside(mark.x, mark.y, 'mark');
    if (!/\d/.test(mark.words) || bad.test(mark.words)) wrong.push(`mark says “${mark.words}”`);
    if (mark.as === 'bar' && !((mark.height ?? -1) >= 0)) wrong.push(`bar of ${mark.height}`);
  }
  for (const { path } of [...m.lines, ...m.areas]) if (bad.test(path)) wrong.push(`path ${path.slice(0, 60)}`);
  for (const r of m.rules) inside(r.x1, r.y1, 'rule');
  for (const t of m.xTicks) inside(t.x, 0, 'tick');
  for (const t of m.yTicks) inside(0, t.y, 'tick');
  if (m.marks.some((p, i) => p.x < (m.marks[i - 1]?.x ?? p.x))) wrong.push('marks out of order');
  if (new Set(m.keys.map((k) => k.text)).size !== m.keys.length) wrong.push('two keys say the same');
  if (!m.xName || !m.yName) wrong.push('an axis without a name');
  expect(wrong).toEqual([]);
}

describe.each([
  [0, 8],
  [1, 8],
  [40, 8],
  [20_000, 8],
])('of %i tries', (many, aDay) => {
  const all = charts(many, aDay);
  it.each(Object.keys(all))(
    'the chart “%s” lies within its frame, from narrow to wide, and reads every value',
    (name) => {
      for (const width of [280, 640, 1180]) isWell(all[name]!(width));
    },
  );
});

describe('a chart', () => {
  const at = (m: ChartModel, words: RegExp) => m.marks.find((p) => words.test(p.words))!;
  it('of tempos has each day where its tempo is, the goal and the night as lines', () => {
    const [a, b] = [tries(1)[0]!, tries(1)[0]!];
    const before = [6, 5].flatMap((ago) =>
      Array.from({ length: 3 }, (_, i): Attempt => ({
        ...a,
        id: `${ago} ${i}`,
        verdict: 'clean',
        bpm: 78,
        at: (TODAY - ago) * DAY,
      })),
    );
    const two: Attempt[] = [
      ...before,
      { ...a, verdict: 'clean', bpm: 80, at: (TODAY - 4) * DAY },
      { ...b, id: 'b', verdict: 'messy', bpm: 90, at: (TODAY - 2) * DAY },
    ];
    const days = practised(two, 150, TODAY, dayOf)!.days;
    const m = tempoChart(
      { days, goal: 100, by: { day: TODAY + 6, what: 'night' }, projection: null, today: TODAY, ceiling: null },
      800,
    );
    const clean = at(m, /80 bpm clean/);
    const messy = at(m, /90 bpm tried, messy/);
    expect([clean.as, messy.as]).toEqual(['disc', 'ring']);
    const goal = m.rules.find((r) => r.text === 'goal 100')!;
    // Ten beats lie as far apart wherever they are.
    expect(messy.y - goal.y1).toBeCloseTo(clean.y - messy.y, 6);
    const night = m.rules.find((r) => r.text === 'show')!;
    expect((night.x1 - messy.x) / (messy.x - clean.x)).toBeCloseTo(4, 6);
    expect(clean.words).toMatch(/^23 Nov: 80 bpm clean, ready \d+ \(\d+ to \d+\)$/);
  });
  it('of minutes stacks families to the sum of the day', () => {
    const day = { day: TODAY, seconds: 600, beats: 100 };
    const m = minutesChart(
      practiceDays([
        { family: 'fill', hands: { R: 1, L: 1 }, days: [day] },
        { family: 'groove', hands: { R: 1, L: 1 }, days: [{ ...day, seconds: 300 }] },
      ]),
      { planned: new Map([[TODAY, 15]]), free: new Map([[TODAY, 4]]) },
      TODAY,
      700,
    );
    const [fill, groove] = [at(m, /min of fills/), at(m, /min of grooves/)];
    expect(fill.height! / groove.height!).toBeCloseTo(2, 6);
    expect(groove.y + groove.height!).toBeCloseTo(fill.y, 6);
    // What was planned is what was played: the ring sits on top.
    expect(at(m, /15 min planned/).y).toBeCloseTo(groove.y, 6);
    // And what was played freely stands on it.
    const freely = at(m, /4 min free play/);
    expect(freely.y + freely.height!).toBeCloseTo(groove.y, 6);
  });
  it('of breaks shows how far strokes lie off where none was left out', () => {
    const sum = (missed: number, late: number | null) => ({ wanted: 4, missed, late });
    const names = [1, 2].map((n) => ({ long: `R on ${n}`, short: `R ${n}` }));
    const off = breaksChart(
      [
        { index: 0, now: sum(0, 12), before: null },
        { index: 1, now: sum(0, null), before: sum(1, -4) },
      ],
      names,
      600,
    );
    const zero = off.rules[0]!.y1;
    expect(off.marks.map((p) => [p.as, p.y < zero])).toEqual([
      ['disc', true],
      ['ring', false],
    ]);
    const out = breaksChart([{ index: 0, now: sum(2, 12), before: null }], names.slice(0, 1), 600);
    expect(out.marks[0]).toMatchObject({ as: 'bar', tone: 'mark', words: 'R on 1: missed 2 of 4, 12 ms late' });
  });
  it('is read with the arrow keys and by pointing, and drawn as one where there is much', () => {
    const fixture = TestBed.createComponent(ChartComponent);
    fixture.componentRef.setInput('drawn', charts(40)['tempo']);
    fixture.componentRef.setInput('label', 'So it is.');
    fixture.detectChanges();
    const host = fixture.nativeElement as HTMLElement;
    const svg = host.querySelector('svg')!;
    const read = (): string => host.querySelector('.reading')?.textContent ?? '';
    const key = (k: string): void => {
      svg.dispatchEvent(new KeyboardEvent('keydown', { key: k, bubbles: true }));
      fixture.detectChanges();
    };
    expect(svg.getAttribute('aria-label')).toMatch(/^So it is\. \d+ values/);
    key('ArrowRight');
    const first = read();
    key('End');
    const last = read();
    key('Home');
    expect(read()).toBe(first);
    expect(last).not.toBe(first);
    const { marks } = fixture.componentInstance.model();
    svg.dispatchEvent(new MouseEvent('pointermove', { clientX: marks[2]!.x, clientY: marks[2]!.y }));
    fixture.detectChanges();
    expect(read()).toBe(marks[2]!.words);
    expect(svgText(host.querySelector('svg')!)).toContain('<svg');
    expect(host.querySelectorAll('circle.disc').length).toBeGreaterThan(2);
    fixture.componentRef.setInput('drawn', charts(20_000)['tempo']);
    fixture.detectChanges();
    expect(host.querySelectorAll('circle:not(.reads)').length).toBe(0);
    expect(host.querySelectorAll('path.disc').length).toBe(1);
    expect(MARGIN.left).toBeGreaterThan(0);
  });
});
