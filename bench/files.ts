import { midiOf, readMidi } from '@core/formats/midi';
import { musicXmlOf, readMusicXml } from '@core/formats/musicxml';
import { wavBytes, wavHead } from '@core/formats/wav';
import { distinctBars } from '@core/formats/song';
import { build, type Recipe } from '@core/recipe';
import { loopTrack, rendition } from '@core/rendition';
import { mixed } from '../app/sound/mixing';
import { line } from './measure';

console.log('\nfiles of other programs (baselines: the plainest way through the same bytes, same run)');

const bar = '(R! l L r)x3 fR K L+K';
const phrase = (recipe: Recipe) => ({ name: 'Bench', family: 'fill', recipe, tempo: 96, goal: 104, note: '' }) as const;
const typed = (text: string): Recipe => ({
  source: { kind: 'typed', text, meter: '4/4', grid: 1260 },
  moves: [],
});
const recipe = typed(`(${bar} R)x64`);

/** A MIDI file of one track with so many notes, a 64th after each other, at 480 to a quarter. */
function midiFile(many: number): Uint8Array {
  const body: number[] = [];
  for (let i = 0; i < many; i++) body.push(15, 0x99, [36, 38, 42, 45][i % 4] ?? 38, 40 + (i % 80), 15, 0x89, 38, 0);
  body.push(0, 0xff, 0x2f, 0);
  const n = body.length;
  return Uint8Array.from([
    ...[0x4d, 0x54, 0x68, 0x64, 0, 0, 0, 6, 0, 0, 0, 1, 480 >> 8, 480 & 255],
    ...[0x4d, 0x54, 0x72, 0x6b, n >>> 24, (n >> 16) & 255, (n >> 8) & 255, n & 255],
    ...body,
  ]);
}
const plainly = (bytes: Uint8Array): number => {
  let all = 0;
  for (const b of bytes) all = (all * 31 + b) % 65_521;
  return all;
};
// Notes and their ends are two events each: 100,000 events, the most that half of a file may be.
const notes = midiFile(99_000);
console.log(
  line(
    'MIDI of 99,000 notes read',
    () => readMidi(notes),
    'every byte once',
    () => plainly(notes),
  ),
);
const song = readMidi(notes);
if (song.ok)
  console.log(
    line(
      'its bars, each kind once',
      () => distinctBars(song.value),
      'its notes sorted',
      () => [...song.value.notes].sort((a, b) => a.at - b.at),
    ),
  );
const own = phrase(recipe);
console.log(
  line(
    'a phrase of 64 bars written as MIDI',
    () => midiOf(own),
    'the phrase built',
    () => build(recipe),
  ),
);
const { xml } = musicXmlOf(own);
const bytes = new TextEncoder().encode(xml);
console.log(
  line(
    'MusicXML of 64 bars written',
    () => musicXmlOf(own),
    'the phrase built',
    () => build(recipe),
  ),
);
console.log(
  line(
    'MusicXML of 64 bars read',
    () => readMusicXml(bytes),
    'its tags found by one expression',
    () => xml.match(/<[^>]+>/g)?.length,
  ),
);
const minute = loopTrack(rendition({ phrase: build(typed(bar)).pattern }), 96, 25);
const EVEN = { primary: 1, timekeeping: 1, texture: 1, click: 1, counts: 1, record: 1 };
console.log(
  line(
    'a minute of WAV, 44.1 kHz, 16 bit',
    () => {
      let n = 0;
      for (const block of mixed(minute, 44_100, EVEN)) n += wavBytes(block, 16).length;
      return wavHead(n / 2, { rate: 44_100, bits: 16 });
    },
    'as many samples of a sine',
    () => Float32Array.from({ length: 60 * 44_100 }, (_, i) => Math.sin(i / 50)),
  ),
);
