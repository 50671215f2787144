import { stableJson } from '@core/base';
import { NO_BEST } from '@core/drill';
import type { Demands, Known } from '@core/compose';
import type { Kit } from '@core/kit';
import { demandsOf, firstsOf, type First, type Scene, type Step, type Wanted } from '@core/map';
import type { Pattern } from '@core/pattern';
import type { Lesson, Profile } from '@core/reach';
import { build, type Phrase } from '@core/recipe';
import { factsOf, nextName, type FreeSitting, type Trait, type Traits } from '@core/shelf';
import { wantsOf, type Goal, type Want } from '@core/show';
import { USUAL_SCHOOLS, type Meter } from '@core/time';
import type { Played } from '@core/usage';
import { asideIn } from '../../storage/aside';
import { followChanges } from '../../storage/changes';
import type { TodayAsked, TodayPlan } from '@core/plan';
import type { Belief } from '@core/player';
import { now, today } from '../../environment/clock';
import { DEMO_DATABASE } from '../../environment/database-names';
import { isOlder, ShelfDb } from '../../storage/db';
import { isFilled, untilFilled } from '../../storage/demo-filled';
import type { Keeper } from '../../storage/gate';
import { ALL_TRIES, triesOf } from '../../storage/tries';
import { answered } from './answering';
import { Drawings } from './drawings';
import { entryFrom, withTop, type Entry } from './entries';
import { EntryTable } from './entry-table';
import type {
  Believed,
  KinAnswer,
  LookBack,
  MapAnswer,
  NamedPhrase,
  PhraseLog,
  ShelfAnswer,
  ShelfQuestion,
  ShelfRow,
} from './entry';
import { rangesOf, type KeyRanges } from './key-ranges';
import { kinLines, sameTurned } from './kin-answer';
import { ceilingFor, isKnown, isWorkedOut, learnt, lessonsFrom, playerContext, type PlayerContext } from './learning';
import { Latch } from './latch';
import { beside, mapAnswer, nextFor, stepsFor } from './mapping';
import { readPacks, writePacks, type Kept } from './packs';
import { Practice } from './practice';
import { aimed, showAnswer, type ShowAnswer, type ShowAsked } from './showing';
import { factsWords } from './row-words';
import { slices } from './slices';
import { Using, type NamedCallable, type SittingAsked, type SittingRead, type UsageAnswer } from './using';

/** Changes are told together after so long, in milliseconds. */
const TELL_AFTER = 60;
/** So long the first question is waited for, in milliseconds, before what it does not need is read. */
const ANSWER_MS = 400;
/**
 * So long the page, which is being made, has the machine to itself before facts are worked out, in milliseconds, unless
 * it asks for what rests on them.
 */
const PEACE_MS = 2000;
/** So many phrases are given to hold others against. */
const MOST_ALIKE = 400;
/** The index is written after it was still for so long. */
const PACK_AFTER = 1500;

/** What is told as it changes. */
export type Tell = (what: 'changed' | 'read' | 'aside' | 'blocked') => void;

const { compare } = new Intl.Collator();

/**
 * Everything that is known of a whole shelf, kept off the page: the page asks, and shows some rows. Facts are worked
 * out once, kept, and worked out again where a phrase, the kit or the player changed.
 */
