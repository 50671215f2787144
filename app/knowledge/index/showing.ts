import type { Kit } from '@core/kit';
import type { Pattern } from '@core/pattern';
import type { Show } from '@core/shelf';
import {
  choicesOf,
  filledShow,
  goalUnder,
  chanceOn,
  readinessOf,
  withChoices,
  type NightPhrase,
  type ShowFilled,
  type ShowPhrase,
  type ShowReady,
  type SpotChoice,
  type Want,
} from '@core/show';
import type { Entry } from './entries';

/** All that is worked out of a show. */
export interface ShowAnswer {
  /** What stands in each spot. */
  readonly choices: readonly SpotChoice[];
  /** The best filling, what was chosen by hand held. */
  readonly filled: ShowFilled;
  /** How ready it is as it stands, and as it would be filled. */
  readonly ready: ShowReady;
  readonly best: ShowReady;
  /** Phrases in its spots that are not on the shelf any more. */
  readonly gone: readonly string[];
}

/** What is asked of a show. */
export interface ShowAsked {
  readonly show: Show;
  /** Minutes of practice a day. */
  readonly aDay: number;
  readonly today: number;
}

/** What is known of a phrase for a night. */
type NightOf = (entry: Entry) => NightPhrase;

/** What stands in the spots of a show, how it is filled best, and how ready it is. */
export async function showAnswer(
  { show, aDay, today }: ShowAsked,
  all: readonly Entry[],
  nightOf: NightOf,
  kit: Kit | null,
  patternsOf: (ids: readonly string[]) => Promise<readonly { readonly id: string; readonly pattern: Pattern }[]>,
): Promise<ShowAnswer> {
  const phrases = all.flatMap((e): ShowPhrase[] =>
    e.facts
      ? [
          {
            ...nightOf(e),
            id: e.id,
            name: e.name.slice(0, 200),
            family: e.family,
            tags: e.tags,
            parent: e.parent?.id ?? null,
            facts: e.facts,
          },
        ]
      : [],
  );
  // Counts are asked of what is played: it is drawn for those that fit else.
  const wanted = new Set<string>();
  choicesOf(show, phrases, { kit, today, patternOf: (id) => (wanted.add(id), null) });
  const drawn = new Map((await patternsOf([...wanted])).map((d) => [d.id, d.pattern]));
  const choices = choicesOf(show, phrases, { kit, today, patternOf: (id) => drawn.get(id) ?? null });
  const filled = filledShow(show, choices, phrases);
  const by = new Map(phrases.map((p) => [p.id, p]));
  const ready = (of: Show): ShowReady => readinessOf(of, (id) => by.get(id) ?? null, { today, aDay });
  const own = show.cues.flatMap((c) => c.spots.flatMap((s) => s.phrase ?? []));
  return {
    choices,
    filled,
    ready: ready(show),
    best: ready(withChoices(show, filled)),
    gone: [...new Set(own)].filter((id) => !all.some((e) => e.id === id)),
  };
}

/** An entry with the goal that shows want of it, or its own. */
export function aimed(entry: Entry, wants: readonly Want[] | undefined, nightOf: NightOf, today: number): Entry {
  const own = entry.own;
  if (!wants) return entry.goal === own.goal && entry.by === own.by ? entry : { ...entry, ...own };
  const phrase = nightOf(entry);
  return { ...entry, ...goalUnder(own, wants, (tempo, night) => chanceOn(phrase, tempo, { today, night }, 0)) };
}
