import type { Block, Today, TodayPlan } from '@core/plan';
import { weekOf } from './week';

const WISHES = {
  day: 20_000,
  minutes: 30,
  place: 'kit',
  order: 'in-turn',
  held: [],
  dropped: ['not-today'],
  arranged: ['rise:a'],
  done: [{ id: 'keep:x', kind: 'keep', phrase: 'x', minutes: 5 }],
  running: null,
  before: [],
} as unknown as Today;

function block(kind: Block['kind'], phrase: string | null, minutes: number): Block {
  return {
    id: `${kind}:${phrase ?? ''}`,
    kind,
    phrase,
    name: phrase ?? kind,
    bring: [],
    minutes,
    at: 0,
    from: null,
    to: null,
    stage: null,
    words: '',
    held: false,
    round: null,
  };
}

describe('the week on paper', () => {
  it('asks for each day; what is kept on one is not asked for again, what rises is; breaks are left out', async () => {
    const asked: { day: number; dropped: readonly string[]; done: number }[] = [];
    const plan = (wishes: Omit<Today, 'running' | 'before'>): Promise<TodayPlan> => {
      asked.push({ day: wishes.day, dropped: wishes.dropped, done: wishes.done.length });
      const i = wishes.day - 20_000;
      const blocks = [
        block('rise', 'a', 10),
        block('break', null, 5),
        block('keep', `k${i}`, 4),
        block('new', `n${i}`, 6),
      ];
      return Promise.resolve({ blocks, left: [], free: 0 } as unknown as TodayPlan);
    };
    const days = await weekOf({ plan }, WISHES);
    expect(days.map((d) => [d.day, d.minutes, d.blocks.length])).toEqual(
      Array.from({ length: 7 }, (_, i) => [20_000 + i, 20, 3]),
    );
    // What is not wanted today may come tomorrow; what was done today is no longer done then.
    expect(asked[0]).toEqual({ day: 20_000, dropped: ['not-today'], done: 1 });
    expect(asked[1]).toEqual({ day: 20_001, dropped: ['k0', 'n0'], done: 0 });
    expect(asked[6]!.dropped).toHaveLength(12);
  });
});
