import { clamp, listed } from '../base';
import { chanceAt, onDay, tempoAt } from '../player';
import type { Block, NotToday, PlanPhrase, TodayAsked, TodayPlan } from './block';
import {
  candidate,
  candidatesOf,
  isExtra,
  LOAD_UNIT,
  loadOf,
  nightNear,
  type Candidate,
  type CandidateLength,
} from './candidates';
import { chosen, type Choosable } from './knapsack';
import { leftOut, notesOf } from './left-out';
import { mostStrokes } from './load';
import {
  BREAK_AFTER,
  BREAK_MINUTES,
  inOrder,
  playingMinutes,
  stretches,
  withBreaks,
  type Loose,
  type TimeSlice,
} from './order';
import { blockWords } from './words';
import { worthOf } from './worth';

/** The shortest and the longest day that is planned, in minutes. */
export const DAY_MINUTES = Object.freeze({ least: 3, most: 240 });
/** Strokes of a hand in a minute of free play or warm-up, where nothing tells. */
const USUAL_STROKES = 90;

/** A block before it has its place. */
interface Made extends Loose {
  readonly candidate: Candidate | null;
  readonly bring: Block['bring'];
  readonly held: boolean;
}

/** Minutes of warm-up and of free play for a day. */
function usualMinutes(minutes: number): { readonly warm: number; readonly play: number } {
  return {
    warm: minutes < 10 ? 2 : minutes < 30 ? 3 : minutes < 60 ? 4 : 5,
    play: minutes < 20 ? 0 : minutes < 40 ? 3 : minutes < 90 ? 5 : 10,
  };
}

/**
 * A day of practice: blocks on a timeline with their reasons, what was left out and why. The same for the same
 * question. Days in days since 1970-01-01, minutes whole; what the player held, dropped, laid and has done is kept to.
 */
export function planToday(phrases: readonly PlanPhrase[], asked: TodayAsked): TodayPlan {
  const { day } = asked;
  const done = asked.done.reduce((sum, d) => sum + d.minutes, 0);
  const since = sinceBreak(asked);
  const total = Math.max(0, clamp(Math.round(asked.minutes), 0, DAY_MINUTES.most) - done);
  const night = nightNear(phrases, day);
  const usual = usualMinutes(asked.minutes);
  const most = mostStrokes(asked.strokes.week);
  const budget = new Budget(playingMinutes(total, since), most, asked.strokes.today);
  const held = heldBlocks(phrases, asked, budget);
  const warm = budget.rest > 0 ? fixedBlock('warm-up', usual.warm, held, asked, budget) : null;
  const play = fixedBlock('play', usual.play, held, asked, budget);
  const { found, not } = possible(phrases, held, asked, night);
  const items = itemsOf(found, held);
  const wished = chosen(items, budget.rest, null);
  const cut = budget.load !== null && wished.reduce((sum, c) => sum + c.length.load, 0) > budget.load;
  const picked = cut ? chosen(items, budget.rest, budget.load) : wished;
  for (const { length } of picked) budget.spend(length.minutes, length.load);
  const made = picked.map(({ length }) => madeOf(length));
  const bring = (all: readonly Made[]): Block['bring'] => broughtIn(all, phrases, day);
  const blocks = inOrder(
    [...(warm ? [warm] : []), ...held, ...made, ...(play ? [play] : [])].map((b) =>
      b.kind === 'play' ? { ...b, bring: bring([...held, ...made]) } : b,
    ),
    asked.arranged,
  );
  const laid = laidOut(blocks, asked, { total, since, bring }, budget);
  return {
    blocks: onTheLine(laid, phrases, asked, done),
    ...leftOut(found, picked, not, { asked, night, wished: cut ? wished : [] }),
    notes: notesOf(asked, night, most, { cut, anything: phrases.length > 0 }),
    free: Math.max(0, total - laid.reduce((sum, s) => sum + s.minutes, 0)),
    load: {
      strokes: Math.round(asked.strokes.today + budget.planned * LOAD_UNIT),
      most: most === null ? null : Math.round(most),
    },
  };
}

/** What is left of the day's minutes, and of what the hands may do, in units of `LOAD_UNIT` strokes. */
class Budget {
  /** What the hands may do yet; null where no week tells. */
  load: number | null;
  planned = 0;

  constructor(
    public rest: number,
    most: number | null,
    today: number,
  ) {
    this.load = most === null ? null : Math.floor(Math.max(0, most - today) / LOAD_UNIT);
  }

  spend(minutes: number, load: number): void {
    this.rest -= minutes;
    this.planned += load;
    if (this.load !== null) this.load = Math.max(0, this.load - load);
  }
}

