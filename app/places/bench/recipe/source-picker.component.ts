import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  linkedSignal,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { Dialog } from 'primeng/dialog';
import { GRID, gridName, gridsOf, meterText, parseMeter, ticks } from '@core/time';
import { looksLikeLines, parseLines, patternOfText, type Pattern } from '@core/pattern';
import { RUDIMENT_FAMILIES, searchRudiments, type Rudiment } from '@core/rudiments';
import { build, linesTyped, type Source } from '@core/recipe';
import { parseStrokeText, printStrokeText } from '@core/stroke';
import { NgTemplateOutlet } from '@angular/common';
import { SettingsRepo } from '../../../storage/settings.repo';
import { KeysService } from '../../../common/keys.service';
import { DialogFocusDirective } from '../../../widgets/dialog-focus.directive';
import { RibbonComponent } from '../../../drawings/ribbon/ribbon.component';
import { BenchStore } from '../document/bench.store';
import { WORKED_EXAMPLE } from '../document/example';
import { METERS } from './meters';
import { UnkeptListComponent } from './unkept-list.component';
import { TapPadComponent, type Tapped } from './tap-pad.component';
import { choicesOf } from '../../../widgets/choice';
import { inTurns } from '../../../common/in-turns';
import { SelectComponent } from '../../../widgets/select.component';

/** Where a phrase begins: type a sticking, or pick one of the forty rudiments. */
@Component({
  selector: 'ls-source-picker',
  imports: [
    RibbonComponent,
    Dialog,
    DialogFocusDirective,
    NgTemplateOutlet,
    TapPadComponent,
    SelectComponent,
    UnkeptListComponent,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './source-picker.component.html',
  styleUrl: './source-picker.component.css',
})
export class SourcePickerComponent {
  readonly asDialog = input(false);
  readonly chosen = output();
  private readonly store = inject(BenchStore);
  private readonly settings = inject(SettingsRepo);
  /** A file or a link is to be brought in instead. */
  readonly bring = output();
  /** A phrase is asked for instead. */
  readonly asks = output();

  private readonly field = viewChild<ElementRef<HTMLTextAreaElement>>('field');

  constructor() {
    // Whoever just begins to type strokes means the field.
    const letters = [
      'r',
      'l',
      'k',
      'h',
      'j',
      'f',
      'd',
      't',
      'z',
      'Shift+R',
      'Shift+L',
      'Shift+K',
      'Shift+H',
      'Shift+J',
    ];
    inject(KeysService).use(
      letters.map((combo) => ({
        combo,
        shown: combo.slice(-1),
        does: 'Type a sticking',
        run: () => {
          const text = `${this.text()}${combo.slice(-1)}`;
          this.text.set(text);
          const field = this.field()?.nativeElement;
          if (!field) return;
          // Written at once: the next letter may come before the page is drawn anew, and would take the place of this
          // one.
          field.value = text;
          field.focus();
        },
      })),
    );
  }

  readonly meters = choicesOf(METERS);
  /** What is changed stands there as it was typed. */
  readonly text = signal(typedIn(this.store.recipe()?.source));
  readonly meter = signal(this.store.recipe()?.source.meter ?? '4/4');
  readonly grid = signal<number>(this.store.recipe()?.source.grid ?? GRID.sixteenths);
  readonly words = signal('');
  readonly grids = computed(() => {
    const meter = parseMeter(this.meter());
    const offered = meter ? gridsOf(meter) : [];
    const own = ticks(this.grid());
    return choicesOf((offered.includes(own) ? offered : [...offered, own]).map(Number), gridName);
  });
  /** What is typed: stroke text, or a groove a line to a piece. */
  readonly read = computed(() => {
    const text = this.text();
    const meter = parseMeter(this.meter());
    if (text.trim() === '') return null;
    if (!meter || !looksLikeLines(text)) return parseStrokeText(text);
    return parseLines(text, { meter, grid: ticks(this.grid()), schools: this.settings.schools() });
  });
  /** As many rows as there are lines. */
  readonly rows = computed(() => Math.min(12, this.text().split('\n').length));
  readonly problem = computed(() => {
    const read = this.read();
    return read && !read.ok ? read.problems[0] : null;
  });
  /** What is typed, drawn. The last text that could be read stays drawn while a wrong one is mended. */
  readonly typed = linkedSignal<Pattern | null | undefined, Pattern | null>({
    source: () => {
      const read = this.read();
      const meter = parseMeter(this.meter());
      if (read === null) return null;
      return read.ok && meter ? patternOfText(read.value, meter, ticks(this.grid())) : undefined;
    },
    computation: (now, before) => (now === undefined ? (before?.value ?? null) : now),
  });
  readonly families = computed(() => {
    const found = searchRudiments(this.words());
    return RUDIMENT_FAMILIES.map((family) => ({ family, rudiments: found.filter((r) => r.family === family) })).filter(
      (f) => f.rudiments.length > 0,
    );
  });
  /** Forty ribbons are drawn a family at a time, what is in sight first. */
  readonly turn = inTurns(RUDIMENT_FAMILIES.length);
  readonly shown = computed(() => this.families().slice(0, this.turn()));

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

  /** Enter takes it, as in any field; with Shift it begins a line. */
  enter(event: Event): void {
    event.preventDefault();
    this.useTyped();
  }

  /**
   * The button is never disabled in earnest: Enter may come before the page is drawn anew, and the browser would drop
   * it.
   */
  useTyped(): void {
    const read = this.read();
    if (!read?.ok) {
      this.field()?.nativeElement.focus();
      return;
    }
    const lines = looksLikeLines(this.text()) ? { lines: true as const } : {};
    const text = printStrokeText(read.value);
    this.store.setSource({ kind: 'typed', text, meter: this.meter(), grid: this.grid(), ...lines });
    this.chosen.emit();
  }

  /** The example as it comes out, drawn beside the offer to take it apart. */
  readonly example = build(WORKED_EXAMPLE);

  useTapped({ text, grid, tempo }: Tapped): void {
    this.store.begin({ kind: 'typed', text, meter: this.meter(), grid }, tempo);
    this.chosen.emit();
  }

  useExample(): void {
    this.store.replace(WORKED_EXAMPLE);
    this.chosen.emit();
  }
}

/** A sticking as it was typed, or a groove a line to a piece; nothing where it was not typed. */
function typedIn(source: Source | undefined): string {
  if (source?.kind !== 'typed') return '';
  return linesTyped(source)?.replaceAll('; ', '\n') ?? source.text;
}
