import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  output,
  signal,
  type OnDestroy,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { count } from '@core/base';
import {
  BLOCKS,
  DENSITIES,
  isPiece,
  KEEPS,
  WAY_WORDS,
  wishWords,
  WAYS,
  type Answer,
  type Block,
  type Demands,
  type Density,
  type Keep,
  type Lands,
  type Wish,
} from '@core/compose';
import { handVoicesOn } from '@core/kit';
import type { ClickKind } from '@core/playback';
import { parseStrokeText, slotsOf, VOICE, type Voice } from '@core/stroke';
import { barTicks, beatTicks, countAt, gridName, gridsOf, parseMeter, ticks } from '@core/time';
import { ShelfIndex } from '../../../../knowledge/shelf-index.service';
import { KitsRepo } from '../../../../storage/kits.repo';
import { SettingsRepo } from '../../../../storage/settings.repo';
import { ChipsComponent } from '../../../../widgets/chips.component';
import { choicesOf, type Choice } from '../../../../widgets/choice';
import { MenuButtonComponent } from '../../../../widgets/menu-button.component';
import { NumberFieldComponent } from '../../../../widgets/number-field.component';
import { SelectComponent } from '../../../../widgets/select.component';
import { METERS } from '../../recipe/meters';
import { TapPadComponent, type Tapped } from '../../recipe/tap-pad.component';
import { FoundRowComponent } from '../found-row.component';
import { HeardStore } from '../heard.store';
import { ComposeStore, HOLDS, type Hold } from './compose.store';

const BLOCK_WORDS: Readonly<Record<Block, string>> = {
  singles: 'single strokes',
  kicks: 'single kicks',
  rests: 'rests',
  rudiments: 'rudiments',
  '3': '3: R L K',
  '4': '4: R L R K',
  '5': '5',
  '6': '6',
  '7': '7',
  'kick-inside': 'kick inside',
  'two-kicks': 'two kicks',
  own: 'your own',
};
const DENSITY_WORDS: Readonly<Record<Density, string>> = {
  any: 'any',
  every: 'every slot',
  most: 'most slots',
  half: 'about half',
};
const KEEP_WORDS: Readonly<Record<Keep, string>> = { kick: 'its kick', hands: 'its hands', accents: 'its accents' };
const HOLD_WORDS: Readonly<Record<Hold, string>> = {
  'first half': 'More with this first half',
  'last half': 'More with this second half',
  kicks: 'More with these kicks',
  accents: 'More with these accents',
  'one kick': 'Never two kicks in a row',
  'one hand': 'Never two with one hand',
};
const SIGNS: ReadonlyMap<Wish, string> = new Map([
  ['hit', '!'],
  ['R', 'R'],
  ['L', 'L'],
  ['K', 'K'],
  ['rest', '-'],
]);
/** Phrases of the shelf that a menu lists. */
const MOST_LISTED = 60;

