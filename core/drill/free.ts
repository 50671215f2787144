/** What may be tried in the open bars, one after the other; `{name}` is a phrase to bring in. */
const PROMPTS: readonly string[] = [
  'Fill the open bars as you like.',
  'Bring {name} in on bar {last}.',
  'The same, with one voice changed.',
  'Bring {name} in a beat later.',
  'Leave the first beat of it out.',
  'Everything soft, one stroke loud.',
  'Only its rhythm, on other drums.',
  'Half of it, twice.',
];
/** A prompt stands for so many turns. */
const TURNS = 2;

/**
 * What may be tried in a turn of free play, counted from 0. `bars` is how many bars a turn has.
 * @example
 * promptFor(0, ['Cold rope'], 4) // => "Fill the open bars as you like."
 * promptFor(2, ['Cold rope'], 4) // => "Bring Cold rope in on bar 4."
 * promptFor(2, [], 4) // => "Bring the phrase in on bar 4."
 */
export function promptFor(turn: number, names: readonly string[], bars: number): string {
  const at = Math.floor(Math.max(0, turn) / TURNS);
  const prompt = PROMPTS[at % PROMPTS.length] ?? '';
  const round = Math.floor(at / PROMPTS.length) + (prompt.includes('later') ? 1 : 0);
  const name = names[round % Math.max(1, names.length)] ?? 'the phrase';
  return prompt.replace('{name}', name).replace('{last}', String(bars));
}
