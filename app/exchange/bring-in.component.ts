import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  OnDestroy,
  output,
  resource,
  signal,
  untracked,
} from '@angular/core';
import { Router } from '@angular/router';
import { Dialog } from 'primeng/dialog';
import { count } from '@core/base';
import type { SharedPhrase } from '@core/formats/shared';
import { rendition, requestOf } from '@core/rendition';
import { build, familyOf } from '@core/recipe';
import { keptTempo, TEMPO } from '@core/time';
import { VOICE, VOICES, type Voice } from '@core/stroke';
import { KitsRepo } from '../storage/kits.repo';
import { MidiMapRepo } from '../storage/midi-map.repo';
import { SettingsRepo } from '../storage/settings.repo';
import { ShelfFiles } from '../storage/files/shelf-files.service';
import { UNFETCHED } from '../environment/workers';
import { Player } from '../playing/player';
import { DialogFocusDirective } from '../widgets/dialog-focus.directive';
import { NumberFieldComponent } from '../widgets/number-field.component';
import { RibbonComponent } from '../drawings/ribbon/ribbon.component';
import { SelectComponent } from '../widgets/select.component';
import type { OfferedBar, Opened, Taking } from './exchange.engine';
import { ExchangeService } from './exchange.service';
import { KeepShared } from './keep-shared';
import { LessonInbox } from './lesson-inbox';

const OWNER = 'bring-in';
/** Percussion’s MIDI channel, as people count it. */
const DRUMS = 10;
const MAPPED = VOICES.map((v) => ({ value: v, words: VOICE[v].name }));

/** Bars that are taken together: from which of the offered ones on, how many, and laid by which way. */
interface Choice {
  readonly bar: OfferedBar;
  readonly many: number;
  readonly way: number;
}

