import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  output,
  signal,
  untracked,
  type OnDestroy,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Slider } from 'primeng/slider';
import { Tooltip } from 'primeng/tooltip';
import { isHand, otherHand, type Hand } from '@core/stroke';
import { barTicks } from '@core/time';
import { tidy, type Pattern } from '@core/pattern';
import { offerOf, withEdits } from '@core/recipe';
import { mirroredKit } from '@core/kit';
import { ceilingOn, limitOf, mirroredProfile } from '@core/reach';
import {
  SCHOOL_WORDS,
  STICKING_SCHOOLS,
  sameAs,
  stickingEdits,
  stickingText,
  type Sticking,
  type StickingSchool,
  type Stickings,
} from '@core/sticking';
import { KitsRepo } from '../../../storage/kits.repo';
import { AbleService } from '../../../knowledge/able.service';
import { SettingsRepo } from '../../../storage/settings.repo';
import { RibbonComponent } from '../../../drawings/ribbon/ribbon.component';
import { StickingWorker, type StickingSearch } from './stickings/sticking.service';
import { BenchStore } from '../document/bench.store';
import { TermComponent } from '../../../guide/term.component';

const EACH = 2;
const APART = 2;

/** The phrase with its hands the other way round, and the ceiling that has. */
interface OtherWay {
  readonly title: string;
  readonly pattern: Pattern;
  readonly bpm: number | null;
  readonly take: boolean;
}

/**
 * Stick it for me: the best stickings of every school side by side, with reasons; pins by press; and the other hand's
 * versions.
 */
@Component({
  selector: 'ls-sticking-sheet',
  imports: [Tooltip, TermComponent, RibbonComponent, FormsModule, Slider],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './sticking-sheet.component.html',
  styleUrl: './sticking-sheet.component.css',
})
export class StickingSheetComponent implements OnDestroy {
  readonly closed = output();
  private readonly bench = inject(BenchStore);
  private readonly kits = inject(KitsRepo);
  private readonly able = inject(AbleService);
  private readonly settings = inject(SettingsRepo);
  private readonly worker = inject(StickingWorker);

  readonly schools = STICKING_SCHOOLS;
  readonly schoolWords = SCHOOL_WORDS;
  readonly tempo = signal(this.bench.tempo());
  readonly pins = signal<ReadonlyMap<number, Hand>>(new Map());
  readonly share = signal<number | null>(null);
  readonly found = signal<Stickings | null>(null);
  readonly failed = signal(false);
  readonly pattern = computed(() => this.bench.build()?.pattern ?? null);
  private search: StickingSearch | null = null;

  /** The strokes that hands share, with the hand each is pinned to, and whether a bar line stands before it. */
  readonly strokes = computed(() => {
    const pattern = this.pattern();
    if (!pattern) return [];
    const barOf = (at: number): number => Math.floor((pattern.start + at) / barTicks(pattern.meter));
    const hands = pattern.strokes.flatMap((s, index) => (isHand(s.limb) ? [{ s, index, limb: s.limb }] : []));
    return hands.slice(0, 64).map(({ s, index, limb }, i) => {
      const before = hands[i - 1];
      const begins = before !== undefined && barOf(before.s.at) !== barOf(s.at);
      return { index, limb, pin: this.pins().get(index) ?? null, begins };
    });
  });
  /** The hands that the phrase has, and its ceiling: what all others are held against. */
  readonly now = computed(() => {
    const pattern = this.pattern();
    const letters = pattern ? stickingText(pattern) : '';
    if (!pattern || letters === '') return null;
    return { letters, bpm: limitOf(ceilingOn(pattern, this.kits.current(), this.able.now()).bpm) };
  });
  readonly others = computed((): readonly OtherWay[] => {
    const pattern = this.pattern();
    if (!pattern) return [];
    const swapped = tidy({ ...pattern, strokes: pattern.strokes.map((s) => ({ ...s, limb: otherHand(s.limb) })) });
    const [kit, profile] = [this.kits.current(), this.able.now()];
    return [
      {
        title: 'Lead with the other hand',
        pattern: swapped,
        bpm: limitOf(ceilingOn(swapped, kit, profile).bpm),
        take: true,
      },
      {
        title: kit.handed === 'right' ? 'For a left-hander, kit flipped' : 'For a right-hander, kit flipped',
        pattern: swapped,
        bpm: limitOf(ceilingOn(swapped, mirroredKit(kit), mirroredProfile(profile)).bpm),
        take: false,
      },
    ];
  });

  constructor() {
    effect(() => {
      const pattern = this.pattern();
      const wish = {
        bpm: this.tempo(),
        kit: this.kits.current(),
        profile: this.able.now(),
        pins: this.pins(),
        schools: this.settings.schools(),
        many: EACH,
        apart: APART,
      };
      untracked(() => {
        if (pattern) void this.find(pattern, wish);
      });
    });
    // What is pinned is pinned by its place; another phrase begins without pins.
    let strokes = this.pattern()?.strokes.length;
    effect(() => {
      const now = this.pattern()?.strokes.length;
      if (now !== strokes) this.pins.set(new Map());
      strokes = now;
    });
  }

  ngOnDestroy(): void {
    this.cancel();
  }

  /** The answers of a school that no other before it gave. */
  of(school: StickingSchool): readonly Sticking[] {
    const found = this.found()?.found ?? [];
    return found.filter((s) => s.school === school && sameAs(found, s) === null);
  }

  /** The school whose first answer is the first of this one too. */
  likeOf(school: StickingSchool): StickingSchool | null {
    const found = this.found()?.found ?? [];
    const first = found.find((s) => s.school === school);
    return first ? sameAs(found, first) : null;
  }

  /** What a school says that has no answer, or none that holds. */
  saidOf(school: StickingSchool): string | null {
    return this.found()?.silent.find((s) => s.school === school)?.words ?? null;
  }

  lettersOf(s: Sticking): string {
    return stickingText(s.pattern);
  }

  floor(n: number | null): string {
    return n === null ? 'no limit' : String(Math.floor(n));
  }

  /** free → right → left → free. */
  pin(index: number): void {
    this.pins.update((all) => {
      const next = new Map(all);
      const now = all.get(index);
      if (now === undefined) next.set(index, 'R');
      else if (now === 'R') next.set(index, 'L');
      else next.delete(index);
      return next;
    });
  }

  unpin(): void {
    this.pins.set(new Map());
  }

  take(sticking: Sticking): void {
    const pattern = this.pattern();
    if (!pattern) return;
    this.bench.touch(stickingEdits(pattern, sticking.pattern));
  }

  swapHands(): void {
    this.bench.take(offerOf('mirror', { feet: false }).entry);
  }

  cancel(): void {
    this.search?.cancel();
    this.search = null;
    this.share.set(null);
  }

  /** Whether a sticking is what is on the Bench already. */
  isNow(s: Sticking): boolean {
    const built = this.bench.build();
    return (
      built !== null &&
      withEdits(built, stickingEdits(built.pattern, s.pattern)) !== null &&
      stickingText(built.pattern) === stickingText(s.pattern)
    );
  }

  private async find(pattern: Pattern, wish: Parameters<StickingWorker['search']>[1]): Promise<void> {
    this.cancel();
    this.failed.set(false);
    this.share.set(0);
    const search = this.worker.search(pattern, wish, (share) => {
      if (this.search === search) this.share.set(share);
    });
    this.search = search;
    try {
      const found = await search.found;
      if (this.search !== search) return;
      this.found.set(found);
      this.share.set(null);
      this.search = null;
    } catch {
      if (this.search === search) this.failed.set(true);
    }
  }
}
