import { ChangeDetectionStrategy, Component, inject, output } from '@angular/core';
import { BenchStore } from './bench.store';
import { ReachStore } from './reach.store';

/** The ceiling: how fast this phrase can go, where it breaks first, and what would raise it. */
@Component({
  selector: 'ls-speed',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (reach.ceiling(); as c) {
      <div class="panel">
        @if (reach.bpm(); as bpm) {
          <p class="top" [class.over]="bench.tempo() > bpm">
            <strong>{{ bpm }}</strong> bpm{{ c.estimate ? ', estimate' : '' }}
          </p>
          @if (bench.tempo() > bpm) {
            <p class="over">Too fast at {{ bench.tempo() }}:</p>
          }
          <ol>
            @for (p of reach.pairs(); track p.pair.at + p.pair.limb) {
              <li
                tabindex="0"
                (mouseenter)="pointAt.emit(reach.ticksOf(p.pair))"
                (mouseleave)="pointAt.emit([])"
                (focus)="pointAt.emit(reach.ticksOf(p.pair))"
                (blur)="pointAt.emit([])"
              >
                <span>{{ p.words }}</span> <span class="mono">{{ floor(p.pair.bpm) }}</span>
              </li>
            }
          </ol>
          @for (r of reach.raises(); track r.words) {
            <button type="button" class="btn small" (click)="bench.take(r.entry)">
              {{ r.words }}: <strong>{{ floor(r.bpm) }}</strong>
            </button>
          }
        } @else {
          <p class="quiet">No limb plays twice, so nothing limits the tempo.</p>
        }
        @if (c.impossible.length > 0) {
          <p class="over">One foot is wanted on two pedals at once. Change who plays what under Kit, or leave one out.</p>
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
      padding: 10px 14px;
      display: flex;
      flex-direction: column;
      gap: 6px;
    }
    .top strong {
      font: 700 26px/1 var(--head);
    }
    .over,
    .over strong {
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
      padding: 2px 0;
      line-height: 1.3;
    }
    li span:first-child {
      flex: 1;
    }
    .btn {
      white-space: normal;
      text-align: left;
      line-height: 1.25;
      gap: 4px;
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
  readonly floor = Math.floor;
}
