import { Injectable, signal } from '@angular/core';

/** So many lines are remembered. */
const MOST = 40;

/** The lines that were said, to be taken up again with the arrow keys. They last as long as the page. */
@Injectable({ providedIn: 'root' })
export class SaidStore {
  private readonly all = signal<readonly string[]>([]);
  /** Which of them is in the box; behind the last where it is none. */
  private at = 0;

  keep(line: string): void {
    const own = line.trim();
    this.all.update((all) => [...all.filter((l) => l !== own), own].slice(-MOST));
    this.at = this.all().length;
  }

  /** The line before or after the one in the box; null where there is none, or where something new is being written. */
  walk(by: 1 | -1, now: string): string | null {
    const all = this.all();
    if (now.trim() !== '' && now !== all[this.at]) return null;
    if (now.trim() === '') this.at = all.length;
    const next = this.at + by;
    if (next < 0 || next > all.length) return null;
    this.at = next;
    return all[next] ?? '';
  }
}
