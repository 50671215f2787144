import { fraction } from '../../base';
import { barTicks, beatTicks, countAt, gridName, parseCount, USUAL_SCHOOLS } from '../../time';
import { otherHand, parseStrokeText, type Limb } from '../../stroke';
import {
  barOf,
  barsSpan,
  countingOf,
  finestSlot,
  leadHand,
  patternOfText,
  voicedText,
  type Pattern,
} from '../../pattern';
import { clipOf, offerOf, pasteEdits, type MoveParams, type Offer } from '../../recipe';
import { refOf, textOfCount, type BarSaid, type CountSaid } from '../grammar/counts';
import type { Pick } from '../grammar/pick';
import { places } from '../grammar/places';
import { acts, rule, wrong, type Rule, type Said, type RuleContext } from './rule';
import type { SpaceSaid } from '../grammar/slots';
import type { Values } from '../lexicon/template';
import { isWrong, stretchesOf } from '../grammar/stretches';

const INSERTS: Rule[] = [
  rule(['[add|put|stick] {strokes} (behind it|behind|after it|to finish|on the end|at the back)'], (v) =>
    acts([offerOf('insert', { text: v['strokes'] as string, where: { kind: 'end' } })]),
  ),
  rule(['{letters:strokes} at [the] end'], (v, scene) => {
    const text = v['strokes'] as string;
    const many = text.split(' ').length;
    const { pattern } = scene;
    const added = offerOf('insert', { text, where: { kind: 'end' } });
    // "a kick at the end" is one more; letters may also be meant for what stands there.
    const from = pattern.length - many * pattern.grid;
    const instead = from < 0 || many < 2 ? null : replaced(pattern, from, text);
    return instead ? acts([added], [instead]) : acts([added]);
  }),
  rule(
    [
      '[add|put|insert] {strokes} after every {n} [slots|strokes|notes]',
      '[add|put|insert] {strokes} every {n} [slots|strokes|notes]',
    ],
    (v) =>
      acts([offerOf('insert', { text: v['strokes'] as string, where: { kind: 'every', slots: v['n'] as number } })]),
  ),
];

/** Strokes of a text in place of what stands in its slots; null where the text cannot be read. */
function replaced(pattern: Pattern, from: number, text: string): Offer | null {
  const read = parseStrokeText(text);
  if (!read.ok) return null;
  const { strokes, length } = patternOfText(read.value, pattern.meter, pattern.grid);
  return offerOf('touch', { edits: pasteEdits(pattern, from, { length, strokes }) });
}

type Fit = MoveParams['fit'];
type Close = Fit['close'];

