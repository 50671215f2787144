import { clamp } from '../base';
import { barTicks, meterText, parseMeter, quarterTempo, STRAIGHT, TEMPO, TICKS_PER_QUARTER, type Feel } from '../time';
import { SHOW_LIMITS, type Cue, type Show, type Spot } from '../shelf';
import { feelOf, feelText, feelWithin } from './feels';
import { cueMeter, cueProblems, spotSpan } from './room';
import { parseSpot, spotText, type TypedSpot } from './spots';
import { eachSpot, isSpot, partsOf, shortSpot } from './typed-line';
import { barsWords, Unread } from './unread';

/** A cue as it was typed: without ids and choices. */
export interface TypedCue extends Omit<Cue, 'id' | 'groove' | 'spots'> {
  /** The name of the groove as it was typed; null where none was. */
  readonly groove: string | null;
  readonly spots: readonly TypedSpot[];
}

/** A line that was read, or what is wrong with it. */
export type CueLine =
  | { readonly ok: true; readonly line: number; readonly cue: TypedCue }
  | { readonly ok: false; readonly line: number; readonly text: string; readonly words: string };

/** A cue of which only its name is known is so long. */
const USUAL_BARS = 32;

/**
 * Cues from pasted lines: a name, then whatever is known of it, parted by commas, semicolons or tabs, in any order
 * (`Net song, 96, 4/4, 32 bars, fill 8:3, fill 16 whole`). Empty lines and those that begin with # are passed over.
 * @example
 * parseCues('Net song, 96, 4/4, 32 bars, fill 8:3')[0].cue.spots[0] // => { what: 'fill', bar: 8, from: 10080, length: 10080, hits: [], free: [], lands: 'any' }
 * parseCues('Net song')[0].words // => "Net song has no tempo. Write one behind its name: Net song, 96."
 */
export function parseCues(text: string): readonly CueLine[] {
  return text.split(/\r?\n/).flatMap((raw, i): CueLine[] => {
    const own = raw.replace(/^\s*(?:\d{1,3}[.)]\s+|[-–•*]\s+)/, '').trim();
    return own === '' || own.startsWith('#') ? [] : [parseCue(own, i + 1, raw)];
  });
}

function parseCue(text: string, line: number, raw: string): CueLine {
  try {
    return { ok: true, line, cue: cueOf(partsOf(text)) };
  } catch (error) {
    if (error instanceof Unread) return { ok: false, line, text: raw, words: error.message };
    throw error;
  }
}

const unquoted = (text: string): string => text.replace(/^["“](.*)["”]$/, '$1').trim();

