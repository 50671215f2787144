import {
  drillPass,
  drillStage,
  drillTempo,
  isRunning,
  lastWords,
  ofPhrase,
  stageTitle,
  type DrillState,
} from '@core/drill';

/** What is going on beside the drill's own state. */
interface Aside {
  /** The rung is only looked at, at half speed. */
  readonly slow: boolean;
  /** The device slept in the middle of a try. */
  readonly slept: boolean;
}

/** What happened last and what comes next, in one sentence at the head of the room. */
export function saidOf(drill: DrillState | null, { slow, slept }: Aside): string {
  if (slow) return 'Half speed: nothing counts. Space continues the rung.';
  const last = drill?.attempts.at(-1);
  if (!drill || (!last && !slept))
    return drill && isRunning(drill.phase) ? '' : 'Space starts, with a bar of count-in.';
  if (slept) return 'The device slept, so this try was stopped. Space starts the rung again.';
  const tempo = drillTempo(drill);
  switch (drill.phase) {
    case 'done':
      return last && last.verdict === 'clean' && last.bpm >= drill.plan.goal && ofPhrase(last)
        ? `Goal ${drill.plan.goal} was clean.`
        : last?.verdict === 'clean'
          ? `Done: ${last.bpm} was clean.`
          : 'Done.';
    case 'stopped':
      return `Stopped at ${tempo}. The drill waits here.`;
    case 'ready': {
      const stage = drillStage(drill);
      if (stage && last?.verdict === 'clean' && drill.rung === 0)
        return `${last.bpm} was clean. Next: ${stageTitle(stage)}.`;
      return `You stopped at ${tempo}. Space continues.`;
    }
    case 'count-in':
    case 'playing':
    case 'judging': {
      if (!last) return '';
      const pass = drillPass(drill);
      if (last.verdict === 'clean' && pass && last.bpm === tempo)
        return `${last.bpm} was clean ${last.dynamic}. Now ${pass}.`;
      if (last.verdict === 'clean') return `${last.bpm} was clean.`;
      return lastWords(drill);
    }
  }
}
