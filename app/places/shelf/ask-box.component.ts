import { ChangeDetectionStrategy, Component, input, output, viewChild, type ElementRef } from '@angular/core';
import type { Chip } from '../../knowledge/index/entry';

/** The one box of the shelf: it takes words, and shows beside it what was understood and how many each leaves. */
@Component({
  selector: 'ls-ask-box',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <input
      #box
      id="shelf-search"
      class="input"
      type="search"
      placeholder="half bar 16ths no toms …"
      aria-label="Ask the shelf"
      maxlength="300"
      [value]="words()"
      (input)="asked.emit(box.value)"
    />
    @for (c of chips(); track c.typed + c.words) {
      <button
        type="button"
        class="chip"
        [attr.aria-label]="c.words + ', leaves ' + c.leaves + '. Remove it'"
        (click)="without(c)"
      >
        {{ c.words }} <span class="mono quiet">{{ c.leaves }}</span>
        <i class="pi pi-times" aria-hidden="true"></i>
      </button>
    }
    @if (chips().length > 0) {
      <button type="button" class="btn small plain" (click)="keep.emit(words().trim())">Keep as a board</button>
    }
    @if (reading() && words() !== '') {
      <span class="quiet" role="status">Reading the shelf …</span>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 6px;
      min-width: 0;
    }
    .input {
      width: 320px;
      max-width: 100%;
    }
    .chip {
      display: inline-flex;
      align-items: center;
      gap: 8px;
      min-height: 30px;
      padding: 2px 10px;
      border: 0;
      border-radius: 4px;
      background: var(--sunken);
      color: var(--ink);
      font: 500 12.5px/1.2 var(--text);
      cursor: pointer;
    }
    .chip .pi {
      font-size: 9px;
    }
    @container place (max-width: 628px) {
      :host {
        order: 3;
        width: 100%;
      }
      .input {
        width: 100%;
      }
    }
  `,
})
export class AskBoxComponent {
  readonly words = input.required<string>();
  readonly chips = input.required<readonly Chip[]>();
  readonly reading = input(false);
  readonly asked = output<string>();
  /** The question is to be kept as a board. */
  readonly keep = output<string>();
  private readonly field = viewChild.required<ElementRef<HTMLInputElement>>('box');

  focus(): void {
    this.field().nativeElement.focus();
  }

  /** The question without one of its conditions. */
  without({ typed }: Chip): void {
    const words = this.words().split(/\s+/).filter(Boolean);
    const part = typed.split(/\s+/);
    const at = words.findIndex((_, i) => part.every((w, k) => words[i + k]?.replace(/,$/, '') === w));
    if (at >= 0) this.asked.emit([...words.slice(0, at), ...words.slice(at + part.length)].join(' '));
  }
}
