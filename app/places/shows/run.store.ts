import { computed, inject, Injectable, signal } from '@angular/core';
import { Subscription } from 'rxjs';
import { mod } from '@core/base';
import type { Attempt } from '@core/drill';
import type { Pattern } from '@core/pattern';
import type { Phrase } from '@core/recipe';
import { rendition, requestOf, type Rendition } from '@core/rendition';
import {
  cueMeter,
  cuePattern,
  fitOf,
  goodSpots,
  newRun,
  nextSpot,
  runStep,
  spotPattern,
  type CuePlayed,
  type FitWay,
  type Run,
  type RunEvent,
  type SpotPlayed,
} from '@core/show';
import { factsOf, type Cue, type Spot } from '@core/shelf';
import { findingWords, type Hit, type KeptTake } from '@core/take';
import { barTicks, beatTicks, quarterTempo, secondsOf } from '@core/time';
import { now } from '../../environment/clock';
import { freshUuid } from '../../environment/ids';
import { HitSources } from '../../hits/sources.service';
import type { SourceKind } from '../../hits/source';
import { Player } from '../../playing/player';
import { TakeRecorder } from '../../playing/take.recorder';
import { Transport } from '../../sound/transport.service';
import { KitsRepo } from '../../storage/kits.repo';
import { RoomRepo } from '../../storage/room.repo';
import { SettingsRepo } from '../../storage/settings.repo';
import { TakesRepo } from '../../storage/takes.repo';
import { ShowsStore } from './shows.store';

/** Time in which the last hits of a cue still arrive, in milliseconds. */
const LATE_HITS = 140;
/** By this name the run-through is known among what sounds. */
const RUN = 'run-through';
/** Pauses between two cues, in seconds; 0 waits for the player. */
export const PAUSES = [0, 4, 8] as const;
export type Pause = (typeof PAUSES)[number];

/** What became of a spot: of a phrase by its name, clean or messy; null until somebody says. */
export interface SpotResult {
  readonly spot: string;
  readonly cue: number;
  readonly where: Spot;
  readonly name: string;
  readonly phrase: string;
  readonly verdict: 'clean' | 'messy' | null;
  /** What was named first, where something listened. */
  readonly words: string;
}

/** A spot of the cue with what stands in it. */
interface Standing {
  readonly spot: Spot;
  readonly phrase: Phrase;
  readonly played: SpotPlayed;
}

/** A run-through: the cue that sounds, the spot that comes, what was judged. Provided by its component. */
@Injectable()
export class RunStore {
  private readonly shows = inject(ShowsStore);
  private readonly transport = inject(Transport);
  private readonly player = inject(Player);
  private readonly recorder = inject(TakeRecorder);
  private readonly sources = inject(HitSources);
  private readonly kits = inject(KitsRepo);
  private readonly settings = inject(SettingsRepo);
  private readonly habits = inject(RoomRepo);
  private readonly takes = inject(TakesRepo);
  private readonly show = this.shows.show;
  private readonly state = signal<Run>({ cue: 0, phase: 'ready', played: [] });
  private readonly found = signal<{
    readonly patterns: ReadonlyMap<string, Pattern>;
    readonly phrases: readonly Phrase[];
  } | null>(null);
  private readonly resultsState = signal<readonly SpotResult[]>([]);
  private readonly standIn = signal(false);
  private readonly ears = new Subscription();
  private waits: ReturnType<typeof setTimeout> | null = null;

