import { ChangeDetectionStrategy, Component, ElementRef, inject, input } from '@angular/core';
import { Tab, TabList, TabPanel, TabPanels, Tabs } from 'primeng/tabs';
import type { Pattern } from '@core/pattern';
import { Transport } from '../../../sound/transport.service';
import { SaveDrawingComponent } from '../../../widgets/save-drawing.component';
import { StaffComponent } from '../../../drawings/staff/staff.component';
import { PathsPanelComponent } from '../answers/paths-panel.component';
import { ViewStore, type Lower } from '../document/view.store';
import { CursorStore } from '../ribbon/cursor.store';
import { LinesStore } from '../ribbon/lines.store';
import { SoundStore } from '../ribbon/sound.store';
import { ComparePanelComponent } from './compare-panel.component';

const TABS: readonly { readonly what: Lower; readonly words: string; readonly key: string }[] = [
  { what: 'staff', words: 'Staff', key: 'N' },
  { what: 'paths', words: 'Travel', key: 'A' },
  { what: 'compare', words: 'Compare', key: 'C' },
];

/** Under the ribbon: the staff, the hands' way over the kit, or another phrase. The open one is closed by its tab. */
@Component({
  selector: 'ls-lower-pane',
  imports: [
    ComparePanelComponent,
    PathsPanelComponent,
    SaveDrawingComponent,
    StaffComponent,
    Tab,
    TabList,
    TabPanel,
    TabPanels,
    Tabs,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-tabs [showNavigators]="false" [value]="view.lower() ?? ''" [selectOnFocus]="false">
      <p-tablist aria-label="Under the ribbon">
        @for (t of tabs; track t.what) {
          <p-tab [value]="t.what" (click)="view.toggleLower(t.what)" (keydown.enter)="view.toggleLower(t.what)">
            {{ t.words }} <kbd>{{ t.key }}</kbd>
          </p-tab>
        }
      </p-tablist>
      <p-tabpanels>
        @for (t of tabs; track t.what) {
          <p-tabpanel [value]="t.what" [attr.aria-label]="t.words" tabindex="0">
            @if (view.lower() === t.what) {
              @if (t.what !== 'compare') {
                <ls-save-drawing class="save" [of]="pane" [what]="t.words" [name]="facts() + ' ' + t.words" />
              }
              @switch (t.what) {
                @case ('staff') {
                  @defer (on idle; on timer(200ms)) {
                    <ls-staff
                      [apart]="true"
                      [pattern]="pattern()"
                      [label]="facts()"
                      [stickings]="lines.shows('letters')"
                      [cursor]="cursor.at()"
                      [position]="transport.position"
                      [loop]="sound.loop()"
                      [origin]="sound.origin()"
                      (pressed)="cursor.put($event)"
                    />
                  }
                }
                @case ('paths') {
                  <ls-paths-panel />
                }
                @case ('compare') {
                  <ls-compare-panel />
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
      display: flex;
      flex-direction: column;
      min-height: 0;
      flex: 1 1 130px;
    }
    .save {
      /* The drawing that flows round it lies above what floats. */
      position: relative;
      z-index: 1;
      float: right;
    }
    :host(.tall) {
      flex-basis: 250px;
      flex-shrink: 0;
    }
    p-tabs,
    p-tabpanels {
      display: flex;
      flex-direction: column;
      flex: 1;
      min-height: 0;
    }
    p-tabpanel.p-tabpanel-active {
      flex: 1;
      min-height: 0;
      overflow: auto;
      padding: 2px 0;
    }
  `,
  host: { '[class.tall]': "view.lower() === 'paths'" },
})
export class LowerPaneComponent {
  readonly pattern = input.required<Pattern>();
  readonly facts = input('');
  readonly view = inject(ViewStore);
  readonly cursor = inject(CursorStore);
  readonly lines = inject(LinesStore);
  readonly sound = inject(SoundStore);
  readonly transport = inject(Transport);
  readonly tabs = TABS;
  readonly pane = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
}