export class IndexEngine {
  private readonly db: ShelfDb;
  private readonly keeper: Keeper = { rules: null };
  private rules: Promise<void> | null = null;
  private readonly table = new EntryTable();
  private player: PlayerContext | null = null;
  private readonly drawings = new Drawings(() => this.player?.kit ?? null);
  private readonly practice = new Practice();
  private readonly using = new Using((ids) => this.patternsOf(ids));
  /** What was played freely, as it is kept; null until it was read. */
  private sittings: Promise<readonly FreeSitting[]> | null = null;
  private telling: ReturnType<typeof setTimeout> | null = null;
  private packing: ReturnType<typeof setTimeout> | null = null;
  private working = false;
  /** What shows want of phrases. */
  private wants: ReadonlyMap<string, readonly Want[]> = new Map();
  /** Whether what was kept was held against what is there. */
  private verified = false;
  /** The practice day of what is believed. */
  private believedOn: number | null = null;
  private ended = false;
  /** Reads what was played, as it was kept. */
  private rest: Kept['played'] | null = null;
  /** What was played is read, as far as it was kept. */
  private readonly restRead = new Latch();
  /** What was kept was held against what is there once, or will not be any more. */
  private readonly looked = new Latch();
  /** The first question was answered, or one was asked that rests on all that is worked out. */
  private readonly answered = new Latch();
  /** Everything was worked out once. */
  private readonly worked = new Latch();
  /** Nobody waits for what is worked out, or somebody does: it is begun. */
  private readonly peace: Promise<void>;
  private readonly ready: Promise<void>;
  private readonly unheard: () => void;

  constructor(
    private readonly name: string,
    private readonly tell: Tell,
    peace = PEACE_MS,
  ) {
    this.db = new ShelfDb(
      name,
      this.keeper,
      asideIn(
        () => this.db,
        () => this.tell('aside'),
      ),
    );
    this.db.on('blocked', () => this.tell('blocked'));
    this.unheard = followChanges((parts) => this.unlessEnded(this.changed(parts)));
    this.peace = this.answered.within(peace);
    this.ready = this.load();
  }

  /** For whom and on which kit ceilings are worked out. */
  about(kit: Kit, profile: Profile): void {
    this.player = playerContext(kit, profile);
    this.drawings.clear();
    this.using.clear();
    this.soon();
    this.unlessEnded(this.ready.then(() => this.work()));
  }

  async ask(question: ShelfQuestion): Promise<ShelfAnswer> {
    await this.ready;
    // On another day other tempos are ready.
    if (this.verified && this.believedOn !== today()) this.unlessEnded(this.believe());
    // What was asked goes out before what was played is read.
    setTimeout(this.answered.open, 0);
    const { found, ...told } = answered(this.table.all, this.table.places, question, now(), today());
    return {
      ...told,
      order: Uint32Array.from(found),
      first: this.rowsAt(found.slice(0, question.first)),
      all: this.table.all.length,
      unread: this.table.all.reduce((n, e) => n + (e.facts === null ? 1 : 0), 0),
    };
  }

  /** The rows at some places. */
  async rows(places: readonly number[]): Promise<readonly ShelfRow[]> {
    await this.ready;
    return this.rowsAt(places);
  }

  /** The patterns of some phrases as they sound on the kit, by their ids. */
  async patternsOf(
    ids: readonly string[],
  ): Promise<readonly { readonly id: string; readonly key: string; readonly pattern: Pattern }[]> {
    await this.ready;
    const wanted = ids.flatMap((id) => this.table.of(id) ?? []);
    const missing = wanted.filter((e) => !this.drawings.of(e.id));
    if (missing.length > 0) {
      await this.ruled();
      const phrases = await this.db.phrases.bulkGet(missing.map((e) => e.id));
      for (const p of phrases) if (p) this.drawings.draw(p);
    }
    return wanted.flatMap((e) => {
      const pattern = this.drawings.of(e.id);
      return pattern ? [{ id: e.id, key: this.drawnBy(e), pattern }] : [];
    });
  }

  /** Phrases that are so long on a grid, a landing behind them aside, with what is played; up to a number of them. */
  async alike(grid: number, from: number, until: number): Promise<readonly Known[]> {
    await this.ready;
    const own = this.table.all.filter(
      ({ facts }) => !facts || (facts.grid === grid && facts.length >= from && facts.length <= until),
    );
    const drawn = await this.patternsOf(own.slice(0, MOST_ALIKE).map((e) => e.id));
    return drawn.flatMap(({ id, pattern }) => ((e) => (e ? [{ name: e.name, pattern }] : []))(this.table.of(id)));
  }

