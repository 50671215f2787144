import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  ElementRef,
  inject,
  output,
  viewChild,
} from '@angular/core';
import { DOCUMENT } from '@angular/common';
import { Dialog } from 'primeng/dialog';
import { barsSpan, shapeWords } from '@core/pattern';
import { rendition } from '@core/rendition';
import { SettingsRepo } from '../../data/settings.repo';
import { DialogFocusDirective } from '../../ui/dialog-focus.directive';
import { RibbonComponent } from '../../ui/ribbon/ribbon.component';
import { fileName, saveText, svgText } from '../../ui/save-svg';
import { StaffComponent } from '../../ui/staff/staff.component';
import { BenchStore } from '../document/bench.store';

/** Width of the paper's text on A4 and Letter, in px at 96 to the inch, with usual margins. */
const PAPER = 690;
/** From so many bars on the ribbon is left to the screen, and the staff alone goes on paper, smaller by and by. */
const MOST_RIBBON_BARS = 4;

/** One clean page: name, tempo, the ribbon with its counts, the staff. Printed, or saved as drawings. */
@Component({
  selector: 'ls-print-sheet',
  imports: [Dialog, DialogFocusDirective, RibbonComponent, StaffComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog
      header="A page for the music stand"
      [visible]="true"
      closeAriaLabel="Close"
      [modal]="true"
      [maximizable]="false"
      [draggable]="false"
      appendTo="body"
      styleClass="sheet-dialog"
      [style]="{ width: '850px', maxWidth: '96vw', maxHeight: '96vh' }"
      (visibleChange)="closed.emit()"
    >
      <div class="bar">
        <button type="button" class="btn primary" (click)="print()">Print</button>
        <button type="button" class="btn" (click)="save('ribbon')">Save the ribbon as SVG</button>
        <button type="button" class="btn" (click)="save('staff')">Save the staff as SVG</button>
      </div>
      @if (pattern(); as p) {
        <div class="sheet" #sheet tabindex="0" role="region" aria-label="The page">
          <h1>{{ name() }}</h1>
          <p>{{ facts() }}</p>
          <ls-ribbon
            class="ribbon"
            [class.long]="isLong()"
            size="bench"
            [pattern]="p"
            [schools]="settings.schools()"
            [width]="paper"
          />
          <ls-staff class="staff" [pattern]="p" [label]="name()" [width]="paper" [scale]="scale()" />
          @if (note(); as n) {
            <p class="note">{{ n }}</p>
          }
        </div>
      }
    </p-dialog>
  `,
  styleUrl: './print-sheet.component.css',
})
export class PrintSheetComponent {
  readonly closed = output();
  readonly settings = inject(SettingsRepo);
  private readonly store = inject(BenchStore);
  private readonly page = inject(DOCUMENT);
  private readonly sheet = viewChild<ElementRef<HTMLElement>>('sheet');
  readonly paper = PAPER;
  readonly pattern = computed(() => {
    const phrase = this.store.build()?.pattern;
    return phrase ? rendition({ phrase }).pattern : null;
  });
  readonly name = computed(() => this.store.phrase()?.name ?? this.store.suggestedName());
  readonly note = computed(() => this.store.phrase()?.note ?? '');
  private readonly bars = computed(() => {
    const pattern = this.pattern();
    return pattern ? barsSpan(pattern).bars : 0;
  });
  readonly isLong = computed(() => this.bars() > MOST_RIBBON_BARS);
  /** A long phrase is engraved smaller, so that it stays on its page for as long as it can be read. */
  readonly scale = computed(() => Math.max(0.5, Math.min(0.9, 0.9 * Math.sqrt(14 / Math.max(14, this.bars())))));
  readonly facts = computed(() => {
    const p = this.pattern();
    if (!p) return '';
    return `${shapeWords(p)} · ${this.store.tempo()} beats a minute`;
  });

  constructor() {
    // While the sheet is there it is the only thing that goes on paper.
    const { classList } = this.page.documentElement;
    classList.add('has-sheet');
    inject(DestroyRef).onDestroy(() => classList.remove('has-sheet'));
  }

  print(): void {
    this.page.defaultView?.print();
  }

  save(what: 'ribbon' | 'staff'): void {
    const svg = this.sheet()?.nativeElement.querySelector(`.${what} svg`);
    if (svg instanceof SVGSVGElement)
      saveText(svgText(svg), fileName(`${this.name()} ${what}`, 'svg'), 'image/svg+xml');
  }
}