  readonly run = this.state.asReadonly();
  readonly results = this.resultsState.asReadonly();
  /** Whether what is played was read. */
  readonly ready = computed(() => this.found() !== null);
  readonly withGroove = signal(true);
  readonly pause = signal<Pause>(4);
  readonly cues = computed(() => this.show()?.cues ?? []);
  readonly cue = computed((): Cue | null => this.cues()[this.state().cue] ?? null);
  readonly running = computed(() => this.state().phase === 'count-in' || this.state().phase === 'playing');
  /** What hears the player; null for the player's own ear. */
  readonly source = computed((): SourceKind | null => (this.standIn() ? 'simulated' : this.habits.now().source));
  readonly trouble = computed(() => {
    const kind = this.source();
    return kind === null ? null : this.sources.of(kind).trouble();
  });
  private readonly standing = computed((): readonly Standing[] => {
    const [cue, found] = [this.cue(), this.found()];
    if (!cue || !found) return [];
    return goodSpots(cue).flatMap((spot): Standing[] => {
      const phrase = found.phrases.find((p) => p.id === spot.phrase);
      const pattern = found.patterns.get(spot.phrase ?? '');
      const way = phrase && pattern ? this.wayOf(spot, cue, phrase, pattern) : null;
      return phrase && pattern && way ? [{ spot, phrase, played: { pattern, way } }] : [];
    });
  });
  private readonly played = computed((): CuePlayed | null => {
    const cue = this.cue();
    if (!cue) return null;
    const groove = this.withGroove() && cue.groove !== null ? (this.found()?.patterns.get(cue.groove) ?? null) : null;
    const by = new Map(this.standing().map((s) => [s.spot.id, s.played]));
    const fits = groove && barTicks(groove.meter) === barTicks(cueMeter(cue));
    return cuePattern(cue, fits ? groove : null, (spot) => by.get(spot.id) ?? null);
  });
  private readonly meant = computed((): Rendition | null => {
    const played = this.played();
    return (
      played &&
      rendition({
        phrase: played.pattern,
        kit: this.kits.current(),
        click: this.habits.now().click,
        schools: this.settings.schools(),
        countInBars: 1,
      })
    );
  });
  /** The bar that sounds, from 1; 0 in the count-in, and null in silence. */
  readonly bar = computed(() => {
    const [cue, position] = [this.cue(), this.transport.position()];
    if (!cue || position === null || !this.running()) return null;
    return position < 0 ? 0 : Math.floor(position / barTicks(cueMeter(cue))) + 1;
  });
  /** The beat that sounds, from 1. */
  readonly beat = computed(() => {
    const [cue, position] = [this.cue(), this.transport.position()];
    if (!cue || position === null || !this.running()) return null;
    const m = cueMeter(cue);
    return Math.floor(mod(position, barTicks(m)) / beatTicks(m)) + 1;
  });
  /** The spot that comes, or is played now, with what stands in it. */
  readonly next = computed(() => {
    const [cue, played] = [this.cue(), this.played()];
    if (!cue || !played) return null;
    const position = this.running() ? (this.transport.position() ?? 0) : 0;
    const own = nextSpot(played.spots, position, Infinity);
    if (!own) return null;
    const bar = barTicks(cueMeter(cue));
    const standing = this.standing().find((s) => s.spot.id === own.spot.id);
    return {
      spot: own.spot,
      now: this.running() && position >= own.from,
      /** Whole bars until it begins: none where it comes within the next. */
      bars: this.running() ? Math.max(0, Math.ceil((own.from - position) / bar) - 1) : null,
      name: standing?.phrase.name ?? null,
      pattern: standing ? spotPattern(cue, own.spot, standing.played) : null,
    };
  });

  constructor() {
    const show = this.show();
    if (show) this.state.set(newRun(show));
    void this.shows.played().then((found) => this.found.set(found));
    this.ears.add(this.transport.began$.subscribe(() => this.began()));
    this.ears.add(this.transport.loops$.subscribe(() => this.ended()));
    this.ears.add(this.transport.slept$.subscribe(() => this.stop()));
  }

  /** Goes on at the cue it is at, or stops it. */
  toggle(): void {
    if (this.running()) this.stop();
    else this.go();
  }

  go(): void {
    this.unwait();
    const meant = this.meant();
    const cue = this.cue();
    if (!meant || !cue || !this.ready()) return;
    if (this.state().phase === 'over') this.resultsState.set([]);
    this.step({ kind: 'go' });
    const kind = this.source();
    if (kind === null) this.recorder.stop();
    else if (!this.recorder.listening() && !this.recorder.asking()) void this.recorder.listen(this.sources.of(kind));
    const first = this.cue();
    // After the last cue it begins with the first: what is meant follows the cue.
    const played = this.meant();
    if (first && played) this.player.play(RUN, requestOf(played, first.tempo));
  }

  stop(): void {
    this.unwait();
    this.player.stop(RUN);
    this.step({ kind: 'stop' });
  }

  /** To another cue; where it sounded it goes on there. */
  to(cue: number): void {
    const sounded = this.running();
    this.stop();
    this.step({ kind: 'to', cue });
    if (sounded && this.cues()[cue]) this.go();
  }

  listenTo(source: SourceKind | null): void {
    this.recorder.stop();
    this.standIn.set(source === 'simulated');
    if (source !== 'simulated') void this.habits.change({ source });
  }

  /** The player's own judgement of a spot, where nothing listened. */
  judge(result: SpotResult, verdict: 'clean' | 'messy'): void {
    if (result.verdict !== null) return;
    const cue = this.cues()[result.cue];
    const phrase = this.found()?.phrases.find((p) => p.id === result.phrase);
    this.resultsState.update((all) => all.map((r) => (r === result ? { ...r, verdict } : r)));
    if (cue && phrase) void this.takes.keepTry(this.attemptOf(cue, result.where, phrase, verdict), null);
  }

