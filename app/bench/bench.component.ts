import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
  viewChild,
  type OnDestroy,
} from '@angular/core';
import { Router } from '@angular/router';
import { gridName, meterText } from '@core/time';
import { lengthWords } from '@core/pattern';
import { Transport } from '../audio/transport.service';
import { SettingsRepo } from '../data/settings.repo';
import { KeysService } from '../shell/keys.service';
import { NoticesService } from '../shell/notices.service';
import type { RibbonMarks } from '../ui/ribbon/marks';
import { NO_MARKS } from '../ui/ribbon/marks';
import { whenIdle } from '../ui/idle';
import { RibbonEditorComponent, type Gesture } from '../ui/ribbon/ribbon-editor.component';
import { StickingWorker } from '../workers/sticking.service';
import { StaffComponent } from '../ui/staff/staff.component';
import { benchKeys, type BenchActions } from './bench-keys';
import { BenchStore, type Label } from './bench.store';
import { ComparePanelComponent } from './compare-panel.component';
import { CompareStore } from './compare.store';
import { CursorStore } from './cursor.store';
import { FindingsComponent } from './findings.component';
import { KeepDialogComponent } from './keep-dialog.component';
import { LinesBarComponent } from './lines-bar.component';
import { LinesStore } from './lines.store';
import { PathsPanelComponent } from './paths-panel.component';
import { PickStore } from './pick.store';
import { PlayBarComponent } from './play-bar.component';
import { PrintSheetComponent } from './print-sheet.component';
import { RecipeColumnComponent } from './recipe-column.component';
import { ribbonKey } from './ribbon-keys';
import { SoundStore } from './sound.store';
import { SourcePickerComponent } from './source-picker.component';
import { StickingSheetComponent } from './sticking-sheet.component';
import { ReachStore } from './reach.store';
import { StrokeBarComponent } from './stroke-bar.component';
import { TrailStore } from './trail.store';
import { TypingStore } from './typing.store';
import { VariantsSheetComponent } from './variants-sheet.component';

/** From this share of the ceiling on the place that breaks first is marked on the ribbon. */
const NEAR_CEILING = 0.85;

/** What stands under the ribbon. */
export type Lower = 'staff' | 'paths' | 'compare';

