import { inject, Injectable } from '@angular/core';
import { KeysSource } from './keys.source';
import { MicrophoneSource } from './microphone.source';
import { MidiSource } from './midi.source';
import { SimulatedSource } from './simulated.source';
import type { HitSource, SourceKind } from './source';

/** Every way to hear what is struck, in the order a menu offers them. */
@Injectable({ providedIn: 'root' })
export class HitSources {
  private readonly keys = inject(KeysSource);
  readonly all: readonly HitSource[] = [
    this.keys,
    inject(MidiSource),
    inject(MicrophoneSource),
    inject(SimulatedSource),
  ];

  of(kind: SourceKind): HitSource {
    return this.all.find((s) => s.kind === kind) ?? this.keys;
  }
}
