import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  viewChild,
  type OnDestroy,
} from '@angular/core';
import { NgTemplateOutlet } from '@angular/common';
import { Router } from '@angular/router';
import { scaleBand } from 'd3-scale';
import { format } from 'date-fns';
import { count } from '@core/base';
import { chanceWords } from '@core/player';
import type { Step } from '@core/map';
import { dayWords } from '@core/plan';
import { TRAIT_WORDS, TRAITS, type Trait } from '@core/shelf';
import { today } from '../../../environment/clock';
import { NoticesService } from '../../../common/notices.service';
import { followWidth } from '../../../common/follow-size';
import { RibbonComponent } from '../../../drawings/ribbon/ribbon.component';
import { choicesOf, type Choice } from '../../../widgets/choice';
import { fileName, saveCsv, saveSvg } from '../../../widgets/save-svg';
import { SelectComponent } from '../../../widgets/select.component';
import { MapStore } from './map.store';

/** Room for the words of rows and of columns, and the height of a square, in px. */
const ROOM = { left: 150, top: 92, square: 46, right: 26 };

/** Milliseconds of a day; and the choice of today, which no day of the calendar is. */
const DAY = 86_400_000;
const NOW = -1;

/** What the shelf covers, by any two traits: squares with what is there, and outlined where a step leads. */
@Component({
  selector: 'ls-shelf-map',
  imports: [NgTemplateOutlet, RibbonComponent, SelectComponent],
  providers: [MapStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './shelf-map.component.html',
  styleUrl: './shelf-map.component.css',
})
export class ShelfMapComponent implements OnDestroy {
  readonly store = inject(MapStore);
  private readonly router = inject(Router);
  private readonly notices = inject(NoticesService);
  private readonly own = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly svg = viewChild<ElementRef<SVGSVGElement>>('svg');
  private readonly room = followWidth(this.own);
  readonly traits = choicesOf(TRAITS, (t) => TRAIT_WORDS[t]);

  /** Where the phrase on the Bench is, in words. */
  readonly benchWords = computed(() => {
    const [own, map] = [this.store.onBench(), this.store.map()];
    if (!own || !map) return '';
    const isThere = map.rows.includes(own.row) && map.columns.includes(own.column);
    return isThere ? 'on the Bench' : `on the Bench: ${own.row}, ${own.column}, a first`;
  });

  /** The squares where they are drawn. */
  readonly drawn = computed(() => {
    const map = this.store.map();
    if (!map || map.rows.length === 0) return null;
    const wide = this.room() > 860 ? this.room() - 390 : this.room();
    const width = Math.max(320, Math.min(wide - 48, ROOM.left + ROOM.right + map.columns.length * 120));
    const x = scaleBand(map.columns, [ROOM.left, width - ROOM.right]).padding(0.06);
    const y = scaleBand(map.rows, [ROOM.top, ROOM.top + map.rows.length * ROOM.square]).padding(0.1);
    const full = new Map(map.squares.map((s) => [`${s.row}|${s.column}`, s]));
    const beside = new Set(map.empty.map((e) => `${e.row}|${e.column}`));
    const bench = this.store.onBench();
    const squares = map.rows.flatMap((row) =>
      map.columns.map((column) => {
        const square = full.get(`${row}|${column}`);
        const leads = beside.has(`${row}|${column}`);
        const isBench = bench?.row === row && bench.column === column;
        const told = square ? this.told(square) : leads ? 'empty, a step leads there' : 'empty';
        return {
          ...{ row, column, x: x(column) ?? 0, y: y(row) ?? 0, many: square?.many ?? 0, leads },
          share: square?.readiest?.share ?? null,
          bench: isBench,
          name: `${row}, ${column}: ${told}${isBench ? ', the phrase on the Bench' : ''}`,
        };
      }),
    );
    return {
      ...{ width, height: ROOM.top + map.rows.length * ROOM.square + 10, wide: x.bandwidth(), high: y.bandwidth() },
      columns: map.columns.map((words) => ({ words, x: (x(words) ?? 0) + x.bandwidth() / 2 })),
      rows: map.rows.map((words) => ({ words, y: (y(words) ?? 0) + y.bandwidth() / 2 })),
      squares,
    };
  });

  /** Today, and the ends of the months before it, as far as a year. */
  readonly days = computed((): readonly Choice<number>[] => {
    const date = new Date(today() * DAY);
    return [
      { value: NOW, words: 'today' },
      ...Array.from({ length: 12 }, (_, i) => {
        // The day before the first of the month after.
        const end = Date.UTC(date.getUTCFullYear(), date.getUTCMonth() - i, 0) / DAY;
        return { value: end, words: `end of ${format(new Date(end * DAY + DAY / 2), 'MMM yyyy')}` };
      }),
    ];
  });

  chooseDay(day: number): void {
    this.store.day.set(day === NOW ? null : day);
  }

  ngOnDestroy(): void {
    this.store.stop();
  }

  /** What a square has, in words. */
  told(square: NonNullable<ReturnType<MapStore['square']>>): string {
    const { many, readiest, first } = square;
    const best = first.find((p) => p.id === readiest?.id);
    const ready =
      best && readiest ? `, the readiest ${best.name.slice(0, 60)} at ${percent(readiest.share)} of its ceiling` : '';
    return `${count(many, 'phrase')}${ready}`;
  }

  isAt(row: string, column: string): boolean {
    const place = this.store.place();
    return place?.row === row && place.column === column;
  }

  chooseRow(trait: Trait): void {
    this.store.choose([trait, this.store.traits()[1]]);
  }

  chooseColumn(trait: Trait): void {
    this.store.choose([this.store.traits()[0], trait]);
  }

  turn(): void {
    const [row, column] = this.store.traits();
    this.store.choose([column, row]);
  }

  /** From square to square by the arrows; Enter and Space look at it. */
  key(event: KeyboardEvent, row: string, column: string): void {
    const map = this.store.map();
    if (!map) return;
    const [r, c] = [map.rows.indexOf(row), map.columns.indexOf(column)];
    const to = { ArrowUp: [r - 1, c], ArrowDown: [r + 1, c], ArrowLeft: [r, c - 1], ArrowRight: [r, c + 1] }[event.key];
    if (event.key === 'Enter' || event.key === ' ') void this.store.look({ row, column });
    else if (to) this.own.querySelector<SVGElement>(`[data-square="${to[0] ?? -1},${to[1] ?? -1}"]`)?.focus();
    else return;
    event.preventDefault();
    event.stopPropagation();
  }

  place(row: string, column: string): string {
    const map = this.store.map();
    return `${map?.rows.indexOf(row) ?? -1},${map?.columns.indexOf(column) ?? -1}`;
  }

  chance(step: Step): string {
    return `${chanceWords(step.chance)} to be ready at ${step.tempo} within ${step.minutes} minutes`;
  }

  percent = percent;

  lastWords(last: number | null): string {
    return last === null ? 'not played yet' : `played last ${dayWords(last, today())}`;
  }

  openPhrase(id: string): Promise<boolean> {
    return this.router.navigate(['/bench', id], { queryParams: { kept: 1 } });
  }

  async ask(): Promise<void> {
    if (!(await this.store.ask())) this.notices.tell('This square cannot be asked for: make it by hand on the Bench.');
  }

  save(): void {
    const svg = this.svg()?.nativeElement;
    if (svg) void saveSvg(svg, fileName('Map of the shelf', 'svg'));
  }

  csv(): void {
    const map = this.store.map();
    if (!map) return;
    const [row, column] = map.traits;
    saveCsv(
      [
        [TRAIT_WORDS[row], TRAIT_WORDS[column], 'phrases', 'readiest', 'share of ceiling'],
        ...map.squares.map((s) => [
          s.row,
          s.column,
          s.many,
          s.first.find((p) => p.id === s.readiest?.id)?.name ?? '',
          s.readiest ? percent(s.readiest.share) : '',
        ]),
      ],
      fileName('Map of the shelf', 'csv'),
    );
  }
}

const percent = (share: number): string => `${Math.round(share * 100)}%`;
