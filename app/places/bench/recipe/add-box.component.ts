import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  ElementRef,
  inject,
  signal,
  viewChild,
} from '@angular/core';
import { hasLimb } from '@core/kit';
import { build, MOST_MOVES, MOVE_NAMES, MOVES, type Build, type MoveName } from '@core/recipe';
import {
  endingsOf,
  HINTS,
  nearestTo,
  readLine,
  type Diagnostic,
  type LineReading,
  type Meant,
  type Nearest,
  type ShelfPhrase,
} from '@core/language';
import { versionName } from '@core/shelf';
import { KitsRepo } from '../../../storage/kits.repo';
import { RibbonComponent } from '../../../drawings/ribbon/ribbon.component';
import { BenchStore } from '../document/bench.store';
import { PreviewStore } from '../document/preview.store';
import { NamedStore } from './named.store';
import { OrdersStore } from './orders.store';
import { SaidStore } from './said.store';
import { EscDirective } from '../../../common/esc.directive';
import { stilled } from '../../../common/stilled';

/** One line that can be taken: its words, and what it makes. */
interface Offer {
  readonly words: string;
  readonly meant: Meant;
  /** The line it would have been, where what was typed is not understood. */
  readonly line: string | null;
}

/** A stretch of the line, and whether it is to blame. */
interface Piece {
  readonly text: string;
  readonly bad: boolean;
}

const NOTHING: LineReading = { kind: 'not', diagnostics: [] };
const NONE_NEAR: Nearest = { diagnostics: [], lines: [] };

/**
 * The box under the recipe takes a line of words. What it can mean is drawn; one meaning is taken by Enter, of several
 * one is chosen first, and where it means nothing the words that stand in the way are shown.
 */
