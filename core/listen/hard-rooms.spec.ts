import { levelsFrom, OnsetDetector, type Onset } from '.';

const { PI, abs, exp, max, min, round, sin } = Math;

// Sounds made apart from the detector: sticks on pads, rooms, hum and clicks, by plain loops.

const RATE = 48_000;

function dice(seed: number): () => number {
  let x = (seed * 747796405 + 2891336453) >>> 0 || 7;
  return () => {
    x = (x * 1664525 + 1013904223) >>> 0;
    return x / 4294967296;
  };
}
const db = (n: number): number => 10 ** (n / 20);

interface Pad {
  readonly name: string;
  /** Seconds in which its noise dies, Hz and seconds of its body, and how loud the body is. */
  readonly noise: number;
  readonly body: number;
  readonly ring: number;
  readonly weight: number;
}
const PADS: readonly Pad[] = [
  { name: 'rubber', noise: 0.006, body: 320, ring: 0.02, weight: 0.5 },
  { name: 'gum on wood', noise: 0.012, body: 240, ring: 0.03, weight: 0.4 },
  { name: 'mesh', noise: 0.009, body: 180, ring: 0.06, weight: 0.7 },
  { name: 'snare', noise: 0.05, body: 200, ring: 0.05, weight: 0.4 },
];
const RINGING: Pad = { name: 'ringing', noise: 0.01, body: 1900, ring: 0.25, weight: 0.35 };

function stroke(out: Float32Array, at: number, loud: number, pad: Pad, roll: () => number): void {
  const end = min(out.length, at + round(RATE * 6 * max(pad.noise, pad.ring)));
  for (let i = at; i < end; i++) {
    const t = (i - at) / RATE;
    const noise = (roll() * 2 - 1) * exp(-t / pad.noise);
    const body = pad.weight * sin(2 * PI * pad.body * t) * exp(-t / pad.ring);
    out[i] = (out[i] ?? 0) + loud * (noise + body);
  }
}

interface Played {
  readonly samples: Float32Array;
  /** Samples of the main strokes. */
  readonly at: readonly number[];
}
type Loud = (n: number) => number;

/** Strokes at so many seconds from each other, each as loud as said. */
function play(pad: Pad, gap: number, many: number, loud: Loud, seed: number): Played {
  const roll = dice(seed);
  const samples = new Float32Array(round(RATE * (0.6 + gap * many + 0.5)));
  const at: number[] = [];
  for (let n = 0; n < many; n++) {
    const when = round(RATE * (0.5 + n * gap + (roll() - 0.5) * min(0.008, gap / 8)));
    at.push(when);
    stroke(samples, when, loud(n), pad, roll);
  }
  return { samples, at };
}

function withNoise({ samples, at }: Played, level: number, seed: number): Played {
  const roll = dice(seed);
  return { samples: samples.map((x) => x + level * (roll() * 2 - 1)), at };
}
function withHum({ samples, at }: Played, level: number): Played {
  return {
    samples: samples.map((x, i) => {
      const t = (2 * PI * i) / RATE;
      return x + level * (sin(50 * t) + 0.5 * sin(150 * t + 1) + 0.2 * sin(450 * t));
    }),
    at,
  };
}
/** A small room: a dozen echoes that die. */
function withRoom({ samples, at }: Played, seed: number): Played {
  const roll = dice(seed);
  const out = Float32Array.from(samples);
  for (let n = 0; n < 24; n++) {
    const delay = round(RATE * (0.004 + 0.12 * roll()));
    const level = 0.28 * exp(-delay / RATE / 0.05) * (roll() < 0.5 ? -1 : 1);
    for (let i = delay; i < out.length; i++) out[i] = (out[i] ?? 0) + level * (samples[i - delay] ?? 0);
  }
  return { samples: out, at };
}
function withClick({ samples, at }: Played, level: number, hz: number): Played {
  const out = Float32Array.from(samples);
  for (let beat = 0; beat * 0.5 < out.length / RATE; beat++) {
    const from = round(RATE * (0.37 + beat * 0.5));
    for (let i = 0; i < RATE * 0.05 && from + i < out.length; i++) {
      const rise = min(1, i / (0.001 * RATE));
      out[from + i] = (out[from + i] ?? 0) + level * rise * sin((2 * PI * hz * i) / RATE) * exp(-i / RATE / 0.012);
    }
  }
  return { samples: out, at };
}

