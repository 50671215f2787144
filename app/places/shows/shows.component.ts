import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, signal, viewChild } from '@angular/core';
import { CdkDrag, CdkDropList, type CdkDragDrop } from '@angular/cdk/drag-drop';
import { toSignal } from '@angular/core/rxjs-interop';
import { ActivatedRoute, Router, RouterLink } from '@angular/router';
import { map } from 'rxjs';
import { Menu } from 'primeng/menu';
import { readyWords } from '@core/show';
import { SHOW_LIMITS } from '@core/shelf';
import { isoDay, practiceDayOf } from '../../environment/clock';
import { DayService } from '../../environment/day.service';
import { KeysService } from '../../common/keys.service';
import { MakeLesson } from '../../exchange/make-lesson';
import { GuideLinkComponent } from '../../guide/guide-link.component';
import { NumberFieldComponent } from '../../widgets/number-field.component';
import { SelectComponent } from '../../widgets/select.component';
import { CueRowComponent } from './cue-row.component';
import { LinesBoxComponent } from './lines-box.component';
import { nightWords, showWords } from './nights';
import { ReadyChartComponent } from './ready-chart.component';
import { RunComponent } from './run.component';
import { ShowSheetComponent } from './show-sheet.component';
import { showsKeys } from './shows-keys';
import { ShowsStore } from './shows.store';
import { SpotPanelComponent } from './spot-panel.component';
import { StatesDialogComponent } from './states-dialog.component';

/** What lies over the place. */
type Over = 'paper' | 'states' | null;

/** The nights that are to come: what is played in them, how ready it is, and the run-through. */
@Component({
  selector: 'ls-shows',
  imports: [
    CdkDrag,
    CdkDropList,
    CueRowComponent,
    GuideLinkComponent,
    LinesBoxComponent,
    Menu,
    NumberFieldComponent,
    ReadyChartComponent,
    RouterLink,
    RunComponent,
    SelectComponent,
    ShowSheetComponent,
    SpotPanelComponent,
    StatesDialogComponent,
  ],
  providers: [ShowsStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './shows.component.html',
  styleUrl: './shows.component.css',
})
export class ShowsComponent {
  readonly store = inject(ShowsStore);
  private readonly clock = inject(DayService);
  private readonly lessons = inject(MakeLesson);
  private readonly table = viewChild<ElementRef<HTMLElement>>('table');
  private readonly router = inject(Router);
  readonly over = signal<Over>(null);
  /** Whether the show is run through: the address says so, and Back ends it. */
  readonly running = toSignal(inject(ActivatedRoute).queryParamMap.pipe(map((q) => q.has('run'))), {
    initialValue: false,
  });
  readonly limits = SHOW_LIMITS;
  readonly shows = computed(() =>
    (this.store.all() ?? []).map((s) => ({ value: s.id, words: showWords(s).slice(0, 90) })),
  );
  readonly when = computed(() => nightWords(this.store.show()?.day ?? null, this.clock.today()));
  readonly past = computed(() => (this.store.left() ?? 0) < 0);
  readonly date = computed(() => {
    const day = this.store.show()?.day ?? null;
    return day === null ? '' : isoDay(day);
  });
  /** How ready it is, in a sentence. */
  readonly ready = computed(() => {
    const answer = this.store.answer();
    if (!answer || this.past()) return '';
    return readyWords(answer.ready);
  });
  /** What is asked of a show that has passed. */
  readonly asks = computed(() => {
    const spots = this.store.show()?.cues.flatMap((c) => c.spots) ?? [];
    const told = spots.filter((s) => s.went !== undefined).length;
    if (!this.past() || spots.length === 0) return '';
    return told === spots.length
      ? `${spots.filter((s) => s.went === 'clean').length} of ${spots.length} spots were clean.`
      : `This show has passed. What was played? ${told} of ${spots.length} spots are told.`;
  });
  readonly spots = computed(() => this.store.show()?.cues.reduce((n, c) => n + c.spots.length, 0) ?? 0);
  readonly menu = computed(() => [
    { label: 'New show', command: () => void this.store.create() },
    { label: 'Copy for another night', command: () => void this.store.copy() },
    { label: 'Make a lesson', command: () => this.teach() },
    { label: 'Earlier versions …', command: () => this.over.set('states') },
    { label: 'Delete this show', command: () => void this.store.drop() },
  ]);

  constructor() {
    inject(KeysService).use(showsKeys(this));
  }

  run(): void {
    if ((this.store.show()?.cues.length ?? 0) > 0 && this.over() === null && !this.running())
      void this.router.navigate(['/shows'], { queryParams: { run: 1 } });
  }

  /** A lesson of what is played in the show: the grooves and what stands in the spots, in their order. */
  teach(): void {
    const show = this.store.show();
    if (!show) return;
    const ids = show.cues.flatMap((c) => [c.groove, ...c.spots.map((s) => s.phrase)]).flatMap((id) => id ?? []);
    void this.lessons.make(show.name, ids);
  }

  endRun(): void {
    void this.router.navigate(['/shows']);
  }

  paper(): void {
    if (this.store.show()) this.over.set('paper');
  }

  rename(field: HTMLInputElement): void {
    const name = field.value.trim().slice(0, SHOW_LIMITS.letters);
    if (name === '') field.value = this.store.show()?.name ?? '';
    else void this.store.set({ name });
  }

  setDay(date: string): void {
    void this.store.set({ day: practiceDayOf(date) });
  }

  drop(event: CdkDragDrop<unknown>): void {
    void this.store.move(event.previousIndex, event.currentIndex);
  }

  /** The same cell of the next row; the box of lines behind the last one. */
  down(row: number, cell: string): void {
    const rows = this.table()?.nativeElement.querySelectorAll('ls-cue-row') ?? [];
    const next = rows[row + 1]?.querySelector<HTMLInputElement>(`[data-cell="${cell}"]`);
    const box = this.table()?.nativeElement.querySelector<HTMLElement>('ls-lines-box textarea');
    (next ?? box)?.focus();
    next?.select();
  }

  /** A cue that was moved by keys keeps them. */
  async move(from: number, by: number): Promise<void> {
    if (!(await this.store.move(from, from + by))) return;
    const focus = document.activeElement;
    setTimeout(() => focus instanceof HTMLElement && focus.isConnected && focus.focus());
  }
}
