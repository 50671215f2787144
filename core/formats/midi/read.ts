import { parseMidi, type MidiEvent } from 'midi-file';
import { clamp, readFail, type Read } from '../../base';
import { barTicks, meter, quarterTempo, TICKS_PER_QUARTER } from '../../time';
import { canStrike, footOf, parseStrokeText, slotsOf, USUAL_MAP, type MidiMap, type TypedStroke } from '../../stroke';
import { build } from '../../recipe';
import { readShared, type SharedPhrase } from '../shared';
import { countableMeter, dressed, SONG_LIMITS, type Song, type SongBar, type SongNote } from '../song';
import { faultOfSmf, textOfBytes, type SmfCode } from './smf';
import { DRUM_CHANNEL, OWN_TEXT, playedOut } from './write';

export type MidiCode = SmfCode | 'no-notes' | 'odd-meter' | 'too-long' | 'no-drums';

export interface MidiWish {
  readonly map: MidiMap;
  /** Channel whose notes are read, from 0; null for percussion’s, or all where that has none. */
  readonly channel: number | null;
}

interface Timed {
  /** In ticks of 5040 to a quarter, with a fraction. */
  readonly at: number;
  readonly event: MidiEvent;
}

/**
 * Reads a Standard MIDI File of type 0, 1 or 2 as a song: its bars by its meters, its notes on the voices of a map.
 * Never throws; where it cannot be read the first problem says why and at which byte.
 * @example
 * readMidi(new Uint8Array([77, 84])).problems[0].code // => "not-midi"
 */
export function readMidi(
  bytes: Uint8Array,
  { map, channel }: MidiWish = { map: USUAL_MAP, channel: null },
): Read<Song, MidiCode> {
  const fault = faultOfSmf(bytes);
  if (fault)
    return readFail(fault.code, { path: `byte ${fault.byte}` }, `This MIDI file cannot be read. ${fault.words}`);
  let parsed: ReturnType<typeof parseMidi>;
  try {
    parsed = parseMidi(bytes);
  } catch (error) {
    return readFail('damaged', null, `This MIDI file cannot be read: ${String(error)}.`);
  }
  const division = parsed.header.ticksPerBeat ?? 480;
  const events = timedOf(parsed.tracks, division, parsed.header.format === 2);
  const problems: string[] = [];
  const notes = notesOf(events, map, channel);
  if (notes.all === 0) return readFail('no-notes', null, 'There are no notes in this MIDI file.');
  if (notes.found.length === 0)
    return readFail('no-drums', null, `There are no notes on channel ${(channel ?? DRUM_CHANNEL) + 1}.`);
  const end = Math.max(...events.slice(-1).map((e) => e.at), notes.found.at(-1)?.at ?? 0);
  const bars = barsOf(events, end, problems);
  if (bars.length > SONG_LIMITS.bars) return readFail('too-long', null, `It is longer than ${SONG_LIMITS.bars} bars.`);
  const tempos = events.flatMap(({ event }) =>
    event.type === 'setTempo' ? [60_000_000 / event.microsecondsPerBeat] : [],
  );
  const bpm = clamp(tempos[0] ?? 120, 5, 1000);
  const name = events.flatMap(({ event }) => (event.type === 'trackName' ? [textOfBytes(event.text)] : []))[0] ?? '';
  const own = ownOf(events, notes.found, map);
  const song: Song = {
    name: name.trim().slice(0, 200),
    bpm,
    tempos: Math.max(1, new Set(tempos.map((t) => Math.round(t * 10))).size),
    bars,
    channels: notes.channels,
    notes: dressed(pinned(notes.found, events), 60 / bpm / TICKS_PER_QUARTER),
    feel: null,
    written: false,
    own,
  };
  return {
    ok: true,
    value: song,
    problems: problems.map((message) => ({ code: 'odd-meter' as const, at: null, message })),
  };
}

/** All events with their times, in order; tracks of type 2 stand one after the other. */
function timedOf(tracks: readonly (readonly MidiEvent[])[], division: number, apart: boolean): readonly Timed[] {
  const all: Timed[] = [];
  let from = 0;
  for (const track of tracks) {
    let tick = apart ? from : 0;
    for (const event of track) {
      tick += event.deltaTime;
      all.push({ at: (tick * TICKS_PER_QUARTER) / division, event });
    }
    from = Math.max(from, tick);
  }
  return all
    .map((t, i) => ({ t, i }))
    .sort((a, b) => a.t.at - b.t.at || a.i - b.i)
    .map(({ t }) => t);
}

