import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  linkedSignal,
  OnDestroy,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { Router } from '@angular/router';
import { Tooltip } from 'primeng/tooltip';
import { count } from '@core/base';
import { hitsOf } from '@core/compose';
import { lateWords } from '@core/take';
import { CLIP_LIMITS, layMoment, layTick, velocityOfLevel, type HeardKind, type HeardStroke } from '@core/listen';
import type { FreeSitting } from '@core/shelf';
import {
  barTicks,
  countAt,
  GRID,
  feelWords,
  gridName,
  keptTempo,
  meterText,
  quarterTempo,
  secondsOf,
} from '@core/time';
import { VOICE, VOICES, type Voice } from '@core/stroke';
import { now } from '../../environment/clock';
import { freshUuid } from '../../environment/ids';
import { SittingsRepo } from '../../storage/sittings.repo';
import { ClipsRepo } from '../../storage/clips.repo';
import { SettingsRepo } from '../../storage/settings.repo';
import { DropFileDirective } from '../../exchange/drop-file.directive';
import { KeepShared } from '../../exchange/keep-shared';
import { WantedService } from '../../knowledge/wanted.service';
import { NoticesService } from '../../common/notices.service';
import { KeysService } from '../../common/keys.service';
import { NumberFieldComponent } from '../../widgets/number-field.component';
import { inTurns } from '../../common/in-turns';
import { NO_MARKS, type RibbonMarks } from '../../drawings/ribbon/marks';
import { RibbonComponent } from '../../drawings/ribbon/ribbon.component';
import { SelectComponent } from '../../widgets/select.component';
import { demoSound, type DemoSound } from './demo-sounds';
import { listenKeys } from './listen-keys';
import { HearingStore, ROUNDS, SPEEDS } from './hearing.store';
import { ListenStore } from './listen.store';
import type { Check } from './listening.engine';
import { Recorder } from './recorder';
import { clockWords } from '../../common/moment-words';
import { RECORDING_LIMITS } from './sound-file';
import { WithheldComponent } from '../../widgets/withheld.component';
import { WaveComponent, type Sight } from './wave.component';
import { GuideLinkComponent } from '../../guide/guide-link.component';
import { TermComponent } from '../../guide/term.component';

const METERS = ['4/4', '3/4', '2/4', '5/4', '6/8', '7/8', '9/8', '12/8', '5/8', '11/8'].map((m) => ({
  value: m,
  words: m,
}));
const OF_KIND: Readonly<Record<HeardKind, (v: Voice) => boolean>> = {
  kick: (v) => VOICE[v].family === 'foot',
  drum: (v) => VOICE[v].family === 'skin' || VOICE[v].family === 'wood',
  cymbal: (v) => VOICE[v].family === 'metal',
};
const CHECK_WORDS: readonly { readonly how: Check; readonly words: string }[] = [
  { how: 'turn', words: 'in turn' },
  { how: 'together', words: 'together' },
  { how: 'ears', words: 'one per ear' },
];
const ROUND_WORDS = { lick: 'the lick', bar: 'one bar', beat: 'one beat', join: 'into the next beat' } as const;

