import { inject, Injectable } from '@angular/core';
import { Transport } from '../sound/transport.service';
import { BackupService } from '../storage/files/backup.service';
import { OwnFolder } from '../storage/files/own-folder.service';
import { DraftsRepo } from '../storage/drafts.repo';
import { PhrasesRepo } from '../storage/phrases.repo';
import { whenIdle } from '../common/idle';
import { NoticesService } from '../common/notices.service';
import { PLACES, type Place } from './places';

const NO_BACKUP = 'The backup could not be saved. Nothing was changed. Try again under Kit.';

/** How long the place that was opened has the machine to itself before the code of the others is fetched, in ms. */
const FETCH_AFTER = 3000;

/**
 * What may wait until the page is there, fetched when it is: what is too old to be brought back goes, a backup that is
 * due is made, and silence is explained.
 */
@Injectable({ providedIn: 'root' })
export class Housekeeping {
  private readonly phrases = inject(PhrasesRepo);
  private readonly drafts = inject(DraftsRepo);
  private readonly notices = inject(NoticesService);
  readonly backup = inject(BackupService);
  private readonly folder = inject(OwnFolder);
  readonly transport = inject(Transport);

  async tidy(): Promise<void> {
    void this.folder.begin();
    setTimeout(() => this.fetchPlaces([...PLACES]), FETCH_AFTER);
    await this.phrases.forgetOld();
    await this.drafts.forgetOld();
    await this.backup.look().catch(() => this.notices.wrong(NO_BACKUP));
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
