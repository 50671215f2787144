import type { Limb } from '../stroke';
import { median } from '../base';
import { studentQuantile } from './quantile';

/** Matched strokes as they are compared: `off` in milliseconds, with the drift taken out. */
export interface Laid {
  readonly index: number;
  readonly limb: Limb;
  readonly off: number;
  /** Whether it falls on the second eighth of a beat, or the second 16th of an eighth. */
  readonly eighth: boolean;
  readonly sixteenth: boolean;
}

/** What is late (above 0) or early against the rest, by more than chance explains, in milliseconds. */
export type Fault =
  | { readonly kind: 'limb'; readonly limb: Limb; readonly off: number; readonly index: number | null }
  | { readonly kind: 'place'; readonly limb: Limb; readonly index: number; readonly off: number }
  | { readonly kind: 'swing'; readonly on: '8ths' | '16ths'; readonly off: number; readonly limb: Limb | null };

export interface Faults {
  readonly found: readonly Fault[];
  /** By how many milliseconds the rest is late, and how sure that is (one standard error). */
  readonly shift: number;
  readonly error: number;
  /** Spread of what is left when the faults are taken out, in milliseconds. */
  readonly scatter: number;
}

/**
 * How seldom chance alone may name any limb, any place, any swing in a take. Divided by how many could be named
 * (Bonferroni).
 */
const CHANCE = { limb: 0.002, place: 0.002, swing: 0.0015 } as const;
/** How far a player who is in time lies from the click, in milliseconds: it tells who of two limbs is the late one. */
const IN_TIME = 10;
/** Faults that are told apart in one take. */
const MOST = 4;
/** The least scatter that is believed, in milliseconds: below it every hair would be a fault. */
const LEAST_SCATTER = 1;
/** Swing needs so many strokes off the beat. */
const LEAST_SWUNG = 4;

interface Column {
  readonly fault: Fault;
  /** How many strokes of each place it moves: all or none. */
  readonly moves: readonly boolean[];
  readonly chance: number;
}

/**
 * Finds what explains a take best: one limb, one place of the loop, or the strokes off the beat being late or early by
 * about the same. The one that explains most is taken out if chance explains it too seldom, then the next is looked
 * for. Each place is compared by its mean, with the scatter pooled over all places; a limb is not blamed for one of its
 * places. Least squares with one step per fault, the whole held near the click; Student's t for what chance explains.
 */
export function faultsOf(points: readonly Laid[]): Faults {
  const places = new Map<number, Laid[]>();
  for (const p of points) {
    const own = places.get(p.index);
    if (own) own.push(p);
    else places.set(p.index, [p]);
  }
  const all = [...places.values()];
  const { scatter, degrees } = pooled(points, all);
  const rows = all.flatMap((own) => {
    const [first] = own;
    return first ? [{ ...first, many: own.length, off: own.reduce((sum, p) => sum + p.off, 0) / own.length }] : [];
  });
  const hold = (scatter / IN_TIME) ** 2;
  const columns = columnsOf(rows);
  let offs = rows.map((r) => r.off);
  const found: Fault[] = [];
  while (found.length < MOST && columns.length > 0) {
    const plain = fit(rows, offs, null, hold);
    const tried = columns.map((column) => {
      const own = fit(rows, offs, column.moves, hold);
      const t = Math.sqrt(Math.max(0, plain.rest - own.rest)) / scatter;
      return { column, own, t, sure: t / studentQuantile(1 - column.chance / 2, degrees) };
    });
    const [best] = tried.filter((c) => c.sure > 1).sort((x, y) => y.t - x.t);
    if (!best) break;
    found.push({ ...best.column.fault, off: best.own.step });
    offs = offs.map((off, i) => (best.column.moves[i] ? off - best.own.step : off));
    columns.splice(columns.indexOf(best.column), 1);
  }
  const { shift } = fit(rows, offs, null, 0);
  return { found, shift, error: scatter / Math.sqrt(Math.max(1, points.length)), scatter };
}

