import { stableJson } from '@core/base';
import { NO_BEST } from '@core/drill';
import type { Kit } from '@core/kit';
import type { Pattern } from '@core/pattern';
import type { Lesson, Profile } from '@core/reach';
import { build, type Phrase } from '@core/recipe';
import { factsOf, nextName } from '@core/shelf';
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
import { entryFrom, packOf, searched, withTop, type Entry } from './entries';
import type {
  Believed,
  KinAnswer,
  LookBack,
  NamedPhrase,
  PackedEntry,
  PhraseLog,
  ShelfAnswer,
  ShelfQuestion,
  ShelfRow,
} from './entry';
import { rangesOf, type KeyRanges } from './key-ranges';
import { kinLines, sameTurned } from './kin-answer';
import { ceilingFor, isKnown, isWorkedOut, learnt, lessonsFrom, reckonedFor, type Reckoned } from './learning';
import { readPacks, writePacks, type Kept } from './packs';
import { Practice } from './practice';
import { factsWords } from './row-words';

/** Entries that are worked out before it is looked whether something was asked meanwhile. */
const SLICE_MS = 12;
/** Changes are told together after so long, in milliseconds. */
const TELL_AFTER = 60;
/** So long the first question is waited for, in milliseconds, before what it does not need is read. */
const ANSWER_MS = 400;
/**
 * So long the page, which is being made, has the machine to itself before facts are worked out, in milliseconds, unless
 * it asks for what rests on them.
 */