  destroy(): void {
    this.stop();
    this.ears.unsubscribe();
    this.recorder.stop();
  }

  private began(): void {
    if (this.player.owner() !== RUN) return;
    const [meant, cue] = [this.meant(), this.cue()];
    if (meant && cue && this.source() !== null) this.recorder.begin(meant, cue.tempo);
    this.step({ kind: 'counted-in' });
  }

  /** The cue is over: its spots are judged, and the next one follows after the pause. */
  private ended(): void {
    if (this.player.owner() !== RUN || this.state().phase !== 'playing') return;
    const [cue, n, standing] = [this.cue(), this.state().cue, this.standing()];
    this.player.stop(RUN);
    this.step({ kind: 'ended' });
    if (cue) setTimeout(() => this.judgeAll(cue, n, standing), LATE_HITS);
    const pause = this.pause();
    if (this.state().phase === 'between' && pause > 0) this.waits = setTimeout(() => this.go(), pause * 1000);
  }

  private judgeAll(cue: Cue, n: number, standing: readonly Standing[]): void {
    const fresh = standing.map(({ spot, phrase, played }): SpotResult => {
      const own = rendition({ phrase: spotPattern(cue, spot, played), kit: this.kits.current() });
      const bar = (spot.bar - 1) * secondsOf(barTicks(cueMeter(cue)), quarterTempo(cue.tempo, cueMeter(cue)));
      const asked = { strictness: this.habits.now().strictness, heights: null };
      const said = this.recorder.judgeStretch(own, bar, asked, this.settings.schools());
      const verdict = said && (said.judged.verdict === 'clean' ? 'clean' : 'messy');
      if (said && verdict && isWhole(played.way)) {
        const attempt: Attempt = {
          ...this.attemptOf(cue, spot, phrase, verdict),
          measured: said.judged.measured,
          ...((kind) => (kind === null ? {} : { source: kind }))(this.source()),
        };
        void this.takes.keepTry(attempt, this.takeOf(attempt, cue, { spot, phrase, played }, said.hits));
      }
      return {
        spot: spot.id,
        cue: n,
        where: spot,
        name: phrase.name,
        phrase: phrase.id,
        verdict,
        words: said?.judged.fix ? findingWords(said.judged.fix.finding) : '',
      };
    });
    this.resultsState.update((all) => [...all.filter((r) => r.cue !== n), ...fresh].sort((a, b) => a.cue - b.cue));
  }

  private attemptOf(cue: Cue, { length }: Spot, phrase: Phrase, verdict: 'clean' | 'messy'): Attempt {
    return {
      id: freshUuid(),
      phrase: phrase.id,
      at: now(),
      bpm: cue.tempo,
      goal: phrase.goal,
      loops: 1,
      seconds: Math.round(100 * secondsOf(length, quarterTempo(cue.tempo, cueMeter(cue)))) / 100,
      verdict,
    };
  }

  /** A take of the phrase as it is written: hits behind the bar line on which it counts by itself. */
  private takeOf(
    { id, at, bpm }: Attempt,
    cue: Cue,
    { spot, phrase, played }: Standing,
    hits: readonly Hit[],
  ): KeptTake | null {
    const { way, pattern } = played;
    if (way.kind !== 'as written' && way.kind !== 'moved') return null;
    const by = secondsOf(pattern.start - spot.from, quarterTempo(bpm, cueMeter(cue)));
    return {
      id,
      phrase: phrase.id,
      at,
      bpm,
      stage: null,
      hits: hits.map((h) => ({ ...h, seconds: h.seconds + by })),
      meant: {
        recipe: phrase.recipe,
        stage: null,
        groove: null,
        kit: this.kits.current(),
        dynamic: 'medium',
        click: this.habits.now().click,
        gap: null,
      },
    };
  }

  private wayOf(spot: Spot, cue: Cue, phrase: Phrase, pattern: Pattern): FitWay | null {
    const fit = fitOf(spot, cue, { facts: factsOf(pattern), family: phrase.family }, null);
    return fit.fits ? fit.way : null;
  }

  private step(event: RunEvent): void {
    this.state.update((run) => runStep(run, event, this.cues().length));
  }

  private unwait(): void {
    if (this.waits !== null) clearTimeout(this.waits);
    this.waits = null;
  }
}

/** Whether all of the phrase was played. */
const isWhole = ({ kind }: FitWay): boolean => kind !== 'its end';