  /** Every phrase by its name; of those drilled only, the one drilled last first. */
  async names(which: 'all' | 'drilled'): Promise<readonly NamedPhrase[]> {
    await this.ready;
    setTimeout(this.answered.open, 0);
    const drilled = (): readonly Entry[] => this.table.all.filter((e) => e.best.attempts + (e.best.apart ?? 0) > 0);
    // That nothing was drilled is said when it was looked at, not from what was known before.
    if (which === 'drilled' && drilled().length === 0) await this.looked.opened;
    const own = which === 'all' ? this.table.all : drilled();
    const by =
      which === 'all'
        ? (a: Entry, b: Entry): number => compare(a.name, b.name)
        : (a: Entry, b: Entry): number => (b.best.lastAt ?? 0) - (a.best.lastAt ?? 0);
    return [...own].sort(by).map(({ id, name, family }) => ({ id, name: name.slice(0, 200), family }));
  }

  /** The next name of a series that is free. */
  async next(name: string, given: readonly string[] = []): Promise<string> {
    await this.ready;
    const taken = new Set([...given, ...this.table.all.map((e) => e.name.trim())]);
    return nextName(name, (n) => taken.has(n));
  }

  /** The phrases that bear a name to the letter. */
  async called(name: string): Promise<readonly string[]> {
    await this.ready;
    return this.table.all.filter((e) => e.name.trim() === name.trim()).map((e) => e.id);
  }

  /** What a phrase was grown from, what was grown from it, and which are the same turned. */
  async kin(id: string): Promise<KinAnswer> {
    await this.ready;
    const form = this.table.of(id)?.facts?.form;
    const twins = this.table.all
      .filter((e) => e.id !== id && form !== undefined && e.facts?.form === form)
      .slice(0, 20);
    const drawn = new Map((await this.patternsOf([id, ...twins.map((t) => t.id)])).map((d) => [d.id, d.pattern]));
    return { tree: kinLines(this.table.all, id), same: sameTurned(id, twins, drawn) };
  }

  /** What clean tries of the shelf's phrases showed of the player's limbs, beyond their tests. */
  async lessons(): Promise<readonly Lesson[]> {
    await this.ready;
    return this.player?.lessons ?? [];
  }

  /** The day as it is best practised, once what it rests on is known. */
  async plan(asked: Omit<TodayAsked, 'strokes'>): Promise<TodayPlan> {
    this.answered.open();
    await this.worked.opened;
    return this.practice.plan(this.table.all, asked, this.using.comes(await this.readSittings(), asked.day));
  }

  /** What is believed of a phrase today; null before any try. */
  async believed(id: string): Promise<Believed | null> {
    await this.ready;
    return this.table.of(id)?.believed ?? null;
  }

  /** What the Log draws of a phrase. */
  async phraseLog(id: string): Promise<PhraseLog> {
    this.answered.open();
    await this.worked.opened;
    const entry = this.table.of(id);
    return entry
      ? this.practice.phraseLog(this.table.all, entry, today())
      : { days: [], projection: null, ready: null, ceiling: null };
  }

  /** What the Log draws of all that was practised. */
  async lookBack(): Promise<LookBack> {
    this.answered.open();
    await this.worked.opened;
    return this.practice.lookBack(this.table.all, today());
  }

  /** The player's own share of their ceilings, as all phrases but one give it. */
  async shareFor(id: string): Promise<Belief> {
    await this.ready;
    return this.practice.shareFor(this.table.all, id);
  }

  /** The map of the shelf by two traits; of a day that is past as it was then. */
  async map(row: Trait, column: Trait, day: number | null = null): Promise<MapAnswer> {
    this.answered.open();
    await this.worked.opened;
    const bestBy = (id: string, until: number): number | null => this.practice.bestBy(id, until);
    return mapAnswer(this.table.all, row, column, day === null ? null : { day, bestBy });
  }

  /** What is asked of a composed phrase for a square; null where that cannot be asked for. */
  async demandsFor(wanted: Wanted): Promise<Partial<Demands> | null> {
    await this.ready;
    return demandsOf(wanted);
  }

