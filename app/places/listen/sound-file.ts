import { count } from '@core/base';

/** The rate at which recordings are listened to, in Hz. */
export const LISTEN_RATE = 44_100;
/** The largest file and the longest recording that are read: an hour of sound alone would fill the memory. */
export const RECORDING_LIMITS = Object.freeze({ bytes: 200_000_000, seconds: 15 * 60, least: 0.3 });
/** A file of which the browser cannot say how long it is may be this large, in bytes: less than an hour of anything. */
const MOST_UNKNOWN = 30_000_000;
/** So long a browser may take to say how long a file is, in ms; it need not know. */
const LENGTH_MS = 4000;

/** A recording that was read; or what stood in the way, in words. */
export type ReadSound =
  { readonly ok: true; readonly buffer: AudioBuffer } | { readonly ok: false; readonly words: string };

const KINDS = 'Use WAV, MP3, FLAC, Ogg or m4a (AAC).';

/** Reads a file as sound, whatever the browser can. Long ones are refused before they are unpacked. */
export async function readSound(file: Blob): Promise<ReadSound> {
  if (file.size === 0) return no('This file is empty.');
  if (file.size > RECORDING_LIMITS.bytes)
    return no(`This file is larger than ${RECORDING_LIMITS.bytes / 1_000_000} MB. Cut out the minutes you want first.`);
  const seconds = await lengthOf(file);
  if (seconds !== null && seconds > RECORDING_LIMITS.seconds) return no(tooLong(seconds));
  if (seconds === null && file.size > MOST_UNKNOWN)
    return no(`This is large and its length is unknown. Cut out the minutes you want first. ${KINDS}`);
  try {
    const context = new OfflineAudioContext(1, 1, LISTEN_RATE);
    const buffer = await context.decodeAudioData(await file.arrayBuffer());
    if (buffer.duration > RECORDING_LIMITS.seconds) return no(tooLong(buffer.duration));
    if (buffer.duration < RECORDING_LIMITS.least) return no('This file is almost silent.');
    return { ok: true, buffer };
  } catch {
    return no(`This file has no sound that can be read: it is damaged, locked or something else. ${KINDS}`);
  }
}

function no(words: string): ReadSound {
  return { ok: false, words };
}

function tooLong(seconds: number): string {
  const most = RECORDING_LIMITS.seconds / 60;
  return `This is ${minutes(seconds)} long; the most is ${most} minutes. Cut out the part with the lick first.`;
}

function minutes(seconds: number): string {
  const whole = Math.round(seconds / 60);
  return whole >= 60 ? `${count(Math.floor(whole / 60), 'hour')} ${whole % 60} min` : `${whole} min`;
}

/** How long a file says it is, in seconds, without unpacking it; null where the browser does not say. */
function lengthOf(file: Blob): Promise<number | null> {
  return new Promise((done) => {
    const audio = new Audio();
    const address = URL.createObjectURL(file);
    const tell = (seconds: number | null): void => {
      clearTimeout(late);
      audio.removeAttribute('src');
      URL.revokeObjectURL(address);
      done(seconds);
    };
    const late = setTimeout(() => tell(null), LENGTH_MS);
    audio.preload = 'metadata';
    audio.onloadedmetadata = () => tell(Number.isFinite(audio.duration) ? audio.duration : null);
    audio.onerror = () => tell(null);
    audio.src = address;
  });
}
