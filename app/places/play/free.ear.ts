import { inject, Injectable, signal } from '@angular/core';
import { Subscription } from 'rxjs';
import { SITTING_LIMITS } from '@core/shelf';
import type { Expected } from '@core/rendition';
import type { Hit } from '@core/take';
import { LatencyRepo } from '../../storage/latency.repo';
import { SimulatedSource } from '../../hits/simulated.source';
import type { HitSource } from '../../hits/source';

/** Collects what is struck while somebody plays freely. Provided by the place. */
@Injectable()
export class FreeEar {
  private readonly latency = inject(LatencyRepo);
  private readonly simulated = inject(SimulatedSource);
  private ears = new Subscription();
  private source: HitSource | null = null;
  /** Seconds of the page's clock; null until the first bar line is known. */
  private zero: number | null = null;
  private hits: Hit[] = [];
  private asked = 0;
  private readonly manyState = signal(0);
  /** How many hits were heard. */
  readonly many = this.manyState.asReadonly();
  private readonly fullState = signal(false);
  /** Whether as many were heard as are kept: what comes after is not. */
  readonly full = this.fullState.asReadonly();

  /** Begins to listen. Resolves to whether the source can hear. */
  async listen(source: HitSource): Promise<boolean> {
    this.stop();
    this.source = source;
    const mine = ++this.asked;
    const hears = await source.start();
    if (mine !== this.asked) {
      source.stop();
      return false;
    }
    if (hears) this.ears = source.hits$.subscribe((hit) => this.hear(hit));
    return hears;
  }

  stop(): void {
    this.asked++;
    this.ears.unsubscribe();
    this.ears = new Subscription();
    this.source?.stop();
    this.source = null;
  }

  /** The first bar line is heard, or playing begins, at a second of the page's clock: what was before is gone. */
  begin(zero: number): void {
    this.zero = zero;
    this.hits = [];
    this.manyState.set(0);
    this.fullState.set(false);
  }

  /** What was heard from the first bar line on, in order. */
  heard(): readonly Hit[] {
    return [...this.hits].sort((a, b) => a.seconds - b.seconds);
  }

  /** The stand-in plays what is expected, from the first bar line on; others are not asked to. */
  perform(expected: readonly Expected[]): void {
    const { zero } = this;
    if (this.source?.kind !== 'simulated' || zero === null) return;
    this.simulated.play(expected.map((e) => ({ ...e, seconds: e.seconds + zero })));
  }

  private hear(hit: Hit): void {
    const { zero, source } = this;
    if (zero === null || !source) return;
    if (this.hits.length >= SITTING_LIMITS.hits) return this.fullState.set(true);
    const behind = source.kind === 'simulated' ? 0 : (this.latency.now()[source.kind] ?? 0);
    const seconds = Math.round((hit.seconds - zero - behind) * 10_000) / 10_000;
    // What comes just before the first bar line means it.
    if (seconds < -0.15) return;
    this.hits.push({ ...hit, seconds });
    this.manyState.set(this.hits.length);
  }
}
