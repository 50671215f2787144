import { barTicks, beatTicks, countAt, gridName, gridsOf, parseCount, USUAL_SCHOOLS, type Grid } from '../../time';
import { barsSpan, countingOf, type Pattern } from '../../pattern';
import { offerOf, type Offer } from '../../recipe';
import { LAST, refOf, textOfCount, type BarSaid, type CountSaid } from '../grammar/counts';
import type { Pick } from '../grammar/pick';
import { places } from '../grammar/places';
import { isWrong } from '../grammar/stretches';
import { acts, rule, wrong, type Rule, type Said, type RuleContext } from './rule';
import type { FarSaid, SpaceSaid } from '../grammar/slots';
import type { Values } from '../lexicon/template';

/** So far as was said, in slots. */
export function slotsFar(far: FarSaid, { pattern }: RuleContext): number {
  switch (far.of) {
    case 'slot':
      return far.n;
    case 'grid':
      return (far.n * far.grid) / pattern.grid;
    case 'beat':
      return (far.n * beatTicks(pattern.meter)) / pattern.grid;
    case 'bar':
      return (far.n * barTicks(pattern.meter)) / pattern.grid;
  }
}

export function displaced(far: FarSaid, scene: RuleContext, way: 1 | -1): Said {
  const by = slotsFar(far, scene);
  if (!Number.isInteger(by) || by < 1) return wrong('that far', 'That is not a whole number of slots here.');
  return acts([offerOf('shift', { slots: by * way, mode: 'wrap' })]);
}

/** With the way it goes, more words move it. */
const GO_IT = '(displace|shift|move|slide|rotate|push|pull|start|bring|play|turn)';
const SHIFTS: Rule[] = [
  rule(
    [
      `[${GO_IT}] [it|everything|the phrase] [by] {far} (later|late|to the right)`,
      `${GO_IT} [it] [to the] right [by] {far}`,
    ],
    (v, scene) => displaced(v['far'] as FarSaid, scene, 1),
  ),
  rule(['(move|shift|displace|put) it (to|on|so that it starts on|so it starts on|so it begins on) {count}'], (v) => {
    return acts([offerOf('shift', { slots: 0, mode: 'wrap', start: refOf(v['count'] as CountSaid) })]);
  }),
  rule(
    [
      '[put|place|move|shift|let|make|have] [it] [so] [that] [the] last (stroke|note|one|hit) (fall|falls|land|lands|is|comes|come|ends|end) on {count}',
    ],
    (v, scene) => endingOn(v['count'] as CountSaid, scene),
  ),
];

const TURNED: Rule = rule(
  [
    '[rotate|turn|shift|move|displace] [it|the bar|the phrase|everything] [so that|so] (what is|what stands|the stroke|the note) on {count:from} (comes|falls|lands|is|ends up|starts) on {count:to}',
  ],
  (v, scene) => {
    const { pattern } = scene;
    const [from, to] = (['from', 'to'] as const).map((k) =>
      parseCount(textOfCount(v[k] as CountSaid), countingOf(pattern, USUAL_SCHOOLS)),
    );
    if (from == null || to == null) return wrong('on', 'There is no such count here.');
    const slots = (to - from) / pattern.grid;
    if (!Number.isInteger(slots) || slots === 0) return wrong('on', 'It is there already.');
    return acts([offerOf('shift', { slots, mode: 'wrap' })]);
  },
);

export function endingOn(c: CountSaid, scene: RuleContext): Said {
  const { pattern } = scene;
  const counting = countingOf(pattern, USUAL_SCHOOLS);
  const on = parseCount(textOfCount(c), counting);
  const [first, last] = [pattern.strokes[0], pattern.strokes.at(-1)];
  if (on === null || !last || !first) return wrong(`${c.beat ?? ''}${c.syllable}`, 'There is no such count here.');
  const bar = barTicks(pattern.meter);
  // The first stroke is as far before the last as it is now.
  const start = (((on - (last.at - first.at)) % bar) + bar) % bar;
  if (last.at - first.at >= bar) return wrong(`${c.beat ?? ''}${c.syllable}`, 'The phrase is longer than a bar.');
  return acts([offerOf('shift', { slots: 0, mode: 'wrap', start: countAt(start, counting).text })]);
}

const MIRRORS: Rule[] = [];

export function onto(scene: RuleContext, grid: Grid): Said {
  if (!gridsOf(scene.pattern.meter).includes(grid))
    return wrong(gridName(grid), 'That subdivision does not fit the meter.');
  if (grid === scene.pattern.grid) return wrong(gridName(grid), 'It already is.');
  return acts([offerOf('grid', { grid })]);
}

/** Some slots on another grid; what follows moves up. */
export function partOnto(scene: RuleContext, from: number, to: number, grid: number): readonly Offer[] | null {
  const { pattern } = scene;
  if (!Number.isInteger(from) || !Number.isInteger(to) || from < 1 || to < from || to * pattern.grid > pattern.length)
    return null;
  return [offerOf('grid', { grid, part: { from, to } })];
}

