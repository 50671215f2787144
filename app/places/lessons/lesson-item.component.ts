import { ChangeDetectionStrategy, Component, computed, inject, input, OnDestroy } from '@angular/core';
import { count } from '@core/base';
import { stageRungs, stageTitle } from '@core/drill';
import type { LessonItem } from '@core/lesson';
import { loopTicks, shapeWords } from '@core/pattern';
import { build } from '@core/recipe';
import { rendition, requestOf } from '@core/rendition';
import { RibbonComponent } from '../../drawings/ribbon/ribbon.component';
import { Player } from '../../playing/player';
import { Transport } from '../../sound/transport.service';
import { KitsRepo } from '../../storage/kits.repo';
import { SettingsRepo } from '../../storage/settings.repo';

/** A phrase of a lesson: drawn, heard, with what is said of it. */
@Component({
  selector: 'ls-lesson-item',
  imports: [RibbonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header>
      <span class="number mono">{{ number() }}</span>
      <strong class="cut">{{ item().phrase.name }}</strong>
      <span class="quiet cut">{{ facts() }}</span>
      <span class="spacer"></span>
      <button type="button" class="btn small" [class.on]="heard()" (click)="hear()">
        {{ heard() ? 'Stop' : 'Hear' }}
      </button>
      <ng-content />
    </header>
    <ls-ribbon
      [pattern]="pattern()"
      [schools]="settings.schools()"
      [position]="transport.position"
      [loop]="loop()"
      [silent]="!heard()"
    />
    @if (item().note) {
      <p class="note">{{ item().note }}</p>
    }
    @if (plan(); as words) {
      <p class="quiet">{{ words }}</p>
    }
    @for (n of stages(); track n.title) {
      <p class="stage">
        <strong>{{ n.title }}</strong> {{ n.words }}
      </p>
    }
  `,
  styles: `
    :host {
      display: block;
      padding: 12px 0;
      border-bottom: 1px solid var(--line);
    }
    header {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 8px;
      min-width: 0;
    }
    header strong {
      max-width: 100%;
      font: 650 17px/1.3 var(--head);
    }
    .number {
      color: var(--quiet);
    }
    .note {
      max-width: 70ch;
      margin: 8px 0 0;
      padding-left: 12px;
      border-left: 4px solid var(--accent);
      white-space: pre-wrap;
      overflow-wrap: anywhere;
    }
    .stage {
      margin: 4px 0 0;
      overflow-wrap: anywhere;
    }
  `,
})
export class LessonItemComponent implements OnDestroy {
  readonly item = input.required<LessonItem>();
  readonly number = input.required<number>();
  private readonly player = inject(Player);
  private readonly kits = inject(KitsRepo);
  readonly transport = inject(Transport);
  readonly settings = inject(SettingsRepo);
  private readonly owner = computed(() => `lesson ${this.item().id}`);
  readonly pattern = computed(() => build(this.item().phrase.recipe).pattern);
  readonly facts = computed(() => `${shapeWords(this.pattern())} · goal ${this.item().phrase.goal}`);
  readonly heard = computed(() => this.player.owner() === this.owner());
  readonly loop = computed(() => (this.heard() ? loopTicks(this.pattern()) : 0));
  readonly plan = computed(() => {
    const { plan } = this.item();
    if (!plan) return '';
    const stages = (plan.stages ?? []).map((s) => stageTitle(s)).join(', ');
    const climb = `From ${plan.start} to ${plan.goal}, ${count(stageRungs(plan, undefined).length, 'rung')}`;
    return stages === '' ? `${climb}.` : `${climb}. Stages: ${stages}.`;
  });
  readonly stages = computed(() => {
    const { plan, stageNotes } = this.item();
    const titles = new Map((plan?.stages ?? []).map((s) => [s.id, stageTitle(s)]));
    return stageNotes.flatMap((n) => {
      const title = titles.get(n.stage);
      return title === undefined ? [] : [{ title: `${title}:`, words: n.words }];
    });
  });

  ngOnDestroy(): void {
    this.player.stop(this.owner());
  }

  hear(): void {
    const { tempo } = this.item().phrase;
    this.player.toggle(this.owner(), requestOf(rendition({ phrase: this.pattern(), kit: this.kits.current() }), tempo));
  }
}
