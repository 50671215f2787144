import { mod } from '@core/base';
import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { LEVELS } from '@core/stroke';
import type { Pattern } from '@core/pattern';
import { select } from '@core/selection';
import type { MoveParams } from '@core/recipe';
import { ChipsComponent } from '../../../../widgets/chips.component';
import { choicesOf } from '../../../../widgets/choice';
import { NumberFieldComponent } from '../../../../widgets/number-field.component';
import { SelectionEditorComponent } from './selection-editor.component';

@Component({
  selector: 'ls-level-editor',
  imports: [ChipsComponent, NumberFieldComponent, SelectionEditorComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ls-chips
      label="Stick height"
      [dense]="true"
      [chips]="levels"
      [chosen]="params().level"
      (chose)="set({ level: $event })"
    />
    <ls-selection-editor [value]="params().select" [before]="before()" (changed)="set({ select: $event })" />
    <div
      class="accents"
      role="slider"
      tabindex="0"
      aria-label="Drag to displace the accents"
      aria-valuemin="-64"
      aria-valuemax="64"
      [attr.aria-valuenow]="params().shift ?? 0"
      (pointerdown)="hold($event)"
      (pointermove)="pull($event)"
      (pointerup)="held = null"
      (keydown.arrowleft)="$event.preventDefault(); $event.stopPropagation(); displace((params().shift ?? 0) - 1)"
      (keydown.arrowright)="$event.preventDefault(); $event.stopPropagation(); displace((params().shift ?? 0) + 1)"
    >
      @for (on of row(); track $index) {
        <span [class.on]="on"></span>
      }
    </div>
    <div class="field">
      Displaced by slots
      <ls-number-field
        label="Displaced by slots"
        [least]="-64"
        [most]="64"
        [value]="params().shift ?? 0"
        (changed)="displace($event)"
      />
    </div>
  `,
  styleUrl: './editor.css',
  styles: `
    .accents {
      display: flex;
      height: 30px;
      align-items: end;
      gap: 1px;
      border-bottom: 1.5px solid var(--ink);
      cursor: ew-resize;
      touch-action: none;
    }
    .accents span {
      flex: 1;
      height: 6px;
      background: var(--line-strong);
      opacity: 0.5;
      pointer-events: none;
    }
    .accents .on {
      height: 26px;
      background: var(--skin);
      opacity: 1;
    }
  `,
})
export class LevelEditorComponent {
  readonly params = input.required<MoveParams['level']>();
  readonly before = input.required<Pattern>();
  readonly changed = output<MoveParams['level']>();
  readonly levels = choicesOf([...LEVELS].reverse());

  /** The slots of the phrase, and which of them the level falls on as it is displaced now. */
  readonly row = computed(() => {
    const pattern = this.before();
    const slots = Math.min(64, Math.floor(pattern.length / pattern.grid));
    const shift = this.params().shift ?? 0;
    const on = new Set(
      select(pattern, this.params().select).map((i) =>
        mod((pattern.strokes[i]?.at ?? 0) + shift * pattern.grid, pattern.length),
      ),
    );
    return Array.from({ length: slots }, (_, i) => on.has(i * pattern.grid));
  });
  held: { readonly x: number; readonly shift: number; readonly slot: number } | null = null;

  hold(event: PointerEvent): void {
    const row = event.currentTarget;
    if (!(row instanceof HTMLElement)) return;
    row.setPointerCapture(event.pointerId);
    this.held = {
      x: event.clientX,
      shift: this.params().shift ?? 0,
      slot: row.clientWidth / Math.max(1, this.row().length),
    };
  }

  pull(event: PointerEvent): void {
    const { held } = this;
    if (held) this.displace(held.shift + Math.round((event.clientX - held.x) / held.slot));
  }

  displace(by: number): void {
    const { select: who, level, shift = 0 } = this.params();
    const to = Math.max(-64, Math.min(64, by));
    if (to !== shift) this.changed.emit(to === 0 ? { select: who, level } : { select: who, level, shift: to });
  }

  set(part: Partial<MoveParams['level']>): void {
    this.changed.emit({ ...this.params(), ...part });
  }
}
