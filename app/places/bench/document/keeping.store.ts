import { computed, effect, inject, Injectable, signal } from '@angular/core';
import { takeUntilDestroyed, toObservable, toSignal } from '@angular/core/rxjs-interop';
import { Router } from '@angular/router';
import { format } from 'date-fns';
import { of, switchMap } from 'rxjs';
import type { Unkept } from '@core/formats/shelf-file';
import { build, isReorchestrated, type Phrase } from '@core/recipe';
import { nextVersion, type KeptState } from '@core/shelf';
import { BackupService } from '../../../storage/files/backup.service';
import { now } from '../../../environment/clock';
import { momentWords } from '../../../common/moment-words';
import { PhrasesRepo, type Keeping } from '../../../storage/phrases.repo';
import { ShelfIndex } from '../../../knowledge/shelf-index.service';
import { isSameWork, UnkeptRepo } from '../../../storage/unkept.repo';
import { NoticesService } from '../../../common/notices.service';
import { BenchStore, type Label, type Noted } from './bench.store';
import { CompareStore } from './compare.store';

/** How the player is asked to keep: as the phrase it is, or as a new one. */
export type Asking = 'keep' | 'as new';

/** What was said of a drill: a part in ticks with what it was called, and a tempo to begin at. */
export interface RoomWish {
  readonly from?: number;
  readonly until?: number;
  readonly part?: string;
  readonly at?: number;
  readonly to?: number;
}

function notedWords({ kind, phrase }: Noted): string {
  const name = `“${phrase?.name.slice(0, 80) ?? ''}”`;
  if (kind === 'behind-keep') return `Undone here. ${name} stays on the shelf as you kept it.`;
  return phrase ? `Your unkept changes to ${name} wait with it.` : 'What you had not kept waits on the shelf.';
}

/** From the Bench to the shelf and the room, and back: keeping, drilling, opening. */
@Injectable({ providedIn: 'root' })
export class KeepingStore {
  private readonly bench = inject(BenchStore);
  private readonly phrases = inject(PhrasesRepo);
  private readonly unkept = inject(UnkeptRepo);
  private readonly index = inject(ShelfIndex);
  private readonly backup = inject(BackupService);
  private readonly compare = inject(CompareStore);
  private readonly notices = inject(NoticesService);
  private readonly router = inject(Router);
  private turn: Promise<void> = Promise.resolve();
  /** Whether the player is asked how the phrase is to be kept, and for which of the two. */
  readonly asking = signal<Asking | null>(null);
  /** The name that is proposed for a new one. */
  readonly proposed = signal('');
  /** Whether what the phrase was before is shown. */
  readonly showsStates = signal(false);

  private readonly whose = computed(() => this.bench.phrase()?.id ?? null);
  private readonly left = toSignal(
    toObservable(this.whose).pipe(switchMap((id) => (id === null ? of([]) : this.unkept.of$(id)))),
    { initialValue: [] },
  );
  /** Unkept changes of the phrase on the Bench that lie beside it, the newest; null where there are none. */
  readonly beside = computed((): Unkept | null => {
    const [phrase, now] = [this.bench.phrase(), { recipe: this.bench.recipe(), tempo: this.bench.tempo() }];
    return this.left().find((u) => u.phrase === phrase?.id && !isSameWork(u, phrase) && !isSameWork(u, now)) ?? null;
  });

  constructor() {
    effect(() => {
      const refused = this.bench.refused();
      if (refused) this.notices.wrong(refused.words);
    });
    this.bench.noted$.pipe(takeUntilDestroyed()).subscribe((noted) => this.notices.tell(notedWords(noted)));
  }

  ask(): void {
    if (this.bench.recipe()) this.asking.set('keep');
  }

  /** Asks under which name it is kept as a new one; the next of the series is proposed. */
  async askNew(): Promise<void> {
    if (!this.bench.recipe()) return;
    this.proposed.set(await this.proposedName());
    this.asking.set('as new');
  }

