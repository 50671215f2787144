import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import type { Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { roundWays, type RoundWay } from '@core/variants';
import { AbleService } from '../../../../knowledge/able.service';
import { KitsRepo } from '../../../../storage/kits.repo';
import { SelectionEditorComponent } from './selection-editor.component';
import { StrokeTextComponent } from './stroke-text.component';

type Params = MoveParams['round'];

/** Whether the hands also play over the line, and whether they begin anew behind each of its strokes. */
const FLAGS = ['over', 'anew'] as const;

@Component({
  selector: 'ls-round-editor',
  imports: [SelectionEditorComponent, StrokeTextComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ls-selection-editor [value]="params().select" [before]="before()" (changed)="set({ select: $event })" />
    <ls-stroke-text label="What the hands play" [text]="params().text" (changed)="set({ text: $event })" />
    <div class="ways" role="group" aria-label="Stickings round it, the fastest first">
      @for (w of ways(); track w.text) {
        <button
          type="button"
          class="btn small"
          [class.on]="w.text === params().text"
          [attr.aria-pressed]="w.text === params().text"
          (click)="set({ text: w.text })"
        >
          <span class="mono">{{ w.text }}</span>&ngsp;<span class="quiet">{{ upTo(w) }}</span>
        </button>
      }
    </div>
    @for (flag of flags; track flag) {
      <label class="check"
        ><input type="checkbox" [checked]="params()[flag] === true" (change)="toggle(flag)" />{{
          flag === 'over' ? 'Over the line too' : 'From the start again after each'
        }}</label
      >
    }
  `,
  styleUrl: './editor.css',
  styles: `
    .ways {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 6px;
    }
  `,
})
export class RoundEditorComponent {
  private readonly kits = inject(KitsRepo);
  private readonly able = inject(AbleService);
  readonly params = input.required<Params>();
  readonly before = input.required<Pattern>();
  readonly changed = output<Params>();
  readonly flags = FLAGS;
  readonly ways = computed(() => roundWays(this.before(), this.params(), this.kits.current(), this.able.now()));

  upTo({ bpm }: RoundWay): string {
    return bpm === null ? 'no limit' : `up to ${Math.floor(bpm)}`;
  }

  toggle(flag: (typeof FLAGS)[number]): void {
    const { [flag]: was, ...rest } = this.params();
    this.changed.emit(was ? rest : { ...rest, [flag]: true });
  }

  set(part: Partial<Params>): void {
    this.changed.emit({ ...this.params(), ...part });
  }
}
