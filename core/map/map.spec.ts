import { barTicks, GRID, meter, meterText, parseMeter, ticks, USUAL_SCHOOLS } from '../time';
import { isHand, parseStrokeText, type Stroke } from '../stroke';
import { patternOfText, type Pattern } from '../pattern';
import { build, type Recipe } from '../recipe';
import { RUDIMENTS } from '../rudiments';
import { USUAL_KIT } from '../kit';
import { USUAL_SHARE } from '../player';
import { ceilingOn, USUAL_PROFILE } from '../reach';
import { dice } from '../testing/learners';
import { TRAIT_ORDER, TRAITS, traitsOf, type Trait } from '../shelf';
import { firstsOf, firstWords, mapOf, nextToLearn, stepsTo, type BuiltOn, type Mapped } from '.';

const recipeOf = (text: string, m = '4/4', grid: number = GRID.sixteenths): Recipe => ({
  source: { kind: 'typed', text, meter: m, grid },
  moves: [],
});
const typed = (text: string, m = meter(4, 4), grid = GRID.sixteenths): Pattern => {
  const read = parseStrokeText(text);
  return patternOfText(read.ok ? read.value : [], m, grid);
};

/** Random phrases in meters and grids of all kinds, with kicks, unisons, heights, ornaments and pieces. */
function someMapped(roll: () => number, many: number): { readonly pattern: Pattern; readonly mapped: Mapped }[] {
  const pick = <T>(all: readonly T[]): T => all[Math.floor(roll() * all.length)]!;
  return Array.from({ length: many }, (_, i) => {
    const own = parseMeter(pick(['4/4', '3/4', '7/8', '5/8', '6/8', '11/16']))!;
    const grid = pick([GRID.eighths, GRID.sixteenths, GRID.triplets]);
    const slots = 2 + Math.floor(roll() * 30);
    const stroke = (): string =>
      pick(['R', 'L', 'r', 'l', 'R!', 'L!', 'K', 'R+K', 'R+L', 'H', '-', 'fR', 'dL', 'R[ride]', 'L[floor tom]']);
    const pattern = typed(Array.from({ length: slots }, stroke).join(' '), own, grid);
    const mapped = {
      id: String(i),
      name: `Phrase ${i}`,
      traits: traitsOf(pattern),
      share: roll() < 0.4 ? null : roll(),
      last: roll() < 0.4 ? null : Math.floor(roll() * 300),
    };
    return { pattern, mapped };
  });
}

/** The same traits by plain loops over slots, apart from the way they are worked out. */
function plainly(p: Pattern): Partial<Record<Trait, string>> {
  const at = new Map<number, Stroke[]>();
  for (const s of p.strokes) at.set(s.at, [...(at.get(s.at) ?? []), s]);
  const moments = [...at.keys()].sort((a, b) => a - b).map((t) => at.get(t)!);
  let together = 0;
  for (const m of moments) if (m.length > 1) together++;
  let [hands, accents, ghosts] = [0, 0, 0];
  let [kick, hat] = [false, false];
  for (const s of p.strokes) {
    if (s.limb === 'K') kick = true;
    else if (!isHand(s.limb)) hat = true;
    else {
      hands++;
      if (s.level === 'accent') accents++;
      if (s.level === 'ghost') ghosts++;
    }
  }
  const share = (n: number): string =>
    n === 0 ? 'none' : n / hands <= 0.25 ? 'up to a quarter' : n / hands <= 0.5 ? 'up to half' : 'more than half';
  const row: string[] = [];
  for (const m of moments) {
    const own = m.filter((s) => isHand(s.limb)).map((s) => s.limb);
    if (own.length === 1) row.push(own[0]!);
    if (own.length === 2) row.push('both');
  }
  let [doubled, thirds] = [0, 0];
  row.forEach((h, i) => {
    const before = row.at(i - 1)!;
    if (h !== 'both' && h === before) {
      doubled++;
      if (row.at((i - 2) % row.length) === h) thirds++;
    }
  });
  const part = doubled / row.length;
  const bars = p.length / barTicks(p.meter);
  return {
    limbs:
      hands === 0
        ? kick || hat
          ? 'feet'
          : 'nothing'
        : kick
          ? hat
            ? 'hands and both feet'
            : 'hands and kick'
          : hat
            ? 'hands and hat foot'
            : 'hands',
    together: together === 0 ? 'linear' : together / moments.length >= 0.5 ? 'mostly together' : 'some together',
    accents: share(accents),
    ghosts: share(ghosts),
    sticking:
      row.length < 2
        ? 'no hands'
        : part < 0.1
          ? 'singles'
          : thirds > 0
            ? 'mixed'
            : part > 0.42
              ? 'doubles'
              : 'paradiddle-like',
    length:
      bars <= 0.5
        ? 'up to half a bar'
        : bars <= 1
          ? 'up to a bar'
          : bars <= 2
            ? 'up to two bars'
            : bars <= 4
              ? 'up to four bars'
              : 'longer',
    meter: meterText(p.meter),
  };
}

