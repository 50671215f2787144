import { ChangeDetectionStrategy, Component, ElementRef, computed, inject, signal } from '@angular/core';
import { FEET, KIND_VOICES, KIT_LIMITS, KIT_PRESETS, type Foot, type Piece } from '@core/kit';
import { PIECE_KINDS, VOICE, type PieceKind, type Voice } from '@core/stroke';
import { ChipsComponent } from '../../widgets/chips.component';
import { type Choice, choicesOf } from '../../widgets/choice';
import { NumberFieldComponent } from '../../widgets/number-field.component';
import { PlanEditorComponent, type PieceChange } from '../../drawings/kit-plan/plan-editor.component';
import { KitsStore } from './kits.store';
import { MenuButtonComponent } from '../../widgets/menu-button.component';
import { SaveDrawingComponent } from '../../widgets/save-drawing.component';
import { SelectComponent } from '../../widgets/select.component';

/** How each kind of piece can be struck. */
const SURFACES: ReadonlyMap<PieceKind, readonly Choice<Voice>[]> = new Map(
  PIECE_KINDS.map((kind) => [kind, choicesOf(KIND_VOICES[kind], (v) => VOICE[v].name)]),
);
const NONE: readonly Choice<Voice>[] = [];

/** My kit from above: pieces dragged to where they stand, with size, turn, height, name and surfaces. */
@Component({
  selector: 'ls-kit-panel',
  imports: [
    ChipsComponent,
    NumberFieldComponent,
    PlanEditorComponent,
    SaveDrawingComponent,
    SelectComponent,
    MenuButtonComponent,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './kit-panel.component.html',
  styleUrl: './kit-panel.component.css',
})
export class KitPanelComponent {
  readonly store = inject(KitsStore);
  readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  readonly kits = computed(() => this.store.all().kits.map((k) => ({ value: k.id, words: k.name })));
  readonly presets = KIT_PRESETS.map((k) => ({ value: k.id, words: k.name }));
  readonly kinds = choicesOf(PIECE_KINDS);
  private readonly feet: readonly Choice<Foot | 'nobody'>[] = choicesOf(['nobody', ...FEET] as const);
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

  surfacesOf(kind: PieceKind): readonly Choice<Voice>[] {
    return SURFACES.get(kind) ?? NONE;
  }

  toggleVoice(piece: Piece, voice: Voice): void {
    const voices = piece.voices.includes(voice) ? piece.voices.filter((v) => v !== voice) : [...piece.voices, voice];
    if (voices.length > 0) this.store.setPiece(piece.id, { voices });
  }

  measure(piece: Piece, key: 'x' | 'y' | 'z' | 'diameter' | 'turn', n: number): void {
    this.store.setPiece(piece.id, { [key]: n });
  }

  setName(piece: Piece, text: string): void {
    const name = text.trim().slice(0, 80);
    if (name !== '') this.store.setPiece(piece.id, { name });
  }

  /** The kick is always somebody's. */
  feetFor(limb: 'K' | 'J' | 'H'): readonly Choice<Foot | 'nobody'>[] {
    return limb === 'K' ? this.feet.slice(1) : this.feet;
  }
}
