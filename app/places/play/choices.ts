import { Injectable, signal } from '@angular/core';
import type { TradeAsked } from '@core/usage';
import type { SourceKind } from '../../hits/source';
import type { Choice } from '../../widgets/choice';

/** How one plays: freely, with phrases called, in turns with the machine. */
export const PLAY_MODES = ['free', 'calls', 'trading'] as const;
export type PlayMode = (typeof PLAY_MODES)[number];

export const MODE_CHIPS: readonly Choice<PlayMode>[] = [
  { value: 'free', words: 'Free play' },
  { value: 'calls', words: 'Calls' },
  { value: 'trading', words: 'Trading' },
];

/** What is played over: a click, nothing, or the id of a groove. */
export const CLICK = ':click';
export const NOTHING = ':nothing';

export const PLAY_METERS = ['4/4', '3/4', '2/4', '5/4', '6/8', '12/8', '7/8', '9/8'] as const;

/** What was chosen for playing: it lasts as long as the page. */
@Injectable({ providedIn: 'root' })
export class PlayChoices {
  readonly mode = signal<PlayMode>('free');
  readonly over = signal<string>(CLICK);
  readonly bpm = signal(96);
  readonly meter = signal<string>('4/4');
  /** A stand-in that plays; else what usually listens does. */
  readonly standIn = signal<SourceKind | null>(null);
  /** Whether what just came is named while one plays. */
  readonly names = signal(true);
  /** Bars between two calls, and how many calls. */
  readonly between = signal(2);
  readonly calls = signal(12);
  readonly kind = signal<string>('any');
  /** Bars of a trade, and what is to come back. */
  readonly trade = signal(2);
  readonly asked = signal<TradeAsked>('anything');
}
