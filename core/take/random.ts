const { PI, cos, imul, log, sqrt } = Math;

/** Chance from a seed: the same seed gives the same numbers, so that a simulated player can be played again. */
export interface Chance {
  /** Even in [0, 1). */
  next(): number;
  /** Gaussian with mean 0 and spread 1. */
  normal(): number;
}

/**
 * A small generator of 32 bits of state (the mulberry construction), good enough for a player's unevenness and nothing
 * else.
 */
export function chanceOf(seed: number): Chance {
  let state = seed >>> 0;
  const next = (): number => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = imul(state ^ (state >>> 15), state | 1);
    t = (t + imul(t ^ (t >>> 7), t | 61)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  // Box and Muller 1958, A note on the generation of random normal deviates.
  const normal = (): number => sqrt(-2 * log(1 - next())) * cos(2 * PI * next());
  return { next, normal };
}