  /** The player was asked and has answered. A second press on the way out of the dialog is the same act. */
  async answered(label: Label, asNew: boolean): Promise<void> {
    if (this.asking() !== null) await this.keepAs(label, asNew);
  }

  keepAs(label: Label, asNew = false): Promise<void> {
    this.asking.set(null);
    return this.inTurn(async () => this.after(await this.bench.keep(label, now(), asNew)));
  }

  /** Keeps it as the next of its series at once, without asking. */
  keepNext(): Promise<void> {
    return this.inTurn(async () => {
      if (!this.bench.recipe()) return;
      const label = this.bench.phrase() ?? this.bench.suggestedLabel();
      await this.after(await this.bench.keep({ ...label, name: await this.nextName() }, now(), true));
    });
  }

  /** One keeping after the other: the next one knows what the one before came to. */
  private inTurn(keep: () => Promise<void>): Promise<void> {
    this.turn = this.turn.catch(() => undefined).then(keep);
    return this.turn;
  }

  /**
   * To the practice room. What is not kept yet is kept first, under the name it has or the one that is suggested, as a
   * drill remembers how far one came with a phrase. `wanted` is what was said of it: a part, a tempo to begin at.
   */
  drill(wanted: RoomWish = {}): Promise<void> {
    return this.inTurn(() => this.toDrill(wanted));
  }

  private async toDrill(wanted: RoomWish): Promise<void> {
    if (!this.bench.recipe()) return;
    const old = this.bench.phrase();
    if (old && this.bench.isKept()) {
      await this.toRoom(old.id, wanted);
      return;
    }
    const kept = await this.bench.keep(old ?? this.bench.suggestedLabel(), now());
    if (kept.kind !== 'kept') return this.said(kept);
    const name = kept.phrase.name.slice(0, 80);
    if (!old) this.notices.tell(`“${name}” is on the shelf now. You can rename it on the Bench.`);
    else
      this.notices.tell(`“${name}” is kept as it is on the Bench.`, {
        label: 'Undo',
        run: () => void this.takeBack(kept),
      });
    await this.toRoom(kept.phrase.id, wanted);
  }

  private async toRoom(id: string, wanted: RoomWish): Promise<void> {
    await this.router.navigate(['/drill', id], Object.keys(wanted).length > 0 ? { queryParams: wanted } : {});
  }

  /** Opens a phrase of the shelf; when it is gone, that is said and what lay on the Bench stays. */
  async open(id: string, asKept = false): Promise<void> {
    await this.bench.started;
    await this.unkept.gather(id);
    if (!(await this.bench.open(id, asKept))) {
      this.notices.wrong('That phrase is no longer on the shelf. Your last work is still here.');
      await this.address(['/bench']);
      return;
    }
    if (asKept) await this.address(['/bench', id]);
  }

  async clear(): Promise<void> {
    await this.bench.clear();
    await this.address(['/bench']);
  }

