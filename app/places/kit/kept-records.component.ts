import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { CLIP_LIMITS } from '@core/listen';
import { ClipsRepo } from '../../storage/clips.repo';
import { OwnRecords, sizeWords } from '../../playing/own-records';

/** The bars of records that are kept with phrases: how much they take, and a way to let each go. */
@Component({
  selector: 'ls-kept-records',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (all().length > 0) {
      <section class="panel">
        <h2>Recordings kept with phrases</h2>
        <p class="quiet">{{ all().length }} of {{ most }}, {{ size() }} in all. They are part of an export.</p>
        <ul>
          @for (c of all(); track c.id) {
            <li>
              <span class="what">
                <a class="cut" [routerLink]="['/bench', c.id]">{{ c.name.slice(0, 120) }}</a>
                <span class="quiet cut">{{ c.from }}</span>
              </span>
              <span class="mono quiet">{{ sizeOf(c.bytes) }}</span>
              <button
                type="button"
                class="btn small plain"
                [attr.aria-label]="'Delete the recording: ' + c.name.slice(0, 120)"
                (click)="own.letGo(c.id)"
              >
                Delete the recording
              </button>
            </li>
          }
        </ul>
      </section>
    }
  `,
  styles: `
    ul {
      list-style: none;
      margin: 0;
      padding: 0;
      display: flex;
      flex-direction: column;
      gap: 6px;
      max-height: 320px;
      overflow: auto;
    }
    li {
      display: flex;
      align-items: center;
      gap: 10px;
    }
    .what {
      flex: 1;
      min-width: 0;
      display: flex;
      flex-direction: column;
    }
  `,
})
export class KeptRecordsComponent {
  readonly own = inject(OwnRecords);
  readonly all = toSignal(inject(ClipsRepo).all$(), { initialValue: [] });
  readonly size = computed(() => sizeWords(this.all().reduce((n, c) => n + c.bytes, 0)));
  readonly sizeOf = sizeWords;
  readonly most = CLIP_LIMITS.clips;
}
