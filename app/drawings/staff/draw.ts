import {
  Articulation,
  Beam,
  Dot,
  Font,
  Formatter,
  GraceNote,
  GraceNoteGroup,
  ModifierPosition,
  Parenthesis,
  Renderer,
  Stave,
  StaveNote,
  Stem,
  Tremolo,
  Tuplet,
  VexFlow,
  Voice,
  VoiceMode,
  type RenderContext,
} from 'vexflow/core';
import { barTicks, feelWords } from '@core/time';
import { graceCount, VOICE, type Stroke } from '@core/stroke';
import { gracesOf, type Pattern } from '@core/pattern';
import { VALUE_TICKS, type ScoreBar, type ScoreEvent, type ScoreVoice } from '@core/score';
import { hatSign, heightOf, lowToHigh, openAfter } from './notation';
import { topsOf, type PlannedLine, type StaffOptions } from './plan';

let fonts: Promise<void> | undefined;

/**
 * The package measures glyphs with the loaded font, so the fonts must be there before anything is set. They come from
 * this origin.
 */
export function loadMusicFonts(base: string): Promise<void> {
  fonts ??= (async () => {
    Font.HOST_URL = new URL('fonts/', base).href;
    await Promise.all([
      Font.load('Bravura', new URL('fonts/bravura.woff2', base).href, { display: 'block' }),
      Font.load('Academico', new URL('fonts/academico.woff2', base).href, { display: 'swap' }),
    ]);
    VexFlow.setFonts('Bravura', 'Academico');
  })();
  return fonts;
}

/** Where a moment of the phrase stands on the drawn staff, in px. */
export interface StaffPlace {
  /** Tick from the first bar line. */
  readonly tick: number;
  readonly x: number;
  readonly top: number;
  readonly bottom: number;
}

/** Distance of the lines of a staff, in px before scaling. */
const SPACE = 10;
/** From one letter of a moment to the next under it, in px before scaling. */
const LETTER = 9;
/** Room after the last note of a bar, with its brackets, in px before scaling. */
const AFTER = 20;
/** What rests and flags of 32nds and shorter take more there. */
const SHORT = 18;
/** How often a bar is set anew, and how far its last note may reach into the room after it, in px before scaling. */
const MOST_TRIES = 4;
const LEANS = 12;
const DURATION: Readonly<Record<string, string>> = { '1': 'w', '2': 'h', '4': 'q' };

/**
 * Draws planned lines of a staff under one another into a host, as one drawing in place of what is there. Gives back
 * where each moment stands.
 */
export function drawLines(
  host: HTMLDivElement,
  lines: readonly PlannedLine[],
  pattern: Pattern,
  options: StaffOptions,
): readonly StaffPlace[] {
  const steps = stepLines(host, lines, pattern, options);
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}

/** The same, stopping to breathe after each bar and within it. */
export function* stepLines(
  host: HTMLDivElement,
  lines: readonly PlannedLine[],
  pattern: Pattern,
  { width, stickings, scale: asked }: StaffOptions,
): Generator<void, readonly StaffPlace[]> {
  const scale = lines[0]?.scale ?? asked;
  host.replaceChildren();
  const renderer = new Renderer(host, Renderer.Backends.SVG);
  const tops = topsOf(lines);
  renderer.resize(width, (tops.at(-1) ?? 0) + 6 * scale);
  const context = renderer.getContext();
  context.scale(scale, scale);
  context.setFillStyle('currentColor');
  context.setStrokeStyle('currentColor');
  const places: StaffPlace[] = [];
  for (const [nth, line] of lines.entries())
    places.push(...(yield* stepLine(context, line, (tops[nth] ?? 0) / scale, pattern, stickings, scale)));
  return places;
}

function* stepLine(
  context: RenderContext,
  line: PlannedLine,
  top: number,
  pattern: Pattern,
  stickings: boolean,
  scale: number,
): Generator<void, readonly StaffPlace[]> {
  const places: StaffPlace[] = [];
  let x = 1;
  let { open } = line;
  for (const [i, { bar, width }] of line.bars.entries()) {
    const stave = new Stave(x, top, width, { spaceAboveStaffLn: line.above });
    if (i === 0) stave.addClef('percussion');
    if (line.first && i === 0) stave.addTimeSignature(`${pattern.meter.beats}/${pattern.meter.unit}`);
    stave.setContext(context).draw();
    const swing = feelWords(pattern.feel);
    if (line.first && i === 0 && swing !== '') {
      context.save();
      context.setFont('Academico', 11, 'normal', 'italic');
      context.fillText(swing, x + 2, stave.getYForLine(0) - line.above * SPACE + 11);
      context.restore();
    }
    const drawn = yield* stepBar(context, stave, bar, pattern, stickings ? line.under : null, open);
    open = drawn.openBefore;
    for (const p of drawn.places)
      places.push({
        tick: line.from + i * barTicks(pattern.meter) + p.at,
        x: p.x * scale,
        top: (stave.getYForLine(0) - 14) * scale,
        bottom: (stave.getYForLine(4) + 14) * scale,
      });
    x += width;
    yield;
  }
  return places;
}

