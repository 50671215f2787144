import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, input, signal, type Signal } from '@angular/core';
import { USUAL_SCHOOLS, type Counting, type Schools } from '@core/time';
import type { OwnSyllables } from '@core/stroke';
import type { Pattern } from '@core/pattern';
import { followWidth } from '../follow-width';
import { PlayheadComponent } from './playhead.component';
import { ribbonLayout } from './layout';
import type { RibbonSize, Stem } from './model';

/** The ribbon: how a phrase is drawn everywhere. Right hand above the line, left below, feet on the floor; height is the height of the stick. */
@Component({
  selector: 'ls-ribbon',
  imports: [PlayheadComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './ribbon.component.html',
  styleUrl: './ribbon.component.css',
  host: { '[class]': '"size-" + size()' },
})
export class RibbonComponent {
  readonly pattern = input.required<Pattern>();
  readonly size = input<RibbonSize>('bench');
  readonly schools = input<Schools>(USUAL_SCHOOLS);
  readonly stripTicks = input<number>();
  /** Counts against a beat twice or half as long. */
  readonly pace = input<Counting['pace'] | null>(null);
  /** A line to sing under the counts, with the user's own syllables; null for none. */
  readonly sung = input<OwnSyllables | null>(null);
  /** Fixed width in px; else the ribbon follows the room it has. */
  readonly width = input<number>();
  /** The tick that sounds, from the pattern's bar line; null when silent. */
  readonly position = input<Signal<number | null>>(signal(null));
  readonly loop = input(0);
  /** Whether the playhead stays away although something sounds: another ribbon is the one heard. */
  readonly silent = input(false);
  /** Ticks of strokes to point at. */
  readonly pointed = input<readonly number[]>([]);
  readonly groovesOnly = input(false);

  private readonly room = followWidth(inject<ElementRef<HTMLElement>>(ElementRef).nativeElement);
  readonly layout = computed(() => {
    const [stripTicks, pace, sung] = [this.stripTicks(), this.pace(), this.sung()];
    return ribbonLayout(this.pattern(), {
      size: this.size(),
      width: this.width() ?? this.room(),
      schools: this.schools(),
      ...(stripTicks === undefined ? {} : { stripTicks }),
      ...(pace ? { pace } : {}),
      ...(sung ? { sung } : {}),
    });
  });
  readonly pointedAt = computed(() => new Set(this.pointed()));

  isPointed(index: number): boolean {
    return this.pointedAt().has(this.pattern().strokes[index]?.at ?? -1);
  }

  /** The sign at a stem's end, as an SVG path round its middle. */
  headPath(stem: Stem): string {
    const { x, end: y, headSize: r } = stem;
    switch (stem.head) {
      case 'diamond':
        return `M${x} ${y - r * 1.25}L${x + r * 1.25} ${y}L${x} ${y + r * 1.25}L${x - r * 1.25} ${y}Z`;
      case 'bar':
        return `M${x - r * 1.2} ${y - r * 0.5}H${x + r * 1.2}V${y + r * 0.5}H${x - r * 1.2}Z`;
      case 'disc':
      case 'ring':
        return `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0Z`;
    }
  }

  isBig(): boolean {
    return this.size() === 'bench' || this.size() === 'room';
  }
}