@Component({
  selector: 'ls-add-box',
  imports: [EscDirective, RibbonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './add-box.component.html',
  styleUrl: './add-box.component.css',
})
export class AddBoxComponent {
  readonly store = inject(BenchStore);
  readonly kits = inject(KitsRepo);
  private readonly lines = inject(SaidStore);
  private readonly orders = inject(OrdersStore);
  private readonly named = inject(NamedStore);
  private readonly preview = inject(PreviewStore);
  private readonly writing = signal(false);
  private readonly field = viewChild<ElementRef<HTMLInputElement>>('field');
  readonly text = signal('');
  /** The card whose words are in the box: what is said takes its place. */
  readonly instead = signal<string | null>(null);
  readonly browsing = signal(false);
  /** The line is an earlier one, walked to by arrow keys: these go on walking. */
  private readonly recalled = signal(false);
  /** The meaning that was chosen of several; null before one was. */
  readonly chosen = signal<number | null>(null);
  readonly hint = HINTS[0] ?? '';
  readonly menu = MOVE_NAMES.map((name) => ({ name, title: MOVES[name].title, hint: MOVES[name].hint }));
  readonly full = computed(() => (this.store.recipe()?.moves.length ?? 0) >= MOST_MOVES);
  /** What a line is said of: the phrase, or what it was before the card that is said anew. */
  private readonly before = computed((): Build | null => {
    const [built, id] = [this.store.build(), this.instead()];
    const at = built && id !== null ? built.recipe.moves.findIndex((m) => m.id === id) : -1;
    return built && at >= 0 ? build({ ...built.recipe, moves: built.recipe.moves.slice(0, at) }, built) : built;
  });
  /** Phrases that can be named: first the one that the card that is said anew holds, as it was when it was joined. */
  private readonly phrases = computed((): readonly ShelfPhrase[] => {
    const card = this.store.recipe()?.moves.find((m) => m.id === this.instead());
    if (card?.move !== 'join') return this.named.here();
    return [{ id: '', name: card.params.name, recipe: card.params.other }, ...this.named.here()];
  });
  readonly reading = computed((): LineReading => {
    const built = this.before();
    return built && this.text().trim() !== '' ? readLine(this.text(), built, this.around()) : NOTHING;
  });
  /** The letter of the version on the Bench, as long as it is what the shelf has. */
  private readonly ownLetter = computed(() => {
    const phrase = this.store.phrase();
    return phrase && this.store.isKept() && this.instead() === null ? versionName(phrase.name).letter : null;
  });
  private readonly around = computed(() => ({
    tempo: this.store.tempo(),
    own: this.kits.own(),
    phrases: this.phrases(),
    versions: this.named.versions(),
    letter: this.ownLetter(),
    isOnePedal: !hasLimb(this.kits.current(), 'J'),
  }));
  /** A line that is not understood, when nobody has typed for a moment. */
  private readonly refused = stilled((): string | null => {
    const isRefused = this.reading().kind === 'not' && this.text().trim().length > 2 && this.endings().length === 0;
    return isRefused && !this.recalled() ? this.text() : null;
  }, 2);
  /** What is near that line, for this phrase. */
  readonly near = computed((): Nearest => {
    const [line, built] = [this.refused(), this.before()];
    return line !== null && line === this.text() && built ? nearestTo(line, built, this.around()) : NONE_NEAR;
  });
  /** What can be taken: the meanings of the line, or of those near it where it has none. */
  readonly offers = computed((): readonly Offer[] => {
    const reading = this.reading();
    if (reading.kind === 'meant')
      return reading.all.map((meant) => ({ words: this.kits.said(meant.words), meant, line: null }));
    return reading.kind === 'not' ? this.near().lines.map(({ line, meant }) => ({ words: line, meant, line })) : [];
  });
  /** Whether what is offered was not said: nothing of it is taken by itself. */
  readonly isNear = computed(() => this.offers().some((o) => o.line !== null));
  /** Which meaning Enter takes: the only one, or the one that was chosen. */
  readonly marked = computed(() => (this.offers().length === 1 && !this.isNear() ? 0 : this.chosen()));
  /** What the line says to the player, where it is for the player. */
  readonly playing = computed(() => {
    const reading = this.reading();
    return reading.kind === 'playing' ? reading : null;
  });
  readonly blame = computed((): readonly Diagnostic[] => {
    const reading = this.reading();
    if (reading.kind !== 'not' || this.text().trim().length <= 2) return [];
    // The smallest part that stands in the way, once it was looked for; what names a part says more.
    const whole = reading.diagnostics.some((d) => d.until - d.from >= this.text().trim().length);
    const [smaller] = this.near().diagnostics;
    return whole && smaller ? [smaller] : reading.diagnostics;
  });
  readonly whys = computed(() => [...new Set(this.blame().map((b) => b.why))]);
  /** The line with what is to blame in it. */
  readonly pieces = computed((): readonly Piece[] => {
    const [text, out] = [this.text(), [] as Piece[]];
    let at = 0;
    for (const b of this.blame()) {
      if (b.from > at) out.push({ text: text.slice(at, b.from), bad: false });
      out.push({ text: text.slice(b.from, b.until), bad: true });
      at = b.until;
    }
    return at < text.length ? [...out, { text: text.slice(at), bad: false }] : out;
  });
  /** Ways to write the last word to its end. */
  readonly endings = computed(() =>
    this.reading().kind === 'meant' ? [] : endingsOf(this.text(), this.named.names()),
  );

  constructor() {
    // What would be taken is shown while the keyboard is in the box.
    effect(() => {
      const meant = this.writing() ? this.offers()[this.marked() ?? -1] : undefined;
      this.preview.show(meant ? { pattern: meant.meant.pattern, words: this.kits.said(meant.meant.words) } : null);
    });
    inject(DestroyRef).onDestroy(() => this.preview.show(null));
  }

  begin(): void {
    this.writing.set(true);
    void this.named.begin();
  }

  end(): void {
    this.writing.set(false);
  }

  focus(): void {
    this.field()?.nativeElement.focus();
  }

  write(text: string): void {
    this.text.set(text);
    this.chosen.set(null);
    this.recalled.set(false);
    void this.named.look(text);
  }

  key(event: KeyboardEvent): void {
    const many = this.offers().length;
    const [ending] = this.endings();
    // Nothing was typed that could be undone: it is the phrase that is meant.
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z' && this.text() === '')
      if (event.shiftKey) this.store.redo();
      else this.store.undo();
    else if (event.key === 'ArrowDown' && (many > 1 || (many === 1 && this.isNear())))
      this.chosen.update((n) => (n === null ? 0 : (n + 1) % many));
    else if (event.key === 'ArrowUp' && (many > 1 || this.isNear()) && this.chosen() !== null)
      this.chosen.update((n) => ((n ?? 0) + many - 1) % many);
    else if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
      const line = this.lines.walk(event.key === 'ArrowUp' ? -1 : 1, this.text());
      if (line === null) return;
      this.put(line);
      this.recalled.set(true);
    } else if (event.key === 'Tab' && ending !== undefined && !event.shiftKey) this.put(ending.line);
    else if (event.key === 'Enter') {
      const meant = this.offers()[this.marked() ?? -1];
      if (meant) this.take(meant);
      else this.order();
    } else if (event.key === 'Escape') {
      this.clear();
      this.field()?.nativeElement.blur();
    } else if (event.key !== '/' || this.text() !== '') return;
    event.preventDefault();
    event.stopPropagation();
  }

  take({ meant: { moves }, line }: Offer): void {
    // One line is one step of undo.
    this.preview.show(null);
    const id = this.instead();
    const taken = id === null ? this.store.takeAll(moves).length > 0 : this.store.replaceMove(id, moves);
    if (!taken) return;
    this.lines.keep(line ?? this.text());
    this.clear();
  }

  /** What was said to the player is done. */
  order(): void {
    const order = this.playing()?.order;
    if (!order) return;
    this.orders.carryOut(order);
    this.lines.keep(this.text());
    this.clear();
  }

  /** A card's words are taken back into the box. */
  sayAnew(id: string, words: string): void {
    this.put(words);
    this.instead.set(id);
  }

  put(line: string): void {
    this.write(line);
    const field = this.field()?.nativeElement;
    if (field) field.value = line;
    this.focus();
  }

  add(name: MoveName): void {
    this.browsing.set(false);
    this.store.addMove(name);
  }

  private clear(): void {
    this.text.set('');
    this.instead.set(null);
    // At once, and not with the next drawing: whoever types on without a pause must not write behind the old words.
    const field = this.field()?.nativeElement;
    if (field) field.value = '';
    this.chosen.set(null);
  }
}
