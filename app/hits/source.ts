import type { Signal } from '@angular/core';
import type { Observable } from 'rxjs';
import type { Hit } from '@core/take';

/** Where hits come from. */
export const SOURCE_KINDS = ['keys', 'midi', 'microphone', 'simulated'] as const;
export type SourceKind = (typeof SOURCE_KINDS)[number];

/** One way to hear what is struck. Times are seconds on the page's clock (`performance.now() / 1000`). */
export interface HitSource {
  readonly kind: SourceKind;
  readonly name: string;
  /** What a player should know before choosing it. */
  readonly hint: string;
  readonly hits$: Observable<Hit>;
  /** A sentence while the source cannot hear; null when all is well. */
  readonly trouble: Signal<string | null>;
  /** A sentence that is good to know although it hears; null when there is none. */
  readonly news: Signal<string | null>;
  /** Begins to listen. Resolves to whether it can; why not is in `trouble`. */
  start(): Promise<boolean>;
  stop(): void;
}
