import {
  computed,
  effect,
  inject,
  Injectable,
  Injector,
  linkedSignal,
  resource,
  signal,
  untracked,
} from '@angular/core';
import { edited, historyOf, redone, undone } from '@core/base';
import {
  barsOf,
  bent,
  bpmAt,
  correctionOf,
  evenLay,
  inMeter,
  layFromTaps,
  layMoment,
  layOf,
  layTick,
  moved,
  recounted,
  tempoBeat,
  unsureOf,
  USUAL_PIECES,
  type Clip,
  type Correction,
  type HeardKind,
  type HeardStroke,
  type HeardWork,
  type Lay,
  type BarsOfRecord,
} from '@core/listen';
import { familyOf, recipeOf, type Recipe } from '@core/recipe';
import type { Pattern } from '@core/pattern';
import { cellOf } from '@core/formats/song';
import { barTicks, beatTicks, keptTempo, meter, parseMeter, meterText, type Meter } from '@core/time';
import { now } from '../../environment/clock';
import { AbleService } from '../../knowledge/able.service';
import { KitsRepo } from '../../storage/kits.repo';
import { ListeningRepo, type ListeningKept } from '../../storage/listening.repo';
import { SettingsRepo } from '../../storage/settings.repo';
import { NoticesService } from '../../common/notices.service';
import type { RecordReading } from './listening.engine';
import { RecordStore } from './record.store';

/** The longest lick that is read, in seconds and bars. */
const MOST = { seconds: 90, bars: 32 } as const;
/** Marks are drawn to strokes that are so near, in seconds. */
const DRAWN = 0.12;
/** Taps further apart than this begin anew, in seconds. */
const TAP_GAP = 3;

const FRESH: HeardWork = {
  lick: null,
  meter: '4/4',
  marks: null,
  said: [],
  added: [],
  pieces: USUAL_PIECES,
  way: 0,
  school: null,
  from: '',
};

/** What is worked out from a recording, step by step, and how it is heard meanwhile. */
@Injectable({ providedIn: 'root' })
export class ListenStore {
  readonly record = inject(RecordStore);
  private readonly kept = inject(ListeningRepo);
  private readonly kits = inject(KitsRepo);
  private readonly able = inject(AbleService);
  private readonly settings = inject(SettingsRepo);
  private readonly notices = inject(NoticesService);
  private readonly history = signal(historyOf<HeardWork>(FRESH));
  readonly work = computed(() => this.history().now);
  readonly canUndo = computed(() => this.history().past.length > 0);
  readonly canRedo = computed(() => this.history().future.length > 0);
  /** The beat that is looked at, counted from the first of the stretch; and the stroke in it. */
  readonly beat = signal(0);
  readonly chosen = signal<number | null>(null);
  /** What was pressed while it played: taps of the beat, and where the lick begins. */
  readonly taps = signal<readonly number[]>([]);
  /** Which of the proposed beats is looked at. */
  readonly proposed = signal(0);
  /** Whether the recording is kept over a reload, or why not; null until that is known. */
  readonly keeping = signal<ListeningKept | null>(null);
  readonly safe = computed(() => this.keeping() === 'kept');

  /** Whether the lick has a beginning and its end is still listened for: the record goes on meanwhile. */
  readonly endless = signal(false);

