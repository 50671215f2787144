import { count, listed } from '../base';
import { barTicks, quarterTempo, type Schools } from '../time';
import { LIMB_WORDS, type Limb } from '../stroke';
import { balance } from './balance';
import type { Finding } from './finding';
import { untilLanding, type Pattern } from './pattern';
import { pickupWords } from './pickup';
import { leadOf } from './relations';
import { meantTogether } from './roles';
import { evenSteps, roundWords, seamOf, seamWords, stepsWords } from './round';
import {
  endsOn,
  fitSum,
  groupSum,
  notesPerSecond,
  placesWords,
  placeWords,
  splitGraces,
  sumUnit,
  unisons,
} from './sums';

/** So many rhythms against the beat are told. */
const MOST_CROSS = 2;

/** The cell that fills a pattern: the first group's length, or the whole when nothing repeats. */
export function cellTicks(pattern: Pattern): number {
  return pattern.groups[0]?.length ?? pattern.length;
}

/** Every sum of a pattern at a tempo in counted beats a minute, as sentences, sums first and checks after. */
export function report(pattern: Pattern, bpm: number, schools: Schools): readonly Finding[] {
  return [...sums(pattern, schools), ...checks(pattern, bpm, schools)];
}

function sums(pattern: Pattern, schools: Schools): Finding[] {
  const cell = cellTicks(pattern);
  const bar = barTicks(pattern.meter);
  const findings: Finding[] = [];
  const fit = fitWords(pattern, cell, bar);
  if (fit !== null) findings.push({ code: 'fit', weight: 'sum', words: fit });
  const ends = endsOn(pattern);
  if (ends) {
    const landed = pattern.groups.some((g) => g.kind === 'land' && g.at <= ends.last && ends.last < g.at + g.length);
    const words = landed
      ? `lands on ${landingWords(pattern, ends.last, schools)}`
      : `ends on ${placeWords(pattern, ends.last, schools)}`;
    findings.push({ code: 'ends', weight: 'sum', words, at: [ends.last] });
  }
  const led = pickupWords(pattern, schools);
  if (led !== null) findings.push({ code: 'pickup', weight: 'sum', words: led });
  if (pattern.length > 0) findings.push({ code: 'round', weight: 'sum', words: roundWords(pattern, schools) });
  return [...findings, ...crossFindings(pattern)];
}

/** Where a phrase lands is the 1 as such, whatever bar it is of. */
function landingWords(pattern: Pattern, at: number, schools: Schools): string {
  return (pattern.start + at) % barTicks(pattern.meter) === 0 ? 'the 1' : placeWords(pattern, at, schools);
}

/** How the groups fill the pattern. A cell not yet put into a space is measured against the bar it will stand in. */
function fitWords(pattern: Pattern, cell: number, bar: number): string | null {
  const { length } = pattern;
  const groups = pattern.groups.filter((g) => g.kind !== 'land');
  // The bar it lands in is no part of what fills the space.
  const landing = pattern.groups.reduce((sum, g) => sum + (g.kind === 'land' ? g.length : 0), 0);
  if (groups.length > 1 || landing > 0) {
    const sizes = groups.map((g) => g.length);
    const { unit, told } = sumUnit(pattern, [length - landing, ...sizes]);
    return told(
      groupSum(
        (length - landing) / unit,
        sizes.map((g) => g / unit),
      ),
    );
  }
  const space = Math.max(bar, Math.ceil(cell / bar) * bar);
  const { unit, told } = sumUnit(pattern, [space, cell]);
  const sum = fitSum(space / unit, cell / unit);
  return sum && told(sum.text);
}

/** What comes at even steps that are not the beat, as ratios against it: the first two of them. */
function crossFindings(pattern: Pattern): Finding[] {
  const said = evenSteps(pattern).flatMap((steps) => stepsWords(pattern, steps) ?? []);
  return said.slice(0, MOST_CROSS).map((words): Finding => ({ code: 'cross', weight: 'sum', words }));
}

function leadFinding(pattern: Pattern): Finding[] {
  if (leadOf(pattern).first === null) return [];
  if (leadOf(pattern).symmetric)
    return [
      {
        code: 'lead',
        weight: 'note',
        words: 'The lead changes hands: the second half is the first with hands swapped.',
      },
    ];
  const seam = seamOf(pattern);
  return seam ? [{ code: 'lead', weight: 'note', words: seamWords(seam) }] : [];
}

function checks(pattern: Pattern, bpm: number, schools: Schools): Finding[] {
  if (pattern.strokes.length === 0) return [];
  const together = unisons(pattern);
  const loads = balance(pattern);
  // Where a phrase lands it is over: the empty bar behind thins nothing out.
  const own = untilLanding(pattern);
  const rate = (strokes: number): string =>
    notesPerSecond(strokes, own.length, quarterTempo(bpm, pattern.meter)).toFixed(1);
  const many = (limb: Limb): number => own.strokes.filter((s) => s.limb === limb).length;
  const graces = splitGraces(pattern);
  const linear: Finding =
    together.length === 0
      ? graces.length === 0
        ? { code: 'linear', weight: 'note', words: 'Linear: one limb at a time.' }
        : {
            code: 'unison',
            weight: 'note',
            words: `One limb at a time but for the grace strokes: ${placesWords(pattern, graces, schools)}.`,
            at: graces,
          }
      : {
          code: 'unison',
          weight: together.every((t) => meantTogether(pattern.strokes.filter((s) => s.at === t))) ? 'note' : 'check',
          words: `${count(together.length, 'unison')}: ${placesWords(pattern, together, schools)}.`,
          at: together,
        };
  const longest = loads.reduce((a, b) => (b.longestRun > a.longestRun ? b : a));
  return [
    linear,
    ...leadFinding(pattern),
    {
      code: 'balance',
      weight: 'note',
      words: `${listed(loads.map((l) => `${LIMB_WORDS[l.limb]} ${l.strokes}`))}. Longest run on one limb: ${longest.longestRun}.`,
      limbs: loads.map((l) => l.limb),
    },
    {
      code: 'density',
      weight: 'note',
      words: `${rate(own.strokes.length)} notes per second; ${listed(loads.map((l) => `${LIMB_WORDS[l.limb]} ${rate(many(l.limb))}`))}.`,
    },
  ];
}
