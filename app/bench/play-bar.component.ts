import { ChangeDetectionStrategy, Component, inject, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Slider } from 'primeng/slider';
import type { ClickKind } from '@core/playback';
import { Transport } from '../audio/transport.service';
import { TempoFieldComponent } from '../ui/tempo-field.component';
import { BenchStore } from './bench.store';

const CLICKS: readonly { readonly kind: ClickKind; readonly name: string }[] = [
  { kind: 'beats', name: 'Click: beats' },
  { kind: 'bar', name: 'Click: bar' },
  { kind: 'none', name: 'Click: off' },
];

/** Play, tempo and click at the foot of the Bench. */
@Component({
  selector: 'ls-play-bar',
  imports: [FormsModule, Slider, TempoFieldComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  // How many sounds came too late since play was pressed: nought, or the engine is not to be trusted.
  host: { '[attr.data-late]': 'transport.late()' },
  template: `
    <button type="button" class="btn primary play" (click)="toggled.emit()" [attr.aria-label]="transport.playing() ? 'Stop' : 'Play'">
      <i [class]="transport.playing() ? 'pi pi-stop' : 'pi pi-caret-right big'" aria-hidden="true"></i>
    </button>
    <ls-tempo-field [bpm]="store.tempo()" (bpmChange)="store.setTempo($event)" />
    <span class="quiet unit">beats a minute</span>
    <p-slider class="tempo" [ngModel]="store.tempo()" (ngModelChange)="store.setTempo($event)" [min]="20" [max]="240" ariaLabel="Tempo" />
    <button type="button" class="btn" (click)="next()">{{ name() }}</button>
    <span class="spacer"></span>
    @if (transport.trouble(); as words) {
      <span class="wrong" role="alert">{{ words }}</span>
    } @else {
      <span class="quiet hint"><kbd>Space</kbd> play <kbd>↑</kbd> <kbd>↓</kbd> tempo <kbd>?</kbd> all keys</span>
    }
  `,
  styles: `
    :host {
      display: flex;
      align-items: center;
      gap: 14px;
      padding: 0 20px;
      background: var(--surface);
      border-top: 1px solid var(--line);
    }
    .play {
      width: 44px;
      height: 44px;
      justify-content: center;
    }
    .big {
      font-size: 24px;
    }
    .unit {
      font-size: 12.5px;
    }
    .tempo {
      width: 200px;
      margin: 0 8px;
    }
    .hint {
      font-size: 12.5px;
    }
    @media (max-width: 1000px) {
      .hint,
      .unit {
        display: none;
      }
    }
    @media (max-width: 600px) {
      :host {
        padding: 8px 12px;
        gap: 10px;
      }
      .tempo {
        width: 70px;
      }
    }
  `,
})
export class PlayBarComponent {
  readonly store = inject(BenchStore);
  readonly transport = inject(Transport);
  readonly click = input.required<ClickKind>();
  readonly clickChange = output<ClickKind>();
  readonly toggled = output();

  name(): string {
    return CLICKS.find((c) => c.kind === this.click())?.name ?? '';
  }

  next(): void {
    const i = CLICKS.findIndex((c) => c.kind === this.click());
    this.clickChange.emit(CLICKS[(i + 1) % CLICKS.length]?.kind ?? 'beats');
  }
}
