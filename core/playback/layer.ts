import type { Feel } from '../time';
import type { PlaybackEvent } from './sound';

/** An event of a layer. */
export interface LayerEvent extends Omit<PlaybackEvent, 'at'> {
  /** Whole ticks from the layer's beginning. */
  readonly tick: number;
}

/**
 * Events that come round every `period` ticks, from tick `from` on. Each layer has a period of its own, so a five-slot
 * cell runs over a bar's click.
 */
export interface Layer {
  readonly period: number;
  readonly from: number;
  /** Where the layer falls silent; absent for one that goes on. */
  readonly until?: number;
  readonly feel: Feel;
  /** Tick of the bar line's count at the layer's zero, where the layer is a part of a phrase: the feel swings by it. */
  readonly origin?: number;
  /** In order of their ticks. */
  readonly events: readonly LayerEvent[];
}
