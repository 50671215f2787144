// Players with a shelf who practise by a plan for some weeks, for tests of plans: they learn by rules of their own,
// none of which is the plan's or the belief's formula.
import { bell, below } from './learners';

/** A phrase as a pupil has it. */
export interface Owned {
  readonly ceiling: number;
  readonly goal: number;
  readonly wide: number;
  readonly wall: number;
  readonly gain: number;
  readonly lost: number;
  readonly begins: number;
  practised: number;
  gone: number;
  lastDay: number | null;
}

export interface PupilTry {
  readonly bpm: number;
  readonly clean: boolean;
}

/** A phrase the pupil has not begun. Goals lie from near to out of reach. */
export function owned(roll: () => number): Owned {
  const ceiling = 80 + 100 * roll();
  const begins = Math.log(ceiling * 0.75) + 0.12 * bell(roll);
  return {
    ceiling,
    begins,
    wide: 0.06 + 0.05 * roll(),
    wall: begins + 0.12 + 0.16 * roll(),
    gain: 0.03 + 0.05 * roll(),
    lost: 0.002 + 0.004 * roll(),
    goal: Math.round(Math.exp(begins + 0.22 * roll() - 0.06)),
    practised: 0,
    gone: 0,
    lastDay: null,
  };
}

function skillOf(o: Owned, day: number): number {
  const off = o.lastDay === null ? 0 : Math.max(0, day - o.lastDay - 1);
  return Math.min(o.wall, o.begins + o.gain * Math.log(1 + o.practised / 6)) - Math.min(0.15, o.gone + o.lost * off);
}

/** Whether four tries of five at the goal would be clean on a day: what nobody but the test knows. */
export function isReady(o: Owned, day: number): boolean {
  return below((skillOf(o, day) - Math.log(o.goal)) / Math.hypot(o.wide, 0.03)) >= 0.8;
}

/** Some minutes on one phrase, climbing from a tempo to the goal at most: a try takes three quarters of a minute. */
export function practise(roll: () => number, o: Owned, day: number, minutes: number, from: number): PupilTry[] {
  o.gone = o.lastDay === null ? 0 : Math.min(0.15, o.gone + o.lost * Math.max(0, day - o.lastDay - 1));
  o.lastDay = day;
  const mood = 0.025 * bell(roll) - (roll() < 0.08 ? 0.05 : 0);
  const out: PupilTry[] = [];
  let next = from;
  for (let i = 0; i < Math.floor(minutes / 0.75); i++) {
    const bpm = Math.round(Math.min(next, o.goal * 1.02));
    const clean = roll() < below((skillOf(o, day) + mood - Math.log(bpm)) / o.wide);
    out.push({ bpm, clean });
    o.practised++;
    o.gone *= 0.8;
    next *= clean ? 1.04 : 0.96;
  }
  return out;
}