  /** What a phrase would be the first of on the shelf. */
  async firsts(traits: Traits): Promise<readonly First[]> {
    await this.ready;
    const others = this.table.all.flatMap((e) => (e.facts ? [e.facts.traits] : []));
    return firstsOf(traits, others);
  }

  /** What leads to an empty square of the map. */
  async stepsTo(wanted: Wanted): Promise<readonly Step[]> {
    await this.worked.opened;
    const from = beside(wanted, this.table.all);
    const scene = this.mapScene();
    return scene ? stepsFor(wanted, from, await this.recipesOf(from.map((e) => e.id)), scene) : [];
  }

  /** The best that leads to empty squares of a map. */
  async nextToLearn(row: Trait, column: Trait): Promise<readonly Step[]> {
    const map = await this.map(row, column);
    const scene = this.mapScene();
    return scene ? nextFor(map, this.table.all, (ids) => this.recipesOf(ids), scene) : [];
  }

  /** What stands in the spots of a show, how it is filled best, and how ready it is. */
  async show(asked: Omit<ShowAsked, 'today'>): Promise<ShowAnswer> {
    this.answered.open();
    await this.worked.opened;
    const nightOf = (e: Entry) => this.practice.nightOf(this.table.all, e);
    const patterns = (ids: readonly string[]) => this.patternsOf(ids);
    return showAnswer({ ...asked, today: today() }, this.table.all, nightOf, this.player?.kit ?? null, patterns);
  }

  /** The goal of a phrase as shows want it; null where it is not known. */
  async goalOf(id: string): Promise<Goal | null> {
    await this.ready;
    const entry = this.table.of(id);
    return entry ? { goal: entry.goal, by: entry.by } : null;
  }

  /** What of the shelf came in a sitting; null when it was given up, or another was asked for. */
  async readSitting(asked: SittingAsked, tell: (share: number) => void): Promise<SittingRead | null> {
    this.answered.open();
    await this.worked.opened;
    return this.using.read(this.table.all, asked, tell);
  }

  /** Gives up the sitting that is being read. */
  stopReading(): void {
    this.using.stop();
  }

  /** Ids of the phrase that came last while somebody plays, and of those it may as well be; null where none is sure. */
  async justPlayed(played: Played, tick: number, beat: number): Promise<readonly string[] | null> {
    await this.ready;
    return this.using.just(this.table.all, played, tick, beat);
  }

  /** What is used of the shelf, what never, and what is played that is not on it. */
  async usage(): Promise<UsageAnswer> {
    this.answered.open();
    await this.worked.opened;
    return this.using.usage(this.table.all, await this.readSittings());
  }

  /** Phrases that can be called in a meter at a tempo. */
  async callables(meter: Meter, bpm: number): Promise<readonly NamedCallable[]> {
    this.answered.open();
    await this.worked.opened;
    const of = { meter, bpm, day: today() };
    return this.using.callables(this.table.all, await this.readSittings(), this.practice, of);
  }

  private readSittings(): Promise<readonly FreeSitting[]> {
    this.sittings ??= this.ruled().then(() => this.db.freeSittings.toArray());
    return this.sittings;
  }

  private mapScene(): Scene | null {
    if (!this.player) return null;
    const { kit, profile } = this.player;
    const share = this.practice.shareFor(this.table.all, '');
    return { kit, profile, share, schools: USUAL_SCHOOLS, today: today() };
  }

  private async recipesOf(ids: readonly string[]): Promise<readonly Phrase[]> {
    await this.ruled();
    return (await this.db.phrases.bulkGet([...ids])).filter((p) => p !== undefined);
  }

  /** The canonical and the exact forms that the shelf has. */
  async forms(): Promise<readonly string[]> {
    await this.ready;
    return [...new Set(this.table.all.flatMap((e) => (e.facts ? [e.facts.form, e.facts.exact] : [])))];
  }

  end(): void {
    this.ended = true;
    this.restRead.open();
    this.looked.open();
    this.unheard();
    this.db.close();
  }

