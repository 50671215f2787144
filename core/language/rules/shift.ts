import { barTicks, beatTicks, countAt, gridName, gridsOf, parseCount, USUAL_SCHOOLS, type Grid } from '../../time';
import { isHand } from '../../stroke';
import { barsSpan, countingOf, leadHand, type Pattern } from '../../pattern';
import { offerOf, type Offer } from '../../recipe';
import { LAST, refOf, textOfCount, type BarSaid, type CountSaid } from '../grammar/counts';
import { acts, rule, wrong, type Rule, type Said, type RuleContext } from './rule';
import type { FarSaid, SpaceSaid } from '../grammar/slots';
import type { LimbTerm } from '../lexicon/terms';

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

const MOVE_IT = '(displace|shift|move|slide|rotate)';
/** With the way it goes, more words move it. */
const GO_IT = '(displace|shift|move|slide|rotate|push|pull|start|bring|play|turn)';
const SHIFTS: Rule[] = [
  rule(
    [
      // Without a way it is later.
      `${MOVE_IT} [it|everything|the phrase] [by] {far}`,
      `[${GO_IT}] [it|everything|the phrase] [by] {far} (later|late|to the right)`,
      `[${GO_IT}] [it|everything] later by {far}`,
      `${GO_IT} [it] [to the] right [by] {far}`,
    ],
    (v, scene) => displaced(v['far'] as FarSaid, scene, 1),
  ),
  rule(
    [
      `[${GO_IT}] [it|everything|the phrase] [by] {far} (earlier|early|to the left|ahead)`,
      `[${GO_IT}] [it|everything] earlier by {far}`,
      `${GO_IT} [it] [to the] left [by] {far}`,
    ],
    (v, scene) => displaced(v['far'] as FarSaid, scene, -1),
  ),
  rule(
    [
      '(start|begin) [it] (on|from|at) {count}',
      '(let|make|have) it (start|begin) (on|at|from) {count}',
      '(move|shift|displace|put) it (to|on|so that it starts on|so it starts on|so it begins on) {count}',
      'it (starts|begins) on {count}',
    ],
    (v) => {
      return acts([offerOf('shift', { slots: 0, mode: 'wrap', start: refOf(v['count'] as CountSaid) })]);
    },
  ),
  rule(
    [
      '[put|place|move|shift|let|make|have] [it] [so] [that] [the] last (stroke|note|one|hit) (fall|falls|land|lands|is|comes|come|ends|end) on {count}',
      '[put|move] [the] last (stroke|note) (on|to) {count}',
      '(end|finish|ending) [it] on {count}',
      '(let|make|have) it (end|finish) on {count}',
    ],
    (v, scene) => endingOn(v['count'] as CountSaid, scene),
  ),
];

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

const MIRRORS: Rule[] = [
  rule(
    [
      '(swap|switch|reverse|exchange) [the|both] hands',
      'mirror [it|the hands|the sticking]',
      '[with] [the] hands (swapped|reversed|mirrored)',
      '(swap|switch|exchange) [the] (right and left|left and right|rights and lefts|lefts and rights)',
      '(lead|start|begin) with the other-hand',
      'other-hand (first|leads|leading)',
      'reverse the sticking',
    ],
    () => acts([offerOf('mirror', { feet: false })]),
  ),
  rule(['(start|lead|begin) (with|on) {limb}', '{limb} (leads|lead|first|leading)'], (v, scene) => {
    const [hand, ...others] = (v['limb'] as LimbTerm).limbs;
    const now = leadHand(scene.pattern.strokes);
    if (!hand || others.length > 0 || !isHand(hand)) return wrong('lead', 'Say which hand.');
    if (now === hand) return wrong(hand === 'R' ? 'right' : 'left', 'It already leads.');
    return acts([offerOf('mirror', { feet: false })]);
  }),
];

export function onto(scene: RuleContext, grid: Grid): Said {
  if (!gridsOf(scene.pattern.meter).includes(grid))
    return wrong(gridName(grid), 'That subdivision does not fit the meter.');
  if (grid === scene.pattern.grid) return wrong(gridName(grid), 'It already is.');
  return acts([offerOf('grid', { grid })]);
}

