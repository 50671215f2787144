import { Injectable, signal } from '@angular/core';
import { Subject } from 'rxjs';
import type { Limb } from '@core/stroke';
import type { Hit } from '@core/take';
import type { HitSource } from './source';

/** Which key stands for which limb: the hands lie on F and J as on any keyboard, the feet on the thumbs' row. */
const LIMB_OF_KEY: Readonly<Record<string, Limb>> = {
  KeyF: 'L',
  KeyD: 'L',
  KeyJ: 'R',
  KeyK: 'R',
  KeyB: 'K',
  KeyN: 'K',
  KeyV: 'H',
};

/** The computer's keys. They know the limb and the moment, not how hard. */
@Injectable({ providedIn: 'root' })
export class KeysSource implements HitSource {
  readonly kind = 'keys';
  readonly name = 'Computer keys';
  readonly hint =
    'F and J are the hands, B the kick, V the hi-hat foot. Tries on keys are marked and count for no tempo.';
  private readonly hits = new Subject<Hit>();
  readonly hits$ = this.hits.asObservable();
  readonly trouble = signal<string | null>(null).asReadonly();
  readonly news = signal<string | null>(null).asReadonly();
  private listening = false;

  private readonly press = (event: KeyboardEvent): void => {
    const limb = LIMB_OF_KEY[event.code];
    if (!limb || event.repeat || event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.target instanceof HTMLElement && event.target.closest('input, select, textarea')) return;
    event.preventDefault();
    event.stopPropagation();
    this.hits.next({ seconds: event.timeStamp / 1000, limb, voice: null, velocity: null });
  };

  start(): Promise<boolean> {
    if (!this.listening) window.addEventListener('keydown', this.press, true);
    this.listening = true;
    return Promise.resolve(true);
  }

  stop(): void {
    window.removeEventListener('keydown', this.press, true);
    this.listening = false;
  }
}
