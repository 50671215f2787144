import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { count } from '@core/base';
import { drillPass, promptFor, warningWords } from '@core/drill';
import { barTicks } from '@core/time';
import { TodayRepo } from '../../storage/today.repo';
import { DrillStore } from './drill.store';
import { RoomChoices } from './room-choices.store';
import { SubjectStore } from './subject.store';
import { TryJudge } from './try.judge';

/** The most loops that have a mark of their own. */
const MOST_MARKS = 32;

/** How fast, how loud, and how far this rung is: to be read from two metres. */
@Component({
  selector: 'ls-rung-tempo',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (store.drill(); as d) {
      <span class="huge">{{ store.slow() ? store.tempo() / 2 : store.tempo() }}</span>
      <span class="quiet">bpm{{ store.free() ? '' : ' · goal ' + d.plan.goal }}</span>
      @if (pass(); as p) {
        <span class="pass">play it {{ p }}</span>
      }
      @if (store.free()) {
        <span class="pass" aria-live="polite">{{ prompt() }}</span>
      } @else {
        <span class="loops">
          @switch (d.phase) {
            @case ('judging') {
              {{ loopsOf(d.loops) }} played. How was it?
            }
            @case ('playing') {
              @if (d.loops >= store.need()) {
                {{ loopsOf(d.loops) }} played
              } @else {
                loop <strong>{{ d.loops + 1 }}</strong> of {{ store.need() }}
              }
              @if (d.early) {
                · clean so far
              }
            }
            @case ('count-in') {
              count-in
            }
            @default {
              {{ loopsOf(store.need()) }} per rung
            }
          }
        </span>
        <span class="marks" aria-hidden="true">
          @for (m of marks(); track $index) {
            <span [class]="m"></span>
          }
        </span>
      }
      @switch (store.beneath()) {
        @case ('sounds') {
          <span class="quiet"
            >The recording plays along: keep headphones low{{
              byMicrophone() ? ', and on, so that the microphone hears only you' : ''
            }}</span
          >
        }
        @case ('far') {
          <span class="once">The recording cannot follow this tempo. It is off for this rung.</span>
        }
        @case ('broke') {
          <span class="once">
            The recording could not be prepared, so it is off.
            <button type="button" class="btn small" (click)="store.recordAgain()">Try again</button>
          </span>
        }
        @case ('gone') {
          <span class="once">The recording was deleted; you play without it.</span>
        }
      }
      @if (warning(d); as words) {
        <span class="once">{{ words }}</span>
      }
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      gap: 8px;
      font-size: 16px;
    }
    .huge {
      font: 750 116px/0.9 var(--head);
      letter-spacing: -0.04em;
    }
    .pass {
      font: 650 20px/1.2 var(--head);
      color: var(--accent);
    }
    .loops {
      margin-top: 14px;
      font-size: 19px;
    }
    .marks {
      display: flex;
      gap: 6px;
      max-width: 210px;
    }
    .marks span {
      flex: 1;
      height: 11px;
      border-radius: 2px;
      background: var(--line);
    }
    .marks .over {
      background: var(--line-strong);
    }
    .marks .clean {
      background: var(--good);
    }
    .marks .messy {
      background: var(--mark);
    }
    .marks .now {
      outline: 2px solid var(--accent);
      outline-offset: -2px;
    }
    .once {
      color: var(--mark);
      font-size: 15px;
    }
  `,
})
export class RungTempoComponent {
  readonly store = inject(DrillStore);
  private readonly subject = inject(SubjectStore);
  private readonly tries = inject(TryJudge);
  private readonly todays = inject(TodayRepo);
  readonly warning = warningWords;
  private readonly choices = inject(RoomChoices);
  readonly byMicrophone = computed(() => this.choices.source() === 'microphone');
  readonly pass = computed(() => {
    const drill = this.store.drill();
    return drill ? drillPass(drill) : null;
  });
  readonly marks = computed(() => {
    const drill = this.store.drill();
    if (!drill) return [];
    const many = Math.min(MOST_MARKS, this.store.need());
    // Where more are played than are asked for, the last are shown.
    const from = Math.max(0, drill.loops - many + (drill.phase === 'playing' ? 1 : 0));
    return Array.from({ length: many }, (_, i) => {
      const n = from + i;
      if (n >= drill.loops) return n === drill.loops && drill.phase === 'playing' ? 'now' : 'ahead';
      const clean = this.tries.turns()[n] ?? null;
      return clean === null ? 'over' : clean ? 'clean' : 'messy';
    });
  });
  /** What may be tried in the open bars. */
  readonly prompt = computed(() => {
    const [drill, played] = [this.store.drill(), this.store.rendition()];
    if (!drill || !played) return '';
    const bring = this.todays.now().running?.bring.map((b) => b.name) ?? [];
    const own = this.subject.phrase()?.name;
    const names = bring.length > 0 ? bring : own === undefined ? [] : [own];
    const bars = Math.round(this.store.loop() / barTicks(played.pattern.meter));
    return promptFor(
      drill.loops,
      names.map((n) => n.slice(0, 60)),
      bars,
    );
  });
  readonly loopsOf = (n: number): string => count(n, 'loop');
}