/** Levels as a player sets them: softly and hard on the pad that is played. */
function levels(pad: Pad, gain: number, soft: number, room = 0.004) {
  const peaks = (loud: number): number[] => {
    const heard: number[] = [];
    const d = new OnsetDetector({ rate: RATE, threshold: 0.002, loudest: 1 });
    const { samples } = play(pad, 0.5, 4, () => loud * gain, 99);
    for (const o of [...d.push(samples), ...d.settle()]) heard.push(o.peak);
    return heard;
  };
  return levelsFrom(peaks(soft), peaks(0.8), room * gain) ?? { threshold: 0.03 * gain, loudest: 0.8 * gain };
}
function heard({ samples }: Played, set: { threshold: number; loudest: number }): readonly Onset[] {
  const d = new OnsetDetector({ rate: RATE, ...set });
  const found: Onset[] = [];
  for (let i = 0; i < samples.length; i += 128) found.push(...d.push(samples.subarray(i, i + 128)));
  return [...found, ...d.settle()];
}
/** F-measure at ± 10 ms and the mean error in ms. */
function score(found: readonly Onset[], at: readonly number[]): { f1: number; bias: number } {
  let [j, hits, sum] = [0, 0, 0];
  for (const t of at) {
    while (j < found.length && found[j]!.sample < t - RATE * 0.01) j++;
    const o = found[j];
    if (!o || abs(o.sample - t) > RATE * 0.01) continue;
    hits++;
    sum += o.sample - t;
    j++;
  }
  return { f1: (2 * hits) / (found.length + at.length), bias: hits ? (1000 * sum) / hits / RATE : 99 };
}
const check = (name: string, played: Played, set: { threshold: number; loudest: number }, least: number): void => {
  const { f1, bias } = score(heard(played, set), played.at);
  if (process.env['TELL']) console.log(`${name}: F1 ${f1.toFixed(3)} bias ${bias.toFixed(2)}`);
  expect(f1).toBeGreaterThanOrEqual(least);
  expect(abs(bias)).toBeLessThanOrEqual(2);
};
const even: Loud = (n) => 0.5 + 0.1 * (n % 3);

describe('onsets in hard rooms', () => {
  it.each(PADS.map((p) => [p.name, p] as const))('plain 16ths on %s: F1 at least 0.98', (_, pad) => {
    for (const bpm of [60, 120, 180])
      check(`${pad.name} ${bpm}`, play(pad, 15 / bpm, 64, even, bpm), levels(pad, 1, 0.3), 0.98);
  });
  it.each(PADS.map((p) => [p.name, p] as const))('ghosts 20 dB under accents on %s', (_, pad) => {
    const loud: Loud = (n) => (n % 4 === 0 ? 0.8 : 0.8 * db(-20));
    check(`ghosts ${pad.name}`, play(pad, 0.125, 64, loud, 3), levels(pad, 1, 0.8 * db(-20)), 0.95);
  });
  it.each(PADS.map((p) => [p.name, p] as const))('rolls to 18 strokes a second on %s', (_, pad) => {
    for (const rate of [12, 15, 18])
      check(
        `roll ${pad.name} ${rate}`,
        play(pad, 1 / rate, 72, (n) => 0.4 + 0.1 * (n % 2), rate),
        levels(pad, 1, 0.3),
        0.95,
      );
  });
  it('a pad that rings', () => check('rings', play(RINGING, 0.125, 64, even, 5), levels(RINGING, 1, 0.3), 0.95));
  it.each(PADS.map((p) => [p.name, p] as const))('noise at −32 dB, hum, a small room on %s', (_, pad) => {
    const plain = play(pad, 0.125, 64, even, 7);
    const set = levels(pad, 1, 0.3, 0.02);
    check(`noise ${pad.name}`, withNoise(plain, 0.6 * db(-32), 8), set, 0.95);
    check(`hum ${pad.name}`, withHum(plain, 0.2), set, 0.95);
    check(`room ${pad.name}`, withRoom(plain, 9), set, 0.95);
  });
  it.each([1000, 1500, 2000, 3000, 4000])('click bleed at −6 dB of the hits, at %d Hz', (hz) => {
    for (const pad of PADS.slice(0, 3))
      check(
        `click ${hz} ${pad.name}`,
        withClick(play(pad, 0.25, 40, even, 11), 0.6 * db(-6), hz),
        levels(pad, 1, 0.3),
        0.95,
      );
  });
  it.each(PADS.map((p) => [p.name, p] as const))('flams of 20–40 ms on %s: the main stroke is the stroke', (_, pad) => {
    for (const gap of [0.02, 0.03, 0.04]) {
      const main = play(pad, 0.4, 24, () => 0.7, 13);
      const roll = dice(17);
      const samples = Float32Array.from(main.samples);
      for (const t of main.at) stroke(samples, t - round(gap * RATE), 0.7 * db(-12), pad, roll);
      const found = heard({ samples, at: main.at }, levels(pad, 1, 0.15));
      // Its grace strokes may be heard too; the main stroke has to be, at its place.
      const near = main.at.filter((t) => found.some((o) => abs(o.sample - t) <= RATE * 0.01)).length;
      if (process.env['TELL'])
        console.log(`flam ${pad.name} ${gap}: ${near} of ${main.at.length}, found ${found.length}`);
      expect(near / main.at.length).toBeGreaterThanOrEqual(0.95);
    }
  });
  it('an input 30 dB lower is the same', () => {
    const gain = db(-30);
    for (const pad of PADS) {
      const loud: Loud = (n) => gain * even(n);
      check(`low ${pad.name}`, play(pad, 0.125, 64, loud, 19), levels(pad, gain, 0.3), 0.98);
    }
  });
});
