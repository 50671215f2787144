import { chanceOf } from '../take';

/**
 * Recordings made by the tests, apart from the code that listens: kits of random make, a bass line, a chord pad, a
 * room, noise, and a drummer who drifts and strays.
 */

export type Struck = 'kick' | 'snare' | 'tom' | 'hat' | 'ride' | 'crash';

/** What each is, in the three words that Listen has for them. */
export const KIND_OF: Readonly<Record<Struck, 'kick' | 'drum' | 'cymbal'>> = {
  kick: 'kick',
  snare: 'drum',
  tom: 'drum',
  hat: 'cymbal',
  ride: 'cymbal',
  crash: 'cymbal',
};

export interface Blow {
  readonly at: number;
  readonly sound: Struck;
  /** Loudness as a factor: 1 for a plain stroke. */
  readonly gain: number;
}

/** A way to make a sound: samples that begin with its attack. */
export type MadeKit = (sound: Struck, gain: number) => Float32Array;

const { exp, floor, max, min, PI, round, sin } = Math;
const TAU = 2 * PI;

function made(seconds: number, rate: number, wave: (t: number, i: number) => number): Float32Array {
  return Float32Array.from({ length: round(seconds * rate) }, (_, i) => {
    const end = min(1, (seconds - i / rate) / 0.01);
    return wave(i / rate, i) * max(0, end);
  });
}

/** A kit of random spectra, all of it unlike the application's own voices. */
export function randomKit(seed: number, rate: number): MadeKit {
  const chance = chanceOf(seed);
  const between = (a: number, b: number): number => a + (b - a) * chance.next();
  const kick = {
    from: between(90, 220),
    to: between(42, 62),
    bend: between(0.015, 0.04),
    ring: between(0.07, 0.16),
    click: between(0.1, 0.5),
  };
  const snare = {
    tone: between(160, 240),
    wires: between(0.5, 1.1),
    ring: between(0.06, 0.14),
    body: between(0.04, 0.09),
  };
  const tom = { tone: between(80, 210), ring: between(0.12, 0.3), skin: between(0.1, 0.35) };
  const metal = Array.from({ length: 9 }, () => between(2400, 11_000));
  const hat = { ring: between(0.025, 0.06), noise: between(0.4, 1) };
  const ride = { ring: between(0.3, 0.7), ping: between(2300, 4200), noise: between(0.2, 0.5) };
  const phases = metal.map(() => between(0, TAU));
  const ringing = (t: number): number => metal.reduce((s, f, k) => s + sin(TAU * f * t + (phases[k] ?? 0)), 0) / 4;
  const noise = (): number => chance.next() * 2 - 1;
  const high = (): (() => number) => {
    let low = 0;
    return () => {
      const x = noise();
      low += 0.6 * (x - low);
      return x - low;
    };
  };
  const known = new Map<string, Float32Array>();
  const make: MadeKit = (sound, gain) => {
    // Softer strokes are duller, not only less loud.
    const bright = 0.55 + 0.45 * min(1, gain);
    const h = high();
    switch (sound) {
      case 'kick': {
        const { from, to, bend, ring, click } = kick;
        return made(
          0.5,
          rate,
          (t) =>
            gain *
            0.9 *
            (sin(TAU * (to * t + (from - to) * bend * (1 - exp(-t / bend)))) * exp(-t / ring) * min(1, t / 0.0012) +
              click * noise() * exp(-t / 0.003)),
        );
      }
      case 'snare':
        return made(
          0.4,
          rate,
          (t) =>
            gain *
            0.5 *
            ((sin(TAU * snare.tone * t) + 0.5 * sin(TAU * snare.tone * 1.83 * t)) * exp(-t / snare.body) +
              bright * snare.wires * h() * exp(-t / snare.ring)),
        );
      case 'tom':
        return made(
          0.7,
          rate,
          (t) =>
            gain *
            0.65 *
            (sin(TAU * tom.tone * (t + 0.012 * (1 - exp(-t / 0.03)))) * exp(-t / tom.ring) +
              bright * tom.skin * noise() * exp(-t / 0.008)),
        );
      case 'hat':
        return made(0.2, rate, (t) => gain * 0.28 * (ringing(t) * 0.5 + hat.noise * h()) * exp(-t / hat.ring));
      case 'ride':
        return made(
          1.4,
          rate,
          (t) =>
            gain *
            0.22 *
            ((ringing(t) * 0.6 + ride.noise * h()) * exp(-t / ride.ring) +
              0.8 * sin(TAU * ride.ping * t) * exp(-t / 0.1)),
        );
      case 'crash':
        return made(1.8, rate, (t) => gain * 0.5 * (ringing(t) * 0.3 + h()) * exp(-t / 0.5));
    }
  };
  // Strokes that are as loud are the same to the sample: a kit is struck thousands of times.
  return (sound, gain) => {
    const key = `${sound} ${round(gain * 25)}`;
    const there = known.get(key);
    if (there) return there;
    const fresh = make(sound, round(gain * 25) / 25);
    known.set(key, fresh);
    return fresh;
  };
}

