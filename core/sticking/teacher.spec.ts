import { GRID, parseMeter, USUAL_SCHOOLS, type Ticks } from '../time';
import { isHand, parseStrokeText } from '../stroke';
import { patternOfText, type Pattern } from '../pattern';
import { USUAL_KIT } from '../kit';
import { raises, USUAL_PROFILE } from '../reach';
import table from '../testing/teacher.json';
import { stickings, type StickingSchool } from '.';

// What a teacher accepts: the advice that is given first, what no advice may say, and the hands that come first.

const GRIDS: Readonly<Record<string, Ticks>> = {
  quarters: GRID.quarters,
  eighths: GRID.eighths,
  triplets: GRID.triplets,
  '16ths': GRID.sixteenths,
  '32nds': GRID.thirtySeconds,
};

function patternOf(text: string, grid: string, meter = '4/4'): Pattern {
  // A unison of two free strokes is written R+R.
  const read = parseStrokeText(text.replace(/R(\[[^\]]*\])?\+R/g, 'R$1+L'));
  if (!read.ok) throw new Error(`${text}: ${read.problems[0].message}`);
  return patternOfText(read.value, parseMeter(meter)!, GRIDS[grid]!);
}

describe('the advice that is given', () => {
  it.each(table.remedies.map((t) => [t.name, t] as const))('%s', (_, { text, grid, first, never }) => {
    const all = raises(patternOf(text, grid), USUAL_KIT, USUAL_PROFILE, USUAL_SCHOOLS);
    const words = all.map((r) => r.words);
    if (first.length === 0) expect(words).toEqual([]);
    else expect(first.some((f) => words[0]?.includes(f))).toBe(true);
    for (const bad of never) expect(words.filter((w) => w.includes(bad))).toEqual([]);
  });
});

interface Sticks {
  readonly name: string;
  readonly text: string;
  readonly grid: string;
  readonly meter?: string;
  readonly bpm: number;
  readonly first: Partial<Record<StickingSchool, readonly string[]>>;
}

describe('the hands that come first', () => {
  const all = (table.stickings as readonly Sticks[]).flatMap((t) =>
    Object.entries(t.first).map(([school, letters]) => [t.name, school, t, letters] as const),
  );
  it.each(all)('%s, %s', (_, school, { text, grid, meter, bpm }, letters) => {
    const pattern = patternOf(text, grid, meter);
    const wish = { bpm, kit: USUAL_KIT, profile: USUAL_PROFILE, pins: new Map(), schools: USUAL_SCHOOLS };
    const { found } = stickings(pattern, { ...wish, many: 1, apart: 1 }, [school as StickingSchool]);
    const hands = (p: Pattern): string => p.strokes.flatMap((s) => (isHand(s.limb) ? [s.limb] : [])).join('');
    expect(letters).toContain(found[0] && hands(found[0].pattern));
  });
});
