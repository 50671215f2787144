import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { CdkDrag, CdkDropList, type CdkDragDrop } from '@angular/cdk/drag-drop';
import { FormsModule } from '@angular/forms';
import { RouterLink } from '@angular/router';
import { count } from '@core/base';
import {
  dateWords,
  DAY_MINUTES,
  isEasy,
  weekday,
  type Block,
  type LeftOut,
  type PlanOrder,
  type PlanPlace,
} from '@core/plan';
import { DayService } from '../../environment/day.service';
import { BlockClockComponent } from '../../playing/block-clock.component';
import { KeysService } from '../../common/keys.service';
import { ChipsComponent } from '../../widgets/chips.component';
import type { Choice } from '../../widgets/choice';
import { BlockRowComponent } from './block-row.component';
import { KIND_WORDS } from './kinds';
import { WeekSheetComponent } from './week-sheet.component';
import { todayKeys } from './today-keys';
import { TodayStore } from './today.store';

const PLACES: readonly Choice<PlanPlace>[] = [
  { value: 'kit', words: 'at the kit' },
  { value: 'pad', words: 'on a pad' },
  { value: 'none', words: 'no instrument' },
];
const ORDERS: readonly Choice<PlanOrder>[] = [
  { value: 'in-turn', words: 'one after the other' },
  { value: 'rounds', words: 'in rounds' },
];
/** Fewer minutes than this are no block. */
const SHORTEST = 4;
/** Minutes of something that was left out and is wanted after all. */
const WANTED = 5;

/** With the minutes there are: what to play, in which order, and why. */
@Component({
  selector: 'ls-today',
  imports: [
    BlockClockComponent,
    BlockRowComponent,
    CdkDrag,
    CdkDropList,
    ChipsComponent,
    FormsModule,
    RouterLink,
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
    const left = `${count(plan.free, 'minute')} ${plan.free === 1 ? 'is' : 'are'} left free`;
    return plan.free < SHORTEST && waits
      ? `${left}: too few for another block.`
      : `${left}: nothing more is for today.`;
  });
  readonly over = computed(() => this.store.plan() !== null && this.store.next() === null);
  /** How much the hands are asked, in words. */
  readonly load = computed(() => {
    const load = this.store.plan()?.load;
    if (!load) return '';
    const hundreds = (n: number): string => (Math.round(n / 100) * 100).toLocaleString('en');
    if (load.most !== null && isEasy(load.most))
      return `About ${hundreds(load.strokes)} strokes a hand; an easy half hour has ${hundreds(load.most)}.`;
    if (load.most === null) return `About ${hundreds(load.strokes)} strokes a hand. No week to hold that against yet.`;
    return `About ${hundreds(load.strokes)} strokes a hand; half as much again as on a day of your week is ${hundreds(load.most)}.`;
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
