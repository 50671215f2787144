import { spokenCount } from '@core/playback';
import { VOICE, VOICES } from '@core/stroke';
import { schedule, roomOf } from './sounding';
import { speak } from './speech';

const RATE = 44_100;
const WORDS = [
  ...Array.from({ length: 12 }, (_, i) => spokenCount(i + 1, '') ?? ''),
  ...['e', '&', 'a', 'trip', 'let', 'ta', 'la'].map((s) => spokenCount(1, s) ?? ''),
];
/** Vowels as books on spoken English give them: the first two formants, in Hz, where the vowel begins. */
const VOWELS: Readonly<Record<string, readonly [number, number]>> = {
  three: [300, 2250],
  six: [400, 1950],
  ten: [530, 1800],
  and: [670, 1700],
  two: [320, 900],
  ta: [740, 1120],
  a: [630, 1200],
};

const rms = (x: Float32Array, from: number, until: number): number => {
  let sum = 0;
  for (let i = from; i < until; i++) sum += (x[i] ?? 0) ** 2;
  return Math.sqrt(sum / Math.max(1, until - from));
};
/** Loudness of a stretch round a frequency, by a plain Fourier sum. */
function level(x: Float32Array, from: number, length: number, hertz: number, rate = RATE): number {
  let [re, im] = [0, 0];
  for (let i = 0; i < length; i++) {
    const window = 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / length);
    const v = (x[from + i] ?? 0) * window;
    re += v * Math.cos((2 * Math.PI * hertz * i) / rate);
    im += v * Math.sin((2 * Math.PI * hertz * i) / rate);
  }
  return Math.hypot(re, im) / length;
}
/** The loudest place of a band, smoothed over a harmonic either side. */
function peak(x: Float32Array, from: number, length: number, low: number, high: number): number {
  let [best, most] = [low, 0];
  for (let f = low; f <= high; f += 20) {
    let sum = 0;
    for (let d = -80; d <= 80; d += 20) sum += level(x, from, length, f + d) ** 2;
    if (sum > most) [best, most] = [f, sum];
  }
  return best;
}
/** A word as bands over time, loudness left out: what tells words apart, whatever the rate they are made at. */
function picture(word: string, rate: number): number[] {
  const { samples } = speak(word, rate);
  const frames = 6;
  const bands = [250, 400, 600, 850, 1150, 1500, 1900, 2400, 3000, 4200, 6000];
  const length = Math.round(0.03 * rate);
  const all = Array.from({ length: frames }, (_, k) => {
    const from = Math.round((k * Math.max(0, samples.length - length)) / (frames - 1));
    return bands.map((b) =>
      Math.log(1e-4 + [0.92, 1, 1.08].reduce((sum, s) => sum + level(samples, from, length, b * s, rate), 0)),
    );
  }).flat();
  const mean = all.reduce((a, b) => a + b, 0) / all.length;
  return [...all.map((v) => v - mean), samples.length / rate / 0.05];
}

