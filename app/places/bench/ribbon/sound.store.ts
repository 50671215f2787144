import { computed, inject, Injectable, signal } from '@angular/core';
import { pieceName } from '@core/stroke';
import { NOTHING_MUTED, type Mute, type Pattern } from '@core/pattern';
import type { ClickKind, CountKind, PlayRequest } from '@core/playback';
import { rendition, requestOf, type Rendition } from '@core/rendition';
import { Transport } from '../../../sound/transport.service';
import { KitsRepo } from '../../../storage/kits.repo';
import { SettingsRepo } from '../../../storage/settings.repo';
import { Player } from '../../../playing/player';
import { BenchStore } from '../document/bench.store';
import { CompareStore } from '../document/compare.store';
import { TrailStore } from '../document/trail.store';
import { CursorStore } from './cursor.store';

/** By this name the Bench's own sound is known among what sounds. */
export const BENCH = 'bench';
const TRIED = 'tried out';

/** What sounds on the Bench: which phrase, which part of it, how fast, without whom, against which click. */
@Injectable({ providedIn: 'root' })
export class SoundStore {
  private readonly bench = inject(BenchStore);
  private readonly trail = inject(TrailStore);
  private readonly cursor = inject(CursorStore);
  private readonly compare = inject(CompareStore);
  private readonly player = inject(Player);
  private readonly transport = inject(Transport);
  private readonly kits = inject(KitsRepo);
  private readonly settings = inject(SettingsRepo);

  readonly click = signal<ClickKind>('beats');
  readonly half = signal(false);
  /** Who counts along; null for nobody. */
  readonly counts = signal<CountKind | null>(null);
  /** Whether the chosen stretch goes round instead of the whole. */
  readonly loopsSelection = signal(true);
  readonly mute = signal<Mute>(NOTHING_MUTED);

  private readonly range = computed(() =>
    this.loopsSelection() && this.trail.isFinished() && !this.compare.heard() ? this.cursor.range() : null,
  );
  /** Whether only what is chosen goes round. */
  readonly loopsChosen = computed(() => this.range() !== null);
  /** What sounds: the other phrase while it is compared and heard, else what the ribbon shows. */
  readonly rendition = computed((): Rendition | null => {
    const phrase = this.compare.heard() ?? this.trail.pattern();
    if (!phrase || phrase.strokes.length === 0) return null;
    return rendition({
      phrase,
      kit: this.kits.current(),
      mute: this.mute(),
      click: this.click(),
      counts: this.counts(),
      schools: this.settings.schools(),
      sung: this.settings.sung(),
      range: this.range(),
    });
  });
  readonly request = computed((): PlayRequest | null => {
    const sounds = this.rendition();
    return sounds && requestOf(sounds, this.bench.tempo() * (this.half() ? 0.5 : 1));
  });
  readonly loop = computed(() => this.rendition()?.program.loop ?? 0);
  readonly origin = computed(() => this.rendition()?.program.origin ?? 0);
  /** Whether what sounds, if anything does, is what the ribbon shows. */
  readonly isShown = computed(() => {
    const owner = this.player.owner();
    return (owner === null || owner === BENCH) && this.compare.heard() === null;
  });
  /** Limbs that play in what could sound. */
  readonly limbs = computed(() => [...new Set((this.trail.pattern()?.strokes ?? []).map((s) => s.limb))]);

  /** Pieces that are struck in what could sound, by their names. */
  readonly pieces = computed(() => [...new Set((this.trail.pattern()?.strokes ?? []).map((s) => pieceName(s.voice)))]);

  /** Silence where anything sounds; else the phrase. */
  toggle(): void {
    if (this.transport.playing()) this.player.stop();
    else this.start();
  }

  stop(): void {
    this.player.stop();
  }

  /** Plays from the cursor, or from the beginning where there is none. */
  fromCursor(): void {
    const [sounds, at] = [this.rendition(), this.cursor.at()];
    const inside = sounds !== null && at !== null && this.range() === null && at < sounds.pattern.length;
    this.start(inside ? sounds.pattern.start + at : 0);
  }

  start(from = 0): void {
    const request = this.request();
    if (request) this.player.play(BENCH, request, from);
  }

  /** The phrase sounds instead of whatever does, without losing the beat; it begins where nothing sounds. */
  takeOver(): void {
    const request = this.request();
    if (request && this.player.owner() !== BENCH) this.player.takeOver(BENCH, request);
  }

  private readonly tried = signal<Pattern | null>(null);

  /** A phrase that is offered instead is heard at the next beat; the same again stops it. */
  tryOut(phrase: Pattern): void {
    if (this.tries(phrase)) return this.player.stop(TRIED);
    this.tried.set(phrase);
    const sounds = rendition({
      phrase,
      kit: this.kits.current(),
      click: this.click(),
      schools: this.settings.schools(),
    });
    this.player.takeOver(TRIED, requestOf(sounds, this.bench.tempo()));
  }

  tries(phrase: Pattern): boolean {
    return this.tried() === phrase && this.player.owner() === TRIED;
  }

  private previewing = false;

  /** Lets a change be heard while a hand still moves: plays if nothing does. */
  preview(): void {
    if (this.transport.playing()) return;
    this.previewing = true;
    this.start();
  }

  /** The hand is still again: what only played for it stops. */
  endPreview(): void {
    if (this.previewing) this.player.stop(BENCH);
    this.previewing = false;
  }
}
