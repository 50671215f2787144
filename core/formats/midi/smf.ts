import { strFromU8, strToU8 } from 'fflate';
import { writeMidi, type MidiData } from 'midi-file';

/** Texts in a MIDI file are bytes, and the package takes each letter for one: UTF-8 goes in and out through these. */
export const bytesText = (text: string): string => strFromU8(strToU8(text), true);
export const textOfBytes = (raw: string): string => strFromU8(strToU8(raw, true));

/** The bytes of a Standard MIDI File. The package’s own writer copies all it has with every longer time or text. */
export function writeSmf({ header, tracks }: MidiData): Uint8Array {
  const out = writeMidi({ header, tracks: [] });
  [out[10], out[11]] = [tracks.length >> 8, tracks.length & 255];
  for (const track of tracks) {
    const body = track.flatMap((event) => writeMidi({ header, tracks: [[event]] }, { running: false }).slice(22));
    out.push(0x4d, 0x54, 0x72, 0x6b);
    out.push(body.length >>> 24, (body.length >> 16) & 255, (body.length >> 8) & 255, body.length & 255);
    for (const byte of body) out.push(byte);
  }
  return Uint8Array.from(out);
}

/** Lengths that a kind of setting must have. */
const FIXED = new Map([
  [0x00, 2],
  [0x20, 1],
  [0x21, 1],
  [0x2f, 0],
  [0x51, 3],
  [0x54, 5],
  [0x58, 4],
  [0x59, 2],
]);

export type SmfCode =
  'too-large' | 'not-midi' | 'no-beats' | 'cut-off' | 'damaged' | 'too-many' | 'bad-meter' | 'bad-tempo';

/** What is wrong with a file, and at which byte. */
export interface SmfFault {
  readonly code: SmfCode;
  readonly byte: number;
  readonly words: string;
}

/** Bounds of what is read. */
export const SMF_LIMITS = Object.freeze({ bytes: 4_000_000, events: 200_000, tracks: 256 });

/**
 * What is wrong with a Standard MIDI File, or null. Always asked before it is parsed: the parser believes every length,
 * and goes round for ever on some.
 */
export function faultOfSmf(b: Uint8Array, max = SMF_LIMITS): SmfFault | null {
  const at = (p: number): number => b[p] ?? -1;
  const tag = (p: number): string => String.fromCharCode(...b.subarray(p, p + 4));
  const long = (p: number): number => ((at(p) << 24) | (at(p + 1) << 16) | (at(p + 2) << 8) | at(p + 3)) >>> 0;
  const wrong = (code: SmfCode, byte: number, words: string): SmfFault => ({ code, byte, words });
  if (b.length > max.bytes) return wrong('too-large', 0, `It is larger than ${max.bytes / 1_000_000} MB.`);
  if (b.length < 14 || tag(0) !== 'MThd' || long(4) !== 6)
    return wrong('not-midi', 0, 'It does not begin like a MIDI file.');
  const [format = 0, tracks = 0, division = 0] = [8, 10, 12].map((p) => (at(p) << 8) | at(p + 1));
  if (format > 2) return wrong('not-midi', 8, `It is of a type ${format} that nobody knows.`);
  if (division > 0x7fff)
    return wrong('no-beats', 12, 'It counts time in film frames (SMPTE), not in beats: it has no bars to read.');
  if (division === 0) return wrong('no-beats', 12, 'It has no ticks to the beat, so nothing in it has a time.');
  if (tracks === 0 || tracks > max.tracks) return wrong('too-many', 10, `It says that it has ${tracks} tracks.`);
  let [p, events, seen, end] = [14, 0, 0, 0];
  const count = (): number => {
    for (let v = 0, i = 0; i < 4 && p < end; i++) {
      const c = at(p++);
      v = (v << 7) | (c & 0x7f);
      if (c < 0x80) return v;
    }
    return -1;
  };
  while (p < b.length && seen < tracks) {
    if (p + 8 > b.length) return wrong('cut-off', p, `It is cut off before track ${seen + 1}.`);
    if (tag(p) !== 'MTrk') return wrong('damaged', p, `Track ${seen + 1} is not where it should be.`);
    end = p + 8 + long(p + 4);
    if (end > b.length) return wrong('cut-off', b.length, `It is cut off inside track ${seen + 1}.`);
    let [status, over] = [0, false];
    for (p += 8, seen++; p < end;) {
      const from = p;
      if (over) return wrong('damaged', from, `Something follows the end of track ${seen}.`);
      if (++events > max.events) return wrong('too-many', from, `It has more than ${max.events} events.`);
      if (count() < 0 || p >= end) return wrong('damaged', from, 'A time in it is broken.');
      const first = at(p);
      if (first === 0xff || first === 0xf0 || first === 0xf7) {
        const type = first === 0xff ? at(++p) : -1;
        p++;
        const n = count();
        if (n < 0 || p + n > end || n !== (FIXED.get(type) ?? n))
          return wrong('damaged', from, 'A text or setting in it has a wrong length.');
        if (type === 0x58 && (at(p) === 0 || at(p + 1) > 6))
          return wrong('bad-meter', from, `A meter in it makes no sense: ${at(p)} beats of 1/${2 ** at(p + 1)}.`);
        if (type === 0x51 && (at(p) | at(p + 1) | at(p + 2)) === 0)
          return wrong('bad-tempo', from, 'A tempo in it is endlessly fast.');
        p += n;
        over = type === 0x2f;
      } else {
        if (first > 0xf0 || (first < 0x80 && status === 0))
          return wrong('damaged', from, 'It has a message nobody knows.');
        if (first >= 0x80) {
          status = first;
          p++;
        }
        for (let i = (status & 0xe0) === 0xc0 ? 1 : 2; i > 0; i--, p++)
          if (p >= end || at(p) > 0x7f) return wrong('damaged', from, 'A message in it is broken.');
      }
    }
    if (!over) return wrong('damaged', end, `Track ${seen} has no end.`);
  }
  return seen === tracks ? null : wrong('cut-off', b.length, `It says ${tracks} tracks and has ${seen}.`);
}
