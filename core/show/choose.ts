import { chanceWords } from '../player';
import type { Pattern } from '../pattern';
import type { Kit } from '../kit';
import type { Family } from '../recipe';
import type { Cue, Facts, Show, Spot } from '../shelf';
import { fillShow } from './fill';
import { fitOf, meetsCounts, noFitWords, type FitWay, type NoFit } from './fits';
import { chanceOn, minutesTo, type NightPhrase } from './night';
import { goodSpots } from './room';

/** A phrase of the shelf as a show sees it. */
export interface ShowPhrase extends NightPhrase {
  readonly id: string;
  readonly name: string;
  readonly family: Family;
  readonly tags: readonly string[];
  readonly parent: string | null;
  readonly facts: Facts;
}

/** A phrase that stands in a spot: how, how surely it is ready that night, and the minutes it takes to be safe. */
export interface SpotFit {
  readonly phrase: string;
  readonly name: string;
  readonly way: FitWay;
  readonly chance: number;
  /** Null where it cannot be safe by then. */
  readonly minutes: number | null;
  readonly tried: boolean;
}

/** A spot with all that stands in it, the surest first, or why nothing does. */
export interface SpotChoice {
  readonly cue: string;
  readonly spot: string;
  readonly fits: readonly SpotFit[];
  readonly none: readonly NoFit[];
}

export interface ShowScene {
  readonly kit: Kit | null;
  readonly today: number;
  /** What is played of a phrase: asked only where counts have to be met. Null where it cannot be had. */
  readonly patternOf: (id: string) => Pattern | null;
}

/** This tag on a phrase: it is played once a night. */
export const SHOWPIECE = 'showpiece';
/** So many phrases are told of a spot. */
const MOST_FITS = 200;

/** The night that is looked ahead to: that of the show, today where it has none or has passed. */
export const nightOf = ({ day }: Pick<Show, 'day'>, today: number): number => Math.max(today, day ?? today);

/** What stands in each spot of a show. What cannot be played at the cue's tempo is told last, with no chance. */
export function choicesOf(show: Show, phrases: readonly ShowPhrase[], scene: ShowScene): readonly SpotChoice[] {
  return show.cues.flatMap((cue) => goodSpots(cue).map((spot) => choiceOf(show, cue, spot, phrases, scene)));
}

function choiceOf(
  show: Pick<Show, 'day'>,
  cue: Cue,
  spot: Spot,
  phrases: readonly ShowPhrase[],
  { kit, today, patternOf }: ShowScene,
): SpotChoice {
  const none: NoFit[] = [];
  const found: { readonly phrase: ShowPhrase; readonly way: FitWay; readonly chance: number }[] = [];
  const when = { today, night: nightOf(show, today) };
  for (const phrase of phrases) {
    const fit = fitOf(spot, cue, phrase, kit);
    if (!fit.fits) {
      none.push(fit.why);
      continue;
    }
    const asks = spot.hits.length + spot.free.length > 0;
    const pattern = asks ? patternOf(phrase.id) : null;
    if (asks && (!pattern || !meetsCounts(pattern, spot, fit.way))) none.push('counts');
    else found.push({ phrase, way: fit.way, chance: chanceOn(phrase, cue.tempo, when, 0) });
  }
  const order = (way: FitWay): number => ['as written', 'moved', 'repeated', 'its end'].indexOf(way.kind);
  const fits = found
    .sort((a, b) => b.chance - a.chance || order(a.way) - order(b.way) || (a.phrase.id < b.phrase.id ? -1 : 1))
    .slice(0, MOST_FITS)
    .map(({ phrase, way, chance }): SpotFit => ({
      phrase: phrase.id,
      name: phrase.name,
      way,
      chance,
      minutes: minutesTo(phrase, cue.tempo, when),
      tried: phrase.known.tries > 0,
    }));
  return { cue: cue.id, spot: spot.id, fits, none };
}

