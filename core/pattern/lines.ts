import { readFail, readOk, type Read } from '../base';
import { barTicks, countAt, gridName, meterText, parseCount, parseGrid, USUAL_SCHOOLS, type Counting } from '../time';
import {
  canStrike,
  isHand,
  LIMBS,
  TEXT_LIMITS,
  usualVoice,
  VOICE,
  voiceCalled,
  type Level,
  type Limb,
  type Node,
  type Stroke,
  type TypedStroke,
  type Voice,
} from '../stroke';
import { countingOf, type Pattern } from './pattern';

export type LinesCode = 'no-piece' | 'no-count' | 'limb-twice' | 'too-long' | 'empty';

/** Whether a text is a groove written a line to a piece, "hat: 1 & 2 &", and no stroke text. */
export function looksLikeLines(text: string): boolean {
  return /(^|[;\n])\s*[\p{L}][\p{L}\d\s-]*:/u.test(text);
}

/** A stroke of a line before its limb is known, at a tick from the first bar line. */
interface Placed {
  readonly tick: number;
  readonly voice: Voice;
  readonly limb: Limb | null;
  readonly level: Level;
}

class Stop extends Error {
  constructor(
    readonly code: LinesCode,
    message: string,
  ) {
    super(message);
  }
}

/**
 * Reads a groove written a line to a piece, lines apart by new lines or `;`: `hat: 1 & 2 & 3 & 4 &`, `snare: 2! 4!`,
 * `kick: 1 3&`. A syllable alone belongs to the beat before it; `!` after for an accent, brackets round a ghost, `2:1`
 * for bar 2; a grid's name for every slot of it, `hat: eighths`; "right" or "left" after the piece says which hand.
 * Where no hand is said, the right plays what keeps time, the left the snare beside it, and either what the other has
 * no time for. What comes back is stroke text on the home grid, in whole bars; a problem in words when a line cannot be
 * read.
 * @example
 * parseLines('hat: 1 & 2 &; snare: 2!; kick: 1', { meter: meter(2, 4), grid: 2520, schools: USUAL_SCHOOLS }).value.length // => 4
 * parseLines('gong: 1', { meter: meter(4, 4), grid: 1260, schools: USUAL_SCHOOLS }).problems[0].message // => "“gong” is not a drum or cymbal here."
 * parseLines('hat: 5', { meter: meter(4, 4), grid: 1260, schools: USUAL_SCHOOLS }).problems[0].message // => "closed hi-hat: “5” is not a count in 4/4 on 16ths."
 */
export function parseLines(text: string, counting: Counting): Read<readonly Node[], LinesCode> {
  try {
    const placed = text
      .split(/[;\n]/)
      .filter((line) => line.trim() !== '')
      .flatMap((line) => placedIn(line, counting));
    if (placed.length === 0) return readFail('empty', null, 'Write a piece and its counts, for instance snare: 2 4.');
    return readOk(nodesOf(handed(placed), counting));
  } catch (stop) {
    if (!(stop instanceof Stop)) throw stop;
    return readFail(stop.code, null, stop.message);
  }
}

function placedIn(line: string, counting: Counting): Placed[] {
  // The first colon ends the piece; those after it belong to bars.
  const [, head = '', counts = ''] = /^([^:]*):(.*)$/.exec(line) ?? [];
  const [, named = '', hand] = /^(.*?)(?: (right|left))?$/.exec(head.trim().toLowerCase()) ?? [];
  const said = voiceCalled(head) ? head : named;
  const voice = voiceCalled(said);
  if (!voice) throw new Stop('no-piece', `“${head.trim().slice(0, 40)}” is not a drum or cymbal here.`);
  const own = LIMBS.find((l) => !isHand(l) && usualVoice(l) === voice);
  const limb = own ?? (said === head || !hand ? null : hand === 'right' ? 'R' : 'L');
  return ticksIn(counts, voice, counting).map(({ tick, level }) => ({ tick, level, voice, limb }));
}

/** The ticks of a line's counts, with how loud each is. */
function ticksIn(counts: string, voice: Voice, counting: Counting): { tick: number; level: Level }[] {
  const grid = parseGrid(counts.trim().toLowerCase());
  const bar = barTicks(counting.meter);
  if (grid !== null && /[a-z]{3}/i.test(counts))
    return Array.from({ length: Math.ceil(bar / grid) }, (_, i) => ({ tick: i * grid, level: 'tap' as const }));
  let beat = '';
  return counts
    .split(/[\s,|]+/)
    .filter((word) => word !== '' && word !== 'and')
    .map((word) => {
      const [, open, core = '', accent] = /^(\()?(.*?)\)?(!)?$/.exec(word) ?? [];
      const spoken = /^\d/.test(core) ? core : `${beat}${core}`;
      const tick = parseCount(spoken, counting);
      if (tick === null || tick < 0)
        throw new Stop(
          'no-count',
          `${VOICE[voice].name}: “${core}” is not a count in ${meterText(counting.meter)} on ${gridName(counting.grid)}.`,
        );
      if (tick % counting.grid !== 0)
        throw new Stop('no-count', `${VOICE[voice].name}: “${core}” does not lie on ${gridName(counting.grid)}.`);
      beat = /^(?:\d+:)?\d+/.exec(spoken)?.[0] ?? beat;
      return { tick, level: accent ? 'accent' : open ? 'ghost' : 'tap' };
    });
}

