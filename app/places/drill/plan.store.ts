import { computed, inject, Injectable, linkedSignal } from '@angular/core';
import { moveItemInArray } from '@angular/cdk/drag-drop';
import { loopTicks } from '@core/pattern';
import { isHand } from '@core/stroke';
import {
  aboveCeiling,
  contextStage,
  fitsEveryBeat,
  growthStages,
  stagesBefore,
  offeredLadders,
  simpleStage,
  stageTitle,
  stageRungs,
  type DrillPlan,
  type Growth,
  type LadderSchool,
  type NewStage,
  type SimpleStage,
  type Stage,
  type StageKind,
} from '@core/drill';
import { drillSeconds, rendition } from '@core/rendition';
import type { RunningBlock } from '@core/plan';
import { LessonWords } from '../../knowledge/lesson-words.service';
import type { Choice } from '../../widgets/choice';
import { chancesOf } from './chances';
import { COUNT_IN_BARS } from './drill.store';
import { SubjectStore } from './subject.store';

/** What a player can add to the stages that are proposed. */
export type Addition =
  | { readonly kind: 'simple'; readonly stage: SimpleStage }
  | { readonly kind: 'grow'; readonly by: Growth }
  | { readonly kind: 'context'; readonly bars: number };

const MOST_STAGES = 40;
/** Steps of a share are this wide until the player says otherwise, in per cent. */
const USUAL_SHARE = 8;

/** What a drill is to be, before it begins: proposed, and changed by the player. Provided by the room. */
@Injectable()
export class PlanStore {
  private readonly subject = inject(SubjectStore);
  private readonly lessons = inject(LessonWords);
  /** What the player changed; it holds for this phrase, whatever comes in late about the kit or the log. */
  private readonly ownStages = linkedSignal<string | undefined, readonly Stage[] | null>({
    source: () => this.subject.phrase()?.id,
    computation: () => null,
  });
  private readonly ownLadder = linkedSignal<string | undefined, Partial<DrillPlan>>({
    source: () => this.subject.phrase()?.id,
    computation: () => ({}),
  });
  readonly stages = computed(
    (): readonly Stage[] => this.ownStages() ?? this.lesson()?.plan?.stages ?? this.subject.proposed(),
  );
  readonly ladder = computed((): DrillPlan => ({
    ...this.subject.suggestedPlan(),
    ...this.lessonsLadder(),
    ...this.ownLadder(),
  }));
  readonly plan = computed((): DrillPlan => ({
    ...this.ladder(),
    ...(this.stages().length > 0 ? { stages: [...this.stages()] } : {}),
  }));
  /** What a lesson sets for this phrase; null where none does. */
  private readonly lesson = computed(() => this.lessons.of(this.subject.phrase()?.id)?.item ?? null);
  /** The ladder that a lesson sets, to the player's own goal, and never from below what was clean already. */
  private readonly lessonsLadder = computed((): Partial<DrillPlan> => {
    const plan = this.lesson()?.plan;
    if (!plan) return {};
    const { goal, start } = this.subject.suggestedPlan();
    const { stages: _, ...rest } = plan;
    return { ...rest, goal, start: Math.min(goal, Math.max(plan.start, this.subject.best().lastClean ? start : 0)) };
  });
  readonly rungs = computed(() => stageRungs(this.ladder(), undefined));
  /** One to three ladders to take as they are. */
  readonly offers = computed(() => {
    const { start, goal, step, ladder } = this.ladder();
    return offeredLadders(start, goal, ladder === 'percent' ? this.subject.suggestion().step : step);
  });
  /** What is believed of this ladder; null before any try. */
  readonly chances = computed(() => {
    const known = this.subject.known();
    return known && chancesOf(known, this.rungs(), this.ladder().goal);
  });
  /** What of this ladder the player cannot do on their kit; null where nothing limits it, or it stays below. */
  readonly above = computed(() => {
    const top = this.subject.ceiling();
    return top && aboveCeiling(this.rungs(), this.ladder().goal, top.bpm);
  });
  /** About how long the whole takes, in minutes, if every rung passes at once. */
  readonly minutes = computed(() => {
    const [phrase, plan] = [this.subject.whole(), this.plan()];
    if (!phrase) return 0;
    const loopOf = (stage: Stage | undefined): number => {
      const groove = this.subject.grooveOf(stage ?? null)?.pattern ?? null;
      return loopTicks(rendition({ phrase, stage: stage ?? null, groove }).pattern);
    };
    return Math.max(1, Math.round(drillSeconds(plan, phrase.meter, loopOf, COUNT_IN_BARS) / 60));
  });
  readonly additions = computed((): readonly Choice<Addition>[] => {
    const phrase = this.subject.whole();
    const simple = (stage: SimpleStage): Choice<Addition> => ({
      value: { kind: 'simple', stage },
      words: stageTitle({ kind: stage }),
    });
    const grow = (by: Growth, words: string): Choice<Addition> => ({ value: { kind: 'grow', by }, words });
    return [
      simple('say'),
      simple('skeleton'),
      simple('voices'),
      grow('beat', 'Grow beat by beat'),
      grow('four', 'Grow four at a time'),
      grow('note', 'Grow note by note'),
      grow('ingredient', 'Put it together: kick and snare, time, ghosts, grace strokes'),
      simple('steady-foot'),
      ...(this.subject.record() ? [simple('record')] : []),
      simple('free'),
      ...(phrase && fitsEveryBeat(phrase) ? [simple('every-beat')] : []),
      ...[1, 2, 3, 7].map((bars): Choice<Addition> => ({
        value: { kind: 'context', bars },
        words: stageTitle(contextStage(bars, this.what())),
      })),
    ];
  });

