import { ChangeDetectionStrategy, Component, computed, effect, inject, signal } from '@angular/core';
import { Tooltip } from 'primeng/tooltip';
import { toSignal } from '@angular/core/rxjs-interop';
import { NavigationEnd, Router, RouterLink, RouterLinkActive, RouterOutlet } from '@angular/router';
import { filter, map } from 'rxjs';
import { Toast } from 'primeng/toast';
import { SettingsRepo } from '../data/settings.repo';
import { HealthService } from '../data/health.service';
import { currentShelf, openShelf } from '../data/which-shelf';
import { KeysOverlayComponent } from './keys-overlay.component';
import { KeysService } from './keys.service';
import { PLACES } from './places';
import type { NoticeAction } from './notices.service';
import { NoticesService } from './notices.service';

/** The frame round every place: the rail, the keys that work everywhere, notices, and troubles with storage. */
@Component({
  selector: 'ls-shell',
  imports: [Tooltip, RouterOutlet, RouterLink, RouterLinkActive, Toast, KeysOverlayComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './shell.component.html',
  styleUrl: './shell.component.css',
  host: {
    '(click)': 'letGo($event)',
    '(window:beforeunload)': 'leaving($event)',
    '[attr.data-writing]': "health.writing() ? 'yes' : 'no'",
  },
})
export class ShellComponent {
  private readonly router = inject(Router);
  private readonly notices = inject(NoticesService);
  private readonly settings = inject(SettingsRepo);
  readonly health = inject(HealthService);
  readonly places = PLACES;
  readonly showsKeys = signal(false);
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
    return theme === 'dark' || (room !== 'same' && this.address().startsWith('/drill'));
  });

  constructor() {
    effect(() => document.documentElement.classList.toggle('dark', this.dark()));
    inject(KeysService).use([
      ...PLACES.map((p) => ({
        combo: String(p.digit),
        shown: String(p.digit),
        does: p.name,
        run: () => void this.router.navigate([p.path]),
      })),
      { combo: 'Shift+?', shown: '?', does: 'Show the keys of this place', run: () => this.showsKeys.set(true) },
    ]);
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

  actionOf(data: unknown): NoticeAction | null {
    return typeof data === 'object' && data !== null && 'run' in data ? (data as NoticeAction) : null;
  }

  act(action: NoticeAction): void {
    this.notices.close();
    action.run();
  }

  goHome(): void {
    openShelf('mine');
  }

  openDemo(): void {
    openShelf('demo');
  }
}
