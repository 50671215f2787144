import { count } from '../base';
import { placeWords, type Pattern } from '../pattern';
import { dayName, dayWords, mostStrokes } from '../plan';
import type { GoalDay } from '../recipe';
import type { Projection } from '../player';
import { LIMB_WORDS, VOICE } from '../stroke';
import { FIX_NAMES } from '../take';
import type { Schools } from '../time';
import { worstBreak, type Break } from './breaks';
import { failKinds, type Fails } from './fails';
import { limbsLately, type LimbDay } from './limbs';
import { busier, minutesOf, type Avoided, type PracticeDay } from './looking-back';

// The title of each chart is its answer, in a sentence.

/** What lies farther ahead, in days, is not in sight. */
export const IN_SIGHT = 365;

/** Am I getting there? */
export function gettingThere(
  of: {
    readonly best: number | null;
    readonly ready: number | null;
    readonly goal: number;
    readonly by: GoalDay | null;
    readonly projection: Projection | null;
  },
  today: number,
): string {
  const { best, ready, goal, by, projection } = of;
  if (best === null) return `Nothing clean yet on the way to ${goal}.`;
  const night = by && by.day >= today ? by : null;
  const wanted = night ? ` The day is ${dayName(night.day, today)}.` : '';
  const head = `${best} clean${ready === null ? '' : `, ${ready} ready`}, ${goal} wanted.`;
  switch (projection?.kind) {
    case undefined:
      return head + wanted;
    case 'ready':
      // What was never played clean is believed, not known.
      return best >= goal
        ? `The goal of ${goal} is ready.${wanted}`
        : `The goal of ${goal} should be ready, though ${best} is the fastest clean so far.${wanted}`;
    case 'unknown':
      return `${head} When it will be ready cannot be said yet: ${count(projection.days, 'day')} of tries, four are needed.${wanted}`;
    case 'resting':
      return `${head} Last played ${dayWords(projection.since, today)}: there is no pace to go by.${wanted}`;
    case 'on': {
      const { day, from, until } = projection;
      const late = night !== null && from > night.day ? ' That is after it is wanted.' : '';
      if (from >= today + IN_SIGHT) return `${head} At this pace it is not in sight.${wanted}${late}`;
      const between =
        until === null ? `not before ${dayName(from, today)}` : `${dayName(from, today)} to ${dayName(until, today)}`;
      const likely =
        day === null ? `Hardly at this pace: ${between}.` : `Ready ${dayWords(day, today)} at this pace: ${between}.`;
      return `${head} ${likely}${wanted}${late}`;
    }
  }
}

/** Where does it break? */
export function whereItBreaks(breaks: readonly Break[], pattern: Pattern, schools: Schools, takes: number): string {
  const worst = worstBreak(breaks);
  const stroke = worst && pattern.strokes[worst.at.index];
  if (!worst || !stroke) return 'No take of it was recorded yet.';
  const { now, before } = worst.at;
  const who = stroke.limb === 'R' || stroke.limb === 'L' ? LIMB_WORDS[stroke.limb] : VOICE[stroke.voice].name;
  const where = `The ${who} on ${placeWords(pattern, stroke.at, schools)}`;
  const over = `over the last ${count(takes, 'take')}`;
  if (worst.by === 'missed') {
    const was = before && before.wanted > 0 ? `; before, ${before.missed} of ${before.wanted}` : '';
    return `${where} is left out most: ${now.missed} of ${now.wanted} times ${over}${was}.`;
  }
  const late = now.late ?? 0;
  if (Math.abs(late) < SMALL) return `Nothing is left out and nothing lies off by as much as ${SMALL} ms ${over}.`;
  const was = before?.late == null ? '' : `; before, ${lateWords(before.late)}`;
  return `${where} lies farthest off: ${lateWords(late)} ${over}${was}.`;
}

/** What lies less than this off is nobody's fault, in milliseconds. */
const SMALL = 6;

function lateWords(ms: number): string {
  const off = Math.round(Math.abs(ms));
  return off === 0 ? 'on time' : `${off} ms ${ms > 0 ? 'late' : 'early'}`;
}

/** Which limb lags? */
export function whichLimbLags(days: readonly LimbDay[]): string {
  const lately = limbsLately(days);
  if (lately.length === 0) return 'Nothing was measured yet: let a pad or a microphone listen in the room.';
  if (lately.length === 1) return 'One limb alone was measured: there is none to hold it against.';
  // Limbs are held against each other: what all of them do is the whole, not a limb.
  const level = lately.reduce((s, l) => s + l.mean, 0) / lately.length;
  const [most] = [...lately].sort((a, b) => Math.abs(b.mean - level) - Math.abs(a.mean - level));
  const off = most ? most.mean - level : 0;
  if (!most || Math.abs(off) < SMALL) return `No limb lags: all lie within ${SMALL} ms of each other.`;
  return `The ${LIMB_WORDS[most.limb]} lies ${lateWords(off)} against the rest, over the last ${count(most.days, 'day')}.`;
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
  if (days.length === 0 && free.size === 0) return 'Nothing was practised yet.';
  if (minutes + freely === 0) return 'Nothing in the last seven days.';
  const plan = inWeek(planned);
  const against = plan > 0 ? `, of ${plan} planned` : '';
  const played = freely > 0 ? `, and ${count(freely, 'minute')} freely` : '';
  return `${count(minutes, 'minute')} on ${count(lately.length, 'day')} of the last seven${against}${played}.`;
}

/** Is it too much? */
export function isItTooMuch(days: readonly PracticeDay[], today: number): string {
  const last = days.at(-1);
  if (!last) return 'Nothing was practised yet.';
  const week = days.filter((d) => d.day < last.day && d.day >= last.day - 7).map(busier);
  const most = mostStrokes(week);
  const strokes = busier(last).toLocaleString('en');
  const when = dayWords(last.day, today);
  if (most === null) return `${strokes} strokes a hand ${when}; the week before it tells nothing.`;
  const wise = Math.round(most).toLocaleString('en');
  return busier(last) > most
    ? `${strokes} strokes a hand ${when}: more than the ${wise} that your week before it allows.`
    : `${strokes} strokes a hand ${when}, within the ${wise} that your week before it allows.`;
}

/** Why do rungs fail? */
export function whyRungsFail(fails: readonly Fails[]): string {
  const kinds = failKinds(fails);
  const untold = fails.reduce((s, f) => s + f.untold, 0);
  const told = kinds.reduce((s, k) => s + k.times, 0);
  const [most] = kinds;
  if (!most) {
    if (untold === 0) return 'No rung failed yet.';
    return `${count(untold, 'messy try', 'messy tries')} by ear: why, only what is measured can say.`;
  }
  const rest = untold > 0 ? ` ${untold} more were judged by ear.` : '';
  return `Most often ${FIX_NAMES[most.kind]}: ${most.times} of ${told} that were measured.${rest}`;
}

/** What do I avoid? */
export function whatIsAvoided(avoided: readonly Avoided[]): string {
  const [first] = avoided;
  if (!first) return 'Nothing you own was left lying for a week.';
  const night = first.night === null ? '' : `, and it is wanted in ${count(first.night, 'day')}`;
  return `${first.name} was not played for ${count(first.days, 'day')}${night}.`;
}
