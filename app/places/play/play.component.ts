import { ChangeDetectionStrategy, Component, computed, inject, type OnDestroy } from '@angular/core';
import { ActivatedRoute, RouterLink } from '@angular/router';
import { count } from '@core/base';
import { countOfStroke } from '@core/pattern';
import type { FreeSitting } from '@core/shelf';
import { callsWords, cameWords, TRADE_ASKED, type TradeAsked } from '@core/usage';
import type { SourceKind } from '../../hits/source';
import { HitSources } from '../../hits/sources.service';
import { EscDirective } from '../../common/esc.directive';
import { KeysService } from '../../common/keys.service';
import { clockWords, momentWords } from '../../common/moment-words';
import { RibbonComponent } from '../../drawings/ribbon/ribbon.component';
import { GuideLinkComponent } from '../../guide/guide-link.component';
import { SettingsRepo } from '../../storage/settings.repo';
import { ChipsComponent } from '../../widgets/chips.component';
import { choicesOf } from '../../widgets/choice';
import { SelectComponent } from '../../widgets/select.component';
import { TempoFieldComponent } from '../../widgets/tempo-field.component';
import { WithheldComponent } from '../../widgets/withheld.component';
import { CallsStore } from './calls.store';
import { CLICK, MODE_CHIPS, NOTHING, PLAY_METERS, PlayChoices, type PlayMode } from './choices';
import { FreeEar } from './free.ear';
import { LiveStore } from './live.store';
import { PlayStore } from './play.store';
import { BlockClockComponent } from '../../playing/block-clock.component';
import { StandIn } from './stand-in';
import { SittingComponent } from './sitting.component';
import { TradingStore } from './trading.store';

const KIND_WORDS: Readonly<Record<string, string>> = {
  any: 'fills and licks',
  fill: 'fills',
  lick: 'licks',
  groove: 'grooves',
};
const ASKED_WORDS: Readonly<Record<TradeAsked, string>> = {
  anything: 'anything',
  'the same': 'the same',
  another: 'another phrase',
  'one change': 'the same, one change',
};

/** Free play, calls and trading: what comes by itself. */
@Component({
  selector: 'ls-play',
  imports: [
    BlockClockComponent,
    ChipsComponent,
    EscDirective,
    GuideLinkComponent,
    RibbonComponent,
    RouterLink,
    SelectComponent,
    SittingComponent,
    TempoFieldComponent,
    WithheldComponent,
  ],
  providers: [FreeEar, PlayStore, LiveStore, CallsStore, TradingStore, StandIn],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './play.component.html',
  styleUrl: './play.component.css',
})
export class PlayComponent implements OnDestroy {
  readonly store = inject(PlayStore);
  readonly choices = inject(PlayChoices);
  readonly live = inject(LiveStore);
  readonly calls = inject(CallsStore);
  readonly trading = inject(TradingStore);
  private readonly sources = inject(HitSources);
  private readonly settings = inject(SettingsRepo);
  readonly modes = MODE_CHIPS;
  readonly listens = this.sources.all.map((s) => ({ value: s.kind, words: s.name }));
  readonly meters = choicesOf(PLAY_METERS);
  readonly betweens = choicesOf([2, 3, 4], (n) => `${n} bars`);
  readonly manies = choicesOf([8, 12, 24, 48], (n) => `${n} calls`);
  readonly kinds = choicesOf(Object.keys(KIND_WORDS), (k) => KIND_WORDS[k] ?? k);
  readonly trades = choicesOf([2, 4], (n) => (n === 2 ? 'twos' : 'fours'));
  readonly askeds = choicesOf(TRADE_ASKED, (a) => ASKED_WORDS[a]);
  readonly overs = computed(() => [
    { value: CLICK, words: 'the click' },
    ...(this.choices.mode() === 'free' ? [{ value: NOTHING, words: 'nothing' }] : []),
    ...(this.choices.mode() === 'trading'
      ? []
      : this.store.grooves().map((g) => ({ value: g.id, words: g.name.slice(0, 60) }))),
  ]);
  readonly over = computed(() =>
    this.overs().some((o) => o.value === this.choices.over()) ? this.choices.over() : CLICK,
  );
  readonly why = computed(() => {
    switch (this.choices.mode()) {
      case 'free':
        return 'Play what you like. Afterwards you see which of your phrases came, and what you play that is not on the shelf.';
      case 'calls':
        return 'A phrase is called a bar ahead, by its name and its number. It counts in the bar after.';
      case 'trading':
        return 'The machine plays bars made from your shelf, then it is your turn. It says what came back.';
    }
  });
  /** What is struck in large letters while one plays. */
  readonly says = computed(() => {
    const { phase } = this.store;
    if (phase() === 'starting') return 'Waiting for the sound';
    if (phase() === 'count-in') return 'Counting in';
    switch (this.choices.mode()) {
      case 'free':
        return this.live.said()?.words ?? '';
      case 'calls':
        return this.calls.call()?.phrase.name ?? 'Listen for the number';
      case 'trading':
        return this.trading.mine() === true ? 'Your turn' : 'Listen';
    }
  });
  readonly time = computed(() => clockWords(this.store.seconds()));
  readonly heard = computed(() => count(this.store.ear.many(), 'stroke'));
  readonly when = momentWords;
  readonly lastTraded = computed(() => this.trading.words().at(-1) ?? '');
  /** Where the phrase that is called begins. */
  readonly dueWords = computed(() => {
    const pattern = this.calls.call()?.phrase.pattern;
    if (this.calls.isNow() || !pattern) return 'now';
    const { text } = countOfStroke(pattern, 0, this.settings.schools());
    return text === '1' ? 'on the next 1' : `in the next bar, from ${text}`;
  });
  readonly lastCall = computed(() => {
    const last = this.calls.results().at(-1);
    if (!last || last.came === null) return '';
    const clean = last.clean === null ? '' : last.clean ? ', clean' : ', not clean';
    return `${last.name}: ${last.came === 'not at all' ? 'did not come' : `came ${last.came}${clean}`}`;
  });

