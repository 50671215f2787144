import { inject, Injectable } from '@angular/core';
import type { SharedPhrase } from '@core/formats';
import { now } from '../data/clock';
import { freshUuid } from '../data/ids';
import { PhrasesRepo } from '../data/phrases.repo';
import { FULL } from '../data/phrases.words';
import { NoticesService } from '../shell/notices.service';

/** Puts a phrase that came from elsewhere on the shelf, with its way back. */
@Injectable({ providedIn: 'root' })
export class KeepShared {
  private readonly phrases = inject(PhrasesRepo);
  private readonly notices = inject(NoticesService);

  /** Resolves to the id under which it lies there; null where it could not be kept, which is said. */
  async keep(phrase: SharedPhrase): Promise<string | null> {
    const [id, at] = [freshUuid(), now()];
    const undo = await this.phrases.add([{ ...phrase, id, created: at, changed: at }]);
    if (undo === 'full') this.notices.wrong(FULL);
    if (undo === 'full' || undo === null) return null;
    this.notices.tell(`“${phrase.name.slice(0, 60)}” is on the shelf.`, {
      label: 'Take it off again',
      run: () => void undo(),
    });
    return id;
  }
}
