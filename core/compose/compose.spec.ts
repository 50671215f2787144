import { barTicks, GRID, gridsOf, meter, parseMeter, ticks, USUAL_SCHOOLS, type Meter } from '../time';
import { isHand, type Limb, type TypedStroke } from '../stroke';
import { isSame, build } from '../recipe';
import { KIT_PRESETS } from '../kit';
import { ceilingOn, USUAL_PROFILE } from '../reach';
import { dice } from '../testing/learners';
import {
  asking,
  cellOf,
  compose,
  contradictions,
  COSTS,
  freeCells,
  isPiece,
  linearCells,
  mirroredCell,
  relaxations,
  rudimentCells,
  WAYS,
  type Asked,
  type Cell,
  type Slot,
  type Wish,
} from '.';

const KIT = KIT_PRESETS[0]!;
const AROUND = { kit: KIT, profile: USUAL_PROFILE, shelf: [] };
const FOUR = meter(4, 4);
const cell = (text: string): Cell => cellOf(text, text)!;

// Trying everything, written apart from the search: every row of cells that fills the space, each demand looked at on
// the finished strokes by plain loops.

interface Tried {
  readonly cells: readonly number[];
  readonly slots: readonly Slot[];
  readonly cost: number;
}

/** All rows of cells over so many free slots. */
function rows(cells: readonly Cell[], free: number, cut: boolean): number[][] {
  const out: number[][] = [];
  const go = (row: number[], left: number): void => {
    if (left === 0) {
      out.push(row);
      return;
    }
    cells.forEach((c, i) => {
      const long = c.slots.length;
      if (long === 0) return;
      if (long <= left) go([...row, i], left - long);
      else if (cut) out.push([...row, i]);
    });
  };
  go([], free);
  return out;
}

const plays = (slot: Slot, limb: Limb): boolean => slot.some((s) => s.limb === limb);
const accented = (slot: Slot): boolean => slot.some((s) => isHand(s.limb) && s.level === 'accent');
const PIECES: readonly Wish[] = ['crash-left', 'floor-tom', 'snare'];
const strikes = (slot: Slot, piece: string): boolean =>
  slot.some((s) => isHand(s.limb) && (s.voice ?? 'snare') === piece);
const meets = (slot: Slot, what: Wish): boolean =>
  what === 'hit'
    ? accented(slot)
    : what === 'rest'
      ? slot.length === 0
      : what === 'R' || what === 'L' || what === 'K'
        ? plays(slot, what)
        : strikes(slot, what);
/** What must be there is brought about where it can be: an accent of the hands, a hand sent to a piece. */
function broughtAbout(slot: Slot, what: Wish): Slot {
  if (meets(slot, what)) return slot;
  if (what === 'hit') return slot.map((s) => (isHand(s.limb) ? { ...s, level: 'accent' as const } : s));
  if (!PIECES.includes(what)) return slot;
  const hand = plays(slot, 'R') ? 'R' : 'L';
  return slot.map((s) => (s.limb === hand ? { ...s, voice: what as 'snare' } : s));
}
/** The longest row of slots that follow each other in which a limb plays. */
function run(slots: readonly Slot[], limb: Limb): number {
  let [now, most] = [0, 0];
  for (const s of slots) {
    now = plays(s, limb) ? now + 1 : 0;
    most = Math.max(most, now);
  }
  return most;
}

