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
import { Tooltip } from 'primeng/tooltip';
import { count } from '@core/base';
import { wishWords, WISHES, type Answer, type Wish } from '@core/compose';
import { loopTicks } from '@core/pattern';
import type { ClickKind } from '@core/playback';
import { rendition, requestOf } from '@core/rendition';
import { beatTicks, countAt, gridName, gridsOf, parseMeter, ticks } from '@core/time';
import { Player } from '../../../../playing/player';
import { Transport } from '../../../../sound/transport.service';
import { KitsRepo } from '../../../../storage/kits.repo';
import { SettingsRepo } from '../../../../storage/settings.repo';
import { ChipsComponent } from '../../../../widgets/chips.component';
import { choicesOf, type Choice } from '../../../../widgets/choice';
import { NumberFieldComponent } from '../../../../widgets/number-field.component';
import { SelectComponent } from '../../../../widgets/select.component';
import { RibbonComponent } from '../../../../drawings/ribbon/ribbon.component';
import { BenchStore } from '../../document/bench.store';
import { METERS } from '../../recipe/meters';
import { BLOCKS, ComposeStore, type Block, type Lands } from './compose.store';

/** By this name an answer is known among what sounds. */
const ANSWER = 'answer';

const BLOCK_WORDS: Readonly<Record<Block, string>> = {
  singles: 'single strokes',
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
const SIGNS: Readonly<Record<Wish, string>> = { hit: '!', R: 'R', L: 'L', K: 'K', rest: '-' };

type Paint = `${'yes' | 'no'} ${Wish}`;

/** The sums backwards: what a phrase must have is marked slot by slot, and phrases that have it are found. */
@Component({
  selector: 'ls-compose-sheet',
  imports: [ChipsComponent, NumberFieldComponent, RibbonComponent, SelectComponent, Tooltip],
  providers: [ComposeStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './compose-sheet.component.html',
  styleUrl: './compose-sheet.component.css',
})
export class ComposeSheetComponent implements OnDestroy {
  readonly click = input.required<ClickKind>();
  readonly closed = output();
  readonly store = inject(BenchStore);
  readonly compose = inject(ComposeStore);
  readonly kits = inject(KitsRepo);
  readonly transport = inject(Transport);
  private readonly player = inject(Player);
  private readonly settings = inject(SettingsRepo);
  private readonly own = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;

  readonly meters = choicesOf(METERS);
  readonly grids = computed(() => {
    const meter = parseMeter(this.compose.meter());
    return choicesOf((meter ? gridsOf(meter) : [ticks(this.compose.grid())]).map(Number), gridName);
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
  readonly brushes: readonly Choice<Paint>[] = [
    ...WISHES.map((w): Choice<Paint> => ({ value: `yes ${w}`, words: wishWords(w) })),
    { value: 'no hit', words: 'no hit' },
    { value: 'no K', words: 'no kick' },
    { value: 'no rest', words: 'no rest' },
  ];
  readonly brush = computed((): Paint => `${this.compose.brush().must ? 'yes' : 'no'} ${this.compose.brush().what}`);
  readonly heard = signal<Answer | null>(null);

  /** The slots beat by beat, with what is asked of each. */
  readonly beats = computed(() => {
    const { meter, grid, slots } = this.compose.asked();
    const counting = { meter, grid, schools: this.settings.schools() };
    const wishes = this.compose.wishes();
    const all = Array.from({ length: slots }, (_, slot) => {
      const own = wishes.filter((w) => w.slot === slot);
      const words = own.map(
        (w) => `${w.must ? '' : 'no '}${wishWords(w.what).replace(/^(a|the) /, w.must ? '$1 ' : '')}`,
      );
      return {
        slot,
        beat: Math.floor((slot * grid) / beatTicks(meter)),
        count: countAt(ticks(slot * grid), counting).text,
        hit: own.some((w) => w.must && w.what === 'hit'),
        signs: own.map((w) => (w.must ? '' : '×') + SIGNS[w.what]).join(' '),
        name: `${this.compose.placeOf(slot)}: ${words.length > 0 ? words.join(', ') : 'anything'}`,
      };
    });
    return [...new Set(all.map((s) => s.beat))].map((beat) => all.filter((s) => s.beat === beat));
  });

  ngOnDestroy(): void {
    this.compose.cancel();
    this.player.stop(ANSWER);
  }

  paint(paint: Paint): void {
    const what = WISHES.find((w) => paint.endsWith(` ${w}`));
    if (what) this.compose.brush.set({ what, must: paint.startsWith('yes') });
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

  /** What it is made of, and what it is like. */
  reason({ cells, kin }: Answer): string {
    const names = [...new Set(cells)].slice(0, 3).join(' · ');
    if (!kin) return names;
    return kin.slots === 0
      ? `${names}: the same as ${kin.name}`
      : `${names}: ${count(kin.slots, 'slot')} from ${kin.name.slice(0, 40)}`;
  }

  hear(answer: Answer): void {
    if (this.isHeard(answer)) return this.player.stop(ANSWER);
    this.heard.set(answer);
    const sounds = rendition({ phrase: answer.pattern, kit: this.kits.current(), click: this.click() });
    this.player.takeOver(ANSWER, requestOf(sounds, this.store.tempo()));
  }

  isHeard(answer: Answer): boolean {
    return this.heard() === answer && this.player.owner() === ANSWER;
  }

  loopOf(answer: Answer): number {
    return loopTicks(answer.pattern);
  }

  async use(answer: Answer): Promise<void> {
    await this.compose.use(answer);
    this.closed.emit();
  }
}
