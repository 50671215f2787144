import type { Struck } from '@core/playback';

const { PI, abs, exp, max, min, round, sign, sin } = Math;

/** One sound as samples, from −1 to 1, its attack on the very first sample. */
export type Samples = Float32Array<ArrayBuffer>;

/**
 * Sounds that are made: every voice, and the snare a second time for ghosts, whose colour differs and not only its
 * loudness.
 */
export type BufferName = Struck | 'snare-ghost';

type Wave = (t: number, noise: () => number) => number;

const TAU = 2 * PI;
const decay = (t: number, seconds: number): number => exp(-t / seconds);

/** Noise that is the same every time: a xorshift generator, so that two tabs and two renders sound alike. */
export function noiseFrom(seed: number): () => number {
  let x = seed | 0 || 1;
  return () => {
    x ^= x << 13;
    x ^= x >>> 17;
    x ^= x << 5;
    return (x >>> 0) / 2147483648 - 1;
  };
}

/** A tone whose pitch falls from `from` to `to` Hz; the phase is the integral, so there is no jump. */
function falling(from: number, to: number, seconds: number): (t: number) => number {
  return (t) => sin(TAU * (to * t + (from - to) * seconds * (1 - decay(t, seconds))) + 0.6);
}

/** Keeps only what lies above a corner frequency: noise minus its running mean. */
function bright(rate: number, hertz: number): (x: number) => number {
  const k = 1 - exp((-TAU * hertz) / rate);
  let low = 0;
  return (x) => {
    low += k * (x - low);
    return x - low;
  };
}

/** Six square waves out of tune: what cymbals are made of. */
const METAL_PARTIALS = [205.3, 304.4, 369.6, 522.7, 540, 800];
function metal(t: number, stretch: number): number {
  return METAL_PARTIALS.reduce((sum, f) => sum + sign(sin(TAU * f * stretch * t + 0.1)), 0) / METAL_PARTIALS.length;
}

interface Recipe {
  readonly seconds: number;
  readonly peak: number;
  readonly wave: (rate: number) => Wave;
}

function drum(from: number, to: number, ring: number, seconds: number, peak: number): Recipe {
  return {
    seconds,
    peak,
    wave: () => {
      const tone = falling(from, to, 0.035);
      return (t, noise) => tone(t) * decay(t, ring) + 0.25 * noise() * decay(t, 0.012);
    },
  };
}

function snare(tone: number, wires: number, wiresRing: number, seconds: number, peak: number): Recipe {
  return {
    seconds,
    peak,
    wave: (rate) => {
      const high = bright(rate, 1400);
      return (t, noise) =>
        tone * (sin(TAU * 187 * t + 0.7) + 0.6 * sin(TAU * 331 * t + 0.4)) * decay(t, 0.055) +
        wires * high(noise()) * decay(t, wiresRing);
    },
  };
}

function cymbal(stretch: number, corner: number, ring: number, seconds: number, peak: number, ping = 0): Recipe {
  return {
    seconds,
    peak,
    wave: (rate) => {
      const high = bright(rate, corner);
      return (t, noise) =>
        high(0.55 * metal(t, stretch) + 0.7 * noise()) * decay(t, ring) +
        ping * sin(TAU * 2870 * t + 0.5) * decay(t, 0.12);
    },
  };
}

function blip(hertz: number, seconds: number, peak: number): Recipe {
  return { seconds, peak, wave: () => (t) => sin(TAU * hertz * t + 0.9) * decay(t, seconds / 4) };
}

