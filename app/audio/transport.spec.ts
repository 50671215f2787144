import { TestBed } from '@angular/core/testing';
import { build } from '@core/recipe';
import { programOf } from '@core/playback';
import { typed } from '../testing/fixtures';
import { Transport } from './transport.service';

/** A stand-in for the browser's audio: a clock that is turned by hand, and a list of what was handed to it. */
class FakeAudio {
  static started: { when: number; stopped: boolean }[] = [];
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
  createGain(): object {
    return { gain: { value: 1, setTargetAtTime: () => undefined }, connect: (n: object) => n, disconnect: () => undefined };
  }
  createBufferSource(): object {
    const entry = { when: 0, stopped: false };
    return {
      connect: (n: object) => n,
      disconnect: () => undefined,
      start: (when: number) => {
        entry.when = when;
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

const programFor = (text: string, countInBars = 0) => programOf(build(typed(text)).pattern, { click: 'none', countInBars });
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
    TestBed.resetTestingModule();
    transport = TestBed.inject(Transport);
  });

  it('hands every sound over once, in time, evenly', async () => {
    await transport.play({ program: programFor('R R R R'), bpm: 120, beat: 5040 });
    turnTo(2);
    const at = sounded();
    expect(at[0]).toBeCloseTo(0.15, 3);
    at.slice(1).forEach((t, i) => expect(t - at[i]!).toBeCloseTo(0.125, 3));
    expect(transport.late()).toBe(0);
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

  it('says in words when the browser gives no sound', async () => {
    Object.assign(globalThis, {
      AudioContext: function () {
        throw new Error('no device');
      },
    });
    TestBed.resetTestingModule();
    const silent = TestBed.inject(Transport);
    await silent.play({ program: programFor('R'), bpm: 120, beat: 5040 });
    expect(silent.trouble()).toContain('gives no sound');
    expect(silent.playing()).toBe(false);
  });
});