/** Files, links and texts that came from elsewhere: looked at and heard before anything is kept. */
@Component({
  selector: 'ls-bring-in',
  imports: [Dialog, DialogFocusDirective, NumberFieldComponent, RibbonComponent, SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './bring-in.component.html',
  styleUrl: './bring-in.component.css',
})
export class BringInComponent implements OnDestroy {
  /** A file that was dropped or shared; null to be asked for one. */
  readonly file = input<File | null>(null);
  readonly closed = output();
  private readonly exchange = inject(ExchangeService);
  private readonly shelf = inject(KeepShared);
  private readonly kits = inject(KitsRepo);
  private readonly router = inject(Router);
  private readonly player = inject(Player);
  private readonly shelfFiles = inject(ShelfFiles);
  private readonly lessons = inject(LessonInbox);
  readonly map = inject(MidiMapRepo);
  readonly settings = inject(SettingsRepo);
  readonly voices = MAPPED;
  readonly owner = this.player.owner;
  readonly mine = computed(() => this.owner() === OWNER);
  readonly reading = signal(false);
  readonly opened = signal<Opened | null>(null);
  readonly over = signal(false);
  private readonly fileNow = signal<File | null>(null);
  readonly song = computed(() => {
    const o = this.opened();
    return o?.kind === 'song' ? o : null;
  });
  /** A phrase of ours that came as it was. */
  readonly phrase = computed((): SharedPhrase | null => {
    const o = this.opened();
    return o?.kind === 'phrase' ? o.phrase : null;
  });
  readonly phrasePattern = computed(() => {
    const p = this.phrase() ?? this.song()?.own ?? null;
    return p ? build(p.recipe).pattern : null;
  });
  readonly keysWords = computed(() => {
    const keys = this.song()?.keys ?? [];
    const loose = keys.filter((k) => k.voice === null).length;
    return `${count(keys.length, 'key')}${loose > 0 ? `, ${loose} without a piece yet` : ''}: which drum is which`;
  });
  readonly refused = computed(() => {
    const o = this.opened();
    return o?.kind === 'refused' ? o.words : o?.kind === 'unfetched' ? UNFETCHED : null;
  });
  readonly choice = signal<Choice | null>(null);
  private readonly asked = resource({
    params: () => this.choice() ?? undefined,
    loader: async ({ params }) => this.exchange.take(params.bar.index, params.many, params.way),
  });
  /** What would be taken; the one before stands until the next is there. */
  readonly taking = linkedSignal<Taking | null | undefined, Taking | null>({
    source: () => (this.asked.hasValue() ? this.asked.value() : undefined),
    computation: (found, before) => (found === undefined ? (this.choice() ? (before?.value ?? null) : null) : found),
  });
  /** What was chosen is still being laid: what stands there is what was chosen before, and is not kept. */
  readonly laying = this.asked.isLoading;
  readonly name = linkedSignal<Choice | null, string>({
    source: this.choice,
    computation: (c, before) => {
      if (before && before.source?.bar === c?.bar && before.source?.many === c?.many) return before.value;
      const of = this.song()?.name.trim() || this.fileNow()?.name.replace(/\.[^.]*$/, '') || 'a file';
      const bars = c && c.many > 1 ? `bars ${c.bar.number}–${c.bar.number + c.many - 1}` : `bar ${c?.bar.number ?? 1}`;
      return `${of.slice(0, 80)}, ${bars}`;
    },
  });

  constructor() {
    effect(() => {
      const file = this.file();
      if (file) untracked(() => void this.read(file));
    });
  }

  ngOnDestroy(): void {
    this.player.stop(OWNER);
    this.exchange.close();
  }

  pick(files: FileList | null): void {
    const file = files?.[0];
    if (file) void this.read(file);
  }

  drop(event: DragEvent): void {
    event.preventDefault();
    event.stopPropagation();
    this.over.set(false);
    this.pick(event.dataTransfer?.files ?? null);
  }

  dragged(event: DragEvent): void {
    event.preventDefault();
    this.over.set(true);
  }

  async read(file: File): Promise<void> {
    this.fileNow.set(file);
    await this.show(() => this.exchange.open(file));
  }

  async readText(text: string): Promise<void> {
    if (text.trim() === '') return;
    this.fileNow.set(null);
    await this.show(() => (/^\s*</.test(text) ? this.exchange.open(new Blob([text])) : this.exchange.text(text)));
  }

  /** A key of the file is this voice from now on, here and for the MIDI device. */
  async teach(key: number, voice: Voice): Promise<void> {
    await this.map.teach(key, voice);
    await this.show(() => this.exchange.again());
  }

  /** Whether a channel is the one that is read: the one that was chosen, else percussion’s. */
  reads(channel: number): boolean {
    const song = this.song();
    return song !== null && (song.channel ?? (song.channels.includes(DRUMS) ? DRUMS : null)) === channel;
  }

  async ofChannel(channel: number): Promise<void> {
    await this.show(() => this.exchange.again(channel - 1));
  }

  private async show(how: () => Promise<Opened>): Promise<void> {
    this.reading.set(true);
    this.player.stop(OWNER);
    const found = await how();
    this.reading.set(false);
    const file = this.fileNow();
    if (found.kind === 'shelf' && file) {
      this.shelfFiles.hand(file);
      this.closed.emit();
      void this.router.navigate(['/kit'], { queryParams: { part: 'data' } });
      return;
    }
    if (found.kind === 'lesson' || found.kind === 'report') {
      this.lessons.hand(found);
      this.closed.emit();
      void this.router.navigate(['/lessons']);
      return;
    }
    this.opened.set(found);
    const first = found.kind === 'song' ? (found.bars[0] ?? null) : null;
    this.choice.set(first && { bar: first, many: 1, way: 0 });
  }

  other(): void {
    this.player.stop(OWNER);
    this.opened.set(null);
    this.choice.set(null);
  }

  choose(bar: OfferedBar): void {
    this.choice.update((c) => (c?.bar === bar ? c : { bar, many: 1, way: 0 }));
  }

  setMany(many: number): void {
    this.choice.update((c) => c && { ...c, many: Math.max(1, Math.min(c.bar.room, many)), way: 0 });
  }

  setWay(way: number): void {
    this.choice.update((c) => c && { ...c, way });
  }

  /** Hears what would be taken, round and round, at the tempo of the file. */
  hear(): void {
    const pattern = this.taking()?.pattern;
    if (pattern) this.sound(pattern, this.tempo());
  }

  hearPhrase(phrase: SharedPhrase): void {
    const pattern = this.phrasePattern();
    if (pattern) this.sound(pattern, phrase.tempo);
  }

  private sound(pattern: Taking['pattern'], bpm: number): void {
    this.player.toggle(OWNER, requestOf(rendition({ phrase: pattern, kit: this.kits.current() }), bpm));
  }

  /** The tempo of the file as it is counted here. */
  private tempo(): number {
    const pattern = this.taking()?.pattern;
    const quarters = this.song()?.bpm ?? TEMPO.usual;
    const one = pattern ? requestOf(rendition({ phrase: pattern }), 60).bpm / 60 : 1;
    return keptTempo(quarters / one);
  }

  /** What would be taken, as a phrase to be kept. */
  private shared(): SharedPhrase | null {
    const taking = this.taking();
    if (!taking || this.laying()) return null;
    const tempo = this.tempo();
    const note = [...taking.hands, ...taking.left].join(' ').slice(0, 2000);
    const name = this.name().trim() || 'From a file';
    return { name, family: familyOf(taking.pattern), recipe: taking.recipe, tempo, goal: tempo, note };
  }

  async keep(open: boolean, phrase: SharedPhrase | null = this.shared()): Promise<void> {
    if (!phrase) return;
    const id = await this.shelf.keep(phrase);
    if (!open || id === null) return;
    this.closed.emit();
    void this.router.navigate(['/bench', id], { queryParams: { kept: 1 } });
  }
}
