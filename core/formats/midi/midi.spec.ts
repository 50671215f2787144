import fc from 'fast-check';
import { Midi } from '@tonejs/midi';
import { GRID, meter, ticks } from '../../time';
import { footOf, LEVEL_DEFAULTS, midiKeyOf, parseStrokeText, USUAL_MAP, VOICE, type Voice } from '../../stroke';
import { loopTicks, patternOfText, type Pattern } from '../../pattern';
import { build, isSame, recipeOf, type Recipe } from '../../recipe';
import { KIT_PRESETS } from '../../kit';
import { USUAL_PROFILE } from '../../reach';
import { anyRecipe } from '../../testing/arbitraries';
import { choicesFor, distinctBars, takeBars, type Song } from '../song';
import type { SharedPhrase } from '../shared';
import { faultOfSmf } from './smf';
import { midiOf, readMidi } from '.';
import { casesTried } from '../../testing/cases';

const sharedBy = (recipe: Recipe, tempo = 96): SharedPhrase => ({
  name: 'Röpe',
  family: 'fill',
  recipe,
  tempo,
  goal: 104,
  note: 'after the hat',
});

function songOf(bytes: Uint8Array): Song {
  const read = readMidi(bytes);
  if (!read.ok) throw new Error(read.problems[0].message);
  return read.value;
}
const WISH = { kit: KIT_PRESETS[0]!, profile: USUAL_PROFILE, bpm: 90 };

/** The same file without our own text in it: what stays is what any program would keep. */
function withoutOwn(bytes: Uint8Array): Uint8Array {
  const text = new TextDecoder('latin1').decode(bytes);
  const at = text.indexOf('loop-shelf ');
  const copy = bytes.slice();
  copy.set(new TextEncoder().encode('nobodys-own'), at);
  return copy;
}

describe('a phrase as a MIDI file', () => {
  it('comes back the same, whatever its meter, grids, ornaments, pick-up and swing', () => {
    let back = 0;
    fc.assert(
      fc.property(anyRecipe, fc.integer({ min: 20, max: 400 }), (recipe, tempo) => {
        const { pattern } = build(recipe);
        fc.pre(pattern.strokes.length > 0 && pattern.strokes.length < 400);
        const phrase = sharedBy(recipe, tempo);
        const bytes = midiOf(phrase);
        expect(faultOfSmf(bytes)).toBeNull();
        expect(songOf(bytes).own).toEqual(phrase);
        back++;
      }),
      { numRuns: 120 },
    );
    expect(back).toBeGreaterThan(casesTried(100));
  });
  it('without our own text: the same strokes to the tick, with sticking, ghosts, accents and flams', () => {
    const slot = fc.constantFrom(
      'R',
      'L',
      'l',
      'R!',
      'r',
      'K',
      '-',
      'R+K',
      'L[floor tom]',
      'fR',
      'R[ride]+H',
      'l+K',
      'dL!',
    );
    const voicedRound = fc.record({
      slots: fc.array(slot, { minLength: 8, maxLength: 32 }),
      meter: fc.constantFrom('4/4', '3/4', '7/8', '6/8', '5/4', '11/16'),
      grid: fc.constantFrom(GRID.eighths, GRID.sixteenths, GRID.triplets, GRID.sextuplets, GRID.quintuplets),
      tempo: fc.integer({ min: 40, max: 120 }),
    });
    fc.assert(
      fc.property(voicedRound, ({ slots, meter: m, grid, tempo }) => {
        // A drag in the first slot would lead in; what begins with a stroke stays in its bar.
        const text = ['R', ...slots].join(' ');
        const recipe: Recipe = { source: { kind: 'typed', text, meter: m, grid }, moves: [] };
        const { pattern } = build(recipe);
        const song = songOf(withoutOwn(midiOf(sharedBy(recipe, tempo))));
        expect(song.own).toBeNull();
        const taken = takeBars(song, 0, song.bars.length, { ...WISH, choice: null });
        const brief = (p: Pattern) =>
          p.strokes.map((s) => [s.at, s.limb, s.voice, s.level, s.ornament ?? null].join(' ')).sort();
        expect(brief(taken!.pattern)).toEqual(brief(pattern));
        expect(taken!.left).toEqual([]);
      }),
      { numRuns: 60 },
    );
  });
  it('plays every voice on a key of the map, each by the map that is used', () => {
    for (const [voice, facts] of Object.entries(VOICE)) {
      const key = midiKeyOf(voice as Voice, USUAL_MAP);
      expect(facts.midi.length === 0 || facts.midi.includes(key)).toBe(true);
      const own = { 99: voice as Voice };
      expect(midiKeyOf(voice as Voice, own)).toBe(99);
    }
    const recipe: Recipe = { source: { kind: 'typed', text: 'R+K', meter: '4/4', grid: 1260 }, moves: [] };
    const map = { ...USUAL_MAP, 38: 'rimshot', 60: 'snare' } as const;
    const read = readMidi(withoutOwn(midiOf(sharedBy(recipe), map)), { map, channel: null });
    expect(read.ok && read.value.notes.map((n) => [n.voice, n.sound])).toEqual([
      ['kick', 'key 36'],
      ['snare', 'key 60'],
    ]);
  });
  it('is told to have been changed when another program moved a note: then its notes speak', () => {
    const recipe: Recipe = { source: { kind: 'typed', text: 'R L R L', meter: '4/4', grid: 1260 }, moves: [] };
    const bytes = midiOf(sharedBy(recipe));
    const at = bytes.findIndex((b, i) => b === 38 && bytes[i - 1] === 0x99);
    const moved = bytes.slice();
    moved[at] = 45;
    const changed = songOf(moved);
    expect(changed.own).toBeNull();
    expect(songOf(bytes).own).not.toBeNull();
  });
});

