import { backingClip, backingOf, type Backing, type BackingClip, type Clip } from '@core/listen';

/** Makes the bars of a record even at any tempo: aside from the page. */
export class BackingEngine {
  private clip: BackingClip | null = null;

  take(clip: Clip): void {
    this.clip = backingClip(clip);
  }

  /** At so many quarters a minute; null where nothing can be made of it, or the tempo is too far from its own. */
  at(bpm: number): Backing | null {
    return this.clip && backingOf(this.clip, bpm);
  }
}
