import { DOCUMENT } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  inject,
  input,
  output,
  resource,
} from '@angular/core';
import { Dialog } from 'primeng/dialog';
import { shapeWords } from '@core/pattern';
import { rendition } from '@core/rendition';
import { patternOf } from '../data/patterns';
import { PhrasesRepo } from '../data/phrases.repo';
import { SettingsRepo } from '../data/settings.repo';
import { DialogFocusDirective } from '../ui/dialog-focus.directive';
import { RibbonComponent } from '../ui/ribbon/ribbon.component';

/** Width of the paper's text on A4 and Letter, in px at 96 to the inch, with usual margins. */
const PAPER = 690;
const MOST = 100;

/** Several phrases together on paper: of each its name, tempo, ribbon and note. */
@Component({
  selector: 'ls-print-phrases',
  imports: [Dialog, DialogFocusDirective, RibbonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog
      header="Pages for the music stand"
      [visible]="true"
      closeAriaLabel="Close"
      [modal]="true"
      [draggable]="false"
      appendTo="body"
      styleClass="sheet-dialog"
      [style]="{ width: '850px', maxWidth: '96vw', maxHeight: '96vh' }"
      (visibleChange)="closed.emit()"
    >
      <div class="bar">
        <button type="button" class="btn primary" [disabled]="!pages()" (click)="print()">Print</button>
        @if (ids().length > most) {
          <span class="quiet">The first {{ most }} of {{ ids().length }}.</span>
        }
      </div>
      <div class="sheet" tabindex="0" role="region" aria-label="The pages">
        @for (p of pages(); track p.id) {
          <section>
            <h2>{{ p.name }}</h2>
            <p>{{ p.facts }}</p>
            <ls-ribbon size="bench" [pattern]="p.pattern" [schools]="settings.schools()" [width]="paper" />
            @if (p.note) {
              <p class="note">{{ p.note }}</p>
            }
          </section>
        }
      </div>
    </p-dialog>
  `,
  styleUrl: './print-phrases.component.css',
})
export class PrintPhrasesComponent {
  private readonly phrases = inject(PhrasesRepo);
  private readonly page = inject(DOCUMENT);
  readonly settings = inject(SettingsRepo);
  readonly ids = input.required<readonly string[]>();
  readonly closed = output();
  readonly paper = PAPER;
  readonly most = MOST;
  private readonly read = resource({
    params: () => this.ids().slice(0, MOST),
    loader: ({ params }) => this.phrases.some(params),
  });
  readonly pages = computed(() => {
    if (!this.read.hasValue()) return null;
    return this.read.value().map((phrase) => {
      const { pattern } = rendition({ phrase: patternOf(phrase) });
      return {
        id: phrase.id,
        name: phrase.name.slice(0, 200),
        note: phrase.note.slice(0, 500),
        pattern,
        facts: `${shapeWords(pattern)} · ${phrase.tempo} beats a minute, goal ${phrase.goal}`,
      };
    });
  });

  constructor() {
    // While the pages are there they are the only thing that goes on paper.
    const { classList } = this.page.documentElement;
    classList.add('has-sheet');
    inject(DestroyRef).onDestroy(() => classList.remove('has-sheet'));
  }

  print(): void {
    this.page.defaultView?.print();
  }
}
