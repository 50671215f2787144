import { effect } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { build } from '@core/recipe';
import { programOf } from '@core/playback';
import { typed } from '../testing/fixtures';
import { BackingService } from './backing.service';
import { LoudnessRepo } from '../storage/loudness.repo';
import { Transport } from './transport.service';
import { freshTestBed } from '../testing/test-bed';

/** A stand-in for the browser's audio: a clock that is turned by hand, and a list of what was handed to it. */
class FakeAudio {
  static started: { when: number; stopped: boolean; from: number; long: number }[] = [];
  static clock = 0;
  readonly sampleRate = 48_000;
  readonly outputLatency = 0;
  readonly destination = {};
  get currentTime(): number {
    return FakeAudio.clock;
  }
  resume(): Promise<void> {
    return Promise.resolve();
  }
  createBuffer(): object {
    return { copyToChannel: () => undefined };
  }
  static last: FakeAudio | null = null;
  state = 'running';
  onstatechange: (() => void) | null = null;
  constructor() {
    FakeAudio.last = this;
  }
  static gains: { value: number }[] = [];
  createGain(): object {
    const gain = {
      value: 1,
      setTargetAtTime: () => undefined,
      setValueAtTime: () => undefined,
      linearRampToValueAtTime: () => undefined,
      cancelScheduledValues: () => undefined,
    };
    FakeAudio.gains.push(gain);
    return { gain, connect: (n: object) => n, disconnect: () => undefined };
  }
  createBufferSource(): object {
    const entry = { when: 0, stopped: false, from: 0, long: 0 };
    return {
      context: this,
      connect: (n: object) => n,
      disconnect: () => undefined,
      start: (when: number, from = 0, long = Infinity) => {
        Object.assign(entry, { when, from, long });
        FakeAudio.started.push(entry);
      },
      stop: () => (entry.stopped = true),
    };
  }
}
let tick: () => void = () => undefined;
class FakeWorker {
  set onmessage(run: () => void) {
    tick = run;
  }
}

const programFor = (text: string, countInBars = 0) =>
  programOf(build(typed(text)).pattern, { click: 'none', countInBars });
const sounded = (): number[] =>
  FakeAudio.started
    .filter((s) => !s.stopped)
    .map((s) => Math.round(s.when * 1000) / 1000)
    .sort((a, b) => a - b);
const turnTo = (seconds: number): void => {
  for (; FakeAudio.clock < seconds; FakeAudio.clock += 0.025) tick();
};

