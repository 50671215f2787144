import type { Token } from './tokens';

/** Words of the player and the drill, which are no moves. */
export const PLAYING_WORDS: readonly string[] =
  'click metronome tempo bpm faster slower speed half loop play stop start swing swung straight shuffle louder quieter volume count-in mute unmute hear drill keep save repeat by up down'.split(
    ' ',
  );

const LINES: readonly RegExp[] = [
  /\b(?:click|metronome|bpm|tempo|count-in|volume)\b/,
  /^(?:a (?:bit|little) |much )?(?:faster|slower)(?: please)?$/,
  /^(?:go |play (?:it )?)?(?:faster|slower) by \d+$/,
  /^(?:play (?:it )?)?(?:at )?half speed$/,
  /^(?:loop|loop it|play|play it|stop|start|pause|loop that)(?: please)?$/,
  /^(?:more |with |add |a bit of |some )*(?:swing|swung|shuffle)(?: it)?(?: (?:at )?\d+ ?%?)?$/,
  /^(?:play it )?(?:swung|straight|shuffled)$/,
  /\bswing\b/,
];

/** Whether a line is for the player: tempo, click, looping, swing. */
export function isPlaying(tokens: readonly Token[]): boolean {
  const line = tokens.map((t) => t.word).join(' ');
  return LINES.some((l) => l.test(line));
}
