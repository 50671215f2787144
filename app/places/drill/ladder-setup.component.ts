import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, output } from '@angular/core';
import { RouterLink } from '@angular/router';
import { LADDER_SCHOOLS, LADDER_WORDS, readRungs } from '@core/drill';
import { DYNAMICS, type Dynamic } from '@core/playback';
import { restsWords } from '../../knowledge/rests-words';
import { choicesOf, type Choice } from '../../widgets/choice';
import { NumberFieldComponent } from '../../widgets/number-field.component';
import { SelectComponent } from '../../widgets/select.component';
import { TempoFieldComponent } from '../../widgets/tempo-field.component';
import { PlanStore } from './plan.store';
import { RoomChoices } from './room-choices.store';
import { SubjectStore } from './subject.store';
import { TermComponent } from '../../guide/term.component';

/** The ladder of a drill: from where to where, by which rungs, how long each is held, how loud. */
@Component({
  selector: 'ls-ladder-setup',
  imports: [RouterLink, TermComponent, NumberFieldComponent, SelectComponent, TempoFieldComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './ladder-setup.component.html',
  styleUrl: './ladder-setup.component.css',
})
export class LadderSetupComponent {
  readonly plans = inject(PlanStore);
  readonly subject = inject(SubjectStore);
  readonly restsOn = restsWords;
  private readonly choices = inject(RoomChoices);
  readonly started = output();
  readonly schools = choicesOf(LADDER_SCHOOLS, (s) => LADDER_WORDS[s].name);
  readonly holds = [
    { value: 'loops', words: 'clean loops' },
    { value: 'bars', words: 'bars' },
    { value: 'minutes', words: 'minutes' },
  ] as const;
  readonly louds: readonly Choice<Dynamic | 'passes'>[] = [
    ...choicesOf(DYNAMICS),
    { value: 'passes', words: 'each rung soft, medium, loud' },
  ];
  readonly heights: readonly Choice<number>[] = [
    { value: 0, words: 'not judged' },
    { value: 6, words: 'at least 6 dB: twice as loud' },
    { value: 9, words: 'at least 9 dB: nearly three times' },
    { value: 12, words: 'at least 12 dB: four times' },
  ];
  readonly ladder = this.plans.ladder;
  readonly school = computed(() => this.ladder().ladder ?? 'steps');
  readonly words = computed(() => (this.ladder().rungs ? 'Type your own tempos.' : LADDER_WORDS[this.school()].words));
  readonly hold = computed(() => this.ladder().hold?.kind ?? 'loops');
  readonly loud = computed(() => (this.ladder().passes ? 'passes' : this.choices.dynamic()));
  /** The rungs as text, to be typed over. */
  readonly typed = linkedSignal(() => this.plans.rungs().join(' '));
  readonly problem = linkedSignal<string, string | null>({
    source: () => this.plans.rungs().join(' '),
    computation: () => null,
  });

  take(text: string): void {
    this.typed.set(text);
    if (text.trim() === this.plans.rungs().join(' ')) return this.problem.set(null);
    const read = readRungs(text);
    this.problem.set(read.ok ? null : read.problems[0].message);
    if (read.ok) this.plans.setRungs(read.value);
  }

  /** How loud the rungs are meant: one way, or soft, medium and loud in turn. */
  setLoud(loud: Dynamic | 'passes'): void {
    if (loud !== 'passes') this.choices.dynamic.set(loud);
    this.plans.set({ passes: loud === 'passes' });
  }
}
