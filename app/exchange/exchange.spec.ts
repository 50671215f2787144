import { readFileSync } from 'node:fs';
import { TestBed } from '@angular/core/testing';
import jsQR from 'jsqr';
import { KIT_PRESETS } from '@core/kit';
import { midiOf } from '@core/formats/midi';
import { musicXmlOf } from '@core/formats/musicxml';
import { phraseCode, sharedText, type SharedPhrase } from '@core/formats/shared';
import { USUAL_MAP } from '@core/stroke';
import { build, isSame } from '@core/recipe';
import { USUAL_PROFILE } from '@core/reach';
import { USUAL_SCHOOLS } from '@core/time';
import { MidiMapRepo } from '../storage/midi-map.repo';
import { PhrasesRepo } from '../storage/phrases.repo';
import { ShelfFiles } from '../storage/files/shelf-files.service';
import { phraseOf, typed, until } from '../testing/fixtures';
import { mount } from '../testing/mount';
import { emptyPlace } from '../testing/place';
import { isIn, putFonts } from '../widgets/svg-fonts';
import { BringInComponent } from './bring-in.component';
import { ExchangeEngine, type Opened } from './exchange.engine';
import { stepsOf } from './pages/page-of';
import { PagesComponent } from './pages/pages.component';
import { pictureCode } from './picture-code';
import { TakeAlongComponent } from './take-along.component';

const WISH = { kit: KIT_PRESETS[0]!, profile: USUAL_PROFILE, schools: USUAL_SCHOOLS };
const harbour = new Uint8Array(readFileSync('e2e/files/harbour.mid'));
const ROPE: SharedPhrase = {
  name: 'Cold rope',
  family: 'fill',
  recipe: { source: { kind: 'typed', text: 'R! l l R K', meter: '7/8', grid: 1260 }, moves: [] },
  tempo: 92,
  goal: 104,
  note: 'late',
};
const fileOf = (bytes: Uint8Array, name: string): File => {
  const file = new File([new Uint8Array(bytes)], name);
  // The test's page has files without this.
  Object.assign(file, { arrayBuffer: () => Promise.resolve(new Uint8Array(bytes).buffer) });
  return file;
};

describe('what is opened', () => {
  const engine = new ExchangeEngine();
  const open = (bytes: Uint8Array): Opened => engine.open(bytes, USUAL_MAP, WISH);
  const text = (s: string): Uint8Array => new TextEncoder().encode(s);

  it('a MIDI file that was played: each kind of bar once, with its grids and hands; bars are taken as they stand', () => {
    const song = open(harbour);
    if (song.kind !== 'song') throw new Error(song.kind);
    expect(song.bars.map((b) => [b.number, b.again])).toEqual([
      [1, 'again in 3, 5, 7'],
      [2, 'again in 4, 6'],
      [8, ''],
      [9, 'again in 10'],
      [11, ''],
    ]);
    expect(song.keys[0]).toEqual({ key: 54, many: 2, voice: null });
    const fill = engine.take(7, 1, 0, WISH)!;
    // By hand: 16 strokes on 16ths, two on each drum, two kicks at the end.
    expect([fill.pattern.strokes.length, fill.pattern.grid, fill.ways[0]!.words]).toEqual([16, 1260, '16ths']);
    expect(fill.pattern.strokes.map((s) => s.at)).toEqual(Array.from({ length: 16 }, (_, i) => i * 1260));
    expect(fill.pattern.strokes.filter((s) => s.level === 'accent').map((s) => s.at / 1260)).toEqual([0, 4, 8, 12]);
    expect(isSame(build(fill.recipe).pattern, fill.pattern)).toBe(true);
    const seven = engine.take(8, 2, 0, WISH)!;
    expect([seven.pattern.meter.beats, seven.pattern.length]).toEqual([7, 2 * 17_640]);
    expect(engine.take(8, 2, 99, WISH)!.way).toBe(0);
    expect(engine.take(400, 1, 0, WISH)).toBeNull();
  });
  it.each<[string, Uint8Array, string]>([
    ['our MIDI', midiOf(ROPE), 'song'],
    ['our score', text(musicXmlOf(ROPE).xml), 'song'],
    ['a phrase as text', text(sharedText(ROPE)), 'phrase'],
    ['a shelf file', text('{"format":"loop-shelf","version":7}'), 'shelf'],
    ['a recording', Uint8Array.from([...text('RIFF....WAVE')]), 'refused'],
    ['a text', text('hello'), 'refused'],
    ['nothing', new Uint8Array(), 'refused'],
  ])('%s is known by its first bytes', (_name, bytes, kind) => {
    const found = open(bytes);
    expect(found.kind).toBe(kind);
    if (found.kind === 'song') expect(found.own).toEqual(ROPE);
    if (found.kind === 'phrase') expect(found.phrase).toEqual(ROPE);
    if (found.kind === 'refused') expect(found.words.length).toBeGreaterThan(30);
  });
  it('a link that was pasted, whole or not', () => {
    expect(engine.text(`http://x/visit#p=${phraseCode(ROPE)}`)).toEqual({ kind: 'phrase', phrase: ROPE });
    expect(engine.text(`http://x/visit#p=${phraseCode(ROPE).slice(0, 40)}`)).toMatchObject({ kind: 'refused' });
  });
});

