import { computed, effect, inject, Injectable, resource, signal, untracked } from '@angular/core';
import { Subscription } from 'rxjs';
import { mod } from '@core/base';
import type { Pattern } from '@core/pattern';
import type { Program } from '@core/playback';
import { rendition, requestOf, type Rendition } from '@core/rendition';
import { SITTING_LIMITS, type FreeSitting, type KeptCall, type SittingKind } from '@core/shelf';
import {
  barTicks,
  beatTicks,
  GRID,
  meter,
  meterText,
  parseMeter,
  quarterTempo,
  secondsOf,
  type Meter,
} from '@core/time';
import { openBars, type Played } from '@core/usage';
import { now } from '../../environment/clock';
import { freshUuid } from '../../environment/ids';
import { HitSources } from '../../hits/sources.service';
import type { SourceKind } from '../../hits/source';
import { NoticesService } from '../../common/notices.service';
import { ShelfIndex } from '../../knowledge/shelf-index.service';
import { Player } from '../../playing/player';
import { Transport } from '../../sound/transport.service';
import { KitsRepo } from '../../storage/kits.repo';
import { RoomRepo } from '../../storage/room.repo';
import { SettingsRepo } from '../../storage/settings.repo';
import { SittingsRepo } from '../../storage/sittings.repo';
import { CLICK, NOTHING, PlayChoices, type PlayMode } from './choices';
import { FreeEar } from './free.ear';

const FOUR = meter(4, 4);
/** By this name what sounds here is known among what sounds. */
export const PLAY = 'play';
/** Bars of click that come round, where no groove sounds. */
const CLICK_BARS = 4;
/** What is played is kept every so many milliseconds, so that a page that goes takes little along. */
const KEPT_EVERY = 30_000;
/** So few hits are no sitting. */
const LEAST_HITS = 8;
/** A sitting is no longer than this, in seconds. */
const LONGEST = SITTING_LIMITS.seconds;

export type PlayPhase = 'ready' | 'starting' | 'count-in' | 'playing' | 'reading';

const KINDS: Readonly<Record<PlayMode, SittingKind>> = { free: 'free', calls: 'calls', trading: 'trading' };

/** What is played freely: what sounds under it, what is heard, and what is kept of it. Provided by the place. */
@Injectable()
export class PlayStore {
  readonly choices = inject(PlayChoices);
  readonly ear = inject(FreeEar);
  readonly transport = inject(Transport);
  private readonly player = inject(Player);
  private readonly sources = inject(HitSources);
  private readonly habits = inject(RoomRepo);
  private readonly kits = inject(KitsRepo);
  private readonly settings = inject(SettingsRepo);
  private readonly index = inject(ShelfIndex);
  private readonly sittings = inject(SittingsRepo);
  private readonly notices = inject(NoticesService);
  private readonly phaseState = signal<PlayPhase>('ready');
  readonly phase = this.phaseState.asReadonly();
  readonly busy = computed(() => this.phase() !== 'ready');
  readonly running = computed(() => ['starting', 'count-in', 'playing'].includes(this.phase()));
  /** The share of the sitting that is read. */
  readonly share = signal(0);
  /** The sitting that is looked at, by its id. */
  readonly shown = signal<string | null>(null);
  readonly all = this.sittings.all;
  readonly sitting = computed((): FreeSitting | null => this.all()?.find((s) => s.id === this.shown()) ?? null);
  readonly source = computed((): SourceKind | null => this.choices.standIn() ?? this.habits.now().source);
  readonly trouble = computed(() => {
    const kind = this.source();
    return kind === null ? null : this.sources.of(kind).trouble();
  });
  /** Every phrase by its name. */
  readonly names = resource({
    params: () => this.index.changed(),
    loader: () => this.index.names('all'),
  });
  private readonly nameById = computed(
    () => new Map((this.names.hasValue() ? this.names.value() : []).map((n) => [n.id, n.name])),
  );
  readonly grooves = computed(() =>
    (this.names.hasValue() ? this.names.value() : []).filter((n) => n.family === 'groove').slice(0, 200),
  );
  private readonly groove = signal<{ readonly id: string; readonly pattern: Pattern } | null>(null);
  readonly meter = computed((): Meter => this.groove()?.pattern.meter ?? parseMeter(this.choices.meter()) ?? FOUR);
  /** Whether a click or a groove sounds: then the tempo is known. */
  readonly sounds = computed(() => this.choices.over() !== NOTHING || this.choices.mode() !== 'free');
  /** What sounds, round and round; another mode puts its own in its place. */
  readonly other = signal<Pattern | null>(null);
  readonly pattern = computed(
    (): Pattern => this.other() ?? this.groove()?.pattern ?? openBars(this.meter(), GRID.sixteenths, CLICK_BARS),
  );
  private readonly meant = computed((): Rendition =>
    rendition({
      phrase: this.pattern(),
      kit: this.kits.current(),
      click: this.habits.now().click,
      schools: this.settings.schools(),
      countInBars: 1,
    }),
  );
  private began = 0;
  private draft = '';
  private zero: number | null = null;
  private ticking: ReturnType<typeof setInterval> | null = null;
  private keptAt = 0;
  private readonly ears = new Subscription();
  /** Calls that were made, for who keeps them. */
  calls: () => readonly KeptCall[] = () => [];
  /** Seconds since it began. */
  readonly seconds = signal(0);
  /** The bar that sounds, from 1; 0 in the count-in, and null in silence. */
  readonly bar = computed(() => {
    const position = this.tick();
    return position === null ? null : position < 0 ? 0 : Math.floor(position / barTicks(this.meter())) + 1;
  });
  readonly beat = computed(() => {
    const position = this.tick();
    const m = this.meter();
    return position === null ? null : Math.floor(mod(position, barTicks(m)) / beatTicks(m)) + 1;
  });
  /** Ticks from the first bar line, on and on. */
  readonly tick = computed(() => (this.player.owner() === PLAY ? this.transport.position() : null));

