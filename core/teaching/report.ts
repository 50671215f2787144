import { isEvidence, type Attempt, type Measured, type StageMark } from '../drill';
import type { Phrase } from '../recipe';
import { isOwn } from './update';
import {
  LESSON_LIMITS,
  REPORT_FORMAT,
  REPORT_SOURCES,
  REPORT_VERSION,
  type Report,
  type ReportItem,
  type ReportSource,
  type ReportTry,
  type TakenLesson,
} from '../lesson';

/**
 * What a pupil sends back: of the lesson's phrases alone, the tries since it was taken that were played on a drum or a
 * pad, without notes and without anything typed but the pupil's name and questions.
 * @param shelf the phrases of the pupil's shelf, by their ids
 * @param tries the tries of the shelf, in any order; those of other phrases are passed over
 * @param at when it is made, in milliseconds since 1970
 */
export function reportOf(
  taken: TakenLesson,
  shelf: ReadonlyMap<string, Phrase>,
  tries: readonly Attempt[],
  at: number,
): Report {
  const ids = new Map(taken.phrases.map((p) => [p.item, p.phrase]));
  return {
    format: REPORT_FORMAT,
    version: REPORT_VERSION,
    lesson: taken.came.id,
    edition: taken.came.edition,
    pupil: taken.pupil,
    from: taken.from,
    made: at,
    since: taken.since,
    items: taken.came.items.flatMap((item): ReportItem[] => {
      const id = ids.get(item.id);
      if (id === undefined) return [];
      const phrase = shelf.get(id);
      const own = tries
        .filter((t) => t.phrase === id && !t.off && t.at >= taken.since && isEvidence(t))
        .sort((a, b) => a.at - b.at || (a.id < b.id ? -1 : 1));
      return [
        {
          item: item.id,
          stands: !phrase ? 'taken off' : isOwn(phrase, item.phrase) ? 'changed' : 'as it came',
          tries: own.slice(-LESSON_LIMITS.tries).map(travellingTry),
          many: own.length,
          seconds: Math.round(own.reduce((sum, t) => sum + t.seconds, 0)),
        },
      ];
    }),
    questions: taken.questions,
  };
}

/** Field by field, so that nothing leaves that is not named here. */
function travellingTry(t: Attempt): ReportTry {
  const drilled = t.drilled && travellingStage(t.drilled);
  const measured = t.measured && travellingMeasured(t.measured);
  return {
    at: t.at,
    bpm: t.bpm,
    loops: t.loops,
    seconds: t.seconds,
    verdict: t.verdict,
    by: sourceOf(t.source),
    ...(drilled && { drilled }),
    ...(measured && { measured }),
  };
}

function sourceOf(source: string | undefined): ReportSource {
  return REPORT_SOURCES.find((s) => s === source) ?? 'ear';
}

/** A stage by what it is; what was typed for it stays at home. */
function travellingStage({ kind, part, bars, family }: StageMark): StageMark {
  const typed = part?.of === 'asked' || part?.of === 'earlier';
  return { id: kind, kind, ...(part && !typed && { part }), ...(bars && { bars }), ...(family && { family }) };
}

function travellingMeasured({ mean, spread, missed, extra, strokes, drift, limbs, finding }: Measured): Measured {
  return {
    mean,
    spread,
    missed,
    extra,
    strokes,
    drift,
    limbs: limbs.map((l) => ({ limb: l.limb, mean: l.mean, spread: l.spread })),
    // Of findings from before only a sentence is left, which may say anything.
    ...(finding && finding.kind !== 'earlier' && { finding }),
  };
}
