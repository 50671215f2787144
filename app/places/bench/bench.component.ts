import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  ChangeDetectorRef,
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
import { Tooltip } from 'primeng/tooltip';
import type { SharedPhrase } from '@core/formats/shared';
import { shapeWords } from '@core/pattern';
import { build, familyOf } from '@core/recipe';
import { BringInComponent } from '../../exchange/bring-in.component';
import { DropFileDirective } from '../../exchange/drop-file.directive';
import { PagesComponent } from '../../exchange/pages/pages.component';
import { TakeAlongComponent } from '../../exchange/take-along.component';
import { WantedService } from '../../knowledge/wanted.service';
import { Player } from '../../playing/player';
import { PlayBarComponent } from '../../playing/play-bar.component';
import { KeysService } from '../../common/keys.service';
import { inTurns } from '../../common/in-turns';
import { FindingsComponent } from './answers/findings.component';
import { ReachStore } from './answers/reach.store';
import { BenchCommands } from './bench.commands';
import { benchKeys } from './bench-keys';
import { ElsewhereComponent } from './document/elsewhere.component';
import { KinLineComponent } from './document/kin-line.component';
import { KinStore } from './document/kin.store';
import { KeepDialogComponent } from './document/keep-dialog.component';
import { StatesDialogComponent } from './document/states-dialog.component';
import { UnkeptBarComponent } from './document/unkept-bar.component';
import { PreviewStore } from './document/preview.store';
import { TrailStore } from './document/trail.store';
import { ViewStore } from './document/view.store';
import { SwingComponent } from './swing.component';
import { RecipeColumnComponent } from './recipe/recipe-column.component';
import { SourcePickerComponent } from './recipe/source-picker.component';
import { HandStore } from './ribbon/hand.store';
import { RibbonPaneComponent } from './ribbon/ribbon-pane.component';
import { BENCH } from './ribbon/sound.store';
import { StrokeBarComponent } from './ribbon/stroke-bar.component';
import { ComposeSheetComponent } from './sheets/compose/compose-sheet.component';
import { LowerPaneComponent } from './sheets/lower-pane.component';
import { StickingSheetComponent } from './sheets/sticking-sheet.component';
import { VariantsSheetComponent } from './sheets/variants-sheet.component';
import { GuideLinkComponent } from '../../guide/guide-link.component';
import type { GuidePageId } from '../../guide/page-ids';
import { TermComponent } from '../../guide/term.component';
import { OrdersStore } from './recipe/orders.store';

