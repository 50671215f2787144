import { barTicks, ticks, type Meter, type Ticks } from '../time';
import { LEVEL_DEFAULTS, type Hand, type Level, type Voice } from '../stroke';
import { onGrid, type GridChoice } from './quantise';
import { layMoment, layTick, type Lay } from './lay';
import { HEARD_KINDS, type HeardKind, type Proposal } from './which-drum';

/** A stroke of a recording as it was heard and taken. */
export interface TakenOnset {
  readonly at: number;
  readonly sure: number;
  readonly loud: number;
  readonly proposal: Proposal;
}

/** What the player says of a stroke; what is absent is as it was heard. */
export interface Correction {
  /** Seconds of the stroke it is said of. */
  readonly at: number;
  /** Nothing is struck there. */
  readonly gone?: true;
  readonly kinds?: readonly HeardKind[];
  readonly level?: Level;
  readonly hand?: Hand;
  /** Ticks from the first 1, where it belongs to another slot. */
  readonly slot?: number;
}

/** A stroke that was heard, on its slot, with how sure each of it is. */
export interface HeardStroke {
  /** Ticks from the first bar line that is read. */
  readonly at: Ticks;
  /** Seconds where it was struck, and how far that is from its slot in ms: late above zero. */
  readonly seconds: number;
  readonly off: number;
  readonly kinds: readonly HeardKind[];
  readonly level: Level;
  readonly hand: Hand | null;
  /** 0.5 as likely as not, 1 certain; 1 where the player said it. */
  readonly sure: number;
  /** Why it is unsure, in words; empty where it is sure. */
  readonly why: string;
  readonly said: boolean;
}

/** The pieces that low, middle and bright stand for in one recording. */
export type PieceOf = Readonly<Record<HeardKind, Voice>>;
export const USUAL_PIECES: PieceOf = Object.freeze({ kick: 'kick', drum: 'snare', cymbal: 'hat-closed' });

/** What is less sure than this is listed to be listened to. */
export const SURE = 0.75;
/** A stroke so many dB over the usual of its kind is an accent; so many under, a ghost. */
const LOUDER = 3;
const SOFTER = 8;
/** A cymbal goes on where so much of its beat is struck by it alone, or hidden under a drum. */
const GOES_ON = { heard: 0.5, hidden: 0.9 } as const;

/** What is read of a recording: whole bars from a bar line on. */
export interface BarsOfRecord {
  readonly lay: Lay;
  /** The first bar, counted from the first 1, from 0. */
  readonly first: number;
  readonly many: number;
}

/**
 * Ticks from the first line of a stretch at which its strokes lie, with fractions; those a little before it are on
 * it.
 */
export function ticksIn(
  { lay, first, many }: BarsOfRecord,
  onsets: readonly { readonly at: number }[],
): readonly number[] {
  const bar = barTicks(lay.meter);
  return onsets
    .map((o) => layTick(lay, o.at) - first * bar)
    .filter((t) => t > 0 - bar / 64 && t < many * bar - bar / 64)
    .map((t) => Math.max(0, t));
}

/**
 * The strokes of a stretch on the slots of a grid, with what the player said of them. One slot has one stroke: what
 * lies
 * twice on it is the surer one.
 */
