import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Slider } from 'primeng/slider';
import { slotsLong, type Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { ChipsComponent, chipsOf } from '../../ui/chips.component';
import { SoundStore } from '../sound.store';
import { textOf, wholeOf } from './values';

@Component({
  selector: 'ls-shift-editor',
  imports: [ChipsComponent, Slider, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let p = params();
    <div class="row line">
      <button type="button" class="btn small" aria-label="One slot earlier" (click)="set(p.slots - 1)">−</button>
      <p-slider
        [ngModel]="p.slots"
        (ngModelChange)="slide($event)"
        (onSlideEnd)="sound.endPreview()"
        [min]="-most()"
        [max]="most()"
        [step]="1"
        ariaLabel="Slots later"
      />
      <button type="button" class="btn small" aria-label="One slot later" (click)="set(p.slots + 1)">+</button>
    </div>
    <ls-chips
      label="What falls off"
      [dense]="true"
      [chips]="modes"
      [chosen]="p.mode"
      (chose)="emit({ mode: $event })"
    />
    <div class="row">
      <label class="field"
        >from count
        <input
          class="input mono"
          type="text"
          placeholder="the start"
          maxlength="16"
          [value]="p.from ?? ''"
          (change)="setFrom($event)"
        />
      </label>
      <label class="field"
        >groups
        <select class="input" (change)="setGroups($event)">
          <option value="0" [selected]="!p.groups">all as one</option>
          <option value="1" [selected]="p.groups === 1">each in itself</option>
          <option value="2" [selected]="p.groups === 2">every 2nd</option>
          <option value="3" [selected]="p.groups === 3">every 3rd</option>
          <option value="4" [selected]="p.groups === 4">every 4th</option>
        </select>
      </label>
    </div>
  `,
  styleUrl: './editor.css',
  styles: `
    .line {
      align-items: center;
      gap: 14px;
    }
    p-slider {
      flex: 1;
    }
  `,
})
export class ShiftEditorComponent {
  readonly params = input.required<MoveParams['shift']>();
  readonly before = input.required<Pattern>();
  readonly changed = output<MoveParams['shift']>();
  readonly most = computed(() => Math.max(1, Math.min(32, Math.ceil(slotsLong(this.before())) - 1)));

  readonly sound = inject(SoundStore);
  readonly modes = chipsOf(['wrap', 'push'] as const, (m) => (m === 'wrap' ? 'comes round' : 'is left out'));

  /** Displacement sounds as it moves. */
  slide(slots: number): void {
    this.set(slots);
    this.sound.preview();
  }

  set(slots: number): void {
    this.emit({ slots: Math.max(-2048, Math.min(2048, slots)) });
  }

  setFrom(event: Event): void {
    const from = textOf(event).trim();
    const { slots, mode, groups } = this.params();
    this.changed.emit({ slots, mode, ...(from ? { from } : {}), ...(groups ? { groups } : {}) });
  }

  setGroups(event: Event): void {
    const groups = wholeOf(event, 0, 64);
    const { slots, mode, from } = this.params();
    this.changed.emit({ slots, mode, ...(from ? { from } : {}), ...(groups > 0 ? { groups } : {}) });
  }

  emit(part: Partial<MoveParams['shift']>): void {
    this.changed.emit({ ...this.params(), ...part });
  }
}