  /** What the phrase is called in the titles of stages. */
  private what(): 'fill' | 'lick' {
    return this.subject.phrase()?.family === 'lick' ? 'lick' : 'fill';
  }

  /** Another start, goal, step or hold. Tempos that were typed give way to a ladder. */
  set(part: Partial<Omit<DrillPlan, 'rungs'>>): void {
    const climbs = 'start' in part || 'goal' in part || 'step' in part || 'ladder' in part;
    this.ownLadder.update((own) => ({ ...(climbs ? without(own, 'rungs') : own), ...part }));
  }

  setSchool(school: LadderSchool): void {
    const step = school === 'percent' ? USUAL_SHARE : this.subject.suggestion().step;
    this.set({ ladder: school, ...(school === 'percent' || school === 'steps' ? { step } : {}) });
  }

  /** The tempos as they were typed; the highest is where the drill ends. */
  setRungs(rungs: readonly number[]): void {
    this.ownLadder.update((own) => ({
      ...own,
      rungs: [...rungs],
      start: Math.min(...rungs),
      goal: Math.max(...rungs),
    }));
  }

  /** The ladder ends at a tempo: what lies above it goes, and the goal is it. */
  endAt(bpm: number): void {
    const { rungs, start } = this.ladder();
    if (!rungs) return this.set({ goal: bpm, start: Math.min(start, bpm) });
    this.setRungs([...rungs.filter((r) => r < bpm), bpm]);
  }

  /** Whether there are loud and soft strokes of the hands, so that one can be asked to stand out. */
  readonly hasHeights = computed(() => {
    const hands = this.subject.whole()?.strokes.filter((s) => isHand(s.limb)) ?? [];
    return hands.some((s) => s.level === 'accent') && hands.some((s) => s.level !== 'accent');
  });

  /** By how many decibels accents must lie above ghosts; 0 where that is not judged. */
  setHeights(heights: number): void {
    this.ownLadder.update((own) => ({ ...without(own, 'heights'), ...(heights > 0 ? { heights } : {}) }));
  }

  holdBy(kind: 'loops' | 'bars' | 'minutes'): void {
    if (kind === 'loops') this.ownLadder.update((own) => without(own, 'hold'));
    else this.set({ hold: { kind, n: kind === 'bars' ? 8 : 2 } });
  }

