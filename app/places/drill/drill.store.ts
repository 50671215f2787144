import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { toObservable } from '@angular/core/rxjs-interop';
import { of, Subscription, switchMap } from 'rxjs';
import {
  drillPass,
  drillStage,
  drillStep,
  drillTempo,
  isFree,
  isRunning,
  isStuck,
  loopsOfRung,
  newDrill,
  resumed,
  rowAfter,
  tickInPhrase,
  tightStage,
  type DrillEvent,
  type DrillPlan,
  type DrillState,
  type NewStage,
  type Stage,
} from '@core/drill';
import { stableJson } from '@core/base';
import { rendition, requestOf, type Rendition, type RenditionRecord } from '@core/rendition';
import type { Dynamic, PlayRequest } from '@core/playback';
import { BackingService } from '../../sound/backing.service';
import { Transport } from '../../sound/transport.service';
import { now } from '../../environment/clock';
import { freshUuid } from '../../environment/ids';
import { DrillsRepo } from '../../storage/drills.repo';
import { KitsRepo } from '../../storage/kits.repo';
import { SettingsRepo } from '../../storage/settings.repo';
import { TodayRepo } from '../../storage/today.repo';
import { HitSources } from '../../hits/sources.service';
import { Player } from '../../playing/player';
import { RoomChoices } from './room-choices.store';
import { LOOPS, SubjectStore } from './subject.store';
import { TakeRecorder } from '../../playing/take.recorder';
import { TryJudge } from './try.judge';

export const COUNT_IN_BARS = 1;
/** Time in which the last hits of a loop still arrive, in milliseconds. */
const LATE_HITS = 140;
/** What happens in the room: the id that a try gets which ends with it is made here. */
type Happened = DrillEvent extends infer E ? (E extends DrillEvent ? Omit<E, 'id'> : never) : never;
/** By this name the room's sound is known among what sounds. */
const ROOM = 'room';

/**
 * The practice room's state: a pure machine in core, kept after every event, and the sound that follows it. Provided by
 * the room.
 */
@Injectable()
export class DrillStore {
  private readonly drills = inject(DrillsRepo);
  private readonly transport = inject(Transport);
  private readonly player = inject(Player);
  private readonly kits = inject(KitsRepo);
  private readonly settings = inject(SettingsRepo);
  private readonly sources = inject(HitSources);
  private readonly recorder = inject(TakeRecorder);
  private readonly tries = inject(TryJudge);
  private readonly subject = inject(SubjectStore);
  private readonly choices = inject(RoomChoices);
  private readonly todays = inject(TodayRepo);
  private readonly backing = inject(BackingService);
  private readonly state = signal<DrillState | null>(null);
  private readonly ears = new Subscription();
  private readonly slowState = signal(false);
  /** Whether the rung is only looked at, at half its tempo: nothing counts meanwhile. */
  readonly slow = this.slowState.asReadonly();
  private readonly sleptState = signal(false);
  /** Whether the device slept in the middle of a try. */
  readonly slept = this.sleptState.asReadonly();

  /** The drill under way, or null while it is being set up. */
  readonly drill = this.state.asReadonly();
  readonly running = computed(() => isRunning(this.state()?.phase ?? 'ready'));
  readonly stage = computed((): Stage | null => {
    const drill = this.state();
    return drill ? (drillStage(drill) ?? null) : null;
  });
  /** How loud it is meant now. */
  private readonly dynamic = computed((): Dynamic => {
    const drill = this.state();
    return (drill && drillPass(drill)) ?? this.choices.dynamic();
  });
  /** What is played now, on the current kit: it is drawn, sounds, and is what a take is held against. */
  readonly rendition = computed((): Rendition | null => {
    const phrase = this.subject.whole();
    if (!phrase) return null;
    return rendition({
      phrase,
      stage: this.stage(),
      groove: this.subject.grooveOf(this.stage())?.pattern ?? null,
      kit: this.kits.current(),
      dynamic: this.dynamic(),
      click: this.choices.click(),
      gap: this.choices.gap(),
      counts: this.choices.counts(),
      schools: this.settings.schools(),
      sung: this.settings.sung(),
      countInBars: COUNT_IN_BARS,
      record: this.subject.record()?.bars ?? null,
    });
  });
  /** The record, where the present stage is played with it: whether it is there, and goes at this tempo. */
  readonly beneath = computed((): 'sounds' | 'gone' | 'far' | 'broke' | null => {
    const [stage, meant] = [this.stage(), this.rendition()];
    if (stage?.kind !== 'record' || !meant) return null;
    if (!this.subject.record()) return 'gone';
    if (this.backing.broke()) return 'broke';
    return this.backing.isFar(requestOf(meant, this.heardTempo()).bpm) ? 'far' : 'sounds';
  });
  /** The tempo at which it sounds now, in counted bpm. */
  private readonly heardTempo = computed(() => this.tempo() * (this.slow() ? 0.5 : 1));
  readonly loop = computed(() => this.rendition()?.program.loop ?? 0);
  readonly tempo = computed(() => {
    const drill = this.state();
    return drill ? drillTempo(drill) : (this.subject.phrase()?.tempo ?? 0);
  });
  /** Whether the present stage is free play. */
  readonly free = computed(() => {
    const drill = this.state();
    return drill !== null && isFree(drill);
  });
  readonly stuck = computed(() => {
    const drill = this.state();
    return drill !== null && isStuck(drill);
  });
  /** Loops a rung asks for. */
  readonly need = computed(() => {
    const [drill, played] = [this.state(), this.rendition()];
    return drill && played ? loopsOfRung(drill.plan, played.pattern.meter, this.loop(), this.tempo()) : LOOPS;
  });

