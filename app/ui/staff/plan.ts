import { barTicks } from '@core/time';
import type { Stroke } from '@core/stroke';
import type { Pattern } from '@core/pattern';
import { scoreOf, type ScoreVoice } from '@core/score';
import { staffLines, type StaffLine } from './lines';
import { openAfter } from './notation';

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
   * Room above the staff in distances of its lines, the same for all lines of a plan: the numbers of tuplets stand over
   * accents.
   */
  readonly above: number;
  /** Whether the meter stands on it. */
  readonly first: boolean;
  /** All that can be seen of it: lines of one key look the same, wherever they stand. */
  readonly key: string;
}

/** Room above a staff without and with tuplets of the hands, and what the words of a feel need besides. */
const ABOVE = { plain: 6, tuplets: 7.8, feel: 1.2 };

/** A pattern broken into lines, each with what it looks like, so that only lines that look new are engraved. */
export function planStaff(pattern: Pattern, { width, stickings, scale }: StaffOptions): readonly PlannedLine[] {
  const bar = barTicks(pattern.meter);
  const looks = ({ events, tuplets }: ScoreVoice) => [
    tuplets,
    ...events.map((e) => ({ ...e, strokes: e.strokes.flatMap((i) => pattern.strokes[i] ?? []).map(lookOf) })),
  ];
  let open = false;
  const score = scoreOf(pattern);
  const swung = pattern.feel.kind === 'straight' ? 0 : ABOVE.feel;
  const above = swung + (score.bars.some((b) => b.hands.tuplets.length > 0) ? ABOVE.tuplets : ABOVE.plain);
  return staffLines(score, width / scale - 4).map((line, nth) => {
    const before = open;
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
      first: nth === 0,
      key: JSON.stringify([nth === 0 && [pattern.meter, pattern.feel], before, above, stickings, scale, width, bars]),
    };
  });
}

/** What is seen of a stroke on the staff: neither where it came from nor its number. */
function lookOf({ limb, level, voice, ornament, grace }: Stroke): string {
  return `${limb} ${level} ${voice} ${ornament ?? ''} ${grace ?? ''}`;
}
