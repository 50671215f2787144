import { inject, Injectable } from '@angular/core';
import { stableJson } from '@core/base';
import type { SharedPhrase } from '@core/formats/shared';
import { now } from '../environment/clock';
import { freshUuid } from '../environment/ids';
import { OneAct } from '../common/one-act';
import { PhrasesRepo } from '../storage/phrases.repo';
import { FULL } from '../storage/phrases.words';
import { isSameWork } from '../storage/unkept.repo';
import { NoticesService } from '../common/notices.service';

/** Puts a phrase that came from elsewhere on the shelf, with its way back. */
@Injectable({ providedIn: 'root' })
export class KeepShared {
  private readonly phrases = inject(PhrasesRepo);
  private readonly notices = inject(NoticesService);
  private readonly acts = new OneAct();

  /**
   * Resolves to the id under which it lies there; null where it could not be kept, which is said. What lies there
   * already as it came is not kept twice.
   */
  keep(phrase: SharedPhrase): Promise<string | null> {
    return this.acts.run(
      stableJson(phrase),
      async (id) => isSameWork(phrase, await this.phrases.get(id)),
      () => this.put(phrase),
    );
  }

  private async put(phrase: SharedPhrase): Promise<string | null> {
    const [id, at] = [freshUuid(), now()];
    const undo = await this.phrases.add([{ ...phrase, id, created: at, changed: at }]);
    if (undo === 'full') this.notices.wrong(FULL);
    if (undo === 'full' || undo === null) return null;
    this.notices.tell(`“${phrase.name.slice(0, 60)}” is on the shelf.`, {
      label: 'Undo',
      run: () => void undo(),
    });
    return id;
  }
}
