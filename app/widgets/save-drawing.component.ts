import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { fileName, saveSvg } from './save-svg';

/** Saves the drawing inside an element as a file, with the fonts it needs. */
@Component({
  selector: 'ls-save-drawing',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<button
    type="button"
    class="btn small plain"
    [attr.aria-label]="'Save ' + what() + ' as SVG'"
    (click)="save()"
  >
    SVG
  </button>`,
})
export class SaveDrawingComponent {
  /** The element that holds the drawing. */
  readonly of = input.required<HTMLElement>();
  /** What it is, for a screen reader: "the kit". */
  readonly what = input.required<string>();
  readonly name = input.required<string>();

  save(): void {
    const drawings = [...this.of().querySelectorAll('svg')].filter((s) => s.getBoundingClientRect().width > 0);
    const largest = drawings.sort((a, b) => areaOf(b) - areaOf(a))[0];
    if (largest) void saveSvg(largest, fileName(this.name(), 'svg'));
  }
}

function areaOf(svg: SVGSVGElement): number {
  const { width, height } = svg.getBoundingClientRect();
  return width * height;
}
