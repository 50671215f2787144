import { TestBed } from '@angular/core/testing';
import { lettersOf, type Clip } from '@core/listen';
import { until } from '../testing/fixtures';
import { freshTestBed } from '../testing/test-bed';
import { BackingEngine } from './backing.engine';
import { BackingService } from './backing.service';

class Samples {
  constructor(readonly of: { length: number; sampleRate: number }) {}
  copyToChannel(): void {
    return undefined;
  }
}

const RATE = 8000;
/** A bar of four clicks at 120. */
const clip = (id: string): Clip => {
  const x = new Float32Array(2.1 * RATE);
  for (let b = 0; b < 4; b++) for (let i = 0; i < 200; i++) x[b * 4000 + 160 + i] = Math.sin(i) * Math.exp(-i / 60);
  return {
    id,
    at: 1,
    from: '',
    rate: RATE,
    samples: lettersOf(x),
    meter: '4/4',
    bars: 1,
    marks: [
      { tick: 0, at: 0.02 },
      { tick: 20_160, at: 2.02 },
    ],
  };
};

describe('the record beneath a phrase', () => {
  let backing: BackingService;
  beforeEach(() => {
    Object.assign(globalThis, { AudioBuffer: Samples });
    freshTestBed();
    backing = TestBed.inject(BackingService);
  });
  const made = (bpm: number): { length: number; sampleRate: number } | null => {
    const buffer = backing.at(bpm);
    return buffer ? (buffer as unknown as Samples).of : null;
  };

  it('is made once for each tempo, as long as its bars last there', async () => {
    backing.take(clip('a'));
    expect(made(60)).toBeNull();
    await until(() => made(60) !== null);
    expect(made(60)).toMatchObject({ length: Math.round(4.07 * RATE), sampleRate: RATE });
    const once = backing.at(60);
    expect(backing.at(60)).toBe(once);
    backing.prepare(120);
    await until(() => made(120) !== null);
    expect(made(120)?.length).toBe(Math.round(2.07 * RATE));
  });

  it.each(['at', 'take'] as const)(
    'says that it broke (%s), asks nothing more, and is made when it is tried again',
    async (what) => {
      const said = jest.spyOn(console, 'error').mockImplementation(() => undefined);
      const asked = jest.spyOn(BackingEngine.prototype, what).mockImplementation(() => {
        throw new Error('out of memory');
      });
      backing.take(clip('a'));
      backing.prepare(60);
      await until(() => backing.broke());
      expect([backing.isFar(60), made(60), said.mock.calls.length]).toEqual([false, null, 1]);
      const before = asked.mock.calls.length;
      backing.prepare(80);
      expect(asked.mock.calls.length).toBe(before);
      asked.mockRestore();
      backing.tryAgain();
      expect(backing.broke()).toBe(false);
      await until(() => made(60) !== null);
      said.mockRestore();
    },
  );

  it('says at which tempo it cannot go, and forgets that with another record', async () => {
    backing.take(clip('a'));
    backing.prepare(20);
    await until(() => backing.isFar(20));
    expect([backing.at(20), backing.isFar(120)]).toEqual([null, false]);
    backing.take(clip('b'));
    expect(backing.isFar(20)).toBe(false);
  });

  it('nothing is made where there is no record', () => {
    backing.take(null);
    backing.prepare(100);
    expect([backing.at(100), backing.isFar(100)]).toEqual([null, false]);
  });
});
