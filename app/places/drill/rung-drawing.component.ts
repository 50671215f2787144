import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { Tooltip } from 'primeng/tooltip';
import { stagesOver, stageTitle, stageWhy } from '@core/drill';
import { Transport } from '../../sound/transport.service';
import { SettingsRepo } from '../../storage/settings.repo';
import { FollowComponent } from './follow/follow.component';
import { NO_MARKS, type RibbonMarks } from '../../drawings/ribbon/marks';
import { DrillStore } from './drill.store';
import { SubjectStore } from './subject.store';
import { TakeRecorder } from '../../playing/take.recorder';

/** What is played in a rung: the stage and why, the drawing that follows, and the stages to go to. */
@Component({
  selector: 'ls-rung-drawing',
  imports: [FollowComponent, Tooltip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (store.rendition(); as played) {
      @if (store.stage()) {
        <p class="stage-name">
          {{ played.words.title }} <span class="quiet">{{ played.words.why }}</span>
        </p>
      }
      @if (turn(); as whose) {
        <p class="turn" [class.yours]="whose === 'yours'" role="status">
          {{ whose === 'yours' ? 'Your turn: say it aloud.' : 'Listen: it is counted and played.' }}
        </p>
      }
      <ls-follow
        [pattern]="played.pattern"
        [drawn]="drawn()"
        [schools]="settings.schools()"
        [position]="transport.position"
        [loop]="store.loop()"
        [marks]="marks()"
      />
      @if (stages().length > 1) {
        <ol class="stage-line" aria-label="Stages">
          @for (s of stages(); track s.id; let i = $index) {
            <li [class]="s.state">
              <button
                type="button"
                [attr.aria-current]="s.state === 'now' ? 'step' : null"
                [pTooltip]="s.why"
                tooltipPosition="top"
                (click)="store.dispatch({ kind: 'stage', to: i })"
              >
                {{ s.title }}
                @if (s.state === 'over') {
                  <span class="visually-hidden">, played through</span>
                }
              </button>
            </li>
          }
        </ol>
      }
    }
  `,
  styles: `
    :host {
      display: block;
      max-height: 100%;
      overflow: auto;
    }
    .stage-name {
      margin-bottom: 10px;
      font: 650 19px/1.2 var(--head);
    }
    .stage-name .quiet {
      font: 400 14px var(--text);
      margin-left: 8px;
    }
    .turn {
      margin-bottom: 10px;
      font: 700 26px/1.1 var(--head);
    }
    .turn.yours {
      color: var(--accent);
    }
    .stage-line {
      list-style: none;
      display: flex;
      gap: 4px;
      margin: 10px 0 0;
      padding: 0 0 4px;
      /* In one line, so that the drawing keeps its room however many stages there are. */
      overflow-x: auto;
    }
    .stage-line button {
      min-height: 30px;
      padding: 2px 10px;
      border: 1px solid var(--line);
      border-radius: 4px;
      background: transparent;
      color: var(--quiet);
      font: 500 12.5px var(--text);
      white-space: nowrap;
      cursor: pointer;
    }
    .stage-line .over button {
      border-color: var(--good);
      color: var(--good);
    }
    .stage-line .now button {
      border-color: var(--mark);
      color: var(--ink);
    }
  `,
})
export class RungDrawingComponent {
  readonly drawn = input<'ribbon' | 'staff'>('ribbon');
  readonly store = inject(DrillStore);
  readonly settings = inject(SettingsRepo);
  readonly transport = inject(Transport);
  private readonly recorder = inject(TakeRecorder);
  private readonly subject = inject(SubjectStore);
  /** Whose turn it is where the phrase is said; null elsewhere, and in silence. */
  readonly turn = computed((): 'yours' | 'its own' | null => {
    const [tick, loop, said] = [this.transport.position(), this.store.loop(), this.store.rendition()?.said];
    if (!said || tick === null || loop <= 0) return null;
    return tick < 0 || Math.floor(tick / loop) % 2 === 0 ? 'its own' : 'yours';
  });
  /** The stages of the drill: played through, present and to come. What was jumped over is still to come. */
  readonly stages = computed(() => {
    const drill = this.store.drill();
    const over = drill ? stagesOver(drill) : [];
    const phrase = this.subject.whole();
    return (drill?.plan.stages ?? []).map((s, i) => ({
      id: s.id,
      title: stageTitle(s),
      why: phrase ? stageWhy(s, phrase) : '',
      state: i === (drill?.stage ?? 0) ? 'now' : over.includes(s.id) ? 'over' : 'ahead',
    }));
  });
  readonly marks = computed((): RibbonMarks => {
    const dots = this.recorder.dots();
    const last = dots.at(-1)?.turn ?? 0;
    return { ...NO_MARKS, dots: dots.map((d) => ({ tick: d.tick, limb: d.limb, old: d.turn < last })) };
  });
}
