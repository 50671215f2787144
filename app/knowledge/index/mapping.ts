import { BUILT_ON, mapOf, nextToLearn, stepsTo, type Mapped, type Scene, type Step, type Wanted } from '@core/map';
import type { Trait } from '@core/shelf';
import type { Phrase } from '@core/recipe';
import { practiceDay } from '../../environment/clock';
import type { Entry } from './entries';
import type { MapAnswer, MapPhrase } from './entry';
import { slices } from './slices';

/** So many phrases of a square are named, the readiest first. */
const MOST_NAMED = 40;
/** So many empty squares are looked at for what is next to learn, those beside most that is ready first. */
const MOST_LOOKED = 36;
/** So many phrases are tried for one empty square. */
const MOST_TRIED = 3;

/** How ready a phrase is: the tempo that is ready as a share of its ceiling; null where nothing is. */
function shareOf({ believed, top }: Entry): number | null {
  return believed?.ready.kind === 'ready' && top?.bpm != null ? Math.min(1, believed.ready.bpm / top.bpm) : null;
}

/** What a phrase had come to by a day: the fastest tempo that was clean by then; null where none was. */
export type BestBy = (id: string, day: number) => number | null;

/**
 * The map of the phrases whose facts are known, by two traits; as of a day, of those that were there by then, with the
 * fastest clean tempo of that time in place of the ready one, which is only known of today.
 */
export function mapAnswer(
  everything: readonly Entry[],
  row: Trait,
  column: Trait,
  asOf: { readonly day: number; readonly bestBy: BestBy } | null,
): MapAnswer {
  const all = asOf ? everything.filter((e) => practiceDay(e.created) <= asOf.day) : everything;
  const shareNow = (e: Entry): number | null => {
    if (!asOf) return shareOf(e);
    const best = asOf.bestBy(e.id, asOf.day);
    return best === null || e.top?.bpm == null ? null : Math.min(1, best / e.top.bpm);
  };
  const named = (e: Entry): MapPhrase => ({ id: e.id, name: e.name, share: shareNow(e) });
  const entries = new Map(all.map((e) => [e.id, e]));
  const mapped = all.flatMap((e): Mapped[] => {
    const { facts, best } = e;
    if (!facts) return [];
    // When it was played last before a day that is past is not known here.
    const last = best.lastAt === null || asOf ? null : practiceDay(best.lastAt);
    return [{ id: e.id, name: e.name, traits: facts.traits, share: shareNow(e), last }];
  });
  const { squares, ...rest } = mapOf(mapped, row, column);
  return {
    ...rest,
    unread: all.length - mapped.length,
    squares: squares.map(({ ids, ...square }) => ({
      ...square,
      many: ids.length,
      first: ids
        .flatMap((id) => ((e) => (e ? [named(e)] : []))(entries.get(id)))
        .sort((a, b) => (b.share ?? -1) - (a.share ?? -1))
        .slice(0, MOST_NAMED),
    })),
  };
}

/** What leads to an empty square, from the ready phrases in its row and column. */
export function stepsFor(
  wanted: Wanted,
  from: readonly Entry[],
  phrases: readonly Phrase[],
  scene: Scene,
): readonly Step[] {
  const built = from.flatMap((e) => {
    const phrase = phrases.find((p) => p.id === e.id);
    const ready = e.believed?.ready;
    return phrase && ready?.kind === 'ready'
      ? [{ id: e.id, name: e.name, recipe: phrase.recipe, ready: ready.bpm }]
      : [];
  });
  return stepsTo(wanted, built, scene);
}

/** Ready phrases that have a trait of a square, the readiest first. */
export function beside({ traits: [row, column], ...wanted }: Wanted, all: readonly Entry[]): readonly Entry[] {
  return all
    .filter((e) => {
      const share = shareOf(e);
      const own = e.facts?.traits;
      return own && share !== null && share >= BUILT_ON && (own[row] === wanted.row || own[column] === wanted.column);
    })
    .sort((a, b) => (shareOf(b) ?? 0) - (shareOf(a) ?? 0))
    .slice(0, MOST_TRIED);
}

/** The five best steps to empty squares of a map; whoever asks something else meanwhile is answered first. */
export async function nextFor(
  map: MapAnswer,
  all: readonly Entry[],
  phrasesOf: (ids: readonly string[]) => Promise<readonly Phrase[]>,
  scene: Scene,
): Promise<readonly Step[]> {
  const pause = slices();
  const steps: Step[] = [];
  const looked = [...map.empty].sort((a, b) => b.from.length - a.from.length).slice(0, MOST_LOOKED);
  for (const { row, column } of looked) {
    const wanted = { traits: map.traits, row, column };
    const from = beside(wanted, all);
    steps.push(...stepsFor(wanted, from, await phrasesOf(from.map((e) => e.id)), scene));
    await pause();
  }
  return nextToLearn(steps);
}
