import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { ClickKind, CountKind } from '@core/playback';
import { CLICK_CHOICES } from '../../playing/click-words';
import { CountingComponent } from '../../playing/counting.component';
import { LoudnessComponent } from '../../playing/loudness.component';
import type { Choice } from '../../widgets/choice';
import { SelectComponent } from '../../widgets/select.component';
import { DrillStore } from './drill.store';
import { RoomChoices } from './room-choices.store';

/** So many bars sound before the click drops out. */
const SOUNDING = 2;

/**
 * The room's sound: the click and where it drops out, who counts along, how loud each part is. What changes is heard
 * from the next beat on.
 */
@Component({
  selector: 'ls-room-sound',
  imports: [CountingComponent, LoudnessComponent, SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="row">
      <div class="field">
        Click
        <ls-select label="Click" [options]="clicks" [chosen]="choices.click()" (chose)="setClick($event)" />
      </div>
      <div class="field">
        Click drops out
        <ls-select
          label="Click drops out"
          [options]="gaps"
          [chosen]="silent()"
          [disabled]="locked()"
          (chose)="setGap($event)"
        />
      </div>
      <ls-counting [kind]="choices.counts()" (kindChange)="setCounts($event)" />
    </div>
    @if (levels()) {
      <ls-loudness [record]="store.beneath() === 'sounds'" />
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
    .field {
      width: 132px;
    }
  `,
})
export class RoomSoundComponent {
  readonly store = inject(DrillStore);
  readonly choices = inject(RoomChoices);
  /** Whether the sliders are shown too. */
  readonly levels = input(true);
  /** Whether a try goes on that is measured by when the click drops out. */
  readonly locked = input(false);
  readonly clicks = CLICK_CHOICES;
  /** Bars that are silent. */
  readonly gaps: readonly Choice<number>[] = [
    { value: 0, words: 'never' },
    { value: 1, words: '1 bar in 3' },
    { value: 2, words: '2 bars in 4' },
  ];
  readonly silent = computed(() => this.choices.gap()?.silent ?? 0);

  setClick(kind: ClickKind): void {
    this.choices.clickOn(kind);
    this.store.refresh();
  }

  setGap(silent: number): void {
    this.choices.gap.set(silent > 0 ? { sounding: SOUNDING, silent } : null);
    this.store.refresh();
  }

  setCounts(kind: CountKind | null): void {
    this.choices.countAlong(kind);
    this.store.refresh();
  }
}
