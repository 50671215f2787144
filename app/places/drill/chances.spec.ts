import { chanceWords, learnt, unknownYet } from '@core/player';
import { chancesOf } from './chances';

const played = (many: number, bpm: number, clean: boolean) =>
  Array.from({ length: many }, () => ({ day: 20_000, bpm, clean, weight: 1 }));

describe('what is believed of a ladder, in words', () => {
  const known = learnt(unknownYet(120, 20_000), [...played(8, 84, true), ...played(4, 110, false)]);
  const at = { kind: 'ready', bpm: 86, low: 81, high: 92 } as const;
  const told = chancesOf({ known, belief: known.belief, ready: at }, [70, 84, 97, 110], 110);
  it('says what is ready, what the goal’s chance is, and what that rests on', () => {
    const { mean, variance } = known.belief;
    // By hand: the chance of the goal.
    const wide = Math.sqrt(0.052 ** 2 + (Math.PI * variance) / 8);
    const goal = Math.round(100 / (1 + Math.exp((Math.log(110) - mean) / wide)));
    const worth = [70, 84, 97, 110].find((b) => {
      const p = 1 / (1 + Math.exp((Math.log(b) - mean) / wide));
      return p >= 0.6 && p <= 0.8;
    });
    expect(told.words).toBe(
      `${worth === undefined ? '' : `Try ${worth} today. `}Ready at 86; ${goal}% chance of a clean try at 110.`,
    );
    expect(told.rests).toMatch(/^Ready: .* Range 81–92, from 12 tries on 1 day$/);
    expect(told.rungs).toEqual(
      [70, 84, 97, 110].map((b) => chanceWords(1 / (1 + Math.exp((Math.log(b) - mean) / wide)))),
    );
  });
  it('is careful with few tries, and nothing is sure', () => {
    const few = learnt(unknownYet(120, 20_000), played(1, 84, true));
    const early = { kind: 'early', tries: 5, days: 2 } as const;
    const said = chancesOf({ known: few, belief: few.belief, ready: early }, [84], 100);
    expect(said.words).toMatch(
      /^(Try 84 today\. )?Too early to say what is ready \(5 more tries of the whole phrase and 2 more days\); /,
    );
    expect(said.rests).toMatch(/^Too early to say what is ready/);
    expect([0, 0.004, 0.5, 0.986, 1].map(chanceWords)).toEqual(['under 2%', 'under 2%', '50%', 'over 98%', 'over 98%']);
  });
});
