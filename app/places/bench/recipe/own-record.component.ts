import { ChangeDetectionStrategy, Component, computed, inject, input, OnDestroy } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { of, switchMap } from 'rxjs';
import { samplesOf } from '@core/listen';
import { RecordPlayer } from '../../../sound/record-player';
import { ClipsRepo } from '../../../storage/clips.repo';
import { OwnRecords, sizeWords } from '../../../playing/own-records';

/** The bars of the record from which a phrase was taken: heard, and let go. */
@Component({
  selector: 'ls-own-record',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (clip(); as c) {
      <p class="row">
        <button type="button" class="btn small" [class.on]="player.playing()" (click)="toggle()">
          {{ player.playing() ? 'Stop the recording' : 'Hear the recording' }}
        </button>
        <span class="quiet">{{ size() }}</span>
        <button type="button" class="btn small plain" (click)="own.letGo(c.id)">Delete the recording</button>
      </p>
    }
  `,
  styles: `
    .row {
      display: flex;
      align-items: center;
      gap: 8px;
      margin: 6px 0 0;
    }
  `,
})
export class OwnRecordComponent implements OnDestroy {
  readonly phrase = input.required<string | null>();
  readonly player = inject(RecordPlayer);
  private readonly clips = inject(ClipsRepo);
  readonly own = inject(OwnRecords);
  readonly clip = toSignal(
    toObservable(this.phrase).pipe(switchMap((id) => (id === null ? of(null) : this.clips.of$(id)))),
    {
      initialValue: null,
    },
  );
  readonly size = computed(() => sizeWords(this.clip()?.samples.length ?? 0));

  ngOnDestroy(): void {
    this.player.stop();
  }

  toggle(): void {
    const clip = this.clip();
    if (this.player.playing()) return this.player.stop();
    if (!clip) return;
    const buffer = this.player.bufferOf([samplesOf(clip.samples)], clip.rate);
    // Round from bar line to bar line; what lies before and after belongs to the attacks.
    const [from, to] = [clip.marks[0]?.at ?? 0, Math.min(buffer.duration, clip.marks.at(-1)?.at ?? Infinity)];
    const round = to > from ? { from: Math.max(0, from), to } : { from: 0, to: buffer.duration };
    void this.player.play({ buffer, from: 0, speed: 1, round }, round.from);
  }
}
