import { computed, inject, Injectable } from '@angular/core';
import type { Gesture } from '../../../drawings/ribbon/ribbon-editor.component';
import { BenchStore } from '../document/bench.store';
import { PickStore } from '../document/pick.store';
import { TrailStore } from '../document/trail.store';
import { CursorStore } from './cursor.store';
import { ribbonKey } from './ribbon-keys';
import { SoundStore } from './sound.store';
import { TypingStore } from './typing.store';

/** What a hand or a key on the ribbon means. */
@Injectable({ providedIn: 'root' })
export class HandStore {
  private readonly bench = inject(BenchStore);
  private readonly picks = inject(PickStore);
  private readonly trail = inject(TrailStore);
  private readonly cursor = inject(CursorStore);
  private readonly typing = inject(TypingStore);
  private readonly sound = inject(SoundStore);

  /** Whether a cursor stands on the ribbon. */
  readonly editing = computed(() => this.cursor.at() !== null);

  /** The ribbon is edited from here on: the whole phrase, with a cursor on it. */
  begin(): void {
    this.bench.openCard.set(null);
    this.trail.finish();
    if (this.cursor.at() === null) this.cursor.put(0);
  }

  /** Nothing of what was begun is left open. */
  leave(): void {
    this.cursor.leave();
    this.trail.finish();
  }

  gesture(g: Gesture): void {
    if (this.picks.pattern()) {
      if (g.kind === 'press') this.picks.toggle(g.at, g.limb);
      return;
    }
    this.trail.finish();
    switch (g.kind) {
      case 'press':
        return this.press(g);
      case 'range':
        return this.cursor.chooseRange(g.from, g.until);
      case 'height':
        return this.cursor.raise(g.stroke, g.level);
      case 'displace':
        this.cursor.hold(g.stroke);
        this.cursor.shadow(g.done ? 0 : g.by);
        if (g.done) this.cursor.displace(g.by);
        else this.bench.endStep();
    }
  }

  /** A press puts the cursor there; with Shift it chooses from the cursor to there. */
  private press(g: Extract<Gesture, { kind: 'press' }>): void {
    const pattern = this.trail.pattern();
    if (!pattern || g.at < 0) return;
    const from = this.cursor.at();
    if (g.adds && from !== null) this.cursor.chooseRange(Math.min(from, g.at), Math.max(from, g.at) + pattern.grid);
    else this.cursor.put(Math.min(g.at, pattern.length));
    this.bench.endStep();
  }

  key(event: KeyboardEvent): void {
    const pattern = this.trail.pattern();
    if (!pattern || !this.trail.isFinished()) return;
    if (event.key === 'Escape') this.cursor.leave();
    else if (event.key === 'Enter') this.sound.fromCursor();
    else if (!ribbonKey(event, this.cursor, this.typing, pattern.grid)) return;
    event.preventDefault();
    event.stopPropagation();
  }
}