  private readonly otherState = signal(false);
  /** Whether the same phrase is drilled in another tab too. */
  readonly other = this.otherState.asReadonly();

  constructor() {
    effect(() => {
      this.backing.take(this.subject.record());
      // One that is let go meanwhile leaves the phrase to sound.
      untracked(() => this.refresh());
    });
    // The record is made for this rung and the next while this one is counted in.
    effect(() => {
      const [drill, meant] = [this.state(), this.rendition()];
      if (!drill || !meant || this.stage()?.kind !== 'record' || !this.subject.record()) return;
      const next = drill.rungs[drill.rung + 1];
      for (const bpm of [this.heardTempo(), ...(next === undefined ? [] : [next])])
        this.backing.prepare(requestOf(meant, bpm).bpm);
    });
    this.ears.add(
      toObservable(this.subject.phrase)
        .pipe(switchMap((phrase) => (phrase ? this.drills.of$(phrase.id) : of(null))))
        .subscribe((stands) => this.seen(stands)),
    );
    this.ears.add(this.transport.began$.subscribe(() => this.began()));
    this.ears.add(this.transport.loops$.subscribe((n) => this.looped(n)));
    this.ears.add(
      this.transport.slept$.subscribe(() => {
        this.slowState.set(false);
        this.sleptState.set(true);
        this.dispatch({ kind: 'pause' });
      }),
    );
  }

  /**
   * What is kept of the drill, whoever kept it: a ladder that another tab moved is noticed, and so are tries that were
   * corrected or taken out of the log.
   */
  private seen(stands: DrillState | null): void {
    const own = this.state();
    if (!stands || !own) return;
    const ids = new Set(own.attempts.map((t) => t.id));
    if (stands.id !== own.id || stands.attempts.some((t) => !ids.has(t.id))) this.otherState.set(true);
    const kept = new Map(stands.attempts.map((t) => [t.id, stableJson(t)]));
    if (own.attempts.some((t) => kept.get(t.id) !== stableJson(t))) void this.followLog(own);
  }

  /** The tries of the drill as the log has them by now: the stairs never show what was taken out of it. */
  private async followLog({ phrase, attempts }: DrillState): Promise<void> {
    const asked = new Set(attempts.map((t) => t.id));
    const logged = new Map((await this.drills.asLogged(phrase, attempts)).map((t) => [t.id, t]));
    this.state.update(
      (own) =>
        own && {
          ...own,
          attempts: own.attempts.flatMap((t) => logged.get(t.id) ?? (asked.has(t.id) ? [] : [t])),
        },
    );
  }

  /** The drill as another tab has moved it, to go on with here. */
  async takeOther(): Promise<void> {
    const phrase = this.subject.phrase();
    if (phrase) await this.open(phrase.id);
  }

  /** Opens the room for a phrase; a drill that was under way stands at its rung. False when there is no such phrase. */
  async open(id: string): Promise<boolean> {
    this.leave();
    this.state.set(null);
    this.otherState.set(false);
    this.tries.forget();
    if (!(await this.subject.take(id))) return false;
    const under = await this.drills.of(id);
    this.state.set(under ? resumed(under) : null);
    return true;
  }

  begin(plan: DrillPlan): void {
    const phrase = this.subject.phrase();
    if (!phrase || this.subject.whole()?.strokes.length === 0) return;
    this.tries.forget();
    this.state.set(newDrill(freshUuid(), phrase.id, plan));
    this.dispatch({ kind: 'start', at: now() });
  }

  /**
   * One event of the drill: the next state is kept, and the sound follows its phase. A try that ends with it is
   * measured from a turn on.
   */
  dispatch(event: Happened, from = 0): void {
    const before = this.state();
    const meant = this.record();
    if (!before) return;
    const next = drillStep(before, Object.assign({ id: freshUuid() }, event));
    if (next === before) return;
    this.state.set(next);
    // Of free play the time alone is remembered.
    if (isFree(before) && before.phase === 'playing' && next.phase !== 'playing' && before.tryBegan !== null)
      void this.todays.addFree((now() - before.tryBegan) / 1000);
    this.slowState.set(false);
    if (isRunning(next.phase)) this.sleptState.set(false);
    const ended = next.attempts.length > before.attempts.length ? next.attempts.at(-1) : undefined;
    // Loops alone are not worth a write: a resumed drill begins its try again anyway.
    if (event.kind !== 'loop' || ended) void this.drills.keep(next, ended);
    if (ended && meant) this.tries.end(ended, meant, from, event.kind === 'loop');
    if (next.phase === 'count-in') this.sound();
    else if (!isRunning(next.phase)) this.player.stop();
  }

