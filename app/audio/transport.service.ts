import { effect, inject, Injectable, signal, untracked } from '@angular/core';
import { Subject } from 'rxjs';
import { eventsIn, PARTS, retempo, secondsAt, tickAt, type Anchor, type Part, type Program } from '@core/playback';
import { LoudnessRepo } from '../data/loudness.repo';
import { spawnTicker } from '../workers/spawn';
import { choke, hand, isHat, makeBank, takeBack, whenOf, type Bank, type Handed } from './sounding';

/** How far ahead sounds are handed to the audio clock: they survive a page that is busy this long. */
const AHEAD_SECONDS = 1;
/** Silence before the first sound, so that it too is handed over in time. */
const LEAD_SECONDS = 0.15;
/** Changes take effect at the first beat that is at least this far away. */
const CHANGE_SECONDS = 0.12;

/**
 * The ticker of a page in the background still comes every second; a longer silence of it, in ms, is a device that
 * slept.
 */
const SLEEP_MS = 4000;

/** What was handed to the audio clock since play was pressed. */
export interface Handover {
  readonly sounds: number;
  /** Sounds handed over after their time: nought, or the engine is not to be trusted. */
  readonly late: number;
  /** Seconds by which the nearest of them came before its time; null before the first. */
  readonly nearest: number | null;
}
const NOTHING_HANDED: Handover = { sounds: 0, late: 0, nearest: null };

export interface PlayRequest {
  readonly program: Program;
  /** Quarters a minute. */
  readonly bpm: number;
  /** Ticks of a counted beat: where changes take effect. */
  readonly beat: number;
}

/**
 * Plays a program: pure events from core, handed to the audio clock ahead of time; the playhead is read from the same
 * clock.
 */
@Injectable({ providedIn: 'root' })
export class Transport {
  private context: AudioContext | null = null;
  private bank: Bank | null = null;
  private ticker: Worker | null = null;
  private request: PlayRequest | null = null;
  private anchors: readonly Anchor[] = [];
  private handedTo = 0;
  private waiting: readonly Handed[] = [];
  private hat: Handed | null = null;
  private loopsTold = 0;
  private run = 0;
  private outs: ReadonlyMap<Part, GainNode> | null = null;
  private readonly loudness = inject(LoudnessRepo).now;
  /** When sounds were last looked after, on the page's clock in ms: a long gap means that the device slept. */
  private lookedAt = 0;
  private readonly playingState = signal(false);
  private readonly positionState = signal<number | null>(null);

  readonly playing = this.playingState.asReadonly();
  /** The tick that sounds now, below zero in the count-in; null while nothing plays. */
  readonly position = this.positionState.asReadonly();
  /** Tells each finished turn of the phrase, with how many there were. */
  readonly loops$ = new Subject<number>();
  /** Tells the end of the count-in. */
  readonly began$ = new Subject<void>();
  readonly handover = signal(NOTHING_HANDED);
  /** Tells that the device slept while something played. It stopped then: nobody knows what was heard. */
  readonly slept$ = new Subject<void>();
  /** A sentence when the browser gives no sound. */
  readonly trouble = signal<string | null>(null);

  constructor() {
    // A slider that moves is heard at once, also in what was handed over already.
    effect(() => {
      const loudness = this.loudness();
      this.outs?.forEach((out, part) => (out.gain.value = loudness[part]));
    });
  }

  /** Plays a program from a tick on; the count-in only comes before the beginning. */
  async play(request: PlayRequest, fromTick = 0): Promise<void> {
    this.stop();
    const run = ++this.run;
    const context = await this.wake();
    if (!context || run !== this.run) return;
    this.request = request;
    const from = fromTick > 0 ? fromTick : -request.program.countIn;
    this.anchors = [{ tick: from, seconds: context.currentTime + LEAD_SECONDS, bpm: request.bpm }];
    this.handedTo = from;
    this.loopsTold = from < 0 ? -1 : Math.floor(from / request.program.loop);
    this.handover.set(NOTHING_HANDED);
    this.lookedAt = performance.now();
    this.playingState.set(true);
    this.pump();
    requestAnimationFrame(() => this.follow(run));
  }

  /** The moment a tick is heard, in seconds of the page's clock; null while nothing plays. */
  pageTimeOf(tick: number): number | null {
    const { context } = this;
    const anchor = this.anchors.findLast((a) => a.tick <= tick) ?? this.anchors[0];
    if (!context || !anchor || !this.request) return null;
    return secondsAt(anchor, tick) + this.pageLead(context);
  }

  /** What is added to a time of the audio clock to have the page's clock at which it is heard. */
  private pageLead(context: AudioContext): number {
    const stamp = context.getOutputTimestamp();
    if (stamp.contextTime !== undefined && stamp.performanceTime !== undefined && stamp.performanceTime > 0)
      return stamp.performanceTime / 1000 - stamp.contextTime;
    return performance.now() / 1000 - context.currentTime + (context.outputLatency || 0);
  }

  stop(): void {
    this.run++;
    this.playingState.set(false);
    this.positionState.set(null);
    this.waiting.forEach(takeBack);
    this.waiting = [];
    this.hat = null;
    this.request = null;
  }