/** The sums backwards: what a phrase must have is marked slot by slot, and phrases that have it are found. */
@Component({
  selector: 'ls-compose-sheet',
  imports: [
    ChipsComponent,
    FoundRowComponent,
    MenuButtonComponent,
    NumberFieldComponent,
    SelectComponent,
    TapPadComponent,
  ],
  providers: [HeardStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './compose-sheet.component.html',
  styleUrl: './compose-sheet.component.css',
})
export class ComposeSheetComponent implements OnDestroy {
  readonly click = input.required<ClickKind>();
  readonly closed = output();
  readonly compose = inject(ComposeStore);
  readonly heard = inject(HeardStore);
  private readonly kits = inject(KitsRepo);
  private readonly settings = inject(SettingsRepo);
  private readonly own = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;

  readonly d = this.compose.demands;
  readonly meters = choicesOf(METERS);
  readonly grids = computed(() => {
    const meter = parseMeter(this.d().meter);
    const offered = (meter ? gridsOf(meter) : []).map(Number);
    const { grid } = this.d();
    return choicesOf(offered.includes(grid) ? offered : [...offered, grid], gridName);
  });
  readonly starts = computed((): readonly Choice<string>[] => [
    { value: '', words: 'the 1' },
    ...this.compose
      .counts()
      .slice(1)
      .map((c) => ({ value: c, words: c })),
  ]);
  /** Where the space ends, where it ends before the bar line. */
  readonly ends = computed(() => {
    const { slots } = this.compose.asked();
    return `the end of ${this.compose.placeOf(slots - 1)}`;
  });
  readonly blocks = choicesOf(BLOCKS, (b) => BLOCK_WORDS[b]);
  readonly leads = [
    { value: 'either', words: 'either' },
    { value: 'R', words: 'right' },
    { value: 'L', words: 'left' },
  ] as const;
  readonly landings: readonly Choice<Lands>[] = [
    { value: 'nowhere', words: 'nothing' },
    { value: 'right', words: 'crash, right hand' },
    { value: 'left', words: 'crash, left hand' },
    { value: 'kick', words: 'the kick' },
  ];
  readonly ways: readonly Choice<Demands['way']>[] = [
    { value: 'none', words: 'as it is' },
    ...choicesOf(WAYS, (w) => WAY_WORDS[w]),
  ];
  readonly densities = choicesOf(DENSITIES, (x) => DENSITY_WORDS[x]);
  readonly keeps = choicesOf(KEEPS, (k) => KEEP_WORDS[k]);
  readonly holds = choicesOf(HOLDS, (h) => HOLD_WORDS[h]);
  readonly brushes: readonly Choice<Wish>[] = [
    { value: 'hit', words: 'a hit' },
    { value: 'R', words: 'right', name: 'the right hand' },
    { value: 'L', words: 'left', name: 'the left hand' },
    { value: 'K', words: 'kick', name: 'the kick' },
    { value: 'rest', words: 'a rest' },
  ];
  readonly pieces = computed((): readonly Choice<Wish>[] => [
    { value: 'hit', words: 'a piece …' },
    ...choicesOf(handVoicesOn(this.kits.current()), (v: Voice) => `the ${VOICE[v].name}`),
  ]);
  readonly piece = computed((): Wish => ((what) => (isPiece(what) ? what : 'hit'))(this.compose.brush().what));
  readonly more = signal(false);
  readonly tapping = signal(false);
  /** What went wrong with what was said, tapped or chosen last. */
  readonly told = signal<string | null>(null);
  readonly wrong = computed(() => this.compose.wrong().slice(0, 3));

  private readonly names = toSignal(inject(ShelfIndex).names$('all'), { initialValue: [] });
  readonly listed = computed(() =>
    this.names()
      .slice(0, MOST_LISTED)
      .map((n) => ({ value: n.id, words: n.name.slice(0, 60) })),
  );
  /** How many of the settings that are folded away are set. */
  readonly folded = computed(() => {
    const d = this.d();
    const usual = { foot: 0, density: 'any', lead: 'either', end: 'either', way: 'none', apart: 3, unlike: 1, hand: 2 };
    return Object.entries(usual).filter(([k, v]) => d[k as keyof Demands] !== v).length;
  });
  /** What is held of an answer, in words. */
  readonly held = computed(() => {
    const held = this.d().held;
    const many = held?.filter((s) => s !== null).length ?? 0;
    return many === 0 ? null : `${count(many, 'slot')} of an answer ${many === 1 ? 'stays' : 'stay'}`;
  });

  /** Bars of the space, and in each its beats, slot by slot. */
  readonly bars = computed(() => {
    const all = this.beats();
    return [...new Set(all.map((b) => b[0]?.bar))].map((bar) => all.filter((b) => b[0]?.bar === bar));
  });
  /** The slots beat by beat, with what is asked of each. */
  readonly beats = computed(() => {
    const { meter, grid, slots, start } = this.compose.asked();
    const counting = { meter, grid, schools: this.settings.schools() };
    const { wishes, held } = this.d();
    const all = Array.from({ length: slots }, (_, slot) => {
      const own = wishes.filter((w) => w.slot === slot);
      const words = own.map(
        (w) => `${w.must ? '' : 'no '}${wishWords(w.what).replace(/^(a|the) /, w.must ? '$1 ' : '')}`,
      );
      const stays = held?.[slot] ?? null;
      if (stays) words.push(`stays ${stays.map((s) => s.limb).join(' and ') || 'a rest'}`);
      return {
        slot,
        bar: Math.floor((start + slot * grid) / barTicks(meter)),
        beat: Math.floor((start + slot * grid) / beatTicks(meter)),
        count: countAt(ticks(start + slot * grid), counting).text,
        hit: own.some((w) => w.must && w.what === 'hit'),
        held: stays !== null,
        signs: stays
          ? stays.map((s) => s.limb).join('') || '-'
          : own
              .map((w) => (w.must ? '' : '×') + (isPiece(w.what) ? VOICE[w.what].short : (SIGNS.get(w.what) ?? '')))
              .join(' '),
        name: `${this.compose.placeOf(slot)}: ${words.length > 0 ? words.join(', ') : 'anything'}`,
      };
    });
    return [...new Set(all.map((s) => s.beat))].map((beat) => all.filter((s) => s.beat === beat));
  });

  /** What the pointer does to the slots it is drawn over; null while it is not drawn. */
  private drawn: { readonly on: boolean; readonly nth: number } | null = null;
  private strokes = 0;

  constructor() {
    this.compose.begin();
  }

  ngOnDestroy(): void {
    this.compose.cancel();
    this.heard.stop();
  }

  set(fields: Partial<Demands>): void {
    this.told.set(null);
    this.compose.change(fields);
  }

  paint(what: Wish): void {
    this.compose.brush.update((b) => ({ what, must: b.must }));
  }

  paintNot(): void {
    this.compose.brush.update((b) => ({ what: b.what, must: !b.must }));
  }

  // A press sets or clears a slot, and drawn on it does the same to the slots it comes over: one step.

  draw(slot: number, event: PointerEvent): void {
    if (event.button !== 0) return;
    // Under a finger the slot would keep the pointer to itself.
    if (event.pointerType === 'touch') (event.target as Element).releasePointerCapture(event.pointerId);
    this.drawn = { on: !this.compose.stands(slot, this.compose.brush()), nth: ++this.strokes };
    this.over(slot);
  }

  over(slot: number): void {
    if (this.drawn) this.compose.stroke(slot, this.compose.brush(), this.drawn.on, `brush ${this.drawn.nth}`);
  }

  lift(): void {
    this.drawn = null;
  }

  /** A press by the keyboard or a screen reader; the pointer's was drawn already. */
  press(slot: number, event: MouseEvent): void {
    if (event.detail === 0) this.compose.press(slot);
  }

  /** From slot to slot by the arrows; a letter asks for it there: H a hit, R, L, K, - a rest. */
  walk(event: KeyboardEvent): void {
    const at = Number((event.target as HTMLElement).getAttribute('data-slot') ?? NaN);
    if (Number.isNaN(at) || event.ctrlKey || event.metaKey || event.altKey) return;
    const by = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
    const what = { h: 'hit', r: 'R', l: 'L', k: 'K', '-': 'rest' }[event.key.toLowerCase()] as Wish | undefined;
    if (by !== undefined) this.own.querySelector<HTMLElement>(`[data-slot="${at + by}"]`)?.focus();
    else if (what) this.compose.press(at, { what, must: true });
    else return;
    event.preventDefault();
    event.stopPropagation();
  }

  /** One key a phrase: down and up go through the answers and play each, Space stops, Enter takes it. */
  listen(event: KeyboardEvent): void {
    if (event.target !== event.currentTarget) return;
    const all = this.compose.answers();
    const at = all.findIndex((a) => this.heard.is(a.pattern));
    const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    const next = by === undefined ? undefined : all[at < 0 ? (by > 0 ? 0 : all.length - 1) : at + by];
    if (by !== undefined) {
      if (next) this.play(next);
    } else if (event.key === ' ' && at >= 0) this.heard.stop();
    else if (event.key === 'Enter' && all[at]) void this.use(all[at]);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }

  private play(answer: Answer): void {
    this.heard.play(answer.pattern, this.click());
    const at = this.compose.answers().indexOf(answer);
    this.own.querySelectorAll('ls-found-row')[at]?.scrollIntoView({ block: 'nearest' });
  }

  say(field: HTMLInputElement): void {
    if (field.value.trim() === '') return;
    const wrong = this.compose.say(field.value);
    this.told.set(wrong);
    if (wrong !== null) return;
    field.value = '';
    void this.compose.ask();
  }

  tapped({ text, grid }: Tapped): void {
    const read = parseStrokeText(text);
    this.told.set(
      read.ok
        ? this.compose.tapped(
            slotsOf(read.value).map((s) => s.length > 0),
            grid,
          )
        : text,
    );
    this.tapping.set(false);
  }

  async hitsOf(id: string): Promise<void> {
    this.told.set(await this.compose.hitsOf(id));
  }

  async addCell(id: string): Promise<void> {
    this.told.set(await this.compose.addCell(id));
  }

  toggle(block: Block): void {
    const { blocks } = this.d();
    this.set({ blocks: blocks.includes(block) ? blocks.filter((b) => b !== block) : [...blocks, block] });
  }

  toggleKeep(keep: Keep): void {
    const { keeps } = this.d();
    this.set({ keeps: keeps.includes(keep) ? keeps.filter((k) => k !== keep) : [...keeps, keep] });
  }

  dropCell(id: string): void {
    this.set({ shelf: this.d().shelf.filter((s) => s.id !== id) });
  }

  dropRudiment(name: string): void {
    this.set({ rudiments: this.d().rudiments.filter((r) => r !== name) });
  }

  /** What it is made of, and what it is like. */
  reason({ cells, kin }: Answer): string {
    const names = [...new Set(cells)].slice(0, 3).join(' · ');
    if (!kin) return names;
    return kin.slots === 0
      ? `${names}: the same as ${kin.name}`
      : `${names}: ${count(kin.slots, 'slot')} from ${kin.name.slice(0, 40)}`;
  }

  async use(answer: Answer): Promise<void> {
    await this.compose.use(answer);
    this.closed.emit();
  }
}