describe('Bring in', () => {
  it('shows a file, teaches a key, hears and keeps what is chosen, and goes on to the Bench', async () => {
    const { went, transport } = await emptyPlace();
    const m = mount(BringInComponent, { file: fileOf(harbour, 'harbour.mid') });
    const { component: c } = m;
    await until(() => c.taking() !== null);
    expect([c.name(), c.keysWords()]).toEqual([
      'Harbour groove, bar 1',
      expect.stringContaining('1 without a piece yet'),
    ]);
    await c.teach(54, 'cowbell');
    await until(
      () =>
        c.taking() !== null && c.keysWords().includes(': which drum is which') && !c.keysWords().includes('no voice'),
    );
    expect(TestBed.inject(MidiMapRepo).voiceOf(54)).toBe('cowbell');
    c.choose(c.song()!.bars[3]!);
    c.setMany(2);
    await until(() => c.taking()?.pattern.length === 2 * 17_640);
    c.hear();
    expect([transport.playing(), c.name()]).toEqual([true, 'Harbour groove, bars 9–10']);
    await c.keep(true);
    const [id] = (await TestBed.inject(PhrasesRepo).some([went[0]!.split(' ')[1]!])).map((p) => p.id);
    expect(went[0]).toBe(`/bench ${id} {"kept":1}`);
    await TestBed.inject(MidiMapRepo).reset();
  });
  it('tells what cannot be read and takes another; hands a shelf file on', async () => {
    const { went } = await emptyPlace();
    const c = mount(BringInComponent).component;
    await c.read(fileOf(harbour.slice(0, 50), 'half.mid'));
    expect(c.refused()).toContain('cut off');
    await c.readText(`x#p=${phraseCode(ROPE)}`);
    expect(c.phrase()).toEqual(ROPE);
    await c.read(fileOf(new TextEncoder().encode('{"format":"loop-shelf","version":7}'), 'shelf.json'));
    expect([went, TestBed.inject(ShelfFiles).handed()?.size]).toEqual([['/kit {"part":"data"}'], 35]);
  });
});