interface Raw extends SongNote {
  readonly key: number;
}

function notesOf(
  events: readonly Timed[],
  map: MidiMap,
  channel: number | null,
): { readonly found: readonly Raw[]; readonly all: number; readonly channels: readonly number[] } {
  const ons = events.flatMap(({ at, event }) => (event.type === 'noteOn' && event.velocity > 0 ? [{ at, event }] : []));
  const drums = ons.filter(({ event }) => event.channel === DRUM_CHANNEL);
  const own = channel !== null ? ons.filter(({ event }) => event.channel === channel) : drums.length > 0 ? drums : ons;
  const found = own.map(({ at, event }): Raw => ({
    at,
    voice: map[String(event.noteNumber)] ?? null,
    sound: `key ${event.noteNumber}`,
    key: event.noteNumber,
    velocity: Math.min(127, event.velocity),
  }));
  const channels = [...new Set(ons.map(({ event }) => event.channel))].sort((a, b) => a - b);
  return { found, all: ons.length, channels };
}

/** Bars by the meters of the file; a meter that cannot be counted here is told, and 4/4 stands for it. */
function barsOf(events: readonly Timed[], end: number, problems: string[]): readonly SongBar[] {
  const changes = events.flatMap(({ at, event }) =>
    event.type === 'timeSignature' ? [{ at, beats: event.numerator, unit: event.denominator }] : [],
  );
  const bars: SongBar[] = [];
  let [at, own, next] = [0, meter(4, 4), 0];
  while ((at < end || bars.length === 0) && bars.length <= SONG_LIMITS.bars) {
    for (; next < changes.length; next++) {
      const change = changes[next];
      if (!change || change.at > at + 1) break;
      const found = countableMeter(change.beats, change.unit);
      if (!found)
        problems.push(`Bar ${bars.length + 1} is in ${change.beats}/${change.unit}, which is read as 4/4 here.`);
      own = found ?? meter(4, 4);
    }
    bars.push({ number: bars.length + 1, at, meter: own });
    at += barTicks(own);
  }
  return bars;
}

/** The phrase a file of ours carries, where its notes are still those of the phrase. */
function ownOf(events: readonly Timed[], notes: readonly Raw[], map: MidiMap): SharedPhrase | null {
  for (const { event } of events) {
    if (event.type !== 'text' || !event.text.startsWith(OWN_TEXT)) continue;
    const read = readShared(textOfBytes(event.text.slice(OWN_TEXT.length)));
    if (!read.ok) return null;
    const phrase = read.value;
    const { pattern } = build(phrase.recipe);
    const tempo = events.find((e) => e.event.type === 'setTempo')?.event;
    const said = tempo?.type === 'setTempo' ? 60_000_000 / tempo.microsecondsPerBeat : 120;
    if (Math.abs(said - quarterTempo(phrase.tempo, pattern.meter)) > 0.01 * said) return null;
    const key = (n: { readonly at: number; readonly key: number; readonly velocity: number }): string =>
      `${Math.round(n.at)} ${n.key} ${n.velocity}`;
    const meant = playedOut(pattern, phrase.tempo, map).notes.map(key).sort();
    return meant.join() === notes.map(key).sort().join() ? phrase : null;
  }
  return null;
}

/** Notes with the limbs that lyrics give them, as files of ours do: "R", "l+K", "fR!". */
function pinned(notes: readonly Raw[], events: readonly Timed[]): readonly SongNote[] {
  const said = new Map<number, readonly TypedStroke[]>();
  for (const { at, event } of events) {
    if (event.type !== 'lyrics' || event.text.length > 40) continue;
    const read = parseStrokeText(event.text);
    const strokes = read.ok ? (slotsOf(read.value)[0] ?? []) : [];
    if (strokes.length > 0) said.set(Math.round(at), strokes);
  }
  if (said.size === 0) return notes;
  const used = new Set<TypedStroke>();
  return notes.map((n) => {
    const { voice } = n;
    if (voice === null) return n;
    const here = said.get(Math.round(n.at)) ?? [];
    const limb = here.find(
      (s) => !used.has(s) && canStrike(s.limb, voice) && (footOf(voice) !== null || 'RL'.includes(s.limb)),
    );
    if (!limb) return n;
    used.add(limb);
    return { ...n, limb: limb.limb };
  });
}
