import { untilAsked } from '../../testing/shelf';
import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Subject } from 'rxjs';
import { build } from '@core/recipe';
import { LADDER_SCHOOLS, LADDER_WORDS, stageTitle } from '@core/drill';
import { expectedIn, rendition } from '@core/rendition';
import type { Hit } from '@core/take';
import { HealthService } from '../../storage/health.service';
import { LatencyRepo } from '../../storage/latency.repo';
import { MicLevelsRepo } from '../../storage/mic-levels.repo';
import { PhrasesRepo } from '../../storage/phrases.repo';
import { MicrophoneSource } from '../../hits/microphone.source';
import { SimulatedSource } from '../../hits/simulated.source';
import { HitSources } from '../../hits/sources.service';
import type { HitSource } from '../../hits/source';
import { phraseOf, typed, until } from '../../testing/fixtures';
import { heard, mount } from '../../testing/mount';
import { emptyPlace } from '../../testing/place';
import { freshTestBed } from '../../testing/test-bed';
import { CalibrateComponent } from './calibrate.component';
import { DrillSetupComponent } from './drill-setup.component';
import { DrillStore } from './drill.store';
import { JudgedComponent } from './judged.component';
import { MicLevelsComponent } from './mic-levels.component';
import { PlanStore } from './plan.store';
import { PracticeGuard } from './practice.guard';
import { RoomSoundComponent } from './room-sound.component';
import { RoomChoices } from './room-choices.store';
import { SubjectStore } from './subject.store';
import { TakeRecorder } from '../../playing/take.recorder';
import { TryJudge } from './try.judge';

/** A source that is struck by the test. */
class HandSource implements HitSource {
  readonly kind = 'keys';
  readonly name = 'Keys';
  readonly hint = '';
  readonly hits = new Subject<Hit>();
  readonly hits$ = this.hits.asObservable();
  readonly troubleState = signal<string | null>(null);
  readonly trouble = this.troubleState.asReadonly();
  readonly news = signal<string | null>(null).asReadonly();
  can = true;
  stopped = 0;
  start(): Promise<boolean> {
    return Promise.resolve(this.can);
  }
  stop(): void {
    this.stopped++;
  }
  hit(seconds: number, part: Partial<Hit> = {}): void {
    this.hits.next({ seconds, limb: null, voice: null, velocity: null, ...part });
  }
}

const schools = { triplets: 'trip-let', sextuplets: 'trip-let' } as const;

describe('the recorder', () => {
  const phrase = rendition({ phrase: build(typed('R L R L R L R L R L R L R L R L')).pattern });
  async function recorder() {
    const place = await emptyPlace([TakeRecorder]);
    const source = new HandSource();
    const rec = TestBed.inject(TakeRecorder);
    place.transport.playing.set(true);
    await rec.listen(source);
    return { ...place, rec, source };
  }
  /**
   * Plays turns of the phrase, late by so many milliseconds at each stroke. The stand-in's clock has one second to a
   * quarter.
   */
  const play = (source: HandSource, turns: number, late: (i: number, seconds: number) => number): void =>
    expectedIn(phrase, 60, 0, turns).forEach((e, i) =>
      source.hit(e.seconds + late(i, e.seconds) / 1000, { limb: e.limb }),
    );

  it('lays hits on the phrase, with what the source is behind taken off', async () => {
    const { rec, source } = await recorder();
    await TestBed.inject(LatencyRepo).keep('keys', 0.03, 1);
    rec.begin(phrase, 60);
    play(source, 2, () => 34);
    const judged = rec.judge(0, 2, { strictness: 'usual', heights: null }, schools)!;
    expect(judged.reading.mean).toBeCloseTo(4, 3);
    expect(judged.verdict).toBe('clean');
    expect(judged.measured.strokes).toBe(32);
    expect(rec.loopClean(1, { strictness: 'usual', heights: null }, schools)).toBe(true);
    expect(new Set(rec.dots().map((d) => d.turn))).toEqual(new Set([0, 1]));
  });
  it('tells how the time held where the click was silent', async () => {
    const { rec, source } = await recorder();
    // One bar sounds, one is silent; a bar lasts four seconds.
    rec.begin({ ...phrase, gap: { sounding: 1, silent: 1 } }, 60);
    play(source, 4, (_, seconds) => (Math.floor(seconds / 4) % 2 === 1 ? 18 : 2));
    expect(rec.judge(0, 4, { strictness: 'usual', heights: null }, schools)!.reading.silence).toBeCloseTo(16, 3);
    rec.begin(phrase, 60);
    play(source, 4, () => 2);
    expect(rec.judge(0, 4, { strictness: 'usual', heights: null }, schools)!.reading.silence).toBeNull();
  });
  it('a source in trouble judges nothing; hits while nothing plays are none; stopping ends it', async () => {
    const { rec, source, transport } = await recorder();
    rec.begin(phrase, 60);
    transport.playing.set(false);
    play(source, 1, () => 0);
    expect(rec.dots()).toEqual([]);
    transport.playing.set(true);
    play(source, 1, () => 0);
    expect(rec.dots()).toHaveLength(16);
    source.troubleState.set('unplugged');
    expect(rec.judge(0, 1, { strictness: 'usual', heights: null }, schools)).toBeNull();
    expect(rec.loopClean(0, { strictness: 'usual', heights: null }, schools)).toBeNull();
    rec.stop();
    expect([rec.listening(), source.stopped]).toEqual([false, 1]);
    source.can = false;
    expect(await rec.listen(source)).toBe(false);
    expect(await rec.listen(null)).toBe(false);
  });
});

