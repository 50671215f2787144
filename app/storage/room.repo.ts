import { inject, Injectable } from '@angular/core';
import type { RoomHabits } from '@core/formats/shelf-file';
import { Database } from './database';
import { KeptValue } from './kept-value';

const USUAL: RoomHabits = Object.freeze({ source: null, strictness: 'usual', click: 'beats', counts: false });

/** The habits of the practice room, remembered: nobody wants to plug in the same pad by words every day. */
@Injectable({ providedIn: 'root' })
export class RoomRepo {
  private readonly value = new KeptValue<RoomHabits>(inject(Database), 'room', USUAL);
  readonly now = this.value.now;

  change(part: Partial<RoomHabits>): Promise<boolean> {
    return this.value.patch(part);
  }
}
