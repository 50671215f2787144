import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  output,
  viewChild,
  type OnDestroy,
  type OnInit,
} from '@angular/core';
import { gridName, meterText } from '@core/time';
import { lengthWords } from '@core/pattern';
import { SettingsRepo } from '../data/settings.repo';
import { RibbonComponent } from '../ui/ribbon/ribbon.component';
import { fileName, saveText, svgText } from '../ui/save-svg';
import { StaffComponent } from '../ui/staff/staff.component';
import { BenchStore } from './bench.store';

/** Width of the paper's text on A4 and letter, in px at 96 to the inch, with usual margins. */
const PAPER = 690;

/** One clean page: name, tempo, the ribbon with its counts, the staff. Printed, or saved as drawings. */
@Component({
  selector: 'ls-print-sheet',
  imports: [RibbonComponent, StaffComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="bar">
      <span class="quiet">One page to put on the music stand.</span>
      <span class="spacer"></span>
      <button type="button" class="btn" (click)="save('ribbon')">Save the ribbon as SVG</button>
      <button type="button" class="btn" (click)="save('staff')">Save the staff as SVG</button>
      <button type="button" class="btn primary" (click)="print()">Print</button>
      <button type="button" class="btn" (click)="closed.emit()">Close</button>
    </div>
    @if (pattern(); as p) {
      <div class="sheet" #sheet tabindex="0" role="region" aria-label="The page">
        <h1>{{ name() }}</h1>
        <p>{{ facts() }}</p>
        <ls-ribbon class="ribbon" size="bench" [pattern]="p" [schools]="settings.schools()" [width]="paper" />
        <ls-staff class="staff" [pattern]="p" [label]="name()" [width]="paper" [scale]="0.9" />
        @if (note(); as n) {
          <p class="note">{{ n }}</p>
        }
      </div>
    }
  `,
  styles: `
    :host {
      position: fixed;
      inset: 0;
      z-index: 40;
      overflow: auto;
      background: var(--sunken);
      display: flex;
      flex-direction: column;
      align-items: center;
    }
    .bar {
      position: sticky;
      top: 0;
      z-index: 1;
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      align-items: center;
      width: 100%;
      padding: 10px 24px;
      background: var(--surface);
      border-bottom: 1px solid var(--line);
    }
    .sheet {
      width: 770px;
      max-width: 100%;
      margin: 20px auto;
      padding: 36px 40px;
      background: #fff;
      overflow-x: auto;
      --ink: #16191d;
      --quiet: #55554f;
      --ground: #fff;
      --surface: #fff;
      --tint: #f1eee8;
      --line-strong: #8c867a;
      --skin: #a8442a;
      --metal: #0e6a74;
      --wood: #7a5c0c;
      --foot: #5d3566;
      --accent: #0e5a63;
      --mark: #b63a0a;
      color: var(--ink);
    }
    .sheet p {
      margin: 4px 0 18px;
    }
    .staff {
      margin-top: 26px;
    }
    .note {
      white-space: pre-line;
    }
    @media print {
      :host {
        position: static;
        display: block;
        overflow: visible;
        background: #fff;
      }
      .bar {
        display: none;
      }
      .sheet {
        margin: 0;
        padding: 0;
        width: 100%;
      }
    }
  `,
})
export class PrintSheetComponent implements OnInit, OnDestroy {
  readonly closed = output();
  readonly settings = inject(SettingsRepo);
  private readonly store = inject(BenchStore);
  private readonly sheet = viewChild<ElementRef<HTMLElement>>('sheet');
  readonly paper = PAPER;
  readonly pattern = computed(() => this.store.build()?.pattern ?? null);
  readonly name = computed(() => this.store.phrase()?.name ?? this.store.suggestedName());
  readonly note = computed(() => this.store.phrase()?.note ?? '');
  readonly facts = computed(() => {
    const p = this.pattern();
    return p
      ? `${lengthWords(p)} of ${meterText(p.meter)} · ${gridName(p.grid)} · ${this.store.tempo()} beats a minute`
      : '';
  });

  /** While the sheet is there it is the only thing that goes on paper. */
  ngOnInit(): void {
    document.documentElement.classList.add('has-sheet');
  }

  ngOnDestroy(): void {
    document.documentElement.classList.remove('has-sheet');
  }

  print(): void {
    window.print();
  }

  save(what: 'ribbon' | 'staff'): void {
    const svg = this.sheet()?.nativeElement.querySelector(`.${what} svg`);
    if (svg instanceof SVGSVGElement)
      saveText(svgText(svg), fileName(`${this.name()} ${what}`, 'svg'), 'image/svg+xml');
  }
}
