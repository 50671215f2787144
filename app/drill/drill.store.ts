import { computed, inject, Injectable, signal } from '@angular/core';
import { filter, firstValueFrom, Subscription } from 'rxjs';
import { beatTicks, quarterTempo } from '@core/time';
import {
  bestByPhrase,
  drillStep,
  drillTempo,
  isRunning,
  newDrill,
  NO_BEST,
  resumed,
  suggestLadder,
  type Best,
  type DrillEvent,
  type DrillPlan,
  type DrillState,
} from '@core/drill';
import { loopTicks } from '@core/pattern';
import { programOf } from '@core/playback';
import type { Phrase } from '@core/recipe';
import { Transport } from '../audio/transport.service';
import { builtOf } from '../data/built';
import { DrillsRepo } from '../data/drills.repo';
import { PhrasesRepo } from '../data/phrases.repo';

/** What a drill needs to know about its phrase. */
interface Subject {
  readonly phrase: Phrase;
  readonly best: Best;
}

const LOOPS = 4;
const COUNT_IN_BARS = 1;

/** The practice room's state: a pure machine in core, kept after every event, and the sound that follows it. Provided by the room. */
@Injectable()
export class DrillStore {
  private readonly phrases = inject(PhrasesRepo);
  private readonly drills = inject(DrillsRepo);
  private readonly transport = inject(Transport);
  private readonly subject = signal<Subject | null>(null);
  private readonly state = signal<DrillState | null>(null);
  private readonly ears = new Subscription();

  readonly phrase = computed(() => this.subject()?.phrase ?? null);
  readonly best = computed(() => this.subject()?.best ?? NO_BEST);
  /** The drill under way, or null while it is being set up. */
  readonly drill = this.state.asReadonly();
  readonly pattern = computed(() => {
    const phrase = this.phrase();
    return phrase ? builtOf(phrase).pattern : null;
  });
  readonly loop = computed(() => {
    const pattern = this.pattern();
    return pattern ? loopTicks(pattern) : 0;
  });
  readonly tempo = computed(() => {
    const drill = this.state();
    return drill ? drillTempo(drill) : (this.phrase()?.tempo ?? 0);
  });
  readonly suggestion = computed(() => suggestLadder(this.phrase()?.goal ?? 100, this.best().lastClean));
  readonly suggestedPlan = computed<DrillPlan>(() => ({
    start: this.suggestion().start,
    step: this.suggestion().step,
    goal: this.phrase()?.goal ?? 100,
    loops: LOOPS,
  }));

  constructor() {
    this.ears.add(this.transport.began$.subscribe(() => this.happen({ kind: 'counted-in', at: Date.now() })));
    this.ears.add(this.transport.loops$.subscribe(() => this.happen({ kind: 'loop', at: Date.now() })));
  }

  /** Opens the room for a phrase; a drill that was under way stands at its rung. False when there is no such phrase. */
  async open(id: string): Promise<boolean> {
    this.leave();
    this.state.set(null);
    const phrase = await this.phrases.get(id);
    if (!phrase) {
      this.subject.set(null);
      return false;
    }
    const attempts = await firstValueFrom(this.drills.attempts$.pipe(filter((a) => a !== null)));
    this.subject.set({ phrase, best: bestByPhrase(attempts).get(id) ?? NO_BEST });
    const under = await this.drills.of(id);
    this.state.set(under ? resumed(under) : null);
    return true;
  }

  begin(plan: DrillPlan): void {
    const phrase = this.phrase();
    if (!phrase || builtOf(phrase).pattern.strokes.length === 0) return;
    this.state.set(newDrill(crypto.randomUUID(), phrase.id, plan));
    this.happen({ kind: 'start', at: Date.now() });
  }

  /** One event of the drill: the next state is kept, and the sound follows its phase. */
  happen(event: DrillEvent): void {
    const before = this.state();
    if (!before) return;
    const next = drillStep(before, event);
    if (next === before) return;
    this.state.set(next);
    // Loops alone are not worth a write: a resumed drill begins its try again anyway.
    if (event.kind !== 'loop' || next.attempts !== before.attempts) void this.drills.keep(next);
    if (next.phase === 'count-in') this.sound();
    else if (!isRunning(next.phase)) this.transport.stop();
  }

  /** A new ladder for the same phrase; the log keeps what was played. */
  async startOver(): Promise<void> {
    this.transport.stop();
    // From here on there is no drill that leaving the room could keep again.
    this.state.set(null);
    const phrase = this.phrase();
    if (phrase && (await this.drills.forget(phrase.id))) await this.open(phrase.id);
  }

  leave(): void {
    const drill = this.state();
    if (drill && isRunning(drill.phase)) this.happen({ kind: 'pause' });
  }

  destroy(): void {
    this.leave();
    this.ears.unsubscribe();
    this.transport.stop();
  }

  private sound(): void {
    const pattern = this.pattern();
    if (!pattern) return;
    void this.transport.play({
      program: programOf(pattern, { click: 'beats', countInBars: COUNT_IN_BARS }),
      bpm: quarterTempo(this.tempo(), pattern.meter),
      beat: beatTicks(pattern.meter),
    });
  }
}
