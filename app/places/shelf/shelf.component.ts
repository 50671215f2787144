import { CdkDrag, CdkDropList, type CdkDragDrop } from '@angular/cdk/drag-drop';
import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  input,
  signal,
  untracked,
  viewChild,
  type OnDestroy,
} from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { Router } from '@angular/router';
import { Menu } from 'primeng/menu';
import { map, of, switchMap } from 'rxjs';
import { loopTicks, patternOfText } from '@core/pattern';
import type { Family, GoalDay, Phrase } from '@core/recipe';
import { rendition, requestOf } from '@core/rendition';
import { parseStrokeText } from '@core/stroke';
import { GRID, meter } from '@core/time';
import { Transport } from '../../sound/transport.service';
import type { ShelfRow } from '../../knowledge/index/entry';
import { KitsRepo } from '../../storage/kits.repo';
import { patternOf } from '../../knowledge/patterns';
import { PhrasesRepo } from '../../storage/phrases.repo';
import type { Board } from '@core/shelf';
import { momentWords } from '../../common/moment-words';
import { UnkeptRepo } from '../../storage/unkept.repo';
import { openShelf } from '../../environment/which-shelf';
import { BringInComponent } from '../../exchange/bring-in.component';
import { MakeLesson } from '../../exchange/make-lesson';
import { DropFileDirective } from '../../exchange/drop-file.directive';
import { PagesComponent } from '../../exchange/pages/pages.component';
import { TakeAlongComponent } from '../../exchange/take-along.component';
import { Player } from '../../playing/player';
import { KeysService } from '../../common/keys.service';
import { followWidth } from '../../common/follow-size';
import { inTurns } from '../../common/in-turns';
import { GuideLinkComponent } from '../../guide/guide-link.component';
import { RibbonComponent } from '../../drawings/ribbon/ribbon.component';
import { AskBoxComponent } from './ask-box.component';
import { BoardTabsComponent } from './board-tabs.component';
import { ChosenBarComponent } from './chosen-bar.component';
import { KinDialogComponent } from './kin-dialog.component';
import { RemovedDialogComponent } from './removed-dialog.component';
import { shelfKeys } from './shelf-keys';
import { ShelfActs } from './shelf.acts';
import { ShelfStore, type Line } from './shelf.store';
import { ShelfMapComponent } from './map/shelf-map.component';
import { ShelfTableComponent } from './shelf-table.component';
import { StripComponent } from './strip.component';
import { UnkeptLineComponent } from './unkept-line.component';
import { ExportLineComponent } from './export-line.component';
import { GoalDialogComponent, type Wanted } from './goal-dialog.component';
import { WordDialogComponent, type Wording } from './word-dialog.component';
import { TermComponent } from '../../guide/term.component';

const TITLES: Readonly<Record<Family, string>> = {
  fill: 'Fills',
  lick: 'Licks',
  groove: 'Grooves',
  'warm-up': 'Warm-ups',
};
/** What else can be done with a strip. */
type StripAct = 'duplicate' | 'along' | 'pages' | 'goal' | 'kin' | 'tag' | 'board' | 'off-board' | 'remove';

/** Up to this width of the place, in px, a strip stands on three lines (strip.component.css). */
const NARROW = 828;

/** So many strips are drawn first, the others in a task after them. */
const FIRST_DRAWN = 4;

/**
 * The Shelf: every phrase as a strip with its ribbon at true relative length, how far it has come, boards in the
 * player's own order, and one box that understands words.
 */
