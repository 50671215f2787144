import { chanceWords, learnt, unknownYet } from '@core/player';
import { chancesOf } from './chances';

const played = (many: number, bpm: number, clean: boolean) =>
  Array.from({ length: many }, () => ({ day: 20_000, bpm, clean, weight: 1 }));

describe('what is believed of a ladder, in words', () => {
  const known = learnt(unknownYet(120, 20_000), [...played(8, 84, true), ...played(4, 110, false)]);
  const told = chancesOf({ known, belief: known.belief }, [70, 84, 97, 110], 110);
  it('says what is ready, what the goal’s chance is, and what that rests on', () => {
    const { mean, variance } = known.belief;
    // By hand: the place where four of five are clean, and the chance of the goal.
    const wide = Math.sqrt(0.052 ** 2 + (Math.PI * variance) / 8);
    const ready = Math.round(Math.exp(mean - Math.log(4) * wide));
    const goal = Math.round(100 / (1 + Math.exp((Math.log(110) - mean) / wide)));
    const worth = [70, 84, 97, 110].find((b) => {
      const p = 1 / (1 + Math.exp((Math.log(b) - mean) / wide));
      return p >= 0.6 && p <= 0.8;
    });
    expect(told.words).toBe(
      `${worth === undefined ? '' : `Try ${worth} today. `}Ready at ${ready}; ${goal}% chance of a clean try at 110.`,
    );
    expect(told.rests).toMatch(/^Ready: .* Range \d+–\d+, from 12 tries on 1 day$/);
    expect(told.rungs).toEqual(
      [70, 84, 97, 110].map((b) => chanceWords(1 / (1 + Math.exp((Math.log(b) - mean) / wide)))),
    );
  });
  it('is careful with few tries, and nothing is sure', () => {
    const few = learnt(unknownYet(120, 20_000), played(1, 84, true));
    expect(chancesOf({ known: few, belief: few.belief }, [84], 100).words).toMatch(/^Ready at about /);
    expect([0, 0.004, 0.5, 0.986, 1].map(chanceWords)).toEqual(['under 2%', 'under 2%', '50%', 'over 98%', 'over 98%']);
  });
});
