import fc from 'fast-check';
import { chooses } from '../selection';
import { METERS } from '../testing/arbitraries';
import { barTicks, beatTicks, gridsOf, meter, meterText, ticks, type Meter } from '../time';
import { VOICE, type Stroke } from '../stroke';
import type { Pattern } from '../pattern';
import { applyMove, build, type Recipe } from '../recipe';
import { KIT_PRESETS } from '../kit';
import {
  drillStep,
  drillTempo,
  loopsOfRung,
  newDrill,
  STAGE_KINDS,
  type DrillPlan,
  type DrillState,
  type Stage,
} from '../drill';
import { eventsIn } from '../playback';
import {
  drillSeconds,
  expectedIn,
  rendition,
  renditionOf,
  requestOf,
  silencesIn,
  type Rendition,
  type RenditionRecord,
} from '.';

/** As written, on a pad, without some drums, with two pedals. */
const KITS = [null, ...['pad', 'three', 'double'].map((id) => KIT_PRESETS.find((k) => k.id === id) ?? null)];

type Move = Recipe['moves'][number];
const land = (params: Extract<Move, { move: 'land' }>['params']): Move => ({ id: 'l', on: true, move: 'land', params });
const LANDINGS: readonly (Move | null)[] = [
  null,
  land({ voice: 'crash-right', hand: 'R', kick: true }),
  land({ voice: 'crash-left', hand: 'L', kick: true }),
  land({ voice: 'ride', hand: 'L', kick: false }),
  land({ hand: 'R', kick: true }),
  land({ hand: 'R', kick: false }),
];
const fit = (bars: number, start: string): Move => ({
  id: 'f',
  on: true,
  move: 'fit',
  params: { space: { bars }, start, mirrored: false, close: { kind: 'cut' } },
});
const recipe = (text: string, m: Meter, grid: number, moves: readonly (Move | null)[]): Recipe => ({
  source: { kind: 'typed', text, meter: meterText(m), grid },
  moves: moves.filter((x) => x !== null),
});
/** A groove of a bar: hats on the beats, kick on 1, snare on the last beat. */
const grooveIn = (m: Meter): Recipe => {
  const beats = barTicks(m) / beatTicks(m);
  const text = Array.from({ length: beats }, (_, i) => (i === 0 ? 'R+K' : i === beats - 1 ? 'R+L!' : 'R')).join(' ');
  const hats: Move = {
    id: 'h',
    on: true,
    move: 'voice',
    params: { select: chooses({ limbs: ['R'] }), voices: ['hat-closed'] },
  };
  return recipe(text, m, beatTicks(m), [hats]);
};
const stageOf = (kind: Stage['kind'], bars = 2): Stage => ({
  id: 's',
  kind,
  short: false,
  bars,
  from: 0,
  until: 5040,
});

/** A stroke by what can be compared: where, which limb, which voice. */
type Blow = `${number} ${string} ${string}`;
const listed = (blows: readonly Blow[]): string => [...blows].sort().join('\n');

/**
 * What is drawn, turn after turn, by a plain loop: the pattern goes round in its length, or in whole bars off the 1.
 */
function drawn({ pattern }: Rendition, turns: number): string {
  const bar = barTicks(pattern.meter);
  let round = pattern.length as number;
  if (pattern.start > 0) for (round = bar; round < pattern.start + pattern.length;) round += bar;
  const found: Blow[] = [];
  for (let turn = 0; turn < turns; turn++)
    for (const s of pattern.strokes) found.push(`${turn * round + pattern.start + s.at} ${s.limb} ${s.voice}`);
  return listed(found);
}
function sounding(r: Rendition, turns: number): string {
  const main = eventsIn(r.program, 0, turns * r.program.loop).filter((e) => e.limb !== null && e.offset === 0);
  return listed(main.map((e): Blow => `${e.at} ${e.limb ?? ''} ${e.sound}`));
}
function expected(r: Rendition, turns: number): string {
  const { bpm } = requestOf(r, 100);
  return listed(
    expectedIn(r, 100, 0, turns).map((e): Blow => `${Math.round((e.seconds * bpm * 5040) / 60)} ${e.limb} ${e.voice}`),
  );
}

