import { ChangeDetectionStrategy, Component, computed, inject, signal, type OnDestroy } from '@angular/core';
import { Subscription } from 'rxjs';
import { LIMB_WORDS, LIMBS, type Limb } from '@core/stroke';
import { limbReading, readingWords, STROKE_KINDS, TEST_SECONDS, withRate, type StrokeKind } from '@core/reach';
import { steadyStream } from '@core/take';
import { now } from '../data/clock';
import { ProfileRepo } from '../data/profile.repo';
import { SimulatedSource } from '../input/simulated.source';
import type { SourceKind } from '../input/source';
import { HitSources } from '../input/sources.service';
import { NoticesService } from '../shell/notices.service';
import { ChipsComponent } from '../ui/chips.component';
import type { Choice } from '../ui/choice';
import { NumberFieldComponent } from '../ui/number-field.component';

type Phase = 'ready' | 'listening' | 'read';

/**
 * Ten seconds of strokes by one limb: how fast it is, how even, and whether it tires. Nothing is kept until it is asked
 * for.
 */
@Component({
  selector: 'ls-limb-test',
  imports: [ChipsComponent, NumberFieldComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './limb-test.component.html',
  styleUrl: './limb-test.component.css',
})
export class LimbTestComponent implements OnDestroy {
  readonly profile = inject(ProfileRepo);
  readonly sources = inject(HitSources);
  private readonly simulated = inject(SimulatedSource);
  private readonly notices = inject(NoticesService);
  readonly limbs: readonly Choice<Limb>[] = LIMBS.map((l) => ({ value: l, words: LIMB_WORDS[l] }));
  readonly kinds: readonly Choice<StrokeKind>[] = STROKE_KINDS.map((k) => ({ value: k, words: k }));
  readonly onWhat: readonly Choice<SourceKind>[] = this.sources.all.map((s) => ({ value: s.kind, words: s.name }));
  readonly seconds = TEST_SECONDS;

  readonly limb = signal<Limb>('R');
  readonly kind = signal<StrokeKind>('singles');
  readonly source = signal<SourceKind>('keys');
  readonly phase = signal<Phase>('ready');
  readonly left = signal(TEST_SECONDS);
  /** Strokes a second that the simulated player is set to. */
  readonly simulatedRate = signal(8);
  readonly moments = signal<readonly number[]>([]);
  readonly reading = computed(() => (this.phase() === 'read' ? limbReading(this.moments(), this.kind()) : null));
  readonly words = computed(() => {
    const read = this.reading();
    return read?.ok ? readingWords(read.value) : null;
  });
  /** The distances between strokes as bars, as shares of the longest usual one. */
  readonly bars = computed(() => {
    const read = this.reading();
    if (!read?.ok) return [];
    const most = Math.max(
      ...[...read.value.gaps].sort((a, b) => a - b).slice(0, Math.ceil(read.value.gaps.length * 0.97)),
    );
    return read.value.gaps.slice(0, 200).map((g) => Math.min(100, (100 * g) / most));
  });
  readonly now = computed(() => this.sources.of(this.source()));

  private ears = new Subscription();
  private clock: ReturnType<typeof setInterval> | null = null;

  ngOnDestroy(): void {
    this.end();
  }

  async start(): Promise<void> {
    this.end();
    this.moments.set([]);
    this.left.set(TEST_SECONDS);
    const source = this.now();
    if (!(await source.start())) return;
    this.phase.set('listening');
    this.ears = new Subscription();
    this.ears.add(
      source.hits$.subscribe((hit) => {
        if (hit.limb !== null && hit.limb !== this.limb()) return;
        // The ten seconds begin with the first stroke, so that nobody has to hurry.
        if (this.moments().length === 0) this.run();
        this.moments.update((all) => [...all, hit.seconds]);
      }),
    );
    if (source.kind === 'simulated') {
      const from = performance.now() / 1000 + 0.1;
      const stream = steadyStream(this.limb(), this.simulatedRate(), TEST_SECONDS, this.kind() === 'doubles');
      this.simulated.play(stream.map((e) => ({ ...e, seconds: e.seconds + from })));
    }
  }

  stop(): void {
    this.end();
    this.phase.set(this.moments().length > 0 ? 'read' : 'ready');
  }

  keep(): void {
    const read = this.reading();
    if (!read?.ok) return;
    const before = this.profile.now();
    void this.profile.keep(withRate(before, this.limb(), this.kind(), read.value.rate, now()));
    this.notices.tell(
      `${LIMB_WORDS[this.limb()]}, ${this.kind()}: ${read.value.rate.toFixed(1)} a second is yours now.`,
      {
        label: 'Take back',
        run: () => void this.profile.keep(before),
      },
    );
    this.phase.set('ready');
  }

  private run(): void {
    const began = performance.now();
    this.clock = setInterval(() => {
      const left = TEST_SECONDS - (performance.now() - began) / 1000;
      this.left.set(Math.max(0, left));
      if (left <= 0) this.stop();
    }, 100);
  }

  private end(): void {
    this.ears.unsubscribe();
    this.now().stop();
    if (this.clock) clearInterval(this.clock);
    this.clock = null;
  }
}
