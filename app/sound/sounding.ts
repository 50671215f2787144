import {
  sampleAt,
  secondsAt,
  syllableSaid,
  type Anchor,
  type PlaybackEvent,
  tickOfRecord,
  type Struck,
} from '@core/playback';
import { BACKING } from '@core/listen';
import { secondsOf } from '@core/time';
import { speak } from './speech';
import { BUFFER_NAMES, gainOf, playing, synthesise, type BufferName, type Samples } from './voices';

/** The buffers of a context, made once. */
export type Bank = ReadonlyMap<BufferName, AudioBuffer>;

/** Every sound made for a context; `make` can be replaced to measure with single-sample sounds. */
export function makeBank(
  context: BaseAudioContext,
  make: (name: BufferName, rate: number) => Samples = synthesise,
): Bank {
  return new Map(
    BUFFER_NAMES.map((name) => {
      const samples = make(name, context.sampleRate);
      const buffer = context.createBuffer(1, Math.max(1, samples.length), context.sampleRate);
      buffer.copyToChannel(samples, 0);
      return [name, buffer];
    }),
  );
}

/** A sound that was handed to the audio clock: it can still be called back before it begins. */
export interface Handed {
  readonly event: PlaybackEvent;
  readonly when: number;
  readonly source: AudioBufferSourceNode;
  readonly gain: GainNode;
  /** When a stretch of a record is over; what is struck rings as long as it does. */
  readonly until?: number;
}

/** Seconds in which a closing hi-hat stops the one that rings. */
const CHOKE = 0.012;

/** When an event sounds, laid on a whole sample so that the sound begins there and not between two. */
export function whenOf(event: PlaybackEvent, anchor: Anchor, rate: number): number {
  return sampleAt(secondsAt(anchor, event.at) + event.offset, rate) / rate;
}

/**
 * Hands one event to the audio clock, exact to the sample. The one way anything sounds, live and offline. `room` is how
 * many seconds it may last, where it must be over by then.
 */
export function schedule(
  context: BaseAudioContext,
  bank: Bank,
  out: AudioNode,
  event: PlaybackEvent,
  when: number,
  room?: number,
): Handed | null {
  const word = syllableSaid(event.sound);
  const said = word === null ? struck(bank, event) : spoken(context, word, event.velocity);
  if (!said) return null;
  const source = context.createBufferSource();
  source.buffer = said.buffer;
  const gain = context.createGain();
  gain.gain.value = said.gain;
  source.connect(gain).connect(out);
  source.onended = () => gain.disconnect();
  // The vowel of a syllable falls on the tick: what comes before it sounds before.
  const begin = when - said.mark;
  source.start(Math.max(0, begin), Math.max(0, -begin));
  if (room !== undefined && begin + said.buffer.duration > when + room)
    gain.gain.setTargetAtTime(0, Math.max(0, when + room - FADE), FADE / 4);
  return { event, when, source, gain };
}

/** A stretch of a record begins so long before its tick, in seconds, and takes over from the one before in so long. */
const EARLY = 0.008;
const JOIN = 0.003;

/**
 * Hands a stretch of a record, from a tick of it on, to the audio clock. It takes over from the one before where both
 * are the same samples, so that what goes on sounds as one; attacks at the tick itself are not touched.
 */
export function handRecord(
  context: BaseAudioContext,
  buffer: AudioBuffer,
  out: AudioNode,
  event: PlaybackEvent,
  when: number,
  bpm: number,
): Handed {
  const source = context.createBufferSource();
  source.buffer = buffer;
  const gain = context.createGain();
  const begin = Math.max(0, when - EARLY);
  const until = when + secondsOf(event.room ?? 0, bpm) - EARLY;
  gain.gain.setValueAtTime(0, begin);
  gain.gain.linearRampToValueAtTime(gainOf(event.velocity), begin + JOIN);
  gain.gain.setValueAtTime(gainOf(event.velocity), until);
  gain.gain.linearRampToValueAtTime(0, until + JOIN);
  source.connect(gain).connect(out);
  source.onended = () => gain.disconnect();
  const from = BACKING.lead + secondsOf(tickOfRecord(event.sound) ?? 0, bpm) - (when - begin);
  source.start(begin, from, until + JOIN - begin);
  return { event, when, source, gain, until };
}

/** Seconds in which a syllable is faded that would reach into the next. */
const FADE = 0.02;

interface Sounding {
  readonly buffer: AudioBuffer;
  readonly gain: number;
  /** Seconds from its beginning to what falls on the tick. */
  readonly mark: number;
}

function struck(bank: Bank, { sound, velocity }: PlaybackEvent): Sounding | null {
  const { name, gain } = playing(sound as Struck, velocity);
  const buffer = bank.get(name);
  return buffer ? { buffer, gain, mark: 0 } : null;
}

/** Syllables that a context has spoken already. */
const spokenBefore = new WeakMap<BaseAudioContext, Map<string, Omit<Sounding, 'gain'>>>();

function spoken(context: BaseAudioContext, word: string, velocity: number): Sounding {
  const known = spokenBefore.get(context) ?? new Map<string, Omit<Sounding, 'gain'>>();
  spokenBefore.set(context, known);
  let own = known.get(word);
  if (!own) {
    const { samples, mark } = speak(word, context.sampleRate);
    const buffer = context.createBuffer(1, Math.max(1, samples.length), context.sampleRate);
    buffer.copyToChannel(samples, 0);
    own = { buffer, mark: mark / context.sampleRate };
    known.set(word, own);
  }
  return { ...own, gain: gainOf(velocity) };
}

/** Seconds that an event may last at a tempo in quarters a minute; undefined for what may ring. */
export function roomOf({ room }: PlaybackEvent, bpm: number): number | undefined {
  return room === undefined ? undefined : secondsOf(room, bpm);
}

/** Lets a ringing hi-hat be stopped by the next stroke on the same pair. */
export function choke(ringing: Handed, at: number): void {
  ringing.gain.gain.setTargetAtTime(0, at, CHOKE / 3);
}

/** Takes a sound back that has not begun; of a record also what sounds. */
export function takeBack({ source, gain, until, when }: Handed): void {
  if (until !== undefined && when - EARLY < source.context.currentTime) {
    const now = source.context.currentTime;
    gain.gain.cancelScheduledValues(now);
    gain.gain.setTargetAtTime(0, now, JOIN);
    source.stop(now + 6 * JOIN);
    return;
  }
  source.stop();
  source.disconnect();
  gain.disconnect();
}