/** A fill that comes out even needs no closing; one that does not says how, or is asked. */
export function fill(
  scene: RuleContext,
  space: Fit['space'],
  rest: Partial<Fit> & { readonly mirrored?: boolean },
): Said {
  const { pattern } = scene;
  if (pattern.length === 0) return wrong('fill', 'There are no strokes yet.');
  if ('beats' in space && space.beats < 1) return wrong('half', 'That is not a whole number of beats here.');
  const start = rest.start ?? '1';
  const from = parseCount(start, countingOf(pattern, USUAL_SCHOOLS));
  if (from === null) return wrong(start, 'There is no such count here.');
  if (from >= barTicks(pattern.meter)) return wrong(start, 'A fill begins in its first bar.');
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

/** Room as the move takes it: half bars are said in beats. Null where that is no whole number of beats. */
function roomOf({ meter }: Pattern, said: SpaceSaid): Fit['space'] | null {
  if ('beats' in said) return said;
  if (Number.isInteger(said.bars)) return said;
  const beats = (said.bars * barTicks(meter)) / beatTicks(meter);
  return Number.isInteger(beats) ? { beats } : null;
}

/** Singles that begin with the hand that did not play last, to close what is left. */
export function singles(scene: RuleContext, space: Fit['space'], start: string): string {
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
  '(fill|fill up|fill out|cover|repeat it for|repeat it over|keep repeating it for|keep going for|loop it for|make it last|keep it going for|play it for|run it for|make it|make that|extend it to|let it run for|repeat for|keep repeating for)';

/** Groups of the sizes that were said, where they come out. */
export function filledBySizes(v: Values, scene: RuleContext): Said {
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
      `That is ${sizes.reduce((a, b) => a + b, 0)} slots, and ${fraction(long / pattern.grid)} are to be filled.`,
    );
  const beats = long / beatTicks(pattern.meter);
  const where: Fit['space'] | null = space ?? (Number.isInteger(beats) ? { beats } : null);
  return where
    ? fill(scene, where, { close: { kind: 'groups', groups: [...sizes] } })
    : wrong(sizes.join(' + '), 'They do not make whole beats.');
}

const FITS: Rule[] = [
  rule(
    [
      `${FILL} {space} [long] [from {count:from}|starting on {count:from}|starting from {count:from}|from the {count:from}] [, ] [and|but] [(ending|end|ends|to end) on {count:to}] [,] [and]`,
    ],
    (v, scene) => fill(scene, spaceSaid(v, scene), spanned(v)),
  ),
  rule(
    [
      `${FILL} {space} [from {count:from}] [,] [and] (cut|cutting|chop) [the] [last one|last repeat|rest|last|end|it] [short|off]`,
    ],
    (v, scene) => fill(scene, spaceSaid(v, scene), { ...spanned(v), close: { kind: 'cut' } }),
  ),
  rule(
    [
      `${FILL} {space} [from {count:from}] [,] [and|then] [leave] [a|the] (rest|silence|rests|empty) [empty|free|open|silent] [for|in|at|over] [whatever is left|what is left|the rest|the end|what remains|whatever remains|the remainder]`,
    ],
    (v, scene) => fill(scene, spaceSaid(v, scene), { ...spanned(v), close: { kind: 'rest' } }),
  ),
];

export function spaceSaid(v: Readonly<Record<string, unknown>>, { pattern }: RuleContext): Fit['space'] {
  return roomOf(pattern, (v['space'] as SpaceSaid | undefined) ?? { bars: 1 }) ?? { beats: 0 };
}

function spanned(v: Readonly<Record<string, unknown>>): Partial<Fit> {
  const [from, to] = [v['from'] as CountSaid | undefined, v['to'] as CountSaid | undefined];
  return { ...(from ? { start: refOf(from) } : {}), ...(to ? { end: textOfCount(to) } : {}) };
}

export function times(scene: RuleContext, n: number, mirrored: boolean): Said {
  const { pattern } = scene;
  if (n < 2 || n > 64 || pattern.length === 0) return wrong('times', 'Say how often.');
  const long = pattern.length * n;
  const start = countAt(pattern.start, countingOf(pattern, USUAL_SCHOOLS)).text;
  const [bar, beat] = [barTicks(pattern.meter), beatTicks(pattern.meter)];
  const text = voicedText(pattern);
  if (long % bar === 0 && pattern.start === 0)
    return acts([offerOf('fit', { space: { bars: long / bar }, start: '1', mirrored, close: { kind: 'cut' } })]);
  if (long % beat === 0)
    return acts([offerOf('fit', { space: { beats: long / beat }, start, mirrored, close: { kind: 'cut' } })]);
  if (mirrored || !text || text.on !== gridName(pattern.grid)) return wrong('times', 'It would end between two beats.');
  return acts([
    offerOf('insert', { text: Array.from({ length: n - 1 }, () => text.text).join(' '), where: { kind: 'end' } }),
  ]);
}

/** "fill from 3 to the next 1" */
const FILL_FROM: Rule[] = [];

/** A bar is played again, behind the last or in place of another. */
export function barCopied(v: Values, scene: RuleContext): Said {
  const [own, ...others] = v['bars'] as readonly BarSaid[];
  const [to, ...more] = (v['to'] as readonly BarSaid[] | undefined) ?? [];
  if (others.length + more.length > 0) return wrong('bars', 'Say one bar at a time.');
  const { pattern } = scene;
  const many = barsSpan(pattern).bars;
  const from = own === 'last' ? many : (own ?? 1);
  const at = to === undefined ? many + 1 : to === 'last' ? many : to;
  if (from < 1 || from > many) return wrong(`bar ${from}`, `There are ${many} bars.`);
  const bar = barTicks(pattern.meter);
  if (pattern.start !== 0 || pattern.length % bar !== 0)
    return wrong(`bar ${from}`, 'The phrase is not made of whole bars.');
  const source = barOf(pattern, from - 1);
  const text = voicedText(source);
  if (!text) return wrong(`bar ${from}`, 'It is too long to be copied.');
  if (at === many + 1) {
    const slot = finestSlot(source);
    const grid = slot === pattern.grid ? {} : { grid: slot };
    return acts([offerOf('insert', { text: text.text, where: { kind: 'end' }, ...grid })]);
  }
  if (at < 1 || at > many) return wrong(`bar ${at}`, `There are ${many} bars.`);
  return acts([
    offerOf('touch', {
      edits: pasteEdits(pattern, (at - 1) * bar, clipOf(pattern, (from - 1) * bar, from * bar)),
    }),
  ]);
}

const COPIES: Rule[] = [];

/** Beats that are played as another beat is. */
const BEATS_COPIED: Rule[] = [
  rule(['[make|play] {counts:to} [all] [is|are] (like|as|same as|the same as) {counts}'], (v, { pattern }) => {
    const [source, ...more] = v['counts'] as readonly CountSaid[];
    const to = v['to'] as readonly CountSaid[];
    if (!source || more.length > 0) return wrong('copy', 'Say one beat that is copied.');
    if ([source, ...to].some((c) => c.syllable !== '')) return wrong('copy', 'Say which beats.');
    const own = stretchesOf(pattern, source, 'beat');
    const targets = to.map((c) => stretchesOf(pattern, c, 'beat'));
    if (!own || targets.some((t) => !t)) return wrong('copy', 'There is no such beat here.');
    const bar = barTicks(pattern.meter);
    const barOf = (at: number): number => Math.floor((pattern.start + at) / bar);
    const edits = targets.flatMap((all) =>
      (all ?? []).flatMap((t) => {
        // In a phrase of several bars each beat is that of its own bar.
        const from = own.find((s) => barOf(s.from) === barOf(t.from));
        const fits = from && t.from >= 0 && t.until <= pattern.length && t.until - t.from === from.until - from.from;
        return fits && from.from >= 0 ? pasteEdits(pattern, t.from, clipOf(pattern, from.from, from.until)) : [];
      }),
    );
    return edits.length === 0 ? wrong('copy', 'Those beats are not as long.') : acts([offerOf('touch', { edits })]);
  }),
];

const WRITTEN: Rule[] = [
  rule(['beat {n} [:] {strokes}', '{counts} : {strokes}'], (v, scene) => {
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
    if (there === null || isWrong(there)) return wrong(pick.said, 'There is no such count here.');
    const [at] = there.ways[0] ?? [];
    if (at === undefined || (there.ways[0]?.length ?? 0) > 1) return wrong(pick.said, 'Say in which bar.');
    if (at + text.split(' ').length * pattern.grid > pattern.length)
      return wrong(text, 'That is longer than the phrase.');
    const instead = replaced(pattern, at, text);
    return instead ? acts([instead]) : wrong(text, 'These are not strokes.');
  }),
];

/** What is played, and how often: strokes put in, bars filled and copied. */
export const FILL_RULES: readonly Rule[] = [...INSERTS, ...FITS, ...FILL_FROM, ...COPIES, ...BEATS_COPIED, ...WRITTEN];
