import { DOCUMENT } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  linkedSignal,
  OnDestroy,
  signal,
  untracked,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { ActivatedRoute, Router, RouterLink } from '@angular/router';
import { report, loopTicks, shapeWords } from '@core/pattern';
import { build } from '@core/recipe';
import { rendition, requestOf } from '@core/rendition';
import type { SharedPhrase } from '@core/formats/shared';
import { Transport } from '../../sound/transport.service';
import { SettingsRepo } from '../../storage/settings.repo';
import { ExchangeService } from '../../exchange/exchange.service';
import { KeepShared } from '../../exchange/keep-shared';
import { UNFETCHED } from '../../environment/workers';
import { Player } from '../../playing/player';
import { RibbonComponent } from '../../drawings/ribbon/ribbon.component';
import { StaffComponent } from '../../drawings/staff/staff.component';
import { GuideLinkComponent } from '../../guide/guide-link.component';
import { TempoFieldComponent } from '../../widgets/tempo-field.component';

const OWNER = 'visit';

/** A phrase in a link, for whoever opens it: seen and heard, and kept only where that is asked for. */
@Component({
  selector: 'ls-visit',
  imports: [GuideLinkComponent, RibbonComponent, RouterLink, StaffComponent, TempoFieldComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './visit.component.html',
  styleUrl: './visit.component.css',
})
export class VisitComponent implements OnDestroy {
  private readonly exchange = inject(ExchangeService);
  private readonly shelf = inject(KeepShared);
  private readonly player = inject(Player);
  private readonly router = inject(Router);
  readonly transport = inject(Transport);
  readonly settings = inject(SettingsRepo);
  private readonly fragment = toSignal(inject(ActivatedRoute).fragment, { initialValue: null });
  private readonly page = inject(DOCUMENT);
  readonly phrase = signal<SharedPhrase | null>(null);
  readonly wrong = signal<string | null>(null);
  /** What the link holds, where what reads it could not be fetched. */
  readonly unfetched = signal<string | null>(null);
  readonly unfetchedWords = UNFETCHED;
  readonly pattern = computed(() => {
    const p = this.phrase();
    return p ? build(p.recipe).pattern : null;
  });
  readonly facts = computed(() => {
    const [pattern, phrase] = [this.pattern(), this.phrase()];
    return pattern && phrase ? `${shapeWords(pattern)} · goal ${phrase.goal}` : '';
  });
  /** The sums of the phrase, as the Bench says them. */
  readonly sums = computed(() => {
    const pattern = this.pattern();
    if (!pattern) return [];
    return report(pattern, this.phrase()?.tempo ?? 90, this.settings.schools())
      .filter((f) => f.weight === 'sum')
      .slice(0, 4)
      .map((f) => f.words);
  });
  readonly tempo = linkedSignal(() => this.phrase()?.tempo ?? 90);
  readonly heard = computed(() => this.player.owner() === OWNER);
  readonly loop = computed(() => {
    const pattern = this.pattern();
    return pattern && this.heard() ? loopTicks(pattern) : 0;
  });

  constructor() {
    effect(() => {
      const code = this.fragment() || this.page.location.hash.slice(1);
      untracked(() => void this.read(code));
    });
  }

  ngOnDestroy(): void {
    this.player.stop(OWNER);
    this.exchange.close();
  }

  async read(fragment: string): Promise<void> {
    this.player.stop(OWNER);
    const found = await this.exchange.text(`#${fragment}`);
    this.phrase.set(found.kind === 'phrase' ? found.phrase : null);
    this.unfetched.set(found.kind === 'unfetched' ? fragment : null);
    this.wrong.set(
      found.kind === 'phrase' || found.kind === 'unfetched'
        ? null
        : fragment === ''
          ? 'There is no phrase in this link.'
          : found.kind === 'refused'
            ? found.words
            : '',
    );
  }

  hear(): void {
    const pattern = this.pattern();
    if (pattern) this.player.toggle(OWNER, requestOf(rendition({ phrase: pattern }), this.tempo()));
  }

  setTempo(bpm: number): void {
    this.tempo.set(bpm);
    const pattern = this.pattern();
    if (pattern) this.player.follow(OWNER, requestOf(rendition({ phrase: pattern }), bpm));
  }

  async take(open: boolean): Promise<void> {
    const phrase = this.phrase();
    if (!phrase) return;
    const id = await this.shelf.keep(phrase);
    if (id === null) return;
    void this.router.navigate(open ? ['/bench', id] : ['/shelf'], open ? { queryParams: { kept: 1 } } : {});
  }
}
