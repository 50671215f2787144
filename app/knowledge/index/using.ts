import type { Pattern } from '@core/pattern';
import { chanceAt, onDay } from '@core/player';
import type { FreeSitting, KeptCame, KeptFigure } from '@core/shelf';
import { meterText, type Meter } from '@core/time';
import type { Hit } from '@core/take';
import {
  bestPulse,
  figuresIn,
  figuresOf,
  isFree,
  justCame,
  keptCame,
  keptFigures,
  keptTime,
  neverUsed,
  pulsesIn,
  recallEvents,
  recallOn,
  Recogniser,
  steadied,
  usesIn,
  withKeptTime,
  type Callable,
  type Came,
  type OwnFigure,
  type PhraseUse,
  type Played,
  type UsablePhrase,
} from '@core/usage';
import { practiceDay } from '../../environment/clock';
import type { Entry } from './entries';
import type { Practice } from './practice';
import { slices } from './slices';

/** What was played, to be read; without a tempo it is found. */
export interface SittingAsked {
  readonly hits: readonly Hit[];
  readonly meter: Meter;
  readonly bpm: number | null;
  /** Whether it is a few bars of a recording. */
  readonly isPart?: boolean;
}

/** What a sitting came to when it was read against the shelf. */
export interface SittingRead {
  /** Hits from the first bar line, at the tempo. */
  readonly hits: readonly Hit[];
  readonly bpm: number;
  /** Whether the tempo was found under the playing, and what else it may be. */
  readonly found: boolean;
  readonly tempos: readonly number[];
  /** How many phrases it was read against. */
  readonly against: number;
  readonly came: readonly KeptCame[];
  readonly figures: readonly KeptFigure[];
}

/** What is used, what is not, and what is played that is not on the shelf. */
export interface UsageAnswer {
  readonly sittings: number;
  readonly uses: readonly (PhraseUse & { readonly name: string })[];
  /** Played clean and never used, the one drilled last first. */
  readonly never: readonly { readonly id: string; readonly name: string; readonly clean: number }[];
  readonly figures: readonly OwnFigure[];
}

/** A phrase that can be called, with its name. */
export type NamedCallable = Callable & { readonly name: string };

/** So many phrases a sitting is read against, those played last first; while somebody plays so many. */
const MOST_READ = 4000;
const MOST_LIVE = 1000;
/** So many tempos that were found are held against the shelf, with so many phrases. */
const TEMPOS = 4;
const TEMPO_PHRASES = 250;
/** So many phrases are drawn at once. */
const AT_ONCE = 60;

type PatternsOf = (
  ids: readonly string[],
) => Promise<readonly { readonly id: string; readonly key: string; readonly pattern: Pattern }[]>;

/** What of the shelf comes in free play: it is read here, and asked of the sittings that were kept. */
export class Using {
  private readonly known = new Map<string, { readonly key: string; readonly phrase: UsablePhrase }>();
  private asked = 0;

  constructor(private readonly patternsOf: PatternsOf) {}

  /** Reads a sitting in slices; null when another was asked for, or it was given up. */
  async read(
    all: readonly Entry[],
    { hits, meter, bpm, isPart = false }: SittingAsked,
    tell: (share: number) => void,
  ): Promise<SittingRead | null> {
    const mine = ++this.asked;
    const phrases = await this.phrases(all, MOST_READ, (share) => (tell(share * 0.5), mine === this.asked));
    if (mine !== this.asked) return null;
    const pulses = bpm === null ? pulsesIn(hits, meter).slice(0, TEMPOS) : [];
    const ways =
      bpm === null
        ? pulses.map((p): Played => ({ hits: steadied(hits, p.lay, p.bpm), meter, bpm: p.bpm }))
        : [{ hits, meter, bpm, isPart }];
    const played = await this.likeliest(ways, phrases.slice(0, TEMPO_PHRASES), () => mine === this.asked);
    if (mine !== this.asked) return null;
    if (!played) return { hits, bpm: bpm ?? 120, found: false, tempos: [], against: 0, came: [], figures: [] };
    const came = await this.came(played, phrases, (share) => (tell(0.5 + share * 0.5), mine === this.asked));
    if (!came) return null;
    return {
      hits: played.hits,
      bpm: Math.round(played.bpm * 10) / 10,
      found: bpm === null,
      tempos: pulses.map((p) => Math.round(p.bpm * 10) / 10),
      against: phrases.length,
      came: keptCame(withKeptTime(came, isPart ? [] : keptTime(phrases, played))),
      figures: keptFigures(figuresIn(played, came)),
    };
  }

  /** Gives up what is being read. */
  stop(): void {
    this.asked++;
  }

  /** The phrase that came last while somebody plays, by its names; null where nothing is sure. */
  async just(all: readonly Entry[], played: Played, now: number, beat: number): Promise<readonly string[] | null> {
    const phrases = await this.phrases(all, MOST_LIVE, () => true);
    const came = justCame(phrases, played, now, beat);
    return came && [came.id, ...came.or];
  }

