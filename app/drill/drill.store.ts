import { computed, inject, Injectable, signal } from '@angular/core';
import { Subscription } from 'rxjs';
import { beatTicks, quarterTempo } from '@core/time';
import {
  drillPass,
  drillStage,
  drillStep,
  drillTempo,
  isRunning,
  isStuck,
  loopsOfRung,
  newDrill,
  resumed,
  stagePattern,
  tightStage,
  type DrillEvent,
  type DrillPlan,
  type DrillState,
  type Stage,
} from '@core/drill';
import { loopTicks } from '@core/pattern';
import { revoice } from '@core/kit';
import { programOf, type Dynamic } from '@core/playback';
import { latencyMoved } from '@core/take';
import { Transport } from '../audio/transport.service';
import { patternOf } from '../data/patterns';
import { DrillsRepo } from '../data/drills.repo';
import { KitsRepo } from '../data/kits.repo';
import { LatencyRepo } from '../data/latency.repo';
import { HitSources } from '../input/sources.service';
import { RoomChoices } from './room-choices.store';
import { LOOPS, SubjectStore } from './subject.store';
import { TakeRecorder } from './take.recorder';
import { TryMeter } from './try.meter';

const COUNT_IN_BARS = 1;
/** Time in which the last hits of a loop still arrive, in milliseconds. */
const SETTLE = 140;

/**
 * The practice room's state: a pure machine in core, kept after every event, and the sound that follows it. Provided by
 * the room.
 */
@Injectable()
export class DrillStore {
  private readonly drills = inject(DrillsRepo);
  private readonly transport = inject(Transport);
  private readonly kits = inject(KitsRepo);
  private readonly sources = inject(HitSources);
  private readonly latency = inject(LatencyRepo);
  readonly recorder = inject(TakeRecorder);
  private readonly meter = inject(TryMeter);
  private readonly subject = inject(SubjectStore);
  private readonly choices = inject(RoomChoices);
  private readonly state = signal<DrillState | null>(null);
  private readonly ears = new Subscription();

  private readonly slowState = signal(false);
  /** Whether the rung is only looked at, at half its tempo: nothing counts meanwhile. */
  readonly slow = this.slowState.asReadonly();
  private readonly sleptState = signal(false);
  /** Whether the device slept in the middle of a try. */
  readonly slept = this.sleptState.asReadonly();
  readonly judged = this.meter.judged;

  readonly phrase = this.subject.phrase;
  readonly best = this.subject.best;
  readonly whole = this.subject.whole;
  readonly grooves = this.subject.grooves;
  readonly proposed = this.subject.proposed;
  readonly ceiling = this.subject.ceiling;
  readonly suggestion = this.subject.suggestion;
  readonly suggestedPlan = this.subject.suggestedPlan;
  /** The drill under way, or null while it is being set up. */
  readonly drill = this.state.asReadonly();
  readonly stage = computed((): Stage | null => {
    const drill = this.state();
    return drill ? (drillStage(drill) ?? null) : null;
  });
  /** What is played now: the stage's part of the phrase. */
  readonly pattern = computed(() => {
    const [whole, stage] = [this.whole(), this.stage()];
    if (!whole || !stage) return whole;
    const groove = stage.groove === undefined ? undefined : this.grooves().find((g) => g.id === stage.groove);
    return revoice(stagePattern(stage, whole, groove?.pattern ?? null), this.kits.current()).pattern;
  });
  /** How loud it is meant now. */
  readonly loud = computed((): Dynamic => {
    const drill = this.state();
    return (drill && drillPass(drill)) ?? this.choices.dynamic();
  });
  /** By how many milliseconds the source seems to have moved since it was calibrated; null when it has not. */
  readonly moved = computed(() => {
    const source = this.choices.source();
    if (source === null || source === 'simulated') return null;
    const since = this.latency.at()[source] ?? 0;
    const means = (this.state()?.attempts ?? []).flatMap((a) =>
      a.source === source && a.at > since && a.measured ? [a.measured.mean] : [],
    );
    return latencyMoved(means);
  });
  readonly loop = computed(() => {
    const pattern = this.pattern();
    return pattern ? loopTicks(pattern) : 0;
  });
  readonly tempo = computed(() => {
    const drill = this.state();
    return drill ? drillTempo(drill) : (this.phrase()?.tempo ?? 0);
  });
  readonly stuck = computed(() => {
    const drill = this.state();
    return drill !== null && isStuck(drill);
  });
  /** Loops a rung asks for. */
  readonly need = computed(() => {
    const [drill, pattern] = [this.state(), this.pattern()];
    return drill && pattern ? loopsOfRung(drill.plan, pattern.meter, this.loop(), this.tempo()) : LOOPS;
  });

  constructor() {
    this.ears.add(this.transport.began$.subscribe(() => this.began()));
    this.ears.add(this.transport.loops$.subscribe((n) => this.looped(n)));
    this.ears.add(
      this.transport.slept$.subscribe(() => {
        this.slowState.set(false);
        this.sleptState.set(true);
        this.happen({ kind: 'pause' });
      }),
    );
  }

  /** Opens the room for a phrase; a drill that was under way stands at its rung. False when there is no such phrase. */
  async open(id: string): Promise<boolean> {
    this.leave();
    this.state.set(null);
    this.meter.forget();
    if (!(await this.subject.take(id))) return false;
    const under = await this.drills.of(id);
    this.state.set(under ? resumed(under) : null);
    return true;
  }