export interface MadeRecording {
  readonly rate: number;
  readonly seconds: number;
  readonly kit: MadeKit;
  readonly blows: readonly Blow[];
  readonly seed: number;
  /** Level of noise, in dB under full scale; null for none. */
  readonly noise?: number;
  /** A bass line with its notes at these seconds, and a pad of chords. */
  readonly bass?: readonly number[];
  readonly pad?: boolean;
  /** How much the room gives back, 0–1. */
  readonly room?: number;
}

/** A scene as one channel of samples. */
export function recorded({ rate, seconds, kit, blows, seed, noise, bass, pad, room = 0 }: MadeRecording): Float32Array {
  const out = new Float32Array(round(seconds * rate));
  const chance = chanceOf(seed + 77);
  const put = (at: number, samples: Float32Array): void => {
    const from = round(at * rate);
    for (let i = 0; i < samples.length && from + i < out.length; i++)
      out[from + i] = (out[from + i] ?? 0) + (samples[i] ?? 0);
  };
  for (const b of blows) put(b.at, kit(b.sound, b.gain));
  if (room > 0) {
    const dry = out.slice();
    for (const [ms, share] of [
      [11, 0.32],
      [19, 0.27],
      [31, 0.2],
      [47, 0.15],
      [71, 0.1],
      [97, 0.07],
    ] as const) {
      const late = round((ms / 1000) * rate);
      for (let i = late; i < out.length; i++) out[i] = (out[i] ?? 0) + room * share * (dry[i - late] ?? 0);
    }
  }
  if (bass) {
    const scale = [41.2, 49, 55, 61.7, 65.4, 73.4];
    bass.forEach((at, k) => {
      const f = scale[floor(chance.next() * scale.length)] ?? 55;
      const long = min(0.9, (bass[k + 1] ?? at + 0.5) - at);
      put(
        at,
        made(
          long,
          rate,
          (t) =>
            0.22 *
            min(1, t / 0.012) *
            exp(-t / 0.7) *
            (sin(TAU * f * t) + 0.4 * sin(TAU * 2 * f * t) + 0.2 * sin(TAU * 3 * f * t)),
        ),
      );
    });
  }
  if (pad)
    for (let at = 0; at < seconds; at += 2.3)
      for (const f of [196, 246.9, 293.7, 392])
        put(
          at,
          made(
            2.5,
            rate,
            (t) =>
              0.035 *
              min(1, t / 0.25) *
              min(1, (2.5 - t) / 0.3) *
              (sin(TAU * f * t) + 0.3 * sin(TAU * 2.003 * f * t) + 0.15 * sin(TAU * 3.002 * f * t)),
          ),
        );
  if (noise !== undefined) {
    const level = 10 ** (noise / 20);
    for (let i = 0; i < out.length; i++) out[i] = (out[i] ?? 0) + level * (chance.next() * 2 - 1);
  }
  return out;
}

/** What a drummer plays: bars of slots, each with what is struck on it. */
export interface Played {
  /** Slots to a beat. */
  readonly perBeat: number;
  readonly beatsPerBar: number;
  readonly slots: readonly (readonly { readonly sound: Struck; readonly gain: number }[])[];
}

type Hits = { sound: Struck; gain: number }[];