describe('calibration', () => {
  it('takes the middle of sixteen taps, remembers it with its time; too few store nothing', async () => {
    jest.useFakeTimers({ doNotFake: ['setImmediate', 'queueMicrotask', 'performance'] });
    try {
      const place = emptyPlace();
      await jest.advanceTimersByTimeAsync(100);
      const { transport } = await place;
      const latency = TestBed.inject(LatencyRepo);
      const source = new HandSource();
      const m = mount(CalibrateComponent, { source });
      expect(m.text()).toContain('Delay now: 0 ms');
      m.press('Begin');
      await jest.advanceTimersByTimeAsync(0);
      m.fixture.detectChanges();
      expect(transport.requests).toHaveLength(1);
      for (let beat = 0; beat < 16; beat++) source.hit(beat + 0.04);
      m.fixture.detectChanges();
      expect(m.text()).toContain('16 of 16');
      await jest.advanceTimersByTimeAsync(11_000);
      m.fixture.detectChanges();
      expect(m.text()).toContain('Keys: 40 ms delay');
      expect(latency.now()['keys']).toBeCloseTo(0.04, 9);
      expect(Date.now() - latency.at()['keys']!).toBeLessThan(2000);
      m.press('Again');
      await jest.advanceTimersByTimeAsync(0);
      source.hit(0);
      await jest.advanceTimersByTimeAsync(11_000);
      m.fixture.detectChanges();
      expect(m.text()).toContain('The old delay stays.');
      expect(latency.now()['keys']).toBeCloseTo(0.04, 9);
      source.can = false;
      m.press('Begin');
      await jest.advanceTimersByTimeAsync(0);
      m.fixture.detectChanges();
      expect(m.text()).toContain('cannot be heard now');
    } finally {
      jest.useRealTimers();
    }
  });
});

