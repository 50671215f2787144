import { Injectable, signal } from '@angular/core';
import { Subject } from 'rxjs';
import { eventsIn, retempo, tickAt, type Anchor, type Program } from '@core/playback';
import { spawnTicker } from '../workers/spawn';
import { choke, hand, isHat, makeBank, takeBack, whenOf, type Bank, type Handed } from './sounding';

/** How far ahead sounds are handed to the audio clock: they survive a page that is busy this long. */
const AHEAD_SECONDS = 0.35;
/** Silence before the first sound, so that it too is handed over in time. */
const LEAD_SECONDS = 0.15;
/** Changes take effect at the first beat that is at least this far away. */
const CHANGE_SECONDS = 0.08;

export interface PlayRequest {
  readonly program: Program;
  /** Quarters a minute. */
  readonly bpm: number;
  /** Ticks of a counted beat: where changes take effect. */
  readonly beat: number;
}

/** Plays a program: pure events from core, handed to the audio clock ahead of time; the playhead is read from the same clock. */
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
  private readonly playingState = signal(false);
  private readonly positionState = signal<number | null>(null);

  readonly playing = this.playingState.asReadonly();
  /** The tick that sounds now, below zero in the count-in; null while nothing plays. */
  readonly position = this.positionState.asReadonly();
  /** Tells each finished turn of the phrase, with how many there were. */
  readonly loops$ = new Subject<number>();
  /** Tells the end of the count-in. */
  readonly began$ = new Subject<void>();
  /** Sounds since play was pressed that were handed over after their time: nought, or the engine is not to be trusted. */
  readonly late = signal(0);
  /** A sentence when the browser gives no sound. */
  readonly trouble = signal<string | null>(null);

  async play(request: PlayRequest): Promise<void> {
    this.stop();
    const run = ++this.run;
    const context = await this.wake();
    if (!context || run !== this.run) return;
    this.request = request;
    const from = -request.program.countIn;
    this.anchors = [{ tick: from, seconds: context.currentTime + LEAD_SECONDS, bpm: request.bpm }];
    this.handedTo = from;
    this.loopsTold = from < 0 ? -1 : 0;
    this.late.set(0);
    this.playingState.set(true);
    this.pump();
    requestAnimationFrame(() => this.follow(run));
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

  /** Another tempo, click or phrase from the next beat on: what was handed over for later is called back, what sounds goes on. */
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
      this.context ??= new AudioContext({ latencyHint: 'interactive' });
      this.bank ??= makeBank(this.context);
      if (!this.ticker) {
        this.ticker = spawnTicker();
        this.ticker.onmessage = () => this.pump();
      }
      await this.context.resume();
      this.trouble.set(null);
      return this.context;
    } catch {
      this.trouble.set('The browser gives no sound. Check that a loudspeaker or headphones are connected, then press play again.');
      return null;
    }
  }

  /** Hands over everything up to the horizon, and tells what has passed. */
  private pump(): void {
    const { context, request } = this;
    const anchor = this.anchors.at(-1);
    if (!context || !request || !anchor) return;
    const now = context.currentTime;
    this.handOver(Math.ceil(tickAt(anchor, now + AHEAD_SECONDS)));
    this.tellLoops(tickAt(this.anchorAt(now), now), request.program.loop);
  }

  /** Hands what is due before a tick to the audio clock. Each range of ticks is handed over once. */
  private handOver(until: number): void {
    const { context, bank, request } = this;
    const anchor = this.anchors.at(-1);
    if (!context || !bank || !request || !anchor || until <= this.handedTo) return;
    const now = context.currentTime;
    const fresh = eventsIn(request.program, this.handedTo, until).flatMap((event) => {
      const when = whenOf(event, anchor, context.sampleRate);
      if (when < now) this.late.update((n) => n + 1);
      const handed = hand(context, bank, context.destination, event, when);
      if (!handed) return [];
      if (isHat(event.sound)) {
        if (this.hat) choke(this.hat, when);
        this.hat = handed;
      }
      return [handed];
    });
    this.waiting = [...this.waiting.filter((h) => h.when > now), ...fresh];
    this.handedTo = until;
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
