import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { format } from 'date-fns';
import { LIMB_WORDS, LIMBS, VOICE } from '@core/stroke';
import { STROKE_KINDS, USUAL_PROFILE, type Profile } from '@core/reach';
import { ProfileRepo } from '../../storage/profile.repo';
import { NoticesService } from '../../common/notices.service';
import { ChipsComponent } from '../../widgets/chips.component';
import { choicesOf } from '../../widgets/choice';
import { LimbTestComponent } from './limb-test.component';

/** My hands and feet: which leads, how fast each is, and the test that measures it. */
@Component({
  selector: 'ls-hands-panel',
  imports: [ChipsComponent, LimbTestComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="cols">
      <section class="panel">
        <h2>Limb test, travel test</h2>
        <ls-limb-test />
      </section>
      <section class="panel">
        <h2>My speed</h2>
        <table>
          <thead>
            <tr>
              <th></th>
              @for (k of kinds; track k) {
                <th scope="col">{{ k }}</th>
              }
              <th scope="col">measured</th>
            </tr>
          </thead>
          <tbody>
            @for (r of rows(); track r.limb) {
              <tr>
                <th scope="row">{{ r.name }}</th>
                @for (n of r.rates; track $index) {
                  <td class="mono" [class.quiet]="!n.measured">{{ n.rate.toFixed(1) }}</td>
                }
                <td class="quiet">{{ r.when }}</td>
              </tr>
            }
          </tbody>
        </table>
        <p class="quiet small">
          Strokes per second. Grey figures are typical, not yours: take the test to replace them.
        </p>
        <table class="ways">
          <caption>
            Travel time between two pieces
          </caption>
          <tbody>
            @for (w of ways(); track $index) {
              <tr>
                <th scope="row">{{ w.words }}</th>
                <td class="mono">{{ w.ms }} ms</td>
                <td class="quiet">{{ w.when }}</td>
              </tr>
            } @empty {
              <tr>
                <td class="quiet">None measured yet: typical values, by the distance on your kit.</td>
              </tr>
            }
          </tbody>
        </table>
        <div class="row">
          <span class="grow">I lead with the</span>
          <ls-chips label="I lead with the" [chips]="hands" [chosen]="profile.now().leads" (chose)="lead($event)" />
        </div>
        <div class="row">
          <span class="grow">and with the</span>
          <ls-chips
            label="and with the"
            [chips]="feet"
            [chosen]="profile.now().leadsFoot"
            (chose)="change({ leadsFoot: $event })"
          />
        </div>
        <div class="row">
          <button type="button" class="btn small" [disabled]="!timed()" (click)="forget()">Use typical values</button>
        </div>
        <p class="quiet small">
          Warm up slowly, hold the sticks loosely, stop at pain, tingling or numbness, rest between tests. These are
          usual habits, not medical advice: for anything that lasts, see a doctor or physiotherapist.
        </p>
      </section>
    </div>
  `,
  styles: `
    .cols {
      display: grid;
      grid-template-columns: minmax(0, 3fr) minmax(320px, 2fr);
      gap: 20px;
      max-width: 1100px;
      align-items: start;
    }
    section {
      padding: 16px 20px;
      display: flex;
      flex-direction: column;
      gap: 12px;
    }
    table {
      border-collapse: collapse;
      width: 100%;
      font-size: 13.5px;
    }
    caption {
      text-align: left;
      font-weight: 600;
      padding-bottom: 4px;
    }
    th {
      text-align: left;
      font-weight: 500;
    }
    td,
    th {
      padding: 5px 8px 5px 0;
      border-bottom: 1px solid var(--line);
    }
    .row {
      display: flex;
      gap: 8px;
      align-items: center;
    }
    .grow {
      flex: 1;
    }
    .small {
      font-size: 12.5px;
    }
    @container place (max-width: 928px) {
      .cols {
        grid-template-columns: minmax(0, 1fr);
      }
    }
  `,
})
export class HandsPanelComponent {
  readonly profile = inject(ProfileRepo);
  private readonly notices = inject(NoticesService);
  readonly kinds = STROKE_KINDS;
  readonly hands = choicesOf(['R', 'L'] as const, (h) => (h === 'R' ? 'right hand' : 'left hand'));
  readonly feet = choicesOf(['right foot', 'left foot'] as const);
  readonly rows = computed(() => {
    const { rates, measured } = this.profile.now();
    return LIMBS.map((limb) => {
      const own = measured.filter((m) => m.limb === limb);
      const last = Math.max(0, ...own.map((m) => m.at));
      return {
        limb,
        name: LIMB_WORDS[limb],
        rates: STROKE_KINDS.map((kind) => ({ rate: rates[limb][kind], measured: own.some((m) => m.kind === kind) })),
        when: last === 0 ? 'typical' : format(last, 'd MMM'),
      };
    });
  });

  readonly ways = computed(() =>
    (this.profile.now().ways ?? []).map((w) => ({
      words: `${LIMB_WORDS[w.hand]}, ${VOICE[w.from].name} and ${VOICE[w.to].name}`,
      ms: Math.round(w.seconds * 1000),
      when: format(w.at, 'd MMM'),
    })),
  );
  /** Whether anything was timed that could be forgotten. */
  readonly timed = computed(() => this.profile.now().measured.length + (this.profile.now().ways ?? []).length > 0);

  change(part: Partial<Profile>): void {
    void this.profile.keep({ ...this.profile.now(), ...part });
  }

  lead(hand: 'R' | 'L'): void {
    this.change({ leads: hand });
  }

  forget(): void {
    const before = this.profile.now();
    void this.profile.keep({ ...USUAL_PROFILE, leads: before.leads, leadsFoot: before.leadsFoot });
    this.notices.tell('All speeds and travel times are typical ones again.', {
      label: 'Undo',
      run: () => void this.profile.keep(before),
    });
  }
}