/** The blocks that the player wants as they are. */
function heldBlocks(phrases: readonly PlanPhrase[], asked: TodayAsked, budget: Budget): readonly Made[] {
  const byId = new Map(phrases.map((p) => [p.id, p]));
  return asked.held.flatMap((h) => {
    const made = heldBlock(h.id, Math.min(Math.round(h.minutes), budget.rest), byId, asked);
    if (!made || made.minutes < 1 || asked.done.some((d) => d.id === h.id)) return [];
    budget.spend(made.minutes, made.candidate ? loadAt(made.candidate, made.minutes) : usualLoad(made.minutes));
    return [made];
  });
}

/** The warm-up or the free play of the day; null where it was held, dropped or done, or no minute is left. */
function fixedBlock(
  id: 'warm-up' | 'play',
  minutes: number,
  held: readonly Made[],
  asked: TodayAsked,
  budget: Budget,
): Made | null {
  const own = held.find((b) => b.id === id);
  if (own || asked.dropped.includes(id) || asked.done.some((d) => d.id === id)) return null;
  const fit = Math.min(minutes, budget.rest);
  if (fit < 1) return null;
  budget.spend(fit, usualLoad(fit));
  return { id, kind: id, minutes: fit, value: 0, candidate: null, bring: [], held: false };
}

/** What could be done with each phrase that is not held, and why the others are not for today. */
function possible(
  phrases: readonly PlanPhrase[],
  held: readonly Made[],
  asked: TodayAsked,
  night: number | null,
): {
  readonly found: readonly Candidate[];
  readonly not: readonly { readonly phrase: PlanPhrase; readonly why: NotToday }[];
} {
  const taken = new Set(held.flatMap((b) => b.candidate?.phrase.id ?? []));
  const found: Candidate[] = [];
  const not: { readonly phrase: PlanPhrase; readonly why: NotToday }[] = [];
  for (const phrase of phrases) {
    if (taken.has(phrase.id)) continue;
    const some = candidatesOf(phrase, asked, night);
    if (typeof some === 'string') not.push({ phrase, why: some });
    else found.push(...some);
  }
  return { found, not };
}

function madeOf({ candidate, minutes, value }: CandidateLength): Made {
  const { id, kind } = candidate;
  return { id, kind, minutes, value: value / minutes, candidate, bring: [], held: false };
}

/** Each phrase is a thing to choose; all new ones that nobody waits for are one. */
function itemsOf(found: readonly Candidate[], held: readonly Made[]): readonly Choosable<CandidateLength>[] {
  const fresh = held.some((b) => b.candidate && isExtra(b.candidate)) ? [] : found.filter(isExtra);
  return [
    ...byPhrase(found.filter((c) => !isExtra(c))),
    ...(fresh.length > 0 ? [{ id: 'new', lengths: fresh.flatMap((c) => c.lengths) }] : []),
  ];
}

/** What can be done with one phrase is one thing: it is kept or raised, not both. */
function byPhrase(found: readonly Candidate[]): readonly Choosable<CandidateLength>[] {
  const own = new Map<string, CandidateLength[]>();
  for (const { phrase, lengths } of found) own.set(phrase.id, [...(own.get(phrase.id) ?? []), ...lengths]);
  return [...own].map(([id, lengths]) => ({ id, lengths }));
}

const usualLoad = (minutes: number): number => Math.round((minutes * USUAL_STROKES) / LOAD_UNIT);
const loadAt = ({ phrase, from, to }: Candidate, minutes: number): number => loadOf(phrase, (from + to) / 2, minutes);

/** A block that the player holds; null where its phrase is gone. */
function heldBlock(
  id: string,
  minutes: number,
  byId: ReadonlyMap<string, PlanPhrase>,
  { day, place, done }: TodayAsked,
): Made | null {
  if (id === 'warm-up' || id === 'play')
    return { id, kind: id, minutes, value: 0, candidate: null, bring: [], held: true };
  const at = id.indexOf(':');
  const kind = id.slice(0, at);
  const phrase = byId.get(id.slice(at + 1));
  if (!phrase || (kind !== 'keep' && kind !== 'rise' && kind !== 'mend' && kind !== 'new')) return null;
  const own = candidate(phrase, kind, worthOf(phrase, day), place);
  // It stands where it would stand by itself; what goes on after a round comes after what had none yet.
  const near = [...own.lengths].sort((a, b) => Math.abs(a.minutes - minutes) - Math.abs(b.minutes - minutes))[0];
  const goesOn = done.some((d) => d.id.startsWith(`${id}#`));
  const value = near && !goesOn ? near.value / near.minutes : 0;
  return { id, kind, minutes, value, candidate: own, bring: [], held: true };
}

