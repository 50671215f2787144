import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  ElementRef,
  inject,
  Injector,
  signal,
  viewChild,
} from '@angular/core';
import { Tooltip } from 'primeng/tooltip';
import { toSignal } from '@angular/core/rxjs-interop';
import { NavigationEnd, Router, RouterLink, RouterLinkActive, RouterOutlet } from '@angular/router';
import { filter, map } from 'rxjs';
import { SettingsRepo } from '../storage/settings.repo';
import { HealthService } from '../storage/health.service';
import { whenIdle } from '../common/idle';
import { UpdateService } from './update.service';
import { currentShelf, openShelf } from '../environment/which-shelf';
import type { Housekeeping } from './housekeeping';
import { KeysService } from '../common/keys.service';
import { GuidePanelComponent } from '../guide/guide-panel.component';
import { GuideService } from '../guide/guide.service';
import { MeaningComponent } from '../guide/meaning.component';
import { PLACES } from './places';
import { NoticesComponent } from './notices.component';
import { NoticesService } from '../common/notices.service';

/** The frame round every place: the rail, the keys that work everywhere, notices, and troubles with storage. */
@Component({
  selector: 'ls-shell',
  imports: [
    GuidePanelComponent,
    MeaningComponent,
    NoticesComponent,
    RouterLink,
    RouterLinkActive,
    RouterOutlet,
    Tooltip,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './shell.component.html',
  styleUrl: './shell.component.css',
  host: {
    '(click)': 'letGo($event)',
    '(document:focusout)': 'keepFocus()',
    '(window:beforeunload)': 'leaving($event)',
    '[class.reading]': 'guide.open() !== null',
    '[attr.data-writing]': "health.writing() ? 'yes' : 'no'",
    '[attr.data-offline]': "updates.offline() ? 'yes' : 'no'",
  },
})
export class ShellComponent {
  private readonly router = inject(Router);
  readonly notices = inject(NoticesService);
  private readonly settings = inject(SettingsRepo);
  readonly health = inject(HealthService);
  readonly updates = inject(UpdateService);
  private readonly injector = inject(Injector);
  private readonly gone = inject(DestroyRef);
  /** What is fetched once the page is there. */
  readonly house = signal<Housekeeping | null>(null);
  readonly places = PLACES;
  private readonly main = viewChild.required<ElementRef<HTMLElement>>('main');
  readonly guide = inject(GuideService);
  readonly demo = currentShelf() === 'demo';
  private readonly address = toSignal(
    this.router.events.pipe(
      filter((e) => e instanceof NavigationEnd),
      map((e) => e.urlAfterRedirects),
    ),
    { initialValue: '' },
  );
  /**
   * The practice room is dark whatever the rest is, unless the player wants it the same: in daylight, dark is hard to
   * read.
   */
  readonly dark = computed(() => {
    const { theme, room } = this.settings.now();
    return theme === 'dark' || (room !== 'same' && /^\/(?:drill|play|shows\?run)/.test(this.address()));
  });

  /** Why there is no sound, in the places that have no play bar to say it. */
  readonly silence = computed(() =>
    /^\/(bench|drill|play)/.test(this.address()) ? null : (this.house()?.transport.trouble() ?? null),
  );

  constructor() {
    this.updates.start();
    whenIdle(() => void this.keepHouse());
    effect(() => document.documentElement.classList.toggle('dark', this.dark()));
    effect(() => {
      // In a place that was just gone to, nothing has the keyboard yet.
      if (this.address() !== '') this.keepFocus();
    });
    inject(KeysService).use([
      ...PLACES.map((p) => ({
        combo: String(p.digit),
        shown: String(p.digit),
        does: p.name,
        run: () => void this.router.navigate([p.path]),
      })),
      {
        combo: '/',
        shown: '/',
        does: 'Type a change on the Bench',
        run: () => void this.router.navigate(['/bench'], { queryParams: { say: 1 } }),
      },
      { combo: 'Shift+N', shown: 'Shift N', does: 'New phrase', run: () => this.newPhrase() },
      { combo: 'Shift+?', shown: '?', does: 'The guide, with the keys of this place', run: () => this.guide.toggle() },
    ]);
  }

  private async keepHouse(): Promise<void> {
    const { Housekeeping: Keeper } = await import('./housekeeping');
    // The page may have gone meanwhile.
    if (this.gone.destroyed) return;
    const house = this.injector.get(Keeper);
    this.house.set(house);
    await house.tidy();
  }

  /** The browser asks before it closes a tab that holds what is not kept yet. */
  leaving(event: Event): void {
    if (!this.health.allKept()) event.preventDefault();
  }

  /**
   * A button pressed by pointer gives the keyboard back, so that Space plays and does not press it again: at once, as
   * the next key may be on its way already. A press by keyboard counts no clicks, and keeps it.
   */
  letGo(event: MouseEvent): void {
    const pressed =
      event.target instanceof Element ? event.target.closest<HTMLElement>('button, [role=switch], a') : null;
    if (event.detail > 0 && pressed && !pressed.closest('.p-dialog')) pressed.blur();
  }

  /** The keyboard is always somewhere: where what had it gave it back, or is gone, the place has it. */
  keepFocus(): void {
    // Whoever takes it next does so by then.
    setTimeout(() => {
      if (document.activeElement === document.body) this.main().nativeElement.focus({ preventScroll: true });
    });
  }

  /** An empty Bench, from wherever one is. */
  newPhrase(): void {
    void this.router.navigate(['/bench'], { queryParams: { fresh: 1 } });
  }

  goHome(): void {
    openShelf('mine');
  }

  openDemo(): void {
    openShelf('demo');
  }
}
