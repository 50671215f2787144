import { build } from '../recipe';
import { barTicks } from '../time';
import { eventsIn, secondsAt, type Anchor } from '../playback';
import { expectedIn, rendition, type Rendition } from '../rendition';
import { replayOf, type Replay } from '.';

const meant = (text: string): Rendition =>
  rendition({
    phrase: build({ source: { kind: 'typed', text, meter: '4/4', grid: 1260 }, moves: [] }).pattern,
  });

describe('a take heard again', () => {
  it('has every hit at its true time, on its voice, with the click', () => {
    const hits = [0.01, 0.5, 1.234].map((seconds) => ({ seconds, limb: 'R' as const, voice: null, velocity: 90 }));
    const { program, bpm } = replayOf(meant('R L R L'), 120, hits);
    const anchor: Anchor = { tick: 0, seconds: 0, bpm };
    const events = eventsIn(program, 0, program.loop).filter((e) => e.limb !== null);
    events.forEach((e, i) => expect(secondsAt(anchor, e.at) + e.offset).toBeCloseTo(hits[i]!.seconds, 9));
    expect(events.map((e) => e.sound)).toEqual(['snare', 'snare', 'snare']);
    expect(eventsIn(program, 0, program.loop).filter((e) => e.limb === null).length).toBeGreaterThan(4);
  });
  it('a take is heard beside what was written, or what was written alone, as often as it was played', () => {
    const phrase = meant('R - - - L - - - R - - - L');
    // Two turns of 13 slots, each stroke 20 ms late.
    const hits = expectedIn(phrase, 120, 0, 2).map((e) => ({
      seconds: e.seconds + 0.02,
      limb: e.limb,
      voice: null,
      velocity: null,
    }));
    const sounds = (what: Replay): number[] => {
      const { program } = replayOf(phrase, 120, hits, what);
      expect(program.loop % barTicks(phrase.pattern.meter)).toBe(0);
      return eventsIn(program, 0, program.loop)
        .filter((e) => e.limb !== null)
        .map((e) => Math.round((e.at / 10080 + e.offset) * 1000));
    };
    const struck = [0, 500, 1000, 1500, 1625, 2125, 2625, 3125];
    expect(sounds('meant')).toEqual(struck);
    expect(sounds('struck')).toEqual(struck.map((t) => t + 20));
    expect(sounds('both').sort((a, b) => a - b)).toEqual(struck.flatMap((t) => [t, t + 20]).sort((a, b) => a - b));
  });
});