  /** The address follows what lies on the Bench, unless the player is on the way to another place by then. */
  private async address(commands: readonly string[]): Promise<void> {
    const ahead = this.router.currentNavigation()?.extractedUrl.toString() ?? this.router.url;
    if (/^\/bench(?:$|[/?#])/.test(ahead)) await this.router.navigate(commands, { replaceUrl: true });
  }

  /** Unkept changes are laid beneath the phrase. */
  seeUnkept({ recipe, at }: Unkept): void {
    this.compare.choose({ id: null, name: `unkept changes of ${momentWords(at)}`, pattern: build(recipe).pattern });
    this.compare.show();
  }

  /** Goes on with unkept work; what lies on the Bench is one undo away, and waits itself where it is not kept. */
  async goOn(id: string): Promise<void> {
    await this.bench.started;
    const work = await this.unkept.take(id);
    if (work) await this.bench.goOn(work);
    else this.notices.wrong('That work is gone: another tab continued it or discarded it.');
    const whose = this.bench.phrase()?.id;
    await this.address(whose ? ['/bench', whose] : ['/bench']);
  }

  /** Unkept work is put aside by hand, with the way back. */
  async putAside(id: string): Promise<void> {
    const undo = await this.unkept.putAside(id);
    if (undo) this.notices.tell('The unkept changes are discarded.', { label: 'Undo', run: () => void undo() });
  }

  /** What was kept elsewhere is laid beneath the phrase. */
  seeTheirs(): void {
    const theirs = this.bench.elsewhere()?.theirs;
    if (theirs) this.see(theirs, `kept in another tab, ${format(theirs.changed, 'HH:mm')}`);
  }

  takeTheirs(): void {
    const theirs = this.bench.elsewhere()?.theirs;
    if (theirs) this.bench.takeOver(theirs);
  }

  openStates(): void {
    if (this.bench.phrase()) this.showsStates.set(true);
  }

  /** An earlier state is laid beneath the phrase. */
  seeState({ state, at }: KeptState): void {
    this.showsStates.set(false);
    this.see(state, `version of ${format(at, 'd MMM, HH:mm')}`);
  }

  /** Brings an earlier state back: on the shelf and on the Bench. What stood there is one of the states then. */
  async bringBack({ state, at }: KeptState): Promise<void> {
    this.showsStates.set(false);
    const { name, family, goal, note, recipe, tempo } = state;
    // Changes that were not kept wait beside it.
    const phrase = this.bench.phrase();
    await this.bench.goOn({ phrase: phrase?.id ?? null, recipe, tempo, base: phrase });
    const kept = await this.bench.keep({ name, family, goal, note }, now());
    if (kept.kind !== 'kept') return this.said(kept);
    this.notices.tell(`“${name.slice(0, 60)}” is back to the version of ${format(at, 'd MMM, HH:mm')}.`, {
      label: 'Undo',
      run: () => void this.takeBack(kept),
    });
  }

  private see(phrase: Phrase, name: string): void {
    this.compare.choose({ id: null, name, pattern: build(phrase.recipe).pattern });
    this.compare.show();
  }

  private async after(kept: Keeping): Promise<void> {
    if (kept.kind !== 'kept') return this.said(kept);
    const { phrase, undo } = kept;
    this.index.gave(phrase.name);
    void this.backup.persist();
    const grown = phrase.parent && phrase.created === phrase.changed;
    this.notices.tell(`“${phrase.name.slice(0, 80)}” is on the shelf${grown ? ' as a new phrase' : ''}.`, {
      label: 'Undo',
      run: () => void (undo ? this.takeBack(kept) : undefined),
    });
    // Keeping takes its time: whoever went on to other work meanwhile stays there.
    if (this.bench.phrase()?.id === phrase.id) await this.address(['/bench', phrase.id]);
  }

  private async takeBack(kept: Keeping & { kind: 'kept' }): Promise<void> {
    const stands = await this.bench.takeBack(kept);
    if (stands === undefined) this.notices.tell('It was kept or played again since, so it cannot be undone.');
    else if (stands) this.notices.tell('Undone on the shelf. What is on the Bench stays.');
    else this.notices.tell('Off the shelf again. What is on the Bench stays.');
  }

  private said(kept: Keeping): void {
    if (kept.kind === 'full') this.notices.wrong(kept.words);
    if (kept.kind === 'elsewhere')
      this.notices.wrong('Nothing was replaced: the shelf has a newer version. Choose above the ribbon which to use.');
  }

  private nextName(): Promise<string> {
    return this.index.next(this.bench.phrase()?.name ?? this.bench.suggestedName());
  }

  /** The name that is proposed for a new one: of another orchestration the next letter, else the next number. */
  private async proposedName(): Promise<string> {
    const [old, recipe] = [this.bench.phrase(), this.bench.recipe()];
    if (!old || !recipe || !isReorchestrated(old.recipe, recipe)) return this.nextName();
    const names = new Set((await this.index.names('all')).map((p) => p.name));
    return nextVersion(old.name, (name) => names.has(name)) ?? this.nextName();
  }
}
