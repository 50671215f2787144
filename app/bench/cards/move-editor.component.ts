import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Pattern } from '@core/pattern';
import type { MoveEntry } from '@core/recipe';
import { DropEditorComponent } from './drop-editor.component';
import { FitEditorComponent } from './fit-editor.component';
import { GridEditorComponent } from './grid-editor.component';
import { InsertEditorComponent } from './insert-editor.component';
import { JoinEditorComponent } from './join-editor.component';
import { LandEditorComponent } from './land-editor.component';
import { LayerEditorComponent } from './layer-editor.component';
import { LevelEditorComponent } from './level-editor.component';
import { MirrorEditorComponent } from './mirror-editor.component';
import { OrnamentEditorComponent } from './ornament-editor.component';
import { RateEditorComponent } from './rate-editor.component';
import { RouteEditorComponent } from './route-editor.component';
import { ShiftEditorComponent } from './shift-editor.component';
import { SwapEditorComponent } from './swap-editor.component';
import { TouchEditorComponent } from './touch-editor.component';
import { VoiceEditorComponent } from './voice-editor.component';

/** The editor that fits a move, inside its card. */
@Component({
  selector: 'ls-move-editor',
  imports: [
    GridEditorComponent,
    RateEditorComponent,
    InsertEditorComponent,
    DropEditorComponent,
    SwapEditorComponent,
    FitEditorComponent,
    ShiftEditorComponent,
    MirrorEditorComponent,
    LevelEditorComponent,
    OrnamentEditorComponent,
    VoiceEditorComponent,
    RouteEditorComponent,
    LayerEditorComponent,
    LandEditorComponent,
    JoinEditorComponent,
    TouchEditorComponent,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let e = entry();
    @switch (e.move) {
      @case ('grid') {
        <ls-grid-editor
          [params]="e.params"
          [before]="before()"
          (changed)="changed.emit({ id: e.id, on: e.on, move: e.move, params: $event })"
        />
      }
      @case ('rate') {
        <ls-rate-editor
          [params]="e.params"
          (changed)="changed.emit({ id: e.id, on: e.on, move: e.move, params: $event })"
        />
      }
      @case ('insert') {
        <ls-insert-editor
          [params]="e.params"
          [before]="before()"
          (changed)="changed.emit({ id: e.id, on: e.on, move: e.move, params: $event })"
        />
      }
      @case ('drop') {
        <ls-drop-editor
          [params]="e.params"
          [before]="before()"
          (changed)="changed.emit({ id: e.id, on: e.on, move: e.move, params: $event })"
        />
      }
      @case ('swap') {
        <ls-swap-editor
          [params]="e.params"
          [before]="before()"
          (changed)="changed.emit({ id: e.id, on: e.on, move: e.move, params: $event })"
        />
      }
      @case ('fit') {
        <ls-fit-editor
          [params]="e.params"
          [before]="before()"
          (changed)="changed.emit({ id: e.id, on: e.on, move: e.move, params: $event })"
        />
      }
      @case ('shift') {
        <ls-shift-editor
          [params]="e.params"
          [before]="before()"
          (changed)="changed.emit({ id: e.id, on: e.on, move: e.move, params: $event })"
        />
      }
      @case ('mirror') {
        <ls-mirror-editor
          [params]="e.params"
          (changed)="changed.emit({ id: e.id, on: e.on, move: e.move, params: $event })"
        />
      }
      @case ('level') {
        <ls-level-editor
          [params]="e.params"
          [before]="before()"
          (changed)="changed.emit({ id: e.id, on: e.on, move: e.move, params: $event })"
        />
      }
      @case ('ornament') {
        <ls-ornament-editor
          [params]="e.params"
          [before]="before()"
          (changed)="changed.emit({ id: e.id, on: e.on, move: e.move, params: $event })"
        />
      }
      @case ('voice') {
        <ls-voice-editor
          [params]="e.params"
          [before]="before()"
          (changed)="changed.emit({ id: e.id, on: e.on, move: e.move, params: $event })"
        />
      }
      @case ('route') {
        <ls-route-editor
          [params]="e.params"
          [before]="before()"
          (changed)="changed.emit({ id: e.id, on: e.on, move: e.move, params: $event })"
        />
      }
      @case ('layer') {
        <ls-layer-editor
          [params]="e.params"
          [before]="before()"
          (changed)="changed.emit({ id: e.id, on: e.on, move: e.move, params: $event })"
        />
      }
      @case ('land') {
        <ls-land-editor
          [params]="e.params"
          (changed)="changed.emit({ id: e.id, on: e.on, move: e.move, params: $event })"
        />
      }
      @case ('join') {
        <ls-join-editor
          [params]="e.params"
          (changed)="changed.emit({ id: e.id, on: e.on, move: e.move, params: $event })"
        />
      }
      @case ('touch') {
        <ls-touch-editor
          [params]="e.params"
          [before]="before()"
          (changed)="changed.emit({ id: e.id, on: e.on, move: e.move, params: $event })"
        />
      }
    }
  `,
  styles: `
    :host {
      display: block;
      margin-top: 8px;
    }
  `,
})
export class MoveEditorComponent {
  readonly entry = input.required<MoveEntry>();
  /** The pattern the move acts on. */
  readonly before = input.required<Pattern>();
  readonly changed = output<MoveEntry>();
}
