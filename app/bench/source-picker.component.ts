import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { Dialog } from 'primeng/dialog';
import { GRID, gridName, gridsOf, meterText, parseMeter, ticks } from '@core/time';
import { patternOfText, type Pattern } from '@core/pattern';
import { RUDIMENT_FAMILIES, searchRudiments, type Rudiment } from '@core/rudiments';
import { parseStrokeText, printStrokeText } from '@core/stroke';
import { NgTemplateOutlet } from '@angular/common';
import { RibbonComponent } from '../ui/ribbon/ribbon.component';
import { BenchStore } from './bench.store';
import { METERS } from './meters';

/** Where a phrase begins: type a sticking, or pick one of the forty rudiments. */
@Component({
  selector: 'ls-source-picker',
  imports: [RibbonComponent, Dialog, NgTemplateOutlet],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './source-picker.component.html',
  styleUrl: './source-picker.component.css',
})
export class SourcePickerComponent {
  readonly asDialog = input(false);
  readonly chosen = output();
  private readonly store = inject(BenchStore);

  readonly meters = METERS;
  readonly text = signal('');
  readonly meter = signal(this.store.recipe()?.source.meter ?? '4/4');
  readonly grid = signal<number>(this.store.recipe()?.source.grid ?? GRID.sixteenths);
  readonly words = signal('');
  readonly grids = computed(() => {
    const meter = parseMeter(this.meter());
    const offered = meter ? gridsOf(meter) : [];
    const own = ticks(this.grid());
    return (offered.includes(own) ? offered : [...offered, own]).map((g) => ({ grid: g, name: gridName(g) }));
  });
  readonly read = computed(() => (this.text().trim() === '' ? null : parseStrokeText(this.text())));
  readonly problem = computed(() => {
    const read = this.read();
    return read && !read.ok ? read.problems[0] : null;
  });
  /** The last text that could be read stays drawn while a wrong one is mended. */
  private lastGood: Pattern | null = null;
  readonly typed = computed(() => {
    const read = this.read();
    const meter = parseMeter(this.meter());
    if (read?.ok && meter) this.lastGood = patternOfText(read.value, meter, ticks(this.grid()));
    if (read === null) this.lastGood = null;
    return this.lastGood;
  });
  readonly families = computed(() => {
    const found = searchRudiments(this.words());
    return RUDIMENT_FAMILIES.map((family) => ({ family, rudiments: found.filter((r) => r.family === family) })).filter(
      (f) => f.rudiments.length > 0,
    );
  });

  private readonly drawn = new Map<string, Pattern>();
  patternOf(rudiment: Rudiment): Pattern {
    const known = this.drawn.get(rudiment.id);
    if (known) return known;
    const read = parseStrokeText(rudiment.text);
    const pattern = patternOfText(read.ok ? read.value : [], rudiment.meter, rudiment.grid);
    this.drawn.set(rudiment.id, pattern);
    return pattern;
  }

  caret(column: number): string {
    return `${'\u00a0'.repeat(column - 1)}^`;
  }

  factsOf(rudiment: Rudiment): string {
    return `${gridName(rudiment.grid)} · ${meterText(rudiment.meter)}`;
  }

  pick(rudiment: Rudiment): void {
    this.store.useRudiment(rudiment);
    this.chosen.emit();
  }

  useTyped(): void {
    const read = this.read();
    if (!read?.ok) return;
    this.store.setSource({ kind: 'typed', text: printStrokeText(read.value), meter: this.meter(), grid: this.grid() });
    this.chosen.emit();
  }

  valueOf(event: Event): string {
    return event.target instanceof HTMLInputElement || event.target instanceof HTMLSelectElement ? event.target.value : '';
  }
}