/** Whether two phrases are too alike to be neighbours: the same, turned or mirrored, or one grown from the other. */
export function tooAlike(a: ShowPhrase, b: ShowPhrase): boolean {
  return a.id === b.id || a.facts.form === b.facts.form || a.parent === b.id || b.parent === a.id;
}

/** What is played in a spot, and why. */
export interface Choice {
  readonly cue: string;
  readonly spot: string;
  readonly phrase: string | null;
  readonly words: string;
}

/** The filling of a show. */
export interface ShowFilled {
  readonly choices: readonly Choice[];
  readonly exact: boolean;
}

/** One phrase for each spot, those chosen by hand held: see `fillShow`. */
export function filledShow(show: Show, all: readonly SpotChoice[], phrases: readonly ShowPhrase[]): ShowFilled {
  const place = new Map(phrases.map((p, i) => [p.id, i]));
  const spots = new Map(show.cues.flatMap((c) => c.spots).map((s) => [s.id, s]));
  const at = (i: number): ShowPhrase | undefined => phrases[i];
  const pins = all.map(({ spot: id }) => {
    const own = spots.get(id);
    return own?.pinned && own.phrase !== null ? (place.get(own.phrase) ?? null) : null;
  });
  const mostOf = (i: number): number => (at(i)?.tags.includes(SHOWPIECE) ? 1 : show.most);
  const alike = (a: number, b: number): boolean => {
    const [x, y] = [at(a), at(b)];
    return x !== undefined && y !== undefined && tooAlike(x, y);
  };
  const { chosen, exact } = fillShow({
    spots: all.map(({ fits }, i) => ({
      options: fits.flatMap((f) => {
        const own = place.get(f.phrase);
        return own === undefined || f.chance <= 0 ? [] : [{ phrase: own, chance: f.chance }];
      }),
      pinned: pins[i] ?? null,
    })),
    phrases: phrases.length,
    most: mostOf,
    alike,
  });
  const used = (i: number): number => chosen.filter((c) => c === i).length;
  const choices = all.map((choice, i): Choice => {
    const own = chosen[i] ?? null;
    const phrase = own === null ? null : (at(own)?.id ?? null);
    const base = { cue: choice.cue, spot: choice.spot, phrase };
    if (pins[i] !== null && pins[i] !== undefined) return { ...base, words: 'You chose it.' };
    if (phrase === null) return { ...base, words: emptyWords(choice) };
    const fit = choice.fits.find((f) => f.phrase === phrase);
    const surer = choice.fits.find((f) => f.chance > (fit?.chance ?? 0) + 1e-9);
    if (choice.fits.filter((f) => f.chance > 0).length === 1) return { ...base, words: 'Nothing else fits.' };
    if (!surer) return { ...base, words: 'The surest here.' };
    const other = place.get(surer.phrase) ?? -1;
    const beside = [chosen[i - 1], chosen[i + 1]].some((c) => c !== null && c !== undefined && alike(c, other));
    const why = beside
      ? 'too like its neighbour'
      : used(other) >= mostOf(other)
        ? 'played elsewhere'
        : 'better kept for another spot';
    return { ...base, words: `${surer.name.slice(0, 60)} is surer (${chanceWords(surer.chance)}), but ${why}.` };
  });
  return { choices, exact };
}

function emptyWords({ fits, none }: SpotChoice): string {
  if (fits.length === 0) return noFitWords(none);
  return fits.every((f) => f.chance <= 0)
    ? 'What fits is too fast to play at this tempo.'
    : 'What fits is played elsewhere or too like its neighbours.';
}

/** A show with the phrases of a filling in its spots. */
export function withChoices(show: Show, { choices }: Pick<ShowFilled, 'choices'>): Show {
  const by = new Map(choices.map((c) => [c.spot, c.phrase]));
  return {
    ...show,
    cues: show.cues.map((cue) => ({
      ...cue,
      spots: cue.spots.map((s) => (s.pinned || !by.has(s.id) ? s : { ...s, phrase: by.get(s.id) ?? null })),
    })),
  };
}
