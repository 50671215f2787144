import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked, type OnDestroy } from '@angular/core';
import { Router } from '@angular/router';
import { beatTicks, gridName, meterText, quarterTempo, type Counting } from '@core/time';
import { lengthWords, loopTicks } from '@core/pattern';
import { programOf, type ClickKind } from '@core/playback';
import { Transport } from '../audio/transport.service';
import { SettingsRepo } from '../data/settings.repo';
import { KeysService } from '../shell/keys.service';
import { NoticesService } from '../shell/notices.service';
import { RibbonComponent } from '../ui/ribbon/ribbon.component';
import { BenchStore, type Label } from './bench.store';
import { FindingsComponent } from './findings.component';
import { KeepDialogComponent } from './keep-dialog.component';
import { PlayBarComponent } from './play-bar.component';
import { RecipeColumnComponent } from './recipe-column.component';
import { SourcePickerComponent } from './source-picker.component';
import { VariantsSheetComponent } from './variants-sheet.component';

/** The Bench: the recipe on the left, the ribbon in the middle, what follows from it on the right, sound below. */
@Component({
  selector: 'ls-bench',
  imports: [
    RibbonComponent,
    RecipeColumnComponent,
    FindingsComponent,
    PlayBarComponent,
    SourcePickerComponent,
    KeepDialogComponent,
    VariantsSheetComponent,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './bench.component.html',
  styleUrl: './bench.component.css',
})
export class BenchComponent implements OnDestroy {
  /** Route: the phrase to work on; `fresh` asks for an empty Bench. */
  readonly phrase = input<string>();
  readonly fresh = input<string>();

  readonly store = inject(BenchStore);
  readonly settings = inject(SettingsRepo);
  private readonly transport = inject(Transport);
  private readonly router = inject(Router);
  private readonly notices = inject(NoticesService);

  readonly click = signal<ClickKind>('beats');
  readonly keeping = signal(false);
  readonly pickingSource = signal(false);
  readonly showsVariants = signal(false);
  /** What is shown over the ribbon beside the counts. */
  readonly sung = signal(false);
  readonly grooveOnly = signal(false);
  /** Whether a variant sounds in place of the phrase. */
  readonly hearingVariant = signal(false);
  readonly pace = signal<Counting['pace'] | null>(null);
  readonly pointed = signal<readonly number[]>([]);
  readonly playing = this.transport.playing;
  readonly position = this.transport.position;
  readonly pattern = computed(() => this.store.build()?.pattern ?? null);
  readonly loop = computed(() => {
    const pattern = this.pattern();
    return pattern ? loopTicks(pattern) : 0;
  });
  readonly facts = computed(() => {
    const pattern = this.pattern();
    return pattern ? `${lengthWords(pattern)} of ${meterText(pattern.meter)} · ${gridName(pattern.grid)}` : '';
  });
  private readonly request = computed(() => {
    const pattern = this.pattern();
    if (!pattern || pattern.strokes.length === 0) return null;
    const { meter } = pattern;
    return {
      program: programOf(pattern, { click: this.click(), countInBars: 0 }),
      bpm: quarterTempo(this.store.tempo(), meter),
      beat: beatTicks(meter),
    };
  });

  constructor() {
    effect(() => {
      const id = this.phrase();
      const fresh = this.fresh() !== undefined;
      untracked(() => {
        if (id) void this.open(id);
        else if (fresh) void this.clear();
      });
    });
    effect(() => {
      const request = this.request();
      if (!untracked(this.playing)) return;
      if (request) this.transport.change(request);
      else this.transport.stop();
    });
    inject(KeysService).use([
      { combo: 'Space', shown: 'Space', does: 'Play and stop', run: () => this.togglePlay() },
      { combo: '$mod+z', shown: 'Ctrl Z', does: 'Undo', run: () => this.store.undo() },
      { combo: '$mod+Shift+z', shown: 'Ctrl Shift Z', does: 'Redo', run: () => this.store.redo() },
      { combo: '$mod+y', shown: 'Ctrl Y', does: 'Redo', run: () => this.store.redo() },
      { combo: 'k', shown: 'K', does: 'Keep it', run: () => this.keep() },
      { combo: 'v', shown: 'V', does: 'Variants', run: () => this.toggleVariants() },
      { combo: 's', shown: 'S', does: 'Sung line', run: () => this.sung.update((on) => !on) },
      { combo: 'g', shown: 'G', does: 'Groove only: what fills between fades', run: () => this.grooveOnly.update((on) => !on) },
      { combo: 'h', shown: 'H', does: 'Count in half-time, double-time, as written', run: () => this.nextPace() },
      { combo: 'd', shown: 'D', does: 'Drill it', run: () => void this.drill() },
      { combo: 'ArrowUp', shown: '↑', does: 'One beat a minute faster', run: () => this.nudge(1) },
      { combo: 'ArrowDown', shown: '↓', does: 'One beat a minute slower', run: () => this.nudge(-1) },
      { combo: 'Shift+ArrowUp', shown: 'Shift ↑', does: 'Five faster', run: () => this.nudge(5) },
      { combo: 'Shift+ArrowDown', shown: 'Shift ↓', does: 'Five slower', run: () => this.nudge(-5) },
    ]);
  }

  ngOnDestroy(): void {
    this.transport.stop();
  }

  togglePlay(): void {
    this.hearingVariant.set(false);
    const request = this.request();
    if (this.playing()) this.transport.stop();
    else if (request) void this.transport.play(request);
  }

  toggleVariants(): void {
    if (this.store.recipe()) this.showsVariants.update((on) => !on);
  }

  nextPace(): void {
    this.pace.update((pace) => (pace === null ? 'half' : pace === 'half' ? 'double' : null));
  }

  paceWords(): string {
    const pace = this.pace();
    return pace === null ? 'Counts: as written' : pace === 'half' ? 'Counts: half-time' : 'Counts: double-time';
  }

  keep(): void {
    if (this.store.recipe()) this.keeping.set(true);
  }

  async keepAs(label: Label): Promise<void> {
    this.keeping.set(false);
    const phrase = await this.store.keep(label, Date.now());
    if (!phrase) return;
    this.notices.tell(`“${phrase.name}” is on the shelf.`);
    await this.router.navigate(['/bench', phrase.id], { replaceUrl: true });
  }

  async drill(): Promise<void> {
    const phrase = this.store.phrase();
    if (phrase && this.store.isKept()) await this.router.navigate(['/drill', phrase.id]);
    else if (this.store.recipe()) {
      this.notices.tell('Keep it first: a drill remembers how far you came with a phrase.');
      this.keeping.set(true);
    }
  }

  private async open(id: string): Promise<void> {
    this.pickingSource.set(false);
    if (await this.store.open(id)) return;
    this.notices.wrong('That phrase is not on this shelf any more. What you worked on last is still here.');
    await this.router.navigate(['/bench'], { replaceUrl: true });
  }

  private async clear(): Promise<void> {
    await this.store.clear();
    await this.router.navigate(['/bench'], { replaceUrl: true });
  }

  private nudge(by: number): void {
    this.store.setTempo(Math.max(20, Math.min(400, this.store.tempo() + by)));
  }
}