describe('traits of phrases', () => {
  it('equal those counted by plain loops, of a thousand random phrases and the rudiments', () => {
    const all = someMapped(dice(11), 1000).map((x) => x.pattern);
    for (const r of RUDIMENTS) all.push(typed(r.text, r.meter, r.grid));
    for (const p of all) {
      const traits = traitsOf(p);
      expect(traits).toMatchObject(plainly(p));
      // Every word is one of its list: else it would stand on no axis.
      expect(TRAITS.filter((t) => TRAIT_ORDER[t]?.includes(traits[t]) === false)).toEqual([]);
    }
  });
  it('what they say of phrases a drummer knows', () => {
    const of = (text: string, m = meter(4, 4), grid = GRID.sixteenths) => traitsOf(typed(text, m, grid));
    expect(of('R L R R L R L L')).toMatchObject({
      sticking: 'paradiddle-like',
      lead: 'both',
      groups: '8',
      limbs: 'hands',
    });
    expect(of('R R L L')).toMatchObject({ sticking: 'doubles', groups: '4', length: 'up to half a bar' });
    expect(of('R L R L')).toMatchObject({ sticking: 'singles', way: 'stays', ornaments: 'none' });
    expect(of('L R L K')).toMatchObject({ lead: 'left', limbs: 'hands and kick', together: 'linear' });
    expect(of('fR L dR L')).toMatchObject({ ornaments: 'several' });
    expect(of('R L R[high tom] L[high tom] R[floor tom] L[floor tom]')).toMatchObject({ way: 'down' });
    expect(of('R[floor tom] L R[floor tom] L')).toMatchObject({ way: 'hands apart' });
    const landed = build({
      ...recipeOf('R L R L'),
      moves: [{ id: 'a', on: true, move: 'land', params: { hand: 'L', voice: 'crash-left', kick: true } }],
    });
    expect(traitsOf(landed.pattern)).toMatchObject({ lands: 'cymbal with the left', accents: 'none', groups: '4' });
    expect(traitsOf({ ...typed('R L'), start: ticks(2520) }).starts).toBe('off the beat');
    expect(traitsOf({ ...typed('R L'), start: ticks(5040) }).starts).toBe('on a beat');
  });
});

describe('the map', () => {
  it('counts as a second count by plain loops does, any two traits', () => {
    const all = someMapped(dice(23), 300).map((x) => x.mapped);
    for (const [row, column] of [
      ['grid', 'lead'],
      ['sticking', 'way'],
      ['meter', 'length'],
      ['accents', 'accents'],
    ] as const) {
      const map = mapOf(all, row, column);
      expect(map.squares.reduce((n, s) => n + s.ids.length, 0)).toBe(all.length);
      for (const r of map.rows)
        for (const c of map.columns) {
          const own = all.filter((p) => p.traits[row] === r && p.traits[column] === c);
          const square = map.squares.find((s) => s.row === r && s.column === c);
          expect(square?.ids ?? []).toEqual(own.map((p) => p.id));
          if (!square) continue;
          const shares = own.flatMap((p) => p.share ?? []);
          expect(square.readiest?.share ?? null).toBe(shares.length > 0 ? Math.max(...shares) : null);
          const days = own.flatMap((p) => p.last ?? []);
          expect(square.last).toBe(days.length > 0 ? Math.max(...days) : null);
        }
      for (const e of map.empty) {
        expect(map.squares.some((s) => s.row === e.row && s.column === e.column)).toBe(false);
        for (const id of e.from) {
          const p = all.find((x) => x.id === id)!;
          expect(p.share).toBeGreaterThanOrEqual(0.55);
          expect(p.traits[row] === e.row || p.traits[column] === e.column).toBe(true);
        }
      }
    }
  });
  it('of none, of one, of many that are all alike', () => {
    expect(mapOf([], 'grid', 'lead')).toMatchObject({ rows: [], columns: [], squares: [], empty: [] });
    const one = someMapped(dice(3), 1)[0]!.mapped;
    expect(mapOf([one], 'grid', 'lead').squares).toHaveLength(1);
    const alike = Array.from({ length: 500 }, (_, i) => ({ ...one, id: String(i) }));
    const map = mapOf(alike, 'meter', 'way');
    expect([map.squares.length, map.squares[0]?.ids.length, map.empty]).toEqual([1, 500, []]);
  });
});

