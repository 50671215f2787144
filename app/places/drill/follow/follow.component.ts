import { ChangeDetectionStrategy, Component, computed, input, signal, type Signal } from '@angular/core';
import { barTicks, USUAL_SCHOOLS, type Schools } from '@core/time';
import { barOf, type Pattern } from '@core/pattern';
import { NO_MARKS, type RibbonMarks } from '../../../drawings/ribbon/marks';
import { looksAlike } from '../../../drawings/ribbon/same';
import { RibbonComponent } from '../../../drawings/ribbon/ribbon.component';
import { StaffComponent } from '../../../drawings/staff/staff.component';
import { barsInSight } from './follow';

/**
 * The drawing that follows: of a long phrase the bar that sounds and, under it, the one that comes next, so that
 * nothing is due that was not seen before. A short one stands there whole.
 */
@Component({
  selector: 'ls-follow',
  imports: [RibbonComponent, StaffComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (drawn() === 'ribbon') {
      <ls-ribbon
        [pattern]="pattern()"
        size="room"
        [schools]="schools()"
        [position]="position()"
        [loop]="loop()"
        [marks]="marks()"
        [bars]="bars()"
      />
    } @else {
      @for (b of staves(); track $index) {
        @if (bars() !== null) {
          <p class="bar-name mono" [class.later]="$index > 0">bar {{ b.n + 1 }}</p>
        }
        @defer (on immediate) {
          <ls-staff
            [class.later]="$index > 0"
            [pattern]="b.pattern"
            [label]="'bar ' + (b.n + 1)"
            [scale]="0.88"
            [position]="b.position"
          />
        }
      }
    }
  `,
  styles: `
    :host {
      display: block;
      min-width: 0;
    }
    .bar-name {
      font-size: 12px;
      color: var(--quiet);
    }
    .later {
      opacity: 0.62;
    }
  `,
})
export class FollowComponent {
  readonly pattern = input.required<Pattern>();
  readonly drawn = input<'ribbon' | 'staff'>('ribbon');
  readonly schools = input<Schools>(USUAL_SCHOOLS);
  /** The tick that sounds, from the pattern's bar line; null when silent. */
  readonly position = input<Signal<number | null>>(signal(null));
  readonly loop = input(0);
  readonly marks = input<RibbonMarks>(NO_MARKS);
  /** The bars in sight; null when all are. Told only when they change, not with every tick. */
  readonly bars = computed(() => barsInSight(this.pattern(), this.position()(), this.loop()), { equal: looksAlike });
  /** The staves in sight, each with what sounds of it: a phrase that is short is one staff. */
  readonly staves = computed(() => {
    const [pattern, bars] = [this.pattern(), this.bars()];
    const bar = barTicks(pattern.meter);
    if (bars === null) return [{ n: 0, pattern, position: computed(() => this.inLoop()) }];
    return bars.map((n) => ({
      n,
      pattern: n === 0 && pattern.pickup ? { ...barOf(pattern, n), pickup: pattern.pickup } : barOf(pattern, n),
      position: computed(() => {
        const tick = this.inLoop();
        if (tick !== null && tick < 0) return n === 0 ? tick : null;
        return tick !== null && tick >= n * bar && tick < (n + 1) * bar ? tick - n * bar : null;
      }),
    }));
  });

  private inLoop(): number | null {
    const tick = this.position()();
    if (tick === null || tick < 0) return tick;
    return this.loop() > 0 ? tick % this.loop() : tick;
  }
}