  private async load(): Promise<void> {
    try {
      // The rules are large: what the index kept is read before them, where nothing has to be put right first.
      const older = await isOlder(this.name);
      if (this.ended) return;
      if (older) await this.ruled();
      await this.db.open();
      if (this.name === DEMO_DATABASE) await this.fill();
      const kept = await readPacks(this.db);
      this.table.put(kept.entries);
      this.rest = kept.played;
    } catch {
      // A cache that cannot be read is made anew.
    }
    if (this.ended) return;
    if (this.table.all.length === 0) {
      this.restRead.open();
      await this.verify().catch((error: unknown) => {
        if (!this.ended) throw error;
      });
    } else
      // What was kept is shown at once; what was played is read, and what changed since put right, a moment later.
      this.unlessEnded(this.afterFirst());
  }

  /**
   * Fills the demo, while the page is still being made. Where it cannot, the page tries and says why; that there is
   * nothing must not be the answer to everything before.
   */
  private async fill(): Promise<void> {
    if (await isFilled(this.db)) return;
    try {
      await this.ruled();
      await (await import('../../storage/demo')).fillDemo(this.db);
    } catch {
      await untilFilled(this.db);
    }
  }

  /** All that is not needed for the first answer: it waits until that was given, and not for ever. */
  private async afterFirst(): Promise<void> {
    await this.answered.within(ANSWER_MS);
    const played = await this.rest?.().catch(() => []);
    if (this.ended) return;
    if (played) this.practice.put(played);
    this.restRead.open();
    await this.verify();
  }

  /** The rules of what is read and written, fetched when the first row of the player's own is read. */
  private ruled(): Promise<void> {
    this.rules ??= import('@core/formats/shelf-file').then(
      ({ RULES }) => void (this.keeper.rules = RULES),
      (error: unknown) => {
        // They are asked for again by whoever needs them next.
        this.rules = null;
        throw error;
      },
    );
    return this.rules;
  }

  /** Puts the index in line with what is kept: what is new, what changed, what is gone. */
  private async verify(): Promise<void> {
    try {
      await this.held();
    } finally {
      this.looked.open();
    }
  }

  private async held(): Promise<void> {
    if (this.ended) return;
    const [ids, changes, tallies] = await Promise.all([
      this.db.phrases.orderBy('changed').primaryKeys(),
      this.db.phrases.orderBy('changed').keys(),
      this.db.tallies.toArray(),
    ]);
    const stale = ids.filter((id, i) => this.table.of(id)?.changed !== changes[i]);
    const here = new Set(ids);
    const kept = this.table.all.filter((e) => here.has(e.id));
    if (kept.length !== this.table.all.length) this.table.put(kept);
    await this.readPhrases(stale);
    const best = new Map(tallies.map((t) => [t.id, t]));
    this.table.withBest(best);
    await this.readShows();
    this.verified = true;
    this.soon();
    this.unlessEnded(this.work());
  }

  /** What shows want of phrases, read anew. */
  private async readShows(): Promise<void> {
    if ((await this.db.shows.count()) === 0) this.wants = new Map();
    else {
      await this.ruled();
      this.wants = wantsOf(await this.db.shows.toArray(), today());
    }
    this.aim();
  }

  /** Goals as shows want them, with what is believed now. */
  private aim(): void {
    const day = today();
    const nightOf = (e: Entry) => this.practice.nightOf(this.table.all, e);
    for (const entry of this.table.all) {
      const next = aimed(entry, this.wants.get(entry.id), nightOf, day);
      if (next !== entry) this.table.show(next);
    }
  }

