import { inject, Injectable } from '@angular/core';
import { CLICK_KINDS, type ClickKind } from '@core/playback';
import { STRICTNESS, type Strictness } from '@core/take';
import { Database } from './database';
import { KeptValue } from './kept-value';

/** What listens to a drummer's own playing; null for the own ear. A stand-in is no habit, so it is not among them. */
export const OWN_SOURCES = ['keys', 'midi', 'microphone'] as const;
export type OwnSource = (typeof OWN_SOURCES)[number];

/** How a drummer likes the practice room. */
export interface RoomHabits {
  readonly source: OwnSource | null;
  readonly strictness: Strictness;
  readonly click: ClickKind;
  /** Whether tones count along. */
  readonly counts: boolean;
}

const USUAL: RoomHabits = Object.freeze({ source: null, strictness: 'usual', click: 'beats', counts: false });

/** The habits of the practice room, remembered: nobody wants to plug in the same pad by words every day. */
@Injectable({ providedIn: 'root' })
export class RoomRepo {
  private readonly value = new KeptValue<RoomHabits>(inject(Database), 'room', USUAL, isHabits);
  readonly now = this.value.now;

  change(part: Partial<RoomHabits>): Promise<boolean> {
    return this.value.keep({ ...this.now(), ...part });
  }
}

function isHabits(value: unknown): value is RoomHabits {
  if (typeof value !== 'object' || value === null) return false;
  const own = new Map<string, unknown>(Object.entries(value));
  const oneOf = (key: string, all: readonly unknown[]): boolean => all.includes(own.get(key));
  return (
    oneOf('source', [null, ...OWN_SOURCES]) &&
    oneOf('strictness', STRICTNESS) &&
    oneOf('click', CLICK_KINDS) &&
    oneOf('counts', [true, false])
  );
}