/** A file as another program writes it: 480 or 96 to a quarter, two tracks, its own velocities. */
function theirs(
  notes: readonly { readonly beat: number; readonly key: number; readonly velocity?: number }[],
  { ppq = 480, bpm = 120, meters = [[0, 4, 4]] as readonly (readonly [number, number, number])[], channel = 9 } = {},
): Uint8Array {
  const midi = new Midi();
  midi.header.fromJSON({ ...midi.header.toJSON(), ppq });
  midi.header.setTempo(bpm);
  midi.header.timeSignatures = meters.map(([beat, a, b]) => ({ ticks: beat * ppq, timeSignature: [a, b] }));
  midi.addTrack().name = 'nothing here';
  const track = midi.addTrack();
  track.channel = channel;
  for (const n of notes)
    track.addNote({
      midi: n.key,
      ticks: Math.round(n.beat * ppq),
      durationTicks: 20,
      velocity: (n.velocity ?? 90) / 127,
    });
  return midi.toArray();
}
const every = (many: number, step: number, key: number, from = 0) =>
  Array.from({ length: many }, (_, i) => ({ beat: from + i * step, key }));

describe('MIDI files that other programs wrote', () => {
  it('are bars and notes, by their meters, whatever the resolution', () => {
    for (const ppq of [96, 480, 960]) {
      const notes = [...every(8, 0.5, 42), ...every(2, 2, 36), ...every(2, 2, 38, 1), ...every(7, 0.5, 42, 4)];
      const song = songOf(
        theirs(notes, {
          ppq,
          bpm: 104,
          meters: [
            [0, 4, 4],
            [4, 7, 8],
          ],
        }),
      );
      expect([song.bpm.toFixed(1), song.bars.map((b) => [b.at, b.meter.beats, b.meter.unit])]).toEqual([
        '104.0',
        [
          [0, 4, 4],
          [20160, 7, 8],
        ],
      ]);
      const taken = takeBars(song, 0, 1, { ...WISH, choice: choicesFor(song, 0, 1)[0]! })!;
      expect(taken.pattern.grid).toBe(GRID.eighths);
      expect(taken.pattern.strokes.filter((s) => s.limb === 'K').map((s) => s.at)).toEqual([0, 10080]);
      expect(taken.pattern.strokes.filter((s) => s.voice === 'hat-closed').map((s) => s.at)).toEqual(
        [0, 1, 2, 3, 4, 5, 6, 7].map((i) => i * 2520),
      );
      expect(taken.hands[0]).toContain('by the search');
    }
  });
  it('repeats are told: bars 2 and 3 are bar 1, and 5 is 4', () => {
    const bar = (n: number, keys: readonly number[]) => keys.map((key, i) => ({ beat: (n - 1) * 4 + i, key }));
    const a = [36, 38, 36, 38];
    const b = [36, 36, 38, 45];
    const song = songOf(theirs([...bar(1, a), ...bar(2, a), ...bar(3, a), ...bar(4, b), ...bar(5, b), ...bar(7, a)]));
    expect(distinctBars(song).map((d) => [d.bar.number, d.again])).toEqual([
      [1, [2, 3, 7]],
      [4, [5]],
    ]);
  });
  it('without a note on percussion’s channel its other notes are read; a chosen channel has to have some', () => {
    const bytes = theirs(every(4, 1, 38), { channel: 2 });
    expect(songOf(bytes).notes).toHaveLength(4);
    const none = readMidi(bytes, { map: USUAL_MAP, channel: 5 });
    expect(none.ok || none.problems[0].message).toBe('There are no notes on channel 6.');
  });
  it('keys that are no voice are told, with how many', () => {
    const song = songOf(theirs([...every(4, 1, 38), ...every(2, 1, 54)]));
    expect(takeBars(song, 0, 1, { ...WISH, choice: null })!.left).toEqual([
      '2 notes on key 54: no drum or cymbal is set for it.',
    ]);
  });
  it('one velocity throughout is taps; what stands over it are accents, under it ghosts', () => {
    const at = (velocity: number, beat: number) => ({ beat, key: 38, velocity });
    const song = songOf(theirs([at(100, 0), at(100, 1), at(127, 2), at(40, 3), at(100, 3.5)]));
    expect(song.notes.map((n) => n.level)).toEqual(['tap', 'tap', 'accent', 'ghost', 'tap']);
  });
  it('three hands at once: the softest note is left out, and told', () => {
    const song = songOf(
      theirs([
        { beat: 0, key: 38 },
        { beat: 0, key: 49, velocity: 120 },
        { beat: 0, key: 51, velocity: 30 },
      ]),
    );
    const taken = takeBars(song, 0, 1, { ...WISH, choice: null })!;
    expect(taken.pattern.strokes.map((s) => s.voice).sort()).toEqual(['crash-left', 'snare']);
    expect(taken.left).toEqual(['1 note would need a third hand: the softest are left out.']);
  });
});

