import { Type, type Static } from '@sinclair/typebox';
import { idSchema, TimeSchema } from '../base';
import { VOICES, type Voice } from '../stroke';
import { HEARD_KINDS, type HeardKind } from './which-drum';

/** Seconds of a recording, and ticks of a grid that lies on it. */
const SecondsSchema = Type.Number({ minimum: -7200, maximum: 7200 });
const TickSchema = Type.Number({ minimum: -1e9, maximum: 1e9 });
const KindsSchema = Type.Unsafe<readonly HeardKind[]>({
  type: 'array',
  items: { type: 'string', enum: [...HEARD_KINDS] },
  minItems: 1,
  maxItems: HEARD_KINDS.length,
});
const VoiceSchema = Type.Unsafe<Voice>({ type: 'string', enum: [...VOICES] });
const MarksSchema = Type.Array(Type.Object({ tick: TickSchema, at: SecondsSchema }), { minItems: 2, maxItems: 4000 });
const MeterSchema = Type.String({ minLength: 3, maxLength: 80 });

/** What was worked out from a recording so far. */
export const HeardWorkSchema = Type.Object({
  /** The lick, in seconds. */
  lick: Type.Union([Type.Object({ from: SecondsSchema, to: SecondsSchema }), Type.Null()]),
  meter: MeterSchema,
  marks: Type.Union([MarksSchema, Type.Null()]),
  said: Type.Array(
    Type.Object({
      at: SecondsSchema,
      gone: Type.Optional(Type.Literal(true)),
      kinds: Type.Optional(KindsSchema),
      level: Type.Optional(Type.Union([Type.Literal('ghost'), Type.Literal('tap'), Type.Literal('accent')])),
      hand: Type.Optional(Type.Union([Type.Literal('R'), Type.Literal('L')])),
      slot: Type.Optional(TickSchema),
    }),
    { maxItems: 5000 },
  ),
  added: Type.Array(SecondsSchema, { maxItems: 5000 }),
  pieces: Type.Object({ kick: VoiceSchema, drum: VoiceSchema, cymbal: VoiceSchema }),
  /** Which of the ways to lay it on a grid. */
  way: Type.Integer({ minimum: 0, maximum: 20 }),
  school: Type.Union([Type.String({ maxLength: 40 }), Type.Null()]),
  /** Where it was heard, in the player’s own words. */
  from: Type.String({ maxLength: 200 }),
});
export type HeardWork = Static<typeof HeardWorkSchema>;

/** A recording that is being listened to, kept so that a reload loses nothing. The sound is the file as it came. */
export const ListeningSchema = Type.Object({
  id: idSchema(80),
  at: TimeSchema,
  name: Type.String({ maxLength: 300 }),
  sound: Type.Unknown(),
  work: HeardWorkSchema,
});
export type Listening = Static<typeof ListeningSchema>;

/** How much of a record is kept with a phrase, and how finely. */
export const CLIP_LIMITS = Object.freeze({ seconds: 16, rate: 32_000, clips: 20 });
const MOST_LETTERS = Math.ceil((CLIP_LIMITS.seconds * CLIP_LIMITS.rate * 2) / 3) * 4;

/** The bars of a record from which a phrase was taken, kept with it: 16-bit samples as base64. */
export const ClipSchema = Type.Object({
  /** That of the phrase. */
  id: idSchema(),
  at: TimeSchema,
  /** Where it was heard. */
  from: Type.String({ maxLength: 200 }),
  rate: Type.Integer({ minimum: 8000, maximum: 48_000 }),
  samples: Type.String({ maxLength: MOST_LETTERS, pattern: '^[A-Za-z0-9+/]*={0,2}$' }),
  meter: MeterSchema,
  bars: Type.Integer({ minimum: 1, maximum: 64 }),
  /** The grid as it lies on the samples, from their beginning. */
  marks: MarksSchema,
});
export type Clip = Static<typeof ClipSchema>;

/**
 * Samples as 16 bits in base64, and back.
 * @example
 * samplesOf(lettersOf(Float32Array.from([0, 0.5, -1]))).length // => 3
 */
export function lettersOf(samples: Float32Array): string {
  const bytes = new Uint8Array(samples.length * 2);
  const view = new DataView(bytes.buffer);
  samples.forEach((x, i) => view.setInt16(2 * i, Math.round(Math.max(-1, Math.min(1, x)) * 32_767), true));
  const letters: string[] = [];
  for (let i = 0; i < bytes.length; i += 3) {
    const [a, b, c] = [bytes[i] ?? 0, bytes[i + 1], bytes[i + 2]];
    const n = (a << 16) | ((b ?? 0) << 8) | (c ?? 0);
    letters.push(
      `${sign(n >> 18)}${sign((n >> 12) & 63)}${b === undefined ? '=' : sign((n >> 6) & 63)}${c === undefined ? '=' : sign(n & 63)}`,
    );
  }
  return letters.join('');
}

const SIGNS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';
function sign(n: number): string {
  return SIGNS[n] ?? 'A';
}

/** The samples of such letters; letters that are none count as nothing. */
export function samplesOf(letters: string): Float32Array<ArrayBuffer> {
  const clean = letters.replace(/=+$/, '');
  const bytes = new Uint8Array(Math.floor((clean.length * 3) / 4));
  for (let i = 0, to = 0; i < clean.length; i += 4) {
    const [a, b, c, d] = [0, 1, 2, 3].map((k) => Math.max(0, SIGNS.indexOf(clean[i + k] ?? 'A')));
    const n = ((a ?? 0) << 18) | ((b ?? 0) << 12) | ((c ?? 0) << 6) | (d ?? 0);
    for (const byte of [n >> 16, n >> 8, n]) if (to < bytes.length) bytes[to++] = byte & 255;
  }
  const view = new DataView(bytes.buffer);
  return Float32Array.from({ length: Math.floor(bytes.length / 2) }, (_, i) => view.getInt16(2 * i, true) / 32_767);
}

/**
 * A sound at a lower rate: each sample is the mean of those it stands for.
 * @example
 * thinned(Float32Array.from([1, 1, 0, 0]), 4, 2) // => Float32Array.from([1, 0])
 */
export function thinned(samples: Float32Array, from: number, to: number): Float32Array<ArrayBuffer> {
  if (to >= from) return Float32Array.from(samples);
  const step = from / to;
  return Float32Array.from({ length: Math.floor(samples.length / step) }, (_, i) => {
    const [begin, end] = [i * step, (i + 1) * step];
    let [whole, weight] = [0, 0];
    for (let k = Math.floor(begin); k < end; k++) {
      const share = Math.min(k + 1, end) - Math.max(k, begin);
      whole += share * (samples[k] ?? 0);
      weight += share;
    }
    return whole / weight;
  });
}
