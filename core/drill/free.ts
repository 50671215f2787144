/** What may be tried in the open bars, one after the other, with the names of phrases to bring in. */
const PROMPTS: readonly ((names: readonly string[], round: number, bars: number) => string)[] = [
  () => 'Fill the open bars as you like.',
  (names, round, bars) => `Bring in ${nameOf(names, round)} on bar ${bars}.`,
  () => 'The same, with one piece changed.',
  (names, round) => `Bring in ${nameOf(names, round + 1)} a beat later.`,
  () => 'Leave the first beat of it out.',
  () => 'All soft, one stroke loud.',
  () => 'Only its rhythm, on other drums.',
  () => 'Half of it, twice.',
];
/** A prompt stands for so many turns. */
const TURNS = 2;

/**
 * What may be tried in a turn of free play, counted from 0. `bars` is how many bars a turn has.
 * @example
 * promptFor(0, ['Cold rope'], 4) // => "Fill the open bars as you like."
 * promptFor(2, ['Cold rope'], 4) // => "Bring in Cold rope on bar 4."
 * promptFor(2, [], 4) // => "Bring in the phrase on bar 4."
 */
export function promptFor(turn: number, names: readonly string[], bars: number): string {
  const at = Math.floor(Math.max(0, turn) / TURNS);
  return PROMPTS[at % PROMPTS.length]?.(names, Math.floor(at / PROMPTS.length), bars) ?? '';
}

/** Whose turn it is to be brought in. */
function nameOf(names: readonly string[], round: number): string {
  return names[round % Math.max(1, names.length)] ?? 'the phrase';
}
