import { count, sentence } from '../base';
import { placeWords, type Pattern } from '../pattern';
import { dayName, dayWords, mostStrokes } from '../plan';
import type { GoalDay } from '../recipe';
import { earlyWords, type Projection, type ReadySaid } from '../player';
import { LIMB_WORDS, VOICE } from '../stroke';
import { FIX_NAMES, lateWords } from '../take';
import type { Schools } from '../time';
import { worstBreak, type Break } from './breaks';
import { failKinds, type Fails } from './fails';
import { limbsLately, type LimbDay } from './limbs';
import { busier, minutesOf, type Avoided, type PracticeDay } from './looking-back';

// The title of each chart is its answer, in a sentence.

/** What lies farther ahead, in days, is not in sight. */
export const IN_SIGHT = 365;

/** That a phrase has tries, and none that the player played on a drum. */
export function onlyApart(tries: number): string {
  return `Nothing of your own yet: ${tries === 1 ? 'the one try was' : `all ${tries} tries were`} simulated or on keys, and ${tries === 1 ? 'counts' : 'count'} for nothing.`;
}

/** Am I getting there? */
export function gettingThere(
  of: {
    readonly best: number | null;
    readonly ready: ReadySaid | null;
    readonly goal: number;
    readonly by: GoalDay | null;
    readonly projection: Projection | null;
  },
  today: number,
): string {
  const { best, ready, goal, by, projection } = of;
  if (best === null) return `No clean try yet on the way to ${goal}.`;
  const night = by && by.day >= today ? by : null;
  const wanted = night ? ` Needed by ${dayName(night.day, today)}.` : '';
  const where = `${ready?.kind === 'ready' ? `ready at ${ready.bpm}, best` : 'best'} clean try ${best}, goal ${goal}.`;
  const head = sentence(where);
  if (ready?.kind === 'early') return `Too early to say what is ready: it takes ${earlyWords(ready)}. ${head}${wanted}`;
  switch (projection?.kind) {
    case undefined:
      return head + wanted;
    case 'ready':
      // What was never played clean is believed, not known.
      return best >= goal
        ? `You are ready for ${goal}.${wanted}`
        : `You are near ${goal}. Your fastest clean try is ${best}: try it.${wanted}`;
    case 'unknown':
      return `Too early to say when: ${count(projection.days, 'day')} of tries so far, 4 are needed. ${head}${wanted}`;
    case 'resting':
      return `No pace to go by: last played ${dayWords(projection.since, today)}. ${head}${wanted}`;
    case 'on': {
      const late =
        night !== null && projection.from !== null && projection.from > night.day ? ' That is too late.' : '';
      return `${whenWords(projection, today)} ${head}${wanted}${late}`;
    }
  }
}

/** When a goal will be ready, as sure as it is. */
function whenWords({ day, from, until, chance, still }: Extract<Projection, { kind: 'on' }>, today: number): string {
  const pace = still === null ? ' at this pace' : '';
  const stands = still === null ? '' : `No gain in ${count(still, 'day')}. `;
  if (from === null || from >= today + IN_SIGHT) return `${stands}Not likely within a year at this pace.`;
  const first = dayName(from, today);
  if (day === null)
    return `${stands}${Math.max(1, Math.round(10 * chance))} chances in 10${pace}, not before ${first}.`;
  const about = `about ${dayName(day, today)}${pace}`;
  return until === null
    ? `${stands}Perhaps ${about}, not before ${first}.`
    : `Ready ${about}${until > from ? `, between ${first} and ${dayName(until, today)}` : ''}.`;
}

/** Where does it break? */
export function whereItBreaks(breaks: readonly Break[], pattern: Pattern, schools: Schools, takes: number): string {
  const worst = worstBreak(breaks);
  const stroke = worst && pattern.strokes[worst.at.index];
  if (!worst || !stroke) return 'No take recorded yet.';
  const { now, before } = worst.at;
  const who = stroke.limb === 'R' || stroke.limb === 'L' ? LIMB_WORDS[stroke.limb] : VOICE[stroke.voice].name;
  const where = `${sentence(who)}, ${placeWords(pattern, stroke.at, schools)}`;
  const over = takes === 1 ? 'in the last take' : `in the last ${takes} takes`;
  if (worst.by === 'missed') {
    const was = before && before.wanted > 0 ? ` (before: ${before.missed} of ${before.wanted})` : '';
    return `${where}: missed most, ${now.missed} of ${now.wanted} times ${over}${was}.`;
  }
  const late = now.late ?? 0;
  if (Math.abs(late) < SMALL) return `All on time: no stroke missed or off by ${SMALL} ms ${over}.`;
  const was = before?.late == null ? '' : ` (before: ${lateWords(before.late)})`;
  return `${where}: ${lateWords(late)} on average ${over}${was}.`;
}

