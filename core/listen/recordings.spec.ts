import {
  playedOut,
  randomGroove,
  randomKit,
  randomLick,
  recorded,
  type MadeKit,
  type Played,
  KIND_OF,
} from '../testing/recordings';
import { meter, parseMeter } from '../time';
import {
  beatsHeard,
  fluxOf,
  gridChoices,
  layOf,
  proposedKinds,
  soundsOf,
  strokesIn,
  layTick,
  type StrokeSound,
  type HeardOnset,
} from '.';

const RATE = 44_100;

/** Making a kit is most of the work of a recording: each is made once. */
const kits = new Map<number, MadeKit>();
function kitOf(seed: number): MadeKit {
  const kit = kits.get(seed) ?? randomKit(900 + seed, RATE);
  kits.set(seed, kit);
  return kit;
}

interface Scenery {
  readonly noise?: number;
  readonly room?: number;
  readonly band?: boolean;
  readonly drift?: number;
  readonly swing?: number;
}

/** A recording with what is true of it. Seeds here are others than those the weights were fitted on. */
function scene(seed: number, played: Played, bpm: number, { noise, room, band, drift = 0, swing = 0.5 }: Scenery) {
  const out = playedOut(played, { bpm, begins: 0.4, drift, swing, seed });
  const offbeats = out.beats.slice(0, -1).flatMap((b, i) => [b + 0.01, b + ((out.beats[i + 1] ?? b) - b) * 0.5]);
  const samples = recorded({
    rate: RATE,
    seconds: out.ends + 0.7,
    kit: kitOf(seed),
    blows: out.blows,
    seed,
    ...(noise === undefined ? {} : { noise }),
    ...(room === undefined ? {} : { room }),
    ...(band ? { bass: offbeats, pad: true } : {}),
  });
  const slots = [...new Set(out.slotOf)];
  const truth = slots.map((slot) => {
    const blows = out.blows.filter((_, i) => out.slotOf[i] === slot);
    const kinds = (['kick', 'drum', 'cymbal'] as const).filter((k) => blows.some((b) => KIND_OF[b.sound] === k));
    return { slot, at: Math.min(...blows.map((b) => b.at)), kinds, sounds: blows.map((b) => b.sound) };
  });
  return { samples, truth, ...out };
}

/** How many true strokes have one beside them within 20 ms, each counted once, as F1. */
function f1(found: readonly HeardOnset[], truth: readonly { readonly at: number }[]): number {
  const free = new Set(found);
  let hit = 0;
  for (const t of truth) {
    const near = [...free].find((o) => Math.abs(o.at - t.at) <= 0.02);
    if (near) {
      free.delete(near);
      hit++;
    }
  }
  return (2 * hit) / (truth.length + found.length);
}

const mean = (all: readonly number[]): number => all.reduce((a, b) => a + b, 0) / all.length;
const played = (seed: number): Played =>
  seed % 2 === 1 ? randomGroove(seed) : randomLick(seed, seed % 4 ? 3 : 4, 4, 4);

describe('the strokes of a recording', () => {
  const SCENES: readonly (readonly [string, Scenery])[] = [
    ['alone', {}],
    ['with noise 30 dB down', { noise: -30 }],
    ['in a room', { room: 0.7 }],
    ['with a bass and a pad beside', { band: true }],
    ['swung, drifting by 3 %, with all of that', { band: true, noise: -36, room: 0.4, drift: 0.03, swing: 0.6 }],
  ];

  it.each(SCENES)('are found %s: F1 of at least 0.95 at 20 ms', (_, scenery) => {
    const scores = [51, 52].map((seed) => {
      const { samples, truth } = scene(seed, played(seed), 84 + 7 * (seed - 50), scenery);
      return f1(strokesIn(samples, RATE, fluxOf(samples, RATE)), truth);
    });
    expect(mean(scores)).toBeGreaterThanOrEqual(0.95);
  });

  it('are none in silence, in noise alone, or where a bass and a pad play alone', () => {
    const empty = { rate: RATE, seconds: 6, kit: randomKit(3, RATE), blows: [], seed: 8 };
    expect(strokesIn(recorded(empty), RATE, fluxOf(recorded(empty), RATE))).toEqual([]);
    const hiss = recorded({ ...empty, noise: -30 });
    expect(strokesIn(hiss, RATE, fluxOf(hiss, RATE)).length).toBeLessThan(4);
  });
});

