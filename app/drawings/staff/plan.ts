import { barTicks } from '@core/time';
import type { Stroke } from '@core/stroke';
import type { Pattern } from '@core/pattern';
import { scoreOf, VALUE_TICKS, type ScoreBar, type ScoreEvent, type ScoreVoice } from '@core/score';
import { staffLines, widthAlone, type StaffLine } from './lines';
import { hatSign, heightOf, openAfter } from './notation';

export interface StaffOptions {
  readonly width: number;
  readonly stickings: boolean;
  /** How large, 1 for a usual staff. */
  readonly scale: number;
}

/** A line of the staff before it is drawn. */
export interface PlannedLine extends StaffLine {
  /** Tick of its first bar line. */
  readonly from: number;
  /** Whether the hi-hat was left open before it. */
  readonly open: boolean;
  /**
   * Room above the staff in distances of its lines: the numbers of tuplets stand over accents, and accents over the
   * stems of cymbals.
   */
  readonly above: number;
  /** Height with what stands above and under it, in px before scaling. */
  readonly height: number;
  /** How far under the staff the first letter of the sticking stands, in px before scaling. */
  readonly under: number;
  /** How large it is drawn: smaller than was asked where a bar would not fit on a line. */
  readonly scale: number;
  /** Whether the meter stands on it. */
  readonly first: boolean;
  /** All that can be seen of it: lines of one key look the same, wherever they stand. */
  readonly key: string;
}

/**
 * Room above a staff at least, and what stands over the highest head there, in distances of the staff's lines: stem,
 * beams of 32nds and shorter, accent, sign of the hi-hat, number of a tuplet; and the words of a feel.
 */
const ABOVE = { plain: 4, stem: 3.5, beams: 1, flags: 2.6, accent: 3, sign: 2, tuplet: 2.4, feel: 1.2 };
/**
 * Height of the lines of a staff, how far under them the first letters stand at least, what each letter more takes, and
 * the room to the next staff, in px before scaling.
 */
const STAFF = { lines: 40, letters: 22, letter: 9, gap: 8 };
/** Smaller than this, as a share of what was asked, nothing can be read. */
const SMALLEST = 0.4;
/** The top line of the staff, in steps. */
const TOP_LINE = 38;
const BOTTOM_LINE = 30;

/** Room that the highest of all notes needs above the staff. */
function roomAbove(bars: readonly ScoreBar[], strokes: readonly Stroke[]): number {
  const needs = bars.map(({ hands, feet }) => {
    const over = hands.tuplets.length + (feet?.tuplets.length ?? 0) > 0 ? ABOVE.tuplet : 0;
    const heights = [...beamed(hands.events), ...beamed(feet?.events ?? [])].map((e) => {
      const own = e.strokes.flatMap((i) => strokes[i] ?? []);
      if (own.length === 0) return 0;
      const head = (Math.max(...own.map(heightOf)) - TOP_LINE) / 2;
      const signs =
        (own.some((s) => s.level === 'accent') ? ABOVE.accent : 0) +
        (own.some((s) => hatSign(s.voice, true)) ? ABOVE.sign : 0) +
        flags(e);
      return Math.max(0, head + ABOVE.stem) + signs;
    });
    return Math.max(0, ...heights) + over;
  });
  return Math.max(ABOVE.plain, ...needs);
}

/** What decides how far the signs of a note reach. */
type Signed = Pick<ScoreEvent, 'strokes' | 'value' | 'tuplet'>;

/** Notes of one beam taken together: signs over a low note stand clear of the beam that a high one lifts. */
function beamed(events: readonly ScoreEvent[]): readonly Signed[] {
  const beams = new Map<number, Signed>();
  const alone = events.filter((e) => e.beam === null);
  for (const e of events) {
    if (e.beam === null) continue;
    const own = beams.get(e.beam);
    const shorter = !own || VALUE_TICKS[e.value] < VALUE_TICKS[own.value];
    beams.set(e.beam, {
      strokes: [...(own?.strokes ?? []), ...e.strokes],
      value: shorter ? e.value : own.value,
      tuplet: own?.tuplet ?? e.tuplet,
    });
  }
  return [...alone, ...beams.values()];
}

/** What flags and beams lengthen a stem by. */
function flags({ value }: Pick<Signed, 'value'>): number {
  return VALUE_TICKS[value] <= VALUE_TICKS['64']
    ? ABOVE.flags
    : VALUE_TICKS[value] <= VALUE_TICKS['32']
      ? ABOVE.beams
      : 0;
}

