import { DOCUMENT } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  OnDestroy,
  output,
  resource,
  signal,
} from '@angular/core';
import { Dialog } from 'primeng/dialog';
import { count } from '@core/base';
import { proposeStages, suggestLadder, type DrillPlan } from '@core/drill';
import { sharedOf, sharedText, type SharedPhrase } from '@core/formats/shared';
import type { WavForm } from '@core/formats/wav';
import type { ClickKind, CountKind } from '@core/playback';
import { build } from '@core/recipe';
import { loopTrack, MOST_TRACK_SECONDS, practiceTrack, rendition, trackSeconds } from '@core/rendition';
import { DrillsRepo } from '../storage/drills.repo';
import { KitsRepo } from '../storage/kits.repo';
import { LoudnessRepo } from '../storage/loudness.repo';
import { SettingsRepo } from '../storage/settings.repo';
import { CLICK_CHOICES } from '../playing/click-words';
import { CountingComponent } from '../playing/counting.component';
import { NoticesService } from '../common/notices.service';
import { ChipsComponent } from '../widgets/chips.component';
import type { Choice } from '../widgets/choice';
import { DialogFocusDirective } from '../widgets/dialog-focus.directive';
import { NumberFieldComponent } from '../widgets/number-field.component';
import { fileName, saveBlob, saveText } from '../widgets/save-svg';
import { SelectComponent } from '../widgets/select.component';
import { TempoFieldComponent } from '../widgets/tempo-field.component';
import { Unfetched, UNFETCHED } from '../environment/workers';
import { ExchangeService, type Writing } from './exchange.service';
import { pictureCode } from './picture-code';
import { PictureCodeComponent } from './picture-code.component';

type Sound = 'loop' | 'drill';
const SOUNDS: readonly Choice<Sound>[] = [
  { value: 'loop', words: 'loop' },
  { value: 'drill', words: 'practice track' },
];
const RATES: readonly Choice<WavForm['rate']>[] = [
  { value: 44_100, words: '44.1 kHz' },
  { value: 48_000, words: '48 kHz' },
];
const BITS: readonly Choice<WavForm['bits']>[] = [
  { value: 16, words: '16 bit' },
  { value: 24, words: '24 bit' },
];