/** Some slots on another grid; what follows moves up. */
function partOnto(scene: RuleContext, from: number, to: number, grid: number): readonly Offer[] | null {
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

const AS = '(as|on|in|to|into|onto)';
const GRIDS: Rule[] = [
  rule(
    [
      `[play|put|take|make|turn] [it|everything|all of it|the phrase|the whole thing|that] ${AS} {grid} [please]`,
      '(make|play) it {grid}',
      '{grid} instead-of {grid:old}',
      `[the] same [notes|thing|strokes|pattern] ${AS} {grid}`,
      '(make|turn) [the|these|those] {grid:old} (into|to) {grid}',
      'make {grid} out of [the|these|those] {grid:old}',
      '[all] [the] {grid:old} to {grid}',
      '{grid} [please]',
    ],
    (v, scene) => {
      const old = v['old'] as number | undefined;
      if (old !== undefined && old !== scene.pattern.grid) return wrong(gridName(old), 'It is not on them.');
      return onto(scene, v['grid'] as Grid);
    },
  ),
  rule([`[play|put] {counts} ${AS} {grid}`, `[play|put] [the] whole of {counts} ${AS} {grid}`], (v, scene) =>
    countsOnto(v['counts'] as readonly CountSaid[], v['grid'] as number, scene),
  ),
  rule(
    [
      `[play|put] [the] first {n} [slots|strokes|notes] ${AS} {grid}`,
      `[play|put] [the] first {n} [slots|strokes|notes] ${AS} {grid} (on|from) {count}`,
    ],
    (v, scene) => {
      const part = partOnto(scene, 1, v['n'] as number, v['grid'] as number);
      if (!part) return wrong('first', 'There are fewer than that.');
      const c = v['count'] as CountSaid | undefined;
      if (!c) return acts(part);
      return acts([
        offerOf('grid', { grid: v['grid'] as number, part: { from: 1, to: v['n'] as number, on: refOf(c) } }),
      ]);
    },
  ),
  rule([`[play|put] slots {n:from} to {n:to} ${AS} {grid}`], (v, scene) => {
    const part = partOnto(scene, v['from'] as number, v['to'] as number, v['grid'] as number);
    return part ? acts(part) : wrong('slots', 'There are fewer than that.');
  }),
  rule([`[play|put] [the] last {n} [slots|strokes|notes] ${AS} {grid}`], (v, scene) => {
    const all = scene.pattern.length / scene.pattern.grid;
    const part = partOnto(scene, all - (v['n'] as number) + 1, all, v['grid'] as number);
    return part ? acts(part) : wrong('last', 'There are fewer than that.');
  }),
];

const PLAY = '[play|take|make|put|do] [it] [in|at|to|into|as]';
const RATES: Rule[] = [
  rule(
    [
      `${PLAY} [a] double-time`,
      'twice as fast',
      `${PLAY} double speed`,
      'double the speed',
      'halve (it|the lengths|the values)',
      '(condense|squeeze) it',
      '(condense|squeeze) it (to half|by half|into half) [its length]',
      'half as long',
    ],
    () => rated(1, 2),
  ),
  rule(
    [
      `${PLAY} [a] half-time`,
      'half as fast',
      'twice as slow',
      'double the (lengths|values)',
      '(stretch|expand) (it|the phrase) [out] [to twice its length|to double|over twice the space|to twice as long]',
      'twice as long',
    ],
    () => rated(2, 1),
  ),
  rule(
    [
      '(condense|squeeze|compress|squash|fold|stretch|spread|expand) (it|the phrase|everything|the [whole] bar|[the] {space:old}) [out] (in|into|over|to) {space}',
      '(condense|squeeze|compress|fold|stretch|spread) [the] {space:old} (in|into|over|to) {n:bars}',
    ],
    (v, scene) => {
      const { pattern } = scene;
      const old = v['old'] as SpaceSaid | undefined;
      const bars = v['bars'] as number | undefined;
      const wanted =
        bars === undefined ? (v['space'] as SpaceSaid) : old && 'beats' in old ? { beats: bars } : { bars: bars };
      const long = ticksOf(pattern, wanted);
      if (old && ticksOf(pattern, old) !== pattern.length)
        return wrong('that long', 'The phrase is not that long now.');
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
      return ratio
        ? rated(ratio[0] ?? 1, ratio[1] ?? 1)
        : wrong('that long', 'No usual subdivision makes it that long.');
    },
  ),
];

const rated = (times: number, by: number): Said => acts([offerOf('rate', { times, by })]);

function ticksOf({ meter }: Pattern, said: SpaceSaid): number {
  return 'bars' in said ? said.bars * barTicks(meter) : said.beats * beatTicks(meter);
}

const RESTARTS: Rule[] = [
  rule(
    [
      '(start|begin) [it] (again|over) (from|on|at) {count} [in {bars}]',
      'restart [it] (from|on|at) {count} [in {bars}]',
    ],
    (v, scene) => {
      const [bar, ...more] = (v['bars'] as readonly BarSaid[] | undefined) ?? [];
      const count = v['count'] as CountSaid;
      if (more.length > 0 || (bar !== undefined && count.bar !== null)) return wrong('again', 'Name one bar.');
      const { bars: many } = barsSpan(scene.pattern);
      const own = bar === 'last' ? many : (bar ?? count.bar);
      if (own !== null && own > many)
        return wrong(`bar ${own}`, many === 1 ? 'There is one bar.' : `There are ${many} bars.`);
      return acts([offerOf('restart', { at: refOf({ ...count, bar: own }), until: 'bar' })]);
    },
  ),
  rule(
    [
      '(start|begin) [it] (again|over) (from|on|at) {count} to the end [of the phrase|of it]',
      'restart [it] (from|on|at) {count} to the end',
    ],
    (v) => acts([offerOf('restart', { at: refOf(v['count'] as CountSaid), until: 'end' })]),
  ),
];

/** When it is played: displaced, turned round, on another grid, faster or slower, begun again. */
export const SHIFT_RULES: readonly Rule[] = [...SHIFTS, ...MIRRORS, ...GRIDS, ...RATES, ...RESTARTS];