/** Slots or beats, as they are counted, on another grid. */
export function countsOnto(counts: readonly CountSaid[], grid: number, scene: RuleContext): Said {
  const { pattern } = scene;
  const found: Offer[][] = [];
  const beats = Math.ceil((pattern.start + pattern.length) / beatTicks(pattern.meter));
  const numbers = counts.map((c) => (c.beat === LAST ? beats : (c.beat ?? 0)));
  const plain =
    counts.every((c) => c.syllable === '' && c.bar === null) &&
    numbers.every((n, i) => i === 0 || n === (numbers[i - 1] ?? 0) + 1);
  if (!plain) return wrong('these', 'Say slots or beats that stand side by side.');
  const [first, last] = [numbers[0] ?? 1, numbers.at(-1) ?? 1];
  if (counts.every((c) => c.as === 'count')) {
    const slots = partOnto(scene, first, last, grid);
    if (slots && numbers.length > 1) found.push([...slots]);
  }
  const beat = beatTicks(pattern.meter) / pattern.grid;
  const offset = pattern.start / pattern.grid;
  const whole = partOnto(scene, (first - 1) * beat + 1 - offset, last * beat - offset, grid);
  if (whole) found.push([...whole]);
  return found.length > 0 ? acts(...found) : wrong(`beat ${last}`, 'It is not in this phrase.');
}

/** A bar or a half on another grid. */
export function placeOnto(pick: Pick, grid: Grid, scene: RuleContext): Said {
  const there = places(pick, scene.pattern);
  if (there === null || isWrong(there)) return wrong(pick.said, 'It is not in this phrase.');
  const slots = (there.ways[0] ?? []).map((t) => t / scene.pattern.grid);
  const part = partOnto(scene, Math.min(...slots) + 1, Math.max(...slots) + 1, grid);
  return part ? acts(part) : wrong(pick.said, 'It is not in this phrase.');
}

const AS = '(as|on|in|to|into|onto)';
const GRIDS: Rule[] = [
  rule([`[the] same [notes|thing|strokes|pattern] ${AS} {grid}`], (v, scene) => {
    const old = v['old'] as number | undefined;
    if (old !== undefined && old !== scene.pattern.grid) return wrong(gridName(old), 'It is not on them.');
    return onto(scene, v['grid'] as Grid);
  }),
  rule([`[play|put] [the] first {n} [slots|strokes|notes] ${AS} {grid} (on|from) {count}`], (v, scene) => {
    const part = partOnto(scene, 1, v['n'] as number, v['grid'] as number);
    if (!part) return wrong('first', 'There are fewer than that.');
    const c = v['count'] as CountSaid | undefined;
    if (!c) return acts(part);
    return acts([
      offerOf('grid', { grid: v['grid'] as number, part: { from: 1, to: v['n'] as number, on: refOf(c) } }),
    ]);
  }),
];

const PLAY = '[play|take|make|put|do] [it] [in|at|to|into|as]';
const RATES: Rule[] = [
  rule([`${PLAY} [a] half-time`], () => rated(2, 1)),
  rule(
    [
      '(condense|squeeze|compress|squash|fold|stretch|spread|expand) (it|the phrase|everything|the [whole] bar|[the] {space:old}) [out] (in|into|over|to) {space}',
    ],
    ratedTo,
  ),
];

export const rated = (times: number, by: number): Said => acts([offerOf('rate', { times, by })]);

/** As long as was said, where a usual subdivision makes it so. */
export function ratedTo(v: Values, scene: RuleContext): Said {
  const { pattern } = scene;
  const old = v['old'] as SpaceSaid | undefined;
  const bars = v['bars'] as number | undefined;
  const wanted =
    bars === undefined ? (v['space'] as SpaceSaid) : old && 'beats' in old ? { beats: bars } : { bars: bars };
  const long = ticksOf(pattern, wanted);
  if (old && ticksOf(pattern, old) !== pattern.length) return wrong('that long', 'The phrase is not that long now.');
  const ratio = [
    [1, 2],
    [2, 1],
    [2, 3],
    [3, 2],
    [1, 3],
    [3, 1],
    [3, 4],
    [4, 3],
    [1, 4],
    [4, 1],
  ].find(([t = 1, by = 1]) => pattern.length * t === long * by);
  return ratio ? rated(ratio[0] ?? 1, ratio[1] ?? 1) : wrong('that long', 'No usual subdivision makes it that long.');
}

function ticksOf({ meter }: Pattern, said: SpaceSaid): number {
  return 'bars' in said ? said.bars * barTicks(meter) : said.beats * beatTicks(meter);
}

/** The phrase begins again on a count, to the end of its bar. */
export function restarted(v: Values, scene: RuleContext): Said {
  const [bar, ...more] = (v['bars'] as readonly BarSaid[] | undefined) ?? [];
  const count = v['count'] as CountSaid;
  if (more.length > 0 || (bar !== undefined && count.bar !== null)) return wrong('again', 'Name one bar.');
  const { bars: many } = barsSpan(scene.pattern);
  const own = bar === 'last' ? many : (bar ?? count.bar);
  if (own !== null && own > many)
    return wrong(`bar ${own}`, many === 1 ? 'There is one bar.' : `There are ${many} bars.`);
  return acts([offerOf('restart', { at: refOf({ ...count, bar: own }), until: 'bar' })]);
}

const RESTARTS: Rule[] = [];

/** When it is played: displaced, turned round, on another grid, faster or slower, begun again. */
export const SHIFT_RULES: readonly Rule[] = [...SHIFTS, TURNED, ...MIRRORS, ...GRIDS, ...RATES, ...RESTARTS];