describe('what cannot be read', () => {
  const recipe: Recipe = { source: { kind: 'typed', text: 'fR l (R K)x3 L!', meter: '7/8', grid: 1260 }, moves: [] };
  const good = midiOf(sharedBy(recipe));
  /** A file of one track with these bytes in it. */
  const raw = (division: number, body: readonly number[], format = 0): Uint8Array =>
    Uint8Array.from([
      ...[0x4d, 0x54, 0x68, 0x64, 0, 0, 0, 6, 0, format, 0, 1, division >> 8, division & 255],
      ...[0x4d, 0x54, 0x72, 0x6b, 0, 0, body.length >> 8, body.length & 255],
      ...body,
    ]);
  const note = [0, 0x99, 38, 90, 0x60, 0x89, 38, 0];
  const over = [0, 0xff, 0x2f, 0];

  it('every beginning of a file is refused in words, with the byte', () => {
    for (let n = 0; n < good.length; n++) {
      const read = readMidi(good.slice(0, n));
      expect(read.ok).toBe(false);
      expect(read.problems[0].message).toMatch(/^This MIDI file cannot be read\. .+\.$/);
    }
  });
  it('ten thousand flips of a byte end in a song or in words, never in an error', () => {
    let seed = 7;
    const chance = (n: number): number => (seed = (seed * 1_103_515_245 + 12_345) % 2_147_483_648) % n;
    let [songs, words] = [0, 0];
    for (let i = 0; i < 10_000; i++) {
      const bytes = good.slice();
      bytes[chance(bytes.length)] = chance(256);
      const read = readMidi(bytes);
      if (read.ok) songs++;
      else words += read.problems[0].message.length > 20 ? 1 : 0;
    }
    expect(songs + words).toBe(10_000);
    expect(Math.min(songs, words)).toBeGreaterThan(500);
  });
  it.each([
    ['time in film frames', raw(0xe728, [...note, ...over]), /film frames/],
    ['no ticks to the beat', raw(0, [...note, ...over]), /how long a beat is/],
    ['tempo 0', raw(480, [0, 0xff, 0x51, 3, 0, 0, 0, ...note, ...over]), /tempo in it is 0/],
    ['0/4', raw(480, [0, 0xff, 0x58, 4, 0, 2, 24, 8, ...note, ...over]), /0 beats of 1\/4/],
    ['no note', raw(480, over), /no notes in this/],
    ['a length past the end', raw(480, [0, 0xff, 0x01, 0x8f, 0xff, 0xff, 0xff, 0x78, ...over]), /wrong length/],
    ['a type nobody knows', raw(480, [...note, ...over], 7), /type, 7/],
    ['not MIDI', new TextEncoder().encode('{"format":"loop-shelf"}'), /does not begin like/],
    ['too large', new Uint8Array(4_000_001), /larger than 4 MB/],
    ['nothing', new Uint8Array(), /does not begin like/],
  ])('%s', (_name, bytes, words) => {
    const read = readMidi(bytes);
    expect(read.ok ? '' : read.problems[0].message).toMatch(words);
  });
  it('97/64 is told and read as 4/4', () => {
    const read = readMidi(raw(480, [0, 0xff, 0x58, 4, 97, 6, 24, 8, ...note, ...over]));
    expect(read.problems.map((p) => p.message)).toEqual(['Bar 1 is in 97/64, which is read as 4/4 here.']);
  });
  it('running status, a note off as a note of no loudness, and whole notes as halves', () => {
    const read = readMidi(raw(96, [0, 0xff, 0x58, 4, 3, 0, 24, 8, 0, 0x99, 36, 100, 0x60, 36, 0, 0, 38, 80, ...over]));
    expect(read.ok && read.value.notes.map((n) => [n.at, n.voice])).toEqual([
      [0, 'kick'],
      [5040, 'snare'],
    ]);
    expect(read.ok && read.value.bars[0]!.meter).toEqual(meter(6, 2));
  });
  it('a million notes and two hours are refused or read within bounds', () => {
    const body: number[] = [];
    for (let i = 0; i < 200_001; i++) body.push(1, 0x99, 38, 90);
    const bytes = Uint8Array.from([
      ...raw(480, []).slice(0, 18),
      ...[body.length >>> 24, (body.length >> 16) & 255, (body.length >> 8) & 255, body.length & 255],
      ...body,
    ]);
    expect(readMidi(bytes).problems[0].message).toMatch(/more than 200000 events/);
    const late = readMidi(
      raw(1, [...note.slice(0, 4), 0x8f, 0x7f, 0x99, 38, 90, 0xff, 0xff, 0x7f, 0x99, 38, 90, ...over]),
    );
    expect(late.ok ? '' : late.problems[0].message).toBe('It is longer than 4000 bars.');
  });
});

it('the sticking search, levels and keys of a file hold together for every voice that hands strike', () => {
  const hands = Object.keys(VOICE).filter((v) => footOf(v as Voice) === null && VOICE[v as Voice].midi.length > 0);
  const bytes = theirs(
    hands.map((v, i) => ({ beat: i / 2, key: VOICE[v as Voice].midi[0]!, velocity: LEVEL_DEFAULTS.tap.velocity })),
  );
  const song = songOf(bytes);
  expect(song.notes.map((n) => n.voice)).toEqual(hands);
  const read = parseStrokeText('R');
  expect(read.ok && loopTicks(patternOfText(read.value, meter(4, 4), ticks(1260)))).toBe(1260);
  const taken = takeBars(song, 0, 1, { ...WISH, choice: null })!;
  expect(isSame(build(recipeOf(taken.pattern)!).pattern, taken.pattern)).toBe(true);
});