  // What was said of a stroke moves no grid: each of these changes only when it does itself.
  private readonly meterWords = computed(() => this.work().meter);
  private readonly marks = computed(() => this.work().marks);
  readonly lick = computed(() => this.work().lick);
  private readonly said = computed(() => this.work().said);
  private readonly added = computed(() => this.work().added);
  private readonly pieces = computed(() => this.work().pieces);
  private readonly way = computed(() => this.work().way);
  readonly meter = computed((): Meter => parseMeter(this.meterWords()) ?? meter(4, 4));
  readonly lay = computed((): Lay | null => {
    const marks = this.marks();
    if (marks) return { meter: this.meter(), marks };
    const choice = this.record.analysis()?.beats[this.proposed()];
    return choice ? layOf(choice, this.meter()) : null;
  });
  /** The bars of the lick, from line to line. */
  readonly stretch = computed((): BarsOfRecord | null => {
    const [lay, lick] = [this.lay(), this.lick()];
    if (!lay || !lick || lick.to - lick.from > MOST.seconds) return null;
    const { first, many } = barsOf(lay, lick.from, lick.to);
    return { lay, first, many: Math.min(many, MOST.bars) };
  });
  /** The lick in seconds, as it goes round. */
  readonly span = computed(() => {
    const s = this.stretch();
    if (!s) return this.lick();
    const bar = barTicks(s.lay.meter);
    return { from: layMoment(s.lay, s.first * bar), to: layMoment(s.lay, (s.first + s.many) * bar) };
  });
  readonly bpm = computed(() => {
    const s = this.stretch();
    const span = this.span();
    if (!s || !span) {
      const lay = this.lay();
      return lay ? bpmAt(lay, 0) : null;
    }
    return (60 * s.many * barTicks(s.lay.meter)) / tempoBeat(s.lay.meter) / (span.to - span.from);
  });
  private readonly injector = inject(Injector);
  private readonly asked = resource({
    params: () => {
      const [stretch, bpm, ready] = [this.stretch(), this.bpm(), this.record.analysis()];
      if (!stretch || !bpm || !ready) return undefined;
      return { stretch, bpm, said: this.said(), added: this.added(), pieces: this.pieces(), way: this.way() };
    },
    loader: async ({ params }) => {
      const schools = this.settings.schools();
      const own = { kit: this.kits.current(), profile: this.able.now(), schools };
      return (await this.record.api?.read(params, own)) ?? null;
    },
  });
  /** What was read. While the next is being read the one before stands: nothing flickers, and no key is lost. */
  readonly reading = linkedSignal<
    { readonly found: RecordReading | null | undefined; readonly isThere: boolean },
    RecordReading | null
  >({
    source: () => ({
      found: this.asked.hasValue() ? this.asked.value() : undefined,
      isThere: this.stretch() !== null && this.record.analysis() !== null,
    }),
    computation: ({ found, isThere }, before) =>
      isThere ? (found === undefined ? (before?.value ?? null) : found) : null,
  });
  readonly busy = this.asked.isLoading;
  /** What is meant now could not be read: what stands there is of before. */
  readonly failed = computed(() => this.asked.status() === 'error');
  readonly strokes = computed((): readonly HeardStroke[] => this.reading()?.strokes ?? []);
  readonly unsure = computed(() => unsureOf(this.strokes()));
  /** The way to stick it that was chosen, else the one that fits. */
  readonly pattern = computed((): Pattern | null => {
    const r = this.reading();
    if (!r?.pattern) return null;
    return r.hands.find((h) => h.school === this.work().school)?.pattern ?? r.pattern;
  });
  readonly beatTicks = computed(() => beatTicks(this.meter()));
  readonly beats = computed(() => {
    const s = this.stretch();
    return s ? Math.max(1, Math.round((s.many * barTicks(s.lay.meter)) / this.beatTicks())) : 0;
  });
  readonly inBeat = computed(() => {
    const [from, to] = [this.beat() * this.beatTicks(), (this.beat() + 1) * this.beatTicks()];
    return this.strokes().filter((s) => s.at >= from && s.at < to);
  });
  readonly stroke = computed(() => {
    const at = this.chosen();
    return this.strokes().find((s) => Math.abs(s.seconds - (at ?? -9)) < 0.004) ?? this.inBeat()[0] ?? null;
  });

  constructor() {
    effect(() => {
      const work = this.work();
      if (untracked(this.safe)) void this.kept.keep(work);
    });
  }

  /** Another recording. The one before, with what was worked out from it, is one press away. */
  async open(file: Blob, name: string, work: HeardWork = FRESH): Promise<void> {
    const before = this.record.name();
    if (!(await this.record.open(file, name))) return;
    // Until the new one is kept, nothing of it may be written over the old one.
    this.keeping.set(null);
    this.begin(work);
    this.keeping.set(await this.kept.begin(name, file, work));
    if (before !== '')
      this.notices.tell(`“${before.slice(0, 60)}” is closed.`, { label: 'Undo', run: () => void this.back() });
  }

  /** The recording that was listened to before, as it was left. */
  private async back(): Promise<void> {
    const before = await this.kept.before();
    if (before) await this.open(before.sound, before.name, before.work);
  }

  private begin(work: HeardWork): void {
    this.history.set(historyOf(work));
    this.beat.set(0);
    this.chosen.set(null);
    this.taps.set([]);
    this.proposed.set(0);
  }