export function readStrokes(
  stretch: BarsOfRecord,
  choice: GridChoice,
  onsets: readonly TakenOnset[],
  said: readonly Correction[],
): readonly HeardStroke[] {
  const { lay, first, many } = stretch;
  const meter: Meter = lay.meter;
  const bar = barTicks(meter);
  const length = many * bar;
  const levels = levelsOf(onsets);
  const bySlot = new Map<number, HeardStroke>();
  for (const o of onsets) {
    const word = correctionOf(said, o.at);
    if (word?.gone) continue;
    const tick = layTick(lay, o.at) - first * bar;
    if (tick <= 0 - bar / 64 || tick >= length - bar / 64) continue;
    const slot = word?.slot ?? onGrid(Math.max(0, tick), { ...choice, meter });
    if (slot < 0 || slot >= length) continue;
    const due = layMoment(lay, slot + first * bar);
    const kinds = word?.kinds ?? o.proposal.kinds;
    const named = word?.kinds !== undefined;
    const off = (o.at - due) * 1000;
    // Half a slot away it might as well be the next one.
    const half = ((layMoment(lay, slot + first * bar + choice.grid) - due) * 1000) / 2;
    const placed = word?.slot !== undefined ? 1 : 1 - Math.max(0, Math.abs(off) / half - 0.4);
    const doubts: readonly (readonly [number, string])[] = named
      ? [[placed, 'between two slots']]
      : [
          [o.sure, 'very soft, maybe not played'],
          [o.proposal.sure, `${o.proposal.kinds.join(' with ')}, or similar`],
          [placed, 'between two slots'],
        ];
    const [sure, why] = doubts.reduce((a, b) => (b[0] < a[0] ? b : a));
    const stroke: HeardStroke = {
      at: ticks(slot),
      seconds: o.at,
      off,
      kinds,
      level: word?.level ?? levels(o, kinds),
      hand: word?.hand ?? null,
      sure: Math.max(0, Math.min(1, sure)),
      why: sure < SURE ? why : '',
      said: named,
    };
    const there = bySlot.get(slot);
    if (!there || (stroke.said && !there.said) || (stroke.said === there.said && stroke.sure > there.sure))
      bySlot.set(slot, stroke);
  }
  const strokes = [...bySlot.values()].sort((a, b) => a.at - b.at);
  return withTime(strokes, choice.grid, length);
}

/** What was said of the stroke at a moment. */
export function correctionOf(said: readonly Correction[], at: number): Correction | null {
  return said.find((c) => Math.abs(c.at - at) < 0.004) ?? null;
}

/** Levels from loudness: each kind has its own usual one. */
function levelsOf(onsets: readonly TakenOnset[]): (o: TakenOnset, kinds: readonly HeardKind[]) => Level {
  const middle = (loud: readonly number[]): number => [...loud].sort((a, b) => a - b)[Math.floor(loud.length / 2)] ?? 0;
  const usual = new Map(
    HEARD_KINDS.map((kind) => {
      const own = onsets.filter((o) => leading(o.proposal.kinds) === kind).map((o) => o.loud);
      return [kind, own.length > 0 ? middle(own) : middle(onsets.map((o) => o.loud))] as const;
    }),
  );
  return (o, kinds) => {
    const over = o.loud - (usual.get(leading(kinds)) ?? o.loud);
    if (over > LOUDER) return 'accent';
    return over < -SOFTER && leading(kinds) === 'drum' ? 'ghost' : 'tap';
  };
}

/** Of what is struck together, what its loudness is that of. */
function leading(kinds: readonly HeardKind[]): HeardKind {
  return kinds.includes('drum') ? 'drum' : kinds.includes('kick') ? 'kick' : 'cymbal';
}

/**
 * A cymbal that keeps time goes on under drums and kicks, where it can hardly be heard: there it is proposed too, as
 * unsure. Time is kept on eighths, quarters or every slot.
 */
function withTime(strokes: readonly HeardStroke[], grid: number, length: number): readonly HeardStroke[] {
  const at = new Map(strokes.map((s): [number, HeardStroke] => [s.at, s]));
  for (const step of [grid, 2520, 5040]) {
    if (step < grid || step % grid !== 0 || length / step < 4) continue;
    const comb = Array.from({ length: length / step }, (_, i) => at.get(i * step) ?? null);
    const heard = comb.filter((s) => s?.kinds.includes('cymbal')).length / comb.length;
    const hidden = comb.filter((s) => s !== null).length / comb.length;
    if (heard < GOES_ON.heard || hidden < GOES_ON.hidden) continue;
    return strokes.map((s) =>
      s.at % step !== 0 || s.said || s.kinds.includes('cymbal')
        ? s
        : {
            ...s,
            kinds: HEARD_KINDS.filter((k) => k === 'cymbal' || s.kinds.includes(k)),
            sure: Math.min(s.sure, 0.7),
            why: 'the time cymbal may go on underneath',
          },
    );
  }
  return strokes;
}

/** The strokes that are to be listened to again: those that are unsure, in order. */
export function unsureOf(strokes: readonly HeardStroke[]): readonly HeardStroke[] {
  return strokes.filter((s) => s.sure < SURE);
}

/**
 * A MIDI velocity of a level, as everywhere in the application.
 * @example
 * velocityOfLevel('ghost') < velocityOfLevel('accent') // => true
 */
export function velocityOfLevel(level: Level): number {
  return LEVEL_DEFAULTS[level].velocity;
}
