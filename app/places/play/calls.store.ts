import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { loopTicks, untilLanding, type Pattern } from '@core/pattern';
import { saying } from '@core/playback';
import { expectedOf } from '@core/rendition';
import type { KeptCall } from '@core/shelf';
import { barTicks, beatTicks, quarterTempo } from '@core/time';
import { callBars, callsWords, heardCall, nextCall, verdictOn, type CallCame } from '@core/usage';
import type { NamedCallable } from '../../knowledge/index/using';
import { NoticesService } from '../../common/notices.service';
import { ShelfIndex } from '../../knowledge/shelf-index.service';
import { RoomRepo } from '../../storage/room.repo';
import { PlayChoices } from './choices';
import { PlayStore } from './play.store';

/** So many phrases may be called in one sitting: each has a number that is spoken. */
const MOST = 12;
/** Hits that belong to the end of an answer arrive within so many seconds. */
const LATE_HITS = 0.14;

/** A phrase that can be called, with its number. */
export interface Numbered extends NamedCallable {
  readonly n: number;
  readonly pattern: Pattern;
}

/** A call: which phrase, on which tick it counts, and until when it may come. */
interface Call {
  readonly phrase: Numbered;
  readonly due: number;
  readonly until: number;
}

/** A call that is over, or that waits for the player's word. */
export interface CallResult {
  readonly name: string;
  readonly phrase: string;
  readonly due: number;
  readonly came: CallCame | null;
  readonly clean: boolean | null;
}

/** Phrases that are called over a groove: which comes next, what came of each. Provided by the place. */
@Injectable()
export class CallsStore {
  private readonly store = inject(PlayStore);
  private readonly choices = inject(PlayChoices);
  private readonly index = inject(ShelfIndex);
  private readonly habits = inject(RoomRepo);
  private readonly notices = inject(NoticesService);
  private readonly listState = signal<readonly Numbered[]>([]);
  /** The phrases of this round by their numbers. */
  readonly list = this.listState.asReadonly();
  private readonly callState = signal<Call | null>(null);
  private readonly resultState = signal<readonly CallResult[]>([]);
  readonly results = this.resultState.asReadonly();
  readonly call = this.callState.asReadonly();
  /** Whether something listens that judges; else the player says what came. */
  readonly byEar = computed(() => this.store.source() === null || this.store.trouble() !== null);
  /** Whether the phrase that is called is played now. */
  readonly isNow = computed(() => {
    const [call, tick] = [this.call(), this.store.tick()];
    return call !== null && tick !== null && tick >= call.due - 1;
  });
  /** The call that waits for the player's word. */
  readonly asks = computed(() => ((r) => (r?.came === null ? r : null))(this.results().at(-1)));
  readonly words = computed(() =>
    callsWords(this.results().flatMap((r) => (r.came === null ? [] : [{ ...r, came: r.came }]))),
  );
  /** The call whose bars are over, and the one that is still to be judged. */
  private over: Call | null = null;
  private pending: Call | null = null;

  constructor() {
    effect(() => {
      const tick = this.store.tick();
      if (this.choices.mode() === 'calls' && this.store.phase() === 'playing' && tick !== null)
        untracked(() => this.follow(tick));
    });
  }

  /** Chooses what may be called, and begins. Nothing begins where nothing can be called. */
  async start(): Promise<void> {
    const kind = this.choices.kind();
    const found = await this.index.callables(this.store.meter(), this.choices.bpm());
    const own = found.filter((c) => (kind === 'any' ? c.kind !== 'groove' : c.kind === kind));
    const bar = barTicks(this.store.meter());
    // Rather what can be played clean and is not sure to come.
    const best = [...own]
      .sort((a, b) => b.chance * (1.2 - (b.recall ?? 0.5)) - a.chance * (1.2 - (a.recall ?? 0.5)))
      .slice(0, MOST);
    const drawn = new Map((await this.index.patternsOf(best.map((c) => c.id))).map((d) => [d.id, d.pattern]));
    const list = best.flatMap((c): Omit<Numbered, 'n'>[] => {
      const pattern = drawn.get(c.id);
      return pattern && loopTicks(pattern) <= 4 * bar ? [{ ...c, pattern }] : [];
    });
    this.listState.set(list.map((c, i) => ({ ...c, n: i + 1 })));
    if (list.length === 0) {
      this.notices.wrong('No phrase of the shelf can be called in this meter. Choose another kind or meter.');
      return;
    }
    this.callState.set(null);
    this.resultState.set([]);
    this.over = null;
    this.pending = null;
    this.store.calls = () => this.kept();
    await this.store.start();
  }

  /** The player's own word for the call that waits. */
  tell(came: CallCame, clean: boolean | null): void {
    const asks = this.asks();
    if (!asks) return;
    this.resultState.update((all) => all.map((r) => (r === asks ? { ...r, came, clean } : r)));
  }

  private kept(): readonly KeptCall[] {
    return this.results().flatMap((r) =>
      r.came === null ? [] : [{ phrase: r.phrase, due: r.due, came: r.came, clean: r.clean }],
    );
  }

  private follow(tick: number): void {
    const { pending } = this;
    const m = this.store.meter();
    const bar = barTicks(m);
    if (pending && this.store.secondsOf(tick - pending.until) > LATE_HITS) {
      this.pending = null;
      this.judge(pending);
    }
    if (this.results().length >= this.choices.calls() && this.asks() === null) return void this.store.stop();
    const call = this.call();
    if (!call) return this.next((Math.floor(tick / bar) + 2) * bar);
    // The next one is called as soon as the one before has had its bars, and counts a bar later.
    if (call === this.over || tick < call.until - beatTicks(m)) return;
    this.over = call;
    this.pending = call;
    if (this.results().length + 1 < this.choices.calls()) this.next(call.until + bar);
  }

  private next(line: number): void {
    // The one that is just over is not told yet.
    const { pending } = this;
    const before = [...this.results().map((r) => r.phrase), ...(pending ? [pending.phrase.id] : [])];
    const chosen = nextCall(this.list(), before, Math.random());
    const phrase = this.list().find((c) => c.id === chosen?.id);
    if (!phrase) return;
    const bar = barTicks(this.store.meter());
    const due = line + phrase.pattern.start;
    const call = { phrase, due, until: line + callBars(phrase.pattern, this.choices.between() - 1, bar) * bar };
    this.callState.set(call);
    const spoken = line - bar;
    this.store.change(null, (program) => saying(program, phrase.n, Math.max(spoken, (this.store.tick() ?? 0) + 1)));
    const own = untilLanding(phrase.pattern);
    const quarter = quarterTempo(this.choices.bpm(), this.store.meter());
    const by = this.store.secondsOf(line);
    this.store.ear.perform(expectedOf(own, quarter, 0, 1).map((e) => ({ ...e, seconds: e.seconds + by })));
  }

  private judge(call: Call): void {
    const { phrase, due } = call;
    const of = { name: phrase.name, phrase: phrase.id, due };
    const played = this.store.played();
    const heard = this.byEar() ? null : heardCall(phrase.pattern, played, due, call.until);
    if (!heard) {
      this.resultState.update((all) => [...all, { ...of, came: null, clean: null }]);
      return;
    }
    const length = untilLanding(phrase.pattern).length;
    const verdict =
      heard.at === null
        ? null
        : verdictOn(
            phrase.pattern,
            { at: heard.at, from: heard.at, until: heard.at + length },
            played.hits,
            played.bpm,
            this.habits.now().strictness,
          );
    this.resultState.update((all) => [...all, { ...of, came: heard.came, clean: verdict && verdict === 'clean' }]);
  }
}