function everything(asked: Asked): Tried[] {
  const lineAt = (i: number): Slot => asked.line?.slots[i] ?? [];
  const taken = Array.from({ length: asked.slots }, (_, i) => asked.linear && lineAt(i).length > 0);
  const free = taken.filter((t) => !t).length;
  const usable = asked.cells.map((c) =>
    c.slots.some((slot) => slot.some((s) => asked.line?.limbs.includes(s.limb))) ? { ...c, slots: [] } : c,
  );
  return rows(usable, free, asked.cut).flatMap((row): Tried[] => {
    const own = row.flatMap((c) => usable[c]!.slots);
    const whose = row.flatMap((c, n) => usable[c]!.slots.map((_, i) => ({ n, first: i === 0 })));
    let next = 0;
    const seams: boolean[] = [];
    const slots = Array.from({ length: asked.slots }, (_, i): Slot => {
      const seam = !taken[i] && (whose[next]?.first ?? false);
      seams.push(seam);
      const all: Slot = [...(taken[i] ? [] : (own[next++] ?? [])), ...lineAt(i)];
      return asked.wishes.filter((w) => w.slot === i && w.must).reduce((now, w) => broughtAbout(now, w.what), all);
    });
    if (asked.held?.some((h, i) => h !== null && keyOf([h]) !== keyOf([slots[i]!]))) return [];
    const others = asked.like ? slots.filter((x, i) => keyOf([x]) !== keyOf([asked.like!.slots[i] ?? []])).length : 0;
    if (asked.like && (others < 1 || others > asked.like.most)) return [];
    if (asked.linear && slots.some((s) => s.length > 1)) return [];
    if (asked.wishes.some((w) => meets(slots[w.slot]!, w.what) !== w.must)) return [];
    const { hand, foot } = asked.longest;
    if (hand !== null && Math.max(run(slots, 'R'), run(slots, 'L')) > hand) return [];
    if (foot !== null && run(slots, 'K') > foot) return [];
    const struck = slots.filter((s) => s.length > 0).length;
    if (asked.struck && (struck < asked.struck.least || struck > asked.struck.most)) return [];
    const hands = slots.flatMap((s) => (plays(s, 'R') ? ['R'] : plays(s, 'L') ? ['L'] : []));
    if (asked.lead !== null && hands[0] !== asked.lead) return [];
    if (asked.end !== null && hands.at(-1) !== asked.end) return [];
    let cost = row.length * COSTS.cell + others * COSTS.other;
    const single = (c: number): boolean => usable[c]!.slots.length === 1;
    for (let i = 1; i < row.length; i++)
      if (row[i] !== row[i - 1] && !(single(row[i]!) && single(row[i - 1]!))) cost += COSTS.change;
    if (own.length > free) cost += COSTS.cut;
    for (const limb of ['R', 'L'] as const)
      slots.forEach((s, i) => {
        const goesOn = (n: number): boolean =>
          i >= n && Array.from({ length: n + 1 }, (_, k) => slots[i - k]!).every((x) => plays(x, limb));
        if (goesOn(2)) cost += COSTS.third;
      });
    seams.forEach((seam, i) => {
      const both = (['R', 'L'] as const).some((l) => i > 0 && plays(slots[i]!, l) && plays(slots[i - 1]!, l));
      if (seam && both) cost += COSTS.seam;
    });
    return [{ cells: row, slots, cost }];
  });
}

const keyOf = (slots: readonly Slot[]): string =>
  slots
    .map((s) =>
      [...s]
        .map((x) => x.limb + x.level.charAt(0) + (isHand(x.limb) && x.voice && x.voice !== 'snare' ? x.voice : ''))
        .sort()
        .join('+'),
    )
    .join(' ');

/** What the search must give: the cheapest filling of each row of strokes, in order of cost. */
function cheapest(asked: Asked): Map<string, number> {
  const best = new Map<string, number>();
  for (const t of everything(asked)) {
    const key = keyOf(t.slots);
    best.set(key, Math.min(best.get(key) ?? Infinity, t.cost));
  }
  return best;
}

function checkAgainstEverything(asked: Asked): number {
  const wanted = cheapest(asked);
  const { answers } = compose(asked, AROUND);
  const costs = [...wanted.values()].sort((a, b) => a - b);
  expect(answers.map((a) => a.cost)).toEqual(costs.slice(0, asked.many));
  for (const a of answers) {
    const slots = Array.from({ length: asked.slots }, (_, i) =>
      a.pattern.strokes.filter((s) => s.at === i * asked.grid),
    );
    // Each is one of them, at its own cost, and the recipe builds just that.
    expect(wanted.get(keyOf(slots))).toBe(a.cost);
    expect(isSame(build(a.recipe).pattern, a.pattern)).toBe(true);
    const top = ceilingOn(a.pattern, KIT, USUAL_PROFILE).bpm;
    expect(a.ceiling).toBe(top === null || top >= 400 ? null : Math.floor(top));
  }
  return wanted.size;
}