  constructor() {
    inject(StandIn);
    const { queryParamMap } = inject(ActivatedRoute).snapshot;
    const mode = queryParamMap.get('mode');
    const sitting = queryParamMap.get('sitting');
    if (sitting !== null) void this.store.open(sitting);
    const asked = MODE_CHIPS.find((m) => m.value === mode);
    if (asked) this.choices.mode.set(asked.value);
    inject(KeysService).use([
      { combo: 'Space', shown: 'Space', does: 'Begin, or stop', run: () => void this.toggle() },
      { combo: 'Enter', shown: 'Enter', does: 'It came at once, clean', run: () => this.calls.tell('at once', true) },
      { combo: 'm', shown: 'M', does: 'It came at once, messy', run: () => this.calls.tell('at once', false) },
      { combo: 'l', shown: 'L', does: 'It came late', run: () => this.calls.tell('late', null) },
      { combo: 'x', shown: 'X', does: 'It did not come', run: () => this.calls.tell('not at all', null) },
    ]);
  }

  /** A sitting in a line of the list. */
  sayOf({ kind, calls, came, against }: FreeSitting): string {
    const { nameOf } = this.store;
    if (kind === 'calls') return callsWords(calls.map((c) => ({ ...c, name: nameOf(c.phrase) })));
    return cameWords(
      came.map((c) => nameOf(c.phrase)),
      against,
    );
  }

  setMode(mode: PlayMode): void {
    if (this.store.busy()) return;
    this.choices.mode.set(mode);
    this.choices.over.set(this.over());
  }

  listen(kind: SourceKind): void {
    this.store.listenTo(kind);
  }

  async toggle(): Promise<void> {
    if (this.store.running()) return this.store.stop();
    if (this.store.phase() !== 'ready') return;
    this.store.calls = () => [];
    switch (this.choices.mode()) {
      case 'free':
        return this.store.start();
      case 'calls':
        return this.calls.start();
      case 'trading':
        return this.trading.start();
    }
  }

  escape(): void {
    if (this.store.phase() === 'reading') this.store.cancelReading();
    else if (this.store.running()) void this.store.stop();
    else this.store.shown.set(null);
  }

  ngOnDestroy(): void {
    this.store.destroy();
  }
}