  holdFor(n: number): void {
    const { hold } = this.ladder();
    this.set(hold ? { hold: { kind: hold.kind, n } } : { loops: n });
  }

  moveStage(from: number, to: number): void {
    const next = [...this.stages()];
    if (to < 0 || to >= next.length) return;
    moveItemInArray(next, from, to);
    this.ownStages.set(next);
  }

  dropStage(id: string): void {
    if (this.stages().length > 1) this.ownStages.set(this.stages().filter((s) => s.id !== id));
  }

  /** Stages that are not proposed by themselves: what grows comes first, the rest last. */
  add(what: Addition): void {
    const phrase = this.subject.whole();
    if (!phrase) return;
    const own = this.stages();
    const free = (id: string): string => (own.some((s) => s.id === id) ? free(`${id}+`) : id);
    const named = (stage: NewStage): Stage => ({ ...stage, id: free(`${stage.kind}-${stage.bars ?? 0}`) });
    switch (what.kind) {
      case 'grow':
        return this.put(
          stagesBefore(
            growthStages(phrase, what.by).map((s) => ({ ...s, id: free(s.id) })),
            own,
            phrase,
          ),
        );
      case 'context':
        return this.put([...own, named(contextStage(what.bars, this.what()))]);
      case 'simple':
        // What is said is said first.
        return this.put(
          what.stage === 'say' ? [named(simpleStage('say')), ...own] : [...own, named(simpleStage(what.stage))],
        );
    }
  }

  /** The phrase as it is, without the way there. */
  onlyWhole(): void {
    this.put([{ ...simpleStage('whole'), id: 'whole' }]);
  }

  /** One part alone, from the tempo that was asked for. */
  onlyPart(stage: NewStage): void {
    this.put([{ ...stage, id: 'asked' }]);
  }

  /** What a block of the day asks for. */
  ofBlock({ kind, stage, from }: RunningBlock): void {
    const goal = this.subject.goal();
    const own = (kinds: readonly StageKind[]): readonly NewStage[] =>
      this.subject.proposed().filter((s) => kinds.includes(s.kind));
    const whole = simpleStage('whole');
    const mended = stage === null ? [] : own([stage]).slice(0, 1);
    const alone = stage === 'bare' || stage === 'dynamics' || stage === 'skeleton' || stage === 'steady-foot';
    const first: readonly NewStage[] = mended.length > 0 ? mended : alone ? [simpleStage(stage)] : [];
    const stages: readonly NewStage[] =
      kind === 'play'
        ? [simpleStage('free')]
        : kind === 'mend'
          ? [...first, whole]
          : stage !== null
            ? first
            : kind === 'rise'
              ? [whole, ...own(['context'])]
              : kind === 'new'
                ? []
                : [whole];
    if (stages.length > 0) this.put(stages.map((s, i) => ({ ...s, id: `b${i}` })));
    if (from === null) return;
    // What is kept, or warms up, stays at its tempo.
    const stays = kind === 'keep' || kind === 'warm-up';
    this.set({ start: from, goal: stays ? from : Math.max(from, goal) });
  }

  proposeAnew(): void {
    this.ownStages.set(null);
  }

  /** What keeps time before the phrase in a stage: a groove of the shelf by its id, or plain time. */
  keepTime(id: string, groove: string | null): void {
    this.put(this.stages().map((s) => (s.id !== id ? s : groove === null ? without(s, 'groove') : { ...s, groove })));
  }

  private put(stages: readonly Stage[]): void {
    this.ownStages.set(stages.slice(0, MOST_STAGES));
  }
}

/** A value without one of its fields. */
function without<T extends object, K extends keyof T>(value: T, key: K): Omit<T, K> & T {
  const rest = { ...value };
  // eslint-disable-next-line @typescript-eslint/no-dynamic-delete
  delete rest[key];
  return rest;
}
