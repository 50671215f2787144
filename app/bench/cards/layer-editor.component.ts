import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { gridName, gridsOf } from '@core/time';
import { canStrike, LEVELS, LIMB_WORDS, LIMBS, usualVoice, VOICE, VOICES } from '@core/stroke';
import type { Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { StrokeTextComponent } from './stroke-text.component';
import { countsOf, textOf, wholesOf } from './values';

type Params = MoveParams['layer'];

@Component({
  selector: 'ls-layer-editor',
  imports: [StrokeTextComponent],
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
    <div class="chips" role="group" aria-label="How high">
      @for (l of levels; track l) {
        <button type="button" [attr.aria-pressed]="p.level === l" (click)="set({ level: l })">{{ l }}</button>
      }
    </div>
    <div class="chips" role="group" aria-label="When">
      <button type="button" [attr.aria-pressed]="p.on.kind === 'grid'" (click)="set({ on: { kind: 'grid', grid: 5040 } })">every</button>
      <button type="button" [attr.aria-pressed]="p.on.kind === 'counts'" (click)="set({ on: { kind: 'counts', counts: ['2', '4'] } })">
        on counts
      </button>
      <button type="button" [attr.aria-pressed]="p.on.kind === 'text'" (click)="set({ on: { kind: 'text', text: 'K - - K' } })">
        as typed
      </button>
    </div>
    @switch (p.on.kind) {
      @case ('grid') {
        <select class="input" aria-label="Every" (change)="setGrid($event)">
          @for (g of grids(); track g.grid) {
            <option [value]="g.grid" [selected]="g.grid === p.on.grid">{{ g.name }}</option>
          }
        </select>
      }
      @case ('counts') {
        <input class="input mono" type="text" aria-label="Counts" [value]="p.on.counts.join(', ')" (change)="setCounts($event)" />
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
    <div class="chips" role="group" aria-label="Hands that play there">
      <button type="button" [attr.aria-pressed]="p.clash === 'keep'" (click)="set({ clash: 'keep' })">hands stay</button>
      <button type="button" [attr.aria-pressed]="p.clash === 'move'" (click)="set({ clash: 'move' })">hands move</button>
      <button type="button" [attr.aria-pressed]="p.clash === 'drop'" (click)="set({ clash: 'drop' })">hands drop out</button>
    </div>
  `,
  styleUrl: './editor.css',
})
export class LayerEditorComponent {
  readonly params = input.required<Params>();
  readonly before = input.required<Pattern>();
  readonly changed = output<Params>();
  readonly limbs = LIMBS;
  readonly limbWords = LIMB_WORDS;
  readonly levels = LEVELS;
  readonly facts = VOICE;
  readonly voices = computed(() => VOICES.filter((v) => canStrike(this.params().limb, v)));
  readonly grids = computed(() => {
    const { on } = this.params();
    const offered = gridsOf(this.before().meter).map(Number);
    const all = on.kind !== 'grid' || offered.includes(on.grid) ? offered : [on.grid, ...offered];
    return all.map((grid) => ({ grid, name: gridName(grid) }));
  });

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
