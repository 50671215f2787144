import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { suggestName } from '@core/recipe';
import { momentWords } from '../../common/moment-words';
import { UnkeptRepo, type FoundUnkept } from '../../storage/unkept.repo';
import { NoticesService } from '../../common/notices.service';
import { GoDirective } from './go.directive';

/** As many are named before the others are asked for. */
const FEW = 2;

/** Something new that was made and never kept: it has no strip yet, and is not lost. */
@Component({
  selector: 'ls-unkept-line',
  imports: [GoDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (unkept().length > 0) {
      <section aria-label="Not kept yet">
        <strong>Not kept yet</strong>
        @for (u of shown(); track u.id) {
          <span class="one">
            <span class="cut">{{ u.name }}</span>
            <span class="quiet">{{ u.when }}</span>
            <a class="btn small" [lsGo]="u.link" [attr.aria-label]="'Continue with ' + u.name">Continue</a>
            @if (!u.here) {
              <button
                type="button"
                class="btn small plain"
                [attr.aria-label]="'Discard ' + u.name"
                (click)="putAside(u.id)"
              >
                Discard
              </button>
            }
          </span>
        }
        @if (more() > 0) {
          <button type="button" class="btn small plain" (click)="all.set(true)">{{ more() }} more</button>
        }
      </section>
    }
  `,
  styles: `
    section {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 20px;
      align-items: center;
      max-height: 30vh;
      padding: 6px 14px;
      margin: 8px 24px 0;
      overflow: auto;
      border-left: 6px solid var(--accent);
      background: var(--surface);
    }
    .one {
      display: flex;
      gap: 8px;
      align-items: center;
      min-width: 0;
    }
    .one .cut {
      max-width: 16rem;
    }
  `,
})
export class UnkeptLineComponent {
  readonly unkept = input.required<readonly FoundUnkept[]>();
  private readonly repo = inject(UnkeptRepo);
  private readonly notices = inject(NoticesService);
  readonly all = signal(false);
  readonly shown = computed(() =>
    this.unkept()
      .slice(0, this.all() ? undefined : FEW)
      .map(({ id, at, base, recipe, here }) => ({
        id,
        here,
        name: (base?.name ?? suggestName(recipe)).slice(0, 80),
        when: momentWords(at),
        link: here ? '/bench' : `/bench?work=${encodeURIComponent(id)}`,
      })),
  );
  readonly more = computed(() => this.unkept().length - this.shown().length);

  async putAside(id: string): Promise<void> {
    const undo = await this.repo.putAside(id);
    if (undo) this.notices.tell('The unkept work is discarded.', { label: 'Undo', run: () => void undo() });
  }
}