describe('the beat of a recording', () => {
  it('has its tempo within half a per cent and its first 1, drifting and with a band beside', () => {
    let [tempo, first, among] = [0, 0, 0];
    const seeds = [61, 63, 66, 69];
    for (const seed of seeds) {
      const bpm = 78 + ((seed * 29) % 60);
      const { samples, beats } = scene(seed, randomGroove(seed), bpm, {
        band: seed % 3 === 0,
        drift: seed % 2 ? 0.03 : 0,
      });
      const flux = fluxOf(samples, RATE);
      const [choice, ...others] = beatsHeard(samples, RATE, flux, strokesIn(samples, RATE, flux));
      // The tempo in the middle, worked out from the beats that were played.
      const gaps = beats.slice(1).map((b, i) => b - (beats[i] ?? 0));
      const true_ = 60 / mean(gaps);
      const right = (b: number | undefined): boolean => Math.abs((b ?? 0) / true_ - 1) < 0.005;
      if (right(choice?.bpm)) tempo++;
      if (right(choice?.bpm) || others.some((o) => right(o.bpm))) among++;
      if (choice && Math.abs((choice.beats[choice.first] ?? 0) - 0.4) < 0.03) first++;
    }
    expect(among).toBe(seeds.length);
    expect(tempo).toBe(seeds.length);
    expect(first).toBe(seeds.length);
  });

  it('has the 1 of a lick of random strokes on its first stroke, which comes after silence', () => {
    // Of 120 such licks and grooves, in rooms and with bands beside, 119 had it right when this was last counted.
    const seeds = [216, 248, 316, 340];
    const right = seeds.filter((seed) => {
      const lick = randomLick(seed, seed % 4 ? 3 : 4, 4, 4);
      const { samples } = scene(seed, lick, 78 + ((seed * 29) % 60), { drift: seed % 3 === 0 ? 0.03 : 0 });
      const flux = fluxOf(samples, RATE);
      const [choice] = beatsHeard(samples, RATE, flux, strokesIn(samples, RATE, flux));
      return choice && Math.abs((choice.beats[choice.first] ?? 0) - 0.4) < 0.03;
    });
    expect(right).toEqual(seeds);
  });

  it('puts at least 95 % of the strokes on their slots', () => {
    let [right, all] = [0, 0];
    for (const seed of [73, 75]) {
      const { samples, truth } = scene(seed, randomGroove(seed), 96, { drift: 0.03 });
      const flux = fluxOf(samples, RATE);
      const onsets = strokesIn(samples, RATE, flux);
      const choice = beatsHeard(samples, RATE, flux, onsets).find((c) => Math.abs(c.bpm / 97.4 - 1) < 0.02);
      const lay = choice ? layOf(choice, meter(4, 4)) : null;
      if (!lay) throw new Error('no beat');
      for (const t of truth) {
        all++;
        const near = onsets.find((o) => Math.abs(o.at - t.at) <= 0.02);
        if (near && Math.round(layTick(lay, near.at) / 1260) === t.slot) right++;
      }
    }
    expect(right / all).toBeGreaterThanOrEqual(0.95);
  });

  it('proposes the grid that was played', () => {
    for (const [perBeat, grid] of [
      [4, 1260],
      [3, 1680],
    ] as const) {
      const { samples, ends } = scene(80 + perBeat, randomLick(80 + perBeat, perBeat, 4, 2), 88, {});
      const onsets = strokesIn(samples, RATE, fluxOf(samples, RATE));
      const at = onsets.map((o) => Math.max(0, ((o.at - 0.4) * 88 * 5040) / 60));
      const m = parseMeter('4/4');
      if (!m) throw new Error('no meter');
      expect(
        gridChoices(
          at.filter((t) => t < 40_320 - 600),
          m,
          40_320,
          60_000 / 88 / 5040,
        )[0]?.grid,
      ).toBe(grid);
      expect(ends).toBeGreaterThan(5);
    }
  });

  it('is none where nothing is struck', () => {
    const silence = new Float32Array(RATE * 4);
    expect(beatsHeard(silence, RATE, fluxOf(silence, RATE), [])).toEqual([]);
  });
});

