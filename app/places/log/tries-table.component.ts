import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, output, signal } from '@angular/core';
import { format } from 'date-fns';
import { TableModule } from 'primeng/table';
import { Tooltip } from 'primeng/tooltip';
import { count } from '@core/base';
import { isEvidence, type Attempt } from '@core/drill';
import { sittings, type Sitting } from '@core/log';
import type { KeptTake } from '@core/take';
import { ChipsComponent } from '../../widgets/chips.component';
import type { Choice } from '../../widgets/choice';
import { inTurns } from '../../common/in-turns';
import { fileName, saveCsv } from '../../widgets/save-svg';
import { fixWords, markOf, measuredWords, triedWords, triesCsv } from './tries-words';

const SORTS = [
  { by: 'at', words: 'When' },
  { by: 'bpm', words: 'Tempo' },
  { by: 'verdict', words: 'Verdict' },
] as const;
type SortedBy = (typeof SORTS)[number]['by'];

type Shown = 'all' | 'clean' | 'messy' | 'measured';
const SHOWN: readonly Choice<Shown>[] = [
  { value: 'all', words: 'all' },
  { value: 'clean', words: 'clean' },
  { value: 'messy', words: 'messy' },
  { value: 'measured', words: 'measured' },
];

/** A line of the table: the head of a sitting, or a try. */
type Line = { readonly head: Sitting } | { readonly row: Attempt };

/** From so many lines on only those in sight are drawn. */
const MANY = 40;
const LINE = 44;

/** Every try of a phrase: sorted, filtered, grouped by sitting. Of many thousands only what is in sight is drawn. */
@Component({
  selector: 'ls-tries-table',
  imports: [ChipsComponent, TableModule, Tooltip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './tries-table.component.html',
  styleUrl: './tries-table.component.css',
})
export class TriesTableComponent {
  /** The newest first. */
  readonly tries = input.required<readonly Attempt[]>();
  readonly name = input.required<string>();
  readonly takes = input.required<readonly KeptTake[]>();
  /** The take that is looked at. */
  readonly opened = input.required<string | null>();
  readonly open = output<KeptTake>();
  readonly save = output<KeptTake>();
  readonly more = output<{ readonly row: Attempt; readonly event: Event }>();
  readonly sorts = SORTS;
  readonly shownChips = SHOWN;
  readonly lineHeight = LINE;
  readonly filter = signal<Shown>('all');
  /** How it is sorted; another phrase begins with the newest. */
  readonly sorting = linkedSignal<string, { readonly by: SortedBy; readonly down: boolean }>({
    source: () => this.tries()[0]?.phrase ?? '',
    computation: () => ({ by: 'at', down: true }),
  });
  private readonly sorted = computed(() => {
    const { by, down } = this.sorting();
    const sign = down ? -1 : 1;
    // They come the newest first, and keep that among equals.
    const order = (a: Attempt, b: Attempt): number => sign * (a[by] < b[by] ? -1 : a[by] > b[by] ? 1 : 0);
    const shown = this.filter();
    const rows = this.tries().filter(
      (r) => shown === 'all' || (shown === 'measured' ? r.measured !== undefined : r.verdict === shown),
    );
    return by === 'at' && down ? rows : [...rows].sort(order);
  });
  readonly title = computed(() => {
    const [all, shown] = [this.tries().length, this.sorted().length];
    return shown === all ? count(all, 'try', 'tries') : `${shown} of ${count(all, 'try', 'tries')}`;
  });
  /** What stands in the table. Sittings have heads only where their tries lie in time. */
  readonly lines = computed((): readonly Line[] => {
    const { by, down } = this.sorting();
    if (by !== 'at' || !down) return this.sorted().map((row) => ({ row }));
    return sittings(this.sorted()).flatMap((head): Line[] => [{ head }, ...head.tries.map((row) => ({ row }))]);
  });
  /** What it holds stands there first, then the table. */
  readonly turn = inTurns(1);
  readonly isLong = computed(() => this.lines().length > MANY);
  private readonly takeById = computed(() => new Map(this.takes().map((t) => [t.id, t])));
  readonly measured = measuredWords;
  readonly tried = triedWords;
  readonly fix = fixWords;
  readonly mark = markOf;

  sort(by: SortedBy): void {
    this.sorting.update((s) => ({ by, down: s.by === by ? !s.down : by === 'at' }));
  }

  ariaSort(by: SortedBy): 'ascending' | 'descending' | null {
    const s = this.sorting();
    return s.by !== by ? null : s.down ? 'descending' : 'ascending';
  }

  /** The words of a sitting, written only for those in sight. */
  headOf(line: Line): string | null {
    if (!('head' in line)) return null;
    const { from, until, tries } = line.head;
    const own = tries.filter((t) => isEvidence(t));
    const clean = own.filter((t) => t.verdict === 'clean').length;
    const apart = tries.length - own.length;
    return `${format(from, 'EEEE d MMM, HH:mm')} to ${format(until, 'HH:mm')} · ${own.length === 0 ? '' : `${count(own.length, 'try', 'tries')}, ${clean} clean`}${own.length > 0 && apart > 0 ? ' · ' : ''}${apart > 0 ? `${apart} simulated or on keys` : ''}`;
  }

  rowOf(line: Line): Attempt | null {
    return 'row' in line ? line.row : null;
  }

  when({ at }: Attempt): string {
    return format(at, 'd MMM yyyy, HH:mm');
  }

  took({ seconds }: Attempt): string {
    return `${Math.round(seconds)} s`;
  }

  takeOf({ id }: Attempt): KeptTake | null {
    return this.takeById().get(id) ?? null;
  }

  /** What is shown as a table of its own. */
  saveTries(): void {
    saveCsv(triesCsv(this.sorted()), fileName(`${this.name()} tries`, 'csv'));
  }
}