  /** What was left in this browser, taken up again. */
  async resume(): Promise<void> {
    if (this.record.buffer() || this.record.doing().kind !== 'nothing') return;
    const left = await this.kept.get();
    if (!left || this.record.buffer() || !(await this.record.open(left.sound, left.name))) return;
    this.begin(left.work);
    this.keeping.set('kept');
  }

  undo(): void {
    this.history.update(undone);
  }

  redo(): void {
    this.history.update(redone);
  }

  private change(part: Partial<HeardWork>, about: string | null = null): void {
    this.history.update((h) => edited(h, { ...h.now, ...part }, about));
  }

  /** Where the ear is: what is heard, else the beginning of the lick. */
  place(): number {
    return this.record.player.position() ?? this.lick()?.from ?? 0;
  }

  /** A mark by ear, drawn to the stroke beside it. */
  mark(end: 'from' | 'to', at = this.place()): void {
    const near = this.record.analysis()?.onsets.filter((o) => Math.abs(o.at - at) < DRAWN) ?? [];
    const drawn = near.reduce(
      (best, o) => (Math.abs(o.at - at) < Math.abs(best - at) ? o.at : best),
      near[0]?.at ?? at,
    );
    const lick = this.work().lick;
    const long = this.record.buffer()?.duration ?? 0;
    if (end === 'from') {
      const ends = lick && lick.to > drawn + 0.2 ? lick.to : null;
      const to = ends ?? Math.min(long, drawn + this.usualLength());
      this.endless.set(ends === null);
      this.change({ lick: { from: drawn, to } }, null);
    } else {
      this.endless.set(false);
      this.change({
        lick: {
          from: lick && lick.from < drawn - 0.2 ? lick.from : Math.max(0, drawn - this.usualLength()),
          to: drawn,
        },
      });
    }
    this.beat.set(0);
    this.chosen.set(null);
  }

  private usualLength(): number {
    const lay = this.lay();
    return lay ? layMoment(lay, barTicks(lay.meter)) - layMoment(lay, 0) : 4;
  }

  markAll(from: number, to: number): void {
    this.endless.set(false);
    this.change({ lick: { from: Math.min(from, to), to: Math.max(from, to) } }, 'lick');
    this.beat.set(0);
  }

  setLay(lay: Lay | null): void {
    if (lay) this.change({ marks: lay.marks.slice(0, 4000), meter: meterText(lay.meter) });
  }

  setMeter(text: string): void {
    const [next, lay] = [parseMeter(text), this.lay()];
    if (!next) return;
    if (lay) this.setLay(inMeter(lay, next));
    else this.change({ meter: text });
  }

  setTempo(bpm: number): void {
    const lay = this.lay();
    this.setLay(evenLay(bpm, lay ? layMoment(lay, 0) : this.place(), this.meter()));
  }

  times(by: number): void {
    const lay = this.lay();
    if (lay) this.setLay(recounted(lay, by));
  }

  /** The first 1 is here: the grid is moved so that the nearest beat lies on the stroke beside it. */
  oneIsHere(at = this.place()): void {
    const lay = this.lay();
    if (!lay) return this.setLay(evenLay(100, at, this.meter()));
    const beat = tempoBeat(lay.meter);
    const tick = Math.round(layTick(lay, at) / beat) * beat;
    const near = this.record.analysis()?.onsets.find((o) => Math.abs(o.at - at) < DRAWN)?.at ?? at;
    this.setLay(moved(lay, near - layMoment(lay, tick), tick));
  }

  bend(bar: number, at: number): void {
    const lay = this.lay();
    if (lay) this.setLay(bent(lay, bar * barTicks(lay.meter), at));
  }

  useBeats(index: number): void {
    this.proposed.set(index);
    if (this.work().marks) this.change({ marks: null });
  }

  tap(): void {
    const at = this.record.player.position();
    if (at === null) return;
    const before = this.taps();
    const last = before.at(-1);
    const all = last !== undefined && at > last && at - last < TAP_GAP ? [...before, at] : [at];
    this.taps.set(all);
    if (all.length >= 4) this.setLay(layFromTaps(all, this.record.analysis()?.onsets ?? [], this.meter()));
  }

  setWay(way: number): void {
    this.change({ way });
  }

  setSchool(school: string): void {
    this.change({ school });
  }

