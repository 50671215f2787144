import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { TableModule } from 'primeng/table';
import { format, startOfDay } from 'date-fns';
import { bestByPhrase, byDay, NO_BEST } from '@core/drill';
import { DrillsRepo } from '../data/drills.repo';
import { PhrasesRepo } from '../data/phrases.repo';
import { TempoChartComponent } from '../ui/charts/tempo-chart.component';

/** The Log: tempo against date for one phrase with its goal, and every attempt. */
@Component({
  selector: 'ls-log',
  imports: [RouterLink, TableModule, TempoChartComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './log.component.html',
  styleUrl: './log.component.css',
})
export class LogComponent {
  /** Route: the phrase to show first. */
  readonly phrase = input<string>();
  private readonly phrases = toSignal(inject(PhrasesRepo).all$, { initialValue: null });
  private readonly attempts = toSignal(inject(DrillsRepo).attempts$, { initialValue: null });
  readonly ready = computed(() => this.attempts() !== null && this.phrases() !== null);

  /** Phrases that were drilled, the newest drilled first. */
  readonly drilled = computed(() => {
    const best = bestByPhrase(this.attempts() ?? []);
    return (this.phrases() ?? [])
      .filter((p) => best.has(p.id))
      .map((p) => ({ phrase: p, best: best.get(p.id) ?? NO_BEST }))
      .sort((a, b) => (b.best.lastAt ?? 0) - (a.best.lastAt ?? 0));
  });
  readonly chosen = linkedSignal(() => {
    const list = this.drilled();
    return list.find((d) => d.phrase.id === this.phrase())?.phrase.id ?? list[0]?.phrase.id ?? null;
  });
  readonly current = computed(() => this.drilled().find((d) => d.phrase.id === this.chosen()) ?? null);
  private readonly own = computed(() => (this.attempts() ?? []).filter((a) => a.phrase === this.chosen()));
  readonly days = computed(() => byDay(this.own(), (at) => startOfDay(at).getTime()));
  readonly rows = computed(() =>
    [...this.own()].reverse().map((a) => ({ ...a, when: format(a.at, 'd MMM yyyy, HH:mm'), took: `${Math.round(a.seconds)} s` })),
  );
  readonly title = computed(() => {
    const found = this.current();
    if (!found) return '';
    const { phrase, best } = found;
    if (best.clean === null) return `Nothing clean yet on the way to ${phrase.goal}`;
    return best.clean >= phrase.goal
      ? `At the goal of ${phrase.goal}`
      : `${best.clean} clean, ${phrase.goal - best.clean} to go to ${phrase.goal}`;
  });

  choose(event: Event): void {
    if (event.target instanceof HTMLSelectElement) this.chosen.set(event.target.value);
  }
}