/** The Bench: the recipe on the left, the ribbon in the middle, what follows from it on the right, sound below. */
@Component({
  selector: 'ls-bench',
  imports: [
    LinesBarComponent,
    RibbonEditorComponent,
    StrokeBarComponent,
    StaffComponent,
    ComparePanelComponent,
    PathsPanelComponent,
    StickingSheetComponent,
    PrintSheetComponent,
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
export class BenchComponent implements BenchActions, OnDestroy {
  /** Route: the phrase to work on; `fresh` asks for an empty Bench. */
  readonly phrase = input<string>();
  readonly fresh = input<string>();

  readonly store = inject(BenchStore);
  readonly trail = inject(TrailStore);
  readonly cursor = inject(CursorStore);
  private readonly typing = inject(TypingStore);
  readonly sound = inject(SoundStore);
  readonly lines = inject(LinesStore);
  readonly settings = inject(SettingsRepo);
  private readonly picks = inject(PickStore);
  private readonly reach = inject(ReachStore);
  private readonly compare = inject(CompareStore);
  private readonly transport = inject(Transport);
  private readonly sticker = inject(StickingWorker);
  private readonly router = inject(Router);
  private readonly notices = inject(NoticesService);
  private readonly editor = viewChild(RibbonEditorComponent);
  private readonly recipeColumn = viewChild(RecipeColumnComponent);

  readonly keeping = signal(false);
  readonly pickingSource = signal(false);
  /** The sheet that lies over the lower half of the middle. */
  readonly sheet = signal<'variants' | 'sticking' | null>(null);
  readonly printing = signal(false);
  readonly lower = signal<Lower | null>('staff');
  /** Whether a variant sounds in place of the phrase. */
  readonly hearingVariant = signal(false);
  readonly pointed = signal<readonly number[]>([]);
  readonly playing = this.transport.playing;
  readonly position = this.transport.position;
  readonly pattern = computed(() => this.trail.pattern());
  /** Whether what sounds is another phrase than the ribbon shows. */
  readonly elsewhere = computed(() => this.hearingVariant() || this.compare.heard() !== null);
  readonly facts = computed(() => {
    const pattern = this.pattern();
    return pattern ? `${lengthWords(pattern)} of ${meterText(pattern.meter)} · ${gridName(pattern.grid)}` : '';
  });
  readonly marks = computed((): RibbonMarks => {
    if (this.picks.pattern()) return { ...NO_MARKS, chosen: this.picks.chosen() };
    if (!this.trail.isFinished()) return NO_MARKS;
    // A pair is named by its strokes' numbers, which hold for what it was found in.
    const tight = this.store.settled() === this.store.build() ? this.reach.ceiling()?.pairs[0] : undefined;
    const shown = tight && this.store.tempo() > tight.bpm * NEAR_CEILING ? [{ from: tight.from, to: tight.to }] : [];
    return {
      ...this.cursor.marks(),
      tight: shown,
      changed: this.compare.open() ? this.compare.ticks() : this.trail.changed(),
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
      const request = this.sound.request();
      if (!untracked(this.playing) || untracked(this.hearingVariant)) return;
      if (request) this.transport.change(request);
      else this.transport.stop();
    });
    // By the time a sticking is asked for, the worker that finds it has started.
    const worked = computed(() => this.store.recipe() !== null);
    effect((callOff) => {
      if (worked()) callOff(whenIdle(() => this.sticker.warm()));
    });
    inject(KeysService).use(benchKeys(this));
  }

  ngOnDestroy(): void {
    this.transport.stop();
    this.store.openCard.set(null);
    // Whoever comes back finds the whole phrase, not a step on the way to it.
    this.cursor.leave();
    this.trail.finish();
  }

  togglePlay(): void {
    this.hearingVariant.set(false);
    this.sound.toggle();
  }

  /** The keyboard goes to the ribbon, with a cursor on it. */
  edit(): void {
    this.store.openCard.set(null);
    this.trail.finish();
    if (this.cursor.at() === null) this.cursor.put(0);
    this.editor()?.focus();
  }

  toWords(): void {
    this.recipeColumn()?.toWords();
  }

  /** A step back or on through the recipe, and how it sounds there. */
  walk(by: 1 | -1): void {
    if (by < 0) this.trail.back();
    else this.trail.on();
    this.hearingVariant.set(false);
    if (!this.playing()) this.sound.start();
  }

  gesture(g: Gesture): void {
    if (this.picks.pattern()) {
      if (g.kind === 'press') this.picks.toggle(g.at, g.limb);
      return;
    }
    this.trail.finish();
    switch (g.kind) {
      case 'press':
        return this.press(g);
      case 'range':
        return this.cursor.chooseRange(g.from, g.until);
      case 'height':
        return this.cursor.raise(g.stroke, g.level);
      case 'displace':
        this.cursor.hold(g.stroke);
        this.cursor.shadow(g.done ? 0 : g.by);
        if (g.done) this.cursor.displace(g.by);
        else this.store.endStep();
    }
  }

  /** A press puts the cursor there; with Shift it chooses from the cursor to there. */
  private press(g: Extract<Gesture, { kind: 'press' }>): void {
    const pattern = this.pattern();
    if (!pattern || g.at < 0) return;
    const at = g.at;
    const from = this.cursor.at();
    if (g.adds && from !== null) this.cursor.chooseRange(Math.min(from, at), Math.max(from, at) + pattern.grid);
    else this.cursor.put(Math.min(at, pattern.length));
    this.store.endStep();
  }

  key(event: KeyboardEvent): void {
    const pattern = this.pattern();
    if (!pattern || !this.trail.isFinished()) return;
    if (event.key === 'Escape') this.cursor.leave();
    else if (event.key === 'Enter') this.sound.fromCursor();
    else if (!ribbonKey(event, this.cursor, this.typing, pattern.grid)) return;
    event.preventDefault();
    event.stopPropagation();
  }

  toggleSheet(what: 'variants' | 'sticking'): void {
    if (this.store.recipe()) this.sheet.update((now) => (now === what ? null : what));
  }

  closeSheet(): void {
    this.sheet.set(null);
  }

  toggleLower(what: Lower): void {
    this.lower.update((now) => (now === what ? null : what));
  }

  layBeneath(): void {
    this.closeSheet();
    this.lower.set('compare');
  }

  hearOther(): void {
    if (this.lower() !== 'compare') this.lower.set('compare');
    this.compare.swap();
  }

  print(): void {
    if (this.store.recipe()) this.printing.update((on) => !on);
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
    // What was just kept is on the Bench already: cursor, sheet and sound stay.
    if (this.store.phrase()?.id !== id) this.tidy();
    if (await this.store.open(id)) return;
    this.notices.wrong('That phrase is not on this shelf any more. What you worked on last is still here.');
    await this.router.navigate(['/bench'], { replaceUrl: true });
  }

  private async clear(): Promise<void> {
    this.tidy();
    await this.store.clear();
    await this.router.navigate(['/bench'], { replaceUrl: true });
  }

  /** Nothing of what lay here before is left open. */
  private tidy(): void {
    this.pickingSource.set(false);
    this.closeSheet();
    this.cursor.leave();
    this.trail.finish();
  }

  nudge(by: number): void {
    this.store.setTempo(Math.max(20, Math.min(400, this.store.tempo() + by)));
  }
}