  begin(plan: DrillPlan): void {
    const phrase = this.phrase();
    if (!phrase || patternOf(phrase).strokes.length === 0) return;
    this.meter.forget();
    this.state.set(newDrill(crypto.randomUUID(), phrase.id, plan));
    this.happen({ kind: 'start', at: Date.now() });
  }

  /**
   * One event of the drill: the next state is kept, and the sound follows its phase. A try that ends with it is
   * measured from a turn on.
   */
  happen(event: DrillEvent, from = 0): void {
    const before = this.state();
    const stage = this.stage();
    if (!before) return;
    const next = drillStep(before, event);
    if (next === before) return;
    this.state.set(next);
    this.slowState.set(false);
    if (isRunning(next.phase)) this.sleptState.set(false);
    // Loops alone are not worth a write: a resumed drill begins its try again anyway.
    if (event.kind !== 'loop' || next.attempts !== before.attempts) void this.drills.keep(next);
    const ended = next.attempts.length > before.attempts.length ? next.attempts.at(-1) : undefined;
    if (ended) this.meter.end(ended, stage, from, event.kind === 'loop');
    if (next.phase === 'count-in') this.sound();
    else if (!isRunning(next.phase)) this.transport.stop();
  }

  /** The player's own judgement, with what was measured beside it. */
  judge(kind: 'clean' | 'messy'): void {
    this.happen({ kind, at: Date.now(), ...this.meter.told() });
  }

  /** Takes the tightest place out of the phrase, or the place that was named to be fixed. */
  isolate(): void {
    const whole = this.whole();
    if (!whole) return;
    const named = this.judged()?.fix?.index ?? null;
    const at =
      (this.stage()?.kind === 'whole' && named !== null ? whole.strokes[named]?.at : undefined) ??
      this.ceiling()?.pair?.at ??
      0;
    this.happen({ kind: 'isolate', stage: tightStage(whole, at, `t${this.state()?.attempts.length ?? 0}`) });
  }

  /** A new ladder for the same phrase; the log keeps what was played. */
  async startOver(): Promise<void> {
    this.transport.stop();
    // From here on there is no drill that leaving the room could keep again.
    this.state.set(null);
    this.meter.forget();
    const phrase = this.phrase();
    if (phrase && (await this.drills.forget(phrase.id))) await this.open(phrase.id);
  }

  /** Click, counts and the like take effect at the next beat. */
  refresh(): void {
    const request = this.request();
    const drill = this.state();
    if (request && drill && (isRunning(drill.phase) || this.slow())) this.transport.change(request);
  }

  /** The rung at half its tempo, round and round, to look at it; the drill waits meanwhile. */
  toggleSlow(): void {
    const drill = this.state();
    if (this.slow()) {
      this.slowState.set(false);
      this.transport.stop();
      return;
    }
    if (!drill || drill.phase === 'done') return;
    if (isRunning(drill.phase)) this.happen({ kind: 'pause' });
    // What is struck meanwhile belongs to no try.
    this.recorder.stop();
    this.slowState.set(true);
    const request = this.request();
    if (request) void this.transport.play(request);
  }

  leave(): void {
    const drill = this.state();
    if (drill && isRunning(drill.phase)) this.happen({ kind: 'pause' });
    if (this.slow()) this.toggleSlow();
  }

  destroy(): void {
    this.leave();
    this.ears.unsubscribe();
    this.recorder.stop();
    this.transport.stop();
  }

  private began(): void {
    if (this.slow()) return;
    this.meter.begin();
    const pattern = this.pattern();
    if (pattern && this.choices.source() !== null) this.recorder.begin(pattern, this.sounding(), this.choices.gap());
    this.happen({ kind: 'counted-in', at: Date.now() });
  }

  private looped(n: number): void {
    if (this.slow()) return;
    this.recorder.playTurn(n);
    this.meter.count(n);
    const at = Date.now();
    if (!this.recorder.listening()) this.happen({ kind: 'loop', at, need: this.need() });
    else {
      const attempts = this.state()?.attempts.length;
      // The last hits of a loop come in a moment later than the loop is over.
      setTimeout(() => {
        if (this.state()?.attempts.length !== attempts) return;
        const need = this.need();
        const { clean, from } = this.meter.turn(this.state()?.run ?? 0, need);
        this.happen({ kind: 'loop', at, need, ...(clean === null ? {} : { clean }), ...this.meter.told(from) }, from);
      }, SETTLE);
    }
  }

  private sounding(): number {
    return this.tempo() * (this.slow() ? 0.5 : 1);
  }

  private request() {
    const pattern = this.pattern();
    if (!pattern) return null;
    const gap = this.choices.gap();
    return {
      program: programOf(pattern, {
        click: this.choices.click(),
        countInBars: COUNT_IN_BARS,
        counts: this.choices.counts(),
        dynamic: this.loud(),
        ...(gap ? { gap } : {}),
      }),
      bpm: quarterTempo(this.sounding(), pattern.meter),
      beat: beatTicks(pattern.meter),
    };
  }

  private sound(): void {
    const request = this.request();
    if (!request) return;
    const kind = this.choices.source();
    if (kind === null) this.recorder.stop();
    else if (!this.recorder.listening()) void this.recorder.listen(this.sources.of(kind));
    void this.transport.play(request);
  }
}
