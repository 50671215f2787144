import { VOICE, VOICES, type Voice } from './voice';

/** Which voice a MIDI key is, by its number as text. */
export type MidiMap = Readonly<Record<string, Voice>>;

/** General MIDI’s percussion key map, which most devices and programs follow until they are told otherwise. */
export const USUAL_MAP: MidiMap = Object.freeze(
  Object.fromEntries(VOICES.flatMap((v) => VOICE[v].midi.map((key) => [String(key), v]))),
);

/** The key of a snare, for what no map has. */
const SNARE = 38;

/**
 * The key of a voice on a map: the usual one where the map has it so, else the lowest that means it; where none does,
 * that of what stands in for it.
 * @example
 * midiKeyOf('kick', USUAL_MAP) // => 36
 * midiKeyOf('kick', { '20': 'kick' }) // => 20
 * midiKeyOf('brush-tap', USUAL_MAP) // => 38
 */
export function midiKeyOf(voice: Voice, map: MidiMap): number {
  const of = (v: Voice): number | null => {
    const usual = VOICE[v].midi.find((key) => map[String(key)] === v);
    if (usual !== undefined) return usual;
    const keys = Object.entries(map).flatMap(([key, means]) => (means === v ? [Number(key)] : []));
    return keys.length > 0 ? Math.min(...keys) : null;
  };
  const own = of(voice);
  if (own !== null) return own;
  for (const other of VOICE[voice].substitutes) {
    const stands = VOICES.find((v) => v === other);
    const key = stands ? of(stands) : null;
    if (key !== null) return key;
  }
  return VOICE[voice].midi[0] ?? SNARE;
}
