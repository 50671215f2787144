import { inject, Injectable, signal } from '@angular/core';
import type { Attempt, TryFacts } from '@core/drill';
import type { RenditionRecord } from '@core/rendition';
import { tryVerdict } from '@core/take';
import { SettingsRepo } from '../../storage/settings.repo';
import { TakesRepo } from '../../storage/takes.repo';
import { RoomChoices } from './room-choices.store';
import { TakeRecorder, type Condition, type Judged } from '../../playing/take.recorder';

/**
 * Says what the turns of a try measured: while it goes on, and when it is over. Provided by the room.
 */
@Injectable()
export class TryJudge {
  private readonly recorder = inject(TakeRecorder);
  private readonly choices = inject(RoomChoices);
  private readonly settings = inject(SettingsRepo);
  private readonly takes = inject(TakesRepo);
  private many = 0;
  private heights: number | null = null;
  private readonly turnsState = signal<readonly (boolean | null)[]>([]);
  /** Of each turn of this try whether it was clean; null where nothing listened. */
  readonly turns = this.turnsState.asReadonly();
  private readonly judgedState = signal<Judged | null>(null);
  /** What the last finished try said; null when it was judged by ear. */
  readonly judged = this.judgedState.asReadonly();

  /** A try begins; `heights` is by how many decibels accents must lie above ghosts, null where that is not judged. */
  begin(heights: number | null): void {
    this.heights = heights;
    this.many = 0;
    this.turnsState.set([]);
  }

  forget(): void {
    this.judgedState.set(null);
  }

  /** The n-th turn is over. */
  count(n: number): void {
    this.many = n;
  }

  /** Whether the n-th turn was clean; null when nothing listens. */
  turn(n: number): boolean | null {
    const clean = this.recorder.loopClean(n - 1, this.asked(), this.settings.schools());
    this.turnsState.update((all) =>
      Array.from({ length: Math.max(all.length, n) }, (_, i) => (i === n - 1 ? clean : (all[i] ?? null))),
    );
    return clean;
  }

  /** What is told of the try beside its verdict, measured from a turn on. */
  told(from = 0): TryFacts {
    const dynamic = this.choices.dynamic() === 'medium' ? {} : { dynamic: this.choices.dynamic() };
    const judged = this.judge(from);
    const source = this.choices.source();
    return judged && source ? { ...dynamic, measured: judged.measured, source } : dynamic;
  }

  /** The try is over: what it said is shown, and what was struck is kept with what was meant. */
  end(attempt: Attempt, meant: RenditionRecord, from: number, byLoops: boolean): void {
    const judged = this.judge(from);
    if (!judged) return this.forget();
    const verdict = byLoops ? tryVerdict(judged.verdict, attempt.verdict === 'clean') : judged.verdict;
    const loops = byLoops ? { clean: this.turns().filter(Boolean).length, of: this.many } : null;
    this.judgedState.set({ ...judged, verdict, loops });
    const { id, phrase, at, bpm } = attempt;
    const hits = [...this.recorder.heard(Math.max(1, this.many))];
    void this.takes.keep({ id, phrase, at, bpm, stage: meant.stage, hits, meant });
  }

  private asked(): Condition {
    return { strictness: this.choices.strictness(), heights: this.heights };
  }

  private judge(from: number): Judged | null {
    const turns = Math.max(1, this.many - from);
    return this.recorder.judge(from, turns, this.asked(), this.settings.schools());
  }
}
