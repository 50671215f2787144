import { ChangeDetectionStrategy, Component, effect, inject, signal, type OnDestroy } from '@angular/core';
import { Subscription } from 'rxjs';
import { levelsFrom } from '@core/listen';
import { MicLevelsRepo, type MicLevels } from '../../storage/mic-levels.repo';
import { STILLNESS } from '../../common/stilled';
import { MicrophoneSource } from '../../hits/microphone.source';

const HITS = 4;
/** The room is listened to for so long: a moment, and ten times what is otherwise still. In milliseconds. */
const QUIET = { least: 80, still: 10 } as const;
/** What is struck must stand this many times over the room to be asked for, and over nothing at all. */
const OVER_ROOM = 1.6;
const LEAST = 0.00015;

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
      @case ('room') {
        <p role="status">Be quiet for a moment: the room is measured first.</p>
      }
      @case ('soft') {
        <p role="status">Hit softly, as a ghost stroke: {{ soft().length }} of {{ many }}.</p>
      }
      @case ('hard') {
        <p role="status">Now as hard as you play: {{ hard().length }} of {{ many }}.</p>
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
  readonly step = signal<'idle' | 'room' | 'soft' | 'hard'>('idle');
  readonly soft = signal<readonly number[]>([]);
  readonly hard = signal<readonly number[]>([]);
  readonly words = signal<string | null>(null);
  private readonly still = inject(STILLNESS);
  private room = 0;
  /** What is put back when it is broken off. */
  private before: MicLevels | null = null;
  private quiet: ReturnType<typeof setTimeout> | undefined;
  private ears = new Subscription();

  constructor() {
    effect(() => {
      const bright = this.microphone.bright();
      if (this.step() === 'room') this.room = Math.max(this.room, bright);
    });
  }

  ngOnDestroy(): void {
    this.ears.unsubscribe();
    clearTimeout(this.quiet);
    if (this.step() !== 'idle' && this.before) void this.levels.keep(this.before);
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
    this.before = before;
    this.room = 0;
    this.step.set('room');
    this.quiet = setTimeout(() => void this.ask(before), QUIET.least + QUIET.still * this.still);
  }

  /** The room is known: what stands out of it is a hit, however low the input. */
  private async ask(before: MicLevels): Promise<void> {
    await this.levels.keep({ threshold: Math.max(LEAST, this.room * OVER_ROOM), loudest: before.loudest });
    this.step.set('soft');
    this.ears = this.microphone.peaks$.subscribe((peak) => this.hear(peak, before));
  }

  private hear(peak: number, before: MicLevels): void {
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
      found ? 'The levels are set.' : `${heardWords(this.soft(), this.hard(), this.room)} The old levels stay.`,
    );
  }
}

/** What was heard, where no levels come of it. */
function heardWords(soft: readonly number[], hard: readonly number[], room: number): string {
  const percent = (n: number): string => (n < 0.01 ? (n * 100).toFixed(1) : String(Math.round(n * 100)));
  const [least, most] = [Math.min(...soft), Math.max(...hard)];
  return least <= room * 1.5
    ? `Your soft hits are hardly louder than the room (${percent(least)}% and ${percent(room)}%). Move closer to the microphone, or wait for quiet.`
    : `Soft and hard hits were too alike (${percent(least)}% and ${percent(most)}%). Hit softer first, then harder.`;
}