  /** What is used of the shelf, by the sittings that were kept. */
  usage(all: readonly Entry[], sittings: readonly FreeSitting[]): UsageAnswer {
    const by = new Map(all.map((e) => [e.id, e]));
    const uses = usesIn(sittings);
    const drilled = all.map((e) => ({ id: e.id, clean: e.best.clean, lastAt: e.best.lastAt }));
    return {
      sittings: sittings.filter(isFree).length,
      uses: uses.flatMap((u) => ((e) => (e ? [{ ...u, name: e.name.slice(0, 200) }] : []))(by.get(u.phrase))),
      never: neverUsed(drilled, uses).flatMap((id) => {
        const e = by.get(id);
        return e?.best.clean ? [{ id, name: e.name.slice(0, 200), clean: e.best.clean }] : [];
      }),
      figures: figuresOf(sittings),
    };
  }

  /** How surely phrases come by themselves on a day; null where nobody ever listened to free play. */
  comes(sittings: readonly FreeSitting[], day: number): ReadonlyMap<string, number> | null {
    if (!sittings.some(isFree)) return null;
    const events = recallEvents(sittings, practiceDay);
    return new Map(
      [...events].flatMap(([id, own]) => ((c) => (c === null ? [] : [[id, c] as const]))(recallOn(own, day))),
    );
  }

  /** Phrases that can be called in a meter at a tempo. */
  callables(
    all: readonly Entry[],
    sittings: readonly FreeSitting[],
    practice: Practice,
    of: { readonly meter: Meter; readonly bpm: number; readonly day: number },
  ): readonly NamedCallable[] {
    const events = recallEvents(sittings, practiceDay);
    const meter = meterText(of.meter);
    return all.flatMap((e): NamedCallable[] => {
      if (!e.facts || e.facts.meter !== meter || e.facts.limbs.length === 0) return [];
      const { known } = practice.nightOf(all, e);
      return [
        {
          id: e.id,
          name: e.name.slice(0, 200),
          kind: e.family,
          chance: chanceAt(onDay(known, of.day), of.bpm),
          recall: recallOn(events.get(e.id) ?? [], of.day),
        },
      ];
    });
  }

  /** Of several ways to count what was played the one in which most of the shelf comes; null where there is none. */
  private async likeliest(
    ways: readonly Played[],
    phrases: readonly UsablePhrase[],
    goOn: () => boolean,
  ): Promise<Played | null> {
    const [first, ...others] = ways;
    if (!first || others.length === 0) return first ?? null;
    const came: (readonly Came[])[] = [];
    for (const played of ways) {
      const own = await this.came(played, phrases, goOn);
      if (!own) return null;
      came.push(own);
    }
    return ways[bestPulse(came)] ?? first;
  }

  private async came(
    played: Played,
    phrases: readonly UsablePhrase[],
    goOn: (share: number) => boolean,
  ): Promise<readonly Came[] | null> {
    const pause = slices();
    const recogniser = new Recogniser(played, phrases.length);
    for (const [i, one] of phrases.entries()) {
      recogniser.look(one);
      await pause();
      if (!goOn((i + 1) / phrases.length)) return null;
    }
    return recogniser.came();
  }

  /** Phrases with what is played of them, those played last first; what is given up comes back as far as it was. */
  private async phrases(
    all: readonly Entry[],
    most: number,
    goOn: (share: number) => boolean,
  ): Promise<readonly UsablePhrase[]> {
    const wanted = [...all]
      .sort((a, b) => (b.best.lastAt ?? 0) - (a.best.lastAt ?? 0) || b.changed - a.changed)
      .slice(0, most);
    const missing = wanted.filter((e) => this.known.get(e.id)?.key !== keyOf(e));
    for (let at = 0; at < missing.length; at += AT_ONCE) {
      if (!goOn(at / missing.length)) break;
      const some = missing.slice(at, at + AT_ONCE);
      const drawn = new Map((await this.patternsOf(some.map((e) => e.id))).map((d) => [d.id, d.pattern]));
      for (const e of some) {
        const pattern = drawn.get(e.id);
        if (pattern)
          this.known.set(e.id, { key: keyOf(e), phrase: { id: e.id, pattern, form: e.facts?.form ?? e.id } });
      }
    }
    const here = new Set(all.map((e) => e.id));
    for (const id of this.known.keys()) if (!here.has(id)) this.known.delete(id);
    return wanted.flatMap((e) => this.known.get(e.id)?.phrase ?? []);
  }

  /** What was drawn is drawn for another kit now. */
  clear(): void {
    this.known.clear();
  }
}

const keyOf = (e: Entry): string => `${e.key}/${e.facts?.form ?? ''}`;