@Component({
  selector: 'ls-shelf',
  imports: [
    TermComponent,
    GuideLinkComponent,
    AskBoxComponent,
    BoardTabsComponent,
    ExportLineComponent,
    BringInComponent,
    CdkDrag,
    CdkDropList,
    CdkFixedSizeVirtualScroll,
    CdkVirtualForOf,
    CdkVirtualScrollViewport,
    ChosenBarComponent,
    DropFileDirective,
    GoalDialogComponent,
    KinDialogComponent,
    Menu,
    PagesComponent,
    RemovedDialogComponent,
    RibbonComponent,
    ShelfMapComponent,
    ShelfTableComponent,
    StripComponent,
    TakeAlongComponent,
    UnkeptLineComponent,
    WordDialogComponent,
  ],
  providers: [ShelfStore, ShelfActs],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './shelf.component.html',
  styleUrl: './shelf.component.css',
})
export class ShelfComponent implements OnDestroy {
  /** Route: a question, as it was asked elsewhere. */
  readonly ask = input<string>();
  /** Route: how the phrases are to be shown. */
  readonly view = input<string>();
  readonly shelf = inject(ShelfStore);
  readonly acts = inject(ShelfActs);
  private readonly router = inject(Router);
  private readonly lessons = inject(MakeLesson);
  private readonly kits = inject(KitsRepo);
  private readonly phrases = inject(PhrasesRepo);
  private readonly player = inject(Player);
  readonly transport = inject(Transport);
  private readonly viewport = viewChild(CdkVirtualScrollViewport);
  readonly box = viewChild(AskBoxComponent);
  readonly pointedAt = signal<ShelfRow | null>(null);
  readonly chosen = signal<ReadonlySet<string>>(new Set());
  /** How the phrases are shown. */
  readonly shown = signal<'strips' | 'table' | 'map'>('strips');
  readonly asTable = computed(() => this.shown() === 'table');
  readonly asMap = computed(() => this.shown() === 'map');
  readonly kinOf = signal<ShelfRow | null>(null);
  readonly showsRemoved = signal(false);
  readonly wording = signal<Wording | null>(null);
  /** Whose goals are set. */
  readonly wanting = signal<Wanted | null>(null);
  /** What is brought in from a file; with one that was dropped here. */
  readonly bringing = signal<{ readonly file: File | null } | null>(null);
  readonly takingAlong = signal<Phrase | null>(null);
  /** Phrases whose pages for the music stand are shown. */
  readonly printing = signal<readonly string[] | null>(null);
  readonly removed = toSignal(this.phrases.removed$, { initialValue: [] });
  private readonly unkept = toSignal(inject(UnkeptRepo).all$, { initialValue: [] });
  /** Unkept work that has no strip to stand on. */
  readonly unkeptNew = computed(() => this.unkept().filter((u) => !u.stands));
  /** When changes of phrases were left unkept, by their phrases: the newest of each. */
  readonly unkeptOf = computed(
    () => new Map([...this.unkept()].reverse().flatMap((u) => (u.stands ? [[u.phrase, momentWords(u.at)]] : []))),
  );
  readonly example = exampleFill();
  private readonly width = followWidth(inject<ElementRef<HTMLElement>>(ElementRef).nativeElement);
  readonly narrow = computed(() => this.width() <= NARROW);
  readonly rowHeight = computed(() => (this.narrow() ? 132 : 68));
  /** The head of the place stands there first, then the empty list, while the first answer is awaited. */
  readonly framed = inTurns(1, () => this.shelf.many() !== null);
  private readonly turn = inTurns(1, () => this.framed() > 0 && this.shelf.answered());
  /** Whether the first line is the head of a family. */
  readonly headed = computed(() => (this.shelf.lines()[0] ?? 0) < 0);
  private lastChosen: string | null = null;
  private readonly menuFor = signal<ShelfRow | null>(null);
  readonly menuItems = computed(() => {
    const row = this.menuFor();
    const item = (label: string, what: StripAct) => ({ label, command: () => row && this.act(row, what) });
    return [
      item('Duplicate', 'duplicate'),
      item('Goal and date …', 'goal'),
      item('Put on a board …', 'board'),
      ...(this.shelf.ownOrder() ? [item('Remove from board', 'off-board')] : []),
      item('Tag …', 'tag'),
      item('Related phrases', 'kin'),
      item('Share or export …', 'along'),
      item('Print …', 'pages'),
      item('Take off the shelf', 'remove'),
    ];
  });

  constructor() {
    inject(KeysService).use(shelfKeys(this));
    const range = toSignal(
      toObservable(this.viewport).pipe(
        switchMap((v) => (v ? v.renderedRangeStream.pipe(map(({ start, end }) => [start, end] as const)) : of(null))),
      ),
      { initialValue: null },
    );
    effect(() => {
      const shown = range();
      this.shelf.lines();
      if (shown) this.shelf.look(shown[0], Math.max(shown[1], 24));
    });
    effect(() => {
      if (this.view() === 'map') untracked(() => this.shown.set('map'));
    });
    effect(() => {
      const asked = this.ask();
      if (asked !== undefined) untracked(() => this.shelf.words.set(asked));
    });
    // Another board or another order begins at its top.
    effect(() => {
      this.shelf.boardId();
      this.viewport()?.scrollToIndex(0);
    });
  }

  ngOnDestroy(): void {
    this.player.stop();
  }

  /** A line stays where it is on the page and shows another phrase: another answer builds nothing anew. */
  trackPlace(place: number): number {
    return place;
  }

  /** The phrase of a line, as soon as it is its turn; null while it is awaited. */
  drawnRow(line: Line, at: number): ShelfRow | null {
    return at < FIRST_DRAWN || this.turn() > 0 ? this.shelf.row(line) : null;
  }

  /** Shows the phrases in another way; again as strips. */
  show(how: 'table' | 'map'): void {
    this.shown.update((now) => (now === how ? 'strips' : how));
  }

  titleOf(family: Family): string {
    return TITLES[family];
  }

  bringIn(): void {
    this.bringing.set({ file: null });
  }

  create(): Promise<boolean> {
    return this.router.navigate(['/bench'], { queryParams: { fresh: 1 } });
  }

  open(row: ShelfRow): Promise<boolean> {
    return this.router.navigate(['/bench', row.id], { queryParams: { kept: 1 } });
  }

  async hear(row: ShelfRow): Promise<void> {
    if (this.isHeard(row)) return this.player.stop();
    const phrase = await this.phrases.get(row.id);
    if (!phrase) return;
    const played = rendition({ phrase: patternOf(phrase), kit: this.kits.current() });
    this.player.play(ownerOf(row), requestOf(played, phrase.tempo));
  }