describe('what sounds, what is expected and what is drawn', () => {
  it.each(STAGE_KINDS)('are one and the same in the stage “%s”: every landing, meter, groove and kit', (kind) => {
    let cases = 0;
    for (const m of METERS)
      for (const landing of LANDINGS) {
        const [grid] = gridsOf(m).filter((g) => g <= 1260);
        const phrase = build(recipe('R! l fL K R J', m, grid ?? 1260, [fit(1, '2'), landing])).pattern;
        for (const groove of [null, grooveIn(m)])
          for (const kit of KITS) {
            const r = rendition({
              phrase,
              kit,
              stage: stageOf(kind),
              groove: groove ? build(groove).pattern : null,
              counts: 'tones',
            });
            const meant = drawn(r, 3);
            // Where it is said, every other turn is the player's, and nothing is struck.
            if (kind !== 'say') expect(sounding(r, 3)).toBe(meant);
            // Free play has open bars: nothing is expected at all.
            expect(expected(r, 3)).toBe(kind === 'say' || kind === 'free' ? '' : meant);
            expect(r.open).toBe(kind === 'free');
            cases++;
          }
      }
    expect(cases).toBe(METERS.length * LANDINGS.length * 2 * 4);
  });
  it('is said turn by turn: one is counted and played as it is, in the next only the click goes on', () => {
    for (const m of METERS)
      for (const text of ['R! l K fL R', 'R L']) {
        const [grid] = gridsOf(m).filter((g) => g <= 1260);
        const phrase = build(recipe(text, m, grid ?? 1260, [])).pattern;
        for (const counts of ['spoken', 'sung', null] as const) {
          const r = rendition({ phrase, stage: stageOf('say'), counts });
          const whole = rendition({ phrase, counts: counts ?? 'spoken' });
          const { loop } = r.program;
          const of = (q: Rendition, turn: number, click: boolean) =>
            eventsIn(q.program, turn * loop, (turn + 1) * loop)
              .filter((e) => (e.part === 'click') === click)
              .map((e) => `${e.at} ${e.sound} ${e.velocity}`);
          expect(of(r, 0, false).length).toBeGreaterThan(0);
          for (let turn = 0; turn < 8; turn++) {
            expect(of(r, turn, true)).toEqual(of(whole, turn, true));
            expect(of(r, turn, false)).toEqual(turn % 2 === 0 ? of(whole, turn, false) : []);
          }
        }
      }
  });
  it('mutes and roles follow what is written: on a pad the hats are still what keeps time', () => {
    const phrase = build(grooveIn(meter(4, 4))).pattern;
    const pad = KIT_PRESETS[0];
    const parts = (r: Rendition): string[] =>
      eventsIn(r.program, 0, 20160).flatMap((e) => (e.limb ? [`${e.limb} ${e.part}`] : []));
    const all = rendition({ phrase, kit: pad });
    // A pad has no pedal: the kick is left to the hi-hat foot.
    expect(new Set(all.pattern.strokes.map((s) => s.voice))).toEqual(new Set(['snare']));
    expect(parts(all).filter((p) => p === 'R timekeeping')).toHaveLength(4);
    expect(parts(all).filter((p) => p.endsWith('primary'))).toEqual(['L primary']);
    const without = rendition({ phrase, kit: pad, mute: { limbs: [], roles: ['timekeeping'] } });
    expect(without.pattern.strokes.map((s) => s.limb).join('')).toBe('L');
  });
  it('is what a take wrote down, whatever has changed since', () => {
    const record: RenditionRecord = {
      recipe: recipe('R L R L', meter(4, 4), 1260, [
        fit(1, '3'),
        land({ voice: 'crash-right', hand: 'R', kick: true }),
      ]),
      stage: stageOf('context', 3),
      groove: grooveIn(meter(4, 4)),
      kit: KIT_PRESETS[1]!,
      dynamic: 'loud',
      click: 'two-and-four',
      gap: { sounding: 1, silent: 1 },
    };
    const kept = renditionOf(JSON.parse(JSON.stringify(record)) as RenditionRecord);
    const { recipe: own, groove, ...rest } = record;
    const played = rendition({ ...rest, phrase: build(own).pattern, groove: groove && build(groove).pattern });
    expect(kept).toEqual(played);
    expect(silencesIn(kept, 120, 1)).toEqual([
      { from: 2, until: 4 },
      { from: 6, until: 8 },
    ]);
  });
});

/** A phrase that begins `from` slots into a bar and is `long` slots long, every slot struck. */
const filled = (m: Meter, grid: number, from: number, long: number, landing: Move | null): Pattern => {
  const text = Array.from({ length: long }, (_, i) => (i % 2 === 0 ? 'R' : 'L')).join(' ');
  const cell = { ...build(recipe(text, m, grid, [])).pattern, start: ticks(from * grid) };
  return landing?.on ? applyMove(cell, landing, () => cell).pattern : cell;
};
const isCrash = (s: Stroke): boolean => s.voice.startsWith('crash');

