import fc from 'fast-check';
import { anyRecipe } from '../testing/arbitraries';
import { barTicks, beatTicks, quarterTempo, USUAL_SCHOOLS } from '../time';
import { graceCount, SAME_HAND, VOICE, VOICES, type Limb, type Voice } from '../stroke';
import {
  differenceWords,
  lengthWords,
  placesWords,
  placeWords,
  report,
  withGraces,
  type Finding,
  type Pattern,
} from '../pattern';
import { build } from '.';
import { casesTried } from '../testing/cases';

// Every sentence of the sums and checks, worked out a second time: by plain loops over the bars as they sound.

interface Sound {
  readonly tick: number;
  readonly limb: Limb;
  readonly voice: Voice;
  readonly accent: boolean;
}

/** After how many ticks it comes round: its own length, or whole bars where it does not begin on the 1. */
function loopOf(p: Pattern): number {
  if (p.start === 0) return p.length;
  let end: number = barTicks(p.meter);
  while (end < p.start + p.length) end += barTicks(p.meter);
  return end;
}

/** So many turns as they sound, in ticks from the first bar line. */
function sounding(p: Pattern, turns: number): Sound[] {
  const all: Sound[] = [];
  for (let turn = 0; turn < turns; turn++)
    for (const s of p.strokes)
      all.push({
        tick: p.start + turn * loopOf(p) + s.at,
        limb: s.limb,
        voice: s.voice,
        accent: s.level === 'accent' && (s.limb === 'R' || s.limb === 'L'),
      });
  return all;
}

function moments(sounds: readonly Sound[]): { tick: number; limbs: Set<Limb> }[] {
  const all: { tick: number; limbs: Set<Limb> }[] = [];
  for (const s of [...sounds].sort((a, b) => a.tick - b.tick)) {
    if (all.at(-1)?.tick !== s.tick) all.push({ tick: s.tick, limbs: new Set() });
    all.at(-1)!.limbs.add(s.limb);
  }
  return all;
}

const NAMES: Record<string, Limb> = {
  'the right hand': 'R',
  'the left hand': 'L',
  'the kick': 'K',
  'the second kick': 'J',
  'the hi-hat foot': 'H',
};
const list = (words: string): string[] => words.split(/, | and /).filter((w) => w !== '');

const anyPattern = anyRecipe
  .map((r) => build({ ...r, moves: r.moves.slice(0, 4) }).pattern)
  .filter((p) => p.strokes.length > 0 && p.strokes.length < 300 && p.length > 0);
/** Rhythms in which steps against the beat are likely: accents or kicks every few slots, closed or not. */
const anySteps = fc
  .record({
    step: fc.integer({ min: 1, max: 7 }),
    many: fc.integer({ min: 1, max: 14 }),
    rest: fc.integer({ min: 0, max: 6 }),
    sign: fc.constantFrom('R!', 'K', 'R', 'L!'),
    meter: fc.constantFrom('4/4', '3/4', '6/8', '7/8', '5/4'),
  })
  .map(({ step, many, rest, sign, meter }) => {
    const cell = [sign, ...Array.from({ length: step - 1 }, (_, i) => (i % 2 ? 'l' : '-'))].join(' ');
    const text = `${`${cell} `.repeat(many)}${'- '.repeat(rest)}`.trim();
    return build({ source: { kind: 'typed', text, meter, grid: 1260 }, moves: [] }).pattern;
  })
  .filter((p) => p.strokes.length > 0);
const both = fc.oneof({ weight: 2, arbitrary: anyPattern }, { weight: 1, arbitrary: anySteps });
const said = (p: Pattern, code: Finding['code'], bpm = 100): Finding[] =>
  report(p, bpm, USUAL_SCHOOLS).filter((f) => f.code === code);
const RUNS = { numRuns: 2000 };

/** How long a note of a name is, in ticks, as a person knows it: parts of a quarter of 5040. */
function slotOf(noun: string, p: Pattern): number {
  const parts: Readonly<Record<string, number>> = {
    ...{ whole: 1 / 4, half: 1 / 2, dotted: 2 / 3, quarter: 1, eighth: 2, triplet: 3, sixteenth: 4, quintuplet: 5 },
    ...{ sextuplet: 6, septuplet: 7, 'thirty-second': 8, 'sixty-fourth': 16 },
  };
  const first = noun.split(' ')[0]!.replace(/s$/, '');
  return first === 'slot' ? p.grid : 5040 / (parts[first] ?? NaN);
}

