import { CdkDrag, CdkDragHandle, CdkDropList, type CdkDragDrop } from '@angular/cdk/drag-drop';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MenuButtonComponent } from '../../widgets/menu-button.component';
import { SelectComponent } from '../../widgets/select.component';
import { stageTitle, stageWhy, type Stage } from '@core/drill';
import type { Choice } from '../../widgets/choice';
import { PlanStore } from './plan.store';
import { SubjectStore } from './subject.store';
import { TermComponent } from '../../guide/term.component';

/** Plain time in place of a groove of the shelf. */
const PLAIN = '';

/** The stages of a drill in their order, each with its reason: proposed, and dragged, dropped and added to. */
@Component({
  selector: 'ls-stages-setup',
  imports: [TermComponent, CdkDropList, CdkDrag, CdkDragHandle, MenuButtonComponent, SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="head">
      <h2 id="stages-title"><ls-term of="stage" as="Stages" /></h2>
      <span class="quiet">about {{ plans.minutes() }} min if all tries are clean</span>
      <span class="spacer"></span>
      <ls-menu-button
        words="Add"
        label="Add a stage"
        [small]="true"
        [choices]="plans.additions()"
        (chose)="plans.add($event)"
      />
      <button type="button" class="btn small" (click)="plans.onlyWhole()">Whole phrase only</button>
      <button type="button" class="btn small" (click)="plans.proposeAnew()">Reset stages</button>
    </div>
    <ol cdkDropList (cdkDropListDropped)="move($event)" aria-labelledby="stages-title">
      @for (s of plans.stages(); track s.id; let i = $index) {
        <li cdkDrag>
          <button
            type="button"
            class="grip"
            cdkDragHandle
            [attr.aria-label]="title(s) + ', up or down: arrow keys, or drag'"
            (keydown.arrowup)="$event.preventDefault(); $event.stopPropagation(); plans.moveStage(i, i - 1)"
            (keydown.arrowdown)="$event.preventDefault(); $event.stopPropagation(); plans.moveStage(i, i + 1)"
          >
            {{ i + 1 }}
          </button>
          <span class="what">
            <strong>{{ title(s) }}</strong> <span class="quiet">{{ why(s) }}</span>
            @if ((s.kind === 'context' || s.kind === 'every-beat' || s.kind === 'free') && grooves().length > 1) {
              <ls-select
                class="groove"
                [label]="'Groove: ' + title(s)"
                [options]="grooves()"
                [chosen]="s.groove ?? plain"
                (chose)="plans.keepTime(s.id, $event === plain ? null : $event)"
              />
            }
          </span>
          <button
            type="button"
            class="btn small plain"
            [disabled]="plans.stages().length < 2"
            [attr.aria-label]="'Remove: ' + title(s)"
            (click)="plans.dropStage(s.id)"
          >
            <i class="pi pi-times" aria-hidden="true"></i>
          </button>
        </li>
      }
    </ol>
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      gap: 12px;
      min-width: 0;
    }
    .head {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      align-items: center;
    }
    ol {
      list-style: none;
      margin: 0;
      padding: 0;
      display: flex;
      flex-direction: column;
      gap: 4px;
      overflow: auto;
    }
    li {
      display: flex;
      gap: 10px;
      align-items: center;
      padding: 5px 4px 5px 6px;
      border: 1px solid var(--line);
      border-radius: var(--radius);
      background: var(--surface);
    }
    .grip {
      width: 28px;
      min-height: 32px;
      border: 0;
      background: transparent;
      color: var(--quiet);
      font: 600 13px var(--mono);
      cursor: grab;
    }
    .what {
      flex: 1;
      min-width: 0;
      font-size: 14px;
      line-height: 1.3;
    }
    .what strong {
      font-weight: 600;
    }
    .what .quiet {
      margin-left: 6px;
      font-size: 12.5px;
    }
    .groove {
      margin-top: 4px;
      max-width: 320px;
    }
  `,
})
export class StagesSetupComponent {
  readonly plans = inject(PlanStore);
  private readonly subject = inject(SubjectStore);
  readonly plain = PLAIN;
  readonly title = stageTitle;
  readonly why = (stage: Stage): string => {
    const phrase = this.subject.whole();
    return phrase ? stageWhy(stage, phrase) : '';
  };
  readonly grooves = computed((): readonly Choice<string>[] => [
    { value: PLAIN, words: 'plain groove' },
    ...this.subject.grooves().map((g) => ({ value: g.id, words: g.name.slice(0, 60) })),
  ]);

  move(event: CdkDragDrop<unknown>): void {
    this.plans.moveStage(event.previousIndex, event.currentIndex);
  }
}