/** From a recording to a phrase: find the lick, slow it down, lay the grid on it, beat by beat, hands, check. */
@Component({
  selector: 'ls-listen',
  imports: [
    TermComponent,
    WithheldComponent,
    GuideLinkComponent,
    DropFileDirective,
    NumberFieldComponent,
    RibbonComponent,
    SelectComponent,
    Tooltip,
    WaveComponent,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './listen.component.html',
  styleUrl: './listen.component.css',
})
export class ListenComponent implements OnDestroy {
  readonly store = inject(ListenStore);
  readonly hearing = inject(HearingStore);
  readonly record = this.store.record;
  private readonly shelf = inject(KeepShared);
  private readonly clips = inject(ClipsRepo);
  private readonly notices = inject(NoticesService);
  private readonly router = inject(Router);
  private readonly wanted = inject(WantedService);
  private readonly sittings = inject(SittingsRepo);
  readonly settings = inject(SettingsRepo);
  readonly recorder = new Recorder();
  private readonly picked = viewChild<ElementRef<HTMLInputElement>>('picked');
  readonly speeds = SPEEDS;
  readonly rounds = ROUNDS;
  readonly roundWords = ROUND_WORDS;
  readonly meters = METERS;
  readonly checks = CHECK_WORDS;
  readonly minutes = RECORDING_LIMITS.seconds / 60;
  readonly kinds = ['kick', 'drum', 'cymbal'] as const;
  readonly clock = clockWords;
  readonly name = signal('');
  readonly percent = computed(() => {
    const doing = this.record.doing();
    return doing.kind === 'analysing' ? Math.round(doing.share * 100) : null;
  });
  readonly refused = computed(() => {
    const doing = this.record.doing();
    return doing.kind === 'refused' ? doing.words : null;
  });
  /** The wave as a whole stands there first, then the one that is worked on. */
  readonly turn = inTurns(1, () => this.record.peaks() !== null);
  /** What was heard stands there first, then what it can be changed by. */
  readonly told = inTurns(1, () => this.record.analysis() !== null);
  readonly long = computed(() => this.record.buffer()?.duration ?? 0);
  readonly samples = computed(() => this.record.buffer()?.getChannelData(0) ?? null);
  /** What is in sight: the lick with a little before and behind, else all of it. */
  readonly sight = linkedSignal<Sight>(() => {
    const [span, long] = [this.store.span(), this.long()];
    if (!span || long === 0) return { from: 0, to: Math.max(1, long) };
    const room = Math.max(0.3, (span.to - span.from) * 0.12);
    return { from: Math.max(0, span.from - room), to: Math.min(long, span.to + room) };
  });
  readonly whole = computed((): Sight => ({ from: 0, to: Math.max(1, this.long()) }));
  readonly beatSight = computed((): Sight | null => {
    const s = this.store.stretch();
    if (!s) return null;
    const from = s.first * barTicks(s.lay.meter) + this.store.beat() * this.store.beatTicks();
    return { from: layMoment(s.lay, from), to: layMoment(s.lay, from + this.store.beatTicks()) };
  });
  readonly beatName = computed(() => {
    const s = this.store.stretch();
    if (!s) return '';
    const [bar, beat] = [barTicks(s.lay.meter), this.store.beatTicks()];
    const tick = this.store.beat() * beat;
    return `bar ${s.first + Math.floor(tick / bar) + 1}, beat ${Math.floor((tick % bar) / beat) + 1}`;
  });
  readonly barShown = computed(() => [
    Math.floor((this.store.beat() * this.store.beatTicks()) / barTicks(this.store.meter())),
  ]);
  readonly pointed = computed(() => {
    const s = this.store.stroke();
    return s ? [s.at] : [];
  });
  /** Where the record has each stroke, against its slot. */
  readonly offsets = computed((): RibbonMarks => {
    const [s, pattern] = [this.store.stretch(), this.store.pattern()];
    if (!s || !pattern) return NO_MARKS;
    const limbs = new Map(pattern.strokes.map((p) => [p.at, p.limb]));
    const begin = s.first * barTicks(s.lay.meter);
    const dots = this.store
      .strokes()
      .map((h) => ({ tick: layTick(s.lay, h.seconds) - begin, limb: limbs.get(h.at) ?? null, old: false }));
    return { ...NO_MARKS, dots };
  });
  readonly ways = computed(() =>
    (this.store.reading()?.ways ?? []).map((w) => ({
      words: `${gridName(w.grid)}${w.feel.kind === 'swung' ? `, ${feelWords(w.feel)}` : ''}${w.mixed > 0 ? `, ${count(w.mixed, 'beat')} on another` : ''}`,
      left: `${w.mean < 1 ? w.mean.toFixed(1) : Math.round(w.mean)} ms off on average, at most ${Math.round(w.worst)}`,
    })),
  );
  /** What it finds alike, in one sentence; empty where nothing comes again. */
  readonly offWords = lateWords;
  readonly alike = computed(() => {
    const [best] = [...(this.record.analysis()?.bars ?? [])].sort((a, b) => b.alike - a.alike);
    return best ? `Repeats best every ${best.beats} beats (${Math.round(best.alike * 100)}% alike).` : '';
  });
  readonly bpmWords = computed(() => {
    const bpm = this.store.bpm();
    return bpm === null ? '' : bpm.toFixed(1);
  });
  readonly beatChoices = computed(() =>
    (this.record.analysis()?.beats ?? []).slice(0, 4).map((b, i) => ({
      i,
      words: b.bpm.toFixed(1),
      tip: `${Math.round(b.struck * 100)} of 100 beats have a stroke`,
    })),
  );
  readonly strokeWords = computed(() => {
    const s = this.store.stroke();
    return s ? this.wordsOf(s) : '';
  });
  readonly beside = signal<readonly string[]>([]);
  readonly keepsClip = signal(true);
  /** What keeping the bars of the record takes, in bytes; null where they are too long for that. */
  readonly clipBytes = computed(() => {
    const span = this.store.span();
    const seconds = span ? span.to - span.from : 0;
    return seconds > 0 && seconds <= CLIP_LIMITS.seconds ? Math.ceil((seconds * CLIP_LIMITS.rate * 8) / 3) : null;
  });
  readonly clipWords = computed(() => `${((this.clipBytes() ?? 0) / 1_000_000).toFixed(1)} MB`);
  readonly clipMost = CLIP_LIMITS.seconds;

  constructor() {
    inject(KeysService).use(listenKeys(this));
    void this.store.resume();
    // What differs is worked out anew whenever the phrase changes.
    effect((onCleanup) => {
      const [stretch, pattern] = [this.store.stretch(), this.store.pattern()];
      let alive = true;
      onCleanup(() => (alive = false));
      untracked(() => {
        if (!stretch || !pattern) return this.beside.set([]);
        const gone = this.store
          .work()
          .said.filter((c) => c.gone)
          .map((c) => c.at);
        void this.record.api?.beside(stretch, pattern, this.settings.schools(), gone).then((b) => {
          if (alive) this.beside.set(b.words);
        });
      });
    });
  }

  ngOnDestroy(): void {
    this.record.player.stop();
    this.recorder.stop();
  }

  choose(): void {
    this.picked()?.nativeElement.click();
  }

  pick(files: FileList | null): void {
    const file = files?.[0];
    if (file) void this.open(file, file.name);
  }

  open(file: Blob, name: string): Promise<void> {
    this.name.set('');
    return this.store.open(file, name);
  }

  demo(which: DemoSound): Promise<void> {
    const { sound, name } = demoSound(which);
    return this.open(sound, name);
  }

  take(): void {
    if (this.recorder.recording()) return this.recorder.stop();
    void this.recorder.start((sound) => void this.open(sound, 'From the microphone'));
  }

  see({ from, to }: Sight): void {
    const long = this.long();
    const width = Math.min(long, to - from);
    const begin = Math.max(0, Math.min(long - width, from));
    this.sight.set({ from: begin, to: begin + width });
  }

  zoom(by: number): void {
    const { from, to } = this.sight();
    const middle = this.record.player.position() ?? this.beatSight()?.from ?? (from + to) / 2;
    const half = Math.max(0.01, ((to - from) * by) / 2);
    this.see({ from: middle - half, to: middle + half });
  }

  voicesOf(kind: HeardKind): readonly { value: Voice; words: string }[] {
    return VOICES.filter(OF_KIND[kind]).map((v) => ({ value: v, words: VOICE[v].name }));
  }

  wordsOf(s: HeardStroke): string {
    const counting = {
      meter: this.store.meter(),
      grid: this.store.pattern()?.grid ?? GRID.sixteenths,
      schools: this.settings.schools(),
    };
    const { text, bar } = countAt(s.at, counting);
    const first = this.store.stretch()?.first ?? 0;
    const what = s.kinds.map((k) => VOICE[this.store.work().pieces[k]].name).join(' with ');
    return `bar ${first + bar}, ${text}: ${what}${s.level === 'tap' ? '' : `, ${s.level}`}`;
  }

  /** Keeps the bars of the record with a phrase; what stands in the way is said, and the phrase is kept anyway. */
  private async keepClip(id: string): Promise<void> {
    const clip = await this.store.clip(id);
    if (!clip) return;
    const kept = await this.clips.keep(clip);
    if (kept === 'full')
      this.notices.wrong(
        `A shelf holds ${CLIP_LIMITS.clips} recordings with phrases, so this one was not kept. Delete one on the Bench first.`,
      );
  }

  meterText(): string {
    return meterText(this.store.meter());
  }

  /** A phrase is asked for on the Bench that has a hit where the lick has its accents. */
  askWithHits(): void {
    const pattern = this.store.pattern();
    const hits = pattern && hitsOf(pattern);
    if (!hits) {
      this.notices.tell('This lick lies on more than one subdivision. Choose another reading first.');
      return;
    }
    this.record.player.stop();
    void this.wanted.ask(hits);
  }

  /** Which phrases of the shelf are in these bars: they are kept as a sitting, and read in Play. */
  async whatCame(): Promise<void> {
    const [stretch, bpm, span] = [this.store.stretch(), this.store.bpm(), this.store.span()];
    if (!stretch || !bpm || !span) return;
    const { pieces } = this.store.work();
    const quarter = quarterTempo(bpm, this.store.meter());
    const hits = this.store.strokes().flatMap((s) =>
      s.kinds.map((kind) => ({
        seconds: Math.max(0, secondsOf(s.at, quarter) + s.off / 1000),
        limb: null,
        voice: pieces[kind],
        velocity: velocityOfLevel(s.level),
      })),
    );
    const sitting: FreeSitting = {
      id: freshUuid(),
      kind: 'record',
      at: now(),
      seconds: span.to - span.from,
      meter: meterText(this.store.meter()),
      bpm: keptTempo(bpm),
      found: false,
      source: 'record',
      groove: null,
      against: 0,
      hits,
      heard: hits.length,
      came: [],
      figures: [],
      calls: [],
      changed: now(),
    };
    this.record.player.stop();
    const { kept } = await this.sittings.keep(sitting);
    if (kept) void this.router.navigate(['/play'], { queryParams: { sitting: sitting.id } });
  }

  async toBench(onlyCell = false): Promise<void> {
    const phrase = await this.store.phrase(onlyCell);
    if (!phrase) return;
    const name = (this.name().trim() || this.store.work().from.trim() || `Heard in ${this.record.name()}`).slice(
      0,
      200,
    );
    this.record.player.stop();
    const id = await this.shelf.keep({ ...phrase, name, note: '' });
    if (id === null) return;
    if (this.keepsClip() && this.clipBytes() !== null) await this.keepClip(id);
    void this.router.navigate(['/bench', id], { queryParams: { kept: 1 } });
  }
}
