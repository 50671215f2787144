import type { Best } from '../drill';
import type { Family, GoalDay } from '../recipe';
import type { ReadySaid } from '../player';
import type { Facts } from './facts';

/** What of a phrase is asked about. What is not worked out yet has no facts. */
export interface Asked {
  readonly id: string;
  readonly name: string;
  readonly family: Family;
  readonly tags: readonly string[];
  readonly goal: number;
  /** Name, tags and note in folded letters, a line each. */
  readonly text: string;
  readonly parent: { readonly id: string } | null;
  readonly facts: Facts | null;
  /** The highest tempo: worked out, or shown; null until it is known. */
  readonly top: { readonly bpm: number | null } | null;
  readonly best: Best;
  /** The tempo that is ready, and the practice day on which it is due; null before any try. */
  readonly believed: { readonly ready: ReadySaid; readonly due: number } | null;
  /** The day on which its goal is wanted. */
  readonly by: GoalDay | null;
}

/** What a question is read against: the time, and the phrases that can be named in it. */
export interface AskContext {
  readonly now: number;
  /** The practice day it is. */
  readonly today: number;
  readonly named: (name: string) => Asked | null;
}
