import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import { limitOf, type Raise } from '@core/reach';
import { BenchStore } from '../document/bench.store';
import { readyBpm, restsOfReady } from '../../../knowledge/believed-words';
import { restsWords } from '../../../knowledge/rests-words';
import { PreviewStore } from '../document/preview.store';
import { SoundStore } from '../ribbon/sound.store';
import { ReachStore } from './reach.store';
import { TermComponent } from '../../../guide/term.component';

/** So many ways to raise the ceiling are shown before more are asked for. */
const FIRST_RAISES = 2;

/** The ceiling: how fast this phrase can go, where it breaks first, and what would raise it. */
@Component({
  selector: 'ls-speed',
  imports: [TermComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (reach.ceiling(); as c) {
      <div class="top" [class.beyond]="isOver()">
        <h2 class="over">{{ isOver() ? 'Too fast at ' + bench.tempo() : 'Speed' }}</h2>
        @if (reach.believed(); as b) {
          <button type="button" class="ready" [attr.aria-expanded]="opened()" (click)="opened.set(!opened())">
            {{ readyBpm(b) === null ? 'too early to say' : 'ready ' + readyBpm(b) }}
          </button>
        }
        @if (reach.bpm(); as bpm) {
          <span
            ><ls-term of="ceiling" /> {{ reach.top()?.rests?.kind === 'default' ? 'about ' : ''
            }}<strong>{{ bpm }}</strong></span
          >
        }
      </div>
      <div class="panel">
        @if (opened() && reach.believed(); as b) {
          <p class="quiet rests">{{ restsOfReady(b) }}{{ bench.isKept() ? '' : ', as kept' }}.</p>
        }
        @if (reach.bpm()) {
          @if (told(); as words) {
            <p class="quiet rests">{{ words }}</p>
          }
          <ol>
            @for (s of reach.spots(); track s.words) {
              <li
                tabindex="0"
                (mouseenter)="pointAt.emit(s.ticks)"
                (mouseleave)="pointAt.emit([])"
                (focus)="pointAt.emit(s.ticks)"
                (blur)="pointAt.emit([])"
              >
                <span>{{ s.words }}</span> <span class="mono">{{ s.bpm }}</span>
              </li>
            }
          </ol>
          @for (r of shownRaises(); track r.words) {
            <div class="raise" (mouseenter)="look(r)" (mouseleave)="look(null)">
              <button
                type="button"
                class="btn small"
                (focus)="look(r)"
                (blur)="look(null)"
                (click)="look(null); bench.take(r.entry)"
              >
                <span
                  >{{ r.words }}
                  @if (r.loss) {
                    <small>{{ r.loss }}</small>
                  }
                </span>
                <strong class="mono">{{ limit(r.bpm) }}</strong>
              </button>
              <button
                type="button"
                class="hear btn small"
                [attr.aria-pressed]="sound.tries(r.pattern)"
                [attr.aria-label]="(sound.tries(r.pattern) ? 'Stop: ' : 'Hear: ') + r.words"
                (click)="sound.tryOut(r.pattern)"
              >
                {{ sound.tries(r.pattern) ? 'Stop' : 'Hear' }}
              </button>
            </div>
          }
          @if (reach.raises().length > FIRST_RAISES) {
            <button type="button" class="more" [attr.aria-expanded]="all()" (click)="all.set(!all())">
              {{ all() ? 'Only the best' : reach.raises().length - FIRST_RAISES + ' more ways to raise it' }}
            </button>
          }
        } @else {
          <p class="quiet">No limit here.</p>
        }
        @if (c.impossible.length > 0) {
          <p class="beyond">One foot would play two pedals at once. Change who plays what under Kit, or remove one.</p>
        }
      </div>
      @for (f of reach.onKit()?.findings ?? []; track f.words) {
        <p
          class="kit"
          tabindex="0"
          (mouseenter)="pointAt.emit(f.at ?? [])"
          (mouseleave)="pointAt.emit([])"
          (focus)="pointAt.emit(f.at ?? [])"
          (blur)="pointAt.emit([])"
        >
          {{ f.words }}
        </p>
      }
    }
  `,
  styles: `
    .panel {
      padding: 8px 12px;
      display: flex;
      flex-direction: column;
      gap: 5px;
    }
    .top {
      display: flex;
      flex-wrap: wrap;
      justify-content: space-between;
      align-items: baseline;
      gap: 0 8px;
      margin-bottom: 6px;
    }
    .ready {
      min-height: 24px;
      padding: 0;
      border: 0;
      background: none;
      color: inherit;
      font: 600 13.5px var(--text);
      text-decoration: underline dotted;
      text-underline-offset: 3px;
      cursor: pointer;
    }
    .rests {
      font-size: 12.5px;
    }
    .top strong {
      font: 700 24px/1 var(--head);
    }
    .beyond,
    .beyond :is(strong, h2) {
      color: var(--mark);
    }
    ol {
      list-style: none;
      margin: 0;
      padding: 0;
      font-size: 13px;
    }
    li {
      display: flex;
      gap: 8px;
      padding: 1px 0;
      line-height: 1.3;
    }
    li span:first-child {
      flex: 1;
    }
    .btn {
      white-space: normal;
      text-align: left;
      line-height: 1.2;
      padding-right: 8px;
    }
    .btn span {
      flex: 1;
    }
    .raise {
      display: flex;
      align-items: stretch;
      gap: 4px;
    }
    .raise .btn:first-child {
      flex: 1;
    }
    .raise small {
      display: block;
      font: 500 12px/1.2 var(--text);
      color: var(--quiet);
    }
    .more {
      align-self: start;
      min-height: 24px;
      padding: 2px 0;
      border: 0;
      background: none;
      color: var(--accent);
      font: 500 12.5px var(--text);
      text-decoration: underline;
      cursor: pointer;
    }
    .kit {
      margin-top: 8px;
      padding-left: 12px;
      border-left: 5px solid var(--line-strong);
      font-size: 13px;
    }
  `,
})
export class SpeedComponent {
  readonly bench = inject(BenchStore);
  readonly reach = inject(ReachStore);
  readonly pointAt = output<readonly number[]>();
  readonly sound = inject(SoundStore);
  private readonly preview = inject(PreviewStore);
  readonly readyBpm = readyBpm;
  readonly restsOfReady = restsOfReady;
  /** Whether it is shown what the ready tempo rests on. */
  readonly opened = signal(false);
  /** What the number rests on, where it is more than an estimate. */
  readonly told = computed(() => {
    const rests = this.reach.top()?.rests;
    return rests && rests.kind !== 'default' ? restsWords(rests) : null;
  });
  readonly FIRST_RAISES = FIRST_RAISES;
  /** Whether all that would raise the ceiling is shown, or the best. */
  readonly all = signal(false);
  readonly shownRaises = computed(() =>
    this.all() ? this.reach.raises() : this.reach.raises().slice(0, FIRST_RAISES),
  );
  /** A tempo as it is told. */
  limit(bpm: number): string {
    const limit = limitOf(bpm);
    return limit === null ? 'no limit' : `${Math.floor(limit)}`;
  }

  /** What a change would make of the phrase, on the ribbon. */
  look(raise: Raise | null): void {
    this.preview.show(raise && { pattern: raise.pattern, words: raise.words });
  }

  readonly isOver = computed(() => this.bench.tempo() > (this.reach.bpm() ?? Infinity));
}
