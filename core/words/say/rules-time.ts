import { barTicks, beatTicks, countAt, gridName, gridsOf, parseCount, USUAL_SCHOOLS, type Grid } from '../../time';
import { isHand, otherHand, type Limb, type Voice } from '../../stroke';
import { barOf, barsSpan, countingOf, leadHand, voicedText, type Pattern } from '../../pattern';
import { offerOf, type MoveParams, type Offer } from '../../recipe';
import { chosen, isWrong, places } from './choose';
import type { BarSaid, CountSaid, Pick } from './pick';
import { act, acts, forStrokes, rule, wrong, type Rule, type Said, type Scene } from './rule';
import type { LimbTerm, SpaceSaid, VoicesSaid } from './slots';

const INSERTS: Rule[] = [
  rule(
    [
      '(add|put|stick|append|tack|with) {strokes} [on] (at|to|on) [the] end',
      '[add|put|stick] {strokes} (behind it|behind|after it|to finish|on the end|at the back)',
      '(add|append) {strokes}',
      '{strokes} more [at the end]',
      '[add] one more {strokes} [at the end]',
    ],
    (v) => acts([offerOf('insert', { text: v['strokes'] as string, where: { kind: 'end' } })]),
  ),
  rule(['{counted:strokes} at [the] end'], (v) =>
    acts([offerOf('insert', { text: v['strokes'] as string, where: { kind: 'end' } })]),
  ),
  rule(['{letters:strokes} at [the] end'], (v, scene) => {
    const text = v['strokes'] as string;
    const many = text.split(' ').length;
    const { pattern } = scene;
    const added = offerOf('insert', { text, where: { kind: 'end' } });
    // "a kick at the end" is one more; letters may also be meant for what stands there.
    const from = pattern.length - many * pattern.grid;
    if (from < 0 || !/ /.test(text)) return acts([added]);
    return acts([added], [replaced(pattern, from, text)]);
  }),
  rule(
    [
      '[add|put|stick|have] {strokes} (in front|before it|at the front|at the start|at the beginning|first|in front of it)',
      '(begin|start) with {strokes}',
    ],
    (v) => acts([offerOf('insert', { text: v['strokes'] as string, where: { kind: 'start' } })]),
  ),
  rule(
    [
      '[add|put|insert] {strokes} after every {n} [slots|strokes|notes]',
      '[add|put|insert] {strokes} every {n} [slots|strokes|notes]',
    ],
    (v) =>
      acts([offerOf('insert', { text: v['strokes'] as string, where: { kind: 'every', slots: v['n'] as number } })]),
  ),
  rule(
    [
      '[add|put|insert] {strokes} after [slot|stroke|note] {n} [slots|strokes|notes]',
      '[add|put|insert] {strokes} after the {nth:n} [slot|stroke|note]',
    ],
    (v) =>
      acts([offerOf('insert', { text: v['strokes'] as string, where: { kind: 'after', slot: v['n'] as number } })]),
  ),
];

/** Strokes of a text in place of what stands in its slots. */
function replaced(pattern: Pattern, from: number, text: string): Offer {
  const slots = text.split(' ');
  const end = from + slots.length * pattern.grid;
  const gone = pattern.strokes
    .filter((s) => s.at >= from && s.at < end)
    .map((s) => ({ at: s.at, limb: s.limb, stroke: null }));
  const added = slots.flatMap((slot, i) =>
    slot === '-'
      ? []
      : slot.split('+').map((one) => {
          const limb = (/[rlkhj]/i.exec(one)?.[0] ?? 'R').toUpperCase() as Limb;
          const level = one.endsWith('!')
            ? ('accent' as const)
            : /[rlkhj]$/.test(one.replace('!', ''))
              ? ('ghost' as const)
              : ('tap' as const);
          return { at: from + i * pattern.grid, limb, stroke: { level } };
        }),
  );
  const kept = gone.filter((g) => !added.some((a) => a.at === g.at && a.limb === g.limb));
  return offerOf('touch', { edits: [...kept, ...added] });
}

type Fit = MoveParams['fit'];
type Close = Fit['close'];

