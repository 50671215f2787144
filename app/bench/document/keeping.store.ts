import { inject, Injectable, signal } from '@angular/core';
import { Router } from '@angular/router';
import { PhrasesRepo } from '../../data/phrases.repo';
import { NoticesService } from '../../shell/notices.service';
import { BenchStore, type Label } from './bench.store';

/** From the Bench to the shelf and the room, and back: keeping, drilling, opening. */
@Injectable({ providedIn: 'root' })
export class KeepingStore {
  private readonly bench = inject(BenchStore);
  private readonly phrases = inject(PhrasesRepo);
  private readonly notices = inject(NoticesService);
  private readonly router = inject(Router);
  /** Whether the player is asked how the phrase is to be kept. */
  readonly asking = signal(false);

  ask(): void {
    if (this.bench.recipe()) this.asking.set(true);
  }

  async keepAs(label: Label): Promise<void> {
    this.asking.set(false);
    const phrase = await this.bench.keep(label, Date.now());
    if (!phrase) return;
    this.notices.tell(`“${phrase.name.slice(0, 80)}” is on the shelf.`);
    await this.router.navigate(['/bench', phrase.id], { replaceUrl: true });
  }

  /**
   * To the practice room. What is not kept yet is kept first, under the name it has or the one that is suggested, as a
   * drill remembers how far one came with a phrase.
   */
  async drill(): Promise<void> {
    if (!this.bench.recipe()) return;
    const old = this.bench.phrase();
    const phrase = this.bench.isKept() ? old : await this.bench.keep(old ?? this.bench.suggestedLabel(), Date.now());
    if (!phrase) return;
    const name = phrase.name.slice(0, 80);
    if (!old) this.notices.tell(`“${name}” is on the shelf now. It can be named anew on the Bench.`);
    else if (phrase !== old)
      this.notices.tell(`“${name}” is kept as it stands on the Bench.`, {
        label: 'As it was before',
        run: () => void this.phrases.save(old),
      });
    await this.router.navigate(['/drill', phrase.id]);
  }

  /** Opens a phrase of the shelf; when it is gone, that is said and what lay on the Bench stays. */
  async open(id: string): Promise<void> {
    if (await this.bench.open(id)) return;
    this.notices.wrong('That phrase is not on this shelf any more. What you worked on last is still here.');
    await this.router.navigate(['/bench'], { replaceUrl: true });
  }

  async clear(): Promise<void> {
    await this.bench.clear();
    await this.router.navigate(['/bench'], { replaceUrl: true });
  }
}
