import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { of, switchMap } from 'rxjs';
import { RouterLink } from '@angular/router';
import { TableModule } from 'primeng/table';
import { format, startOfDay } from 'date-fns';
import { bestByPhrase, byDay, NO_BEST, type Attempt } from '@core/drill';
import type { Phrase } from '@core/recipe';
import { rendition, renditionOf, type Rendition } from '@core/rendition';
import type { KeptTake } from '@core/take';
import { patternOf } from '../data/patterns';
import { DrillsRepo } from '../data/drills.repo';
import { PhrasesRepo } from '../data/phrases.repo';
import { KitsRepo } from '../data/kits.repo';
import { TakesRepo } from '../data/takes.repo';
import { TempoChartComponent } from '../ui/charts/tempo-chart.component';
import { fileName, saveText } from '../ui/save-svg';
import { TakeViewComponent } from './take-view.component';
import { SelectComponent } from '../ui/select.component';
import { Tooltip } from 'primeng/tooltip';

/** The Log: tempo against date for one phrase with its goal, and every attempt. */
@Component({
  selector: 'ls-log',
  imports: [RouterLink, TableModule, TakeViewComponent, TempoChartComponent, SelectComponent, Tooltip],
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
  readonly named = computed(() =>
    this.drilled().map((d) => ({ value: d.phrase.id, words: d.phrase.name.slice(0, 80) })),
  );
  readonly chosen = linkedSignal(() => {
    const list = this.drilled();
    return list.find((d) => d.phrase.id === this.phrase())?.phrase.id ?? list[0]?.phrase.id ?? null;
  });
  readonly current = computed(() => this.drilled().find((d) => d.phrase.id === this.chosen()) ?? null);
  private readonly own = computed(() => (this.attempts() ?? []).filter((a) => a.phrase === this.chosen()));
  readonly days = computed(() => byDay(this.own(), (at) => startOfDay(at).getTime()));
  readonly rows = computed(() =>
    [...this.own()].reverse().map((a) => ({
      ...a,
      when: format(a.at, 'd MMM yyyy, HH:mm'),
      took: `${Math.round(a.seconds)} s`,
      measured: measuredWords(a),
      fix: a.measured?.fix ?? '',
      take: this.takes().find((t) => t.id === a.id) ?? null,
    })),
  );
  private readonly takesRepo = inject(TakesRepo);
  private readonly kits = inject(KitsRepo);
  private readonly takes = toSignal(
    toObservable(this.chosen).pipe(switchMap((id) => (id === null ? of([]) : this.takesRepo.of$(id)))),
    {
      initialValue: [] as readonly KeptTake[],
    },
  );
  private readonly openedId = signal<string | null>(null);
  /** The take that is looked at and heard, with what was meant. */
  readonly opened = computed(() => {
    const take = this.takes().find((t) => t.id === this.openedId());
    const phrase = this.current()?.phrase;
    if (!take || !phrase) return null;
    return {
      take,
      meant: this.meantBy(take, phrase),
      attempt: this.own().find((a) => a.id === take.id) ?? null,
      changed: phrase.changed > take.at,
    };
  });
  readonly title = computed(() => {
    const found = this.current();
    if (!found) return '';
    const { phrase, best } = found;
    if (best.clean === null) return `Nothing clean yet on the way to ${phrase.goal}`;
    return best.clean >= phrase.goal
      ? `At the goal of ${phrase.goal}`
      : `${best.clean} clean, ${phrase.goal - best.clean} to go to ${phrase.goal}`;
  });

  /** What was meant: as it was that day; for takes from before that was kept, as the phrase stands now. */
  private meantBy(take: KeptTake, phrase: Phrase): Rendition {
    if (take.meant) return renditionOf(take.meant);
    return rendition({ phrase: patternOf(phrase), stage: take.stage, kit: this.kits.current() });
  }

  /** A take to look at and hear; again to close it. */
  open(take: KeptTake): void {
    this.openedId.update((id) => (id === take.id ? null : take.id));
  }

  close(): void {
    this.openedId.set(null);
  }

  /** The take with its measurements as a file. */
  save(take: KeptTake): void {
    const attempt = this.own().find((a) => a.id === take.id);
    const name = this.current()?.phrase.name ?? 'take';
    saveText(
      JSON.stringify({ format: 'loop-shelf-take', version: 1, phrase: name, attempt, take }, null, 1),
      fileName(`${name} take`, 'json'),
      'application/json',
    );
  }
}

function measuredWords({ measured }: Attempt): string {
  if (!measured) return 'by ear';
  const mean = Math.round(measured.mean);
  return `${mean > 0 ? '+' : ''}${mean} ± ${Math.round(measured.spread)} ms${measured.missed > 0 ? `, ${measured.missed} missed` : ''}`;
}
