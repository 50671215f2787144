import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { strToU8, zipSync } from 'fflate';
import { parse, serialize, validate } from 'musicxml-io';
import { validateXML } from 'xmllint-wasm';
import { GRID, quarterTempo } from '../../time';
import { KIT_PRESETS } from '../../kit';
import type { Pattern } from '../../pattern';
import { build, type Recipe } from '../../recipe';
import { USUAL_PROFILE } from '../../reach';
import { VOICES } from '../../stroke';
import { anyRecipe } from '../../testing/arbitraries';
import type { SharedPhrase } from '../shared';
import { distinctBars, takeBars, type Song } from '../song';
import { readXml } from './xml';
import { placeOf, voiceAt } from './signs';
import { musicXmlOf, mxlOf, readMusicXml } from '.';

const sharedBy = (recipe: Recipe, tempo = 96): SharedPhrase => ({
  name: 'Röpe & <ash>',
  family: 'fill',
  recipe,
  tempo,
  goal: 104,
  note: '',
});
const typed = (text: string, meter = '4/4', grid: number = GRID.sixteenths, swing?: object): Recipe =>
  ({ source: { kind: 'typed', text, meter, grid, ...(swing ? { swing } : {}) }, moves: [] }) as Recipe;
const xmlOf = (recipe: Recipe): string => musicXmlOf(sharedBy(recipe)).xml;
const bytesOf = (xml: string): Uint8Array => strToU8(xml);
const WISH = { kit: KIT_PRESETS[0]!, profile: USUAL_PROFILE, bpm: 90, choice: null };

function songOf(xml: string): Song {
  const read = readMusicXml(bytesOf(xml));
  if (!read.ok) throw new Error(read.problems[0].message);
  return read.value;
}
/** The score as another program leaves it: without what is ours. */
const withoutOwn = (xml: string): string => xml.replace(/<miscellaneous>.*<\/miscellaneous>/s, '');

const ORNATE = 'fR l dL! R+K zR tL R[ride]+H L[floor tom] R[open hi-hat] R[half-open hi-hat] R![china] -';

describe('a phrase as a score', () => {
  it('comes back the same, whatever its meter, grids, ornaments, pick-up and swing', () => {
    let back = 0;
    fc.assert(
      fc.property(anyRecipe, (recipe) => {
        const { pattern } = build(recipe);
        fc.pre(pattern.strokes.length > 0 && pattern.strokes.length < 300);
        const phrase = sharedBy(recipe);
        const { xml } = musicXmlOf(phrase);
        const read = readMusicXml(bytesOf(xml));
        expect(read.ok && read.value.own).toEqual(phrase);
        back++;
      }),
      { numRuns: 60 },
    );
    expect(back).toBeGreaterThan(40);
  });
  it('without what is ours: the same strokes to the tick, with sticking, ghosts, accents and ornaments', () => {
    const slot = fc.constantFrom(
      'R',
      'L',
      'l',
      'R!',
      'r!'.slice(0, 1),
      'K',
      '-',
      'R+K',
      'L[floor tom]',
      'fR',
      'R[ride]+H',
      'l+K',
      'dL!',
      'zR',
      'tL',
      'J',
      'R[open hi-hat]',
    );
    fc.assert(
      fc.property(
        fc.array(slot, { minLength: 2, maxLength: 40 }),
        fc.constantFrom('4/4', '3/4', '7/8', '7/8 3+2+2', '6/8', '5/4', '11/16', '2/2'),
        fc.constantFrom(GRID.eighths, GRID.sixteenths, GRID.triplets, GRID.sextuplets, GRID.thirtySeconds),
        (slots, meter, grid) => {
          const recipe = typed(['R', ...slots].join(' '), meter, grid);
          const { pattern } = build(recipe);
          const written = musicXmlOf(sharedBy(recipe));
          fc.pre(written.rounded === 0);
          const song = songOf(withoutOwn(written.xml));
          expect([song.own, song.bpm.toFixed(2)]).toEqual([null, quarterTempo(96, pattern.meter).toFixed(2)]);
          const taken = takeBars(song, 0, song.bars.length, WISH)!;
          const brief = (p: Pattern) =>
            p.strokes
              .map((s) => [s.at, s.limb, s.voice, s.level, s.ornament ?? null, s.grace ?? null].join(' '))
              .sort();
          expect(brief(taken.pattern)).toEqual(brief(pattern));
        },
      ),
      { numRuns: 80 },
    );
  });
  it('says swing and tempo as they are', () => {
    const song = songOf(withoutOwn(xmlOf(typed('R L R L', '4/4', GRID.eighths, { on: 'eighths', ratio: 0.62 }))));
    expect([song.feel, song.bpm]).toEqual([{ kind: 'swung', on: 'eighths', ratio: 0.62 }, 96]);
  });
  it('compressed is the same score', () => {
    const phrase = sharedBy(typed(ORNATE));
    const read = readMusicXml(mxlOf(musicXmlOf(phrase).xml));
    expect(read.ok && read.value.own).toEqual(phrase);
  });
  it('a note moved in another program: its notes speak', () => {
    const xml = xmlOf(typed('R L R L'));
    const moved = xml
      .replace('<display-step>C</display-step>', '<display-step>A</display-step>')
      .replace('<instrument id="P1-snare"/>', '<instrument id="P1-floor-tom"/>');
    expect([songOf(xml).own === null, songOf(moved).own]).toEqual([false, null]);
  });
});

