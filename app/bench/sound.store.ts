import { computed, inject, Injectable, signal } from '@angular/core';
import { beatTicks, quarterTempo } from '@core/time';
import type { Limb } from '@core/stroke';
import { NOTHING_MUTED, unmuted, type Mute, type Pattern, type Role } from '@core/pattern';
import { revoice } from '@core/kit';
import { programOf, type ClickKind } from '@core/playback';
import { Transport, type PlayRequest } from '../audio/transport.service';
import { KitsRepo } from '../data/kits.repo';
import { BenchStore } from './bench.store';
import { CompareStore } from './compare.store';
import { CursorStore } from './cursor.store';
import { TrailStore } from './trail.store';

/** What sounds on the Bench: which phrase, which part of it, how fast, without whom, against which click. */
@Injectable({ providedIn: 'root' })
export class SoundStore {
  private readonly bench = inject(BenchStore);
  private readonly trail = inject(TrailStore);
  private readonly cursor = inject(CursorStore);
  private readonly compare = inject(CompareStore);
  private readonly transport = inject(Transport);
  private readonly kits = inject(KitsRepo);
  readonly click = signal<ClickKind>('beats');
  readonly half = signal(false);
  /** Whether tones count along. */
  readonly counts = signal(false);
  /** Whether the chosen stretch goes round instead of the whole. */
  readonly loopsSelection = signal(true);
  private readonly muteState = signal<Mute>(NOTHING_MUTED);
  readonly mute = this.muteState.asReadonly();

  /** The phrase that sounds: the other one while it is compared and heard, else what the ribbon shows. */
  readonly pattern = computed((): Pattern | null => this.compare.heard() ?? this.trail.pattern());
  readonly range = computed(() =>
    this.loopsSelection() && this.trail.isFinished() && !this.compare.heard() ? this.cursor.range() : null,
  );
  readonly program = computed(() => {
    const pattern = this.pattern();
    if (!pattern || pattern.strokes.length === 0) return null;
    const range = this.range();
    return programOf(unmuted(revoice(pattern, this.kits.current()).pattern, this.mute()), {
      click: this.click(),
      countInBars: 0,
      counts: this.counts(),
      ...(range ? { range } : {}),
    });
  });
  readonly request = computed((): PlayRequest | null => {
    const [pattern, program] = [this.pattern(), this.program()];
    if (!pattern || !program) return null;
    const { meter } = pattern;
    return { program, bpm: quarterTempo(this.bench.tempo(), meter) * (this.half() ? 0.5 : 1), beat: beatTicks(meter) };
  });
  readonly loop = computed(() => this.program()?.loop ?? 0);
  readonly origin = computed(() => this.program()?.origin ?? 0);

  toggle(): void {
    if (this.transport.playing()) this.transport.stop();
    else this.start();
  }

  /** Plays from the cursor, or from the beginning where there is none. */
  fromCursor(): void {
    const [pattern, at] = [this.pattern(), this.cursor.at()];
    const range = this.range();
    this.start(pattern && at !== null && !range && at < pattern.length ? pattern.start + at : 0);
  }

  start(from = 0): void {
    const request = this.request();
    if (request) void this.transport.play(request, from);
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
    if (this.previewing) this.transport.stop();
    this.previewing = false;
  }

  muteLimb(limb: Limb): void {
    this.muteState.update((m) => ({ ...m, limbs: flipped(m.limbs, limb) }));
  }

  muteRole(role: Role): void {
    this.muteState.update((m) => ({ ...m, roles: flipped(m.roles, role) }));
  }

  /** Everything is heard again. */
  unmute(): void {
    this.muteState.set(NOTHING_MUTED);
  }

  hearOnly(what: 'groove' | 'hands'): void {
    this.muteState.set(what === 'groove' ? { limbs: [], roles: ['texture'] } : { limbs: ['K', 'J', 'H'], roles: [] });
  }
}

function flipped<T>(list: readonly T[], value: T): readonly T[] {
  return list.includes(value) ? list.filter((v) => v !== value) : [...list, value];
}
