import { count, lcm, listed } from '../base';
import { barTicks, beatTicks, quarterTempo, type Schools } from '../time';
import { LIMB_WORDS } from '../stroke';
import type { Finding } from './finding';
import type { Pattern } from './pattern';
import { accentStep, crossRhythm, leadOf } from './relations';
import { meantTogether } from './roles';
import {
  balance,
  comesRound,
  endsOn,
  fitSum,
  groupSum,
  leadHand,
  notesPerSecond,
  placesWords,
  placeWords,
  unisons,
} from './sums';

/** The cell that fills a pattern: the first group's length, or the whole when nothing repeats. */
export function cellTicks(pattern: Pattern): number {
  return pattern.groups[0]?.length ?? pattern.length;
}

/** Whether the second repeat is led by the other hand than the first. */
export function isMirrored(pattern: Pattern): boolean {
  const first = leadHand(pattern.strokes.filter((s) => s.from.repeat === 0));
  const second = leadHand(pattern.strokes.filter((s) => s.from.repeat === 1));
  return first !== null && second !== null && first !== second;
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
    const words = `${landed ? 'lands' : 'ends'} on ${placeWords(pattern, ends.last, schools)}`;
    findings.push({ code: 'ends', weight: 'sum', words, at: [ends.last] });
  }
  if (cell > 0) findings.push({ code: 'round', weight: 'sum', words: roundWords(pattern, cell, bar) });
  const cross = crossWords(pattern, bar);
  if (cross) findings.push({ code: 'cross', weight: 'sum', words: cross });
  return findings;
}

/** How the groups fill the pattern. A cell not yet put into a space is measured against the bar it will stand in. */
function fitWords(pattern: Pattern, cell: number, bar: number): string | null {
  const { grid, length } = pattern;
  const groups = pattern.groups.filter((g) => g.kind !== 'land');
  // The bar it lands in is no part of what fills the space.
  const landing = pattern.groups.reduce((sum, g) => sum + (g.kind === 'land' ? g.length : 0), 0);
  if (groups.length > 1 || landing > 0)
    return groupSum(
      (length - landing) / grid,
      groups.map((g) => g.length / grid),
    );
  const space = Math.max(bar, Math.ceil(cell / bar) * bar);
  return fitSum(space / grid, cell / grid)?.text ?? null;
}

/** Even accents that are not the beat, as a ratio against it. */
function crossWords(pattern: Pattern, bar: number): string | null {
  const step = accentStep(pattern);
  const beat = beatTicks(pattern.meter);
  if (step === null || step % pattern.grid !== 0 || beat % pattern.grid !== 0) return null;
  const cross = crossRhythm(step / pattern.grid, beat / pattern.grid);
  if (cross.accents === 1 || cross.beats === 1) return null;
  return `accents every ${count(step / pattern.grid, 'slot')}: ${cross.text}, round after ${count(lcm(step, bar) / bar, 'bar')}`;
}

function leadFinding(pattern: Pattern): Finding[] {
  const { first, symmetric, flips } = leadOf(pattern);
  if (!first) return [];
  if (symmetric)
    return [{ code: 'lead', weight: 'note', words: 'Leads with both hands: the second half mirrors the first.' }];
  if (flips)
    return [
      {
        code: 'lead',
        weight: 'note',
        words: `Begins and ends with the ${LIMB_WORDS[first]}: round again, that is two in a row.`,
      },
    ];
  return [];
}

/** When the cell would be back on the 1 if it ran on; of groups of several sizes, when the whole is. */
function roundWords(pattern: Pattern, cell: number, bar: number): string {
  const lead = leadHand(pattern.strokes);
  const even = pattern.groups.every(
    (g, i) => g.length === cell || (g.length < cell && i === pattern.groups.length - 1),
  );
  const round = even ? comesRound(cell, bar, lead, isMirrored(pattern)) : comesRound(pattern.length, bar, lead, false);
  const first = `back on 1${handWords(round.hand)} after ${count(round.bars, 'bar')}`;
  return round.barsSameHand === round.bars ? first : `${first}, with the same hand after ${round.barsSameHand}`;
}

function handWords(hand: 'R' | 'L' | null): string {
  return hand ? ` with the ${LIMB_WORDS[hand]}` : '';
}

function checks(pattern: Pattern, bpm: number, schools: Schools): Finding[] {
  if (pattern.strokes.length === 0) return [];
  const together = unisons(pattern);
  const loads = balance(pattern);
  const rate = (strokes: number): string =>
    notesPerSecond(strokes, pattern.length, quarterTempo(bpm, pattern.meter)).toFixed(1);
  const linear: Finding =
    together.length === 0
      ? { code: 'linear', weight: 'note', words: 'Linear: one limb at a time.' }
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
      words: `${rate(pattern.strokes.length)} notes a second; ${listed(loads.map((l) => `${LIMB_WORDS[l.limb]} ${rate(l.strokes)}`))}.`,
    },
  ];
}
