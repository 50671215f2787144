import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  output,
  viewChild,
} from '@angular/core';
import type { Pattern } from '@core/pattern';
import { Transport } from '../../../sound/transport.service';
import { SettingsRepo } from '../../../storage/settings.repo';
import type { RibbonMarks } from '../../../drawings/ribbon/marks';
import { RibbonEditorComponent } from '../../../drawings/ribbon/ribbon-editor.component';
import { CursorStore } from './cursor.store';
import { HandStore } from './hand.store';
import { LinesBarComponent } from './lines-bar.component';
import { LinesStore } from './lines.store';
import { MarksStore } from './marks.store';
import { SoundStore } from './sound.store';

/** Over a row stand its counts, under it its brackets: so many px belong to it there. */
const OVER_ROW = 44;
const UNDER_ROW = 30;

/** Where a box has to be scrolled to so that a row of what it holds is in sight; null where it is. */
export function scrolledTo(
  row: { readonly top: number; readonly bottom: number },
  box: { readonly scrollTop: number; readonly clientHeight: number },
): number | null {
  const [top, bottom] = [Math.max(0, row.top - OVER_ROW), row.bottom + UNDER_ROW];
  const isSeen = top >= box.scrollTop && bottom <= box.scrollTop + box.clientHeight;
  return isSeen ? null : top;
}

/** The ribbon, large, under a hand: with its lines above it and what stands at the cursor below. */
@Component({
  selector: 'ls-ribbon-pane',
  imports: [LinesBarComponent, RibbonEditorComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ls-lines-bar (walked)="walked.emit($event)" />
    <div #drawing class="drawing">
      @if (pattern().strokes.length === 0) {
        <p class="quiet nothing">No strokes yet. Write some on the ribbon, undo, or change a move.</p>
      }
      <ls-ribbon-editor
        [groovesOnly]="lines.grooveOnly()"
        [silent]="!sound.isShown()"
        [pattern]="pattern()"
        [schools]="settings.schools()"
        [pace]="lines.pace()"
        [sung]="lines.sung() ? settings.sung() : null"
        [types]="lines.types()"
        [hide]="lines.hidden()"
        [position]="transport.position"
        [loop]="sound.loop()"
        [origin]="sound.origin()"
        [pointed]="pointed()"
        [marks]="marks()"
        [label]="'Ribbon of ' + name() + ': arrows move, letters write strokes, Escape leaves'"
        [said]="cursor.words()"
        (gesture)="hand.gesture($event)"
        (keyed)="hand.key($event)"
      />
    </div>
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      min-height: 0;
    }
    .drawing {
      flex: 0 1 auto;
      min-height: 130px;
      overflow: auto;
      /* The room into which a row's drawing may reach. */
      padding: 2px 12px 12px 2px;
      margin: 0 -12px 0 -2px;
    }
    .nothing {
      margin-bottom: 12px;
    }
  `,
})
export class RibbonPaneComponent {
  readonly pattern = input.required<Pattern>();
  readonly name = input('the phrase');
  readonly pointed = input<readonly number[]>([]);
  /** Pairs of strokes that come too near each other, while the ribbon shows the finished phrase. */
  readonly tight = input<RibbonMarks['tight']>([]);
  /** A step back or on through the recipe was asked for. */
  readonly walked = output<1 | -1>();
  readonly cursor = inject(CursorStore);
  readonly hand = inject(HandStore);
  readonly lines = inject(LinesStore);
  readonly sound = inject(SoundStore);
  readonly settings = inject(SettingsRepo);
  readonly transport = inject(Transport);
  private readonly store = inject(MarksStore);
  private readonly editor = viewChild.required(RibbonEditorComponent);
  private readonly drawing = viewChild.required<ElementRef<HTMLElement>>('drawing');
  readonly marks = computed((): RibbonMarks => ({ ...this.store.marks(), tight: this.tight() }));

  constructor() {
    // What sounds stays in sight: where the phrase is longer than the room for it, its rows go by.
    afterRenderEffect(() => {
      const row = this.editor().sounding();
      const drawing = this.drawing().nativeElement;
      if (!row) return;
      const to = scrolledTo(row, drawing);
      if (to !== null) drawing.scrollTop = to;
    });
  }

  focus(): void {
    this.editor().focus();
  }
}
