import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { LIMB_WORDS, LIMBS, type Limb } from '@core/stroke';
import { placeWords, type Pattern } from '@core/pattern';
import type { Edit, MoveParams } from '@core/recipe';
import { SettingsRepo } from '../../../../storage/settings.repo';

/** Rest, ghost, tap, accent: what pressing a place again and again goes through. */
const ROUND = [null, 'ghost', 'tap', 'accent'] as const;

/** Single strokes by hand: a row a limb, a place a slot; pressing goes through rest, ghost, tap and accent. */
@Component({
  selector: 'ls-touch-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="rows">
      @for (row of rows(); track row.limb) {
        <div class="limb" role="group" [attr.aria-label]="words[row.limb]">
          <span class="mono">{{ row.limb }}</span>
          @for (c of row.cells; track c.at) {
            <button
              type="button"
              [class]="c.level ?? 'rest'"
              [class.mine]="c.mine"
              [attr.aria-label]="words[row.limb] + ', ' + c.words + ', ' + (c.level ?? 'rest')"
              (click)="press(row.limb, c)"
            ></button>
          }
        </div>
      }
    </div>
    @if (params().edits.length > 0) {
      <button type="button" class="btn small" (click)="changed.emit({ edits: [] })">
        Undo all {{ params().edits.length }}
      </button>
    }
  `,
  styleUrl: './editor.css',
  styles: `
    .rows {
      overflow-x: auto;
      padding-bottom: 6px;
    }
    .limb {
      display: flex;
      gap: 2px;
      align-items: center;
    }
    .limb span {
      width: 14px;
      flex: none;
    }
    .limb button {
      flex: none;
      width: 24px;
      height: 26px;
      padding: 0;
      border: 1px solid var(--line);
      border-radius: 2px;
      cursor: pointer;
      background: linear-gradient(var(--skin), var(--skin)) bottom / 100% var(--h, 0%) no-repeat;
    }
    .ghost {
      --h: 25%;
    }
    .tap {
      --h: 55%;
    }
    .accent {
      --h: 100%;
    }
    .limb .mine {
      border-color: var(--mark);
    }
  `,
})
export class TouchEditorComponent {
  private readonly settings = inject(SettingsRepo);
  readonly params = input.required<MoveParams['touch']>();
  readonly before = input.required<Pattern>();
  readonly changed = output<MoveParams['touch']>();
  readonly words = LIMB_WORDS;
  readonly rows = computed(() => {
    const pattern = this.before();
    const slots = Math.min(128, Math.floor(pattern.length / pattern.grid));
    const { edits } = this.params();
    return LIMBS.filter((l) => l !== 'J').map((limb) => ({
      limb,
      cells: Array.from({ length: slots }, (_, i) => {
        const at = i * pattern.grid;
        const edit = edits.find((e) => e.at === at && e.limb === limb);
        const there = pattern.strokes.find((s) => s.at === at && s.limb === limb);
        const level = edit ? (edit.stroke?.level ?? null) : (there?.level ?? null);
        return {
          at,
          level,
          original: there?.level ?? null,
          mine: edit !== undefined,
          words: placeWords(pattern, at, this.settings.schools()),
        };
      }),
    }));
  });

  press(
    limb: Limb,
    cell: { readonly at: number; readonly level: (typeof ROUND)[number]; readonly original: (typeof ROUND)[number] },
  ): void {
    const next = ROUND[(ROUND.indexOf(cell.level) + 1) % ROUND.length] ?? null;
    const others = this.params().edits.filter((e) => e.at !== cell.at || e.limb !== limb);
    // Back where it was is no edit.
    const edits: Edit[] =
      next === cell.original
        ? others
        : [...others, { at: cell.at, limb, stroke: next === null ? null : { level: next } }];
    this.changed.emit({ edits });
  }
}