function cueOf([first = '', ...parts]: readonly string[]): TypedCue {
  let name = unquoted(first).slice(0, SHOW_LIMITS.letters);
  if (!/\S/.test(name)) throw new Unread('There is a name missing at the beginning of this line.');
  const said: Said = { tempo: null, bars: null, seconds: null, meter: null, feel: null, grid: null, groove: null };
  const notes: string[] = [];
  const spots: string[] = [];
  for (const part of parts) {
    const labelled = part.replace(LABEL, (_, kind?: string) => (kind ? `${kind} ` : ''));
    const word = labelled.toLowerCase().replace(/\s+/g, ' ');
    if (/^["“]/.test(part) || /^note\b/i.test(part)) notes.push(unquoted(part.replace(/^note:?\s*/i, '')));
    else if (isSpot(word)) spots.push(labelled);
    else if (!takeIn(said, labelled, word, notes)) throw new Unread(unknownWords(part));
  }
  const spoken = /^(.*\S)[\s(]+(\d{2,3})\)?$/.exec(name);
  // Without any other tempo the number behind the name is one: Buoy Dance 132.
  if (said.tempo === null && spoken) {
    name = spoken[1] ?? name;
    said.tempo = tempoOf(Number(spoken[2]));
  }
  const { tempo, grid } = said;
  if (tempo === null) throw new Unread(`${name} has no tempo. Write one behind its name: ${name}, 96.`);
  const room = { meter: said.meter ?? '4/4', grid };
  const long = said.bars ?? barsOfSeconds(said.seconds, tempo, room);
  const each = spots.flatMap((s) => eachSpot(s, long ?? USUAL_BARS));
  const read = each.map((s) => parseSpot(shortSpot(s, { ...room, bars: long ?? USUAL_BARS }), room));
  const last = Math.max(0, ...read.map((s) => Math.ceil(spotSpan(s, room).until / barTicks(cueMeter(room)))));
  const cue: TypedCue = {
    name,
    tempo,
    meter: room.meter,
    feel: said.feel ?? STRAIGHT,
    grid,
    bars: long ?? Math.max(USUAL_BARS, last),
    groove: said.groove,
    note: notes.join(' ').slice(0, SHOW_LIMITS.note),
    spots: read,
  };
  refuseWrong(cue, each);
  return cue;
}

/** Words before what they name: meter: 5/4. `fill: 8` is a spot. */
const LABEL = /^(?:(?:meter|time signature|time|length|feel|bpm):\s*|(fill|lick):\s*)/i;

/** What a line says of its cue so far. */
interface Said {
  tempo: number | null;
  bars: number | null;
  seconds: number | null;
  meter: string | null;
  feel: Feel | null;
  grid: number | null;
  groove: string | null;
}

/** One part of a line that is no spot; false where it cannot be told what it says. */
function takeIn(said: Said, part: string, word: string, notes: string[]): boolean {
  const tempo = /^(?:tempo|at|[♩♪q])?\s*[=:]?\s*(\d{1,4}(?:\.\d+)?)\s*(bpm)?$/.exec(word);
  const time = /^(\d{1,2})(?::([0-5]\d))?(?:\s*(?:min|minutes?))?$/.exec(word);
  const bars = /^(?:bars?:?\s*([\d.½]+)|([\d.½]+)\s*bars?)$/.exec(word);
  const meter = /^(\d{1,2}\s*\/\s*\d{1,2}(?:\s*\(?\d[\d+]*\)?)?)\s*(?:time\b)?\s*(.*)$/.exec(word);
  if (tempo) {
    // Of two bare numbers the first is the tempo and the other says how long it is.
    if (said.tempo === null) said.tempo = tempoOf(Number(tempo[1]));
    else if (said.bars === null && word === tempo[1]) said.bars = barsOf(word);
    else return false;
  } else if (time) said.seconds = 60 * Number(time[1]) + Number(time[2] ?? 0);
  else if (bars) said.bars = barsOf(bars[1] ?? bars[2] ?? '');
  else if (meter) {
    said.meter = meterOf(meter[1] ?? '');
    return meter[2] === '' || takeIn(said, meter[2] ?? '', meter[2] ?? '', notes);
  } else if (/^(?:cut|common)(?: time)?$/.test(word)) said.meter = word.startsWith('cut') ? '2/2' : '4/4';
  else if (/^groove\b/.test(word)) said.groove = unquoted(part.replace(/^groove:?\s*/i, '')) || null;
  else {
    const own = feelOf(word) ?? feelWithin(word);
    const slow = /^([a-z ]+) (\d{1,2}\/\d{1,2})$/.exec(word);
    if (slow) {
      notes.push(slow[1] ?? '');
      said.meter = meterOf(slow[2] ?? '');
      return true;
    }
    // Words without any number are a note: ballad, watch the conductor.
    if (!own && /\d/.test(word)) return false;
    said.feel = own?.feel ?? said.feel;
    said.grid = own?.grid ?? said.grid;
    const note = own ? own.note : part;
    if (note) notes.push(note);
  }
  return true;
}

/** How many whole bars last so many seconds, one at least; null where no time is known. */
function barsOfSeconds(seconds: number | null, tempo: number, room: Pick<Cue, 'meter' | 'grid'>): number | null {
  if (seconds === null) return null;
  const m = cueMeter(room);
  const quarters = (seconds / 60) * quarterTempo(tempo, m);
  return clamp(Math.round((quarters * TICKS_PER_QUARTER) / barTicks(m)), 1, SHOW_LIMITS.bars);
}

/** Spots that cannot be as they are: behind the end, over each other, too many. */
function refuseWrong(cue: TypedCue, typed: readonly string[]): void {
  if (cue.spots.length > SHOW_LIMITS.spots) throw new Unread(`A cue has at most ${SHOW_LIMITS.spots} spots.`);
  const own = cue.spots.map((s, i): Spot => ({ ...s, id: String(i), phrase: null, pinned: false }));
  const [problem] = cueProblems({ ...cue, id: 'c', groove: null, spots: own });
  const text = (id: string): string => `“${typed[Number(id)] ?? ''}”`;
  if (problem?.kind === 'beyond')
    throw new Unread(`${text(problem.spot)} ends after the last bar: ${cue.name} has ${barsWords(cue.bars)}.`);
  if (problem?.kind === 'overlap') throw new Unread(`${text(problem.spot)} and ${text(problem.other)} overlap.`);
}

function unknownWords(part: string): string {
  return `“${part.slice(0, 60)}” is not a tempo, a meter, bars, a feel or a spot. Put notes in quotes: "${part.slice(0, 20)}".`;
}

function tempoOf(said: number): number {
  const bpm = Math.round(said * 10) / 10;
  if (bpm < TEMPO.least || bpm > TEMPO.most)
    throw new Unread(`${said} is not a tempo to play: they go from ${TEMPO.least} to ${TEMPO.most}.`);
  return bpm;
}

function meterOf(part: string): string {
  const own = parseMeter(part.replace(/[()]/g, ''));
  if (!own) throw new Unread(`“${part.slice(0, 20)}” is not a meter to count. Write 4/4, 6/8 or 7/8 2+2+3.`);
  return meterText(own);
}

function barsOf(word: string): number {
  const bars = Number(word.replace(/(\d*)½/, '$1.5').replace(',', '.'));
  if (!Number.isFinite(bars) || bars < 0.5 || bars > SHOW_LIMITS.bars || bars % 0.5 !== 0)
    throw new Unread(`A cue has from half a bar to ${SHOW_LIMITS.bars} bars, halves among them.`);
  return bars;
}

/**
 * The spots of a cue as they are typed in its row, parted by commas.
 * @example
 * parseSpots('fill 8:3, fill 16 whole', { meter: '4/4', grid: null }).value.length // => 2
 * parseSpots('fill 9', { meter: '4/4', grid: null, bars: 8 }).words // => "“fill 9” ends after the last bar: this cue has 8 bars."
 */
export function parseSpots(
  text: string,
  cue: Pick<Cue, 'meter' | 'grid'> & Partial<Pick<Cue, 'bars'>>,
): { readonly ok: true; readonly value: readonly TypedSpot[] } | { readonly ok: false; readonly words: string } {
  try {
    const typed = text
      .split(/[,;\t\n]/)
      .map((t) => t.trim())
      .filter((t) => t !== '');
    const spots = typed.map((t) => {
      if (!isSpot(t.toLowerCase()))
        throw new Unread(`“${t.slice(0, 60)}” is not a spot. Write fill 8:3 or fill 16 whole.`);
      return parseSpot(shortSpot(t, { bars: SHOW_LIMITS.bars, ...cue }), cue);
    });
    refuseWrong(
      { name: 'this cue', tempo: 100, feel: STRAIGHT, groove: null, note: '', bars: SHOW_LIMITS.bars, ...cue, spots },
      typed,
    );
    return { ok: true, value: spots };
  } catch (error) {
    if (error instanceof Unread) return { ok: false, words: error.message };
    throw error;
  }
}

/** A cue as a line: what is read back as the same cue. `grooveName` is that of its groove. */
export function cueText(cue: Omit<TypedCue, 'groove'>, grooveName: string | null): string {
  return [
    quotedName(cue.name),
    String(cue.tempo),
    cue.meter,
    feelText(cue),
    barsWords(cue.bars),
    ...(grooveName === null ? [] : [`groove: "${grooveName.replace(/["“”]/g, '')}"`]),
    ...cue.spots.map((s) => spotText(s, cue)),
    ...(cue.note === '' ? [] : [`"${cue.note.replace(/["“”]/g, '').replace(/\s+/g, ' ')}"`]),
  ].join(', ');
}

const quotedName = (name: string): string => {
  const own = name.replace(/["“”]/g, '').replace(/\s+/g, ' ').trim();
  return /[,;]|^#|^\d{1,3}[.)]\s|^[-–•*]\s/.test(own) ? `"${own}"` : own;
};

/** A show of which nothing is known but its name. */
export function newShow(id: string, name: string, now: number): Show {
  return {
    id,
    name: name.trim().slice(0, SHOW_LIMITS.letters) || 'Show',
    place: '',
    day: null,
    most: 2,
    cues: [],
    changed: now,
  };
}
