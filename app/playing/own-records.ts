import { inject, Injectable } from '@angular/core';
import { RecordPlayer } from '../sound/record-player';
import { ClipsRepo } from '../storage/clips.repo';
import { NoticesService } from '../common/notices.service';

/** The size of a clip in words. */
export function sizeWords(bytes: number): string {
  const mega = bytes / 1_000_000;
  return mega < 0.05 ? 'under 0.1 MB' : `${mega.toFixed(1)} MB`;
}

/** Bars of records that are kept with phrases, let go with a way back. */
@Injectable({ providedIn: 'root' })
export class OwnRecords {
  private readonly clips = inject(ClipsRepo);
  private readonly player = inject(RecordPlayer);
  private readonly notices = inject(NoticesService);

  async letGo(phrase: string): Promise<void> {
    this.player.stop();
    const clip = await this.clips.get(phrase);
    if (clip && (await this.clips.remove(phrase)))
      this.notices.tell('The recording is deleted.', {
        label: 'Undo',
        run: () => void this.clips.keep(clip),
      });
  }
}
