import { writeShelf } from '@core/formats/shelf-file';
import { quarterTempo, secondsOf } from '@core/time';
import { loopTicks } from '@core/pattern';
import { USUAL_KIT } from '@core/kit';
import { ceilingOn, USUAL_PROFILE } from '@core/reach';
import { build, type GoalDay, type Phrase } from '@core/recipe';
import { lanternLessons } from './lessons';
import { practise, type Learner } from './log';
import { DEMO_PHRASES } from './phrases';
import { seeded } from './random';
import { lanternShow } from './show';
import { lanternSittings } from './sittings';

/** The first day of the demo's log. The application moves all dates so that the log ends yesterday. */
const FIRST_DAY = Date.UTC(2026, 0, 5);
const SEED = 20260105;

const DAY = 24 * 60 * 60 * 1000;
/** Seven weeks after the first day is the first night, and two days before it a lesson. */
const NIGHT: GoalDay = { day: FIRST_DAY / DAY + 49, what: 'night' };
const LESSON: GoalDay = { day: FIRST_DAY / DAY + 46, what: 'lesson' };
/** The cues of the show and their grooves: what is for one of them is wanted on the night. */
const CUES =
  /Fog Horn Waltz|Net Menders|Harbour Master|Eel Market|Lamp Room|Storm Glass|the (waltz|march|singer|bridge|first act)/i;
const GROOVES = /^(Fog horn|Net menders|Harbour master|Eel market|Lamp room|Storm glass)$/;
/** What the next lesson is about. */
const FOR_THE_LESSON = 'Lamp trimmer';

function wantedBy({ name, note }: { readonly name: string; readonly note: string }): GoalDay | null {
  if (name === FOR_THE_LESSON) return LESSON;
  return CUES.test(note) || GROOVES.test(name) ? NIGHT : null;
}

/** The demo shelf as the text of a shelf file: the same every time. */
export function saltLantern(): string {
  const random = seeded(SEED);
  const phrases = DEMO_PHRASES.map(({ source, moves, ...rest }, i): Phrase => {
    const by = wantedBy(rest);
    return {
      id: `salt-${i + 1}`,
      ...rest,
      ...(by ? { by } : {}),
      recipe: { source, moves: [...moves] },
      created: FIRST_DAY + i * 60_000,
      changed: FIRST_DAY + i * 60_000,
    };
  });
  const learners = phrases.map((p): Learner => {
    const { pattern } = build(p.recipe);
    const loopSeconds = secondsOf(loopTicks(pattern), quarterTempo(1, pattern.meter));
    const top = ceilingOn(pattern, USUAL_KIT, USUAL_PROFILE).bpm ?? Infinity;
    const able = Math.min(p.goal, top) * (0.58 + 0.2 * random());
    return { phrase: p.id, goal: p.goal, loopSeconds, top, able, lastClean: null };
  });
  const { attempts, drills } = practise(learners, FIRST_DAY, random);
  const shows = [lanternShow(phrases, NIGHT.day, FIRST_DAY)];
  const freeSittings = lanternSittings(phrases, FIRST_DAY, random);
  const lessons = lanternLessons(phrases, FIRST_DAY, random);
  return writeShelf({ phrases, attempts, drills, shows, freeSittings, lessons });
}
