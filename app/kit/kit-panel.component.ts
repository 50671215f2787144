import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import {
  FEET,
  KIND_VOICES,
  KIT_LIMITS,
  KIT_PRESETS,
  PIECE_KINDS,
  type Foot,
  type Piece,
  type PieceKind,
} from '@core/kit';
import { VOICE, type Voice } from '@core/stroke';
import { ChipsComponent, chipsOf, type Chip } from '../ui/chips.component';
import { NumberFieldComponent } from '../ui/number-field.component';
import { PlanEditorComponent, type PieceChange } from '../ui/kit-plan/plan-editor.component';
import { KitsStore } from './kits.store';

/** How each kind of piece can be struck. */
const SURFACES: ReadonlyMap<PieceKind, readonly Chip<Voice>[]> = new Map(
  PIECE_KINDS.map((kind) => [kind, chipsOf(KIND_VOICES[kind], (v) => VOICE[v].name)]),
);
const NONE: readonly Chip<Voice>[] = [];

/** My kit from above: pieces dragged to where they stand, with size, turn, height, name and surfaces. */
@Component({
  selector: 'ls-kit-panel',
  imports: [ChipsComponent, NumberFieldComponent, PlanEditorComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './kit-panel.component.html',
  styleUrl: './kit-panel.component.css',
})
export class KitPanelComponent {
  readonly store = inject(KitsStore);
  readonly presets = KIT_PRESETS;
  readonly kinds = PIECE_KINDS;
  readonly feet = FEET;
  readonly pedals = [
    { limb: 'K', name: 'Kick' },
    { limb: 'J', name: 'Second kick' },
    { limb: 'H', name: 'Hi-hat' },
  ] as const;
  readonly measures = [
    { key: 'x', words: 'right, cm', least: -KIT_LIMITS.reach, most: KIT_LIMITS.reach },
    { key: 'y', words: 'ahead, cm', least: -KIT_LIMITS.reach, most: KIT_LIMITS.reach },
    { key: 'z', words: 'height, cm', least: 0, most: KIT_LIMITS.height },
    { key: 'diameter', words: 'across, cm', least: KIT_LIMITS.least, most: KIT_LIMITS.most },
    { key: 'turn', words: 'turned, °', least: -180, most: 180 },
  ] as const;
  readonly naming = signal(false);

  change({ id, part, done }: PieceChange): void {
    this.store.setPiece(id, part, `piece ${id}`);
    if (done) this.store.endStep();
  }

  surfacesOf(kind: PieceKind): readonly Chip<Voice>[] {
    return SURFACES.get(kind) ?? NONE;
  }

  toggleVoice(piece: Piece, voice: Voice): void {
    const voices = piece.voices.includes(voice) ? piece.voices.filter((v) => v !== voice) : [...piece.voices, voice];
    if (voices.length > 0) this.store.setPiece(piece.id, { voices });
  }

  measure(piece: Piece, key: 'x' | 'y' | 'z' | 'diameter' | 'turn', n: number): void {
    this.store.setPiece(piece.id, { [key]: n });
  }

  setName(piece: Piece, event: Event): void {
    const name = this.text(event).trim().slice(0, 80);
    if (name !== '') this.store.setPiece(piece.id, { name });
  }

  setFoot(limb: 'K' | 'J' | 'H', event: Event): void {
    const foot = FEET.find((f: Foot) => f === this.text(event));
    this.store.foot(limb, foot ?? null);
  }

  text(event: Event): string {
    return event.target instanceof HTMLInputElement || event.target instanceof HTMLSelectElement
      ? event.target.value
      : '';
  }

  startFrom(event: Event): void {
    this.store.addPreset(this.text(event));
    if (event.target instanceof HTMLSelectElement) event.target.value = '';
  }

  addKind(event: Event): void {
    const kind = PIECE_KINDS.find((k) => k === this.text(event));
    if (kind) this.store.add(kind);
    if (event.target instanceof HTMLSelectElement) event.target.value = '';
  }
}
