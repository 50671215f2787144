import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { STRICTNESS, type Player } from '@core/take';
import { MidiSource } from '../../hits/midi.source';
import { SimulatedSource } from '../../hits/simulated.source';
import type { SourceKind } from '../../hits/source';
import { HitSources } from '../../hits/sources.service';
import { ChipsComponent } from '../../widgets/chips.component';
import { choicesOf, type Choice } from '../../widgets/choice';
import { NumberFieldComponent } from '../../widgets/number-field.component';
import { SelectComponent } from '../../widgets/select.component';
import { CalibrateComponent } from './calibrate.component';
import { WithheldComponent } from '../../widgets/withheld.component';
import { MicLevelsComponent } from './mic-levels.component';
import { RoomChoices } from './room-choices.store';
import { RoomSoundComponent } from './room-sound.component';

const ALL_DEVICES = '';

const NO_FAULT = 'no other fault';
/** The simulated player without any of the faults below. */
const NONE: Partial<Player> = { weak: null, slower: 0, swing: 50, part: 1, missed: 0, graces: true };
const FAULTS: Readonly<Record<string, Partial<Player>>> = {
  [NO_FAULT]: {},
  'left hand 25 ms late': { weak: { limb: 'L', late: 25 } },
  '3% slower than the click': { slower: 0.03 },
  '16ths swung 62%': { swing: 62 },
  'misses strokes': { missed: 0.12 },
  'plays only half of the loop': { part: 0.5 },
  'no grace strokes': { graces: false },
};

/** Who judges a drill: the player's ear, or what listens, how strictly, and what it needs to hear well. */
@Component({
  selector: 'ls-ear-setup',
  imports: [
    CalibrateComponent,
    ChipsComponent,
    MicLevelsComponent,
    NumberFieldComponent,
    RoomSoundComponent,
    SelectComponent,
    WithheldComponent,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>Who judges?</h2>
    <ls-withheld />
    <ls-chips label="What listens" [chips]="ears" [chosen]="choices.source()" (chose)="choices.listenTo($event)" />
    @if (source(); as s) {
      <p class="quiet small">{{ s.hint }}</p>
      @if (s.trouble(); as words) {
        <p class="wrong" role="alert">{{ words }} The drill goes on; judge by ear.</p>
      }
      @if (s.news(); as words) {
        <p class="quiet small" role="status">{{ words }}</p>
      }
      @if (s.kind === 'midi' && midi.devices().length > 1) {
        <ls-select
          label="Which device"
          [options]="devices()"
          [chosen]="midi.only() ?? all"
          (chose)="midi.listenTo($event === all ? null : $event)"
        />
      }
      <div class="row">
        @if (s.kind !== 'simulated') {
          <button type="button" class="btn small" (click)="calibrating.set(!calibrating())">Measure the delay</button>
        }
        <ls-select
          label="How strict"
          [options]="strictnesses"
          [chosen]="choices.strictness()"
          (chose)="choices.judge($event)"
        />
      </div>
      @if (s.kind === 'microphone') {
        <ls-mic-levels />
      }
      @if (s.kind === 'simulated') {
        <div class="row">
          <div class="field">
            spread, ms
            <ls-number-field
              label="Spread of the simulated player"
              [value]="simulated.player().spread"
              (changed)="fault({ spread: $event })"
            />
          </div>
          <div class="field">
            late, ms
            <ls-number-field
              label="Lateness of the simulated player"
              [least]="-100"
              [value]="simulated.player().bias"
              (changed)="fault({ bias: $event })"
            />
          </div>
          <div class="field">
            kick late, ms
            <ls-number-field
              label="Lateness of the simulated kick"
              [least]="-100"
              [value]="simulated.player().weak?.late ?? 0"
              (changed)="fault({ weak: { limb: 'K', late: $event } })"
            />
          </div>
        </div>
        <div class="field">
          and also
          <ls-select
            label="Fault of the simulated player"
            [options]="faults"
            [chosen]="faultBeside()"
            (chose)="setBesides($event)"
          />
        </div>
      }
      @if (calibrating() && s.kind !== 'simulated') {
        <ls-calibrate [source]="s" (closed)="calibrating.set(false)" />
      }
    } @else {
      <p class="quiet small">You listen and press clean or messy.</p>
    }
    <ls-room-sound [levels]="false" />
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      gap: 12px;
      min-width: 0;
    }
    .row {
      display: flex;
      gap: 8px;
      align-items: flex-end;
    }
    .row > * {
      flex: 1;
      min-width: 0;
    }
    .small {
      font-size: 12.5px;
    }
  `,
})
export class EarSetupComponent {
  readonly choices = inject(RoomChoices);
  private readonly sources = inject(HitSources);
  readonly simulated = inject(SimulatedSource);
  readonly midi = inject(MidiSource);
  readonly all = ALL_DEVICES;
  readonly strictnesses = choicesOf(STRICTNESS);
  readonly ears: readonly Choice<SourceKind | null>[] = [
    { value: null, words: 'My ear' },
    ...this.sources.all.map((s) => ({ value: s.kind, words: s.name })),
  ];
  readonly devices = computed((): readonly Choice<string>[] => [
    { value: ALL_DEVICES, words: 'all devices' },
    ...choicesOf(this.midi.devices()),
  ]);
  /** One fault of the simulated player at a time, beside scatter and lateness. */
  readonly faults = choicesOf(Object.keys(FAULTS), (words) => words);
  readonly faultBeside = signal(NO_FAULT);
  readonly calibrating = signal(false);
  readonly source = computed(() => {
    const kind = this.choices.source();
    return kind === null ? null : this.sources.of(kind);
  });

  setBesides(words: string): void {
    this.faultBeside.set(words);
    this.fault({ ...NONE, ...FAULTS[words] });
  }

  /** Another fault of the simulated player. */
  fault(part: Partial<Player>): void {
    this.simulated.player.update((p) => ({ ...p, ...part }));
  }
}
