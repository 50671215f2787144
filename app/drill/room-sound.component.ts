import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { CLICK_KINDS } from '@core/playback';
import { LoudnessRepo } from '../data/loudness.repo';
import { CLICK_WORDS } from '../ui/click-words';
import { LoudnessComponent } from '../ui/loudness.component';
import { DrillStore } from './drill.store';
import { RoomChoices } from './room-choices.store';

/**
 * The room's sound: the click and where it drops out, counts in tones, how loud each part is. What changes is heard
 * from the next beat on.
 */
@Component({
  selector: 'ls-room-sound',
  imports: [LoudnessComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="row">
      <label class="field"
        >Click
        <select class="input" (change)="setClick($event)">
          @for (c of clicks; track c.kind) {
            <option [value]="c.kind" [selected]="c.kind === choices.click()">{{ c.words }}</option>
          }
        </select>
      </label>
      <label class="field"
        >Drops out
        <select class="input" [disabled]="locked()" (change)="setGap($event)">
          <option value="0" [selected]="!choices.gap()">never</option>
          <option value="1" [selected]="choices.gap()?.silent === 1">1 bar of 3</option>
          <option value="2" [selected]="choices.gap()?.silent === 2">2 bars of 4</option>
        </select>
      </label>
      <button
        type="button"
        class="btn small"
        [class.on]="choices.counts()"
        [attr.aria-pressed]="choices.counts()"
        (click)="setCounts(!choices.counts())"
      >
        Count in tones
      </button>
    </div>
    @if (levels()) {
      <ls-loudness
        [levels]="loudness.now()"
        (changed)="loudness.set($event.part, $event.to)"
        (evened)="loudness.reset()"
      />
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      gap: 12px;
    }
    .row {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 12px;
      align-items: flex-end;
    }
  `,
})
export class RoomSoundComponent {
  private readonly store = inject(DrillStore);
  readonly choices = inject(RoomChoices);
  readonly loudness = inject(LoudnessRepo);
  /** Whether the sliders are shown too. */
  readonly levels = input(true);
  /** Whether a try goes on that is measured by when the click drops out. */
  readonly locked = input(false);
  readonly clicks = CLICK_KINDS.map((kind) => ({ kind, words: CLICK_WORDS[kind] }));

  setClick(event: Event): void {
    const kind = CLICK_KINDS.find((k) => k === chosen(event));
    if (!kind) return;
    this.choices.clickOn(kind);
    this.store.refresh();
  }

  setGap(event: Event): void {
    const silent = Number(chosen(event));
    this.choices.gap.set(silent > 0 ? { sounding: 2, silent } : null);
    this.store.refresh();
  }

  setCounts(on: boolean): void {
    this.choices.countAlong(on);
    this.store.refresh();
  }
}

function chosen(event: Event): string {
  return event.target instanceof HTMLSelectElement ? event.target.value : '';
}