/** The Bench: the recipe on the left, the ribbon in the middle, what follows from it on the right, sound below. */
@Component({
  selector: 'ls-bench',
  imports: [
    TermComponent,
    GuideLinkComponent,
    BringInComponent,
    DropFileDirective,
    SwingComponent,
    TakeAlongComponent,
    FindingsComponent,
    ElsewhereComponent,
    KinLineComponent,
    KeepDialogComponent,
    StatesDialogComponent,
    LowerPaneComponent,
    PlayBarComponent,
    PagesComponent,
    RecipeColumnComponent,
    RibbonPaneComponent,
    SourcePickerComponent,
    StickingSheetComponent,
    StrokeBarComponent,
    Tooltip,
    UnkeptBarComponent,
    ComposeSheetComponent,
    VariantsSheetComponent,
  ],
  providers: [ViewStore, BenchCommands, KinStore, OrdersStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './bench.component.html',
  styleUrl: './bench.component.css',
})
export class BenchComponent implements OnDestroy {
  /** Route: the phrase to work on; `fresh` asks for an empty Bench. */
  readonly phrase = input<string>();
  readonly fresh = input<string>();
  /** Asks for the phrase as the shelf has it, whatever unkept work on it lies here. */
  readonly kept = input<string>();
  /** Asks for unkept work, to go on with. */
  readonly work = input<string>();
  /** The keyboard goes to the box that takes words. */
  readonly say = input<string>();
  /** A phrase is to be asked for, with what another place wants of it. */
  readonly asks = input<string>();
  /** Another place has something new for the Bench. */
  readonly laid = input<string>();
  readonly commands = inject(BenchCommands);
  readonly view = inject(ViewStore);
  readonly reach = inject(ReachStore);
  private readonly trail = inject(TrailStore);
  private readonly preview = inject(PreviewStore);
  readonly hand = inject(HandStore);
  private readonly player = inject(Player);
  private readonly wanted = inject(WantedService);
  readonly store = this.commands.store;
  readonly sound = this.commands.sound;
  readonly keeping = this.commands.keeping;
  private readonly ribbon = viewChild(RibbonPaneComponent);
  private readonly recipeColumn = viewChild(RecipeColumnComponent);
  private readonly drawing = inject(ChangeDetectorRef);
  /** Where the keyboard goes as soon as a phrase lies here: it was asked for while that was on its way. */
  private readonly wants = signal<'words' | 'ribbon' | null>(null);
  private readonly opening = signal(0);
  /** Nothing lies here, and no phrase that was asked for is on its way. */
  readonly isEmpty = computed(() => this.store.ready() && this.opening() === 0);
  readonly pattern = computed(() => this.preview.pattern() ?? this.trail.pattern());
  /** The ribbon stands there first, then what acts on it, the recipe, the sums, what plays it, what lies below it. */
  readonly turn = inTurns(5, () => this.pattern() !== null);
  /** The ribbon is edited while it shows the finished phrase. */
  readonly edits = computed(() => this.trail.isFinished() && this.preview.pattern() === null);
  readonly tight = computed(() => (this.edits() ? this.reach.tight() : []));
  /** What lies here, as it leaves: kept or not. */
  readonly shared = computed((): SharedPhrase | null => {
    const recipe = this.store.recipe();
    if (!recipe) return null;
    const { name, family, goal, note } = this.store.phrase() ?? {
      name: this.store.suggestedName(),
      family: familyOf(this.trail.pattern() ?? build(recipe).pattern),
      goal: this.store.tempo(),
      note: '',
    };
    return { name, family, recipe, tempo: this.store.tempo(), goal, note };
  });
  /** The page of the guide that tells of what is done here. */
  readonly guidePage = computed((): GuidePageId =>
    this.view.sheet() === 'compose' ? 'asking' : this.pattern() ? 'ribbon-and-recipe' : 'first-fill',
  );
  readonly facts = computed(() => {
    const pattern = this.pattern();
    return pattern ? shapeWords(pattern) : '';
  });

  constructor() {
    effect(() => {
      const id = this.phrase();
      const fresh = this.fresh() !== undefined;
      const asKept = this.kept() !== undefined;
      const work = this.work();
      untracked(() => {
        if (work !== undefined) this.goOn(work);
        else if (id) this.open(id, asKept);
        else if (fresh) this.clear();
      });
    });
    effect(() => {
      if (this.laid() !== undefined) untracked(() => this.layDown());
    });
    effect(() => {
      if (this.asks() !== undefined) untracked(() => this.view.sheet.set('compose'));
    });
    effect(() => {
      if (this.say() !== undefined) this.wants.set('words');
    });
    effect(() => this.player.follow(BENCH, this.sound.request()));
    afterRenderEffect(() => {
      const wants = this.wants();
      const stands = this.pattern() !== null;
      if (wants === null || (!stands && !this.isEmpty())) return;
      this.wants.set(null);
      // A phrase that is not there is waited for no longer: the next one must not take the keyboard.
      if (stands) untracked(() => (wants === 'ribbon' ? this.toRibbon() : this.toBox()));
    });
    inject(KeysService).use(benchKeys(this));
  }

  ngOnDestroy(): void {
    this.player.stop();
    this.store.openCard.set(null);
    // Whoever comes back finds the whole phrase, not a step on the way to it.
    this.hand.leave();
  }

  /** The keyboard goes to the ribbon, with a cursor on it. */
  edit(): void {
    this.hand.begin();
    if (this.pattern()) this.toRibbon();
    else if (!this.isEmpty()) this.wants.set('ribbon');
  }

  /** The keyboard goes to the box that takes words. */
  toWords(): void {
    if (this.pattern()) this.toBox();
    else if (!this.isEmpty()) this.wants.set('words');
  }

  // What the keyboard goes to is drawn before the next key: that one is meant for it already.

  /** What was chosen to begin with lies here: the next key is for the Bench, no longer for what it was chosen from. */
  begin(): void {
    this.drawing.detectChanges();
  }

  private toRibbon(): void {
    if (!this.ribbon()) this.drawing.detectChanges();
    this.ribbon()?.focus();
  }

  private toBox(): void {
    if (!this.recipeColumn()) {
      this.turn.atOnce();
      this.drawing.detectChanges();
    }
    this.recipeColumn()?.toWords();
  }

  private open(id: string, asKept: boolean): void {
    // What was just kept is on the Bench already: cursor, sheet and sound stay.
    if (this.store.phrase()?.id !== id) this.tidy();
    this.awaitWork(this.keeping.open(id, asKept));
  }

  private layDown(): void {
    const laid = this.wanted.takeLaid();
    if (!laid) return;
    this.tidy();
    this.awaitWork(
      this.store.clear().then(() => {
        this.store.replace(laid.recipe);
        this.store.setTempo(laid.tempo);
      }),
    );
  }

  private goOn(id: string): void {
    this.tidy();
    this.awaitWork(this.keeping.goOn(id));
  }

  private awaitWork(coming: Promise<void>): void {
    this.opening.update((n) => n + 1);
    void coming.finally(() => this.opening.update((n) => n - 1));
  }

  private clear(): void {
    this.tidy();
    void this.keeping.clear();
  }

  /** Nothing of what lay here before is left open. */
  private tidy(): void {
    this.view.pickingSource.set(false);
    this.view.closeSheet();
    this.hand.leave();
  }
}
