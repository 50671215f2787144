import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import type { MoveParams } from '@core/recipe';
import { PhrasesRepo } from '../../data/phrases.repo';
import { NumberFieldComponent } from '../../ui/number-field.component';
import { plainRecipe } from '../plain-recipe';
import { textOf } from './values';

type Params = MoveParams['join'];

@Component({
  selector: 'ls-join-editor',
  imports: [NumberFieldComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label class="field"
      >Then comes
      <select class="input" (change)="choose($event)">
        <option value="" selected>{{ params().name }}</option>
        @for (o of others(); track o.id) {
          <option [value]="o.id" [disabled]="!o.recipe">{{ o.name }}{{ o.recipe ? '' : ' (joined itself)' }}</option>
        }
      </select>
    </label>
    @for (part of parts; track part.key) {
      <div class="row">
        <label class="check"
          ><input type="checkbox" [checked]="!params()[part.key]" (change)="toggleAll(part.key)" />{{
            part.words
          }}</label
        >
        @if (params()[part.key]; as p) {
          <div class="field">
            from bar
            <ls-number-field
              label="from bar"
              [least]="1"
              [most]="64"
              [value]="p.from"
              (changed)="setBars(part.key, $event, p.bars)"
            />
          </div>
          <div class="field">
            bars
            <ls-number-field
              label="bars"
              [least]="1"
              [most]="64"
              [value]="p.bars"
              (changed)="setBars(part.key, p.from, $event)"
            />
          </div>
        }
      </div>
    }
  `,
  styleUrl: './editor.css',
})
export class JoinEditorComponent {
  readonly params = input.required<Params>();
  readonly changed = output<Params>();
  readonly parts = [
    { key: 'own' as const, words: 'all of this one' },
    { key: 'their' as const, words: 'all of the other' },
  ];
  private readonly phrases = toSignal(inject(PhrasesRepo).all$, { initialValue: null });
  readonly others = computed(() =>
    (this.phrases() ?? []).map((p) => ({ id: p.id, name: p.name.slice(0, 80), recipe: plainRecipe(p.recipe) })),
  );

  choose(event: Event): void {
    const other = this.others().find((o) => o.id === textOf(event));
    if (other?.recipe) this.changed.emit({ ...this.params(), other: other.recipe, name: other.name });
  }

  toggleAll(key: 'own' | 'their'): void {
    const { own, their, ...rest } = this.params();
    const parts = { ...(own ? { own } : {}), ...(their ? { their } : {}) };
    const { [key]: there, ...others } = { own: undefined, their: undefined, ...parts };
    const kept = Object.fromEntries(Object.entries(others).filter(([, v]) => v !== undefined));
    this.changed.emit({ ...rest, ...kept, ...(there ? {} : { [key]: { from: 1, bars: 1 } }) });
  }

  setBars(key: 'own' | 'their', from: number, bars: number): void {
    this.changed.emit({ ...this.params(), [key]: { from, bars } });
  }
}
