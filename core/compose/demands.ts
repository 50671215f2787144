import {
  barTicks,
  countAt,
  GRID,
  meter,
  meterText,
  parseCount,
  parseMeter,
  ticks,
  USUAL_SCHOOLS,
  type Meter,
  type Schools,
  type Ticks,
} from '../time';
import { asTyped, isHand, LIMBS, VOICE, type Hand, type Limb, type Voice } from '../stroke';
import { countingOf, unisons, type Pattern } from '../pattern';
import { pieceFor, type Kit } from '../kit';
import {
  asking,
  type Asked,
  type Cell,
  COMPOSE_LIMITS,
  isPiece,
  type Landing,
  type Slot,
  type SlotWish,
  type Way,
} from './asked';
import { cellOf, different, freeCells, linearCells, rudimentCells } from './cells';
import { wayMoves } from './ways';

/** What a phrase may be built from, as the player chooses it. */
export const BLOCKS = [
  'singles',
  'kicks',
  'rests',
  'rudiments',
  '3',
  '4',
  '5',
  '6',
  '7',
  'kick-inside',
  'two-kicks',
  'own',
] as const;
export type Block = (typeof BLOCKS)[number];

/** Where it lands. */
export type Lands = 'nowhere' | 'right' | 'left' | 'kick';
/** How many of its slots are struck. */
export const DENSITIES = ['any', 'every', 'most', 'half'] as const;
export type Density = (typeof DENSITIES)[number];
/** What of the phrase on the Bench stays. */
export const KEEPS = ['kick', 'hands', 'accents'] as const;
export type Keep = (typeof KEEPS)[number];

/** What the player asks for, as it is set: the sheet, words, a show and the map all set the same fields. */
export interface Demands {
  readonly meter: string;
  readonly grid: number;
  readonly bars: number;
  /** The count of the first bar it begins on; null for the bar line. */
  readonly from: string | null;
  /** Ticks by which it ends before the last bar line; 0 where it goes to it. */
  readonly short: number;
  readonly wishes: readonly SlotWish[];
  readonly blocks: readonly Block[];
  /** Cells typed by the player, parted by commas. */
  readonly own: string;
  /** Phrases of the shelf whose first repeat is a cell. */
  readonly shelf: readonly { readonly id: string; readonly name: string }[];
  /** Names of single rudiments, lower case; all of them with the block. */
  readonly rudiments: readonly string[];
  readonly linear: boolean;
  readonly cut: boolean;
  /** The most strokes in a row of one hand, and of the kick; 0 for any number. */
  readonly hand: number;
  readonly foot: number;
  readonly density: Density;
  readonly lead: Hand | 'either';
  readonly end: Hand | 'either';
  readonly lands: Lands;
  readonly way: Way | 'none';
  /** The tempo it must hold; 0 where any does. */
  readonly holds: number;
  readonly apart: number;
  readonly unlike: number;
  /** What of the phrase on the Bench stays, and by how many slots an answer may differ from it; null from nothing. */
  readonly keeps: readonly Keep[];
  readonly like: number | null;
  /** Slots of an answer that stay. */
  readonly held: readonly (Slot | null)[] | null;
}

/** What is asked before anything was set: sensible, and not much. */
export const USUAL_DEMANDS: Demands = Object.freeze<Demands>({
  meter: '4/4',
  grid: GRID.sixteenths,
  bars: 1,
  from: null,
  short: 0,
  wishes: [],
  blocks: ['3', '4', '5'],
  own: '',
  shelf: [],
  rudiments: [],
  linear: true,
  cut: false,
  hand: 2,
  foot: 0,
  density: 'any',
  lead: 'either',
  end: 'either',
  lands: 'nowhere',
  way: 'none',
  holds: 0,
  apart: 3,
  unlike: 1,
  keeps: [],
  like: null,
  held: null,
});

/** What demands are held against: the phrase on the Bench, phrases chosen as cells, the kit. */
export interface Beside {
  readonly phrase: Pattern | null;
  readonly cells: readonly Cell[];
  readonly kit: Kit;
  readonly schools: Schools;
}

const FOUR = meter(4, 4);
/** Of one sum so many answers are shown, and so many in all. */
const SAME_SUM = 2;
const MANY = 12;
const DENSE: Readonly<Record<Density, readonly [number, number] | null>> = {
  any: null,
  every: [1, 1],
  most: [0.6, 0.85],
  half: [0.3, 0.6],
};
const CRASHES: Readonly<Record<'right' | 'left', Voice>> = { right: 'crash-right', left: 'crash-left' };

/** The meter of demands, 4/4 where it cannot be read. */
export const meterOf = ({ meter: text }: Pick<Demands, 'meter'>): Meter => parseMeter(text) ?? FOUR;

/** How far behind the bar line it begins, in ticks; 0 where the count is none of its bar. */
export function startOf(demands: Demands, schools: Schools): Ticks {
  if (demands.from === null) return ticks(0);
  const own = meterOf(demands);
  const at = parseCount(demands.from, { meter: own, grid: ticks(demands.grid), schools });
  return at === null || at >= barTicks(own) || at % demands.grid !== 0 ? ticks(0) : at;
}

