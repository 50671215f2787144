import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import type { CueLine } from '@core/show';
import { ShowsStore } from './shows.store';

type Wrong = Extract<CueLine, { readonly ok: false }>;

/** Cues as lines: typed or pasted, many at once. What cannot be read stays, with what is wrong with it. */
@Component({
  selector: 'ls-lines-box',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label class="field">
      Add cues, one a line
      <textarea
        #box
        class="input mono"
        [rows]="rows()"
        spellcheck="false"
        placeholder="Net song, 96, 4/4, 32 bars, fill 8:3, fill 16 whole"
        aria-describedby="lines-wrong"
        (input)="grow(box.value)"
        (keydown.enter)="enter($event, box)"
      ></textarea>
    </label>
    <button type="button" class="btn" [disabled]="rows() === 1 && empty()" (click)="take(box)">Add</button>
    <div id="lines-wrong" class="wrong" role="status">
      <ul>
        @for (w of wrong(); track w.line) {
          <li>{{ w.words }}</li>
        }
      </ul>
    </div>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: minmax(0, 1fr) auto;
      align-items: end;
      gap: 6px 10px;
      padding: 12px 0;
    }
    textarea {
      width: 100%;
      min-height: 38px;
      padding: 8px 10px;
      font-size: 13px;
      line-height: 1.5;
      resize: vertical;
    }
    .wrong {
      grid-column: 1 / -1;
      color: var(--mark);
      font-size: 13px;
    }
    ul {
      margin: 0;
      padding: 0;
      list-style: none;
    }
    .wrong li::before {
      content: '! ';
      font-weight: 700;
    }
  `,
})
export class LinesBoxComponent {
  private readonly store = inject(ShowsStore);
  readonly rows = signal(1);
  readonly empty = signal(true);
  readonly wrong = signal<readonly Wrong[]>([]);

  grow(text: string): void {
    this.rows.set(Math.min(14, text.split('\n').length));
    this.empty.set(text.trim() === '');
  }

  /** Enter adds; with Shift it is a new line. */
  enter(event: Event, box: HTMLTextAreaElement): void {
    if ((event as KeyboardEvent).shiftKey) return;
    event.preventDefault();
    void this.take(box);
  }

  async take(box: HTMLTextAreaElement): Promise<void> {
    const wrong = await this.store.add(box.value);
    this.wrong.set(wrong);
    box.value = wrong.map((w) => w.text).join('\n');
    this.grow(box.value);
    box.focus();
  }
}
