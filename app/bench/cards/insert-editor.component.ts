import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { MoveParams } from '@core/recipe';
import { StrokeTextComponent } from './stroke-text.component';
import { textOf, wholeOf } from './values';

type Params = MoveParams['insert'];

@Component({
  selector: 'ls-insert-editor',
  imports: [StrokeTextComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let p = params();
    <ls-stroke-text label="Strokes" [text]="p.text" (changed)="changed.emit({ text: $event, where: p.where })" />
    <div class="row">
      <label class="field"
        >Where
        <select class="input" (change)="setKind($event)">
          <option value="end" [selected]="p.where.kind === 'end'">at the end</option>
          <option value="after" [selected]="p.where.kind === 'after'">after slot</option>
          <option value="every" [selected]="p.where.kind === 'every'">after every</option>
        </select>
      </label>
      @if (p.where.kind === 'after') {
        <label class="field"
          >Slot
          <input
            class="input"
            type="number"
            min="1"
            max="2048"
            [value]="p.where.slot"
            (change)="changed.emit({ text: p.text, where: { kind: 'after', slot: whole($event, 1, 2048) } })"
          />
        </label>
      }
      @if (p.where.kind === 'every') {
        <label class="field"
          >Slots
          <input
            class="input"
            type="number"
            min="1"
            max="2048"
            [value]="p.where.slots"
            (change)="changed.emit({ text: p.text, where: { kind: 'every', slots: whole($event, 1, 2048) } })"
          />
        </label>
      }
    </div>
  `,
  styleUrl: './editor.css',
})
export class InsertEditorComponent {
  readonly params = input.required<Params>();
  readonly changed = output<Params>();
  readonly whole = wholeOf;

  setKind(event: Event): void {
    const { text } = this.params();
    switch (textOf(event)) {
      case 'after':
        return this.changed.emit({ text, where: { kind: 'after', slot: 1 } });
      case 'every':
        return this.changed.emit({ text, where: { kind: 'every', slots: 4 } });
      default:
        return this.changed.emit({ text, where: { kind: 'end' } });
    }
  }
}
