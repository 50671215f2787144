import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { LIMB_WORDS, LIMBS, type Limb } from '@core/stroke';
import type { CountKind } from '@core/playback';
import { NOTHING_MUTED, type Mute, type Role } from '@core/pattern';
import { ChipsComponent } from '../widgets/chips.component';
import { choicesOf, type Choice } from '../widgets/choice';
import { CountingComponent } from './counting.component';
import { LoudnessComponent } from './loudness.component';

const ROLES: readonly Choice<Role>[] = [
  { value: 'primary', words: 'groove' },
  { value: 'timekeeping', words: 'timekeeping' },
  { value: 'texture', words: 'texture' },
];

/** What is heard: which limbs, which roles, how loud each part, and who counts along. */
@Component({
  selector: 'ls-hearing',
  imports: [ChipsComponent, CountingComponent, LoudnessComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (byPiece() && pieces().length > 1) {
      <ls-chips
        label="Pieces that are heard"
        [chips]="pieceChips()"
        [chosen]="heardPieces()"
        (chose)="flipPiece($event)"
      />
    } @else {
      <ls-chips label="Limbs that are heard" [chips]="limbs()" [chosen]="heardLimbs()" (chose)="flipLimb($event)" />
      <span class="gap"></span>
      <ls-chips label="Roles that are heard" [chips]="roles" [chosen]="heardRoles()" (chose)="flipRole($event)" />
    }
    <span class="gap"></span>
    @if (pieces().length > 1) {
      <button type="button" class="btn small" [attr.aria-pressed]="byPiece()" (click)="byPiece.set(!byPiece())">
        By piece
      </button>
    }
    <button type="button" class="btn small" (click)="only({ limbs: [], roles: ['timekeeping', 'texture'] })">
      Only the groove
    </button>
    <button type="button" class="btn small" (click)="only({ limbs: ['K', 'J', 'H'], roles: [] })">Only hands</button>
    <button type="button" class="btn small" (click)="only(all)">All</button>
    <span class="line"></span>
    <ls-loudness />
    <ls-counting [kind]="counts()" (kindChange)="countsChange.emit($event)" />
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
      padding: 10px 12px;
    }
    .gap {
      width: 12px;
    }
    .line {
      flex-basis: 100%;
      height: 0;
    }
    ls-loudness {
      flex: 1 1 560px;
    }
  `,
  host: { role: 'group', 'aria-label': 'What is heard' },
})
export class HearingComponent {
  readonly mute = input.required<Mute>();
  readonly counts = input<CountKind | null>(null);
  /** Limbs that play: a second kick foot stands among them only where there is one. */
  readonly playing = input<readonly Limb[]>(LIMBS);
  /** Pieces that are struck, by their names. */
  readonly pieces = input<readonly string[]>([]);
  readonly muteChange = output<Mute>();
  readonly countsChange = output<CountKind | null>();
  readonly roles = ROLES;
  readonly all = NOTHING_MUTED;
  readonly limbs = computed(() =>
    choicesOf(
      LIMBS.filter((l) => l !== 'J' || this.playing().includes('J')),
      (l) => LIMB_WORDS[l],
    ),
  );
  readonly heardLimbs = computed(() => LIMBS.filter((l) => !this.mute().limbs.includes(l)));
  readonly heardRoles = computed(() => ROLES.map((r) => r.value).filter((r) => !this.mute().roles.includes(r)));

  only(mute: Mute): void {
    this.muteChange.emit(mute);
  }

  flipLimb(limb: Limb): void {
    this.only({ ...this.mute(), limbs: flipped(this.mute().limbs, limb) });
  }

  /** Whether pieces are chosen, or limbs and roles: one row holds either. */
  readonly byPiece = signal(false);
  readonly pieceChips = computed(() => choicesOf(this.pieces()));
  readonly heardPieces = computed(() => this.pieces().filter((p) => !(this.mute().pieces ?? []).includes(p)));

  flipPiece(piece: string): void {
    this.only({ ...this.mute(), pieces: flipped(this.mute().pieces ?? [], piece) });
  }

  flipRole(role: Role): void {
    this.only({ ...this.mute(), roles: flipped(this.mute().roles, role) });
  }
}

function flipped<T>(list: readonly T[], value: T): readonly T[] {
  return list.includes(value) ? list.filter((v) => v !== value) : [...list, value];
}
