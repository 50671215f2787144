import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { isEasy, type TodayPlan } from '@core/plan';

/** The strokes of a day for one hand, as a bar with its limit. */
@Component({
  selector: 'ls-load-bar',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="bar" aria-hidden="true">
      <span class="played" [class.over]="share() > 1" [style.width.%]="100 * (share() > 1 ? 1 : share())"></span>
      @if (load().most !== null) {
        <span class="limit" [style.left.%]="100 * (share() > 1 ? 1 / share() : 1)"></span>
      }
    </div>
    <p class="quiet">{{ words() }}</p>
  `,
  styles: `
    .bar {
      position: relative;
      height: 12px;
      border-radius: 3px;
      background: var(--line);
    }
    .played {
      display: block;
      height: 100%;
      border-radius: 3px;
      background: var(--good);
    }
    .played.over {
      background: var(--mark);
    }
    .limit {
      position: absolute;
      top: -3px;
      width: 3px;
      height: 18px;
      margin-left: -3px;
      background: var(--ink);
    }
    p {
      margin-top: 4px;
      font-size: 12.5px;
    }
  `,
})
export class LoadBarComponent {
  readonly load = input.required<TodayPlan['load']>();
  /** Of the limit; half a bar where there is none yet. */
  readonly share = computed(() => {
    const { strokes, most } = this.load();
    return most === null || most === 0 ? 0.5 : strokes / most;
  });
  readonly words = computed(() => {
    const { strokes, most } = this.load();
    const asked = `About ${hundreds(strokes)} strokes per hand.`;
    if (most === null) return `${asked} No limit yet: it needs a week of practice.`;
    return isEasy(most)
      ? `${asked} An easy half hour has ${hundreds(most)}.`
      : `${asked} Your limit today: ${hundreds(most)}.`;
  });
}

function hundreds(n: number): string {
  return (Math.round(n / 100) * 100).toLocaleString('en');
}
