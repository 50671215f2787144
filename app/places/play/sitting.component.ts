import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, resource } from '@angular/core';
import { RouterLink } from '@angular/router';
import { untilLanding, type Pattern } from '@core/pattern';
import { rendition } from '@core/rendition';
import type { FreeSitting } from '@core/shelf';
import { replayOf } from '@core/take';
import { barTicks, countAt, GRID, meter, parseMeter, type Grid, type Meter } from '@core/time';
import {
  callsWords,
  cameWords,
  differencesOf,
  differencesWords,
  figurePattern,
  figureWords,
  latticeOf,
  openBars,
  playedPattern,
  sureWords,
  verdictOn,
  type Lattice,
} from '@core/usage';
import { RibbonComponent } from '../../drawings/ribbon/ribbon.component';
import { ShelfIndex } from '../../knowledge/shelf-index.service';
import { WantedService } from '../../knowledge/wanted.service';
import { Player } from '../../playing/player';
import { RoomRepo } from '../../storage/room.repo';
import { SettingsRepo } from '../../storage/settings.repo';
import { NoticesService } from '../../common/notices.service';
import { PlayStore } from './play.store';
import { clockWords, momentWords } from '../../common/moment-words';

const SITTING = 'sitting';
/** So many are drawn at first. */
const FIRST = 20;

const VERDICTS = { clean: 'clean', close: 'nearly clean', loose: 'loose' } as const;

/** What came of a sitting: each phrase where it came, and what is not on the shelf. */
@Component({
  selector: 'ls-sitting',
  imports: [RibbonComponent, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './sitting.component.html',
  styleUrl: './sitting.component.css',
})
export class SittingComponent {
  readonly sitting = input.required<FreeSitting>();
  readonly store = inject(PlayStore);
  private readonly index = inject(ShelfIndex);
  private readonly player = inject(Player);
  private readonly settings = inject(SettingsRepo);
  private readonly habits = inject(RoomRepo);
  private readonly wanted = inject(WantedService);
  private readonly notices = inject(NoticesService);
  readonly most = linkedSignal({ source: () => this.sitting().id, computation: () => FIRST });
  readonly sounds = computed(() => this.player.owner() === SITTING);
  readonly counted = computed((): Meter => parseMeter(this.sitting().meter) ?? meter(4, 4));
  readonly title = computed(() => {
    const { at, bpm, kind, seconds, meter: text } = this.sitting();
    const what =
      kind === 'free' ? 'Free play' : kind === 'calls' ? 'Calls' : kind === 'trading' ? 'Trading' : 'From a recording';
    return `${what}, ${momentWords(at)} · ${clockWords(seconds)} · ${text} at ${bpm}`;
  });
  readonly words = computed(() => {
    const { came, against, calls, kind } = this.sitting();
    if (kind === 'calls') return callsWords(calls.map((c) => ({ ...c, name: this.store.nameOf(c.phrase) })));
    return cameWords(
      came.map((c) => this.store.nameOf(c.phrase)),
      against,
    );
  });
  /** Half and twice a tempo that was found: where the count was another, it is read again so. */
  readonly tempos = computed(() => {
    const { found, bpm, hits } = this.sitting();
    if (!found || hits.length === 0) return [];
    return [bpm / 2, bpm * 2].filter((t) => t >= 30 && t <= 300).map((t) => Math.round(t * 10) / 10);
  });
  private readonly ids = computed(() => [
    ...new Set(
      this.sitting()
        .came.slice(0, this.most())
        .map((c) => c.phrase),
    ),
  ]);
  private readonly drawn = resource({
    params: () => ({ ids: this.ids(), turn: this.index.changed() }),
    loader: async ({ params }) => new Map((await this.index.patternsOf(params.ids)).map((d) => [d.id, d.pattern])),
  });
  readonly entries = computed(() => {
    const s = this.sitting();
    const drawn = this.drawn.hasValue() ? this.drawn.value() : null;
    if (!drawn || s.hits.length === 0) return [];
    const m = this.counted();
    const bar = barTicks(m);
    const lattices = new Map<string, Lattice>();
    const on = (pattern: Pattern): Lattice => {
      const key = JSON.stringify([pattern.grid, pattern.feel]);
      const known = lattices.get(key) ?? latticeOf(s.hits, m, s.bpm, pattern.grid, pattern.feel);
      lattices.set(key, known);
      return known;
    };
    return s.came.slice(0, this.most()).flatMap((c) => {
      const pattern = drawn.get(c.phrase);
      if (!pattern) return [];
      const came = { ...c, id: c.phrase };
      const lattice = on(pattern);
      // What kept time is many turns: the first is drawn, and none is judged for all.
      const turns = (c.until - c.from) / untilLanding(pattern).length;
      const last = turns > 1.5 ? c.from + untilLanding(pattern).length : c.until;
      const verdict = turns > 1.5 ? null : verdictOn(pattern, came, s.hits, s.bpm, this.habits.now().strictness);
      const [from, until] = [Math.floor(Math.max(0, c.from) / bar) * bar, Math.ceil(last / bar) * bar];
      return [
        {
          phrase: c.phrase,
          name: [c.phrase, ...c.or.slice(0, 2)].map(this.store.nameOf).join(' or '),
          where:
            turns > 1.5
              ? `bars ${Math.floor(c.from / bar) + 1} to ${Math.ceil(c.until / bar)}`
              : this.whereOf(c.at, pattern.grid),
          sure: sureWords(c.chance),
          other: turns > 1.5 ? 'kept time' : differencesWords(differencesOf(pattern, came, lattice, m), m),
          verdict: verdict && VERDICTS[verdict],
          played: playedPattern(lattice, m, from, until, { pattern, at: c.at, swapped: c.swapped === true }),
        },
      ];
    });
  });
  readonly figures = computed(() =>
    this.sitting().figures.flatMap((f) => {
      const pattern = figurePattern(f, this.counted());
      return pattern ? [{ ...f, pattern, words: figureWords(f.at.length, 1, f.exact) }] : [];
    }),
  );
  /** Hands that nothing told are drawn in turn: whoever looks should know. */
  readonly guessed = computed(
    () => this.sitting().hits.length > 0 && this.sitting().hits.every((h) => h.limb === null),
  );

  /** Which hand struck is told above the list where it is not known. */
  readonly hidden = computed(() => (this.guessed() ? (['letters'] as const) : []));

  hear(): void {
    const s = this.sitting();
    const m = this.counted();
    const meant = rendition({
      phrase: openBars(m, GRID.sixteenths, 1),
      click: this.habits.now().click,
      schools: this.settings.schools(),
    });
    this.player.toggle(SITTING, replayOf(meant, s.bpm, s.hits));
  }

  async again(bpm: number): Promise<void> {
    if (await this.store.readAgain(this.sitting(), bpm)) this.notices.tell('Read again with the shelf as it is now.');
  }

  async toBench(pattern: Pattern): Promise<void> {
    if (!(await this.wanted.layPattern(pattern, this.sitting().bpm)))
      this.notices.wrong('This is too long for the Bench.');
  }

  private whereOf(at: number, grid: Grid): string {
    const { bar, text } = countAt(at, { meter: this.counted(), grid, schools: this.settings.schools() });
    return `bar ${bar}, ${text}`;
  }
}
