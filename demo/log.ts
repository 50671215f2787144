import { drillStep, drillTempo, newDrill, suggestLadder, type Attempt, type DrillState } from '@core/drill';

const DAY = 24 * 60 * 60 * 1000;
const LOOPS = 4;

/** Someone practising one phrase: the tempo at which half of their tries are clean, and how it changes. */
export interface Learner {
  readonly phrase: string;
  readonly goal: number;
  /** Seconds of one loop at one beat a minute; divided by the tempo it is the loop's length. */
  readonly loopSeconds: number;
  /** The ceiling of the phrase for this player: nothing above it is ever clean. */
  readonly top: number;
  able: number;
  lastClean: number | null;
}

/**
 * Chance that a try at a tempo is clean: even at what the learner is able to, falling off over about a twentieth of the
 * goal.
 */
function chance(learner: Learner, bpm: number): number {
  if (bpm > learner.top) return 0;
  return 1 / (1 + Math.exp((bpm - learner.able) / (0.03 * learner.goal)));
}

/**
 * What a session leaves behind: most of the way is gained early, a plateau waits at nine tenths of the goal, and some
 * days go backwards.
 */
function learn(learner: Learner, random: () => number): void {
  const share = learner.able / learner.goal;
  const gain = share < 0.9 ? 0.085 : 0.03;
  const setback = random() < 0.16 ? 0.035 + 0.04 * random() : 0;
  learner.able = Math.min(learner.top, learner.able * (1 + gain * (0.4 + random()) - setback));
}

/** The id of the next try of a sitting: each sitting of the demo has an id of its own. */
function nextId(drill: DrillState): string {
  return `${drill.id}-${drill.attempts.length + 1}`;
}

/**
 * One sitting with one phrase, played through the real drill: tries until the goal, the same rung failed too often, or
 * enough.
 */
function session(
  learner: Learner,
  id: string,
  start: number,
  random: () => number,
): { drill: DrillState; end: number } {
  const plan = suggestLadder(learner.goal, learner.lastClean);
  let at = start;
  let drill = drillStep(
    newDrill(id, learner.phrase, { start: plan.start, step: plan.step, goal: learner.goal, loops: LOOPS }),
    {
      kind: 'start',
      at,
    },
  );
  const most = 9 + Math.floor(random() * 8);
  while (drill.phase !== 'done' && drill.attempts.length < most) {
    const loop = Math.round((1000 * learner.loopSeconds) / drillTempo(drill));
    drill = drillStep(drill, { kind: 'counted-in', at: (at += 3000) });
    const clean = random() < chance(learner, drillTempo(drill));
    const played = clean ? LOOPS : 1 + Math.floor(random() * LOOPS);
    for (let i = 0; i < played; i++) drill = drillStep(drill, { kind: 'loop', id: nextId(drill), at: (at += loop) });
    drill = drillStep(drill, { kind: clean ? 'clean' : 'messy', id: nextId(drill), at: (at += 1200) });
  }
  const clean = drill.attempts.filter((a) => a.verdict === 'clean');
  learner.lastClean = clean.at(-1)?.bpm ?? learner.lastClean;
  learn(learner, random);
  return { drill: drillStep(drill, { kind: 'stop' }), end: at };
}

/**
 * Six weeks of practice: about five evenings a week, five to seven phrases an evening. Also what was left under way on
 * the last evening.
 */
export function practise(
  learners: readonly Learner[],
  first: number,
  random: () => number,
): { attempts: Attempt[]; drills: DrillState[] } {
  const attempts: Attempt[] = [];
  let left: DrillState[] = [];
  for (let day = 0; day < 42; day++) {
    if (random() < 0.26) continue;
    let at = first + day * DAY + Math.floor((17 + 3 * random()) * 60 * 60 * 1000);
    const tonight = [...learners]
      .map((l) => ({ l, key: random() }))
      .sort((a, b) => a.key - b.key)
      .slice(0, 5 + Math.floor(random() * 3));
    left = [];
    for (const [i, { l }] of tonight.entries()) {
      const { drill, end } = session(l, `demo-${day}-${i}`, at, random);
      attempts.push(...drill.attempts);
      if (drill.phase !== 'done') left.push(drill);
      at = end + 90_000;
    }
  }
  return { attempts, drills: left.slice(-2) };
}
