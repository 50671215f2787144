import fc from 'fast-check';
import {
  changedAt,
  dueBefore,
  handed,
  secondsOfTick,
  tickHeardAt,
  timelineFrom,
  nextChangeTick,
  turnsOver,
  type Timeline,
} from '.';

/** Changes of tempo as they could come: seconds after the one before, and the tempo from then on. */
const anyChanges = fc.array(
  fc.record({ after: fc.double({ min: 0.01, max: 6, noNaN: true }), bpm: fc.integer({ min: 20, max: 400 }) }),
  { maxLength: 8 },
);

/** A timeline with its changes made, each on the first beat 0.15 s after it was asked for. */
function changed(changes: readonly { readonly after: number; readonly bpm: number }[]): Timeline {
  let now = 1;
  return changes.reduce(
    (timeline, { after, bpm }) => {
      now += after;
      return changedAt(timeline, nextChangeTick(timeline, now, 0.15, 5040), bpm);
    },
    timelineFrom(0, 1, 100, 20160),
  );
}

describe('the timeline of what plays', () => {
  it('a tick is heard at its time, and its time is that of the tick, through any changes of tempo', () => {
    fc.assert(
      fc.property(anyChanges, fc.double({ min: 1, max: 60, noNaN: true }), (changes, seconds) => {
        const timeline = changed(changes);
        expect(secondsOfTick(timeline, tickHeardAt(timeline, seconds))).toBeCloseTo(seconds, 6);
      }),
    );
  });
  it('time is the sum of every beat at the tempo it is played at: no gap, nothing twice', () => {
    fc.assert(
      fc.property(anyChanges, (changes) => {
        const timeline = changed(changes);
        let seconds = 1;
        for (let beat = 0; beat < 40; beat++) {
          expect(secondsOfTick(timeline, beat * 5040)).toBeCloseTo(seconds, 6);
          const anchor = timeline.anchors.findLast((a) => a.tick <= beat * 5040);
          seconds += 60 / (anchor?.bpm ?? 0);
        }
      }),
    );
  });
  it('a change takes effect on a beat, late enough to be made, and never before one that was made already', () => {
    fc.assert(
      fc.property(anyChanges, fc.double({ min: 1, max: 30, noNaN: true }), (changes, now) => {
        const timeline = changed(changes);
        const turn = nextChangeTick(timeline, now, 0.15, 5040);
        expect(turn % 5040).toBe(0);
        expect(turn).toBeGreaterThanOrEqual(timeline.anchors.at(-1)?.tick ?? 0);
        if (turn > (timeline.anchors.at(-1)?.tick ?? 0))
          expect(secondsOfTick(timeline, turn)).toBeGreaterThanOrEqual(now + 0.15 - 1e-9);
      }),
    );
  });
  it('every turn is told once and in order, however seldom it is looked at', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 3, noNaN: true }), { maxLength: 30 }),
        fc.boolean(),
        (waits, counted) => {
          let timeline = timelineFrom(counted ? -20160 : 0, 0, 120, 5040);
          let now = 0;
          const told: number[] = [];
          for (const wait of waits) {
            const over = turnsOver(timeline, (now += wait), 5040);
            told.push(...over.turns);
            timeline = over.timeline;
          }
          const first = counted ? 0 : 1;
          expect(told).toEqual(told.map((_, i) => first + i));
          // Half a second to the beat, after a count-in of four.
          const beats = Math.floor(now / 0.5 + 1e-9) - (counted ? 4 : 0);
          expect(Math.abs(told.length - Math.max(0, beats + (counted ? 1 : 0)))).toBeLessThanOrEqual(1);
        },
      ),
    );
  });
  it('what was handed over is never handed over again', () => {
    const timeline = handed(timelineFrom(0, 0, 60, 5040), 10_000);
    expect(handed(timeline, 5000).handedTo).toBe(10_000);
    expect(dueBefore(timeline, 2)).toBe(10_080);
    // After a change what lies beyond it is to be handed over anew.
    expect(changedAt(timeline, 5040, 120).handedTo).toBe(5040);
  });
});
