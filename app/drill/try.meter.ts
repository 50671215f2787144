import { inject, Injectable, signal } from '@angular/core';
import type { Attempt, Stage, Told } from '@core/drill';
import { tryVerdict } from '@core/take';
import { SettingsRepo } from '../data/settings.repo';
import { TakesRepo } from '../data/takes.repo';
import { RoomChoices } from './room-choices.store';
import { TakeRecorder, type Judged } from './take.recorder';

/** What a turn of a measured try says. */
interface TurnSaid {
  /** Null when nothing listens. */
  readonly clean: boolean | null;
  /** From which turn on the try is measured if it ends now. */
  readonly from: number;
}

/**
 * Counts the turns of a try, and says what they measured: while it goes on, and when it is over. Provided by the room.
 */
@Injectable()
export class TryMeter {
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

  /**
   * What the newest turn says, in a rung that asks for `need` clean ones in a row and has had `run` of them before it.
   */
  turn(run: number, need: number): TurnSaid {
    const clean = this.recorder.loopClean(this.turns - 1, this.choices.strictness(), this.settings.schools());
    if (clean) this.cleanTurns++;
    const row = clean ? run + 1 : 0;
    // A try that passes is measured by the loops that passed it, not by those before.
    return { clean, from: row >= need ? this.turns - row : 0 };
  }

  /** What is told of the try beside its verdict, measured from a turn on. */
  told(from = 0): Told {
    const dynamic = this.choices.dynamic() === 'medium' ? {} : { dynamic: this.choices.dynamic() };
    const judged = this.judge(from);
    const source = this.choices.source();
    return judged && source ? { ...dynamic, measured: judged.measured, source } : dynamic;
  }

  /** The try is over: what it said is shown, and what was struck is kept. */
  end(attempt: Attempt, stage: Stage | null, from: number, byLoops: boolean): void {
    const judged = this.judge(from);
    if (!judged) return this.forget();
    const verdict = byLoops ? tryVerdict(judged.verdict, attempt.verdict === 'clean') : judged.verdict;
    this.judgedState.set({ ...judged, verdict, loops: byLoops ? { clean: this.cleanTurns, of: this.turns } : null });
    const { id, phrase, at, bpm } = attempt;
    void this.takes.keep({ id, phrase, at, bpm, stage, hits: this.recorder.heard(Math.max(1, this.turns)) });
  }

  private judge(from: number): Judged | null {
    return this.recorder.judge(
      from,
      Math.max(1, this.turns - from),
      this.choices.strictness(),
      this.settings.schools(),
    );
  }
}
