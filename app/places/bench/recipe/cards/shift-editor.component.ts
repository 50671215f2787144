import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Slider } from 'primeng/slider';
import { nth } from '@core/base';
import { slotsLong, type Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { ChipsComponent } from '../../../../widgets/chips.component';
import { choicesOf } from '../../../../widgets/choice';
import { SoundStore } from '../../ribbon/sound.store';
import { SelectComponent } from '../../../../widgets/select.component';

@Component({
  selector: 'ls-shift-editor',
  imports: [ChipsComponent, Slider, FormsModule, SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let p = params();
    <label class="field"
      >first stroke on
      <input
        #startField
        class="input mono"
        type="text"
        placeholder="a count: 3, 3e, 2:1"
        maxlength="16"
        [value]="p.start ?? ''"
        (change)="setStart(startField.value.trim())"
      />
    </label>
    @if (p.start === undefined) {
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
        label="Strokes past the end"
        [dense]="true"
        [chips]="modes"
        [chosen]="p.mode"
        (chose)="emit({ mode: $event })"
      />
      <div class="row">
        <label class="field"
          >from count
          <input
            #fromField
            class="input mono"
            type="text"
            placeholder="the start"
            maxlength="16"
            [value]="p.from ?? ''"
            (change)="setFrom(fromField.value.trim())"
          />
        </label>
        <div class="field">
          groups
          <ls-select label="groups" [options]="groups" [chosen]="p.groups ?? 0" (chose)="setGroups($event)" />
        </div>
      </div>
    }
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
  readonly groups = choicesOf([0, 1, 2, 3, 4], (n) =>
    n === 0 ? 'all as one' : n === 1 ? 'each in itself' : `every ${nth(n)}`,
  );
  readonly modes = choicesOf(['wrap', 'push'] as const, (m) => (m === 'wrap' ? 'wrap to the front' : 'are removed'));

  /** Displacement sounds as it moves. */
  slide(slots: number): void {
    this.set(slots);
    this.sound.preview();
  }

  set(slots: number): void {
    this.emit({ slots: Math.max(-2048, Math.min(2048, slots)) });
  }

  /** So many slots later again where the count is taken away. */
  setStart(start: string): void {
    this.changed.emit({ slots: start ? 0 : 1, mode: 'wrap', ...(start ? { start } : {}) });
  }

  setFrom(from: string): void {
    const { slots, mode, groups } = this.params();
    this.changed.emit({ slots, mode, ...(from ? { from } : {}), ...(groups ? { groups } : {}) });
  }

  setGroups(groups: number): void {
    const { slots, mode, from } = this.params();
    this.changed.emit({ slots, mode, ...(from ? { from } : {}), ...(groups > 0 ? { groups } : {}) });
  }

  emit(part: Partial<MoveParams['shift']>): void {
    this.changed.emit({ ...this.params(), ...part });
  }
}