/** A phrase taken along: as a link, as a file others read, as sound, on paper. */
@Component({
  selector: 'ls-take-along',
  imports: [
    ChipsComponent,
    CountingComponent,
    Dialog,
    DialogFocusDirective,
    NumberFieldComponent,
    PictureCodeComponent,
    SelectComponent,
    TempoFieldComponent,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './take-along.component.html',
  styleUrl: './take-along.component.css',
})
export class TakeAlongComponent implements OnDestroy {
  readonly phrase = input.required<SharedPhrase>();
  /** Its id on the shelf: the drill that was set up for it is the practice track. Null where it is not kept. */
  readonly id = input<string | null>(null);
  readonly closed = output();
  /** The pages for the music stand are asked for. */
  readonly paper = output();
  private readonly exchange = inject(ExchangeService);
  private readonly kits = inject(KitsRepo);
  private readonly drills = inject(DrillsRepo);
  private readonly loudness = inject(LoudnessRepo);
  private readonly settings = inject(SettingsRepo);
  private readonly notices = inject(NoticesService);
  private readonly page = inject(DOCUMENT);
  readonly sounds = SOUNDS;
  readonly rates = RATES;
  readonly depths = BITS;
  readonly clicks = CLICK_CHOICES;
  readonly canShare = typeof navigator !== 'undefined' && 'share' in navigator;

  readonly pattern = computed(() => build(this.phrase().recipe).pattern);
  private readonly code = resource({
    params: () => sharedOf(this.phrase()),
    loader: ({ params }) => this.exchange.code(params),
  });
  readonly link = computed(() => {
    if (!this.code.hasValue()) return null;
    return new URL(`visit#p=${this.code.value()}`, this.page.baseURI).href;
  });
  /** The link could not be made: what makes it was not fetched. */
  readonly hasNoLink = computed(() => this.code.status() === 'error');
  readonly unfetched = UNFETCHED;
  readonly picture = computed(() => {
    const link = this.link();
    return link === null ? null : pictureCode(link);
  });
  private readonly score = resource({
    params: () => sharedOf(this.phrase()),
    loader: ({ params }) => this.exchange.score(params),
  });
  readonly rounded = computed(() => (this.score.hasValue() ? this.score.value().rounded : 0));

  readonly sound = signal<Sound>('loop');
  readonly rate = signal<WavForm['rate']>(44_100);
  readonly bits = signal<WavForm['bits']>(16);
  readonly click = signal<ClickKind>('beats');
  readonly turns = signal(8);
  readonly tempo = linkedSignal(() => this.phrase().tempo);
  readonly staged = signal(true);
  readonly countIn = signal(1);
  /** Who counts along, as on the Bench. */
  readonly counts = signal<CountKind | null>(null);
  private readonly setUp = resource({
    params: () => this.id() ?? undefined,
    loader: async ({ params }) => {
      const drill = await this.drills.of(params);
      const best = await this.drills.bestOf(params);
      return { plan: drill?.plan ?? null, lastClean: best.lastClean };
    },
  });
  /** Whether the practice track is the drill that was set up in the room. */
  readonly isOwnDrill = computed(() => this.setUp.hasValue() && this.setUp.value().plan !== null);
  private readonly plan = computed((): DrillPlan => {
    const { goal } = this.phrase();
    const known = this.setUp.hasValue() ? this.setUp.value() : { plan: null, lastClean: null };
    if (known.plan) return known.plan;
    const { start, step } = suggestLadder(goal, known.lastClean);
    const plan: DrillPlan = { start, step, goal, loops: 4 };
    const stages = proposeStages(this.pattern(), this.phrase().family).filter((s) => s.kind !== 'free');
    return this.staged() && stages.length > 0 ? { ...plan, stages: [...stages] } : plan;
  });
  readonly parts = computed(() => {
    const more = {
      kit: this.kits.current(),
      click: this.click(),
      countInBars: this.countIn(),
      counts: this.counts(),
      schools: this.settings.schools(),
      sung: this.settings.sung(),
    };
    if (this.sound() === 'loop')
      return loopTrack(rendition({ phrase: this.pattern(), ...more }), this.tempo(), this.turns());
    return practiceTrack(this.plan(), (stage, dynamic) =>
      rendition({ phrase: this.pattern(), stage: stage ?? null, dynamic, ...more }),
    );
  });
  readonly seconds = computed(() => trackSeconds(this.parts()));
  readonly tooLong = computed(() => this.seconds() > MOST_TRACK_SECONDS);
  readonly soundWords = computed(() => {
    const [seconds, { start, goal, stages }] = [this.seconds(), this.plan()];
    const size = (seconds * this.rate() * this.bits()) / 8 / 1_000_000;
    const length = `${lengthWords(seconds)}, ${size < 10 ? size.toFixed(1) : Math.round(size)} MB`;
    if (this.sound() === 'loop') return length;
    const ladder = `from ${start} to ${goal}, ${count(stages?.length ?? 1, 'stage')}, ${count(this.parts().length, 'rung')} in all`;
    return `${ladder} · ${length}`;
  });
  readonly writing = signal<(Writing & { readonly share: number }) | null>(null);
  readonly problem = signal<string | null>(null);

  ngOnDestroy(): void {
    this.writing()?.cancel();
    this.exchange.close();
  }

  async copy(): Promise<void> {
    const link = this.link();
    if (link === null) return;
    try {
      await navigator.clipboard.writeText(link);
      this.notices.tell('The link is copied. It holds the phrase only, nothing else of yours.');
    } catch {
      this.problem.set('The link was not copied: the browser refused. Select the text in the field and copy it.');
    }
  }

  async share(): Promise<void> {
    const link = this.link();
    if (link === null) return;
    // Leaving the platform's sheet is no failure.
    await navigator.share({ title: this.phrase().name, url: link }).catch(() => undefined);
  }

  async saveMidi(): Promise<void> {
    const bytes = await this.tried(() => this.exchange.midi(sharedOf(this.phrase())));
    if (bytes) saveBlob(new Blob([bytes], { type: 'audio/midi' }), fileName(this.phrase().name, 'mid'));
  }

  async saveScore(zipped: boolean): Promise<void> {
    const score = await this.tried(() => this.exchange.score(sharedOf(this.phrase())));
    if (!score) return;
    const { xml, mxl } = score;
    const name = this.phrase().name;
    if (!zipped) return saveText(xml, fileName(name, 'musicxml'), 'application/vnd.recordare.musicxml+xml');
    saveBlob(new Blob([mxl], { type: 'application/vnd.recordare.musicxml' }), fileName(name, 'mxl'));
  }

  /** What was asked for; null where it could not be made, which is said. */
  private async tried<T>(make: () => Promise<T>): Promise<T | null> {
    this.problem.set(null);
    try {
      return await make();
    } catch (error) {
      this.problem.set(
        error instanceof Unfetched ? UNFETCHED : 'The file could not be written. Nothing was changed. Try again.',
      );
      return null;
    }
  }

  linkAgain(): void {
    this.code.reload();
    this.score.reload();
  }

  saveText(): void {
    saveText(sharedText(this.phrase()), fileName(`${this.phrase().name} phrase`, 'json'), 'application/json');
  }

  async saveSound(): Promise<void> {
    this.problem.set(null);
    const form = { rate: this.rate(), bits: this.bits() };
    const wish = { parts: this.parts(), form, loudness: this.loudness.now() };
    const writing = this.exchange.sound(wish, (share) => this.writing.update((w) => w && { ...w, share }));
    this.writing.set({ ...writing, share: 0 });
    try {
      const file = await writing.done;
      const what = this.sound() === 'drill' ? 'practice' : `${this.tempo()}`;
      if (file) saveBlob(file, fileName(`${this.phrase().name} ${what}`, 'wav'));
    } catch (error) {
      this.problem.set(
        error instanceof Unfetched
          ? UNFETCHED
          : 'The sound could not be exported: it is too long for the browser. Choose fewer rungs or loops.',
      );
    } finally {
      this.writing.set(null);
    }
  }
}

function lengthWords(seconds: number): string {
  const whole = Math.round(seconds);
  const [h, m, s] = [Math.floor(whole / 3600), Math.floor(whole / 60) % 60, whole % 60];
  return h > 0 ? `${h} h ${m} min` : m > 0 ? `${m} min ${s} s` : `${s} s`;
}
