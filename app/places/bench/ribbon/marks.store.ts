import { computed, inject, Injectable } from '@angular/core';
import { NO_MARKS, type RibbonMarks } from '../../../drawings/ribbon/marks';
import { CompareStore } from '../document/compare.store';
import { PickStore } from '../document/pick.store';
import { PreviewStore } from '../document/preview.store';
import { TrailStore } from '../document/trail.store';
import { CursorStore } from './cursor.store';

/** What is marked on the ribbon: the cursor, what is chosen, what a card changed, what differs from another phrase. */
@Injectable({ providedIn: 'root' })
export class MarksStore {
  private readonly picks = inject(PickStore);
  private readonly preview = inject(PreviewStore);
  private readonly trail = inject(TrailStore);
  private readonly cursor = inject(CursorStore);
  private readonly compare = inject(CompareStore);

  readonly marks = computed((): RibbonMarks => {
    if (this.preview.pattern()) return { ...NO_MARKS, changed: this.preview.changed() };
    if (this.picks.pattern()) return { ...NO_MARKS, chosen: this.picks.chosen() };
    if (!this.trail.isFinished()) return NO_MARKS;
    return {
      ...this.cursor.marks(),
      changed: this.compare.open() ? this.compare.ticks() : this.trail.changed(),
    };
  });
}