/** A groove with hats, backbeats, ghosts and kicks, its second bar with a fill at its end. */
export function randomGroove(seed: number): Played {
  const chance = chanceOf(seed);
  const cymbal: Struck = chance.next() < 0.6 ? 'hat' : 'ride';
  const eighths = chance.next() < 0.7;
  const bar = Array.from({ length: 16 }, (_, i): Hits => {
    const hits: Hits = [];
    if (i % (eighths ? 2 : 1) === 0) hits.push({ sound: cymbal, gain: i % 4 === 0 ? 1.1 : 0.85 });
    if (i === 4 || i === 12) hits.push({ sound: 'snare', gain: 1.4 });
    else if (i === 0 || chance.next() < 0.18) hits.push({ sound: 'kick', gain: 1 });
    else if (i % 2 === 1 && chance.next() < 0.25) hits.push({ sound: 'snare', gain: 0.3 });
    return hits;
  });
  const fill = bar.map((h, i): Hits => {
    if (i < 12) return h;
    return [{ sound: i % 4 === 3 ? 'kick' : i < 14 ? 'snare' : 'tom', gain: i === 12 ? 1.3 : 0.9 }];
  });
  return { perBeat: 4, beatsPerBar: 4, slots: [...bar, ...bar, ...bar, ...fill] };
}

/** A linear lick: one sound a slot, some slots left out, accents and ghosts. */
export function randomLick(seed: number, perBeat: number, beatsPerBar: number, bars: number): Played {
  const chance = chanceOf(seed);
  const cell = Array.from({ length: perBeat * beatsPerBar }, (_, i): Hits => {
    if (i > 0 && chance.next() < 0.1) return [];
    const u = chance.next();
    const sound: Struck = i === 0 ? 'kick' : u < 0.25 ? 'kick' : u < 0.6 ? 'snare' : u < 0.75 ? 'tom' : cymbalOf(u);
    const gain = sound === 'kick' ? 1 : chance.next() < 0.25 ? 1.4 : chance.next() < 0.3 ? 0.35 : 0.9;
    return [{ sound, gain: sound === 'hat' || sound === 'ride' ? max(0.8, gain) : gain }];
  });
  return { perBeat, beatsPerBar, slots: Array.from({ length: bars }, () => cell).flat() };
}

function cymbalOf(u: number): Struck {
  return u < 0.9 ? 'hat' : 'ride';
}

/** How a drummer plays it: tempo, drift over the whole as a share, swing of the finest slots, spread in seconds. */
export interface Manner {
  readonly bpm: number;
  readonly begins: number;
  readonly drift?: number;
  /** Where the second of two slots lies, as a share of the pair. */
  readonly swing?: number;
  readonly spread?: number;
  readonly seed: number;
}

/** The blows of what is played, with the seconds of every beat, and the slot of every blow. */
export function playedOut(
  { perBeat, slots }: Played,
  { bpm, begins, drift = 0, swing = 0.5, spread = 0.004, seed }: Manner,
): {
  readonly blows: readonly Blow[];
  readonly beats: readonly number[];
  readonly slotOf: readonly number[];
  readonly ends: number;
} {
  const chance = chanceOf(seed + 5);
  const many = slots.length / perBeat;
  const beats = [begins];
  for (let b = 0; b < many; b++) beats.push((beats[b] ?? 0) + 60 / (bpm * (1 + (drift * b) / many)));
  const blows: Blow[] = [];
  const slotOf: number[] = [];
  slots.forEach((hits, i) => {
    const b = floor(i / perBeat);
    const pair = i % 2 === 1 && perBeat % 2 === 0 ? (2 * swing - 1) / perBeat : 0;
    const at = (beats[b] ?? 0) + ((i % perBeat) / perBeat + pair) * ((beats[b + 1] ?? 0) - (beats[b] ?? 0));
    for (const h of hits) {
      blows.push({
        at: max(0, at + spread * chance.normal()),
        sound: h.sound,
        gain: h.gain * (0.92 + 0.16 * chance.next()),
      });
      slotOf.push(i);
    }
  });
  return { blows, beats, slotOf, ends: beats.at(-1) ?? 0 };
}
