import { computed, effect, inject, Injectable, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { distinctUntilChanged, map, of, switchMap } from 'rxjs';
import { stableJson } from '@core/base';
import {
  isEvidence,
  NO_BEST,
  ofPhrase,
  proposeStages,
  suggestLadder,
  timeOf,
  type Attempt,
  type Best,
  type DrillPlan,
  type Stage,
  shownTempo,
} from '@core/drill';
import { backs, type Clip } from '@core/listen';
import type { Pattern } from '@core/pattern';
import {
  evidenceOf,
  learnt,
  onDay,
  readySaid,
  SURE,
  tempoAt,
  unknownYet,
  USUAL_SHARE,
  type Belief,
  type Known,
  type ReadySaid,
  type WholeTry,
} from '@core/player';
import { ceilingOn, raises } from '@core/reach';
import { now, practiceDay, today } from '../../environment/clock';
import type { Phrase } from '@core/recipe';
import { patternOf } from '../../knowledge/patterns';
import { ClipsRepo } from '../../storage/clips.repo';
import { DrillsRepo } from '../../storage/drills.repo';
import { KitsRepo } from '../../storage/kits.repo';
import { PhrasesRepo } from '../../storage/phrases.repo';
import { SettingsRepo } from '../../storage/settings.repo';
import { AbleService } from '../../knowledge/able.service';
import { ShelfIndex } from '../../knowledge/shelf-index.service';
import { inSlices } from '../../common/idle';

/** The most grooves of the shelf that are offered to keep the time: each is worked out to know whether it fits. */
const MOST_GROOVES = 60;

interface Groove {
  readonly id: string;
  readonly name: string;
  readonly recipe: Phrase['recipe'];
  readonly pattern: Pattern;
}

/** In a phrase of more strokes it is not looked for what would raise its ceiling. */
const MOST_RAISED = 600;

/** Clean loops that a rung asks for, unless the player says otherwise. */
export const LOOPS = 4;
/** Before so many tries of it nothing is said to be sure. */
const FEW = 5;

/**
 * The phrase that is drilled, as it is written: what is known of it, and what follows for its stages and its ladder.
 * Provided by the room.
 */
@Injectable()
export class SubjectStore {
  private readonly phrases = inject(PhrasesRepo);
  private readonly drills = inject(DrillsRepo);
  private readonly kits = inject(KitsRepo);
  private readonly clips = inject(ClipsRepo);
  private readonly able = inject(AbleService);
  private readonly settings = inject(SettingsRepo);
  private readonly index = inject(ShelfIndex);
  /** What the other phrases say of the player: it comes in a moment later. */
  private readonly share = signal<Belief>(USUAL_SHARE);
  /** The goal as shows want it; null until it is known. */
  private readonly wanted = signal<number | null>(null);
  private readonly shelf = toSignal(this.phrases.grooves$(MOST_GROOVES), { initialValue: null });
  private readonly state = signal<{
    readonly phrase: Phrase;
    readonly best: Best;
    readonly tries: readonly Attempt[];
  } | null>(null);

  readonly phrase = computed(() => this.state()?.phrase ?? null);
  readonly best = computed(() => this.state()?.best ?? NO_BEST);
  /** Its goal, in counted bpm: what the next show wants of it, else its own. */
  readonly goal = computed(() => this.wanted() ?? this.phrase()?.goal ?? 100);
  private readonly stands = toSignal(
    toObservable(this.state).pipe(
      switchMap((s) =>
        s ? this.phrases.of$(s.phrase.id).pipe(map((p) => ({ id: s.phrase.id, phrase: p }))) : of(null),
      ),
    ),
    { initialValue: null },
  );
  /** What became of the phrase elsewhere while it is drilled; null while it stands as it was. */
  readonly elsewhere = computed((): 'removed' | 'changed' | null => {
    const [own, stands] = [this.phrase(), this.stands()];
    if (!own || stands?.id !== own.id) return null;
    if (!stands.phrase) return 'removed';
    return stableJson(stands.phrase.recipe) === stableJson(own.recipe) ? null : 'changed';
  });
  readonly whole = computed(() => {
    const phrase = this.phrase();
    return phrase ? patternOf(phrase) : null;
  });
  private readonly clip = toSignal(
    toObservable(this.phrase).pipe(
      map((phrase) => phrase?.id),
      distinctUntilChanged(),
      switchMap((id) => (id === undefined ? of(null) : this.clips.of$(id))),
    ),
    { initialValue: null },
  );
  /** The bars of the record that are kept with the phrase; null where there are none, or of another meter. */
  readonly record = computed((): Clip | null => {
    const [clip, whole] = [this.clip(), this.whole()];
    return clip && whole && backs(clip, whole.meter) ? clip : null;
  });
  /** The grooves of the shelf that can keep the time before this phrase. */
  readonly grooves = computed((): readonly Groove[] => {
    const whole = this.whole();
    return this.worked().filter((g) => whole && g.id !== this.phrase()?.id && timeOf(g.pattern, whole.meter, 1));
  });
  private readonly worked = signal<readonly Groove[]>([]);
  readonly proposed = computed((): readonly Stage[] => {
    const [whole, phrase] = [this.whole(), this.phrase()];
    if (!whole || !phrase || whole.strokes.length === 0) return [];
    return proposeStages(whole, phrase.family, this.record() !== null);
  });
  /** How fast it can go on the current kit, by what is known of the drummer; null when nothing limits it. */
  readonly ceiling = computed(() => {
    const whole = this.whole();
    if (!whole) return null;
    const shown = shownTempo(this.best().shown ?? [], this.phrase()?.changed ?? 0, now());
    const { bpm, rests } = this.able.top(whole, shown);
    if (bpm === null) return null;
    return { bpm, rests, pair: ceilingOn(whole, this.kits.current(), this.able.now()).pairs[0] ?? null };
  });
  /** The change that raises the ceiling most; worked out when it is asked for. */
  readonly raise = computed(() => {
    const whole = this.whole();
    if (!whole || whole.strokes.length > MOST_RAISED) return null;
    const [best] = raises(whole, this.kits.current(), this.able.now(), this.settings.schools());
    return best ? { words: this.kits.said(best.words), bpm: Math.floor(best.bpm) } : null;
  });
  /** What is believed of the player and this phrase today; null before any try, and where nothing limits it. */
  readonly known = computed(
    (): { readonly belief: Belief; readonly known: Known; readonly ready: ReadySaid } | null => {
      const [state, top] = [this.state(), this.ceiling()];
      if (!state || !top) return null;
      const tries = state.tries.flatMap((t) => evidenceOf(t, practiceDay) ?? []).filter((t) => t.day <= today());
      if (tries.length === 0) return null;
      const known = learnt(unknownYet(top.bpm, tries[0]?.day ?? 0, this.share()), tries);
      const belief = onDay(known, today());
      const wholes = state.tries.flatMap((t): WholeTry[] =>
        isEvidence(t) && ofPhrase(t) ? [{ day: practiceDay(t.at), bpm: t.bpm, clean: t.verdict === 'clean' }] : [],
      );
      return { known, belief, ready: readySaid(belief, wholes, top.bpm) };
    },
  );
  /** The tempo at which nine of ten are clean; null before the first few tries. */
  private readonly sure = computed(() => {
    const known = this.known();
    return known && known.known.tries >= FEW ? tempoAt(known.belief, SURE) : null;
  });
  readonly suggestion = computed(() =>
    suggestLadder(this.goal(), this.best().lastClean, this.ceiling()?.bpm ?? null, this.sure()),
  );
  readonly suggestedPlan = computed<DrillPlan>(() => ({
    start: this.suggestion().start,
    step: this.suggestion().step,
    goal: this.goal(),
    loops: LOOPS,
  }));

  constructor() {
    // Many grooves are worked out between frames: the room is there before them.
    effect((onCleanup) => {
      const found: Groove[] = [];
      const each = (p: Phrase): void => {
        found.push({ id: p.id, name: p.name, recipe: p.recipe, pattern: patternOf(p) });
      };
      onCleanup(inSlices(this.shelf() ?? [], each, () => this.worked.set(found)));
    });
  }

  /** The groove that keeps the time in a stage; null for plain time, and where it is gone. */
  grooveOf(stage: Stage | null): { readonly recipe: Phrase['recipe']; readonly pattern: Pattern } | null {
    return this.grooves().find((g) => g.id === stage?.groove) ?? null;
  }

  /** Takes up a phrase of the shelf with its log. False when there is no such phrase. */
  async take(id: string): Promise<boolean> {
    const phrase = await this.phrases.get(id);
    if (!phrase) {
      this.state.set(null);
      return false;
    }
    this.wanted.set(null);
    this.state.set({ phrase, best: await this.drills.bestOf(id), tries: await this.drills.lastTriesOf(id) });
    void this.index.goalOf(id).then((goal) => {
      if (this.phrase()?.id === id) this.wanted.set(goal?.goal ?? null);
    });
    void this.index.shareFor(id).then((share) => {
      if (this.phrase()?.id === id) this.share.set(share);
    });
    return true;
  }
}