describe('what leads to an empty square', () => {
  const scene = { kit: USUAL_KIT, profile: USUAL_PROFILE, share: USUAL_SHARE, schools: USUAL_SCHOOLS, today: 100 };
  const from: readonly BuiltOn[] = RUDIMENTS.slice(0, 12).map((r) => ({
    id: r.id,
    name: r.name,
    ready: 90,
    recipe: recipeOf(r.text, meterText(r.meter), r.grid),
  }));
  it('each step is built and has both traits of its square; a variant is one move more than its phrase', () => {
    const roll = dice(41);
    let [variants, composed] = [0, 0];
    for (let i = 0; i < 120; i++) {
      const [row, column] = [TRAITS[Math.floor(roll() * TRAITS.length)]!, TRAITS[Math.floor(roll() * TRAITS.length)]!];
      if (row === column) continue;
      const word = (t: Trait): string => {
        const all =
          TRAIT_ORDER[t] ?? (t === 'meter' ? ['3/4', '7/8', '5/4'] : ['triplets', '16ths', 'sextuplets', '32nds']);
        return all[Math.floor(roll() * all.length)]!;
      };
      const wanted = { traits: [row, column] as const, row: word(row), column: word(column) };
      const some = from.filter(() => roll() < 0.3);
      for (const s of stepsTo(wanted, some, scene)) {
        const { pattern } = build(s.recipe);
        const traits = traitsOf(pattern);
        expect([traits[row], traits[column]]).toEqual([wanted.row, wanted.column]);
        const parent = some.find((p) => p.id === s.from?.id);
        if (parent) {
          variants++;
          expect(s.recipe.moves.length).toBe(parent.recipe.moves.length + 1);
        } else composed++;
        expect(s.chance).toBeGreaterThanOrEqual(0);
        expect(s.chance).toBeLessThanOrEqual(1);
        const top = ceilingOn(pattern, USUAL_KIT, USUAL_PROFILE).bpm;
        if (s.ceiling !== null) expect(s.ceiling).toBe(Math.floor(top!));
        if (s.ceiling !== null) expect(s.tempo).toBeLessThanOrEqual(s.ceiling);
      }
    }
    expect(variants).toBeGreaterThan(15);
    expect(composed).toBeGreaterThan(5);
  });
  it('next to learn is the best of five different squares, the likeliest first', () => {
    const steps = ['triplets', 'sextuplets', '32nds', 'eighths', 'quintuplets', 'quarters'].flatMap((row) =>
      stepsTo({ traits: ['grid', 'lead'], row, column: 'right' }, from.slice(0, 4), scene),
    );
    const next = nextToLearn(steps);
    expect(new Set(next.map((s) => s.row)).size).toBe(next.length);
    expect(next.length).toBeLessThanOrEqual(5);
    for (const s of next)
      for (const o of steps.filter((x) => x.row === s.row)) expect(s.chance).toBeGreaterThanOrEqual(o.chance);
    expect(next.map((s) => s.chance)).toEqual([...next.map((s) => s.chance)].sort((a, b) => b - a));
  });
});

describe('what a phrase would be the first of', () => {
  it('no other has the traits that are named, and each of a pair is there by itself', () => {
    const roll = dice(59);
    const all = someMapped(roll, 200).map((x) => x.mapped.traits);
    let [singles, pairs] = [0, 0];
    for (let i = 0; i < 120; i++) {
      const own = all[i]!;
      const others = all.filter((_, n) => n !== i && n % 3 === i % 3);
      for (const { traits } of firstsOf(own, others)) {
        expect(others.some((o) => traits.every(([t, v]) => o[t] === v))).toBe(false);
        for (const [t, v] of traits) expect(own[t]).toBe(v);
        if (traits.length === 1) singles++;
        else {
          pairs++;
          for (const [t, v] of traits) expect(others.some((o) => o[t] === v)).toBe(true);
        }
      }
    }
    expect(singles).toBeGreaterThan(0);
    expect(pairs).toBeGreaterThan(20);
    // The same as one that is there, or on a shelf of few, it is the first of nothing.
    expect(firstsOf(all[0]!, [all[0]!, ...all.slice(5, 10)])).toEqual([]);
    expect(firstsOf(all[0]!, all.slice(1, 4))).toEqual([]);
  });
  it('every trait can be said', () => {
    for (const t of TRAITS)
      for (const value of TRAIT_ORDER[t] ?? ['triplets', '7/8']) {
        const words = firstWords([{ traits: [[t, value]] }]);
        expect(words).toMatch(/^The first on your shelf [^ ].*[a-z0-9]\.$/);
        expect(words).not.toContain('undefined');
      }
  });
});