describe('what is written holds up before others', () => {
  const recipes: readonly Recipe[] = [
    typed(ORNATE),
    typed('(R l l)x4 R+K L', '7/8', GRID.sixteenths),
    typed('(R L K)x4 fR', '6/8', GRID.sextuplets),
    typed('R! - l+K L', '11/16'),
    typed('R L', '4/4', GRID.eighths, { on: '16ths', ratio: 0.58 }),
    { ...typed('R L R L'), moves: [{ id: 'p', on: true, move: 'pickup', params: { text: 'l l' } }] },
  ];
  it('is valid by the schema of what we write', async () => {
    const schema = readFileSync(join(__dirname, 'written.xsd'), 'utf8');
    const { errors } = await validateXML({
      xml: recipes.map((recipe, i) => ({ fileName: `${i}.musicxml`, contents: xmlOf(recipe) })),
      schema: [schema],
    });
    expect(errors.map((e) => e.message)).toEqual([]);
    const wrong = xmlOf(recipes[0]!).replace(/(<voice>1<\/voice>)(<type>16th<\/type>)/, '$2$1');
    const found = await validateXML({ xml: [{ fileName: 'a.musicxml', contents: wrong }], schema: [schema] });
    expect(found.errors.length).toBeGreaterThan(0);
  });
  it('has full bars, by another reader', () => {
    for (const recipe of recipes.filter((r) => r.moves.length === 0)) {
      const found = validate(parse(xmlOf(recipe)));
      expect(found.errors.map((e: { message: string }) => e.message)).toEqual([]);
    }
  });
  it('each voice has its place, and from its place comes a voice of the same sign', () => {
    for (const v of VOICES) {
      const back = voiceAt(placeOf(v))!;
      expect(placeOf(back)).toEqual(placeOf(v));
    }
  });
});

const note = (inner: string, duration = 1): string =>
  `<note>${inner}<duration>${duration}</duration><voice>1</voice></note>`;
const unpitched = (step: string, octave: number): string =>
  `<unpitched><display-step>${step}</display-step><display-octave>${octave}</display-octave></unpitched>`;
const score = (bars: string, head = ''): string =>
  `<?xml version="1.0"?><!DOCTYPE score-partwise PUBLIC "-//Recordare//DTD MusicXML 4.0 Partwise//EN" "http://www.musicxml.org/dtds/partwise.dtd"><score-partwise>${head}<part-list><score-part id="P1"><part-name>Kit</part-name></score-part></part-list><part id="P1">${bars}</part></score-partwise>`;
