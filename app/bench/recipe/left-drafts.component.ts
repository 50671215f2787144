import { ChangeDetectionStrategy, Component, computed, inject, output, resource } from '@angular/core';
import { format } from 'date-fns';
import { build } from '@core/recipe';
import type { TabDraft } from '@core/formats';
import { DraftsRepo } from '../../data/drafts.repo';
import { RibbonComponent } from '../../ui/ribbon/ribbon.component';
import { BenchStore } from '../document/bench.store';

/** The most drafts that are shown. */
const MOST = 5;

/** Work that was not kept in tabs that are gone, to be taken up. */
@Component({
  selector: 'ls-left-drafts',
  imports: [RibbonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (left(); as all) {
      @if (all.length > 0) {
        <section class="panel" aria-labelledby="left-drafts">
          <h2 id="left-drafts">Left in another tab</h2>
          @for (d of all; track d.draft.id) {
            <div class="row">
              <span class="when">{{ d.when }}</span>
              <ls-ribbon [pattern]="d.pattern" size="strip" [stripTicks]="d.pattern.length" />
              <button type="button" class="btn small" (click)="take(d.draft)">Take it up</button>
            </div>
          }
        </section>
      }
    }
  `,
  styles: `
    section {
      display: flex;
      flex-direction: column;
      gap: 10px;
      padding: 16px 18px;
      margin-bottom: 14px;
    }
    .row {
      display: flex;
      gap: 12px;
      align-items: center;
    }
    .when {
      flex: 0 0 90px;
    }
    ls-ribbon {
      flex: 1;
      min-width: 0;
      overflow: hidden;
    }
  `,
})
export class LeftDraftsComponent {
  private readonly drafts = inject(DraftsRepo);
  private readonly bench = inject(BenchStore);
  readonly taken = output();
  private readonly read = resource({ loader: () => this.drafts.left() });
  readonly left = computed(() =>
    this.read.hasValue()
      ? this.read.value().flatMap((draft, i) => {
          const { recipe } = draft.draft;
          if (!recipe || i >= MOST) return [];
          return [{ draft, pattern: build(recipe).pattern, when: format(draft.at, 'd MMM, HH:mm') }];
        })
      : null,
  );

  async take(left: TabDraft): Promise<void> {
    await this.bench.takeDraft(left.draft);
    await this.drafts.take(left);
    this.taken.emit();
  }
}
