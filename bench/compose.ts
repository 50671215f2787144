import { compose, COSTS, demanded, USUAL_DEMANDS, type Asked, type Demands } from '@core/compose';
import { USUAL_KIT } from '@core/kit';
import { USUAL_PROFILE } from '@core/reach';
import { USUAL_SCHOOLS } from '@core/time';
import { line, median } from './measure';

const BESIDE = { phrase: null, cells: [], kit: USUAL_KIT, schools: USUAL_SCHOOLS };
const AROUND = { kit: USUAL_KIT, profile: USUAL_PROFILE, shelf: [] };
const all: Demands['blocks'] = [
  'singles',
  'kicks',
  'rests',
  'rudiments',
  '3',
  '4',
  '5',
  '6',
  '7',
  'kick-inside',
  'two-kicks',
];
const asked = (d: Partial<Demands>): Asked => demanded({ ...USUAL_DEMANDS, ...d }, BESIDE).asked;
const hits = (slots: readonly number[]): Demands['wishes'] => slots.map((slot) => ({ slot, what: 'hit', must: true }));

const ms = (us: number): string => `${(us / 1000).toFixed(0)} ms`;
const cold = performance.now();
const two = asked({ bars: 2, blocks: all, wishes: hits([0, 7, 16, 23]), holds: 90 });
compose(two, AROUND);
const first = performance.now() - cold;
console.log(`\ncompose: two bars of 16ths of ${two.cells.length} cells, the first of a process ${first.toFixed(0)} ms`);
const before = process.memoryUsage().heapUsed;
let peak = before;
const four = asked({ bars: 4, blocks: all, wishes: hits([0, 23, 40]) });
compose(four, { ...AROUND, found: () => (peak = Math.max(peak, process.memoryUsage().heapUsed)) });
console.log(
  `two bars ${ms(median(() => compose(two, AROUND)))}, its first answer ${ms(median(() => compose({ ...two, many: 1 }, AROUND)))}; four bars ${ms(median(() => compose(four, AROUND)))}, ${((peak - before) / 1e6).toFixed(0)} MB of heap`,
);

/** The plain way: every row of cells that fills the space is tried, the cheapest are taken. */
function plain(a: Asked, many: number): number {
  const rows: { readonly cost: number; readonly row: readonly number[] }[] = [];
  const isSingle = (c: number): boolean => a.cells[c]?.slots.length === 1;
  const go = (row: readonly number[], left: number, cost: number): void => {
    if (left === 0) {
      rows.push({ cost, row });
      return;
    }
    a.cells.forEach((c, i) => {
      if (c.slots.length === 0 || c.slots.length > left) return;
      const last = row.at(-1);
      const change = last === undefined || last === i || (isSingle(last) && isSingle(i)) ? 0 : COSTS.change;
      go([...row, i], left - c.slots.length, cost + COSTS.cell + change);
    });
  };
  go([], a.slots, 0);
  return rows.sort((x, y) => x.cost - y.cost).slice(0, many).length;
}
const small = asked({ meter: '5/8', blocks: ['singles', 'kicks', '3', '4', '5'], linear: true });
console.log(
  line(
    'compose: 10 slots, 9 cells, twelve best',
    () => compose(small, AROUND),
    'trying every row',
    () => plain(small, 12),
  ),
);
const longer = asked({ meter: '11/16', blocks: ['singles', 'kicks', '3', '4', '5'], linear: true });
console.log(
  line(
    'compose: 11 slots, 9 cells, twelve best',
    () => compose(longer, AROUND),
    'trying every row',
    () => plain(longer, 12),
  ),
);
