import { ChangeDetectionStrategy, Component, computed, inject, output } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { build, suggestName } from '@core/recipe';
import { momentWords } from '../../../common/moment-words';
import { UnkeptRepo } from '../../../storage/unkept.repo';
import { RibbonComponent } from '../../../drawings/ribbon/ribbon.component';
import { KeepingStore } from '../document/keeping.store';

/** The most of it that is drawn. */
const MOST = 5;

/** Work that was never kept, here or in tabs that are gone: to go on with, or to be put aside. */
@Component({
  selector: 'ls-unkept-list',
  imports: [RibbonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (left().length > 0) {
      <section class="panel" aria-labelledby="unkept-list">
        <h2 id="unkept-list">Not kept yet</h2>
        @for (u of shown(); track u.id) {
          <div class="row">
            <span class="what"
              ><span class="cut">{{ u.name }}</span
              ><span class="quiet">{{ u.when }}</span></span
            >
            <ls-ribbon [pattern]="u.pattern" size="strip" [stripTicks]="u.pattern.length" />
            <button type="button" class="btn small" [attr.aria-label]="'Continue with ' + u.name" (click)="goOn(u.id)">
              Continue
            </button>
            <button
              type="button"
              class="btn small plain"
              [attr.aria-label]="'Discard ' + u.name"
              (click)="keeping.putAside(u.id)"
            >
              Discard
            </button>
          </div>
        }
        @if (left().length > shown().length) {
          <p class="quiet">{{ left().length - shown().length }} more.</p>
        }
      </section>
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
    .what {
      display: flex;
      flex: 0 0 130px;
      flex-direction: column;
      min-width: 0;
    }
    ls-ribbon {
      flex: 1;
      min-width: 0;
      overflow: hidden;
    }
  `,
})
export class UnkeptListComponent {
  readonly keeping = inject(KeepingStore);
  private readonly all = toSignal(inject(UnkeptRepo).all$, { initialValue: [] });
  readonly left = computed(() => this.all().filter((u) => !u.here));
  readonly shown = computed(() =>
    this.left()
      .slice(0, MOST)
      .map(({ id, at, base, recipe }) => ({
        id,
        name: (base?.name ?? suggestName(recipe)).slice(0, 80),
        when: momentWords(at),
        pattern: build(recipe).pattern,
      })),
  );

  /** It lies on the Bench: what it was chosen from is over. */
  readonly taken = output();

  async goOn(id: string): Promise<void> {
    await this.keeping.goOn(id);
    this.taken.emit();
  }
}