const begin = '<attributes><divisions>2</divisions><time><beats>2</beats><beat-type>4</beat-type></time></attributes>';

describe('scores that other programs wrote', () => {
  it('written anew by another package, a score of ours has the same strokes', () => {
    const recipe = typed('R! l R+K fL R[ride] - L[floor tom] K r L! R l', '7/8');
    const song = songOf(withoutOwn(serialize(parse(xmlOf(recipe)))));
    const taken = takeBars(song, 0, song.bars.length, WISH)!;
    const brief = (p: Pattern) =>
      p.strokes.map((s) => [s.at, s.limb, s.voice, s.level, s.ornament ?? ''].join(' ')).sort();
    expect(brief(taken.pattern)).toEqual(brief(build(recipe).pattern));
  });
  it('are read without instruments, by where notes stand and by their heads', () => {
    const song = songOf(
      score(
        `<measure number="1">${begin}${note(unpitched('C', 5))}${note(unpitched('F', 4))}${note(unpitched('G', 5))}<note>${unpitched('G', 5)}<duration>1</duration><notehead>x</notehead></note></measure>`,
      ),
    );
    expect(song.notes.map((n) => [n.at, n.voice])).toEqual([
      [0, 'snare'],
      [2520, 'kick'],
      [5040, null],
      [7560, 'hat-closed'],
    ]);
  });
  it('ties are one stroke, chords one moment, voices go back, rests pass', () => {
    const tie = (type: string): string => `<tie type="${type}"/>`;
    const bar = `${begin}<note>${unpitched('C', 5)}<duration>2</duration>${tie('start')}</note><note>${unpitched('C', 5)}<duration>1</duration>${tie('stop')}</note>${note('<rest/>')}<backup><duration>4</duration></backup>${note(unpitched('F', 4), 3)}<note>${unpitched('F', 4)}<duration>1</duration></note>`;
    const song = songOf(score(`<measure number="1">${bar}</measure>`));
    expect(song.notes.map((n) => [n.at, n.voice])).toEqual([
      [0, 'snare'],
      [0, 'kick'],
      [7560, 'kick'],
    ]);
  });
  it('what is not read is counted and named; repeats are read once', () => {
    const bar = `${begin}<note>${unpitched('C', 5)}<duration>4</duration><notations><fermata/><articulations><staccato/></articulations></notations></note><harmony/><barline><repeat direction="backward"/></barline>`;
    const read = readMusicXml(bytesOf(score(`<measure number="1">${bar}</measure>`)));
    expect(read.problems.map((p) => p.message)).toEqual([
      'Not read: 1 × fermata, 1 × staccato, 1 × harmony and 1 × repeat (bars are read once).',
    ]);
  });
  it('a first bar that is not full leads in; bars that are alike are told', () => {
    const full = `${note(unpitched('C', 5), 2)}${note(unpitched('F', 4), 2)}`;
    const song = songOf(
      score(
        `<measure number="0">${begin}${note(unpitched('C', 5), 1)}</measure><measure number="1">${full}</measure><measure number="2">${full}</measure>`,
      ),
    );
    expect(song.bars.map((b) => [b.number, b.at])).toEqual([
      [0, -10080],
      [1, 0],
      [2, 10080],
    ]);
    expect(song.notes.map((n) => n.at)).toEqual([-2520, 0, 5040, 10080, 15120]);
    expect(distinctBars(song).map((d) => [d.bar.number, d.notes[0]!.at, d.again])).toEqual([
      [0, 7560, []],
      [1, 0, [2]],
    ]);
  });
  it.each([
    ['0/0', '<time><beats>0</beats><beat-type>0</beat-type></time>', /Bar 1 is in 0\/0, which is read as 4\/4 here/],
    ['97/64', '<time><beats>97</beats><beat-type>64</beat-type></time>', /Bar 1 is in 97\/64/],
  ])('%s is told', (_name, time, words) => {
    const read = readMusicXml(
      bytesOf(
        score(
          `<measure number="1"><attributes><divisions>1</divisions>${time}</attributes>${note(unpitched('C', 5))}</measure>`,
        ),
      ),
    );
    expect(read.ok && read.problems[0]?.message).toMatch(words);
  });
});

