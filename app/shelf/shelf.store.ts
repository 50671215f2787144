import { computed, effect, inject, Injectable, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { bestByPhrase } from '@core/drill';
import { ceiling } from '@core/reach';
import type { Phrase } from '@core/recipe';
import { DrillsRepo } from '../data/drills.repo';
import { KitsRepo } from '../data/kits.repo';
import { patternOf } from '../data/patterns';
import { PhrasesRepo } from '../data/phrases.repo';
import { ProfileRepo } from '../data/profile.repo';
import { NoticesService } from '../shell/notices.service';
import { inSlices } from '../ui/idle';
import { byName, found, LONGEST_STRIP, rowsOf, type Strip } from './strips';

/** A shelf of more phrases is drawn before all of them are worked out, at the scale of the longest there may be. */
const MANY = 200;

/** What is on the shelf, what the search finds of it, and how far each phrase has come. Provided by the Shelf. */
@Injectable()
export class ShelfStore {
  private readonly phrasesRepo = inject(PhrasesRepo);
  private readonly kits = inject(KitsRepo);
  private readonly profile = inject(ProfileRepo);
  private readonly notices = inject(NoticesService);
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
  private readonly undos: (() => Promise<boolean>)[] = [];
  private readonly ceilings = new WeakMap<Strip, string>();

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
  }

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

  /** Puts back what was taken off last. */
  async undo(): Promise<void> {
    const restore = this.undos.pop();
    if (restore && (await restore())) this.notices.tell('It is back on the shelf.');
  }
}
