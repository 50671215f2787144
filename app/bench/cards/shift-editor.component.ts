import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Slider } from 'primeng/slider';
import { slotsLong, type Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';

@Component({
  selector: 'ls-shift-editor',
  imports: [Slider, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let p = params();
    <div class="row line">
      <button type="button" class="btn small" aria-label="One slot earlier" (click)="set(p.slots - 1)">−</button>
      <p-slider [ngModel]="p.slots" (ngModelChange)="set($event)" [min]="-most()" [max]="most()" [step]="1" ariaLabel="Slots later" />
      <button type="button" class="btn small" aria-label="One slot later" (click)="set(p.slots + 1)">+</button>
    </div>
    <div class="chips" role="group" aria-label="What falls off">
      <button type="button" [attr.aria-pressed]="p.mode === 'wrap'" (click)="changed.emit({ slots: p.slots, mode: 'wrap' })">
        comes round
      </button>
      <button type="button" [attr.aria-pressed]="p.mode === 'push'" (click)="changed.emit({ slots: p.slots, mode: 'push' })">
        is left out
      </button>
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

  set(slots: number): void {
    this.changed.emit({ slots: Math.max(-2048, Math.min(2048, slots)), mode: this.params().mode });
  }
}
