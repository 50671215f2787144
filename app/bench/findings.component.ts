import { ChangeDetectionStrategy, Component, computed, inject, output } from '@angular/core';
import { balance, type Finding } from '@core/pattern';
import { LIMB_WORDS } from '@core/stroke';
import { BenchStore } from './bench.store';

/** What follows from the phrase: the sums first, then the checks. What speaks of strokes points at them. */
@Component({
  selector: 'ls-findings',
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './findings.component.html',
  styleUrl: './findings.component.css',
})
export class FindingsComponent {
  readonly store = inject(BenchStore);
  readonly pointAt = output<readonly number[]>();
  readonly limbWords = LIMB_WORDS;

  readonly fit = computed(() => this.store.findings().find((f) => f.code === 'fit')?.words ?? null);
  readonly sums = computed(() => this.store.findings().filter((f) => f.weight === 'sum' && f.code !== 'fit'));
  readonly checks = computed(() => this.store.findings().filter((f) => f.weight !== 'sum' && f.code !== 'balance'));
  readonly groups = computed(() => {
    const pattern = this.store.build()?.pattern;
    if (!pattern || pattern.length === 0) return [];
    return pattern.groups.map((g) => ({ share: (100 * g.length) / pattern.length, close: g.kind === 'close', odd: g.repeat % 2 === 1 }));
  });
  readonly loads = computed(() => {
    const pattern = this.store.build()?.pattern;
    const loads = pattern ? balance(pattern) : [];
    const most = Math.max(1, ...loads.map((l) => l.strokes));
    return loads.map((l) => ({ ...l, share: (100 * l.strokes) / most, accentShare: (100 * l.accents) / most }));
  });
  readonly longest = computed(() => this.loads().reduce((most, l) => Math.max(most, l.longestRun), 0));

  point(finding: Finding | null): void {
    this.pointAt.emit(finding?.at ?? []);
  }

  kind(finding: Finding): string {
    return finding.code === 'linear' ? 'good' : finding.weight;
  }
}