  constructor() {
    effect(() => {
      const over = this.choices.over();
      untracked(() => void this.fetchGroove(over));
    });
    this.ears.add(
      this.transport.began$.subscribe(() => {
        if (this.player.owner() !== PLAY || this.phase() !== 'count-in') return;
        this.begin(this.transport.pageTimeOf(0) ?? performance.now() / 1000);
      }),
    );
    this.ears.add(
      this.transport.slept$.subscribe(() => {
        if (this.running()) void this.stop();
      }),
    );
  }

  nameOf = (id: string): string => this.nameById().get(id) ?? 'a phrase that is gone';

  /** What was heard so far, as it is read. */
  played(): Played {
    return { hits: this.ear.heard(), meter: this.meter(), bpm: this.choices.bpm() };
  }

  /** Seconds of some ticks at the tempo. */
  secondsOf(ticks: number): number {
    return secondsOf(ticks, quarterTempo(this.choices.bpm(), this.meter()));
  }

  async start(): Promise<void> {
    if (this.phase() !== 'ready') return;
    this.phaseState.set('starting');
    this.shown.set(null);
    this.draft = freshUuid();
    this.zero = null;
    const kind = this.source();
    const hears = kind === null ? false : await this.ear.listen(this.sources.of(kind));
    // Calls can be judged by ear; without hits there is nothing to be read of free play and trading.
    if (this.phaseState() !== 'starting') return this.ear.stop();
    if (!hears && this.choices.mode() !== 'calls') {
      this.ear.stop();
      this.phaseState.set('ready');
      if (kind === null) this.notices.wrong('Choose what listens first: a pad, the microphone or the computer keys.');
      return;
    }
    this.began = now();
    this.seconds.set(0);
    if (this.sounds()) {
      this.phaseState.set('count-in');
      this.player.play(PLAY, requestOf(this.meant(), this.choices.bpm()));
    } else this.begin(performance.now() / 1000);
  }

  /** Another pattern sounds from the next beat on, with what is added to its program. */
  change(pattern: Pattern | null, add: (program: Program) => Program = (p) => p): void {
    this.other.set(pattern);
    const request = requestOf(this.meant(), this.choices.bpm());
    this.player.follow(PLAY, { ...request, program: add(request.program) });
  }

  /** Ends it, and reads what was played. */
  async stop(): Promise<void> {
    if (!this.running()) return;
    const heard = this.ended();
    if (heard.length < LEAST_HITS && this.calls().length === 0) {
      this.phaseState.set('ready');
      if (this.draft !== '') void this.sittings.drop(this.draft);
      this.notices.tell(
        heard.length === 0 ? 'Nothing was heard, so nothing is kept.' : 'Too little was heard to be kept.',
      );
      return;
    }
    this.phaseState.set('reading');
    this.share.set(0);
    const row = this.row(heard);
    await this.sittings.keep(row);
    if (heard.length >= LEAST_HITS) await this.readAgain(row, this.sounds() ? row.bpm : null);
    this.phaseState.set('ready');
    this.shown.set(row.id);
  }

