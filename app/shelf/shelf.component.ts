import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import { ChangeDetectionStrategy, Component, computed, effect, inject, signal, type OnDestroy } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import { differenceInCalendarDays, formatDistanceToNowStrict } from 'date-fns';
import { GRID, meter } from '@core/time';
import { bestByPhrase } from '@core/drill';
import { loopTicks, patternOfText } from '@core/pattern';
import { ceiling } from '@core/reach';
import { rendition, requestOf } from '@core/rendition';
import type { Phrase } from '@core/recipe';
import { parseStrokeText } from '@core/stroke';
import { Transport } from '../audio/transport.service';
import { DrillsRepo } from '../data/drills.repo';
import { KitsRepo } from '../data/kits.repo';
import { patternOf } from '../data/patterns';
import { PhrasesRepo } from '../data/phrases.repo';
import { ProfileRepo } from '../data/profile.repo';
import { openShelf } from '../data/which-shelf';
import { Player } from '../playing/player';
import { KeysService } from '../shell/keys.service';
import { NoticesService } from '../shell/notices.service';
import { RibbonComponent } from '../ui/ribbon/ribbon.component';
import { inSlices } from '../ui/idle';
import { byName, found, LONGEST_STRIP, rowsOf, type Row, type Strip } from './strips';

const ROW_HEIGHT = 58;
/** A shelf of more phrases is drawn before all of them are worked out, at the scale of the longest there may be. */
const MANY = 200;
/** From so many days on the time since the last drill is said in months. */
const MONTHS_FROM = 60;

/**
 * The Shelf: every phrase as a strip with its ribbon at true relative length, how far it has come, and one search box.
 */
@Component({
  selector: 'ls-shelf',
  imports: [RouterLink, RibbonComponent, CdkVirtualScrollViewport, CdkFixedSizeVirtualScroll, CdkVirtualForOf],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './shelf.component.html',
  styleUrl: './shelf.component.css',
})
export class ShelfComponent implements OnDestroy {
  private readonly phrasesRepo = inject(PhrasesRepo);
  private readonly router = inject(Router);
  private readonly kits = inject(KitsRepo);
  private readonly profile = inject(ProfileRepo);
  private readonly notices = inject(NoticesService);
  private readonly player = inject(Player);
  readonly transport = inject(Transport);

  readonly rowHeight = ROW_HEIGHT;
  readonly phrases = toSignal(this.phrasesRepo.all$, { initialValue: null });
  private readonly attempts = toSignal(inject(DrillsRepo).attempts$, { initialValue: null });
  private readonly best = computed(() => bestByPhrase(this.attempts() ?? []));
  readonly words = signal('');
  /** Whether phrases are still being worked out: a search by meter or grid may find more in a moment. */
  readonly reading = signal(false);
  private readonly longest = signal<number | null>(null);
  private readonly named = computed(() => byName(this.phrases() ?? []));
  private readonly foundOnes = computed(() => {
    const words = this.words();
    if (words !== '') this.reading();
    return found(this.named(), words);
  });
  readonly rows = computed(() => rowsOf(this.foundOnes(), this.best(), this.kits.current()));
  /**
   * Ticks that the strips' full width stands for: the longest phrase, up to eight bars of 4/4. Null while that is about
   * to be known.
   */
  readonly stripTicks = computed(() => this.longest() ?? ((this.phrases()?.length ?? 0) > MANY ? LONGEST_STRIP : null));
  readonly pointedAt = signal<Strip | null>(null);
  readonly example = exampleFill();
  private readonly undos: (() => Promise<boolean>)[] = [];

  constructor() {
    effect((onCleanup) => {
      const all = this.phrases();
      if (!all) return;
      let most = 1;
      this.reading.set(true);
      const each = (p: Phrase): void => {
        most = Math.max(most, patternOf(p).length);
      };
      onCleanup(
        inSlices(all, each, () => {
          this.longest.set(Math.min(LONGEST_STRIP, most));
          this.reading.set(false);
        }),
      );
    });
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
        run: () => this.withPointed((s) => void this.remove(s)),
      },
      { combo: '$mod+z', shown: 'Ctrl Z', does: 'Put back what was taken off', run: () => void this.undo() },
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

  private readonly ceilings = new WeakMap<Strip, string>();

  /** "116 bpm, estimate", worked out when a strip comes into view. */
  ceilingOf(strip: Strip): string {
    const known = this.ceilings.get(strip);
    if (known !== undefined) return known;
    const { bpm, estimate } = ceiling(strip.pattern, this.kits.current(), this.profile.now());
    const words = bpm === null ? 'no ceiling' : `ceiling ${Math.floor(bpm)}${estimate ? ', estimate' : ''}`;
    this.ceilings.set(strip, words);
    return words;
  }

  async remove(strip: Strip): Promise<void> {
    const restore = await this.phrasesRepo.remove(strip.phrase.id);
    if (!restore) return;
    this.undos.push(restore);
    this.notices.tell(`“${strip.phrase.name.slice(0, 60)}” and its log are off the shelf.`, {
      label: 'Put it back',
      run: () => void this.undo(),
    });
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

  private async undo(): Promise<void> {
    const restore = this.undos.pop();
    if (restore && (await restore())) this.notices.tell('It is back on the shelf.');
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
