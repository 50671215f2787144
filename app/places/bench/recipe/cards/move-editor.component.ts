import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  input,
  inputBinding,
  output,
  outputBinding,
  untracked,
  viewChild,
  ViewContainerRef,
} from '@angular/core';
import type { Pattern } from '@core/pattern';
import type { MoveEntry } from '@core/recipe';
import { EDITORS } from './editors';

/** The editor that fits a move, inside its card. */
@Component({
  selector: 'ls-move-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<ng-container #place />`,
  styles: `
    :host {
      display: block;
      margin-top: 8px;
    }
  `,
})
export class MoveEditorComponent {
  readonly entry = input.required<MoveEntry>();
  /** The pattern the move acts on. */
  readonly before = input.required<Pattern>();
  readonly changed = output<MoveEntry>();
  private readonly place = viewChild.required('place', { read: ViewContainerRef });
  private readonly move = computed(() => this.entry().move);

  constructor() {
    effect(() => {
      const [place, editor] = [this.place(), EDITORS[this.move()]];
      untracked(() => {
        place.clear();
        place.createComponent<unknown>(editor, {
          bindings: [
            inputBinding('params', () => this.entry().params),
            inputBinding('before', this.before),
            // An editor tells the parameters of its own move.
            outputBinding<MoveEntry['params']>('changed', (params) =>
              this.changed.emit({ ...this.entry(), params } as MoveEntry),
            ),
          ],
        });
      });
    });
  }
}
