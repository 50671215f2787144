import { barTicks } from '../time';
import { isHand } from '../stroke';
import { untilLanding } from '../pattern';
import type { Played } from './ground';
import { likenessAt, playedOn, shareAlike } from './likeness';
import { LEAST_STROKES, type UsablePhrase } from './profile';
import type { Came } from './recognise';
import type { Lattice } from './lattice';

/** So like a phrase a bar is, and so many of its hands are on their pieces, to be a turn of it. */
const ALIKE = 0.84;
const OWN_PIECES = 0.7;
/** So many turns after each other keep time, with so many bars of something else between two of them at most. */
const TURNS = 4;
const BETWEEN = 2;
/** As sure as this it is said. */
const SURE = 0.95;
/** Bars that are looked at before a phrase is given up. */
const SAMPLE = 16;

/**
 * Phrases of the shelf that kept time: played round and round from bar line to bar line, four times at least, fills
 * between. What is played all the time is the player's own background, which is why it is looked for by itself. Each
 * comes once for a stretch, from its first turn to its last; of phrases that are as like the first is named with the
 * others beside it.
 * @example
 * keptTime([], { hits: [], meter: meter(4, 4), bpm: 100 }) // => []
 */
export function keptTime(known: readonly UsablePhrase[], played: Played): readonly Came[] {
  const bar = barTicks(played.meter);
  const lattices = new Map<string, Lattice | null>();
  const found: Came[] = [];
  for (const one of known) {
    const { pattern } = one;
    const own = untilLanding(pattern);
    const whole = own.length > 0 && own.length % bar === 0 && pattern.start % bar === 0 && own.length <= 4 * bar;
    if (!whole || own.strokes.length < LEAST_STROKES || barTicks(pattern.meter) !== bar) continue;
    const key = JSON.stringify([pattern.grid, pattern.feel]);
    if (!lattices.has(key)) lattices.set(key, playedOn(played, pattern));
    const lattice = lattices.get(key);
    if (!lattice) continue;
    found.push(...stretchesOf(one, lattice, bar));
  }
  return oneOfEach(found);
}

interface Turn {
  readonly at: number;
  readonly struck: number;
  readonly of: number;
}

function stretchesOf({ id, pattern }: UsablePhrase, lattice: Lattice, bar: number): readonly Came[] {
  const own = untilLanding(pattern);
  const bars = Math.floor((lattice.slots.length * lattice.grid) / bar);
  const turns: Turn[] = [];
  for (let b = 0; b < bars; b++) {
    if (b === SAMPLE && turns.length === 0) return [];
    const at = b * bar;
    if (turns.length > 0 && at < (turns.at(-1)?.at ?? 0) + own.length) continue;
    const like = likenessAt(pattern, lattice, at);
    if (shareAlike(like) < ALIKE || !onOwnPieces(pattern, lattice, at)) continue;
    turns.push({ at, struck: like.both, of: like.both + like.missing });
  }
  const runs: Turn[][] = [];
  for (const turn of turns) {
    const run = runs.at(-1);
    const last = run?.at(-1);
    if (run && last && turn.at - (last.at + own.length) <= BETWEEN * bar) run.push(turn);
    else runs.push([turn]);
  }
  return runs.flatMap((run): Came[] => {
    const [first, last] = [run[0], run.at(-1)];
    if (!first || !last || run.length < TURNS) return [];
    const sum = (of: (t: Turn) => number): number => run.reduce((n, t) => n + of(t), 0);
    return [
      {
        id,
        or: [],
        at: first.at,
        from: first.at,
        until: last.at + own.length,
        chance: SURE + (1 - SURE) * Math.min(1, run.length / 16),
        struck: sum((t) => t.struck),
        of: sum((t) => t.of),
        swapped: null,
      },
    ];
  });
}

/** Whether most hands are on the pieces that are written, where pieces are told. */
function onOwnPieces(pattern: UsablePhrase['pattern'], lattice: Lattice, at: number): boolean {
  let [own, told] = [0, 0];
  for (const s of untilLanding(pattern).strokes) {
    if (!isHand(s.limb)) continue;
    const hits = (lattice.slots[Math.round((at + s.at) / lattice.grid)] ?? []).filter((h) => h.voice !== null);
    if (hits.length === 0) continue;
    told++;
    if (hits.some((h) => h.voice === s.voice)) own++;
  }
  return told === 0 || own / told >= OWN_PIECES;
}

/** Of stretches that overlap the one with the most strokes; what is about as like stands beside it. */
function oneOfEach(found: readonly Came[]): readonly Came[] {
  const taken: Came[] = [];
  for (const one of [...found].sort((a, b) => b.struck - a.struck || (a.id < b.id ? -1 : 1))) {
    const i = taken.findIndex((t) => one.from < t.until && t.from < one.until);
    const other = taken[i];
    if (!other) taken.push(one);
    else if (one.struck >= 0.97 * other.struck) taken[i] = { ...other, or: [...new Set([...other.or, one.id])] };
  }
  return taken.sort((a, b) => a.from - b.from);
}

/**
 * All that came, in order: what kept time once for a stretch, and what came in it, without its turns one by one.
 * @example
 * withKeptTime([], []) // => []
 */
export function withKeptTime(came: readonly Came[], kept: readonly Came[]): readonly Came[] {
  const isTurn = (c: Came): boolean =>
    kept.some((k) => [k.id, ...k.or].includes(c.id) && c.from < k.until && k.from < c.until);
  return [...kept, ...came.filter((c) => !isTurn(c))].sort((a, b) => a.from - b.from);
}
