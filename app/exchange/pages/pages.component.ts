import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  linkedSignal,
  output,
  resource,
  viewChild,
} from '@angular/core';
import { count } from '@core/base';
import type { SharedPhrase } from '@core/formats/shared';
import { PhrasesRepo } from '../../storage/phrases.repo';
import { SettingsRepo } from '../../storage/settings.repo';
import { ShelfIndex } from '../../knowledge/shelf-index.service';
import { ChipsComponent } from '../../widgets/chips.component';
import type { Choice } from '../../widgets/choice';
import { RibbonComponent } from '../../drawings/ribbon/ribbon.component';
import { fileName, saveSvg } from '../../widgets/save-svg';
import { PAPER, SheetFrameComponent } from '../../widgets/sheet-frame.component';
import { StaffComponent } from '../../drawings/staff/staff.component';
import { stepsOf, pageOf } from './page-of';

/** The most phrases of a book. */
const MOST = 200;

type Kind = 'page' | 'short' | 'steps' | 'variants';

/** Pages for the music stand: one phrase, step by step, its variants, or many phrases as a book with contents. */
@Component({
  selector: 'ls-pages',
  imports: [ChipsComponent, RibbonComponent, SheetFrameComponent, StaffComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './pages.component.html',
  styleUrl: './pages.component.css',
})
export class PagesComponent {
  /** Phrases of the shelf by their ids. */
  readonly ids = input<readonly string[]>([]);
  /** A phrase as it lies on the Bench, kept or not. */
  readonly phrase = input<SharedPhrase | null>(null);
  /** Phrases as they are given, with what stands before them: a lesson. */
  readonly given = input<readonly SharedPhrase[] | null>(null);
  readonly heading = input('');
  readonly lead = input('');
  readonly closed = output();
  readonly settings = inject(SettingsRepo);
  private readonly phrases = inject(PhrasesRepo);
  private readonly index = inject(ShelfIndex);
  private readonly sheet = viewChild<ElementRef<HTMLElement>>('sheet');
  readonly paper = PAPER;
  readonly most = MOST;
  private readonly kept = resource({
    params: () => this.ids().slice(0, MOST),
    loader: ({ params }) => this.phrases.some(params),
  });
  private readonly all = computed((): readonly SharedPhrase[] | null => {
    const own = this.phrase();
    if (own) return [own];
    const given = this.given();
    if (given) return given;
    return this.kept.hasValue() ? this.kept.value() : null;
  });
  readonly single = computed(() => this.phrase() !== null || (this.given()?.length ?? this.ids().length) === 1);
  /** The variants of the one phrase that lie on the shelf, by their names. */
  private readonly kin = resource({
    params: () => (this.ids().length === 1 ? this.ids()[0] : undefined),
    loader: async ({ params }) => {
      const { tree } = await this.index.kin(params);
      const own = await this.phrases.some(tree.map((l) => l.id).slice(0, MOST));
      return own.filter((p) => p.parent?.id === params).sort((a, b) => (a.name < b.name ? -1 : 1));
    },
  });
  private readonly grown = computed(() => (this.kin.hasValue() ? this.kin.value() : []));
  readonly kinds = computed((): readonly Choice<Kind>[] =>
    this.single()
      ? [
          { value: 'page', words: 'the phrase' },
          { value: 'steps', words: 'step by step' },
          ...(this.grown().length > 0
            ? [{ value: 'variants' as const, words: count(this.grown().length, 'variant') }]
            : []),
        ]
      : [
          { value: 'short', words: 'ribbons' },
          { value: 'page', words: 'with staff' },
          { value: 'steps', words: 'step by step' },
        ],
  );
  readonly kind = linkedSignal((): Kind => (this.single() ? 'page' : 'short'));
  readonly pages = computed(() => {
    const all = this.kind() === 'variants' ? [...(this.all() ?? []), ...this.grown()] : this.all();
    return all?.map((phrase) => ({
      ...pageOf(phrase),
      steps: this.kind() === 'steps' ? stepsOf(phrase.recipe) : [],
      change: 'parent' in phrase ? ((phrase as { parent?: { change: string } }).parent?.change ?? '') : '',
    }));
  });
  readonly isBook = computed(() => (this.pages()?.length ?? 0) > 1);
  readonly title = computed(() => (this.single() ? 'A page for the music stand' : 'Pages for the music stand'));

  save(what: 'ribbon' | 'staff'): void {
    const svg = this.sheet()?.nativeElement.querySelector(`.${what} svg`);
    const name = this.pages()?.[0]?.name ?? 'phrase';
    if (svg instanceof SVGSVGElement) void saveSvg(svg, fileName(`${name} ${what}`, 'svg'));
  }
}
