import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { CdkDrag, CdkDropList, type CdkDragDrop } from '@angular/cdk/drag-drop';
import { FormsModule } from '@angular/forms';
import { RouterLink } from '@angular/router';
import { count } from '@core/base';
import { dateWords, DAY_MINUTES, weekday, type Block, type LeftOut, type PlanOrder, type PlanPlace } from '@core/plan';
import { Tooltip } from 'primeng/tooltip';
import { DayService } from '../../environment/day.service';
import { BlockClockComponent } from '../../playing/block-clock.component';
import { KeysService } from '../../common/keys.service';
import { ChipsComponent } from '../../widgets/chips.component';
import type { Choice } from '../../widgets/choice';
import { BlockRowComponent } from './block-row.component';
import { KIND_WORDS } from './kinds';
import { LoadBarComponent } from './load-bar.component';
import { WeekSheetComponent } from './week-sheet.component';
import { todayKeys } from './today-keys';
import { TodayStore } from './today.store';
import { GuideLinkComponent } from '../../guide/guide-link.component';

const PLACES: readonly Choice<PlanPlace>[] = [
  { value: 'kit', words: 'at the kit' },
  { value: 'pad', words: 'on a pad' },
  { value: 'none', words: 'no kit or pad' },
];
const ORDERS: readonly Choice<PlanOrder>[] = [
  { value: 'in-turn', words: 'phrase by phrase' },
  { value: 'rounds', words: 'taking turns' },
];
/** Fewer minutes than this are no block. */
const SHORTEST = 4;
/** Minutes of something that was left out and is wanted after all. */
const WANTED = 5;

/** With the minutes there are: what to play, in which order, and why. */
@Component({
  selector: 'ls-today',
  imports: [
    GuideLinkComponent,
    BlockClockComponent,
    BlockRowComponent,
    CdkDrag,
    CdkDropList,
    ChipsComponent,
    FormsModule,
    LoadBarComponent,
    RouterLink,
    Tooltip,
    WeekSheetComponent,
  ],
  providers: [TodayStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './today.component.html',
  styleUrl: './today.component.css',
})
export class TodayComponent {
  readonly store = inject(TodayStore);
  private readonly clock = inject(DayService);
  readonly places = PLACES;
  readonly orders = ORDERS;
  readonly bounds = DAY_MINUTES;
  readonly kinds = KIND_WORDS;
  readonly showsWeek = signal(false);
  readonly date = computed(() => `${weekday(this.clock.today())}, ${dateWords(this.clock.today())}`);
  readonly left = computed(() => this.store.wishes().minutes - this.store.doneMinutes());
  /** Whether there is nothing on the shelf to plan. */
  readonly empty = computed(() => {
    const plan = this.store.plan();
    return plan !== null && plan.left.length === 0 && plan.blocks.every((b) => b.phrase === null);
  });
  /** What becomes of minutes that no block has: too few of them, or nothing that waits. */
  readonly freeWords = computed(() => {
    const plan = this.store.plan();
    if (!plan) return '';
    const waits = plan.left.some((l) => l.kind !== 'keep' && !this.store.wishes().dropped.includes(l.phrase));
    const left = `${count(plan.free, 'minute')} ${plan.free === 1 ? 'is' : 'are'} free`;
    return plan.free < SHORTEST && waits ? `${left}, too few for another block.` : `${left}, nothing more for today.`;
  });
  /** Each kind of block has its first, which says what the kind means. */
  isFirst(block: Block): boolean {
    return this.store.plan()?.blocks.find((b) => b.kind === block.kind) === block;
  }
  readonly over = computed(() => this.store.plan() !== null && this.store.next() === null);
  /** What is left out: where only the minutes are missing it is a table, and its heading says why. */
  readonly leftOut = computed(() => {
    const left = this.store.plan()?.left ?? [];
    const parts = [
      { title: 'Left out', isTable: false, all: left.filter((l) => l.why !== 'minutes') },
      { title: 'No time today', isTable: true, all: left.filter((l) => l.why === 'minutes') },
    ];
    return parts.filter((p) => p.all.length > 0);
  });
  readonly done = computed(() => {
    const { done } = this.store.wishes();
    const minutes = this.store.doneMinutes();
    return done.length === 0 ? '' : `${count(minutes, 'minute')} played in ${count(done.length, 'block')}.`;
  });

  constructor() {
    inject(KeysService).use(todayKeys(this));
  }

  start(): void {
    const { store } = this;
    const next = store.next();
    if (store.running()) void (this.isHere() ? store.finish() : store.toRoom());
    else if (next) void store.start(next);
  }

  /** Whether the block under way is played here, as nothing of it is for the room. */
  isHere(): boolean {
    const running = this.store.running();
    return running !== null && running.phrase === null && running.bring.length === 0;
  }

  drop(event: CdkDragDrop<unknown>): void {
    this.store.move(event.previousIndex, event.currentIndex);
  }

  want({ kind, phrase }: LeftOut): void {
    if (this.store.wishes().dropped.includes(phrase)) this.store.takeBack(phrase);
    else this.store.want(`${kind}:${phrase}`, WANTED);
  }

  canWant({ kind, words }: LeftOut): boolean {
    return words !== '' && kind !== 'break';
  }

  trackOf = (i: number, b: Block): string => `${b.id} ${b.round?.n ?? 0} ${i}`;
}
