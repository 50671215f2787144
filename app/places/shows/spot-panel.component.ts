import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { count } from '@core/base';
import { chanceWords } from '@core/player';
import { rendition, requestOf } from '@core/rendition';
import { noFitWords, spotText, standsWords, type SpotFit } from '@core/show';
import { WENT } from '@core/shelf';
import { RouterLink } from '@angular/router';
import { RibbonComponent } from '../../drawings/ribbon/ribbon.component';
import { Player } from '../../playing/player';
import { KitsRepo } from '../../storage/kits.repo';
import { ShowsStore } from './shows.store';

/** So many of what fits are listed. */
const LISTED = 12;
/** By this name a phrase of a spot is known among what sounds. */
const HEARD = 'show spot ';

/** One spot of the show: what stands in it, what else would, and what to do where nothing does. */
@Component({
  selector: 'ls-spot-panel',
  imports: [RibbonComponent, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './spot-panel.component.html',
  styleUrl: './spot-panel.component.css',
})
export class SpotPanelComponent {
  readonly store = inject(ShowsStore);
  private readonly player = inject(Player);
  private readonly kits = inject(KitsRepo);
  readonly went = WENT;
  readonly where = computed(() => {
    const own = this.store.spot();
    return own && spotText(own.spot, own.cue);
  });
  readonly name = computed(() => this.store.nameOf(this.store.spot()?.spot.phrase ?? null));
  readonly fit = computed(() => {
    const own = this.store.spot();
    return this.store.choice()?.fits.find((f) => f.phrase === own?.spot.phrase) ?? null;
  });
  readonly pattern = computed(() => this.store.drawn().get(this.store.spot()?.spot.phrase ?? '') ?? null);
  /** Why this one, or what the filling would put there. */
  readonly why = computed(() => {
    const [own, best] = [this.store.spot(), this.store.best()];
    if (!own || !best) return '';
    if (own.spot.pinned) return 'You chose it. Fill the show leaves it.';
    if (own.spot.phrase === null) {
      const name = this.store.nameOf(best.phrase);
      return name === null ? '' : `Fill the show would put ${name} here.`;
    }
    if (best.phrase === own.spot.phrase) return best.words;
    const name = this.store.nameOf(best.phrase);
    return name === null ? '' : `By now ${name} would be better here.`;
  });
  readonly others = computed(() => {
    const own = this.store.spot();
    const fits = this.store.choice()?.fits ?? [];
    return {
      all: fits.filter((f) => f.phrase !== own?.spot.phrase).slice(0, LISTED),
      more: Math.max(0, fits.length - LISTED),
    };
  });
  readonly nothing = computed(() => {
    const choice = this.store.choice();
    return choice && choice.fits.length === 0 ? noFitWords(choice.none) : '';
  });
  /** Whether nothing that fits can be played at the tempo. */
  readonly noneGoes = computed(() => (this.store.choice()?.fits ?? []).every((f) => f.chance <= 0));
  readonly past = computed(() => (this.store.left() ?? 0) < 0);

  /** "92% ready", and the minutes it takes. */
  said(fit: SpotFit): string {
    if (fit.chance <= 0) return 'too fast to play';
    const ready = `${chanceWords(fit.chance)} ready${fit.tried ? '' : ', never played'}`;
    if (fit.minutes === null) return `${ready}; hardly by then`;
    return fit.minutes === 0 ? ready : `${ready}, ${count(fit.minutes, 'minute')} to be safe`;
  }

  way(fit: SpotFit): string {
    return standsWords(fit.way);
  }

  sounds(id: string): boolean {
    return this.player.owner() === HEARD + id;
  }

  hear(id: string): void {
    const [own, phrase] = [this.store.spot(), this.store.drawn().get(id)];
    if (!own || !phrase) return;
    const played = rendition({ phrase, kit: this.kits.current() });
    this.player.toggle(HEARD + id, requestOf(played, own.cue.tempo));
  }
}
