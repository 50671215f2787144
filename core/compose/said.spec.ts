import { countAt, GRID, parseMeter, ticks, USUAL_SCHOOLS, type Meter } from '../time';
import { dice } from '../testing/learners';
import { ASKED_LINES, type AskedLine } from '../testing/asked-words';
import { readAsking, USUAL_DEMANDS, type Demands } from '.';

const read = (line: string, before = USUAL_DEMANDS): Demands | null => {
  const r = readAsking(line, before, USUAL_SCHOOLS);
  return r.ok ? r.demands : null;
};
const wishes = (d: Demands): readonly string[] =>
  d.wishes.map((w) => `${w.must ? '' : 'no '}${w.what} ${w.slot}`).sort();
const wanted = ({ wishes: all = [] }: AskedLine): readonly string[] =>
  all
    .flatMap((t) => {
      const [, what = '', slots = ''] = /^(.*?) ([\d ]+)$/.exec(t) ?? [];
      return slots.split(' ').map((s) => `${what} ${s}`);
    })
    .sort();

describe('asking in words', () => {
  it.each(ASKED_LINES.map((l) => [l.say, l] as const))('%s', (say, line) => {
    const told = read(say);
    if (line.unread) return expect(told).toBeNull();
    expect({ ...told, wishes: null }).toEqual({ ...USUAL_DEMANDS, ...line.sets, wishes: null });
    expect(wishes(told!)).toEqual(wanted(line));
  });

  // A second way: counts are named by counting slots, and the line is put together from parts that are known.
  it('lines put together of parts set what each part sets, whatever their order, in any meter', () => {
    const roll = dice(5);
    const pick = <T>(all: readonly T[]): T => all[Math.floor(roll() * all.length)]!;
    const meters = ['4/4', '3/4', '7/8', '5/8', '5/4', '11/16'];
    const parts: readonly (readonly [string, Partial<Demands>])[] = [
      ['linear', { linear: true }],
      ['not linear', { linear: false }],
      ['never two kicks', { foot: 1 }],
      ['no more than three in a row', { hand: 3 }],
      ['holds at 95', { holds: 95 }],
      ['start with the left', { lead: 'L' }],
      ['ends with the right', { end: 'R' }],
      ['lands on the kick', { lands: 'kick' }],
      ['down the toms', { way: 'down' }],
      ['last one cut', { cut: true }],
      ['keep the kick', { keeps: ['kick'] }],
    ];
    for (let i = 0; i < 400; i++) {
      const text = pick(meters);
      const own = parseMeter(text) as Meter;
      const bars = 1 + Math.floor(roll() * 2);
      const perBar = Math.floor((own.beats * (5040 * 4)) / own.unit / GRID.sixteenths);
      const places = [
        ...new Set(Array.from({ length: 1 + Math.floor(roll() * 3) }, () => Math.floor(roll() * perBar))),
      ].sort((a, b) => a - b);
      const named = places.map((p) => {
        const { text: count } = countAt(ticks(p * GRID.sixteenths), {
          meter: own,
          grid: GRID.sixteenths,
          schools: USUAL_SCHOOLS,
        });
        return count;
      });
      const [what, wish] = pick([
        ['hits on', 'hit'],
        ['kicks on', 'K'],
        ['rests on', 'rest'],
        ['right on', 'R'],
      ] as const);
      const others = parts
        .filter(() => roll() < 0.25)
        .filter(([w], _, all) => !(w === 'not linear' && all.some(([o]) => o === 'linear')));
      const clauses = [`${what} ${named.join(', ')}`, ...others.map(([w]) => w)];
      for (let n = clauses.length - 1; n > 0; n--) {
        const k = Math.floor(roll() * (n + 1));
        [clauses[n], clauses[k]] = [clauses[k]!, clauses[n]!];
      }
      const line = `${bars === 1 ? 'a bar' : 'two bars'} of ${text} in 16ths; ${clauses.join('; ')}`;
      const told = read(line);
      const sets = Object.assign({}, ...others.map(([, s]) => s)) as Partial<Demands>;
      const every = Array.from({ length: bars }, (_, b) => places.map((p) => `${wish} ${b * perBar + p}`)).flat();
      expect([line, told && { ...told, wishes: [...wishes(told)] }]).toEqual([
        line,
        { ...USUAL_DEMANDS, meter: text, bars, ...sets, wishes: every.sort() },
      ]);
    }
  });

  it('nothing is taken of a line with a word that is foreign, and the word is named', () => {
    for (const line of ['linear and purple', 'hits on 1, flibber, linear', 'two bars of wobble', 'accents on 9']) {
      const r = readAsking(line, USUAL_DEMANDS, USUAL_SCHOOLS);
      expect(r.ok).toBe(false);
    }
    expect(readAsking('hits on 1, flibber, linear', USUAL_DEMANDS, USUAL_SCHOOLS)).toMatchObject({
      unread: ['flibber'],
    });
    expect(readAsking('', USUAL_DEMANDS, USUAL_SCHOOLS)).toMatchObject({ ok: false, unread: [] });
    expect(readAsking('accents on 9', USUAL_DEMANDS, USUAL_SCHOOLS)).toMatchObject({
      words: '9 is not a slot of what is asked for: 4/4 in 16ths.',
    });
  });

  it('adds to what is asked; in another space what stood on its slots goes', () => {
    const first = read('hits on 1 and 3')!;
    expect(wishes(read('no kick on 1', first)!)).toEqual(['hit 0', 'hit 8', 'no K 0']);
    expect(wishes(read('linear', first)!)).toEqual(['hit 0', 'hit 8']);
    expect(wishes(read('two bars', first)!)).toEqual([]);
    // Said again the other way, the later word holds.
    expect(wishes(read('no hits on 1', first)!)).toEqual(['hit 8', 'no hit 0']);
  });
});
