import { inject, Injectable, signal } from '@angular/core';
import { contextStage } from '@core/drill';
import type { Pattern } from '@core/pattern';
import type { ClickKind } from '@core/playback';
import { rendition, requestOf } from '@core/rendition';
import { Player } from '../../../playing/player';
import { KitsRepo } from '../../../storage/kits.repo';
import { BenchStore } from '../document/bench.store';

/** By this name what a sheet lists is known among what sounds. */
const LISTED = 'listed';

/** Which phrase of a sheet is heard. What sounds is changed at the next beat, so that two can be held together. */
@Injectable()
export class HeardStore {
  private readonly player = inject(Player);
  private readonly kits = inject(KitsRepo);
  private readonly bench = inject(BenchStore);
  private readonly heard = signal<Pattern | null>(null);
  /** Whether it comes out of a bar of plain time. */
  readonly inTime = signal(false);

  /** Plays a phrase; the one that sounds is stopped. */
  toggle(phrase: Pattern, click: ClickKind): void {
    if (this.is(phrase)) this.stop();
    else this.play(phrase, click);
  }

  play(phrase: Pattern, click: ClickKind): void {
    this.heard.set(phrase);
    const stage = this.inTime() ? { id: LISTED, ...contextStage(1, 'fill') } : null;
    const sounds = rendition({ phrase, stage, kit: this.kits.current(), click });
    this.player.takeOver(LISTED, requestOf(sounds, this.bench.tempo()));
  }

  is(phrase: Pattern): boolean {
    return this.heard() === phrase && this.player.owner() === LISTED;
  }

  stop(): void {
    this.player.stop(LISTED);
  }
}
