import { ChangeDetectionStrategy, Component, computed, inject, output, resource } from '@angular/core';
import { format } from 'date-fns';
import { Dialog } from 'primeng/dialog';
import { differenceWords } from '@core/pattern';
import { build } from '@core/recipe';
import { MOST_STATES, type KeptState } from '@core/shelf';
import { PhrasesRepo } from '../../../storage/phrases.repo';
import { SettingsRepo } from '../../../storage/settings.repo';
import { DialogFocusDirective } from '../../../widgets/dialog-focus.directive';
import { RibbonComponent } from '../../../drawings/ribbon/ribbon.component';
import { BenchStore } from './bench.store';
import { KeepingStore } from './keeping.store';

/** What the phrase on the Bench was before: each state drawn, with what is other now, to look at or to bring back. */
@Component({
  selector: 'ls-states-dialog',
  imports: [Dialog, DialogFocusDirective, RibbonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog
      header="Earlier versions"
      [visible]="true"
      closeAriaLabel="Close"
      [modal]="true"
      [style]="{ width: '52rem', maxWidth: '94vw' }"
      (visibleChange)="closed.emit()"
    >
      @if (states(); as all) {
        @if (all.length === 0) {
          <p>
            No earlier versions yet. Each time you keep the phrase, the version before it stays here, up to {{ most }}.
          </p>
        }
        <ol>
          @for (s of all; track s.state.id) {
            <li>
              <div class="said">
                <strong>{{ s.when }}</strong>
                @if (s.name) {
                  <span class="cut">“{{ s.name }}”</span>
                }
                <span class="quiet">{{ s.words }}</span>
              </div>
              <ls-ribbon [pattern]="s.pattern" size="strip" [stripTicks]="s.pattern.length" [silent]="true" />
              <div class="acts">
                <button type="button" class="btn small" (click)="keeping.seeState(s.state)">Compare</button>
                <button type="button" class="btn small" (click)="keeping.bringBack(s.state)">Use</button>
              </div>
            </li>
          }
        </ol>
      } @else {
        <p role="status">Looking …</p>
      }
    </p-dialog>
  `,
  styles: `
    ol {
      display: flex;
      flex-direction: column;
      margin: 0;
      padding: 0;
      list-style: none;
    }
    li {
      display: grid;
      grid-template-columns: minmax(0, 1fr) auto;
      gap: 4px 16px;
      padding: 10px 0;
      border-bottom: 1px solid var(--line);
    }
    .said {
      grid-column: 1 / -1;
      display: flex;
      flex-wrap: wrap;
      gap: 4px 12px;
    }
    ls-ribbon {
      min-width: 0;
      overflow: hidden;
    }
    .acts {
      display: flex;
      gap: 6px;
      align-items: center;
    }
  `,
})
export class StatesDialogComponent {
  readonly keeping = inject(KeepingStore);
  private readonly bench = inject(BenchStore);
  private readonly phrases = inject(PhrasesRepo);
  private readonly settings = inject(SettingsRepo);
  readonly closed = output();
  readonly most = MOST_STATES;
  private readonly read = resource({
    params: () => this.bench.phrase()?.id,
    loader: ({ params }): Promise<readonly KeptState[]> => this.phrases.statesOf(params),
  });
  readonly states = computed(() => {
    const now = this.bench.build()?.pattern;
    if (!this.read.hasValue() || !now) return null;
    return this.read.value().map((state) => {
      const { pattern } = build(state.state.recipe);
      const other = state.state.name === this.bench.phrase()?.name ? '' : state.state.name.slice(0, 80);
      return {
        state,
        pattern,
        name: other,
        when: format(state.at, 'd MMM yyyy, HH:mm'),
        words: `${state.state.tempo} bpm. ${differenceWords(now, pattern, this.settings.schools())}`,
      };
    });
  });
}