  private async readPhrases(ids: readonly string[]): Promise<void> {
    if (ids.length > 0) await this.ruled();
    const fresh: Entry[] = [];
    const gone = new Set<string>();
    for (let at = 0; at < ids.length; at += 500) {
      const some = ids.slice(at, at + 500);
      const found = await this.db.phrases.bulkGet([...some]);
      const tallies = await this.db.tallies.bulkGet([...some]);
      const best = new Map(tallies.flatMap((t) => (t ? [[t.id, t] as const] : [])));
      for (const [i, phrase] of found.entries()) {
        const id = some[i];
        if (id === undefined) continue;
        this.drawings.forget(id);
        if (phrase) fresh.push(entryFrom(phrase, best.get(id) ?? NO_BEST, this.table.of(id)));
        else {
          gone.add(id);
          this.practice.forget(id);
        }
      }
    }
    const moved = fresh.filter((e) => this.table.of(e.id)?.name !== e.name);
    fresh.filter((e) => this.table.of(e.id)?.name === e.name).forEach((e) => this.table.set(e));
    if (moved.length === 0 && gone.size === 0) return;
    for (const id of [...gone, ...moved.map((e) => e.id)]) {
      this.table.touch(id);
      gone.add(id);
    }
    this.table.put([...this.table.all.filter((e) => !gone.has(e.id)), ...moved]);
  }

  /** What another tab, the page or a worker changed. */
  private async changed(parts: object): Promise<void> {
    await this.ready;
    if (this.ended) return;
    const touched = new Map(Object.entries(parts) as [string, KeyRanges][]);
    const of = (table: string): readonly string[] | 'all' => {
      const range = touched.get(`idb://${this.name}/${table}/`) ?? touched.get('all');
      if (!range) return [];
      const keys: string[] = [];
      for (const { from, to } of rangesOf(range)) {
        if (from !== to || typeof from !== 'string') return 'all';
        keys.push(from);
      }
      return keys;
    };
    const phrases = of('phrases');
    const tallies = of('tallies');
    const sat = of('freeSittings').length > 0;
    if (sat) this.sittings = null;
    if (phrases === 'all' || tallies === 'all') return this.verify();
    const shows = of('shows').length > 0;
    if (phrases.length === 0 && tallies.length === 0 && !shows && !sat) return;
    if (phrases.length > 0) await this.readPhrases(phrases);
    if (shows) await this.readShows();
    const own = tallies.filter((id) => id !== ALL_TRIES && this.table.of(id) !== undefined);
    const found = await this.db.tallies.bulkGet([...own]);
    own.forEach((id, i) => {
      const entry = this.table.of(id);
      if (entry) this.table.show(withTop({ ...entry, best: found[i] ?? NO_BEST }));
    });
    this.soon();
    this.unlessEnded(this.work());
  }

  /** Work that was under way when the index was ended may fail; else a failure is shown. */
  private unlessEnded(work: Promise<void>): void {
    work.catch((error: unknown) => {
      if (!this.ended) throw error;
    });
  }

  /** Works out facts and ceilings that are not known, in slices, so that what is asked meanwhile is answered. */
  private async work(): Promise<void> {
    if (this.working || this.ended || this.player === null) return;
    this.working = true;
    try {
      await Promise.all([this.ruled(), this.restRead.opened, this.peace]);
      await this.workOutAll();
    } finally {
      this.working = false;
      this.soon();
    }
    // Before the index was put right nothing is known of what was played.
    if (this.verified) this.worked.open();
  }

  private async workOutAll(): Promise<void> {
    const pause = slices();
    const unknown = (): Entry[] => {
      const { player } = this;
      return this.table.all.filter((e) => e.facts === null || !player || !isWorkedOut(e, player));
    };
    for (;;) {
      // What is known by itself is known first, then what follows from it for others.
      this.learn();
      const missing = unknown();
      if (missing.length === 0 || this.over()) break;
      for (let at = 0; at < missing.length && !this.over(); at += 40) {
        const some = missing.slice(at, at + 40);
        const phrases = await this.db.phrases.bulkGet(some.map((e) => e.id));
        for (const p of phrases) {
          if (!p) continue;
          this.workOut(p);
          await pause();
        }
        if (at % 400 === 0) this.soon();
      }
      // What cannot be worked out must not be tried for ever.
      if (unknown().length >= missing.length) break;
    }
    // What was played meanwhile is read too.
    while (!this.over() && this.table.all.some((e) => this.practice.isMissing(e))) await this.readLogs();
    await this.believe();
  }