/** A fill that comes out even needs no closing; one that does not says how, or is asked. */
function fill(scene: Scene, space: Fit['space'], rest: Partial<Fit> & { readonly mirrored?: boolean }): Said {
  const { pattern } = scene;
  if (pattern.length === 0) return wrong('fill', 'There is nothing yet.');
  if ('beats' in space && space.beats < 1) return wrong('half', 'That is no whole number of beats here.');
  const start = rest.start ?? '1';
  const from = parseCount(start, countingOf(pattern, USUAL_SCHOOLS));
  if (from === null) return wrong(start, 'There is no such count.');
  const long = 'bars' in space ? space.bars * barTicks(pattern.meter) - from : space.beats * beatTicks(pattern.meter);
  const common = {
    space,
    start,
    mirrored: rest.mirrored ?? false,
    ...(rest.end === undefined ? {} : { end: rest.end }),
  };
  const of = (close: Close): Offer => offerOf('fit', { ...common, close });
  if (rest.close) return acts([of(rest.close)]);
  if (rest.end === undefined && long % pattern.length === 0) return acts([of({ kind: 'cut' })]);
  return acts([of({ kind: 'cut' })], [of({ kind: 'rest' })]);
}

const SPACE = '{space}';

/** Room as the move takes it: half bars are said in beats. Null where that is no whole number of beats. */
function roomOf({ meter }: Pattern, said: SpaceSaid): Fit['space'] | null {
  if ('beats' in said) return said;
  if (Number.isInteger(said.bars)) return said;
  const beats = (said.bars * barTicks(meter)) / beatTicks(meter);
  return Number.isInteger(beats) ? { beats } : null;
}

/** Singles that begin with the hand that did not play last. */
function singles(scene: Scene, space: Fit['space'], start: string): string {
  const { pattern } = scene;
  const from = parseCount(start, countingOf(pattern, USUAL_SCHOOLS)) ?? 0;
  const long =
    ('bars' in space ? space.bars * barTicks(pattern.meter) - from : space.beats * beatTicks(pattern.meter)) /
    pattern.grid;
  const left = Math.round(long % (pattern.length / pattern.grid));
  const last = leadHand([...pattern.strokes].reverse()) ?? 'L';
  let hand: Limb = otherHand(last);
  return Array.from({ length: left }, () => {
    const own = hand;
    hand = otherHand(hand);
    return own;
  }).join(' ');
}

const FILL =
  '(fill|fill up|fill out|cover|repeat it for|repeat it over|keep repeating it for|keep going for|loop it for|make it last|stretch it over|keep it going for|play it for|run it for|make it|make that|extend it to|let it run for|repeat for|keep repeating for)';

