import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  input,
  output,
  signal,
  untracked,
  type OnDestroy,
} from '@angular/core';
import { format } from 'date-fns';
import type { Attempt } from '@core/drill';
import type { PlayRequest } from '@core/playback';
import type { Rendition } from '@core/rendition';
import { findingWords, dotsOf, replayOf, type KeptTake, type Replay } from '@core/take';
import { Transport } from '../../sound/transport.service';
import { SettingsRepo } from '../../storage/settings.repo';
import { Player } from '../../playing/player';
import { ChipsComponent } from '../../widgets/chips.component';
import type { Choice } from '../../widgets/choice';
import { NO_MARKS, type RibbonMarks } from '../../drawings/ribbon/marks';
import { RibbonComponent } from '../../drawings/ribbon/ribbon.component';
import { SaveDrawingComponent } from '../../widgets/save-drawing.component';
import { fileName, saveCsv } from '../../widgets/save-svg';
import { hitsCsv } from './tries-words';

/** By this name a take is known among what sounds. */
const TAKE = 'take';

const HEARD: readonly Choice<Replay>[] = [
  { value: 'struck', words: 'what you played' },
  { value: 'both', words: 'both' },
  { value: 'meant', words: 'what was written' },
];

/**
 * One take, drawn on what was written: every hit a dot at its true time, heard alone or beside the phrase. It sounds as
 * soon as it is opened.
 */
@Component({
  selector: 'ls-take-view',
  imports: [ChipsComponent, RibbonComponent, SaveDrawingComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header>
      <h2>The take of {{ when() }}</h2>
      <span class="quiet">{{ take().bpm }} bpm · {{ take().hits.length }} hits</span>
      <span class="spacer"></span>
      <button type="button" class="btn small" (click)="toggle()">{{ sounds() ? 'Stop' : 'Hear it' }}</button>
      <ls-chips label="What you hear" [dense]="true" [chips]="heardChips" [chosen]="heard()" (chose)="hear($event)" />
      <button type="button" class="btn small plain" aria-label="Save the hits as CSV" (click)="saveHits()">CSV</button>
      <ls-save-drawing [of]="host" what="the drawing of the take" [name]="'take of ' + when()" />
      <button type="button" class="btn small" (click)="closed.emit()">Close</button>
    </header>
    @if (attempt()?.measured; as m) {
      <p class="fix">{{ m.finding ? words(m.finding) : 'Nothing to fix first.' }}</p>
    }
    @if (changed()) {
      <p class="quiet">
        @if (take().meant) {
          The phrase changed since. You see it as on that day.
        } @else {
          The phrase changed since. You see it as it is now.
        }
      </p>
    }
    <ls-ribbon
      [pattern]="meant().pattern"
      [schools]="settings.schools()"
      [position]="transport.position"
      [silent]="!sounds()"
      [loop]="loop()"
      [marks]="marks()"
    />
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      gap: 8px;
      padding: 14px 16px;
      border: 1px solid var(--line);
      border-radius: var(--radius);
      background: var(--surface);
    }
    header {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 8px 12px;
    }
    .fix {
      font-size: 16px;
      font-weight: 600;
    }
  `,
})
export class TakeViewComponent implements OnDestroy {
  readonly take = input.required<KeptTake>();
  /** What was meant: stage, groove and kit of that day. */
  readonly meant = input.required<Rendition>();
  readonly attempt = input<Attempt | null>(null);
  /** Whether the phrase was changed after the take. */
  readonly changed = input(false);
  readonly closed = output();
  readonly transport = inject(Transport);
  readonly settings = inject(SettingsRepo);
  readonly heardChips = HEARD;
  readonly words = findingWords;
  readonly heard = signal<Replay>('struck');
  private readonly player = inject(Player);
  /** Whether this take is what sounds. */
  readonly sounds = computed(() => this.player.owner() === TAKE);
  readonly when = computed(() => format(this.take().at, 'd MMM, HH:mm'));
  readonly loop = computed(() => this.meant().program.loop);
  readonly marks = computed((): RibbonMarks => ({
    ...NO_MARKS,
    dots: dotsOf(this.meant().pattern, this.take().bpm, this.take().hits).map(({ tick, limb }) => ({
      tick,
      limb,
      old: false,
    })),
  }));

  readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;

  constructor() {
    const { host } = this;
    effect(() => {
      this.take();
      untracked(() => this.play());
      host.scrollIntoView({ block: 'nearest' });
    });
  }

  ngOnDestroy(): void {
    this.player.stop(TAKE);
  }

  /** Every hit as a row, with units. */
  saveHits(): void {
    saveCsv(hitsCsv(this.take()), fileName(`take of ${this.when()} hits`, 'csv'));
  }

  toggle(): void {
    this.player.toggle(TAKE, this.request());
  }

  /** Another way of hearing it, without losing the beat. */
  hear(what: Replay): void {
    this.heard.set(what);
    this.player.follow(TAKE, this.request());
  }

  private play(): void {
    this.player.play(TAKE, this.request());
  }

  private request(): PlayRequest {
    return replayOf(this.meant(), this.take().bpm, this.take().hits, this.heard());
  }
}
