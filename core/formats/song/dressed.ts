import { footOf, LEVEL_DEFAULTS, type Level, type Ornament } from '../../stroke';
import type { SongNote } from './song';

/** Notes as played out, in seconds: a grace stroke lies within so many seconds before its stroke, and is softer. */
const GRACE = { within: 0.045, softer: 0.8 } as const;
/** Bounces of a buzz follow each other within so many seconds, and get softer. */
const BOUNCE = { within: 0.05, least: 3 } as const;
const GRACES: readonly (Ornament | null)[] = [null, 'flam', 'drag', 'ruff'];

/**
 * Notes as they were played, with grace strokes and bounces gathered into the ornaments they are, and a level to each.
 * `secondsPerTick` says how long a tick lasts. Notes that say their level or ornament themselves are left as they are.
 */
export function dressed(notes: readonly SongNote[], secondsPerTick: number): readonly SongNote[] {
  const gathered = graces(bounces(notes, secondsPerTick), secondsPerTick);
  const level = levelsOf(gathered);
  return gathered.map((n) => ({ ...n, level: n.level ?? level(n.velocity) }));
}

function hands(n: SongNote): boolean {
  return n.voice !== null && footOf(n.voice) === null && n.ornament === undefined;
}

function bounces(notes: readonly SongNote[], spt: number): readonly SongNote[] {
  const gone = new Set<SongNote>();
  const buzzed = new Map<SongNote, Ornament>();
  notes.forEach((n, i) => {
    if (gone.has(n) || !hands(n)) return;
    const after: SongNote[] = [];
    let last = n;
    for (let k = i + 1; k < notes.length; k++) {
      const next = notes[k];
      if (!next || (next.at - last.at) * spt > BOUNCE.within) break;
      if (next.voice !== n.voice || next.at === last.at || next.limb) continue;
      if (next.velocity >= last.velocity) break;
      after.push(next);
      last = next;
    }
    if (after.length < BOUNCE.least) return;
    after.forEach((a) => gone.add(a));
    buzzed.set(n, 'buzz');
  });
  return notes.filter((n) => !gone.has(n)).map((n) => withOrnament(n, buzzed.get(n)));
}

function graces(notes: readonly SongNote[], spt: number): readonly SongNote[] {
  const gone = new Set<SongNote>();
  const out = new Map<SongNote, { readonly ornament: Ornament; readonly from: SongNote }>();
  for (let i = notes.length - 1; i >= 0; i--) {
    const main = notes[i];
    if (!main || gone.has(main) || !hands(main)) continue;
    const before: SongNote[] = [];
    let next = main;
    for (let k = i - 1; k >= 0 && before.length < 3; k--) {
      const n = notes[k];
      if (!n || (next.at - n.at) * spt > GRACE.within) break;
      if (n.at === next.at || !hands(n) || gone.has(n)) continue;
      // A note whose limb the file says is a stroke of its own.
      if (n.limb) break;
      if (n.velocity > main.velocity * GRACE.softer) break;
      before.push(n);
      next = n;
    }
    const ornament = GRACES[before.length];
    const [from] = before;
    if (!ornament || !from) continue;
    before.forEach((n) => gone.add(n));
    out.set(main, { ornament, from });
  }
  return notes.filter((n) => !gone.has(n)).map((n) => withOrnament(n, out.get(n)?.ornament, out.get(n)?.from));
}

function withOrnament(n: SongNote, ornament?: Ornament, from?: SongNote): SongNote {
  if (!ornament) return n;
  const grace = from?.voice ? { grace: from.voice } : {};
  return { ...n, ornament, ...grace };
}

/**
 * The level of a velocity, by halves between the usual ones. Where a file has no middle, as when all is at 100, what it
 * has most of are taps, and accents and ghosts stand well over and under that.
 */
function levelsOf(notes: readonly SongNote[]): (velocity: number) => Level {
  const { ghost, tap, accent } = LEVEL_DEFAULTS;
  const [low, high] = [(ghost.velocity + tap.velocity) / 2, (tap.velocity + accent.velocity) / 2];
  const absolute = (v: number): Level => (v < low ? 'ghost' : v < high ? 'tap' : 'accent');
  if (notes.length === 0 || notes.some((n) => absolute(n.velocity) === 'tap')) return absolute;
  const many = new Map<number, number>();
  for (const n of notes) many.set(n.velocity, (many.get(n.velocity) ?? 0) + 1);
  const most = [...many].reduce((a, b) => (b[1] > a[1] ? b : a))[0];
  return (v) => (v < most * 0.65 ? 'ghost' : v > most * 1.15 ? 'accent' : 'tap');
}