describe('the microphone’s levels', () => {
  async function levels(room = 0.004) {
    const peaks$ = new Subject<number>();
    const microphone = {
      peaks$,
      level: signal(0.01),
      bright: signal(room),
      trouble: signal<string | null>(null),
      start: () => Promise.resolve(true),
    };
    await emptyPlace([{ provide: MicrophoneSource, useValue: microphone }]);
    const repo = TestBed.inject(MicLevelsRepo);
    const m = mount(MicLevelsComponent);
    m.press('Set the levels');
    await until(() => m.component.step() === 'room');
    m.fixture.detectChanges();
    expect(m.text()).toContain('Be quiet for a moment');
    await until(() => m.component.step() === 'soft');
    const hit = (...all: number[]): void => {
      all.forEach((p) => peaks$.next(p));
      m.fixture.detectChanges();
    };
    return { repo, m, hit, before: repo.now() };
  }
  it('soft, then hard: the threshold lies under the soft ones, and both are remembered', async () => {
    const { repo, m, hit } = await levels();
    hit(0.05, 0.06);
    expect(m.text()).toContain('2 of 4');
    hit(0.055, 0.05);
    expect(m.text()).toContain('as hard as you play');
    hit(0.8, 0.7, 0.9, 0.75);
    expect(m.text()).toContain('The levels are set.');
    expect(repo.now().threshold).toBeLessThan(0.05);
    expect(repo.now().loudest).toBeGreaterThan(0.6);
  });
  it('soft and hard too alike leave the levels as they were', async () => {
    const { repo, m, hit } = await levels();
    const before = { ...repo.now() };
    hit(0.5, 0.5, 0.5, 0.5, 0.5, 0.5, 0.5, 0.5);
    expect(m.text()).toContain('too alike');
    expect(repo.now().threshold).not.toBe(before.loudest);
    expect(repo.now().threshold).toBeGreaterThan(0.012);
  });
  it('an input that is 30 dB lower is set as well', async () => {
    const { repo, m, hit } = await levels(0.0001);
    hit(0.002, 0.0021, 0.0019, 0.002, 0.025, 0.03, 0.028, 0.027);
    expect(m.text()).toContain('The levels are set.');
    expect(repo.now()).toEqual({ threshold: expect.closeTo(0.0009, 3) as number, loudest: 0.03 });
  });
  it('a room as loud as the soft hits is told with what was heard of both', async () => {
    const { m, hit, repo, before } = await levels(0.04);
    hit(0.05, 0.05, 0.05, 0.05, 0.4, 0.4, 0.4, 0.4);
    expect(m.text()).toContain('hardly louder than the room (5% and 4%)');
    await until(() => repo.now().loudest === before.loudest);
  });
});

describe('the guard of the room', () => {
  it('calls a break to mind after 25 minutes, between rungs and once; a real break starts anew', () => {
    jest.useFakeTimers();
    try {
      const guard = TestBed.inject(PracticeGuard);
      const minutes = (n: number) => jest.advanceTimersByTime(n * 60_000);
      guard.playing(true);
      minutes(26);
      expect(guard.note()).toBeNull();
      guard.playing(false);
      expect(guard.note()).toContain('25 minutes');
      guard.dismiss();
      guard.playing(true);
      minutes(30);
      guard.playing(false);
      expect(guard.note()).toBeNull();
      minutes(5);
      guard.playing(true);
      minutes(26);
      guard.playing(false);
      expect(guard.note()).toContain('25 minutes');
    } finally {
      jest.useRealTimers();
    }
  });
  it('keeps the screen awake while it plays, and again when a page that was hidden is seen', async () => {
    const requests: string[] = [];
    let released = 0;
    const wakeLock = {
      request: (kind: string) => {
        requests.push(kind);
        return Promise.resolve({ release: () => Promise.resolve(released++) });
      },
    };
    Object.defineProperty(navigator, 'wakeLock', { value: wakeLock, configurable: true });
    const guard = TestBed.inject(PracticeGuard);
    guard.playing(true);
    await Promise.resolve();
    const see = (state: string): void => {
      Object.defineProperty(document, 'visibilityState', { value: state, configurable: true });
      document.dispatchEvent(new Event('visibilitychange'));
    };
    see('hidden');
    see('visible');
    await new Promise((r) => setTimeout(r));
    expect(requests).toEqual(['screen', 'screen']);
    guard.playing(false);
    expect(released).toBe(1);
    see('hidden');
    see('visible');
    expect(requests).toHaveLength(2);
    Reflect.deleteProperty(navigator, 'wakeLock');
    Reflect.deleteProperty(document, 'visibilityState');
  });
});