const POOL = [
  'R L',
  'R L L',
  'R L K',
  'R L R K',
  'R R L L',
  'R! L L',
  'K R L',
  'R - L',
  'R L R L K',
  'K',
  'R',
  'L',
  '-',
  'R+K L',
];
const WISH_KINDS: readonly Wish[] = ['hit', 'R', 'L', 'K', 'rest', ...PIECES];
const kindOf = (roll: () => number): Wish => WISH_KINDS[Math.floor(roll() * WISH_KINDS.length)]!;

const someSlot = (roll: () => number): Slot => cell(['R', 'L', 'K', '-'][Math.floor(roll() * 4)]!).slots[0]!;

/** Each demand by itself, as chance has it. */
const DEMANDS: Readonly<Record<string, (roll: () => number, slots: number) => Partial<Asked>>> = {
  must: (roll, slots) => ({
    wishes: Array.from({ length: 1 + Math.floor(2 * roll()) }, () => ({
      slot: Math.floor(roll() * slots),
      what: kindOf(roll),
      must: true,
    })),
  }),
  not: (roll, slots) => ({
    wishes: Array.from({ length: 1 + Math.floor(3 * roll()) }, () => ({
      slot: Math.floor(roll() * slots),
      what: kindOf(roll),
      must: false,
    })),
  }),
  line: (roll, slots) => ({
    line: {
      limbs: ['K'],
      slots: Array.from({ length: slots }, (): Slot => (roll() < 0.3 ? [{ limb: 'K', level: 'tap' }] : [])),
    },
  }),
  held: (roll, slots) => ({
    held: Array.from({ length: slots }, (): Slot | null => (roll() < 0.8 ? null : someSlot(roll))),
  }),
  like: (roll, slots) => ({
    like: { slots: Array.from({ length: slots }, () => someSlot(roll)), most: 1 + Math.floor(roll() * slots) },
  }),
  cut: () => ({ cut: true }),
  linear: () => ({ linear: true }),
  hand: (roll) => ({ longest: { hand: 1 + Math.floor(3 * roll()), foot: null } }),
  foot: (roll) => ({ longest: { hand: null, foot: 1 + Math.floor(2 * roll()) } }),
  struck: (roll, slots) => {
    const least = Math.floor(roll() * slots);
    return { struck: { least, most: Math.min(slots, least + 3) } };
  },
  lead: (roll) => ({ lead: roll() < 0.5 ? 'R' : 'L' }),
  end: (roll) => ({ end: roll() < 0.5 ? 'R' : 'L' }),
};

function random(roll: () => number, demands: readonly string[], most: number): Asked {
  const slots = 2 + Math.floor(roll() * (most - 1));
  // Single slots make more rows than can be tried where there are many slots.
  const pool = slots > 7 ? POOL.filter((text) => text.includes(' ')) : POOL;
  const cells = pool.filter(() => roll() < 0.3).map(cell);
  const parts = demands.map((d) => DEMANDS[d]!(roll, slots));
  return {
    ...asking({ meter: FOUR, grid: GRID.sixteenths, slots, cells: cells.length > 0 ? cells : [cell('R L')], many: 5 }),
    ...Object.assign({}, ...parts),
    wishes: parts.flatMap((p) => p.wishes ?? []),
    longest: {
      hand: parts.find((p) => p.longest?.hand != null)?.longest?.hand ?? null,
      foot: parts.find((p) => p.longest?.foot != null)?.longest?.foot ?? null,
    },
  } as Asked;
}

