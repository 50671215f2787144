import { ChangeDetectionStrategy, Component, inject, output } from '@angular/core';
import { LinesStore } from './lines.store';
import { PreviewStore } from '../document/preview.store';
import { TrailStore } from '../document/trail.store';

/** Over the ribbon: which lines it shows; and while the recipe is stepped through, what the step did. */
@Component({
  selector: 'ls-lines-bar',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (preview.words(); as words) {
      <p class="stage said" role="status">
        <span>{{ words }}</span>
      </p>
    } @else if (trail.words(); as words) {
      <p class="stage" role="status">
        <span>{{ words }}</span>
        @if (trail.stage() !== null) {
          <button type="button" class="btn small" aria-label="One step back" (click)="walked.emit(-1)">‹</button>
          <button type="button" class="btn small" aria-label="One step on" (click)="walked.emit(1)">›</button>
          <button type="button" class="btn small" (click)="trail.finish()">Whole</button>
        }
      </p>
    } @else {
      <button
        type="button"
        class="btn small plain"
        [attr.aria-expanded]="lines.open()"
        (click)="lines.open.set(!lines.open())"
      >
        Lines{{ lines.open() || lines.changed().length === 0 ? '' : ': ' + lines.changed().join(', ') }}
        <i [class]="lines.open() ? 'pi pi-chevron-right' : 'pi pi-chevron-left'" aria-hidden="true"></i>
      </button>
      @if (lines.open()) {
        <button type="button" class="btn small" (click)="lines.nextPace()">{{ lines.paceWords() }}</button>
        @for (l of ribbonLines; track l.line) {
          <button
            type="button"
            class="btn small"
            [class.on]="lines.shows(l.line)"
            [attr.aria-pressed]="lines.shows(l.line)"
            (click)="lines.toggle(l.line)"
          >
            {{ l.words }}
          </button>
        }
        @for (c of choices; track c.words) {
          <button
            type="button"
            class="btn small"
            [class.on]="c.on()"
            [attr.aria-pressed]="c.on()"
            (click)="c.on.set(!c.on())"
          >
            {{ c.words }}
          </button>
        }
      }
    }
  `,
  styles: `
    :host {
      display: flex;
      gap: 6px;
      justify-content: flex-end;
      flex-wrap: wrap;
      margin-bottom: 2px;
    }
    .stage {
      display: flex;
      align-items: center;
      gap: 6px;
      margin: 0;
      padding: 3px 10px;
      min-height: 28px;
      flex: 1;
      min-width: 0;
      background: var(--accent-soft);
      border-radius: 4px;
      font-weight: 500;
      font-size: 13px;
    }
    .stage span {
      flex: 1;
      min-width: 0;
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
  `,
  host: { role: 'group', 'aria-label': 'Lines of the ribbon' },
})
export class LinesBarComponent {
  readonly lines = inject(LinesStore);
  readonly trail = inject(TrailStore);
  readonly preview = inject(PreviewStore);
  /** One step back or on through the recipe was asked for. */
  readonly walked = output<1 | -1>();
  readonly ribbonLines = [
    { line: 'counts', words: 'Count line' },
    { line: 'letters', words: 'Sticking' },
  ] as const;
  readonly choices = [
    { on: this.lines.sung, words: 'Sung line' },
    { on: this.lines.types, words: 'Stroke types' },
    { on: this.lines.grooveOnly, words: 'Groove only' },
  ];
}
