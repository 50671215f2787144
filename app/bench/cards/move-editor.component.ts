import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Pattern } from '@core/pattern';
import type { MoveEntry } from '@core/recipe';
import { FitEditorComponent } from './fit-editor.component';
import { GridEditorComponent } from './grid-editor.component';
import { InsertEditorComponent } from './insert-editor.component';
import { LevelEditorComponent } from './level-editor.component';
import { ShiftEditorComponent } from './shift-editor.component';
import { VoiceEditorComponent } from './voice-editor.component';

/** The editor that fits a move, inside its card. */
@Component({
  selector: 'ls-move-editor',
  imports: [
    GridEditorComponent,
    InsertEditorComponent,
    FitEditorComponent,
    LevelEditorComponent,
    VoiceEditorComponent,
    ShiftEditorComponent,
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
      @case ('insert') {
        <ls-insert-editor [params]="e.params" (changed)="changed.emit({ id: e.id, on: e.on, move: e.move, params: $event })" />
      }
      @case ('fit') {
        <ls-fit-editor
          [params]="e.params"
          [before]="before()"
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
      @case ('voice') {
        <ls-voice-editor
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