describe('the set-up of a drill', () => {
  async function setup(text = '(R! l l R K)x3') {
    const place = await emptyPlace([DrillStore, PlanStore, RoomChoices, SubjectStore, TakeRecorder, TryJudge]);
    const phrases = TestBed.inject(PhrasesRepo);
    await phrases.save(phraseOf('a', { goal: 100, recipe: typed(text) }));
    await phrases.save(
      phraseOf('g', { family: 'groove', name: 'Plain walk', recipe: typed('K - R - L! - R - K - R - L! - R -') }),
    );
    const store = TestBed.inject(DrillStore);
    await store.open('a');
    await until(() => TestBed.inject(SubjectStore).grooves().length === 1);
    const plans = TestBed.inject(PlanStore);
    const m = mount(DrillSetupComponent);
    return {
      ...place,
      store,
      choices: TestBed.inject(RoomChoices),
      m,
      plans,
      titles: () => plans.stages().map(stageTitle),
    };
  }
  it('proposes stages with reasons; they are left out, added, put in another order and proposed again', async () => {
    const { m, plans, titles } = await setup();
    const proposed = titles();
    expect(proposed.length).toBeGreaterThan(2);
    m.press(`Remove: ${proposed[0]}`);
    expect(titles()).toEqual(proposed.slice(1));
    m.choose('Add a stage', 'With a steady foot');
    expect(titles().at(-1)).toBe('With a steady foot');
    m.choose('Add a stage', 'Seven bars of groove, then the fill');
    expect(plans.stages().at(-1)).toMatchObject({ kind: 'context', bars: 7 });
    m.choose('Add a stage', 'Grow four at a time');
    expect(plans.stages()[0]?.kind).toBe('grow');
    const before = titles();
    plans.moveStage(0, 1);
    expect(titles().slice(0, 2)).toEqual([before[1], before[0]]);
    plans.moveStage(0, -1);
    expect(titles().slice(0, 2)).toEqual([before[1], before[0]]);
    m.press('Reset stages');
    expect(titles()).toEqual(proposed);
    m.press('Whole phrase only');
    expect(titles()).toEqual(['The whole phrase']);
    expect(m.button('Remove: The whole phrase').disabled).toBe(true);
  });
  it('holds by loops, bars or minutes, climbs by every school, and tells the plan', async () => {
    const { m, plans } = await setup();
    const told = heard(m.component.started);
    m.press('Whole phrase only');
    m.pick('Counted in', 'minutes');
    expect(plans.plan().hold).toEqual({ kind: 'minutes', n: 2 });
    m.fill('Loops a rung', '3');
    expect(plans.plan().hold).toEqual({ kind: 'minutes', n: 3 });
    m.pick('Counted in', 'clean loops');
    expect(plans.plan().hold).toBeUndefined();
    for (const school of LADDER_SCHOOLS) {
      m.pick('Kind of ladder', LADDER_WORDS[school].name);
      expect(plans.rungs().at(-1)).toBe(100);
    }
    m.fill('Goal tempo', '140');
    expect(plans.rungs().at(-1)).toBe(140);
    m.press('Start');
    expect(told).toHaveLength(1);
  });
  it('tempos can be typed freely, a few are offered, and what cannot be read is said and changes nothing', async () => {
    const { m, plans } = await setup();
    m.fill('Tempos', '60 117 150 235');
    expect(plans.rungs()).toEqual([60, 117, 150, 235]);
    expect(plans.plan()).toMatchObject({ start: 60, goal: 235, rungs: [60, 117, 150, 235] });
    m.fill('Tempos', '60 quick 90');
    expect(m.text()).toContain('quick');
    expect(plans.rungs()).toEqual([60, 117, 150, 235]);
    m.fill('Tempos', '60 117 150 235');
    expect(m.host.querySelector('ls-ladder-setup .wrong')).toBeNull();
    const offers = plans.offers();
    expect(offers.length).toBeGreaterThanOrEqual(1);
    expect(offers.length).toBeLessThanOrEqual(3);
    for (const { rungs } of offers) {
      expect([rungs[0], rungs.at(-1)]).toEqual([60, 235]);
      for (const [i, bpm] of rungs.slice(1).entries()) expect(bpm - rungs[i]!).toBeGreaterThan(1);
    }
    m.pick('Kind of ladder', LADDER_WORDS.steps.name);
    expect(plans.plan().rungs).toBeUndefined();
  });
  it('soft, medium and loud in turn, or one of them', async () => {
    const { choices, m, plans } = await setup();
    m.pick('Loudness', 'soft');
    expect([choices.dynamic(), plans.plan().passes]).toEqual(['soft', false]);
    m.pick('Loudness', 'each rung soft, medium, loud');
    expect(plans.plan().passes).toBe(true);
  });
  it('a groove of the shelf is chosen for what keeps time, and taken away again', async () => {
    const { m, plans } = await setup();
    const at = () => plans.stages().find((s) => s.kind === 'context');
    expect(at()).toBeDefined();
    m.pick('Groove', 'Plain walk');
    expect(at()?.groove).toBe('g');
    m.pick('Groove', 'plain groove');
    expect(at()).not.toHaveProperty('groove');
  });
  it('who judges: the simulated player shows its faults, nobody but it has no delay to calibrate', async () => {
    const { choices, m } = await setup();
    m.press('Simulated player');
    expect(choices.source()).toBe('simulated');
    expect(m.text()).toContain('A program plays');
    m.fill('Lateness of the simulated kick', '-20');
    m.fill('Spread of the simulated player', '12');
    expect(TestBed.inject(SimulatedSource).player()).toMatchObject({ spread: 12, weak: { limb: 'K', late: -20 } });
    expect(m.text()).not.toContain('Measure the delay');
    m.press('Computer keys');
    m.press('Measure the delay');
    expect(m.text()).toContain('tap along with 16 clicks');
    m.pick('How strict', 'strict');
    expect(choices.strictness()).toBe('strict');
    m.press('My ear');
    expect(choices.source()).toBeNull();
  });
  /** The room's choices of another day. */
  function anotherDay(): RoomChoices {
    freshTestBed();
    TestBed.configureTestingModule({ providers: [RoomChoices] });
    return TestBed.inject(RoomChoices);
  }
  it('remembers who judges, how strictly, and the click; a stand-in and a click that drops out are for today', async () => {
    const { choices, m } = await setup();
    mount(RoomSoundComponent, { levels: true }).pick('Click', '2 and 4');
    m.press('MIDI pad or kit');
    m.pick('How strict', 'easy');
    m.pick('Click drops out', '1 bar in 3');
    m.press('Simulated player');
    expect([choices.source(), choices.gap()]).toEqual(['simulated', { sounding: 2, silent: 1 }]);
    await until(() => TestBed.inject(HealthService).allKept());
    const next = anotherDay();
    await until(() => next.source() === 'midi');
    expect([next.strictness(), next.click(), next.counts(), next.gap()]).toEqual(['easy', 'two-and-four', null, null]);
  });
  it('what is no habit in the storage is set aside', async () => {
    const { db } = await setup();
    const odd = { key: 'room', value: { source: 'simulated', strictness: 'usual', click: 'beats', counts: false } };
    db.backendDB().transaction('kept', 'readwrite').objectStore('kept').put(odd);
    const next = anotherDay();
    await untilAsked(async () => (await db.kept.get('room')) === undefined && (await db.aside.count()) === 1);
    expect([next.source(), next.click()]).toEqual([null, 'beats']);
  });
  it('the click is chosen before and while it sounds', async () => {
    const { choices } = await setup();
    const m = mount(RoomSoundComponent, { levels: true });
    m.pick('Click', 'off-beats');
    m.pick('Click drops out', '2 bars in 4');
    m.press('Beeps');
    expect([choices.click(), choices.gap(), choices.counts()]).toEqual([
      'off-beats',
      { sounding: 2, silent: 2 },
      'tones',
    ]);
    m.pick('Click drops out', 'never');
    expect(choices.gap()).toBeNull();
    m.set('locked', true);
    const locked = (label: string) => m.host.querySelector(`[aria-label="${label}"]`)?.getAttribute('aria-disabled');
    expect([locked('Click'), locked('Click drops out')]).toEqual(['false', 'true']);
  });
});

