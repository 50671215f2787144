import { writeShelf } from '@core/formats';
import { quarterTempo, secondsOf } from '@core/time';
import { loopTicks } from '@core/pattern';
import { USUAL_KIT } from '@core/kit';
import { ceilingOn, USUAL_PROFILE } from '@core/reach';
import { build, type Phrase } from '@core/recipe';
import { practise, type Learner } from './log';
import { DEMO_PHRASES } from './phrases';
import { seeded } from './random';

/** The first day of the demo's log. The application moves all dates so that the log ends yesterday. */
const FIRST_DAY = Date.UTC(2026, 0, 5);
const SEED = 20260105;

/** The demo shelf as the text of a shelf file: the same every time. */
export function saltLantern(): string {
  const random = seeded(SEED);
  const phrases = DEMO_PHRASES.map(({ source, moves, ...rest }, i): Phrase => ({
    id: `salt-${i + 1}`,
    ...rest,
    recipe: { source, moves: [...moves] },
    created: FIRST_DAY + i * 60_000,
    changed: FIRST_DAY + i * 60_000,
  }));
  const learners = phrases.map((p): Learner => {
    const { pattern } = build(p.recipe);
    const loopSeconds = secondsOf(loopTicks(pattern), quarterTempo(1, pattern.meter));
    const top = ceilingOn(pattern, USUAL_KIT, USUAL_PROFILE).bpm ?? Infinity;
    const able = Math.min(p.goal, top) * (0.58 + 0.2 * random());
    return { phrase: p.id, goal: p.goal, loopSeconds, top, able, lastClean: null };
  });
  const { attempts, drills } = practise(learners, FIRST_DAY, random);
  return writeShelf({ phrases, attempts, drills });
}
