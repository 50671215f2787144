import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { CdkDragHandle } from '@angular/cdk/drag-drop';
import { RouterLink } from '@angular/router';
import type { Block } from '@core/plan';
import type { Pattern } from '@core/pattern';
import { RibbonComponent } from '../../drawings/ribbon/ribbon.component';
import { KIND_TERMS, KIND_WORDS } from './kinds';
import { TermComponent } from '../../guide/term.component';
import type { Term } from '../../guide/terms';
import { TermedComponent } from '../../guide/termed.component';

/** Pixels a minute on the timeline, and the least a block is high. */
const A_MINUTE = 9;
const LEAST = 62;

/** One block of the day: when, how long, what, and why. */
@Component({
  selector: 'ls-block-row',
  imports: [TermedComponent, TermComponent, CdkDragHandle, RibbonComponent, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let b = block();
    <span class="at mono" aria-hidden="true">{{ b.at }}′</span>
    <span class="line" [class]="b.kind" aria-hidden="true"></span>
    @if (b.kind === 'break') {
      <span class="minutes"
        ><strong>{{ b.minutes }}</strong> min</span
      >
      <p class="words quiet">{{ b.words }}</p>
    } @else {
      <button
        type="button"
        class="minutes grip"
        cdkDragHandle
        [attr.aria-label]="name() + ', ' + b.minutes + ' minutes. ' + keysHint"
        (keydown)="key($event)"
      >
        <strong>{{ b.minutes }}</strong> min
      </button>
      <span class="drawing" aria-hidden="true">
        @if (pattern(); as p) {
          <ls-ribbon [pattern]="p" size="strip" [silent]="true" />
        }
      </span>
      <div class="what">
        <h3>
          <span class="name cut">{{ b.name }}</span>
          <span class="kind">
            @if (term(); as t) {
              <ls-term [of]="t" [as]="kind()" />
            } @else {
              {{ kind() }}
            }
          </span>
          @if (b.round; as r) {
            <span class="quiet small">round {{ r.n }} of {{ r.of }}</span>
          }
          @if (b.kind === 'play') {
            <a class="small heard" routerLink="/play">Let it be heard</a>
          }
        </h3>
        <p class="words"><ls-termed [text]="b.words" [terms]="inWords()" /></p>
      </div>
      <div class="acts" role="group" [attr.aria-label]="'Change ' + name()">
        <button type="button" class="btn small plain" aria-label="Shorter" (click)="longer.emit(-1)">
          <i class="pi pi-minus" aria-hidden="true"></i>
        </button>
        <button type="button" class="btn small plain" aria-label="Longer" (click)="longer.emit(1)">
          <i class="pi pi-plus" aria-hidden="true"></i>
        </button>
        <button
          type="button"
          class="btn small plain"
          [class.on]="b.held"
          [attr.aria-pressed]="b.held"
          aria-label="Hold it as it is"
          (click)="hold.emit()"
        >
          <i [class]="b.held ? 'pi pi-lock' : 'pi pi-lock-open'" aria-hidden="true"></i>
        </button>
        <button type="button" class="btn small plain" (click)="notToday.emit()">Skip</button>
      </div>
    }
  `,
  styles: `
    .heard {
      line-height: 24px;
    }
    :host {
      display: grid;
      grid-template-columns: 34px 14px 62px 150px minmax(0, 1fr) auto;
      gap: 12px;
      align-items: center;
      border-bottom: 1px solid var(--line);
      background: var(--ground);
    }
    .at {
      color: var(--quiet);
      font-size: 11.5px;
      align-self: start;
      padding-top: 8px;
      text-align: right;
    }
    /* The kind by the weight of its line: climbing full, keeping thin, free play dashed. */
    .line {
      align-self: stretch;
      margin: 1px 0;
      border-left: 8px solid var(--accent);
    }
    .line.keep {
      border-left: 4px double var(--accent);
    }
    .line.warm-up {
      border-left: 3px solid var(--line-strong);
    }
    .line.new {
      border-left: 8px solid var(--wood);
    }
    .line.mend {
      border-left: 8px solid var(--mark);
    }
    .line.play {
      border-left: 4px dashed var(--accent);
    }
    .line.break {
      border-left: 2px dotted var(--line-strong);
    }
    .minutes {
      font-size: 13px;
      color: var(--quiet);
      text-align: left;
      white-space: nowrap;
    }
    .minutes strong {
      font: 650 21px/1 var(--head);
      color: var(--ink);
    }
    .grip {
      border: 0;
      padding: 6px 0;
      background: none;
      font-family: var(--text);
      cursor: grab;
    }
    .drawing {
      overflow: hidden;
    }
    .what {
      min-width: 0;
      padding: 8px 0;
    }
    h3 {
      display: flex;
      gap: 10px;
      align-items: baseline;
      font: 600 15px/1.25 var(--text);
      color: var(--ink);
    }
    .kind {
      font: 500 12px/1 var(--text);
      color: var(--accent);
    }
    h3 a {
      color: var(--accent);
    }
    .words {
      font-size: 13px;
      line-height: 1.35;
    }
    :host(.of-break) .words {
      grid-column: 4 / -1;
    }
    .acts .pi {
      font-size: 12px;
    }
    .acts {
      display: flex;
      gap: 2px;
      align-items: center;
    }
    .acts .btn {
      color: var(--quiet);
    }
    :host(:hover) .acts .btn,
    :host(:focus-within) .acts .btn,
    .acts .on {
      color: var(--ink);
    }
    @media (pointer: coarse) {
      .acts .btn {
        min-height: 44px;
        min-width: 40px;
        justify-content: center;
      }
    }
    @container place (max-width: 828px) {
      :host {
        grid-template-columns: 26px 10px 58px minmax(0, 1fr) auto;
        gap: 8px;
      }
      .drawing {
        display: none;
      }
      :host(.of-break) .words {
        grid-column: 4 / -1;
      }
    }
    @container place (max-width: 600px) {
      :host {
        grid-template-columns: 10px 54px minmax(0, 1fr);
      }
      .at {
        display: none;
      }
      .acts {
        grid-column: 1 / -1;
        justify-content: flex-end;
      }
      :host(.of-break) .words {
        grid-column: 3 / -1;
      }
    }
  `,
  host: {
    role: 'listitem',
    '[style.min-height.px]': 'height()',
    '[class.of-break]': "block().kind === 'break'",
  },
})
export class BlockRowComponent {
  readonly block = input.required<Block>();
  /** Whether it is the first of its kind: there the kind says what it means. */
  readonly first = input(false);
  /** The words of ours that are explained in its sentence. */
  readonly inWords = computed((): readonly Term[] => (this.first() && this.block().kind === 'rise' ? ['chance'] : []));
  readonly term = computed(() => (this.first() ? KIND_TERMS[this.block().kind] : undefined));
  readonly pattern = input<Pattern | null>(null);
  readonly longer = output<number>();
  readonly hold = output();
  readonly notToday = output();
  /** Laid so many places up (below 0) or down. */
  readonly move = output<number>();
  readonly keysHint = 'Arrows move it, plus and minus change its minutes, H holds it, Delete skips it.';
  readonly kind = computed(() => KIND_WORDS[this.block().kind]);
  readonly name = computed(() => this.block().name.slice(0, 80));
  readonly height = computed(() =>
    this.block().kind === 'break' ? 36 : Math.max(LEAST, Math.min(160, this.block().minutes * A_MINUTE)),
  );

  key(event: KeyboardEvent): void {
    const does: Readonly<Record<string, () => void>> = {
      ArrowUp: () => this.move.emit(-1),
      ArrowDown: () => this.move.emit(1),
      '+': () => this.longer.emit(1),
      '=': () => this.longer.emit(1),
      '-': () => this.longer.emit(-1),
      h: () => this.hold.emit(),
      Delete: () => this.notToday.emit(),
      Backspace: () => this.notToday.emit(),
    };
    const run = event.ctrlKey || event.metaKey || event.altKey ? undefined : does[event.key];
    if (!run) return;
    event.preventDefault();
    event.stopPropagation();
    run();
  }
}