const FITS: Rule[] = [
  rule(
    [
      `${FILL} ${SPACE} [from {count:from}|starting on {count:from}|starting from {count:from}|from the {count:from}] [, ] [and] [(ending|end|ends|to end) on {count:to}] [,] [and] [with the hands (swapped|mirrored) [each time|every time|on every repeat]]`,
      '{space} of it',
    ],
    (v, scene) => fill(scene, spaceSaid(v, scene), spanned(v)),
  ),
  rule(
    [
      `${FILL} ${SPACE} [from {count:from}] [,] [and] (cut|cutting|chop) [the] [last one|last repeat|rest|last|end|it] [short|off]`,
      `{space} of it [,] [and] (cut|cutting) [the] [last one|last repeat|rest|last] [short|off]`,
    ],
    (v, scene) => fill(scene, spaceSaid(v, scene), { ...spanned(v), close: { kind: 'cut' } }),
  ),
  rule(
    [
      `${FILL} ${SPACE} [from {count:from}] [,] [and|then] [leave] [a|the] (rest|silence|rests|empty) [empty|free|open|silent] [for|in|at|over] [whatever is left|what is left|the rest|the end|what remains|whatever remains|the remainder]`,
      `{space} of it [,] [and] [leave the] rest [empty|silent|at the end|for whatever is left]`,
    ],
    (v, scene) => fill(scene, spaceSaid(v, scene), { ...spanned(v), close: { kind: 'rest' } }),
  ),
  rule(
    [
      `${FILL} ${SPACE} [from {count:from}] [,] [and] (close|closing|closed|end|ending|finish) with [{n:many}] (singles|single strokes)`,
      `{space} of it [,] [and] (close|closing|finish) with singles`,
    ],
    (v, scene) => {
      const space = spaceSaid(v, scene);
      const rest = spanned(v);
      return fill(scene, space, {
        ...rest,
        close: { kind: 'strokes', text: singles(scene, space, rest.start ?? '1') },
      });
    },
  ),
  rule(
    [
      `${FILL} ${SPACE} [from {count:from}] [,] [and] (close|closing|closed|finish|end|ending) [it] with {strokes}`,
      `{space} of it [,] [and] (close|closing|finish) with {strokes}`,
    ],
    (v, scene) =>
      fill(scene, spaceSaid(v, scene), {
        ...spanned(v),
        close: { kind: 'strokes', text: v['strokes'] as string },
      }),
  ),
  rule(
    [
      `${FILL} ${SPACE} (as|in|with|by) [groups of] {sizes}`,
      '(groups of|group it as|group it in|as|in) {sizes}',
      '{sizes}',
    ],
    (v, scene) => {
      const sizes = v['sizes'] as readonly number[];
      if (sizes.length < 2) return wrong('groups', 'Say each size.');
      const { pattern } = scene;
      const sum = sizes.reduce((a, b) => a + b, 0) * pattern.grid;
      const space = v['space'] === undefined ? null : spaceSaid(v, scene);
      const long =
        space === null
          ? sum
          : 'bars' in space
            ? space.bars * barTicks(pattern.meter)
            : space.beats * beatTicks(pattern.meter);
      if (sum !== long)
        return wrong(
          sizes.join(' + '),
          `That is ${sizes.reduce((a, b) => a + b, 0)} slots, and ${long / pattern.grid} are to be filled.`,
        );
      const beats = long / beatTicks(pattern.meter);
      const where: Fit['space'] | null = space ?? (Number.isInteger(beats) ? { beats } : null);
      return where
        ? fill(scene, where, { close: { kind: 'groups', groups: [...sizes] } })
        : wrong(sizes.join(' + '), 'They make no whole beats.');
    },
  ),
  rule(
    [
      '[play it|repeat it|do it|play|repeat] {n} times [over|in a row|in all]',
      '[play it|repeat it|do it] (twice:2)'.replace('(twice:2)', 'twice'),
      '[play it|repeat it] thrice',
    ],
    (v, scene) => times(scene, (v['n'] as number | undefined) ?? 2, false),
  ),
  rule(
    [
      '[play it|repeat it|do it] twice [,] [and] [the second] [time] [with] [the] hands (swapped|mirrored|the other way round|reversed) [the second time]',
      '[play it|repeat it|do it] twice [,] [the] second [time|one|half] (with [the] hands (swapped|mirrored|reversed)|[the] hands (swapped|mirrored|reversed)|mirrored|with the other hand [first|leading])',
      '(answer|repeat) it with the hands (swapped|mirrored)',
    ],
    (_, scene) => times(scene, 2, true),
  ),
];

function spaceSaid(v: Readonly<Record<string, unknown>>, { pattern }: Scene): Fit['space'] {
  return roomOf(pattern, (v['space'] as SpaceSaid | undefined) ?? { bars: 1 }) ?? { beats: 0 };
}

/** A count as it is read back, with its bar where one was said. */
const refOf = (c: CountSaid): string => `${c.bar === null ? '' : `${c.bar}:`}${textOfCount(c)}`;

function textOfCount(c: CountSaid): string {
  return `${c.beat ?? 1}${c.syllable}`;
}

function spanned(v: Readonly<Record<string, unknown>>): Partial<Fit> {
  const [from, to] = [v['from'] as CountSaid | undefined, v['to'] as CountSaid | undefined];
  return { ...(from ? { start: textOfCount(from) } : {}), ...(to ? { end: textOfCount(to) } : {}) };
}

function times(scene: Scene, n: number, mirrored: boolean): Said {
  const { pattern } = scene;
  if (n < 2 || n > 64 || pattern.length === 0) return wrong('times', 'Say how often.');
  const long = pattern.length * n;
  const [bar, beat] = [barTicks(pattern.meter), beatTicks(pattern.meter)];
  const text = voicedText(pattern);
  if (long % bar === 0 && pattern.start === 0)
    return acts([offerOf('fit', { space: { bars: long / bar }, start: '1', mirrored, close: { kind: 'cut' } })]);
  if (long % beat === 0)
    return acts([offerOf('fit', { space: { beats: long / beat }, start: '1', mirrored, close: { kind: 'cut' } })]);
  if (mirrored || !text || text.on !== gridName(pattern.grid)) return wrong('times', 'It would end between two beats.');
  return acts([
    offerOf('insert', { text: Array.from({ length: n - 1 }, () => text.text).join(' '), where: { kind: 'end' } }),
  ]);
}

