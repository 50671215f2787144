import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject, signal } from '@angular/core';
import { TodayRepo } from '../storage/today.repo';

/** The clock of the block of the day that is under way: what is left of it, and when it is over. */
@Component({
  selector: 'ls-block-clock',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (block(); as b) {
      <span class="left mono" [class.over]="over()" role="timer" [attr.aria-label]="spoken()">{{ shown() }}</span>
      <span class="quiet">{{ over() ? 'over ' + b.minutes + ' min' : 'left of ' + b.minutes + ' min' }}</span>
    }
  `,
  styles: `
    :host {
      display: inline-flex;
      align-items: baseline;
      gap: 8px;
      white-space: nowrap;
    }
    .left {
      font-size: 20px;
      font-weight: 600;
      font-variant-numeric: tabular-nums;
    }
    .over {
      color: var(--mark);
    }
  `,
})
export class BlockClockComponent {
  private readonly repo = inject(TodayRepo);
  readonly block = computed(() => this.repo.now().running);
  private readonly nowState = signal(Date.now());
  /** Seconds that are left; below 0 the block is over. */
  readonly seconds = computed(() => {
    const block = this.block();
    if (!block) return 0;
    // A clock that was set back counts as a block that just began.
    const gone = Math.max(0, (this.nowState() - block.began) / 1000);
    return Math.round(block.minutes * 60 - gone);
  });
  readonly over = computed(() => this.seconds() < 0);
  readonly shown = computed(() => {
    const all = Math.min(5999, Math.abs(this.seconds()));
    return `${this.over() ? '+' : ''}${Math.floor(all / 60)}:${String(all % 60).padStart(2, '0')}`;
  });
  /** In whole minutes: nobody wants every second read out. */
  readonly spoken = computed(() => {
    const minutes = Math.max(0, Math.ceil(this.seconds() / 60));
    return this.over() ? 'The block is over' : `${minutes} ${minutes === 1 ? 'minute' : 'minutes'} left`;
  });

  constructor() {
    const timer = setInterval(() => this.nowState.set(Date.now()), 1000);
    inject(DestroyRef).onDestroy(() => clearInterval(timer));
  }
}