/** Room that stems, flags and accents of the feet need under the staff before the letters, in px before scaling. */
function roomUnder(bars: readonly ScoreBar[], strokes: readonly Stroke[]): number {
  const own = (e: Signed): Stroke[] => e.strokes.flatMap((i) => strokes[i] ?? []);
  const heads = bars.flatMap(({ hands }) =>
    hands.events.map((e) => (BOTTOM_LINE - Math.min(BOTTOM_LINE, ...own(e).map(heightOf))) / 2),
  );
  const needs = bars.flatMap(({ feet }) =>
    beamed(feet?.events ?? []).map((e) => {
      const tuplet = e.tuplet === null ? 0 : ABOVE.tuplet;
      if (e.strokes.length === 0) return 0;
      const head = (BOTTOM_LINE - Math.min(...own(e).map(heightOf))) / 2;
      return head + ABOVE.stem + flags(e) + tuplet + (own(e).some((s) => s.level === 'accent') ? ABOVE.accent - 1 : 0);
    }),
  );
  return Math.max(
    STAFF.letters,
    Math.max(0, ...heads) * 10 + STAFF.letters - 6,
    Math.max(0, ...needs) * 10 + STAFF.letter,
  );
}

/** The most limbs that strike together: their letters stand under one another. */
function mostTogether(bars: readonly ScoreBar[]): number {
  const ofBar = ({ hands, feet }: ScoreBar): number => {
    const many = new Map<number, number>();
    for (const e of [...hands.events, ...(feet?.events ?? [])])
      many.set(e.at, (many.get(e.at) ?? 0) + e.strokes.length);
    return Math.max(1, ...many.values());
  };
  return Math.max(1, ...bars.map(ofBar));
}

/** A pattern broken into lines, each with what it looks like, so that only lines that look new are engraved. */
export function planStaff(pattern: Pattern, options: StaffOptions): readonly PlannedLine[] {
  const { width, stickings } = options;
  const bar = barTicks(pattern.meter);
  const looks = ({ events, tuplets }: ScoreVoice) => [
    tuplets,
    ...events.map((e) => ({ ...e, strokes: e.strokes.flatMap((i) => pattern.strokes[i] ?? []).map(lookOf) })),
  ];
  let open = false;
  const score = scoreOf(pattern);
  const swung = pattern.feel.kind === 'straight' ? 0 : ABOVE.feel;
  const widest = Math.max(...score.bars.map((b) => widthAlone(b, pattern.strokes)));
  const scale = options.scale * Math.min(1, Math.max(SMALLEST, (width - 20) / options.scale / widest));
  return staffLines(score, width / scale - 20, pattern.strokes).map((line, nth) => {
    const before = open;
    const own = line.bars.map((b) => b.bar);
    const above = (nth === 0 ? swung : 0) + roomAbove(own, pattern.strokes);
    const letters = stickings ? (mostTogether(own) - 1) * STAFF.letter : 0;
    const under = roomUnder(own, pattern.strokes);
    const height = STAFF.lines + above * 10 + under + letters + STAFF.gap;
    for (const { bar: one } of line.bars)
      for (const e of one.hands.events)
        open = openAfter(
          e.strokes.flatMap((i) => pattern.strokes[i] ?? []),
          open,
        );
    const bars = line.bars.map((b) => [b.width, looks(b.bar.hands), b.bar.feet && looks(b.bar.feet)]);
    return {
      ...line,
      from: ((line.bars[0]?.bar.number ?? 1) - 1) * bar,
      open: before,
      above,
      height,
      under,
      scale,
      first: nth === 0,
      key: JSON.stringify([
        nth === 0 && [pattern.meter, pattern.feel],
        before,
        above,
        height,
        stickings,
        scale,
        width,
        bars,
      ]),
    };
  });
}

/** What is seen of a stroke on the staff: neither where it came from nor its number. */
function lookOf({ limb, level, voice, ornament, grace }: Stroke): string {
  return `${limb} ${level} ${voice} ${ornament ?? ''} ${grace ?? ''}`;
}

/** Where each line begins under those before it, and at last where they end, in px. */
export function topsOf(lines: readonly PlannedLine[]): readonly number[] {
  let top = 0;
  return [0, ...lines.map(({ height, scale }) => (top += height * scale))];
}
