import { eventsIn, syllableSaid, tickOfRecord, type Loudness, type PlaybackEvent, type Struck } from '@core/playback';
import { partSeconds, type TrackPart } from '@core/rendition';
import { secondsOf, TICKS_PER_QUARTER } from '@core/time';
import { isHat } from './hats';
import { speak } from './speech';
import { gainOf, playing, synthesise } from './voices';

// The same sounds on the same samples as the transport hands them to the audio clock, added up without a page: for
// files, in a worker. A test lays both on the same samples, by the transport's own arithmetic.

/** Time constants of the fades, in seconds, as the transport sets them. */
const CHOKE = 0.012 / 3;
const FADE = 0.02;
/** Events are taken up in stretches of so many ticks, so that an hour needs no more memory than a minute. */
const STRETCH = 32 * TICKS_PER_QUARTER;

interface Sounding {
  readonly samples: Float32Array;
  readonly gain: number;
  /** Samples from its beginning to what falls on the tick. */
  readonly mark: number;
}

/** A sound that is being added: from where on its next sample goes, and where it is damped from. */
interface Voice {
  readonly sounding: Sounding;
  readonly begin: number;
  damped: { at: number; constant: number } | null;
}

/**
 * A track as samples, in blocks: sound after sound on the sample on which the transport would start it. The last block
 * holds what rings on after the end.
 */
export function* mixed(
  parts: readonly TrackPart[],
  rate: number,
  loudness: Loudness,
  block = rate,
): Generator<Float32Array, void> {
  const bank = new Map<string, Sounding>();
  const total = Math.ceil(parts.reduce((n, p) => n + partSeconds(p), 0) * rate);
  let sounding: Voice[] = [];
  let hat: Voice | null = null;
  const events = eventsOf(parts, rate);
  let next = events.next();
  // Sounds that reach before their tick, as graces and syllables do, are known a little ahead.
  const ahead = rate;
  for (let from = 0; from < total || sounding.length > 0; from += block) {
    const out = new Float32Array(block);
    while (!next.done && next.value.sample < from + block + ahead) {
      const { event, sample, bpm } = next.value;
      const voice = voiceOf(bank, event, sample, rate, loudness, bpm);
      if (voice) {
        if (isHat(event.sound)) {
          if (hat) hat.damped = { at: sample, constant: CHOKE * rate };
          hat = voice;
        }
        sounding.push(voice);
      }
      next = events.next();
    }
    for (const voice of sounding) add(out, from, voice);
    sounding = sounding.filter((v) => v.begin + v.sounding.samples.length > from + block);
    yield out;
  }
}

/** Every event of a track with the sample on which it falls, in order; parts follow each other without a gap. */
function* eventsOf(
  parts: readonly TrackPart[],
  rate: number,
): Generator<{ readonly event: PlaybackEvent; readonly sample: number; readonly bpm: number }, undefined> {
  let seconds = 0;
  for (const part of parts) {
    const { program, bpm } = part.request;
    for (let a = part.from; a < part.until; a += STRETCH) {
      const found = eventsIn(program, a, Math.min(part.until, a + STRETCH)).map((event) => ({
        event,
        sample: Math.max(0, Math.round((seconds + secondsOf(event.at - part.from, bpm) + event.offset) * rate)),
        bpm,
      }));
      yield* found.sort((x, y) => x.sample - y.sample);
    }
    seconds += partSeconds(part);
  }
  return undefined;
}

function voiceOf(
  bank: Map<string, Sounding>,
  event: PlaybackEvent,
  sample: number,
  rate: number,
  loudness: Loudness,
  bpm: number,
): Voice | null {
  // What is written to a file is made from nothing: whose the record is, is not ours to say.
  if (tickOfRecord(event.sound) !== null) return null;
  const word = syllableSaid(event.sound);
  const gain = loudness[event.part];
  const made = word === null ? struck(bank, event, rate) : spoken(bank, word, event.velocity, rate);
  const sounding = { ...made, gain: made.gain * gain };
  if (sounding.gain === 0) return null;
  const begin = sample - sounding.mark;
  const room = event.room === undefined ? null : secondsOf(event.room, bpm) * rate;
  const over = room !== null && begin + sounding.samples.length > sample + room;
  return {
    sounding,
    begin,
    damped: over ? { at: sample + room - FADE * rate, constant: (FADE / 4) * rate } : null,
  };
}

function struck(bank: Map<string, Sounding>, { sound, velocity }: PlaybackEvent, rate: number): Sounding {
  const { name, gain } = playing(sound as Struck, velocity);
  return { ...made(bank, name, () => ({ samples: synthesise(name, rate), mark: 0 })), gain };
}

function spoken(bank: Map<string, Sounding>, word: string, velocity: number, rate: number): Sounding {
  return { ...made(bank, `say:${word}`, () => speak(word, rate)), gain: gainOf(velocity) };
}

function made(
  bank: Map<string, Sounding>,
  name: string,
  make: () => { readonly samples: Float32Array; readonly mark: number },
): Sounding {
  let own = bank.get(name);
  if (!own) bank.set(name, (own = { ...make(), gain: 1 }));
  return own;
}

function add(out: Float32Array, from: number, { sounding, begin, damped }: Voice): void {
  const { samples, gain } = sounding;
  const first = Math.max(0, from - begin);
  const last = Math.min(samples.length, from + out.length - begin);
  for (let i = first; i < last; i++) {
    const at = begin + i;
    const down = damped && at > damped.at ? Math.exp((damped.at - at) / damped.constant) : 1;
    const index = at - from;
    if (index >= 0) out[index] = (out[index] ?? 0) + (samples[i] ?? 0) * gain * down;
  }
}

/** A blow that is to sound: seconds from the beginning, on what, and how hard. */
export interface Blow {
  readonly at: number;
  readonly sound: Struck;
  readonly velocity: number;
}

/** Blows at any moments, as samples: a phrase along a record that does not keep one tempo. */
export function renderStrokes(blows: readonly Blow[], seconds: number, rate: number): Float32Array<ArrayBuffer> {
  const out = new Float32Array(Math.max(1, Math.round(seconds * rate)));
  const bank = new Map<string, Float32Array>();
  for (const { at, sound, velocity } of blows) {
    const { name, gain } = playing(sound, velocity);
    const samples = bank.get(name) ?? synthesise(name, rate);
    bank.set(name, samples);
    const from = Math.round(at * rate);
    for (let i = Math.max(0, -from); i < samples.length && from + i < out.length; i++)
      out[from + i] = (out[from + i] ?? 0) + gain * (samples[i] ?? 0);
  }
  return out;
}
