import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { MoveParams } from '@core/recipe';

type Params = MoveParams['rate'];

@Component({
  selector: 'ls-rate-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="chips" role="group" aria-label="How long it becomes">
      @for (r of rates; track r.name) {
        <button
          type="button"
          [attr.aria-pressed]="r.times === params().times && r.by === params().by"
          (click)="changed.emit({ times: r.times, by: r.by })"
        >
          {{ r.name }}
        </button>
      }
    </div>
  `,
  styleUrl: './editor.css',
})
export class RateEditorComponent {
  readonly params = input.required<Params>();
  readonly changed = output<Params>();
  readonly rates = [
    { name: 'a third', times: 1, by: 3 },
    { name: 'half', times: 1, by: 2 },
    { name: 'two thirds', times: 2, by: 3 },
    { name: 'one and a half', times: 3, by: 2 },
    { name: 'twice', times: 2, by: 1 },
    { name: 'three times', times: 3, by: 1 },
  ];
}