/** A number as it is written: "5", "2⅔", "7 1/48". */
function numberIn(text: string): number {
  const plain = text.replace(
    /[¼½¾⅓⅔]/,
    (s) => ` ${{ '¼': '1/4', '½': '1/2', '¾': '3/4', '⅓': '1/3', '⅔': '2/3' }[s]!}`,
  );
  return plain
    .trim()
    .split(' ')
    .reduce((sum, part) => sum + Number(part.split('/')[0]) / Number(part.split('/')[1] ?? 1), 0);
}
const NUMBER = String.raw`\d+\.\d+|\d+ \d+/\d+|\d+/\d+|\d*[¼½¾⅓⅔]|\d+`;

describe('every sentence is true of the bars as they sound', () => {
  it('how groups fill the space adds up', () => {
    fc.assert(
      fc.property(both, (p) => {
        for (const { words } of said(p, 'fit')) {
          const [whole, sum] = words.split(' = ') as [string, string];
          const value = (term: string): number =>
            term
              .split(' × ')
              .map(numberIn)
              .reduce((a, b) => a * b, 1);
          // On a grid of no fraction a person would write, two digits: each term is off by as many halves of one.
          const times = sum
            .split(' + ')
            .reduce((n, t) => n + (t.includes(' × ') ? numberIn(t.split(' × ')[0]!) : 1), 1);
          const rough = words.includes('.') ? 0.006 * times : 1e-6;
          const added = sum.split(' + ').reduce((n, term) => n + value(term), 0);
          const [, number = '', beats] = /^(.+?)( beats?)?$/.exec(whole)!;
          expect(Math.abs(added - numberIn(number))).toBeLessThanOrEqual(rough);
          // Beats only where the grid does not hold what is played, and then as many as there are.
          if (beats === undefined) continue;
          expect(p.strokes.some((s) => !Number.isInteger((2 * s.at) / p.grid))).toBe(true);
          const filled = p.length - p.groups.filter((g) => g.kind === 'land').reduce((n, g) => n + g.length, 0);
          if (p.groups.length > 1) expect(numberIn(number) * beatTicks(p.meter)).toBe(filled);
        }
      }),
      RUNS,
    );
  });

  it('where it ends is where the last stroke is', () => {
    fc.assert(
      fc.property(both, (p) => {
        let last = 0;
        for (const s of p.strokes) last = Math.max(last, s.at);
        const [ends] = said(p, 'ends');
        const [, verb, where] = /^(ends|lands) on (.+)$/.exec(ends!.words)!;
        // A landing on a bar line is on the 1, whatever bar it is of.
        const onTheOne = verb === 'lands' && (p.start + last) % barTicks(p.meter) === 0;
        expect(where).toBe(onTheOne ? 'the 1' : placeWords(p, last, USUAL_SCHOOLS));
      }),
      RUNS,
    );
  });

  it('what is back on the 1, and after how many bars', () => {
    let limbs = 0;
    fc.assert(
      fc.property(both, (p) => {
        const [found] = said(p, 'round');
        const bar = barTicks(p.meter);
        // Turn after turn, until one begins where the first began in its bar.
        let turn = 1;
        while ((turn * loopOf(p)) % bar !== 0) turn++;
        const left = new RegExp(`^(once|(\\d+) times) in (\\d+) bars?, (${NUMBER}) (.+) left over$`).exec(found!.words);
        expect(left !== null).toBe((turn * loopOf(p)) / bar > 8);
        if (left) {
          let room = 0;
          while (room < loopOf(p)) room += bar;
          let [times, over] = [0, room];
          while (over >= loopOf(p)) [times, over] = [times + 1, over - loopOf(p)];
          expect([left[1] === 'once' ? 1 : Number(left[2]), Number(left[3]) * bar]).toEqual([times, room]);
          // On a grid of no fraction a person would write, two digits.
          const off = Math.abs(numberIn(left[4]!) * slotOf(left[5]!, p) - over);
          expect(off).toBeLessThanOrEqual(left[4]!.includes('.') ? slotOf(left[5]!, p) * 0.0051 : 1e-6);
          return;
        }
        const m = /^back on (.+?)(?:, with a rest there,| with (.+?)) after (\d+) bars?$/.exec(found!.words)!;
        expect(m).not.toBeNull();
        const at = p.start + turn * loopOf(p);
        expect(Number(m[3])).toBe((at - p.start) / bar);
        const there = sounding(p, turn + 1).filter((s) => s.tick === at);
        expect(new Set(list(m[2] ?? '').map((w) => NAMES[w]))).toEqual(new Set(there.map((s) => s.limb)));
        limbs += there.length;
        expect(m[1] === 'the 1').toBe(p.start % bar === 0);
      }),
      RUNS,
    );
    expect(limbs).toBeGreaterThan(500);
  });

  it('what comes every so many slots does, round the loop or until it is cut; and accents and kicks that do are named', () => {
    let named = 0;
    fc.assert(
      fc.property(both, (p) => {
        const beat = beatTicks(p.meter);
        const bar = barTicks(p.meter);
        const of = (what: string, turns: number): number[] => {
          const voice = VOICES.find((v) => VOICE[v].name === what);
          const own = sounding(p, turns).filter((s) =>
            what === 'accents' ? s.accent : what === 'kicks' ? VOICE[s.voice].piece === 'kick' : s.voice === voice,
          );
          return [...new Set(own.map((s) => s.tick))].sort((a, b) => a - b);
        };
        const all = said(p, 'cross');
        for (const { words } of all) {
          named++;
          const m =
            /^(.+) every (\d+) (.+?): (\d+) in (\d+) beats?(?:, (back on the 1|the same again) after (\d+) bars?|, for (\d+) (.+?); the last is cut to (\d+))$/.exec(
              words,
            )!;
          expect(m).not.toBeNull();
          const step = Number(m[2]) * slotOf(m[3]!, p);
          expect(slotOf(m[3]!, p)).toBe(p.grid);
          let k = 1;
          while ((k * step) % beat !== 0) k++;
          expect([Number(m[4]), Number(m[5])]).toEqual([k, (k * step) / beat]);
          const round = m[7] !== undefined;
          const ticks = of(m[1]!, round ? 12 : 1);
          if (!round) expect(ticks.length).toBeGreaterThanOrEqual(3);
          for (let i = 1; i < ticks.length; i++) expect(ticks[i]! - ticks[i - 1]!).toBe(step);
          if (round) {
            let n = 1;
            while ((n * step) % bar !== 0) n++;
            expect(Number(m[7])).toBe((n * step) / bar);
            expect(m[6] === 'back on the 1').toBe(ticks[0]! % bar === 0);
          } else {
            const long = Number(m[8]) * (/^bars?$/.test(m[9]!) ? bar : slotOf(m[9]!, p));
            expect(long).toBe(loopOf(p));
            const over = Number(m[10]) * p.grid;
            expect(ticks[0]! + loopOf(p) - ticks.at(-1)!).toBe(over);
            expect(over).toBeLessThan(step);
          }
        }
        for (const what of ['accents', 'kicks']) {
          const ticks = of(what, 12);
          const step = (ticks[1] ?? 0) - (ticks[0] ?? 0);
          const even = ticks.length >= 36 && ticks.every((t, i) => i === 0 || t - ticks[i - 1]! === step);
          if (!even || step % beat === 0 || beat % step === 0 || step % p.grid !== 0 || beat % p.grid !== 0) continue;
          expect(all.some((f) => f.words.startsWith(`${what} every`))).toBe(true);
        }
      }),
      RUNS,
    );
    expect(named).toBeGreaterThan(100);
  });

  it('how often a hand strikes in a row where the loop joins', () => {
    const NUMBER = ['two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten', 'eleven', 'twelve'];
    let joined = 0;
    fc.assert(
      fc.property(both, (p) => {
        const [lead] = said(p, 'lead');
        if (!lead) return;
        const m = /^When it loops, the (right|left) hand plays (\w+) in a row\.$/.exec(lead.words);
        if (!m) {
          expect(lead.words).toBe('The lead changes hands: the second half is the first with hands swapped.');
          const swap: Partial<Record<Limb, Limb>> = { R: 'L', L: 'R' };
          const key = (s: Sound, by: number): string => `${s.tick - p.start - by} ${s.voice} ${s.accent}`;
          const once = sounding(p, 1);
          const half = p.length / 2;
          const first = once
            .filter((s) => s.tick - p.start < half)
            .map((s) => `${key(s, 0)} ${swap[s.limb] ?? s.limb}`);
          const second = once.filter((s) => s.tick - p.start >= half).map((s) => `${key(s, half)} ${s.limb}`);
          expect(first.sort()).toEqual(second.sort());
          return;
        }
        joined++;
        const hand: Limb = m[1] === 'right' ? 'R' : 'L';
        const own = new Set(
          sounding(p, 3)
            .filter((s) => s.limb === hand)
            .map((s) => s.tick),
        );
        // What stands between the slots breaks a run, or is in it: slot by slot says neither.
        if ([...own].some((t) => (t - p.start) % p.grid !== 0)) return;
        // From the last stroke of the first turn, slot by slot, to both sides.
        const end = p.start + loopOf(p);
        let from = end - p.grid;
        while (!own.has(from)) from += 1;
        let run = 1;
        for (let t = from - p.grid; own.has(t); t -= p.grid) run++;
        for (let t = from + p.grid; own.has(t); t += p.grid) run++;
        expect(NUMBER.indexOf(m[2]!) >= 0 ? NUMBER.indexOf(m[2]!) + 2 : Number(m[2])).toBe(run);
      }),
      RUNS,
    );
    expect(joined).toBeGreaterThan(casesTried(20));
  });

  it('what one phrase has more or less than another, by limb and count', () => {
    const NOUN = { R: 'right stroke', L: 'left stroke', K: 'kick', J: 'second kick', H: 'hi-hat foot stroke' };
    fc.assert(
      fc.property(both, fc.nat(), (p, pick) => {
        const gone = p.strokes[pick % p.strokes.length]!;
        const less: Pattern = { ...p, strokes: p.strokes.filter((s) => s !== gone) };
        const where = placesWords(p, [gone.at], USUAL_SCHOOLS);
        expect(differenceWords(p, less, USUAL_SCHOOLS)).toBe(`1 ${NOUN[gone.limb]} less: ${where}.`);
        expect(differenceWords(less, p, USUAL_SCHOOLS)).toBe(`1 ${NOUN[gone.limb]} more: ${where}.`);
        expect(differenceWords(p, p, USUAL_SCHOOLS)).toBe('The same.');
      }),
      { numRuns: 500 },
    );
  });

  it('how long it is, and over how many bars it sounds', () => {
    fc.assert(
      fc.property(both, fc.nat(15), (p, slots) => {
        const start = (slots * p.grid) as Pattern['start'];
        if (start >= barTicks(p.meter)) return;
        const words = lengthWords({ ...p, start });
        const bar = barTicks(p.meter);
        const [own, over] = words.split(' over ');
        const m = new RegExp(`^(${NUMBER}) (.+)$`).exec(own!);
        const unit = m && (/^bars?$/.test(m[2]!) ? bar : slotOf(m[2]!, p));
        const rough = m?.[1]!.includes('.') ? 0.0051 * unit! : 1e-6;
        if (m) expect(Math.abs(numberIn(m[1]!) * unit! - p.length)).toBeLessThanOrEqual(rough);
        if (own === 'half a bar') expect(p.length * 2).toBe(bar);
        // Bar lines that lie inside of it or at its end, from the first one on.
        let bars = 0;
        while (bars * bar < start + p.length) bars++;
        let least = 0;
        while (least * bar < p.length) least++;
        expect(over).toBe(start === 0 || bars === least ? undefined : `${bars} bars`);
      }),
      { numRuns: 500 },
    );
  });

  it('what strikes together, how much each limb plays, how dense it is', () => {
    fc.assert(
      fc.property(both, fc.integer({ min: 30, max: 250 }), (p, bpm) => {
        const once = moments(sounding(p, 1));
        const together = once.filter((m) => m.limbs.size > 1);
        const linear = said(p, 'linear').length === 1;
        // A hand that puts grace strokes before the other's strikes with it, all but.
        const graced = withGraces(p).strokes.filter(
          (s) => graceCount(s.ornament ?? 'buzz') > 0 && s.grace !== SAME_HAND,
        );
        expect(linear).toBe(together.length === 0 && graced.length === 0);
        if (!linear && together.length === 0) {
          const [split] = said(p, 'unison');
          expect(split!.words).toMatch(/^One limb at a time but for the grace strokes: /);
          expect(split!.at).toEqual(graced.map((s) => s.at));
        } else if (!linear) {
          const [unison] = said(p, 'unison');
          expect(unison!.words).toMatch(new RegExp(`^${together.length} unisons?: `));
          expect(unison!.at!.map((t) => p.start + t)).toEqual(together.map((m) => m.tick));
        }
        const [balance] = said(p, 'balance');
        // Round the loop: what goes on at every moment goes on for ever, and is its strokes.
        const three = moments(sounding(p, 3));
        let longest = 0;
        for (const limb of ['R', 'L', 'K', 'J', 'H'] as const) {
          const strokes = once.filter((m) => m.limbs.has(limb)).length;
          let run = 0;
          let most = 0;
          for (const m of three) {
            run = m.limbs.has(limb) ? run + 1 : 0;
            most = Math.max(most, run);
          }
          longest = Math.max(longest, Math.min(most, strokes));
          const name = { R: 'right hand', L: 'left hand', K: 'kick foot', J: 'second kick foot', H: 'hi-hat foot' }[
            limb
          ];
          const said = new RegExp(`(?:^|, | and )${name} (\\d+)`).exec(balance!.words);
          expect(Number(said?.[1] ?? 0)).toBe(strokes);
        }
        expect(balance!.words).toContain(`Longest run on one limb: ${longest}.`);
        const [density] = said(p, 'density', bpm);
        // Where it lands it is over.
        const last = p.groups.at(-1);
        const end = last?.kind === 'land' && last.at + last.length === p.length ? last.at : p.length;
        const seconds = (end / 5040) * (60 / quarterTempo(bpm, p.meter));
        const told = Number(/^([\d.]+) notes per second/.exec(density!.words)?.[1]);
        const many = p.strokes.filter((s) => s.at < end).length;
        expect(Math.abs(told - (end === 0 ? 0 : many / seconds))).toBeLessThan(0.0501);
      }),
      RUNS,
    );
  });
});