const RECIPES: Readonly<Record<BufferName, Recipe>> = {
  kick: {
    seconds: 0.4,
    peak: 0.95,
    wave: () => {
      const tone = falling(150, 48, 0.03);
      return (t, noise) => tone(t) * decay(t, 0.11) + 0.3 * noise() * decay(t, 0.004);
    },
  },
  snare: snare(0.6, 1, 0.09, 0.35, 0.8),
  'snare-ghost': snare(0.75, 0.6, 0.045, 0.2, 0.8),
  rimshot: {
    seconds: 0.3,
    peak: 0.95,
    wave: (rate) => {
      const high = bright(rate, 1100);
      return (t, noise) =>
        0.9 * sin(TAU * 480 * t + 0.8) * decay(t, 0.03) +
        0.4 * sin(TAU * 1720 * t + 0.5) * decay(t, 0.02) +
        0.8 * high(noise()) * decay(t, 0.08);
    },
  },
  'cross-stick': {
    seconds: 0.12,
    peak: 0.7,
    wave: (rate) => {
      const high = bright(rate, 700);
      return (t, noise) => sin(TAU * 1150 * t + 0.8) * decay(t, 0.014) + 0.5 * high(noise()) * decay(t, 0.006);
    },
  },
  'brush-tap': snare(0.25, 0.8, 0.05, 0.2, 0.6),
  'brush-stir': {
    seconds: 0.4,
    peak: 0.35,
    // A stir swells and dies away: the wires meet the head at once, but softly.
    wave: (rate) => {
      const high = bright(rate, 2600);
      return (t, noise) => high(noise()) * (0.4 + 0.6 * sin(PI * min(1, t / 0.36)) ** 2);
    },
  },
  'high-tom': drum(250, 176, 0.16, 0.6, 0.85),
  'mid-tom': drum(195, 128, 0.2, 0.7, 0.85),
  'low-tom': drum(165, 104, 0.23, 0.8, 0.87),
  'floor-tom': drum(135, 82, 0.27, 0.9, 0.9),
  'hat-closed': cymbal(1.45, 6000, 0.035, 0.15, 0.5),
  'hat-half': cymbal(1.45, 5400, 0.13, 0.5, 0.5),
  'hat-open': cymbal(1.45, 5000, 0.32, 1.1, 0.5),
  'hat-foot': cymbal(1.3, 4300, 0.028, 0.12, 0.4),
  ride: cymbal(1.1, 5200, 0.4, 1.4, 0.45, 0.35),
  'ride-bell': cymbal(1.2, 3000, 0.35, 1.2, 0.55, 0.9),
  'ride-edge': cymbal(1.02, 3000, 0.55, 1.8, 0.6),
  'crash-left': cymbal(0.95, 3200, 0.6, 2.2, 0.7),
  'crash-right': cymbal(1.07, 3600, 0.5, 2, 0.7),
  splash: cymbal(1.35, 4200, 0.22, 0.9, 0.6),
  china: cymbal(0.82, 2200, 0.38, 1.4, 0.7),
  cowbell: {
    seconds: 0.4,
    peak: 0.6,
    wave: () => (t) => (sign(sin(TAU * 562 * t + 0.3)) + sign(sin(TAU * 845 * t + 0.5))) * decay(t, 0.07),
  },
  block: { seconds: 0.15, peak: 0.7, wave: () => (t) => sin(TAU * 1840 * t + 0.9) * decay(t, 0.018) },
  'own-1': drum(420, 340, 0.09, 0.4, 0.7),
  'own-2': drum(620, 510, 0.07, 0.3, 0.7),
  'click-bar': blip(1760, 0.05, 0.7),
  'click-group': blip(1320, 0.045, 0.6),
  'click-beat': blip(990, 0.04, 0.55),
  // A major scale from C5 up for the beats, the G below for their halves, the E below for what lies between.
  'count-1': tone(523.25, 0.18, 0.6),
  'count-2': tone(587.33, 0.18, 0.6),
  'count-3': tone(659.26, 0.18, 0.6),
  'count-4': tone(698.46, 0.18, 0.6),
  'count-5': tone(783.99, 0.18, 0.6),
  'count-6': tone(880, 0.18, 0.6),
  'count-7': tone(987.77, 0.18, 0.6),
  'count-8': tone(1046.5, 0.18, 0.6),
  'count-half': tone(392, 0.12, 0.5),
  'count-slot': tone(329.63, 0.07, 0.45),
};

/** A tone that counts: rounder and longer than a click, so that its pitch is heard. */
function tone(hertz: number, seconds: number, peak: number): Recipe {
  return {
    seconds,
    peak,
    wave: () => (t) =>
      (sin(TAU * hertz * t) + 0.35 * sin(TAU * 2 * hertz * t) + 0.12 * sin(TAU * 3 * hertz * t)) *
      decay(t, seconds / 3),
  };
}

export const BUFFER_NAMES = Object.freeze(Object.keys(RECIPES) as BufferName[]);

/** A sound made at a sample rate, normalised to its peak, its end faded so that nothing clicks. */
export function synthesise(name: BufferName, rate: number): Samples {
  const { seconds, peak, wave } = RECIPES[name];
  const length = round(seconds * rate);
  const samples = new Float32Array(length);
  const make = wave(rate);
  const noise = noiseFrom(0x5a17 + BUFFER_NAMES.indexOf(name) * 7919);
  const fade = round(0.01 * rate);
  let most = 0;
  for (let i = 0; i < length; i++) {
    const value = make(i / rate, noise) * min(1, (length - i) / fade);
    samples[i] = value;
    most = max(most, abs(value));
  }
  const scale = most > 0 ? peak / most : 0;
  return samples.map((v) => v * scale);
}

/** How loud a velocity sounds: a curve near what ears call even steps. */
export function gainOf(velocity: number): number {
  return (velocity / 127) ** 1.5;
}

/**
 * Which buffer a sound of a velocity plays, and how loud: velocity to gain by a curve near what ears call even steps.
 */
export function playing(sound: Struck, velocity: number): { readonly name: BufferName; readonly gain: number } {
  return { name: sound === 'snare' && velocity < 48 ? 'snare-ghost' : sound, gain: gainOf(velocity) };
}
