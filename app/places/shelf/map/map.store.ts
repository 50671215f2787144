import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { rendition, requestOf } from '@core/rendition';
import type { Step } from '@core/map';
import { build } from '@core/recipe';
import { traitsOf, type Trait, type Traits } from '@core/shelf';
import type { MapAnswer } from '../../../knowledge/index/entry';
import { ShelfIndex } from '../../../knowledge/shelf-index.service';
import { WantedService } from '../../../knowledge/wanted.service';
import { Player } from '../../../playing/player';
import { DraftsRepo } from '../../../storage/drafts.repo';
import { KitsRepo } from '../../../storage/kits.repo';

/** A square by its words. */
export interface Place {
  readonly row: string;
  readonly column: string;
}

/** By this name a step of the map is known among what sounds. */
const STEP = 'map step';

/** The map of the shelf: its two traits, the square that is looked at, what is next to learn. Provided by the map. */
@Injectable()
export class MapStore {
  private readonly index = inject(ShelfIndex);
  private readonly player = inject(Player);
  private readonly kits = inject(KitsRepo);
  private readonly wanted = inject(WantedService);
  private readonly drafts = inject(DraftsRepo);
  readonly traits = signal<readonly [Trait, Trait]>(['grid', 'sticking']);
  /** The practice day that the map is of; null for today. */
  readonly day = signal<number | null>(null);
  private readonly mapState = signal<MapAnswer | null>(null);
  readonly map = this.mapState.asReadonly();
  readonly place = signal<Place | null>(null);
  private readonly stepsState = signal<readonly Step[] | null>(null);
  /** What leads to the empty square that is looked at; null while it is looked for. */
  readonly steps = this.stepsState.asReadonly();
  private readonly nextState = signal<readonly Step[] | null>(null);
  /** The best to learn next; null while it is looked for. */
  readonly next = this.nextState.asReadonly();
  private readonly heard = signal<Step | null>(null);
  private readonly traitsOnBench = signal<Traits | null>(null);
  /** The square of the phrase on the Bench; null where nothing is on it. */
  readonly onBench = computed((): Place | null => {
    const [own, [row, column]] = [this.traitsOnBench(), this.traits()];
    return own && { row: own[row], column: own[column] };
  });
  readonly square = computed(() => {
    const [map, place] = [this.map(), this.place()];
    return map?.squares.find((s) => s.row === place?.row && s.column === place.column) ?? null;
  });
  private asked = 0;

  constructor() {
    void this.readBench();
    effect(() => {
      const [row, column] = this.traits();
      const day = this.day();
      this.index.changed();
      untracked(() => void this.read(row, column, day));
    });
  }

  private async readBench(): Promise<void> {
    const { draft } = await this.drafts.get();
    const pattern = draft?.recipe ? build(draft.recipe).pattern : null;
    if (pattern && pattern.strokes.length > 0) this.traitsOnBench.set(traitsOf(pattern));
  }

  private async read(row: Trait, column: Trait, day: number | null): Promise<void> {
    const mine = ++this.asked;
    const map = await this.index.map(row, column, day);
    if (mine !== this.asked) return;
    const isSame = JSON.stringify(map) === JSON.stringify(this.map());
    if (isSame && this.next() !== null) return;
    this.mapState.set(map);
    const place = this.place();
    if (place && !(map.rows.includes(place.row) && map.columns.includes(place.column))) this.place.set(null);
    // Of a day that is past nothing is to be learnt any more.
    this.nextState.set(day === null ? null : []);
    if (day !== null) return;
    const next = await this.index.nextToLearn(row, column);
    if (mine === this.asked) this.nextState.set(next);
  }

  choose(traits: readonly [Trait, Trait]): void {
    this.place.set(null);
    this.stepsState.set(null);
    this.mapState.set(null);
    this.nextState.set(null);
    this.traits.set(traits);
  }

  /** Looks at a square; at an empty one what leads there is looked for. Again lets it go. */
  async look(place: Place): Promise<void> {
    const own = this.place();
    if (own?.row === place.row && own.column === place.column) return this.place.set(null);
    this.place.set(place);
    this.stepsState.set(null);
    if (this.square()) return;
    const steps = await this.index.stepsTo({ traits: this.traits(), ...place });
    if (this.place() === place) this.stepsState.set(steps);
  }

  hear(step: Step): void {
    if (this.isHeard(step)) return this.player.stop(STEP);
    this.heard.set(step);
    const sounds = rendition({ phrase: step.pattern, kit: this.kits.current(), click: 'beats' });
    this.player.takeOver(STEP, requestOf(sounds, step.tempo));
  }

  isHeard(step: Step): boolean {
    return this.heard() === step && this.player.owner() === STEP;
  }

  stop(): void {
    this.player.stop(STEP);
  }

  /** Asks for a phrase of the empty square on the Bench; false where that cannot be asked for. */
  async ask(): Promise<boolean> {
    const place = this.place();
    const demands = place && (await this.index.demandsFor({ traits: this.traits(), ...place }));
    if (demands) await this.wanted.ask(demands);
    return demands !== null;
  }

  /** On the Bench as something new, at the tempo it is to be ready at. */
  open(step: Step): Promise<void> {
    return this.wanted.lay(step.recipe, step.tempo);
  }
}
