import { ChangeDetectionStrategy, Component, computed, inject, type OnDestroy, type OnInit } from '@angular/core';
import { Tooltip } from 'primeng/tooltip';
import { toSignal } from '@angular/core/rxjs-interop';
import { patternOf } from '../../../knowledge/patterns';
import { ShelfIndex } from '../../../knowledge/shelf-index.service';
import { PhrasesRepo } from '../../../storage/phrases.repo';
import { SettingsRepo } from '../../../storage/settings.repo';
import { NO_MARKS, type RibbonMarks } from '../../../drawings/ribbon/marks';
import { RibbonComponent } from '../../../drawings/ribbon/ribbon.component';
import { BenchStore } from '../document/bench.store';
import { CompareStore } from '../document/compare.store';
import { CursorStore } from '../ribbon/cursor.store';
import type { Choice } from '../../../widgets/choice';
import { SelectComponent } from '../../../widgets/select.component';

/** Another phrase of the shelf beneath the one on the Bench, with what differs marked on both. */
@Component({
  selector: 'ls-compare-panel',
  imports: [Tooltip, RibbonComponent, SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="head">
      <ls-select
        class="which"
        label="Phrase to compare with"
        [placeholder]="compare.other()?.name ?? 'Compare with …'"
        [options]="offered()"
        [chosen]="chosen()"
        (chose)="choose($event)"
      />
      @if (compare.other()) {
        <button
          type="button"
          class="btn small"
          [class.on]="!!compare.heard()"
          [attr.aria-pressed]="!!compare.heard()"
          (click)="compare.swap()"
        >
          <kbd>X</kbd> {{ compare.heard() ? 'Hearing the other' : 'Hear the other' }}
        </button>
        <button
          type="button"
          class="btn small"
          [disabled]="cursor.range() === null"
          (click)="cursor.copy()"
          pTooltip="Copy the chosen strokes"
        >
          Copy
        </button>
        <span class="quiet said">{{ compare.words() }}</span>
      }
    </div>
    @if (compare.other(); as other) {
      <ls-ribbon size="bench" [pattern]="other.pattern" [schools]="settings.schools()" [marks]="marks()" />
    } @else {
      <p class="quiet">
        @if (offered().length === 0) {
          Your shelf has no other phrase yet. Keep this one, change it, then compare the two.
        } @else {
          Choose a phrase. Both are drawn, differences are marked; <kbd>X</kbd> switches between them while they play.
        }
      </p>
    }
  `,
  styles: `
    :host {
      display: block;
    }
    .head {
      display: flex;
      gap: 8px;
      align-items: center;
      margin-bottom: 8px;
    }
    .which {
      flex: none;
      width: 210px;
    }
    .said {
      font-size: 12.5px;
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
  `,
})
export class ComparePanelComponent implements OnInit, OnDestroy {
  readonly compare = inject(CompareStore);
  readonly cursor = inject(CursorStore);
  readonly settings = inject(SettingsRepo);
  private readonly bench = inject(BenchStore);
  private readonly repo = inject(PhrasesRepo);
  private readonly all = toSignal(inject(ShelfIndex).names$('all'), { initialValue: [] });
  readonly chosen = computed(() => this.compare.other()?.id ?? null);
  readonly phrases = computed(() => this.all().filter((p) => p.id !== this.bench.phrase()?.id));
  readonly parent = computed(() => this.phrases().find((p) => p.id === this.bench.phrase()?.parent?.id) ?? null);
  readonly offered = computed((): readonly Choice<string>[] => {
    const parent = this.parent();
    const none = this.compare.other() ? [{ value: '', words: 'Compare with none' }] : [];
    // A phrase that was changed since it was kept can be held against what it was.
    const own = this.bench.phrase();
    const kept = own && !this.bench.isKept() ? [{ value: own.id, words: 'This phrase as kept' }] : [];
    const first = parent ? [{ value: parent.id, words: `Its parent: ${parent.name.slice(0, 80)}` }] : [];
    const rest = this.phrases().filter((p) => p.id !== parent?.id);
    return [...none, ...kept, ...first, ...rest.map((p) => ({ value: p.id, words: p.name.slice(0, 80) }))];
  });
  readonly marks = computed((): RibbonMarks => ({ ...NO_MARKS, changed: this.compare.ticks() }));

  ngOnInit(): void {
    this.compare.open.set(true);
  }

  ngOnDestroy(): void {
    this.compare.open.set(false);
  }

  async choose(id: string): Promise<void> {
    const phrase = id === '' ? null : await this.repo.get(id);
    this.compare.choose(phrase ? { id: phrase.id, name: phrase.name, pattern: patternOf(phrase) } : null);
  }
}
