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
  const file = new SmfWalk(b, max);
  return file.head() ?? file.tracks();
}

const wrong = (code: SmfCode, byte: number, words: string): SmfFault => ({ code, byte, words });

/** A walk through a file, byte by byte, that stops at the first fault. */
class SmfWalk {
  private p = 14;
  /** Where the present track ends. */
  private end = 0;
  private events = 0;
  private seen = 0;
  private many = 0;

  constructor(
    private readonly b: Uint8Array,
    private readonly max: typeof SMF_LIMITS,
  ) {}

  head(): SmfFault | null {
    const { b, max } = this;
    if (b.length > max.bytes) return wrong('too-large', 0, `It is larger than ${max.bytes / 1_000_000} MB.`);
    if (b.length < 14 || this.tag(0) !== 'MThd' || this.long(4) !== 6)
      return wrong('not-midi', 0, 'It does not begin like a MIDI file.');
    const [format = 0, tracks = 0, division = 0] = [8, 10, 12].map((p) => (this.at(p) << 8) | this.at(p + 1));
    if (format > 2) return wrong('not-midi', 8, `Its type, ${format}, is unknown.`);
    if (division > 0x7fff)
      return wrong('no-beats', 12, 'It counts time in film frames (SMPTE), not in beats: it has no bars to read.');
    if (division === 0) return wrong('no-beats', 12, 'It does not say how long a beat is.');
    if (tracks === 0 || tracks > max.tracks) return wrong('too-many', 10, `It says that it has ${tracks} tracks.`);
    this.many = tracks;
    return null;
  }

  tracks(): SmfFault | null {
    while (this.p < this.b.length && this.seen < this.many) {
      const fault = this.track();
      if (fault) return fault;
    }
    if (this.seen === this.many) return null;
    return wrong('cut-off', this.b.length, `It says ${this.many} tracks and has ${this.seen}.`);
  }

  private track(): SmfFault | null {
    const { b, p } = this;
    if (p + 8 > b.length) return wrong('cut-off', p, `It is cut off before track ${this.seen + 1}.`);
    if (this.tag(p) !== 'MTrk') return wrong('damaged', p, `Track ${this.seen + 1} is not where it should be.`);
    this.end = p + 8 + this.long(p + 4);
    if (this.end > b.length) return wrong('cut-off', b.length, `It is cut off inside track ${this.seen + 1}.`);
    let [status, over] = [0, false];
    for (this.p += 8, this.seen++; this.p < this.end;) {
      const from = this.p;
      if (over) return wrong('damaged', from, `Something follows the end of track ${this.seen}.`);
      if (++this.events > this.max.events)
        return wrong('too-many', from, `It has more than ${this.max.events} events.`);
      if (this.count() < 0 || this.p >= this.end) return wrong('damaged', from, 'A time in it is broken.');
      const first = this.at(this.p);
      if (first === 0xff || first === 0xf0 || first === 0xf7) {
        const type = first === 0xff ? this.at(++this.p) : -1;
        const fault = this.setting(type, from);
        if (fault) return fault;
        over = type === 0x2f;
      } else {
        if (first > 0xf0 || (first < 0x80 && status === 0)) return wrong('damaged', from, 'It has an unknown message.');
        if (first >= 0x80) {
          status = first;
          this.p++;
        }
        if (!this.message(status)) return wrong('damaged', from, 'A message in it is broken.');
      }
    }
    return over ? null : wrong('damaged', this.end, `Track ${this.seen} has no end.`);
  }

  /** A text, a setting or a message of a maker: its type, or -1, was read. */
  private setting(type: number, from: number): SmfFault | null {
    this.p++;
    const n = this.count();
    const { p } = this;
    if (n < 0 || p + n > this.end || n !== (FIXED.get(type) ?? n))
      return wrong('damaged', from, 'A text or setting in it has a wrong length.');
    if (type === 0x58 && (this.at(p) === 0 || this.at(p + 1) > 6))
      return wrong('bad-meter', from, `A meter in it makes no sense: ${this.at(p)} beats of 1/${2 ** this.at(p + 1)}.`);
    if (type === 0x51 && (this.at(p) | this.at(p + 1) | this.at(p + 2)) === 0)
      return wrong('bad-tempo', from, 'A tempo in it is 0.');
    this.p += n;
    return null;
  }

  /** The data of a message; false where they are none. */
  private message(status: number): boolean {
    for (let i = (status & 0xe0) === 0xc0 ? 1 : 2; i > 0; i--, this.p++)
      if (this.p >= this.end || this.at(this.p) > 0x7f) return false;
    return true;
  }

  /** A number of up to four bytes; -1 where it is none. */
  private count(): number {
    for (let v = 0, i = 0; i < 4 && this.p < this.end; i++) {
      const c = this.at(this.p++);
      v = (v << 7) | (c & 0x7f);
      if (c < 0x80) return v;
    }
    return -1;
  }

  private at(p: number): number {
    return this.b[p] ?? -1;
  }

  private tag(p: number): string {
    return String.fromCharCode(...this.b.subarray(p, p + 4));
  }

  private long(p: number): number {
    return ((this.at(p) << 24) | (this.at(p + 1) << 16) | (this.at(p + 2) << 8) | this.at(p + 3)) >>> 0;
  }
}