/** Cases a pair of demands; two hundred with `COMPOSE_RUNS=200`. */
const RUNS = Number(process.env['COMPOSE_RUNS'] ?? 8);

/** Random askings that are built; ten thousand with `COMPOSE_BUILDS=10000`. */
const BUILDS = Number(process.env['COMPOSE_BUILDS'] ?? 400);

describe('equal to trying everything', () => {
  it.each(Object.keys(DEMANDS))('%s alone, up to 12 slots', (demand) => {
    const roll = dice(demand.length * 31 + 5);
    let some = 0;
    for (let i = 0; i < 60; i++) some += checkAgainstEverything(random(roll, [demand], 12)) > 0 ? 1 : 0;
    expect(some).toBeGreaterThan(12);
  });
  it('all demands two by two, and three at once', () => {
    const names = Object.keys(DEMANDS);
    const roll = dice(71);
    let some = 0;
    for (const a of names)
      for (const b of names) {
        if (a >= b) continue;
        for (let i = 0; i < RUNS; i++) some += checkAgainstEverything(random(roll, [a, b], 8)) > 0 ? 1 : 0;
        const c = names[Math.floor(roll() * names.length)]!;
        checkAgainstEverything(random(roll, [...new Set([a, b, c])], 8));
      }
    expect(some).toBeGreaterThan(100);
  });
  it('answers that differ by so many slots: each is the cheapest that is far enough from those before', () => {
    const roll = dice(91);
    for (let i = 0; i < 60; i++) {
      const asked = { ...random(roll, ['linear'], 8), apart: 1 + Math.floor(4 * roll()) };
      const all = [...cheapest(asked)].sort((a, b) => a[1] - b[1]);
      const { answers } = compose(asked, AROUND);
      const keys = answers.map((a) =>
        keyOf(
          Array.from({ length: asked.slots }, (_, n) => a.pattern.strokes.filter((s) => s.at === n * asked.grid)),
        ).split(' '),
      );
      const far = (a: readonly string[], b: readonly string[]): number => a.filter((s, n) => s !== b[n]).length;
      keys.forEach((k, n) => keys.slice(0, n).forEach((o) => expect(far(k, o)).toBeGreaterThanOrEqual(asked.apart)));
      // Nothing cheaper was passed over that was far enough from all that came before it.
      answers.forEach((a, n) => {
        const before = keys.slice(0, n);
        const open = all.filter(([k]) => before.every((o) => far(k.split(' '), o) >= asked.apart));
        expect(a.cost).toBe(open[0]?.[1]);
      });
      if (answers.length < asked.many)
        expect(all.filter(([k]) => keys.every((o) => far(k.split(' '), o) >= asked.apart))).toEqual([]);
    }
  });
});

