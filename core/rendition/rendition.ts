import { checkedAt } from '../base';
import { barTicks, quarterTempo, secondsOf, type Schools } from '../time';
import type { OwnSyllables, Stroke } from '../stroke';
import {
  loopTicks,
  NOTHING_MUTED,
  rolesOf,
  unmuted,
  withGraces,
  type Finding,
  type Mute,
  type Pattern,
  type Role,
} from '../pattern';
import { revoice, type Kit } from '../kit';
import { stagePattern, stageTitle, stageWhy, type Stage } from '../drill';
import {
  callAndAnswer,
  playAt,
  programOf,
  silencesOf,
  type ClickGap,
  type ClickKind,
  type CountKind,
  type Dynamic,
  type PlayRequest,
  type Program,
} from '../playback';
import { expectedOf, type Expected } from './expect';

/** All that decides what is played. What is absent is as it usually is. */
export interface RenditionInputs {
  /** The phrase as it is written. */
  readonly phrase: Pattern;
  /** The stage of a drill; absent for the whole phrase. */
  readonly stage?: Stage | null;
  /** The phrase that keeps time in context, as it is written; plain time when absent or when it does not fit. */
  readonly groove?: Pattern | null;
  /** The kit it sounds on; absent for the voices as they are written. */
  readonly kit?: Kit | null;
  readonly mute?: Mute;
  readonly dynamic?: Dynamic;
  /** Every beat when absent. */
  readonly click?: ClickKind;
  /** Where the click falls silent. */
  readonly gap?: ClickGap | null;
  /** Who counts along, how counts are spoken, and the user's own syllables. */
  readonly counts?: CountKind | null;
  readonly schools?: Schools;
  readonly sung?: OwnSyllables;
  /** Bars of click before it begins. */
  readonly countInBars?: number;
  /** Bars of the record that is kept with the phrase: a stage with it sounds the record, not the phrase. */
  readonly record?: number | null;
  /** Only this part of what is played, in ticks from its start, round and round. */
  readonly range?: { readonly from: number; readonly until: number } | null;
}

/** One account of what is played: it is drawn, sounds, and is what a take is held against. */
export interface Rendition {
  /** What is played, on the voices it sounds on. */
  readonly pattern: Pattern;
  readonly program: Program;
  /** What had to give on this kit. */
  readonly findings: readonly Finding[];
  /** What it is called, and why it is played; no reason for a phrase that is only heard. */
  readonly words: { readonly title: string; readonly why: string };
  readonly gap: ClickGap | null;
  /** Whether it is said and not struck: every other turn is the player's own, and nothing is expected on a kit. */
  readonly said: boolean;
  /** Whether bars are open for the player's own: nothing is expected. */
  readonly open: boolean;
}

/**
 * What is played. The stage and what is muted follow the phrase as it is written, so that a pad, where all sounds
 * alike, changes nothing of who keeps time; then each voice goes where the kit has it.
 * @example
 * rendition({ phrase: patternOfText(parseStrokeText('R L K').value, meter(3, 4), GRID.quarters) }).pattern.strokes.length // => 3
 */
export function rendition(inputs: RenditionInputs): Rendition {
  const { phrase, stage = null, groove = null, kit = null, mute = NOTHING_MUTED, gap = null, range } = inputs;
  // Whose the grace strokes are is the phrase's as a whole: a hand that is muted or sent to a pad is where it was.
  const graced = withGraces(phrase);
  const whole = withGraces(stage ? stagePattern(stage, graced, groove) : graced);
  const written = unmuted(whole, mute);
  const { pattern, findings } = kit ? revoice(written, kit) : { pattern: written, findings: [] };
  // Many renditions are only drawn: what sounds is made when it is asked for.
  let made: Program | undefined;
  const said = stage?.kind === 'say';
  const counts = inputs.counts ?? (said ? 'spoken' : null);
  const make = (): Program => {
    const program = programOf(pattern, {
      click: inputs.click ?? 'beats',
      countInBars: inputs.countInBars ?? 0,
      dynamic: inputs.dynamic ?? 'medium',
      roles: rolesAsWritten(whole, pattern),
      ...(counts ? { counts } : {}),
      ...(inputs.schools ? { schools: inputs.schools } : {}),
      ...(inputs.sung ? { sung: inputs.sung } : {}),
      ...(gap ? { gap } : {}),
      ...(range ? { range } : {}),
      ...(stage?.kind === 'record' && inputs.record ? { record: inputs.record } : {}),
    });
    return said ? callAndAnswer(program) : program;
  };
  return {
    pattern,
    findings,
    gap,
    said,
    open: stage?.kind === 'free',
    words: stage
      ? { title: stageTitle(stage), why: stageWhy(stage, phrase) }
      : { title: stageTitle({ kind: 'whole' }), why: '' },
    get program() {
      return (made ??= make());
    },
  };
}

/** The role of each stroke that sounds, by what the phrase says of it; a foot that took over plays what was written. */
function rolesAsWritten(written: Pattern, sounding: Pattern): readonly Role[] {
  const known = new Map<string, Role>();
  const key = ({ at, limb }: Stroke): string => `${at} ${limb === 'J' ? 'K' : limb}`;
  const roles = rolesOf(written);
  written.strokes.forEach((s, i) => known.set(key(s), checkedAt(roles, i, 'role')));
  return sounding.strokes.map((s) => known.get(key(s)) ?? 'texture');
}

/** A rendition as the transport takes it, at a tempo in counted beats a minute. */
export function requestOf({ program, pattern }: Rendition, bpm: number): PlayRequest {
  return playAt(program, pattern.meter, bpm);
}

/**
 * What turns of a rendition expect of a player, in seconds from its first bar line, at a tempo in counted beats a
 * minute; nothing where it is said and not struck, or open.
 */
export function expectedIn(
  { pattern, said, open }: Rendition,
  bpm: number,
  first: number,
  turns: number,
): readonly Expected[] {
  return said || open ? [] : expectedOf(pattern, quarterTempo(bpm, pattern.meter), first, turns);
}

/** How long a turn, a slot, a counted beat and a tick last, in seconds, at a tempo in counted beats a minute. */
export function lengthsAt(
  { pattern }: Rendition,
  bpm: number,
): {
  readonly turn: number;
  readonly slot: number;
  readonly beat: number;
  readonly tick: number;
} {
  const quarters = quarterTempo(bpm, pattern.meter);
  return {
    turn: secondsOf(loopTicks(pattern), quarters),
    slot: secondsOf(pattern.grid, quarters),
    beat: 60 / bpm,
    tick: secondsOf(1, quarters),
  };
}

/** The stretches of so many turns in which the click is silent, in seconds from the first bar line. */
export function silencesIn(
  { pattern, gap }: Rendition,
  bpm: number,
  turns: number,
): readonly { readonly from: number; readonly until: number }[] {
  const bars = Math.ceil((turns * loopTicks(pattern)) / barTicks(pattern.meter));
  return silencesOf(pattern.meter, gap, quarterTempo(bpm, pattern.meter), bars);
}