/** How many slots the space has, from where it begins to the end of its last bar. */
export function slotsAsked(demands: Demands, schools: Schools): number {
  const room = demands.bars * barTicks(meterOf(demands)) - startOf(demands, schools);
  const asked = Math.floor((room - demands.short) / demands.grid);
  // What was short of another room is nothing here.
  return asked > 0 ? asked : Math.floor(room / demands.grid);
}

/** How many bars of a meter on a grid can be asked for. */
export function mostBars(demands: Demands): number {
  return Math.max(1, Math.min(4, Math.floor((COMPOSE_LIMITS.slots * demands.grid) / barTicks(meterOf(demands)))));
}

/** Cells typed by the player; those that cannot be read come back as they were typed. */
export function typedCells(text: string): { readonly cells: readonly Cell[]; readonly unread: readonly string[] } {
  const parts = text
    .split(/[,;\n]/)
    .map((t) => t.trim())
    .filter(Boolean);
  const read = parts.map((t) => cellOf(t, t));
  return { cells: read.flatMap((c) => c ?? []), unread: parts.filter((_, i) => read[i] === null) };
}

function cellsOf(block: Block, own: string): readonly Cell[] {
  switch (block) {
    case 'singles':
      return freeCells(false, false);
    case 'kicks':
      return [{ name: 'K', slots: [[{ limb: 'K', level: 'tap' }]] }];
    case 'rests':
      return [{ name: '-', slots: [[]] }];
    case 'rudiments':
      return rudimentCells();
    case 'kick-inside':
    case 'two-kicks':
      return [3, 4, 5, 6, 7].flatMap((n) => linearCells(n, block));
    case 'own':
      return typedCells(own).cells;
    default:
      return linearCells(Number(block), 'kick-last');
  }
}

/** What is played in each of so many slots of a phrase by some limbs; null where it does not lie on the grid. */
export function slotsIn(pattern: Pattern, grid: number, slots: number, limbs: readonly Limb[]): readonly Slot[] | null {
  const own = Array.from({ length: slots }, (): ReturnType<typeof asTyped>[] => []);
  for (const s of pattern.strokes) {
    if (!limbs.includes(s.limb) || s.at >= slots * grid) continue;
    const slot = own[s.at / grid];
    if (!slot) return null;
    slot.push(asTyped(s));
  }
  return own;
}

/**
 * The room of a phrase, and a hit where it has an accent of a hand; where it has none, where hands strike. Null where
 * it does not lie on one subdivision.
 * @example
 * hitsOf(patternOfText(parseStrokeText('R! l l R! K').value, meter(4, 4), GRID.sixteenths)).wishes.map((w) => w.slot) // => [0, 3]
 */
export function hitsOf(pattern: Pattern): Pick<Demands, 'meter' | 'grid' | 'bars' | 'from' | 'wishes' | 'held'> | null {
  const { meter: own, grid, start, length } = pattern;
  const slots = slotsIn(pattern, grid, Math.ceil(length / grid), LIMBS);
  if (!slots) return null;
  const bar = barTicks(own);
  const room = {
    meter: meterText(own),
    grid: Number(grid),
    bars: Math.ceil((start + length) / bar),
    from: start > 0 && start < bar ? countAt(start, countingOf(pattern, USUAL_SCHOOLS)).text : null,
  };
  const bars = Math.min(room.bars, mostBars({ ...USUAL_DEMANDS, ...room }));
  const many = slotsAsked({ ...USUAL_DEMANDS, ...room, bars }, USUAL_SCHOOLS);
  const isHit = (slot: Slot, least: boolean): boolean =>
    slot.some((s) => isHand(s.limb) && (least || s.level === 'accent'));
  const least = !slots.some((slot) => isHit(slot, false));
  const wishes = slots
    .slice(0, many)
    .flatMap((slot, i) => (isHit(slot, least) ? [{ slot: i, what: 'hit' as const, must: true }] : []));
  return { ...room, bars, wishes, held: null };
}

/** What a phrase that is like another one is built from: its own slots, and a stroke of each limb or none. */
function likeCells(slots: readonly Slot[]): readonly Cell[] {
  const name = (slot: Slot): string => (slot.length === 0 ? '-' : slot.map((s) => s.limb).join('+'));
  const own = slots.map((slot): Cell => ({ name: name(slot), slots: [slot] }));
  return different([...own, ...freeCells(true, true)]);
}

/** Demands that cannot be met as they are set, in words; and what is asked for. */
export interface Demanded {
  readonly asked: Asked;
  readonly wrong: readonly string[];
}

/**
 * What demands come to for the search: cells, lines that stay, pieces of the kit. `wrong` says what cannot be asked: a
 * piece the kit has not, cells that cannot be read, a phrase on another grid.
 * @example
 * demanded(USUAL_DEMANDS, { phrase: null, cells: [], kit: USUAL_KIT, schools: USUAL_SCHOOLS }).asked.slots // => 16
 * demanded({ ...USUAL_DEMANDS, from: '3' }, { phrase: null, cells: [], kit: USUAL_KIT, schools: USUAL_SCHOOLS }).asked.slots // => 8
 */