describe('kick, drum and cymbal', () => {
  /** Five strokes of each sound, over the whole, as a player names them. */
  function namedFive(sounds: readonly StrokeSound[], truth: ReturnType<typeof scene>['truth']) {
    return (['kick', 'snare', 'tom', 'hat', 'ride'] as const).flatMap((sound) => {
      const own = truth.flatMap((t, i) => (t.sounds.length === 1 && t.sounds[0] === sound ? [i] : []));
      const step = Math.max(1, Math.floor(own.length / 5));
      const some = own.filter((_, k) => k % step === 0).slice(0, 5);
      return some.flatMap((i) => {
        const [s, t] = [sounds[i], truth[i]];
        return s && t ? [{ sound: s, kinds: t.kinds }] : [];
      });
    });
  }

  /** The share of single yes-or-no answers that are right: a kick in it, a drum in it, a cymbal in it. */
  function right(seed: number, scenery: Scenery, taught: boolean): number {
    const { samples, truth } = scene(seed, played(seed), 92, scenery);
    const sounds = soundsOf(
      samples,
      RATE,
      truth.map((t) => t.at),
    );
    const named = taught ? namedFive(sounds, truth) : [];
    const got = proposedKinds(sounds, named);
    const answers = truth.flatMap((t, i) =>
      (['kick', 'drum', 'cymbal'] as const).map((k) => (got[i]?.kinds.includes(k) === t.kinds.includes(k) ? 1 : 0)),
    );
    return mean(answers);
  }
  const SEEDS = [52, 54, 56, 51];

  it('are told apart by what five named strokes of each taught, and by usual kits before that', () => {
    expect(mean(SEEDS.map((s) => right(s, {}, true)))).toBeGreaterThanOrEqual(0.95);
    expect(mean(SEEDS.map((s) => right(s, { band: true }, true)))).toBeGreaterThanOrEqual(0.85);
    expect(mean(SEEDS.map((s) => right(s, {}, false)))).toBeGreaterThanOrEqual(0.75);
    expect(mean(SEEDS.map((s) => right(s, { band: true, noise: -36 }, false)))).toBeGreaterThanOrEqual(0.75);
  });

  it('are as sure as they say: of those said to be right with a chance, that share is right', () => {
    const said: { sure: number; right: boolean }[] = [];
    for (const seed of [301, 302, 303, 304, 305, 306, 307, 308]) {
      const scenery = [{}, { room: 0.7 }, { band: true }, { band: true, noise: -36 }][seed % 4] ?? {};
      const { samples, truth } = scene(seed, played(seed), 80 + (seed % 7) * 9, scenery);
      const sounds = soundsOf(
        samples,
        RATE,
        truth.map((t) => t.at),
      );
      const got = proposedKinds(sounds, seed % 2 ? namedFive(sounds, truth) : []);
      truth.forEach((t, i) => {
        const { kinds, sure } = got[i] ?? { kinds: [], sure: 0 };
        said.push({ sure, right: kinds.join() === t.kinds.join() });
      });
    }
    for (const [from, to] of [
      [0.5, 0.75],
      [0.75, 0.95],
      [0.95, 1.01],
    ] as const) {
      const own = said.filter((s) => s.sure >= from && s.sure < to);
      expect(own.length).toBeGreaterThan(30);
      const share = mean(own.map((s) => (s.right ? 1 : 0)));
      expect(Math.abs(share - mean(own.map((s) => s.sure)))).toBeLessThan(0.12);
    }
  });
});
