import type { MidiEvent } from 'midi-file';
import { barTicks, quarterTempo, TICKS_PER_QUARTER, type Meter } from '../../time';
import { asTyped, midiKeyOf, printTyped, USUAL_MAP, VOICES, type MidiMap, type Stroke } from '../../stroke';
import { loopTicks, pickupOf, pickupTicks, type Pattern } from '../../pattern';
import { eventsIn, programOf } from '../../playback';
import { build } from '../../recipe';
import { sharedText, type SharedPhrase } from '../shared';
import { bytesText, writeSmf } from './smf';

/** What stands before the phrase as text in a file of ours. */
export const OWN_TEXT = 'loop-shelf ';
/** Percussion’s channel, counted from 0. */
export const DRUM_CHANNEL = 9;
/** A drum’s note lasts so many ticks, and never into the next on its key: a 64th. */
const LASTS = TICKS_PER_QUARTER / 16;

/** A note of a phrase as it is played out. */
export interface PlayedNote {
  /** Whole ticks from where the file begins. */
  readonly at: number;
  readonly key: number;
  readonly velocity: number;
}

/** A phrase played out once, with what stands before its 1 and how long it is in all. */
export interface PlayedOut {
  readonly notes: readonly PlayedNote[];
  /** Ticks from where the file begins to the first bar line of the phrase: whole bars, for what leads in. */
  readonly lead: number;
  readonly length: number;
}

/**
 * A phrase played out as notes at a tempo in counted beats a minute: swing, grace strokes and bounces where they sound,
 * ghosts and accents as velocities, a key for each voice. What sounds before the 1 stands in a bar of its own.
 */
export function playedOut(pattern: Pattern, bpm: number, map: MidiMap = USUAL_MAP): PlayedOut {
  const bar = barTicks(pattern.meter);
  const quarter = quarterTempo(bpm, pattern.meter);
  const program = programOf(pattern, { click: 'none', countInBars: 0 });
  const loop = loopTicks(pattern);
  const events = eventsIn(program, 0 - Math.max(0, pickupTicks(pattern)), loop).filter((e) => e.limb !== null);
  const perSecond = (quarter / 60) * TICKS_PER_QUARTER;
  const raw = events.flatMap((e) => {
    const voice = VOICES.find((v) => v === e.sound);
    return voice
      ? [{ at: Math.round(e.at + e.offset * perSecond), key: midiKeyOf(voice, map), velocity: e.velocity }]
      : [];
  });
  const first = raw.reduce((least, n) => Math.min(least, n.at), 0);
  const lead = Math.ceil(-first / bar) * bar;
  const notes = raw.map((n) => ({ ...n, at: n.at + lead }));
  // One key sounds once at a time: of two that meet the louder stays.
  const kept = new Map<string, PlayedNote>();
  for (const n of notes) {
    const key = `${n.at} ${n.key}`;
    if ((kept.get(key)?.velocity ?? 0) < n.velocity) kept.set(key, n);
  }
  return { notes: [...kept.values()].sort((a, b) => a.at - b.at || a.key - b.key), lead, length: lead + loop };
}

/**
 * A phrase as a Standard MIDI File of type 0: tempo, meter, the notes on percussion’s channel, the sticking as lyrics
 * ("R", "l+K", "fR!"), and the phrase itself as a text, so that it comes back with its recipe. 5040 ticks to a quarter.
 */
export function midiOf(phrase: SharedPhrase, map: MidiMap = USUAL_MAP): Uint8Array {
  const { pattern } = build(phrase.recipe);
  const out = playedOut(pattern, phrase.tempo, map);
  const { meter } = pattern;
  const timed: { readonly at: number; readonly order: number; readonly event: MidiEvent }[] = [];
  const add = (at: number, order: number, event: unknown): void => {
    timed.push({ at, order, event: event as MidiEvent });
  };
  add(0, 0, { meta: true, type: 'trackName', text: bytesText(phrase.name.slice(0, 200)) });
  add(0, 1, { meta: true, type: 'text', text: bytesText(OWN_TEXT + sharedText(phrase)) });
  const microseconds = Math.min(0xffffff, Math.round(60_000_000 / quarterTempo(phrase.tempo, meter)));
  add(0, 2, { meta: true, type: 'setTempo', microsecondsPerBeat: microseconds });
  add(0, 3, { ...timeSignature(meter), meta: true, type: 'timeSignature' });
  for (const [at, text] of stickingOf(pattern, out.lead)) add(at, 5, { meta: true, type: 'lyrics', text });
  // From the last to the first, so that the next on its key is known.
  const nextOn = new Map<number, number>();
  const ends = out.notes.map(() => 0);
  for (let i = out.notes.length - 1; i >= 0; i--) {
    const n = out.notes[i];
    if (!n) continue;
    ends[i] = Math.min(n.at + LASTS, nextOn.get(n.key) ?? Infinity);
    nextOn.set(n.key, n.at);
  }
  out.notes.forEach((n, i) => {
    const note = { channel: DRUM_CHANNEL, noteNumber: n.key };
    add(n.at, 6, { ...note, type: 'noteOn', velocity: n.velocity });
    add(ends[i] ?? n.at, 4, { ...note, type: 'noteOff', velocity: 0 });
  });
  const last = timed.reduce((most, t) => Math.max(most, t.at), out.length);
  add(last, 9, { meta: true, type: 'endOfTrack' });
  timed.sort((a, b) => a.at - b.at || a.order - b.order);
  let before = 0;
  const track = timed.map(({ at, event }) => {
    const deltaTime = at - before;
    before = at;
    return { ...event, deltaTime };
  });
  return writeSmf({ header: { format: 0, numTracks: 1, ticksPerBeat: TICKS_PER_QUARTER }, tracks: [track] });
}

function timeSignature({ beats, unit }: Meter): object {
  return { numerator: beats, denominator: unit, metronome: Math.max(1, Math.round(96 / unit)), thirtyseconds: 8 };
}

/** The sticking by the tick at which it stands in the file, the limbs of a moment together. */
function stickingOf(pattern: Pattern, lead: number): readonly (readonly [number, string])[] {
  const byTick = new Map<number, string[]>();
  const add = (s: Stroke, from: number): void => {
    const at = Math.max(0, from + s.at);
    const { voice: _voice, grace: _grace, ...plain } = asTyped(s);
    byTick.set(at, [...(byTick.get(at) ?? []), printTyped(plain)]);
  };
  pickupOf(pattern).forEach((s) => add(s, lead));
  pattern.strokes.forEach((s) => add(s, lead + pattern.start));
  return [...byTick].sort((a, b) => a[0] - b[0]).map(([at, words]) => [at, words.join('+')]);
}