/** What is clean by this chance at this share of its goal, and comes by itself by less than that, is brought in. */
const CLEAN = { chance: 0.8, ofGoal: 0.85 };
const COMES = 0.5;

/**
 * One or two phrases to bring in while playing freely: those that are clean and do not come by themselves, where that
 * is known; else those that were climbed or are new.
 */
function broughtIn(blocks: readonly Made[], phrases: readonly PlanPhrase[], day: number): Block['bring'] {
  const unused = notComing(phrases, day);
  if (unused.length > 0) return unused.slice(0, 2).map(({ id, name }) => ({ id, name }));
  const own = blocks.filter((b) => b.candidate && b.kind !== 'keep');
  const list = own.length > 0 ? own : blocks.filter((b) => b.candidate);
  return list
    .slice(0, 2)
    .flatMap((b) => (b.candidate ? [{ id: b.candidate.phrase.id, name: b.candidate.phrase.name }] : []));
}

/** What is clean and does not come by itself: what is surer to be clean first. */
function notComing(phrases: readonly PlanPhrase[], day: number): readonly PlanPhrase[] {
  return phrases
    .filter((p) => p.comes !== undefined && (p.comes ?? 0) < COMES && p.known.tries > 0 && p.best !== null)
    .map((phrase) => ({ phrase, sure: chanceAt(onDay(phrase.known, day), CLEAN.ofGoal * phrase.goal) }))
    .filter(({ sure }) => sure >= CLEAN.chance)
    .sort(
      (a, b) =>
        (a.phrase.comes ?? 0) - (b.phrase.comes ?? 0) || b.sure - a.sure || (a.phrase.id < b.phrase.id ? -1 : 1),
    )
    .map(({ phrase }) => phrase);
}

/** Minutes really played since the last break, of what was done: who only sat there needs none. */
function sinceBreak({ done }: TodayAsked): number {
  const last = done.findLastIndex((d) => d.id === 'break');
  return done.slice(last + 1).reduce((sum, d) => sum + (d.played ?? d.minutes), 0);
}

/** So often the minutes of a day are laid anew until they come out. */
const TURNS = 12;

/** The minutes there are, those since the last break, and what is brought into free play beside some blocks. */
interface Line {
  readonly total: number;
  readonly since: number;
  readonly bring: (blocks: readonly Made[]) => Block['bring'];
}

/** The blocks with their breaks, so that they and the breaks are the minutes there are. */
function laidOut(
  blocks: readonly Made[],
  asked: TodayAsked,
  { total, since, bring }: Line,
  budget: Budget,
): readonly TimeSlice<Made>[] {
  let own = blocks;
  let breaks = 0;
  for (let turn = 0; ; turn++) {
    const slices = withBreaks(stretches(own, asked.order), since, breaks);
    const over = slices.reduce((sum, s) => sum + s.minutes, 0) - total;
    const next = over === 0 || turn >= TURNS ? own : stretched(own, -over, asked, budget, bring);
    if (next === own) return slices;
    // A break that was needed once stays, or minutes would go to and fro round it.
    breaks = Math.max(breaks, slices.filter((s) => !s.block).length);
    own = next;
  }
}

/** The fewest minutes that a block is made shorter to. */
const SHORTEST = 3;

/**
 * Blocks by so many minutes longer or shorter together: free play first, as far as the hands may; then the longest that
 * the player did not hold. The same where nothing can be changed.
 */
function stretched(
  blocks: readonly Made[],
  by: number,
  asked: TodayAsked,
  budget: Budget,
  bring: Line['bring'],
): readonly Made[] {
  const play = blocks.find((b) => b.kind === 'play' && !b.held);
  const [longest] = blocks
    .filter((b) => !b.held && b.candidate && (by < 0 || b.minutes < BREAK_AFTER))
    .sort((a, b) => b.minutes - a.minutes);
  const warm = blocks.find((b) => b.kind === 'warm-up' && !b.held);
  const change = (block: Made, more: number): readonly Made[] =>
    blocks.map((b) => (b === block ? { ...b, minutes: b.minutes + more } : b));
  if (by < 0) {
    const from = [play, longest, warm].find((b) => b && b.minutes > SHORTEST);
    return from ? change(from, -Math.min(-by, from.minutes - SHORTEST)) : blocks;
  }
  const most = budget.load === null ? by : Math.min(by, Math.floor((budget.load * LOAD_UNIT) / USUAL_STROKES));
  if (most < 1) return blocks;
  budget.spend(0, usualLoad(most));
  const mayPlay = !asked.dropped.includes('play') && !asked.done.some((d) => d.id === 'play');
  if (play) return change(play, most);
  if (mayPlay && most >= SHORTEST && !blocks.some((b) => b.id === 'play'))
    return [
      ...blocks,
      { id: 'play', kind: 'play', minutes: most, value: 0, candidate: null, bring: bring(blocks), held: false },
    ];
  // What climbs is not made longer than is played without a break.
  const [last] = [longest, warm].filter((b) => b !== undefined && b.minutes < BREAK_AFTER);
  return last ? change(last, Math.min(most, BREAK_AFTER - last.minutes)) : blocks;
}

