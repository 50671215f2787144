import { computed, Injectable, signal } from '@angular/core';
import type { Counting } from '@core/time';
import type { RibbonLine } from '../../../drawings/ribbon/model';

/**
 * What the ribbon of the Bench shows beside the strokes, line by line; it stays as it was chosen while other places are
 * visited.
 */
@Injectable({ providedIn: 'root' })
export class LinesStore {
  readonly sung = signal(false);
  readonly types = signal(false);
  readonly grooveOnly = signal(false);
  readonly hidden = signal<readonly RibbonLine[]>([]);
  /** The beat that is counted against: half as long, twice as long, or null for as written. */
  readonly pace = signal<Counting['pace'] | null>(null);
  /** Whether the choices themselves are shown. */
  readonly open = signal(false);
  /** What is other than at first, in words: shown also while the choices are not. */
  readonly changed = computed(() =>
    [
      this.pace() === null ? '' : this.paceWords(),
      ...this.hidden().map((l) => (l === 'counts' ? 'no counts' : 'no sticking')),
      this.sung() ? 'sung' : '',
      this.types() ? 'stroke types' : '',
      this.grooveOnly() ? 'groove only' : '',
    ].filter(Boolean),
  );
  readonly paceWords = computed(() => {
    const pace = this.pace();
    return pace === null ? 'Counts: as written' : pace === 'half' ? 'Counts: half-time' : 'Counts: double-time';
  });

  shows(line: RibbonLine): boolean {
    return !this.hidden().includes(line);
  }

  toggle(line: RibbonLine): void {
    this.hidden.update((all) => (all.includes(line) ? all.filter((l) => l !== line) : [...all, line]));
  }

  nextPace(): void {
    this.pace.update((pace) => (pace === null ? 'half' : pace === 'half' ? 'double' : null));
  }
}