  /** Reads the logs that changed, a few at a time. */
  private async readLogs(): Promise<void> {
    const missing = this.table.all.filter((e) => this.practice.isMissing(e)).map((e) => e.id);
    const day = today();
    const pause = slices();
    for (let at = 0; at < missing.length && !this.over(); at += 20) {
      const some = missing.slice(at, at + 20);
      const logs = await Promise.all(some.map((id) => triesOf(this.db, id)));
      for (const [i, tries] of logs.entries()) {
        const entry = this.table.of(some[i] ?? '');
        if (!entry) continue;
        this.practice.workOut(entry, tries, day);
        this.table.touch(entry.id);
        await pause();
      }
      if (at % 400 === 0) this.soon();
    }
  }

  /** What is believed today of every phrase that was tried. */
  private async believe(): Promise<void> {
    const day = today();
    this.believedOn = day;
    this.practice.stale();
    this.aim();
    const pause = slices();
    for (let i = 0; i < this.table.all.length && !this.over(); i++) {
      const entry = this.table.at(i);
      if (!entry || entry.best.attempts === 0) continue;
      this.table.show({ ...entry, believed: this.practice.believed(this.table.all, entry, day) });
      await pause();
    }
    this.soon();
  }

  /** Learns from clean tries above what was worked out; then everything is worked out with it. */
  private learn(): void {
    const before = this.player;
    if (!before || this.table.all.some((e) => !isKnown(e, before))) return;
    const lessons = lessonsFrom(this.table.all, before);
    if (stableJson(lessons) === stableJson(before.lessons)) return;
    this.player = learnt(before, lessons);
    if (lessons.length > 0) return;
    this.table.map((e) => (e.ceiling?.taught ? withTop({ ...e, ceiling: { ...e.ceiling, taught: null } }) : e));
  }

  private over(): boolean {
    return this.ended;
  }

  private workOut(phrase: Phrase): void {
    const entry = this.table.of(phrase.id);
    if (!entry || !this.player || entry.changed !== phrase.changed) return;
    const { pattern } = build(phrase.recipe);
    const ceiling = ceilingFor(pattern, entry, this.player);
    const facts = entry.facts ?? factsOf(pattern);
    this.table.set(withTop({ ...entry, facts, ceiling }));
    this.packSoon();
  }

  private rowsAt(places: readonly number[]): readonly ShelfRow[] {
    return places.flatMap((i) => {
      const e = this.table.all[i];
      if (!e) return [];
      return [
        {
          id: e.id,
          name: e.name.slice(0, 200),
          family: e.family,
          tags: e.tags,
          goal: e.goal,
          by: e.by,
          own: e.own,
          best: e.best,
          believed: e.believed,
          facts: e.facts && factsWords(e.facts),
          length: e.facts?.length ?? null,
          top: this.player && isWorkedOut(e, this.player) ? e.top : null,
          key: this.drawnBy(e),
        },
      ];
    });
  }

  private drawnBy(e: Entry): string {
    return `${e.key}/${this.player?.key ?? ''}`;
  }

  private soon(): void {
    this.packSoon();
    this.telling ??= setTimeout(() => {
      this.telling = null;
      if (!this.ended) this.tell(this.working ? 'changed' : 'read');
    }, TELL_AFTER);
  }

  private packSoon(): void {
    if (this.packing !== null) clearTimeout(this.packing);
    this.packing = setTimeout(() => void this.pack(), PACK_AFTER);
  }

  /** Keeps the index, only what changed of it. A cache that cannot be kept is made anew the next time. */
  private async pack(): Promise<void> {
    if (this.ended) return;
    const changed = this.table.takeChanged();
    if (changed.length === 0) return;
    try {
      await writePacks(this.db, changed, this.table.all, this.practice);
    } catch {
      this.table.putBack(changed);
    }
  }
}
