import { Injectable } from '@angular/core';
import { wrap, type Remote } from 'comlink';
import type { readShelf, ShelfCode, ShelfFile } from '@core/formats';
import type { Read } from '@core/base';
import { spawnShelfFile } from './spawn';

/** Reads shelf files off the main thread. The worker lives for one reading, so a large file does not stay in memory. */
@Injectable({ providedIn: 'root' })
export class ShelfFileWorker {
  async read(text: string): Promise<Read<ShelfFile, ShelfCode>> {
    const worker = spawnShelfFile();
    const remote: Remote<{ read: typeof readShelf }> = wrap(worker);
    try {
      return await remote.read(text);
    } finally {
      worker.terminate();
    }
  }
}
