import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import type { Pattern } from '@core/pattern';
import { expectedOf } from '@core/rendition';
import { barTicks, quarterTempo, ticks } from '@core/time';
import { answeredWords, answerTo, tradeOf, type Trade, type UsablePhrase } from '@core/usage';
import { NoticesService } from '../../common/notices.service';
import { ShelfIndex } from '../../knowledge/shelf-index.service';
import { PlayChoices } from './choices';
import { PlayStore } from './play.store';

/** Phrases that trades are made of. */
const MOST = 60;
/** Hits that belong to the end of an answer arrive within so many seconds. */
const LATE_HITS = 0.14;

/** Turns with the machine: it plays some bars of the shelf, then it is silent. Provided by the place. */
@Injectable()
export class TradingStore {
  private readonly store = inject(PlayStore);
  private readonly choices = inject(PlayChoices);
  private readonly index = inject(ShelfIndex);
  private readonly notices = inject(NoticesService);
  private shelf: readonly UsablePhrase[] = [];
  private readonly tradeState = signal<Trade | null>(null);
  /** What is sent in this round. */
  readonly trade = this.tradeState.asReadonly();
  private readonly wordsState = signal<readonly string[]>([]);
  /** What came back, round by round. */
  readonly words = this.wordsState.asReadonly();
  private readonly long = computed(() => this.choices.trade() * barTicks(this.store.meter()));
  /** Whether it is the player's turn; null in silence. */
  readonly mine = computed(() => {
    const tick = this.store.tick();
    return tick === null || tick < 0 ? null : tick % (2 * this.long()) >= this.long();
  });
  private round = -1;
  private sent: Trade | null = null;

  constructor() {
    effect(() => {
      const tick = this.store.tick();
      if (this.choices.mode() === 'trading' && this.store.phase() === 'playing' && tick !== null && tick >= 0)
        untracked(() => this.follow(tick));
    });
  }

  async start(): Promise<void> {
    const found = await this.index.callables(this.store.meter(), this.choices.bpm());
    const able = found.filter((c) => c.kind === 'fill' || c.kind === 'lick').sort((a, b) => b.chance - a.chance);
    const own = able.slice(0, MOST);
    const drawn = await this.index.patternsOf(own.map((c) => c.id));
    this.shelf = drawn.map(({ id, pattern }) => ({ id, pattern, form: id }));
    const first = this.made();
    if (!first) {
      this.notices.wrong('No fill or lick of the shelf goes into so many bars of this meter.');
      return;
    }
    this.tradeState.set(first);
    this.wordsState.set([]);
    this.round = -1;
    this.sent = null;
    this.store.calls = () => [];
    this.store.other.set(this.withSilence(first));
    await this.store.start();
  }

  private made(): Trade | null {
    return tradeOf(this.shelf, this.choices.trade(), this.store.meter(), Math.random);
  }

  private follow(tick: number): void {
    const cycle = 2 * this.long();
    const round = Math.floor(tick / cycle);
    const late = this.store.secondsOf(tick - round * cycle);
    if (round > this.round && (round === 0 || late > LATE_HITS)) {
      const sent = this.sent;
      this.round = round;
      this.sent = this.trade();
      if (sent && round > 0) void this.judge(sent, (round - 1) * cycle + this.long());
      if (this.sent) this.echo(this.sent, round * cycle + this.long());
    }
    // While it is silent the next one is put in its place.
    if (this.mine() === true && this.trade() === this.sent) {
      const next = this.made();
      if (!next) return;
      this.tradeState.set(next);
      this.store.change(this.withSilence(next));
    }
  }

  private async judge(sent: Trade, from: number): Promise<void> {
    const played = this.store.played();
    const read = await this.index.readSitting(
      { hits: played.hits, meter: played.meter, bpm: played.bpm },
      () => undefined,
    );
    const came = (read?.came ?? []).map(({ phrase, ...c }) => ({ ...c, id: phrase }));
    const words = answeredWords(answerTo(sent, played, from, came), this.choices.asked(), this.store.nameOf);
    this.wordsState.update((all) => [...all, words]);
  }

  /** The stand-in answers with the same. */
  private echo({ pattern }: Trade, from: number): void {
    const by = this.store.secondsOf(from);
    const expected = expectedOf(pattern, quarterTempo(this.choices.bpm(), pattern.meter), 0, 1);
    this.store.ear.perform(expected.map((e) => ({ ...e, seconds: e.seconds + by })));
  }

  private withSilence({ pattern }: Trade): Pattern {
    return { ...pattern, length: ticks(2 * pattern.length) };
  }
}
