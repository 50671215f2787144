import { effect, inject, Injectable, signal, untracked } from '@angular/core';
import { Subject } from 'rxjs';
import {
  changedAt,
  dueBefore,
  eventsIn,
  handed,
  lastAnchor,
  PARTS,
  secondsOfTick,
  tickHeardAt,
  tickOfRecord,
  timelineFrom,
  nextChangeTick,
  turnsOver,
  type Part,
  type PlaybackEvent,
  type PlayRequest,
  type Timeline,
} from '@core/playback';
import { LoudnessRepo } from '../storage/loudness.repo';
import { spawnTicker } from './spawn-sound';
import { BackingService } from './backing.service';
import { choke, schedule, handRecord, makeBank, roomOf, takeBack, whenOf, type Bank, type Handed } from './sounding';
import { isHat } from './hats';

/** How far ahead sounds are handed to the audio clock: they survive a page that is busy this long. */
const AHEAD_SECONDS = 1;
/** What begins sooner than this is no longer handed over in time, in seconds. */
const SOON = 0.01;
/** Silence before the first sound, so that it too is handed over in time. */
const LEAD_SECONDS = 0.15;
/** Changes take effect at the first beat that is at least this far away. */
const CHANGE_SECONDS = 0.12;

/**
 * The ticker of a page in the background still comes every second; a longer silence of it, in ms, is a device that
 * slept.
 */
const SLEEP_MS = 4000;
/** So long a browser may take to let the sound begin, in ms. */
const RESUME_MS = 2000;
/** So often the page itself looks what is due, in ms, where the worker that keeps time could not be fetched. */
const STOPGAP_MS = 25;

interface Owed {
  readonly event: PlaybackEvent;
  readonly when: number;
  readonly bpm: number;
}

/** What was handed to the audio clock since play was pressed. */
export interface Handover {
  readonly sounds: number;
  /** Sounds handed over after their time: nought, or the engine is not to be trusted. */
  readonly late: number;
  /** Seconds by which the nearest of them came before its time; null before the first. */
  readonly nearest: number | null;
}
const NOTHING_HANDED: Handover = { sounds: 0, late: 0, nearest: null };

/**
 * Plays a program: pure events from core, handed to the audio clock ahead of time; the playhead is read from the same
 * clock.
 */
