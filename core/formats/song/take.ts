import { count, listed } from '../../base';
import { barTicks, GRID, STRAIGHT, ticks, USUAL_SCHOOLS, type Schools } from '../../time';
import { canStrike, footOf, VOICE, type Hand, type Stroke } from '../../stroke';
import { plainGraces, MOST_STROKES, type Pattern } from '../../pattern';
import type { Kit } from '../../kit';
import type { Able } from '../../reach';
import { stickings } from '../../sticking';
import { gridChoices, onGrid, type GridChoice } from '../../listen';
import { notesOfBars } from './bars';
import type { Song, SongNote } from './song';

/** Bars of a song as a pattern, with what had to be decided for it. */
export interface TakenBars {
  readonly pattern: Pattern;
  /** Why these hands, or that the file says them. */
  readonly hands: readonly string[];
  /** What is not taken over, in words. */
  readonly left: readonly string[];
}

/** What a taking of bars rests on. */
export interface TakeWish {
  /** How it is laid on a grid; null for where notes stand, as in a score. */
  readonly choice: GridChoice | null;
  readonly kit: Kit;
  readonly profile: Able;
  /** Counted beats a minute at which the hands are found. */
  readonly bpm: number;
  readonly schools?: Schools;
}

/** The ways to lay some bars on a grid, the most likely first. */
export function choicesFor(song: Song, from: number, many: number): readonly GridChoice[] {
  const bar = song.bars[from];
  if (!bar) return [];
  const notes = notesOfBars(song, from, many);
  return gridChoices(
    notes.map((n) => n.at),
    bar.meter,
    many * barTicks(bar.meter),
    60_000 / song.bpm / 5040,
  );
}

/**
 * Some bars of one meter as a pattern: notes on their slots, feet by their voices, hands by what the file says and else
 * by the search. Null where there are no such bars or nothing in them.
 */
export function takeBars(song: Song, from: number, many: number, wish: TakeWish): TakenBars | null {
  const bar = song.bars[from];
  if (!bar) return null;
  const { choice } = wish;
  const { meter } = bar;
  const length = ticks(many * barTicks(meter));
  const left: string[] = [];
  const all = notesOfBars(song, from, many);
  const silent = all.filter((n) => n.voice === null);
  if (silent.length > 0) {
    const sounds = [...new Set(silent.map((n) => n.sound))].sort();
    left.push(`${count(silent.length, 'note')} on ${listed(sounds.slice(0, 6))}: no drum or cymbal is set for it.`);
  }
  const laid = all.flatMap((n): SongNote[] =>
    n.voice === null ? [] : [{ ...n, at: choice ? onGrid(n.at, { ...choice, meter }) : Math.round(n.at) }],
  );
  const over = laid.filter((n) => n.at >= length);
  if (over.length > 0) left.push(`${count(over.length, 'note')} on the 1 after the last bar.`);
  const inside = laid.filter((n) => n.at < length);
  const [strokes, pins] = strokesOf(inside, left);
  if (strokes.length === 0 || strokes.length > MOST_STROKES) return null;
  const found = { grid: choice?.grid ?? gridOf(strokes), feel: choice?.feel ?? song.feel ?? STRAIGHT };
  const pattern: Pattern = {
    meter,
    ...found,
    start: ticks(0),
    length,
    strokes,
    groups: [{ at: ticks(0), length, repeat: 0, kind: 'cell' }],
  };
  const stuck = handed(pattern, pins, wish);
  return { ...stuck, pattern: plainGraces(stuck.pattern), left };
}

