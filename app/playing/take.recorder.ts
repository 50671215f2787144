import { computed, inject, Injectable, signal } from '@angular/core';
import { Subscription } from 'rxjs';
import type { Schools } from '@core/time';
import type { Measured } from '@core/drill';
import { expectedIn, lengthsAt, silencesIn, type Rendition } from '@core/rendition';
import {
  align,
  uncountedHits,
  dotsOf,
  firstFix,
  measuredOf,
  readTake,
  verdictOf,
  type Dot,
  type Fix,
  type Hit,
  type TakeReading,
  type Strictness,
  type TakeVerdict,
} from '@core/take';
import { Transport } from '../sound/transport.service';
import { LatencyRepo } from '../storage/latency.repo';
import { SimulatedSource } from '../hits/simulated.source';
import type { HitSource } from '../hits/source';

/** What makes a try clean: how strictly it is judged, and by how many decibels accents must lie above ghosts. */
export interface Condition {
  readonly strictness: Strictness;
  readonly heights: number | null;
}

/** What a finished try said. */
export interface Judged {
  readonly reading: TakeReading;
  readonly verdict: TakeVerdict;
  readonly fix: Fix | null;
  readonly measured: Measured;
  /** What was heard beside the playing and is nobody's fault. */
  readonly uncounted: readonly string[];
  /** How many of its loops were clean, each for itself; null when the player decided. */
  readonly loops: { readonly clean: number; readonly of: number } | null;
}

/**
 * Listens to a source while a rung is played, lays the hits on what was meant, and judges each loop and the whole try.
 * Provided by whoever plays.
 */
@Injectable()
export class TakeRecorder {
  private readonly transport = inject(Transport);
  private readonly latency = inject(LatencyRepo);
  private readonly simulated = inject(SimulatedSource);
  private ears = new Subscription();
  private source: HitSource | null = null;
  private meant: Rendition | null = null;
  private bpm = 120;
  private zero = 0;
  private readonly hitsState = signal<readonly Hit[]>([]);
  private readonly listeningState = signal(false);
  /** Whether hits are being listened to, so that the take can judge. */
  readonly listening = this.listeningState.asReadonly();
  private readonly askingState = signal(false);
  /** Whether a source was asked and has not answered: the browser may be asking the player. */
  readonly asking = this.askingState.asReadonly();
  /** Counts what was asked: a late answer to what is not wanted any more is none. */
  private asked = 0;
  /** From which second of the try on it listens: a turn that began before was not heard from its start. */
  private since = 0;
  /** The hits of the last two turns, where they fell in the loop. */
  readonly dots = computed((): readonly Dot[] => {
    // Read first, so that hits are followed also while there is no phrase yet.
    const hits = this.hitsState();
    const { meant } = this;
    if (!meant) return [];
    const all = dotsOf(meant.pattern, this.bpm, hits);
    const last = all.at(-1)?.turn ?? 0;
    return all.filter((d) => d.turn >= last - 1);
  });

  /** Begins to listen. Resolves to whether the source can hear. */
  async listen(source: HitSource | null): Promise<boolean> {
    this.stop();
    this.source = source;
    if (!source) return false;
    const mine = ++this.asked;
    this.askingState.set(true);
    const hears = await source.start();
    if (mine !== this.asked) {
      // It was not wanted any more: nothing is left open.
      if (!this.listeningState() && !this.askingState()) source.stop();
      return false;
    }
    this.askingState.set(false);
    if (!hears) return false;
    this.since = performance.now() / 1000 - this.zero;
    this.ears = source.hits$.subscribe((hit) => this.hear(hit));
    this.listeningState.set(true);
    return true;
  }

  stop(): void {
    this.asked++;
    this.askingState.set(false);
    this.ears.unsubscribe();
    this.source?.stop();
    this.listeningState.set(false);
  }

  /** Nothing of what was struck is shown any more. */
  forget(): void {
    this.hitsState.set([]);
  }

  /** A try begins: its first bar line is heard at tick 0. The tempo is in counted bpm. */
  begin(meant: Rendition, bpm: number): void {
    this.meant = meant;
    this.bpm = bpm;
    this.zero = this.transport.pageTimeOf(0) ?? performance.now() / 1000;
    this.hitsState.set([]);
    this.since = this.listeningState() ? 0 : Infinity;
    this.playTurn(0);
  }