interface DrawnBar {
  readonly places: readonly { readonly at: number; readonly x: number }[];
  readonly openBefore: boolean;
}

function* stepBar(
  context: RenderContext,
  stave: Stave,
  bar: ScoreBar,
  pattern: Pattern,
  under: number | null,
  openBefore: boolean,
): Generator<void, DrawnBar> {
  const state = { open: openBefore };
  const parts = [
    { voice: bar.hands, up: true, alone: bar.feet === null },
    ...(bar.feet ? [{ voice: bar.feet, up: false, alone: false }] : []),
  ].map(({ voice, up, alone }) => {
    const notes = voice.events.map((e) =>
      noteOf(e, pattern, { up, alone, above: up ? null : ghostOver(bar, e, pattern) }, state),
    );
    const tuplets = tupletsOf(voice, notes, up);
    const beams = beamsOf(voice, notes);
    const set = new Voice().setMode(VoiceMode.SOFT).addTickables(notes);
    return { voice, notes, tuplets, beams, set };
  });
  yield;
  const formatter = new Formatter();
  for (const p of parts) formatter.joinVoices([p.set]);
  const room = stave.getNoteEndX() - stave.getNoteStartX() - AFTER - (endsShort(bar) ? SHORT : 0);
  const sets = parts.map((p) => p.set);
  const reached = (): number =>
    Math.max(...parts.flatMap((p) => p.notes.slice(-1).map((n) => n.getTickContext().getX() + n.getMetrics().width)));
  // In bars of many short values side by side the package spreads notes beyond the room it is given: it is asked for
  // less until they fit.
  for (let asked = Math.max(20, room), tries = 0; tries < MOST_TRIES; tries++) {
    formatter.format(sets, asked);
    const over = reached() - Math.max(20, room) - LEANS;
    if (over <= 0) break;
    asked = Math.max(20, asked - over);
  }
  yield;
  // A division that hands and feet share is written once, over the hands.
  const known = new Set(parts[0]?.tuplets.map((t) => t.at));
  // Beams lengthen the stems of their notes: only then is it known where an accent over a stem stands clear of them.
  for (const p of parts) {
    for (const note of p.notes) note.setStave(stave);
    for (const b of p.beams) b.postFormat();
  }
  for (const p of parts) {
    p.set.draw(context, stave);
    for (const b of p.beams) b.setContext(context).draw();
    for (const t of p.tuplets) if (p.voice === bar.hands || !known.has(t.at)) t.tuplet.setContext(context).draw();
  }
  const places = new Map<number, number>();
  for (const p of parts) p.voice.events.forEach((e, i) => places.set(e.at, p.notes[i]?.getAbsoluteX() ?? 0));
  if (under !== null)
    writeStickings(
      context,
      stave,
      lettersOf(
        parts.map((p) => p.voice),
        pattern,
      ),
      places,
      under,
    );
  return { places: [...places].map(([at, x]) => ({ at, x })), openBefore: state.open };
}

/** The limbs of every moment, hands first. */
function lettersOf(voices: readonly ScoreVoice[], pattern: Pattern): ReadonlyMap<number, readonly string[]> {
  const letters = new Map<number, string[]>();
  for (const voice of voices)
    for (const e of voice.events)
      for (const s of e.strokes) letters.set(e.at, [...(letters.get(e.at) ?? []), pattern.strokes[s]?.limb ?? '']);
  return letters;
}

/** The letters of the sticking under every note, clear of the staff: those of one moment stand under one another. */
function writeStickings(
  context: RenderContext,
  stave: Stave,
  letters: ReadonlyMap<number, readonly string[]>,
  places: ReadonlyMap<number, number>,
  under: number,
): void {
  context.setFont('Martian Mono Variable', 7.5);
  for (const [at, own] of letters)
    own.forEach((letter, i) =>
      context.fillText(letter, (places.get(at) ?? 0) + 2, stave.getYForLine(4) + under + i * LETTER),
    );
}

function endsShort({ hands, feet }: ScoreBar): boolean {
  return [hands, feet].some((v) => VALUE_TICKS[v?.events.at(-1)?.value ?? '1'] <= VALUE_TICKS['32']);
}

interface NoteStyle {
  readonly up: boolean;
  /** Whether the hands are the only voice: then rests stand in the middle of the staff. */
  readonly alone: boolean;
  /** The lowest head of a ghost of the hands at the same moment, in steps; null for none. */
  readonly above: number | null;
}

