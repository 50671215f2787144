import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { Counting } from '@core/time';
import type { Stroke } from '@core/stroke';
import type { RibbonRow } from './model';
import { buzzPath, headPath, wordsOf } from './shapes';

/** A row of a ribbon that is read: a view of its own, so that an edit draws only the row it is in. */
@Component({
  selector: 'g[lsRow]',
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './row.component.html',
  styleUrl: './row.css',
  host: { '[class.room]': 'room()' },
})
export class RowComponent {
  readonly row = input.required<RibbonRow>();
  readonly counting = input.required<Counting>();
  /** Tick of the bar line at which the pattern starts. */
  readonly start = input(0);
  /** Ticks of strokes to point at, from the pattern's start. */
  readonly pointed = input.required<ReadonlySet<number>>();
  readonly room = input(false);
  readonly headPath = headPath;
  readonly buzzPath = buzzPath;

  words(stroke: Stroke): string {
    return wordsOf(this.start() + stroke.at, stroke, this.counting());
  }
}
