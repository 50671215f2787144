import { ChangeDetectionStrategy, Component, inject, input, linkedSignal } from '@angular/core';
import { KeysService } from '../../common/keys.service';
import { currentShelf } from '../../environment/which-shelf';
import { DataPanelComponent } from './data-panel.component';
import { DevicesPanelComponent } from './devices-panel.component';
import { HandsPanelComponent } from './hands-panel.component';
import { KitPanelComponent } from './kit-panel.component';
import { KitsStore } from './kits.store';
import { Tab, TabList, TabPanel, TabPanels, Tabs } from 'primeng/tabs';
import { GuideLinkComponent } from '../../guide/guide-link.component';

const PARTS = [
  { id: 'kit', name: 'My kit' },
  { id: 'hands', name: 'My hands and feet' },
  { id: 'devices', name: 'My devices' },
  { id: 'data', name: 'My data and settings' },
] as const;
type Part = (typeof PARTS)[number]['id'];

/** The Kit: my kit from above, my hands and feet, my data and settings. */
@Component({
  selector: 'ls-kit',
  imports: [
    GuideLinkComponent,
    KitPanelComponent,
    HandsPanelComponent,
    DevicesPanelComponent,
    DataPanelComponent,
    Tab,
    TabList,
    TabPanel,
    TabPanels,
    Tabs,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-tabs [showNavigators]="false" class="kit" [value]="shown()" (valueChange)="show($event)">
      <header class="place-head">
        <h1>Kit</h1>
        <p-tablist class="parts" aria-label="Parts of the Kit">
          @for (p of parts; track p.id) {
            <p-tab [value]="p.id">{{ p.name }}</p-tab>
          }
        </p-tablist>
        <span class="spacer"></span>
        @if (demo) {
          <span class="quiet whose">The demo’s kit, not yours</span>
        }
        @if (shown() === 'kit') {
          <button type="button" class="btn" [disabled]="!kits.canUndo()" (click)="kits.undo()">Undo</button>
          <button type="button" class="btn" [disabled]="!kits.canRedo()" (click)="kits.redo()">Redo</button>
        }
        <ls-guide-link [page]="shown() === 'data' ? 'files-and-devices' : 'stickings-and-kit'" />
      </header>
      <p-tabpanels class="body">
        @for (p of parts; track p.id) {
          <p-tabpanel [value]="p.id" tabindex="0">
            @if (shown() === p.id) {
              @switch (p.id) {
                @case ('kit') {
                  <ls-kit-panel />
                }
                @case ('hands') {
                  <ls-hands-panel />
                }
                @case ('devices') {
                  <ls-devices-panel />
                }
                @case ('data') {
                  <ls-data-panel />
                }
              }
            }
          </p-tabpanel>
        }
      </p-tabpanels>
    </p-tabs>
  `,
  styles: `
    :host {
      display: block;
      min-height: 0;
    }
    .kit {
      height: 100%;
      display: grid;
      grid-template: auto minmax(0, 1fr) / minmax(0, 1fr);
    }
    .parts {
      align-self: end;
      min-width: 0;
    }
    .body {
      overflow: auto;
      padding: 20px 24px;
    }
    /* The rail says it too, and the names of the parts need the room. */
    @container place (max-width: 828px) {
      .whose {
        display: none;
      }
    }
    @container place (max-width: 600px) {
      .parts {
        flex-basis: 100%;
      }
      .body {
        padding: 12px;
      }
    }
  `,
})
export class KitComponent {
  readonly kits = inject(KitsStore);
  readonly demo = currentShelf() === 'demo';
  readonly parts = PARTS;
  /** Address: the part to show first (`?part=data`). */
  readonly part = input<string>();
  readonly shown = linkedSignal<Part>(() => PARTS.find((p) => p.id === this.part())?.id ?? 'kit');

  show(part: string | number | undefined): void {
    this.shown.set(PARTS.find((p) => p.id === part)?.id ?? 'kit');
  }

  constructor() {
    inject(KeysService).use([
      { combo: '$mod+z', shown: 'Ctrl Z', does: 'Undo a change of the kit', run: () => this.kits.undo() },
      { combo: '$mod+y', shown: 'Ctrl Y', does: 'Redo', run: () => this.kits.redo() },
      { combo: '$mod+Shift+z', shown: 'Ctrl Shift Z', does: 'Redo', run: () => this.kits.redo() },
    ]);
  }
}
