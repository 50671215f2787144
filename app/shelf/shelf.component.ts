import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import { ChangeDetectionStrategy, Component, inject, signal, type OnDestroy } from '@angular/core';
import { Tooltip } from 'primeng/tooltip';
import { Router, RouterLink } from '@angular/router';
import { differenceInCalendarDays, formatDistanceToNowStrict } from 'date-fns';
import { GRID, meter } from '@core/time';
import { loopTicks, patternOfText } from '@core/pattern';
import { rendition, requestOf } from '@core/rendition';
import { parseStrokeText } from '@core/stroke';
import { Transport } from '../audio/transport.service';
import { KitsRepo } from '../data/kits.repo';
import { patternOf } from '../data/patterns';
import { openShelf } from '../data/which-shelf';
import { Player } from '../playing/player';
import { KeysService } from '../shell/keys.service';
import { RibbonComponent } from '../ui/ribbon/ribbon.component';
import { ShelfStore } from './shelf.store';
import type { Row, Strip } from './strips';

const ROW_HEIGHT = 58;
/** From so many days on the time since the last drill is said in months. */
const MONTHS_FROM = 60;

/**
 * The Shelf: every phrase as a strip with its ribbon at true relative length, how far it has come, and one search box.
 */
@Component({
  selector: 'ls-shelf',
  imports: [Tooltip, RouterLink, RibbonComponent, CdkVirtualScrollViewport, CdkFixedSizeVirtualScroll, CdkVirtualForOf],
  providers: [ShelfStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './shelf.component.html',
  styleUrl: './shelf.component.css',
})
export class ShelfComponent implements OnDestroy {
  readonly shelf = inject(ShelfStore);
  private readonly router = inject(Router);
  private readonly kits = inject(KitsRepo);
  private readonly player = inject(Player);
  readonly transport = inject(Transport);

  readonly rowHeight = ROW_HEIGHT;
  readonly pointedAt = signal<Strip | null>(null);
  readonly example = exampleFill();

  constructor() {
    inject(KeysService).use([
      { combo: 'n', shown: 'N', does: 'New phrase', run: () => void this.create() },
      {
        combo: 'Space',
        shown: 'Space',
        does: 'Hear the strip under the pointer or with the focus; again to stop',
        run: () => this.hearPointed(),
      },
      {
        combo: 'Enter',
        shown: 'Enter',
        does: 'Put the strip with the focus on the Bench',
        run: () => this.withPointed((s) => void this.open(s)),
      },
      {
        combo: 'd',
        shown: 'D',
        does: 'Drill the strip with the focus',
        run: () => this.withPointed((s) => void this.router.navigate(['/drill', s.phrase.id])),
      },
      {
        combo: 'Delete',
        shown: 'Del',
        does: 'Take the strip with the focus off the shelf',
        run: () => this.withPointed((s) => void this.shelf.remove(s)),
      },
      { combo: '$mod+z', shown: 'Ctrl Z', does: 'Put back what was taken off', run: () => void this.shelf.undo() },
      {
        combo: '/',
        shown: '/',
        does: 'Search',
        run: () => document.querySelector<HTMLInputElement>('#shelf-search')?.focus(),
      },
    ]);
  }

  ngOnDestroy(): void {
    this.player.stop();
  }

  trackRow(_: number, row: Row): string {
    return row.kind === 'head' ? row.family : row.phrase.id;
  }

  create(): Promise<boolean> {
    return this.router.navigate(['/bench'], { queryParams: { fresh: 1 } });
  }

  open(strip: Strip): Promise<boolean> {
    return this.router.navigate(['/bench', strip.phrase.id]);
  }

  hear(strip: Strip): void {
    const { phrase } = strip;
    this.player.toggle(
      ownerOf(strip),
      requestOf(rendition({ phrase: patternOf(phrase), kit: this.kits.current() }), phrase.tempo),
    );
  }

  isHeard(strip: Strip): boolean {
    return this.player.owner() === ownerOf(strip);
  }

  loopOf(strip: Strip): number {
    return this.isHeard(strip) ? loopTicks(strip.pattern) : 0;
  }

  since(strip: Strip): string {
    const { lastAt } = strip.best;
    if (lastAt === null) return 'not drilled yet';
    // An evening's practice was yesterday on the next morning, not eleven hours ago.
    const days = differenceInCalendarDays(Date.now(), lastAt);
    if (days < MONTHS_FROM) return days <= 0 ? 'today' : days === 1 ? 'yesterday' : `${days} days ago`;
    return `${formatDistanceToNowStrict(lastAt)} ago`;
  }

  openDemo(): void {
    openShelf('demo');
  }

  private hearPointed(): void {
    if (this.transport.playing()) this.player.stop();
    else this.withPointed((s) => this.hear(s));
  }

  private withPointed(act: (strip: Strip) => void): void {
    const strip = this.pointedAt();
    if (strip) act(strip);
  }
}

/** By this name a strip is known among what sounds. */
function ownerOf({ phrase }: Strip): string {
  return `strip ${phrase.id}`;
}

/** What an empty shelf shows: one small fill, to see what a ribbon is. */
function exampleFill() {
  const read = parseStrokeText('R! l l R K R! l l R K R! l R L R! L');
  return patternOfText(read.ok ? read.value : [], meter(4, 4), GRID.sixteenths);
}