  setPiece(kind: HeardKind, voice: HeardWork['pieces'][HeardKind]): void {
    this.change({ pieces: { ...this.work().pieces, [kind]: voice } });
  }

  setFrom(from: string): void {
    this.change({ from: from.slice(0, 200) }, 'from');
  }

  /** Says something of a stroke: of the chosen one, or at a moment. */
  say(part: Omit<Correction, 'at'>, stroke: HeardStroke | null = this.stroke()): void {
    if (!stroke) return;
    const said = this.work().said;
    const was = correctionOf(said, stroke.seconds);
    const next: Correction = { ...was, ...part, at: stroke.seconds };
    this.change({ said: [...said.filter((c) => c !== was), next].slice(-5000) });
    this.chosen.set(part.gone ? null : stroke.seconds);
  }

  /** The stroke belongs to the slot before, or to the next. */
  nudge(by: 1 | -1): void {
    const [s, choice] = [this.stroke(), this.reading()];
    const grid = choice?.ways[choice.way]?.grid;
    if (s && grid) this.say({ slot: Math.max(0, s.at + by * grid) }, s);
  }

  /** A kind that sounds in the stroke too, or no longer. */
  toggle(kind: HeardKind): void {
    const s = this.stroke();
    if (!s) return;
    const kinds = s.kinds.includes(kind) ? s.kinds.filter((k) => k !== kind) : [...s.kinds, kind];
    if (kinds.length > 0) this.say({ kinds });
  }

  /** A stroke that was not heard, at a moment. */
  async put(at: number): Promise<void> {
    const drawn = (await this.record.api?.attack(at)) ?? at;
    const { added, said } = this.work();
    const back = correctionOf(said, drawn);
    this.change({ added: [...added, drawn], said: back?.gone ? said.filter((c) => c !== back) : said });
    this.chosen.set(drawn);
  }

  goTo(beat: number): void {
    const last = this.beats() - 1;
    this.beat.set(Math.max(0, Math.min(last, beat)));
    this.chosen.set(null);
  }

  /** The next stroke in time, through the beats. */
  step(by: 1 | -1): void {
    const all = this.strokes();
    const here = this.stroke();
    const next = all[(here ? all.indexOf(here) : -1) + by];
    if (next) this.choose(next);
  }

  choose(s: HeardStroke): void {
    this.beat.set(Math.floor(s.at / this.beatTicks()));
    this.chosen.set(s.seconds);
  }

  nextUnsure(): void {
    const here = this.stroke()?.at ?? -1;
    const all = this.unsure();
    const next = all.find((s) => s.at > here) ?? all[0];
    if (next) this.choose(next);
  }

  /** The bars of the record for the phrase that was heard in them; null where they are too long to be kept. */
  async clip(id: string): Promise<Clip | null> {
    const stretch = this.stretch();
    const part = stretch && (await this.record.api?.clip(stretch));
    return part ? { ...part, id, at: now(), from: (this.work().from || this.record.name()).slice(0, 200) } : null;
  }

  /** Resolves when nothing is being read: what was read last may be of other bars than those that are meant now. */
  private still(): Promise<void> {
    return new Promise((resolve) => {
      const watch = effect(
        () => {
          if (this.busy()) return;
          resolve();
          watch.destroy();
        },
        { injector: this.injector },
      );
    });
  }

  /**
   * What was heard as a phrase, once all of it is read; only its cell where that is asked for. Null where there is
   * nothing, or it could not be read.
   */
  async phrase(
    onlyCell: boolean,
  ): Promise<{ recipe: Recipe; tempo: number; goal: number; family: ReturnType<typeof familyOf> } | null> {
    await this.still();
    if (this.failed()) return null;
    const [pattern, bpm, reading] = [this.pattern(), this.bpm(), this.reading()];
    if (!pattern || !bpm) return null;
    const cell = onlyCell && reading?.round ? cellOf(pattern, reading.round.length) : pattern;
    const recipe = recipeOf(cell);
    if (recipe?.source.kind !== 'typed') return null;
    const unsure = this.unsure().length;
    const source = {
      ...recipe.source,
      kind: 'heard' as const,
      from: (this.work().from || this.record.name()).slice(0, 200),
      ...(unsure > 0 ? { unsure } : {}),
    };
    const tempo = keptTempo(bpm);
    return { recipe: { ...recipe, source }, tempo, goal: tempo, family: familyOf(cell) };
  }
}
