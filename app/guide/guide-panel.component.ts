import {
  afterNextRender,
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  signal,
  viewChild,
} from '@angular/core';
import { KeysService } from '../common/keys.service';
import { PAGES } from './generated/book';
import { searchOf, type Found } from './guide-search';
import { GuideService } from './guide.service';
import { GUIDE_PAGES, placeOfLink, type GuidePageId } from './page-ids';

/** The guide beside the work: the keys of the place on top, then a page; the others, and a search, at hand. */
@Component({
  selector: 'ls-guide-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(click)': 'follow($event)' },
  templateUrl: './guide-panel.component.html',
  styleUrl: './guide-panel.component.css',
})
export class GuidePanelComponent {
  readonly guide = inject(GuideService);
  readonly keys = inject(KeysService);
  private readonly top = viewChild.required<ElementRef<HTMLElement>>('top');
  private readonly text = viewChild<ElementRef<HTMLElement>>('text');
  readonly pages = PAGES;
  /** The place's own keys first, those of every place after them. */
  readonly groups = computed(() => [...this.keys.all()].reverse());
  readonly asked = signal('');
  readonly lists = signal(false);
  readonly page = computed(() => PAGES.find((p) => p.id === this.guide.open()?.page) ?? null);
  readonly next = computed(() => PAGES[PAGES.findIndex((p) => p.id === this.page()?.id) + 1] ?? null);
  private readonly search = searchOf(PAGES);
  readonly found = computed<readonly Found[] | null>(() =>
    this.asked().trim() === '' ? null : this.search(this.asked()),
  );

  constructor() {
    // The keys of the place go on working: the book has the keyboard, but no field of it.
    afterNextRender(() => this.top().nativeElement.focus());
    afterRenderEffect(() => {
      const open = this.guide.open();
      const text = this.text()?.nativeElement;
      if (!open || !text) return;
      const section = open.section === '' ? null : text.querySelector<HTMLElement>(`#guide-${open.section}`);
      if (section) section.scrollIntoView({ block: 'start' });
      else text.scrollTop = 0;
    });
  }

  /** A link of the page leads to another page, and never away. */
  follow(event: Event): void {
    const link = event.target instanceof Element ? event.target.closest('a') : null;
    if (!link) return;
    event.preventDefault();
    const to = placeOfLink(link.getAttribute('href') ?? '');
    if (to) this.guide.show(to.page, to.section);
  }

  turnTo(id: string, section = ''): void {
    const page: GuidePageId | undefined = GUIDE_PAGES.find((p) => p === id);
    if (!page) return;
    this.asked.set('');
    this.lists.set(false);
    this.guide.show(page, section);
  }

  /** Esc goes one step back: out of the search, then out of the book. What lies under it hears nothing of it. */
  back(event: Event): void {
    event.preventDefault();
    event.stopPropagation();
    if (this.asked() !== '') this.asked.set('');
    else this.guide.close();
  }
}