export function demanded(demands: Demands, { phrase, cells, kit, schools }: Beside): Demanded {
  const wrong: string[] = [];
  const [own, grid, start] = [meterOf(demands), ticks(demands.grid), startOf(demands, schools)];
  const slots = slotsAsked(demands, schools);
  const typed = typedCells(demands.own);
  if (demands.blocks.includes('own'))
    for (const text of typed.unread)
      wrong.push(`“${text.slice(0, 40)}” is not a sticking. Write R, L, K and - for a rest.`);
  const { keeps, like } = demands;
  const needs = keeps.length > 0 || like !== null;
  const all = phrase && slotsIn(phrase, demands.grid, slots, LIMBS);
  if (needs && !phrase) wrong.push('There is no phrase on the Bench to keep something of.');
  if (needs && phrase && !all) wrong.push('The phrase on the Bench lies on another subdivision.');
  const form = needs ? all : null;
  if (like !== null && form && phrase && phrase.length < slots * grid)
    wrong.push('The phrase on the Bench is shorter. Ask for fewer bars.');
  const kept: Limb[] = [
    ...(keeps.includes('kick') ? (['K'] as const) : []),
    ...(keeps.includes('hands') ? (['R', 'L'] as const) : []),
  ];
  const line =
    form && kept.length > 0
      ? { limbs: kept, slots: form.map((slot) => slot.filter((s) => kept.includes(s.limb))) }
      : null;
  const accents = form && keeps.includes('accents') ? accentWishes(form) : [];
  const isLike = form !== null && like !== null;
  const built = isLike
    ? likeCells(form)
    : [
        ...demands.blocks.flatMap((b) => cellsOf(b, demands.own)),
        ...(demands.blocks.includes('rudiments') ? [] : namedRudiments(demands.rudiments)),
        ...cells,
        ...(keeps.includes('hands') ? [...cellsOf('kicks', ''), ...cellsOf('rests', '')] : []),
      ];
  const way = demands.way === 'none' ? null : demands.way;
  if (way !== null && wayMoves(way, slots, kit) === null)
    wrong.push('Your kit has not the pieces for this way round it.');
  const landing = landingOf(demands.lands);
  const pieces = demands.wishes.flatMap((w) => (w.must && isPiece(w.what) ? [w.what] : []));
  for (const voice of new Set([...pieces, ...(landing?.voice ? [landing.voice] : [])]))
    if (pieceFor(kit, voice) === null) wrong.push(`${kit.name} has no ${VOICE[voice].name}.`);
  const dense = DENSE[demands.density];
  const longest = isLike ? Math.max(runIn(form, 'R'), runIn(form, 'L')) : 0;
  const asked = asking({
    meter: own,
    grid,
    start,
    slots,
    cells: different(built),
    wishes: [...demands.wishes.filter((w) => w.slot < slots), ...accents],
    line,
    held: demands.held,
    like: isLike ? { slots: form, most: like } : null,
    linear: demands.linear && !(needs && phrase !== null && unisons(phrase).length > 0 && (isLike || kept.length > 1)),
    cut: demands.cut,
    longest: {
      hand: demands.hand > 0 ? Math.max(demands.hand, longest) : null,
      foot: demands.foot > 0 ? demands.foot : null,
    },
    struck: dense && { least: Math.ceil(dense[0] * slots), most: Math.floor(dense[1] * slots) },
    lead: demands.lead === 'either' ? null : demands.lead,
    end: demands.end === 'either' ? null : demands.end,
    landing,
    way,
    tempo: demands.holds > 0 ? demands.holds : null,
    apart: isLike ? 1 : Math.max(1, demands.apart),
    unlike: isLike ? 0 : demands.unlike,
    alike: isLike ? null : SAME_SUM,
    many: MANY,
  });
  return { asked, wrong };
}

/** The most slots in a row in which a limb plays. */
function runIn(form: readonly Slot[], limb: Limb): number {
  let [now, most] = [0, 0];
  for (const slot of form) {
    now = slot.some((s) => s.limb === limb) ? now + 1 : 0;
    most = Math.max(most, now);
  }
  return most;
}

/** Rudiments by their names, and each with the left first. */
function namedRudiments(names: readonly string[]): readonly Cell[] {
  if (names.length === 0) return [];
  const own = (c: Cell): string => c.name.replace(/, left first$/, '').toLowerCase();
  return rudimentCells(COMPOSE_LIMITS.slots).filter((c) => names.includes(own(c)));
}

function landingOf(lands: Lands): Landing | null {
  switch (lands) {
    case 'nowhere':
      return null;
    case 'kick':
      return { hand: 'R', kick: true };
    case 'right':
      return { hand: 'R', voice: CRASHES.right, kick: true };
    case 'left':
      return { hand: 'L', voice: CRASHES.left, kick: true };
  }
}

/** Accents where a phrase has them, and nowhere else. */
function accentWishes(form: readonly Slot[]): readonly SlotWish[] {
  return form.map((slot, i) => ({
    slot: i,
    what: 'hit' as const,
    must: slot.some((s) => isHand(s.limb) && s.level === 'accent'),
  }));
}