describe('a phrase in time', () => {
  const anyCase = fc.record({
    m: fc.constantFrom(...METERS),
    bars: fc.integer({ min: 1, max: 4 }),
    from: fc.nat(12),
    long: fc.integer({ min: 1, max: 40 }),
    landing: fc.constantFrom(...LANDINGS),
    ownGroove: fc.boolean(),
  });
  it('is bars of time, the phrase on its count, and the landing on the 1 of the time that goes on', () => {
    fc.assert(
      fc.property(anyCase, ({ m, bars, from, long, landing, ownGroove }) => {
        const grid = beatTicks(m) / 2;
        const bar = barTicks(m);
        const phrase = filled(m, grid, from % (bar / grid), long, landing);
        const groove = ownGroove ? build(grooveIn(m)).pattern : null;
        const { pattern } = rendition({ phrase, stage: stageOf('context', bars), groove });
        const struck = phrase.strokes.filter((s) => s.from.move !== 'l');
        const end = Math.max(...struck.map((s) => phrase.start + s.at)) + 1;
        let span = 1;
        while (span * bar < end) span++;
        // No bar more than the time and the phrase need, and none of them silent.
        expect(pattern.length).toBe((bars + span) * bar);
        for (let b = 0; b < bars + span; b++)
          expect(pattern.strokes.some((s) => s.at >= b * bar && s.at < (b + 1) * bar)).toBe(true);
        // The phrase stands where it was, after the time.
        const all = new Set(pattern.strokes.map((s) => JSON.stringify(s)));
        const meant = struck.map((s) => JSON.stringify({ ...s, at: phrase.start + s.at + bars * bar }));
        expect(meant.every((s) => all.has(s))).toBe(true);
        // It lands on the 1, with what it says, and nowhere else.
        const wanted = landing?.move === 'land' ? landing.params : { voice: 'crash-right', hand: 'R', kick: true };
        const one = pattern.strokes.filter((s) => s.at === 0);
        if (wanted.voice) expect(one.filter((s) => s.voice === wanted.voice && s.limb === wanted.hand)).toHaveLength(1);
        if (wanted.kick) expect(one.some((s) => s.limb === 'K')).toBe(true);
        expect(pattern.strokes.filter(isCrash)).toHaveLength(wanted.voice?.startsWith('crash') ? 1 : 0);
        // One hand on a cymbal is enough.
        expect(one.filter((s) => VOICE[s.voice].family === 'metal').length).toBeLessThanOrEqual(1);
      }),
      { numRuns: 400 },
    );
  });
  it('begins on every beat of the bar, a bar later each time', () => {
    for (const m of METERS) {
      const grid = beatTicks(m) / 2;
      const phrase = filled(m, grid, 0, 2, null);
      const bar = barTicks(m);
      const beats = bar / beatTicks(m);
      const { pattern } = rendition({ phrase, stage: stageOf('every-beat') });
      if (beats === 1) continue;
      for (let b = 0; b < beats; b++)
        for (const s of phrase.strokes)
          expect(pattern.strokes).toContainEqual({ ...s, at: b * bar + b * beatTicks(m) + s.at });
      expect(pattern.length).toBe(beats * bar);
    }
  });
});

describe('how long a drill takes', () => {
  /** A drill played on a clock of its own, every rung passing at once: seconds are counted click by click. */
  function played(plan: DrillPlan, phrase: Pattern): number {
    const secondsOf = (r: Rendition, from: number, until: number, bpm: number): number => {
      const slow = requestOf(r, bpm).bpm;
      let seconds = 0;
      for (let t = from; t < until; t += 315) seconds += (Math.min(315, until - t) * 60) / (5040 * slow);
      return seconds;
    };
    let state: DrillState = drillStep(newDrill('d', 'p', plan), { kind: 'start', at: 0 });
    let clock = 0;
    for (let guard = 0; state.phase !== 'done' && guard < 5000; guard++) {
      const at = Math.round(clock * 1000);
      const stage = state.plan.stages?.[state.stage ?? 0] ?? null;
      const r = rendition({ phrase, stage, countInBars: 1 });
      const bpm = drillTempo(state);
      if (state.phase === 'ready') state = drillStep(state, { kind: 'start', at });
      else if (state.phase === 'count-in') {
        clock += secondsOf(r, -r.program.countIn, 0, bpm);
        state = drillStep(state, { kind: 'counted-in', at });
      } else if (state.phase === 'playing') {
        clock += secondsOf(r, 0, r.program.loop, bpm);
        const need = loopsOfRung(plan, phrase.meter, r.program.loop, bpm);
        state = drillStep(state, { kind: 'loop', id: 't', at, need });
      } else state = drillStep(state, { kind: 'clean', id: 't', at });
    }
    return clock;
  }
  const stages: Stage[] = [
    { ...stageOf('bare'), id: 'a', short: true },
    { ...stageOf('part'), id: 'b', short: true },
    { ...stageOf('context', 3), id: 'c' },
  ];
  it.each([
    ['loops', {}],
    ['bars', { hold: { kind: 'bars', n: 8 } }],
    ['minutes', { hold: { kind: 'minutes', n: 0.5 } }],
    ['passes', { passes: true }],
    ['typed tempos', { rungs: [60, 117, 90, 150, 235] }],
    ['stages', { stages }],
    ['stages by bars, with passes', { stages, passes: true, hold: { kind: 'bars', n: 4 } }],
    ['stages by minutes', { stages, hold: { kind: 'minutes', n: 1 } }],
  ] as readonly [string, Partial<DrillPlan>][])('held by %s: within a tenth of what is played', (_, part) => {
    for (const m of METERS) {
      const plan: DrillPlan = { start: 60, goal: 120, step: 10, loops: 4, ...part };
      const phrase = filled(m, beatTicks(m) / 2, 0, 3, null);
      const told = drillSeconds(plan, m, (stage) => rendition({ phrase, stage: stage ?? null }).program.loop, 1);
      const found = played(plan, phrase);
      expect(told / found).toBeGreaterThan(0.9);
      expect(told / found).toBeLessThan(1.1);
    }
  });
});