/** What lies less than this off is nobody's fault, in milliseconds. */
const SMALL = 6;

/** Which limb lags? */
export function whichLimbLags(days: readonly LimbDay[]): string {
  const lately = limbsLately(days);
  if (lately.length === 0) return 'Nothing measured yet: let a pad or a microphone listen in Drill.';
  if (lately.length === 1) return 'Only one limb was measured, so there is nothing to compare.';
  // Limbs are held against the others: what all of them do is the whole, not a limb. Of two the one that lies farther
  // from the click is the one that lags, as the verdicts have it.
  const sum = lately.reduce((s, l) => s + l.mean, 0);
  const against = lately.map((l) => ({ ...l, off: l.mean - (sum - l.mean) / (lately.length - 1) }));
  const [most] = against.sort(
    (a, b) => Math.round(10 * (Math.abs(b.off) - Math.abs(a.off))) || Math.abs(b.mean) - Math.abs(a.mean),
  );
  const off = most?.off ?? 0;
  if (!most || Math.abs(off) < SMALL) return `No limb lags: all are within ${SMALL} ms of each other.`;
  return `${sentence(LIMB_WORDS[most.limb])}: ${Math.round(Math.abs(off))} ms ${off > 0 ? 'later' : 'earlier'} than your other limbs ${most.days === 1 ? 'on the last day' : `over the last ${most.days} days`}.`;
}

/** What did I practise? `planned` and `free` are minutes by day. */
export function whatWasPractised(
  days: readonly PracticeDay[],
  { planned, free }: { readonly planned: ReadonlyMap<number, number>; readonly free: ReadonlyMap<number, number> },
  today: number,
): string {
  const lately = days.filter((d) => d.day > today - 7 && d.day <= today);
  const minutes = Math.round(lately.reduce((s, d) => s + minutesOf(d), 0));
  const inWeek = (by: ReadonlyMap<number, number>): number =>
    Math.round([...by].filter(([d]) => d > today - 7 && d <= today).reduce((s, [, m]) => s + m, 0));
  const freely = inWeek(free);
  if (days.length === 0 && free.size === 0) return 'Nothing practised yet.';
  if (minutes + freely === 0) return 'Nothing in the last seven days.';
  const plan = inWeek(planned);
  const against = plan > 0 ? `, ${plan} planned` : '';
  const played = freely > 0 ? `, and ${count(freely, 'minute')} of free play` : '';
  return `${count(minutes, 'minute')} on ${count(lately.length, 'day')} of the last seven${against}${played}.`;
}

/** Is it too much? */
export function isItTooMuch(days: readonly PracticeDay[], today: number): string {
  const last = days.at(-1);
  if (!last) return 'Nothing practised yet.';
  const week = days.filter((d) => d.day < last.day && d.day >= last.day - 7).map(busier);
  const most = mostStrokes(week);
  const strokes = busier(last).toLocaleString('en');
  const when = dayWords(last.day, today);
  if (most === null) return `${strokes} strokes per hand ${when}. No limit yet: it needs a week of practice.`;
  const wise = Math.round(most).toLocaleString('en');
  return busier(last) > most
    ? `Too many: ${strokes} strokes per hand ${when}. Your limit was ${wise}.`
    : `Fine: ${strokes} strokes per hand ${when}. Your limit was ${wise}.`;
}

/** Why do rungs fail? */
export function whyRungsFail(fails: readonly Fails[]): string {
  const kinds = failKinds(fails);
  const untold = fails.reduce((s, f) => s + f.untold, 0);
  const told = kinds.reduce((s, k) => s + k.times, 0);
  const [most] = kinds;
  if (!most) {
    if (untold === 0) return 'No messy try yet.';
    return `${count(untold, 'messy try', 'messy tries')}, cause unknown: you judged by ear. Let a pad or microphone listen.`;
  }
  const rest = untold > 0 ? ` ${untold} more ${untold === 1 ? 'was' : 'were'} judged by ear.` : '';
  return `Most often ${FIX_NAMES[most.kind]}: ${most.times} of ${count(told, 'measured try', 'measured tries')}.${rest}`;
}

/** What do I avoid? */
export function whatIsAvoided(avoided: readonly Avoided[]): string {
  const [first] = avoided;
  if (!first) return 'No goal-ready phrase went a week unplayed.';
  const night = first.night === null ? '' : `, and its show is in ${count(first.night, 'day')}`;
  return `${first.name} was not played for ${count(first.days, 'day')}${night}.`;
}