function ghostOver({ hands }: ScoreBar, { at }: ScoreEvent, pattern: Pattern): number | null {
  const own = hands.events.find((e) => e.at === at)?.strokes.flatMap((i) => pattern.strokes[i] ?? []) ?? [];
  return own.length > 0 && own.every((s) => s.level === 'ghost') ? Math.min(...own.map(heightOf)) : null;
}

function noteOf(
  event: ScoreEvent,
  pattern: Pattern,
  { up, alone, above }: NoteStyle,
  hat: { open: boolean },
): StaveNote {
  const duration = `${DURATION[event.value] ?? event.value}${event.dots ? 'd' : ''}`;
  const strokes = event.strokes.flatMap((i) => pattern.strokes[i] ?? []);
  const stemDirection = up ? Stem.UP : Stem.DOWN;
  if (strokes.length === 0) {
    // A rest of the feet hangs below the staff, clear of the floor tom of the hands.
    const rest = new StaveNote({ keys: [alone ? 'b/4' : up ? 'e/5' : 'd/4'], duration: `${duration}r`, stemDirection });
    return event.dots ? dotted(rest) : rest;
  }
  const ordered = lowToHigh(strokes);
  const heads = [...new Map(ordered.map((s) => [VOICE[s.voice].staff, heightOf(s)]))];
  const note = new StaveNote({ keys: heads.map(([key]) => key), duration, stemDirection });
  if (event.dots) dotted(note);
  if (strokes.some((s) => s.level === 'accent')) note.addModifier(new Articulation('a>').setPosition(up ? 3 : 4), 0);
  if (strokes.every((s) => s.level === 'ghost'))
    bracketed(
      note,
      heads.map(([, height]) => height),
      above,
    );
  for (const s of ordered) {
    const sign = hatSign(s.voice, hat.open);
    if (sign) note.addModifier(new Articulation(sign).setPosition(3), 0);
    hat.open = openAfter([s], hat.open);
  }
  ornate(note, strokes);
  return note;
}

/** Heads nearer than this, in steps, share the brackets of the lower one. */
const CLEAR = 3;

/**
 * Brackets round the heads of a ghost; in a chord round those that stand clear of each other. Heads a step apart stand
 * side by side: the left one has the bracket that opens, the right one that which closes.
 */
function bracketed(note: StaveNote, heights: readonly number[], above: number | null): void {
  let last = -Infinity;
  heights.forEach((height, i) => {
    if (height - last < CLEAR || (above !== null && above - height < CLEAR)) return;
    const beside = (heights[i + 1] ?? Infinity) - height <= 1;
    last = beside ? (heights[i + 1] ?? height) : height;
    note.addModifier(new Parenthesis(ModifierPosition.LEFT), i);
    note.addModifier(new Parenthesis(ModifierPosition.RIGHT), beside ? i + 1 : i);
  });
}

function dotted(note: StaveNote): StaveNote {
  Dot.buildAndAttach([note], { all: true });
  return note;
}

function ornate(note: StaveNote, strokes: readonly Stroke[]): void {
  const main = strokes.find((s) => s.ornament);
  if (!main?.ornament) return;
  if (main.ornament === 'buzz') {
    note.addModifier(new Tremolo(3), 0);
    return;
  }
  const many = graceCount(main.ornament);
  const grace = Array.from(
    { length: many },
    () =>
      new GraceNote({
        keys: [VOICE[gracesOf(main)?.voice ?? main.voice].staff],
        duration: many === 1 ? '8' : '16',
        slash: many === 1,
        stemDirection: Stem.UP,
      }),
  );
  const group = new GraceNoteGroup(grace, true);
  note.addModifier(many > 1 ? group.beamNotes() : group, 0);
}

/** The tuplets of a voice, each with the tick of its bar at which it begins. */
function tupletsOf(
  voice: ScoreVoice,
  notes: readonly StaveNote[],
  up: boolean,
): { readonly at: number; readonly tuplet: Tuplet }[] {
  return voice.tuplets.flatMap((t, n) => {
    const own = notes.filter((_, i) => voice.events[i]?.tuplet === n);
    const first = voice.events.find((e) => e.tuplet === n);
    if (own.length === 0 || !first) return [];
    const tuplet = new Tuplet(own, {
      numNotes: t.notes,
      notesOccupied: t.inTimeOf,
      bracketed: !own.every((note) => note.hasBeam()),
      ratioed: false,
      location: up ? Tuplet.LOCATION_TOP : Tuplet.LOCATION_BOTTOM,
    });
    return [{ at: first.at, tuplet }];
  });
}

function beamsOf(voice: ScoreVoice, notes: readonly StaveNote[]): Beam[] {
  const runs = new Map<number, StaveNote[]>();
  voice.events.forEach((e, i) => {
    const note = notes[i];
    if (e.beam !== null && note) runs.set(e.beam, [...(runs.get(e.beam) ?? []), note]);
  });
  return [...runs.values()].filter((run) => run.length > 1).map((run) => new Beam(run));
}