describe('what is promised is built', () => {
  it('recipes of random askings in all meters and grids build the strokes, round the kit and landing too', () => {
    const roll = dice(303);
    const pick = <T>(all: readonly T[]): T => all[Math.floor(roll() * all.length)]!;
    const meters = ['4/4', '3/4', '7/8', '5/8', '6/8', '9/8', '11/16', '5/4', '2/2', '7/8 3+2+2'];
    let some = 0;
    for (let i = 0; i < BUILDS; i++) {
      const own = parseMeter(pick(meters)) as Meter;
      const grid = pick(gridsOf(own).filter((g) => barTicks(own) % g === 0 && g >= 420));
      const bar = barTicks(own) / grid;
      const from = roll() < 0.3 ? Math.floor(roll() * bar) : 0;
      const slots = Math.min(24, Math.max(1, bar * (1 + Math.floor(roll() * 2)) - from));
      const base = random(
        roll,
        ['must', 'linear', 'hand'].filter(() => roll() < 0.4),
        8,
      );
      const asked: Asked = {
        ...base,
        ...{ meter: own, grid, start: ticks(from * grid), slots, cut: roll() < 0.5, many: 2 },
        wishes: base.wishes.filter((w) => w.slot < slots),
        landing: roll() < 0.3 ? { hand: pick(['R', 'L'] as const), voice: 'crash-left', kick: roll() < 0.5 } : null,
        way: roll() < 0.3 ? pick(WAYS) : null,
      };
      // A piece that is asked for and a way round the kit contradict.
      if (asked.way !== null && asked.wishes.some((w) => isPiece(w.what))) continue;
      for (const a of compose(asked, AROUND).answers) {
        some++;
        const { pattern } = build(a.recipe);
        expect(isSame(pattern, a.pattern)).toBe(true);
        expect([pattern.start, pattern.grid]).toEqual([asked.start, grid]);
        // Stroke by stroke what the search found, by plain words: limbs and heights of each slot.
        const found = Array.from({ length: slots }, (_, n) =>
          pattern.strokes.filter((s) => s.at === n * grid).map((s): TypedStroke => ({ ...s })),
        );
        for (const w of asked.wishes) expect(meets(found[w.slot]!, w.what)).toBe(w.must);
        if (asked.landing) {
          const last = pattern.strokes.filter((s) => s.at >= slots * grid);
          expect(last.map((s) => s.limb).sort()).toEqual(
            [...(asked.landing.kick ? ['K'] : []), asked.landing.hand].sort(),
          );
        } else expect(pattern.length).toBe(slots * grid);
      }
    }
    expect(some).toBeGreaterThan(BUILDS / 3);
  });
});

describe('three askings in odd meters, worked out by hand', () => {
  const seven = parseMeter('7/8') as Meter;
  it('a bar of 7/8 in 16ths of threes and fives: 14 is 5 + 3 + 3 + 3 in four orders, and no two fives', () => {
    // 14 = 3a + 5b: b = 1 leaves 9 = three threes; b = 2 leaves 4, b = 0 leaves 14: neither is threes.
    const asked = asking({
      meter: seven,
      grid: GRID.sixteenths,
      slots: 14,
      cells: [cell('R L R L K'), cell('R L K')],
      many: 20,
    });
    const { answers, more } = compose(asked, AROUND);
    expect(more).toBe(false);
    expect(answers.map((a) => a.sum).sort()).toEqual([
      '3 + 3 + 3 + 5',
      '3 + 3 + 5 + 3',
      '3 + 5 + 3 + 3',
      '5 + 3 + 3 + 3',
    ]);
    // One change at the ends, two inside.
    expect(answers.map((a) => a.cost)).toEqual([18, 18, 28, 28]);
    expect(answers.map((a) => a.recipe.source.kind === 'typed' && a.recipe.source.text)[0]).toBe('R L R L K (R L K)x3');
  });
  it('with a hit on the & of 3 only rows in which a hand falls on its fifth slot are left', () => {
    // In 7/8 the & of 3 is slot 5 (from 0). 5 + 3 …: slot 5 is the three's R: yes. 3 + 5 …: slot 5 is the five's third
    // stroke, R: yes. 3 + 3 + …: slot 5 is the K of the second three: no.
    const asked = asking({
      ...{ meter: seven, grid: GRID.sixteenths, slots: 14, cells: [cell('R L R L K'), cell('R L K')], many: 20 },
      wishes: [{ slot: 5, what: 'hit', must: true }],
    });
    const { answers } = compose(asked, AROUND);
    expect(answers.map((a) => a.sum)).toEqual(['5 + 3 + 3 + 3', '3 + 5 + 3 + 3']);
    for (const a of answers) {
      const hit = a.pattern.strokes.find((s) => s.at === 5 * asked.grid);
      expect([hit?.limb, hit?.level]).toEqual(['R', 'accent']);
    }
  });
  it('round a kick line in 5/8: the kicks stay, linear, and R L L goes on behind each', () => {
    // Ten slots, kicks on 0, 3 and 8: seven are free, which three fills but for one: cut, R L L R L L R.
    const kicks = new Set([0, 3, 8]);
    const asked = asking({
      ...{ meter: parseMeter('5/8') as Meter, grid: GRID.sixteenths, slots: 10, cells: [cell('R L L'), cell('R L K')] },
      line: {
        limbs: ['K'],
        slots: Array.from({ length: 10 }, (_, i): Slot => (kicks.has(i) ? [{ limb: 'K', level: 'tap' }] : [])),
      },
      linear: true,
      cut: true,
    });
    const { answers } = compose(asked, AROUND);
    expect(answers).toHaveLength(1);
    expect(answers[0]!.pattern.strokes.map((s) => s.limb).join(' ')).toBe('K R L K L R L L K R');
    expect(answers[0]!.sum).toBe('3 + 3 + 1 cut');
    expect(compose({ ...asked, cut: false }, AROUND).answers).toEqual([]);
  });
});