describe('what cannot be read', () => {
  const good = xmlOf(typed(ORNATE));
  const bomb = (): Uint8Array =>
    zipSync({
      'META-INF/container.xml': strToU8('<container full-path="a.xml"/>'),
      'a.xml': new Uint8Array(40_000_000),
    });
  const entity = good.replace('<score-partwise', '<!DOCTYPE x [<!ENTITY a "b">]><score-partwise');
  it.each([
    ['entities of its own', entity, /declares entities of its own/],
    ['an unknown entity', good.replace('Loop Shelf', '&nbsp;'), /Line \d+/],
    ['timewise', '<score-timewise/>', /partwise/],
    ['something else', '<html/>', /begins with <html>/],
    ['nothing', '', /Line|empty/],
    ['no notes', score('<measure number="1"/>'), /no part with notes/],
    [
      'divisions 0',
      score(
        `<measure number="1"><attributes><divisions>0</divisions></attributes>${note(unpitched('C', 5))}</measure>`,
      ),
      /make no sense/,
    ],
    [
      'too long a bar',
      score(`<measure number="1">${begin}${note(unpitched('C', 5), 9)}</measure>`),
      /last longer than a bar of 2\/4/,
    ],
    [
      'back before the beginning',
      score(`<measure number="1">${begin}<backup><duration>1</duration></backup>${note(unpitched('C', 5))}</measure>`),
      /before its beginning/,
    ],
    ['nesting', `<score-partwise>${'<a>'.repeat(100)}${'</a>'.repeat(100)}</score-partwise>`, /too deep/],
  ])('%s', (_name, xml, words) => {
    const read = readMusicXml(bytesOf(xml));
    expect(read.ok ? '' : read.problems[0].message).toMatch(words);
  });
  it('an archive that unpacks to far more, one of another kind, and names that climb', () => {
    const climbing = zipSync({ '../../evil.xml': strToU8(good) });
    const read = readMusicXml(climbing);
    expect(read.ok).toBe(true);
    const told = [bomb(), zipSync({ 'a.txt': strToU8('x') }), Uint8Array.from([0x50, 0x4b, 3, 4, 9, 9])].map((b) => {
      const r = readMusicXml(b);
      return r.ok ? '' : r.problems[0].message;
    });
    expect(told[0]).toMatch(/far more than a score holds/);
    expect(told[1]).toMatch(/no score in this archive/);
    expect(told[2]!.length).toBeGreaterThan(20);
  });
  it('every beginning is refused in words; flips end in a song or in words', () => {
    const bytes = bytesOf(good);
    for (let n = 0; n < bytes.length - 2; n += 23) {
      const read = readMusicXml(bytes.slice(0, n));
      expect(read.ok ? 'read' : read.problems[0].message.length > 10).toBe(true);
    }
    const small = bytesOf(score(`<measure number="1">${begin}${note(unpitched('C', 5))}</measure>`));
    const zipped = mxlOf(xmlOf(typed('fR l R+K zR')));
    let seed = 11;
    const chance = (n: number): number => (seed = (seed * 1_103_515_245 + 12_345) % 2_147_483_648) % n;
    let [done, words] = [0, 0];
    for (let i = 0; i < 10_000; i++) {
      const flipped = (i % 40 === 0 ? zipped : small).slice();
      flipped[chance(flipped.length)] = chance(256);
      const read = readMusicXml(flipped);
      done += read.ok || read.problems[0].message.length > 10 ? 1 : 0;
      words += read.ok ? 0 : 1;
    }
    expect(words).toBeGreaterThan(2000);
    expect(done).toBe(10_000);
  });
  it('a score of half a million elements is refused, and one just below is read', () => {
    const many = (n: number): string => `<a>${'<b/>'.repeat(n)}</a>`;
    expect(readXml(many(500_001)).ok).toBe(false);
    expect(readXml(many(1000)).ok).toBe(true);
  });
});
