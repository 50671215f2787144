import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { map, of, switchMap } from 'rxjs';
import { RouterLink } from '@angular/router';
import { TableModule, type TableLazyLoadEvent } from 'primeng/table';
import { format, startOfDay } from 'date-fns';
import { bestOf, byDay, type Attempt } from '@core/drill';
import type { Phrase } from '@core/recipe';
import { rendition, renditionOf, type Rendition } from '@core/rendition';
import type { KeptTake } from '@core/take';
import { patternOf } from '../data/patterns';
import { DrillsRepo } from '../data/drills.repo';
import { PhrasesRepo } from '../data/phrases.repo';
import { KitsRepo } from '../data/kits.repo';
import type { NamedPhrase } from '../data/index/entry';
import { ShelfIndex } from '../data/shelf-index.service';
import { TakesRepo } from '../data/takes.repo';
import { TempoChartComponent } from '../ui/charts/tempo-chart.component';
import { inTurns } from '../ui/in-turns';
import { fileName, saveText } from '../ui/save-svg';
import { TakeViewComponent } from './take-view.component';
import { SelectComponent } from '../ui/select.component';
import { Tooltip } from 'primeng/tooltip';

/** Tries on a page of the table. */
const PAGE = 12;

const SORTED_BY = ['at', 'bpm', 'verdict'] as const;
type SortedBy = (typeof SORTED_BY)[number];

/** The Log: tempo against date for one phrase with its goal, and every attempt. */
@Component({
  selector: 'ls-log',
  imports: [RouterLink, TableModule, TakeViewComponent, TempoChartComponent, SelectComponent, Tooltip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './log.component.html',
  styleUrl: './log.component.css',
})
export class LogComponent {
  /** Route: the phrase to show first. */
  readonly phrase = input<string>();
  private readonly drills = inject(DrillsRepo);
  private readonly phrases = inject(PhrasesRepo);
  private readonly names = toSignal<readonly NamedPhrase[] | null>(inject(ShelfIndex).names$('drilled'), {
    initialValue: null,
  });
  readonly ready = computed(() => this.names() !== null);
  /** Phrases that were drilled, the newest drilled first. */
  readonly named = computed(() => (this.names() ?? []).map((p) => ({ value: p.id, words: p.name.slice(0, 80) })));
  readonly chosen = linkedSignal<readonly { readonly value: string }[], string | null>({
    source: this.named,
    computation: (list, before) => {
      const wanted = before?.value ?? this.phrase();
      return list.find((d) => d.value === wanted)?.value ?? list[0]?.value ?? null;
    },
  });
  /** Its tries, the newest first: nothing else of the log is read. */
  readonly rows = toSignal(
    toObservable(this.chosen).pipe(
      switchMap((id) => (id === null ? of(null) : this.drills.triesOf$(id))),
      map((tries) => (tries ? [...tries].reverse() : null)),
    ),
    { initialValue: null },
  );
  private readonly shown = toSignal(
    toObservable(this.chosen).pipe(switchMap((id) => (id === null ? of(null) : this.phrases.of$(id)))),
    { initialValue: null },
  );
  readonly current = computed(() => {
    const [phrase, tries] = [this.shown(), this.rows()];
    return phrase && tries && tries[0]?.phrase === phrase.id ? { phrase, best: bestOf(tries) } : null;
  });
  /** The chart stands there first, then the table of tries. */
  readonly turn = inTurns(1, () => this.current() !== null);
  private readonly sorting = signal<{ readonly by: SortedBy; readonly down: boolean }>({ by: 'at', down: true });
  /** The first try that is shown; of another phrase the newest are. */
  readonly from = linkedSignal<string | null, number>({ source: this.chosen, computation: () => 0 });
  private readonly sorted = computed(() => {
    const { by, down } = this.sorting();
    const sign = down ? -1 : 1;
    // They come the newest first, and keep that among equals.
    const order = (a: Attempt, b: Attempt): number => sign * (a[by] < b[by] ? -1 : a[by] > b[by] ? 1 : 0);
    return by === 'at' && down ? (this.rows() ?? []) : [...(this.rows() ?? [])].sort(order);
  });
  /** The tries of the page that is looked at. */
  readonly page = computed(() => this.sorted().slice(this.from(), this.from() + PAGE));
  readonly pageSize = PAGE;
  readonly days = computed(() => byDay(this.rows() ?? [], (at) => startOfDay(at).getTime()));
  private readonly takeById = computed(() => new Map(this.takes().map((t) => [t.id, t])));
  private readonly takesRepo = inject(TakesRepo);
  private readonly kits = inject(KitsRepo);
  private readonly takes = toSignal(
    toObservable(this.chosen).pipe(switchMap((id) => (id === null ? of([]) : this.takesRepo.of$(id)))),
    {
      initialValue: [] as readonly KeptTake[],
    },
  );
  private readonly openedId = signal<string | null>(null);
  /** The take that is looked at and heard, with what was meant. */
  readonly opened = computed(() => {
    const take = this.takes().find((t) => t.id === this.openedId());
    const phrase = this.current()?.phrase;
    if (!take || !phrase) return null;
    return {
      take,
      meant: this.meantBy(take, phrase),
      attempt: this.rows()?.find((a) => a.id === take.id) ?? null,
      changed: phrase.changed > take.at,
    };
  });
  readonly title = computed(() => {
    const found = this.current();
    if (!found) return '';
    const { phrase, best } = found;
    if (best.clean === null) return `Nothing clean yet on the way to ${phrase.goal}`;
    return best.clean >= phrase.goal
      ? `At the goal of ${phrase.goal}`
      : `${best.clean} clean, ${phrase.goal - best.clean} to go to ${phrase.goal}`;
  });

  /** What was meant: as it was that day; for takes from before that was kept, as the phrase stands now. */
  private meantBy(take: KeptTake, phrase: Phrase): Rendition {
    if (take.meant) return renditionOf(take.meant);
    return rendition({ phrase: patternOf(phrase), stage: take.stage, kit: this.kits.current() });
  }

  /** Another page of the tries, or another order. */
  turnTo({ first, sortField, sortOrder }: TableLazyLoadEvent): void {
    this.from.set(first ?? 0);
    const by = SORTED_BY.find((f) => f === sortField) ?? 'at';
    this.sorting.set({ by, down: sortOrder === -1 });
  }

  when({ at }: Attempt): string {
    return format(at, 'd MMM yyyy, HH:mm');
  }

  took({ seconds }: Attempt): string {
    return `${Math.round(seconds)} s`;
  }

  readonly measured = measuredWords;

  takeOf({ id }: Attempt): KeptTake | null {
    return this.takeById().get(id) ?? null;
  }

  /** A take to look at and hear; again to close it. */
  open(take: KeptTake): void {
    this.openedId.update((id) => (id === take.id ? null : take.id));
  }

  close(): void {
    this.openedId.set(null);
  }

  /** The take with its measurements as a file. */
  save(take: KeptTake): void {
    const attempt = this.rows()?.find((a) => a.id === take.id);
    const name = this.current()?.phrase.name ?? 'take';
    saveText(
      JSON.stringify({ format: 'loop-shelf-take', version: 1, phrase: name, attempt, take }, null, 1),
      fileName(`${name} take`, 'json'),
      'application/json',
    );
  }
}

function measuredWords({ measured }: Attempt): string {
  if (!measured) return 'by ear';
  const mean = Math.round(measured.mean);
  return `${mean > 0 ? '+' : ''}${mean} ± ${Math.round(measured.spread)} ms${measured.missed > 0 ? `, ${measured.missed} missed` : ''}`;
}