/** Strokes with their hands: a piece that was given one, then what keeps time, then the rest. */
function handed(placed: readonly Placed[]): { readonly tick: number; readonly stroke: TypedStroke }[] {
  const order = (p: Placed): number => (p.limb ? 0 : VOICE[p.voice].keepsTime ? 1 : 2);
  const taken = new Set<string>();
  const beside = placed.some((p) => VOICE[p.voice].keepsTime && p.limb !== 'L' && isHand(p.limb ?? 'R'));
  return [...placed]
    .sort((a, b) => order(a) - order(b) || a.tick - b.tick)
    .map(({ tick, voice, level, limb: said }) => {
      const wanted: readonly Limb[] = said
        ? [said]
        : beside && VOICE[voice].piece === 'snare' && !VOICE[voice].keepsTime
          ? ['L', 'R']
          : ['R', 'L'];
      const limb = wanted.find((l) => !taken.has(`${tick}${l}`));
      if (!limb || !canStrike(limb, voice))
        throw new Stop('limb-twice', `${VOICE[voice].name}: both hands already play there.`);
      taken.add(`${tick}${limb}`);
      return { tick, stroke: { limb, level, ...(voice === usualVoice(limb) ? {} : { voice }) } };
    });
}

function nodesOf(
  strokes: readonly { readonly tick: number; readonly stroke: TypedStroke }[],
  { meter, grid }: Counting,
): readonly Node[] {
  const bar = barTicks(meter);
  const last = Math.max(...strokes.map((s) => s.tick));
  const slots = Math.ceil(((Math.floor(last / bar) + 1) * bar) / grid);
  if (slots > TEXT_LIMITS.slots) throw new Stop('too-long', `This is longer than ${TEXT_LIMITS.slots} slots.`);
  return Array.from({ length: slots }, (_, i): Node => {
    const own = strokes.filter((s) => s.tick === i * grid).map((s) => s.stroke);
    own.sort((a, b) => LIMBS.indexOf(a.limb) - LIMBS.indexOf(b.limb));
    return own.length > 0 ? { kind: 'strokes', strokes: own } : { kind: 'rest' };
  });
}

/**
 * A phrase written a line to a piece, so that it is read to the same strokes; null for one that cannot be: it begins
 * off the 1, leaves the home grid, is not whole bars long, or has grace strokes.
 * @example
 * linesOf(patternOfText(parseStrokeText('R[hat]+K R[hat] R[hat]+L! R[hat]').value, meter(2, 4), GRID.eighths)) // => "closed hi-hat: 1 & 2 &; snare: 2!; kick: 1"
 */
export function linesOf(pattern: Pattern): string | null {
  const { strokes, grid, start, length, meter } = pattern;
  if (start !== 0 || length % barTicks(meter) !== 0 || length / grid > TEXT_LIMITS.slots) return null;
  if (strokes.length === 0 || strokes.some((s) => s.at % grid !== 0 || s.ornament)) return null;
  // The last bar must have something in it: bars are counted by what stands in them.
  const end = strokes.at(-1)?.at ?? 0;
  if (end < length - barTicks(meter)) return null;
  const voices = [...new Set(strokes.map((s) => s.voice))].sort((a, b) => orderOf(a) - orderOf(b));
  const plain = voices
    .map((v) =>
      lineOf(
        pattern,
        v,
        strokes.filter((s) => s.voice === v),
        null,
      ),
    )
    .join('; ');
  if (strokes.every((s) => s.limb !== 'J') && sameHands(pattern, plain)) return plain;
  if (strokes.some((s) => s.limb === 'J')) return null;
  return voices
    .flatMap((v) =>
      (['R', 'L', null] as const).flatMap((hand) => {
        const own = strokes.filter((s) => s.voice === v && (isHand(s.limb) ? s.limb === hand : hand === null));
        return own.length > 0 ? [lineOf(pattern, v, own, hand)] : [];
      }),
    )
    .join('; ');
}

/** Cymbals first, feet last: as a groove is written from the top down. */
function orderOf(voice: Voice): number {
  const { family } = VOICE[voice];
  return family === 'metal' ? 0 : family === 'foot' ? 2 : 1;
}

function lineOf(pattern: Pattern, voice: Voice, strokes: readonly Stroke[], hand: 'R' | 'L' | null): string {
  const counting = countingOf(pattern, USUAL_SCHOOLS);
  let beat = '';
  const words = strokes.map((s) => {
    const { bar, beat: number, text, syllable } = countAt(s.at, counting);
    const here = `${bar === 1 ? '' : `${bar}:`}${number}`;
    const said = here === beat && syllable !== '' ? syllable : `${bar === 1 ? '' : `${bar}:`}${text}`;
    beat = here;
    return s.level === 'accent' ? `${said}!` : s.level === 'ghost' ? `(${said})` : said;
  });
  const which = hand === 'R' ? ' right' : hand === 'L' ? ' left' : '';
  return `${VOICE[voice].name}${which}: ${words.join(' ')}`;
}

function sameHands(pattern: Pattern, text: string): boolean {
  const read = parseLines(text, countingOf(pattern, USUAL_SCHOOLS));
  if (!read.ok) return false;
  const strokes = read.value.flatMap((n, i) =>
    n.kind === 'strokes' ? n.strokes.map((s) => `${i * pattern.grid} ${s.limb} ${s.voice ?? usualVoice(s.limb)}`) : [],
  );
  const own = pattern.strokes.map((s) => `${s.at} ${s.limb} ${s.voice}`);
  return strokes.sort().join() === own.sort().join();
}
