import { ChangeDetectionStrategy, Component, output } from '@angular/core';
import { inTurns } from '../../common/in-turns';
import { EarSetupComponent } from './ear-setup.component';
import { LadderSetupComponent } from './ladder-setup.component';
import { StagesSetupComponent } from './stages-setup.component';

/** What a drill is to be: its stages, its ladder, how a rung is held, who listens. All has a good answer already. */
@Component({
  selector: 'ls-drill-setup',
  imports: [EarSetupComponent, LadderSetupComponent, StagesSetupComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ls-stages-setup role="region" aria-label="Stages" />
    @if (turn() > 0) {
      <ls-ladder-setup role="region" aria-label="Ladder" (started)="started.emit()" />
    }
    @if (turn() > 1) {
      <ls-ear-setup role="region" aria-label="Who judges" />
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: minmax(0, 5fr) minmax(260px, 3fr) minmax(280px, 3fr);
      gap: 30px;
      padding: 4px 28px;
      min-height: 0;
      overflow: auto;
    }
    @container place (max-width: 928px) {
      :host {
        grid-template-columns: 1fr 1fr;
      }
      ls-stages-setup {
        grid-column: 1 / -1;
      }
    }
    @container place (max-width: 600px) {
      :host {
        grid-template-columns: minmax(0, 1fr);
        padding: 4px 12px;
      }
    }
  `,
})
export class DrillSetupComponent {
  readonly turn = inTurns(2);
  readonly started = output();
}
