import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { GRID, gridName, gridsOf } from '@core/time';
import { canStrike, isHand, LEVELS, LIMB_WORDS, LIMBS, usualVoice, VOICE, VOICES, type Limb } from '@core/stroke';
import type { Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { ChipsComponent } from '../../../../widgets/chips.component';
import { choicesOf } from '../../../../widgets/choice';
import { StrokeTextComponent } from './stroke-text.component';
import { countsOf, wholesOf } from './values';
import { KitsRepo } from '../../../../storage/kits.repo';
import { SelectComponent } from '../../../../widgets/select.component';

type Params = MoveParams['layer'];

/** When it may play, and what stands there first. */
const WHEN: Readonly<Record<Params['on']['kind'], { readonly words: string; readonly first: Params['on'] }>> = {
  grid: { words: 'every', first: { kind: 'grid', grid: GRID.quarters } },
  counts: { words: 'on counts', first: { kind: 'counts', counts: ['2', '4'] } },
  text: { words: 'as typed', first: { kind: 'text', text: 'K - - K' } },
};
const CLASH: Readonly<Record<Params['clash'], string>> = {
  keep: 'hands stay',
  move: 'hands move',
  drop: 'hands drop out',
};

@Component({
  selector: 'ls-layer-editor',
  imports: [ChipsComponent, StrokeTextComponent, SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let p = params();
    <div class="row">
      <div class="field">
        Limb
        <ls-select label="Limb" [options]="limbs" [chosen]="p.limb" (chose)="setLimb($event)" />
      </div>
      <div class="field">
        on
        <ls-select label="Piece" [options]="voices()" [chosen]="p.voice" (chose)="set({ voice: $event })" />
      </div>
    </div>
    <ls-chips
      label="Stick height"
      [dense]="true"
      [chips]="levels"
      [chosen]="p.level"
      (chose)="set({ level: $event })"
    />
    <ls-chips label="When" [dense]="true" [chips]="whens" [chosen]="p.on.kind" (chose)="setWhen($event)" />
    @switch (p.on.kind) {
      @case ('grid') {
        <ls-select
          label="Every"
          [options]="grids()"
          [chosen]="p.on.grid"
          (chose)="set({ on: { kind: 'grid', grid: $event } })"
        />
      }
      @case ('counts') {
        <input
          #countsField
          class="input mono"
          type="text"
          aria-label="Counts"
          [value]="p.on.counts.join(', ')"
          (change)="setCounts(countsField.value)"
        />
      }
      @case ('text') {
        <ls-stroke-text
          label="Where a stroke is, it plays"
          [text]="p.on.text"
          (changed)="set({ on: { kind: 'text', text: $event } })"
        />
      }
    }
    <label class="field"
      >Bars; empty means all
      <input
        #barsField
        class="input mono"
        type="text"
        [value]="p.bars?.join(' ') ?? ''"
        (change)="setBars(barsField.value)"
      />
    </label>
    <ls-chips
      label="Hands that play there"
      [dense]="true"
      [chips]="clashes"
      [chosen]="p.clash"
      (chose)="set({ clash: $event })"
    />
  `,
  styleUrl: './editor.css',
})
export class LayerEditorComponent {
  readonly params = input.required<Params>();
  readonly before = input.required<Pattern>();
  readonly changed = output<Params>();
  readonly limbs = choicesOf(LIMBS, (l) => LIMB_WORDS[l]);
  readonly levels = choicesOf(LEVELS);
  readonly whens = choicesOf(['grid', 'counts', 'text'] as const, (k) => WHEN[k].words);
  readonly clashes = choicesOf(['keep', 'move', 'drop'] as const, (k) => CLASH[k]);
  private readonly kits = inject(KitsRepo);
  readonly voices = computed(() => {
    const { limb, voice } = this.params();
    return isHand(limb)
      ? this.kits.voicesFor([voice])
      : choicesOf(
          VOICES.filter((v) => canStrike(limb, v)),
          (v) => VOICE[v].name,
        );
  });
  readonly grids = computed(() => {
    const { on } = this.params();
    const offered = gridsOf(this.before().meter).map(Number);
    const all = on.kind !== 'grid' || offered.includes(on.grid) ? offered : [on.grid, ...offered];
    return choicesOf(all, gridName);
  });

  setWhen(kind: Params['on']['kind']): void {
    if (kind !== this.params().on.kind) this.set({ on: WHEN[kind].first });
  }

  setLimb(limb: Limb): void {
    const { voice } = this.params();
    this.set({ limb, voice: canStrike(limb, voice) ? voice : usualVoice(limb) });
  }

  setCounts(text: string): void {
    const counts = countsOf(text).slice(0, 32);
    if (counts.length > 0) this.set({ on: { kind: 'counts', counts } });
  }

  setBars(text: string): void {
    const bars = wholesOf(text, 1, 64);
    const { limb, voice, level, on, clash } = this.params();
    this.changed.emit({ limb, voice, level, on, clash, ...(bars.length > 0 ? { bars } : {}) });
  }

  set(part: Partial<Params>): void {
    this.changed.emit({ ...this.params(), ...part });
  }
}
