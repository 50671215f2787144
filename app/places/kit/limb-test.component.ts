import { ChangeDetectionStrategy, Component, computed, inject, signal, type OnDestroy } from '@angular/core';
import { Subscription } from 'rxjs';
import { canStrike, isHand, LIMB_WORDS, LIMBS, VOICE, VOICES, type Limb, type Voice } from '@core/stroke';
import { pieceFor } from '@core/kit';
import {
  limbReading,
  readingWords,
  STROKE_KINDS,
  TEST_SECONDS,
  wayOn,
  wayReading,
  wayWords,
  withRate,
  withWay,
} from '@core/reach';
import { steadyStream } from '@core/take';
import { now } from '../../environment/clock';
import { KitsRepo } from '../../storage/kits.repo';
import { ProfileRepo } from '../../storage/profile.repo';
import { SimulatedSource } from '../../hits/simulated.source';
import type { SourceKind } from '../../hits/source';
import { HitSources } from '../../hits/sources.service';
import { NoticesService } from '../../common/notices.service';
import { ChipsComponent } from '../../widgets/chips.component';
import type { Choice } from '../../widgets/choice';
import { NumberFieldComponent } from '../../widgets/number-field.component';
import { SelectComponent } from '../../widgets/select.component';

/** Strokes a second that the simulated player begins with. */
const SIMULATED = { spot: 8, way: 4.5 } as const;

type Phase = 'ready' | 'listening' | 'read';

/** What is timed: strokes on one spot, or one hand to and fro between two pieces. */
const TESTS = [...STROKE_KINDS, 'to and fro'] as const;
type Test = (typeof TESTS)[number];

/**
 * Ten seconds of strokes by one limb: how fast it is, how even, and whether it tires; and of one hand to and fro
 * between two pieces: how long its ways take. Nothing is kept until it is asked for.
 */
@Component({
  selector: 'ls-limb-test',
  imports: [ChipsComponent, NumberFieldComponent, SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './limb-test.component.html',
  styleUrl: './limb-test.component.css',
})
export class LimbTestComponent implements OnDestroy {
  readonly profile = inject(ProfileRepo);
  readonly sources = inject(HitSources);
  private readonly kits = inject(KitsRepo);
  private readonly simulated = inject(SimulatedSource);
  private readonly notices = inject(NoticesService);
  readonly limbs = computed((): readonly Choice<Limb>[] =>
    LIMBS.filter((l) => this.kind() !== 'to and fro' || isHand(l)).map((l) => ({ value: l, words: LIMB_WORDS[l] })),
  );
  readonly kinds: readonly Choice<Test>[] = TESTS.map((k) => ({ value: k, words: k }));
  readonly onWhat: readonly Choice<SourceKind>[] = this.sources.all.map((s) => ({ value: s.kind, words: s.name }));
  readonly seconds = TEST_SECONDS;

  readonly limb = signal<Limb>('R');
  readonly kind = signal<Test>('singles');
  /** The two ends of the way; on a kit that lacks one of them, what it has. */
  private readonly wished = signal<{ readonly from: Voice; readonly to: Voice }>({ from: 'snare', to: 'floor-tom' });
  readonly pieces = computed((): readonly Choice<Voice>[] =>
    VOICES.filter((v) => canStrike('R', v) && pieceFor(this.kits.current(), v) !== null).map((v) => ({
      value: v,
      words: VOICE[v].name,
    })),
  );
  readonly ends = computed(() => {
    const { from, to } = this.wished();
    const has = (v: Voice): boolean => this.pieces().some((p) => p.value === v);
    const first = has(from) ? from : this.pieces()[0]?.value;
    const far = this.pieces().find((p) => first && this.between(first, p.value))?.value;
    return first === undefined ? null : { from: first, to: has(to) && this.between(first, to) ? to : (far ?? to) };
  });
  readonly way = computed(() => {
    const ends = this.ends();
    return ends && this.between(ends.from, ends.to);
  });
  readonly source = signal<SourceKind>('keys');
  readonly phase = signal<Phase>('ready');
  readonly left = signal(TEST_SECONDS);
  /** Strokes a second that the simulated player is set to. */
  readonly simulatedRate = signal<number>(SIMULATED.spot);
  readonly moments = signal<readonly number[]>([]);
  readonly reading = computed(() => {
    const [kind, limb] = [this.kind(), this.limb()];
    if (this.phase() !== 'read') return null;
    if (kind !== 'to and fro') return limbReading(this.moments(), kind);
    return isHand(limb) ? wayReading(this.moments(), this.profile.now(), limb) : null;
  });
  readonly words = computed(() => {
    const [read, way] = [this.reading(), this.way()];
    if (!read?.ok) return null;
    return this.kind() === 'to and fro' && way ? wayWords(read.value, way) : readingWords(read.value);
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

  choose(kind: Test): void {
    const other = (kind === 'to and fro') !== (this.kind() === 'to and fro');
    this.kind.set(kind);
    // A hand that has a way to go strikes less often.
    if (other) this.simulatedRate.set(kind === 'to and fro' ? SIMULATED.way : SIMULATED.spot);
    if (kind === 'to and fro' && !isHand(this.limb())) this.limb.set('R');
    this.phase.set('ready');
  }

  goBetween(end: 'from' | 'to', voice: Voice): void {
    const ends = this.ends();
    if (!ends) return;
    // The same piece at both ends is no way: then they change places.
    const other = end === 'from' ? 'to' : 'from';
    this.wished.set({ ...ends, [end]: voice, ...(ends[other] === voice ? { [other]: ends[end] } : {}) });
    this.phase.set('ready');
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
    const [limb, kind, ends, way] = [this.limb(), this.kind(), this.ends(), this.way()];
    const { rate } = read.value;
    let words: string;
    if (kind !== 'to and fro') {
      void this.profile.keep(withRate(before, limb, kind, rate, now()));
      words = `${LIMB_WORDS[limb]}, ${kind}: ${rate.toFixed(1)} per second is set.`;
    } else if (ends && way && isHand(limb)) {
      void this.profile.keep(withWay(before, { hand: limb, ...ends, ...way, seconds: 1 / rate, at: now() }));
      words = `${VOICE[ends.from].name} to ${VOICE[ends.to].name}: ${Math.round(1000 / rate)} ms is set.`;
    } else return;
    this.notices.tell(words, { label: 'Undo', run: () => void this.profile.keep(before) });
    this.phase.set('ready');
  }

  private between(from: Voice, to: Voice): ReturnType<typeof wayOn> {
    const limb = this.limb();
    return wayOn(this.kits.current(), isHand(limb) ? limb : 'R', from, to);
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
