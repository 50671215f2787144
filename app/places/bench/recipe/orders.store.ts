import { inject, Injectable } from '@angular/core';
import { NOTHING_MUTED } from '@core/pattern';
import { LIMBS } from '@core/stroke';
import type { Order, Shown } from '@core/language';
import { versionName } from '@core/shelf';
import { Router } from '@angular/router';
import { BenchStore } from '../document/bench.store';
import { ViewStore } from '../document/view.store';
import { KeepingStore } from '../document/keeping.store';
import { CursorStore } from '../ribbon/cursor.store';
import { SoundStore } from '../ribbon/sound.store';

/** Does what is said to the player in words: the same as the buttons do. Provided by the Bench. */
@Injectable()
export class OrdersStore {
  private readonly bench = inject(BenchStore);
  private readonly router = inject(Router);
  private readonly keeping = inject(KeepingStore);
  private readonly cursor = inject(CursorStore);
  private readonly sound = inject(SoundStore);
  private readonly view = inject(ViewStore);

  carryOut(order: Order): void {
    switch (order.kind) {
      case 'tempo':
        return this.bench.setTempo(order.to);
      case 'half':
        return this.sound.half.set(order.on);
      case 'undo':
        return this.bench.undo();
      case 'redo':
        return this.bench.redo();
      case 'play':
        return this.sound.start();
      case 'stop':
        return this.sound.stop();
      case 'only':
        return this.sound.mute.set({ limbs: LIMBS.filter((l) => !order.limbs.includes(l)), roles: [] });
      case 'mute':
        return this.sound.mute.set({ limbs: [], roles: [], pieces: order.pieces });
      case 'only-groove':
        return this.sound.mute.set({ limbs: [], roles: ['timekeeping', 'texture'] });
      case 'hear-all':
        return this.sound.mute.set(NOTHING_MUTED);
      case 'loop':
        this.cursor.chooseRange(order.from, order.until);
        this.sound.loopsSelection.set(true);
        if (order.at !== null) this.bench.setTempo(order.at);
        return this.sound.takeOver();
      case 'loop-all':
        return this.sound.loopsSelection.set(false);
      case 'swing':
        return this.bench.setSwing({ on: order.on, ratio: order.ratio });
      case 'straight':
        return this.bench.setSwing(null);
      case 'drill':
        return void this.keeping.drill({
          ...(order.part ? { from: order.part.from, until: order.part.until, part: order.part.said } : {}),
          ...(order.at === null ? {} : { at: order.at }),
          ...(order.to === null ? {} : { to: order.to }),
        });
      case 'show':
        return this.show(order.what);
      case 'open':
        return void this.router.navigate(['/bench', order.id], { queryParams: { kept: 1 } });
      case 'ask':
        return void this.router.navigate(['/shelf'], { queryParams: { ask: order.question } });
      case 'keep': {
        const old = this.bench.phrase();
        // A letter alone is that version of the phrase.
        const name = old && /^[A-Z]$/.test(order.name) ? `${versionName(old.name).of} ${order.name}` : order.name;
        return void this.keeping.keepAs({ ...(old ?? this.bench.suggestedLabel()), name }, old !== null);
      }
    }
  }

  private show(what: Shown): void {
    switch (what) {
      case 'stickings':
        return this.view.sheet.set('sticking');
      case 'variants':
        return this.view.sheet.set('variants');
      case 'staff':
        return this.view.lower.set('staff');
      case 'travel':
        return this.view.lower.set('paths');
      case 'compare':
        return this.view.lower.set('compare');
      case 'print':
        return this.view.printing.set(true);
      case 'share':
        return this.view.takingAlong.set(true);
      case 'versions':
        return this.keeping.openStates();
    }
  }
}
