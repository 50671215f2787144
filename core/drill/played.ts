import type { Attempt } from './state';

/** Who played a try: the player on a drum or a pad, the player's fingers on the computer's keys, or a program. */
export type PlayedBy = 'player' | 'keys' | 'program';

/**
 * Who played a try. What was judged by ear was played by the player.
 * @example
 * playedBy({ source: 'midi' }) // => 'player'
 * playedBy({}) // => 'player'
 * playedBy({ source: 'simulated' }) // => 'program'
 */
export function playedBy({ source }: Pick<Attempt, 'source'>): PlayedBy {
  return source === 'simulated' ? 'program' : source === 'keys' ? 'keys' : 'player';
}

/**
 * Whether a try says anything of what the player can do with sticks. This is the one rule: what it leaves out moves no
 * best tempo, no belief, no ceiling, no plan, no load and no chart, and is marked where it is listed.
 */
export function isEvidence(attempt: Pick<Attempt, 'source'>): boolean {
  return playedBy(attempt) === 'player';
}

/** How a try that is no evidence is marked; empty for what the player played. */
export const PLAYED_MARKS: Readonly<Record<PlayedBy, string>> = Object.freeze({
  player: '',
  keys: 'on keys',
  program: 'simulated',
});
