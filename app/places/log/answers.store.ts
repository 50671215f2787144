import { computed, effect, inject, Injectable, resource, signal } from '@angular/core';
import type { Attempt } from '@core/drill';
import type { Cell } from '@core/formats/csv';
import {
  breaksIn,
  breaksOf,
  failsByTempo,
  gettingThere,
  isItTooMuch,
  limbsByDay,
  onlyApart,
  whatIsAvoided,
  whatWasPractised,
  whereItBreaks,
  whichLimbLags,
  whyRungsFail,
  type Break,
  type PracticeDay,
} from '@core/log';
import { countingOf, placeWords, type Pattern } from '@core/pattern';
import { countAt, parseMeter } from '@core/time';
import type { PlanDays } from '@core/plan';
import { build, FAMILIES, type Phrase } from '@core/recipe';
import { figurePattern, figureWords, whatIsBeside, whatIsNeverUsed, whatIsUsed } from '@core/usage';
import type { Rendition } from '@core/rendition';
import { readAgain, type KeptTake, type TakeReading } from '@core/take';
import { isoDay, practiceDay } from '../../environment/clock';
import { DayService } from '../../environment/day.service';
import { SettingsRepo } from '../../storage/settings.repo';
import { patternOf } from '../../knowledge/patterns';
import { ShelfIndex } from '../../knowledge/shelf-index.service';
import { TodayRepo } from '../../storage/today.repo';
import { neverChart, usesChart } from './charts/use';
import { avoidedChart, breaksChart, failsChart, limbsChart, loadChart, minutesChart } from './charts/bars';
import type { ChartModel } from './charts/model';
import { readyDays, tempoChart } from './charts/tempo';
import { inSlices } from '../../common/idle';
import { isOfUse, type Question } from './questions';

/** An answer: a sentence, a drawing, and its values as a table. */
export interface Answer {
  readonly title: string;
  /** Null where there is nothing to draw yet. */
  readonly drawn: ((width: number) => ChartModel) | null;
  /** Worked out when it is saved. */
  readonly csv: () => readonly (readonly Cell[])[];
}

/** A figure that came often and is not on the shelf. */
export interface Beside {
  readonly pattern: Pattern;
  readonly bpm: number;
  readonly words: string;
}

/** What is asked, and about what. */
export interface Asked {
  readonly question: Question;
  readonly phrase: Phrase | null;
  readonly best: number | null;
  /** Newest first. */
  readonly tries: readonly Attempt[];
  /** How many more there are that the player did not play on a drum. */
  readonly apart: number;
  readonly takes: readonly { readonly take: KeptTake; readonly meant: Rendition }[];
}

/** So many takes are held against as many before. */
const NEWEST = 8;

/** The answers of the Log: what is asked is told by the place. Provided by the Log. */
@Injectable()
export class AnswersStore {
  private readonly index = inject(ShelfIndex);
  private readonly settings = inject(SettingsRepo);
  private readonly todays = inject(TodayRepo);
  private readonly clock = inject(DayService);
  readonly asked = signal<Asked>({ question: 'there', phrase: null, best: null, tries: [], apart: 0, takes: [] });
  private readonly phraseId = computed(() => this.asked().phrase?.id ?? null);
  private readonly log = resource({
    // What is asked is told in many steps: as long as it is of the same phrase it is read once.
    params: computed(() => ({ id: this.phraseId(), turn: this.index.changed() })),
    loader: ({ params }) =>
      params.id === null
        ? Promise.resolve(null)
        : this.index.phraseLog(params.id).then((l) => ({ ...l, id: params.id })),
  });
  private readonly back = resource({
    params: () => this.index.changed(),
    loader: () => this.index.lookBack(),
  });
  /** What is used in free play; it is read where it is asked for. */
  private readonly usage = resource({
    params: () => (isOfUse(this.asked().question) ? this.index.changed() : undefined),
    loader: () => this.index.usage(),
  });
  /** What came often and is not on the shelf, where that is asked. */
  readonly figures = computed((): readonly Beside[] => {
    const usage = this.usage.hasValue() ? this.usage.value() : null;
    if (this.asked().question !== 'beside' || !usage) return [];
    return usage.figures.slice(0, 12).flatMap((f) => {
      const meter = parseMeter(f.meter);
      const pattern = meter && figurePattern(f, meter);
      return pattern ? [{ pattern, bpm: f.bpm, words: figureWords(f.times, f.sittings, f.exact) }] : [];
    });
  });
  private readonly planned = computed(() => this.byDay((p) => p.planned));
  /** Minutes that were played freely. */
  private readonly free = computed(() => this.byDay((p) => p.free / 60));
  /** Readings of the takes of the whole phrase as it stands, oldest first; they are read between frames. */
  private readonly readings = signal<readonly TakeReading[]>([]);
  /** Which phrase the takes are laid on, where it breaks is asked; null before there is one. */
  readonly brokenOn = computed((): Pattern | null => {
    const [first] = this.fitting();
    if (this.asked().question !== 'breaks' || !first) return null;
    // The phrase as it was when it was played: what stands round it in a stage is not what breaks.
    const { phrase } = this.asked();
    if (first.take.meant) return build(first.take.meant.recipe).pattern;
    return phrase && patternOf(phrase);
  });
  private readonly fitting = computed(() => {
    const { question, takes } = this.asked();
    if (question !== 'breaks') return [];
    const sorted = [...takes].sort((a, b) => b.take.at - a.take.at);
    const [newest] = sorted;
    // Those that are of the same strokes as the newest: others cannot be laid on each other.
    return sorted.filter((t) => newest && sameStrokes(t.meant.pattern, newest.meant.pattern)).slice(0, 2 * NEWEST);
  });