const PEACE_MS = 2000;
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
  private entries: Entry[] = [];
  private places = new Map<string, number>();
  private reckoned: Reckoned | null = null;
  private readonly drawings = new Drawings(() => this.reckoned?.kit ?? null);
  private readonly practice = new Practice();
  private readonly dirty = new Set<number>();
  private telling: ReturnType<typeof setTimeout> | null = null;
  private packing: ReturnType<typeof setTimeout> | null = null;
  private working = false;
  /** Whether what was kept was held against what is there. */
  private verified = false;
  /** The practice day of what is believed. */
  private believedOn: number | null = null;
  /** Everything was worked out once. */
  private readonly worked: Promise<void>;
  private wasWorked: () => void = () => undefined;
  private ended = false;
  /** Reads what was played, as it was kept. */
  private rest: Kept['played'] | null = null;
  private wasRead: () => void = () => undefined;
  /** What was played is read, as far as it was kept. */
  private readonly restRead = new Promise<void>((resolve) => (this.wasRead = resolve));
  private wasLooked: () => void = () => undefined;
  /** What was kept was held against what is there once, or will not be any more. */
  private readonly looked = new Promise<void>((resolve) => (this.wasLooked = resolve));
  private wasAnswered: () => void = () => undefined;
  /** The first question was answered, or one was asked that rests on all that is worked out. */
  private readonly answered = new Promise<void>((resolve) => (this.wasAnswered = resolve));
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
    this.worked = new Promise((resolve) => (this.wasWorked = resolve));
    this.peace = this.answeredWithin(peace);
    this.ready = this.load();
  }

  /** For whom and on which kit ceilings are worked out. */
  about(kit: Kit, profile: Profile): void {
    this.reckoned = reckonedFor(kit, profile);
    this.drawings.clear();
    this.soon();
    this.unlessEnded(this.ready.then(() => this.work()));
  }

  async ask(question: ShelfQuestion): Promise<ShelfAnswer> {
    await this.ready;
    // On another day other tempos are ready.
    if (this.verified && this.believedOn !== today()) this.unlessEnded(this.believe());
    // What was asked goes out before what was played is read.
    setTimeout(this.wasAnswered, 0);
    const { found, ...told } = answered(this.entries, this.places, question, now(), today());
    return {
      ...told,
      order: Uint32Array.from(found),
      first: this.rowsAt(found.slice(0, question.first)),
      all: this.entries.length,
      unread: this.entries.reduce((n, e) => n + (e.facts === null ? 1 : 0), 0),
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
    const wanted = ids.flatMap((id) => this.entryOf(id) ?? []);
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

  /** Every phrase by its name; of those drilled only, the one drilled last first. */
  async names(which: 'all' | 'drilled'): Promise<readonly NamedPhrase[]> {
    await this.ready;
    setTimeout(this.wasAnswered, 0);
    const drilled = (): readonly Entry[] => this.entries.filter((e) => e.best.attempts > 0);
    // That nothing was drilled is said when it was looked at, not from what was known before.
    if (which === 'drilled' && drilled().length === 0) await this.looked;
    const own = which === 'all' ? this.entries : drilled();
    const by =
      which === 'all'
        ? (a: Entry, b: Entry): number => compare(a.name, b.name)
        : (a: Entry, b: Entry): number => (b.best.lastAt ?? 0) - (a.best.lastAt ?? 0);
    return [...own].sort(by).map(({ id, name, family }) => ({ id, name: name.slice(0, 200), family }));
  }

  /** The next name of a series that is free. */
  async next(name: string, given: readonly string[] = []): Promise<string> {
    await this.ready;
    const taken = new Set([...given, ...this.entries.map((e) => e.name.trim())]);
    return nextName(name, (n) => taken.has(n));
  }

  /** The phrases that bear a name to the letter. */
  async called(name: string): Promise<readonly string[]> {
    await this.ready;
    return this.entries.filter((e) => e.name.trim() === name.trim()).map((e) => e.id);
  }

  /** What a phrase was grown from, what was grown from it, and which are the same turned. */
  async kin(id: string): Promise<KinAnswer> {
    await this.ready;
    const form = this.entryOf(id)?.facts?.form;
    const twins = this.entries.filter((e) => e.id !== id && form !== undefined && e.facts?.form === form).slice(0, 20);
    const drawn = new Map((await this.patternsOf([id, ...twins.map((t) => t.id)])).map((d) => [d.id, d.pattern]));
    return { tree: kinLines(this.entries, id), same: sameTurned(id, twins, drawn) };
  }

  /** What clean tries of the shelf's phrases showed of the player's limbs, beyond their tests. */
  async lessons(): Promise<readonly Lesson[]> {
    await this.ready;
    return this.reckoned?.lessons ?? [];
  }

  /** The day as it is best practised, once what it rests on is known. */
  async plan(asked: Omit<TodayAsked, 'strokes'>): Promise<TodayPlan> {
    this.wasAnswered();
    await this.worked;
    return this.practice.plan(this.entries, asked);
  }

  /** What is believed of a phrase today; null before any try. */
  async believed(id: string): Promise<Believed | null> {
    await this.ready;
    return this.entryOf(id)?.believed ?? null;
  }

  /** What the Log draws of a phrase. */
  async phraseLog(id: string): Promise<PhraseLog> {
    this.wasAnswered();
    await this.worked;
    const entry = this.entryOf(id);
    return entry ? this.practice.phraseLog(this.entries, entry, today()) : { days: [], projection: null, ready: null };
  }

  /** What the Log draws of all that was practised. */
  async lookBack(): Promise<LookBack> {
    this.wasAnswered();
    await this.worked;
    return this.practice.lookBack(this.entries, today());
  }

  /** The player's own share of their ceilings, as all phrases but one give it. */
  async shareFor(id: string): Promise<Belief> {
    await this.ready;
    return this.practice.shareFor(this.entries, id);
  }

  /** The canonical forms that the shelf has. */
  async forms(): Promise<readonly string[]> {
    await this.ready;
    return [...new Set(this.entries.flatMap((e) => e.facts?.form ?? []))];
  }

  end(): void {
    this.ended = true;
    this.wasRead();
    this.wasLooked();
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
      this.put(kept.entries);
      this.rest = kept.played;
    } catch {
      // A cache that cannot be read is made anew.
    }
    if (this.ended) return;
    if (this.entries.length === 0) {
      this.wasRead();
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
    await this.answeredWithin(ANSWER_MS);
    const played = await this.rest?.().catch(() => []);
    if (this.ended) return;
    if (played) this.practice.put(played);
    this.wasRead();
    await this.verify();
  }

  /** Waits until the first question was answered, and not for longer than so many milliseconds. */
  private async answeredWithin(ms: number): Promise<void> {
    await Promise.race([this.answered, new Promise((r) => setTimeout(r, ms))]);
  }

  /** The rules of what is read and written, fetched when the first row of the player's own is read. */
  private ruled(): Promise<void> {
    this.rules ??= import('@core/formats/shelf-file').then(({ RULES }) => {
      this.keeper.rules = RULES;
    });
    return this.rules;
  }

  /** Puts the index in line with what is kept: what is new, what changed, what is gone. */
  private async verify(): Promise<void> {
    try {
      await this.held();
    } finally {
      this.wasLooked();
    }
  }

  private async held(): Promise<void> {
    if (this.ended) return;
    const [ids, changes, tallies] = await Promise.all([
      this.db.phrases.orderBy('changed').primaryKeys(),
      this.db.phrases.orderBy('changed').keys(),
      this.db.tallies.toArray(),
    ]);
    const stale = ids.filter((id, i) => this.entryOf(id)?.changed !== changes[i]);
    const here = new Set(ids);
    const kept = this.entries.filter((e) => here.has(e.id));
    if (kept.length !== this.entries.length) this.put(kept);
    await this.readPhrases(stale);
    const best = new Map(tallies.map((t) => [t.id, t]));
    this.entries = this.entries.map((e) => withTop({ ...e, best: best.get(e.id) ?? NO_BEST }));
    this.verified = true;
    this.soon();
    this.unlessEnded(this.work());
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
        if (phrase) fresh.push(entryFrom(phrase, best.get(id) ?? NO_BEST, this.entryOf(id)));
        else {
          gone.add(id);
          this.practice.forget(id);
        }
      }
    }
    const moved = fresh.filter((e) => this.entryOf(e.id)?.name !== e.name);
    fresh.filter((e) => this.entryOf(e.id)?.name === e.name).forEach((e) => this.set(e));
    if (moved.length === 0 && gone.size === 0) return;
    for (const id of [...gone, ...moved.map((e) => e.id)]) {
      this.dirty.add(packOf(id));
      gone.add(id);
    }
    this.put([...this.entries.filter((e) => !gone.has(e.id)), ...moved]);
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
    if (phrases === 'all' || tallies === 'all') return this.verify();
    if (phrases.length === 0 && tallies.length === 0) return;
    if (phrases.length > 0) await this.readPhrases(phrases);
    const own = tallies.filter((id) => id !== ALL_TRIES && this.places.has(id));
    const found = await this.db.tallies.bulkGet([...own]);
    own.forEach((id, i) => {
      const [entry, place] = [this.entryOf(id), this.places.get(id)];
      if (entry && place !== undefined) this.entries[place] = withTop({ ...entry, best: found[i] ?? NO_BEST });
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
    if (this.working || this.ended || this.reckoned === null) return;
    this.working = true;
    await Promise.all([this.ruled(), this.restRead, this.peace]);
    const unknown = (): Entry[] => {
      const { reckoned } = this;
      return this.entries.filter((e) => e.facts === null || !reckoned || !isWorkedOut(e, reckoned));
    };
    try {
      for (;;) {
        // What is known by itself is known first, then what follows from it for others.
        this.learn();
        const missing = unknown();
        if (missing.length === 0 || this.over()) break;
        for (let at = 0; at < missing.length && !this.over(); at += 40) {
          const some = missing.slice(at, at + 40);
          const phrases = await this.db.phrases.bulkGet(some.map((e) => e.id));
          let until = performance.now() + SLICE_MS;
          for (const p of phrases) {
            if (!p) continue;
            this.workOut(p);
            if (performance.now() > until) {
              await new Promise((r) => setTimeout(r));
              until = performance.now() + SLICE_MS;
            }
          }
          if (at % 400 === 0) this.soon();
        }
        // What cannot be worked out must not be tried for ever.
        if (unknown().length >= missing.length) break;
      }
      // What was played meanwhile is read too.
      while (!this.over() && this.entries.some((e) => this.practice.isMissing(e))) await this.readLogs();
      await this.believe();
    } finally {
      this.working = false;
      this.soon();
    }
    // Before the index was put right nothing is known of what was played.
    if (this.verified) this.wasWorked();
  }

  /** Reads the logs that changed, a few at a time. */
  private async readLogs(): Promise<void> {
    const missing = this.entries.filter((e) => this.practice.isMissing(e)).map((e) => e.id);
    const day = today();
    let until = performance.now() + SLICE_MS;
    for (let at = 0; at < missing.length && !this.over(); at += 20) {
      const some = missing.slice(at, at + 20);
      const logs = await Promise.all(some.map((id) => triesOf(this.db, id)));
      for (const [i, tries] of logs.entries()) {
        const entry = this.entryOf(some[i] ?? '');
        if (!entry) continue;
        this.practice.workOut(entry, tries, day);
        this.dirty.add(packOf(entry.id));
        if (performance.now() > until) {
          await new Promise((r) => setTimeout(r));
          until = performance.now() + SLICE_MS;
        }
      }
      if (at % 400 === 0) this.soon();
    }
  }

  /** What is believed today of every phrase that was tried. */
  private async believe(): Promise<void> {
    const day = today();
    this.believedOn = day;
    this.practice.stale();
    let until = performance.now() + SLICE_MS;
    for (let i = 0; i < this.entries.length && !this.over(); i++) {
      const entry = this.entries[i];
      if (!entry || entry.best.attempts === 0) continue;
      this.entries[i] = { ...entry, believed: this.practice.believed(this.entries, entry, day) };
      if (performance.now() > until) {
        await new Promise((r) => setTimeout(r));
        until = performance.now() + SLICE_MS;
      }
    }
    this.soon();
  }

  /** Learns from clean tries above what was worked out; then everything is worked out with it. */
  private learn(): void {
    const before = this.reckoned;
    if (!before || this.entries.some((e) => !isKnown(e, before))) return;
    const lessons = lessonsFrom(this.entries, before);
    if (stableJson(lessons) === stableJson(before.lessons)) return;
    this.reckoned = learnt(before, lessons);
    if (lessons.length > 0) return;
    this.entries = this.entries.map((e) =>
      e.ceiling?.taught ? withTop({ ...e, ceiling: { ...e.ceiling, taught: null } }) : e,
    );
  }

  private over(): boolean {
    return this.ended;
  }

  private workOut(phrase: Phrase): void {
    const entry = this.entryOf(phrase.id);
    if (!entry || !this.reckoned || entry.changed !== phrase.changed) return;
    const { pattern } = build(phrase.recipe);
    const ceiling = ceilingFor(pattern, entry, this.reckoned);
    const facts = entry.facts ?? factsOf(pattern);
    this.set(withTop({ ...entry, facts, ceiling }));
    this.packSoon();
  }

  private rowsAt(places: readonly number[]): readonly ShelfRow[] {
    return places.flatMap((i) => {
      const e = this.entries[i];
      if (!e) return [];
      return [
        {
          id: e.id,
          name: e.name.slice(0, 200),
          family: e.family,
          tags: e.tags,
          goal: e.goal,
          by: e.by,
          best: e.best,
          believed: e.believed,
          facts: e.facts && factsWords(e.facts),
          length: e.facts?.length ?? null,
          top: this.reckoned && isWorkedOut(e, this.reckoned) ? e.top : null,
          key: this.drawnBy(e),
        },
      ];
    });
  }

  private drawnBy(e: Entry): string {
    return `${e.key}/${this.reckoned?.key ?? ''}`;
  }

  private entryOf(id: string): Entry | undefined {
    const place = this.places.get(id);
    return place === undefined ? undefined : this.entries[place];
  }

  /** Puts all entries in place, in the order of their names. */
  private put(entries: readonly PackedEntry[]): void {
    this.entries = entries.map((e): Entry => ('text' in e ? (e as Entry) : searched(e, NO_BEST)));
    this.entries.sort((a, b) => compare(a.name, b.name));
    this.places = new Map(this.entries.map((e, i) => [e.id, i]));
  }

  /** Another account of an entry that keeps its name, and so its place. */
  private set(entry: Entry): void {
    const place = this.places.get(entry.id);
    if (place === undefined) return;
    this.dirty.add(packOf(entry.id));
    this.entries[place] = entry;
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
    const dirty = [...this.dirty];
    this.dirty.clear();
    if (dirty.length === 0 || this.ended) return;
    try {
      await writePacks(this.db, dirty, this.entries, this.practice);
    } catch {
      dirty.forEach((n) => this.dirty.add(n));
    }
  }
}