  /** The simulated player is handed one turn after the other. */
  playTurn(turn: number): void {
    if (this.source?.kind !== 'simulated' || !this.meant) return;
    const expected = expectedIn(this.meant, this.bpm, turn, 1);
    this.simulated.play(expected.map((e) => ({ ...e, seconds: e.seconds + this.zero })));
  }

  /** Whether one turn was clean; null when nothing listens. */
  loopClean(turn: number, asked: Condition, schools: Schools): boolean | null {
    const judged = this.judge(turn, 1, asked, schools);
    return judged === null ? null : judged.verdict === 'clean';
  }

  /** What was struck in the first turns of the try. */
  heard(turns: number): readonly Hit[] {
    return this.meant ? this.hitsIn(this.meant, 0, turns) : [];
  }

  /** What turns of the try say, from the first on; null when nothing listens or the source fell silent. */
  judge(first: number, turns: number, asked: Condition, schools: Schools): Judged | null {
    const { meant } = this;
    if (!meant || turns < 1 || !this.heardFrom(first * lengthsAt(meant, this.bpm).turn)) return null;
    const silences = silencesIn(meant, this.bpm, first + turns);
    return this.judged(meant, { first, turns }, this.hitsIn(meant, first, turns), silences, asked, schools);
  }

  /**
   * What one stretch of the try says of a phrase that stands in it, with its hits behind `bar`: the bar line, in
   * seconds from the first, from which the phrase counts. Null as above.
   */
  judgeStretch(
    own: Rendition,
    bar: number,
    asked: Condition,
    schools: Schools,
  ): { readonly judged: Judged; readonly hits: readonly Hit[] } | null {
    if (!this.heardFrom(bar)) return null;
    const { slot, tick } = lengthsAt(own, this.bpm);
    const from = own.pattern.start * tick - slot / 2;
    const until = from + own.pattern.length * tick;
    const hits = this.hitsState()
      .map((h) => ({ ...h, seconds: h.seconds - bar }))
      .filter((h) => h.seconds >= from && h.seconds < until);
    return { judged: this.judged(own, { first: 0, turns: 1 }, hits, [], asked, schools), hits };
  }

  /** Whether something listens, and did from a second of the try on. */
  private heardFrom(seconds: number): boolean {
    const { source } = this;
    return source !== null && this.listeningState() && source.trouble() === null && this.since <= seconds;
  }

  private judged(
    meant: Rendition,
    { first, turns }: { readonly first: number; readonly turns: number },
    hits: readonly Hit[],
    silences: ReturnType<typeof silencesIn>,
    { strictness, heights }: Condition,
    schools: Schools,
  ): Judged {
    const expected = expectedIn(meant, this.bpm, first, turns);
    const { slot, beat } = lengthsAt(meant, this.bpm);
    // A microphone takes a flam for one stroke: nobody is told that a grace stroke was left out.
    const laid = align(expected, hits, { beat, hearsGraces: this.source?.kind !== 'microphone' });
    const reading = readTake(expected, hits, laid, silences);
    const verdict = verdictOf(reading, slot, strictness, heights);
    const fix = firstFix(meant.pattern, reading, slot, schools, strictness, heights);
    return {
      reading,
      verdict,
      fix,
      measured: measuredOf(reading, fix),
      uncounted: uncountedHits(reading),
      loops: null,
    };
  }

  private hitsIn(meant: Rendition, first: number, turns: number): readonly Hit[] {
    const { turn, slot } = lengthsAt(meant, this.bpm);
    // What comes just before a loop belongs to its first stroke.
    const early = slot / 2;
    return this.hitsState().filter(
      (h) => h.seconds >= first * turn - early && h.seconds < (first + turns) * turn - early,
    );
  }

  private hear(hit: Hit): void {
    if (!this.transport.playing() || !this.source) return;
    const behind = this.source.kind === 'simulated' ? 0 : (this.latency.now()[this.source.kind] ?? 0);
    this.hitsState.update((all) =>
      [...all, { ...hit, seconds: hit.seconds - this.zero - behind }].sort((a, b) => a.seconds - b.seconds),
    );
  }
}