describe('the voice that counts', () => {
  it.each(WORDS)('“%s” is short, the same every time, and has the beginning of its vowel marked', (word) => {
    const { samples, mark } = speak(word, RATE);
    expect(samples.length / RATE).toBeGreaterThan(0.07);
    expect(samples.length / RATE).toBeLessThan(0.28);
    expect(speak(word, RATE).samples).toEqual(samples);
    expect(mark === 0).toBe(/^(eight|e|and|a)$/.test(word));
    expect(mark / RATE).toBeLessThan(0.1);
    // The vowel is what is loud: low tones rise at the mark.
    const n = Math.round(0.03 * RATE);
    const after = rms(samples, mark + 300, mark + 300 + n);
    expect(after).toBeGreaterThan(0.05);
    if (/^[tsf]/.test(word) && word !== 'three' && word !== 'twelve' && word !== 'trip')
      expect(level(samples, mark + 200, n, 130)).toBeGreaterThan(3 * level(samples, 0, Math.min(mark, n), 130));
  });
  it.each(Object.entries(VOWELS))('the vowel of “%s” is where a spoken one is', (word, [first, second]) => {
    const { samples, mark } = speak(word, RATE);
    const [from, length] = [mark + Math.round(0.03 * RATE), Math.round(0.045 * RATE)];
    expect(Math.abs(peak(samples, from, length, 220, 850) - first)).toBeLessThan(120);
    // The second stands out against what lies between them and above it.
    const near = (f: number): number =>
      [-80, -40, 0, 40, 80].reduce((sum, d) => sum + level(samples, from, length, f + d), 0);
    expect(near(second)).toBeGreaterThan(near((first + second) / 2) * (second - first > 650 ? 1.2 : 0.5));
    expect(near(second)).toBeGreaterThan(near(second + 450) * 1.1);
  });
  it('every word is nearer to itself, made at another rate, than to any other', () => {
    const known = WORDS.map((w) => picture(w, 48_000));
    const heard = WORDS.map((w) => {
      const own = picture(w, 32_000);
      const far = known.map((k) => k.reduce((sum, v, i) => sum + (v - (own[i] ?? 0)) ** 2, 0));
      return WORDS[far.indexOf(Math.min(...far))];
    });
    expect(heard).toEqual(WORDS);
  });
  it('sings every syllable of every voice, and whatever somebody types', () => {
    const all = VOICES.flatMap((v) => VOICE[v].sung).map((s) => s.toLowerCase());
    for (const s of [...all, 'dum', 'tschak', 'q', '123', 'ü', 'brrrrrrrrrrrrrrrrrr']) {
      const { samples, mark } = speak(s, RATE);
      expect(samples.length / RATE).toBeLessThan(0.6);
      expect(mark).toBeLessThan(samples.length);
      expect(samples.every((x) => Math.abs(x) <= 0.81)).toBe(true);
      expect(rms(samples, 0, samples.length)).toBeGreaterThan(0.01);
    }
  });
});

describe('a syllable on the audio clock', () => {
  const started: { when: number; offset: number }[] = [];
  const faded: number[] = [];
  const context = {
    sampleRate: RATE,
    createBuffer: (_: number, length: number) => ({ duration: length / RATE, copyToChannel: () => undefined }),
    createBufferSource: () => ({
      connect: (to: unknown) => to,
      start: (when: number, offset = 0) => started.push({ when, offset }),
    }),
    createGain: () => ({
      gain: { value: 1, setTargetAtTime: (_: number, at: number) => faded.push(at) },
      connect: (to: unknown) => to,
      disconnect: () => undefined,
    }),
  } as unknown as BaseAudioContext;
  const say = (word: string, when: number, room?: number): { when: number; offset: number } => {
    started.length = faded.length = 0;
    const event = {
      at: 0,
      offset: 0,
      sound: `say:${word}` as const,
      velocity: 100,
      limb: null,
      part: 'counts' as const,
    };
    schedule(context, new Map(), {} as AudioNode, event, when, room);
    return started[0]!;
  };
  it.each(WORDS)('the vowel of “%s” falls on the tick, not a sample off', (word) => {
    const { mark } = speak(word, RATE);
    const { when } = say(word, 2);
    expect(Math.round((when + mark / RATE - 2) * RATE * 1e6) / 1e6).toBe(0);
  });
  it('one that would begin before the clock starts is entered on its way', () => {
    const { mark } = speak('six', RATE);
    expect(say('six', 0.01)).toEqual({ when: 0, offset: mark / RATE - 0.01 });
  });
  it('is faded before the next where the slot is shorter, and left alone where it is not', () => {
    say('seven', 1, 0.08);
    expect(faded).toHaveLength(1);
    expect(faded[0]).toBeLessThan(1.08);
    say('seven', 1, 0.8);
    expect(faded).toHaveLength(0);
    const event = { at: 0, offset: 0, sound: 'say:e', velocity: 1, limb: null, part: 'counts', room: 1260 } as const;
    expect(roomOf(event, 120)).toBeCloseTo(0.125, 9);
  });
});
