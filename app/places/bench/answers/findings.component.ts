import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import { Tooltip } from 'primeng/tooltip';
import {
  balance,
  untilLanding,
  countingOf,
  crossRhythm,
  evenSteps,
  notesPerSecond,
  startsToEndOn,
  type Finding,
} from '@core/pattern';
import { barTicks, beatTicks, countAt, countWords, parseCount, quarterTempo } from '@core/time';
import { LIMB_WORDS, VOICE, type Limb } from '@core/stroke';
import { remediesFor, type Offer } from '@core/recipe';
import { SettingsRepo } from '../../../storage/settings.repo';
import { BenchStore } from '../document/bench.store';
import { SpeedComponent } from './speed.component';
import { choicesOf } from '../../../widgets/choice';
import { SelectComponent } from '../../../widgets/select.component';
import { TermComponent } from '../../../guide/term.component';

/** What follows from the phrase: the sums first, then the checks. What speaks of strokes points at them. */
@Component({
  selector: 'ls-findings',
  imports: [TermComponent, Tooltip, SpeedComponent, SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './findings.component.html',
  styleUrl: './findings.component.css',
})
export class FindingsComponent {
  readonly store = inject(BenchStore);
  private readonly settings = inject(SettingsRepo);
  readonly pointAt = output<readonly number[]>();
  readonly limbWords = LIMB_WORDS;

  readonly fit = computed(() => this.store.findings().find((f) => f.code === 'fit') ?? null);
  readonly sums = computed(() => this.store.findings().filter((f) => f.weight === 'sum' && f.code !== 'fit'));
  readonly checks = computed(() =>
    this.store.findings().filter((f) => f.weight !== 'sum' && f.code !== 'balance' && f.code !== 'density'),
  );
  readonly groups = computed(() => {
    const pattern = this.store.stilled()?.pattern;
    if (!pattern || pattern.length === 0) return [];
    return pattern.groups.map((g) => ({
      share: (100 * g.length) / pattern.length,
      kind: g.kind,
      odd: g.repeat % 2 === 1,
    }));
  });
  readonly loads = computed(() => {
    const pattern = this.store.stilled()?.pattern;
    const loads = pattern ? balance(pattern) : [];
    const most = Math.max(1, ...loads.map((l) => l.strokes));
    return loads.map((l) => ({ ...l, share: (100 * l.strokes) / most, accentShare: (100 * l.accents) / most }));
  });
  readonly strokes = computed(() => this.store.stilled()?.pattern.strokes.length ?? 0);
  readonly longest = computed(() => this.loads().reduce((most, l) => Math.max(most, l.longestRun), 0));

  /** Counts of a bar, for a phrase that leaves room to begin elsewhere. */
  readonly endings = computed(() => {
    const pattern = this.store.stilled()?.pattern;
    if (
      !pattern ||
      pattern.strokes.length === 0 ||
      pattern.length > barTicks(pattern.meter) ||
      pattern.length % barTicks(pattern.meter) === 0
    )
      return [];
    const slots = Math.min(96, Math.ceil(barTicks(pattern.meter) / pattern.grid));
    const counting = countingOf(pattern, this.settings.schools());
    return choicesOf(Array.from({ length: slots }, (_, i) => countAt(i * pattern.grid, counting).text));
  });
  readonly chosen = signal<string | null>(null);
  readonly ending = computed(() => {
    const [chosen, all] = [this.chosen(), this.endings()];
    return chosen !== null && all.some((c) => c.value === chosen) ? chosen : ((all.at(-2) ?? all.at(-1))?.value ?? '');
  });
  /** "start on the & of 2": where it must begin so that its last stroke falls there. */
  readonly startWords = computed(() => {
    const pattern = this.store.stilled()?.pattern;
    const counting = pattern ? countingOf(pattern, this.settings.schools()) : null;
    const on = counting ? parseCount(this.ending(), counting) : null;
    if (!pattern || !counting || on === null) return '';
    const [start] = startsToEndOn(pattern, on, 2);
    return start === undefined
      ? 'no room before it'
      : `start on ${countWords(countAt(start, counting), start >= barTicks(pattern.meter))}`;
  });

  /**
   * Two rows of dots for what comes at even steps that are not the beat: where each falls until both fall together
   * again, as shares of
   * the width.
   */
  readonly cross = computed(() => {
    const pattern = this.store.stilled()?.pattern;
    const [steps] = pattern ? evenSteps(pattern) : [];
    if (!pattern || !steps) return null;
    const { accents, beats } = crossRhythm(steps.step, beatTicks(pattern.meter));
    if (accents > 24 || beats > 24) return null;
    const what = steps.what === 'accents' || steps.what === 'kicks' ? steps.what : VOICE[steps.what].name;
    const row = (many: number) => Array.from({ length: many }, (_, i) => (100 * i) / many);
    return { accents: row(accents), beats: row(beats), words: `${accents} ${what} in ${beats} beats` };
  });

  /** Strokes a second, of one limb or of all, at the tempo that is set; the bar it lands in is no part of it. */
  rate(limb?: Limb): string {
    const pattern = this.store.stilled()?.pattern;
    if (!pattern) return '0.0';
    const { strokes, length, meter } = untilLanding(pattern);
    const many = strokes.filter((s) => limb === undefined || s.limb === limb).length;
    return notesPerSecond(many, length, quarterTempo(this.store.tempo(), meter)).toFixed(1);
  }

  /** Moves that would mend a finding. */
  remedies(finding: Finding): readonly Offer[] {
    const built = this.store.stilled();
    return built ? remediesFor(finding, built, this.settings.schools()) : [];
  }

  take(offer: Offer): void {
    this.store.take(offer.entry);
  }

  point(finding: Finding | null): void {
    this.pointAt.emit(finding?.at ?? []);
  }

  kind(finding: Finding): string {
    return finding.code === 'linear' ? 'good' : finding.weight;
  }
}