describe('what is asked beside the strokes', () => {
  const CELLS = [...rudimentCells(8), ...[3, 4, 5, 6].flatMap((n) => linearCells(n, 'kick-last'))];
  it('starts where it is asked to and lands, and is as fast as the Bench says', () => {
    const asked = asking({
      ...{ meter: FOUR, grid: GRID.sixteenths, slots: 8, start: ticks(barTicks(FOUR) / 2), cells: CELLS },
      landing: { hand: 'L', voice: 'crash-left', kick: true },
      tempo: 100,
    });
    const { answers } = compose(asked, AROUND);
    expect(answers.length).toBeGreaterThan(2);
    for (const a of answers) {
      const { pattern } = build(a.recipe);
      expect(isSame(pattern, a.pattern)).toBe(true);
      expect(pattern.start).toBe(barTicks(FOUR) / 2);
      const crash = pattern.strokes.find((s) => s.voice === 'crash-left');
      expect([crash?.at, crash?.limb]).toEqual([barTicks(FOUR) / 2, 'L']);
      expect(ceilingOn(pattern, KIT, USUAL_PROFILE).bpm).toBeGreaterThanOrEqual(100);
    }
  });
  it('stays as far from the shelf as asked, and names what is likest', () => {
    const asked = asking({ meter: FOUR, grid: GRID.sixteenths, slots: 16, cells: CELLS, many: 3 });
    const first = compose(asked, AROUND).answers[0]!;
    const shelf = [{ name: 'Cold rope', pattern: first.pattern }];
    const again = compose({ ...asked, unlike: 6 }, { ...AROUND, shelf }).answers;
    expect(again.length).toBe(3);
    for (const a of again) {
      const slots = (p: typeof a.pattern): string[] =>
        Array.from({ length: 16 }, (_, i) =>
          p.strokes
            .filter((s) => s.at === i * asked.grid)
            .map((s) => s.limb + s.level + (s.ornament ?? ''))
            .join(),
        );
      const [x, y] = [slots(a.pattern), slots(first.pattern)];
      const by = x.filter((s, i) => s !== y[i]).length;
      expect(a.kin).toEqual({ name: 'Cold rope', slots: by });
      expect(by).toBeGreaterThanOrEqual(6);
    }
  });
  it('nothing too fast is given, and what was found too slow is told', () => {
    const asked = asking({ meter: FOUR, grid: GRID.thirtySeconds, slots: 32, cells: [cell('R R L L')], tempo: 390 });
    const { answers, tooSlow } = compose(asked, AROUND);
    expect(answers).toEqual([]);
    expect(tooSlow).toBeGreaterThan(20);
    expect(tooSlow).toBeLessThan(390);
  });
  it('demands that contradict are said where they stand', () => {
    const asked = (more: Partial<Asked>): string[] =>
      contradictions(
        asking({ meter: FOUR, grid: GRID.sixteenths, slots: 4, cells: [cell('R L')], ...more }),
        (s) => `slot ${s}`,
      ).map((c) => c.words);
    expect(asked({})).toEqual([]);
    expect(asked({ cells: [] })).toEqual(['Choose what to build from.']);
    expect(asked({ slots: 0 })[0]).toContain('1 to 128 slots');
    expect(
      asked({
        wishes: [
          { slot: 2, what: 'hit', must: true },
          { slot: 2, what: 'rest', must: true },
        ],
      }),
    ).toEqual(['a hit and a rest both on slot 2.']);
    expect(
      asked({
        linear: true,
        wishes: [
          { slot: 1, what: 'R', must: true },
          { slot: 1, what: 'K', must: true },
        ],
      }),
    ).toEqual(['Two limbs on slot 1, and it is to be linear.']);
    // What contradicts has no answer.
    const roll = dice(17);
    for (let i = 0; i < 200; i++) {
      const one = random(roll, ['must', 'not', 'line', ...(roll() < 0.5 ? ['linear'] : [])], 7);
      if (contradictions(one, String).length > 0) expect(compose(one, AROUND).answers).toEqual([]);
    }
  });
  it('where nothing answers, each relaxation is tried and gives what it says', () => {
    // Threes and fives fill no 16ths of a bar of 4/4 with a hit on 2 …: what helps is told.
    const base = { meter: FOUR, grid: GRID.sixteenths, slots: 4, cells: [cell('R L R L K'), cell('R L K')] };
    const first = relaxations(asking(base), AROUND, USUAL_SCHOOLS);
    expect(first.map((r) => r.words)).toContain('the last cell cut off');
    expect(first.map((r) => r.words)).toContain('a cell of 4 too');
    const roll = dice(23);
    let some = 0;
    for (let i = 0; i < 60; i++) {
      const asked = { ...random(roll, ['must', 'linear', 'hand', 'lead'], 8), tempo: roll() < 0.3 ? 380 : null };
      if (compose(asked, AROUND).answers.length > 0) continue;
      for (const r of relaxations(asked, AROUND, USUAL_SCHOOLS)) {
        const { answers } = compose({ ...r.asked, many: 24 }, AROUND);
        expect(answers.length).toBeGreaterThanOrEqual(r.many);
        if (!r.more) expect(answers.length).toBe(r.many);
        some++;
      }
    }
    expect(some).toBeGreaterThan(20);
  });
  it('of one sum only as many as are wanted, and then the next that cost least', () => {
    const cells = [3, 4, 5].flatMap((n) => linearCells(n, 'kick-last'));
    const asked = asking({ meter: FOUR, grid: GRID.sixteenths, slots: 12, cells, many: 8 });
    const all = [...everything(asked)].sort((a, b) => a.cost - b.cost);
    const sums = compose({ ...asked, alike: 2 }, AROUND).answers.map((a) => a.sum);
    for (const sum of sums) expect(sums.filter((s) => s === sum).length).toBeLessThanOrEqual(2);
    // By plain words: walk through all by cost and take no third of a sum.
    const costs: number[] = [];
    const seen = new Map<string, number>();
    const strokes = new Set<string>();
    for (const t of all) {
      const sum = t.cells.map((c) => cells[c]!.slots.length).join(' + ');
      if (strokes.has(keyOf(t.slots)) || (sum.includes('+') && (seen.get(sum) ?? 0) >= 2)) continue;
      strokes.add(keyOf(t.slots));
      seen.set(sum, (seen.get(sum) ?? 0) + 1);
      if (costs.length < 8) costs.push(t.cost);
    }
    expect(compose({ ...asked, alike: 2 }, AROUND).answers.map((a) => a.cost)).toEqual(costs);
  });
  it('stops when it is told to', () => {
    const asked = asking({ meter: FOUR, grid: GRID.sixteenths, slots: 64, cells: freeCells(true, true) });
    expect(compose(asked, { ...AROUND, stopped: () => true })).toEqual({ answers: [], more: false, tooSlow: null });
  });
  it('a cell and its mirror', () => {
    expect(
      mirroredCell(cell('R! l K'))
        .slots.flat()
        .map((s) => s.limb + s.level.charAt(0)),
    ).toEqual(['La', 'Rg', 'Kt']);
  });
});
