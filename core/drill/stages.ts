import { checkedAt } from '../base';
import { barTicks, beatTicks, ticks } from '../time';
import { isHand, type Stroke } from '../stroke';
import { partOf, rolesOf, tidy, withoutPickup, type Pattern, type Role } from '../pattern';
import type { Family } from '../recipe';
import { fitsEveryBeat, inContext, landingOf, onEveryBeat, openBars, usualContext } from './context';
import { grownTo, onItsBeat, withIngredients } from './growth';
import { partStages } from './parts';
import type { NewStage, Stage, StageKind } from './stage';

/**
 * What is played in a stage: a projection of the phrase. A stage that makes no sense for a phrase any more gives the
 * phrase itself. `groove` is the phrase that keeps time in context; plain time when it is absent or does not fit. Only
 * the whole is led in by its pick-up.
 */
export function stagePattern(stage: Stage, phrase: Pattern, groove: Pattern | null = null): Pattern {
  const played = projected(stage, phrase, groove);
  return stage.kind === 'whole' ? played : withoutPickup(played);
}

function projected(stage: Stage, phrase: Pattern, groove: Pattern | null): Pattern {
  switch (stage.kind) {
    case 'bare':
      return tidy({
        ...phrase,
        strokes: phrase.strokes.map((s) => (isHand(s.limb) ? plain(s) : { ...s, level: 'tap' as const })),
      });
    case 'dynamics':
      return tidy({
        ...phrase,
        strokes: phrase.strokes.map((s) => (isHand(s.limb) ? onOneDrum(s) : s)),
      });
    case 'skeleton':
      return ofRoles(phrase, (role) => role === 'primary');
    case 'no-time':
      return ofRoles(phrase, (role) => role !== 'timekeeping');
    case 'part':
    case 'tight':
      return loopPart(phrase, stage.from ?? 0, stage.until ?? phrase.length);
    case 'grow':
      return stage.part?.of === 'ingredients'
        ? withIngredients(phrase, stage.part.upTo)
        : grownTo(phrase, stage.until ?? phrase.length);
    case 'voices':
      return tidy({ ...phrase, strokes: phrase.strokes.map((s) => ({ ...s, level: 'tap' as const })) });
    case 'say':
    case 'whole':
    case 'record':
      return phrase;
    case 'context':
      return inContext(phrase, stage.bars ?? 1, groove);
    case 'every-beat':
      return fitsEveryBeat(phrase) ? onEveryBeat(phrase, groove) : phrase;
    case 'steady-foot':
      return withFoot(phrase);
    case 'free':
      return openBars(phrase, stage.bars ?? OPEN_BARS, groove);
  }
}

/** A hand stroke of the bare sticking: on one surface, without height or ornament. */
function plain({ at, limb, from }: Stroke): Stroke {
  return { at, limb, from, voice: 'snare', level: 'tap' };
}

/** A hand stroke on one surface, grace strokes and all. */
function onOneDrum({ grace: _, ...stroke }: Stroke): Stroke {
  return { ...stroke, voice: 'snare' };
}

/** The strokes of some roles; the phrase itself where there are none. */
function ofRoles(phrase: Pattern, wanted: (role: Role) => boolean): Pattern {
  const roles = rolesOf(phrase);
  const strokes = phrase.strokes.filter((_, i) => wanted(checkedAt(roles, i, 'role')));
  return strokes.length > 0 ? { ...phrase, strokes } : phrase;
}

/**
 * A part that goes round by itself on the bar it stands in: it begins on its count, the rest of its beats is silent;
 * one beat goes round in that beat. A part that ends behind the end of the phrase goes on at its beginning.
 */
function loopPart(phrase: Pattern, from: number, until: number): Pattern {
  const begins = Math.min(from, Math.max(0, phrase.length - phrase.grid));
  const part = partOf(phrase, begins, Math.min(until, phrase.length));
  const over = Math.min(until - phrase.length, begins);
  const whole = over > 0 ? followed(part, partOf(phrase, 0, over)) : part;
  if (whole.strokes.length === 0) return phrase;
  // The bars before it are no part of what goes round.
  return onItsBeat({ ...whole, start: ticks(whole.start % barTicks(whole.meter)) });
}

/** Two parts, one after the other, as one that begins where the first does. */
function followed(first: Pattern, second: Pattern): Pattern {
  const at = <T extends { readonly at: number }>(all: readonly T[]): T[] =>
    all.map((x) => ({ ...x, at: ticks(x.at + first.length) }));
  return {
    ...first,
    length: ticks(first.length + second.length),
    strokes: [...first.strokes, ...at(second.strokes)],
    groups: [...first.groups, ...at(second.groups)],
  };
}

function withFoot(phrase: Pattern): Pattern {
  const beat = beatTicks(phrase.meter);
  const first = (beat - (phrase.start % beat)) % beat;
  const feet = Array.from({ length: Math.ceil(phrase.length / beat) }, (_, i) => first + i * beat)
    .filter((at) => at < phrase.length)
    .map((at): Stroke => ({
      at: ticks(at),
      limb: 'H',
      voice: 'hat-foot',
      level: 'tap',
      from: { index: 0, repeat: 0, move: 'foot' },
    }));
  return tidy({ ...phrase, strokes: [...feet, ...phrase.strokes] });
}

/** The tick of the phrase that a tick of a stage stands for; null where the stage plays something else there. */
export function tickInPhrase(stage: Stage | null, phrase: Pattern, at: number): number | null {
  if (!stage) return at;
  switch (stage.kind) {
    case 'part':
    case 'tight':
      return (at + (stage.from ?? 0)) % Math.max(1, phrase.length);
    case 'context': {
      const own = at - (stage.bars ?? 1) * barTicks(phrase.meter) - phrase.start;
      return own >= 0 && own < landingOf(phrase).fill.length ? own : null;
    }
    case 'every-beat':
    case 'free':
      return null;
    default:
      return at;
  }
}

