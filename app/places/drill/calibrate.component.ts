import { ChangeDetectionStrategy, Component, inject, input, output, signal, type OnDestroy } from '@angular/core';
import { Subscription } from 'rxjs';
import { GRID, meter, ticks } from '@core/time';
import { patternOfText } from '@core/pattern';
import { rendition, requestOf } from '@core/rendition';
import { CALIBRATION_BEATS, latencyOf, type Latency } from '@core/take';
import { Transport } from '../../sound/transport.service';
import { now } from '../../environment/clock';
import { LatencyRepo } from '../../storage/latency.repo';
import type { HitSource } from '../../hits/source';
import { Player } from '../../playing/player';

const BPM = 100;
/** By this name the clicks of a calibration are known among what sounds. */
const CALIBRATION = 'calibration';

/** Sixteen clicks to tap along with: how far the source is behind what is heard. */
@Component({
  selector: 'ls-calibrate',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p class="small">
      @if (running()) {
        Tap along with every click: {{ taps().length }} of {{ beats }}.
      } @else if (found(); as f) {
        {{ source().name }}: {{ (f.seconds * 1000).toFixed(0) }} ms delay, spread {{ (f.spread * 1000).toFixed(0) }} ms.
        Measured and set.
      } @else if (problem(); as words) {
        <span class="wrong">{{ words }}</span>
      } @else {
        Delay now: {{ ((latency.now()[source().kind] ?? 0) * 1000).toFixed(0) }} ms. To measure it, tap along with 16
        clicks.
      }
    </p>
    <button type="button" class="btn small" [disabled]="running()" (click)="start()">
      {{ found() ? 'Again' : 'Begin' }}
    </button>
    <button type="button" class="btn small" (click)="closed.emit()">Close</button>
  `,
  styles: `
    .small {
      font-size: 12.5px;
      margin-bottom: 6px;
    }
    .btn {
      margin-right: 6px;
    }
  `,
})
export class CalibrateComponent implements OnDestroy {
  readonly source = input.required<HitSource>();
  readonly closed = output();
  readonly latency = inject(LatencyRepo);
  private readonly transport = inject(Transport);
  private readonly player = inject(Player);
  readonly beats = CALIBRATION_BEATS;
  readonly running = signal(false);
  readonly taps = signal<readonly number[]>([]);
  readonly found = signal<Latency | null>(null);
  readonly problem = signal<string | null>(null);
  private ears = new Subscription();
  private timer: ReturnType<typeof setTimeout> | null = null;

  ngOnDestroy(): void {
    this.end();
  }

  async start(): Promise<void> {
    this.end();
    this.found.set(null);
    this.problem.set(null);
    this.taps.set([]);
    if (!(await this.source().start())) {
      this.problem.set(this.source().trouble() ?? 'This source cannot be heard now.');
      return;
    }
    const empty = { ...patternOfText([], meter(4, 4), GRID.quarters), length: ticks(CALIBRATION_BEATS * 5040) };
    this.player.play(CALIBRATION, requestOf(rendition({ phrase: empty }), BPM));
    this.running.set(true);
    this.ears = new Subscription();
    this.ears.add(this.source().hits$.subscribe((hit) => this.taps.update((all) => [...all, hit.seconds])));
    this.timer = setTimeout(() => this.read(), (CALIBRATION_BEATS * 60_000) / BPM + 400);
  }

  private read(): void {
    const beats = Array.from({ length: CALIBRATION_BEATS }, (_, i) => this.transport.pageTimeOf(i * 5040) ?? 0);
    const found = latencyOf(beats, this.taps());
    this.end();
    if (found.ok) {
      this.found.set(found.value);
      void this.latency.keep(this.source().kind, found.value.seconds, now());
    } else this.problem.set(`${found.problems[0].message} The old delay stays.`);
  }

  private end(): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    this.ears.unsubscribe();
    if (this.running()) {
      this.player.stop(CALIBRATION);
      this.source().stop();
    }
    this.running.set(false);
  }
}
