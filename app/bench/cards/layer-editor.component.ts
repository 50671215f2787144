import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { GRID, gridName, gridsOf } from '@core/time';
import { canStrike, LEVELS, LIMB_WORDS, LIMBS, usualVoice, VOICE, VOICES } from '@core/stroke';
import type { Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { ChipsComponent, chipsOf } from '../../ui/chips.component';
import { StrokeTextComponent } from './stroke-text.component';
import { countsOf, textOf, wholesOf } from './values';

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
  imports: [ChipsComponent, StrokeTextComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let p = params();
    <div class="row">
      <label class="field"
        >Limb
        <select class="input" (change)="setLimb($event)">
          @for (l of limbs; track l) {
            <option [value]="l" [selected]="l === p.limb">{{ limbWords[l] }}</option>
          }
        </select>
      </label>
      <label class="field"
        >on
        <select class="input" aria-label="Voice" (change)="setVoice($event)">
          @for (v of voices(); track v) {
            <option [value]="v" [selected]="v === p.voice">{{ facts[v].name }}</option>
          }
        </select>
      </label>
    </div>
    <ls-chips label="How high" [dense]="true" [chips]="levels" [chosen]="p.level" (chose)="set({ level: $event })" />
    <ls-chips label="When" [dense]="true" [chips]="whens" [chosen]="p.on.kind" (chose)="setWhen($event)" />
    @switch (p.on.kind) {
      @case ('grid') {
        <select class="input" aria-label="Every" (change)="setGrid($event)">
          @for (g of grids(); track g.grid) {
            <option [value]="g.grid" [selected]="g.grid === p.on.grid">{{ g.name }}</option>
          }
        </select>
      }
      @case ('counts') {
        <input
          class="input mono"
          type="text"
          aria-label="Counts"
          [value]="p.on.counts.join(', ')"
          (change)="setCounts($event)"
        />
      }
      @case ('text') {
        <ls-stroke-text
          label="Where a stroke stands, it plays"
          [text]="p.on.text"
          (changed)="set({ on: { kind: 'text', text: $event } })"
        />
      }
    }
    <label class="field"
      >Bars, or empty for all
      <input class="input mono" type="text" [value]="p.bars?.join(' ') ?? ''" (change)="setBars($event)" />
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
  readonly limbs = LIMBS;
  readonly limbWords = LIMB_WORDS;
  readonly levels = chipsOf(LEVELS);
  readonly whens = chipsOf(['grid', 'counts', 'text'] as const, (k) => WHEN[k].words);
  readonly clashes = chipsOf(['keep', 'move', 'drop'] as const, (k) => CLASH[k]);
  readonly facts = VOICE;
  readonly voices = computed(() => VOICES.filter((v) => canStrike(this.params().limb, v)));
  readonly grids = computed(() => {
    const { on } = this.params();
    const offered = gridsOf(this.before().meter).map(Number);
    const all = on.kind !== 'grid' || offered.includes(on.grid) ? offered : [on.grid, ...offered];
    return all.map((grid) => ({ grid, name: gridName(grid) }));
  });

  setWhen(kind: Params['on']['kind']): void {
    if (kind !== this.params().on.kind) this.set({ on: WHEN[kind].first });
  }

  setLimb(event: Event): void {
    const limb = LIMBS.find((l) => l === textOf(event));
    if (limb) this.set({ limb, voice: canStrike(limb, this.params().voice) ? this.params().voice : usualVoice(limb) });
  }

  setVoice(event: Event): void {
    const voice = VOICES.find((v) => v === textOf(event));
    if (voice) this.set({ voice });
  }

  setGrid(event: Event): void {
    this.set({ on: { kind: 'grid', grid: Number(textOf(event)) } });
  }

  setCounts(event: Event): void {
    const counts = countsOf(event).slice(0, 32);
    if (counts.length > 0) this.set({ on: { kind: 'counts', counts } });
  }

  setBars(event: Event): void {
    const bars = wholesOf(event, 1, 64);
    const { limb, voice, level, on, clash } = this.params();
    this.changed.emit({ limb, voice, level, on, clash, ...(bars.length > 0 ? { bars } : {}) });
  }

  set(part: Partial<Params>): void {
    this.changed.emit({ ...this.params(), ...part });
  }
}