describe('the transport', () => {
  let transport: Transport;
  beforeEach(() => {
    FakeAudio.started = [];
    FakeAudio.clock = 0;
    Object.assign(globalThis, { AudioContext: FakeAudio, Worker: FakeWorker });
    freshTestBed();
    transport = TestBed.inject(Transport);
  });

  it('hands every sound over once, in time, evenly', async () => {
    await transport.play({ program: programFor('R R R R'), bpm: 120, beat: 5040 });
    turnTo(2);
    const at = sounded();
    expect(at[0]).toBeCloseTo(0.15, 3);
    at.slice(1).forEach((t, i) => expect(t - at[i]!).toBeCloseTo(0.125, 3));
    expect(transport.handover()).toMatchObject({ late: 0, sounds: FakeAudio.started.length });
    expect(transport.handover().nearest).toBeCloseTo(0.15, 3);
    transport.stop();
  });

  it('a change asked for in an effect is no news to that effect', async () => {
    await transport.play({ program: programFor('R R R R'), bpm: 120, beat: 5040 });
    let asked = 0;
    TestBed.runInInjectionContext(() =>
      effect(() => {
        // Without an end to it the page would stand still, so the test gives up instead.
        if (++asked < 20) transport.change({ bpm: 100 + asked });
      }),
    );
    TestBed.tick();
    expect(asked).toBe(1);
    turnTo(1);
    TestBed.tick();
    expect(asked).toBe(1);
    transport.stop();
  });

  it('a tempo change begins at the next beat, without gap or double', async () => {
    await transport.play({ program: programFor('R R R R'), bpm: 120, beat: 5040 });
    turnTo(0.3);
    transport.change({ bpm: 60 });
    turnTo(3);
    const steps = sounded().map((t, i, all) => Math.round((t - (all[i - 1] ?? t)) * 1000));
    const firstSlow = steps.findIndex((s) => s > 200);
    expect(firstSlow % 4).toBe(1);
    expect([...new Set(steps.slice(1, firstSlow))]).toEqual([125]);
    expect([...new Set(steps.slice(firstSlow))]).toEqual([250]);
    transport.stop();
  });

  it('tells the end of the count-in and each turn of the phrase, and nothing after stop', async () => {
    const told: string[] = [];
    transport.began$.subscribe(() => told.push('began'));
    transport.loops$.subscribe((n) => told.push(`loop ${n}`));
    await transport.play({ program: programFor('R R R R', 1), bpm: 240, beat: 5040 });
    turnTo(1.98);
    transport.stop();
    turnTo(4);
    expect(told).toEqual(['began', 'loop 1', 'loop 2', 'loop 3']);
    expect(transport.playing()).toBe(false);
  });

  it('a change of the phrase keeps the place', async () => {
    await transport.play({ program: programFor('R R R R'), bpm: 120, beat: 5040 });
    turnTo(0.4);
    transport.change({ program: programFor('R - - -') });
    turnTo(2.5);
    const late = sounded().filter((t) => t > 0.7);
    late.slice(1).forEach((t, i) => expect(t - late[i]!).toBeCloseTo(0.5, 3));
    transport.stop();
  });

  it('each part has a loudness of its own, heard at once when it is changed', async () => {
    const loudness = TestBed.inject(LoudnessRepo);
    await loudness.set('click', 0.25);
    FakeAudio.gains = [];
    await transport.play({
      program: programOf(build(typed('R L')).pattern, { click: 'beats', countInBars: 0 }),
      bpm: 120,
      beat: 5040,
    });
    turnTo(0.3);
    // One gain for each part comes first, then one for each sound.
    const outs = FakeAudio.gains.slice(0, 6);
    expect(outs.map((g) => g.value)).toEqual([1, 1, 1, 0.25, 1, 1]);
    void loudness.set('texture', 9);
    TestBed.tick();
    expect(outs.map((g) => g.value)).toEqual([1, 1, 1.5, 0.25, 1, 1]);
    void loudness.reset();
    TestBed.tick();
    expect(new Set(outs.map((g) => g.value))).toEqual(new Set([1]));
    transport.stop();
  });

  it('a record goes on beat by beat without a gap, at another tempo once it is made, and is over when it is stopped', async () => {
    const ready = new Set([120]);
    const backing = TestBed.inject(BackingService);
    jest
      .spyOn(backing, 'at')
      .mockImplementation((bpm) => (ready.has(bpm) ? ({ bpm } as unknown as AudioBuffer) : null));
    const program = programOf(build(typed('R R R R')).pattern, { click: 'none', countInBars: 0, record: 1 });
    await transport.play({ program, bpm: 120, beat: 5040 });
    turnTo(1.1);
    const stretches = FakeAudio.started.map((s) => ({ when: s.when, over: s.when + s.long, from: s.from }));
    expect(stretches.length).toBeGreaterThanOrEqual(3);
    stretches.slice(1).forEach((s, i) => {
      const before = stretches[i]!;
      // Each takes over within 3 ms from the one before, at the same sample of the record.
      expect(before.over - s.when).toBeCloseTo(0.003, 4);
      const along = s.from - before.from;
      expect(along).toBeCloseTo(along > 0 ? s.when - before.when : -1.5, 4);
    });
    // The record of the next tempo is not made yet: beats pass in silence, then it goes on from its place.
    transport.change({ bpm: 60 });
    const known = FakeAudio.started.length;
    turnTo(2.4);
    expect(FakeAudio.started.slice(known)).toEqual([]);
    ready.add(60);
    turnTo(4);
    const slow = FakeAudio.started.slice(known);
    expect(slow.length).toBeGreaterThan(1);
    slow.forEach((s) => expect(s.when).toBeGreaterThan(2.4));
    expect(slow.slice(1).map((s, i) => Math.round((s.when - slow[i]!.when) * 1000))).toEqual(
      slow.slice(1).map(() => 1000),
    );
    transport.stop();
    expect(FakeAudio.started.filter((s) => !s.stopped && s.when + s.long > FakeAudio.clock)).toEqual([]);
  });

  it('a device that slept stops the sound and says so; a page that was busy for a second does not', async () => {
    let page = 1000;
    const clock = jest.spyOn(performance, 'now').mockImplementation(() => page);
    let slept = 0;
    transport.slept$.subscribe(() => slept++);
    await transport.play({ program: programFor('R R R R'), bpm: 120, beat: 5040 });
    turnTo(0.2);
    page += 1100;
    tick();
    expect([slept, transport.playing()]).toEqual([0, true]);
    page += 60_000;
    tick();
    expect([slept, transport.playing()]).toEqual([1, false]);
    expect(transport.trouble()).toContain('slept');
    clock.mockRestore();
    await transport.play({ program: programFor('R R R R'), bpm: 120, beat: 5040 });
    expect(transport.trouble()).toBeNull();
    transport.stop();
  });

  it('sound that is taken away stops what plays; when nothing plays it is nobody’s matter', async () => {
    let slept = 0;
    transport.slept$.subscribe(() => slept++);
    await transport.play({ program: programFor('R R R R'), bpm: 120, beat: 5040 });
    turnTo(0.2);
    const audio = FakeAudio.last!;
    audio.state = 'interrupted';
    audio.onstatechange?.();
    audio.onstatechange?.();
    expect([slept, transport.playing()]).toEqual([1, false]);
  });

  it('says in words when the browser gives no sound', async () => {
    Object.assign(globalThis, {
      AudioContext: function () {
        throw new Error('no device');
      },
    });
    freshTestBed();
    const silent = TestBed.inject(Transport);
    await silent.play({ program: programFor('R'), bpm: 120, beat: 5040 });
    expect(silent.trouble()).toContain('No sound from the browser');
    expect(silent.playing()).toBe(false);
  });
});
