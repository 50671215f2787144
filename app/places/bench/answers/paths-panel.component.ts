import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { count } from '@core/base';
import { Transport } from '../../../sound/transport.service';
import { KitsRepo } from '../../../storage/kits.repo';
import { KitPlanComponent } from '../../../drawings/kit-plan/kit-plan.component';
import { ReachStore } from './reach.store';
import { SoundStore } from '../ribbon/sound.store';

/** The phrase's way round the kit, hand by hand, moving with the sound. */
@Component({
  selector: 'ls-paths-panel',
  imports: [KitPlanComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <dl>
      @for (h of reach.paths()?.hands ?? []; track h.hand) {
        <div [class]="h.hand">
          <dt>{{ h.hand === 'R' ? 'right hand' : 'left hand' }}</dt>
          <dd class="mono">{{ h.perBar.toFixed(0) }} cm per bar</dd>
        </div>
      }
      <div>
        <dt>crossings</dt>
        <dd class="mono">{{ crossed() }}</dd>
      </div>
      <div>
        <dt class="quiet">on</dt>
        <dd class="quiet">{{ kits.current().name }}</dd>
      </div>
    </dl>
    <ls-kit-plan
      [kit]="kits.current()"
      [paths]="paths()"
      [now]="now()"
      [label]="'Travel of the hands over ' + kits.current().name"
    />
  `,
  styles: `
    :host {
      display: flex;
      gap: 20px;
      height: 100%;
      min-height: 160px;
    }
    dl {
      margin: 6px 0;
      flex: none;
      width: 200px;
    }
    dl div {
      display: flex;
      gap: 8px;
      padding: 3px 0 3px 10px;
      border-left: 4px solid transparent;
    }
    dt {
      flex: 1;
    }
    dd {
      margin: 0;
      font-size: 12.5px;
    }
    .R {
      border-color: var(--mark);
    }
    .L {
      border-color: var(--accent);
    }
    ls-kit-plan {
      flex: 1;
      min-width: 0;
    }
  `,
})
export class PathsPanelComponent {
  readonly reach = inject(ReachStore);
  readonly kits = inject(KitsRepo);
  private readonly sound = inject(SoundStore);
  private readonly transport = inject(Transport);
  readonly paths = computed(() => (this.reach.paths()?.hands ?? []).map((h) => ({ limb: h.hand, points: h.points })));
  readonly crossed = computed(() => {
    const n = this.reach.paths()?.crossings.length ?? 0;
    return n === 0 ? 'none' : count(n, 'place');
  });
  /** Where each hand struck last as it sounds. */
  readonly now = computed(() => {
    const tick = this.transport.position();
    const [loop, pattern] = [this.sound.loop(), this.reach.onKit()?.pattern];
    if (tick === null || tick < 0 || !pattern) return [];
    const at = (loop > 0 ? tick % loop : tick) + this.sound.origin() - pattern.start;
    return (this.reach.paths()?.hands ?? []).flatMap((h) => {
      const p = h.points.findLast((x) => x.at <= at);
      return p ? [{ limb: h.hand, x: p.x, y: p.y }] : [];
    });
  });
}
