import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, signal } from '@angular/core';
import { PhrasesRepo } from '../../storage/phrases.repo';
import { DrillStore } from './drill.store';
import { SubjectStore } from './subject.store';

/** What happens elsewhere to the phrase that is drilled, and what it means here. */
@Component({
  selector: 'ls-elsewhere-note',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @switch (shown()) {
      @case ('removed') {
        <p role="status">
          This phrase was taken off the shelf in another tab. Your tries are still logged.
          <button type="button" class="btn small" (click)="putBack()">Put back on the shelf</button>
          <button type="button" class="btn small plain" (click)="closed.set('removed')">Close</button>
        </p>
      }
      @case ('changed') {
        <p role="status">
          This phrase changed in another tab. You are still playing the old version.
          @if (!store.running()) {
            <button type="button" class="btn small" (click)="store.takeOther()">Use the new version</button>
          }
          <button type="button" class="btn small plain" (click)="closed.set('changed')">Close</button>
        </p>
      }
    }
    @if (store.other() && !closedOther()) {
      <p role="status">
        Also running in another tab. All tries are logged; the ladder you moved last counts.
        @if (!store.running()) {
          <button type="button" class="btn small" (click)="store.takeOther()">Use that ladder</button>
        }
        <button type="button" class="btn small plain" (click)="closedOther.set(true)">Close</button>
      </p>
    }
  `,
  styles: `
    :host {
      display: contents;
    }
    p {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 14px;
      align-items: center;
      margin: 0;
      padding: 6px 24px;
      border-left: 6px solid var(--mark);
      background: var(--surface);
      font-size: 15px;
    }
    .btn {
      min-height: 44px;
    }
  `,
})
export class ElsewhereNoteComponent {
  readonly store = inject(DrillStore);
  readonly subject = inject(SubjectStore);
  private readonly phrases = inject(PhrasesRepo);
  /** What was read and closed. */
  readonly closed = signal<'removed' | 'changed' | null>(null);
  readonly closedOther = linkedSignal<boolean, boolean>({ source: this.store.other, computation: () => false });
  readonly shown = computed(() => {
    const now = this.subject.elsewhere();
    return now === this.closed() ? null : now;
  });

  putBack(): void {
    const phrase = this.subject.phrase();
    if (phrase) void this.phrases.putBack([phrase.id]);
  }
}
