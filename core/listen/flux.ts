import FFT from 'fft.js';

const { PI, abs, ceil, cos, exp, floor, log, max, min, round } = Math;

/** Samples in a frame of a spectrum, and from one frame to the next. */
const FRAME = 1024;
const HOP = 256;
/** Edges of the bands in Hz: about four to the octave. */
const BANDS = { from: 40, to: 15_000, perOctave: 3 } as const;
/** A band counts this much at most, in nepers: a stroke after silence is no more a stroke than one in the din. */
const MOST = 1.6;
/** What lies so far under the loudest frame is silence, as a share of its energy. */
const SILENCE = 3e-6;

/** How much of every spectrum is new, frame by frame. */
export interface Flux {
  /** Seconds from frame to frame. */
  readonly hop: number;
  /** Of all bands, on average; frame n is centred on n × hop. */
  readonly all: Float32Array;
  /** Of the bands under 250 Hz only, where bass notes stand beside kicks. */
  readonly low: Float32Array;
  /** Of the bands above 2 kHz only. */
  readonly high: Float32Array;
}

/**
 * How new each moment of a recording is, from its spectra: the rise of the logarithm of each band over what stood in it
 * and in its neighbours three frames before, which a note that trembles does not set off (spectral flux with a maximum
 * filter, after Böck and Widmer). `tell` hears the share that is done.
 * @param samples one channel
 * @param rate samples a second
 * @example
 * fluxOf(new Float32Array(44100), 44100).all.some((x) => x > 0) // => false
 */
export function fluxOf(samples: Float32Array, rate: number, tell: (share: number) => void = () => undefined): Flux {
  const fft = new FFT(FRAME);
  const bell = Float64Array.from({ length: FRAME }, (_, i) => 0.5 - 0.5 * cos((2 * PI * (i + 0.5)) / FRAME));
  const frame: number[] = new Array<number>(FRAME).fill(0);
  const spectrum = new Array<number>(2 * FRAME).fill(0);
  const edges = edgesOf(rate);
  const bands = edges.length - 1;
  const frames = max(1, ceil(samples.length / HOP));
  const energy = new Float32Array(frames * bands);
  let loudest = 0;
  for (let n = 0; n < frames; n++) {
    const from = n * HOP - FRAME / 2;
    for (let i = 0; i < FRAME; i++) frame[i] = (samples[from + i] ?? 0) * (bell[i] ?? 0);
    fft.realTransform(spectrum, frame);
    let whole = 0;
    for (let b = 0; b < bands; b++) {
      let e = 0;
      const to = edges[b + 1] ?? 0;
      for (let k = edges[b] ?? 0; k < to; k++) {
        const [re, im] = [spectrum[2 * k] ?? 0, spectrum[2 * k + 1] ?? 0];
        e += re * re + im * im;
      }
      energy[n * bands + b] = e;
      whole += e;
    }
    loudest = max(loudest, whole);
    if (n % 1024 === 0) tell(n / frames);
  }
  return { hop: HOP / rate, ...risesOf(energy, frames, bands, loudest, edges, rate) };
}

/** First bins of the bands, and the one behind the last. */
function edgesOf(rate: number): readonly number[] {
  const edges: number[] = [];
  const top = min(BANDS.to, rate / 2);
  for (let f = BANDS.from; f <= top; f *= 2 ** (1 / BANDS.perOctave)) {
    const bin = max(1, round((f * FRAME) / rate));
    if (bin !== edges.at(-1)) edges.push(bin);
  }
  return edges;
}

/** Each band as it is weighed: below 250 Hz the notes of a bass rise as much as kicks do. */
const WEIGHT = { low: 0.4, rest: 1 } as const;
/**
 * What a room gives back of a stroke is nothing new: this share of its energy at once, dying away over so many
 * seconds.
 */
const ECHO = { share: 0.05, dies: 0.04 } as const;
/** What stirs all the time counts so many times: single frames of it stand out of the middle. */
const HISS = 4;
/** Frames back with which a frame is compared. */
const BACK = 3;

function risesOf(
  energy: Float32Array,
  frames: number,
  bands: number,
  loudest: number,
  edges: readonly number[],
  rate: number,
): Pick<Flux, 'all' | 'low' | 'high'> {
  const [all, low, high] = [new Float32Array(frames), new Float32Array(frames), new Float32Array(frames)];
  const floor = max(1e-12, (loudest * SILENCE) / max(1, bands));
  const hertz = edges.map((k) => (k * rate) / FRAME);
  const lows = hertz.findIndex((f) => f >= 250);
  const highs = hertz.findIndex((f) => f >= 2000);
  // What hiss there always is stands under each band: only what rises out of it is new.
  const hiss = Float32Array.from({ length: bands }, (_, b) => floor + HISS * stirring(energy, frames, bands, b));
  const dies = exp(-HOP / rate / ECHO.dies);
  const echo = new Float32Array(bands);
  let whole = 0;
  for (let b = 0; b < bands; b++) whole += b < lows ? WEIGHT.low : WEIGHT.rest;
  for (let n = BACK; n < frames; n++) {
    let [a, l, h] = [0, 0, 0];
    for (let b = 0; b < bands; b++) {
      const was = (n - BACK) * bands + b;
      echo[b] = max((echo[b] ?? 0) * dies, (energy[was] ?? 0) * ECHO.share);
      const before = max(
        energy[was] ?? 0,
        b > 0 ? (energy[was - 1] ?? 0) * 0.5 : 0,
        b + 1 < bands ? (energy[was + 1] ?? 0) * 0.5 : 0,
        echo[b] ?? 0,
      );
      const under = hiss[b] ?? floor;
      const rise = min(MOST, max(0, 0.5 * log(((energy[n * bands + b] ?? 0) + under) / (before + under))));
      a += rise * (b < lows ? WEIGHT.low : WEIGHT.rest);
      if (b < lows) l += rise;
      if (b >= highs) h += rise;
    }
    all[n] = a / whole;
    low[n] = l / max(1, lows);
    high[n] = h / max(1, bands - highs);
  }
  return { all, low, high };
}

/** By how much the energy of a band stirs, from one frame to the one it is compared with, in its quieter third. */
function stirring(energy: Float32Array, frames: number, bands: number, band: number): number {
  const step = max(1, floor(frames / 3000));
  const some: { readonly here: number; readonly stirs: number }[] = [];
  for (let n = BACK; n < frames; n += step) {
    const here = energy[n * bands + band] ?? 0;
    some.push({ here, stirs: abs(here - (energy[(n - BACK) * bands + band] ?? 0)) });
  }
  some.sort((a, b) => a.here - b.here);
  // What dies away in a quiet place is much for a moment: the middle of them is not led by it.
  const quiet = some
    .slice(0, max(1, floor(some.length / 3)))
    .map((s) => s.stirs)
    .sort((a, b) => a - b);
  return quiet[floor(quiet.length / 2)] ?? 0;
}
