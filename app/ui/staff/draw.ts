import {
  Articulation,
  Beam,
  Dot,
  Font,
  Formatter,
  GraceNote,
  GraceNoteGroup,
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
import type { Pattern } from '@core/pattern';
import type { ScoreBar, ScoreEvent, ScoreVoice } from '@core/score';
import { hatSign, lowToHigh, openAfter } from './notation';
import type { PlannedLine, StaffOptions } from './plan';

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

/**
 * Height of one line of the staff with what stands under it, in px before scaling, and of the room above it for each
 * distance of its lines.
 */
const LINE = 102;
const SPACE = 10;
/** How far under the staff the sticking stands, in px before scaling. */
const STICKINGS = 58;
const DURATION: Readonly<Record<string, string>> = { '1': 'w', '2': 'h', '4': 'q' };

/**
 * Draws planned lines of a staff under one another into a host, as one drawing in place of what is there. Gives back
 * where each moment stands.
 */
export function drawLines(
  host: HTMLDivElement,
  lines: readonly PlannedLine[],
  pattern: Pattern,
  { width, stickings, scale }: StaffOptions,
): readonly StaffPlace[] {
  host.replaceChildren();
  const renderer = new Renderer(host, Renderer.Backends.SVG);
  renderer.resize(width, lineTop(lines.length, lines[0]?.above ?? 0, scale) + 6 * scale);
  const context = renderer.getContext();
  context.scale(scale, scale);
  context.setFillStyle('currentColor');
  context.setStrokeStyle('currentColor');
  return lines.flatMap((line, nth) => drawLine(context, line, nth, pattern, stickings, scale));
}

/** Where a line begins under those before it, in px; `above` is the room over each staff, in distances of its lines. */
export function lineTop(nth: number, above: number, scale: number): number {
  return nth * (LINE + above * SPACE) * scale;
}

function drawLine(
  context: RenderContext,
  line: PlannedLine,
  nth: number,
  pattern: Pattern,
  stickings: boolean,
  scale: number,
): readonly StaffPlace[] {
  const places: StaffPlace[] = [];
  let x = 1;
  let { open } = line;
  line.bars.forEach(({ bar, width }, i) => {
    const stave = new Stave(x, lineTop(nth, line.above, 1), width, { spaceAboveStaffLn: line.above });
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
    const drawn = drawBar(context, stave, bar, pattern, stickings, open);
    open = drawn.openBefore;
    for (const p of drawn.places)
      places.push({
        tick: line.from + i * barTicks(pattern.meter) + p.at,
        x: p.x * scale,
        top: (stave.getYForLine(0) - 14) * scale,
        bottom: (stave.getYForLine(4) + 14) * scale,
      });
    x += width;
  });
  return places;
}

interface DrawnBar {
  readonly places: readonly { readonly at: number; readonly x: number }[];
  readonly openBefore: boolean;
}

function drawBar(
  context: RenderContext,
  stave: Stave,
  bar: ScoreBar,
  pattern: Pattern,
  stickings: boolean,
  openBefore: boolean,
): DrawnBar {
  const state = { open: openBefore };
  const parts = [
    { voice: bar.hands, up: true, alone: bar.feet === null },
    ...(bar.feet ? [{ voice: bar.feet, up: false, alone: false }] : []),
  ].map(({ voice, up, alone }) => {
    const notes = voice.events.map((e) => noteOf(e, pattern, { up, alone }, state));
    const tuplets = tupletsOf(voice, notes, up);
    const beams = beamsOf(voice, notes);
    const set = new Voice().setMode(VoiceMode.SOFT).addTickables(notes);
    return { voice, notes, tuplets, beams, set };
  });
  const formatter = new Formatter();
  for (const p of parts) formatter.joinVoices([p.set]);
  const room = stave.getNoteEndX() - stave.getNoteStartX() - 12;
  formatter.format(
    parts.map((p) => p.set),
    Math.max(20, room),
  );
  // A division that hands and feet share is written once, over the hands.
  const known = new Set(parts[0]?.tuplets.map((t) => t.at));
  for (const p of parts) {
    p.set.draw(context, stave);
    for (const b of p.beams) b.setContext(context).draw();
    for (const t of p.tuplets) if (p.voice === bar.hands || !known.has(t.at)) t.tuplet.setContext(context).draw();
  }
  if (stickings) writeStickings(context, stave, parts[0]?.voice.events ?? [], parts[0]?.notes ?? [], pattern);
  const places = new Map<number, number>();
  for (const p of parts) p.voice.events.forEach((e, i) => places.set(e.at, p.notes[i]?.getAbsoluteX() ?? 0));
  return { places: [...places].map(([at, x]) => ({ at, x })), openBefore: state.open };
}

/** The letters of the hands on a line of their own under the staff, clear of the feet. */
function writeStickings(
  context: RenderContext,
  stave: Stave,
  events: readonly ScoreEvent[],
  notes: readonly StaveNote[],
  pattern: Pattern,
): void {
  context.setFont('Martian Mono Variable', 7.5);
  events.forEach((e, i) => {
    const letters = e.strokes.flatMap((s) => pattern.strokes[s]?.limb ?? []).join('');
    const x = notes[i]?.getAbsoluteX() ?? 0;
    if (letters !== '') context.fillText(letters, x + 2 - (letters.length - 1) * 2.5, stave.getYForLine(4) + STICKINGS);
  });
}

interface NoteStyle {
  readonly up: boolean;
  /** Whether the hands are the only voice: then rests stand in the middle of the staff. */
  readonly alone: boolean;
}

function noteOf(event: ScoreEvent, pattern: Pattern, { up, alone }: NoteStyle, hat: { open: boolean }): StaveNote {
  const duration = `${DURATION[event.value] ?? event.value}${event.dots ? 'd' : ''}`;
  const strokes = event.strokes.flatMap((i) => pattern.strokes[i] ?? []);
  const stemDirection = up ? Stem.UP : Stem.DOWN;
  if (strokes.length === 0) {
    // A rest of the feet hangs below the staff, clear of the floor tom of the hands.
    const rest = new StaveNote({ keys: [alone ? 'b/4' : up ? 'e/5' : 'd/4'], duration: `${duration}r`, stemDirection });
    return event.dots ? dotted(rest) : rest;
  }
  const ordered = lowToHigh(strokes);
  const note = new StaveNote({ keys: [...new Set(ordered.map((s) => VOICE[s.voice].staff))], duration, stemDirection });
  if (event.dots) dotted(note);
  if (strokes.some((s) => s.level === 'accent')) note.addModifier(new Articulation('a>').setPosition(up ? 3 : 4), 0);
  if (strokes.every((s) => s.level === 'ghost')) Parenthesis.buildAndAttach([note]);
  for (const s of ordered) {
    const sign = hatSign(s.voice, hat.open);
    if (sign) note.addModifier(new Articulation(sign).setPosition(3), 0);
    hat.open = openAfter([s], hat.open);
  }
  ornate(note, strokes);
  return note;
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
        keys: [VOICE[main.voice].staff],
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
