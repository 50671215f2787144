import { Type, type Static } from '@sinclair/typebox';
import { checksumOf, idSchema, stableJson, TimeSchema } from '../base';
import { SWING, TEMPO } from '../time';

export const SHOW_LIMITS = Object.freeze({
  shows: 60,
  kept: 200,
  cues: 200,
  spots: 24,
  letters: 120,
  note: 500,
  bars: 400,
  /** Counts in a spot that must be hit, and that are left alone. */
  counts: 32,
  /** How many earlier states of a show are kept. */
  states: 20,
});

/** What a spot is for. */
export const SPOT_KINDS = ['fill', 'lick', 'groove'] as const;
export type SpotKind = (typeof SPOT_KINDS)[number];
/** Where a phrase in a spot has to land. */
export const SPOT_LANDS = ['any', 'crash', 'kick'] as const;
/** What became of a spot on the night. */
export const WENT = ['clean', 'messy', 'left out'] as const;
export type Went = (typeof WENT)[number];

/** Longest bar in ticks: 32 half notes. */
const MOST_BAR = 322_560;
const countsIn = Type.Array(Type.Integer({ minimum: 0, maximum: 16 * MOST_BAR }), { maxItems: SHOW_LIMITS.counts });

/** A spot of a cue. Ticks: `from` behind the bar line of its bar; hits and what is left alone behind its start. */
export const SpotSchema = Type.Object({
  id: idSchema(),
  what: Type.Unsafe<SpotKind>({ type: 'string', enum: [...SPOT_KINDS] }),
  /** The bar of the cue it begins in, from 1. */
  bar: Type.Integer({ minimum: 1, maximum: SHOW_LIMITS.bars }),
  from: Type.Integer({ minimum: 0, maximum: MOST_BAR }),
  length: Type.Integer({ minimum: 1, maximum: SHOW_LIMITS.bars * MOST_BAR }),
  hits: countsIn,
  free: countsIn,
  lands: Type.Unsafe<(typeof SPOT_LANDS)[number]>({ type: 'string', enum: [...SPOT_LANDS] }),
  /** The phrase that is played there, and whether it was chosen by hand. */
  phrase: Type.Union([idSchema(), Type.Null()]),
  pinned: Type.Boolean(),
  went: Type.Optional(Type.Unsafe<Went>({ type: 'string', enum: [...WENT] })),
});
export type Spot = Static<typeof SpotSchema>;

const CueFeelSchema = Type.Union([
  Type.Object({ kind: Type.Literal('straight') }),
  Type.Object({
    kind: Type.Literal('swung'),
    on: Type.Union([Type.Literal('eighths'), Type.Literal('16ths')]),
    ratio: Type.Number({ minimum: SWING.least, maximum: SWING.most }),
  }),
]);

/** A cue: what is played from one count-in on. The tempo is in counted beats a minute. */
export const CueSchema = Type.Object({
  id: idSchema(),
  name: Type.String({ minLength: 1, maxLength: SHOW_LIMITS.letters, pattern: '\\S' }),
  tempo: Type.Number({ minimum: TEMPO.least, maximum: TEMPO.most }),
  meter: Type.String({ minLength: 3, maxLength: 100, pattern: '^\\d{1,2}/\\d{1,2}( \\d{1,2}(\\+\\d{1,2})*)?$' }),
  feel: CueFeelSchema,
  /** The subdivision on which its spots are played; null for any. */
  grid: Type.Union([Type.Integer({ minimum: 60, maximum: 40_320 }), Type.Null()]),
  /** Bars, halves of one among them. */
  bars: Type.Number({ minimum: 0.5, maximum: SHOW_LIMITS.bars, multipleOf: 0.5 }),
  /** The phrase that keeps time, of the shelf. */
  groove: Type.Union([idSchema(), Type.Null()]),
  note: Type.String({ maxLength: SHOW_LIMITS.note }),
  spots: Type.Array(SpotSchema, { maxItems: SHOW_LIMITS.spots }),
});
export type Cue = Static<typeof CueSchema>;

/**
 * A show: cues in their order. The day is in days since 1970-01-01 on the player's own calendar. One that was dropped
 * is remembered as dropped, so that another device does not bring it back.
 */
export const ShowSchema = Type.Object({
  id: idSchema(),
  name: Type.String({ minLength: 1, maxLength: SHOW_LIMITS.letters, pattern: '\\S' }),
  place: Type.String({ maxLength: SHOW_LIMITS.letters }),
  day: Type.Union([Type.Integer({ minimum: 0, maximum: 84_005 }), Type.Null()]),
  /** How often one phrase may be played on the night. */
  most: Type.Integer({ minimum: 1, maximum: 9 }),
  cues: Type.Array(CueSchema, { maxItems: SHOW_LIMITS.cues }),
  changed: TimeSchema,
  dropped: Type.Optional(Type.Boolean()),
});
export type Show = Static<typeof ShowSchema>;

/** A show as it was once. Its id follows from what it holds, so that two devices give the same one to the same. */
export const ShowStateSchema = Type.Object({
  id: idSchema(120),
  show: idSchema(),
  at: TimeSchema,
  state: ShowSchema,
});
export type ShowState = Static<typeof ShowStateSchema>;

/**
 * The state under which a show as it stands is remembered.
 * @example
 * showState({ id: 'a', name: 'A', place: '', day: null, most: 2, cues: [], changed: 7 }).at // => 7
 */
export function showState(state: Show): ShowState {
  return {
    id: `${state.id}@${state.changed}-${checksumOf(stableJson(state))}`,
    show: state.id,
    at: state.changed,
    state,
  };
}

/** The later of two first: by time, and of the same time by id, so that every device orders them the same. */
const later = (a: ShowState, b: ShowState): number => b.at - a.at || (a.id < b.id ? 1 : a.id > b.id ? -1 : 0);

/**
 * What stands of a show, of all that is known of it, and its earlier states, the latest first: each once, without what
 * stands. Null where nothing is known.
 */
export function showOf(
  known: readonly ShowState[],
): { readonly stands: Show; readonly earlier: readonly ShowState[] } | null {
  const each = [...new Map(known.map((s) => [s.id, s])).values()].sort(later);
  const [latest, ...rest] = each;
  return latest ? { stands: latest.state, earlier: rest.slice(0, SHOW_LIMITS.states) } : null;
}

/** Those shows that are kept: those that are there, and of the dropped ones the newest that there is room for. */
export function keptShows(all: readonly Show[], more = 0): readonly Show[] {
  const newest = [...all].sort((a, b) => b.changed - a.changed || (a.id < b.id ? -1 : 1));
  return [...newest.filter((s) => !s.dropped), ...newest.filter((s) => s.dropped)].slice(0, SHOW_LIMITS.kept - more);
}
