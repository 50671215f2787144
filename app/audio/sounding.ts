import { sampleAt, secondsAt, type Anchor, type PlaybackEvent, type Sound } from '@core/playback';
import { BUFFER_NAMES, playing, synthesise, type BufferName, type Samples } from './voices';

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
}

const HATS: readonly Sound[] = ['hat-closed', 'hat-half', 'hat-open', 'hat-foot'];

/** Seconds in which a closing hi-hat stops the one that rings. */
const CHOKE = 0.012;

export function isHat(sound: Sound): boolean {
  return HATS.includes(sound);
}

/** When an event sounds, laid on a whole sample so that the sound begins there and not between two. */
export function whenOf(event: PlaybackEvent, anchor: Anchor, rate: number): number {
  return sampleAt(secondsAt(anchor, event.at) + event.offset, rate) / rate;
}

/** Hands one event to the audio clock, exact to the sample. The one way anything sounds, live and offline. */
export function hand(
  context: BaseAudioContext,
  bank: Bank,
  out: AudioNode,
  event: PlaybackEvent,
  when: number,
): Handed | null {
  const { name, gain: loudness } = playing(event.sound, event.velocity);
  const buffer = bank.get(name);
  if (!buffer) return null;
  const source = context.createBufferSource();
  source.buffer = buffer;
  const gain = context.createGain();
  gain.gain.value = loudness;
  source.connect(gain).connect(out);
  source.onended = () => gain.disconnect();
  source.start(Math.max(0, when));
  return { event, when, source, gain };
}

/** Lets a ringing hi-hat be stopped by the next stroke on the same pair. */
export function choke(ringing: Handed, at: number): void {
  ringing.gain.gain.setTargetAtTime(0, at, CHOKE / 3);
}

/** Takes a sound back that has not begun. */
export function takeBack(handed: Handed): void {
  handed.source.stop();
  handed.source.disconnect();
  handed.gain.disconnect();
}
