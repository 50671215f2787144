import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { clamp, edited, historyOf, redone, stableJson, undone } from '@core/base';
import {
  checkKit,
  currentKit,
  KIT_LIMITS,
  KIT_PRESETS,
  mirroredKit,
  newPiece,
  type Foot,
  type Kit,
  type Kits,
  type Piece,
} from '@core/kit';
import type { PieceKind } from '@core/stroke';
import { KitsRepo } from '../../storage/kits.repo';

/** The kits as they are edited: each change is one step that can be undone, and is kept at once. */
@Injectable({ providedIn: 'root' })
export class KitsStore {
  private readonly repo = inject(KitsRepo);
  private readonly history = signal(historyOf(this.repo.all()));
  readonly all = computed(() => this.history().now);
  readonly current = computed(() => currentKit(this.all()));
  readonly findings = computed(() => checkKit(this.current()));
  readonly canUndo = computed(() => this.history().past.length > 0);
  readonly canRedo = computed(() => this.history().future.length > 0);
  private readonly chosenState = signal<string | null>(null);
  readonly chosen = computed(() => this.current().pieces.find((p) => p.id === this.chosenState()) ?? null);

  constructor() {
    // Another tab, or a file that was read, may change the kits: then the steps made here are no longer about them.
    effect(() => {
      const kept = this.repo.all();
      untracked(() => {
        if (stableJson(kept) !== stableJson(this.all())) this.history.set(historyOf(kept));
      });
    });
  }

  choose(id: string | null): void {
    this.chosenState.set(id);
  }

  use(id: string): void {
    this.put({ ...this.all(), current: id });
    this.chosenState.set(null);
  }

  /** A kit to start from, as a kit of one's own. */
  addPreset(id: string): void {
    const preset = KIT_PRESETS.find((k) => k.id === id);
    if (!preset) return;
    const { kits } = this.all();
    const taken = new Set(kits.map((k) => k.id));
    let n = 1;
    while (taken.has(n === 1 ? preset.id : `${preset.id}-${n}`)) n++;
    const kit: Kit = {
      ...preset,
      id: n === 1 ? preset.id : `${preset.id}-${n}`,
      name: n === 1 ? preset.name : `${preset.name} ${n}`,
    };
    this.put({ kits: [...kits, kit], current: kit.id });
  }

  removeKit(): void {
    const { kits } = this.all();
    const left = kits.filter((k) => k.id !== this.current().id);
    const [first] = left;
    if (first) this.put({ kits: left, current: first.id });
  }

  rename(name: string): void {
    const kept = name.trim().slice(0, 80);
    if (kept !== '') this.change((kit) => ({ ...kit, name: kept }), 'name');
  }

  mirror(): void {
    this.change(mirroredKit);
  }

  foot(limb: 'K' | 'J' | 'H', foot: Foot | null): void {
    this.change((kit) => ({ ...kit, feet: { ...kit.feet, [limb]: limb === 'K' ? (foot ?? kit.feet.K) : foot } }));
  }

  add(kind: PieceKind): void {
    const kit = this.current();
    if (kit.pieces.length >= KIT_LIMITS.pieces) return;
    const piece = newPiece(kind, kit.pieces);
    this.change((k) => ({ ...k, pieces: [...k.pieces, kit.handed === 'left' ? { ...piece, x: -piece.x } : piece] }));
    this.chosenState.set(piece.id);
  }

  removePiece(id: string): void {
    this.change((kit) => ({ ...kit, pieces: kit.pieces.filter((p) => p.id !== id) }));
    this.chosenState.set(null);
  }

  /** A piece with other values, each held to what can be. `about` joins the steps of one drag. */
  setPiece(id: string, part: Partial<Piece>, about: string | null = null): void {
    const held = (piece: Piece): Piece => ({
      ...piece,
      x: round(clamp(piece.x, -KIT_LIMITS.reach, KIT_LIMITS.reach)),
      y: round(clamp(piece.y, -KIT_LIMITS.reach, KIT_LIMITS.reach)),
      z: round(clamp(piece.z, 0, KIT_LIMITS.height)),
      diameter: round(clamp(piece.diameter, KIT_LIMITS.least, KIT_LIMITS.most)),
      turn: round(((((piece.turn + 180) % 360) + 360) % 360) - 180),
    });
    this.change(
      (kit) => ({ ...kit, pieces: kit.pieces.map((p) => (p.id === id ? held({ ...p, ...part }) : p)) }),
      about,
    );
  }

  endStep(): void {
    this.history.update((h) => ({ ...h, about: null }));
  }

  undo(): void {
    this.history.update(undone);
    void this.repo.keep(this.all());
  }

  redo(): void {
    this.history.update(redone);
    void this.repo.keep(this.all());
  }

  private change(update: (kit: Kit) => Kit, about: string | null = null): void {
    const now = this.current();
    const next = update(now);
    this.put({ ...this.all(), kits: this.all().kits.map((k) => (k.id === now.id ? next : k)) }, about);
  }

  private put(kits: Kits, about: string | null = null): void {
    this.history.update((h) => edited(h, kits, about));
    void this.repo.keep(kits);
  }
}

function round(n: number): number {
  const half = Math.round(n * 2) / 2;
  return half === 0 ? 0 : half;
}