  isHeard(row: ShelfRow): boolean {
    return this.player.owner() === ownerOf(row);
  }

  loopOf(row: ShelfRow): number {
    const pattern = this.shelf.patternOf(row);
    return pattern && this.isHeard(row) ? loopTicks(pattern) : 0;
  }

  stop(): void {
    this.player.stop();
  }

  /** The phrase is chosen or let go; with `upTo`, with all from the one that was chosen last. */
  choose(row: ShelfRow, upTo: boolean): void {
    const next = new Set(this.chosen());
    const rows = this.shelf.lines().flatMap((l) => this.shelf.row(l) ?? []);
    const [a, b] = [rows.findIndex((r) => r.id === this.lastChosen), rows.findIndex((r) => r.id === row.id)];
    if (upTo && a >= 0 && b >= 0) for (const r of rows.slice(Math.min(a, b), Math.max(a, b) + 1)) next.add(r.id);
    else if (next.has(row.id)) next.delete(row.id);
    else next.add(row.id);
    this.lastChosen = row.id;
    this.chosen.set(next);
  }

  async chooseAll(): Promise<void> {
    this.chosen.set(new Set(await this.shelf.idsFound()));
  }

  letGo(): void {
    this.chosen.set(new Set());
  }

  /** Opens the one menu of the strips for a phrase. */
  menuOf(row: ShelfRow, event: Event, menu: Menu): void {
    this.menuFor.set(row);
    menu.toggle(event);
  }

  act(row: ShelfRow, what: StripAct): void {
    switch (what) {
      case 'duplicate':
        return void this.acts.duplicate(row.id);
      case 'along':
        return void this.phrases.get(row.id).then((phrase) => this.takingAlong.set(phrase));
      case 'pages':
        return this.printing.set([row.id]);
      case 'kin':
        return this.kinOf.set(row);
      case 'tag':
        return this.wording.set({ kind: 'tag', ids: [row.id] });
      case 'goal':
        return this.wanting.set({ ids: [row.id], goal: row.own.goal, by: row.own.by });
      case 'board':
        return this.wording.set({ kind: 'board', ids: [row.id] });
      case 'off-board':
        return void this.acts.offBoard(this.shelf.boardId() ?? '', [row.id]);
      case 'remove':
        return void this.acts.remove([row.id], row.name);
    }
  }

  /** Moves a phrase on its board among those that are shown. */
  async moveOnBoard(row: ShelfRow, by: 1 | -1): Promise<void> {
    const board = this.shelf.board();
    if (!board || board.question !== null) return;
    const ids = board.phrases;
    const at = ids.indexOf(row.id);
    const before = by < 0 ? ids[at - 1] : ids[at + 2];
    if (at + by >= 0 && at + by < ids.length) await this.acts.moveOnBoard(board.id, row.id, before ?? null);
  }

  async dropped(event: CdkDragDrop<unknown, unknown, ShelfRow>): Promise<void> {
    const board = this.shelf.board();
    const row = event.item.data;
    const lines = this.shelf.lines();
    // The package counts rows in that are no longer in sight: only by how many it moved is to be relied on.
    const from = lines.findIndex((l) => this.shelf.row(l)?.id === row.id);
    const to = from + event.currentIndex - event.previousIndex;
    const before = this.shelf.row(lines[to > from ? to + 1 : to] ?? -1);
    if (board && board.question === null && from >= 0 && to !== from)
      await this.acts.moveOnBoard(board.id, row.id, before?.id ?? null);
  }

  want(by: GoalDay | null, goal: number | null): void {
    const asked = this.wanting();
    this.wanting.set(null);
    if (asked) void this.acts.want(asked.ids, by, goal);
  }

  async worded(words: string, board: string | null): Promise<void> {
    const asked = this.wording();
    this.wording.set(null);
    if (!asked) return;
    if (asked.kind === 'tag') return this.acts.tag(asked.ids, words);
    if (asked.kind === 'lesson')
      return board === null ? this.lessons.make(words, asked.ids) : this.lessons.add(board, asked.ids);
    if (asked.kind === 'board' && board !== null) return this.acts.toBoard(board, asked.ids);
    if (asked.kind === 'rename') return this.acts.renameBoard(asked.board, words);
    const made = await this.acts.newBoard(words, asked.kind === 'question' ? asked.question : null, asked.ids);
    if (made !== null) this.shelf.boardId.set(made);
  }

  /** A lesson of what is on a board, in its order; of a kept question, of what it finds. */
  async teachBoard({ name, question, phrases }: Board): Promise<void> {
    void this.lessons.make(name, question === null ? phrases : await this.shelf.idsFound());
  }

  openDemo(): void {
    openShelf('demo');
  }
}

/** By this name a strip is known among what sounds. */
function ownerOf({ id }: ShelfRow): string {
  return `strip ${id}`;
}

/** What an empty shelf shows: one small fill, to see what a ribbon is. */
function exampleFill() {
  const read = parseStrokeText('R! l l R K R! l l R K R! l R L R! L');
  return patternOfText(read.ok ? read.value : [], meter(4, 4), GRID.sixteenths);
}