function onTheLine(
  laid: readonly TimeSlice<Made>[],
  phrases: readonly PlanPhrase[],
  { day }: TodayAsked,
  done: number,
): readonly Block[] {
  let at = done;
  let breaks = 0;
  const planned = laid.flatMap(({ block }) => block?.candidate ?? []);
  return laid.map(({ block, minutes, round }): Block => {
    const here = { minutes, at, round };
    at += minutes;
    if (!block) {
      breaks++;
      return {
        ...here,
        ...EMPTY,
        id: breaks === 1 ? 'break' : `break-${breaks}`,
        kind: 'break',
        name: 'Break',
        words: `${BREAK_MINUTES} minutes: sticks down, shake out your hands, rest your ears.`,
      };
    }
    const base = { ...EMPTY, ...here, id: block.id, kind: block.kind, held: block.held, bring: block.bring };
    if (block.kind === 'warm-up') return { ...base, ...warmUp(phrases, planned, day) };
    if (block.kind === 'play' || !block.candidate)
      return { ...base, name: 'Free play', words: playWords(block.bring, notComing(phrases, day)) };
    const { phrase, from, to, stage } = block.candidate;
    return { ...base, phrase: phrase.id, name: phrase.name, from, to, stage, words: blockWords(block.candidate, day) };
  });
}

const EMPTY = { phrase: null, name: '', bring: [], from: null, to: null, stage: null, held: false } as const;
/** A warm-up begins at this share of what is sure. */
const SLOWLY = 0.6;

/**
 * The warm-up that was longest not played; without one the bare sticking of a phrase that is known and not played next,
 * and only where there is no other, of what comes next.
 */
function warmUp(
  phrases: readonly PlanPhrase[],
  planned: readonly Candidate[],
  day: number,
): Pick<Block, 'phrase' | 'name' | 'from' | 'to' | 'stage' | 'words'> {
  const usual = 'Slow and loose, small strokes first.';
  const next = planned[0]?.phrase;
  const today = new Set(planned.map((c) => c.phrase.id));
  const waiting = [...phrases]
    .filter((p) => p.id !== next?.id && p.hands.R + p.hands.L > 0)
    .sort((a, b) => (a.known.memory.lastDay ?? -1) - (b.known.memory.lastDay ?? -1) || (a.id < b.id ? -1 : 1));
  const own =
    waiting.find((p) => p.family === 'warm-up' && !today.has(p.id)) ?? waiting.find((p) => p.family === 'warm-up');
  const known = waiting.find((p) => p.known.tries > 0 && !today.has(p.id)) ?? waiting.find((p) => today.has(p.id));
  const phrase = own ?? known ?? (today.size > 1 ? undefined : next);
  if (!phrase) return { phrase: null, name: 'Warm-up', from: null, to: null, stage: null, words: usual };
  const sure = tempoAt(onDay(phrase.known, day), 0.9);
  const from = clamp(Math.round(SLOWLY * Math.min(sure, phrase.goal)), 40, 120);
  return {
    phrase: phrase.id,
    name: own ? own.name : `Sticking of ${phrase.name}`,
    from,
    to: from,
    stage: own ? null : 'bare',
    words: `${usual} At ${from}${phrase === next ? ': this phrase comes next' : ''}.`,
  };
}

function playWords(bring: Block['bring'], unused: readonly PlanPhrase[]): string {
  const silent = bring.filter((b) => unused.some((u) => u.id === b.id)).map((b) => b.name);
  if (silent.length > 0)
    return `Play freely. ${listed(silent)} ${silent.length === 1 ? 'goes' : 'go'} clean and ${silent.length === 1 ? 'has' : 'have'} not come by ${silent.length === 1 ? 'itself' : 'themselves'} yet: bring ${silent.length === 1 ? 'it' : 'them'} in.`;
  const names = bring.map((b) => b.name);
  const what = names.length > 0 ? `, or with ${names.join(' or ')}` : '';
  return `Groove with open bars. Fill them freely${what}. Only your timing is measured.`;
}