  /** The player's own judgement, with what was measured beside it. */
  judge(kind: 'clean' | 'messy'): void {
    this.dispatch({ kind, at: now(), ...this.tries.told() });
  }

  /** Takes the tightest place out of the phrase, or the place that was named to be fixed. */
  isolate(): void {
    const whole = this.subject.whole();
    if (!whole) return;
    const named = this.tries.judged()?.fix?.index ?? null;
    const struck = named === null ? undefined : this.rendition()?.pattern.strokes[named]?.at;
    const at =
      (struck === undefined ? null : tickInPhrase(this.stage(), whole, struck)) ??
      this.subject.ceiling()?.pair?.at ??
      0;
    this.dispatch({ kind: 'isolate', stage: tightStage(whole, at, `t${freshUuid()}`) });
  }

  /** A part that was asked for is taken out; the drill goes on after it. */
  takeOut(stage: NewStage): void {
    this.dispatch({ kind: 'isolate', stage: { ...stage, id: `a${freshUuid()}` } });
  }

  /** A new ladder for the same phrase; the log keeps what was played. */
  async startOver(): Promise<void> {
    this.player.stop();
    // From here on there is no drill that leaving the room could keep again.
    this.state.set(null);
    this.tries.forget();
    const phrase = this.subject.phrase();
    if (phrase && (await this.drills.forget(phrase.id))) await this.open(phrase.id);
  }

  /** The record that broke while it was made ready is made anew. */
  recordAgain(): void {
    this.backing.tryAgain();
  }

  /** Click, counts and the like take effect at the next beat. */
  refresh(): void {
    if (this.running() || this.slow()) this.player.follow(ROOM, this.request());
  }

  /** The rung at half its tempo, round and round, to look at it; the drill waits meanwhile. */
  toggleSlow(): void {
    const drill = this.state();
    if (this.slow()) {
      this.slowState.set(false);
      this.player.stop();
      return;
    }
    if (!drill || drill.phase === 'done') return;
    if (isRunning(drill.phase)) this.dispatch({ kind: 'pause' });
    // What is struck meanwhile belongs to no try.
    this.recorder.stop();
    this.slowState.set(true);
    this.play();
  }

  leave(): void {
    const drill = this.state();
    if (drill && isRunning(drill.phase)) this.dispatch({ kind: 'pause' });
    if (this.slow()) this.toggleSlow();
  }

  destroy(): void {
    this.leave();
    this.ears.unsubscribe();
    this.recorder.stop();
    this.player.stop();
  }

  private began(): void {
    if (this.slow()) return;
    this.tries.begin(this.state()?.plan.heights ?? null);
    const meant = this.rendition();
    if (meant?.said || meant?.open) this.recorder.forget();
    else if (meant && this.choices.source() !== null) this.recorder.begin(meant, this.tempo());
    this.dispatch({ kind: 'counted-in', at: now() });
  }

  private looped(n: number): void {
    if (this.slow()) return;
    this.recorder.playTurn(n);
    this.tries.count(n);
    const at = now();
    if (!this.recorder.listening()) this.dispatch({ kind: 'loop', at, need: this.need() });
    else {
      const began = this.state()?.tryBegan;
      // The last hits of a loop come in a moment later than the loop is over.
      setTimeout(() => {
        const drill = this.state();
        if (!drill || drill.tryBegan !== began) return;
        const need = this.need();
        const clean = this.tries.turn(n);
        const row = clean === null ? 0 : rowAfter(drill, clean);
        // A try that passes is measured by the loops that passed it, not by those before.
        const from = row >= need ? n - row : 0;
        const told = this.tries.told(from);
        this.dispatch({ kind: 'loop', at, need, ...(clean === null ? {} : { clean }), ...told }, from);
      }, LATE_HITS);
    }
  }

  /** All that decides what is meant now, to be kept with a take. */
  private record(): RenditionRecord | null {
    const phrase = this.subject.phrase();
    if (!phrase) return null;
    return {
      recipe: phrase.recipe,
      stage: this.stage(),
      groove: this.subject.grooveOf(this.stage())?.recipe ?? null,
      kit: this.kits.current(),
      dynamic: this.dynamic(),
      click: this.choices.click(),
      gap: this.choices.gap(),
    };
  }

  private request(): PlayRequest | null {
    const played = this.rendition();
    return played && requestOf(played, this.heardTempo());
  }

  /** Asks once more for what should listen. */
  listen(): void {
    const kind = this.choices.source();
    if (kind !== null) void this.recorder.listen(this.sources.of(kind));
  }

  private play(): void {
    const request = this.request();
    if (request) this.player.play(ROOM, request);
  }

  private sound(): void {
    const kind = this.choices.source();
    // Nobody strikes anything where the phrase is said.
    const meant = this.rendition();
    if (kind === null || meant?.said || meant?.open) this.recorder.stop();
    else if (!this.recorder.listening() && !this.recorder.asking()) this.listen();
    this.play();
  }
}