@Injectable({ providedIn: 'root' })
export class Transport {
  private context: AudioContext | null = null;
  private bank: Bank | null = null;
  private ticker: Worker | null = null;
  private stopgap: ReturnType<typeof setInterval> | null = null;
  private request: PlayRequest | null = null;
  /** When what plays is heard; null in silence. */
  private timeline: Timeline | null = null;
  private waiting: readonly Handed[] = [];
  /** Stretches of a record that is not made yet at its tempo: they sound as soon as there is one. */
  private owed: readonly Owed[] = [];
  private readonly backing = inject(BackingService);
  private hat: Handed | null = null;
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
    this.timeline = timelineFrom(from, context.currentTime + LEAD_SECONDS, request.bpm, request.program.loop);
    this.handover.set(NOTHING_HANDED);
    this.lookedAt = performance.now();
    this.playingState.set(true);
    this.pump();
    requestAnimationFrame(() => this.follow(run));
  }

  /** The moment a tick is heard, in seconds of the page's clock; null while nothing plays. */
  pageTimeOf(tick: number): number | null {
    const { context, timeline } = this;
    return context && timeline ? secondsOfTick(timeline, tick) + this.pageLead(context) : null;
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
    this.owed = [];
    this.hat = null;
    this.request = null;
    this.timeline = null;
  }

  /**
   * Another tempo, click or phrase from the next beat on: what was handed over for later is called back, what sounds
   * goes on.
   */
  change(part: Partial<PlayRequest>): void {
    const { context, request } = this;
    if (!context || !request || !this.timeline) return;
    const next = { ...request, ...part };
    const now = context.currentTime;
    const turn = nextChangeTick(this.timeline, now, CHANGE_SECONDS, request.beat);
    this.handOver(turn);
    this.waiting.filter((h) => h.event.at >= turn && h.when > now + 0.005).forEach(takeBack);
    this.waiting = this.waiting.filter((h) => h.event.at < turn);
    this.owed = this.owed.filter((o) => o.event.at < turn);
    // With another loop the turns are counted by it from now on.
    const { loop } = next.program;
    const told =
      loop === request.program.loop ? this.timeline.loopsReported : Math.floor(tickHeardAt(this.timeline, now) / loop);
    this.timeline = changedAt(this.timeline, turn, next.bpm, told);
    this.request = next;
    this.pump();
  }

  private async wake(): Promise<AudioContext | null> {
    try {
      this.context ??= this.listen(new AudioContext({ latencyHint: 'interactive' }));
      this.bank ??= makeBank(this.context);
      if (!this.ticker) {
        this.ticker = spawnTicker();
        this.ticker.onmessage = () => this.pump();
        // Where it cannot be fetched the page keeps time itself: not behind another tab, but not silent either.
        this.ticker.onerror = () => (this.stopgap ??= setInterval(() => this.pump(), STOPGAP_MS));
      }
      // A browser that holds the sound back until the page is pressed never answers.
      await Promise.race([this.context.resume(), new Promise((r) => setTimeout(r, RESUME_MS))]);
      if (this.context.state === 'suspended') {
        this.trouble.set('The browser blocked the sound. Press play again; if it stays silent, reload.');
        return null;
      }
      this.trouble.set(null);
      return this.context;
    } catch {
      this.trouble.set('No sound from the browser. Check your speakers or headphones, then press play again.');
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
    const { context, timeline } = this;
    if (!context || !timeline) return;
    const now = context.currentTime;
    const looked = this.lookedAt;
    this.lookedAt = performance.now();
    if (this.lookedAt - looked > SLEEP_MS) {
      this.sleep();
      return;
    }
    this.handOver(dueBefore(timeline, now + AHEAD_SECONDS));
    this.payRecord(context, now);
    this.tellTurns(now);
  }

  /** The device slept: the audio clock stood still or ran on unheard, so what plays has lost its place. */
  private sleep(): void {
    this.stop();
    this.trouble.set('Stopped: the device slept or lost its sound. Press play to continue.');
    this.slept$.next();
  }

  /** Hands what is due before a tick to the audio clock. Each range of ticks is handed over once. */
  private handOver(until: number): void {
    const { context, bank, request, timeline } = this;
    if (!context || !bank || !request || !timeline || until <= timeline.handedTo) return;
    const anchor = lastAnchor(timeline);
    const now = context.currentTime;
    // Whoever asks for a change in an effect must not be told of it as of news.
    let { sounds, late, nearest } = untracked(this.handover);
    const fresh = eventsIn(request.program, timeline.handedTo, until).flatMap((event) => {
      const when = whenOf(event, anchor, context.sampleRate);
      if (tickOfRecord(event.sound) !== null) {
        this.owed = [...this.owed, { event, when, bpm: anchor.bpm }];
        return [];
      }
      sounds++;
      if (when < now) late++;
      nearest = Math.min(nearest ?? Infinity, when - now);
      const sound = schedule(context, bank, this.outFor(context, event.part), event, when, roomOf(event, anchor.bpm));
      if (!sound) return [];
      if (isHat(event.sound)) {
        if (this.hat) choke(this.hat, when);
        this.hat = sound;
      }
      return [sound];
    });
    this.handover.set({ sounds, late, nearest });
    this.waiting = [...this.waiting.filter((h) => (h.until ?? h.when) > now), ...fresh];
    this.timeline = handed(timeline, until);
    this.payRecord(context, now);
  }

  /** Hands over what is owed of a record and made by now; what was to begin before is passed over. */
  private payRecord(context: AudioContext, now: number): void {
    const left: Owed[] = [];
    const paid: Handed[] = [];
    for (const o of this.owed) {
      const buffer = this.backing.at(o.bpm);
      if (o.when < now + SOON) continue;
      if (buffer) paid.push(handRecord(context, buffer, this.outFor(context, 'record'), o.event, o.when, o.bpm));
      else left.push(o);
    }
    this.owed = left;
    this.waiting = [...this.waiting, ...paid];
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

  /** Tells the end of the count-in and each turn that is over. Whoever hears it may stop what plays. */
  private tellTurns(now: number): void {
    const { request, timeline, run } = this;
    if (!request || !timeline) return;
    const over = turnsOver(timeline, now, request.program.loop);
    this.timeline = over.timeline;
    for (const turn of over.turns) {
      if (turn === 0) this.began$.next();
      else this.loops$.next(turn);
      if (run !== this.run) return;
    }
  }

  private follow(run: number): void {
    if (run !== this.run || !this.context || !this.timeline) return;
    const heard = this.context.currentTime - (this.context.outputLatency || 0);
    this.positionState.set(tickHeardAt(this.timeline, heard));
    requestAnimationFrame(() => this.follow(run));
  }
}
