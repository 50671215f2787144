import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { Tooltip } from 'primeng/tooltip';
import { loopTicks, type Pattern } from '@core/pattern';
import type { ClickKind } from '@core/playback';
import { Transport } from '../../../sound/transport.service';
import { KitsRepo } from '../../../storage/kits.repo';
import { RibbonComponent } from '../../../drawings/ribbon/ribbon.component';
import { BenchStore } from '../document/bench.store';
import { HeardStore } from './heard.store';

/**
 * A phrase that a sheet found: its number, what it is (`[what]`), how fast it can go, its picture, what to do with it.
 */
@Component({
  selector: 'ls-found-row',
  imports: [RibbonComponent, Tooltip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <article class="row" [class.flat]="flat()">
      <span class="mono number">{{ number() }}</span>
      <span class="what"><ng-content select="[what]" /></span>
      <span class="mono bpm" [class.over]="isOver()" [pTooltip]="'Fastest tempo on ' + kits.current().name">{{
        ceiling() === null ? 'any' : ceiling()
      }}</span>
      <span class="drawing"
        ><ls-ribbon
          [pattern]="pattern()"
          size="card"
          [position]="transport.position"
          [loop]="loop()"
          [silent]="!heard.is(pattern()) || heard.inTime()"
      /></span>
      <span class="acts">
        <button
          type="button"
          class="btn small"
          (click)="heard.toggle(pattern(), click())"
          [attr.aria-label]="(heard.is(pattern()) ? 'Stop ' : 'Hear ') + noun() + ' ' + number()"
        >
          <i [class]="heard.is(pattern()) ? 'pi pi-stop' : 'pi pi-play'" aria-hidden="true"></i>
        </button>
        <ng-content />
      </span>
    </article>
  `,
  styles: `
    :host {
      display: block;
      container: found / inline-size;
    }
    .row {
      min-height: 60px;
      display: grid;
      grid-template-columns: 26px minmax(150px, 2fr) 4ch minmax(84px, 1.4fr) auto;
      gap: 0 8px;
      align-items: center;
      border-bottom: 1px solid var(--line);
    }
    .flat {
      height: 60px;
      overflow: hidden;
    }
    .number {
      font-weight: 600;
      text-align: right;
    }
    .what {
      min-width: 0;
      display: flex;
      flex-direction: column;
    }
    .bpm {
      text-align: right;
    }
    .bpm.over {
      color: var(--mark);
    }
    .drawing {
      min-width: 0;
      overflow: hidden;
    }
    .acts {
      display: flex;
      gap: 4px;
      align-items: center;
    }
    /* Beside what is asked for, and on a phone, what can be done stands below. */
    @container found (max-width: 580px) {
      .row:not(.flat) {
        grid-template-columns: 26px minmax(0, 1fr) 4ch minmax(84px, 1fr);
        padding: 6px 0;
      }
      .acts {
        grid-column: 2 / -1;
      }
      /* In a list of rows that are all of one height the picture gives way. */
      .flat {
        grid-template-columns: 26px minmax(0, 1fr) 4ch;
      }
      .flat .drawing {
        display: none;
      }
    }
    @container found (max-width: 420px) {
      .row:not(.flat) {
        grid-template-columns: 26px minmax(0, 1fr) 4ch;
      }
      .row:not(.flat) .drawing {
        grid-column: 2 / -1;
      }
    }
  `,
})
export class FoundRowComponent {
  readonly pattern = input.required<Pattern>();
  readonly number = input.required<number>();
  /** What it is called in the names of its buttons. */
  readonly noun = input.required<string>();
  readonly ceiling = input.required<number | null>();
  readonly click = input.required<ClickKind>();
  /** Whether it stands in a list whose rows are all of one height. */
  readonly flat = input(false);
  readonly heard = inject(HeardStore);
  readonly transport = inject(Transport);
  readonly kits = inject(KitsRepo);
  private readonly bench = inject(BenchStore);
  readonly loop = computed(() => loopTicks(this.pattern()));
  readonly isOver = computed(() => {
    const top = this.ceiling();
    return top !== null && top < this.bench.tempo();
  });
}
