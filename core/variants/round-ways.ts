import type { Kit } from '../kit';
import type { Pattern } from '../pattern';
import { ceilingOn, limitOf, type Able } from '../reach';
import { applyMove, type MoveParams } from '../recipe';
import { exactForm } from './canonical';

/** What hands play round a line, in the order of the schools: singles, doubles, paradiddle, and cells of three. */
const TEXTS = ['R L', 'R R L L', 'R L R R L R L L', 'R L L', 'R R L', 'L R', 'L R R'] as const;

/** A way to fill round a line, and how fast it can be played: counted beats a minute, null where nothing limits it. */
export interface RoundWay {
  readonly text: string;
  readonly bpm: number | null;
}

/**
 * The usual stickings round the line of a move, the fastest first; of those that come to the same strokes one. Empty
 * where there is no such line, or no free slot round it.
 * @example
 * roundWays(patternOfText(parseStrokeText('K - - K - - K -').value, meter(4, 4), GRID.sixteenths), { select: { is: 'limb', limbs: ['H'] }, text: 'R L' }, USUAL_KIT, USUAL_PROFILE) // => []
 */
export function roundWays(pattern: Pattern, params: MoveParams['round'], kit: Kit, profile: Able): readonly RoundWay[] {
  const seen = new Set<string>();
  const ways = TEXTS.flatMap((text): RoundWay[] => {
    const entry = { id: 'round', on: true, move: 'round' as const, params: { ...params, text } };
    const { pattern: made, findings } = applyMove(pattern, entry, () => pattern);
    const form = exactForm(made);
    if (findings.some((f) => f.weight === 'stop') || seen.has(form)) return [];
    seen.add(form);
    return [{ text, bpm: limitOf(ceilingOn(made, kit, profile).bpm) }];
  });
  return ways.sort((a, b) => (b.bpm ?? Infinity) - (a.bpm ?? Infinity));
}
