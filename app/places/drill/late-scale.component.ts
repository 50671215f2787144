import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { timingWords } from '@core/take';

/** How early or late somebody or something was, in milliseconds, and how wide round that. */
export interface Timing {
  readonly name: string;
  readonly mean: number;
  readonly spread: number;
}

/** The scale reaches so far to each side at least, in milliseconds. */
const LEAST_REACH = 30;

/** Limbs on a scale from early to late: a dot where each lies, a band for its spread. */
@Component({
  selector: 'ls-late-scale',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="ends quiet" aria-hidden="true"><span>early</span><span>late</span></div>
    @for (r of rows(); track r.name) {
      <span class="name">{{ r.name }}</span>
      <span class="line" role="img" [attr.aria-label]="r.name + ': ' + r.words" [title]="r.words">
        <span class="band" [style.left.%]="r.from" [style.width.%]="r.to - r.from"></span>
        <span class="dot" [class.off]="r.isOff" [style.left.%]="r.at"></span>
      </span>
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: max-content minmax(80px, 1fr);
      column-gap: 10px;
      row-gap: 0;
      align-items: center;
      font-size: 13px;
      line-height: 1.25;
    }
    .ends {
      grid-column: 2;
      display: flex;
      justify-content: space-between;
      font-size: 12px;
    }
    .line {
      position: relative;
      height: 16px;
      background: linear-gradient(var(--line-strong), var(--line-strong)) center / 2px 100% no-repeat;
      border-bottom: 1px solid var(--line);
    }
    .band {
      position: absolute;
      top: 5px;
      height: 6px;
      border-radius: 3px;
      background: var(--line-strong);
    }
    .dot {
      position: absolute;
      top: 2px;
      width: 12px;
      height: 12px;
      margin-left: -6px;
      border-radius: 50%;
      background: var(--good);
    }
    .dot.off {
      background: var(--mark);
    }
  `,
})
export class LateScaleComponent {
  readonly timings = input.required<readonly Timing[]>();
  /** What lies farther off than this is marked, in milliseconds. */
  readonly most = input(10);
  readonly rows = computed(() => {
    const reach = Math.max(LEAST_REACH, ...this.timings().map((t) => Math.abs(t.mean) + t.spread));
    const at = (ms: number): number => 50 + (50 * ms) / reach;
    return this.timings().map((t) => ({
      name: t.name,
      words: timingWords(t.mean, t.spread),
      at: at(t.mean),
      from: Math.max(0, at(t.mean - t.spread)),
      to: Math.min(100, at(t.mean + t.spread)),
      isOff: Math.abs(t.mean) > this.most(),
    }));
  });
}
