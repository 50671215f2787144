import { inject, Injectable, signal } from '@angular/core';
import type { Attempt, TryFacts } from '@core/drill';
import type { RenditionRecord } from '@core/rendition';
import { tryVerdict } from '@core/take';
import { SettingsRepo } from '../../storage/settings.repo';
import { TakesRepo } from '../../storage/takes.repo';
import { RoomChoices } from './room-choices.store';
import { TakeRecorder, type Judged } from './take.recorder';

/**
 * Says what the turns of a try measured: while it goes on, and when it is over. Provided by the room.
 */
@Injectable()
export class TryJudge {
  private readonly recorder = inject(TakeRecorder);
  private readonly choices = inject(RoomChoices);
  private readonly settings = inject(SettingsRepo);
  private readonly takes = inject(TakesRepo);
  private turns = 0;
  private cleanTurns = 0;
  private readonly judgedState = signal<Judged | null>(null);
  /** What the last finished try said; null when it was judged by ear. */
  readonly judged = this.judgedState.asReadonly();

  begin(): void {
    this.turns = 0;
    this.cleanTurns = 0;
  }

  forget(): void {
    this.judgedState.set(null);
  }

  /** The n-th turn is over. */
  count(n: number): void {
    this.turns = n;
  }

  /** Whether the n-th turn was clean; null when nothing listens. */
  turn(n: number): boolean | null {
    const clean = this.recorder.loopClean(n - 1, this.choices.strictness(), this.settings.schools());
    if (clean) this.cleanTurns++;
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
    const loops = byLoops ? { clean: this.cleanTurns, of: this.turns } : null;
    this.judgedState.set({ ...judged, verdict, loops });
    const { id, phrase, at, bpm } = attempt;
    const hits = [...this.recorder.heard(Math.max(1, this.turns))];
    void this.takes.keep({ id, phrase, at, bpm, stage: meant.stage, hits, meant });
  }

  private judge(from: number): Judged | null {
    const turns = Math.max(1, this.turns - from);
    return this.recorder.judge(from, turns, this.choices.strictness(), this.settings.schools());
  }
}
