import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import type { Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { ShelfIndex } from '../../../../knowledge/shelf-index.service';
import { PhrasesRepo } from '../../../../storage/phrases.repo';
import { NumberFieldComponent } from '../../../../widgets/number-field.component';
import { plainRecipe } from '../../document/plain-recipe';
import { SelectComponent } from '../../../../widgets/select.component';

type Params = MoveParams['join'];

@Component({
  selector: 'ls-join-editor',
  imports: [NumberFieldComponent, SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="field">
      Then comes
      <ls-select
        label="Then comes"
        [placeholder]="params().name"
        [options]="offered()"
        [chosen]="null"
        (chose)="choose($event)"
      />
    </div>
    @if (refused(); as words) {
      <p class="quiet" role="alert">{{ words }}</p>
    }
    <label class="check"
      ><input type="checkbox" [checked]="params().alone === true" (change)="toggleAlone()" />in place of this one</label
    >
    @for (part of params().alone ? theirs : parts; track part.key) {
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
  readonly before = input.required<Pattern>();
  readonly changed = output<Params>();
  readonly parts = [
    { key: 'own' as const, words: 'all of this one' },
    { key: 'their' as const, words: 'all of the other' },
  ];
  readonly theirs = this.parts.filter((p) => p.key === 'their');
  private readonly phrases = inject(PhrasesRepo);
  private readonly names = toSignal(inject(ShelfIndex).names$('all'), { initialValue: [] });
  /** Why the phrase that was chosen last cannot be joined. */
  readonly refused = signal<string | null>(null);
  readonly offered = computed(() => this.names().map((p) => ({ value: p.id, words: p.name.slice(0, 80) })));

  async choose(id: string): Promise<void> {
    const phrase = await this.phrases.get(id);
    if (!phrase) return;
    const other = plainRecipe(phrase.recipe);
    const name = phrase.name.slice(0, 80);
    this.refused.set(other ? null : `“${name}” is already joined from others, so it cannot be joined again.`);
    if (other) this.changed.emit({ ...this.params(), other, name });
  }

  toggleAlone(): void {
    const { alone, own: _, ...rest } = this.params();
    this.changed.emit(alone ? rest : { ...rest, alone: true });
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