  /** Reads a sitting against the shelf as it is now; without a tempo it is found. Resolves to whether it was read. */
  async readAgain(row: FreeSitting, bpm: number | null): Promise<boolean> {
    const counted = parseMeter(row.meter) ?? FOUR;
    const read = await this.index.readSitting(
      { hits: row.hits, meter: counted, bpm, isPart: row.kind === 'record' },
      (share) => this.share.set(share),
    );
    if (!read) {
      this.notices.tell('It is kept, and not read yet.');
      return false;
    }
    const done = await this.sittings.change(row.id, (was) => ({
      ...was,
      hits: read.hits.slice(0, SITTING_LIMITS.hits).filter((h) => h.seconds < 1e6),
      bpm: read.bpm,
      found: row.found || read.found,
      against: read.against,
      came: [...read.came].slice(0, SITTING_LIMITS.came),
      figures: [...read.figures].slice(0, SITTING_LIMITS.figures),
    }));
    return done !== null;
  }

  /** Looks at a sitting, and reads it where that was not done yet. */
  async open(id: string): Promise<void> {
    const row = await this.sittings.of(id);
    if (!row || this.busy()) return;
    if (row.against === 0 && row.hits.length >= LEAST_HITS) {
      this.phaseState.set('reading');
      this.share.set(0);
      await this.readAgain(row, row.bpm);
      this.phaseState.set('ready');
    }
    this.shown.set(id);
  }

  cancelReading(): void {
    void this.index.stopReading();
  }

  async drop(id: string): Promise<void> {
    const undo = await this.sittings.drop(id);
    if (this.shown() === id) this.shown.set(null);
    if (undo) this.notices.tell('The sitting is deleted.', { label: 'Undo', run: () => void undo() });
  }

  listenTo(kind: SourceKind): void {
    this.ear.stop();
    this.choices.standIn.set(kind === 'simulated' ? kind : null);
    if (kind !== 'simulated') void this.habits.change({ source: kind });
  }

  /** What was played stays: it is kept unread where the place is left. */
  destroy(): void {
    if (this.running()) {
      const heard = this.ended();
      if (heard.length >= LEAST_HITS || this.calls().length > 0) void this.sittings.keep(this.row(heard));
      this.phaseState.set('ready');
    }
    this.ears.unsubscribe();
  }

  private begin(zero: number): void {
    this.zero = zero;
    this.ear.begin(zero);
    this.keptAt = performance.now();
    this.phaseState.set('playing');
    this.ticking = setInterval(() => this.look(), 500);
  }

  private look(): void {
    const { zero } = this;
    if (zero === null) return;
    this.seconds.set(Math.floor(performance.now() / 1000 - zero));
    if (this.seconds() > LONGEST) return void this.stop();
    if (performance.now() - this.keptAt < KEPT_EVERY) return;
    this.keptAt = performance.now();
    const heard = this.ear.heard();
    if (heard.length >= LEAST_HITS) void this.sittings.keep(this.row(heard));
  }

  private ended(): ReturnType<FreeEar['heard']> {
    if (this.ticking !== null) clearInterval(this.ticking);
    this.ticking = null;
    this.player.stop(PLAY);
    this.ear.stop();
    const heard = this.zero === null ? [] : this.ear.heard();
    this.other.set(null);
    return heard;
  }

  private row(heard: ReturnType<FreeEar['heard']>): FreeSitting {
    const { zero } = this;
    const seconds = zero === null ? 0 : Math.max(0, performance.now() / 1000 - zero);
    return {
      id: this.draft,
      kind: KINDS[this.choices.mode()],
      at: this.began,
      seconds: Math.min(LONGEST, Math.round(seconds * 10) / 10),
      meter: meterText(this.meter()),
      bpm: this.choices.bpm(),
      found: false,
      source: this.source() ?? 'ear',
      groove: this.groove()?.id ?? null,
      against: 0,
      hits: heard.map((h) => ({ ...h })),
      heard: heard.length,
      came: [],
      figures: [],
      calls: [...this.calls()].slice(0, SITTING_LIMITS.calls),
      changed: now(),
    };
  }

  private async fetchGroove(over: string): Promise<void> {
    if (over === CLICK || over === NOTHING) return this.groove.set(null);
    const [drawn] = await this.index.patternsOf([over]);
    if (this.choices.over() === over) this.groove.set(drawn ? { id: over, pattern: drawn.pattern } : null);
  }
}
