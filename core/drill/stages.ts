import { barTicks, beatTicks, ticks } from '../time';
import { isHand, type Stroke } from '../stroke';
import { barsSpan, partOf, rolesOf, tidy, type Pattern } from '../pattern';
import { partStages, type NewStage } from './parts';
import type { Stage } from './stage';
import { timeFeel, timeOf } from './time-feel';

/**
 * What is played in a stage: a projection of the phrase. A stage that makes no sense for a phrase any more gives the
 * phrase itself. `groove` is the phrase that keeps time in context; plain time when it is absent or does not fit.
 */
export function stagePattern(stage: Stage, phrase: Pattern, groove: Pattern | null = null): Pattern {
  switch (stage.kind) {
    case 'bare':
      return tidy({
        ...phrase,
        strokes: phrase.strokes.map((s) => (isHand(s.limb) ? plain(s) : { ...s, level: 'tap' as const })),
      });
    case 'dynamics':
      return tidy({
        ...phrase,
        strokes: phrase.strokes.map((s) => (isHand(s.limb) ? { ...s, voice: 'snare' as const } : s)),
      });
    case 'skeleton': {
      const roles = rolesOf(phrase);
      const kept = phrase.strokes.filter((_, i) => roles[i] === 'primary');
      return kept.length > 0 ? { ...phrase, strokes: kept } : phrase;
    }
    case 'no-time': {
      const roles = rolesOf(phrase);
      const kept = phrase.strokes.filter((_, i) => roles[i] !== 'timekeeping');
      return kept.length > 0 ? { ...phrase, strokes: kept } : phrase;
    }
    case 'part':
    case 'tight':
      return loopPart(phrase, stage.from ?? 0, stage.until ?? phrase.length);
    case 'grow':
      return { ...phrase, strokes: phrase.strokes.filter((s) => s.at < (stage.until ?? phrase.length)) };
    case 'voices':
      return tidy({ ...phrase, strokes: phrase.strokes.map((s) => ({ ...s, level: 'tap' as const })) });
    case 'whole':
      return phrase;
    case 'context':
      return inContext(phrase, stage.bars ?? 1, groove);
    case 'steady-foot':
      return withFoot(phrase);
  }
}

/** A hand stroke of the bare sticking: on one surface, without height or ornament. */
function plain({ at, limb, from }: Stroke): Stroke {
  return { at, limb, from, voice: 'snare', level: 'tap' };
}

/**
 * A part that goes round by itself on the bar it stands in: it begins on its count and the rest of its beats are
 * silent.
 */
function loopPart(phrase: Pattern, from: number, until: number): Pattern {
  const part = partOf(phrase, Math.min(from, Math.max(0, phrase.length - phrase.grid)), Math.min(until, phrase.length));
  return part.strokes.length > 0 ? part : phrase;
}