/** Notes as strokes, one to a limb and moment, with the hands that the file says; the softest of three hands goes. */
function strokesOf(notes: readonly SongNote[], left: string[]): [Stroke[], Map<number, Hand>] {
  const byTick = new Map<number, SongNote[]>();
  for (const n of notes) byTick.set(n.at, [...(byTick.get(n.at) ?? []), n]);
  const strokes: Stroke[] = [];
  const pins = new Map<number, Hand>();
  let many = 0;
  for (const [at, together] of [...byTick].sort((a, b) => a[0] - b[0])) {
    const taken = new Set<string>();
    const put = (n: SongNote, limb: Stroke['limb']): void => {
      const voice = n.voice ?? 'snare';
      const orn = n.ornament && footOf(voice) === null ? n.ornament : undefined;
      if (n.limb === 'R' || n.limb === 'L') pins.set(strokes.length, n.limb);
      taken.add(limb);
      strokes.push({
        at: ticks(at),
        limb,
        voice,
        level: n.level ?? 'tap',
        ...(orn ? { ornament: orn, ...(n.grace && orn !== 'buzz' ? { grace: n.grace } : {}) } : {}),
        from: { index: 0, repeat: 0, move: null },
      });
    };
    // Feet in the order of limbs, hands as the file has them, then the loudest.
    const hands = together
      .filter((n) => n.voice && footOf(n.voice) === null)
      .sort((a, b) => Number(b.limb !== undefined) - Number(a.limb !== undefined) || b.velocity - a.velocity);
    for (const n of hands) {
      const said = n.limb === 'R' || n.limb === 'L' ? n.limb : null;
      const limb = said && !taken.has(said) ? said : !taken.has('R') ? 'R' : !taken.has('L') ? 'L' : null;
      if (limb) put({ ...n, ...(said && said !== limb ? { limb } : {}) }, limb);
      else many++;
    }
    for (const n of together) {
      if (!n.voice || footOf(n.voice) === null) continue;
      const foot = n.limb && canStrike(n.limb, n.voice) ? n.limb : (footOf(n.voice) ?? 'K');
      const limb = taken.has(foot) && foot === 'K' ? 'J' : foot;
      if (!taken.has(limb)) put(n, limb);
    }
  }
  if (many > 0) left.push(`${count(many, 'note')} would need a third hand: the softest are left out.`);
  const order = ['R', 'L', 'K', 'J', 'H'];
  const sorted = strokes
    .map((s, i) => ({ s, pin: pins.get(i) }))
    .sort((a, b) => a.s.at - b.s.at || order.indexOf(a.s.limb) - order.indexOf(b.s.limb));
  return [sorted.map((x) => x.s), new Map(sorted.flatMap(({ pin }, i) => (pin ? [[i, pin]] : [])))];
}

/** The hands of a pattern: said by the file, or found, with why. */
function handed(pattern: Pattern, pins: ReadonlyMap<number, Hand>, wish: TakeWish): Omit<TakenBars, 'left'> {
  const hands = pattern.strokes.filter((s) => s.limb === 'R' || s.limb === 'L').length;
  if (pins.size === hands) return { pattern, hands: hands > 0 ? ['The file says the hands.'] : [] };
  const { bpm, kit, profile, schools = USUAL_SCHOOLS } = wish;
  const { found, unplayable } = stickings(pattern, { bpm, kit, profile, pins, schools, many: 1, apart: 1 });
  // Where a hand keeps time through half of it, that hand keeps it; else hands alternate as far as they can.
  const timed = pattern.strokes.filter((s) => VOICE[s.voice].keepsTime && footOf(s.voice) === null).length;
  const wanted = timed * 2 >= new Set(pattern.strokes.map((s): number => s.at)).size ? 'time hand' : 'alternating';
  const best = found.find((f) => f.school === wanted && f.fits) ?? found.find((f) => f.fits) ?? found[0];
  if (!best) return { pattern, hands: unplayable.map((u) => u.words).slice(0, 3) };
  const how = pins.size > 0 ? `${pins.size} of ${hands} hands by the file, the rest` : 'Hands';
  return { pattern: best.pattern, hands: [`${how} found by the search (${best.school}): ${best.words.join(' · ')}`] };
}

/** The widest usual slot on which all strokes lie, else 16ths. */
function gridOf(strokes: readonly Stroke[]): Pattern['grid'] {
  const grids = [GRID.quarters, GRID.eighths, GRID.triplets, GRID.sixteenths, GRID.quintuplets, GRID.sextuplets];
  const more = [GRID.septuplets, GRID.thirtySeconds, ticks(560), ticks(420), ticks(315)];
  return [...grids, ...more].find((g) => strokes.every((s) => s.at % g === 0)) ?? GRID.sixteenths;
}

/** What a sound of a file is called: the voice it is on the map, or what the file calls it. */
export function soundWords({ voice, sound }: SongNote): string {
  return voice ? VOICE[voice].name : sound;
}