  /**
   * Another tempo, click or phrase from the next beat on: what was handed over for later is called back, what sounds
   * goes on.
   */
  change(part: Partial<PlayRequest>): void {
    const { context, request } = this;
    const last = this.anchors.at(-1);
    if (!context || !request || !last) return;
    const next = { ...request, ...part };
    const now = tickAt(this.anchorAt(context.currentTime), context.currentTime);
    const soonest = tickAt(this.anchorAt(context.currentTime + CHANGE_SECONDS), context.currentTime + CHANGE_SECONDS);
    const turn = Math.max(Math.ceil(soonest / request.beat) * request.beat, last.tick);
    if (this.handedTo < turn) this.handOver(turn);
    this.waiting.filter((h) => h.event.at >= turn && h.when > context.currentTime + 0.005).forEach(takeBack);
    this.waiting = this.waiting.filter((h) => h.event.at < turn);
    this.anchors = [...this.anchors.filter((a) => a.tick < turn), retempo(last, turn, next.bpm)];
    this.handedTo = turn;
    this.request = next;
    if (next.program.loop !== request.program.loop) this.loopsTold = Math.floor(now / next.program.loop);
    this.pump();
  }

  private async wake(): Promise<AudioContext | null> {
    try {
      this.context ??= this.listen(new AudioContext({ latencyHint: 'interactive' }));
      this.bank ??= makeBank(this.context);
      if (!this.ticker) {
        this.ticker = spawnTicker();
        this.ticker.onmessage = () => this.pump();
      }
      await this.context.resume();
      this.trouble.set(null);
      return this.context;
    } catch {
      this.trouble.set(
        'The browser gives no sound. Check that a loudspeaker or headphones are connected, then press play again.',
      );
      return null;
    }
  }

  /**
   * A call or another program can take the sound away: its clock stands still then, and what plays has lost its place.
   */
  private listen(context: AudioContext): AudioContext {
    context.onstatechange = () => {
      if (context.state !== 'running' && this.playingState()) this.sleep();
    };
    return context;
  }

  /** Hands over everything up to the horizon, and tells what has passed. */
  private pump(): void {
    const { context, request } = this;
    const anchor = this.anchors.at(-1);
    if (!context || !request || !anchor) return;
    const now = context.currentTime;
    const looked = this.lookedAt;
    this.lookedAt = performance.now();
    if (this.lookedAt - looked > SLEEP_MS) {
      this.sleep();
      return;
    }
    this.handOver(Math.ceil(tickAt(anchor, now + AHEAD_SECONDS)));
    this.tellLoops(tickAt(this.anchorAt(now), now), request.program.loop);
  }

  /** The device slept: the audio clock stood still or ran on unheard, so what plays has lost its place. */
  private sleep(): void {
    this.stop();
    this.trouble.set('The device slept, or the sound was taken away, so it stopped. Press play to go on.');
    this.slept$.next();
  }

  /** Hands what is due before a tick to the audio clock. Each range of ticks is handed over once. */
  private handOver(until: number): void {
    const { context, bank, request } = this;
    const anchor = this.anchors.at(-1);
    if (!context || !bank || !request || !anchor || until <= this.handedTo) return;
    const now = context.currentTime;
    // Whoever asks for a change in an effect must not be told of it as of news.
    let { sounds, late, nearest } = untracked(this.handover);
    const fresh = eventsIn(request.program, this.handedTo, until).flatMap((event) => {
      const when = whenOf(event, anchor, context.sampleRate);
      sounds++;
      if (when < now) late++;
      nearest = Math.min(nearest ?? Infinity, when - now);
      const handed = hand(context, bank, this.outFor(context, event.part), event, when);
      if (!handed) return [];
      if (isHat(event.sound)) {
        if (this.hat) choke(this.hat, when);
        this.hat = handed;
      }
      return [handed];
    });
    this.handover.set({ sounds, late, nearest });
    this.waiting = [...this.waiting.filter((h) => h.when > now), ...fresh];
    this.handedTo = until;
  }

  /** Each part has a loudness of its own. */
  private outFor(context: AudioContext, part: Part): AudioNode {
    this.outs ??= new Map(
      PARTS.map((p) => {
        const out = context.createGain();
        out.gain.value = this.loudness()[p];
        out.connect(context.destination);
        return [p, out];
      }),
    );
    return this.outs.get(part) ?? context.destination;
  }

  private tellLoops(tick: number, loop: number): void {
    const turn = Math.floor(tick / loop);
    while (this.loopsTold < turn) {
      this.loopsTold++;
      if (this.loopsTold === 0) this.began$.next();
      else this.loops$.next(this.loopsTold);
      if (!this.playingState()) return;
    }
  }

  private anchorAt(seconds: number): Anchor {
    const found = this.anchors.findLast((a) => a.seconds <= seconds) ?? this.anchors[0];
    return found ?? { tick: 0, seconds: 0, bpm: 120 };
  }

  private follow(run: number): void {
    if (run !== this.run || !this.context) return;
    const heard = this.context.currentTime - (this.context.outputLatency || 0);
    this.positionState.set(tickAt(this.anchorAt(heard), heard));
    requestAnimationFrame(() => this.follow(run));
  }
}