/** Bars of time, then the phrase; the landing on the next 1 is the first stroke of the time that follows. */
function inContext(phrase: Pattern, bars: number, groove: Pattern | null): Pattern {
  const bar = barTicks(phrase.meter);
  const span = barsSpan(phrase).bars;
  const total = (bars + span) * bar;
  const begins = bars * bar + phrase.start;
  const over = begins + phrase.length;
  const kept = (groove && timeOf(groove, phrase.meter, bars + span)) ?? timeFeel(phrase, bars + span);
  const time = kept.filter((s) => s.at < begins || (s.at >= over && s.at < total));
  const landing: Stroke[] = (['R', 'K'] as const).map((limb) => ({
    at: ticks(0),
    limb,
    voice: limb === 'R' ? ('crash-right' as const) : ('kick' as const),
    level: 'accent' as const,
    from: { index: 0, repeat: 0, move: 'landing' },
  }));
  const fill = phrase.strokes.map((s) => ({ ...s, at: ticks(s.at + begins) }));
  return tidy({
    ...phrase,
    start: ticks(0),
    length: ticks(total),
    strokes: [...time, ...landing, ...fill],
    groups: [{ at: ticks(0), length: ticks(total), repeat: 0, kind: 'cell' }],
  });
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

/** The most stages that are proposed at once. */
const MOST_STAGES = 12;
const MOST_PARTS = 8;

/**
 * The stages a phrase asks for, in the order they are played, each with its reason: from bare sticking through parts
 * and joins to the whole and its context. A good start for licks of a beat, fills of half a bar to a bar, grooves and
 * longer exercises; the player drops, adds and moves them.
 */
export function proposeStages(phrase: Pattern): readonly Stage[] {
  const bar = barTicks(phrase.meter);
  const stages: Stage[] = [];
  const add = (stage: NewStage): void => {
    stages.push({ ...stage, id: `s${stages.length + 1}` });
  };
  const hands = phrase.strokes.filter((s) => isHand(s.limb));
  const voices = new Set(hands.map((s) => s.voice));
  const levels = new Set(hands.map((s) => s.level));
  const roles = rolesOf(phrase);
  const keepsTime = roles.includes('timekeeping') && roles.includes('primary');
  const groove = keepsTime && phrase.length >= bar && phrase.start === 0;
  if (groove) {
    add({
      kind: 'skeleton',
      title: 'The skeleton',
      why: 'Kick, backbeat and accents alone: what the groove stands on.',
      short: true,
    });
    add({
      kind: 'no-time',
      title: 'Without the timekeeping',
      why: 'The hand that keeps time comes in last, when the rest is sure.',
      short: true,
    });
  } else if (voices.size > 1 || levels.size > 1 || hands.some((s) => s.ornament)) {
    add({
      kind: 'bare',
      title: 'Bare sticking, one surface',
      why: 'The hands learn the order before they learn the ways.',
      short: true,
    });
    if (levels.size > 1)
      add({
        kind: 'dynamics',
        title: 'Accents and ghosts, one surface',
        why: 'Heights of the stick, without moving round the kit.',
        short: true,
      });
  }
  // So many that the whole always has its place among those that are proposed.
  partStages(phrase).slice(0, MOST_PARTS).forEach(add);
  add({ kind: 'whole', title: 'The whole phrase', why: 'All of it, on the kit, up to the goal.', short: false });
  if (!phrase.strokes.some((s) => s.limb === 'H') && !groove && phrase.length >= bar)
    add({
      kind: 'steady-foot',
      title: 'With a steady foot',
      why: 'The hi-hat foot on every beat shows whether the time holds without thinking.',
      short: true,
    });
  if (!groove && phrase.length <= 2 * bar) {
    const bars = phrase.length + phrase.start <= bar ? (phrase.length <= bar / 2 ? 1 : 3) : 2;
    add({
      kind: 'context',
      title:
        bars === 1 ? 'One bar of time, then the fill' : `${bars === 2 ? 'Two' : 'Three'} bars of time, then the fill`,
      why: 'A fill is known when it comes out of time and lands on the next 1.',
      bars,
      short: false,
    });
  }
  return stages.slice(0, MOST_STAGES);
}

/** Growth: four moments first, then four more at a time, up to the whole. */
export function growthStages(phrase: Pattern, each: 1 | 4): readonly Stage[] {
  const at = [...new Set(phrase.strokes.map((s) => s.at))];
  const ends = at.flatMap((_, i) => ((i + 1) % each === 0 || i === at.length - 1 ? [at[i + 1] ?? phrase.length] : []));
  return ends.slice(0, 24).map((until, i) => ({
    id: `g${i + 1}`,
    kind: 'grow',
    title: each === 1 ? `The first ${i + 1}` : `The first ${Math.min(at.length, (i + 1) * each)}`,
    why: each === 1 ? 'One stroke more each time: no stroke is hurried past.' : 'Four more each time.',
    until,
    short: true,
  }));
}

/** The stage that takes a tight spot out of a phrase: the beat before it and the beat it stands in. */
export function tightStage(phrase: Pattern, at: number, id: string): Stage {
  const beat = beatTicks(phrase.meter);
  const inBar = phrase.start % beat;
  const begins = Math.floor((at + inBar) / beat) * beat - inBar;
  return {
    id,
    kind: 'tight',
    title: 'The tight spot',
    why: 'The two strokes that come too near each other, with the beat that leads to them.',
    from: Math.max(0, begins - beat),
    until: Math.min(phrase.length, begins + beat),
    short: true,
  };
}