describe('a try that is decided by its loops', () => {
  const sixteen = 'R L R L R L R L R L R L R L R L';
  /**
   * A rung of two loops at 60, played loop by loop, each late by so many milliseconds. Gives back what was said of the
   * try.
   */
  async function played(lates: readonly number[]) {
    const source = new HandSource();
    const place = await emptyPlace([
      DrillStore,
      RoomChoices,
      SubjectStore,
      TakeRecorder,
      TryJudge,
      { provide: HitSources, useValue: { of: () => source } },
    ]);
    await TestBed.inject(PhrasesRepo).save(phraseOf('a', { recipe: typed(sixteen) }));
    const store = TestBed.inject(DrillStore);
    TestBed.inject(RoomChoices).listenTo('keys');
    await store.open('a');
    store.begin({ start: 60, goal: 60, step: 5, loops: 2 });
    await until(() => TestBed.inject(TakeRecorder).listening());
    place.transport.began$.next();
    for (const [turn, late] of lates.entries()) {
      expectedIn(rendition({ phrase: build(typed(sixteen)).pattern }), 60, turn, 1).forEach((e) =>
        source.hit(e.seconds + late / 1000, { limb: e.limb }),
      );
      place.transport.loops$.next(turn + 1);
      await until(() => store.drill()?.loops === turn + 1 || (store.drill()?.attempts.length ?? 0) > 0);
    }
    const attempt = store.drill()?.attempts[0];
    await until(() => TestBed.inject(HealthService).allKept());
    const take = await place.db.takes.get(attempt?.id ?? '');
    store.destroy();
    return { attempt, judged: TestBed.inject(TryJudge).judged(), take };
  }

  it('is never called clean when it did not pass, though all of it together lies within the limits', async () => {
    const { attempt, judged } = await played([14, 0, 14, 0, 14, 0]);
    expect([attempt?.verdict, attempt?.loops]).toEqual(['messy', 6]);
    expect(judged).toMatchObject({ verdict: 'close', loops: { clean: 3, of: 6 } });
    const m = mount(JudgedComponent, { judged: judged!, pattern: build(typed(sixteen)).pattern });
    expect(m.text()).toMatch(/Almost\s*3 of 6 loops clean/);
  });
  it('is measured by the loops that passed it, and the take keeps all devices', async () => {
    const { attempt, judged, take } = await played([60, 2, 2]);
    expect(attempt).toMatchObject({ verdict: 'clean', loops: 3, measured: { mean: 2, strokes: 32 } });
    expect(judged).toMatchObject({ verdict: 'clean', loops: { clean: 2, of: 3 } });
    expect(take?.hits).toHaveLength(48);
  });
});

