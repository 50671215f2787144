import { Type, type Static } from '@sinclair/typebox';
import { idSchema, stableJson, TimeSchema } from '../base';
import { HitSchema } from '../take';
import { TEMPO } from '../time';

export const SITTING_LIMITS = Object.freeze({
  /** Sittings that are kept, and hits of one and of all: the oldest lose theirs first. */
  sittings: 500,
  hits: 30_000,
  allHits: 60_000,
  came: 2000,
  figures: 24,
  calls: 1000,
  letters: 600,
  seconds: 6 * 60 * 60,
});

/** How a sitting was played: freely, called, in turns with the machine, or found in a recording. */
export const SITTING_KINDS = ['free', 'calls', 'trading', 'record'] as const;
export type SittingKind = (typeof SITTING_KINDS)[number];
/** By what it was heard. */
export const SITTING_SOURCES = ['keys', 'midi', 'microphone', 'simulated', 'record', 'ear'] as const;
export type SittingSource = (typeof SITTING_SOURCES)[number];

const tick = Type.Integer({ minimum: -10_000_000, maximum: 1_000_000_000 });
const share = Type.Number({ minimum: 0, maximum: 1 });
const strokes = Type.Integer({ minimum: 0, maximum: 20_000 });

/** A phrase that was recognised. Ticks are from the first bar line. */
const KeptCameSchema = Type.Object({
  phrase: idSchema(),
  or: Type.Array(idSchema(), { maxItems: 40 }),
  at: tick,
  from: tick,
  until: tick,
  chance: share,
  struck: strokes,
  of: strokes,
  swapped: Type.Union([Type.Boolean(), Type.Null()]),
});
export type KeptCame = Static<typeof KeptCameSchema>;

/** Something that came three times or more and is no phrase: as stroke text on a grid, where it begins in the bar. */
const KeptFigureSchema = Type.Object({
  text: Type.String({ minLength: 1, maxLength: 4000 }),
  grid: Type.Integer({ minimum: 60, maximum: 40_320 }),
  start: tick,
  at: Type.Array(tick, { minItems: 1, maxItems: 500 }),
  exact: Type.Boolean(),
});
export type KeptFigure = Static<typeof KeptFigureSchema>;

/** A phrase that was called: for which tick, whether it came, and clean; null where nobody said. */
const KeptCallSchema = Type.Object({
  phrase: idSchema(),
  due: tick,
  came: Type.Union([Type.Literal('at once'), Type.Literal('late'), Type.Literal('not at all')]),
  clean: Type.Union([Type.Boolean(), Type.Null()]),
});
export type KeptCall = Static<typeof KeptCallSchema>;

/**
 * What was played freely, as its hits, and what was recognised in it. Hits are in seconds from the first bar line, at
 * an even tempo in counted beats a minute: where it was found under the playing they were laid on it. One that was
 * dropped is remembered as dropped, so that another device does not bring it back.
 */
export const FreeSittingSchema = Type.Object({
  id: idSchema(),
  kind: Type.Unsafe<SittingKind>({ type: 'string', enum: [...SITTING_KINDS] }),
  at: TimeSchema,
  seconds: Type.Number({ minimum: 0, maximum: SITTING_LIMITS.seconds }),
  meter: Type.String({ minLength: 3, maxLength: 100 }),
  bpm: Type.Number({ minimum: TEMPO.least, maximum: TEMPO.most }),
  /** Whether the tempo was found under the playing. */
  found: Type.Boolean(),
  source: Type.Unsafe<SittingSource>({ type: 'string', enum: [...SITTING_SOURCES] }),
  groove: Type.Union([idSchema(), Type.Null()]),
  /** Against how many phrases it was read; 0 where it was not. */
  against: Type.Integer({ minimum: 0, maximum: 100_000 }),
  hits: Type.Array(HitSchema, { maxItems: SITTING_LIMITS.hits }),
  /** How many were heard, of which those above are left. */
  heard: Type.Integer({ minimum: 0, maximum: 10_000_000 }),
  came: Type.Array(KeptCameSchema, { maxItems: SITTING_LIMITS.came }),
  figures: Type.Array(KeptFigureSchema, { maxItems: SITTING_LIMITS.figures }),
  calls: Type.Array(KeptCallSchema, { maxItems: SITTING_LIMITS.calls }),
  changed: TimeSchema,
  dropped: Type.Optional(Type.Boolean()),
});
export type FreeSitting = Static<typeof FreeSittingSchema>;

/**
 * Those sittings that are kept, the newest first: as many as there is room for, and of the hits the newest. Those that
 * were dropped hold nothing any more.
 */
export function keptSittings(all: readonly FreeSitting[]): readonly FreeSitting[] {
  const newest = [...all].sort((a, b) => b.at - a.at || (a.id < b.id ? -1 : 1));
  let room: number = SITTING_LIMITS.allHits;
  return newest.slice(0, SITTING_LIMITS.sittings).map((s) => {
    if (s.dropped) return { ...s, hits: [], came: [], figures: [], calls: [] };
    if (s.hits.length <= room) {
      room -= s.hits.length;
      return s;
    }
    room = 0;
    return { ...s, hits: [] };
  });
}

/** One sitting of two devices: the one changed later. Hits that only one has any more stay. */
export function laterSitting(a: FreeSitting, b: FreeSitting): FreeSitting {
  const [later, other] =
    a.changed > b.changed || (a.changed === b.changed && stableJson(a) >= stableJson(b)) ? [a, b] : [b, a];
  return later.dropped || later.hits.length > 0 ? later : { ...later, hits: other.hits };
}