/**
 * The scatter of the same place from loop to loop, over all places; where there is one loop only, that round the median
 * of each limb, which a few odd ones do not move.
 */
function pooled(
  points: readonly Laid[],
  places: readonly (readonly Laid[])[],
): { readonly scatter: number; readonly degrees: number } {
  const degrees = points.length - places.length;
  if (degrees >= 3) {
    const sum = places.reduce((total, own) => {
      const middle = own.reduce((s, p) => s + p.off, 0) / own.length;
      return total + own.reduce((s, p) => s + (p.off - middle) ** 2, 0);
    }, 0);
    return { scatter: Math.max(LEAST_SCATTER, Math.sqrt(sum / degrees)), degrees };
  }
  const middles = new Map(
    [...new Set(points.map((p) => p.limb))].map((limb) => [
      limb,
      median(points.filter((p) => p.limb === limb).map((p) => p.off)),
    ]),
  );
  const off = points.map((p) => Math.abs(p.off - (middles.get(p.limb) ?? 0)));
  return { scatter: Math.max(LEAST_SCATTER * 3, 1.4826 * median(off)), degrees: Math.max(3, points.length / 2) };
}

type Row = Laid & { readonly many: number };

function columnsOf(rows: readonly Row[]): Column[] {
  const limbs = [...new Set(rows.map((r) => r.limb))];
  const byLimb = limbs.map((limb): Column => {
    const own = rows.filter((r) => r.limb === limb);
    const index = own.length === 1 ? (own[0]?.index ?? null) : null;
    return {
      fault: { kind: 'limb', limb, off: 0, index },
      moves: rows.map((r) => r.limb === limb),
      chance: CHANCE.limb / limbs.length,
    };
  });
  const byPlace = rows.map((own): Column => ({
    fault: { kind: 'place', limb: own.limb, index: own.index, off: 0 },
    moves: rows.map((r) => r === own),
    chance: CHANCE.place / rows.length,
  }));
  const bySwing = (['8ths', '16ths'] as const).flatMap((on): Column[] => {
    const moves = rows.map((r) => (on === '8ths' ? r.eighth : r.sixteenth));
    const many = rows.reduce((sum, r, i) => sum + (moves[i] ? r.many : 0), 0);
    const limb = limbs.find((l) => rows.every((r, i) => moves[i] === (r.limb === l))) ?? null;
    return many < LEAST_SWUNG || new Set(rows.filter((_, i) => moves[i]).map((r) => r.index)).size < 2
      ? []
      : [{ fault: { kind: 'swing', on, off: 0, limb }, moves, chance: CHANCE.swing }];
  });
  // Of two that move the same strokes the one that says more stands first.
  const seen = new Set<string>();
  return [...bySwing, ...byLimb, ...byPlace].filter(({ moves }) => {
    const key = moves.map((m) => (m ? 1 : 0)).join('');
    const all = moves.every((m) => m);
    return !all && !seen.has(key) && seen.add(key);
  });
}

/**
 * The least squares of one step over the whole: how late the whole is, how far what moves lies from it, and what is
 * left. `hold` draws the whole to the click, as so many strokes at 0 would.
 */
function fit(
  rows: readonly Row[],
  offs: readonly number[],
  moves: readonly boolean[] | null,
  hold: number,
): { readonly shift: number; readonly step: number; readonly rest: number } {
  let [n, z, sy, zy] = [0, 0, 0, 0];
  rows.forEach((r, i) => {
    const y = offs[i] ?? 0;
    n += r.many;
    sy += r.many * y;
    if (!moves?.[i]) return;
    z += r.many;
    zy += r.many * y;
  });
  const under = (n + hold) * z - z * z;
  const step = moves && under > 1e-9 ? ((n + hold) * zy - z * sy) / under : 0;
  const shift = n + hold > 0 ? (sy - z * step) / (n + hold) : 0;
  const rest =
    rows.reduce((sum, r, i) => {
      const off = (offs[i] ?? 0) - shift - (moves?.[i] ? step : 0);
      return sum + r.many * off * off;
    }, 0) +
    hold * shift * shift;
  return { shift, step, rest };
}