describe('Share or export', () => {
  it('has a link and its picture code; the code is read by another reader', async () => {
    await emptyPlace();
    const c = mount(TakeAlongComponent, { phrase: ROPE }).component;
    await until(() => c.link() !== null);
    expect(c.link()).toContain(`visit#p=${phraseCode(ROPE)}`);
    const { side, path } = c.picture()!;
    // Drawn by hand from the path, four pixels a square, with its quiet edge.
    const [edge, zoom] = [4, 4];
    const width = (side + 2 * edge) * zoom;
    const pixels = new Uint8ClampedArray(width * width * 4).fill(255);
    for (const [, x, y, run] of path.matchAll(/M(\d+) (\d+)h(\d+)/g))
      for (let py = 0; py < zoom; py++)
        for (let px = 0; px < Number(run) * zoom; px++) {
          const at = ((Number(y) + edge) * zoom + py) * width + (Number(x) + edge) * zoom + px;
          pixels.fill(0, at * 4, at * 4 + 3);
        }
    expect(jsQR(pixels, width, width)?.data).toBe(c.link());
    expect(pictureCode('x'.repeat(3000))).toBeNull();
  });
  it('says how long the sound is, and writes just that', async () => {
    await emptyPlace();
    const c = mount(TakeAlongComponent, { phrase: ROPE }).component;
    c.turns.set(3);
    // A bar of 7/8 counted in; a cell of five 16ths three times; at 92 bpm.
    expect(c.seconds()).toBeCloseTo(((3.5 + (3 * 5) / 4) * 60) / 92, 6);
    c.sound.set('drill');
    expect(c.soundWords()).toMatch(/^from \d+ to 104, \d+ stages, \d+ rungs in all · \d+ min/);
    c.staged.set(false);
    expect(c.soundWords()).toContain(', 1 stage,');
    c.countIn.set(4);
    c.sound.set('loop');
    c.turns.set(999);
    expect(c.tooLong()).toBe(false);
  });
});

describe('pages', () => {
  it('a lesson has a row for each move that is on, with its sum and what changed', () => {
    const rows = stepsOf({
      ...ROPE.recipe,
      moves: [
        {
          id: 'a',
          on: true,
          move: 'fit',
          params: { space: { bars: 2 }, start: '1', mirrored: false, close: { kind: 'rest' } },
        },
        { id: 'b', on: false, move: 'mirror', params: { feet: false } },
        { id: 'c', on: true, move: 'mirror', params: { feet: false } },
      ],
    });
    expect(rows.map((r) => r.title)).toEqual([
      'Start with this',
      expect.stringMatching(/^Fill 2 bars/),
      expect.any(String),
    ]);
    expect(rows[1]!.sums.join(' ')).toContain('28 = 5 × 5 + 3');
    // Swapped hands: every moment of a hand is another one, the kicks are not.
    expect(rows[2]!.at).toHaveLength(20);
  });
  it('of many phrases there is a book; of one with variants they are numbered', async () => {
    await emptyPlace();
    const repo = TestBed.inject(PhrasesRepo);
    await repo.save(phraseOf('a', { name: 'Rope' }));
    await repo.save(
      phraseOf('b', { name: 'Rope 2', recipe: typed('R l R l K'), parent: { id: 'a', change: 'hands swapped' } }),
    );
    const book = mount(PagesComponent, { ids: ['a', 'b'] }).component;
    await until(() => book.pages()?.length === 2);
    expect([book.isBook(), book.kind()]).toEqual([true, 'short']);
    const one = mount(PagesComponent, { ids: ['a'] }).component;
    await until(() => one.kinds().length === 3);
    one.kind.set('variants');
    expect(one.pages()!.map((p) => [p.name, p.change])).toEqual([
      ['Rope', ''],
      ['Rope 2', 'hands swapped'],
    ]);
  });
});

describe('fonts of a drawing', () => {
  it('letters are looked up in the ranges of a style sheet', () => {
    expect([isIn(65, 'U+0000-00FF, U+0131'), isIn(0x131, 'U+0000-00FF, U+0131'), isIn(0x400, 'U+0000-00FF')]).toEqual([
      true,
      true,
      false,
    ]);
    expect([isIn(0x42a, 'U+4??'), isIn(0x52a, 'U+4??')]).toEqual([true, false]);
  });
  it('a font that cannot be fetched is left out: the drawing is the same', async () => {
    const svg = document.createElementNS('http://www.w3.org/2000/svg', 'svg');
    const text = document.createElementNS('http://www.w3.org/2000/svg', 'text');
    text.setAttribute('font-family', 'Bravura');
    text.textContent = 'x';
    svg.append(text);
    const before = svg.outerHTML;
    await putFonts(svg, document);
    expect(svg.outerHTML).toBe(before);
  });
});
