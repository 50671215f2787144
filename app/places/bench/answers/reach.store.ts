import { computed, inject, Injectable } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { of, switchMap } from 'rxjs';
import { NO_BEST, shownTempo } from '@core/drill';
import { ceiling, handPaths, pairTravel, pairWords, raises, type TightPair } from '@core/reach';
import { strokesOf } from '@core/pattern';
import { rendition } from '@core/rendition';
import { now } from '../../../environment/clock';
import { DrillsRepo } from '../../../storage/drills.repo';
import { KitsRepo } from '../../../storage/kits.repo';
import { AbleService } from '../../../knowledge/able.service';
import { SettingsRepo } from '../../../storage/settings.repo';
import { ShelfIndex } from '../../../knowledge/shelf-index.service';
import { stilled } from '../../../common/stilled';
import { BenchStore } from '../document/bench.store';

/** From this share of the ceiling on the place that breaks first is marked on the ribbon. */
const NEAR_CEILING = 0.85;

/** Can it be played, by whom, on what: the finished phrase on the current kit, by the current drummer. */
@Injectable({ providedIn: 'root' })
export class ReachStore {
  private readonly bench = inject(BenchStore);
  private readonly kits = inject(KitsRepo);
  private readonly able = inject(AbleService);
  private readonly settings = inject(SettingsRepo);
  private readonly drills = inject(DrillsRepo);
  private readonly index = inject(ShelfIndex);
  /** What raises the ceiling takes longest, and waits longest. */
  private readonly later = stilled(this.bench.build, 3);

  /** The phrase as it sounds on the current kit, with what had to give. */
  readonly onKit = computed(() => {
    const pattern = this.bench.stilled()?.pattern;
    return pattern ? rendition({ phrase: pattern, kit: this.kits.current() }) : null;
  });
  readonly ceiling = computed(() => {
    const on = this.onKit();
    return on ? ceiling(on.pattern, this.kits.current(), this.able.now()) : null;
  });
  /** What is believed of the player and this phrase as it is kept; null before any try. */
  readonly believed = toSignal(
    toObservable(computed(() => ({ id: this.bench.phrase()?.id ?? null, turn: this.index.changed() }))).pipe(
      switchMap(({ id }) => (id === null ? of(null) : this.index.believed(id))),
    ),
    { initialValue: null },
  );
  private readonly best = toSignal(
    toObservable(computed(() => this.bench.phrase()?.id ?? null)).pipe(
      switchMap((id) => (id === null ? of(NO_BEST) : this.drills.bestOf$(id))),
    ),
    { initialValue: NO_BEST },
  );
  /** What was shown of the phrase as it is kept; of one that was changed since nothing is known. */
  private readonly shown = computed(() =>
    this.bench.isKept() ? shownTempo(this.best().shown ?? [], this.bench.phrase()?.changed ?? 0, now()) : null,
  );
  /** The highest tempo, with what it rests on. */
  readonly top = computed(() => {
    const pattern = this.onKit()?.pattern;
    return pattern ? this.able.top(pattern, this.shown()) : null;
  });
  readonly bpm = computed(() => this.top()?.bpm ?? null);
  /** The three hardest spots in words, each with its ceiling; what is alike in all but its place is one. */
  readonly spots = computed(() => {
    const pattern = this.onKit()?.pattern;
    const pairs = this.ceiling()?.pairs ?? [];
    if (!pattern) return [];
    const spots: { readonly words: string; readonly bpm: number; readonly ticks: readonly number[] }[] = [];
    for (const pair of pairs) {
      const [travel, bpm] = [pairTravel(pair), Math.floor(pair.bpm)];
      const like = pairs.filter((p) => Math.floor(p.bpm) === bpm && pairTravel(p) === travel);
      if (like[0] !== pair) continue;
      // Only the three hardest are known: how many more there are is not said.
      const words = pairWords(pattern, pair, this.settings.schools()) + (like.length > 1 ? ' and more' : '');
      spots.push({ words: this.kits.said(words), bpm, ticks: like.flatMap((p) => this.ticksOf(p)) });
    }
    return spots;
  });
  /** Changes that raise it; worked out on the phrase itself, as they become moves of its recipe. */
  readonly raises = computed(() => {
    const pattern = this.later()?.pattern;
    return pattern && pattern.strokes.length <= 600
      ? raises(pattern, this.kits.current(), this.able.now(), this.settings.schools()).map((r) => ({
          ...r,
          words: this.kits.said(r.words),
        }))
      : [];
  });
  readonly paths = computed(() => {
    const on = this.onKit();
    return on ? handPaths(on.pattern, this.kits.current()) : null;
  });

  /**
   * The pair that breaks first, by its strokes' numbers, once the tempo comes near to where it does. Numbers hold only
   * for what the pair was found in.
   */
  readonly tight = computed(() => {
    const [pair] = this.bench.stilled() === this.bench.build() ? (this.ceiling()?.pairs ?? []) : [];
    const top = this.top();
    // Where more was shown than was worked out, nothing breaks below it.
    if (top?.rests.kind === 'shown' && this.bench.tempo() <= (top.bpm ?? 0)) return [];
    return pair && this.bench.tempo() > pair.bpm * NEAR_CEILING ? [{ from: pair.from, to: pair.to }] : [];
  });

  /** Ticks of both strokes of a pair, to point at. */
  ticksOf(pair: TightPair): readonly number[] {
    const pattern = this.onKit()?.pattern;
    const strokes = pattern ? strokesOf(pattern) : [];
    return [strokes[pair.from]?.at, strokes[pair.to]?.at].filter((t) => t !== undefined);
  }
}
