import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { PhrasesRepo } from '../data/phrases.repo';
import { DrillStore } from './drill.store';
import { SubjectStore } from './subject.store';

/** What happens elsewhere to the phrase that is drilled, and what it means here. */
@Component({
  selector: 'ls-elsewhere-note',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @switch (subject.elsewhere()) {
      @case ('removed') {
        <p role="status">
          This phrase was taken off the shelf in another tab. What you play is logged with it, and comes back with it.
          <button type="button" class="btn small" (click)="putBack()">Put it back</button>
        </p>
      }
      @case ('changed') {
        <p role="status">
          This phrase was kept anew elsewhere. Here you play it as it was when the room was opened.
          @if (!store.running()) {
            <button type="button" class="btn small" (click)="store.takeOther()">Play it as it is now</button>
          }
        </p>
      }
    }
    @if (store.other()) {
      <p role="status">
        It is drilled in another tab too. Every try of both is in the log; the ladder that was moved last stands.
        @if (!store.running()) {
          <button type="button" class="btn small" (click)="store.takeOther()">Go on from that one</button>
        }
      </p>
    }
  `,
  styles: `
    :host {
      display: contents;
    }
    p {
      position: absolute;
      top: 60px;
      left: 0;
      right: 0;
      z-index: 5;
      display: flex;
      flex-wrap: wrap;
      gap: 8px 14px;
      align-items: center;
      padding: 10px 24px;
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

  putBack(): void {
    const phrase = this.subject.phrase();
    if (phrase) void this.phrases.putBack([phrase.id]);
  }
}