  constructor() {
    effect((onCleanup) => {
      const found: TakeReading[] = [];
      this.readings.set([]);
      const own = [...this.fitting()].reverse();
      onCleanup(
        inSlices(
          own,
          ({ take, meant }) => {
            const reading = readAgain(take, meant);
            if (reading) found.push(reading);
          },
          () => this.readings.set([...found]),
        ),
      );
    });
  }

  private readonly limbs = computed(() =>
    this.asked().question === 'limbs' ? limbsByDay(this.asked().tries, practiceDay) : [],
  );
  private readonly fails = computed(() => (this.asked().question === 'fails' ? failsByTempo(this.asked().tries) : []));

  /** Null while what it rests on is read. */
  readonly answer = computed((): Answer | null => {
    const today = this.clock.today();
    switch (this.asked().question) {
      case 'there':
        return this.there(today);
      case 'breaks':
        return this.breaks();
      case 'limbs': {
        const days = this.limbs();
        return {
          title: whichLimbLags(days),
          drawn: days.length > 0 ? (width) => limbsChart(days, width) : null,
          csv: () => [
            ['Day', 'Limb', 'Offset (ms)', 'Spread (ms)', 'Tries'],
            ...days.map((d) => [isoDay(d.day), d.limb, round(d.mean), round(d.spread), d.tries]),
          ],
        };
      }
      case 'fails': {
        const fails = this.fails();
        return {
          title: whyRungsFail(fails),
          drawn: fails.length > 0 ? (width) => failsChart(fails, width) : null,
          csv: () => [
            ['From (bpm)', 'To (bpm)', 'Why', 'Messy tries', 'Clean tries'],
            ...fails.flatMap((f) => [
              ...Object.entries(f.by).map(([kind, n]) => [f.from, f.until - 1, kind, n, f.clean]),
              ...(f.untold > 0 || Object.keys(f.by).length === 0
                ? [[f.from, f.until - 1, 'by ear', f.untold, f.clean]]
                : []),
            ]),
          ],
        };
      }
      case 'used':
      case 'unused':
      case 'beside':
        return this.inUse(this.asked().question);
      default:
        return this.whole(today);
    }
  });

  private byDay(of: (day: PlanDays[string]) => number): ReadonlyMap<number, number> {
    const days = Object.entries(this.todays.planDays()).map(([d, p]) => [Number(d), of(p)] as const);
    return new Map(days.filter(([, minutes]) => minutes > 0));
  }

  private there(today: number): Answer | null {
    const { phrase, best, tries, apart } = this.asked();
    const log = this.log.hasValue() ? this.log.value() : null;
    if (!phrase || log?.id !== phrase.id) return null;
    const { days, projection, ceiling } = log;
    const ready = new Map(readyDays(days, ceiling).map((r) => [r.day, r]));
    const by = phrase.by ?? null;
    if (tries.length === 0 && apart > 0) return { title: onlyApart(apart), drawn: null, csv: () => [['Day']] };
    return {
      title: gettingThere({ best, ready: log.ready, goal: phrase.goal, by, projection }, today),
      drawn: (width) => tempoChart({ days, goal: phrase.goal, by, projection, today, ceiling }, width),
      csv: () => [
        [
          'Day',
          'Best clean (bpm)',
          'Tried (bpm)',
          'Ready (bpm)',
          'Ready from (bpm)',
          'Ready to (bpm)',
          'Tries',
          'Clean',
          'Seconds',
        ],
        ...days.map((d) => {
          const r = ready.get(d.day);
          return [
            isoDay(d.day),
            d.best,
            d.tried,
            r?.bpm ?? null,
            r?.low ?? null,
            r?.high ?? null,
            d.tries,
            d.clean,
            d.seconds,
          ];
        }),
      ],
    };
  }

