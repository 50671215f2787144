import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { TermComponent } from './term.component';
import type { Term } from './terms';

interface Piece {
  readonly text: string;
  readonly term: Term | null;
}

/** A sentence in pieces: each of the words that are to be explained on its own where it first stands. */
export function piecesOf(text: string, terms: readonly Term[]): readonly Piece[] {
  let pieces: readonly Piece[] = [{ text, term: null }];
  for (const term of terms) {
    const at = pieces.findIndex((p) => p.term === null && RegExp(`\\b${term}\\b`, 'i').test(p.text));
    const whole = pieces[at]?.text ?? '';
    const [word = ''] = RegExp(`\\b${term}\\b`, 'i').exec(whole) ?? [];
    if (word === '') continue;
    const from = whole.indexOf(word);
    const parts: readonly Piece[] = [
      { text: whole.slice(0, from), term: null },
      { text: word, term },
      { text: whole.slice(from + word.length), term: null },
    ];
    pieces = [...pieces.slice(0, at), ...parts.filter((p) => p.text !== ''), ...pieces.slice(at + 1)];
  }
  return pieces;
}

/** A computed sentence in which words of ours say what they mean. */
@Component({
  selector: 'ls-termed',
  imports: [TermComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (p of pieces(); track $index) {
      @if (p.term; as term) {
        <ls-term [of]="term" [as]="p.text" />
      } @else {
        <span>{{ p.text }}</span>
      }
    }
  `,
})
export class TermedComponent {
  readonly text = input.required<string>();
  readonly terms = input.required<readonly Term[]>();
  readonly pieces = computed(() => piecesOf(this.text(), this.terms()));
}
