import type { InputSignal, OutputEmitterRef, Type } from '@angular/core';
import type { Pattern } from '@core/pattern';
import type { MoveName, MoveParams } from '@core/recipe';
import { DropEditorComponent } from './drop-editor.component';
import { FitEditorComponent } from './fit-editor.component';
import { FollowEditorComponent } from './follow-editor.component';
import { GridEditorComponent } from './grid-editor.component';
import { InsertEditorComponent } from './insert-editor.component';
import { JoinEditorComponent } from './join-editor.component';
import { LandEditorComponent } from './land-editor.component';
import { LayerEditorComponent } from './layer-editor.component';
import { LevelEditorComponent } from './level-editor.component';
import { LinearEditorComponent } from './linear-editor.component';
import { MirrorEditorComponent } from './mirror-editor.component';
import { OnlyEditorComponent } from './only-editor.component';
import { RoundEditorComponent } from './round-editor.component';
import { ReverseEditorComponent } from './reverse-editor.component';
import { OrnamentEditorComponent } from './ornament-editor.component';
import { PickupEditorComponent } from './pickup-editor.component';
import { RateEditorComponent } from './rate-editor.component';
import { RestartEditorComponent } from './restart-editor.component';
import { RouteEditorComponent } from './route-editor.component';
import { ShiftEditorComponent } from './shift-editor.component';
import { SwapEditorComponent } from './swap-editor.component';
import { TouchEditorComponent } from './touch-editor.component';
import { VoiceEditorComponent } from './voice-editor.component';

/** What every editor of a move is given, and what it tells. */
export interface MoveEditor<Params> {
  readonly params: InputSignal<Params>;
  /** The pattern the move acts on. */
  readonly before: InputSignal<Pattern>;
  readonly changed: OutputEmitterRef<Params>;
}

/** The one table of editors: a card opens the one of its move. */
export const EDITORS: { readonly [N in MoveName]: Type<MoveEditor<MoveParams[N]>> } = {
  grid: GridEditorComponent,
  rate: RateEditorComponent,
  insert: InsertEditorComponent,
  drop: DropEditorComponent,
  cut: DropEditorComponent,
  swap: SwapEditorComponent,
  fit: FitEditorComponent,
  shift: ShiftEditorComponent,
  restart: RestartEditorComponent,
  only: OnlyEditorComponent,
  mirror: MirrorEditorComponent,
  reverse: ReverseEditorComponent,
  linear: LinearEditorComponent,
  round: RoundEditorComponent,
  level: LevelEditorComponent,
  ornament: OrnamentEditorComponent,
  voice: VoiceEditorComponent,
  route: RouteEditorComponent,
  follow: FollowEditorComponent,
  layer: LayerEditorComponent,
  land: LandEditorComponent,
  pickup: PickupEditorComponent,
  join: JoinEditorComponent,
  touch: TouchEditorComponent,
};