  private breaks(): Answer {
    const pattern = this.brokenOn();
    const readings = this.readings();
    const schools = this.settings.schools();
    const [newest] = this.fitting();
    const breaks: readonly Break[] =
      pattern && newest && readings.length > 0
        ? breaksIn(
            breaksOf(readings, newest.meant.pattern.strokes.length, NEWEST),
            { stage: newest.take.stage, played: newest.meant.pattern },
            pattern,
          )
        : [];
    const names = breaks.map(({ index }) => {
      const s = pattern?.strokes[index];
      return pattern && s
        ? {
            long: `${s.limb} on ${placeWords(pattern, s.at, schools)}`,
            short: `${s.limb} ${countAt(s.at, countingOf(pattern, schools)).text}`,
          }
        : { long: '', short: '' };
    });
    const title = pattern ? whereItBreaks(breaks, pattern, schools, Math.min(NEWEST, readings.length)) : '';
    return {
      title: title || 'No take recorded yet: let a pad or a microphone listen in Drill.',
      drawn: breaks.length > 0 ? (width) => breaksChart(breaks, names, width) : null,
      csv: () => [
        ['Stroke', 'Expected', 'Missed', 'Offset (ms)', 'Expected before', 'Missed before', 'Offset before (ms)'],
        ...breaks.map(({ now, before }, i) => [
          names[i]?.long ?? '',
          now.wanted,
          now.missed,
          now.late === null ? null : round(now.late),
          before?.wanted ?? null,
          before?.missed ?? null,
          before?.late == null ? null : round(before.late),
        ]),
      ],
    };
  }

  private inUse(question: Question): Answer | null {
    const usage = this.usage.hasValue() ? this.usage.value() : null;
    if (!usage) return null;
    const { uses, never, figures, sittings } = usage;
    if (question === 'used')
      return {
        title: whatIsUsed(uses, sittings),
        drawn: uses.length > 0 ? (width) => usesChart(uses, width) : null,
        csv: () => [
          ['Phrase', 'Times', 'Sittings', 'Slowest (bpm)', 'Fastest (bpm)', 'Begins on', 'Also another phrase (share)'],
          ...uses.map((u) => [
            u.name,
            u.times,
            u.sittings,
            u.slowest,
            u.fastest,
            u.starts.map((s) => `${s.count}: ${s.times}`).join(', '),
            round(u.unsure),
          ]),
        ],
      };
    if (question === 'unused')
      return {
        title: whatIsNeverUsed(
          never.map((n) => n.name),
          sittings,
        ),
        drawn: sittings > 0 && never.length > 0 ? (width) => neverChart(never, width) : null,
        csv: () => [['Phrase', 'Best clean (bpm)'], ...never.map((n) => [n.name, n.clean])],
      };
    return {
      title: whatIsBeside(figures, sittings),
      drawn: null,
      csv: () => [['Strokes', 'Times', 'Sittings'], ...figures.map((f) => [f.text, f.times, f.sittings])],
    };
  }

  private whole(today: number): Answer | null {
    const back = this.back.hasValue() ? this.back.value() : null;
    if (!back) return null;
    const { days, avoided } = back;
    const [planned, free] = [this.planned(), this.free()];
    switch (this.asked().question) {
      case 'practised':
        return {
          title: whatWasPractised(days, { planned, free }, today),
          drawn:
            days.length + planned.size + free.size > 0
              ? (width) => minutesChart(days, { planned, free }, today, width)
              : null,
          csv: () => [
            ['Day', ...FAMILIES.map((f) => `${f}s (min)`), 'Planned (min)', 'Free play (min)'],
            ...withFreeDays(days, free).map((d) => [
              isoDay(d.day),
              ...FAMILIES.map((f) => round((d.seconds[f] ?? 0) / 60)),
              planned.get(d.day) ?? null,
              round(free.get(d.day) ?? 0),
            ]),
          ],
        };
      case 'load':
        return {
          title: isItTooMuch(days, today),
          drawn: days.length > 0 ? (width) => loadChart(days, today, width) : null,
          csv: () => [
            ['Day', 'Strokes, right hand', 'Strokes, left hand'],
            ...days.map((d) => [isoDay(d.day), Math.round(d.R), Math.round(d.L)]),
          ],
        };
      default:
        return {
          title: whatIsAvoided(avoided),
          drawn: avoided.length > 0 ? (width) => avoidedChart(avoided, width) : null,
          csv: () => [
            ['Phrase', 'Days since', 'Chance at its goal', 'Needed in (days)'],
            ...avoided.map((a) => [a.name, a.days, round(a.sure * 100) / 100, a.night]),
          ],
        };
    }
  }
}

function sameStrokes(a: Pattern, b: Pattern): boolean {
  return (
    a.length === b.length &&
    a.strokes.length === b.strokes.length &&
    a.strokes.every((s, i) => s.at === b.strokes[i]?.at && s.limb === b.strokes[i].limb)
  );
}

/** The days that were practised, and those on which there was free play alone. */
function withFreeDays(days: readonly PracticeDay[], free: ReadonlyMap<number, number>): readonly PracticeDay[] {
  const known = new Set(days.map((d) => d.day));
  const alone = [...free.keys()].filter((d) => !known.has(d)).map((day) => ({ day, seconds: {}, R: 0, L: 0 }));
  return [...days, ...alone].sort((a, b) => a.day - b.day);
}

const round = (n: number): number => Math.round(n * 10) / 10;
