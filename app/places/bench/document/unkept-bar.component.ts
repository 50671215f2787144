import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { Unkept } from '@core/formats/shelf-file';
import { momentWords } from '../../../common/moment-words';
import { KeepingStore } from './keeping.store';

/** Says that the phrase on the Bench has changes that were never kept, and asks what to do with them. */
@Component({
  selector: 'ls-unkept-bar',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="bar" role="status">
      <span>Unkept changes of {{ when() }}.</span>
      <button type="button" class="btn small" (click)="keeping.seeUnkept(work())">See changes</button>
      <button type="button" class="btn small" (click)="keeping.goOn(work().id)">Continue</button>
      <button type="button" class="btn small" (click)="keeping.putAside(work().id)">Discard</button>
    </div>
  `,
  styleUrl: './bar.css',
})
export class UnkeptBarComponent {
  readonly keeping = inject(KeepingStore);
  readonly work = input.required<Unkept>();
  readonly when = computed(() => momentWords(this.work().at));
}
