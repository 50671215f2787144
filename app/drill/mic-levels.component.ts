import { ChangeDetectionStrategy, Component, inject, signal, type OnDestroy } from '@angular/core';
import { Subscription } from 'rxjs';
import { levelsFrom } from '@core/listen';
import { MicLevelsRepo } from '../data/mic-levels.repo';
import { MicrophoneSource } from '../input/microphone.source';

const HITS = 4;

/** Hit softly, hit hard: the threshold and the loudest hit of this pad and room, with a meter. */
@Component({
  selector: 'ls-mic-levels',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div
      class="level"
      role="meter"
      aria-label="Loudness now"
      aria-valuemin="0"
      aria-valuemax="100"
      [attr.aria-valuenow]="percent()"
    >
      <span [style.width.%]="percent()"></span>
      <i [style.left.%]="levels.now().threshold * 100"></i>
    </div>
    @switch (step()) {
      @case ('idle') {
        <button type="button" class="btn small" (click)="begin()">Set the levels</button>
      }
      @case ('soft') {
        <p role="status">Hit softly, as a ghost stroke: {{ soft().length }} of {{ many }}.</p>
      }
      @case ('hard') {
        <p role="status">Now as hard as you ever play: {{ hard().length }} of {{ many }}.</p>
      }
    }
    @if (words(); as w) {
      <p class="quiet" role="status">{{ w }}</p>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      gap: 6px;
      font-size: 13px;
    }
    .level {
      position: relative;
      height: 12px;
      background: var(--sunken);
      border-radius: 2px;
    }
    .level span {
      display: block;
      height: 100%;
      background: var(--good);
      border-radius: 2px;
    }
    .level i {
      position: absolute;
      top: -2px;
      width: 2px;
      height: 16px;
      background: var(--mark);
    }
  `,
})
export class MicLevelsComponent implements OnDestroy {
  readonly levels = inject(MicLevelsRepo);
  private readonly microphone = inject(MicrophoneSource);
  readonly many = HITS;
  readonly step = signal<'idle' | 'soft' | 'hard'>('idle');
  readonly soft = signal<readonly number[]>([]);
  readonly hard = signal<readonly number[]>([]);
  readonly words = signal<string | null>(null);
  private room = 0.005;
  private ears = new Subscription();

  ngOnDestroy(): void {
    this.ears.unsubscribe();
  }

  percent(): number {
    return Math.min(100, Math.round(this.microphone.level() * 100));
  }

  async begin(): Promise<void> {
    this.words.set(null);
    this.soft.set([]);
    this.hard.set([]);
    if (!(await this.microphone.start())) {
      this.words.set(this.microphone.trouble());
      return;
    }
    const before = this.levels.now();
    // A low threshold for the time of setting, so that soft hits are heard at all.
    await this.levels.keep({ threshold: 0.012, loudest: before.loudest });
    this.room = Math.max(0.004, this.microphone.level() * 0.3);
    this.step.set('soft');
    this.ears = this.microphone.peaks$.subscribe((peak) => this.hear(peak, before));
  }

  private hear(peak: number, before: { readonly threshold: number; readonly loudest: number }): void {
    if (this.step() === 'soft') {
      this.soft.update((all) => [...all, peak]);
      if (this.soft().length >= HITS) this.step.set('hard');
      return;
    }
    this.hard.update((all) => [...all, peak]);
    if (this.hard().length < HITS) return;
    this.ears.unsubscribe();
    this.step.set('idle');
    const found = levelsFrom(this.soft(), this.hard(), this.room);
    void this.levels.keep(found ?? before);
    this.words.set(
      found
        ? 'The levels are set and remembered.'
        : 'Soft and hard were too alike, or the room too loud. The levels are as they were.',
    );
  }
}