describe('what a try said', () => {
  it('verdict and the one thing first; all of it behind a press, with silence and evenness', async () => {
    const { transport } = await emptyPlace([TakeRecorder]);
    const phrase = build(typed('R! l R l K l R l R! l R l K l R l')).pattern;
    const meant = rendition({ phrase, gap: { sounding: 1, silent: 1 } });
    const rec = TestBed.inject(TakeRecorder);
    const source = new HandSource();
    transport.playing.set(true);
    await rec.listen(source);
    rec.begin(meant, 60);
    expectedIn(meant, 60, 0, 4).forEach((e) =>
      source.hit(e.seconds + (e.index === 12 ? 0.045 : 0.002), {
        limb: e.limb,
        voice: e.voice,
        velocity: e.limb === 'R' ? 100 : 60,
      }),
    );
    const judged = rec.judge(0, 4, { strictness: 'strict', heights: null }, schools)!;
    const m = mount(JudgedComponent, { judged, pattern: phrase });
    expect(m.host.querySelector('.fix')?.textContent).toMatch(/The kick on .* is \d+ ms late/);
    expect(m.host.querySelector('table')).toBeNull();
    const isolate = heard(m.component.isolate);
    m.press('Drill this spot');
    expect(isolate).toHaveLength(1);
    m.press('Details');
    const rows = (): (string | undefined)[] => [...m.host.querySelectorAll('th')].map((th) => th.textContent);
    expect(rows()).toEqual(
      expect.arrayContaining(['snare', 'kick on beat 4', 'tempo', 'accents', 'without the click']),
    );
    expect(m.text()).not.toMatch(/[+±−]\d/);
    // Each limb on the scale from early to late, with its words for whoever cannot see it.
    const scale = [...m.host.querySelectorAll('ls-late-scale [role=img]')].map((e) => e.getAttribute('aria-label'));
    expect(scale).toHaveLength(4);
    expect(scale.at(-1)).toMatch(/^kick foot: \d+ ms late, spread \d+ ms$/);
    m.press('Less');
    expect(rows()).toEqual([]);
  });
});
