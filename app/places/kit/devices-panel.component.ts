import { ChangeDetectionStrategy, Component, computed, inject, signal, type OnDestroy } from '@angular/core';
import type { Voice } from '@core/stroke';
import { KitsRepo } from '../../storage/kits.repo';
import { MidiMapRepo } from '../../storage/midi-map.repo';
import { MidiSource } from '../../hits/midi.source';

/** My devices: which note of a MIDI pad or kit is which voice, taught by hitting. */
@Component({
  selector: 'ls-devices-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="panel">
      <h2>MIDI pad or kit</h2>
      @if (midi.trouble(); as words) {
        <p class="wrong" role="alert">{{ words }}</p>
      } @else if (midi.devices().length > 0) {
        <p>Connected: {{ midi.devices().join(', ') }}. Choose a drum or cymbal below, then hit the pad for it.</p>
      } @else {
        <p>Connect a pad or an electronic kit, then press Listen to MIDI.</p>
      }
      <div class="row">
        <button type="button" class="btn" (click)="connect()">Listen to MIDI</button>
        <button type="button" class="btn" (click)="map.reset()">Use the usual notes</button>
        @if (midi.lastNote() !== null) {
          <span class="quiet">last note: {{ midi.lastNote() }}, {{ heard() }}</span>
        }
      </div>
      <ul>
        @for (v of rows(); track v.voice) {
          <li>
            <button
              type="button"
              class="btn small"
              [class.on]="teaching() === v.voice"
              [attr.aria-pressed]="teaching() === v.voice"
              (click)="teach(v.voice)"
            >
              {{ v.name }}
            </button>
            <span class="mono quiet">{{ teaching() === v.voice ? 'hit it now …' : v.notes || '–' }}</span>
          </li>
        }
      </ul>
      <p class="quiet small">Set microphone levels and delays in Drill, under Who judges?</p>
    </section>
  `,
  styles: `
    section {
      max-width: 720px;
      padding: 16px 20px;
      display: flex;
      flex-direction: column;
      gap: 12px;
    }
    .row {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      align-items: center;
    }
    ul {
      list-style: none;
      margin: 0;
      padding: 0;
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(200px, 1fr));
      gap: 6px;
    }
    li {
      display: flex;
      gap: 8px;
      align-items: center;
      font-size: 12.5px;
    }
    .small {
      font-size: 12.5px;
    }
  `,
})
export class DevicesPanelComponent implements OnDestroy {
  readonly midi = inject(MidiSource);
  readonly map = inject(MidiMapRepo);
  private readonly kits = inject(KitsRepo);
  readonly teaching = signal<Voice | null>(null);
  readonly rows = computed(() =>
    this.kits.voices().map((voice) => ({
      voice,
      name: this.kits.nameOf(voice),
      notes: Object.entries(this.map.now())
        .filter(([, v]) => v === voice)
        .map(([note]) => note)
        .join(', '),
    })),
  );
  readonly heard = computed(() => {
    const note = this.midi.lastNote();
    const voice = note === null ? null : this.map.voiceOf(note);
    return voice ? this.kits.nameOf(voice) : 'not set';
  });
  private readonly ears = this.midi.hits$.subscribe(() => {
    const [note, voice] = [this.midi.lastNote(), this.teaching()];
    if (note === null || voice === null) return;
    this.teaching.set(null);
    void this.map.teach(note, voice);
  });

  ngOnDestroy(): void {
    this.ears.unsubscribe();
    this.midi.stop();
  }

  connect(): void {
    void this.midi.start();
  }

  teach(voice: Voice): void {
    this.teaching.update((now) => (now === voice ? null : voice));
    void this.midi.start();
  }
}