/** Kinds of stages that need nothing said but their kind. */
export type SimpleStage = Exclude<StageKind, 'part' | 'tight' | 'grow' | 'context'>;

/** Stages that go up to the goal; free play stays where it begins. */
const UP: readonly SimpleStage[] = ['whole', 'record', 'free'];

/** A stage of a simple kind. Only the whole, and the whole with its record, go up to the goal. */
export function simpleStage(kind: SimpleStage): NewStage {
  return { kind, short: !UP.includes(kind) };
}

/** A stage in context: so many bars of time before the phrase. */
export function contextStage(bars: number, family: 'fill' | 'lick'): NewStage {
  return { kind: 'context', bars, family, short: false };
}

/** Bars of time in free play, and as many that are open. */
const OPEN_BARS = 2;

/** The most stages that are proposed at once. */
const MOST_STAGES = 12;
const MOST_PARTS = 8;

/**
 * The stages a phrase asks for, in the order they are played: from bare sticking through parts
 * and joins to the whole and its context. Its family says what it is for, its strokes what is in it: a groove has a
 * skeleton and a hand that keeps time, a fill or a lick comes out of time, whatever cymbals are in it, and a warm-up
 * stays by itself. The player drops, adds and moves them.
 * @param record whether the record from which it was taken is kept with it: it is played along with once the whole is there
 */
export function proposeStages(phrase: Pattern, family: Family, record = false): readonly Stage[] {
  const bar = barTicks(phrase.meter);
  const { fill } = landingOf(phrase);
  const hands = phrase.strokes.filter((s) => isHand(s.limb));
  const roles = rolesOf(phrase);
  const first: NewStage[] = [];
  const last: NewStage[] = [];
  if (family === 'groove') {
    const bones = roles.filter((r) => r === 'primary').length;
    if (bones > 0 && bones < roles.length) first.push(simpleStage('skeleton'));
    if (roles.includes('timekeeping') && roles.includes('texture')) first.push(simpleStage('no-time'));
  } else {
    const levels = new Set(hands.map((s) => s.level)).size;
    const voices = new Set(hands.map((s) => s.voice)).size;
    if (voices > 1 || levels > 1 || hands.some((s) => s.ornament)) first.push(simpleStage('bare'));
    if (levels > 1) first.push(simpleStage('dynamics'));
    if (!phrase.strokes.some((s) => s.limb === 'H') && fill.length >= bar) last.push(simpleStage('steady-foot'));
  }
  if (family === 'fill' || family === 'lick') {
    const bars = usualContext(phrase);
    if (fill.length <= bar / 2 && fitsEveryBeat(phrase)) last.push(simpleStage('every-beat'));
    if (bars !== null) last.push(contextStage(bars, family));
  }
  if (record) last.unshift(simpleStage('record'));
  // So many parts that the whole always has its place among those that are proposed.
  const all = [
    ...first,
    ...partStages(phrase, family === 'groove').slice(0, MOST_PARTS),
    simpleStage('whole'),
    ...last,
  ];
  return unlike(all, phrase)
    .slice(0, MOST_STAGES)
    .map((stage, i) => ({ ...stage, id: `s${i + 1}` }));
}

/** What sounds in a stage, as a text that is the same for stages that sound alike; also without grace strokes. */
function looksOf(stage: NewStage, phrase: Pattern, graces = true): string {
  const { start, length, strokes } = stagePattern({ ...stage, id: '' }, phrase);
  return JSON.stringify([
    start,
    length,
    strokes.map((s) => [s.at, s.limb, s.voice, s.level, ...(graces ? [s.ornament ?? '', s.grace ?? ''] : [])]),
  ]);
}

/** Stages in front of others, and of those what does not sound like one of them, but for a grace stroke. */
export function stagesBefore(first: readonly Stage[], others: readonly Stage[], phrase: Pattern): readonly Stage[] {
  const known = new Set(first.map((s) => looksOf(s, phrase, false)));
  return [...first, ...others.filter((s) => ALWAYS.includes(s.kind) || !known.has(looksOf(s, phrase, false)))];
}

/** Stages that sound alike are one: the whole before any other, else the first. */
function unlike(stages: readonly NewStage[], phrase: Pattern): readonly NewStage[] {
  const looks = (stage: NewStage): string => looksOf(stage, phrase);
  const whole = looks(simpleStage('whole'));
  const seen = new Set<string>();
  return stages.filter((stage) => {
    if (ALWAYS.includes(stage.kind)) return true;
    const look = looks(stage);
    return look !== whole && !seen.has(look) && seen.add(look);
  });
}

/** Stages that are more than what sounds: what goes up to the goal, and what is said, not played. */
const ALWAYS: readonly StageKind[] = ['whole', 'record', 'free', 'say', 'context', 'every-beat'];

/** The stage that takes a tight spot out of a phrase: the beat before it and the beat it stands in. */
export function tightStage(phrase: Pattern, place: number, id: string): Stage {
  // What leads in is taken with the beat it leads to.
  const at = Math.max(0, place);
  const beat = beatTicks(phrase.meter);
  const inBar = phrase.start % beat;
  const begins = Math.floor((at + inBar) / beat) * beat - inBar;
  return {
    id,
    kind: 'tight',
    from: Math.max(0, begins - beat),
    until: Math.min(phrase.length, begins + beat),
    short: true,
  };
}
