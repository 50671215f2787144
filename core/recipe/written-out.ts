import { gcd } from '../base';
import { barTicks, countAt, meterText, USUAL_SCHOOLS } from '../time';
import { asTyped, printTyped, TEXT_LIMITS, type Stroke } from '../stroke';
import { countingOf, landingAt, type Pattern } from '../pattern';
import { build } from './build';
import { asEdit, freshId } from './hand';
import { MOST_MOVES } from './plain';
import type { Recipe } from './recipe';
import type { MoveEntry, MoveName, MoveParams } from './registry';
import type { Edit } from './moves';

/** The most hand edits of one `touch`. */
const MOST_EDITS = 4096;
const LEAST_SLOT = 105;
const MOST_SLOT = 20_160;

/**
 * A recipe that builds a pattern that came from outside: its strokes as typed text on the home grid, what lies beside
 * the grid as hand edits, then where it starts, its landing and its pick-up. Null where no recipe can say it, as for
 * more strokes than one may hold.
 *
 * What it builds has the same meter, grid, feel, start, length, strokes and pick-up; where strokes came from and how
 * they group is not known from outside.
 * @example
 * recipeOf(patternOfText(parseStrokeText('R! - l+K').value, meter(3, 4), GRID.quarters)).source.text // => "R! - l+K"
 */
export function recipeOf(pattern: Pattern): Recipe | null {
  const recipe = writtenOut(pattern);
  return recipe && isSame(build(recipe).pattern, pattern) ? recipe : null;
}

/**
 * Whether two patterns are the same music on the same grid: all but where strokes came from and how they group.
 * @example
 * isSame(patternOfText(parseStrokeText('(R L)x2').value, meter(4, 4), GRID.eighths), patternOfText(parseStrokeText('R L R L').value, meter(4, 4), GRID.eighths)) // => true
 */
export function isSame(a: Pattern, b: Pattern): boolean {
  return JSON.stringify(bare(a)) === JSON.stringify(bare(b));
}

function bare(p: Pattern): unknown {
  const stroke = ({ at, limb, voice, level, ornament, grace }: Stroke): unknown => [
    at,
    limb,
    voice,
    level,
    ornament ?? '',
    (ornament && ornament !== 'buzz' && grace) || '',
  ];
  const { feel } = p;
  return [
    meterText(p.meter),
    p.grid,
    feel.kind === 'swung' && feel.ratio !== 0.5 ? [feel.on, feel.ratio] : [],
    p.start,
    p.length,
    landingAt(p),
    p.strokes.map(stroke),
    (p.pickup ?? []).map(stroke),
  ];
}

function writtenOut(pattern: Pattern): Recipe | null {
  const { meter, grid, feel, start, pickup = [] } = pattern;
  const landing = landingAt(pattern);
  const length = landing ?? pattern.length;
  const own = pattern.strokes.filter((s) => s.at < length);
  const slots = Math.floor(length / grid);
  const rest = length - slots * grid;
  if (slots > TEXT_LIMITS.slots || slots === 0 || (rest > 0 && rest < LEAST_SLOT)) return null;
  const first = own[0];
  // Where it starts is said by its first stroke, which must be there and inside the first bar: else one stands in.
  const stands = start > 0 && (first?.at !== 0 || slots < 1);
  const text = Array.from({ length: slots }, (_, i) => textAt(own, i * grid));
  if (stands) text[0] = 'R';
  const shifted = start > 0 && length >= barTicks(meter);
  const head = shifted ? text.slice(0, 1) : text;
  const moves: MoveEntry[] = [];
  const add = <N extends MoveName>(move: N, params: MoveParams[N]): void => {
    moves.push({ id: freshId(moves), on: true, move, params } as MoveEntry);
  };
  if (start > 0) {
    const count = countAt(start, countingOf(pattern, USUAL_SCHOOLS));
    if (start >= barTicks(meter) || (shifted && grid >= barTicks(meter))) return null;
    add('shift', { slots: 0, mode: 'wrap', start: count.text });
  }
  if (shifted && text.length > 1) add('insert', { text: text.slice(1).join(' '), where: { kind: 'end' } });
  if (rest > 0) add('insert', { text: '-', grid: Math.min(rest, MOST_SLOT), where: { kind: 'end' } });
  const edits: Edit[] = own.filter((s) => s.at % grid !== 0 || s.at >= slots * grid).map((s) => asEdit(s, s.at));
  if (stands) edits.unshift({ at: 0, limb: 'R', stroke: null }, ...at(own, 0).map((s) => asEdit(s, 0)));
  if (landing !== null) {
    const landed = at(pattern.strokes, landing);
    const hand = landed.find((s) => s.limb === 'R' || s.limb === 'L');
    const kick = landed.some((s) => s.limb === 'K');
    add('land', { ...(hand ? { voice: hand.voice } : {}), hand: hand?.limb === 'L' ? 'L' : 'R', kick });
    edits.push(...pattern.strokes.filter((s) => s.at >= landing).map((s) => asEdit(s, s.at)));
  }
  for (let i = 0; i < edits.length; i += MOST_EDITS) add('touch', { edits: edits.slice(i, i + MOST_EDITS) });
  if (pickup.length > 0) {
    const from = pickup[0]?.at ?? 0;
    const slot = pickup.every((s) => s.at % grid === 0) ? grid : pickup.reduce((a, s) => gcd(a, 0 - s.at), 0);
    const many = (0 - from) / slot;
    if (slot < LEAST_SLOT || slot > MOST_SLOT || many > TEXT_LIMITS.slots) return null;
    const words = Array.from({ length: many }, (_, i) => textAt(pickup, from + i * slot)).join(' ');
    add('pickup', { text: words, ...(slot === grid ? {} : { grid: slot }) });
  }
  const whole = head.join(' ');
  const tooLong = moves.length > MOST_MOVES || [whole, text.join(' ')].some((t) => t.length > TEXT_LIMITS.letters);
  if (tooLong) return null;
  const swing = feel.kind === 'swung' ? { swing: { on: feel.on, ratio: feel.ratio } } : {};
  return { source: { kind: 'typed', text: whole, meter: meterText(meter), grid, ...swing }, moves };
}

function at(strokes: readonly Stroke[], tick: number): Stroke[] {
  return strokes.filter((s) => s.at === tick);
}

function textAt(strokes: readonly Stroke[], tick: number): string {
  return (
    at(strokes, tick)
      .map((s) => printTyped(asTyped(s)))
      .join('+') || '-'
  );
}