/** "fill from 3 to the next 1" */
const FILL_FROM: Rule[] = [
  rule(
    [
      '(fill|fill in|play it|put it) from {count:from} (to|up to|until) [the] (next 1|next one|next bar|end|end of the bar|bar line|next downbeat)',
      '(fill|fill in) [it] from {count:from} [on|onwards]',
    ],
    (v, scene) => {
      const from = v['from'] as CountSaid;
      return fill(scene, { bars: 1 }, { start: textOfCount(from) });
    },
  ),
];

const later = (text: string): boolean => text === 'later';

function displaced(scene: Scene, n: number, grid: number | null, way: 'later' | 'earlier'): Said {
  const { pattern } = scene;
  const by = grid === null ? n : (n * grid) / pattern.grid;
  if (!Number.isInteger(by) || by < 1) return wrong('that far', 'That is no whole slot here.');
  return acts([offerOf('shift', { slots: later(way) ? by : -by, mode: 'wrap' })]);
}

const MOVE_IT = '(displace|shift|move|slide|push|pull|start|bring|play|turn|rotate)';
const SHIFTS: Rule[] = [
  rule(
    [
      `${MOVE_IT} [it|everything|the phrase] [by] {n} [slots|slot|steps|step|{grid}] [later|to the right|back|behind|forward|on]`,
      `[${MOVE_IT}] [it] {n} [slots|slot|{grid}] (later|late|to the right)`,
      `${MOVE_IT} [it] later by {n} [slots|slot|{grid}]`,
      `${MOVE_IT} [it] [to the] right [by] {n} [slots|slot|{grid}]`,
      'later by {n} [slots|slot|{grid}]',
    ],
    (v, scene) => displaced(scene, v['n'] as number, (v['grid'] as number | undefined) ?? null, 'later'),
  ),
  rule(
    [
      `[${MOVE_IT}] [it|everything] [by] {n} [slots|slot|{grid}] (earlier|early|to the left|ahead)`,
      `[${MOVE_IT}] [it] earlier by {n} [slots|slot|{grid}]`,
      `${MOVE_IT} [it] [to the] left [by] {n} [slots|slot|{grid}]`,
    ],
    (v, scene) => displaced(scene, v['n'] as number, (v['grid'] as number | undefined) ?? null, 'earlier'),
  ),
  rule(
    ['[MOVE] [it] [by] {n} (beat|beats) (later|to the right)', '[MOVE] [it] later by {n} (beat|beats)'].map((t) =>
      t.replace('MOVE', MOVE_IT),
    ),
    (v, scene) => displaced(scene, v['n'] as number, beatTicks(scene.pattern.meter), 'later'),
  ),
  rule(
    ['[MOVE] [it] [by] {n} (beat|beats) (earlier|to the left)', '[MOVE] [it] earlier by {n} (beat|beats)'].map((t) =>
      t.replace('MOVE', MOVE_IT),
    ),
    (v, scene) => displaced(scene, v['n'] as number, beatTicks(scene.pattern.meter), 'earlier'),
  ),
  rule(['[MOVE] [it] [by] half a bar later'.replace('MOVE', MOVE_IT)], (_, scene) =>
    displaced(scene, 1, barTicks(scene.pattern.meter) / 2, 'later'),
  ),
  rule(['[MOVE] [it] [by] half a bar earlier'.replace('MOVE', MOVE_IT)], (_, scene) =>
    displaced(scene, 1, barTicks(scene.pattern.meter) / 2, 'earlier'),
  ),
  rule(['[MOVE] [it] [by] half a beat later'.replace('MOVE', MOVE_IT)], (_, scene) =>
    displaced(scene, 1, beatTicks(scene.pattern.meter) / 2, 'later'),
  ),
  rule(['[MOVE] [it] [by] half a beat earlier'.replace('MOVE', MOVE_IT)], (_, scene) =>
    displaced(scene, 1, beatTicks(scene.pattern.meter) / 2, 'earlier'),
  ),
  rule(
    [
      '(start|begin) [it] (on|from|at) {count}',
      '(let|make|have) it (start|begin) (on|at|from) {count}',
      '(move|shift|displace|put) it (to|on|so that it starts on|so it starts on|so it begins on) {count}',
      'it (starts|begins) on {count}',
    ],
    (v) => {
      const c = v['count'] as CountSaid;
      const text = textOfCount(c);
      return acts([offerOf('shift', { slots: 0, mode: 'wrap', start: c.bar === null ? text : `${c.bar}:${text}` })]);
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

function endingOn(c: CountSaid, scene: Scene): Said {
  const { pattern } = scene;
  const counting = countingOf(pattern, USUAL_SCHOOLS);
  const on = parseCount(textOfCount(c), counting);
  const [first, last] = [pattern.strokes[0], pattern.strokes.at(-1)];
  if (on === null || !last || !first) return wrong(`${c.beat ?? ''}${c.syllable}`, 'There is no such count.');
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
  rule(['(start|lead|begin) (with|on) {limb}', '{limb} (leads|first|leading)'], (v, scene) => {
    const [hand, ...others] = (v['limb'] as LimbTerm).limbs;
    const now = leadHand(scene.pattern.strokes);
    if (!hand || others.length > 0 || !isHand(hand)) return wrong('lead', 'Say which hand.');
    if (now === hand) return wrong(hand === 'R' ? 'right' : 'left', 'It leads already.');
    return acts([offerOf('mirror', { feet: false })]);
  }),
];

function onto(scene: Scene, grid: Grid): Said {
  if (!gridsOf(scene.pattern.meter).includes(grid)) return wrong(gridName(grid), 'That grid does not fit the meter.');
  if (grid === scene.pattern.grid) return wrong(gridName(grid), 'It is on them already.');
  return acts([offerOf('grid', { grid })]);
}

/** Some slots on another grid; what follows moves up. */
function partOnto(scene: Scene, from: number, to: number, grid: number): readonly Offer[] | null {
  const { pattern } = scene;
  if (!Number.isInteger(from) || !Number.isInteger(to) || from < 1 || to < from || to * pattern.grid > pattern.length)
    return null;
  return [offerOf('grid', { grid, part: { from, to } })];
}

const AS = '(as|on|in|to|into|onto)';
const GRIDS: Rule[] = [
  rule(
    [
      `[play|put|take|make|turn] [it|everything|all of it|the phrase|the whole thing|that] ${AS} {grid} [notes] [please]`,
      '(make|play) it {grid} [notes]',
      '{grid} instead-of {grid:old}',
      '{grid} [please]',
    ],
    (v, scene) => {
      const old = v['old'] as number | undefined;
      if (old !== undefined && old !== scene.pattern.grid) return wrong(gridName(old), 'It is not on them.');
      return onto(scene, v['grid'] as Grid);
    },
  ),
  rule([`[play|put] {counts} ${AS} {grid}`, `[play|put] [the] whole of {counts} ${AS} {grid}`], (v, scene) => {
    const counts = v['counts'] as readonly CountSaid[];
    const { pattern } = scene;
    const grid = v['grid'] as number;
    const found: Offer[][] = [];
    const numbers = counts.map((c) => c.beat ?? 0);
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
    const beats = partOnto(scene, (first - 1) * beat + 1 - offset, last * beat - offset, grid);
    if (beats) found.push([...beats]);
    return found.length > 0 ? acts(...found) : wrong(`beat ${last}`, 'It is not in this phrase.');
  }),
  rule(
    [
      `[play|put] [the] first {n} [slots|strokes|notes] ${AS} {grid}`,
      `[play|put] [the] first {n} [slots|strokes|notes] ${AS} {grid} (on|from) {count}`,
    ],
    (v, scene) => {
      const part = partOnto(scene, 1, v['n'] as number, v['grid'] as number);
      if (!part) return wrong('first', 'There are not so many.');
      const c = v['count'] as CountSaid | undefined;
      if (!c) return acts(part);
      const on = `${c.bar === null ? '' : `${c.bar}:`}${textOfCount(c)}`;
      return acts([offerOf('grid', { grid: v['grid'] as number, part: { from: 1, to: v['n'] as number, on } })]);
    },
  ),
  rule([`[play|put] slots {n:from} to {n:to} ${AS} {grid}`], (v, scene) => {
    const part = partOnto(scene, v['from'] as number, v['to'] as number, v['grid'] as number);
    return part ? acts(part) : wrong('slots', 'There are not so many.');
  }),
  rule([`[play|put] [the] last {n} [slots|strokes|notes] ${AS} {grid}`], (v, scene) => {
    const all = scene.pattern.length / scene.pattern.grid;
    const part = partOnto(scene, all - (v['n'] as number) + 1, all, v['grid'] as number);
    return part ? acts(part) : wrong('last', 'There are not so many.');
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
      '(condense|squeeze|compress|squash|fold|stretch|spread|expand) (it|the phrase|everything|the bar|[the] {space:old}) [out] (in|into|over|to) {space}',
      '(condense|squeeze|compress|fold|stretch|spread) [the] {space:old} (in|into|over|to) {n:bars}',
    ],
    (v, scene) => {
      const { pattern } = scene;
      const old = v['old'] as SpaceSaid | undefined;
      const bars = v['bars'] as number | undefined;
      const wanted =
        bars === undefined ? (v['space'] as SpaceSaid) : old && 'beats' in old ? { beats: bars } : { bars: bars };
      const long = ticksOf(pattern, wanted);
      if (old && Math.abs(ticksOf(pattern, old) - pattern.length) > 0)
        return wrong('that long', 'The phrase is not so long now.');
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
      return ratio ? rated(ratio[0] ?? 1, ratio[1] ?? 1) : wrong('that long', 'No usual division makes it so long.');
    },
  ),
];

const rated = (times: number, by: number): Said => acts([offerOf('rate', { times, by })]);

function ticksOf({ meter }: Pattern, said: SpaceSaid): number {
  return 'bars' in said ? said.bars * barTicks(meter) : said.beats * beatTicks(meter);
}

const LAND = '(land|come out|finish|end|resolve|arrive) [it] [on|with] [the] [next] [1|one|downbeat]';
const LANDS: Rule[] = [
  rule(
    [
      `${LAND} [with] [a|the] {voices} [and|with|plus] [a|the] [kick] [under it|underneath|under] [on [the] [next] 1]`,
      `(land|end) [it] [on the] [next] [1|one] with {limb:hand} on {voices} [, ] [and|with] [a|the] [kick] [under it|underneath|under]`,
      `(land|end) [it] [on] [the] [next] [1|one] with {voices} and kick`,
    ],
    (v) => {
      const [list] = v['voices'] as VoicesSaid;
      return landing(list?.[0] ?? 'crash-right', v['hand'] as LimbTerm | undefined, true);
    },
  ),
  rule(
    [
      'land [it] [on] [the] [next] [1|one] with [just|only] {limb:hand} on {voices}',
      'land [it] [on] [the] [next] [1|one] with [just|only] [a|the] {voices} (alone|only|without the kick|but no kick|no kick)',
    ],
    (v) => {
      const [list] = v['voices'] as VoicesSaid;
      return landing(list?.[0] ?? 'crash-right', v['hand'] as LimbTerm | undefined, false);
    },
  ),
  rule(['land [it] [on] [the] [next] [1|one] with [just|only] [a|the] kick [only|alone]'], () =>
    acts([offerOf('land', { hand: 'R', kick: true })]),
  ),
  rule(['land [it] [on] [the] [next] [1|one]'], () =>
    acts(
      [offerOf('land', { voice: 'crash-right', hand: 'R', kick: true })],
      [offerOf('land', { hand: 'R', kick: true })],
    ),
  ),
  rule(['land [it] on silence', 'land on nothing'], () => acts([offerOf('land', { hand: 'R', kick: false })])),
];

function landing(voice: Voice, hand: LimbTerm | undefined, kick: boolean): Said {
  const own = hand?.limbs.length === 1 && hand.limbs[0] === 'L' ? 'L' : 'R';
  return acts([offerOf('land', { voice, hand: own, kick })]);
}

/** Words before what they announce. */
const ANNOUNCED: Rule[] = [
  rule(
    ['(spread|split) it [out|up|between the hands|over the kit]', 'orchestrate it', '(share|spread) it out'],
    () => ({ acts: [{ moves: [], words: '' }] }),
  ),
];

const TOMS: readonly Voice[] = ['high-tom', 'mid-tom', 'floor-tom'];
type Station = MoveParams['route']['stations'][number];
const station = (v: Voice): Station => ({ right: v, left: v });

function travel(pick: Pick | null, voices: readonly Voice[], size: number | readonly number[], scene: Scene): Said {
  const sizes = typeof size === 'number' ? [size] : [...size];
  const make = (select: MoveParams['route']['select']): Offer =>
    offerOf('route', { select, stations: voices.map(station), order: [], sizes });
  if (!pick) return acts([make({ limbs: ['R', 'L'] })]);
  return forStrokes(pick, scene, (select) => [make(select)]);
}

const GO = '[go|goes|walk|walks|travel|travels|move|moves|run|runs|send|take|spread]';
const SIZE =
  '[, ] [in ({n:size}|ones)|{n:size} (on|to|per) each [drum|tom]|{n:size} (strokes|notes) (on|to|per) (each|a) [drum|tom]|{n:size} each|{n:size} at a time|(one|a) {unit} (on|to|per) each [drum|tom]]';
const ROUTES: Rule[] = [
  rule(
    ['[round|around|over|through] {voices} (in|as|by) [groups of] {sizes}', '{sizes} (on|over|round) {voices}'],
    (v, scene) => {
      const [list] = v['voices'] as VoicesSaid;
      const sizes = v['sizes'] as readonly number[];
      if (!list || list.length < 2 || sizes.length < 2) return wrong('each', 'Name the drums, and how many on each.');
      return travel(null, list, sizes, scene);
    },
  ),
  rule(
    [
      `{pick} ${GO} up the toms ${SIZE}`.replaceAll('{unit}', 'beat'),
      `${GO} [it|everything] up the toms ${SIZE}`.replaceAll('{unit}', 'beat'),
    ],
    (v, scene) => routed(v, scene, TOMS, true),
  ),
  rule(
    [
      `{pick} ${GO} down the toms ${SIZE}`.replaceAll('{unit}', 'beat'),
      `${GO} [it|everything] down the toms ${SIZE}`.replaceAll('{unit}', 'beat'),
    ],
    (v, scene) => routed(v, scene, TOMS, false),
  ),
  rule(
    [
      `${GO} [it|everything] (round|around) the (kit|drums) ${SIZE}`.replaceAll('{unit}', 'beat'),
      `{pick} ${GO} (round|around) the (kit|drums) ${SIZE}`.replaceAll('{unit}', 'beat'),
    ],
    (v, scene) => routed(v, scene, ['snare', ...TOMS], false),
  ),
  rule(
    [
      '{n:beats} beat (on|to|per) each [drum|one|piece] [:] {voices}',
      '{n:beats} beat each [on] [:] {voices}',
      '{n:size} [strokes|notes] (on|to) each [drum|one|piece] [:] {voices}',
      `${GO} (round|around|over|through|along|from) {voices} in {n:size}`,
      '{voices} in {n:size}',
    ],
    (v, scene) => {
      const [list] = v['voices'] as VoicesSaid;
      if (!list || list.length < 2) return wrong('each', 'Name the drums.');
      return travel(null, list, sizeSaid(v, scene), scene);
    },
  ),
];

function sizeSaid(v: Readonly<Record<string, unknown>>, scene: Scene): number {
  const beats = v['beats'] as number | undefined;
  if (beats !== undefined)
    return Math.max(1, Math.round((beats * beatTicks(scene.pattern.meter)) / scene.pattern.grid));
  return Math.max(1, Math.min(64, (v['size'] as number | undefined) ?? 1));
}

function routed(v: Readonly<Record<string, unknown>>, scene: Scene, voices: readonly Voice[], up: boolean): Said {
  const pick = (v['pick'] as Pick | undefined) ?? null;
  const list = up ? [...voices].reverse() : voices;
  if (v['size'] !== undefined) return travel(pick, list, v['size'] as number, scene);
  if (pick) {
    const ways = chosen(pick, scene);
    // As many strokes as toms: one to each.
    if (!isWrong(ways) && ways.ways.every((w) => w.length <= list.length)) return travel(pick, list, 1, scene);
    if (isWrong(ways)) return ways;
  }
  const select: MoveParams['route']['select'] = { limbs: ['R', 'L'] };
  const of = (more: { readonly sizes: number[]; readonly by?: 'hand' }): Offer =>
    offerOf('route', { select, stations: list.map(station), order: [], ...more });
  // Doubles must not be torn apart unasked: by hand, by pair and by stroke are all offered.
  return acts([of({ sizes: [1], by: 'hand' })], [of({ sizes: [2] })], [of({ sizes: [1] })]);
}

const COPIES: Rule[] = [
  rule(
    [
      '(repeat|copy|play) {bars} (as|to|for|in) {bars:to}',
      '(repeat|copy) {bars}',
      'play {bars} again',
      '{bars:to} [is] (is|like|as|same as|the same as) {bars}',
    ],
    (v, scene) => {
      const [own] = v['bars'] as readonly BarSaid[];
      const [to] = (v['to'] as readonly BarSaid[] | undefined) ?? [];
      const { pattern } = scene;
      const many = barsSpan(pattern).bars;
      const from = own === 'last' ? many : (own ?? 1);
      const at = to === undefined ? many + 1 : to === 'last' ? many : to;
      if (from < 1 || from > many) return wrong(`bar ${from}`, `There are ${many} bars.`);
      const bar = barTicks(pattern.meter);
      if (pattern.start !== 0 || pattern.length % bar !== 0)
        return wrong(`bar ${from}`, 'The phrase is not made of whole bars.');
      const text = voicedText(barOf(pattern, from - 1));
      if (!text) return wrong(`bar ${from}`, 'It is too long to be copied.');
      if (at === many + 1)
        return acts([
          offerOf('insert', {
            text: text.text,
            where: { kind: 'end' },
            ...(text.on === gridName(pattern.grid) ? {} : { grid: gridOfName(text.on, pattern) }),
          }),
        ]);
      if (at < 1 || at > many) return wrong(`bar ${at}`, `There are ${many} bars.`);
      const by = (at - from) * bar;
      const source = pattern.strokes.filter((s) => s.at >= (from - 1) * bar && s.at < from * bar);
      const gone = pattern.strokes
        .filter((s) => s.at >= (at - 1) * bar && s.at < at * bar)
        .map((s) => ({ at: s.at, limb: s.limb, stroke: null }));
      const added = source.map(({ at: t, limb, level, voice, ornament }) => ({
        at: t + by,
        limb,
        stroke: { level, voice, ...(ornament ? { ornament } : {}) },
      }));
      return acts([
        offerOf('touch', {
          edits: [...gone.filter((g) => !added.some((a) => a.at === g.at && a.limb === g.limb)), ...added],
        }),
      ]);
    },
  ),
];

function gridOfName(name: string, pattern: Pattern): number {
  return gridsOf(pattern.meter).find((g) => gridName(g) === name) ?? pattern.grid;
}

const RESTARTS: Rule[] = [
  rule(
    [
      '(start|begin) [it] (again|over) (from|on|at) {count} [to the end [of the phrase|of it]]'.replace(
        '[to the end [of the phrase|of it]]',
        '',
      ),
      'restart [it] (from|on|at) {count}',
    ],
    (v) => acts([offerOf('restart', { at: refOf(v['count'] as CountSaid), until: 'bar' })]),
  ),
  rule(
    [
      '(start|begin) [it] (again|over) (from|on|at) {count} to the end [of the phrase|of it]',
      'restart [it] (from|on|at) {count} to the end',
    ],
    (v) => acts([offerOf('restart', { at: refOf(v['count'] as CountSaid), until: 'end' })]),
  ),
  rule(
    [
      '[a] pickup [with|of|:] {strokes}',
      '[a] pick up [with|of|:] {strokes} [before the 1]',
      '{strokes} before [the] 1',
    ],
    (v) => acts([offerOf('pickup', { text: v['strokes'] as string })]),
  ),
  rule(['beat {n} [:] {strokes}', '{counts} [:] {strokes}'], (v, scene) => {
    const text = v['strokes'] as string;
    const { pattern } = scene;
    const n = v['n'] as number | undefined;
    const counts = v['counts'] as readonly CountSaid[] | undefined;
    const pick: Pick = {
      base: null,
      counts: counts ?? [{ bar: null, beat: n ?? 1, syllable: '', as: 'count' }],
      said: text,
    };
    const there = places(pick, pattern);
    if (there === null || isWrong(there)) return wrong(pick.said, 'There is no such count.');
    const [at] = there.ways[0] ?? [];
    if (at === undefined || (there.ways[0]?.length ?? 0) > 1) return wrong(pick.said, 'Say in which bar.');
    if (at + text.split(' ').length * pattern.grid > pattern.length)
      return wrong(text, 'That is longer than the phrase.');
    return { acts: [act([replaced(pattern, at, text)])] };
  }),
];

export const TIME_RULES: readonly Rule[] = [
  ...ANNOUNCED,
  ...INSERTS,
  ...FITS,
  ...FILL_FROM,
  ...SHIFTS,
  ...MIRRORS,
  ...GRIDS,
  ...RATES,
  ...LANDS,
  ...ROUTES,
  ...COPIES,
  ...RESTARTS,
];
