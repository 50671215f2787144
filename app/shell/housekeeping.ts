import { createComponent, EnvironmentInjector, inject, Injectable, type Type } from '@angular/core';
import { Button } from 'primeng/button';
import { Dialog } from 'primeng/dialog';
import { Toast } from 'primeng/toast';
import { Transport } from '../audio/transport.service';
import { BackupService } from '../data/backup.service';
import { DraftsRepo } from '../data/drafts.repo';
import { PhrasesRepo } from '../data/phrases.repo';
import { whenIdle } from '../ui/idle';
import { NoticesService } from './notices.service';
import { PLACES, type Place } from './places';

const NO_BACKUP = 'The backup could not be written. Nothing was changed; try again under Kit.';

/** How long the place that was opened has the machine to itself before the code of the others is fetched, in ms. */
const FETCH_AFTER = 3000;
/** How long the place has before what opens over it is made ready, in milliseconds. */
const LAY_OUT_AFTER = 1500;

/**
 * What may wait until the page is there, fetched when it is: what is too old to be brought back goes, a backup that is
 * due is made, and silence is explained.
 */
@Injectable({ providedIn: 'root' })
export class Housekeeping {
  private readonly phrases = inject(PhrasesRepo);
  private readonly drafts = inject(DraftsRepo);
  private readonly notices = inject(NoticesService);
  private readonly environment = inject(EnvironmentInjector);
  readonly backup = inject(BackupService);
  readonly transport = inject(Transport);

  async tidy(): Promise<void> {
    setTimeout(() => this.layOut([Dialog, Button, Toast]), LAY_OUT_AFTER);
    setTimeout(() => this.fetchPlaces([...PLACES]), FETCH_AFTER);
    await this.phrases.forgetOld();
    await this.drafts.forgetOld();
    await this.backup.look().catch(() => this.notices.wrong(NO_BACKUP));
  }

  /**
   * Puts the styles of what opens over a place into the page beforehand: with every new style the browser works out the
   * looks of all there is, and the first dialog would come late.
   */
  private layOut([next, ...rest]: readonly Type<unknown>[]): void {
    if (!next) return;
    whenIdle(() => {
      if (this.environment.destroyed) return;
      const made = createComponent(next, { environmentInjector: this.environment });
      made.changeDetectorRef.detectChanges();
      made.destroy();
      this.layOut(rest);
    });
  }

  /** The places that were not opened yet are fetched one by one between frames, so that going there does not wait. */
  private fetchPlaces([next, ...rest]: readonly Place[]): void {
    if (!next) return;
    whenIdle(
      () =>
        void next
          .load()
          .catch(() => undefined)
          .then(() => this.fetchPlaces(rest)),
    );
  }

  async backUp(): Promise<void> {
    try {
      this.notices.tell(await this.backup.save());
    } catch {
      this.notices.wrong(NO_BACKUP);
    }
  }
}
